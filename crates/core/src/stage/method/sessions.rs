//! The sessions of the way that is taken: when, and which beads in each.

use serde::Serialize;

use super::burns::Burns;
use super::ready::{next_day, of_minutes};
use super::{Contender, MethodContext};
use crate::effort::durations::{Step, ready_min};
use crate::effort::sessions::Session;
use crate::heat::SourceKind;
use crate::quantity::Unit;
use crate::stage::prep::prep_plan;
use crate::stores::{TakenWhen, gas_words};

/// One session.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SessionPlan {
    /// Beads, or pins, from 1; 0 where nothing is laid one by one.
    pub from: u32,
    pub to: u32,
    /// Wall-clock minutes since 1970 of the shop's own zone; nothing where the time of day is not known.
    #[serde(skip)]
    pub begins_min: Option<i64>,
    pub ends_min: Option<i64>,
    /// "Mon 9 Mar, 8:00: beads 1 to 41, 3 h 20, 0.9 m³ of propane".
    pub words: String,
    /// It is more than a day under the hood, and cannot be parted.
    pub too_long: bool,
}

/// What goes before the heat, what is one unbroken block, and what lies between two of them.
const BEFORE_THE_BLOCK: &[&str] = &["clean", "bake", "find", "strip", "drill", "open", "fit"];

impl MethodContext<'_> {
    /// When each session can be begun; empty once it is lit, and while its steps are not known.
    pub(super) fn sessions(&self, taken: &Contender) -> Vec<SessionPlan> {
        if self.round.repaired() || taken.steps.is_empty() {
            return Vec::new();
        }
        let prep = prep_plan(&self.prep_inputs(taken.way));
        let Some((steps, parts)) = prep.as_ref().and_then(|prep| self.steps(taken.way, prep)) else {
            return Vec::new();
        };
        let minutes = |id: &str| {
            steps.iter().filter(|step| step.id == id).fold((0.0, 0.0), |(hands, clock), step| {
                (hands + step.attended_min, clock + step.unattended_min)
            })
        };
        let heat = minutes("heat");
        let count = parts.len() as f64;
        let held = self.night(taken.way).is_some();
        // What is held over night is heated before the first and cools after the last.
        let cools = if held { 0.0 } else { minutes("cool").1 / count };
        let heat_min = |at: usize| match (held, at) {
            (false, _) => heat.1 / count,
            (true, 0) => heat.1,
            (true, _) => 0.0,
        };
        let around = |at: usize| minutes("lay_out").0 + heat_min(at) + minutes("pack").0 / count;
        let piece = format!("{}s", taken.way.method.piece().word());
        let burns = prep.as_ref().and_then(|prep| self.burns(taken.way, prep));
        let gases = self.gas_of_each(taken, burns, &parts);
        let before: Vec<Step> =
            steps.iter().filter(|step| BEFORE_THE_BLOCK.contains(&step.id.as_str())).cloned().collect();
        let mut at = self.moment.map(|moment| ready_min(moment.now_min, &before, &self.shop.week));
        let units = self.shop.units;
        let mut planned = Vec::with_capacity(parts.len());
        for (index, (part, gases)) in parts.iter().zip(gases).enumerate() {
            let block = around(index) + part.minutes;
            let begins = at.map(|at| self.shop.week.unbroken(at, block));
            let ends = begins.map(|begins| begins + block.ceil() as i64);
            let what = match (part.from, part.to) {
                (0, _) => String::new(),
                (from, to) if from == to => format!("{} {from}, ", taken.way.method.piece().word()),
                (from, to) => format!("{piece} {from} to {to}, "),
            };
            let takes = units.say(block, Unit::Minutes);
            let when = begins
                .map_or(String::new(), |begins| format!("{}: ", of_minutes(begins, self.shop.twelve_hours)));
            planned.push(SessionPlan {
                from: part.from,
                to: part.to,
                begins_min: begins,
                ends_min: ends,
                words: format!("{when}{what}{takes}{gases}"),
                too_long: part.minutes > self.shop.hood_min,
            });
            // One session under the hood a day.
            at = ends.map(|ends| (ends + cools.ceil() as i64).max(next_day(ends)));
        }
        planned
    }

    /// What becomes of the part between two sessions; empty where there is one, or nothing is heated.
    pub(super) fn between_sessions(&self, taken: &Contender) -> String {
        let units = self.shop.units;
        let prep = prep_plan(&self.prep_inputs(taken.way)).filter(|_| !self.round.repaired());
        let burns = prep.and_then(|prep| self.burns(taken.way, &prep)).filter(|burns| burns.sessions > 1.0);
        let Some((burns, target)) = burns.zip(self.target_of(taken.way)) else { return String::new() };
        let cools = "Between two: packed, and cooled to the hand.";
        let least = units.say_least(target.least_c, Unit::Celsius);
        if let Some(night) = self.night(taken.way) {
            return format!(
                "Between two: held at {least} in the {}, {} a night, on a base that does not burn, away from \
                 anything that does. It is heated once: {} saved each time.",
                night.source.label.to_lowercase(),
                units.say(night.minutes, Unit::Minutes),
                units.say(burns.warm_min(), Unit::Minutes)
            );
        }
        if let Some((source, _)) = self.steps.kept_over_night(target.least_c) {
            let label = source.label;
            return match source.keeps_by_itself() {
                true => format!("{cools} {label} does not hold it at {least}: that saves no heating."),
                false => format!(
                    "{cools} {label} is not left alone: held by it, somebody has to be there all night. It is \
                     reckoned as heated anew."
                ),
            };
        }
        let ovens = self.shop.heat_sources().filter_map(|source| match source.kind {
            SourceKind::Oven { up_to_c, fire: false, .. } => Some((source.label, up_to_c)),
            SourceKind::Oven { .. } | SourceKind::Flame { .. } => None,
        });
        // Held under the least between beads it has to be heated all the same.
        match ovens.max_by(|a, b| a.1.total_cmp(&b.1)) {
            None => cools.to_owned(),
            Some((label, up_to_c)) if up_to_c >= target.least_c => format!(
                "{cools} Or held overnight at {} in the {}: that saves {} of heating each time.",
                units.say_least(target.least_c, Unit::Celsius),
                label.to_lowercase(),
                units.say(burns.warm_min(), Unit::Minutes)
            ),
            Some((label, up_to_c)) => format!(
                "{cools} The {} holds it at {} at most, under the least of {}: that saves no heating.",
                label.to_lowercase(),
                units.say_most(up_to_c, Unit::Celsius),
                units.say_least(target.least_c, Unit::Celsius)
            ),
        }
    }

    /// What each session takes out of the cylinders, with its reserve: ", 0.9 m³ of propane", a gas each.
    fn gas_of_each(&self, taken: &Contender, burns: Option<Burns>, parts: &[Session]) -> Vec<String> {
        let beads_of = |part: &Session| if part.from == 0 { 1.0 } else { f64::from(part.to - part.from + 1) };
        let all_beads: f64 = parts.iter().map(beads_of).sum();
        let share = |part: &Session, when: TakenWhen| {
            let of_beads = beads_of(part) / all_beads;
            match burns.filter(|_| when == TakenWhen::Lit) {
                // Each is heated anew, and reheated for its own beads.
                Some(burns) => {
                    let reheating_min = burns.reheating_min * burns.throttle * burns.lightings * of_beads;
                    // Held over night it is heated before the first of them alone.
                    let heated = part.from <= 1 || burns.nights_min == 0.0;
                    let warm_min = if heated { burns.full_but_reheats_min() } else { 0.0 };
                    (warm_min + reheating_min) / burns.full_min()
                }
                None => of_beads,
            }
        };
        let of = |part: &Session| -> String {
            let gases = taken.takes.iter().filter(|take| take.is_gas());
            let words = gases.map(|take| {
                let amount = gas_words(&take.kind, take.amount * share(part, take.when), self.shop.units);
                format!(", {amount} of {}", take.kind)
            });
            words.collect()
        };
        parts.iter().map(of).collect()
    }
}
