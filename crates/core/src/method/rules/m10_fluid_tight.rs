//! M10: what must hold fluid.

use super::{Asked, Rule, STICK, Saying};
use crate::method::MethodId::{GasIron, Stitch, TorchBraze};

pub(super) const RULE: Rule = Rule { id: "M10", iron: None, judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    match asked.fluid_tight {
        None => rule.unknown("whether it must hold fluid"),
        Some(true) => {
            rule.favour(&[TorchBraze, GasIron], "Flows tight.");
            rule.favour(&[Stitch], "Tight with sealant on the threads.");
            rule.caution(STICK, "Must hold fluid: stick beads are apt to be porous.");
        }
        Some(false) => {}
    }
}
