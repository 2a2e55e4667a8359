//! The plan as it stood when the torch was lit, kept with the job.

use serde::{Deserialize, Serialize};

use super::Plan;
use crate::figure::Figure;
use crate::method::Way;

/// Raised when the shape below changes; older ones stay readable.
pub const FROZEN_FORMAT: u32 = 1;

/// What the record shows was planned.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FrozenPlan {
    pub format: u32,
    pub way: Option<Way>,
    pub label: String,
    pub figures: Vec<Figure>,
    pub cautions: Vec<String>,
    /// (min from lighting up, degC)
    pub curve: Vec<(f64, f64)>,
}

impl FrozenPlan {
    #[must_use]
    pub fn of(plan: &Plan) -> Self {
        Self {
            format: FROZEN_FORMAT,
            way: plan.methods.chosen,
            label: plan.methods.chosen.map_or_else(String::new, Way::label),
            figures: plan.figures.clone(),
            cautions: plan.cautions.iter().map(|caution| caution.sentence.clone()).collect(),
            curve: plan.lines.first().map(|line| line.curve.clone()).unwrap_or_default(),
        }
    }
}
