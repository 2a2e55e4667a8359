//! Everything that is worked out for a job, and what follows from it.

use std::collections::BTreeSet;

use serde::Serialize;

use super::asked_back::AskedBack;
use super::gate::Gate;
use super::hot::LastHeat;
use super::lightings::LightingPlan;
use super::line::PlanLine;
use super::make::lock_of;
use super::offered::Offered;
use super::status::is_hot;
use super::{
    Amount, AtTorch, BenchPlan, Caution, CheckLine, Contender, CoolingPlan, CrackPlan, FinishPlan, GasPlan,
    HandOverPlan, HeatPlan, IronPlan, Lock, MapPlan, MethodPlan, Missing, PartPlan, PrepPlan, Station,
    StationState, TorchPlan,
};
use crate::base::day::Day;
use crate::figure::{Figure, without_workings};
use crate::heat::{OwnFactor, ThermalBody};
use crate::iron::slowest_to_heat;
use crate::job::{Allowed, Job, Lighting};
use crate::method::Way;
use crate::quantity::UnitSystem;
use crate::record::{ESTIMATE_FORMAT, Estimate, EstimateLine, FROZEN_FORMAT, FrozenFigure, FrozenPlan};
use crate::shop::Shop;
use crate::stage::part::PartFacts;
use crate::stage::torch::not_laid_out;
use crate::stores::Take;

/// Everything worked out for a job. Durations, not clock times.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Plan {
    pub stations: Vec<StationState>,
    pub locks: Vec<Lock>,
    /// What is not known and why it matters, the most urgent first.
    pub missing: Vec<Missing>,
    pub cautions: Vec<Caution>,
    /// Of each what is shown: its working is asked for by its id.
    #[serde(serialize_with = "without_workings")]
    #[cfg_attr(feature = "schema", schema(value_type = Vec<crate::figure::FigureSeen>))]
    pub figures: Vec<Figure>,
    pub part: PartPlan,
    pub iron: IronPlan,
    pub cracks: Vec<CrackPlan>,
    /// What of them lies where.
    pub map: MapPlan,
    pub methods: MethodPlan,
    pub prep: Option<PrepPlan>,
    /// What lies on the bench whatever the method.
    pub bench: BenchPlan,
    pub heat: Option<HeatPlan>,
    pub torch: Option<TorchPlan>,
    pub cooling: Option<CoolingPlan>,
    pub check: Vec<CheckLine>,
    /// What is not good is only to be refilled: no new round is opened for it.
    pub only_to_refill: bool,
    /// What is done to it once it is cold and good.
    pub finish: FinishPlan,
    pub hand_over: HandOverPlan,
    pub gate: Gate,
    /// What it can be lit for beside the repair itself.
    pub lightings: Vec<LightingPlan>,
    /// The last lighting, as far as its heat is concerned; nothing while never lit.
    pub last_heat: Option<LastHeat>,
    /// The line of the chosen way, or one for each way still possible.
    pub lines: Vec<PlanLine>,
    /// What the chosen way takes from the stores.
    pub takes: Vec<Take>,
    pub body_words: String,
    /// What its own heating and cooling say of the flame and the packing.
    #[serde(skip)]
    pub learned: Vec<OwnFactor>,
    /// The casting as the heat model sees it; nothing while weight, size or shape is not known.
    #[serde(skip)]
    pub(crate) body: Option<ThermalBody>,
    /// What is odd against the rest.
    #[serde(default)]
    pub asked_back: Vec<AskedBack>,
    /// The sign or letters of the shop's money; empty while nobody has said.
    pub currency: String,
    /// What was offered, against what it would cost today; nothing while nothing was.
    pub offered: Option<Offered>,
    /// The system its sentences speak in; figures carry both.
    pub units: UnitSystem,
}

impl Plan {
    /// The plan as it is shown: the workings of its figures are templates until then, since most plans are only looked
    /// at for what they come to.
    #[must_use]
    pub fn said(mut self) -> Self {
        let units = self.units;
        self.figures = self.figures.into_iter().map(|figure| figure.said_in(units)).collect();
        self
    }

    /// Kinds in the stores of which it says how many are there.
    #[must_use]
    pub fn counted_kinds(&self) -> BTreeSet<&str> {
        let ways = self.methods.contenders.iter().flat_map(|way| &way.takes);
        ways.chain(&self.takes).map(|take| take.kind.as_str()).collect()
    }

    /// Why the torch cannot be lit yet; nothing when it can.
    #[must_use]
    pub fn unlit_reason(&self) -> Option<String> {
        self.gate.refused.first().map(|line| format!("{} {}", line.sentence, line.unlock))
    }

    /// What may be done to its job now, UTC in ms since 1970.
    #[must_use]
    pub fn allows(&self, job: &Job, now_ms: i64) -> Allowed {
        let answered_for = !self.hand_over.owned.is_empty();
        let lock = self.locks.iter().find(|lock| !lock.hot_only);
        let refused = self.gate.refused.iter();
        Allowed {
            no_method: lock.map(|lock| (lock.sentence.clone(), lock.unlock.clone())),
            not_lit: refused.map(|line| (line.sentence.clone(), line.unlock.clone())).collect(),
            not_baked: self.not_lit_for(Lighting::Bake),
            not_tacked: self.not_lit_for(Lighting::Tack),
            to_own: self.gate.to_own.clone(),
            no_estimate: match self.priced() {
                Some(_) => None,
                None if self.methods.chosen.is_none() => {
                    Some(("no method is chosen yet".to_owned(), "choose one".to_owned()))
                }
                None => {
                    Some(("nobody has said what an hour costs here".to_owned(), "say it in Shop".to_owned()))
                }
            },
            open: if answered_for { Vec::new() } else { self.hand_over.open.clone() },
            hot: is_hot(job, self, now_ms).then(|| "it is hot: that is done when it is cold".to_owned()),
        }
    }

    fn not_lit_for(&self, what: Lighting) -> Vec<(String, String)> {
        match self.lighting(what) {
            Some(plan) => {
                plan.refused.iter().map(|line| (line.sentence.clone(), line.unlock.clone())).collect()
            }
            None => vec![("There is nothing to do it for.".to_owned(), String::new())],
        }
    }

    fn lighting(&self, what: Lighting) -> Option<&LightingPlan> {
        self.lightings.iter().find(|it| it.what == what)
    }

    /// What heats a bake; nothing where none is due or the heat at hand is not known.
    pub(crate) fn bake_heat(&self) -> Option<&HeatPlan> {
        self.lighting(Lighting::Bake)?.bake.as_ref()?.1.as_ref()
    }

    /// What was to be laid out before this lighting and is not ticked.
    #[must_use]
    pub fn not_laid_out(&self, what: Lighting) -> Vec<String> {
        let main = || self.torch.as_ref().map(|torch| torch.lay_out.as_slice());
        let lines = match what {
            Lighting::Main => main(),
            other => self.lighting(other).map(|it| it.lay_out.as_slice()),
        };
        not_laid_out(lines.unwrap_or_default())
    }

    /// The chosen way and its price; nothing while either is not known.
    fn priced(&self) -> Option<(&Contender, f64)> {
        let taken = self.methods.taken()?;
        Some((taken, taken.price.total?))
    }

    /// The estimate as it would be given on this day; nothing while the price is not known.
    #[must_use]
    pub fn estimate(&self, on: Day, until: Day) -> Option<Estimate> {
        let (taken, total) = self.priced()?;
        let lines = taken.price.lines.iter().map(|line| EstimateLine {
            what: line.what.clone(),
            working: line.working.clone(),
            amount: line.amount,
        });
        Some(Estimate {
            format: ESTIMATE_FORMAT,
            on: on.to_string(),
            until: until.to_string(),
            label: taken.label.clone(),
            currency: self.currency.clone(),
            lines: lines.collect(),
            total,
            without: taken.price.without.clone(),
            odds: format!("{:.0} of 100 hold a year of ordinary use", taken.odds.mean * 100.0),
            ready: taken.ready.as_ref().map_or(String::new(), |ready| ready.words.clone()),
        })
    }

    /// The plan as it is kept when the torch is lit.
    #[must_use]
    pub fn frozen(&self) -> FrozenPlan {
        FrozenPlan {
            format: FROZEN_FORMAT,
            way: self.methods.chosen,
            label: self.methods.chosen.map_or_else(String::new, Way::label),
            figures: self
                .figures
                .iter()
                .map(|figure| FrozenFigure::from(&figure.clone().said_in(self.units)))
                .collect(),
            cautions: self.cautions.iter().map(|caution| caution.sentence.clone()).collect(),
            curve: self.lines.first().map(|line| line.curve.clone()).unwrap_or_default(),
            gas: self.heat.iter().flat_map(|heat| &heat.gas).filter_map(GasPlan::frozen).collect(),
            heated_with: self.heat.as_ref().filter(|heat| !heat.cold).map(HeatPlan::heated_with),
        }
    }

    /// The lock that stops the job as it is planned: pins may be set where only heat is locked.
    #[must_use]
    pub fn lock(&self) -> Option<&Lock> {
        lock_of(&self.locks, self.methods.chosen)
    }

    /// The casting as the heat model sees it; nothing while weight, size or shape is not known.
    #[must_use]
    pub fn casting(&self, job: &Job, shop: &Shop) -> Option<ThermalBody> {
        PartFacts::read(job, job.round(), shop).body(slowest_to_heat(&self.iron.plausible).iron.properties())
    }

    /// What is warmed of it as it is planned: all of it, or the seam and what lies round it.
    #[must_use]
    pub fn warmed(&self, job: &Job, shop: &Shop) -> Option<ThermalBody> {
        let zone = self.heat.as_ref().and_then(|heat| heat.zone);
        let iron = slowest_to_heat(&self.iron.plausible).iron.properties();
        zone.map_or_else(|| self.casting(job, shop), |zone| zone.body(iron))
    }

    /// The casting cannot expand freely.
    #[must_use]
    pub fn closed(&self, job: &Job, shop: &Shop) -> bool {
        PartFacts::read(job, job.round(), shop).closed()
    }

    /// The work in hand at the torch; nothing while not lit, once covered, or when all is done cold.
    #[must_use]
    pub fn at_torch(&self, job: &Job) -> Option<AtTorch> {
        let round = job.round();
        let what = round.lit_for()?;
        match (what, self.lighting(what).and_then(|it| it.bake.as_ref())) {
            (Lighting::Main, _) => {
                let working = self.amount(Station::Torch) != Amount::Enough;
                working.then(|| self.torch.as_ref().map(|torch| AtTorch::of(round, torch, self.units)))?
            }
            (Lighting::Bake, bake) => {
                let (bake, _) = bake?;
                Some(AtTorch::baking(round, bake, self.body, self.units))
            }
            (Lighting::Tack, _) => Some(AtTorch::tacking(round, &self.bench.breaks, self.units)),
        }
    }

    #[must_use]
    pub fn amount(&self, station: Station) -> Amount {
        self.stations
            .iter()
            .find(|state| state.station == station)
            .map_or(Amount::Nothing, |state| state.amount)
    }

    #[must_use]
    pub fn figure(&self, id: &str) -> Option<&Figure> {
        self.figures.iter().find(|figure| figure.id == id)
    }
}
