//! M14: an earlier weld in the joint.

use super::{BRONZE, FUSION, PINS, Rule, RuleFacts, RuleOutput};
use crate::casting::old_filler::OldFiller;
use crate::method::MethodId::SilverBraze;
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M14", iron: None, judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    if !matches!(facts.old_filler, Some(OldFiller::Nickel | OldFiller::Steel)) {
        return;
    }
    for methods in [FUSION, BRONZE, &[SilverBraze]] {
        output.caution(methods, "Old weld in it: cut it out to clean casting.");
    }
    let away = facts.units.say(6.0, Unit::Millimetres);
    output.caution(PINS, format!("Old weld in it: start {away} outside it."));
}
