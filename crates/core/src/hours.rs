//! How long a repair takes: hands and clock, step by step, and when it can be ready.

use serde::{Deserialize, Serialize};

/// One step, in min: what hands do, and what only takes time.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Step {
    /// As hours.md calls it: `fill`.
    pub id: String,
    pub label: String,
    pub attended_min: f64,
    pub unattended_min: f64,
    /// The working; a template until the plan says it.
    pub working: String,
}

/// Metal that goes in a minute, in mm³. House.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Takes {
    Burr,
    ThinDisc,
    GrindingDisc,
    Chisel,
}

impl Takes {
    #[must_use]
    pub fn mm3_a_min(self) -> f64 {
        match self {
            Self::Burr => 600.0,
            Self::ThinDisc => 1000.0,
            Self::GrindingDisc => 4000.0,
            Self::Chisel => 150.0,
        }
    }
}

/// Sum of hands and of clock over all steps, in min.
#[must_use]
pub fn totals(steps: &[Step]) -> (f64, f64) {
    (steps.iter().map(|step| step.attended_min).sum(), steps.iter().map(|step| step.unattended_min).sum())
}

const DAY_MIN: i64 = 24 * 60;
/// When hands work, Monday to Friday, in min from midnight: eight hours with one off. House.
const AT_WORK: [(i64, i64); 2] = [(8 * 60, 12 * 60), (13 * 60, 17 * 60)];
/// Monday to Friday.
const WORKING_DAYS: i64 = 5;

/// Day 0 of the count was a Thursday; 0 for Monday.
fn weekday(day: i64) -> i64 {
    (day + 3).rem_euclid(7)
}

/// When so many minutes of hands are done that begin at this minute: wall-clock minutes since 1970, of the shop's own
/// zone.
fn worked(from_min: f64, hands_min: f64) -> f64 {
    /// Ours: a repair that takes longer than this is not reckoned to the day.
    const DAYS_MOST: i64 = 3_650;
    let mut left = hands_min;
    if left <= 0.0 {
        return from_min;
    }
    let first = (from_min / DAY_MIN as f64).floor() as i64;
    for day in first..first + DAYS_MOST {
        if weekday(day) >= WORKING_DAYS {
            continue;
        }
        for (begins, ends) in AT_WORK {
            let begins = ((day * DAY_MIN + begins) as f64).max(from_min);
            let room = (day * DAY_MIN + ends) as f64 - begins;
            if room <= 0.0 {
                continue;
            }
            if left <= room {
                return begins + left;
            }
            left -= room;
        }
    }
    from_min + hands_min * 4.2
}

/// When all of it is done, begun now: hands in the shop's hours, the rest by the clock, one after the other. In
/// wall-clock minutes since 1970 of the shop's own zone, both ways.
///
/// # Source
/// House.
#[must_use]
pub fn ready_min(now_min: i64, steps: &[Step]) -> i64 {
    let done =
        steps.iter().fold(now_min as f64, |at, step| worked(at, step.attended_min) + step.unattended_min);
    done.ceil() as i64
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    fn step(attended_min: f64, unattended_min: f64) -> Step {
        Step {
            id: "fill".to_owned(),
            label: "Fill".to_owned(),
            attended_min,
            unattended_min,
            working: String::new(),
        }
    }

    /// Monday 5 January 1970, at this hour.
    fn monday(hour: i64) -> i64 {
        4 * DAY_MIN + hour * 60
    }

    #[rstest]
    #[case::within_the_morning(monday(8), &[step(60.0, 0.0)], monday(9))]
    #[case::over_dinner(monday(11), &[step(120.0, 0.0)], monday(14))]
    #[case::before_the_day(monday(5), &[step(60.0, 0.0)], monday(9))]
    #[case::into_the_next_day(monday(16), &[step(120.0, 0.0)], monday(24 + 9))]
    #[case::over_the_weekend(monday(4 * 24 + 16), &[step(120.0, 0.0)], monday(7 * 24 + 9))]
    #[case::the_clock_does_not_stop(monday(16), &[step(60.0, 14.0 * 60.0)], monday(24 + 7))]
    #[case::cold_overnight_and_then_hands(
        monday(16), &[step(60.0, 14.0 * 60.0), step(30.0, 0.0)], monday(24 + 8) + 30
    )]
    #[case::nothing_to_do(monday(3), &[], monday(3))]
    #[case::on_a_sunday(monday(-20), &[step(30.0, 0.0)], monday(8) + 30)]
    fn hands_work_in_the_shops_hours_and_the_clock_goes_on(
        #[case] now: i64,
        #[case] steps: &[Step],
        #[case] ready: i64,
    ) {
        assert_eq!(ready_min(now, steps), ready);
    }

    proptest::proptest! {
        #[test]
        fn more_to_do_is_never_ready_sooner(
            now in 0i64..1_000_000, hands in 0.0..3_000.0f64, clock in 0.0..3_000.0f64, more in 0.0..500.0f64
        ) {
            let one = ready_min(now, &[step(hands, clock)]);
            proptest::prop_assert!(one >= now);
            proptest::prop_assert!(ready_min(now, &[step(hands + more, clock)]) >= one);
            proptest::prop_assert!(ready_min(now, &[step(hands, clock + more)]) >= one);
        }
    }
}
