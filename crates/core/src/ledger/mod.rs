//! What the shop's own repairs and broken coupons say.

mod ask;
mod bench;
mod break_ratio;
mod calibration;
mod fault_lines;
mod held;
mod honest;
mod learned_lines;
mod practice_lines;
mod prices;
mod said;
mod settings;
mod splits;
mod used_up;
mod wall;

pub use ask::{LedgerAnswer, QUESTION_MOST, ask};
pub use bench::{BenchLine, CouponMark, joint_strength};
pub use break_ratio::{BreakRatio, break_ratio};
pub use calibration::{Calibration, Tenth, WithOutcome, calibration};
pub use fault_lines::{FaultCause, FaultLine};
pub use held::{CaseMark, HeldLine, SplitLine};
pub use honest::{Honest, TenthHeld};
pub use learned_lines::{LearnedCase, LearnedLine};
pub use prices::{PriceMark, Prices};
pub use said::Said;
pub use settings::SettingWorked;
pub use splits::Split;
pub use wall::{LedgerCase, LeftOutCase, Wall, cases_among, wall};
