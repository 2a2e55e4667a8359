//! How likely a repair of this kind is to hold.

use serde::{Deserialize, Serialize};
use statrs::distribution::{Beta, ContinuousCDF};

use super::MethodId;

/// Chance that the repair holds at the follow-up, with its 80 % interval.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
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

/// Odds of a method: Beta(prior successes + held, prior failures + not held), mean and 10 to 90 %.
/// `wholly_heated` counts for gas fusion alone.
///
/// # Source
/// Bayes' theorem; the priors are house.
#[must_use]
pub fn odds(method: MethodId, wholly_heated: bool, held: u32, failed: u32) -> Odds {
    let prior = match method {
        MethodId::TorchBraze => (8.0, 2.0),
        MethodId::ArcNickel | MethodId::ArcNickelIron => (6.5, 3.5),
        MethodId::GasIron if wholly_heated => (8.0, 2.0),
        MethodId::GasIron => (3.0, 7.0),
        MethodId::Stitch => (9.0, 1.0),
    };
    let (a, b) = (prior.0 + f64::from(held), prior.1 + f64::from(failed));
    let beta = Beta::new(a, b).expect("both shapes are above zero");
    Odds {
        mean: a / (a + b),
        low: beta.inverse_cdf(0.1),
        high: beta.inverse_cdf(0.9),
        jobs: held + failed,
        prior,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn stitching_with_no_repairs_of_ours_has_the_prior_interval() {
        let found = odds(MethodId::Stitch, true, 0, 0);
        // Hand-worked: Beta(9, 1) has the distribution function x^9: 0.1^(1/9), 0.9^(1/9)
        assert!((found.mean - 0.9).abs() < 1e-12);
        assert!((found.low - 0.1_f64.powf(1.0 / 9.0)).abs() < 1e-6);
        assert!((found.high - 0.9_f64.powf(1.0 / 9.0)).abs() < 1e-6);
    }

    #[test]
    fn own_repairs_move_the_odds_and_narrow_them() {
        let (none, some) = (odds(MethodId::TorchBraze, true, 0, 0), odds(MethodId::TorchBraze, true, 9, 1));
        assert!(some.mean > none.mean && some.high - some.low < none.high - none.low);
    }
}
