//! What everything stands on: days, logs, problems at a field, curves as they travel, two hands.

pub mod at_once;
pub mod choice;
pub mod day;
pub mod drawn;
pub mod log;
pub mod problem;
