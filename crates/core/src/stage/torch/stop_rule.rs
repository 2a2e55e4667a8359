//! Go on, heat first, pack it, leave it: the four ways side by side.

use std::collections::BTreeMap;

use serde::Serialize;

use super::{TorchPlan, TroubleInputs};
use crate::heat::{Bar, BarPower, ThermalBody};
use crate::job::TorchEntry;
use crate::method::{Moves, Odds, WindowPosition, odds_with};
use crate::quantity::{Celsius, Unit, UnitSystem};
use crate::stage::HeatPlan;
use crate::stores::Take;

/// Whether to go on, and what each way would be worth.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StopRule {
    /// Why it is asked; empty while only the welder asks.
    pub because: Vec<String>,
    /// Go on as it is, heat first, pack it, leave it.
    pub ways: Vec<StopWay>,
}

/// One of the four.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StopWay {
    /// go_on, heat_first, pack or leave.
    pub id: String,
    pub words: String,
    /// Chance to hold a year, as it would then be; nothing where it is not mended.
    pub odds: Option<f64>,
    /// "holds 62 times in 100"; for what is left as it is: "not mended".
    pub odds_words: String,
    /// How long it takes from now; nothing where that is not known.
    pub minutes: Option<f64>,
    /// What it needs, or costs, a sentence each.
    pub needs: Vec<String>,
}

/// House: the program asks by itself when the odds fell so far since lighting up.
const FALLEN: f64 = 0.15;
/// House: or a bead was begun so far under the window, in K.
const FAR_UNDER_K: f64 = 50.0;
/// House: a joint that was started and packed is worth so much less.
const STARTED: f64 = 0.15;
/// Ours: less than this is no reheat.
const WARM_ALREADY_MIN: f64 = 0.5;
/// House: the same fault so often.
const FAULTS: usize = 3;

/// What the ways are weighed by.
pub(crate) struct StopInputs<'a> {
    pub heat: &'a HeatPlan,
    /// What it is reheated with; nothing for a cold way.
    pub heats: Option<(ThermalBody, BarPower)>,
    pub start: Odds,
    pub planned: Moves,
}

impl StopInputs<'_> {
    pub(super) fn rule(&self, inputs: &TroubleInputs<'_>, torch: &TorchPlan) -> StopRule {
        StopRule { because: self.because(inputs, torch), ways: self.ways(inputs, torch) }
    }

    fn odds(&self, inputs: &TroubleInputs<'_>, moves: &Moves) -> f64 {
        odds_with(self.start, &moves.parts(inputs.way.method)).mean
    }

    fn because(&self, inputs: &TroubleInputs<'_>, torch: &TorchPlan) -> Vec<String> {
        let units = inputs.part.units;
        let mut because = Vec::new();
        let (planned, now) = (self.odds(inputs, &self.planned), self.odds(inputs, &inputs.moves));
        if planned - now >= FALLEN {
            because.push(format!(
                "The odds fell from {:.0} to {:.0} of 100 since lighting up.",
                planned * 100.0,
                now * 100.0
            ));
        }
        if let Some((least_c, _)) = torch.window
            && let Some(coldest_c) = coldest_bead_c(inputs).filter(|at| *at < least_c - FAR_UNDER_K)
        {
            because.push(format!(
                "A bead was begun at {}, {} is the least.",
                units.say_exactly(coldest_c, Unit::Celsius),
                units.say_least(least_c, Unit::Celsius)
            ));
        }
        for gas in inputs.takes.iter().filter(|take| take.is_gas() && take.short) {
            because
                .push(format!("The gas will not last: {}, it takes {}.", gas.here_words, gas.amount_words));
        }
        let mut faults: BTreeMap<_, usize> = BTreeMap::new();
        for entry in inputs.round.standing_log() {
            if let TorchEntry::Trouble { seen, cause } = &entry.entry {
                *faults.entry(*seen).or_default() += 1;
                if let Some(cause) =
                    seen.cause(cause).filter(|_| matches!(cause.as_str(), "burnt" | "old_filler"))
                {
                    because.push(format!("It is the material: {}. Stop.", cause.words.to_lowercase()));
                }
            }
        }
        for (seen, times) in faults.into_iter().filter(|(_, times)| *times >= FAULTS) {
            because.push(format!("The same fault {times} times: {}.", seen.words().to_lowercase()));
        }
        because
    }

    fn ways(&self, inputs: &TroubleInputs<'_>, torch: &TorchPlan) -> Vec<StopWay> {
        let units = inputs.part.units;
        let (done, planned) = (f64::from(torch.done), f64::from(torch.planned.max(1)));
        let left = torch.planned.saturating_sub(torch.done);
        let reading = inputs.round.latest_reading();
        let under =
            reading.is_some_and(|at| WindowPosition::of(at.celsius, torch.window) == WindowPosition::TooCold);
        // By the log cold beads are a share of those laid: here of all there will be.
        let cold = inputs.moves.share_beads_cold * done;
        let after = |cold: f64| Moves {
            share_beads_cold: (cold / planned).min(1.0),
            preheat_short_k: if done > 0.0 || under { inputs.moves.preheat_short_k } else { 0.0 },
            ..inputs.moves.clone()
        };
        let goes_on = after(if under { cold + planned - done } else { cold });
        let heated = Moves {
            preheat_short_k: if done > 0.0 { inputs.moves.preheat_short_k } else { 0.0 },
            ..after(cold)
        };
        let laying_min = torch.beads.as_ref().map(|beads| beads.elapsed_min);
        let reheat_min = reading.and_then(|at| self.reheat_min(at.celsius));
        let pieces =
            |left: u32| format!("{left} {}{} left.", torch.piece.word(), if left == 1 { "" } else { "s" });
        let gas = gas_lines(inputs);
        let way =
            |id: &str, words: &str, odds: Option<f64>, minutes: Option<f64>, needs: Vec<String>| StopWay {
                id: id.to_owned(),
                words: words.to_owned(),
                odds,
                odds_words: odds
                    .map_or("not mended".to_owned(), |p| format!("holds {:.0} times in 100", p * 100.0)),
                minutes,
                needs,
            };
        let mut ways = vec![way(
            "go_on",
            "Go on as it is",
            Some(self.odds(inputs, &goes_on)),
            laying_min,
            vec![pieces(left)],
        )];
        if let Some(least_c) = torch.window.map(|(least_c, _)| least_c).filter(|_| !self.heat.cold) {
            let mut needs = vec![self.heat_words(reheat_min, (least_c, under), reading.is_some(), units)];
            needs.extend(gas.iter().cloned());
            ways.push(way(
                "heat_first",
                "Heat it first",
                reheat_min.map(|_| self.odds(inputs, &heated)),
                reheat_min.zip(laying_min).map(|(reheat, laying)| reheat + laying),
                needs,
            ));
        }
        let again_min = self.heat.minutes + self.heat.soak_minutes;
        let mut needs = vec![pieces(left)];
        if !self.heat.cold {
            needs.push(format!(
                "Cover it now; the whole heating again: {}.",
                units.say(again_min, Unit::Minutes)
            ));
            needs.extend(gas);
        }
        let another_day = (self.odds(inputs, &self.planned) - STARTED).max(0.0);
        ways.push(way(
            "pack",
            "Pack it, and another day",
            Some(another_day),
            laying_min.map(|laying| again_min + laying),
            needs,
        ));
        ways.push(way(
            "leave",
            "Leave it as it is",
            None,
            None,
            vec!["It goes to leave and watch: punch marks, and a day to look again.".to_owned()],
        ));
        ways
    }

    /// What heating it first asks for.
    fn heat_words(
        &self,
        reheat_min: Option<f64>,
        (least_c, under): (f64, bool),
        read: bool,
        units: UnitSystem,
    ) -> String {
        match reheat_min {
            // By the model it is there, and what was read is not: then it is not.
            Some(minutes) if minutes < WARM_ALREADY_MIN && !under => "It is warm enough already.".to_owned(),
            Some(minutes) => format!(
                "{} to {} first.",
                units.say(minutes, Unit::Minutes),
                units.say_least(self.heat.target_c.max(least_c), Unit::Celsius)
            ),
            None if !read => "Read it first: how long is not known.".to_owned(),
            None => "The heat at hand does not bring it there.".to_owned(),
        }
    }

    /// Minutes until the coldest place is back at what it is brought to, by the bar model; nothing where it does not
    /// get there within three hours.
    pub(super) fn reheat_min(&self, from_c: f64) -> Option<f64> {
        /// House: what takes longer to reheat is not reheated.
        const MOST_MIN: f64 = 180.0;
        let (body, power) = self.heats.as_ref()?;
        let mut bar = Bar::new(body, *power, Celsius::new(from_c).ok()?);
        let step_s = 10.0;
        let mut minutes = 0.0;
        while bar.coldest_c() < self.heat.target_c {
            if minutes > MOST_MIN {
                return None;
            }
            bar.step(step_s);
            minutes += step_s / 60.0;
        }
        Some(minutes)
    }
}

/// The coldest part at the beginning of a bead that is no tack, in degC.
fn coldest_bead_c(inputs: &TroubleInputs<'_>) -> Option<f64> {
    let mut readings: Vec<_> = inputs.round.part_readings().collect();
    readings.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
    let beads = inputs.round.standing_log().filter(|it| matches!(it.entry, TorchEntry::Bead { .. }));
    beads
        .filter_map(|bead| readings.iter().rev().find(|at| at.minutes <= bead.minutes))
        .map(|at| at.celsius)
        .reduce(f64::min)
}

/// What it takes of each gas, and what is here of it.
fn gas_lines(inputs: &TroubleInputs<'_>) -> Vec<String> {
    let line = |take: &Take| match take.here_words.as_str() {
        "" => format!("{}: {}, not counted in the stores.", take.words, take.amount_words),
        here => format!("{}: {}, {here}.", take.words, take.amount_words),
    };
    inputs.takes.iter().filter(|take| take.is_gas()).map(line).collect()
}
