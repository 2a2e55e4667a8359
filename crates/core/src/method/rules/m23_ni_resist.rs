//! M23: what Ni-resist does not bear.

use super::{Asked, BRONZE, COLD_SCHOOL, Effect, Rule, Saying};
use crate::iron::Iron;
use crate::method::MethodId::{GasIron, SilverBraze};
use crate::method::{School, Way};

pub(super) const RULE: Rule = Rule { id: "M23", iron: Some(Iron::NiResist), judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    if !asked.belief.is_plausible(Iron::NiResist) {
        return;
    }
    rule.exclude(&[GasIron], "Ni-resist is possible: an iron rod does not suit it.");
    rule.caution(BRONZE, "Ni-resist is possible: bronze takes badly on it.");
    rule.caution(&[SilverBraze], "Ni-resist is possible: silver takes badly on it.");
    for &method in COLD_SCHOOL {
        let cold = Way { method, school: School::Cold };
        rule.of_a_way(Effect::Exclude, cold, "Ni-resist is possible: no cold beads.");
    }
}
