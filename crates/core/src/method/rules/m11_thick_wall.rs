//! M11: a thick wall.

use super::{Asked, Rule, Saying};
use crate::method::MethodId::{ArcNickelIron, TorchBraze};
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M11", iron: None, judge };

/// House: thick from here on, in mm.
const THICK_MM: f64 = 20.0;

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    if asked.wall_mm.is_none_or(|wall| wall < THICK_MM) {
        return;
    }
    let from = asked.units.say(THICK_MM, Unit::Millimetres);
    rule.favour(&[ArcNickelIron], format!("Wall of {from} or more: nickel-iron rather than nickel."));
    if asked.reach.iter().any(|(way, reached)| way.method == TorchBraze && reached.is_ok()) {
        rule.favour(&[TorchBraze], "Thick, and the whole part can be heated.");
    }
}
