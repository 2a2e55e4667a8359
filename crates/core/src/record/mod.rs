//! What is kept for ever: it can be read as long as it lies there, whatever plans look like by then.

mod estimate;
mod figure;
mod frozen;

pub use estimate::{ESTIMATE_FORMAT, Estimate, EstimateLine};
pub use figure::{FrozenFact, FrozenFigure, FrozenSource, FrozenText};
pub use frozen::{FROZEN_FORMAT, FrozenGas, FrozenPlan, HeatedWith};
