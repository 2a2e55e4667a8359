//! The heat of a job step by step, each with a source of its own: bake, heat, soak, hold, reheats, after the last bead.

use serde::Serialize;

use super::Sources;
use super::run::SourceRun;
use crate::field::{self, Field, One};
use crate::heat::{BarPower, DyingFire, Gas, HeatSource, SimCache, burnt_together, gas_need_m3};
use crate::iron::Iron;
use crate::job::Round;
use crate::quantity::{Unit, UnitSystem};
use crate::shop::Shop;
use crate::stage::part::PartFacts;
use crate::stores::gas_words;

/// A step of the heat.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum HeatStep {
    Heat,
    Soak,
    /// A flame held on it, or an oven round it, while it is filled.
    Hold,
    Reheat,
    /// Between two sessions, kept at what the work may go on at.
    Night,
    /// After the last bead: post-heat, taper.
    After,
    /// Held in an oven, or left in the fire, before it is packed.
    WayDown,
}

impl HeatStep {
    pub const ALL: [Self; 7] =
        [Self::Heat, Self::Soak, Self::Hold, Self::Reheat, Self::Night, Self::After, Self::WayDown];

    fn label(self) -> &'static str {
        match self {
            Self::Heat => "Heat",
            Self::Soak => "Soak",
            Self::Hold => "Held while it is filled",
            Self::Reheat => "Reheats",
            Self::Night => "Overnight",
            Self::After => "After the last bead",
            Self::WayDown => "On its way down",
        }
    }

    /// Why nothing of it is reckoned, where its source was said for nothing.
    fn nothing(self) -> Option<&'static str> {
        match self {
            Self::Heat => None,
            Self::Soak => Some("nothing: here nothing is soaked"),
            Self::Hold => Some("nothing: it is not filled in the heat"),
            Self::Reheat => Some("nothing: while it is filled it does not fall under its least"),
            Self::Night => Some("nothing: it is done in one session"),
            Self::After => Some("nothing: after the last bead it is only packed"),
            Self::WayDown => Some("nothing: at Cooling no oven is said that it is held in"),
        }
    }

    /// What says its source; that of the heat itself says all that nothing else is said of.
    pub fn field(self) -> Field<One<&'static HeatSource>> {
        match self {
            Self::Heat => field::heat::SOURCE,
            Self::Soak => field::heat::SOAK,
            Self::Hold => field::heat::HOLD,
            Self::Reheat => field::heat::REHEAT,
            Self::Night => field::heat::NIGHT,
            Self::After => field::heat::AFTER,
            Self::WayDown => field::heat::WAY_DOWN,
        }
    }
}

/// What burns in one step of a lighting.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct StepBurn {
    pub step: HeatStep,
    pub source_label: &'static str,
    /// Another source than the heat's own was said for it: why that does nothing, where it does not.
    pub does_nothing: Option<&'static str>,
    pub minutes: f64,
    /// Of its full flame.
    pub share: f64,
    /// Of its full flame, each gas once, in m3/h.
    pub flows: Vec<(Gas, f64)>,
    /// What it should hold and does not, in degC.
    pub too_weak_for_c: Option<f64>,
}

impl StepBurn {
    /// A step under the flame that heats the part.
    pub fn of_run(step: HeatStep, run: &SourceRun, (minutes, share): (f64, f64)) -> Self {
        Self {
            step,
            source_label: run.source.label,
            does_nothing: None,
            minutes,
            share,
            flows: burnt_together(&run.sources()),
            too_weak_for_c: None,
        }
    }

    /// Left in a fire as it goes out, which burns nothing that is counted.
    pub fn in_a_dying_fire(fire: DyingFire) -> Self {
        Self {
            step: HeatStep::WayDown,
            source_label: fire.label(),
            does_nothing: None,
            minutes: fire.lasts_h() * 60.0,
            share: 0.0,
            flows: Vec::new(),
            too_weak_for_c: None,
        }
    }

    /// Of a gas at its full flame, in m3/h.
    pub fn flow(&self, gas: Gas) -> f64 {
        self.flows.iter().find(|(known, _)| *known == gas).map_or(0.0, |(_, flow)| *flow)
    }

    /// Of a gas with its reserve, in m3.
    pub fn need_m3(&self, gas: Gas) -> f64 {
        gas_need_m3(self.flow(gas), self.minutes * self.share)
    }
}

/// The gases of several steps, each once, in the order they are first burnt.
pub(crate) fn gases_of(burns: &[StepBurn]) -> Vec<Gas> {
    let mut gases = Vec::new();
    for (gas, _) in burns.iter().flat_map(|burn| &burn.flows) {
        if !gases.contains(gas) {
            gases.push(*gas);
        }
    }
    gases
}

/// A step as it is shown.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HeatStepPlan {
    pub step: HeatStep,
    /// The field that says its source.
    pub key: String,
    pub label: String,
    pub source_label: String,
    pub minutes: f64,
    /// "20 min; 0.12 m³ of propane with its reserve"
    pub words: String,
}

/// What the steps that somebody stands at give the part, where they have a source of their own.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(crate) struct StepPowers {
    pub soak: Option<BarPower>,
    pub hold: Option<BarPower>,
    pub reheat: Option<BarPower>,
}

/// Steps with another source than the heat itself has, each tried on this part.
#[derive(Debug, Clone, Default)]
pub(crate) struct StepSources(Vec<(HeatStep, Sources)>);

impl StepSources {
    /// Those that were said.
    pub fn read(
        (round, shop): (&Round, &Shop),
        part: &PartFacts,
        plausible: &[Iron],
        targets_c: &[f64],
        sims: &SimCache,
    ) -> Self {
        let said = HeatStep::ALL.into_iter().filter(|step| *step != HeatStep::Heat).filter_map(|step| {
            let source = round.get(step.field())?;
            Some((step, Sources::of_one(source, shop, part, plausible, targets_c, sims)?))
        });
        Self(said.collect())
    }

    pub fn of(&self, step: HeatStep) -> Option<&Sources> {
        self.0.iter().find(|(known, _)| *known == step).map(|(_, sources)| sources)
    }

    /// What their own sources give a part that is to be at this, each by what suits it best.
    pub fn powers(&self, at_c: f64) -> StepPowers {
        let power = |step| {
            let own = self.of(step)?;
            let run = own.runs_for(at_c).next().or_else(|| own.hottest())?;
            own.power_for(run, at_c)
        };
        StepPowers {
            soak: power(HeatStep::Soak),
            hold: power(HeatStep::Hold),
            reheat: power(HeatStep::Reheat),
        }
    }

    /// It was said what holds it while it is filled, and that does hold it there.
    pub fn held(&self, at_c: f64) -> bool {
        let own = self.of(HeatStep::Hold);
        own.is_some_and(|own| own.runs_for(at_c).next().is_some_and(|run| own.holds(run, at_c)))
    }

    /// An oven that it was said to be kept in over night, and whether it keeps it at what the work may go on at.
    pub fn kept_over_night(&self, at_c: f64) -> Option<(&'static HeatSource, bool)> {
        let own = self.of(HeatStep::Night)?;
        let run = own.hottest()?;
        Some((run.source, run.source.keeps_by_itself() && own.holds(run, at_c)))
    }

    /// What a step burns at a temperature: under its own source where one was said. Reheats are by the full flame, all
    /// else by what holds the part.
    pub fn burn(&self, step: HeatStep, minutes: f64, at_c: f64, heat: (&Sources, &SourceRun)) -> StepBurn {
        // An oven is set for what it has to hold.
        let own =
            self.of(step).and_then(|own| Some((own, own.runs_for(at_c).next().or_else(|| own.hottest())?)));
        let (sources, run) = own.unwrap_or(heat);
        let share = match step {
            HeatStep::Heat | HeatStep::Reheat => run.throttle,
            HeatStep::Soak | HeatStep::Hold | HeatStep::Night | HeatStep::After | HeatStep::WayDown => {
                sources.hold_share(run, at_c)
            }
        };
        let keeps = matches!(step, HeatStep::Soak | HeatStep::Hold | HeatStep::Night | HeatStep::WayDown);
        let too_weak = keeps && self.of(step).is_some() && !sources.holds(run, at_c);
        StepBurn {
            does_nothing: self.of(step).and_then(|_| step.nothing()),
            too_weak_for_c: Some(at_c).filter(|_| too_weak),
            ..StepBurn::of_run(step, run, (minutes, share))
        }
    }
}

/// "; 0.4 m³ of propane with its reserve"; empty for what burns nothing.
pub(crate) fn burnt_words(burns: &[StepBurn], units: UnitSystem) -> String {
    let gases: Vec<String> = gases_of(burns)
        .into_iter()
        .map(|gas| (gas, burns.iter().map(|burn| burn.need_m3(gas)).sum::<f64>()))
        .filter(|(_, m3)| *m3 > 0.0)
        .map(|(gas, m3)| format!("{} of {}", gas_words(gas.id(), m3, units), gas.id()))
        // What does not show in its unit is not worth a word.
        .filter(|words| !words.starts_with("0 "))
        .collect();
    match gases.is_empty() {
        true => String::new(),
        false => format!("; {} with its reserve", gases.join(", ")),
    }
}

/// The steps of one lighting as they are shown.
pub(super) fn step_plans(burns: &[StepBurn], units: UnitSystem) -> Vec<HeatStepPlan> {
    let one = |burn: &StepBurn| {
        let burnt = burnt_words(std::slice::from_ref(burn), units);
        let weak = burn.too_weak_for_c.map_or_else(String::new, |celsius| {
            format!("; it does not hold the part at {}", units.say_least(celsius, Unit::Celsius))
        });
        let lasts = match burn.does_nothing.filter(|_| burn.minutes <= 0.0) {
            Some(why) => why.to_owned(),
            None => units.say(burn.minutes, Unit::Minutes),
        };
        HeatStepPlan {
            step: burn.step,
            key: burn.step.field().key().to_owned(),
            label: burn.step.label().to_owned(),
            source_label: burn.source_label.to_owned(),
            minutes: burn.minutes,
            words: format!("{lasts}{burnt}{weak}"),
        }
    };
    // What was said of a step stands there though nothing comes of it: with why.
    burns.iter().filter(|burn| burn.minutes > 0.0 || burn.does_nothing.is_some()).map(one).collect()
}
