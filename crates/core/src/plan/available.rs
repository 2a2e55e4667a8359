//! The time there is until the part is wanted, against the time the plan takes.

use serde::Serialize;

use super::Plan;
use crate::base::day::Day;
use crate::field;
use crate::job::Job;
use crate::quantity::Unit;

/// The time until the part is wanted.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Available {
    /// "3 days 6 h", or "0 h" when it is past.
    pub left: String,
    pub sentence: String,
    /// The planned way does not fit into it.
    pub short: bool,
}

/// Ours: a part that is wanted on a day is fetched at this hour of the shop's own time.
pub const FETCHED_AT_HOUR: i8 = 17;

fn days_and_hours(minutes: i64) -> String {
    let hours = minutes / 60;
    match (hours / 24, hours % 24) {
        (0, hours) => format!("{hours} h"),
        (1, hours) => format!("1 day {hours} h"),
        (days, hours) => format!("{days} days {hours} h"),
    }
}

/// The time until the part is fetched, both in ms since 1970; nothing while no day is said.
#[must_use]
pub fn available(job: &Job, plan: &Plan, now_ms: i64, fetched_at_ms: Option<i64>) -> Option<Available> {
    let day = Day::say(job.round().get(field::part::WANTED)?);
    let until_min = (fetched_at_ms? - now_ms) / 60_000;
    let left = days_and_hours(until_min.max(0));
    let (takes_min, takes_most) = match plan.figure("method.hours") {
        Some(figure) => (Some(figure.value), figure.high.unwrap_or(figure.value)),
        None => (None, 0.0),
    };
    let chosen = plan.methods.chosen.and_then(|way| plan.methods.contenders.iter().find(|c| c.way == way));
    let ready = chosen.and_then(|contender| contender.ready.as_ref());
    let say = |minutes: f64| plan.units.say(minutes, Unit::Minutes);
    let (sentence, short) = match takes_min {
        _ if until_min <= 0 => (format!("It was wanted on {day}: that is past."), true),
        None => (format!("Wanted on {day}: {left} left. No way is chosen yet."), false),
        // Not begun: hands work in the shop's hours only.
        Some(_) if job.round().lit.is_none() && ready.is_some() => {
            let (words, late) = ready.map_or(("", false), |ready| (ready.words.as_str(), ready.late));
            let too_late = if late { " Too late." } else { "" };
            (format!("Wanted on {day}: {left} left. Begun now: ready {words}.{too_late}"), late)
        }
        Some(takes) if takes > until_min as f64 => {
            let over = days_and_hours((takes - until_min as f64).ceil() as i64 + 59);
            (
                format!("Wanted on {day}: {left} left, the plan takes {}. Too late by {over}.", say(takes)),
                true,
            )
        }
        Some(takes) if takes_most > until_min as f64 => (
            format!(
                "Wanted on {day}: {left} left, the plan takes {}, at most {}. It may be late.",
                say(takes),
                say(takes_most)
            ),
            true,
        ),
        Some(takes) => (format!("Wanted on {day}: {left} left, the plan takes {}.", say(takes)), false),
    };
    Some(Available { left, sentence, short })
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::hours(59, "0 h")]
    #[case::day(24 * 60, "1 day 0 h")]
    #[case::days(3 * 1440 + 6 * 60 + 30, "3 days 6 h")]
    fn time_is_said_in_days_and_hours(#[case] minutes: i64, #[case] said: &str) {
        assert_eq!(days_and_hours(minutes), said);
    }
}
