//! M08: a repaired face that is seen.

use super::{BRONZE, NICKEL, Rule, RuleFacts, RuleOutput};
use crate::casting::said::SeenAs;
use crate::method::MethodId::{GasIron, Stitch};

pub(super) const RULE: Rule = Rule { id: "M08", iron: None, judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    match facts.seen {
        None => output.unknown("whether the face is seen"),
        Some(SeenAs::Bare) => {
            output.favour(&[GasIron], "Seen bare: iron rod matches in colour.");
            output.favour(&[Stitch], "Seen bare: pins of like iron match in colour.");
            output.caution(NICKEL, "Seen bare: nickel stays a little bright.");
            output.exclude(BRONZE, "Seen bare: bronze shows unless it is painted.");
        }
        Some(SeenAs::Hidden | SeenAs::Painted) => {}
    }
}
