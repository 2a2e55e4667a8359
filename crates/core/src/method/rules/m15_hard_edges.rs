//! M15: a hard or flame-cut edge takes no thread.

use super::{PINS, Rule, RuleFacts, RuleOutput};
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M15", iron: None, judge };

/// House: so far, in mm, an edge is taken back.
const BACK_MM: f64 = 6.0;

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    match facts.hard_edges {
        Some(true) => {
            let back = facts.units.say(BACK_MM, Unit::Millimetres);
            output.exclude(
                PINS,
                format!("A flame-cut or melted edge is hard: no drill bites until it is {back} back."),
            );
        }
        Some(false) => {}
        None => output.unknown("what each edge is: clean, flame-cut, melted or burnt"),
    }
}
