//! M23: what Ni-resist does not bear.

use super::{Asked, Effect, Rule, STICK, Saying};
use crate::iron::Iron;
use crate::method::MethodId::{GasIron, TorchBraze};
use crate::method::{School, Way};

pub(super) const RULE: Rule = Rule { id: "M23", iron: Some(Iron::NiResist), judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    if !asked.belief.is_plausible(Iron::NiResist) {
        return;
    }
    rule.exclude(&[GasIron], "Ni-resist is possible: an iron rod does not suit it.");
    rule.caution(&[TorchBraze], "Ni-resist is possible: bronze takes badly on it.");
    for &method in STICK {
        let cold = Way { method, school: School::Cold };
        rule.of_a_way(Effect::Exclude, cold, "Ni-resist is possible: no cold beads.");
    }
}
