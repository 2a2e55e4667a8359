//! M21: bending or shock in service.

use super::{Asked, BRONZE, Rule, Saying};
use crate::method::MethodId::{ArcNickelIron, GasIron, Stitch, StitchLocks};

pub(super) const RULE: Rule = Rule { id: "M21", iron: None, judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    let Some(loads) = &asked.loads else {
        rule.unknown("what it carries");
        return;
    };
    if !loads.iter().any(|load| load.bends()) {
        return;
    }
    rule.favour(BRONZE, "Gives a little under bending and shock.");
    rule.favour(&[ArcNickelIron], "Gives a little under bending and shock.");
    rule.favour(&[StitchLocks], "Bends or takes shock: locks hold the crack together.");
    if !asked.has_rod("iron_rod_b") {
        rule.caution(&[GasIron], "Bends or takes shock: iron rod is brittle.");
    }
    rule.caution(&[Stitch], "Bends or takes shock: plain pins work loose.");
}
