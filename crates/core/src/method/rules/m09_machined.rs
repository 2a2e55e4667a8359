//! M09: what is machined across the joint.

use super::{BRONZE, Effect, Rule, RuleFacts, RuleOutput};
use crate::casting::said::Machined;
use crate::heat::HARD_EDGE_S;
use crate::method::MethodId::{GasIron, LastResort};
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M09", iron: None, judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    match facts.machined {
        None => output.unknown("what is machined afterwards"),
        Some(Machined::Across) => {
            output.exclude(&[LastResort], "Machined across: nothing but a grinder cuts its edge.");
            output.favour(&[GasIron], "Drills and taps with ordinary tools.");
            output.favour(BRONZE, "Drills and taps with ordinary tools.");
            if facts.edges.is_empty() {
                output.unknown("how hard the edge gets, since the wall");
            }
            for (way, seconds, preheat_c) in
                facts.edges.iter().filter(|(_, seconds, _)| *seconds < HARD_EDGE_S)
            {
                let from = facts.units.say(*preheat_c, Unit::Celsius);
                let why = format!(
                    "Machined across: the edge cools in {seconds:.0} s and goes hard. From {from} on it softens."
                );
                output.of_a_way(Effect::Caution, *way, why);
            }
        }
        Some(Machined::Nothing | Machined::Elsewhere) => {}
    }
}
