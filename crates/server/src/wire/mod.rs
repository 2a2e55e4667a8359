//! What the pages get: made from what is stored and computed, never stored itself.

pub mod field;
pub mod job;
pub mod shown;
pub mod tables;
