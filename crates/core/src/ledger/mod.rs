//! What the shop's own repairs and broken coupons say.

mod bench;
mod break_ratio;
mod calibration;
mod used_up;
mod wall;

pub use bench::{BenchLine, CouponMark, joint_strength};
pub use break_ratio::{BreakRatio, break_ratio};
pub use calibration::{Calibration, Tenth, WithOutcome, calibration};
pub use wall::{
    CaseMark, HeldLine, Honest, LearnedCase, LearnedLine, LeftOutCase, Said, TenthHeld, Wall, wall,
};
