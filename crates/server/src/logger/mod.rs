//! A thermocouple logger of the shop's own: what it posts is kept with the job.

mod lines;
pub mod route;
