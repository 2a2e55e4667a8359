//! What needs a hand next, what is hot, when it may be unwrapped: the job at a moment.

use serde::{Deserialize, Serialize};

use super::torch::{AtTorch, Live, live};
use super::{Amount, Plan, Station};
use crate::heat::{TOUCH_C, UNWRAP_C};
use crate::job::{Job, Lit, crack_key};
use crate::quantity::{Shown, Unit, both};

/// The one thing to do next.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Next {
    pub verb: String,
    pub station: Station,
    /// The field it is about; empty for none.
    pub key: String,
    /// When, on the job clock, UTC in ms since 1970; nothing for now.
    pub at_ms: Option<i64>,
}

/// A part that is hot.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Hot {
    /// The last temperature known.
    pub celsius: Option<f64>,
    /// The same, ready to be shown.
    pub metric: Option<Shown>,
    pub imperial: Option<Shown>,
    pub unwrap_at_ms: Option<i64>,
    pub touch_at_ms: Option<i64>,
}

/// The job at a moment.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Standing {
    pub station: Station,
    pub next: Next,
    pub hot: Option<Hot>,
    /// Stopped: nothing beyond this station.
    pub stopped: Option<String>,
    /// The station at which a lock stops it; nothing while none does.
    pub stopped_at: Option<Station>,
    /// Why the torch cannot be lit yet; nothing when it can, or is.
    pub unlit: Option<String>,
    /// The earlier, the nearer the top of the rack.
    pub rank: u32,
    /// The job clock now, UTC in ms since 1970; nothing while not lit.
    pub job_now_ms: Option<i64>,
    /// Minutes on the job clock since it was lit.
    pub minutes: Option<f64>,
    /// The last reading, judged; nothing while not lit or without one.
    pub live: Option<Live>,
}

/// What needs a hand next.
#[must_use]
pub fn standing(job: &Job, plan: &Plan, now_ms: i64) -> Standing {
    let round = job.round();
    let lit = round.lit.as_ref();
    let hot = lit.and_then(|lit| hot(job, plan, lit, now_ms));
    let work = plan.at_torch(job);
    let next = next(job, plan, work.as_ref(), hot.as_ref());
    let stopped = plan.lock().map(|lock| lock.short.clone()).or_else(|| {
        let nothing_left = plan.methods.contenders.iter().all(|c| c.excluded);
        (nothing_left && plan.methods.chosen.is_none()).then(|| "Don't repair".to_owned())
    });
    let done = plan.amount(Station::HandOver) == Amount::Enough;
    let rank = if hot.is_some() {
        u32::from(round.covered_minutes().is_some())
    } else if done {
        9
    } else if stopped.is_some() {
        8
    } else if lit.is_some() {
        2
    } else {
        // The further along, the sooner it needs a hand.
        7 - plan.stations[..5].iter().filter(|s| s.amount == Amount::Enough).count().min(4) as u32
    };
    Standing {
        station: next.station,
        next,
        hot,
        stopped,
        stopped_at: plan.lock().map(|lock| lock.station),
        unlit: if lit.is_some() { None } else { plan.unlit_reason() },
        rank,
        job_now_ms: lit.map(|lit| lit.job_ms(now_ms)),
        minutes: lit.map(|lit| lit.minutes(now_ms)),
        live: lit.and_then(|_| {
            let latest = round.latest_reading()?;
            let before = round.readings.partition_point(|reading| reading.minutes < latest.minutes);
            Some(live(latest, &round.readings[..before], work.as_ref()))
        }),
    }
}

/// Hot until a reading says otherwise; without one, until the plan says so; never once it has
/// been handed over.
fn hot(job: &Job, plan: &Plan, lit: &Lit, now_ms: i64) -> Option<Hot> {
    let round = job.round();
    let heats = plan.heat.as_ref().is_some_and(|heat| !heat.cold);
    if !heats || plan.amount(Station::HandOver) == Amount::Enough {
        return None;
    }
    let latest = round.latest_reading();
    let at = |minutes: f64| lit.at_ms + (minutes * 60_000.0) as i64;
    let covered = round.covered_minutes();
    let after = |hours: Option<f64>| Some(at(covered? + hours? * 60.0));
    let cooling = plan.cooling.as_ref();
    let (unwrap_at_ms, touch_at_ms) =
        (after(cooling.and_then(|c| c.unwrap_hours)), after(cooling.and_then(|c| c.touch_hours)));
    let touchable = match (covered, &latest) {
        (None, _) => false,
        (Some(_), Some(reading)) => reading.celsius <= TOUCH_C,
        (Some(_), None) => touch_at_ms.is_some_and(|at| lit.job_ms(now_ms) >= at),
    };
    let shown = latest.map(|reading| both(reading.celsius, Unit::Celsius));
    let (metric, imperial) = shown.unzip();
    let celsius = latest.map(|reading| reading.celsius);
    (!touchable).then_some(Hot { celsius, metric, imperial, unwrap_at_ms, touch_at_ms })
}

fn next(job: &Job, plan: &Plan, work: Option<&AtTorch>, hot: Option<&Hot>) -> Next {
    let round = job.round();
    let go = |station, verb: String| Next { verb, station, key: String::new(), at_ms: None };
    let say = |station, verb: &str| go(station, verb.to_owned());
    let lit = round.lit.is_some();
    if !lit && let Some(lock) = plan.lock() {
        let verb = match (lock.station, lock.key.as_str()) {
            (Station::Part, "part.authority") => "Enter who answers for it",
            (Station::Part, "part.authority_reference") => "Enter their reference",
            _ => &lock.short,
        };
        return Next { key: lock.key.clone(), ..say(lock.station, verb) };
    }
    if let Some(work) = work {
        return go(Station::Torch, work.verb(round.latest_reading().map(|reading| reading.celsius)));
    }
    if let Some(hot) = hot {
        let cool_enough = hot.celsius.is_some_and(|celsius| celsius <= UNWRAP_C);
        if cool_enough {
            return say(Station::Check, "Unwrap and look");
        }
        return Next {
            verb: "Unwrap".to_owned(),
            station: Station::Cooling,
            key: String::new(),
            at_ms: hot.unwrap_at_ms,
        };
    }
    if lit {
        if plan.check.iter().any(|line| line.verdict == "not_ok") {
            return go(Station::Check, format!("Open round {}", job.rounds.len() + 1));
        }
        if let Some(line) = plan.check.iter().find(|line| line.verdict.is_empty()) {
            return Next {
                key: line.key.clone(),
                ..go(Station::Check, format!("Check: {}", line.label.to_lowercase()))
            };
        }
        return match plan.amount(Station::HandOver) {
            Amount::Enough => match round.text("hand_over.follow_up") {
                Some(day) => go(Station::HandOver, format!("Ask again on {day}")),
                None => say(Station::HandOver, "Handed over"),
            },
            Amount::Nothing | Amount::Something => say(Station::HandOver, "Write the hand-over"),
        };
    }
    before_the_torch(plan)
}

fn before_the_torch(plan: &Plan) -> Next {
    let go = |station, verb: &str, key: &str| Next {
        verb: verb.to_owned(),
        station,
        key: key.to_owned(),
        at_ms: None,
    };
    if plan.amount(Station::Part) != Amount::Enough
        && let Some(first) = plan.missing.iter().find(|m| m.station == Station::Part)
    {
        return go(Station::Part, &first.verb, &first.key);
    }
    if !plan.iron.enough
        && let Some(test) = plan.iron.next_tests.first()
    {
        return go(Station::Iron, &test.verb, test.test.id());
    }
    if plan.cracks.is_empty() {
        return go(Station::Cracks, "Map the crack", "crack");
    }
    if let Some(first) = plan.missing.iter().find(|m| m.station == Station::Cracks) {
        return go(Station::Cracks, &first.verb, &first.key);
    }
    let unfound = plan
        .cracks
        .iter()
        .find(|crack| crack.ends.iter().any(|end| end.stop_hole.is_some_and(|hole| hole.find_tip_better)));
    if let Some(crack) = unfound {
        let verb = format!("Find tip {} by dye", crack.letter);
        return go(Station::Cracks, &verb, &crack_key(crack.id, "found_by"));
    }
    if plan.methods.chosen.is_none() {
        return go(Station::Method, "Choose the method", "method.choice");
    }
    if plan.prep.is_none() {
        return go(Station::Prep, "Lay out the groove", "prep.depth");
    }
    match &plan.heat {
        Some(heat) if !heat.reached => go(Station::Heat, "Find more heat", "heat.source"),
        Some(heat) if heat.cold => go(Station::Torch, "Start the work", ""),
        Some(_) => go(Station::Torch, "Light up", ""),
        None => go(Station::Heat, "Say what can heat it", "heat.source"),
    }
}
