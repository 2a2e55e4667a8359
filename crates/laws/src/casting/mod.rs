//! Laws of a casting as it is: its shape, its weight.

pub mod old_filler;
pub mod said;
pub mod shape;
pub mod weight;
