//! A repair of the shop's own: what became of it, and how it was done.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::{MethodId, School};
use crate::iron::Iron;

/// One repair of ours, and what became of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OwnRepair {
    pub job: Uuid,
    /// Its lighting: what was asked again of it replaces what was said before.
    pub lit: Uuid,
    /// Of the job.
    pub name: String,
    pub method: MethodId,
    /// As [`Variant::id`] has it.
    pub variant: String,
    pub iron: Iron,
    /// Until it was asked, or failed.
    pub days: f64,
    /// holds, fault, failed or unknown.
    pub became: String,
    /// What burdened it when it was last asked, in log-odds; 0 for one that was kept before that was.
    #[serde(default)]
    pub shift: f64,
    /// Its odds of a year when it was lit, 0 to 1; nothing for one that was lit before that was kept.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub given: Option<f64>,
    /// The same when it was first asked about, as it was handed over.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub handed: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub how: Option<Box<RepairHow>>,
}

impl OwnRepair {
    /// Whether it tells the same as another: hours that are reckoned anew by what was learned meanwhile are much the same.
    #[must_use]
    pub fn tells_as(&self, other: &Self) -> bool {
        let timeless = |it: &Self| {
            let how = it.how.as_deref().map(|how| RepairHow { hands_hours: None, ..how.clone() });
            Self { how: how.map(Box::new), ..it.clone() }
        };
        timeless(self) == timeless(other)
    }
}

/// What the mended place has to do, the hardest of it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PlaceKind {
    Knocked,
    Tight,
    Carries,
    Rests,
}

impl PlaceKind {
    pub const ALL: [Self; 4] = [Self::Knocked, Self::Tight, Self::Carries, Self::Rests];

    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::Knocked => "Bent or knocked",
            Self::Tight => "Tight",
            Self::Carries => "Carries a load",
            Self::Rests => "Carries nothing",
        }
    }

    #[must_use]
    pub fn id(self) -> &'static str {
        match self {
            Self::Knocked => "knocked",
            Self::Tight => "tight",
            Self::Carries => "carries",
            Self::Rests => "rests",
        }
    }
}

/// How a repair was done, in so far as it was kept.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RepairHow {
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub school: Option<School>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub place: Option<PlaceKind>,
    /// The thinnest that was mended.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wall_mm: Option<f64>,
    /// Nothing for what was done cold.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub preheat_c: Option<f64>,
    /// "ENi-CI nickel stick"; empty for what is not filled.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub rod: String,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rod_mm: Option<f64>,
    /// Least and most it was set to, in A.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub amps: Option<(f64, f64)>,
    /// What burdened it, as the odds call it: `not_peened`; nothing where nobody knows any more.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub burdens: Option<Vec<String>>,
    /// What was asked for it, in the currency of the shop then.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price: Option<f64>,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub currency: String,
    /// Of hands: as it was timed, and reckoned where it was not.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hands_hours: Option<f64>,
}
