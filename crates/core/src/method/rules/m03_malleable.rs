//! M03: what malleable iron does not bear.

use super::{Rule, RuleFacts, RuleOutput};
use crate::iron::Iron;
use crate::method::MethodId::{
    ArcNickel, ArcNickelIron, ButterBuild, GasIron, LastResort, MigBrazeSi, SilverBraze, TigBrazeAl,
    TigBrazeSi, TigNickel, TorchBraze,
};
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M03", iron: Some(Iron::Malleable), judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    if !facts.belief.is_plausible(Iron::Malleable) {
        return;
    }
    output.exclude(&[GasIron], "Malleable is possible: melting it undoes the anneal.");
    output.exclude(
        &[TigBrazeAl],
        "Malleable is possible: aluminium bronze runs so hot that it hardens a seam.",
    );
    output.caution(
        &[ArcNickel, ArcNickelIron, TigNickel, ButterBuild, LastResort],
        "Malleable is possible: nickel-iron, short and cool.",
    );
    output.favour(&[SilverBraze], "Malleable is possible: silver runs under what the anneal bears.");
    output.caution(
        &[TorchBraze, TigBrazeSi, MigBrazeSi],
        format!(
            "Malleable is possible: bronze runs at {} and more and leaves a hard seam. Quick, small, and only \
             where a little hardness does no harm.",
            facts.units.say(880.0, Unit::Celsius)
        ),
    );
}
