//! M18: what cannot be ready by the day it is wanted.

use super::{Asked, Effect, Rule, Saying};

pub(super) const RULE: Rule = Rule { id: "M18", iron: None, judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    let Some(late) = asked.late else {
        rule.unknown("the day it is wanted");
        return;
    };
    for (way, why) in late {
        rule.of_a_way(Effect::Exclude, *way, why.clone());
    }
}
