//! What a repair moved: sizes of a part before the torch and cold again.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::Way;

/// A size that was read before the torch and again when it was cold.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OwnMove {
    /// The size, as its job knows it.
    pub size: Uuid,
    pub job: Uuid,
    /// The part, as it was called then.
    pub name: String,
    /// "bore 1"
    pub what: String,
    pub way: Way,
    /// Cold less before, in mm; nothing once it is said no more.
    pub moved_mm: Option<f64>,
}

/// More is no distortion but another size, in mm. **House**.
pub const MOVED_MOST_MM: f64 = 50.0;

impl OwnMove {
    /// Worked out again it is much the same. **House**.
    #[must_use]
    pub fn as_good_as(&self, other: &Self) -> bool {
        const NEARLY_MM: f64 = 0.005;
        self.size == other.size
            && self.way == other.way
            && match (self.moved_mm, other.moved_mm) {
                (Some(a), Some(b)) => (a - b).abs() < NEARLY_MM,
                (a, b) => a == b,
            }
    }
}
