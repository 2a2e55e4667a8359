//! Work that takes longer than a day under the hood: how many sessions, and which beads in each.

use serde::Serialize;

/// One session: its beads, from 1, and its minutes of hands.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Session {
    pub from: u32,
    pub to: u32,
    pub minutes: f64,
}

/// What is to be parted into sessions.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Parting {
    pub beads: u32,
    /// Hands for all of them together, their waits among it.
    pub bead_min: f64,
    /// Hands at the heat before the first bead, and before the first of each later session: as many, or none where it
    /// is held over night.
    pub heat_up_min: f64,
    pub heat_up_again_min: f64,
    /// A day under the hood.
    pub day_min: f64,
    /// Once begun it is finished: gas fusion of the whole part, a hot braze.
    pub never_split: bool,
}

/// The least number of sessions whose time holds all beads, the heating counted in each. A job of one session stays
/// one; what is never split is one however long.
///
/// # Source
/// House.
#[must_use]
pub fn sessions(of: &Parting) -> Vec<Session> {
    let Parting { beads, bead_min, heat_up_min, heat_up_again_min, day_min, never_split } = *of;
    let whole = Session { from: 1.min(beads), to: beads, minutes: heat_up_min + bead_min };
    if beads == 0 || never_split || whole.minutes <= day_min {
        return vec![whole];
    }
    let each = bead_min / f64::from(beads);
    // A day that the heating fills still lays one bead.
    let in_a_day = |heat_min: f64| (((day_min - heat_min) / each).floor() as u32).max(1);
    let (first, later) = (in_a_day(heat_up_min), in_a_day(heat_up_again_min));
    let count = 1 + beads.saturating_sub(first).div_ceil(later);
    // Evenly over the days, their heating counted: none is left with a handful.
    let mut from = 1;
    (0..count)
        .map(|at| {
            let (left, sessions) = (beads - (from - 1), f64::from(count - at));
            let (heat_min, most) = if at == 0 { (heat_up_min, first) } else { (heat_up_again_min, later) };
            let all_min = heat_min + (sessions - 1.0) * heat_up_again_min + f64::from(left) * each;
            // What is a whole bead by a hair is not one more.
            let share = ((all_min / sessions - heat_min) / each - 1e-9).ceil().max(1.0) as u32;
            let others = later.saturating_mul(count - at - 1);
            let here = share.min(most).max(left.saturating_sub(others)).min(left);
            let session = Session { from, to: from + here - 1, minutes: heat_min + f64::from(here) * each };
            from += here;
            session
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    fn parting(beads: u32, bead_min: f64, heat_up_min: f64) -> Parting {
        let heat_up_again_min = heat_up_min;
        Parting { beads, bead_min, heat_up_min, heat_up_again_min, day_min: 300.0, never_split: false }
    }

    /// Held over night: it is heated up once.
    fn held(of: Parting) -> Parting {
        Parting { heat_up_again_min: 0.0, ..of }
    }

    #[rstest]
    // Hand-worked: 240 + 60 is just a day; 241 + 60 is more: 240 min of beads a day, 80 of 3 min; 81 in two
    #[case::just_a_day(parting(80, 240.0, 60.0), &[(1, 80)])]
    #[case::one_bead_more(parting(81, 243.0, 60.0), &[(1, 41), (42, 81)])]
    // 300 beads of 3 min without heating: 100 a day
    #[case::three_days(parting(300, 900.0, 0.0), &[(1, 100), (101, 200), (201, 300)])]
    // 60 + 81 x 3 in two: 303 / 2 = 151.5, less 60 of heating is 30.5 beads: 31, then 50
    #[case::held_over_night(held(parting(81, 243.0, 60.0)), &[(1, 31), (32, 81)])]
    // 160 beads of 3 min: three days of 80 with 60 of heating each; 80 + 100 held in two: 540 / 2 - 60 = 210 min, 70
    #[case::a_night_that_saves_a_day(held(parting(160, 480.0, 60.0)), &[(1, 70), (71, 160)])]
    #[case::nothing_to_lay(parting(0, 0.0, 30.0), &[(0, 0)])]
    #[case::never_split(Parting { never_split: true, ..parting(300, 900.0, 60.0) }, &[(1, 300)])]
    #[case::a_day_that_the_heating_fills(parting(3, 30.0, 400.0), &[(1, 1), (2, 2), (3, 3)])]
    fn beads_are_laid_in_the_fewest_days(#[case] of: Parting, #[case] expected: &[(u32, u32)]) {
        let found: Vec<(u32, u32)> = sessions(&of).iter().map(|it| (it.from, it.to)).collect();
        assert_eq!(found, expected);
    }

    proptest::proptest! {
        #[test]
        fn every_bead_is_laid_once(
            beads in 1u32..2_000,
            each in 0.5..10.0f64,
            heat in 0.0..290.0f64,
            kept in proptest::bool::ANY,
        ) {
            let of = parting(beads, each * f64::from(beads), heat);
            let of = if kept { held(of) } else { of };
            let found = sessions(&of);
            let mut next = 1;
            for session in &found {
                proptest::prop_assert_eq!(session.from, next);
                proptest::prop_assert!(session.to >= session.from);
                proptest::prop_assert!(session.minutes <= of.day_min.max(heat + each) + 1e-6);
                next = session.to + 1;
            }
            proptest::prop_assert_eq!(next, beads + 1);
        }
    }
}
