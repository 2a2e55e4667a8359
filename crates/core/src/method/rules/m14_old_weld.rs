//! M14: an earlier weld in the joint.

use super::{Asked, BRONZE, FUSION, PINS, Rule, Saying};
use crate::casting::old_filler::OldFiller;
use crate::method::MethodId::SilverBraze;
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M14", iron: None, judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    if !matches!(asked.old_filler, Some(OldFiller::Nickel | OldFiller::Steel)) {
        return;
    }
    for methods in [FUSION, BRONZE, &[SilverBraze]] {
        rule.caution(methods, "Old weld in it: cut it out to clean casting.");
    }
    let away = asked.units.say(6.0, Unit::Millimetres);
    rule.caution(PINS, format!("Old weld in it: start {away} outside it."));
}
