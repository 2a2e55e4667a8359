//! Every source at hand, tried on this part.

use std::sync::Arc;

use super::{HeatBetween, HeatPlan, TriedHeat};
use crate::field;
use crate::heat::{
    BarPower, Body, FactorOf, HeatSource, Heating, HeatingKnown, OutOfHeat, OwnFactor, Runs, SMALLEST_FLAME,
    SourceKind, against_usual, burnt_together, ceiling_c, gas_need_m3, heating_band, not_known, own_factor,
};
use crate::iron::{Governing, Iron, least_forgiving, slowest_to_heat};
use crate::job::Round;
use crate::method::Target;
use crate::quantity::{Celsius, Rounding, Seconds, Unit, UnitSystem, Watts};
use crate::shop::Shop;
use crate::stage::part::{PartFacts, Weight};
use crate::stores::gas_words;

/// House: a preheat with a flame that takes longer than this is not one; an oven with its ramp may take
/// longer.
pub(crate) const MOST_MIN: f64 = 180.0;
const OVEN_MOST_MIN: f64 = 600.0;
/// House: shares of the flame that go evenly over the part.
const ORDINARY_SWEEP: f64 = 0.5;
pub(super) const CAREFUL_SWEEP: f64 = 0.8;

/// House: a flame is turned down to such shares of itself where the part does not stand it whole.
const TURNED_DOWN: [f64; 4] = [0.7, 0.5, 0.35, 0.25];

/// A share of a flame as it is said.
pub(super) fn turned_down(share: f64) -> &'static str {
    match share {
        share if share > 0.6 => "two thirds",
        share if share > 0.4 => "half",
        share if share > 0.3 => "a third",
        _ => "a quarter",
    }
}

/// House: a cover lies on this share of the part, the joint bare.
const COVERED_SHARE: f64 = 0.6;

/// What helps a flame that does not get there by itself.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) enum Help {
    Alone,
    /// The rest of the part is covered, the joint bare.
    Covered,
    /// A second flame, and somebody to hold it.
    Second(&'static HeatSource),
}

impl Help {
    /// As it is kept beside a plan: empty, `covered`, or the id of the second flame.
    pub fn id(self) -> &'static str {
        match self {
            Self::Alone => "",
            Self::Covered => "covered",
            Self::Second(source) => source.id,
        }
    }

    pub fn from_id(id: &str) -> Self {
        match (id, HeatSource::from_id(id)) {
            ("covered", _) => Self::Covered,
            (_, Some(second)) => Self::Second(second),
            (_, None) => Self::Alone,
        }
    }
}

/// One source at hand, tried on this part.
#[derive(Debug, Clone)]
pub(crate) struct SourceRun {
    pub source: &'static HeatSource,
    pub even_share: f64,
    pub help: Help,
    /// Of its full flame.
    pub throttle: f64,
    /// An oven is set for one target; a flame is the same for all.
    set_for_c: Option<f64>,
    /// It was worked out up to this time, where it did not get to its target before.
    most_min: f64,
    pub heating: Arc<Heating>,
    pub ceiling_c: f64,
}

impl SourceRun {
    /// Every source that burns at it.
    pub fn sources(&self) -> Vec<&'static HeatSource> {
        match self.help {
            Help::Alone | Help::Covered => vec![self.source],
            Help::Second(second) => vec![self.source, second],
        }
    }

    /// What heats it, with what helps it.
    pub fn label(&self) -> String {
        match self.help {
            Help::Alone if self.throttle < 1.0 => {
                format!("{}, turned down to about {}", self.source.label, turned_down(self.throttle))
            }
            Help::Alone => self.source.label.to_owned(),
            Help::Covered => format!("{}, the rest of the part covered", self.source.label),
            Help::Second(second) => {
                format!("{} and, with a helper, {}", self.source.label, second.label)
            }
        }
    }
}

/// What a source makes of one target.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Reached<'a> {
    pub run: &'a SourceRun,
    pub minutes: f64,
    /// Unevenness (open part) or whole difference (closed) on the way, in K.
    pub worst_k: f64,
    pub even_enough: bool,
    /// The target itself is not reached, but the least at which the work may begin is.
    pub least_only: bool,
}

/// Every source at hand on this part, worked out once.
#[derive(Debug, Clone)]
pub(crate) struct Sources {
    pub runs: Vec<SourceRun>,
    /// As the iron that comes up slowest would have it.
    pub body: Body,
    pub closed: bool,
    station: f64,
    pub limit_k: f64,
    pub(super) strengths: Strengths,
    /// Of several irons in question: the one that comes up slowest, and the one that stands the least
    /// unevenness.
    pub slowest: Governing,
    pub least_forgiving: Governing,
}

/// Ours: an oven is set this much over the target, so that the core gets there in time.
const OVEN_OVER_K: f64 = 50.0;

/// What a source is run with.
#[derive(Debug, Clone, Copy)]
pub(super) struct Run {
    pub source: &'static HeatSource,
    pub even_share: f64,
    pub help: Help,
    /// Of its full flame.
    pub throttle: f64,
    /// Of a flame: where it stays.
    pub station: f64,
    /// Of an oven: what it is set for.
    pub target_c: f64,
    pub closed: bool,
    /// Share of its power, and of that of a second flame.
    pub strength: (f64, f64),
}

/// As the book has them.
pub(super) const BOOK: (f64, f64) = (1.0, 1.0);

/// How strong the shop's own sources are against the book, by how they heated.
#[derive(Debug, Clone, Default)]
pub(crate) struct Strengths(Vec<OwnFactor>);

impl Strengths {
    fn one(&self, source: &HeatSource) -> (f64, usize) {
        own_factor(&self.0, &FactorOf::Source { id: source.id.to_owned() })
    }

    /// Of a source, and of what helps it.
    pub(super) fn of(&self, source: &HeatSource, help: Help) -> (f64, f64) {
        let second = match help {
            Help::Second(second) => self.one(second).0,
            Help::Alone | Help::Covered => 1.0,
        };
        (self.one(source).0, second)
    }

    /// The share of its power that is not known.
    pub(super) fn not_known(&self, source: &HeatSource) -> f64 {
        not_known(self.one(source).1)
    }

    /// What was learned of it; empty for nothing.
    pub(super) fn words(&self, source: &HeatSource) -> String {
        match self.one(source) {
            (_, 0) => String::new(),
            (factor, count) => format!(
                "{} gives {}, by {count} heating{} here",
                source.label,
                against_usual(factor),
                if count == 1 { "" } else { "s" }
            ),
        }
    }
}

impl Run {
    /// Power on a part: a flame's even share swept, an oven brought up with its ramp.
    pub(super) fn power(self) -> Option<BarPower> {
        match self.source.kind {
            SourceKind::Flame { gross_w, net_share } => {
                let second = match self.help {
                    Help::Second(second) => strength_w(second).unwrap_or(0.0) * self.strength.1,
                    Help::Alone | Help::Covered => 0.0,
                };
                let net = self.throttle * (gross_w * net_share * self.strength.0 + second);
                Some(BarPower::Flame {
                    even: Watts::new(net * self.even_share).ok()?,
                    local: Watts::new(net * (1.0 - self.even_share)).ok()?,
                    station: self.station,
                    covered: if self.help == Help::Covered { COVERED_SHARE } else { 0.0 },
                })
            }
            SourceKind::Oven { up_to_c, h_w_m2k, most_w, .. } => {
                let set_c = up_to_c.min(self.target_c + OVEN_OVER_K);
                Some(BarPower::Oven {
                    set: Celsius::new(set_c).ok()?,
                    ramp_k_per_h: self.source.ramp_k_per_h(self.closed)?,
                    h_w_m2k,
                    most: Watts::new(most_w * self.strength.0).ok()?,
                })
            }
        }
    }
}

/// What the flame of a planned heating gives the iron, in W, with what helps it, and the share that is not known; nothing
/// for an oven.
pub(crate) fn net_flame(heat: &HeatPlan, shop: &Shop) -> Option<(f64, f64)> {
    let source = HeatSource::from_id(&heat.source)?;
    let strengths = Strengths(shop.learned.clone());
    let help = Help::from_id(&heat.help);
    let own = strengths.of(source, help);
    let second = match help {
        Help::Second(second) => strength_w(second)? * own.1,
        Help::Alone | Help::Covered => 0.0,
    };
    Some((heat.throttle * (strength_w(source)? * own.0 + second), strengths.not_known(source)))
}

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

fn strength_w(source: &HeatSource) -> Option<f64> {
    match source.kind {
        SourceKind::Flame { gross_w, net_share } => Some(gross_w * net_share),
        SourceKind::Oven { .. } => None,
    }
}

fn oven_c(source: &HeatSource) -> Option<f64> {
    match source.kind {
        SourceKind::Flame { .. } => None,
        SourceKind::Oven { up_to_c, .. } => Some(up_to_c),
    }
}

fn most_min(source: &HeatSource) -> f64 {
    match source.kind {
        SourceKind::Flame { .. } => MOST_MIN,
        SourceKind::Oven { .. } => OVEN_MOST_MIN,
    }
}

impl Sources {
    pub fn station(&self) -> f64 {
        self.station
    }

    /// Tries the source the welder chose, or else the strongest flame and the hottest oven at
    /// hand. A flame runs once with an ordinary and once with a careful sweep, up to the hottest
    /// target of any way, and answers for the lower ones too; an oven is set for each target.
    pub fn try_all(
        round: &Round,
        shop: &Shop,
        part: &PartFacts,
        plausible: &[Iron],
        targets_c: &[f64],
        made: &Runs,
    ) -> Option<Self> {
        let slowest = slowest_to_heat(plausible);
        let body = part.body(slowest.iron.properties())?;
        let candidates: Vec<&'static HeatSource> = match round.get(field::heat::SOURCE) {
            Some(chosen) => vec![chosen],
            None => {
                let strongest = shop
                    .heat_sources()
                    .filter_map(|s| Some((s, strength_w(s)?)))
                    .max_by(|a, b| a.1.total_cmp(&b.1));
                let hottest = shop
                    .heat_sources()
                    .filter_map(|s| Some((s, oven_c(s)?)))
                    .max_by(|a, b| a.1.total_cmp(&b.1));
                [strongest, hottest].into_iter().flatten().map(|(s, _)| s).collect()
            }
        };
        if candidates.is_empty() {
            return None;
        }
        let hottest_c = targets_c.iter().copied().fold(f64::NAN, f64::max);
        let closed = part.closed();
        let strengths = Strengths(shop.learned.clone());
        let least_forgiving = least_forgiving(plausible);
        let limit_k = least_forgiving.iron.properties().unevenness_limit_k();
        let mut runs = Vec::new();
        let mut run = |source: &'static HeatSource, (even_share, help, throttle), set_for_c: Option<f64>| {
            let target_c = set_for_c.unwrap_or(hottest_c);
            let strength = strengths.of(source, help);
            let station = part.station;
            let with = Run { source, even_share, help, throttle, station, target_c, closed, strength };
            let power = with.power()?;
            let most_min = most_min(source);
            let most = Seconds::new(most_min * 60.0).ok()?;
            runs.push(SourceRun {
                source,
                even_share,
                help,
                throttle,
                set_for_c,
                most_min,
                heating: made.heat_until(&body, power, Celsius::new(target_c).ok()?, most),
                ceiling_c: ceiling_c(&body, power),
            });
            // Whether it gets there, and evenly to all that it gets to.
            let heating = &runs.last()?.heating;
            let even = |to_c: &f64| {
                let minutes = heating.minutes_to(*to_c)?;
                let (unevenness_k, difference_k) = heating.worst_until(minutes);
                Some(if closed { difference_k } else { unevenness_k } <= limit_k)
            };
            Some((heating.minutes_to(target_c).is_some(), targets_c.iter().filter_map(even).all(|even| even)))
        };
        for source in candidates.into_iter().filter(|_| !targets_c.is_empty()) {
            match source.kind {
                SourceKind::Flame { .. } => {
                    let (ordinary, _) = run(source, (ORDINARY_SWEEP, Help::Alone, 1.0), None)?;
                    let (careful, mut even) = run(source, (CAREFUL_SWEEP, Help::Alone, 1.0), None)?;
                    // Too much at once heats it unevenly: turned down until the part stands it.
                    for throttle in TURNED_DOWN {
                        if even {
                            break;
                        }
                        (_, even) = run(source, (CAREFUL_SWEEP, Help::Alone, throttle), None)?;
                    }
                    // What the flame cannot do by itself a cover may, or a second flame.
                    let covered =
                        ordinary || careful || run(source, (CAREFUL_SWEEP, Help::Covered, 1.0), None)?.0;
                    let second = shop
                        .heat_sources()
                        .filter(|other| other.id != source.id)
                        .filter_map(|other| Some((other, strength_w(other)?)))
                        .max_by(|a, b| a.1.total_cmp(&b.1));
                    // Whoever chose one flame did not ask for two.
                    let own = round.get(field::heat::SOURCE).is_some();
                    if let Some((second, _)) = second.filter(|_| !covered && !own) {
                        run(source, (CAREFUL_SWEEP, Help::Second(second), 1.0), None)?;
                    }
                }
                SourceKind::Oven { .. } => {
                    for &target_c in targets_c {
                        run(source, (1.0, Help::Alone, 1.0), Some(target_c))?;
                    }
                }
            }
        }
        let station = part.station;
        Some(Self { runs, body, closed, station, limit_k, strengths, slowest, least_forgiving })
    }

    pub fn worst_k(&self, heating: &Heating, minutes: f64) -> f64 {
        let (unevenness_k, difference_k) = heating.worst_until(minutes);
        if self.closed { difference_k } else { unevenness_k }
    }

    /// What an estimated weight makes of a heating, at the least and the most it may weigh. Nothing where
    /// it was weighed.
    pub fn spread(
        &self,
        part: &PartFacts,
        reached: Reached<'_>,
        target: &Target,
        made: &Runs,
    ) -> Option<HeatBetween> {
        let Weight::Estimated(weight) = part.weight.as_ref()? else { return None };
        let run = reached.run;
        let to_c = if reached.least_only { target.least_c } else { target.target_c };
        let power = self.with(run, target.target_c, 1.0).power()?;
        let (to, most) = (Celsius::new(to_c).ok()?, Seconds::new(run.most_min * 60.0).ok()?);
        let at = |kg: f64| {
            let body = part.body_weighing(self.body.iron, kg)?;
            let heating = made.heat_until(&body, power, to, most);
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

    /// The part as heavy as it may be; nothing while nobody has weighed or measured it.
    pub fn heaviest(&self, part: &PartFacts) -> Option<Body> {
        part.body_weighing(self.body.iron, part.weight.as_ref()?.range_kg().1)
    }

    /// Minutes that a part takes with as little power as the source may give.
    pub fn at_the_worst(
        &self,
        body: &Body,
        reached: Reached<'_>,
        target: &Target,
        made: &Runs,
    ) -> Option<f64> {
        let run = reached.run;
        let to_c = if reached.least_only { target.least_c } else { target.target_c };
        let weakest = 1.0 - self.strengths.not_known(run.source);
        let power = self.with(run, target.target_c, weakest).power()?;
        let (to, most) = (Celsius::new(to_c).ok()?, Seconds::new(run.most_min * 60.0).ok()?);
        // What does not get there takes all the time there is.
        Some(made.heat_until(body, power, to, most).minutes_to(to_c).unwrap_or(run.most_min))
    }

    /// What heats the part in this run.
    pub fn power_for(&self, run: &SourceRun, target_c: f64) -> Option<BarPower> {
        self.with(run, target_c, 1.0).power()
    }

    fn with(&self, run: &SourceRun, target_c: f64, share: f64) -> Run {
        let (own, second) = self.strengths.of(run.source, run.help);
        Run {
            source: run.source,
            even_share: run.even_share,
            help: run.help,
            throttle: run.throttle,
            station: self.station,
            target_c,
            closed: self.closed,
            strength: (own * share, second * share),
        }
    }

    /// Of its full flame what holds the part at a temperature: what it loses there, the smallest steady flame at
    /// least. Nothing of an oven, which holds it by itself.
    pub fn hold_share(&self, run: &SourceRun, at_c: f64) -> f64 {
        let full = self.with(&SourceRun { throttle: 1.0, ..run.clone() }, at_c, 1.0).power();
        let Some(power) = full.filter(|_| !run.source.is_oven()) else { return 0.0 };
        let still = OutOfHeat { h_w_m2k: 10.0, bare_share: power.bare_share() };
        (still.loss_w(&self.body, at_c) / power.net_w()).clamp(SMALLEST_FLAME, 1.0)
    }

    /// The best way to a target: the first source that gets there evenly, in the order ordinary
    /// sweep, careful sweep, turned down, oven; else the least uneven of those that get there at all; else the same of
    /// those that get to the least at which the work may begin.
    pub fn reach(&self, target: &Target) -> Option<Reached<'_>> {
        let to = |celsius: f64, least_only: bool| -> Option<Reached<'_>> {
            let reached: Vec<Reached<'_>> = self
                .runs_for(target.target_c)
                .filter_map(|run| {
                    let minutes = run.heating.minutes_to(celsius)?;
                    let worst_k = self.worst_k(&run.heating, minutes);
                    let even_enough = worst_k <= self.limit_k;
                    Some(Reached { run, minutes, worst_k, even_enough, least_only })
                })
                .collect();
            let even = reached.iter().find(|r| r.even_enough);
            // Where none is even, the least uneven.
            even.or_else(|| reached.iter().min_by(|a, b| a.worst_k.total_cmp(&b.worst_k))).copied()
        };
        to(target.target_c, false).or_else(|| to(target.least_c, true))
    }

    /// Every heat that was tried for a target, the soonest first, those that do not get there last.
    pub fn tried(
        &self,
        target: &Target,
        plan: &HeatPlan,
        (weighed, units): (bool, UnitSystem),
        made: &Runs,
    ) -> Vec<TriedHeat> {
        let one = |run: &SourceRun| {
            let there = run.heating.minutes_to(target.target_c).map(|minutes| (minutes, target.target_c));
            let there = there.or_else(|| Some((run.heating.minutes_to(target.least_c)?, target.least_c)));
            let minutes = there.map(|(minutes, _)| minutes);
            let (soonest_min, latest_min) = match there {
                // Of the one that is taken all that is not known counts, of the others their power.
                Some((_, to_c)) if plan.reached && plan.is_of(run) => {
                    self.band(run, (target.target_c, to_c), weighed, made)
                }
                Some((_, to_c)) => self.between(run, target.target_c, to_c, made),
                None => (None, None),
            };
            let worst_k = minutes.map(|minutes| self.worst_k(&run.heating, minutes));
            let even = worst_k.is_some_and(|worst_k| worst_k <= self.limit_k);
            let sweep = match (run.source.kind, run.even_share == CAREFUL_SWEEP) {
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
        made: &Runs,
    ) -> (Option<f64>, Option<f64>) {
        let SourceKind::Flame { .. } = run.source.kind else { return (None, None) };
        let known = HeatingKnown { mass_weighed, own_heatings: self.strengths.one(run.source).1 };
        let minutes = |body: &Body, power: BarPower| {
            let (to, most) = (Celsius::new(to_c).ok()?, Seconds::new(run.most_min * 60.0).ok()?);
            made.heat_until(body, power, to, most).minutes_to(to_c)
        };
        let band = self
            .with(run, target_c, 1.0)
            .power()
            .and_then(|power| heating_band(&self.body, power, to_c, known, minutes));
        (band.map(|band| band.low), band.and_then(|band| band.high))
    }

    /// How soon and how late a flame gets there, as strong and as weak as it may be; an oven goes by its ramp.
    fn between(&self, run: &SourceRun, target_c: f64, to_c: f64, made: &Runs) -> (Option<f64>, Option<f64>) {
        if !matches!(run.source.kind, SourceKind::Flame { .. }) {
            return (None, None);
        }
        let share = self.strengths.not_known(run.source);
        let at = |strength: f64| {
            let power = self.with(run, target_c, strength).power()?;
            let (to, most) = (Celsius::new(to_c).ok()?, Seconds::new(run.most_min * 60.0).ok()?);
            made.heat_until(&self.body, power, to, most).minutes_to(to_c)
        };
        (at(1.0 + share), at(1.0 - share))
    }

    /// The runs that answer for a target: all flames, and the ovens set for it.
    pub fn runs_for(&self, target_c: f64) -> impl Iterator<Item = &SourceRun> {
        self.runs.iter().filter(move |run| run.set_for_c.is_none_or(|set_for| set_for == target_c))
    }

    pub fn hottest_run(&self, target_c: f64) -> Option<&SourceRun> {
        self.runs_for(target_c).max_by(|a, b| a.ceiling_c.total_cmp(&b.ceiling_c))
    }

    /// The model is an estimate: could this part be brought to the least with so much more power than
    /// was reckoned?
    pub fn within_the_estimate(&self, target: &Target) -> bool {
        self.runs_for(target.target_c).any(|run| {
            let stronger =
                self.with(run, target.target_c, 1.0 + self.strengths.not_known(run.source)).power();
            stronger.is_some_and(|power| ceiling_c(&self.body, power) >= target.least_c)
        })
    }

    /// How far the coldest place is short of the target when the time is up, in K.
    pub fn short_k(&self, target: &Target) -> Option<f64> {
        let best = |run: &SourceRun| run.heating.coldest_at_the_end_c();
        let hottest = self.runs_for(target.target_c).map(best).fold(f64::NAN, f64::max);
        (!hottest.is_nan()).then(|| (target.target_c - hottest).max(0.0))
    }

    /// Why the least of a target is not reached, in a sentence: how hot it gets, and in what time.
    pub fn why_not(&self, target: &Target, units: UnitSystem) -> String {
        // Each to its own side: what falls short never reads as enough.
        let needed = units.say_least(target.least_c, Unit::Celsius);
        let say = |celsius| units.say_most(celsius, Unit::Celsius);
        match self.hottest_run(target.target_c) {
            Some(run) if run.ceiling_c < target.least_c => format!(
                "{} cannot get this part to {}: it stops at about {}.",
                run.label(),
                needed,
                say(run.ceiling_c)
            ),
            Some(run) => format!(
                "{} is not there within {}: the cold end is at about {} then, {} is needed.",
                run.label(),
                units.say(run.most_min, Unit::Minutes),
                say(run.heating.coldest_at_the_end_c()),
                needed
            ),
            None => "No heat at hand.".to_owned(),
        }
    }
}
