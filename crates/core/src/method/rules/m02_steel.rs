//! M02: steel wants its own practice.

use super::{ALL, Rule, RuleFacts, RuleOutput};
use crate::iron::Iron;
use crate::method::MethodId::{self, GasIron};

pub(super) const RULE: Rule = Rule { id: "M02", iron: Some(Iron::Steel), judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    if facts.belief.leading == Iron::Steel {
        output.exclude(ALL, "It is steel: low-hydrogen steel practice applies, not these plans.");
    } else if facts.belief.is_plausible(Iron::Steel) {
        output.exclude(&[GasIron], "Steel is still possible: an iron rod does not suit it.");
        let others: Vec<MethodId> = ALL.iter().copied().filter(|method| *method != GasIron).collect();
        output.caution(&others, "Steel is still possible: one more test settles it.");
    }
}
