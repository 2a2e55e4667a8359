//! The clocks that run down at the torch: the soak, the wait, the way out of the heat.

use serde::{Deserialize, Serialize};

use super::{AtTorch, LiveBead};
use crate::heat::{Body, OutOfHeat};
use crate::job::{Deed, Reading, Round, TorchEntry};

/// A clock that rings when it is at nothing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TorchClock {
    /// soak, wait or out_of_heat.
    pub kind: String,
    /// Minutes on the job clock at which it is at nothing.
    pub ends_min: f64,
    /// What it counts: "soak", "until bead 5", "out of the heat".
    pub words: String,
    /// What to do when it rings.
    pub then: String,
}

/// House: what a part loses out of the heat: still air, nothing over it.
const STILL_AIR: OutOfHeat = OutOfHeat { h_w_m2k: 10.0, bare_share: 1.0 };

/// It left the heat, and did not come back.
pub(super) fn is_out(round: &Round) -> bool {
    let last = round.standing_log().rev().find_map(|entry| match entry.entry {
        TorchEntry::Did { what: Deed::OutOfHeat } => Some(true),
        TorchEntry::Did { what: Deed::BackIn } | TorchEntry::Reheated => Some(false),
        _ => None,
    });
    last == Some(true)
}

impl AtTorch {
    /// Every clock that runs by now, after a reading of the part.
    pub(super) fn clocks(&self, reading: Reading, bead: Option<&LiveBead>, now_min: f64) -> Vec<TorchClock> {
        let mut clocks = Vec::new();
        let mut runs = |kind: &str, ends_min: f64, words: String, then: String| {
            if ends_min > now_min {
                clocks.push(TorchClock { kind: kind.to_owned(), ends_min, words, then });
            }
        };
        let next = self.done + 1;
        if self.done == 0 && self.piece == "bead" && self.warm_from_min.is_some() {
            let ends_min = now_min + self.soak_left_min(now_min);
            runs("soak", ends_min, "soak".to_owned(), "the first bead".to_owned());
        }
        if let Some(bead) = bead {
            runs(
                "wait",
                bead.start_min,
                format!("until bead {}", bead.number),
                format!("bead {}", bead.number),
            );
        }
        if let (Some(body), Some((least_c, _)), true) = (&self.falls, self.window, self.out)
            && let Some(seconds) = STILL_AIR.seconds(body, reading.celsius, least_c)
        {
            let then = if next > self.planned { "cover it" } else { "reheat" };
            let ends_min = reading.minutes + seconds / 60.0;
            runs("out_of_heat", ends_min, "out of the heat".to_owned(), then.to_owned());
        }
        clocks
    }
}

/// What falls when it is out of the heat: nothing for a way that is not heated.
pub(super) fn falls(cold: bool, body: Option<&Body>) -> Option<Body> {
    body.copied().filter(|_| !cold)
}
