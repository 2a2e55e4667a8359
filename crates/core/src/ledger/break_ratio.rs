//! How strong a joint is against whole iron, by coupons that were broken.

use serde::Serialize;
use statrs::distribution::{ContinuousCDF, StudentsT};

/// Repaired against whole, with its 80 % interval.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BreakRatio {
    pub ratio: f64,
    pub low: f64,
    pub high: f64,
    /// Of one of the two there are fewer than three: its scatter is a guess, and the band is wide.
    pub few: bool,
}

/// House: fewer than this say nothing of their own scatter.
const ENOUGH: usize = 3;
/// House: the deviation of the logarithm that is taken for these, and the freedom with them.
const GUESSED_SD: f64 = 0.15;
const GUESSED_FREEDOM: f64 = 4.0;

/// One group on the logarithms: mean, square of its standard error, and how many.
struct Group {
    mean: f64,
    error2: f64,
    count: f64,
}

impl Group {
    fn of(mpa: &[f64]) -> Option<Self> {
        if mpa.is_empty() || mpa.iter().any(|stress| *stress <= 0.0) {
            return None;
        }
        let count = mpa.len() as f64;
        let logs: Vec<f64> = mpa.iter().map(|stress| stress.ln()).collect();
        let mean = logs.iter().sum::<f64>() / count;
        let variance = if mpa.len() < ENOUGH {
            GUESSED_SD * GUESSED_SD
        } else {
            logs.iter().map(|log| (log - mean).powi(2)).sum::<f64>() / (count - 1.0)
        };
        Some(Self { mean, error2: variance / count, count })
    }

    fn over_freedom(&self) -> f64 {
        self.error2 * self.error2 / (self.count - 1.0)
    }
}

/// Ratio of the geometric means; nothing for an empty group or a stress that is none.
///
/// # Source
/// Welch's interval on the logarithms, degrees of freedom by Welch and Satterthwaite (law); the scatter of few is house.
#[must_use]
pub fn break_ratio(repaired_mpa: &[f64], whole_mpa: &[f64]) -> Option<BreakRatio> {
    let (repaired, whole) = (Group::of(repaired_mpa)?, Group::of(whole_mpa)?);
    let few = repaired_mpa.len() < ENOUGH || whole_mpa.len() < ENOUGH;
    let error2 = repaired.error2 + whole.error2;
    let ratio = (repaired.mean - whole.mean).exp();
    if error2 == 0.0 {
        return Some(BreakRatio { ratio, low: ratio, high: ratio, few });
    }
    let freedom = if few {
        GUESSED_FREEDOM
    } else {
        error2 * error2 / (repaired.over_freedom() + whole.over_freedom())
    };
    let t = StudentsT::new(0.0, 1.0, freedom).ok()?.inverse_cdf(0.9);
    let stretch = (t * error2.sqrt()).exp();
    Some(BreakRatio { ratio, low: ratio / stretch, high: ratio * stretch, few })
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    // Published: the trade reference, examples of break-ratio
    #[case::enough(&[182.0, 171.0, 190.0, 176.0], &[205.0, 214.0, 198.0], (0.8738, 0.8333, 0.9161))]
    #[case::two_repaired(&[114.6, 104.8], &[131.0, 140.0, 126.0, 133.0], (0.8277, 0.7011, 0.9772))]
    fn a_ratio_has_the_interval_that_is_published(
        #[case] repaired: &[f64],
        #[case] whole: &[f64],
        #[case] (ratio, low, high): (f64, f64, f64),
    ) {
        let found = break_ratio(repaired, whole).unwrap();
        let near = |got: f64, expected: f64| assert!((got - expected).abs() < 0.002, "{got} {expected}");
        near(found.ratio, ratio);
        near(found.low, low);
        near(found.high, high);
        assert_eq!(found.few, repaired.len() < 3);
    }

    #[test]
    fn what_breaks_all_alike_has_no_band_and_nothing_has_no_ratio() {
        let alike = break_ratio(&[100.0; 3], &[200.0; 3]).unwrap();
        assert!((alike.ratio - 0.5).abs() < 1e-12 && alike.low == alike.high);
        assert_eq!(break_ratio(&[], &[1.0]), None);
        assert_eq!(break_ratio(&[0.0], &[1.0]), None);
    }
}
