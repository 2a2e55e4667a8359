//! The crack map: straightened pictures, tracing, and faces at 1:1.

pub mod route;
mod store;
mod straighten;
