//! M03: what malleable iron does not bear.

use super::{Asked, Rule, STICK, Saying};
use crate::iron::Iron;
use crate::method::MethodId::{GasIron, TorchBraze};
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M03", iron: Some(Iron::Malleable), judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    if !asked.belief.is_plausible(Iron::Malleable) {
        return;
    }
    rule.exclude(&[GasIron], "Malleable is possible: melting it undoes the anneal.");
    rule.caution(STICK, "Malleable is possible: nickel-iron, short and cool.");
    rule.caution(
        &[TorchBraze],
        format!(
            "Malleable is possible: bronze runs at {} and more and leaves a hard seam. Quick, small, and only \
             where a little hardness does no harm.",
            asked.units.say(880.0, Unit::Celsius)
        ),
    );
}
