//! What a practice hides: a made-up part's truth, and how chance draws from it.

mod bench;
mod draw;
mod practised;
mod seal;
mod truth;

pub use bench::{bench, gear_words};
pub use draw::Draws;
pub use practised::{Level, Practice, Practised};
pub use seal::{Broken, digest, open, seal};
pub use truth::{Gear, Hidden, TrueCrack, Truth};
