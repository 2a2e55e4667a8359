//! M06: oil in the pores.

use super::{Rule, RuleFacts, RuleOutput};
use crate::casting::said::Oil;
use crate::method::MethodId::{
    ArcNickel, ArcNickelIron, ButterBuild, GasIron, LastResort, MigBrazeSi, SilverBraze, Stitch, TigBrazeAl,
    TigBrazeSi, TigNickel, TorchBraze,
};

pub(super) const RULE: Rule = Rule { id: "M06", iron: None, judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    match facts.oil {
        None => output.unknown("whether it is oil-soaked"),
        Some(Oil::Soaked) => {
            output.exclude(
                &[TigNickel, TigBrazeSi, TigBrazeAl, MigBrazeSi],
                "Oil-soaked: without flux nothing wets it until it is baked clean.",
            );
            output.caution(
                &[ArcNickel, ArcNickelIron, ButterBuild, LastResort, GasIron, TorchBraze, SilverBraze],
                "Oil-soaked: bake it until it stops weeping, or the filler will not take.",
            );
            output.favour(&[Stitch], "Oil-soaked: pins do not mind.");
        }
        Some(Oil::Clean | Oil::BakedClean) => {}
    }
}
