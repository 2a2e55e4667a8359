//! M04: what suits ductile iron.

use super::{Rule, RuleFacts, RuleOutput};
use crate::iron::Iron;
use crate::method::MethodId::{ArcNickelIron, GasIron, TigNickel, TorchBraze};

pub(super) const RULE: Rule = Rule { id: "M04", iron: Some(Iron::Ductile), judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    if !facts.belief.is_plausible(Iron::Ductile) {
        return;
    }
    if !facts.has_rod("iron_rod_b") {
        output.exclude(&[GasIron], "Ductile is possible: only RCI-B rod would do, and it is not at hand.");
    }
    output.favour(&[ArcNickelIron, TigNickel, TorchBraze], "Suits ductile iron.");
}
