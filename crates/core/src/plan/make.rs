//! Facts in, plan out.

use super::asked_back::asked_back;
use super::folded::{Folded, currency};
use super::gate::{Gate, GateAsked};
use super::hot::LastHeat;
use super::learned::learned;
use super::lightings::{LightingsAsked, bake_target_c};
use super::offered::Offered;
use super::stages::{self, Later, failed_here};
use super::worked::Worked;
use super::{Amount, IronPlan, Lock, MethodPlan, Plan, PlanLine, Station};
use crate::base::day::Day;
use crate::field;
use crate::heat::Runs;
use crate::iron::{Iron, least};
use crate::job::Job;
use crate::method::Way;
use crate::prep::drill_speed::{DrillTool, cutting_speed_m_min};
use crate::secret::{Practice, bench};
use crate::shop::Shop;
use crate::stage::heat::{HeatAsked, Sources, StepSources};
use crate::stage::iron::IronAsked;
use crate::stage::method::{Judged, Locked, Moment};
use crate::stage::part::PartFacts;
use crate::stage::prep::{BenchAsked, WorkAsked};
use crate::stage::{check, cooling, cracks, heat, iron, map, method, part, prep};

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
    let locks = stages::locks(round, &facts, &belief);

    let mut targets_c = method::targets_c(&facts, &belief);
    targets_c.extend(bake_target_c(round, &facts));
    let sources = Sources::try_all(round, shop, &facts, &belief.plausible, &targets_c, runs);
    let steps = StepSources::read((round, shop), &facts, &belief.plausible, &targets_c, runs);
    let bakes = round
        .get(field::heat::BAKE)
        .and_then(|own| Sources::of_one(own, shop, &facts, &belief.plausible, &targets_c, runs));
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
        steps: &steps,
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
    let worked = chosen.map(|way| Worked::of(&judged, way));
    let lines = match &worked {
        Some(worked) => worked.line(&facts).into_iter().collect(),
        None if alone => Vec::new(),
        None => lines_beside(&judged, &methods),
    };
    let prep_asked = chosen.map(|way| judged.prep_asked(way));
    let slowest = least(&belief.plausible, |iron| cutting_speed_m_min(iron, DrillTool::Hss)).iron;
    let untold = stages::untold(job, &belief);
    let work_asked = prep_asked.as_ref().map(|prep| WorkAsked { prep, laid: &laid, slowest, untold });
    let Worked { prep, heat, cooling, target, .. } = worked.unwrap_or_default();
    let method = method::stage(methods, heat.as_ref(), cooling.as_ref(), cracks.amount);
    let prep = prep::stage(work_asked.as_ref(), prep, &cracks, &bench);
    let burns = chosen.zip(prep.plan.as_ref()).and_then(|(way, prep)| judged.step_burns(way, prep));
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
            burns: burns.unwrap_or_default(),
            steps: &steps,
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
    let units = shop.units;
    let map = map::map_plan(&map::MapAsked { job, laid: &laid, cracks: &cracks.plan, prep: prepared, units });
    let later = Later {
        job,
        shop,
        judged: &judged,
        methods: &method.plan,
        prep: prepared,
        heat: heated,
        cooling: cooled,
        map: &map,
        bench: &bench,
    };
    let torch = later.torch();
    let check = later.check(torch.plan.as_ref());
    // What is over is a year old.
    let over = job.practice.as_ref().is_some_and(|it| it.ended);
    let last_heat = LastHeat::of(job, shop, &facts, &belief.plausible, chosen, runs).filter(|_| !over);
    let still_hot = last_heat.as_ref().is_some_and(|last| last.still_hot(job));
    let finish = later.finish();
    let hand_over = later.hand_over(&check.plan, torch.plan.as_ref(), still_hot);
    let body = judged.body();

    let mut folded = Folded::default();
    let part = folded.take(Station::Part, part);
    let iron: IronPlan = folded.take(Station::Iron, iron);
    let cracks = folded.take(Station::Cracks, cracks);
    let methods = folded.take(Station::Method, method);
    let prep = folded.take(Station::Prep, prep);
    let heat = folded.take(Station::Heat, heat);
    let torch = folded.take(Station::Torch, torch);
    let cooling = folded.take(Station::Cooling, cooling);
    let check = folded.take(Station::Check, check);
    let hand_over = folded.take(Station::HandOver, hand_over);
    let taken = methods.taken();
    let takes = taken.map_or_else(Vec::new, |taken| taken.takes.clone());
    folded.also(job, &facts, &map, &takes, shop);
    let Folded { stations, missing, cautions, figures } = folded;
    let currency = currency(round, shop);
    let today = moment.and_then(|at| Day::of_number(at.now_min.div_euclid(24 * 60)));
    let price = taken.and_then(|taken| taken.price.total);
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
        bench: &bench,
    };
    let gate = if alone { Gate::of_hands(chosen) } else { Gate::of(&asked) };
    let mut lightings =
        LightingsAsked { gate: &asked, sources: bakes.as_ref().or(sources.as_ref()), bench: &bench, runs }
            .plans();
    if alone {
        lightings.iter_mut().for_each(|it| it.refused.clear());
    }
    Plan {
        learned: learned(job, shop, (&facts, &belief.plausible), heat.as_ref(), runs),
        figures: figures.into_iter().map(|figure| figure.paid_in(&currency)).collect(),
        offered: job.estimate.as_ref().map(|given| Offered::of(given, today, price)),
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
        units,
    }
}

/// The lines of ways that are still side by side.
fn lines_beside(judged: &Judged<'_>, methods: &MethodPlan) -> Vec<PlanLine> {
    side_by_side(methods).filter_map(|way| Worked::of(judged, way).line(judged.part)).collect()
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
