//! Who may come in, and what the answers say of themselves.

pub mod headers;
pub mod helper;
mod invitations;
pub mod known;
pub mod origin_guard;
pub mod route;
mod store;
mod tries;
