//! Who may come in, and what the answers say of themselves.

pub mod foreign;
pub mod headers;
pub mod helper;
mod invitations;
pub mod known;
pub mod route;
mod store;
mod tries;
