//! What was looked at after a repair, place by place: never written over, looked at again is a further line.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use crate::faults::acceptance::{Extent, Found, Then};

/// What a place is looked at for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CheckWhat {
    Pins,
    Clean,
    Toes,
    CracksAgain,
    FileEdge,
    Leak,
    Alignment,
    /// Cracks once more, the day after: nickel may crack late.
    NextDay,
    /// A fault that was seen at the torch.
    Faults,
}

/// Which place.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CheckPlace {
    pub what: CheckWhat,
    /// The crack, or the entry at the torch; left out for the whole part.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<Uuid>,
    /// The side of a seam that was filled from both, from 1.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<u32>,
}

/// One look at one place.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Looked {
    /// The fact that said it.
    pub fact: Uuid,
    pub revision: u64,
    /// UTC, ms since 1970.
    pub at_ms: i64,
    pub who: String,
    pub place: CheckPlace,
    pub found: Found,
    /// As it was measured, in mm.
    pub size_mm: Option<f64>,
    pub count: Option<u32>,
    /// What is done about it.
    pub then: Option<Then>,
    pub note: String,
}

impl Looked {
    #[must_use]
    pub fn extent(&self) -> Extent {
        Extent { mm: self.size_mm, count: self.count }
    }
}
