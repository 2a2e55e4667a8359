//! Stage 6: can the heat at hand bring this part there, how long, how evenly.

mod beside;
mod by_eye;
mod figures;
mod gas;
mod planned;
mod run;
mod sources;
mod steps;
mod tried;
mod words;
mod zone;

pub use beside::{InfraredPlan, OvenSegment, RunsOn, StaysCool};
pub use gas::GasPlan;
pub(crate) use planned::{heat_plan, heated, soak_minutes};
pub(crate) use run::{Help, SourceRun, net_flame};
pub(crate) use sources::{MOST_MIN, Sources};
pub use steps::{HeatStep, HeatStepPlan};
pub(crate) use steps::{StepBurn, StepPowers, StepSources, burnt_words, gases_of};
pub(crate) use zone::{NoZone, Zone};

use std::sync::Arc;

use serde::Serialize;

use super::cracks::CrackPlan;
use super::part::{PartFacts, Weight};
use super::{Amount, Caution, Stage, Station};
use crate::heat::{Bar, BarPower, HeatSource, Heating, SimCache, ThermalBody, hot_work_clearance};
use crate::iron::{Iron, IronProperties};
use crate::job::Round;
use crate::method::{Target, Way};
use crate::quantity::{Celsius, Seconds, Unit, Watts};
use crate::record::HeatedWith;
use crate::shop::Shop;
use run::{BOOK, Run};
use words::sticks_words;

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
    #[serde(skip)]
    pub even_share: f64,
    /// What helps it: empty, `covered`, or the id of a second flame.
    #[serde(default)]
    pub help: String,
    /// Of its full flame while it heats: turned down to what the part stands.
    #[serde(skip)]
    pub throttle: f64,
    /// Of its full flame while it soaks and waits.
    #[serde(skip)]
    pub hold_share: f64,
    /// The coldest place gets to the least at which the work may begin.
    pub reached: bool,
    /// More power than was reckoned, within what the model is good to, would reach it: it may be lit by
    /// somebody who answers for it.
    #[serde(skip)]
    pub within_the_estimate: bool,
    /// How far the coldest place stays under the target, in K; 0 where it gets there.
    #[serde(skip)]
    pub short_k: f64,
    pub minutes: f64,
    /// At the least and the most an estimated part may weigh; nothing where it was weighed.
    pub between: Option<HeatBetween>,
    pub soak_minutes: f64,
    /// "1 h 12, soak 20 min"; empty where nothing is heated.
    pub timing: String,
    /// "at least 300 °C", "at most 400 °C".
    pub least_words: String,
    pub most_words: String,
    /// Where to read it.
    pub read_at: String,
    /// Where the first pad lies: "coldest far corner".
    pub pad_at: String,
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
    #[serde(skip)]
    pub good_to: f64,
    /// The same as it is shown: "30 %".
    pub good_to_words: String,
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
    /// Tips that are likely to run on while it is heated, the worst first; those on a drawn face that is the part are said by
    /// `face-heat`.
    pub runs_on: Vec<RunsOn>,
    /// What must stay cool, and how hot it gets.
    pub stays_cool: Vec<StaysCool>,
    /// Only this of it is warmed; nothing where all of it is.
    #[serde(skip)]
    pub(crate) zone: Option<Zone>,
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

/// How many pictures there are of the part as it warms. Ours.
const FRAMES: usize = 24;

/// What only its own station shows, of the way that was taken.
fn shown(plan: &mut HeatPlan, target: &Target, sources: &Sources, inputs: &HeatInputs<'_>) {
    let HeatInputs { round, part, shop, cracks, plausible, .. } = *inputs;
    let weighed = matches!(part.weight, Some(Weight::Weighed(_)));
    plan.tried = sources.tried(target, plan, (weighed, part.units), inputs.sims);
    let taken = sources.runs_for(target.target_c).find(|run| plan.is_of(run));
    let until = if plan.reached { plan.minutes } else { f64::INFINITY };
    if let Some(run) = taken {
        plan.along = run.heating.along(until, FRAMES);
        plan.oven = beside::oven_segments(run, plan, sources, part.units);
        // While nobody knows what is laid it is warmed and soaked at least.
        let at_least = || {
            let by = |step, minutes| inputs.steps.burn(step, minutes, target.target_c, (sources, run));
            vec![by(HeatStep::Heat, plan.minutes), by(HeatStep::Soak, plan.soak_minutes)]
        };
        let burns = if inputs.burns.is_empty() { at_least() } else { inputs.burns.clone() };
        let with_less = |share: f64| sources.minutes_with(run, target, share, inputs.sims);
        plan.gas = gas::gas_plans(plan, &burns, (&shop.stores, part.units), &with_less);
        plan.steps = steps::step_plans(&burns, part.units);
        plan.stays_cool = beside::stays_cool(run, plan, sources, (part, inputs.sims));
        if run.source.ramp_k_per_h(sources.closed).is_none() {
            let (where_to, whose) = ((until, sources.station()), (plausible, part.units));
            plan.runs_on = beside::runs_on((cracks, part), &run.heating, where_to, whose);
        }
    }
    plan.by_eye = by_eye::colours(target.target_c, part.units);
    plan.infrared = beside::infrared(round, plan, part, shop.ambient_c);
    plan.sticks = sticks_words(target, shop, part.units);
}

/// A flame that gives so much of what it was taken to; nothing for what is no flame.
pub(crate) fn scaled(power: BarPower, factor: f64) -> Option<BarPower> {
    let BarPower::Flame { even, local, station, covered } = power else { return None };
    let of = |watts: Watts| Watts::new(watts.watts() * factor).ok();
    Some(BarPower::Flame { even: of(even)?, local: of(local)?, station, covered })
}

/// What heats a part by the book; nothing for a source that is not known.
pub(crate) fn book_power(
    with: &HeatedWith,
    target_c: f64,
    (station, closed): (f64, bool),
) -> Option<BarPower> {
    let source = HeatSource::from_id(&with.source)?;
    let (even_share, help, throttle) = (with.even_share, Help::from_id(&with.help), with.throttle);
    Run { source, even_share, help, throttle, station, target_c, closed, strength: BOOK }.power()
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

    /// What it warms: the part, or of it the seam and what lies round it.
    pub(crate) fn warms(&self, part: &PartFacts, iron: IronProperties) -> Option<ThermalBody> {
        self.zone.map_or_else(|| part.body(iron), |zone| zone.body(iron))
    }

    /// It is planned with this run.
    fn is_of(&self, run: &SourceRun) -> bool {
        (self.source.as_str(), self.even_share, self.help.as_str(), self.throttle)
            == (run.source.id, run.even_share, run.help.id(), run.throttle)
    }
}

/// What a heating is shown with.
pub(crate) struct HeatInputs<'a> {
    pub round: &'a Round,
    pub part: &'a PartFacts,
    pub shop: &'a Shop,
    pub cracks: &'a [CrackPlan],
    pub plausible: &'a [Iron],
    pub sims: &'a SimCache,
    pub way: Option<Way>,
    /// In one lighting; none while that is not known.
    pub burns: Vec<StepBurn>,
    pub steps: &'a StepSources,
}

pub(crate) fn stage(
    mut plan: Option<HeatPlan>,
    target: Option<&Target>,
    sources: Option<&Sources>,
    inputs: &HeatInputs<'_>,
) -> Stage<Option<HeatPlan>> {
    let part = inputs.part;
    if let Some((plan, way)) = plan.as_mut().zip(inputs.way) {
        plan.edge = by_eye::edge(way, plan.target_c, (part, inputs.plausible));
    }
    if let (Some(plan), Some(target), Some(sources)) =
        (plan.as_mut().filter(|plan| !plan.cold), target, sources)
    {
        shown(plan, target, sources, inputs);
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
    /// What its coldest place is brought to: the least to begin at where the source does not get it to its target.
    pub(crate) fn aim_c(&self) -> f64 {
        if self.short_k > 0.0 { self.least_c } else { self.target_c }
    }

    /// The heating up to its target.
    pub(crate) fn run_to_target(
        &self,
        body: &ThermalBody,
        power: BarPower,
        sims: &SimCache,
    ) -> Option<Arc<Heating>> {
        let most = Seconds::new((self.minutes + 1.0).max(1.0) * 60.0).ok()?;
        Some(sims.heat_until(body, power, Celsius::new(self.target_c).ok()?, most))
    }

    /// A bar at ambient, heated as planned, by the book: what the simulated thermocouple runs.
    #[must_use]
    pub fn bar(&self, body: &ThermalBody, station: f64, closed: bool) -> Option<(Bar, BarPower)> {
        let source = HeatSource::from_id(&self.source)?;
        let (even_share, target_c) = (self.even_share, self.target_c);
        let (help, throttle) = (Help::from_id(&self.help), self.throttle);
        let run = Run { source, even_share, help, throttle, station, target_c, closed, strength: BOOK };
        let power = run.power()?;
        Some((Bar::new(body, power, body.ambient), power))
    }
}
