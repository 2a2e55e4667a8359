//! What repairs really used, against what was planned for them.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// So much of a thing was planned for a repair, and so much was used.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OwnUse {
    /// The lighting it was used after: what was planned is of it.
    pub lit: Uuid,
    pub job: Uuid,
    /// The part, as it was called then.
    pub name: String,
    /// As the stores call it, and across.
    pub what: String,
    pub size_mm: Option<f64>,
    /// In what its kind is counted in.
    pub planned: f64,
    /// Nothing once it is said no more.
    pub used: Option<f64>,
}

impl OwnUse {
    #[must_use]
    pub fn is_of(&self, other: &Self) -> bool {
        self.lit == other.lit && self.what == other.what && self.size_mm == other.size_mm
    }

    /// Planned again it is much the same. **House**: a hundredth.
    #[must_use]
    pub fn as_good_as(&self, other: &Self) -> bool {
        self.is_of(other)
            && self.used == other.used
            && (self.planned - other.planned).abs() <= 0.01 * self.planned.max(other.planned)
    }
}
