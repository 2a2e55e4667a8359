//! A thermocouple logger of the shop's own: what it posts is kept with the job, and what it wrote into a file.

pub mod bring_in;
mod file;
mod lines;
pub mod route;
