//! The laws of iron, heat and cracks, pure: what is known of a part in, figures out. No I/O, no clock, and no job.

pub mod base;
pub mod body;
pub mod casting;
pub mod crack;
pub mod heat;
pub mod iron;
pub mod map;
pub mod pins;
pub mod prep;
pub mod quantity;
pub mod render;
pub mod sim;
