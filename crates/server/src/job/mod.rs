//! Jobs: their log, their view, their routes.

pub mod route;
pub mod store;
pub mod stream;
pub mod view;
