//! M25: stress that is locked in the casting.

use super::{COLD_SCHOOL, Effect, Rule, RuleFacts, RuleOutput};
use crate::method::MethodId::Stitch;
use crate::method::{School, Way};

pub(super) const RULE: Rule = Rule { id: "M25", iron: None, judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    if !facts.locked_in {
        return;
    }
    let why = "It rocks: stress is locked in. Short beads here and there, or pins, let it lie as it wants.";
    output.favour(&[Stitch], why);
    for &method in COLD_SCHOOL {
        output.of_a_way(Effect::Favour, Way { method, school: School::Cold }, why);
    }
}
