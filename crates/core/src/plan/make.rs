//! Facts in, plan out.

use super::asked_back::asked_back;
use super::folded::Folded;
use super::gate::{Gate, GateInputs};
use super::hot::LastHeat;
use super::learned::learned;
use super::lightings::{LightingPlan, LightingsInputs};
use super::method_context::Heats;
use super::offered::Offered;
use super::on_the_face::begins_words;
use super::stages::{self, Later};
use super::way_plan::WayPlan;
use super::{
    Amount, BenchPlan, CheckLine, CoolingPlan, CrackPlan, FinishPlan, HandOverPlan, HeatPlan, IronPlan, Lock,
    MapPlan, MethodPlan, PartPlan, Plan, PlanLine, PrepPlan, Station, TorchPlan,
};
use crate::base::day::Day;
use crate::field;
use crate::heat::SimCache;
use crate::iron::least_forgiving;
use crate::iron::{Belief, Iron, least};
use crate::job::{Job, Round};
use crate::method::Way;
use crate::prep::drill_speed::{DrillTool, cutting_speed_m_min};
use crate::secret::{Practice, bench};
use crate::shop::Shop;
use crate::stage::heat::{HeatInputs, Sources, StepBurn};
use crate::stage::iron::IronInputs;
use crate::stage::method::{Locked, MethodContext, Moment, Ruled, currency};
use crate::stage::part::PartFacts;
use crate::stage::prep::{BenchInputs, WorkInputs};
use crate::stage::{Stage, check, cooling, cracks, heat, iron, map, method, part, prep};
use crate::stores::Take;

/// The plan of a job in a shop. Pure and total: an incomplete job gives a partial plan that says
/// what is missing and why it matters.
#[must_use]
pub fn plan(job: &Job, shop: &Shop) -> Plan {
    plan_with(job, shop, &SimCache::default())
}

/// The same, with runs of the models kept from plans before.
#[must_use]
pub fn plan_with(job: &Job, shop: &Shop, sims: &SimCache) -> Plan {
    made(job, shop, None, sims, None)
}

/// The same at a moment: what takes too long to be ready in time is ruled out.
#[must_use]
pub fn plan_at(job: &Job, shop: &Shop, sims: &SimCache, moment: Moment) -> Plan {
    made(job, shop, None, sims, Some(moment))
}

/// The plan as if the iron were known to be this one; what is believed of the iron stays as it is.
#[must_use]
pub fn plan_as_if(job: &Job, shop: &Shop, iron: Iron, sims: &SimCache) -> Plan {
    made(job, shop, Some(iron), sims, None)
}

/// The ways side by side, and nothing of the plan that follows from them.
pub(super) fn methods_at(job: &Job, shop: &Shop, sims: &SimCache, moment: Option<Moment>) -> MethodPlan {
    let practised = practised(job, shop);
    let begun = Begun::of(job, practised.as_ref().unwrap_or(shop), None, sims);
    begun.ways(&begun.context(moment)).0
}

/// The way that is taken and how often it holds, and nothing else of the plan; nothing where none is taken.
pub(super) fn odds_taken(job: &Job, shop: &Shop, sims: &SimCache) -> Option<(Way, f64)> {
    let practised = practised(job, shop);
    let begun = Begun::of(job, practised.as_ref().unwrap_or(shop), None, sims);
    if begun.is_left_open() {
        return None;
    }
    begun.context(None).odds_taken(Locked::by(&begun.locks), begun.part_known())
}

/// The bench of whoever practises; nothing where nobody does.
fn practised(job: &Job, shop: &Shop) -> Option<Shop> {
    job.practice.as_ref().map(|practice| bench(practice, shop))
}

/// What a plan is made from until its ways stand side by side.
struct Begun<'a> {
    job: &'a Job,
    shop: &'a Shop,
    sims: &'a SimCache,
    part: Stage<PartPlan>,
    facts: PartFacts,
    believed: Belief,
    /// What it is planned for.
    belief: Belief,
    laid: cracks::FaceGeometry<'a>,
    cracks: Stage<Vec<CrackPlan>>,
    locks: Vec<Lock>,
    heats: Heats,
    bench: BenchPlan,
}

impl<'a> Begun<'a> {
    fn of(job: &'a Job, shop: &'a Shop, as_if: Option<Iron>, sims: &'a SimCache) -> Self {
        let round = job.round();
        let facts = PartFacts::read(job, round, shop);
        let part = part::stage(round, &facts);
        let believed = iron::belief(job, &facts);
        let belief = as_if.map_or_else(|| believed.clone(), |iron| believed.clone().as_if(iron));
        let laid = cracks::FaceGeometry::read(job);
        let cracks = cracks::stage(round, &laid, facts.wall_mm, &belief.plausible, shop);
        let held_in =
            laid.held_in((round, &facts), (&cracks.plan, least_forgiving(&belief.plausible).iron), sims);
        let facts = PartFacts { held_in, ..facts };
        let locks = stages::locks(round, &facts, &belief);
        let heats = Heats::at_hand((round, shop), &facts, &cracks.plan, &belief, sims);
        let bench = BenchInputs { round, laid: &laid, cracks: &cracks.plan, units: shop.units }.plan();
        Self { job, shop, sims, part, facts, believed, belief, laid, cracks, locks, heats, bench }
    }

    fn context(&self, moment: Option<Moment>) -> MethodContext<'_> {
        self.heats.context(
            (self.job, self.shop),
            (&self.facts, &self.belief),
            (&self.laid, &self.cracks.plan),
            &self.bench,
            (self.sims, moment),
        )
    }

    /// The ways, and what the rules say of them.
    fn ways(&self, context: &MethodContext<'_>) -> (MethodPlan, Vec<Ruled>) {
        let (mut methods, ruled) = context.contenders(Locked::by(&self.locks), self.part_known());
        if self.is_left_open() {
            methods.leave_unchosen();
        }
        (methods, ruled)
    }

    fn part_known(&self) -> bool {
        self.part.amount == Amount::Enough
    }

    /// Whoever practises goes by no plan.
    fn is_alone(&self) -> bool {
        self.job.practice.as_ref().is_some_and(Practice::alone)
    }

    /// Nothing is chosen for whoever has to choose.
    fn is_left_open(&self) -> bool {
        self.is_alone() && self.job.round().get(field::method::CHOICE).is_none()
    }
}

fn made(job: &Job, shop: &Shop, as_if: Option<Iron>, sims: &SimCache, moment: Option<Moment>) -> Plan {
    let practised = practised(job, shop);
    let shop = practised.as_ref().unwrap_or(shop);
    let round = job.round();
    let begun = Begun::of(job, shop, as_if, sims);
    let context = begun.context(moment);
    let (methods, ruled) = begun.ways(&context);
    let alone = begun.is_alone();
    let chosen = methods.chosen;
    let working = Working {
        job,
        context: &context,
        believed: &begun.believed,
        heats: &begun.heats,
        bench: &begun.bench,
        alone,
    };
    let Worked { method, prep, heat, cooling, iron, torch, check, hand_over, map, finish, last_heat, lines } =
        working.out(methods, &ruled, &begun.part.plan, &begun.cracks);
    let body = context.body();
    let Begun { part, facts, believed, belief, cracks, locks, heats, bench, .. } = begun;
    let staged = Staged { part, iron, cracks, method, prep, heat, torch, cooling, check, hand_over };
    let Planned {
        part,
        iron,
        cracks,
        methods,
        prep,
        heat,
        torch,
        cooling,
        check,
        hand_over,
        takes,
        folded: Folded { stations, missing, cautions, figures },
    } = staged.folded(job, &facts, &map, shop);
    let currency = currency(round, shop);
    let asked = GateInputs {
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
        bench: &bench,
    };
    let (gate, lightings) = gates(&asked, alone, (chosen, heats.for_a_bake()), sims);
    Plan {
        learned: learned(job, shop, (&facts, &belief.plausible), heat.as_ref(), sims),
        figures: figures.into_iter().map(|figure| figure.paid_in(&currency)).collect(),
        offered: offered(job, moment, &methods),
        only_to_refill: check::only_to_refill(&check),
        body_words: facts.size_words(),
        asked_back: asked_back(job, &facts),
        stations,
        locks,
        missing,
        cautions,
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
        check,
        finish,
        hand_over,
        gate,
        lightings,
        last_heat,
        lines,
        takes,
        body,
        currency,
        units: shop.units,
    }
}

/// What was offered, as it stands today.
fn offered(job: &Job, moment: Option<Moment>, methods: &MethodPlan) -> Option<Offered> {
    let today = moment.and_then(|at| Day::of_number(at.now_min.div_euclid(24 * 60)));
    let price = methods.taken().and_then(|taken| taken.price.total);
    job.estimate.as_ref().map(|given| Offered::of(given, today, price))
}

/// What the stages after the cracks are worked out from.
struct Working<'a> {
    job: &'a Job,
    context: &'a MethodContext<'a>,
    /// What is believed of the iron, whatever it is planned for.
    believed: &'a Belief,
    heats: &'a Heats,
    bench: &'a BenchPlan,
    /// Whoever practises goes by no plan.
    alone: bool,
}

/// What came of the stages after the cracks.
struct Worked {
    method: Stage<MethodPlan>,
    prep: Stage<Option<PrepPlan>>,
    heat: Stage<Option<HeatPlan>>,
    cooling: Stage<Option<CoolingPlan>>,
    iron: Stage<IronPlan>,
    torch: Stage<Option<TorchPlan>>,
    check: Stage<Vec<CheckLine>>,
    hand_over: Stage<HandOverPlan>,
    map: MapPlan,
    finish: FinishPlan,
    last_heat: Option<LastHeat>,
    lines: Vec<PlanLine>,
}

impl Working<'_> {
    fn heat_inputs<'a>(
        &'a self,
        cracks: &'a [CrackPlan],
        way: Option<Way>,
        burns: Vec<StepBurn>,
    ) -> HeatInputs<'a> {
        let MethodContext { round, shop, sims, part, belief, .. } = *self.context;
        let (plausible, steps) = (belief.plausible.as_slice(), &self.heats.steps);
        HeatInputs { round, part, shop, cracks, plausible, sims, way, burns, steps }
    }

    /// Of a chosen way everything; of ways still side by side their lines.
    fn out(
        &self,
        methods: MethodPlan,
        ruled: &[Ruled],
        part: &PartPlan,
        cracks: &Stage<Vec<CrackPlan>>,
    ) -> Worked {
        let Self { job, context, believed, heats, bench, alone } = *self;
        let MethodContext { round, shop, laid, sims, part: facts, belief, .. } = *context;
        let chosen = methods.chosen;
        let worked = chosen.map(|way| WayPlan::of(context, way));
        let lines = match &worked {
            Some(worked) => worked.line(facts).into_iter().collect(),
            None if alone => Vec::new(),
            None => lines_beside(context, &methods),
        };
        let prep_inputs = chosen.map(|way| context.prep_inputs(way));
        let slowest = least(&belief.plausible, |iron| cutting_speed_m_min(iron, DrillTool::Hss)).iron;
        let untold = stages::untold(job, belief);
        let work_asked = prep_inputs.as_ref().map(|prep| WorkInputs { prep, laid, slowest, untold });
        let WayPlan { prep, heat, cooling, target, .. } = worked.unwrap_or_default();
        let method = method::stage(methods, heat.as_ref(), cooling.as_ref(), cracks.amount);
        let prep = prep::stage(work_asked.as_ref(), prep, cracks, bench);
        let burns = chosen.zip(prep.plan.as_ref()).and_then(|(way, prep)| context.step_burns(way, prep));
        let units = shop.units;
        let map = map::map_plan(&map::MapInputs {
            job,
            laid,
            cracks: &cracks.plan,
            prep: prep.plan.as_ref(),
            units,
        });
        let sources = chosen.map_or(heats.sources.as_ref(), |way| context.sources_of(way));
        let asked = self.heat_inputs(&cracks.plan, chosen, burns.unwrap_or_default());
        let mut heat = heat::stage(heat, target.as_ref(), sources, &asked);
        begin_where_said(heat.plan.as_mut(), round, &map);
        let cooling = cooling::stage(round, cooling, heat.plan.as_ref(), facts);
        let (prepared, heated, cooled) = (prep.plan.as_ref(), heat.plan.as_ref(), cooling.plan.as_ref());
        let iron = iron::stage(&IronInputs {
            job,
            part,
            facts,
            believed,
            planned_for: belief,
            methods: &method.plan,
            ruled,
            target: target.as_ref(),
            heat: heated,
        });
        let later = Later {
            job,
            shop,
            context,
            methods: &method.plan,
            prep: prepared,
            heat: heated,
            cooling: cooled,
            map: &map,
            bench,
        };
        let torch = later.torch();
        let check = later.check(torch.plan.as_ref());
        // What is over is a year old.
        let over = job.practice.as_ref().is_some_and(|it| it.ended);
        let last_heat = LastHeat::of(job, shop, facts, &belief.plausible, chosen, sims).filter(|_| !over);
        let still_hot = last_heat.as_ref().is_some_and(|last| last.still_hot(job));
        let finish = later.finish();
        let hand_over = later.hand_over(&check.plan, torch.plan.as_ref(), still_hot);
        Worked { method, prep, heat, cooling, iron, torch, check, hand_over, map, finish, last_heat, lines }
    }
}

/// Where the flame begins, as it was said on the map.
fn begin_where_said(heat: Option<&mut HeatPlan>, round: &Round, map: &MapPlan) {
    if let Some(heat) = heat.filter(|heat| !heat.cold) {
        let begins = round.flame.and_then(|flame| begins_words(flame, &map.faces));
        heat.begins = begins.unwrap_or_default();
    }
}

/// What has to be so before it is lit, for the repair and for what comes before it; whoever practises alone is kept back
/// from nothing but what hands cannot do.
fn gates(
    inputs: &GateInputs<'_>,
    alone: bool,
    (chosen, bakes): (Option<Way>, Option<&Sources>),
    sims: &SimCache,
) -> (Gate, Vec<LightingPlan>) {
    let gate = if alone { Gate::of_hands(chosen) } else { Gate::of(inputs) };
    let mut lightings = LightingsInputs { gate: inputs, sources: bakes, bench: inputs.bench, sims }.plans();
    if alone {
        lightings.iter_mut().for_each(|it| it.refused.clear());
    }
    (gate, lightings)
}

/// What came of each stage, with what is to be said of it.
struct Staged {
    part: Stage<PartPlan>,
    iron: Stage<IronPlan>,
    cracks: Stage<Vec<CrackPlan>>,
    method: Stage<MethodPlan>,
    prep: Stage<Option<PrepPlan>>,
    heat: Stage<Option<HeatPlan>>,
    torch: Stage<Option<TorchPlan>>,
    cooling: Stage<Option<CoolingPlan>>,
    check: Stage<Vec<CheckLine>>,
    hand_over: Stage<HandOverPlan>,
}

/// What is planned at each stage, and what all of them say together.
struct Planned {
    part: PartPlan,
    iron: IronPlan,
    cracks: Vec<CrackPlan>,
    methods: MethodPlan,
    prep: Option<PrepPlan>,
    heat: Option<HeatPlan>,
    torch: Option<TorchPlan>,
    cooling: Option<CoolingPlan>,
    check: Vec<CheckLine>,
    hand_over: HandOverPlan,
    /// What the chosen way takes from the stores.
    takes: Vec<Take>,
    folded: Folded,
}

impl Staged {
    fn folded(self, job: &Job, facts: &PartFacts, map: &MapPlan, shop: &Shop) -> Planned {
        let mut folded = Folded::default();
        // In the order of the work: what is said is said in it.
        let part = folded.take(Station::Part, self.part);
        let iron = folded.take(Station::Iron, self.iron);
        let cracks = folded.take(Station::Cracks, self.cracks);
        let methods = folded.take(Station::Method, self.method);
        let prep = folded.take(Station::Prep, self.prep);
        let heat = folded.take(Station::Heat, self.heat);
        let torch = folded.take(Station::Torch, self.torch);
        let cooling = folded.take(Station::Cooling, self.cooling);
        let check = folded.take(Station::Check, self.check);
        let hand_over = folded.take(Station::HandOver, self.hand_over);
        let takes = methods.taken().map_or_else(Vec::new, |taken| taken.takes.clone());
        folded.also(job, facts, map, &takes, shop);
        Planned { part, iron, cracks, methods, prep, heat, torch, cooling, check, hand_over, takes, folded }
    }
}

/// The lines of ways that are still side by side.
fn lines_beside(context: &MethodContext<'_>, methods: &MethodPlan) -> Vec<PlanLine> {
    side_by_side(methods).filter_map(|way| WayPlan::of(context, way).line(context.part)).collect()
}

pub(super) fn lock_of(locks: &[Lock], chosen: Option<Way>) -> Option<&Lock> {
    let hot = chosen.is_none_or(|way| !way.method.without_heat());
    locks.iter().find(|lock| hot || !lock.hot_only)
}

/// The ways within reach of the first choice, two at most.
fn side_by_side(methods: &MethodPlan) -> impl Iterator<Item = Way> + '_ {
    let best = methods.contenders.first().map_or(0.0, |c| c.score);
    methods.contenders.iter().filter(move |c| c.recommended && best - c.score < 3.0).take(2).map(|c| c.way)
}
