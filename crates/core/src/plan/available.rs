//! The time there is until the part is wanted, against the time the plan takes.

use serde::{Deserialize, Serialize};

use super::Plan;
use crate::job::Job;
use crate::quantity::Unit;

/// The time until the part is wanted.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Available {
    /// "3 days 6 h", or "0 h" when it is past.
    pub left: String,
    pub sentence: String,
    /// The planned way does not fit into it.
    pub short: bool,
}

/// The shop's clock: now in ms since 1970, UTC, and by how many minutes its zone is ahead of that.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct ShopClock {
    pub now_ms: i64,
    pub ahead_min: i64,
}

/// Ours: a part that is wanted on a day is fetched at five.
const FETCHED_AT_MIN: i64 = 17 * 60;

/// Days from 1970-01-01 to a day of the calendar.
///
/// # Source
/// The Gregorian calendar's 400-year cycle of 146,097 days.
fn days_since_1970(year: i64, month: i64, day: i64) -> i64 {
    let (year, month) = if month > 2 { (year, month - 3) } else { (year - 1, month + 9) };
    365 * year + year.div_euclid(4) - year.div_euclid(100)
        + year.div_euclid(400)
        + (153 * month + 2) / 5
        + day
        - 1
        - 719_468
}

/// When a part wanted on `day`, `YYYY-MM-DD`, is fetched, in ms since 1970.
fn fetched_at_ms(day: &str, clock: ShopClock) -> Option<i64> {
    let mut parts = day.split('-').map(|part| part.parse::<i64>().ok());
    let (year, month, day) = (parts.next()??, parts.next()??, parts.next()??);
    Some((days_since_1970(year, month, day) * 1440 + FETCHED_AT_MIN - clock.ahead_min) * 60_000)
}

fn days_and_hours(minutes: i64) -> String {
    let hours = minutes / 60;
    match (hours / 24, hours % 24) {
        (0, hours) => format!("{hours} h"),
        (1, hours) => format!("1 day {hours} h"),
        (days, hours) => format!("{days} days {hours} h"),
    }
}

/// The time until the part is wanted; nothing while no day is said.
#[must_use]
pub fn available(job: &Job, plan: &Plan, clock: ShopClock) -> Option<Available> {
    let day = job.round().text("part.wanted")?;
    let until_min = (fetched_at_ms(day, clock)? - clock.now_ms) / 60_000;
    let left = days_and_hours(until_min.max(0));
    let (takes_min, takes_most) = match plan.figure("method.hours") {
        Some(figure) => (Some(figure.value), figure.high.unwrap_or(figure.value)),
        None => (None, 0.0),
    };
    let say = |minutes: f64| plan.units.say(minutes, Unit::Minutes);
    let (sentence, short) = match takes_min {
        _ if until_min <= 0 => (format!("It was wanted on {day}: that is past."), true),
        None => (format!("Wanted on {day}: {left} left. No way is chosen yet."), false),
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
    // Hand-worked: 1970-01-01 is day 0; 2000-03-01 is day 11017; 2026-11-25 is day 20782
    #[case::first((1970, 1, 1), 0)]
    #[case::leap_day((2000, 2, 29), 11_016)]
    #[case::after_it((2000, 3, 1), 11_017)]
    #[case::this_autumn((2026, 11, 25), 20_782)]
    fn days_are_counted_from_1970(#[case] (year, month, day): (i64, i64, i64), #[case] expected: i64) {
        assert_eq!(days_since_1970(year, month, day), expected);
    }

    #[rstest]
    // Hand-worked: fetched at 17:00 in the shop's own time
    #[case::greenwich(0, 17 * 60)]
    #[case::two_hours_ahead(120, 15 * 60)]
    #[case::six_behind(-360, 23 * 60)]
    fn a_day_is_the_shops_own(#[case] ahead_min: i64, #[case] minute_utc: i64) {
        let clock = ShopClock { now_ms: 0, ahead_min };
        assert_eq!(fetched_at_ms("1970-01-01", clock), Some(minute_utc * 60_000));
    }

    #[rstest]
    #[case::hours(59, "0 h")]
    #[case::day(24 * 60, "1 day 0 h")]
    #[case::days(3 * 1440 + 6 * 60 + 30, "3 days 6 h")]
    fn time_is_said_in_days_and_hours(#[case] minutes: i64, #[case] said: &str) {
        assert_eq!(days_and_hours(minutes), said);
    }
}
