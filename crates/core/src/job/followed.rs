//! How a repair held, asked again later: never written over, asked again is a further line.

use crate::method::became::Became;
use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// Where a repair gave way, or shows a fault.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum WentAt {
    Filler,
    Toe,
    Edge,
    Beside,
    Elsewhere,
}

impl WentAt {
    pub const ALL: [Self; 5] = [Self::Filler, Self::Toe, Self::Edge, Self::Beside, Self::Elsewhere];

    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::Filler => "Through the filler",
            Self::Toe => "Along the toe",
            Self::Edge => "In the hard edge",
            Self::Beside => "Beside it, in the casting",
            Self::Elsewhere => "Elsewhere",
        }
    }
}

/// One answer.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Followed {
    /// The fact that said it.
    pub fact: Uuid,
    pub revision: u64,
    /// UTC, ms since 1970.
    pub at_ms: i64,
    pub who: String,
    pub became: Became,
    /// Where it went, where that was said.
    pub went: Option<WentAt>,
    /// How long it had been at work by then, as it was typed: "400 hours".
    pub after: String,
    /// What it did in that time: how hot, which load, how often.
    pub did: String,
    /// What happened.
    pub note: String,
    /// The odds of a year as they stood then, 0 to 1; nothing before that was kept.
    pub odds: Option<f64>,
    /// Said in its field, as it was before a later one could be said beside it.
    pub in_its_field: bool,
}
