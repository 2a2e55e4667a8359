//! Stage 6: can the heat at hand bring this part there, how long, how evenly.

mod beside;
mod by_eye;
mod figures;
mod run;
mod sources;
mod steps;
mod tried;

pub use beside::{GasPlan, InfraredPlan, OvenSegment, RunsOn, StaysCool};
pub(crate) use run::{Help, net_flame};
pub(crate) use sources::{MOST_MIN, Sources};
pub use steps::{HeatStep, HeatStepPlan};
pub(crate) use steps::{StepBurn, StepSources, burnt_words, gases_of};

use std::sync::Arc;

use serde::Serialize;

use super::cracks::CrackPlan;
use super::part::{PartFacts, Weight};
use super::{Amount, Caution, Stage, Station};
use crate::heat::{Bar, BarPower, Body, HeatSource, Heating, Runs, hot_work_clearance, sticks};
use crate::iron::Iron;
use crate::job::Round;
use crate::method::{School, Target, Way};
use crate::quantity::{Celsius, Seconds, Unit, UnitSystem, Watts};
use crate::record::HeatedWith;
use crate::shop::Shop;
use run::{BOOK, Run, SourceRun, turned_down};
use sources::{CAREFUL_SWEEP, Reached};

/// A heating at the least and the most an estimated part may weigh.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HeatBetween {
    pub minutes: (f64, f64),
    /// Nothing takes longer here: what does stands at this.
    pub most_min: f64,
    pub worst_k: (f64, f64),
    pub ceiling_c: (f64, f64),
}

/// The heating of the chosen way.
#[derive(Debug, Clone, PartialEq, Serialize)]
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
    /// What helps it: empty, `covered`, or the id of a second flame.
    #[serde(default)]
    pub help: String,
    /// Of its full flame while it heats: turned down to what the part stands.
    pub throttle: f64,
    /// Of its full flame while it soaks and waits.
    pub hold_share: f64,
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
    /// Every heat at hand, tried on this part; those it goes by in front.
    pub tried: Vec<TriedHeat>,
    /// The part from end to end as it warms: (min, degC from one end to the other).
    pub along: Vec<(f64, Vec<f64>)>,
    /// Where the joint lies, a fraction of the longest side.
    pub station: f64,
    /// The two temperature sticks, or which to buy; empty where nothing is heated.
    pub sticks: String,
    /// "21 % less than usual, by 20 heatings here"; empty where nothing was learned of it.
    pub learned: String,
    /// The share that the minutes are good to: less the more heatings were read here; 0 where nothing is heated.
    pub good_to: f64,
    /// An oven's program, segment by segment; empty for any other heat.
    pub oven: Vec<OvenSegment>,
    /// What it burns, against what is here.
    pub gas: Vec<GasPlan>,
    /// The steps of one lighting, each with its source, minutes and gas; none while nothing is heated.
    pub steps: Vec<HeatStepPlan>,
    /// Where it was said that the flame begins on a drawn face; empty while nobody said.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub begins: String,
    /// What the eye tells of the target; empty where it tells nothing.
    pub by_eye: String,
    /// How hard the edge gets, with and without the preheat; empty for what does not melt the iron.
    pub edge: String,
    /// What an infrared gun shows; nothing where nothing is heated.
    pub infrared: Option<InfraredPlan>,
    /// Tips that are likely to run on while it is heated, the worst first.
    pub runs_on: Vec<RunsOn>,
    /// What must stay cool, and how hot it gets.
    pub stays_cool: Vec<StaysCool>,
}

/// One heat at hand, tried on this part.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TriedHeat {
    pub label: String,
    /// It is the one that is planned with.
    pub taken: bool,
    /// The coldest place gets to the least at which the work may begin, in the time there is.
    pub reaches: bool,
    /// To the target, or where that is not reached to the least; nothing where neither is.
    pub minutes: Option<f64>,
    /// The same of a flame that is as strong, and as weak, as it may be: nothing for what does not get there then.
    pub soonest_min: Option<f64>,
    pub latest_min: Option<f64>,
    /// Even enough for this iron and shape on the way.
    pub even: bool,
    /// Where the coldest place stops; and in words.
    pub ceiling_c: f64,
    pub ceiling_words: String,
    /// "1 h 12, uneven by 45 of 63"
    pub words: String,
    /// What it burns and what it asks of hands, to the target and soaked: "0.51 m³ of propane, 23 min of hands". Empty
    /// where it does not get there.
    pub takes: String,
}

/// House: a minute of soak for each mm of wall, 20 at least.
pub(crate) fn soak_minutes(way: Way, wall_mm: Option<f64>) -> f64 {
    if way.school.preheats() { wall_mm.unwrap_or(0.0).max(20.0) } else { 0.0 }
}

const READ_AT: &str = "far side of the joint, and the coldest far corner";

/// Where it is read, with the places on the map that were marked for it.
fn read_at(part: &PartFacts) -> String {
    match part.reading_places.as_slice() {
        [] => READ_AT.to_owned(),
        places => format!("{READ_AT} (on the map: {})", places.join(", ")),
    }
}

pub(crate) fn heat_plan(
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
        help: String::new(),
        throttle: 1.0,
        hold_share: 0.0,
        reached: true,
        within_the_estimate: true,
        short_k: 0.0,
        minutes: 0.0,
        between: None,
        soak_minutes: 0.0,
        timing: String::new(),
        least_words: format!("at least {}", units.window(target_c, most_c, Unit::Celsius).0.text()),
        most_words: format!("at most {}", units.window(target_c, most_c, Unit::Celsius).1.text()),
        read_at: read_at(part),
        curve: Vec::new(),
        tried: Vec::new(),
        along: Vec::new(),
        station: 0.0,
        sticks: String::new(),
        learned: String::new(),
        good_to: 0.0,
        oven: Vec::new(),
        gas: Vec::new(),
        steps: Vec::new(),
        begins: String::new(),
        by_eye: String::new(),
        edge: String::new(),
        infrared: None,
        runs_on: Vec::new(),
        stays_cool: Vec::new(),
    };
    match (way.school, target) {
        (School::NoHeat, _) => {
            Some(cold(format!("No heat needed. Iron at {} or more.", say(15.0)), 15.0, 65.0))
        }
        (School::ArcOnly, Some(t)) => Some(HeatPlan {
            least_c: t.least_c,
            ..cold(
                format!("No preheat: the arc itself warms it. Never over {}.", say(t.most_c)),
                t.target_c,
                t.most_c,
            )
        }),
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
            heated(target, soak_minutes(way, wall_mm), sources?, part, runs)
        }
    }
}

/// Brought to a target with the heat at hand, and held there.
pub(crate) fn heated(
    target: &Target,
    soak: f64,
    sources: &Sources,
    part: &PartFacts,
    runs: &Runs,
) -> Option<HeatPlan> {
    let units = part.units;
    let reached = sources.reach(target);
    let run = reached.map(|r| r.run).or_else(|| sources.hottest_run(target.target_c))?;
    let until = reached.map_or(f64::INFINITY, |r| r.minutes);
    let curve = run.heating.curve_until(until);
    let (low, high) = units.window(target.least_c, target.most_c, Unit::Celsius);
    Some(HeatPlan {
        cold: false,
        sentence: heating_words(reached, sources, target, units),
        target_c: target.target_c,
        least_c: target.least_c,
        most_c: target.most_c,
        source: run.source.id.to_owned(),
        source_label: run.label(),
        even_share: run.even_share,
        help: run.help.id().to_owned(),
        throttle: run.throttle,
        hold_share: sources.hold_share(run, target.target_c),
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
                units.say_least(soak, Unit::Minutes)
            )
        }),
        least_words: format!("at least {}", low.text()),
        most_words: format!("at most {}", high.text()),
        read_at: read_at(part),
        curve,
        tried: Vec::new(),
        along: Vec::new(),
        station: sources.station(),
        sticks: String::new(),
        learned: sources.strengths.words(run.source),
        good_to: sources.strengths.not_known(run.source),
        oven: Vec::new(),
        gas: Vec::new(),
        steps: Vec::new(),
        begins: String::new(),
        by_eye: String::new(),
        edge: String::new(),
        infrared: None,
        runs_on: Vec::new(),
        stays_cool: Vec::new(),
    })
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
    let helped = match reached.run.help {
        Help::Alone => String::new(),
        Help::Covered => "Cover the rest of the part, the joint bare, and sweep what is bare.".to_owned(),
        Help::Second(second) => format!(
            "Two flames and a helper, both swept carefully over the whole part. The second: {}.",
            second.label
        ),
    };
    let mut said = if !reached.even_enough {
        let better = match reached.run.help {
            Help::Alone => "Slower, an oven, or a blanket over the rest.",
            Help::Covered | Help::Second(_) => "Slower, or an oven.",
        };
        format!(
            "{helped} Uneven: {} on the way, {} is the limit. {better}",
            units.say_least(reached.worst_k, Unit::Kelvins),
            units.say_most(sources.limit_k, Unit::Kelvins),
        )
        .trim_start()
        .to_owned()
    } else if source.is_fire() {
        "Lay it in cold and let it come up with the fire, which cannot be ramped: turn it, and read it at \
         both ends."
            .to_owned()
    } else if let Some(ramp) = source.ramp_k_per_h(sources.closed) {
        format!(
            "Let it come up with the oven, no faster than {}.",
            units.say_most(ramp, Unit::KelvinsPerHour)
        )
    } else if !helped.is_empty() {
        helped
    } else if reached.run.throttle < 1.0 {
        format!(
            "Turn it down to about {}, and sweep it carefully over the whole part: the full flame heats it unevenly.",
            turned_down(reached.run.throttle)
        )
    } else if reached.run.even_share == CAREFUL_SWEEP {
        "Sweep it carefully: four fifths over the whole part, one fifth at the joint.".to_owned()
    } else {
        "Sweep it: half over the whole part, half round the joint.".to_owned()
    };
    if reached.least_only {
        said += &format!(
            " It stays short of {}: the least to begin at is {}.",
            units.say(target.target_c, Unit::Celsius),
            units.say_least(target.least_c, Unit::Celsius)
        );
    }
    said
}

/// How many pictures there are of the part as it warms. Ours.
const FRAMES: usize = 24;

/// What only its own station shows, of the way that was taken.
fn shown(plan: &mut HeatPlan, target: &Target, sources: &Sources, asked: &HeatAsked<'_>) {
    let HeatAsked { round, part, shop, cracks, plausible, .. } = *asked;
    let weighed = matches!(part.weight, Some(Weight::Weighed(_)));
    plan.tried = sources.tried(target, plan, (weighed, part.units), asked.runs);
    let taken = sources.runs_for(target.target_c).find(|run| plan.is_of(run));
    let until = if plan.reached { plan.minutes } else { f64::INFINITY };
    if let Some(run) = taken {
        plan.along = run.heating.along(until, FRAMES);
        plan.oven = beside::oven_segments(run, plan, sources, part.units);
        // While nobody knows what is laid it is warmed and soaked at least.
        let at_least = || {
            let by = |step, minutes| asked.steps.burn(step, minutes, target.target_c, (sources, run));
            vec![by(HeatStep::Heat, plan.minutes), by(HeatStep::Soak, plan.soak_minutes)]
        };
        let burns = if asked.burns.is_empty() { at_least() } else { asked.burns.clone() };
        plan.gas = beside::gas_plans(plan, &burns, (&shop.stores, part.units));
        plan.steps = steps::step_plans(&burns, part.units);
        plan.stays_cool = beside::stays_cool(run, plan, sources, (part, asked.runs));
        if run.source.ramp_k_per_h(sources.closed).is_none() {
            let (where_to, whose) = ((until, sources.station()), (plausible, part.units));
            plan.runs_on = beside::runs_on(cracks, &run.heating, where_to, whose);
        }
    }
    plan.by_eye = by_eye::colours(target.target_c, part.units);
    plan.infrared = beside::infrared(round, plan, part, shop.ambient_c);
    plan.sticks = sticks_words(target, shop, part.units);
}

/// Which two sticks of the shop's own set, or which to buy.
fn sticks_words(target: &Target, shop: &Shop, units: UnitSystem) -> String {
    let owned: Vec<f64> =
        shop.stores.iter().filter(|item| item.there()).filter_map(|item| item.melts_c).collect();
    let found = sticks(target.target_c, target.most_c, &owned);
    let say = |celsius: f64| units.say_stick(celsius, false);
    let buy = |celsius: f64| units.say_stick(celsius, true);
    let melts = match found.must_melt_c {
        Some(celsius) => format!("the {} stick must melt", say(celsius)),
        None => format!("no stick of yours melts in time: buy one of about {}", buy(target.target_c)),
    };
    let stays = match found.must_not_melt_c {
        Some(celsius) => format!("the {} one must not", say(celsius)),
        None => format!("for the most buy one of about {}", buy(target.most_c)),
    };
    format!("Sticks: {melts}, {stays}.")
}

/// A flame that gives so much of what it was taken to; nothing for what is no flame.
pub(crate) fn scaled(power: BarPower, factor: f64) -> Option<BarPower> {
    let BarPower::Flame { even, local, station, covered } = power else { return None };
    let of = |watts: Watts| Watts::new(watts.watts() * factor).ok();
    Some(BarPower::Flame { even: of(even)?, local: of(local)?, station, covered })
}

/// What heats a part by the book; nothing for a source that is not known.
pub(crate) fn book_power(with: &HeatedWith, (station, closed): (f64, bool)) -> Option<BarPower> {
    let source = HeatSource::from_id(&with.source)?;
    let (even_share, help, throttle) = (with.even_share, Help::from_id(&with.help), with.throttle);
    Run { source, even_share, help, throttle, station, target_c: 0.0, closed, strength: BOOK }.power()
}

impl HeatPlan {
    /// What heats it, as it is kept when it is lit.
    #[must_use]
    pub fn heated_with(&self) -> HeatedWith {
        HeatedWith {
            source: self.source.clone(),
            even_share: self.even_share,
            help: self.help.clone(),
            throttle: self.throttle,
        }
    }

    /// It is planned with this run.
    fn is_of(&self, run: &SourceRun) -> bool {
        (self.source.as_str(), self.even_share, self.help.as_str(), self.throttle)
            == (run.source.id, run.even_share, run.help.id(), run.throttle)
    }
}

/// What a heating is shown with.
pub(crate) struct HeatAsked<'a> {
    pub round: &'a Round,
    pub part: &'a PartFacts,
    pub shop: &'a Shop,
    pub cracks: &'a [CrackPlan],
    pub plausible: &'a [Iron],
    pub runs: &'a Runs,
    pub way: Option<Way>,
    /// In one lighting; none while that is not known.
    pub burns: Vec<StepBurn>,
    pub steps: &'a StepSources,
}

pub(crate) fn stage(
    mut plan: Option<HeatPlan>,
    target: Option<&Target>,
    sources: Option<&Sources>,
    asked: &HeatAsked<'_>,
) -> Stage<Option<HeatPlan>> {
    let part = asked.part;
    if let Some((plan, way)) = plan.as_mut().zip(asked.way) {
        plan.edge = by_eye::edge(way, plan.target_c, (part, asked.plausible));
    }
    if let (Some(plan), Some(target), Some(sources)) =
        (plan.as_mut().filter(|plan| !plan.cold), target, sources)
    {
        shown(plan, target, sources, asked);
    }
    Stage {
        amount: amount(plan.as_ref()),
        missing: Vec::new(),
        cautions: plan.as_ref().map_or_else(Vec::new, |plan| cautions(plan, part)),
        figures: plan.as_ref().map_or_else(Vec::new, |plan| figures::figures(plan, target, sources, part)),
        plan,
    }
}

fn cautions(heat: &HeatPlan, part: &PartFacts) -> Vec<Caution> {
    let units = part.units;
    let mut found = Vec::new();
    // An estimated part may be too heavy for the heat at hand.
    if let Some(between) = heat.between.filter(|it| it.minutes.1 >= it.most_min) {
        let most = units.say(between.most_min, Unit::Minutes);
        found.push(format!(
            "Not weighed: at the most it may weigh, this heat takes over {most}. Weigh it first."
        ));
    }
    if !heat.cold {
        let clear = hot_work_clearance(units);
        found.push(format!("Hot work: clear {clear}, extinguisher, never leave the flame alone."));
    }
    found.extend(heat.stays_cool.iter().filter(|it| it.over).map(|it| it.sentence.clone()));
    found.into_iter().map(|sentence| Caution::new(Station::Heat, sentence)).collect()
}

fn amount(heat: Option<&HeatPlan>) -> Amount {
    match heat {
        None => Amount::Nothing,
        Some(heat) if heat.reached => Amount::Enough,
        Some(_) => Amount::Something,
    }
}

impl Sources {
    /// What heats the part as this plan has it; nothing for a cold one.
    pub fn power_of(&self, heat: &HeatPlan) -> Option<BarPower> {
        let source = HeatSource::from_id(&heat.source)?;
        let (even_share, target_c, help) = (heat.even_share, heat.target_c, Help::from_id(&heat.help));
        let (strength, throttle) = (self.strengths.of(source, help), heat.throttle);
        let (station, closed) = (self.station(), self.closed);
        Run { source, even_share, help, throttle, station, target_c, closed, strength }.power()
    }
}

impl HeatPlan {
    /// The heating up to its target.
    pub(crate) fn run_to_target(&self, body: &Body, power: BarPower, runs: &Runs) -> Option<Arc<Heating>> {
        let most = Seconds::new((self.minutes + 1.0).max(1.0) * 60.0).ok()?;
        Some(runs.heat_until(body, power, Celsius::new(self.target_c).ok()?, most))
    }

    /// A bar at ambient, heated as planned, by the book: what the simulated thermocouple runs.
    #[must_use]
    pub fn bar(&self, body: &Body, station: f64, closed: bool) -> Option<(Bar, BarPower)> {
        let source = HeatSource::from_id(&self.source)?;
        let (even_share, target_c) = (self.even_share, self.target_c);
        let (help, throttle) = (Help::from_id(&self.help), self.throttle);
        let run = Run { source, even_share, help, throttle, station, target_c, closed, strength: BOOK };
        let power = run.power()?;
        Some((Bar::new(body, power, body.ambient), power))
    }
}
