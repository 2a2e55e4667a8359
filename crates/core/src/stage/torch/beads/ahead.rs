//! The next bead by now, from a later reading on.

use std::sync::Arc;

use serde::{Deserialize, Serialize};

use super::since;
use crate::heat::{BeadCourse, BeadPlace, Burnt, PastBead};
use crate::job::Reading;

/// The next bead by now.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LiveBead {
    pub number: u32,
    /// From now on, in s; 0 where it may start.
    pub wait_s: f64,
    /// Minutes on the job clock when it may start.
    pub start_min: f64,
    /// Where it goes, the hottest place there now, in degC: worked out, not measured.
    pub there_c: f64,
}

/// What the order is worked out from, kept for the next reading.
#[derive(Debug, Clone, PartialEq)]
pub struct BeadsAhead {
    pub(super) course: Arc<BeadCourse>,
    /// Ended on the job clock, in s.
    pub(super) laid: Vec<PastBead>,
    pub(super) next: Option<(BeadPlace, u32)>,
    /// The part as a whole over its coldest place, in K.
    pub(super) lead_k: f64,
    /// What heated it, and when.
    pub(super) burnt: Burnt,
}

impl BeadsAhead {
    /// Minutes on the job clock at which the last bead was laid.
    pub(in super::super) fn last_laid_min(&self) -> Option<f64> {
        self.laid.iter().map(|it| it.ended_s / 60.0).reduce(f64::max)
    }

    /// The part as a whole at a time in s: since it was read it fell or was held, and the beads laid since have warmed
    /// it.
    fn bulk_c(&self, reading: Reading, now_s: f64) -> f64 {
        let read_s = reading.minutes * 60.0;
        let (laid, burnt) = (since(&self.laid, read_s), self.burnt.since(read_s));
        self.course.bulk_after(reading.celsius + self.lead_k, now_s - read_s, &laid, &burnt)
    }

    /// Its coldest place by now, for all that is known.
    pub(in super::super) fn coldest_c(&self, reading: Reading, now_min: f64) -> f64 {
        self.bulk_c(reading, now_min.max(reading.minutes) * 60.0) - self.lead_k
    }

    /// The next bead by now, from a reading of the part on; nothing where none is to come, or it never may.
    #[must_use]
    pub fn live(&self, reading: Reading, now_min: f64) -> Option<LiveBead> {
        let (place, number) = self.next?;
        let now_s = now_min.max(reading.minutes) * 60.0;
        let bulk_c = self.bulk_c(reading, now_s);
        let may = self.course.may_begin(bulk_c, &since(&self.laid, now_s), place)?;
        let wait_s = may.wait_s + may.reheat_s;
        Some(LiveBead { number, wait_s, start_min: (now_s + wait_s) / 60.0, there_c: may.now_c })
    }
}
