//! What a repair takes: hours, sessions, and whether it is worth it.

pub mod booking;
pub mod durations;
pub mod repair_or_replace;
pub mod sessions;
