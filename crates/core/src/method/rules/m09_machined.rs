//! M09: what is machined across the joint.

use super::{Asked, BRONZE, Effect, Rule, Saying};
use crate::casting::said::Machined;
use crate::heat::HARD_EDGE_S;
use crate::method::MethodId::{GasIron, LastResort};
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M09", iron: None, judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    match asked.machined {
        None => rule.unknown("what is machined afterwards"),
        Some(Machined::Across) => {
            rule.exclude(&[LastResort], "Machined across: nothing but a grinder cuts its edge.");
            rule.favour(&[GasIron], "Drills and taps with ordinary tools.");
            rule.favour(BRONZE, "Drills and taps with ordinary tools.");
            if asked.edges.is_empty() {
                rule.unknown("how hard the edge gets, since the wall");
            }
            for (way, seconds, preheat_c) in
                asked.edges.iter().filter(|(_, seconds, _)| *seconds < HARD_EDGE_S)
            {
                let from = asked.units.say(*preheat_c, Unit::Celsius);
                let why = format!(
                    "Machined across: the edge cools in {seconds:.0} s and goes hard. From {from} on it softens."
                );
                rule.of_a_way(Effect::Caution, *way, why);
            }
        }
        Some(Machined::Nothing | Machined::Elsewhere) => {}
    }
}
