//! What everything stands on: days, logs, problems at a field.

pub mod day;
pub mod log;
pub mod problem;
