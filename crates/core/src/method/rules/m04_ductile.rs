//! M04: what suits ductile iron.

use super::{Asked, Rule, Saying};
use crate::iron::Iron;
use crate::method::MethodId::{ArcNickelIron, GasIron, TigNickel, TorchBraze};

pub(super) const RULE: Rule = Rule { id: "M04", iron: Some(Iron::Ductile), judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    if !asked.belief.is_plausible(Iron::Ductile) {
        return;
    }
    if !asked.has_rod("iron_rod_b") {
        rule.exclude(&[GasIron], "Ductile is possible: only RCI-B rod would do, and it is not at hand.");
    }
    rule.favour(&[ArcNickelIron, TigNickel, TorchBraze], "Suits ductile iron.");
}
