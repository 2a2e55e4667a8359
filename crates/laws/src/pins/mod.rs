//! Laws of cold pins and locks.

pub mod rows;
