//! What is measured at a seam while it is prepared: grooving, fitting up, tacking.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// What is measured at a seam.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum SeamReadingKind {
    /// While grooving: `depth` from the face, `at` so far along.
    Depth,
    /// How the broken pieces key together: `gap` and `step`, `at` so far along.
    FitUp,
    /// On a flat plate: `rock` under the feeler gauge, `over` the length that rocks.
    Rock,
    /// `run_out` of a pin through the aligned holes.
    Pin,
    /// The alignment after a tack: `moved`, 0 for not at all.
    Tack,
}

impl SeamReadingKind {
    pub const ALL: [Self; 5] = [Self::Depth, Self::FitUp, Self::Rock, Self::Pin, Self::Tack];

    /// What is typed of it.
    #[must_use]
    pub fn names(self) -> &'static [&'static str] {
        match self {
            Self::Depth => &["at", "depth"],
            Self::FitUp => &["at", "gap", "step"],
            Self::Rock => &["rock", "over"],
            Self::Pin => &["run_out"],
            Self::Tack => &["moved"],
        }
    }

    /// What of that it is nothing without.
    #[must_use]
    pub fn needed(self) -> &'static [&'static str] {
        match self {
            Self::FitUp => &["at"],
            other => other.names(),
        }
    }

    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Depth => "groove",
            Self::FitUp => "fit-up",
            Self::Rock => "rock on the plate",
            Self::Pin => "pin through the holes",
            Self::Tack => "tack",
        }
    }
}

/// One reading at a seam.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SeamReading {
    /// The fact that said it.
    pub id: Uuid,
    pub crack: Uuid,
    pub what: SeamReadingKind,
    /// Which tack, from 1.
    pub number: Option<u32>,
    /// By what was measured.
    pub mm: BTreeMap<String, f64>,
    /// UTC, ms since 1970.
    pub at_ms: i64,
}

impl SeamReading {
    #[must_use]
    pub fn mm(&self, name: &str) -> Option<f64> {
        self.mm.get(name).copied()
    }
}
