//! M08: a repaired face that is seen.

use super::{Asked, BRONZE, NICKEL, Rule, Saying};
use crate::casting::said::SeenAs;
use crate::method::MethodId::{GasIron, Stitch};

pub(super) const RULE: Rule = Rule { id: "M08", iron: None, judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    match asked.seen {
        None => rule.unknown("whether the face is seen"),
        Some(SeenAs::Bare) => {
            rule.favour(&[GasIron], "Seen bare: iron rod matches in colour.");
            rule.favour(&[Stitch], "Seen bare: pins of like iron match in colour.");
            rule.caution(NICKEL, "Seen bare: nickel stays a little bright.");
            rule.exclude(BRONZE, "Seen bare: bronze shows unless it is painted.");
        }
        Some(SeenAs::Hidden | SeenAs::Painted) => {}
    }
}
