//! The repair methods: what each is, where it may be used, how it scores.

mod arc_pass;
pub mod became;
mod catalogue;
mod coupon;
pub mod customs;
mod moved;
mod moves;
mod odds;
mod own_repair;
mod own_scrap;
mod part_words;
mod rules;
mod score;
mod target;
mod way;
mod welding_set;
mod window_position;

pub use arc_pass::amps_at;
pub(crate) use arc_pass::pass_of;
pub use catalogue::{AS_THE_CASTING_C, ArcUse, Joins, Method, Most, Practice, Setup, Start, wire_lays};
pub use coupon::{Bent, BrokeAt, Coupon, CouponRead};
pub use moved::{MOVED_MOST_MM, OwnMove, moved_factor};
pub use moves::{
    Became, Moves, NotGood, OddsPart, Outcome, Outcomes, PRACTISED, ToeCrack, Variant, own_outcomes, shift_of,
};
pub(crate) use odds::CRACK_OPEN;
pub use odds::{Odds, StitchKind, for_days, odds_of, odds_with};
pub use own_repair::{OwnRepair, PlaceKind, RepairHow};
pub use own_scrap::OwnScrap;
pub(crate) use part_words::odds_words;
pub use rules::{Effect, Fired, PieceFit, RuleFacts, Ruling, apply_rules, at_hand};
pub use score::{
    ScorePart, heat_points, hours_points, money_points, odds_points, rule_points, strength_points,
};
pub use target::{ARC_ONLY_KG, MODEST_WALL_MM, Target, target};
pub use way::{MethodId, PieceOfWork, School, Way};
pub use welding_set::WeldingSet;
pub use window_position::WindowPosition;
