//! Stage 7: what to do next at the torch.

use serde::{Deserialize, Serialize};

use super::Amount;
use super::heat::HeatPlan;
use super::prep::PrepPlan;
use crate::job::{Round, TorchEntry};
use crate::method::{School, Way};

/// Beads or pins done and to do, and what comes next.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TorchPlan {
    /// "bead" or "pin".
    pub piece: String,
    pub done: u32,
    pub planned: u32,
    /// Between these, in degC; nothing for a way without heat.
    pub window: Option<(f64, f64)>,
    /// Peening belongs to this way.
    pub peen: bool,
}

pub(super) fn torch_plan(round: &Round, way: Way, heat: &HeatPlan, prep: Option<&PrepPlan>) -> TorchPlan {
    let pins = way.school == School::NoHeat;
    TorchPlan {
        piece: if pins { "pin" } else { "bead" }.to_owned(),
        done: round.beads() as u32,
        planned: prep.map_or(0, |prep| if pins { prep.pins } else { prep.beads }),
        window: (!pins).then_some((heat.target_c, heat.most_c)),
        peen: way.method.arc(),
    }
}

pub(super) fn amount(round: &Round, torch: Option<&TorchPlan>) -> Amount {
    let covered = round.covered_minutes().is_some();
    let all_done = torch.is_some_and(|t| t.planned > 0 && t.done >= t.planned);
    if covered || (all_done && torch.is_some_and(|t| t.window.is_none())) {
        Amount::Enough
    } else if round.lit.is_some() {
        Amount::Something
    } else {
        Amount::Nothing
    }
}

/// The last bead has not been peened yet.
pub(super) fn wants_peening(round: &Round) -> bool {
    round
        .standing_log()
        .rev()
        .find(|e| matches!(e.entry, TorchEntry::Bead | TorchEntry::Peened))
        .is_some_and(|e| e.entry == TorchEntry::Bead)
}
