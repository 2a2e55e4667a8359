//! A real server and a real browser for the journeys, each test with its own.

mod browser;
mod glossary;
mod hand;
mod server;

pub use browser::{Browser, PATIENCE, Rules, eventually};
pub use glossary::Glossary;
pub use hand::{ENTER, Hand, Keys};
pub use server::Server;
