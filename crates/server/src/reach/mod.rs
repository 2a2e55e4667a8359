//! How the other devices of a shop find this server, and how they come to trust it.

pub mod addresses;
pub mod certificate;
pub mod qr;
pub mod route;
pub mod trust_page;
