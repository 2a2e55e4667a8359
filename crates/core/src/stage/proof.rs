//! A proof with water: filled, raised in steps, each held with the pump. What is under no pressure stands full instead.

use serde::Serialize;

use crate::casting::said::SafetyClass;
use crate::field;
use crate::job::{Round, Work, WorkStep};
use crate::quantity::{Unit, UnitSystem};

/// House: how long each step is held.
const HELD_MIN: f64 = 10.0;
/// House: how long it stands full where nothing presses.
const STANDS_MIN: f64 = 30.0;
/// To fill it and vent it, and to let it down and drain it: house.
const FILLED_MIN: f64 = 10.0;
/// Of the pressure it works under.
const SHARES: [f64; 3] = [0.5, 1.0, 1.5];
/// Under no pressure: what is held has this number.
const STANDS: u32 = 0;

/// A proof, as it is done and as far as it is.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ProofPlan {
    /// "Water, in three steps to 9 bar at most: 50 min"
    pub words: String,
    /// Why nothing presses on it; empty where the pump does.
    pub without: String,
    pub steps: Vec<ProofStep>,
    pub minutes: f64,
    /// What was done of it, for the record; empty while nothing was.
    pub done_words: String,
}

/// One step of it. Its tick is its beginning: from then on it is held.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ProofStep {
    pub step: WorkStep,
    /// "3 bar"
    pub word: String,
    pub sentence: String,
    /// "10 min"; empty for what is not held.
    pub held: String,
    pub done: bool,
    /// It is held until then, UTC in ms since 1970: until it is gone on from.
    pub until_ms: Option<i64>,
    /// "held 4 min of 10"; empty until it was gone on from.
    pub held_words: String,
}

impl ProofPlan {
    /// Of what holds liquid.
    pub(crate) fn of(round: &Round, units: UnitSystem) -> Self {
        let asked = ProofInputs { round, units };
        let (without, most) = match asked.pressure() {
            Ok(bar) => (String::new(), Some(SHARES[2] * bar)),
            Err(why) => (why.to_owned(), None),
        };
        let steps = asked.steps();
        let minutes = FILLED_MIN + steps.iter().map(|it| it.1).sum::<f64>();
        let time = units.say(minutes, Unit::Minutes);
        Self {
            words: match most {
                Some(bar) => {
                    format!(
                        "Water, in three steps to {} at most: {time}",
                        units.say(not_over(bar), Unit::Bar)
                    )
                }
                None => format!("Water, stood full: {time}"),
            },
            without,
            done_words: asked.done_words(&steps),
            steps: asked.told(&steps),
            minutes,
        }
    }

    /// What is pressed next, and from when; nothing once it is through, or where nobody has begun it.
    pub(crate) fn next(&self) -> Option<(&ProofStep, Option<i64>)> {
        let at = self.steps.iter().position(|it| !it.done)?;
        let before = self.steps.get(at.checked_sub(1)?)?;
        Some((&self.steps[at], before.until_ms))
    }
}

/// A pressure as it is said where it may not be more: down to a tenth of a bar.
pub(crate) fn not_over(bar: f64) -> f64 {
    (bar * 10.0 + 1e-9).floor() / 10.0
}

/// A step, and for how long it is held.
type HeldStep = (WorkStep, f64);

struct ProofInputs<'a> {
    round: &'a Round,
    units: UnitSystem,
}

impl ProofInputs<'_> {
    /// What it works under, in bar; else why the pump is left away.
    fn pressure(&self) -> Result<f64, &'static str> {
        if self.round.get(field::part::SAFETY_CLASS) != Some(SafetyClass::None) {
            return Err("Not under pressure here: only who answers for such a part may ask that of it.");
        }
        match self.round.get(field::part::PRESSURE) {
            Some(bar) if bar > 0.0 => Ok(bar),
            Some(_) => Err("It works under no pressure."),
            None => {
                Err("Under what pressure it works nobody has said: then nothing but its own water presses.")
            }
        }
    }

    fn steps(&self) -> Vec<HeldStep> {
        let step = |what, number| WorkStep { what, at: None, number };
        let held: Vec<(u32, f64)> = match self.pressure() {
            Ok(_) => (1..).zip(SHARES).map(|(number, _)| (number, HELD_MIN)).collect(),
            Err(_) => vec![(STANDS, STANDS_MIN)],
        };
        let mut steps = vec![(step(Work::Filled, None), 0.0)];
        steps.extend(held.into_iter().map(|(number, minutes)| (step(Work::Held, Some(number)), minutes)));
        steps.push((step(Work::Drained, None), 0.0));
        steps
    }

    fn at_ms(&self, step: WorkStep) -> Option<i64> {
        self.round.ticked_ms.get(&step).copied()
    }

    /// How long a step was held: until the first thing that was done after it.
    fn held_min(&self, steps: &[HeldStep], at: usize) -> Option<f64> {
        let from = self.at_ms(steps[at].0)?;
        let after = steps[at + 1..].iter().filter_map(|(step, _)| self.at_ms(*step));
        let to = after.filter(|ms| *ms >= from).min()?;
        Some((to - from) as f64 / 60_000.0)
    }

    fn bar_words(&self, number: Option<u32>) -> String {
        let share = number.and_then(|number| SHARES.get((number as usize).checked_sub(1)?));
        match (share, self.pressure()) {
            (Some(share), Ok(bar)) => self.units.say(not_over(share * bar), Unit::Bar),
            _ => "Stood full".to_owned(),
        }
    }

    fn sentence(step: WorkStep) -> &'static str {
        match (step.what, step.number) {
            (Work::Filled, _) => {
                "Filled from below, the highest point open until no air comes. Outside dry and chalked."
            }
            (Work::Drained, _) => {
                "Let down slowly, drained, dried: water left in it bursts it when it is heated."
            }
            (_, Some(STANDS)) => "Left full: look for dark chalk at the seam and past every hole.",
            _ => {
                "Raised slowly, held with the pump, nobody in line. Look for dark chalk: a gauge that falls says \
                 nothing by itself."
            }
        }
    }

    fn told(&self, steps: &[HeldStep]) -> Vec<ProofStep> {
        let say = |minutes: f64| self.units.say(minutes, Unit::Minutes);
        let told = |(at, (step, minutes)): (usize, &HeldStep)| {
            let begun = self.at_ms(*step);
            let held = self.held_min(steps, at).filter(|_| *minutes > 0.0);
            ProofStep {
                step: *step,
                word: match step.what {
                    Work::Held => self.bar_words(step.number),
                    what => what.word().to_owned(),
                },
                sentence: Self::sentence(*step).to_owned(),
                held: if *minutes > 0.0 { say(*minutes) } else { String::new() },
                done: begun.is_some(),
                until_ms: begun
                    .filter(|_| *minutes > 0.0 && held.is_none())
                    .map(|ms| ms + (minutes * 60_000.0) as i64),
                held_words: held.map_or_else(String::new, |held| match held < *minutes - 0.5 {
                    true => format!("held {:.0} of {}", held.floor(), say(*minutes)),
                    false => format!("held {}", say(held)),
                }),
            }
        };
        steps.iter().enumerate().map(told).collect()
    }

    /// "3 bar for 10 min, 6 bar for 4 min; 9 bar not"
    fn done_words(&self, steps: &[HeldStep]) -> String {
        if steps.iter().all(|(step, _)| self.at_ms(*step).is_none()) {
            return String::new();
        }
        let (mut held, mut not) = (Vec::new(), Vec::new());
        for (at, (step, minutes)) in steps.iter().enumerate().filter(|(_, it)| it.1 > 0.0) {
            let word = self.bar_words(step.number);
            match (self.at_ms(*step), self.held_min(steps, at)) {
                (None, _) => not.push(word),
                (Some(_), Some(held_min)) if held_min < *minutes - 0.5 => {
                    held.push(format!("{word} for {:.0} min only", held_min.floor()));
                }
                (Some(_), Some(held_min)) => {
                    held.push(format!("{word} for {}", self.units.say(held_min, Unit::Minutes)));
                }
                (Some(_), None) => held.push(format!("{word}, how long nobody said")),
            }
        }
        let done = match held.is_empty() {
            true => "water: filled".to_owned(),
            false => format!("water: {}", held.join(", ").to_lowercase()),
        };
        match not.is_empty() {
            true => done,
            false => format!("{done}; not at {}", not.join(", not at ").to_lowercase()),
        }
    }
}
