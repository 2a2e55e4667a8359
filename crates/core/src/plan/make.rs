//! Facts in, plan out.

use std::collections::BTreeSet;

use serde::Serialize;

use super::asked_back::{AskedBack, asked_back};
use super::gate::{Gate, GateAsked};
use super::hot::LastHeat;
use super::learned::learned;
use super::lightings::{LightingPlan, LightingsAsked, bake_target_c};
use super::line::PlanLine;
use super::offered::Offered;
use super::warming;
use super::worked::{Worked, beads_asked};
use super::{
    Amount, AtTorch, BenchPlan, Caution, CheckLine, Contender, CoolingPlan, CrackPlan, FinishPlan, GasPlan,
    HandOverPlan, HeatPlan, IronPlan, Lock, MapPlan, MethodPlan, Missing, PartPlan, PrepPlan, Station,
    StationState, TorchPlan,
};
use crate::base::day::Day;
use crate::field;
use crate::figure::Figure;
use crate::heat::{Body, OwnFactor, Runs};
use crate::iron::{Iron, LookTest, least, slowest_to_heat};
use crate::job::{Allowed, Became, Job, Lighting, Round};
use crate::method::Way;

use crate::prep::drill_speed::{DrillTool, cutting_speed_m_min};
use crate::quantity::{CURRENCY_SIGNS, UnitSystem};
use crate::record::{ESTIMATE_FORMAT, Estimate, EstimateLine, FROZEN_FORMAT, FrozenFigure, FrozenPlan};
use crate::secret::{Practice, bench};
use crate::shelf::UNNAMED;
use crate::shop::Shop;
use crate::stage::heat::{HeatAsked, Sources};
use crate::stage::iron::IronAsked;
use crate::stage::method::{Judged, Locked, Moment};
use crate::stage::part::PartFacts;
use crate::stage::prep::{BenchAsked, WorkAsked};
use crate::stage::torch::{StopAsked, TorchAsked, TroubleAsked, not_laid_out};
use crate::stage::{
    Stage, check, cooling, cracks, finish, hand_over, heat, iron, map, method, part, prep, torch,
};
use crate::stores::{Take, TakenWhen, filler_of};

/// Everything worked out for a job. Durations, not clock times.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Plan {
    pub stations: Vec<StationState>,
    pub locks: Vec<Lock>,
    /// What is not known and why it matters, the most urgent first.
    pub missing: Vec<Missing>,
    pub cautions: Vec<Caution>,
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
    pub(crate) body: Option<Body>,
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

    /// What may be done to its job.
    #[must_use]
    pub fn allows(&self) -> Allowed {
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
    pub fn casting(&self, job: &Job, shop: &Shop) -> Option<Body> {
        PartFacts::read(job.round(), shop).body(slowest_to_heat(&self.iron.plausible).iron.properties())
    }

    /// The casting cannot expand freely.
    #[must_use]
    pub fn closed(&self, job: &Job, shop: &Shop) -> bool {
        PartFacts::read(job.round(), shop).closed()
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

/// The plan of a job in a shop. Pure and total: an incomplete job gives a partial plan that says
/// what is missing and why it matters.
#[must_use]
pub fn plan(job: &Job, shop: &Shop) -> Plan {
    plan_with(job, shop, &Runs::default())
}

/// The same, with runs of the models kept from plans before.
#[must_use]
pub fn plan_with(job: &Job, shop: &Shop, runs: &Runs) -> Plan {
    made(job, shop, None, runs, None)
}

/// The same at a moment: what takes too long to be ready in time is ruled out.
#[must_use]
pub fn plan_at(job: &Job, shop: &Shop, runs: &Runs, moment: Moment) -> Plan {
    made(job, shop, None, runs, Some(moment))
}

/// The plan as if the iron were known to be this one; what is believed of the iron stays as it is.
#[must_use]
pub fn plan_as_if(job: &Job, shop: &Shop, iron: Iron, runs: &Runs) -> Plan {
    made(job, shop, Some(iron), runs, None)
}

/// The ways side by side, and nothing of the plan that follows from them.
pub(super) fn methods_at(job: &Job, shop: &Shop, runs: &Runs, moment: Option<Moment>) -> MethodPlan {
    made(job, shop, None, runs, moment).methods
}

fn made(job: &Job, shop: &Shop, as_if: Option<Iron>, runs: &Runs, moment: Option<Moment>) -> Plan {
    let practised = job.practice.as_ref().map(|practice| bench(practice, shop));
    let shop = practised.as_ref().unwrap_or(shop);
    let round = job.round();
    let facts = PartFacts::read(round, shop);
    let part = part::stage(round, &facts);
    let believed = iron::belief(job, &facts);
    let belief = as_if.map_or_else(|| believed.clone(), |iron| believed.clone().as_if(iron));
    let laid = cracks::Laid::read(job);
    let cracks = cracks::stage(round, &laid, facts.wall_mm, &belief.plausible, shop);
    let locks: Vec<Lock> = [
        part::safety_lock(round, &facts),
        part::hazard_lock(round),
        part::cavity_lock(round, &facts),
        iron::white_lock(&belief),
    ]
    .into_iter()
    .flatten()
    .collect();

    let mut targets_c = method::targets_c(&facts, &belief);
    targets_c.extend(bake_target_c(round, &facts));
    let sources = Sources::try_all(round, shop, &facts, &belief.plausible, &targets_c, runs);
    let bench = BenchAsked { round, laid: &laid, cracks: &cracks.plan, units: shop.units }.plan();
    let judged = Judged {
        round,
        missing: &bench.missing,
        laid: &laid,
        locked_in: bench.locked_in(),
        tacks: bench.breaks.iter().map(|it| it.tacks.len()).collect(),
        moment,
        along: prep::AlongKnown::default(),
        fills: method::FillsKnown::default(),
        shop,
        part: &facts,
        belief: &belief,
        cracks: &cracks.plan,
        sources: sources.as_ref(),
        runs,
        failed_here: failed_here(job, &cracks.plan),
    };
    let (mut methods, ruled) = judged.contenders(Locked::by(&locks), part.amount == Amount::Enough);
    let alone = job.practice.as_ref().is_some_and(Practice::alone);
    if alone && round.get(field::method::CHOICE).is_none() {
        // Nobody chooses for whoever practises alone.
        methods.chosen = None;
    }

    // Of a chosen way everything; of ways still side by side their lines.
    let chosen = methods.chosen;
    let work = |way: Way| Worked::of(&judged, way);
    let worked = chosen.map(work);
    let lines = match &worked {
        Some(worked) => worked.line(&facts).into_iter().collect(),
        None if alone => Vec::new(),
        None => side_by_side(&methods).filter_map(|way| work(way).line(&facts)).collect(),
    };
    let prep_asked = chosen.map(|way| judged.prep_asked(way));
    let slowest = least(&belief.plausible, |iron| cutting_speed_m_min(iron, DrillTool::Hss)).iron;
    let done = |test: &LookTest| job.evidence.iter().any(|seen| seen.stands() && seen.test == test.id());
    let mut untold = LookTest::ALL.to_vec();
    untold.retain(|test| !belief.enough() && !done(test));
    let work_asked = prep_asked.as_ref().map(|prep| WorkAsked { prep, laid: &laid, slowest, untold });
    let Worked { prep, heat, cooling, target, .. } = worked.unwrap_or_default();
    let method = method::stage(methods, heat.as_ref(), cooling.as_ref(), cracks.amount);
    let prep = prep::stage(work_asked.as_ref(), prep, &cracks, &bench);
    let heat = heat::stage(
        heat,
        target.as_ref(),
        sources.as_ref(),
        &HeatAsked {
            round,
            part: &facts,
            shop,
            cracks: &cracks.plan,
            plausible: &belief.plausible,
            runs,
            way: chosen,
            burns_on: chosen
                .zip(prep.plan.as_ref())
                .and_then(|(way, prep)| judged.burns(way, prep))
                .map_or_else(Default::default, |burns| burns.on),
        },
    );
    let cooling = cooling::stage(round, cooling, heat.plan.as_ref(), &facts);
    let (prepared, heated, cooled) = (prep.plan.as_ref(), heat.plan.as_ref(), cooling.plan.as_ref());
    let iron = iron::stage(&IronAsked {
        job,
        part: &part.plan,
        facts: &facts,
        believed: &believed,
        planned_for: &belief,
        methods: &method.plan,
        ruled: &ruled,
        target: target.as_ref(),
        heat: heated,
    });
    let map = map::map_plan(&map::MapAsked {
        job,
        laid: &laid,
        cracks: &cracks.plan,
        prep: prepared,
        units: shop.units,
    });
    let beads = chosen.and_then(|way| beads_asked(&judged, way, heated?, prepared?));
    let body = judged.body();
    let taken = method.plan.taken();
    let trouble = taken.zip(heated).filter(|_| round.repaired()).map(|(taken, heat)| {
        let (planned, goes) = judged.moves_of(taken.way);
        let heats = judged.sources.and_then(|sources| Some((sources.body, sources.power_of(heat)?)));
        let asked = TroubleAsked {
            round,
            shop,
            part: &facts,
            cracks: &cracks.plan,
            prep: prepared,
            way: taken.way,
            moves: goes,
            rocks: judged.locked_in,
            takes: &taken.takes,
        };
        (asked, StopAsked { heat, heats: heats.filter(|_| !heat.cold), start: taken.odds_start, planned })
    });
    let torch = torch::stage(TorchAsked {
        shop,
        job,
        part: &facts,
        way: chosen,
        heat: heated,
        laid: prepared.map(|prep| (prep, &map)),
        cooling: cooled,
        beads,
        body,
        trouble,
        takes: taken.map_or(&[], |taken| taken.takes.as_slice()),
        warming: heated.and_then(|heat| warming::warming(job, (&facts, &belief.plausible), heat, runs)),
    });
    let check = check::stage(&check::CheckAsked {
        shop,
        round,
        part: &facts,
        cracks: &cracks.plan,
        prep: prep.plan.as_ref(),
        map: &map,
        way: chosen,
        torch: torch.plan.as_ref(),
    });
    // What is over is a year old.
    let over = job.practice.as_ref().is_some_and(|it| it.ended);
    let last_heat = LastHeat::of(job, shop, &facts, &belief.plausible, chosen, runs).filter(|_| !over);
    let still_hot = last_heat.as_ref().is_some_and(|last| last.still_hot(job));
    let finish = match (&prep.plan, chosen) {
        (Some(prep), Some(_)) => finish::finish_plan(finish::FinishAsked { round, shop, part: &facts, prep }),
        _ => FinishPlan::default(),
    };
    let hand_over = hand_over::stage(&hand_over::HandOverAsked {
        job,
        shop,
        part: &facts,
        way: chosen,
        prep: prep.plan.as_ref(),
        ductile: prep_asked.as_ref().is_some_and(|asked| asked.ductile),
        check: &check.plan,
        torch: torch.plan.as_ref(),
        heat: heated,
        hot: still_hot,
    });

    let mut folded = Folded::default();
    let part = folded.take(Station::Part, part);
    let iron = folded.take(Station::Iron, iron);
    let cracks = folded.take(Station::Cracks, cracks);
    let methods = folded.take(Station::Method, method);
    let prep = folded.take(Station::Prep, prep);
    let heat = folded.take(Station::Heat, heat);
    let torch = folded.take(Station::Torch, torch);
    let cooling = folded.take(Station::Cooling, cooling);
    let check = folded.take(Station::Check, check);
    let hand_over = folded.take(Station::HandOver, hand_over);
    let Folded { stations, missing, mut cautions, figures } = folded;
    // Before everything else that is to be known of it.
    let answered = part::answered_for(round, &facts);
    cautions.splice(0..0, answered.map(|sentence| Caution::new(Station::Part, sentence)));
    cautions.extend(map::clash_sentences(&map).map(|sentence| Caution::new(Station::Cracks, sentence)));
    cautions.extend(damaged(job));
    let taken = methods.taken();
    let takes = taken.map_or_else(Vec::new, |taken| taken.takes.clone());
    if !round.repaired() {
        cautions.extend(not_here(&takes, shop));
    }
    let currency = currency(round, shop);
    let figures: Vec<Figure> = figures.into_iter().map(|figure| figure.paid_in(&currency)).collect();
    let today = moment.and_then(|at| Day::of_number(at.now_min.div_euclid(24 * 60)));
    let price = taken.and_then(|taken| taken.price.total);
    let offered = job.estimate.as_ref().map(|given| Offered::of(given, today, price));
    let asked = GateAsked {
        round,
        part: &facts,
        belief: &believed,
        lock: lock_of(&locks, chosen),
        hot_lock: locks.first(),
        methods: &methods,
        cracks: &cracks,
        prep: prep.as_ref(),
        heat: heat.as_ref(),
        missing: &missing,
        damaged: job.damaged.len(),
    };
    let gate = if alone { Gate::of_hands(chosen) } else { Gate::of(&asked) };
    let said_of_itself = learned(job, shop, (&facts, &belief.plausible), heat.as_ref(), runs);
    let mut lightings =
        LightingsAsked { gate: &asked, sources: sources.as_ref(), bench: &bench, runs }.plans();
    if alone {
        lightings.iter_mut().for_each(|it| it.refused.clear());
    }
    Plan {
        stations,
        locks,
        missing,
        cautions,
        figures,
        part,
        iron,
        cracks,
        map,
        methods,
        prep,
        bench,
        heat,
        torch,
        cooling,
        only_to_refill: check::only_to_refill(&check),
        check,
        finish,
        hand_over,
        learned: said_of_itself,
        gate,
        lightings,
        last_heat,
        lines,
        takes,
        body_words: facts.size_words(),
        body,
        asked_back: asked_back(job, &facts),
        currency,
        offered,
        units: shop.units,
    }
}

/// The shop's own, or the sign that was typed with what a new part costs.
fn currency(round: &Round, shop: &Shop) -> String {
    if !shop.currency.is_empty() {
        return shop.currency.clone();
    }
    let typed = round.typed(field::part::REPLACEMENT_PRICE.key()).unwrap_or_default();
    typed.chars().filter(|sign| CURRENCY_SIGNS.contains(sign)).take(1).collect()
}

/// What the stages say, in the order of the work.
#[derive(Default)]
struct Folded {
    stations: Vec<StationState>,
    missing: Vec<Missing>,
    cautions: Vec<Caution>,
    figures: Vec<Figure>,
}

impl Folded {
    /// Lays a stage beside those before it; what is planned there is given back.
    fn take<T>(&mut self, station: Station, stage: Stage<T>) -> T {
        self.stations.push(StationState { station, amount: stage.amount });
        self.missing.extend(stage.missing);
        self.cautions.extend(stage.cautions);
        self.figures.extend(stage.figures);
        stage.plan
    }
}

fn lock_of(locks: &[Lock], chosen: Option<Way>) -> Option<&Lock> {
    let hot = chosen.is_none_or(|way| !way.method.without_heat());
    locks.iter().find(|lock| hot || !lock.hot_only)
}

/// The ways within reach of the first choice, two at most.
fn side_by_side(methods: &MethodPlan) -> impl Iterator<Item = Way> + '_ {
    let best = methods.contenders.first().map_or(0.0, |c| c.score);
    methods.contenders.iter().filter(move |c| c.recommended && best - c.score < 3.0).take(2).map(|c| c.way)
}

/// What the stores have too little of, at the station that asks for it; and what lies there without a name.
fn not_here<'a>(takes: &'a [Take], shop: &'a Shop) -> impl Iterator<Item = Caution> + 'a {
    let short = takes.iter().filter(|take| take.short).map(|take| {
        let station = match take.when {
            TakenWhen::Done => Station::Prep,
            TakenWhen::Lit => Station::Heat,
            TakenWhen::Kept => Station::Cooling,
        };
        let sentence = format!("{}: {}, it takes {}.", take.words, take.here_words, take.amount_words);
        Caution::new(station, sentence)
    });
    let nameless = shop.stores.iter().any(|item| item.kind == UNNAMED && item.there());
    let on_the_shelf = |take: &Take| shop.stores.iter().any(|item| item.kind == take.kind && item.there());
    let wanted = takes.iter().filter(|take| filler_of(&take.kind).is_some());
    let tempted = nameless && wanted.filter(|take| !on_the_shelf(take)).count() > 0;
    let sentence = "A bundle without a name lies in the stores: find out what it is before it is used.";
    short.chain(tempted.then(|| Caution::new(Station::Prep, sentence)))
}

/// What is in the job and cannot be read.
fn damaged(job: &Job) -> Option<Caution> {
    let places: Vec<String> = job.damaged.iter().take(8).map(|it| it.revision.to_string()).collect();
    (!places.is_empty()).then(|| Caution {
        station: Station::Part,
        sentence: format!(
            "{} of its entries cannot be read (no. {}): what they said is not in this plan.",
            job.damaged.len(),
            places.join(", ")
        ),
    })
}

/// How many rounds before this one failed at a crack that is repaired again.
fn failed_here(job: &Job, cracks: &[CrackPlan]) -> u32 {
    let again = cracks.iter().filter(|crack| crack.becomes == "repair");
    let Some(first) = again.map(|crack| crack.found_in_round).min() else { return 0 };
    let before = job.rounds.iter().enumerate().take(job.rounds.len().saturating_sub(1));
    let failed =
        |(number, round): &(usize, &Round)| number + 1 >= first && round.became() == Some(Became::Failed);
    before.filter(failed).count() as u32
}
