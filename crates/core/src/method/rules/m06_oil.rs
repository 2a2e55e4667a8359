//! M06: oil in the pores.

use super::{Asked, Rule, Saying};
use crate::method::MethodId::{ArcNickel, ArcNickelIron, GasIron, Stitch, TorchBraze};

pub(super) const RULE: Rule = Rule { id: "M06", iron: None, judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    match asked.oil {
        None => rule.unknown("whether it is oil-soaked"),
        Some("soaked") => {
            rule.caution(
                &[ArcNickel, ArcNickelIron, GasIron, TorchBraze],
                "Oil-soaked: bake it until it stops weeping, or the filler will not take.",
            );
            rule.favour(&[Stitch], "Oil-soaked: pins do not mind.");
        }
        Some(_) => {}
    }
}
