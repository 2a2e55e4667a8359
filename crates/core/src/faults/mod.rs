//! What goes wrong and what is found: causes, and how much of it is good enough.

pub mod acceptance;
pub mod afterwards;
pub mod causes;
pub mod own;
