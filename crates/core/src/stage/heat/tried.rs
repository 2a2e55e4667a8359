//! What each source that was tried comes to: in words, and how sure that is.

use super::run::SourceRun;
use super::sources::{CAREFUL_SWEEP, SourceOutcome, Sources};
use super::{HeatBetween, HeatPlan, TriedHeat};
use crate::heat::{
    BarPower, HeatingKnown, SimCache, SourceKind, ThermalBody, burnt_together, ceiling_c, gas_need_m3,
    heating_band,
};
use crate::method::Target;
use crate::quantity::{Celsius, Rounding, Seconds, Unit, UnitSystem};
use crate::stage::part::{PartFacts, Weight};
use crate::stores::gas_words;

/// What a heat burns in so many minutes, with its reserve, and how long hands are on it: on the clock, and as minutes
/// of its full flame.
fn takes(run: &SourceRun, (minutes, full_min): (f64, f64), units: UnitSystem) -> String {
    let mut takes: Vec<String> = burnt_together(&run.sources())
        .into_iter()
        .map(|(gas, flow)| {
            format!("{} of {}", gas_words(gas.id(), gas_need_m3(flow, full_min), units), gas.id())
        })
        .collect();
    takes.push(if run.source.is_oven() && !run.source.is_fire() {
        "no hands".to_owned()
    } else {
        format!("{} of hands", units.say(minutes, Unit::Minutes))
    });
    takes.join(", ")
}

/// "39 to 52 min", "52 min to 1 h 10"
fn from_to(low_min: f64, high_min: f64, units: UnitSystem) -> String {
    let at = |minutes: f64| units.show(minutes, Unit::Minutes, Rounding::Nearest);
    let (low, high) = (at(low_min), at(high_min));
    if low.unit == high.unit {
        format!("{} to {}", low.number, high.text())
    } else {
        format!("{} to {}", low.text(), high.text())
    }
}

impl Sources {
    /// What an estimated weight makes of a heating, at the least and the most it may weigh. Nothing where
    /// it was weighed.
    pub fn spread(
        &self,
        part: &PartFacts,
        reached: SourceOutcome<'_>,
        target: &Target,
        sims: &SimCache,
    ) -> Option<HeatBetween> {
        let Weight::Estimated(weight) = part.weight.as_ref().filter(|_| self.zone.is_none())? else {
            return None;
        };
        let run = reached.run;
        let to_c = if reached.least_only { target.least_c } else { target.target_c };
        let power = self.with(run, target.target_c, 1.0).power()?;
        let (to, most) = (Celsius::new(to_c).ok()?, Seconds::new(run.most_min * 60.0).ok()?);
        let at = |kg: f64| {
            let body = part.body_weighing(self.body.iron, kg)?;
            let heating = sims.heat_until(&body, power, to, most);
            let minutes = heating.minutes_to(to_c).unwrap_or(run.most_min);
            Some((minutes, self.worst_k(&heating, minutes), ceiling_c(&body, power)))
        };
        let (light, heavy) = (at(weight.low_kg)?, at(weight.high_kg)?);
        let ordered = |a: f64, b: f64| (a.min(b), a.max(b));
        Some(HeatBetween {
            minutes: (light.0, heavy.0),
            most_min: run.most_min,
            worst_k: ordered(light.1, heavy.1),
            ceiling_c: ordered(light.2, heavy.2),
        })
    }

    /// Minutes to the target with so much of this flame; nothing where it does not get there.
    pub(super) fn minutes_with(
        &self,
        run: &SourceRun,
        target: &Target,
        share: f64,
        sims: &SimCache,
    ) -> Option<f64> {
        let power = self.with(run, target.target_c, share).power()?;
        let (to, most) = (Celsius::new(target.target_c).ok()?, Seconds::new(run.most_min * 60.0).ok()?);
        sims.heat_until(&self.body, power, to, most).minutes_to(target.target_c)
    }

    /// The part as heavy as it may be; nothing while nobody has weighed or measured it.
    pub fn heaviest(&self, part: &PartFacts) -> Option<ThermalBody> {
        if self.zone.is_some() {
            return Some(self.body);
        }
        part.body_weighing(self.body.iron, part.weight.as_ref()?.range_kg().1)
    }

    /// Minutes that a part takes with as little power as the source may give.
    pub fn at_the_worst(
        &self,
        body: &ThermalBody,
        reached: SourceOutcome<'_>,
        target: &Target,
        sims: &SimCache,
    ) -> Option<f64> {
        let run = reached.run;
        let to_c = if reached.least_only { target.least_c } else { target.target_c };
        let weakest = 1.0 - self.strengths.not_known(run.source);
        let power = self.with(run, target.target_c, weakest).power()?;
        let (to, most) = (Celsius::new(to_c).ok()?, Seconds::new(run.most_min * 60.0).ok()?);
        // What does not get there takes all the time there is.
        Some(sims.heat_until(body, power, to, most).minutes_to(to_c).unwrap_or(run.most_min))
    }

    /// Every heat that was tried for a target, the soonest first, those that do not get there last.
    pub fn tried(
        &self,
        target: &Target,
        plan: &HeatPlan,
        (weighed, units): (bool, UnitSystem),
        sims: &SimCache,
    ) -> Vec<TriedHeat> {
        let one = |run: &SourceRun| {
            let there = run.heating.minutes_to(target.target_c).map(|minutes| (minutes, target.target_c));
            let there = there.or_else(|| Some((run.heating.minutes_to(target.least_c)?, target.least_c)));
            let minutes = there.map(|(minutes, _)| minutes);
            let (soonest_min, latest_min) = match there {
                // Of the one that is taken all that is not known counts, of the others their power.
                Some((_, to_c)) if plan.reached && plan.is_of(run) => {
                    self.band(run, (target.target_c, to_c), weighed, sims)
                }
                Some((_, to_c)) => self.between(run, target.target_c, to_c, sims),
                None => (None, None),
            };
            let worst_k = minutes.map(|minutes| self.worst_k(&run.heating, minutes));
            let even = worst_k.is_some_and(|worst_k| worst_k <= self.limit_k);
            let sweep = match (run.source.kind, run.even_share == CAREFUL_SWEEP) {
                (SourceKind::Flame { .. }, _) if self.zone.is_some() => ", swept over the seam and round it",
                (SourceKind::Flame { .. }, true) => ", swept carefully",
                (SourceKind::Flame { .. }, false) => ", half swept, half at the joint",
                (SourceKind::Oven { .. }, _) => "",
            };
            let words = match (minutes, worst_k) {
                // An oven heats it from all sides: how uneven it is inside nobody has reckoned.
                (Some(minutes), _) if run.source.is_oven() => units.say(minutes, Unit::Minutes),
                (Some(minutes), Some(worst_k)) => format!(
                    "{}{}{sweep}; uneven by {}, {} allowed",
                    units.say(minutes, Unit::Minutes),
                    match (soonest_min, latest_min) {
                        (Some(soon), Some(late)) => format!(" ({})", from_to(soon, late, units)),
                        (Some(soon), None) => format!(" ({}, or not at all)", units.say(soon, Unit::Minutes)),
                        (None, _) => String::new(),
                    },
                    // As the figure of it says; what is over the limit never reads as kept.
                    if even {
                        units.say(worst_k, Unit::Kelvins)
                    } else {
                        units.say_least(worst_k, Unit::Kelvins)
                    },
                    units.say_most(self.limit_k, Unit::Kelvins)
                ),
                _ => format!(
                    "stops at about {}{sweep}; {} is the least",
                    units.say_most(run.ceiling_c, Unit::Celsius),
                    units.say_least(target.least_c, Unit::Celsius)
                ),
            };
            TriedHeat {
                label: run.label(),
                taken: plan.reached && plan.is_of(run),
                reaches: minutes.is_some(),
                minutes,
                soonest_min,
                latest_min,
                even,
                takes: minutes.map_or(String::new(), |minutes| {
                    let held_min = plan.soak_minutes * self.hold_share(run, target.target_c);
                    takes(run, (minutes + plan.soak_minutes, minutes * run.throttle + held_min), units)
                }),
                ceiling_c: run.ceiling_c,
                ceiling_words: units.say(run.ceiling_c, Unit::Celsius),
                words,
            }
        };
        let mut tried: Vec<TriedHeat> = self.runs_for(target.target_c).map(one).collect();
        tried.sort_by(|a, b| {
            let at = |it: &TriedHeat| (!it.taken, !it.even, it.minutes.unwrap_or(f64::INFINITY));
            at(a).partial_cmp(&at(b)).unwrap_or(std::cmp::Ordering::Equal)
        });
        tried
    }

    /// The 80 % band of a flame: its power, the mass where nobody weighed it, the surface. An oven goes by its ramp.
    fn band(
        &self,
        run: &SourceRun,
        (target_c, to_c): (f64, f64),
        mass_weighed: bool,
        sims: &SimCache,
    ) -> (Option<f64>, Option<f64>) {
        let SourceKind::Flame { .. } = run.source.kind else { return (None, None) };
        let known = HeatingKnown { mass_weighed, own_heatings: self.strengths.one(run.source).1 };
        let minutes = |body: &ThermalBody, power: BarPower| {
            let (to, most) = (Celsius::new(to_c).ok()?, Seconds::new(run.most_min * 60.0).ok()?);
            sims.heat_until(body, power, to, most).minutes_to(to_c)
        };
        let band = self
            .with(run, target_c, 1.0)
            .power()
            .and_then(|power| heating_band(&self.body, power, to_c, known, minutes));
        (band.map(|band| band.low), band.and_then(|band| band.high))
    }

    /// How soon and how late a flame gets there, as strong and as weak as it may be; an oven goes by its ramp.
    fn between(
        &self,
        run: &SourceRun,
        target_c: f64,
        to_c: f64,
        sims: &SimCache,
    ) -> (Option<f64>, Option<f64>) {
        if !matches!(run.source.kind, SourceKind::Flame { .. }) {
            return (None, None);
        }
        let share = self.strengths.not_known(run.source);
        let at = |strength: f64| {
            let power = self.with(run, target_c, strength).power()?;
            let (to, most) = (Celsius::new(to_c).ok()?, Seconds::new(run.most_min * 60.0).ok()?);
            sims.heat_until(&self.body, power, to, most).minutes_to(to_c)
        };
        (at(1.0 + share), at(1.0 - share))
    }
}
