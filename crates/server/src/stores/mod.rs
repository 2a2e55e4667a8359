//! The stores: what the jobs on the rack ask of them, what they took.

pub(crate) mod demand;
mod keeper;
pub mod route;

pub use demand::all as asks;
pub use keeper::{keep, settle};
