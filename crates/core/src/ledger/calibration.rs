//! How honest the odds were that were given, and how well they ranked.

use serde::Serialize;

/// A repair with what was said of it, and what became of it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WithOutcome {
    /// Odds at hand-over, for the days it was followed.
    pub p: f64,
    /// 1 it holds, 0.5 with a fault, 0 it failed.
    pub y: f64,
}

/// Odds against what became of them.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Calibration {
    /// Mean of (p − y)².
    pub brier: f64,
    /// The same of always saying the share that held.
    pub base_brier: f64,
    /// 1 − Brier / that; nothing where all came to the same.
    pub skill: Option<f64>,
    /// Of all pairs of one that held and one that failed: the share in which the first had been given more, ties half.
    /// Nothing where there is no such pair.
    pub ranking: Option<f64>,
    /// Tenths that hold something.
    pub bins: Vec<Tenth>,
}

/// Repairs that were given much the same odds.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Tenth {
    pub from: f64,
    pub n: u32,
    pub mean_p: f64,
    pub share: f64,
}

/// How honest and how useful these odds were; nothing for none.
///
/// # Source
/// Brier's score and the rank statistic of two samples (law).
#[must_use]
pub fn calibration(outcomes: &[WithOutcome]) -> Option<Calibration> {
    let mean = |of: &[WithOutcome], what: fn(&WithOutcome) -> f64| {
        of.iter().map(what).sum::<f64>() / of.len() as f64
    };
    if outcomes.is_empty() {
        return None;
    }
    let held = mean(outcomes, |it| it.y);
    let brier = mean(outcomes, |it| (it.p - it.y).powi(2));
    let base_brier = outcomes.iter().map(|it| (held - it.y).powi(2)).sum::<f64>() / outcomes.len() as f64;
    Some(Calibration {
        brier,
        base_brier,
        skill: (base_brier > 0.0).then(|| 1.0 - brier / base_brier),
        ranking: ranking(outcomes),
        bins: (0..10)
            .filter_map(|tenth| {
                let of: Vec<WithOutcome> =
                    outcomes.iter().copied().filter(|it| tenth_of(it.p) == tenth).collect();
                (!of.is_empty()).then(|| Tenth {
                    from: f64::from(tenth) / 10.0,
                    n: of.len() as u32,
                    mean_p: mean(&of, |it| it.p),
                    share: mean(&of, |it| it.y),
                })
            })
            .collect(),
    })
}

fn tenth_of(p: f64) -> u32 {
    ((10.0 * p + 1e-9).floor() as u32).min(9)
}

fn ranking(outcomes: &[WithOutcome]) -> Option<f64> {
    let of = |y: f64| outcomes.iter().filter(move |it| it.y == y).map(|it| it.p);
    let pairs: Vec<f64> = of(1.0)
        .flat_map(|held| {
            of(0.0).map(move |failed| match held.total_cmp(&failed) {
                std::cmp::Ordering::Greater => 1.0,
                std::cmp::Ordering::Equal => 0.5,
                std::cmp::Ordering::Less => 0.0,
            })
        })
        .collect();
    (!pairs.is_empty()).then(|| pairs.iter().sum::<f64>() / pairs.len() as f64)
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    fn of(pairs: &[(f64, f64)]) -> Vec<WithOutcome> {
        pairs.iter().map(|&(p, y)| WithOutcome { p, y }).collect()
    }

    #[test]
    fn odds_that_said_what_came_have_all_the_skill_there_is() {
        let found = calibration(&of(&[(1.0, 1.0), (0.0, 0.0)])).unwrap();
        assert_eq!((found.brier, found.skill, found.ranking), (0.0, Some(1.0), Some(1.0)));
        assert_eq!(found.bins.iter().map(|it| it.from).collect::<Vec<_>>(), [0.0, 0.9]);
    }

    #[test]
    fn always_saying_the_share_that_held_has_none() {
        let found = calibration(&of(&[(0.5, 1.0), (0.5, 0.0)])).unwrap();
        assert_eq!((found.skill, found.ranking), (Some(0.0), Some(0.5)), "ties are half");
    }

    #[rstest]
    #[case::all_held(&[(0.8, 1.0), (0.6, 1.0)])]
    #[case::all_failed(&[(0.8, 0.0)])]
    #[case::all_with_a_fault(&[(0.8, 0.5), (0.3, 0.5)])]
    fn where_all_came_to_the_same_nothing_is_ranked(#[case] pairs: &[(f64, f64)]) {
        let found = calibration(&of(pairs)).unwrap();
        assert_eq!((found.skill, found.ranking), (None, None));
    }

    #[rstest]
    // Just under a tenth, on it, and the last
    #[case(0.299, 0.2)]
    #[case(0.3, 0.3)]
    #[case(1.0, 0.9)]
    fn a_tenth_begins_at_its_number(#[case] p: f64, #[case] from: f64) {
        assert!((calibration(&of(&[(p, 1.0)])).unwrap().bins[0].from - from).abs() < 1e-12);
        assert_eq!(calibration(&[]), None);
    }
}
