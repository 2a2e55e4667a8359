//! How hot a part is at a moment, and until when it is hot.

use serde::{Deserialize, Serialize};

use super::hot::LastHeat;
use crate::heat::TOUCH_C;
use crate::job::{HeatRef, Lit};
use crate::quantity::{Shown, Unit, exactly};

/// A part that is hot.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Hot {
    /// The last temperature known.
    pub celsius: Option<f64>,
    /// The same, ready to be shown.
    pub metric: Option<Shown>,
    pub imperial: Option<Shown>,
    pub unwrap_at_ms: Option<i64>,
    pub touch_at_ms: Option<i64>,
    /// Covered, and the packing still on it.
    pub covered: bool,
    pub unwrapped: bool,
}

/// Hot from lighting up until a reading says otherwise, or the slow end of the curve does: whatever round,
/// station or place the job is in.
pub(super) fn hot(last: &LastHeat, heat: &HeatRef<'_>, now_ms: i64) -> Option<Hot> {
    let latest = heat.latest_reading();
    if heat.read_cold(last.over) {
        return None;
    }
    if last.heated {
        let cold_at = last.touch_at_the_latest_min;
        if cold_at.is_some_and(|at| heat.lit.minutes(now_ms) >= at) {
            return None;
        }
    } else if latest.is_none_or(|reading| reading.celsius <= TOUCH_C) {
        return None;
    }
    let shown = latest.map(|reading| exactly(reading.celsius, Unit::Celsius));
    let (metric, imperial) = shown.unzip();
    Some(Hot {
        celsius: latest.map(|reading| reading.celsius),
        metric,
        imperial,
        unwrap_at_ms: last.unwrap_min.map(|at| at_ms(heat.lit, at)),
        touch_at_ms: last.touch_min.map(|at| at_ms(heat.lit, at)),
        covered: last.covered,
        unwrapped: last.unwrapped,
    })
}

pub(super) fn at_ms(lit: &Lit, minutes: f64) -> i64 {
    lit.at_ms + (minutes * 60_000.0) as i64
}
