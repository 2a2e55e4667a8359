//! M02: steel wants its own practice.

use super::{ALL, Asked, Rule, Saying};
use crate::iron::Iron;
use crate::method::MethodId::{self, GasIron};

pub(super) const RULE: Rule = Rule { id: "M02", iron: Some(Iron::Steel), judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    if asked.belief.leading == Iron::Steel {
        rule.exclude(ALL, "It is steel: low-hydrogen steel practice applies, not these plans.");
    } else if asked.belief.is_plausible(Iron::Steel) {
        rule.exclude(&[GasIron], "Steel is still possible: an iron rod does not suit it.");
        let others: Vec<MethodId> = ALL.iter().copied().filter(|method| *method != GasIron).collect();
        rule.caution(&others, "Steel is still possible: one more test settles it.");
    }
}
