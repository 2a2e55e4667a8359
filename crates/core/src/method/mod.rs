//! The repair methods: what each is, where it may be used, how it scores.

mod odds;
mod rules;
mod score;
mod target;
mod way;

pub use odds::{Odds, StitchKind, odds, shifted};
pub use rules::{Asked, Effect, Fired, Piece, Ruling, apply_rules};
pub use score::{ScorePart, heat_points, hours_points, odds_points, rule_points, strength_points};
pub use target::{MODEST_WALL_MM, Target, target};
pub use way::{MethodId, School, Way};
