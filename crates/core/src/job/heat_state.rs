//! What state of heat the part was in, by what was said of it.

use super::{Deed, LogEntry, Round, TorchEntry};

/// What state of heat a part is in, as it was said.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum HeatState {
    /// Under the flame, or in the oven.
    InTheHeat,
    HeldAtJoint,
    HeldOver,
    /// The flame is off, or it is out of the oven.
    Out,
}

impl Round {
    /// What state of heat the part was in, and since when in minutes on the job clock: from lighting up on.
    ///
    /// Who lays a bead has put the flame away for it, unless it is held on the joint; a reheat was said when it was
    /// done.
    #[must_use]
    pub fn states_of_heat(&self) -> Vec<(f64, HeatState)> {
        let mut states = vec![(0.0, HeatState::InTheHeat)];
        let (mut begun, mut flows) = (false, false);
        // What reached the shop late counts from when it was.
        let mut said: Vec<&LogEntry> = self.standing_log().collect();
        said.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
        for entry in said {
            let now = states.last().map_or(HeatState::Out, |(_, state)| *state);
            let next = match &entry.entry {
                TorchEntry::Did { what: Deed::OutOfHeat } => HeatState::Out,
                TorchEntry::Did { what: Deed::BackIn } => HeatState::InTheHeat,
                TorchEntry::Did { what: Deed::HeldAtJoint } => HeatState::HeldAtJoint,
                TorchEntry::Did { what: Deed::HeldOver } => HeatState::HeldOver,
                TorchEntry::Did { what: Deed::FlowBegun } => {
                    flows = true;
                    HeatState::HeldAtJoint
                }
                // It is filled: the flame is off the joint.
                TorchEntry::Bead { .. } if std::mem::take(&mut flows) => {
                    begun = true;
                    HeatState::Out
                }
                TorchEntry::Bead { .. } => {
                    begun = true;
                    if now == HeatState::InTheHeat { HeatState::Out } else { now }
                }
                TorchEntry::Reheated if begun && now != HeatState::HeldAtJoint => HeatState::Out,
                TorchEntry::Covered { .. } | TorchEntry::Unwrapped => HeatState::Out,
                _ => now,
            };
            if next != now {
                states.push((entry.minutes, next));
            }
        }
        states
    }

    /// When the seam was begun that is being filled in one flow, in minutes on the job clock; nothing where none is.
    #[must_use]
    pub fn flows_since(&self) -> Option<f64> {
        let last = self.standing_log().rev().find(|entry| entry.is_piece() || entry.begins_flow());
        last.filter(|entry| entry.begins_flow()).map(|entry| entry.minutes)
    }

    /// Minutes on the job clock between which it was out of the heat; the last goes on where it did not come back.
    #[must_use]
    pub fn out_of_the_heat(&self) -> Vec<(f64, f64)> {
        self.spans(|state| state == HeatState::Out)
    }

    /// The same in which it does not soak: only a flame over the whole part, or an oven, warms it through.
    #[must_use]
    pub fn not_soaking(&self) -> Vec<(f64, f64)> {
        self.spans(|state| state != HeatState::InTheHeat)
    }

    fn spans(&self, of: impl Fn(HeatState) -> bool) -> Vec<(f64, f64)> {
        let states = self.states_of_heat();
        let ends = states.iter().skip(1).map(|(from, _)| *from).chain([f64::INFINITY]);
        let spans = states.iter().zip(ends);
        spans.filter(|((_, state), _)| of(*state)).map(|((from, _), to)| (*from, to)).collect()
    }
}
