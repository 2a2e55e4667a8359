//! M16: burnt iron that stays.

use super::{ALL, Rule, RuleFacts, RuleOutput};
use crate::method::MethodId::{self, Stitch};

pub(super) const RULE: Rule = Rule { id: "M16", iron: None, judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    match facts.burnt_stays {
        Some(true) => {
            let all_but_pins: Vec<MethodId> =
                ALL.iter().copied().filter(|method| *method != Stitch).collect();
            output.exclude(
                &all_but_pins,
                "Burnt iron stays in the joint: no filler wets it, nothing holds in it.",
            );
            output.caution(&[Stitch], "Burnt iron stays: threads may crumble. Try one pin first.");
        }
        Some(false) => {}
        None => output.unknown("whether the burnt iron can be cut back to gray metal"),
    }
}
