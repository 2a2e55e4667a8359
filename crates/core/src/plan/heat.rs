//! Stage 6: can the heat at hand bring this part there, how long, how evenly.

use std::sync::Arc;

use serde::{Deserialize, Serialize};

use super::Amount;
use super::part::{GUESSED_WALL_MM, PartFacts, Weight};
use crate::figure::{Certainty, Figure, Source};
use crate::heat::{Bar, BarPower, Body, HeatSource, Heating, Runs, SourceKind, ceiling_c, energy_joules};
use crate::iron::{Governing, Iron, least_forgiving, slowest_to_heat};
use crate::job::Round;
use crate::method::{School, Target, Way};
use crate::quantity::{Celsius, Seconds, Unit, UnitSystem, Watts, number};
use crate::shop::Shop;

/// House: a preheat with a flame that takes longer than this is not one; an oven with its ramp may take
/// longer.
pub(super) const MOST_MIN: f64 = 180.0;
const OVEN_MOST_MIN: f64 = 600.0;
/// House: shares of the flame that go evenly over the part.
const ORDINARY_SWEEP: f64 = 0.5;
const CAREFUL_SWEEP: f64 = 0.8;
/// House: the model is good to this share of the power.
const GOOD_TO: f64 = 0.3;

/// One source at hand, tried on this part.
#[derive(Debug, Clone)]
pub(super) struct SourceRun {
    pub source: &'static HeatSource,
    pub even_share: f64,
    /// An oven is set for one target; a flame is the same for all.
    set_for_c: Option<f64>,
    /// It was worked out up to this time, where it did not get to its target before.
    most_min: f64,
    pub heating: Arc<Heating>,
    pub ceiling_c: f64,
}

/// What a source makes of one target.
#[derive(Debug, Clone, Copy)]
pub(super) struct Reached<'a> {
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
pub(super) struct Sources {
    pub runs: Vec<SourceRun>,
    /// As the iron that comes up slowest would have it.
    pub body: Body,
    closed: bool,
    station: f64,
    limit_k: f64,
    /// Of several irons in question: the one that comes up slowest, and the one that stands the least
    /// unevenness.
    slowest: Governing,
    least_forgiving: Governing,
}

/// Ours: an oven is set this much over the target, so that the core gets there in time.
const OVEN_OVER_K: f64 = 50.0;

/// What a source is run with.
#[derive(Debug, Clone, Copy)]
struct Run {
    source: &'static HeatSource,
    even_share: f64,
    /// Of a flame: where it stays.
    station: f64,
    /// Of an oven: what it is set for.
    target_c: f64,
    closed: bool,
    /// Share of its power.
    strength: f64,
}

impl Run {
    /// Power on a part: a flame's even share swept, an oven brought up with its ramp.
    fn power(self) -> Option<BarPower> {
        match self.source.kind {
            SourceKind::Flame { gross_w, net_share } => {
                let net = gross_w * net_share * self.strength;
                Some(BarPower::Flame {
                    even: Watts::new(net * self.even_share).ok()?,
                    local: Watts::new(net * (1.0 - self.even_share)).ok()?,
                    station: self.station,
                })
            }
            SourceKind::Oven { up_to_c, h_w_m2k, most_w, .. } => {
                let set_c = up_to_c.min(self.target_c + OVEN_OVER_K);
                Some(BarPower::Oven {
                    set: Celsius::new(set_c).ok()?,
                    ramp_k_per_h: self.source.ramp_k_per_h(self.closed)?,
                    h_w_m2k,
                    most: Watts::new(most_w * self.strength).ok()?,
                })
            }
        }
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
        let candidates: Vec<&'static HeatSource> =
            match round.choice("heat.source").and_then(HeatSource::from_id) {
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
        let mut runs = Vec::new();
        let mut run = |source: &'static HeatSource, even_share, set_for_c: Option<f64>| {
            let target_c = set_for_c.unwrap_or(hottest_c);
            let with = Run { source, even_share, station: part.station, target_c, closed, strength: 1.0 };
            let power = with.power()?;
            let most_min = most_min(source);
            let most = Seconds::new(most_min * 60.0).ok()?;
            runs.push(SourceRun {
                source,
                even_share,
                set_for_c,
                most_min,
                heating: made.heat_until(&body, power, Celsius::new(target_c).ok()?, most),
                ceiling_c: ceiling_c(&body, power),
            });
            Some(())
        };
        for source in candidates.into_iter().filter(|_| !targets_c.is_empty()) {
            match source.kind {
                SourceKind::Flame { .. } => {
                    run(source, ORDINARY_SWEEP, None)?;
                    run(source, CAREFUL_SWEEP, None)?;
                }
                SourceKind::Oven { .. } => {
                    for &target_c in targets_c {
                        run(source, 1.0, Some(target_c))?;
                    }
                }
            }
        }
        let least_forgiving = least_forgiving(plausible);
        let limit_k = least_forgiving.iron.properties().unevenness_limit_k();
        let station = part.station;
        Some(Self { runs, body, closed, station, limit_k, slowest, least_forgiving })
    }

    fn worst_k(&self, heating: &Heating, minutes: f64) -> f64 {
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

    fn with(&self, run: &SourceRun, target_c: f64, strength: f64) -> Run {
        Run {
            source: run.source,
            even_share: run.even_share,
            station: self.station,
            target_c,
            closed: self.closed,
            strength,
        }
    }

    /// The best way to a target: the first source that gets there evenly, in the order ordinary
    /// sweep, careful sweep, oven; else the soonest of those that get there at all; else the same of
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
            even.or_else(|| reached.iter().min_by(|a, b| a.minutes.total_cmp(&b.minutes))).copied()
        };
        to(target.target_c, false).or_else(|| to(target.least_c, true))
    }

    /// The runs that answer for a target: all flames, and the ovens set for it.
    fn runs_for(&self, target_c: f64) -> impl Iterator<Item = &SourceRun> {
        self.runs.iter().filter(move |run| run.set_for_c.is_none_or(|set_for| set_for == target_c))
    }

    fn hottest_run(&self, target_c: f64) -> Option<&SourceRun> {
        self.runs_for(target_c).max_by(|a, b| a.ceiling_c.total_cmp(&b.ceiling_c))
    }

    /// The model is an estimate: could this part be brought to the least with so much more power than
    /// was reckoned?
    pub fn within_the_estimate(&self, target: &Target) -> bool {
        self.runs_for(target.target_c).any(|run| {
            let stronger = self.with(run, target.target_c, 1.0 + GOOD_TO).power();
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
        let say = |celsius| units.say(celsius, Unit::Celsius);
        match self.hottest_run(target.target_c) {
            Some(run) if run.ceiling_c < target.least_c => format!(
                "{} cannot get this part to {}: it stops at about {}.",
                run.source.label,
                say(target.least_c),
                say(run.ceiling_c)
            ),
            Some(run) => format!(
                "{} is not there within {}: the cold end is at about {} then, {} is needed.",
                run.source.label,
                units.say(run.most_min, Unit::Minutes),
                say(run.heating.coldest_at_the_end_c()),
                say(target.least_c)
            ),
            None => "No heat at hand.".to_owned(),
        }
    }
}

/// A heating at the least and the most an estimated part may weigh.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HeatBetween {
    pub minutes: (f64, f64),
    /// Nothing takes longer here: what does stands at this.
    pub most_min: f64,
    pub worst_k: (f64, f64),
    pub ceiling_c: (f64, f64),
}

/// The heating of the chosen way.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HeatPlan {
    /// No heat at all is needed: the station is full at once.
    pub cold: bool,
    /// What is said of the heating, in a sentence.
    pub sentence: String,
    pub target_c: f64,
    /// Least and most at which a bead may begin.
    pub least_c: f64,
    pub most_c: f64,
    pub source: String,
    pub source_label: String,
    /// Share of the flame swept evenly over the part.
    pub even_share: f64,
    /// The coldest place gets to the least at which the work may begin.
    pub reached: bool,
    /// More power than was reckoned, within what the model is good to, would reach it: it may be lit by
    /// somebody who answers for it.
    pub within_the_estimate: bool,
    /// How far the coldest place stays under the target, in K; 0 where it gets there.
    pub short_k: f64,
    pub minutes: f64,
    /// At the least and the most an estimated part may weigh; nothing where it was weighed.
    pub between: Option<HeatBetween>,
    pub soak_minutes: f64,
    /// "1 h 12 and a soak of 20 min"; empty where nothing is heated.
    pub timing: String,
    /// "at least 300 °C", "at most 400 °C".
    pub least_words: String,
    pub most_words: String,
    /// Where to read it.
    pub read_at: String,
    /// (min, coldest degC, hottest degC)
    pub curve: Vec<(f64, f64, f64)>,
}

/// House: a minute of soak for each mm of wall, 20 at least.
pub(super) fn soak_minutes(way: Way, wall_mm: Option<f64>) -> f64 {
    if way.school.preheats() { wall_mm.unwrap_or(0.0).max(20.0) } else { 0.0 }
}

const READ_AT: &str = "far side of the joint, and the coldest far corner";

pub(super) fn heat_plan(
    way: Way,
    target: Option<&Target>,
    sources: Option<&Sources>,
    part: &PartFacts,
    runs: &Runs,
) -> Option<HeatPlan> {
    let (wall_mm, units) = (part.wall_mm, part.units);
    let say = |celsius| units.say(celsius, Unit::Celsius);
    let cold = |sentence: String, target_c: f64, most_c: f64| HeatPlan {
        cold: true,
        sentence,
        target_c,
        least_c: target_c,
        most_c,
        source: String::new(),
        source_label: String::new(),
        even_share: 0.0,
        reached: true,
        within_the_estimate: true,
        short_k: 0.0,
        minutes: 0.0,
        between: None,
        soak_minutes: 0.0,
        timing: String::new(),
        least_words: format!("at least {}", say(target_c)),
        most_words: format!("at most {}", say(most_c)),
        read_at: READ_AT.to_owned(),
        curve: Vec::new(),
    };
    match (way.school, target) {
        (School::NoHeat, _) => {
            Some(cold(format!("No heat needed. Iron at {} or more.", say(15.0)), 15.0, 65.0))
        }
        (School::Cold, Some(t)) => Some(cold(
            format!(
                "No preheat. Take the chill and damp off, keep between {} and {}.",
                say(t.target_c),
                say(t.most_c)
            ),
            t.target_c,
            t.most_c,
        )),
        (_, None) => None,
        (School::Warm | School::Hot | School::WholePart | School::Modest, Some(target)) => {
            let sources = sources?;
            let reached = sources.reach(target);
            let run = reached.map(|r| r.run).or_else(|| sources.hottest_run(target.target_c))?;
            let until = reached.map_or(f64::INFINITY, |r| r.minutes);
            let curve: Vec<_> =
                run.heating.curve.iter().copied().take_while(|(at, _, _)| *at <= until + 1.0).collect();
            let soak = soak_minutes(way, wall_mm);
            Some(HeatPlan {
                cold: false,
                sentence: heating_words(reached, sources, target, units),
                target_c: target.target_c,
                least_c: target.least_c,
                most_c: target.most_c,
                source: run.source.id.to_owned(),
                source_label: run.source.label.to_owned(),
                even_share: run.even_share,
                reached: reached.is_some(),
                within_the_estimate: reached.is_some() || sources.within_the_estimate(target),
                short_k: match reached {
                    Some(reached) if !reached.least_only => 0.0,
                    Some(_) | None => sources.short_k(target).unwrap_or(0.0),
                },
                minutes: reached.map_or(0.0, |r| r.minutes),
                between: reached.and_then(|r| sources.spread(part, r, target, runs)),
                soak_minutes: soak,
                timing: reached.map_or(String::new(), |reached| {
                    format!(
                        "{} and a soak of {}",
                        units.say(reached.minutes, Unit::Minutes),
                        units.say(soak, Unit::Minutes)
                    )
                }),
                least_words: format!("at least {}", say(target.least_c)),
                most_words: format!("at most {}", say(target.most_c)),
                read_at: READ_AT.to_owned(),
                curve,
            })
        }
    }
}

/// How to heat it, or why it does not get there.
fn heating_words(
    reached: Option<Reached<'_>>,
    sources: &Sources,
    target: &Target,
    units: UnitSystem,
) -> String {
    let Some(reached) = reached else { return sources.why_not(target, units) };
    let source = reached.run.source;
    let mut said = if !reached.even_enough {
        format!(
            "Uneven: {} on the way, {} is the limit. Slower, an oven, or a blanket over the rest.",
            units.say(reached.worst_k, Unit::Kelvins),
            units.say(sources.limit_k, Unit::Kelvins),
        )
    } else if source.is_fire() {
        "Lay it in cold and let it come up with the fire, which cannot be ramped: turn it, and read it at \
         both ends."
            .to_owned()
    } else if let Some(ramp) = source.ramp_k_per_h(sources.closed) {
        format!("Let it come up with the oven, no faster than {}.", units.say(ramp, Unit::KelvinsPerHour))
    } else if reached.run.even_share == CAREFUL_SWEEP {
        "Sweep it carefully: four fifths over the whole part, one fifth at the joint.".to_owned()
    } else {
        "Sweep it: half over the whole part, half round the joint.".to_owned()
    };
    if reached.least_only {
        said += &format!(
            " It stays short of {}: the least to begin at is {}.",
            units.say(target.target_c, Unit::Celsius),
            units.say(target.least_c, Unit::Celsius)
        );
    }
    said
}

pub(super) fn figures(
    heat: &HeatPlan,
    target: Option<&Target>,
    sources: Option<&Sources>,
    part: &PartFacts,
) -> Vec<Figure> {
    let mut figures = Vec::new();
    if let Some(target) = target {
        let (wall, how_sure) = match part.wall_mm {
            Some(mm) => (format!("{mm} mm"), Certainty::Computed),
            None => (format!("{GUESSED_WALL_MM} mm, a guess"), Certainty::Guess),
        };
        let mut window = Figure::new("heat.target", "Preheat", target.target_c, Unit::Celsius)
            .window(target.target_c, target.most_c)
            .formula(format!("least to begin a bead at: {:.0} °C", target.least_c))
            .fact("Wall", wall)
            .forced_by(target.forced_by.map_or(String::new(), |iron| iron.label().to_lowercase()))
            .source(Source::Standard("EN 1011-8, AWS D11.2; figures house".to_owned()), how_sure)
            .note(format!("Read it at the {}.", heat.read_at));
        for line in &target.working {
            window = window.formula(line.clone());
        }
        figures.push(window);
    }
    let (Some(sources), false) = (sources, heat.cold) else { return figures };
    let body = &sources.body;
    let sized = |figure: Figure| figure.fact("Part", part.size_words());
    if let (Ok(to), mass) = (Celsius::new(heat.target_c), body.mass) {
        let joules = energy_joules(&body.iron, mass, body.ambient, to);
        let mut energy = Figure::new("heat.energy", "Energy", joules / 1e6, Unit::Megajoules);
        if let Some(Weight::Estimated(weight)) = &part.weight {
            let at = |kg: f64| joules / 1e6 * kg / weight.kg;
            energy = energy.between(at(weight.low_kg), at(weight.high_kg));
        }
        figures.push(
            sized(energy)
                .formula(format!(
                    "{} kg x [{} T + {} T² / 2] from {:.0} to {:.0} °C",
                    number(mass.kilograms(), 1),
                    body.iron.heat_a,
                    body.iron.heat_b,
                    body.ambient.celsius(),
                    heat.target_c
                ))
                .source(Source::Standard("EN 1561 / EN 1563".to_owned()), Certainty::Computed),
        );
    }
    let Some(run) = sources
        .runs_for(heat.target_c)
        .find(|run| run.source.id == heat.source && run.even_share == heat.even_share)
    else {
        return figures;
    };
    let modelled = |figure: Figure| {
        sized(figure)
            .fact("Heat", run.source.label)
            .fact(
                "Joint",
                format!(
                    "{:.0} % along the longest side{}",
                    part.station * 100.0,
                    if part.station_known { "" } else { ", a guess" }
                ),
            )
            .source(Source::Law("conduction and radiation, bar of 40 cells".to_owned()), Certainty::Estimate)
    };
    if heat.reached {
        // House: the model is good to 30 %; what an estimated weight adds to that is independent of it.
        let (lightest, heaviest) = heat.between.map_or((heat.minutes, heat.minutes), |it| it.minutes);
        let off = |by: f64| (heat.minutes * 0.3).hypot(by);
        let mut minutes =
            modelled(Figure::new("heat.minutes", "To heat through", heat.minutes, Unit::Minutes))
                .between(
                    (heat.minutes - off(heat.minutes - lightest)).max(0.0),
                    heat.minutes + off(heaviest - heat.minutes),
                )
                .formula(format!("coldest cell from {:.0} to {:.0} °C", part.ambient_c, heat.target_c))
                .formula("good to 30 %".to_owned())
                .forced_by(sources.slowest.forced_by());
        if heat.between.is_some() {
            minutes = minutes
                .formula(format!("{lightest:.0} min at the least it may weigh, {heaviest:.0} at the most"));
        }
        figures.push(minutes);
        let worst_k = sources.worst_k(&run.heating, heat.minutes);
        let mut unevenness = Figure::new("heat.unevenness", "Unevenness on the way", worst_k, Unit::Kelvins);
        if let Some(between) = heat.between {
            // Neither end need be the heavier part's: the usual weight may heat the least evenly.
            let (low, high) = between.worst_k;
            unevenness = unevenness.between(low.min(worst_k), high.max(worst_k));
        }
        // Round a part in an oven the model sees no difference along it: it says nothing of thick and thin.
        let along = matches!(run.source.kind, SourceKind::Flame { .. });
        figures.extend(along.then(|| {
            modelled(unevenness)
                .formula(if sources.closed {
                    "closed shape: hottest less coldest"
                } else {
                    "range of the departures from the straight line along the part"
                })
                .note("Counted under {500 degC}; above, the iron gives.")
                .forced_by(sources.slowest.forced_by())
        }));
    }
    let mut ceiling = Figure::new("heat.ceiling", "This heat stops at", run.ceiling_c, Unit::Celsius);
    if let Some(between) = heat.between {
        let (low, high) = between.ceiling_c;
        ceiling = ceiling.between(low.min(run.ceiling_c), high.max(run.ceiling_c));
    }
    figures.push(modelled(ceiling).formula("coldest cell when it stays on for ever"));
    let iron = sources.least_forgiving.iron.properties();
    figures.push(
        Figure::new("heat.limit", "Unevenness allowed", sources.limit_k, Unit::Kelvins)
            .formula(format!(
                "{} x (1 - {}) / ({} x {}) / 2",
                iron.tensile_mpa,
                iron.poisson,
                iron.youngs_gpa * 1000.0,
                format_args!("{}e-6", iron.expansion_1e6_per_k)
            ))
            .source(Source::House, Certainty::Computed)
            .forced_by(sources.least_forgiving.forced_by()),
    );
    if heat.soak_minutes > 0.0 {
        figures.push(
            Figure::new("heat.soak", "Soak", heat.soak_minutes, Unit::Minutes)
                .formula("1 min for each mm of wall, 20 at least")
                .source(Source::House, Certainty::Computed),
        );
    }
    figures
}

pub(super) fn amount(heat: Option<&HeatPlan>) -> Amount {
    match heat {
        None => Amount::Nothing,
        Some(heat) if heat.reached => Amount::Enough,
        Some(_) => Amount::Something,
    }
}

impl HeatPlan {
    /// A bar at ambient, heated as planned: what the simulated thermocouple runs.
    #[must_use]
    pub fn bar(&self, body: &Body, station: f64, closed: bool) -> Option<(Bar, BarPower)> {
        let source = HeatSource::from_id(&self.source)?;
        let (even_share, target_c) = (self.even_share, self.target_c);
        let power = Run { source, even_share, station, target_c, closed, strength: 1.0 }.power()?;
        Some((Bar::new(body, power, body.ambient), power))
    }
}
