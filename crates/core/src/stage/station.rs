//! The ten stations of a job, and how much each has.

use serde::{Deserialize, Serialize};

#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Station {
    Part,
    Iron,
    Cracks,
    Method,
    Prep,
    Heat,
    Torch,
    Cooling,
    Check,
    HandOver,
}

impl Station {
    pub const ALL: [Self; 10] = [
        Self::Part,
        Self::Iron,
        Self::Cracks,
        Self::Method,
        Self::Prep,
        Self::Heat,
        Self::Torch,
        Self::Cooling,
        Self::Check,
        Self::HandOver,
    ];

    /// The word on its tab: said once, here.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Part => "Part",
            Self::Iron => "Iron",
            Self::Cracks => "Cracks",
            Self::Method => "Method",
            Self::Prep => "Prep",
            Self::Heat => "Heat",
            Self::Torch => "Torch",
            Self::Cooling => "Cooling",
            Self::Check => "Check",
            Self::HandOver => "Hand-over",
        }
    }
}

/// What a punch mark shows.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Amount {
    #[default]
    Nothing,
    Something,
    Enough,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StationState {
    pub station: Station,
    pub amount: Amount,
}
