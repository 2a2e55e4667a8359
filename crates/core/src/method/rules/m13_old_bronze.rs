//! M13: bronze of an earlier repair that stays in the joint.

use super::{FUSION, Rule, RuleFacts, RuleOutput};
use crate::casting::old_filler::OldFiller;

pub(super) const RULE: Rule = Rule { id: "M13", iron: None, judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    match (facts.old_filler, facts.old_filler_out) {
        (None, _) => output.unknown("what it was repaired with before"),
        (Some(OldFiller::Bronze), Some(false)) => {
            output.exclude(FUSION, "Old bronze stays in the joint: a weld over it cracks.");
        }
        (Some(OldFiller::Bronze), None) => output.unknown("whether all of the old bronze can come out"),
        (Some(OldFiller::Other), Some(false)) => output.exclude(
            FUSION,
            "Old filler of a kind not known stays in the joint: if it is bronze, a weld over it cracks.",
        ),
        (Some(OldFiller::Other), None) => {
            output.unknown("what the old filler is, or whether all of it can come out")
        }
        (Some(_), _) => {}
    }
}
