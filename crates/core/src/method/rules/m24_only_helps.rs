//! M24: what only helps, only seals, or is for want of anything better.

use super::{Rule, RuleFacts, RuleOutput};
use crate::method::MethodId::{ColdFill, LastResort, Strap};

pub(super) const RULE: Rule = Rule { id: "M24", iron: None, judge };

/// House: a last resort is for a life of so many days at most.
const SHORT_LIFE_DAYS: f64 = 90.0;

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    output.caution(&[LastResort], "For want of anything better: its edge is hard and cracks again.");
    output.caution(&[ColdFill], "Only fills and seals.");
    if facts.under_pressure == Some(true) {
        output.exclude(&[LastResort], "Under pressure: steel on iron is not to be trusted with it.");
    }
    if facts.life_days.is_some_and(|days| days > SHORT_LIFE_DAYS) {
        output.exclude(&[LastResort], "It has to last longer than a season: steel on iron does not.");
    }
    match facts.loads.as_deref() {
        None => output.unknown("what it carries"),
        Some([]) => {}
        Some(_) => {
            output.exclude(&[LastResort], "It carries: steel on iron is not to be trusted with it.");
            output.exclude(&[Strap], "It carries: a strap takes a part of that, beside a repair.");
            output.exclude(&[ColdFill], "It carries, and epoxy carries nothing.");
        }
    }
}
