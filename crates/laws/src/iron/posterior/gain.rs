//! What a further test would tell.

use super::super::{Confidence, Evidence, Finding, LookTest};
use super::{confidence_of, softened, update};

/// Expected fall of entropy of each look test not done yet, in bits, best a minute first.
pub(super) fn gains(belief: &[f64; 6], evidence: &[Evidence], open_crack: bool) -> Vec<(LookTest, f64)> {
    let done = |test: &LookTest| evidence.iter().any(|e| e.finding.test_id() == test.id());
    let mut gains: Vec<(LookTest, f64)> = LookTest::ALL
        .into_iter()
        .filter(|test| !done(test))
        // Rounding may leave a test that tells nothing a hair below nothing.
        .map(|test| (test, entropy_fall_bits(belief, test, open_crack).max(0.0)))
        .collect();
    gains.sort_by(|a, b| (b.1 / b.0.minutes()).total_cmp(&(a.1 / a.0.minutes())));
    gains
}

/// What the belief and the outcome have in common: with outcomes that sum to one for every iron, and
/// softened ones still do, it is never negative.
pub(super) fn entropy_fall_bits(belief: &[f64; 6], test: LookTest, open_crack: bool) -> f64 {
    let expected: f64 = test
        .outcomes()
        .iter()
        .map(|outcome| {
            let finding = Finding::Look { test, outcome };
            let weight = confidence_of(&finding, Confidence::Sure, open_crack);
            let likelihood = softened(&outcome.given, weight);
            let chance: f64 = belief.iter().zip(likelihood).map(|(p, l)| p * l).sum();
            chance * entropy_bits(&update(*belief, &likelihood))
        })
        .sum();
    entropy_bits(belief) - expected
}

fn entropy_bits(belief: &[f64; 6]) -> f64 {
    belief.iter().filter(|&&p| p > 0.0).map(|&p| -p * p.log2()).sum()
}
