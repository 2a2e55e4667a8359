//! A real server and a real browser for the journeys, each test with its own.

mod browser;
mod hand;
mod server;

pub use browser::{Browser, PATIENCE, eventually};
pub use hand::{ENTER, Hand, Keys};
pub use server::Server;
