//! What of a job belongs into a calendar: sessions, when it may be unwrapped and touched, when it is fetched, when it is asked
//! or looked at again.

use serde::{Deserialize, Serialize};

use super::Plan;
use crate::base::day::DAY_MS;
use crate::effort::booking::Booked;
use crate::field;
use crate::job::{Job, job_ms_to_clock};
use crate::shop::Shop;
use crate::stage::method::of_minutes;

/// When something is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
pub enum When {
    /// From one minute of the shop's wall clock to another, since 1970.
    Wall(i64, i64),
    /// A moment: UTC, ms since 1970.
    At(i64),
    /// A day, by its number.
    Day(i64),
    /// A day, at the hour at which parts are fetched.
    Fetched(i64),
}

/// One entry of a calendar.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct Event {
    /// The same each time: a second import changes the entry and makes no other.
    pub uid: String,
    pub when: When,
    pub summary: String,
    pub description: String,
}

/// What belongs into a calendar, as the job stands and is planned.
#[must_use]
pub fn events(job: &Job, plan: &Plan) -> Vec<Event> {
    let round = job.round();
    let name = job.name();
    let number = job.rounds.len();
    let mut events = Vec::new();
    let mut add = |what: &str, when: When, summary: String, description: String| {
        events.push(Event { uid: format!("{}-{what}@vanadin", job.id), when, summary, description });
    };
    if !job.put_away {
        for (at, session) in plan.methods.sessions.iter().enumerate() {
            if let (Some(begins), Some(ends)) = (session.begins_min, session.ends_min) {
                add(
                    &format!("round-{number}-session-{}", at + 1),
                    When::Wall(begins, ends),
                    format!("{name}: {}", session_words(plan, at)),
                    session.words.clone(),
                );
            }
        }
    }
    if let (Some(last), Some(lit)) = (&plan.last_heat, &round.lit)
        && last.lit == lit.fact
        && !last.unwrapped
    {
        let at = |minutes: f64| When::At(job_ms_to_clock(lit.at_ms, lit.speed, minutes));
        let read = "By the model. Read it before a hand touches it.";
        if let Some(minutes) = last.unwrap_min {
            let what = format!("round-{number}-unwrap");
            add(&what, at(minutes), format!("{name}: may be unwrapped"), read.to_owned());
        }
        if let Some(minutes) = last.touch_min {
            let what = format!("round-{number}-touch");
            add(&what, at(minutes), format!("{name}: may be touched"), read.to_owned());
        }
    }
    let day = |day: &str| crate::base::day::Day::parse(day, None).ok().map(crate::base::day::Day::number);
    let handed_over = round.get(field::hand_over::DONE) == Some(true);
    if let Some(wanted) = round.get(field::part::WANTED).and_then(day).filter(|_| !handed_over) {
        add("collection", When::Fetched(wanted), format!("{name}: fetched"), String::new());
    }
    let afterwards = &plan.hand_over.afterwards;
    for ask in afterwards.asks.iter().filter(|ask| !ask.answered && afterwards.next().is_some()) {
        let again = ask.due_ms.div_euclid(DAY_MS);
        add(&format!("follow-up-{again}"), When::Day(again), format!("Ask how {name} holds"), String::new());
    }
    for crack in &round.cracks {
        if let Some(again) = round.get(field::crack::LOOK_AGAIN.of(crack.id)).and_then(day) {
            let letter = plan.cracks.iter().find(|it| it.id == crack.id).map_or("", |it| it.letter.as_str());
            let summary = format!("{name}: look at crack {letter} again");
            add(&format!("crack-{}", crack.id), When::Day(again), summary, String::new());
        }
    }
    events
}

/// A job's sessions on the hands that every other job asks for too.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HandsBooked {
    /// One for each session of the plan: "Booked for Tue 1 Dec, 9:00: before it the hands are at Lever."; empty where it
    /// is booked as it is planned.
    pub sessions: Vec<String>,
    /// "Ready then Wed 2 Dec, 14:00."; empty where nothing moves.
    pub ready: String,
}

/// The sessions of a plan as they are booked; `named` tells the other jobs, by their place. What comes after the last is as
/// much later as that is, when somebody is there.
#[must_use]
pub fn hands_booked(
    (plan, shop): (&Plan, &Shop),
    booked: &[Booked],
    named: impl Fn(usize) -> String,
    now_min: i64,
) -> HandsBooked {
    let (mut later_min, mut waits) = (0, false);
    // What has no time of day asks for no hands.
    let planned = plan.methods.sessions.iter().map(|it| it.begins_min.filter(|_| it.ends_min.is_some()));
    let mut booked = booked.iter();
    let words = |planned: Option<i64>| {
        let Some((planned, session)) = planned.and_then(|at| Some((at, booked.next()?))) else {
            return String::new();
        };
        // That it is no longer as early as it was is not worth a word: that it waits for another job is.
        waits |= session.after.is_some();
        if !waits || session.begins <= planned {
            return String::new();
        }
        later_min = session.begins - planned;
        let why = session
            .after
            .map_or(String::new(), |other| format!(": before it the hands are at {}", named(other)));
        format!("Booked for {}{why}.", of_minutes(session.begins, shop.twelve_hours))
    };
    let sessions: Vec<String> = planned.map(words).collect();
    let ready = plan.methods.taken().and_then(|taken| taken.ready.as_ref()).filter(|_| later_min > 0);
    let ready = ready.map_or(String::new(), |ready| {
        let at = now_min + ready.after_min.ceil() as i64 + later_min;
        let there = shop.week.or_ordinary().next_there(at);
        format!("Ready then {}.", of_minutes((there + 4).div_euclid(5) * 5, shop.twelve_hours))
    });
    HandsBooked { sessions, ready }
}

fn session_words(plan: &Plan, at: usize) -> String {
    let way = plan.methods.chosen.map_or(String::new(), |way| way.label().to_lowercase());
    match plan.methods.sessions.len() {
        1 => way,
        count => format!("{way}, session {} of {count}", at + 1),
    }
}
