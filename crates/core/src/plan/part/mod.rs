//! Stage 1: what is known of the part, and what follows from it at once.

mod cautions;
mod facts;
mod follows;
mod locks;
mod needs;

pub use follows::{Forbidden, PartPlan};
pub use locks::Lock;
pub use needs::Missing;

pub(super) use facts::{GUESSED_WALL_MM, PartFacts, Weight};
pub(super) use follows::{figures, part_plan};
pub(super) use locks::{cavity_lock, safety_lock};
pub(super) use needs::{amount, guesses, missing};

use serde::{Deserialize, Serialize};

use super::Station;

/// A caution, shown at the station where it matters.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Caution {
    pub station: Station,
    pub sentence: String,
}
