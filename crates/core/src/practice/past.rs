//! One's own practices over time, honest about few.

use serde::Serialize;

/// One that is over.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Past {
    /// Of a hundred such repairs so many hold: 0 to 1.
    pub odds: f64,
    pub holds: bool,
}

/// How it goes.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Curve {
    /// Each that is over, the first first.
    pub past: Vec<Past>,
    /// Mean of the odds of each and of those before it, five at most.
    pub mean: Vec<f64>,
    pub words: String,
}

/// House: of fewer nothing is said but the dots.
const FEW: usize = 10;
/// The mean goes over so many.
const OVER: usize = 5;

/// The curve of one's own odds.
#[must_use]
pub fn curve(past: Vec<Past>) -> Curve {
    let mean_of = |of: &[Past]| of.iter().map(|it| it.odds).sum::<f64>() / of.len() as f64;
    let mean = (0..past.len()).map(|at| mean_of(&past[(at + 1).saturating_sub(OVER)..=at])).collect();
    let held = past.iter().filter(|it| it.holds).count();
    let words = match past.len() {
        0 => "None is over yet.".to_owned(),
        few @ 1..FEW => {
            let cases = if few == 1 { "case" } else { "cases" };
            format!("{few} {cases}, {held} held: too few to say whether it gets better.")
        }
        all => {
            let (first, last) = past.split_at(all / 2);
            let (first_mean, last_mean) = (mean_of(first), mean_of(last));
            let noise = spread(first).hypot(spread(last));
            let of_100 = |p: f64| format!("{:.0} of 100", p * 100.0);
            let moved =
                format!("the first half at {}, the second at {}", of_100(first_mean), of_100(last_mean));
            // House: a difference that chance makes one time in five is none.
            let verdict = if (last_mean - first_mean).abs() < 1.28 * noise {
                "that may be chance"
            } else if last_mean > first_mean {
                "it gets better"
            } else {
                "it gets worse"
            };
            format!("{all} cases, {held} held; {moved}: {verdict}.")
        }
    };
    Curve { past, mean, words }
}

/// Standard error of the mean of the odds.
fn spread(of: &[Past]) -> f64 {
    let n = of.len() as f64;
    let mean = of.iter().map(|it| it.odds).sum::<f64>() / n;
    let squares: f64 = of.iter().map(|it| (it.odds - mean).powi(2)).sum();
    (squares / (n - 1.0).max(1.0) / n).sqrt()
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    fn past(odds: &[f64]) -> Vec<Past> {
        odds.iter().map(|odds| Past { odds: *odds, holds: *odds > 0.5 }).collect()
    }

    #[rstest]
    #[case::none(&[], "None is over yet.")]
    #[case::one(&[0.7], "1 case, 1 held: too few to say whether it gets better.")]
    #[case::nine(&[0.4; 9], "9 cases, 0 held: too few to say whether it gets better.")]
    #[case::better(&[0.2, 0.3, 0.2, 0.3, 0.2, 0.7, 0.8, 0.7, 0.8, 0.7],
        "10 cases, 5 held; the first half at 24 of 100, the second at 74 of 100: it gets better.")]
    #[case::worse(&[0.7, 0.8, 0.7, 0.8, 0.7, 0.2, 0.3, 0.2, 0.3, 0.2],
        "10 cases, 5 held; the first half at 74 of 100, the second at 24 of 100: it gets worse.")]
    #[case::chance(&[0.2, 0.8, 0.2, 0.8, 0.2, 0.8, 0.2, 0.8, 0.2, 0.8],
        "10 cases, 5 held; the first half at 44 of 100, the second at 56 of 100: that may be chance.")]
    fn it_is_said_how_it_goes_and_not_of_few(#[case] odds: &[f64], #[case] words: &str) {
        assert_eq!(curve(past(odds)).words, words);
    }

    #[test]
    fn the_mean_goes_over_five() {
        let curve = curve(past(&[0.0, 0.5, 1.0, 0.5, 0.5, 1.0]));
        let expected = [0.0, 0.25, 0.5, 0.5, 0.5, 0.7];
        assert!(curve.mean.iter().zip(expected).all(|(a, b)| (a - b).abs() < 1e-12), "{:?}", curve.mean);
    }
}
