//! The clocks that run down at the torch: the soak, the wait, the way out of the heat.

use serde::{Deserialize, Serialize};

use super::at_torch::Doing;
use super::{AtTorch, LiveBead};
use crate::heat::{Burning, OutOfHeat, Running, ThermalBody, runs_out_min};
use crate::job::{Deed, HeatState, Reading, Round, TorchEntry};
use crate::method::PieceOfWork;
use crate::record::FrozenGas;

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
        TorchEntry::Did { what: Deed::BackIn | Deed::HeldAtJoint | Deed::HeldOver | Deed::FlowBegun }
        | TorchEntry::Reheated => Some(false),
        _ => None,
    });
    last == Some(true)
}

impl AtTorch {
    /// Every clock that runs by now, after a reading of the part.
    pub(super) fn clocks(&self, reading: Reading, bead: Option<&LiveBead>, now_min: f64) -> Vec<TorchClock> {
        let mut clocks = Vec::new();
        let mut sims = |kind: &str, ends_min: f64, words: String, then: String| {
            if ends_min > now_min {
                clocks.push(TorchClock { kind: kind.to_owned(), ends_min, words, then });
            }
        };
        let next = self.done + 1;
        if !self.begun
            && matches!(self.doing, Doing::Work(PieceOfWork::Bead) | Doing::Bake)
            && self.warm_from_min.is_some()
            && let Some(ends_min) = self.soaked_min(now_min)
        {
            let (words, then) = match self.doing {
                Doing::Bake => ("hold", "does it still smoke or weep?"),
                Doing::Work(_) | Doing::Tack => ("soak", "the first bead"),
            };
            sims("soak", ends_min, words.to_owned(), then.to_owned());
        }
        if let Some(bead) = bead {
            sims(
                "wait",
                bead.start_min,
                format!("until bead {}", bead.number),
                format!("bead {}", bead.number),
            );
        }
        if let (Some(falls), Some((least_c, _)), Some(out_min)) =
            (&self.falls, self.window, self.out_from_min.filter(|_| self.out))
            && let Some(seconds) = STILL_AIR.seconds(&falls.body, falls.left_at_c(reading, out_min), least_c)
        {
            let then = if next > self.planned { "cover it" } else { "reheat" };
            let ends_min = reading.minutes.max(out_min) + seconds / 60.0;
            sims("out_of_heat", ends_min, "out of the heat".to_owned(), then.to_owned());
        }
        for gas in &self.gas {
            sims("gas", gas.ends_min, gas.words.clone(), gas.then.clone());
        }
        clocks
    }
}

/// A gas that burns on: when so little of it is left that it rings.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct GasClock {
    /// Minutes on the job clock, burning on without a break.
    ends_min: f64,
    words: String,
    then: String,
}

/// House: it rings when this share of what is needed is left.
const GAS_LEFT: f64 = 0.15;

/// The clocks of the gases that were counted when it was lit; none while it is out of the heat.
pub(super) fn gas_clocks(round: &Round) -> Vec<GasClock> {
    let Some(frozen) = round.lit.as_ref().and_then(|lit| lit.frozen.as_ref()) else { return Vec::new() };
    let states = round.states_of_heat();
    if is_out(round) || states.last().is_some_and(|(_, state)| *state == HeatState::HeldOver) {
        return Vec::new();
    }
    let not_burnt = out_minutes(round);
    let clock = |gas: &FrozenGas| {
        let burns = runs_out_min(gas.flow_m3_h, (gas.have_m3 - GAS_LEFT * gas.need_m3).max(0.0))?;
        let name = gas.kind.as_str();
        Some(GasClock {
            ends_min: burns + not_burnt,
            words: format!("{name}, burning on"),
            then: "another cylinder: 15 % of what is needed is left".to_owned(),
        })
    };
    frozen.gas.iter().filter_map(clock).collect()
}

/// Minutes that no flame of this was on it, and is again: it was out of the heat, or kept warm by something else.
fn out_minutes(round: &Round) -> f64 {
    let (mut out, mut since) = (0.0, None);
    for entry in round.standing_log() {
        match entry.entry {
            TorchEntry::Did { what: Deed::OutOfHeat | Deed::HeldOver } => {
                since = since.or(Some(entry.minutes));
            }
            TorchEntry::Did { what: Deed::BackIn | Deed::HeldAtJoint | Deed::FlowBegun }
            | TorchEntry::Reheated => {
                out += since.take().map_or(0.0, |since: f64| entry.minutes - since);
            }
            _ => {}
        }
    }
    out
}

/// What falls once it is out of the heat.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Falls {
    pub body: ThermalBody,
    /// What it was in before; nothing where the heat at hand is not known.
    pub burning: Burning,
}

impl Falls {
    /// What the coldest place is at as it leaves the heat: as it was read, brought on in the heat until then.
    fn left_at_c(&self, reading: Reading, out_min: f64) -> f64 {
        let mut part = Running { body: &self.body, bare_share: 1.0, bulk_c: reading.celsius };
        let mut left_s = (out_min - reading.minutes).clamp(0.0, MOST_IN_THE_HEAT_MIN) * 60.0;
        while left_s > 0.0 {
            part.step(left_s.min(STEP_S), self.burning, 0.0);
            left_s -= STEP_S;
        }
        part.bulk_c
    }
}

/// Ours: after so long in it, a part is as warm as its heat makes it.
const MOST_IN_THE_HEAT_MIN: f64 = 12.0 * 60.0;
const STEP_S: f64 = 2.0;
