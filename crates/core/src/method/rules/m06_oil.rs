//! M06: oil in the pores.

use super::{Asked, Rule, Saying};
use crate::casting::said::Oil;
use crate::method::MethodId::{
    ArcNickel, ArcNickelIron, ButterBuild, GasIron, LastResort, MigBrazeSi, SilverBraze, Stitch, TigBrazeAl,
    TigBrazeSi, TigNickel, TorchBraze,
};

pub(super) const RULE: Rule = Rule { id: "M06", iron: None, judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    match asked.oil {
        None => rule.unknown("whether it is oil-soaked"),
        Some(Oil::Soaked) => {
            rule.exclude(
                &[TigNickel, TigBrazeSi, TigBrazeAl, MigBrazeSi],
                "Oil-soaked: without flux nothing wets it until it is baked clean.",
            );
            rule.caution(
                &[ArcNickel, ArcNickelIron, ButterBuild, LastResort, GasIron, TorchBraze, SilverBraze],
                "Oil-soaked: bake it until it stops weeping, or the filler will not take.",
            );
            rule.favour(&[Stitch], "Oil-soaked: pins do not mind.");
        }
        Some(Oil::Clean | Oil::BakedClean) => {}
    }
}
