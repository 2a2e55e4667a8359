//! What every stage makes of a job.

use serde::Serialize;

use super::{Amount, Station};
use crate::figure::Figure;

/// One stage of a job: what is planned there, how much of it there is, and what is to be said of it.
#[derive(Debug, Clone, Default)]
pub(crate) struct Stage<T> {
    pub plan: T,
    pub amount: Amount,
    pub missing: Vec<Missing>,
    pub cautions: Vec<Caution>,
    pub figures: Vec<Figure>,
}

/// A caution, shown at the station where it matters.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Caution {
    pub station: Station,
    pub sentence: String,
}

impl Caution {
    pub(crate) fn new(station: Station, sentence: impl Into<String>) -> Self {
        Self { station, sentence: sentence.into() }
    }
}

/// A fact that is not known, and what that costs.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Missing {
    pub key: String,
    pub station: Station,
    /// What to do about it.
    pub verb: String,
    pub what: String,
    pub why: String,
}

/// Everything is computed and shown, no method is recommended, lighting up is refused.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Lock {
    pub rule: String,
    /// The station at which the job stops.
    pub station: Station,
    pub short: String,
    pub sentence: String,
    pub unlock: String,
    /// The field that unlocks it; empty for none.
    pub key: String,
    /// Only methods that heat the part are locked; pins may be set.
    pub hot_only: bool,
}
