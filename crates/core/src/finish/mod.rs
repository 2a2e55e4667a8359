//! Laws of finishing: what is done to a mended place so that it is what it has to be, and how long that takes.

mod place;
mod steps;

pub use place::{CoatedWith, FinishAs};
pub use steps::{Coat, Crown, FinishStep, coats, every_step, slag_min};
