//! How likely a repair of this kind is to hold.

use serde::Serialize;
use statrs::distribution::{Beta, ContinuousCDF};

use super::{MethodId, OddsPart, Outcomes, School, Start, Variant, shift_of};

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
    #[serde(skip)]
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
    /// House: under this in mm a wall is thin for pins.
    const THIN_MM: f64 = 8.0;
    /// House: from this on in mm a wall is thick for pins.
    const THICK_MM: f64 = 10.0;
    /// House: over this in degC pins loosen in any wall.
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

    /// Locks across the crack want a wall to sit in, whatever it carries.
    #[must_use]
    pub fn for_locks(wall_mm: Option<f64>, service_c: Option<f64>) -> Self {
        let hot = service_c.is_some_and(|celsius| celsius > Self::HOT_C);
        match wall_mm {
            Some(wall) if wall < Self::THIN_MM => Self::ThinLoadedOrHot,
            _ if hot => Self::ThinLoadedOrHot,
            Some(wall) if wall >= Self::THICK_MM => Self::DrawIn,
            _ => Self::Between,
        }
    }

    fn with_locks(self) -> (f64, f64) {
        match self {
            Self::DrawIn | Self::Plain => (8.5, 1.5),
            Self::Between => (6.0, 4.0),
            Self::ThinLoadedOrHot => (3.0, 7.0),
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

/// Odds of a method: its prior, and what became of the shop's own repairs weighed with what burdened them.
///
/// p0^(a − 1) (1 − p0)^(b − 1) × Π q^w (held) × Π (1 − q)^w (failed), logit q = logit p0 + the repair's own shift; its
/// mean, and its 10 and 90 % points. With nothing that burdened any of them it is the Beta of counting.
///
/// # Source
/// Bayes' theorem; priors and weights are house.
#[must_use]
pub fn odds_of(method: MethodId, variant: Variant, own: &Outcomes) -> Odds {
    let prior = prior(method, variant);
    let weighed = own.weighed();
    let jobs = own.known.len() as u32;
    if weighed.iter().all(|it| it.shift == 0.0) {
        let held: f64 = weighed.iter().map(|it| it.held).sum();
        let failed: f64 = weighed.iter().map(|it| it.failed).sum();
        let (a, b) = (prior.0 + held, prior.1 + failed);
        let beta = Beta::new(a, b).expect("both shapes are above zero");
        return Odds {
            mean: a / (a + b),
            low: beta.inverse_cdf(0.1),
            high: beta.inverse_cdf(0.9),
            jobs,
            prior,
        };
    }
    /// House: so many points between 0 and 1.
    const POINTS: u32 = 2_000;
    let points: Vec<(f64, f64)> = (0..POINTS)
        .map(|at| (f64::from(at) + 0.5) / f64::from(POINTS))
        .map(|p0| {
            let odds = p0 / (1.0 - p0);
            let own: f64 = weighed.iter().map(|it| it.log_likelihood(odds)).sum();
            (p0, (prior.0 - 1.0) * p0.ln() + (prior.1 - 1.0) * (1.0 - p0).ln() + own)
        })
        .collect();
    let most = points.iter().map(|(_, log)| *log).fold(f64::NEG_INFINITY, f64::max);
    let weights: Vec<(f64, f64)> = points.iter().map(|(p0, log)| (*p0, (log - most).exp())).collect();
    let sum: f64 = weights.iter().map(|(_, weight)| weight).sum();
    let mean = weights.iter().map(|(p0, weight)| p0 * weight).sum::<f64>() / sum;
    Odds { mean, low: point_of(&weights, 0.1 * sum), high: point_of(&weights, 0.9 * sum), jobs, prior }
}

/// Where the weights have come to so much, between two points in a straight line.
fn point_of(weights: &[(f64, f64)], wanted: f64) -> f64 {
    let mut so_far = 0.0;
    let mut before: Option<(f64, f64)> = None;
    for (p0, weight) in weights {
        so_far += weight;
        if so_far >= wanted {
            return before.map_or(*p0, |(p, had)| p + (p0 - p) * (wanted - had) / (so_far - had));
        }
        before = Some((*p0, so_far));
    }
    before.map_or(f64::NAN, |(p, _)| p)
}

/// Held, and not held.
fn prior(method: MethodId, variant: Variant) -> (f64, f64) {
    let school = if variant == Variant::Modest { School::Modest } else { School::WholePart };
    // A school that a method is not done after is as any of it.
    let entry = method.entry();
    let practice = entry.practice(school).unwrap_or(&entry.practices[0]);
    match (practice.start, variant) {
        (Start::Of(held, failed), _) => (held, failed),
        (Start::ByPins, Variant::Pins(pins)) => pins.prior(),
        (Start::ByPins, _) => StitchKind::DrawIn.prior(),
        (Start::ByLocks, Variant::Pins(pins)) => pins.with_locks(),
        (Start::ByLocks, _) => StitchKind::DrawIn.with_locks(),
    }
}

/// House: no repair is called more likely than this.
const MOST: f64 = 0.97;

/// House: a repair that shows an open crack is never called more likely than this.
const MOST_WITH_A_CRACK: f64 = 0.05;
/// The part that says so.
pub(crate) const CRACK_OPEN: &str = "crack_open";

/// Odds moved by log-odds that are added: logit p = logit p0 + shift, each end of the interval too.
fn shifted(odds: Odds, shift: f64, most: f64) -> Odds {
    let moved = |p: f64| (1.0 / (1.0 + ((1.0 - p) / p) * (-shift).exp())).min(most);
    Odds { mean: moved(odds.mean), low: moved(odds.low), high: moved(odds.high), ..odds }
}

/// The most that these parts leave.
fn most(parts: &[OddsPart]) -> f64 {
    if parts.iter().any(|part| part.name == CRACK_OPEN) { MOST_WITH_A_CRACK } else { MOST }
}

/// Odds with what moves them.
///
/// # Source
/// House.
#[must_use]
pub fn odds_with(start: Odds, parts: &[OddsPart]) -> Odds {
    shifted(start, shift_of(parts), most(parts))
}

/// House: most failures come early.
const EARLY: f64 = 0.3;
const YEAR_DAYS: f64 = 365.0;

/// How much of a year's worth such a time is: (days / 365)^0.3.
pub(super) fn of_a_year(days: f64) -> f64 {
    (days.max(0.0) / YEAR_DAYS).powf(EARLY)
}

/// The chance of a year as that of another time in days: p^((days / 365)^0.3), no more than what stands against it
/// leaves.
///
/// # Source
/// House.
#[must_use]
pub fn for_days(p: f64, days: f64, parts: &[OddsPart]) -> f64 {
    p.powf(of_a_year(days)).min(most(parts))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::method::{Became, Outcome, Outcomes};
    use rstest::rstest;

    fn a_year(became: Became, shift: f64) -> Outcome {
        Outcome { became, days: 365.0, same_iron: true, shift }
    }

    fn ours(held: usize, failed: usize) -> Outcomes {
        let held = vec![a_year(Became::Held, 0.0); held];
        Outcomes { known: [held, vec![a_year(Became::Failed, 0.0); failed]].concat() }
    }

    fn moved_by(shift: f64) -> OddsPart {
        OddsPart { name: "any".to_owned(), shift }
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
        let found = odds_with(start, &[moved_by(-0.5), moved_by(-0.0255)]);
        assert!((found.mean - 0.52337).abs() < 0.002, "{found:?}");
        assert!((found.low - 0.32953).abs() < 0.002 && (found.high - 0.74456).abs() < 0.002);
        assert!((odds_with(start, &[moved_by(9.0)]).mean - 0.97).abs() < 1e-12);
        assert!((odds_with(start, &[]).mean - start.mean).abs() < 1e-12);
    }

    #[test]
    fn an_open_crack_leaves_five_of_a_hundred_whatever_else_speaks_for_it() {
        let start = odds_of(MethodId::TorchBraze, Variant::Usual, &ours(9, 0));
        let open = OddsPart { name: CRACK_OPEN.to_owned(), shift: 0.0 };
        let found = odds_with(start, &[open.clone(), moved_by(0.3)]);
        assert_eq!((found.mean, found.low, found.high), (0.05, 0.05, 0.05));
        assert_eq!(for_days(found.mean, 60.0, &[open]), 0.05);
    }

    #[test]
    fn careless_repairs_that_failed_do_not_talk_the_shop_out_of_careful_ones() {
        // Published: the trade reference's worked example of weighed outcomes
        let of = |became, shift| a_year(became, shift);
        let burdened = Outcomes {
            known: vec![
                of(Became::Held, -0.8),
                of(Became::Held, -0.8),
                of(Became::Held, -0.8),
                of(Became::Held, -0.2),
                of(Became::Failed, -0.8),
                of(Became::Failed, -0.2),
            ],
        };
        let found = odds_of(MethodId::ArcNickelIron, Variant::Usual, &burdened);
        assert!((found.mean - 0.70504).abs() < 0.003, "{found:?}");
        assert!((found.low - 0.55918).abs() < 0.003 && (found.high - 0.83817).abs() < 0.003);
        let failed = |shift| Outcomes { known: vec![a_year(Became::Failed, shift)] };
        let after = |own: &Outcomes| odds_of(MethodId::TorchBraze, Variant::Usual, own).mean;
        assert!(after(&failed(-1.5)) > after(&failed(0.0)));
    }

    #[test]
    fn what_is_weighed_without_a_burden_is_what_counting_gives() {
        let counted = odds_of(MethodId::TorchBraze, Variant::Usual, &ours(4, 1));
        let hardly = Outcomes {
            known: ours(4, 1).known.into_iter().map(|it| Outcome { shift: 1e-6, ..it }).collect(),
        };
        let weighed = odds_of(MethodId::TorchBraze, Variant::Usual, &hardly);
        assert!((counted.mean - weighed.mean).abs() < 1e-4);
        assert!((counted.low - weighed.low).abs() < 1e-3 && (counted.high - weighed.high).abs() < 1e-3);
    }

    #[rstest]
    #[case::thin(Some(7.9), None, 0.3)]
    #[case::between(Some(8.0), None, 0.6)]
    #[case::thick(Some(10.0), None, 0.85)]
    #[case::thick_and_hot(Some(10.0), Some(301.0), 0.3)]
    #[case::not_known(None, None, 0.6)]
    fn locks_follow_the_wall(
        #[case] wall_mm: Option<f64>,
        #[case] service_c: Option<f64>,
        #[case] expected: f64,
    ) {
        let variant = Variant::Pins(StitchKind::for_locks(wall_mm, service_c));
        let found = odds_of(MethodId::StitchLocks, variant, &ours(0, 0));
        assert!((found.mean - expected).abs() < 1e-12, "{found:?}");
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
        assert!((of(Variant::Usual) - 0.8).abs() < 1e-12 && (of(Variant::Modest) - 0.65).abs() < 1e-12);
    }
}
