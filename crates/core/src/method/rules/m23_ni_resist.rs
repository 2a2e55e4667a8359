//! M23: what Ni-resist does not bear.

use super::{BRONZE, COLD_SCHOOL, Effect, Rule, RuleFacts, RuleOutput};
use crate::iron::Iron;
use crate::method::MethodId::{GasIron, SilverBraze};
use crate::method::{School, Way};

pub(super) const RULE: Rule = Rule { id: "M23", iron: Some(Iron::NiResist), judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    if !facts.belief.is_plausible(Iron::NiResist) {
        return;
    }
    output.exclude(&[GasIron], "Ni-resist is possible: an iron rod does not suit it.");
    output.caution(BRONZE, "Ni-resist is possible: bronze takes badly on it.");
    output.caution(&[SilverBraze], "Ni-resist is possible: silver takes badly on it.");
    for &method in COLD_SCHOOL {
        let cold = Way { method, school: School::Cold };
        output.of_a_way(Effect::Exclude, cold, "Ni-resist is possible: no cold beads.");
    }
}
