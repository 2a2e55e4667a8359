//! What needs a hand next, what is hot, when it may be unwrapped: the job at a moment.

use serde::{Deserialize, Serialize};

use super::hot::LastHeat;
use super::{Amount, AtTorch, Live, Plan, Station, live};
use crate::field;
use crate::heat::{TOUCH_C, UNWRAP_C};
use crate::job::{Became, HeatRef, Job, Lighting, Lit, Round, job_ms};
use crate::quantity::{Shown, Unit, UnitSystem, exactly};
use crate::stage::CheckLine;

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
    /// Covered, and the packing still on it.
    pub covered: bool,
    pub unwrapped: bool,
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
    /// What must not be done to it while it is hot; empty for a cold one.
    pub keep_off: String,
    /// It should be cold by now and nobody has measured it; empty where that is not so.
    pub not_measured: String,
}

/// The job from now on, as long as nobody says anything of it: what is stored of a job for the rack.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Standings {
    /// The first one stands from the beginning.
    turns: Vec<Turn>,
}

/// From here on nothing changes but its clock.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
struct Turn {
    /// UTC in ms since 1970.
    from_ms: i64,
    standing: Standing,
    /// When the clock that it shows was lit, and how fast it goes; nothing where none is shown.
    clock: Option<(i64, f64)>,
}

impl Standings {
    #[must_use]
    pub fn of(job: &Job, plan: &Plan) -> Self {
        let heat = last_heat(job, plan);
        let mut at_ms: Vec<i64> = Vec::new();
        if let Some((last, heat)) = &heat {
            // One ms later than worked out, so that no rounding makes it come early.
            let real_ms = |minutes: f64| {
                heat.lit.at_ms
                    + (minutes * 60_000.0 / heat.lit.speed.max(f64::MIN_POSITIVE)).ceil() as i64
                    + 1
            };
            // A bead that is waited for may be laid then; what was read long ago is read again.
            let work = plan.at_torch(job);
            let latest = job.round().latest_reading();
            let at_the_torch = work.zip(latest).map_or_else(Vec::new, |(work, latest)| work.turns(latest));
            let turns = [last.unwrap_min, last.touch_min, last.touch_at_the_latest_min];
            at_ms.extend(turns.into_iter().flatten().chain(at_the_torch).map(real_ms));
        }
        at_ms.extend(plan.hand_over.afterwards.next().map(|ask| ask.due_ms));
        at_ms.extend(again_at_ms(plan));
        at_ms.extend(plan.finish.lines.iter().filter_map(|line| line.dry_at_ms));
        at_ms.sort_unstable();
        let turn = |from_ms, at_ms| {
            let standing = standing(job, plan, at_ms);
            let shown = match (&standing.hot, &heat) {
                (Some(_), Some((_, heat))) => Some(heat.lit),
                _ => job.round().lit.as_ref(),
            };
            Turn { from_ms, standing, clock: shown.map(|lit| (lit.at_ms, lit.speed)) }
        };
        let mut turns = vec![turn(i64::MIN, heat.as_ref().map_or(0, |(_, heat)| heat.lit.at_ms))];
        for at_ms in at_ms {
            let then = turn(at_ms, at_ms);
            if turns.last().is_none_or(|before| before.at(at_ms) != then.at(at_ms)) {
                turns.push(then);
            }
        }
        Self { turns }
    }

    /// How it stands at a moment.
    #[must_use]
    pub fn at(&self, now_ms: i64) -> Standing {
        let found = self.turns.iter().rev().find(|turn| turn.from_ms <= now_ms);
        found.or(self.turns.first()).expect("it stands from the beginning").at(now_ms)
    }

    /// When it stands otherwise by itself, after a moment; nothing for never.
    #[must_use]
    pub fn turns_after(&self, now_ms: i64) -> Option<i64> {
        self.turns.iter().map(|turn| turn.from_ms).find(|from_ms| *from_ms > now_ms)
    }
}

impl Turn {
    fn at(&self, now_ms: i64) -> Standing {
        let job_ms = self.clock.map(|(at_ms, speed)| (at_ms, job_ms(at_ms, speed, now_ms)));
        Standing {
            job_now_ms: job_ms.map(|(_, now)| now),
            minutes: job_ms.map(|(at_ms, now)| (now - at_ms) as f64 / 60_000.0),
            ..self.standing.clone()
        }
    }
}

/// What needs a hand next.
#[must_use]
pub fn standing(job: &Job, plan: &Plan, now_ms: i64) -> Standing {
    let round = job.round();
    let lit = round.lit.as_ref();
    let heat = last_heat(job, plan);
    let hot = heat.as_ref().and_then(|(last, heat)| hot(last, heat, now_ms));
    let not_measured = heat.as_ref().map_or(String::new(), |(last, heat)| not_measured(last, heat, &hot));
    let work = plan.at_torch(job);
    let next = next(job, plan, work.as_ref(), hot.as_ref(), (&not_measured, heat.as_ref(), now_ms));
    let stopped = plan.lock().map(|lock| lock.short.clone()).or_else(|| {
        let nothing_left = plan.methods.contenders.iter().all(|c| c.excluded);
        (nothing_left && plan.methods.chosen.is_none()).then(|| "Don't repair".to_owned())
    });
    let done = plan.amount(Station::HandOver) == Amount::Enough;
    let asked = next.key == field::hand_over::BECAME.key();
    let rank = if let Some(hot) = &hot {
        u32::from(hot.covered)
    } else if asked || (done && failed(round)) {
        2
    } else if done {
        9
    } else if stopped.is_some() {
        8
    } else if round.repaired() {
        2
    } else {
        // The further along, the sooner it needs a hand.
        7 - plan.stations[..5].iter().filter(|s| s.amount == Amount::Enough).count().min(4) as u32
    };
    // Its own job clock goes on for what is hot of an earlier lighting.
    let clock = match (&hot, &heat) {
        (Some(_), Some((_, heat))) => Some(heat.lit),
        _ => lit,
    };
    Standing {
        station: next.station,
        next,
        stopped,
        stopped_at: plan.lock().map(|lock| lock.station),
        unlit: if lit.is_some() && round.stopped().is_none() { None } else { plan.unlit_reason() },
        rank,
        job_now_ms: clock.map(|lit| lit.job_ms(now_ms)),
        minutes: clock.map(|lit| lit.minutes(now_ms)),
        live: heat.as_ref().filter(|_| clock.is_some()).and_then(|(_, heat)| {
            let latest = heat.latest_reading()?;
            let recorded = heat.recorded();
            let before = recorded.partition_point(|reading| reading.minutes < latest.minutes);
            let turned = work.as_ref().map_or(0.0, |work| work.turned(latest, heat.lit.minutes(now_ms)));
            Some(live(latest, &recorded[..before], work.as_ref(), turned))
        }),
        keep_off: hot.as_ref().map_or(String::new(), |hot| {
            let pad = heat.as_ref().and_then(|(_, heat)| heat.slipped());
            let mut said = keep_off(hot, plan);
            said.push_str(heat.as_ref().map_or("", |(last, heat)| unwrapped(last, heat)));
            said.push_str(&pad.map_or(String::new(), |pad| slipped(pad.celsius, plan)));
            said
        }),
        not_measured,
        hot,
    }
}

/// It is hot now, UTC in ms since 1970, or may be.
pub(super) fn is_hot(job: &Job, plan: &Plan, now_ms: i64) -> bool {
    last_heat(job, plan).is_some_and(|(last, heat)| hot(last, &heat, now_ms).is_some())
}

/// The last lighting as the plan has it, and as the job has it.
fn last_heat<'a>(job: &'a Job, plan: &'a Plan) -> Option<(&'a LastHeat, HeatRef<'a>)> {
    let last = plan.last_heat.as_ref()?;
    let heat = job.heats().find(|heat| heat.lit.fact == last.lit)?;
    Some((last, heat))
}

fn at_ms(lit: &Lit, minutes: f64) -> i64 {
    lit.at_ms + (minutes * 60_000.0) as i64
}

/// Hot from lighting up until a reading says otherwise, or the slow end of the curve does: whatever round,
/// station or place the job is in.
fn hot(last: &LastHeat, heat: &HeatRef<'_>, now_ms: i64) -> Option<Hot> {
    let latest = heat.latest_reading();
    if heat.read_cold(last.over) {
        return None;
    }
    if last.heated {
        let cold_at = last.touch_at_the_latest_min;
        if cold_at.is_some_and(|at| heat.lit.minutes(now_ms) >= at) {
            return None;
        }
    } else if latest.is_none_or(|reading| reading.celsius <= TOUCH_C) {
        return None;
    }
    let shown = latest.map(|reading| exactly(reading.celsius, Unit::Celsius));
    let (metric, imperial) = shown.unzip();
    Some(Hot {
        celsius: latest.map(|reading| reading.celsius),
        metric,
        imperial,
        unwrap_at_ms: last.unwrap_min.map(|at| at_ms(heat.lit, at)),
        touch_at_ms: last.touch_min.map(|at| at_ms(heat.lit, at)),
        covered: last.covered,
        unwrapped: last.unwrapped,
    })
}

/// The curve says it is cold, no reading does.
fn not_measured(last: &LastHeat, heat: &HeatRef<'_>, hot: &Option<Hot>) -> String {
    let by_the_curve = last.heated && hot.is_none() && !heat.read_cold(last.over);
    if !by_the_curve {
        return String::new();
    }
    "Cold by the curve, not measured: try with a stick first.".to_owned()
}

/// House: what was read so long before it was unwrapped is what it was unwrapped at, in min.
const READ_THEN_MIN: f64 = 10.0;

/// What comes of it that the packing came off too soon, by what was read then, or by the curve where nobody read it;
/// empty where it is on, or came off in its time.
fn unwrapped(last: &LastHeat, heat: &HeatRef<'_>) -> &'static str {
    let Some(minutes) = heat.unwrapped_min() else { return "" };
    let read = heat.latest_reading().filter(|read| read.minutes >= minutes - READ_THEN_MIN);
    let too_soon = match read {
        Some(read) => read.celsius > UNWRAP_C,
        None => last.unwrap_min.is_some_and(|in_its_time| minutes < in_its_time),
    };
    if too_soon { " Unwrapped too soon it cools unevenly, and cracks: cover it again." } else { "" }
}

/// A pad that lies beside the part reads the air.
fn slipped(celsius: f64, plan: &Plan) -> String {
    let reads = plan.units.say_exactly(celsius, Unit::Celsius);
    format!(
        " The pad reads {reads}, and the part cannot have cooled so far by now: look whether it is still on it, and read \
         the part by hand."
    )
}

fn keep_off(hot: &Hot, plan: &Plan) -> String {
    let how = match (&hot.metric, &hot.imperial) {
        (Some(metric), Some(imperial)) => match plan.units {
            UnitSystem::Metric => metric.text(),
            UnitSystem::Imperial => imperial.text(),
        },
        _ => "not measured".to_owned(),
    };
    format!("HOT, {how}: no dye, no chalk and oil, no solvent, no water, no drill with oil, no bare hand.")
}

fn next(
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
    let looked_at = plan.check.iter().any(|line| !line.verdict.is_empty());
    if lit && may_go_on && !looked_at && !handed_over {
        return say(Station::Torch, "Go on: light it again");
    }
    if lit {
        let bad = || plan.check.iter().filter(|line| line.verdict == "not_ok");
        if let Some(line) = bad().next()
            && plan.only_to_refill
            && !handed_over
        {
            let place = line.places.iter().find(|place| place.verdict == "not_ok");
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
        return hand_over(plan, job, now_ms);
    }
    if handed_over {
        return hand_over(plan, job, now_ms);
    }
    before_the_torch(job, plan)
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
    round.get(field::part::OIL) == Some("soaked")
        && round.cancelled.iter().any(|heat| heat.lit.what == Lighting::Bake)
}

/// From then on it is looked at again; nothing where that was done, or is not due.
fn again_at_ms(plan: &Plan) -> Option<i64> {
    plan.check.iter().filter(|line| line.verdict.is_empty()).find_map(|line| line.due_ms)
}

/// It was handed over, and did not hold.
fn failed(round: &Round) -> bool {
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
            (_, Some(became)) => became.words().to_owned(),
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
