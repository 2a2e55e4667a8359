//! The shop: its settings, how they are stored, what is asked of them.

pub mod device_units;
pub mod logger_key;
pub mod route;
pub mod store;
