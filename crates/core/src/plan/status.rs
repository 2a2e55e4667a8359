//! Status of a job at a moment: what needs a hand next, what is hot, when it may be unwrapped.

use serde::{Deserialize, Serialize};

use super::hot::LastHeat;
use super::hot_now::{Hot, hot};
use super::next::{Next, again_at_ms, failed, next};
use super::{Amount, Live, Plan, Station, live};
use crate::field;
use crate::heat::UNWRAP_C;
use crate::job::{HeatRef, Job, job_ms};
use crate::quantity::{Unit, UnitSystem};

/// Status of a job at a moment.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct JobStatus {
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

/// Status over time, as long as nobody says anything of the job: what is stored of it for the rack.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct StatusTimeline {
    /// The first one stands from the beginning.
    turns: Vec<StatusChange>,
}

/// A status and when it begins; from then on nothing changes but its clock.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
struct StatusChange {
    /// UTC in ms since 1970.
    from_ms: i64,
    standing: JobStatus,
    /// When the clock that it shows was lit, and how fast it goes; nothing where none is shown.
    clock: Option<(i64, f64)>,
}

impl StatusTimeline {
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
            let standing = status(job, plan, at_ms);
            let shown = match (&standing.hot, &heat) {
                (Some(_), Some((_, heat))) => Some(heat.lit),
                _ => job.round().lit.as_ref(),
            };
            StatusChange { from_ms, standing, clock: shown.map(|lit| (lit.at_ms, lit.speed)) }
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
    pub fn at(&self, now_ms: i64) -> JobStatus {
        let found = self.turns.iter().rev().find(|turn| turn.from_ms <= now_ms);
        found.or(self.turns.first()).expect("it stands from the beginning").at(now_ms)
    }

    /// When it stands otherwise by itself, after a moment; nothing for never.
    #[must_use]
    pub fn turns_after(&self, now_ms: i64) -> Option<i64> {
        self.turns.iter().map(|turn| turn.from_ms).find(|from_ms| *from_ms > now_ms)
    }
}

impl StatusChange {
    fn at(&self, now_ms: i64) -> JobStatus {
        let job_ms = self.clock.map(|(at_ms, speed)| (at_ms, job_ms(at_ms, speed, now_ms)));
        JobStatus {
            job_now_ms: job_ms.map(|(_, now)| now),
            minutes: job_ms.map(|(at_ms, now)| (now - at_ms) as f64 / 60_000.0),
            ..self.standing.clone()
        }
    }
}

/// What needs a hand next.
#[must_use]
pub fn status(job: &Job, plan: &Plan, now_ms: i64) -> JobStatus {
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
    JobStatus {
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
