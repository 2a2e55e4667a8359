//! Pictures of a job: taken in, made harmless, kept, shown.

pub mod route;
pub mod shrink;
pub mod store;
