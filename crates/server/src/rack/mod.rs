//! The rack: a stored line a job, and only the present time added when it is read.

mod drawn;
pub mod projection;
pub mod route;
pub mod upkeep;
