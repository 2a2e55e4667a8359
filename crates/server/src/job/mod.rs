//! Jobs: their log, their routes, their stream.

pub mod face_heat;
pub mod faces;
pub mod label;
pub mod odds_moved;
pub mod opened;
pub mod oven;
pub mod route;
pub mod store;
pub mod stream;
