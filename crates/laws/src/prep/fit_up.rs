//! How the pieces of a full break key together, and what their broken faces tell.

use crate::base::problem::OutOfRange;

/// So much rock in mm over 300 mm, and more, is locked-in stress. House.
pub const ROCK_MOST_MM: f64 = 0.5;

/// Rock in mm brought to a length of 300 mm.
///
/// # Errors
/// [`OutOfRange`] for a length that rocks of no or absurd size, or a rock under nothing.
pub fn rock_over_300_mm(rock_mm: f64, over_mm: f64) -> Result<f64, OutOfRange> {
    OutOfRange::check("a rock", "mm", (0.0, 1_000.0), rock_mm)?;
    OutOfRange::check("the length that rocks", "mm", (1.0, 40_000.0), over_mm)?;
    Ok(rock_mm * 300.0 / over_mm)
}

/// What the share of old, dark fracture says of how it broke.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum BrokenFace {
    /// All bright: one blow.
    AllFresh,
    /// It had been cracked, and less than half of it.
    PartlyOld,
    /// Over half: it had been cracked for long, by fatigue or a standing stress.
    MostlyOld,
}

impl BrokenFace {
    /// # Errors
    /// [`OutOfRange`] for a share outside 0 to 1.
    pub fn of(old_share: f64) -> Result<Self, OutOfRange> {
        OutOfRange::check("a share", "", (0.0, 1.0), old_share)?;
        Ok(match old_share {
            share if share <= 0.0 => Self::AllFresh,
            share if share > 0.5 => Self::MostlyOld,
            _ => Self::PartlyOld,
        })
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    // Hand-worked: 0.4 over 200 is 0.6 over 300
    #[case(0.4, 200.0, 0.6)]
    #[case(0.5, 300.0, 0.5)]
    #[case(0.0, 900.0, 0.0)]
    fn a_rock_is_brought_to_300_mm(#[case] rock: f64, #[case] over: f64, #[case] expected: f64) {
        assert!((rock_over_300_mm(rock, over).unwrap() - expected).abs() < 1e-12);
    }

    #[rstest]
    #[case::over_nothing(0.4, 0.0)]
    #[case::under_nothing(-0.1, 300.0)]
    #[case::not_a_number(f64::NAN, 300.0)]
    fn a_rock_that_cannot_be_is_refused(#[case] rock: f64, #[case] over: f64) {
        assert!(rock_over_300_mm(rock, over).is_err());
    }

    #[rstest]
    #[case(0.0, BrokenFace::AllFresh)]
    #[case(0.01, BrokenFace::PartlyOld)]
    #[case(0.5, BrokenFace::PartlyOld)]
    #[case(0.51, BrokenFace::MostlyOld)]
    #[case(1.0, BrokenFace::MostlyOld)]
    fn a_broken_face_tells_how_it_broke(#[case] share: f64, #[case] expected: BrokenFace) {
        assert_eq!(BrokenFace::of(share), Ok(expected));
        assert!(BrokenFace::of(1.01).is_err());
        assert!(BrokenFace::of(f64::NAN).is_err());
    }
}
