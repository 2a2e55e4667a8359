//! What everything stands on: days, logs, problems at a field.

pub(crate) mod choice;
pub mod day;
pub mod log;
pub mod problem;
