//! M25: stress that is locked in the casting.

use super::{Asked, COLD_SCHOOL, Effect, Rule, Saying};
use crate::method::MethodId::Stitch;
use crate::method::{School, Way};

pub(super) const RULE: Rule = Rule { id: "M25", iron: None, judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    if !asked.locked_in {
        return;
    }
    let why = "It rocks: stress is locked in. Short beads here and there, or pins, let it lie as it wants.";
    rule.favour(&[Stitch], why);
    for &method in COLD_SCHOOL {
        rule.of_a_way(Effect::Favour, Way { method, school: School::Cold }, why);
    }
}
