//! Laws of a crack: its hole, the tip that lies beyond what is seen.

pub mod said;
pub mod stop_hole;
pub mod tip_offset;
