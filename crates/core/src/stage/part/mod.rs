//! Stage 1: what is known of the part, and what follows from it at once.

mod cautions;
mod drawn;
mod facts;
mod follows;
mod locks;
mod needs;

pub use follows::{Forbidden, PartPlan, Side, Sketch};

pub(crate) use drawn::{circles, not_flat, piece, rims, weighs};
pub(crate) use facts::{GUESSED_WALL_MM, HeatShy, PartFacts, Weight};
pub(crate) use locks::{answered_for, answered_for_shortly, cavity_lock, hazard_lock, safety_lock};

use super::Stage;
use crate::job::Round;

pub(crate) fn stage(round: &Round, facts: &PartFacts) -> Stage<PartPlan> {
    let missing = needs::missing(round, facts);
    let plan = follows::part_plan(round, facts, needs::guesses(&missing, facts));
    Stage {
        amount: needs::amount(&missing, facts),
        cautions: plan.cautions.clone(),
        figures: follows::figures(round, facts),
        missing,
        plan,
    }
}
