//! How honest the odds were, and how well they ranked.

use serde::Serialize;
use statrs::distribution::{Beta, ContinuousCDF};

use super::held::outcome;
use super::{Calibration, WithOutcome, calibration};
use crate::method::{OwnRepair, for_days};

/// Odds against what came of them.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Honest {
    pub scores: Calibration,
    /// The tenths of `scores`, with the 80 % interval of each share.
    pub tenths: Vec<TenthHeld>,
    pub words: String,
}

#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TenthHeld {
    pub mean_p: f64,
    pub share: f64,
    pub low: f64,
    pub high: f64,
    pub n: u32,
}

/// 80 % of a share of which so many of `n` were so, of a flat start.
pub(super) fn interval(n: f64, y: f64) -> (f64, f64) {
    Beta::new(y + 1.0, n - y + 1.0).map_or((0.0, 1.0), |beta| (beta.inverse_cdf(0.1), beta.inverse_cdf(0.9)))
}

/// House: under so many outcomes only the marks are shown.
const JUDGED_FROM: usize = 10;

pub(super) fn honest(repairs: &[&OwnRepair]) -> Option<Honest> {
    let known = |it: &&OwnRepair| {
        let y = outcome(it)?;
        // For the days it was followed.
        Some(WithOutcome { p: for_days(it.handed.or(it.given)?, it.days.max(1.0), &[]), y })
    };
    let outcomes: Vec<WithOutcome> = repairs.iter().filter_map(known).collect();
    if outcomes.len() < JUDGED_FROM {
        return None;
    }
    let scores = calibration(&outcomes)?;
    let tenths = scores.bins.iter().map(|tenth| {
        let (n, y) = (f64::from(tenth.n), f64::from(tenth.n) * tenth.share);
        let (low, high) = interval(n, y);
        TenthHeld { mean_p: tenth.mean_p, share: tenth.share, low, high, n: tenth.n }
    });
    let ranked = match scores.ranking {
        Some(share) if share >= 0.6 => {
            format!(
                "Of one that held and one that failed, the first had been given more {:.0} times of 100.",
                share * 100.0
            )
        }
        Some(share) => format!(
            "They do not tell yet which will fail: the one that held had been given more only {:.0} times of 100.",
            share * 100.0
        ),
        None => "All came to the same: nothing can be told apart.".to_owned(),
    };
    let better = match scores.skill {
        Some(skill) if skill > 0.0 => " They say more than always giving the share that held.",
        Some(_) => " Always giving the share that held would have said as much.",
        None => "",
    };
    Some(Honest { tenths: tenths.collect(), words: format!("{ranked}{better}"), scores })
}
