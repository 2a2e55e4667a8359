//! The plan as it stood when the torch was lit, kept with the job.

use serde::{Deserialize, Serialize};

use super::FrozenFigure;
use crate::base::problem::FieldProblem;
use crate::method::Way;

/// Ours. Raised when the shape below changes; older ones stay readable.
pub const FROZEN_FORMAT: u32 = 1;

/// What the record shows was planned.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FrozenPlan {
    pub format: u32,
    pub way: Option<Way>,
    pub label: String,
    pub figures: Vec<FrozenFigure>,
    pub cautions: Vec<String>,
    /// (min from lighting up, degC)
    pub curve: Vec<(f64, f64)>,
    /// What heats it; nothing for a cold way, and for what was lit before this was kept.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub heated_with: Option<HeatedWith>,
    /// What it burns, in so far as it was counted.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub gas: Vec<FrozenGas>,
}

/// A gas as it stood when it was lit.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FrozenGas {
    /// As the stores call it: `propane`.
    pub kind: String,
    pub flow_m3_h: f64,
    pub need_m3: f64,
    pub have_m3: f64,
}

/// What heats a part, and how.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HeatedWith {
    /// The source, by its id.
    pub source: String,
    /// Share of the flame swept evenly over the part.
    pub even_share: f64,
    /// What helps it: empty, `covered`, or the id of a second flame.
    pub help: String,
    /// Of its full flame.
    #[serde(default = "full")]
    pub throttle: f64,
}

fn full() -> f64 {
    1.0
}

/// What a frozen plan may hold: what one of ours holds at most, and some room.
const FIGURES_MOST: usize = 5_000;
const TEXT_MOST: usize = 4_000;
const CURVE_MOST: usize = 5_000;
const GASES_MOST: usize = 10;
const CURVE_MIN: (f64, f64) = (0.0, 1_000_000.0);
const CURVE_C: (f64, f64) = (-60.0, 1_500.0);

impl FrozenPlan {
    /// Whether it may have been frozen here: what comes in a file is shown on pages.
    ///
    /// # Errors
    /// It holds more than a plan does, or a curve no part was ever on.
    pub fn possible(&self) -> Result<(), FieldProblem> {
        let wrong = |what: &str| Err(FieldProblem::new("frozen", what, "a plan as it is written here"));
        let within = |value: f64, (low, high): (f64, f64)| (low..=high).contains(&value);
        let long = |text: &str| text.chars().count() > TEXT_MOST;
        if self.format != FROZEN_FORMAT {
            return wrong("a plan of another version");
        }
        if self.figures.len() > FIGURES_MOST || self.cautions.len() > FIGURES_MOST {
            return wrong("more figures than a plan has");
        }
        if self.curve.len() > CURVE_MOST
            || !self.curve.iter().all(|(at, celsius)| within(*at, CURVE_MIN) && within(*celsius, CURVE_C))
        {
            return wrong("a curve no part was ever on");
        }
        if self.gas.len() > GASES_MOST {
            return wrong("more gases than a heat burns");
        }
        let heated = self.heated_with.iter().flat_map(|with| [&with.source, &with.help]);
        let gases = self.gas.iter().map(|gas| &gas.kind);
        let texts = self.cautions.iter().chain(std::iter::once(&self.label)).chain(heated).chain(gases);
        let figures = self.figures.iter().flat_map(|figure| [&figure.id, &figure.name]);
        if texts.chain(figures).any(|text| long(text)) {
            return wrong("a text longer than a plan has");
        }
        Ok(())
    }
}
