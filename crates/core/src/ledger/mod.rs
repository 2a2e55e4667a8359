//! What the shop's own repairs and broken coupons say.

mod break_ratio;
mod calibration;

pub use break_ratio::{BreakRatio, break_ratio};
pub use calibration::{Calibration, Tenth, WithOutcome, calibration};
