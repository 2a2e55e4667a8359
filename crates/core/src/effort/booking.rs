//! Sessions of several jobs, on one pair of hands.

use super::durations::WorkingWeek;

/// A job that asks for hands: its sessions as it alone would have them, from one wall-clock minute since 1970 of the
/// shop's own zone to another, the first first.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct AsksForHands {
    pub sessions: Vec<(i64, i64)>,
    /// The day it is wanted, by its number; nothing while none is said.
    pub wanted: Option<i64>,
}

/// A session as it is booked.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Booked {
    pub begins: i64,
    pub ends: i64,
    /// The job, by its place, whose session it waits for; nothing where the hands are free.
    pub after: Option<usize>,
}

/// Books each session once, none while another lasts, each in one go within the shop's hours and none before now. What is
/// wanted first is booked first, then what can begin first. Between two of a job lies at least what it alone has there.
///
/// # Source
/// House.
#[must_use]
pub fn booked(asked: &[AsksForHands], now_min: i64, week: &WorkingWeek) -> Vec<Vec<Booked>> {
    let mut order: Vec<usize> = (0..asked.len()).collect();
    let first = |it: &AsksForHands| it.sessions.first().map_or(i64::MAX, |(begins, _)| *begins);
    order.sort_by_key(|at| (asked[*at].wanted.unwrap_or(i64::MAX), first(&asked[*at]), *at));
    let mut taken: Vec<(i64, i64, usize)> = Vec::new();
    let mut all = vec![Vec::new(); asked.len()];
    for job in order {
        let mut before: Option<(i64, i64)> = None;
        for &(begins, ends) in &asked[job].sessions {
            // As long after the session before it as it alone would be.
            let from = before.map_or(now_min, |(planned, booked)| booked + (begins - planned));
            let session = place(&taken, (from.max(begins), ends - begins), week);
            before = Some((ends, session.ends));
            taken.push((session.begins, session.ends, job));
            all[job].push(session);
        }
    }
    all
}

/// The first time from a minute on at which the hands are free for so long.
fn place(taken: &[(i64, i64, usize)], (from, lasts): (i64, i64), week: &WorkingWeek) -> Booked {
    let mut begins = week.unbroken(from, lasts as f64);
    let mut after = None;
    let in_the_way = |begins: i64| {
        let overlaps = |it: &&(i64, i64, usize)| it.0 < begins + lasts && begins < it.1;
        taken.iter().filter(overlaps).max_by_key(|it| it.1).copied()
    };
    while let Some((_, ends, job)) = in_the_way(begins) {
        (begins, after) = (week.unbroken(ends, lasts as f64), Some(job));
    }
    Booked { begins, ends: begins + lasts, after }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    /// Monday the 30th of November 2026, 0:00.
    const MONDAY: i64 = 20_787 * 1_440;

    fn at(day: i64, hour: i64) -> i64 {
        MONDAY + day * 1_440 + hour * 60
    }

    fn job(wanted: Option<i64>, sessions: &[(i64, i64)]) -> AsksForHands {
        AsksForHands { wanted, sessions: sessions.to_vec() }
    }

    #[test]
    fn two_that_want_the_same_morning_come_one_after_the_other_and_what_is_wanted_first_is_first() {
        let both = [job(None, &[(at(0, 8), at(0, 11))]), job(Some(20_789), &[(at(0, 8), at(0, 12))])];
        let found = booked(&both, at(0, 7), &WorkingWeek::default());
        assert_eq!(found[1], [Booked { begins: at(0, 8), ends: at(0, 12), after: None }]);
        // Three hours from noon on end before five.
        assert_eq!(found[0], [Booked { begins: at(0, 12), ends: at(0, 15), after: Some(1) }]);
    }

    #[test]
    fn what_does_not_fit_before_evening_waits_for_the_next_morning_and_what_follows_it_too() {
        let long = job(Some(20_788), &[(at(0, 8), at(0, 14))]);
        // Cooled over night between its two.
        let two = job(None, &[(at(0, 8), at(0, 12)), (at(1, 8), at(1, 12))]);
        let found = booked(&[two, long], at(0, 7), &WorkingWeek::default());
        // By hand: four hours from 14:00 end at 18:00, so Tuesday 8:00; twenty hours after its end is Wednesday 8:00.
        let begins: Vec<i64> = found[0].iter().map(|it| it.begins).collect();
        assert_eq!(begins, [at(1, 8), at(2, 8)]);
    }

    #[test]
    fn over_a_weekend_nobody_works_and_what_was_planned_for_yesterday_is_planned_for_today() {
        let friday = [job(None, &[(at(4, 15), at(4, 16))]), job(None, &[(at(4, 15), at(4, 16) + 30)])];
        let found = booked(&friday, at(4, 15) + 30, &WorkingWeek::default());
        assert_eq!((found[0][0].begins, found[0][0].ends), (at(4, 15) + 30, at(4, 16) + 30));
        assert_eq!(found[1][0].begins, at(7, 8), "not by five any more: Monday");
    }

    proptest! {
        #[test]
        fn no_two_ever_share_the_hands(
            asked in prop::collection::vec(
                (prop::option::of(20_787..20_800i64), 0..6_000i64, 30..500i64, 0..2_000i64, 30..300i64), 0..8
            )
        ) {
            let week = WorkingWeek::default();
            let of = |(wanted, from, lasts, gap, then): (Option<i64>, i64, i64, i64, i64)| {
                let (from, ends) = (MONDAY + from, MONDAY + from + lasts);
                job(wanted, &[(from, ends), (ends + gap, ends + gap + then)])
            };
            let asked: Vec<AsksForHands> = asked.into_iter().map(of).collect();
            let found = booked(&asked, MONDAY, &week);
            let all: Vec<Booked> = found.iter().flatten().copied().collect();
            for (at, one) in all.iter().enumerate() {
                prop_assert_eq!(week.unbroken(one.begins, (one.ends - one.begins) as f64), one.begins);
                for other in &all[at + 1..] {
                    prop_assert!(one.ends <= other.begins || other.ends <= one.begins);
                }
            }
            for (job, booked) in asked.iter().zip(&found) {
                let gap = |of: [(i64, i64); 2]| of[1].0 - of[0].1;
                let own = [job.sessions[0], job.sessions[1]];
                let as_booked = [(booked[0].begins, booked[0].ends), (booked[1].begins, booked[1].ends)];
                prop_assert!(gap(as_booked) >= gap(own) && booked[0].begins >= job.sessions[0].0);
            }
        }
    }
}
