//! What heats a part from moment to moment: by what was said at the torch, each step by its own source.

use crate::heat::{BarPower, Burning, Burnt};
use crate::job::{HeatState, Round};
use crate::stage::heat::StepPowers;

/// What heats a part while it is worked on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct HeatedBy {
    /// What brings it to its target, and does all that no other source was said for.
    pub main: Option<BarPower>,
    pub steps: StepPowers,
    /// What its coldest place is brought to, and the part as a whole with it, in degC.
    pub aim_c: f64,
    pub whole_c: f64,
}

impl HeatedBy {
    /// In the heat at a time on the job clock: brought to its target, soaked, reheated after the first piece.
    fn in_the_heat(&self, round: &Round, minutes: f64) -> Burning {
        let pieces = round.standing_log().filter(|entry| entry.is_piece());
        let begun = pieces.map(|entry| entry.minutes).any(|at| at <= minutes);
        // Only what soaks it by itself asks when it was warm: all its readings are looked through for that.
        let soaks = self.steps.soak.is_some();
        let warm = soaks && self.warm_from_min(round).is_some_and(|from| from <= minutes);
        let own = match (begun, warm) {
            (true, _) => self.steps.reheat,
            (false, true) => self.steps.soak,
            (false, false) => None,
        };
        own.or(self.main).map_or(Burning::Off, |power| Burning::by(power, self.whole_c))
    }

    fn held_at_joint(&self) -> Burning {
        match (self.steps.hold, self.main) {
            (Some(power @ BarPower::Flame { .. }), _) | (None, Some(power @ BarPower::Flame { .. })) => {
                Burning::Held { net_w: power.net_w() }
            }
            (Some(oven), _) => Burning::by(oven, self.whole_c),
            // Out of the oven, and some flame holds it: which one, nobody has said.
            (None, Some(_)) => Burning::Kept,
            (None, None) => Burning::Off,
        }
    }

    /// When it was first read at its target, in minutes on the job clock.
    fn warm_from_min(&self, round: &Round) -> Option<f64> {
        let warm = round.part_readings().filter(|read| read.celsius >= self.aim_c);
        warm.map(|read| read.minutes).reduce(f64::min)
    }

    fn by(&self, state: HeatState, round: &Round, minutes: f64) -> Burning {
        match state {
            HeatState::InTheHeat => self.in_the_heat(round, minutes),
            HeatState::HeldAtJoint => self.held_at_joint(),
            HeatState::HeldOver => Burning::Kept,
            HeatState::Out => Burning::Off,
        }
    }

    /// What heated it, and when, in s on the job clock. A state that a piece ended began with that piece: `began_s`
    /// says when, from its end.
    pub fn burnt(&self, round: &Round, began_s: impl Fn(f64) -> f64) -> Burnt {
        let states = round.states_of_heat();
        let mut burnt: Vec<(f64, Burning)> = states
            .iter()
            .map(|(minutes, state)| (began_s(minutes * 60.0), self.by(*state, round, *minutes)))
            .collect();
        // Warm, it goes over to what soaks it, without a word.
        let soaks = self.steps.soak.and_then(|_| self.warm_from_min(round));
        let state_at =
            |minutes: f64| states.iter().rev().find(|(from, _)| *from <= minutes).map(|(_, state)| *state);
        if let Some(minutes) = soaks.filter(|at| state_at(*at) == Some(HeatState::InTheHeat)) {
            burnt.push((minutes * 60.0, self.in_the_heat(round, minutes)));
        }
        Burnt::new(burnt)
    }

    /// What it was in before it left the heat for the last time, or is in where it did not.
    pub fn last_in(&self, round: &Round) -> Burning {
        let left = round.out_of_the_heat().last().map_or(f64::INFINITY, |(from, _)| *from);
        let states = round.states_of_heat();
        let before = states.iter().rev().find(|(from, state)| *from < left && *state != HeatState::Out);
        // Until it left it was as warm as it had become by then.
        before.map_or_else(|| self.in_the_heat(round, 0.0), |(_, state)| self.by(*state, round, left))
    }
}
