//! A real server and a real browser for the journeys, each test with its own.

mod browser;
mod engine;
mod glossary;
mod hand;
mod lug;
mod port;
mod server;

pub use browser::{Browser, PATIENCE, Rules, eventually};
pub use glossary::Glossary;
pub use hand::{ENTER, Hand, Keys};
pub use lug::{ready_lug, set};
pub use server::{Server, binary};
