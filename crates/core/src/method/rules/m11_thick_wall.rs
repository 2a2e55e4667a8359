//! M11: what a wide gap, a thick wall and a section that drinks the heat rule out.

use super::{Rule, RuleFacts, RuleOutput};
use crate::method::MethodId::{ArcNickelIron, MigBrazeSi, SilverBraze, StitchLocks, TigBrazeSi, TorchBraze};
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M11", iron: None, judge };

/// House: no wider gap is drawn full, in mm.
const MOST_GAP_MM: f64 = 0.15;
/// House: thick from here on, in mm.
const THICK_MM: f64 = 20.0;
/// House: from here on a bronze without flux fails on iron, in mm.
const DRINKS_MM: f64 = 8.0;

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    match facts.lap {
        Some(false) => output.exclude(&[SilverBraze], "A groove, not a lap: silver fills no gap."),
        Some(true) => {}
        // The one rule for which nothing said counts as no.
        None => output.exclude(
            &[SilverBraze],
            format!(
                "Silver wants a lap or a sleeve with a gap of {} at most: nobody has said that it is one.",
                facts.units.say(MOST_GAP_MM, Unit::Millimetres)
            ),
        ),
    }
    let Some(wall_mm) = facts.wall_mm else { return };
    if wall_mm >= DRINKS_MM {
        let from = facts.units.say(DRINKS_MM, Unit::Millimetres);
        output.caution(
            &[MigBrazeSi, TigBrazeSi],
            format!(
                "Wall of {from} or more: it drinks the heat, and without flux graphite keeps the bronze off."
            ),
        );
    }
    if wall_mm < THICK_MM {
        return;
    }
    let from = facts.units.say(THICK_MM, Unit::Millimetres);
    output.favour(&[ArcNickelIron], format!("Wall of {from} or more: nickel-iron rather than nickel."));
    output.favour(&[StitchLocks], format!("Wall of {from} or more: room for locks."));
    if facts.reach.iter().any(|(way, reached)| way.method == TorchBraze && reached.is_ok()) {
        output.favour(&[TorchBraze], "Thick, and the whole part can be heated.");
    }
}
