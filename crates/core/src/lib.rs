//! The rules of repairing cast iron, pure: facts in, plan out. No I/O, no clock.

pub mod base;
pub mod casting;
pub mod crack;
pub mod effort;
pub mod faults;
pub mod field;
pub mod figure;
pub mod finish;
pub mod heat;
pub mod iron;
pub mod job;
pub mod ledger;
pub mod map;
pub mod method;
pub mod pins;
pub mod plan;
pub mod prep;
pub mod quantity;
pub mod record;
pub mod render;
pub mod shelf;
pub mod shop;
pub mod sim;
pub mod simulated_thermocouple;
pub mod stage;
pub mod stores;
