//! Where a reading stands against the window of a way.

use serde::{Deserialize, Serialize};

/// Where a reading stands against the window.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum WindowPosition {
    TooCold,
    InWindow,
    TooHot,
    /// Nothing to keep between: covered, or a way without heat.
    NoWindow,
}

impl WindowPosition {
    /// `window` from the least to the most between beads, in degC; both ends are inside.
    #[must_use]
    pub fn of(celsius: f64, window: Option<(f64, f64)>) -> Self {
        match window {
            None => Self::NoWindow,
            Some((low, _)) if celsius < low => Self::TooCold,
            Some((_, high)) if celsius > high => Self::TooHot,
            Some(_) => Self::InWindow,
        }
    }

    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::TooCold => "Too cold",
            Self::InWindow => "In the window",
            Self::TooHot => "Too hot",
            Self::NoWindow => "",
        }
    }
}
