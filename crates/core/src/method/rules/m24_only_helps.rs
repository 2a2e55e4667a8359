//! M24: what only helps, only seals, or is for want of anything better.

use super::{Asked, Rule, Saying};
use crate::method::MethodId::{ColdFill, LastResort, Strap};

pub(super) const RULE: Rule = Rule { id: "M24", iron: None, judge };

/// House: a last resort is for a life of so many days at most.
const SHORT_LIFE_DAYS: f64 = 90.0;

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    rule.caution(&[LastResort], "For want of anything better: its edge is hard and cracks again.");
    rule.caution(&[ColdFill], "Only fills and seals.");
    if asked.under_pressure == Some(true) {
        rule.exclude(&[LastResort], "Under pressure: steel on iron is not to be trusted with it.");
    }
    if asked.life_days.is_some_and(|days| days > SHORT_LIFE_DAYS) {
        rule.exclude(&[LastResort], "It has to last longer than a season: steel on iron does not.");
    }
    match asked.loads.as_deref() {
        None => rule.unknown("what it carries"),
        Some([]) => {}
        Some(_) => {
            rule.exclude(&[LastResort], "It carries: steel on iron is not to be trusted with it.");
            rule.exclude(&[Strap], "It carries: a strap takes a part of that, beside a repair.");
            rule.exclude(&[ColdFill], "It carries, and epoxy carries nothing.");
        }
    }
}
