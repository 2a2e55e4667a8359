//! M18: what cannot be ready by the day it is wanted.

use super::{Effect, Rule, RuleFacts, RuleOutput};

pub(super) const RULE: Rule = Rule { id: "M18", iron: None, judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    let Some(late) = facts.late else {
        output.unknown("the day it is wanted");
        return;
    };
    for (way, why) in late {
        output.of_a_way(Effect::Exclude, *way, why.clone());
    }
}
