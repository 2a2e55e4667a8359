//! A line as it is written.

use vanadin_core::heat::SimCache;
use vanadin_core::job::{Job, Reading};
use vanadin_core::plan::{JobStatus, Plan, PlanLine};
use vanadin_core::practice::ended;
use vanadin_core::secret::Practice;
use vanadin_core::shop::Shop;

use super::super::drawn::drawn;
use super::{PracticeEnd, PracticeLine, RackLine};
use crate::wire::job::thinned;

pub(super) fn line(job: &Job, plan: &Plan, standing: JobStatus) -> RackLine {
    let round = job.round();
    RackLine {
        id: job.id,
        name: job.name().to_owned(),
        face: job.face(),
        iron: iron_words(plan),
        mass: plan.part.weight_words.clone(),
        round: job.rounds.len(),
        record: record(&round.readings),
        earlier: job.rounds[..job.rounds.len() - 1].iter().map(|round| record(&round.readings)).collect(),
        lit_at_ms: round.lit.as_ref().map(|lit| lit.at_ms),
        speed: round.lit.as_ref().map_or(1.0, |lit| lit.speed),
        put_away: job.put_away,
        damaged: plan
            .cautions
            .iter()
            .find(|caution| !job.damaged.is_empty() && caution.sentence.contains("cannot be read"))
            .map_or(String::new(), |caution| caution.sentence.clone()),
        stations: plan.stations.clone(),
        lines: plan.lines.iter().map(|line| PlanLine { curve: drawn(&line.curve), ..line.clone() }).collect(),
        standing,
        practice: None,
    }
}

pub(super) fn practice_line(practice: &Practice, job: &Job, shop: &Shop) -> PracticeLine {
    let of = &practice.of;
    let end = || ended(job, shop, &SimCache::default());
    let end = practice.ended.then(end).flatten();
    PracticeLine {
        title: of.title.clone(),
        lesson: of.lesson.clone(),
        level: of.level,
        seed: of.seed,
        made_by: of.made_by.clone(),
        ended: end.map(|end| PracticeEnd {
            holds: end.holds,
            odds: end.odds,
            of_100: end.of_100,
            headline: end.headline,
        }),
    }
}

/// "gray", "ductile 78 %" while not settled.
pub(super) fn iron_words(plan: &Plan) -> String {
    plan.iron.shares.first().map_or(String::new(), |share| {
        if plan.iron.steps.is_empty() {
            "iron not tested".to_owned()
        } else if plan.iron.enough {
            // Settled: how sure stands on its card.
            share.label.to_lowercase()
        } else {
            format!("{} {}", share.label.to_lowercase(), share.shown.text())
        }
    })
}

/// No strip has more points across.
const DRAWN: usize = 1_500;

pub(super) fn record(readings: &[Reading]) -> Vec<Reading> {
    let curve: Vec<(f64, f64)> =
        thinned(readings, DRAWN).iter().map(|reading| (reading.minutes, reading.celsius)).collect();
    drawn(&curve).into_iter().map(|(minutes, celsius)| Reading { minutes, celsius }).collect()
}
