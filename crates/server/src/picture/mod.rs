//! Pictures of a job: taken in, made harmless, kept, shown.

pub mod route;
pub mod shrink;
pub mod store;

/// Largest file that is taken, in MB of 2^20 bytes.
pub const MOST_MIB: u64 = 20;
