//! The shop: its settings, how they are stored, what is asked of them.

pub mod logger_key;
pub mod route;
pub mod store;
