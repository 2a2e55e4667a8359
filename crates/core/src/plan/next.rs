//! What needs a hand next, one thing at a time.

use crate::casting::said::Oil;
use serde::{Deserialize, Serialize};

use super::hot::LastHeat;
use super::hot_now::Hot;
use super::{Amount, AtTorch, Plan, Station};
use crate::field;
use crate::heat::UNWRAP_C;
use crate::job::{Became, HeatRef, Job, Lighting, Round};
use crate::stage::{CheckLine, CheckState};

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

pub(super) fn next(
    job: &Job,
    plan: &Plan,
    work: Option<&AtTorch>,
    hot: Option<&Hot>,
    (not_measured, heat, now_ms): (&str, Option<&(&LastHeat, HeatRef<'_>)>, i64),
) -> Next {
    if job.practice.as_ref().is_some_and(|it| it.ended) {
        let verb = "See what became of it".to_owned();
        return Next { verb, station: Station::HandOver, key: String::new(), at_ms: None };
    }
    let round = job.round();
    let go = |station, verb: String| Next { verb, station, key: String::new(), at_ms: None };
    let say = |station, verb: &str| go(station, verb.to_owned());
    let lit = round.repaired();
    if let Some(work) = work {
        let now_min = round.lit.as_ref().map_or(0.0, |lit| lit.minutes(now_ms));
        let latest = round.latest_reading();
        let turned = latest.map_or(now_min, |latest| work.turned(latest, now_min));
        return go(Station::Torch, work.verb(latest, turned));
    }
    if let (Some(hot), Some((last, heat))) = (hot, heat) {
        return while_hot(hot, last, heat.lit.job_ms(now_ms));
    }
    let handed_over = plan.amount(Station::HandOver) == Amount::Enough;
    let unwrapped = heat.is_some_and(|(last, _)| last.unwrapped);
    if !not_measured.is_empty() && !handed_over && !unwrapped {
        return say(Station::Cooling, "Try with a stick: not measured");
    }
    if !lit && let Some(lock) = plan.lock() {
        use field::part::{AUTHORITY, AUTHORITY_DAY, AUTHORITY_IS, AUTHORITY_LOOKED, AUTHORITY_REFERENCE};
        let asks = [
            (AUTHORITY.key(), "Enter who answers for it"),
            (AUTHORITY_IS.key(), "Say what they are"),
            (AUTHORITY_LOOKED.key(), "Enter what they looked at"),
            (AUTHORITY_REFERENCE.key(), "Enter their reference"),
            (AUTHORITY_DAY.key(), "Enter the day they looked at it"),
        ];
        let verb =
            asks.iter().find(|(key, _)| *key == lock.key).map_or(lock.short.as_str(), |(_, verb)| verb);
        return Next { key: lock.key.clone(), ..say(lock.station, verb) };
    }
    // What was stopped is gone on with, unless somebody looks at it as it is.
    let may_go_on =
        plan.torch.as_ref().is_some_and(|torch| torch.go_on.is_some()) && plan.gate.refused.is_empty();
    let looked_at = plan.check.iter().any(|line| line.verdict != CheckState::Open);
    if lit && may_go_on && !looked_at && !handed_over {
        return say(Station::Torch, "Go on: light it again");
    }
    if lit {
        return once_lit(job, plan, handed_over, now_ms);
    }
    if handed_over {
        return hand_over(plan, job, now_ms);
    }
    before_the_torch(job, plan)
}

/// What is next of a repair that was lit and burns no more: what was found is put right, then what is left is looked at,
/// finished, handed over.
fn once_lit(job: &Job, plan: &Plan, handed_over: bool, now_ms: i64) -> Next {
    let go = |station, verb: String| Next { verb, station, key: String::new(), at_ms: None };
    let bad = || plan.check.iter().filter(|line| line.verdict == CheckState::NotOk);
    if let Some(line) = bad().next()
        && plan.only_to_refill
        && !handed_over
    {
        let place = line.places.iter().find(|place| place.verdict == CheckState::NotOk);
        let at = place.map_or_else(String::new, |place| format!(", {}", place.words));
        let verb = format!("Put right: {}{at}", line.label.to_lowercase());
        return Next { key: line.key.clone(), ..go(Station::Check, verb) };
    }
    if bad().next().is_some() && !handed_over {
        return go(Station::Check, format!("Open round {}", job.rounds.len() + 1));
    }
    if let Some(line) = plan.check.iter().find(|line| line.open())
        && !handed_over
    {
        return proving(line).unwrap_or_else(|| Next {
            key: line.key.clone(),
            ..go(Station::Check, format!("Check: {}", line.label.to_lowercase()))
        });
    }
    if let Some(next) = finishing(plan, now_ms).filter(|_| !handed_over) {
        return next;
    }
    hand_over(plan, job, now_ms)
}

/// What is pressed next of a proof that was begun, once what is held was held long enough.
fn proving(line: &CheckLine) -> Option<Next> {
    let (step, at_ms) = line.proof.as_ref()?.next()?;
    Some(Next {
        verb: format!("Proof: {}", step.word.to_lowercase()),
        station: Station::Check,
        key: line.key.clone(),
        at_ms,
    })
}

/// The next line of the finish; once what lies under it is dry.
fn finishing(plan: &Plan, now_ms: i64) -> Option<Next> {
    let lines = &plan.finish.lines;
    let at = lines.iter().position(|line| !line.done)?;
    let dry_ms = lines[..at].iter().filter_map(|line| line.dry_at_ms).max();
    let line = &lines[at];
    let place = if line.place.is_empty() { String::new() } else { format!(", {}", line.place) };
    Some(Next {
        verb: format!("Finish: {}{place}", line.word.to_lowercase()),
        station: Station::Check,
        key: String::new(),
        at_ms: dry_ms.filter(|at_ms| *at_ms > now_ms),
    })
}

/// It was baked, and nobody has said that it is clean.
fn baked(job: &Job) -> bool {
    let round = job.round();
    round.get(field::part::OIL) == Some(Oil::Soaked)
        && round.cancelled.iter().any(|heat| heat.lit.what == Lighting::Bake)
}

/// From then on it is looked at again; nothing where that was done, or is not due.
pub(super) fn again_at_ms(plan: &Plan) -> Option<i64> {
    plan.check.iter().filter(|line| line.verdict == CheckState::Open).find_map(|line| line.due_ms)
}

/// It was handed over, and did not hold.
pub(super) fn failed(round: &Round) -> bool {
    round.became() == Some(Became::Failed)
}

fn hand_over(plan: &Plan, job: &Job, now_ms: i64) -> Next {
    let round = job.round();
    let ask = plan.hand_over.afterwards.next();
    let again = again_at_ms(plan);
    if again.is_some_and(|at_ms| at_ms <= now_ms || plan.amount(Station::HandOver) == Amount::Enough) {
        let key = field::check::NEXT_DAY.key().to_owned();
        let verb = "Look for cracks again".to_owned();
        return Next { verb, station: Station::Check, key, at_ms: again.filter(|at_ms| *at_ms > now_ms) };
    }
    if plan.amount(Station::HandOver) == Amount::Enough && ask.is_some_and(|ask| ask.due_ms <= now_ms) {
        let key = field::hand_over::BECAME.key().to_owned();
        return Next { verb: "Ask how it holds".to_owned(), station: Station::HandOver, key, at_ms: None };
    }
    let verb = match plan.amount(Station::HandOver) {
        Amount::Enough => match (ask, round.became()) {
            (Some(ask), _) => format!("Ask again on {}", ask.day),
            _ if failed(round) => format!("It failed: open round {}", job.rounds.len() + 1),
            (_, Some(became)) => became.label().to_owned(),
            _ => "Handed over".to_owned(),
        },
        Amount::Nothing | Amount::Something => "Write the hand-over".to_owned(),
    };
    Next { verb, station: Station::HandOver, key: String::new(), at_ms: None }
}

/// Nothing is proposed that wants it cold.
fn while_hot(hot: &Hot, last: &LastHeat, job_now_ms: i64) -> Next {
    let next =
        |station, verb: &str, at_ms| Next { verb: verb.to_owned(), station, key: String::new(), at_ms };
    let until = |at_ms: Option<i64>| at_ms.filter(|at| *at > job_now_ms);
    let cool_enough = hot.celsius.is_some_and(|celsius| celsius <= UNWRAP_C);
    // What was baked or tacked lies in the air: nobody covers it.
    let in_the_air = last.lit_for != Lighting::Main && last.out_min.is_some();
    match (hot.unwrapped || in_the_air, hot.covered) {
        (true, _) => match until(hot.touch_at_ms) {
            Some(at) => next(Station::Cooling, "Keep hands off until", Some(at)),
            None => next(Station::Cooling, "Take a reading", None),
        },
        (false, false) => next(Station::Torch, "Cover it", None),
        (false, true) if cool_enough => next(Station::Cooling, "Unwrap and look", None),
        (false, true) => match until(hot.unwrap_at_ms) {
            Some(at) => next(Station::Cooling, "Keep it covered until", Some(at)),
            None => next(Station::Cooling, "Keep it covered, take a reading", None),
        },
    }
}

fn before_the_torch(job: &Job, plan: &Plan) -> Next {
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
    if plan.cracks.is_empty() && !plan.bench.patched() {
        return go(Station::Cracks, "Map the crack", "crack");
    }
    if let Some(first) = plan.missing.iter().find(|m| m.station == Station::Cracks) {
        return go(Station::Cracks, &first.verb, &first.key);
    }
    // A bake is over, and whether it did its work is seen when it is wiped.
    if baked(job) {
        return go(Station::Part, "Wipe it: does the rag stay white?", field::part::OIL.key());
    }
    let unfound = plan
        .cracks
        .iter()
        .find(|crack| crack.ends.iter().any(|end| end.stop_hole.is_some_and(|hole| hole.find_tip_better)));
    if let Some(crack) = unfound {
        let verb = format!("Find tip {} better", crack.letter);
        return go(Station::Cracks, &verb, &field::crack::FOUND_BY.of(crack.id).key());
    }
    if plan.methods.chosen.is_none() {
        return go(Station::Method, "Choose the method", field::method::CHOICE.key());
    }
    if plan.prep.is_none() {
        return go(Station::Prep, "Lay out the groove", field::prep::DEPTH.key());
    }
    if let Some(first) = plan.gate.refused.first()
        && first.station != Station::Heat
    {
        return go(first.station, &first.verb, &first.key);
    }
    match &plan.heat {
        Some(heat) if !heat.reached => go(Station::Heat, "Find more heat", field::heat::SOURCE.key()),
        Some(heat) if heat.cold => go(Station::Torch, "Start the work", ""),
        Some(_) => go(Station::Torch, "Light up", ""),
        None => go(Station::Heat, "Say what can heat it", field::heat::SOURCE.key()),
    }
}
