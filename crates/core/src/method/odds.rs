//! How likely a repair of this kind is to hold.

use serde::Serialize;
use statrs::distribution::{Beta, ContinuousCDF};

use super::{MethodId, School, Start, Variant};

/// Chance that the repair holds for a year of its ordinary use, with its 80 % interval.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Odds {
    pub mean: f64,
    pub low: f64,
    pub high: f64,
    /// The shop's own repairs behind it.
    pub jobs: u32,
    /// Successes and failures of the prior. House.
    pub prior: (f64, f64),
}

/// What a row of pins has to stand. House.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[serde(rename_all = "snake_case")]
pub enum StitchKind {
    /// Pins that draw in, a wall of 10 mm or more.
    DrawIn,
    /// A wall of 8 to 10 mm, or thinner and carrying nothing.
    Between,
    /// Plain threaded pins.
    Plain,
    /// A wall under 8 mm that carries or is tight, or any wall over 300 degC.
    ThinLoadedOrHot,
}

impl StitchKind {
    /// Under this in mm a wall is thin for pins, and from this on it is thick.
    const THIN_MM: f64 = 8.0;
    const THICK_MM: f64 = 10.0;
    /// Over this in degC pins loosen in any wall.
    const HOT_C: f64 = 300.0;

    /// What is not known counts as the worse of two.
    #[must_use]
    pub fn of(wall_mm: Option<f64>, loaded: bool, service_c: Option<f64>, draw_in: bool) -> Self {
        let thin = wall_mm.is_some_and(|wall| wall < Self::THIN_MM);
        if (thin && loaded) || service_c.is_some_and(|celsius| celsius > Self::HOT_C) {
            Self::ThinLoadedOrHot
        } else if !draw_in {
            Self::Plain
        } else if wall_mm.is_some_and(|wall| wall >= Self::THICK_MM) {
            Self::DrawIn
        } else {
            Self::Between
        }
    }

    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::DrawIn => "pins that draw in, thick wall",
            Self::Between => "pins that draw in, wall of 8 to 10 mm or carrying nothing",
            Self::Plain => "plain pins, or nobody has said which",
            Self::ThinLoadedOrHot => "thin wall that carries or is tight, or hot in service",
        }
    }

    /// Which of the priors it is, as the reckoner calls it.
    #[must_use]
    pub fn from_variant(variant: &str) -> Option<Self> {
        match variant {
            "" => Some(Self::DrawIn),
            "between" => Some(Self::Between),
            "plain" => Some(Self::Plain),
            "thin_loaded_or_hot" => Some(Self::ThinLoadedOrHot),
            _ => None,
        }
    }

    fn prior(self) -> (f64, f64) {
        match self {
            Self::DrawIn => (8.0, 2.0),
            Self::Between => (7.0, 3.0),
            Self::Plain => (6.0, 4.0),
            Self::ThinLoadedOrHot => (3.0, 7.0),
        }
    }
}

/// Odds of a method: Beta(prior successes + held, prior failures + not held), mean and 10 to 90 %.
pub(super) fn starting_odds(
    method: MethodId,
    variant: Variant,
    (held, failed): (f64, f64),
    jobs: u32,
) -> Odds {
    let school = if variant == Variant::Modest { School::Modest } else { School::WholePart };
    // A school that a method is not done after is as any of it.
    let entry = method.entry();
    let practice = entry.practice(school).unwrap_or(&entry.practices[0]);
    let prior = match (practice.start, variant) {
        (Start::Of(held, failed), _) => (held, failed),
        (Start::ByPins, Variant::Pins(pins)) => pins.prior(),
        (Start::ByPins, _) => StitchKind::DrawIn.prior(),
    };
    let (a, b) = (prior.0 + held, prior.1 + failed);
    let beta = Beta::new(a, b).expect("both shapes are above zero");
    Odds { mean: a / (a + b), low: beta.inverse_cdf(0.1), high: beta.inverse_cdf(0.9), jobs, prior }
}

/// House: no repair is called more likely than this.
const MOST: f64 = 0.97;

/// Odds moved by log-odds that are added: logit p = logit p0 + shift, each end of the interval too.
///
/// # Source
/// House.
#[must_use]
pub fn shifted(odds: Odds, shift: f64) -> Odds {
    let moved = |p: f64| (1.0 / (1.0 + ((1.0 - p) / p) * (-shift).exp())).min(MOST);
    Odds { mean: moved(odds.mean), low: moved(odds.low), high: moved(odds.high), ..odds }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::method::{Outcomes, odds_of};
    use rstest::rstest;

    fn ours(held: u32, failed: u32) -> Outcomes {
        let year = crate::method::HeldFor { days: 365.0, same_iron: true };
        Outcomes { held: vec![year; held as usize], failed_same: failed, ..Outcomes::default() }
    }

    #[rstest]
    // Published: the trade reference, odds at the start
    #[case::just_under_eight(Some(7.9), true, None, true, 0.3)]
    #[case::just_under_eight_not_loaded(Some(7.9), false, None, true, 0.7)]
    #[case::eight(Some(8.0), true, None, true, 0.7)]
    #[case::just_under_ten(Some(9.9), true, None, true, 0.7)]
    #[case::ten(Some(10.0), true, None, true, 0.8)]
    #[case::plain(Some(14.0), true, None, false, 0.6)]
    #[case::just_not_hot(Some(14.0), true, Some(300.0), true, 0.8)]
    #[case::hot(Some(14.0), false, Some(301.0), true, 0.3)]
    #[case::wall_not_known(None, true, None, true, 0.7)]
    fn stitchings_odds_follow_pins_and_wall(
        #[case] wall_mm: Option<f64>,
        #[case] loaded: bool,
        #[case] service_c: Option<f64>,
        #[case] draw_in: bool,
        #[case] expected: f64,
    ) {
        let kind = StitchKind::of(wall_mm, loaded, service_c, draw_in);
        let found = odds_of(MethodId::Stitch, Variant::Pins(kind), &ours(0, 0));
        assert!((found.mean - expected).abs() < 1e-12, "{kind:?}");
    }

    #[test]
    fn the_interval_is_the_priors_own() {
        // Published: the trade reference's worked examples, odds of a torch braze
        let found = odds_of(MethodId::TorchBraze, Variant::Usual, &ours(0, 0));
        assert!((found.mean - 0.8).abs() < 1e-12);
        assert!((found.low - 0.63164).abs() < 0.002 && (found.high - 0.93923).abs() < 0.002);
    }

    #[test]
    fn a_shift_is_added_in_log_odds() {
        // Published: the trade reference's worked examples, a nickel-iron joint moved by -0.5255
        let start = odds_of(MethodId::ArcNickelIron, Variant::Usual, &ours(0, 0));
        let found = shifted(start, -0.5255);
        assert!((found.mean - 0.52337).abs() < 0.002, "{found:?}");
        assert!((found.low - 0.32953).abs() < 0.002 && (found.high - 0.74456).abs() < 0.002);
        assert!((shifted(start, 9.0).mean - 0.97).abs() < 1e-12);
        assert!((shifted(start, 0.0).mean - start.mean).abs() < 1e-12);
    }

    #[test]
    fn own_repairs_move_the_odds_and_narrow_them() {
        let braze = |own| odds_of(MethodId::TorchBraze, Variant::Usual, &own);
        let (none, some) = (braze(ours(0, 0)), braze(ours(9, 1)));
        assert!(some.mean > none.mean && some.high - some.low < none.high - none.low);
    }

    #[test]
    fn a_modest_heat_is_less_likely_to_hold_than_a_whole_one() {
        let of = |variant| odds_of(MethodId::GasIron, variant, &ours(0, 0)).mean;
        assert!((of(Variant::Usual) - 0.8).abs() < 1e-12 && (of(Variant::Modest) - 0.6).abs() < 1e-12);
    }
}
