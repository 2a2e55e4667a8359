//! M03: what malleable iron does not bear.

use super::{Asked, Rule, Saying};
use crate::iron::Iron;
use crate::method::MethodId::{
    ArcNickel, ArcNickelIron, ButterBuild, GasIron, LastResort, MigBrazeSi, SilverBraze, TigBrazeAl,
    TigBrazeSi, TigNickel, TorchBraze,
};
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M03", iron: Some(Iron::Malleable), judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    if !asked.belief.is_plausible(Iron::Malleable) {
        return;
    }
    rule.exclude(&[GasIron], "Malleable is possible: melting it undoes the anneal.");
    rule.exclude(
        &[TigBrazeAl],
        "Malleable is possible: aluminium bronze runs so hot that it hardens a seam.",
    );
    rule.caution(
        &[ArcNickel, ArcNickelIron, TigNickel, ButterBuild, LastResort],
        "Malleable is possible: nickel-iron, short and cool.",
    );
    rule.favour(&[SilverBraze], "Malleable is possible: silver runs under what the anneal bears.");
    rule.caution(
        &[TorchBraze, TigBrazeSi, MigBrazeSi],
        format!(
            "Malleable is possible: bronze runs at {} and more and leaves a hard seam. Quick, small, and only \
             where a little hardness does no harm.",
            asked.units.say(880.0, Unit::Celsius)
        ),
    );
}
