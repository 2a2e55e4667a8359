//! The rules of repairing cast iron, pure: facts in, plan out. No I/O, no clock.

pub mod casting_weight;
pub mod day;
pub mod drill_speed;
pub mod field;
pub mod figure;
pub mod filler;
pub mod groove;
pub mod heat;
pub mod iron;
pub mod job;
pub mod log;
pub mod map;
pub mod method;
pub mod pad;
pub mod plan;
pub mod problem;
pub mod quantity;
pub mod record;
pub mod said;
pub mod seam;
pub mod shop;
pub mod sim;
pub mod stage;
pub mod stitch;
pub mod stop_hole;
