//! M13: bronze of an earlier repair that stays in the joint.

use super::{Asked, FUSION, Rule, Saying};
use crate::casting::old_filler::OldFiller;

pub(super) const RULE: Rule = Rule { id: "M13", iron: None, judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    match (asked.old_filler, asked.old_filler_out) {
        (None, _) => rule.unknown("what it was repaired with before"),
        (Some(OldFiller::Bronze), Some(false)) => {
            rule.exclude(FUSION, "Old bronze stays in the joint: a weld over it cracks.");
        }
        (Some(OldFiller::Bronze), None) => rule.unknown("whether all of the old bronze can come out"),
        (Some(OldFiller::Other), Some(false)) => rule.exclude(
            FUSION,
            "Old filler of a kind not known stays in the joint: if it is bronze, a weld over it cracks.",
        ),
        (Some(OldFiller::Other), None) => {
            rule.unknown("what the old filler is, or whether all of it can come out")
        }
        (Some(_), _) => {}
    }
}
