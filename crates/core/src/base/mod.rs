//! What everything stands on: days, logs, problems at a field, curves as they travel.

pub(crate) mod choice;
pub mod day;
pub mod drawn;
pub mod log;
pub mod problem;
