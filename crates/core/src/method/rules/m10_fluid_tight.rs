//! M10: what must hold fluid.

use super::{Rule, RuleFacts, RuleOutput, STICK};
use crate::method::MethodId::{GasIron, Stitch, TorchBraze};

pub(super) const RULE: Rule = Rule { id: "M10", iron: None, judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    match facts.fluid_tight {
        None => output.unknown("whether it must hold fluid"),
        Some(true) => {
            output.favour(&[TorchBraze, GasIron], "Flows tight.");
            output.favour(&[Stitch], "Tight with sealant on the threads.");
            output.caution(STICK, "Must hold fluid: stick beads are apt to be porous.");
        }
        Some(false) => {}
    }
}
