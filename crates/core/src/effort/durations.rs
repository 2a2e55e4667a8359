//! How long a repair takes: hands and clock, step by step, and when it can be ready.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// One step, in min: what hands do, and what only takes time.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Step {
    /// As it is kept and timed: `fill`.
    pub id: String,
    pub label: String,
    pub attended_min: f64,
    pub unattended_min: f64,
    /// The working; a template until the plan says it.
    pub working: String,
}

/// Metal that goes in a minute, in mm³. House.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum RemovalTool {
    Burr,
    ThinDisc,
    GrindingDisc,
    Chisel,
}

impl RemovalTool {
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

/// A step that was timed here: so many times what was reckoned.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TimedStep {
    /// The word that began it: timed anew it replaces what was kept of it.
    pub fact: Uuid,
    pub step: String,
    pub ratio: f64,
}

/// What is kept of one timing: a step that was forgotten or broken off says nothing. Ours.
const RATIOS: (f64, f64) = (0.2, 5.0);

impl TimedStep {
    /// A timing against what was reckoned, both in min; nothing where it says nothing.
    #[must_use]
    pub fn of(fact: Uuid, step: &str, took_min: f64, reckoned_min: f64) -> Option<Self> {
        let ratio = took_min / reckoned_min;
        let says = reckoned_min > 0.0 && (RATIOS.0..=RATIOS.1).contains(&ratio);
        says.then(|| Self { fact, step: step.to_owned(), ratio })
    }
}

/// How long a step takes here against the book: (5 + sum of own) / (5 + n), and how many times it was timed.
///
/// # Source
/// House.
#[must_use]
pub fn pace(timed: &[TimedStep], step: &str) -> (f64, usize) {
    /// House: the book counts for so many timed steps of the shop's own: fewer than for tips, a pace scatters less.
    const BOOK: f64 = 5.0;
    let own = || timed.iter().filter(|it| it.step == step);
    let count = own().count();
    ((BOOK + own().map(|it| it.ratio).sum::<f64>()) / (BOOK + count as f64), count)
}

/// Minutes in a day, by definition.
const DAY_MIN: i64 = 24 * 60;

/// When hands work: the shop's days and hours, an hour off at noon where the day goes on past it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WorkingWeek {
    /// Monday first.
    pub days: [bool; 7],
    /// In min from midnight.
    pub from_min: i64,
    pub to_min: i64,
}

impl Default for WorkingWeek {
    /// Monday to Friday, eight to five. House.
    fn default() -> Self {
        Self { days: [true, true, true, true, true, false, false], from_min: 8 * 60, to_min: 17 * 60 }
    }
}

impl WorkingWeek {
    /// The same, where it has a day and an hour at all; the ordinary week otherwise.
    #[must_use]
    pub fn or_ordinary(self) -> Self {
        let works = self.days.contains(&true) && self.to_min > self.from_min;
        if works { self } else { Self::default() }
    }

    /// The hours of a day, in min from midnight, without the hour off.
    fn at_work(&self) -> [(i64, i64); 2] {
        const NOON: (i64, i64) = (12 * 60, 13 * 60);
        if self.from_min < NOON.0 && self.to_min > NOON.1 {
            [(self.from_min, NOON.0), (NOON.1, self.to_min)]
        } else {
            [(self.from_min, self.to_min), (self.to_min, self.to_min)]
        }
    }

    /// From closing to opening, in min.
    #[must_use]
    pub fn closed_min(&self) -> f64 {
        (DAY_MIN - (self.to_min - self.from_min)) as f64
    }

    fn works_on(&self, day: i64) -> bool {
        self.days[weekday(day) as usize]
    }

    /// The next minute at which somebody is in the shop, an hour off at noon left aside.
    #[must_use]
    pub fn next_there(&self, min: i64) -> i64 {
        let first = min.div_euclid(DAY_MIN);
        let next = (first..first + DAYS_MOST).filter(|day| self.works_on(*day)).find_map(|day| {
            let at = min.max(day * DAY_MIN + self.from_min);
            (at <= day * DAY_MIN + self.to_min).then_some(at)
        });
        next.unwrap_or(min)
    }

    /// The next minute from which so much can be done without a night in between, an hour off at noon left aside;
    /// the morning of the next day where no day is that long.
    #[must_use]
    pub fn unbroken(&self, from_min: i64, block_min: f64) -> i64 {
        let first = from_min.div_euclid(DAY_MIN);
        let next = (first..first + DAYS_MOST).filter(|day| self.works_on(*day)).find_map(|day| {
            let (opens, closes) = (day * DAY_MIN + self.from_min, day * DAY_MIN + self.to_min);
            let at = from_min.max(opens);
            let whole_day = at == opens && block_min > (closes - opens) as f64;
            (at < closes && (whole_day || at as f64 + block_min <= closes as f64)).then_some(at)
        });
        next.unwrap_or(from_min)
    }
}

/// Ours: a repair that takes longer than this is not reckoned to the day.
const DAYS_MOST: i64 = 3_650;

/// Day 0 of the count was a Thursday; 0 for Monday.
fn weekday(day: i64) -> i64 {
    (day + 3).rem_euclid(7)
}

/// When so many minutes of hands are done that begin at this minute: wall-clock minutes since 1970, of the shop's own
/// zone.
fn worked(week: &WorkingWeek, from_min: f64, hands_min: f64) -> f64 {
    let mut left = hands_min;
    if left <= 0.0 {
        return from_min;
    }
    let first = (from_min / DAY_MIN as f64).floor() as i64;
    for day in first..first + DAYS_MOST {
        if !week.works_on(day) {
            continue;
        }
        for (begins, ends) in week.at_work() {
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

/// When all of it is done and somebody is there to take it, begun now: hands in the shop's hours, the rest by the
/// clock, one after the other. In wall-clock minutes since 1970 of the shop's own zone, both ways.
///
/// # Source
/// House.
#[must_use]
pub fn ready_min(now_min: i64, steps: &[Step], week: &WorkingWeek) -> i64 {
    let done = steps
        .iter()
        .fold(now_min as f64, |at, step| worked(week, at, step.attended_min) + step.unattended_min);
    // What ends by itself in the night is found in the morning.
    if steps.is_empty() { now_min } else { week.next_there(done.ceil() as i64) }
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
    #[case::the_clock_does_not_stop(monday(16), &[step(60.0, 16.0 * 60.0)], monday(24 + 9))]
    #[case::nobody_is_there_at_night(monday(16), &[step(60.0, 10.0 * 60.0)], monday(24 + 8))]
    #[case::nor_on_a_saturday(monday(4 * 24 + 15), &[step(60.0, 24.0 * 60.0)], monday(7 * 24 + 8))]
    #[case::at_the_end_of_the_day(monday(9), &[step(0.0, 8.0 * 60.0)], monday(17))]
    #[case::a_minute_too_late(monday(9), &[step(0.0, 8.0 * 60.0 + 1.0)], monday(24 + 8))]
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
        assert_eq!(ready_min(now, steps, &WorkingWeek::default()), ready);
    }

    #[rstest]
    // Saturday is a working day here, six to two, without an hour off after noon
    #[case::into_saturday(monday(4 * 24 + 13), &[step(120.0, 0.0)], monday(5 * 24 + 7))]
    #[case::over_the_hour_off(monday(11), &[step(120.0, 0.0)], monday(14))]
    fn a_shop_has_days_and_hours_of_its_own(#[case] now: i64, #[case] steps: &[Step], #[case] ready: i64) {
        let mut days = [true; 7];
        days[6] = false;
        let week = WorkingWeek { days, from_min: 6 * 60, to_min: 14 * 60 };
        assert_eq!(ready_min(now, steps, &week), ready);
    }

    #[rstest]
    #[case::fits_today(monday(9), 240.0, monday(9))]
    #[case::not_today_any_more(monday(14), 240.0, monday(24 + 8))]
    #[case::over_the_weekend(monday(4 * 24 + 14), 240.0, monday(7 * 24 + 8))]
    #[case::longer_than_any_day(monday(9), 900.0, monday(24 + 8))]
    #[case::before_the_day(monday(5), 60.0, monday(8))]
    fn what_is_not_broken_off_begins_where_it_fits(#[case] now: i64, #[case] block: f64, #[case] at: i64) {
        assert_eq!(WorkingWeek::default().unbroken(now, block), at);
    }

    #[test]
    fn what_was_timed_moves_the_book_by_a_fifth_at_first() {
        let timed = |step: &str, took: f64| TimedStep::of(Uuid::nil(), step, took, 10.0).unwrap();
        assert_eq!(pace(&[], "clean"), (1.0, 0));
        // Hand-worked: (5 + 2) / 6; of another step nothing
        let (factor, count) = pace(&[timed("clean", 20.0), timed("fill", 40.0)], "clean");
        assert!((factor - 7.0 / 6.0).abs() < 1e-9 && count == 1);
        assert_eq!(TimedStep::of(Uuid::nil(), "clean", 600.0, 10.0), None, "forgotten over dinner");
        assert_eq!(TimedStep::of(Uuid::nil(), "clean", 5.0, 0.0), None);
    }

    #[test]
    fn a_week_without_a_day_is_the_ordinary_one() {
        let none = WorkingWeek { days: [false; 7], ..WorkingWeek::default() };
        assert_eq!(none.or_ordinary(), WorkingWeek::default());
        let backwards = WorkingWeek { from_min: 600, to_min: 600, ..WorkingWeek::default() };
        assert_eq!(backwards.or_ordinary(), WorkingWeek::default());
    }

    proptest::proptest! {
        #[test]
        fn more_to_do_is_never_ready_sooner(
            now in 0i64..1_000_000, hands in 0.0..3_000.0f64, clock in 0.0..3_000.0f64, more in 0.0..500.0f64
        ) {
            let week = WorkingWeek::default();
            let one = ready_min(now, &[step(hands, clock)], &week);
            proptest::prop_assert!(one >= now);
            proptest::prop_assert!(ready_min(now, &[step(hands + more, clock)], &week) >= one);
            proptest::prop_assert!(ready_min(now, &[step(hands, clock + more)], &week) >= one);
        }
    }
}
