//! What a job asks of the stores: what it will still take, and what it has taken.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::{Amount, Event, Plan, Station, events, tips};
use crate::base::log::undone;
use crate::crack::tip_offset::OwnTip;
use crate::effort::durations::{TimedStep, pace};
use crate::faults::acceptance::Duty;
use crate::faults::own::OwnFault;
use crate::field;
use crate::heat::OwnFactor;
use crate::iron::Iron;
use crate::job::{
    BeadAt, Became, Change, Fact, Job, Round, Timed, TorchEntry, Work, WorkStep, job_ms_to_clock,
};
use crate::method::{
    MOVED_MOST_MM, MethodId, OwnMove, OwnRepair, OwnScrap, PlaceKind, RepairHow, amps_at, shift_of,
};
use crate::record::FrozenPlan;
use crate::shop::Shop;
use crate::stage::looked::duty;
use crate::stage::part::PartFacts;
use crate::stage::scrap::scrap_step;
use crate::stage::{Contender, SizePlan, UsedLine};
use crate::stores::{OwnUse, Take, TakenWhen, UsedInRound};

/// Something that is gone from the shelves.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Gone {
    /// The lighting, or the work, that took it.
    pub fact: Uuid,
    pub when: TakenWhen,
    /// UTC, ms since 1970.
    pub at_ms: i64,
    pub takes: Vec<Take>,
}

/// What a job asks of the stores.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
pub struct Asks {
    pub name: String,
    /// `YYYY-MM-DD`, the day it is wanted; nothing while no day is said.
    pub by: Option<String>,
    pub to_take: Vec<Take>,
    pub gone: Vec<Gone>,
    /// What of it belongs into the shop's calendar.
    #[serde(default)]
    pub events: Vec<Event>,
    /// Steps that were timed on it, against what was reckoned.
    #[serde(default)]
    pub timed: Vec<TimedStep>,
    /// How its heating and its cooling went against the book.
    #[serde(default)]
    pub learned: Vec<OwnFactor>,
    /// Ends of its cracks that were found once, and then better.
    #[serde(default)]
    pub tips: Vec<OwnTip>,
    /// Its sizes that were read before the torch and cold again.
    #[serde(default)]
    pub moves: Vec<OwnMove>,
    /// What went wrong at its torch.
    #[serde(default)]
    pub faults: Vec<OwnFault>,
    /// Pieces of scrap that were done first for it.
    #[serde(default)]
    pub scraps: Vec<OwnScrap>,
    /// What it says it really used, round by round.
    #[serde(default)]
    pub used: Vec<UsedInRound>,
    /// The same against its plan.
    #[serde(default)]
    pub uses: Vec<OwnUse>,
    /// What became of each of its repairs, as its record has it.
    #[serde(default)]
    pub repairs: Vec<OwnRepair>,
}

impl Asks {
    /// What a job asks for as it is planned and as far as it has come. One that was put away unlit asks for nothing.
    #[must_use]
    pub fn of(job: &Job, plan: &Plan, facts: &[Fact], shop: &Shop) -> Self {
        let (repairs, events) = (repairs(job, plan, shop), events(job, plan));
        let (timed, learned) = (timed(job, plan, shop), plan.learned.clone());
        let tips = tips::found_again(job, &plan.cracks, facts);
        let (moves, faults) = (moves(job, plan), faults(job));
        let (used, uses) = (used(job), uses(job, plan));
        let scraps = scraps(job, facts);
        Self {
            repairs,
            events,
            timed,
            learned,
            tips,
            moves,
            faults,
            scraps,
            used,
            uses,
            ..Self::of_the_shelves(job, plan)
        }
    }

    fn of_the_shelves(job: &Job, plan: &Plan) -> Self {
        let round = job.round();
        if !round.repaired() {
            let to_take = if job.put_away { Vec::new() } else { plan.takes.clone() };
            return Self { to_take, ..Self::named(job) };
        }
        let done = plan.amount(Station::Torch) == Amount::Enough;
        let cooled = plan.amount(Station::Cooling) == Amount::Enough;
        let of = |when: TakenWhen| plan.takes.iter().filter(move |take| take.when == when).cloned();
        let lightings = plan.methods.taken().map_or(1.0, |taken| f64::from(taken.lightings));
        let mut asks = Self::named(job);
        // What is lit again another day burns gas again, and lays its own beads.
        for (lit, log) in round.repairs_lit() {
            let gone =
                |when: TakenWhen, at_ms: i64, takes: Vec<Take>| Gone { fact: lit.fact, when, at_ms, takes };
            // Of what all sessions burn each burns its own.
            let burnt = of(TakenWhen::Lit).map(|take| Take { amount: take.amount / lightings, ..take });
            asks.gone.push(gone(TakenWhen::Lit, lit.at_ms, burnt.collect()));
            let in_hand = round.lit.as_ref().is_some_and(|now| now.fact == lit.fact);
            if in_hand && !done {
                continue;
            }
            let standing = || log.iter().filter(|entry| entry.stands());
            let worked: f64 = standing().map(|entry| entry.minutes).fold(0.0, f64::max);
            let at_ms = job_ms_to_clock(lit.at_ms, lit.speed, worked);
            let laid = standing().filter(|entry| entry.is_piece()).count() as f64;
            let share = match plan.torch.as_ref().map(|torch| f64::from(torch.planned)) {
                // Nobody counted: all of it.
                _ if laid == 0.0 && round.stopped().is_none() && round.beads() == 0 => 1.0,
                Some(planned) if planned > 0.0 => (laid / planned).min(1.0),
                _ => 1.0,
            };
            let used = of(TakenWhen::Done).map(|take| Take { amount: whole(&take, share), ..take });
            asks.gone.push(gone(TakenWhen::Done, at_ms, used.filter(|take| take.amount > 0.0).collect()));
        }
        if !done {
            asks.to_take.extend(of(TakenWhen::Done));
        }
        if !cooled && !job.put_away {
            asks.to_take.extend(of(TakenWhen::Kept));
        }
        asks.gone.retain(|gone| !gone.takes.is_empty());
        asks
    }

    fn named(job: &Job) -> Self {
        Self {
            name: job.name().to_owned(),
            by: job.round().get(field::part::WANTED).map(str::to_owned),
            ..Self::default()
        }
    }
}

/// What went wrong, round by round, and the cause that was found.
fn faults(job: &Job) -> Vec<OwnFault> {
    let mut found = Vec::new();
    for (lit, log) in job.rounds.iter().flat_map(Round::repairs_lit) {
        let Some(way) = lit.frozen.as_ref().and_then(|frozen| frozen.way) else { continue };
        for entry in log.iter().filter(|entry| entry.stands()) {
            if let TorchEntry::Trouble { seen, cause } = &entry.entry {
                let (entry, name) = (entry.fact, job.name().to_owned());
                let (seen, cause) = (*seen, cause.clone());
                found.push(OwnFault { entry, job: job.id, name, seen, cause, way, taken_back: false });
            }
        }
    }
    found
}

/// Pieces of scrap that were ticked, also where what lay ready was laid out anew since.
fn scraps(job: &Job, facts: &[Fact]) -> Vec<OwnScrap> {
    let undone = undone(facts);
    let ticks: Vec<(Uuid, WorkStep, bool)> = facts
        .iter()
        .filter(|fact| !undone.contains(&fact.id))
        .filter_map(|fact| match &fact.change {
            Change::Tick { step, done } if step.what == Work::LayOut => Some((fact.id, *step, *done)),
            _ => None,
        })
        .collect();
    let done = |method: MethodId| {
        let asked = scrap_step(method);
        let last = ticks.iter().rev().find(|(_, step, _)| *step == asked)?;
        let (piece, _, done) = *last;
        let name = job.name().to_owned();
        done.then_some(OwnScrap { piece, job: job.id, name, method, taken_back: false })
    };
    if ticks.is_empty() { Vec::new() } else { MethodId::ALL.into_iter().filter_map(done).collect() }
}

/// What was really used in each round.
fn used(job: &Job) -> Vec<UsedInRound> {
    let of = |round: &Round| UsedInRound {
        lit: round.repairs_lit().map(|(lit, _)| lit.fact).collect(),
        used: round.used.clone(),
    };
    job.rounds.iter().map(of).filter(|round: &UsedInRound| !round.lit.is_empty()).collect()
}

/// What was really used against what was planned, of what is planned at all; nothing for what nobody says.
fn uses(job: &Job, plan: &Plan) -> Vec<OwnUse> {
    let round = job.round();
    let Some(lit) = round.lit.as_ref().filter(|_| round.repaired()) else { return Vec::new() };
    let of = |line: &UsedLine| {
        Some(OwnUse {
            lit: lit.fact,
            job: job.id,
            name: job.name().to_owned(),
            what: line.what.clone(),
            size_mm: line.size_mm,
            planned: line.planned?,
            used: line.used,
        })
    };
    plan.hand_over.really.lines.iter().filter_map(of).collect()
}

/// What the heat did to its sizes, by the way that was gone.
fn moves(job: &Job, plan: &Plan) -> Vec<OwnMove> {
    let round = job.round();
    let lit = round.lit.as_ref().filter(|_| round.repaired());
    let Some(way) = lit.and_then(|lit| lit.frozen.as_ref()?.way) else { return Vec::new() };
    let moved = |size: &SizePlan| {
        Some(OwnMove {
            size: size.mark,
            job: job.id,
            name: job.name().to_owned(),
            what: size.name.clone(),
            way,
            moved_mm: Some(size.moved_mm.filter(|mm| mm.abs() <= MOVED_MOST_MM)?),
            foreseen_mm: None,
        })
    };
    plan.bench.features.iter().filter_map(moved).collect()
}

/// What was timed on this job against what the book has, without what was learned here before.
fn timed(job: &Job, plan: &Plan, shop: &Shop) -> Vec<TimedStep> {
    let Some(way) = plan.methods.chosen else { return Vec::new() };
    let Some(taken) = plan.methods.contenders.iter().find(|it| it.way == way) else { return Vec::new() };
    let of = |timed: &Timed| {
        let reckoned: f64 =
            taken.steps.iter().filter(|step| step.id == timed.step).map(|step| step.attended_min).sum();
        let took_min = (timed.to_ms? - timed.from_ms) as f64 / 60_000.0;
        TimedStep::of(timed.fact, &timed.step, took_min, reckoned / pace(&shop.timed, &timed.step).0)
    };
    job.round().timed.iter().filter_map(of).collect()
}

/// What became of the repair of each round that was lit; not known where nobody was asked.
fn repairs(job: &Job, plan: &Plan, shop: &Shop) -> Vec<OwnRepair> {
    /// A day in ms, by definition.
    const DAY_MS: f64 = 24.0 * 3_600_000.0;
    let Some(iron) = plan.iron.shares.first().map(|share| share.iron) else { return Vec::new() };
    let of = |round: &Round| {
        let lit = round.lit.as_ref().filter(|_| round.repaired())?;
        let way = lit.frozen.as_ref().and_then(|frozen| frozen.way)?;
        // What was taken back is told as well: nothing is known of it any more.
        let said = round.followed.last();
        let contender = plan.methods.contenders.iter().find(|it| it.way.method == way.method)?;
        Some(OwnRepair {
            job: job.id,
            lit: lit.fact,
            name: job.name().to_owned(),
            method: way.method,
            variant: contender.variant.clone(),
            iron,
            days: said.map_or(0.0, |said| ((said.at_ms - lit.at_ms) as f64 / DAY_MS).max(0.0)),
            became: said.map_or(Became::Unknown, |said| said.became).id().to_owned(),
            shift: burdened(job, round, contender),
            given: lit.frozen.as_ref().and_then(odds_given),
            handed: round.followed.first().and_then(|first| first.odds),
            how: Some(Box::new(how((job, plan, shop), round, contender))),
        })
    };
    job.rounds.iter().filter_map(of).collect()
}

/// Of hands: as it was timed, and reckoned where it was not.
fn hands_hours(round: &Round, contender: &Contender) -> f64 {
    let timed = |step: &str| {
        let of: Vec<f64> = round
            .timed
            .iter()
            .filter(|timed| timed.step == step)
            .filter_map(|timed| Some((timed.to_ms? - timed.from_ms) as f64 / 60_000.0))
            .collect();
        (!of.is_empty()).then(|| of.iter().sum::<f64>())
    };
    let mut steps: Vec<(&str, f64)> = Vec::new();
    for step in &contender.steps {
        match steps.iter_mut().find(|(id, _)| *id == step.id) {
            Some((_, minutes)) => *minutes += step.attended_min,
            None => steps.push((step.id.as_ref(), step.attended_min)),
        }
    }
    let minutes: f64 = steps.iter().map(|(id, reckoned)| timed(id).unwrap_or(*reckoned)).sum();
    (minutes / 60.0 * 100.0).round() / 100.0
}

/// The odds that stood on the plan when it was lit, 0 to 1.
fn odds_given(frozen: &FrozenPlan) -> Option<f64> {
    frozen.figures.iter().find(|figure| figure.id == "method.odds").map(|figure| as_shown(figure.value))
}

/// Of a hundred as it is shown: nobody goes by more.
fn as_shown(of_100: f64) -> f64 {
    (of_100.round() / 100.0).clamp(0.0, 1.0)
}

impl Plan {
    /// How long these beads take by the order as it stands, with what is waited for between them, in min; nothing where
    /// one of them is not to come.
    #[must_use]
    pub fn beads_take_min(&self, at: &[BeadAt]) -> Option<f64> {
        let ahead = &self.torch.as_ref()?.beads.as_ref()?.ahead;
        let these: Option<Vec<_>> = at.iter().map(|at| ahead.iter().find(|it| it.at == *at)).collect();
        let these = these?;
        let begins = these.iter().map(|it| it.start_min).reduce(f64::min)?;
        let ends = these.iter().map(|it| it.ends_min).reduce(f64::max)?;
        Some((ends - begins).max(0.0))
    }

    /// The odds of a year as they stand on the plan, 0 to 1.
    #[must_use]
    pub fn odds_now(&self) -> Option<f64> {
        self.figures.iter().find(|figure| figure.id == "method.odds").map(|figure| as_shown(figure.value))
    }
}

/// How the repair of a round was done, by what was frozen when it was lit, and of this round by what stands.
fn how((job, plan, shop): (&Job, &Plan, &Shop), round: &Round, contender: &Contender) -> RepairHow {
    let here = std::ptr::eq(round, job.round());
    let part = PartFacts::read(job, round, shop);
    let duty = duty(round, &part);
    let walls = round.cracks.iter().filter_map(|crack| round.get(field::crack::WALL.of(crack.id)));
    let wall_mm = walls.chain(part.wall_mm).reduce(f64::min);
    let way = round.lit.as_ref().and_then(|lit| lit.frozen.as_ref()).and_then(|frozen| frozen.way);
    let filler =
        way.zip(wall_mm).and_then(|(way, wall)| way.method.filler(wall, plan.iron.leading == Iron::Ductile));
    let frozen = round.lit.as_ref().and_then(|lit| lit.frozen.as_ref());
    let preheat = frozen.and_then(|frozen| frozen.figures.iter().find(|figure| figure.id == "heat.target"));
    let preheat_c = preheat.map(|figure| figure.value);
    let amps = way.zip(wall_mm).and_then(|(way, wall)| {
        let entry = way.method.entry();
        let (low, high) = (entry.arc?.amps)(wall);
        let at = |amps: f64| amps_at(amps, entry.setup.melts_c, preheat_c.unwrap_or(20.0)).round();
        Some((at(low), at(high)))
    });
    // How often it is done here is the shop's, and nothing of this repair.
    let burdens = contender
        .parts_of_odds()
        .into_iter()
        .filter(|part| part.shift < 0.0 && part.name != "skill")
        .map(|part| part.name);
    let estimate = job.estimate.as_ref().filter(|_| here);
    RepairHow {
        school: way.map(|way| way.school),
        place: Some(match duty {
            Duty { shock: true, .. } => PlaceKind::Knocked,
            Duty { tight: true, .. } => PlaceKind::Tight,
            Duty { carries: true, .. } => PlaceKind::Carries,
            Duty { .. } => PlaceKind::Rests,
        }),
        wall_mm,
        preheat_c,
        rod: filler.map_or_else(String::new, |filler| format!("{} {}", filler.class, filler.name)),
        rod_mm: filler.map(|filler| filler.rod_diameter_mm),
        amps,
        burdens: here.then(|| burdens.collect()),
        price: estimate.map(|estimate| estimate.total),
        currency: estimate.map_or_else(String::new, |estimate| estimate.currency.clone()),
        hands_hours: here.then(|| hands_hours(round, contender)),
    }
}

/// What burdened the repair of a round, in log-odds; of a round that is over nothing is worked out any more.
fn burdened(job: &Job, round: &Round, contender: &Contender) -> f64 {
    if !std::ptr::eq(round, job.round()) {
        return 0.0;
    }
    /// Ours: nobody tells less apart, and thousands of repairs fall into few heaps.
    const TOLD_APART: f64 = 0.05;
    (shift_of(&contender.parts_of_odds()) / TOLD_APART).round() * TOLD_APART
}

/// Rods and pins are used up whole.
fn whole(take: &Take, share: f64) -> f64 {
    let used = take.amount * share;
    if (take.amount - take.amount.round()).abs() < 1e-9 { (used - 1e-9).ceil() } else { used }
}
