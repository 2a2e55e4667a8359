//! M07: what the heat at hand can reach, and where a modest heat will do.

use super::{COLD_SCHOOL, Effect, PINS, Rule, RuleFacts, RuleOutput};
use crate::casting::shape::Restraint;
use crate::method::MethodId::GasIron;
use crate::method::{MODEST_WALL_MM, School, Way};
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M07", iron: None, judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    reach(facts, output);
    modest(facts, output);
}

fn reach(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    if !facts.reach.iter().any(|(way, _)| way.school.preheats()) {
        output.unknown("weight, size, shape or the heat at hand");
    }
    for (way, reached) in facts.reach {
        if let Err(why) = reached {
            output.of_a_way(Effect::Exclude, *way, why.clone());
        }
    }
    if facts.warm_reached == Some(false) {
        let why = "The part cannot even be warmed: a cold way suits it.";
        output.favour(PINS, why);
        for &method in COLD_SCHOOL {
            output.of_a_way(Effect::Favour, Way { method, school: School::Cold }, why);
        }
    }
}

/// The modest school of gas fusion: walls up to 12 mm and shapes that can expand.
fn modest(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    let upto = facts.units.say(MODEST_WALL_MM, Unit::Millimetres);
    let why = match (facts.wall_mm, facts.restraint) {
        (Some(wall), _) if wall > MODEST_WALL_MM => format!("Melted at the joint alone: walls up to {upto}."),
        (_, Some(Restraint::Closed)) => "Melted at the joint alone: a closed shape cannot expand.".to_owned(),
        (_, Some(Restraint::HeldIn)) => {
            "Melted at the joint alone: the iron round the seam holds it in.".to_owned()
        }
        (Some(_), Some(Restraint::Free)) => return,
        (None, _) | (_, None) => {
            format!("Melted at the joint alone: open shapes and walls up to {upto}, and nobody has said.")
        }
    };
    output.of_a_way(Effect::Exclude, Way { method: GasIron, school: School::Modest }, why);
}
