//! The steps of finishing a place, each with its minutes.

use super::FinishAs;
use super::place::CoatedWith;

/// The crown of a place.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Crown {
    pub cm2: f64,
    pub length_mm: f64,
    /// It comes down in half the time.
    pub bronze: bool,
    /// A file skates on it: twice as long.
    pub hard: bool,
}

/// One step, and how many minutes of hands it takes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum FinishStep {
    CrownDown(f64),
    Even(f64),
    Flat(f64),
    Round(f64),
    Skin(f64),
    EdgesBroken(f64),
}

impl FinishStep {
    #[must_use]
    pub fn minutes(self) -> f64 {
        match self {
            Self::CrownDown(min)
            | Self::Even(min)
            | Self::Flat(min)
            | Self::Round(min)
            | Self::Skin(min)
            | Self::EdgesBroken(min) => min,
        }
    }
}

/// Every step there is for a place, in the order of the work.
///
/// Crown down 0.5 min a cm2 (bronze half, a hard edge twice), even 0.2 a cm2 with each of two grits, flat by file 1 a
/// cm2, round 10 each, skin 2 a 10 cm2, edges broken 1 a 100 mm.
///
/// # Source
/// House.
#[must_use]
pub fn every_step(crown: Crown) -> [FinishStep; 6] {
    let down = 0.5 * crown.cm2 * if crown.bronze { 0.5 } else { 1.0 } * if crown.hard { 2.0 } else { 1.0 };
    [
        FinishStep::CrownDown(down),
        FinishStep::Even(2.0 * 0.2 * crown.cm2),
        FinishStep::Flat(crown.cm2),
        FinishStep::Round(10.0),
        FinishStep::Skin(0.2 * crown.cm2),
        FinishStep::EdgesBroken(crown.length_mm / 100.0),
    ]
}

impl FinishAs {
    /// The step is one of those that usually make it so. House.
    #[must_use]
    pub fn wants(self, step: FinishStep) -> bool {
        use FinishStep::{CrownDown, EdgesBroken, Even, Flat, Round, Skin};
        match step {
            CrownDown(_) | EdgesBroken(_) => self != Self::Leave,
            Even(_) => matches!(self, Self::Flush | Self::Seen),
            Flat(_) => matches!(self, Self::Fits | Self::Seals),
            Round(_) => self == Self::Runs,
            Skin(_) => self == Self::Seen,
        }
    }
}

/// Flux glass and slag off so many cm2: 1 min a 10 cm2.
///
/// # Source
/// House.
#[must_use]
pub fn slag_min(cm2: f64) -> f64 {
    cm2 / 10.0
}

/// What is laid over it, with the minutes of hands and those it dries.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Coat {
    Putty,
    Primer,
    Paint,
    /// Stands heat: the first warm-up is slow, and outside.
    StovePaint,
}

impl Coat {
    /// Minutes of hands, minutes to dry.
    ///
    /// # Source
    /// House.
    #[must_use]
    pub fn minutes(self) -> (f64, f64) {
        match self {
            Self::Putty => (5.0, 30.0),
            Self::Primer => (5.0, 60.0),
            Self::Paint | Self::StovePaint => (5.0, 24.0 * 60.0),
        }
    }
}

/// The coats for what was chosen; putty under them where it is wanted.
#[must_use]
pub fn coats(chosen: CoatedWith, putty: bool) -> Vec<Coat> {
    let mut coats = if putty { vec![Coat::Putty] } else { Vec::new() };
    coats.extend(match chosen {
        CoatedWith::Bare => &[][..],
        CoatedWith::Primer => &[Coat::Primer],
        CoatedWith::Paint => &[Coat::Primer, Coat::Paint],
        // Primer burns under it.
        CoatedWith::Stove => &[Coat::StovePaint],
    });
    coats
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    /// 100 mm of a crown 20 mm wide: 20 cm2.
    fn crown(bronze: bool, hard: bool) -> Crown {
        Crown { cm2: 20.0, length_mm: 100.0, bronze, hard }
    }

    #[rstest]
    // Hand-worked: 20 cm2 x 0.5 = 10, x 0.4 = 8, and 1 for 100 mm of edge
    #[case::flush(FinishAs::Flush, crown(false, false), 19.0)]
    // 2 for each 10 cm2 of skin more
    #[case::seen(FinishAs::Seen, crown(false, false), 23.0)]
    #[case::of_bronze(FinishAs::Flush, crown(true, false), 14.0)]
    #[case::where_the_file_skates(FinishAs::Flush, crown(false, true), 29.0)]
    // 10 down, 20 by file, 1 of edges
    #[case::what_fits(FinishAs::Fits, crown(false, false), 31.0)]
    #[case::what_runs(FinishAs::Runs, crown(false, false), 21.0)]
    #[case::left(FinishAs::Leave, crown(false, false), 0.0)]
    fn the_minutes_of_a_place_are_those_of_its_steps(
        #[case] of: FinishAs,
        #[case] crown: Crown,
        #[case] expected: f64,
    ) {
        let steps = every_step(crown).into_iter().filter(|step| of.wants(*step));
        let minutes: f64 = steps.map(FinishStep::minutes).sum();
        assert!((minutes - expected).abs() < 1e-9, "{minutes}");
    }

    #[rstest]
    #[case(CoatedWith::Bare, false, &[])]
    #[case(CoatedWith::Paint, true, &[Coat::Putty, Coat::Primer, Coat::Paint])]
    #[case(CoatedWith::Stove, false, &[Coat::StovePaint])]
    fn coats_lie_in_their_order(#[case] chosen: CoatedWith, #[case] putty: bool, #[case] expected: &[Coat]) {
        assert_eq!(coats(chosen, putty), expected);
    }
}
