//! M21: bending or shock in service.

use super::{BRONZE, Rule, RuleFacts, RuleOutput};
use crate::method::MethodId::{ArcNickelIron, GasIron, Stitch, StitchLocks};

pub(super) const RULE: Rule = Rule { id: "M21", iron: None, judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    let Some(loads) = &facts.loads else {
        output.unknown("what it carries");
        return;
    };
    if !loads.iter().any(|load| load.bends()) {
        return;
    }
    output.favour(BRONZE, "Gives a little under bending and shock.");
    output.favour(&[ArcNickelIron], "Gives a little under bending and shock.");
    output.favour(&[StitchLocks], "Bends or takes shock: locks hold the crack together.");
    if !facts.has_rod("iron_rod_b") {
        output.caution(&[GasIron], "Bends or takes shock: iron rod is brittle.");
    }
    output.caution(&[Stitch], "Bends or takes shock: plain pins work loose.");
}
