//! The parts of a method's score. House throughout.

use serde::Serialize;

/// One part of a score.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ScorePart {
    pub name: String,
    pub points: f64,
    /// The same as it is shown: "+4.0", "−2.5".
    pub words: String,
    pub working: String,
}

impl ScorePart {
    #[must_use]
    pub fn new(name: &str, points: f64, working: String) -> Self {
        let sign = if points < 0.0 { '\u{2212}' } else { '+' };
        Self { name: name.to_owned(), points, words: format!("{sign}{:.1}", points.abs()), working }
    }
}

/// Points for strength: +4 at 1.25 and above, through 0 at 1.0, to -10 at 0.5 and below.
#[must_use]
pub fn strength_points(ratio: f64) -> f64 {
    if ratio >= 1.0 { (16.0 * (ratio - 1.0)).min(4.0) } else { (20.0 * (ratio - 1.0)).max(-10.0) }
}

/// Points for heat: -1 for every 50 K of target over 100 degC.
#[must_use]
pub fn heat_points(target_c: f64) -> f64 {
    -((target_c - 100.0) / 50.0).max(0.0)
}

/// Points for favours and cautions: +8 each up to +20, -10 each without limit.
#[must_use]
pub fn rule_points(favours: usize, cautions: usize) -> (f64, f64) {
    ((8.0 * favours as f64).min(20.0), -10.0 * cautions as f64)
}

/// Points for hours: -1 for each 3 h over the quickest, at most -6.
#[must_use]
pub fn hours_points(hours: f64, quickest: f64) -> f64 {
    -((hours - quickest) / 3.0).clamp(0.0, 6.0)
}

/// Points for money: -1 for each tenth over the cheapest, at most -8.
#[must_use]
pub fn money_points(price: f64, cheapest: f64) -> f64 {
    -((price - cheapest) / (0.1 * cheapest)).clamp(0.0, 8.0)
}

/// Points for odds: 40 x (p - 0.7).
#[must_use]
pub fn odds_points(p: f64) -> f64 {
    40.0 * (p - 0.7)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    // Published: the trade reference, "Scoring"
    #[case::well_over(2.0, 4.0)]
    #[case::at_the_top(1.25, 4.0)]
    #[case::as_strong(1.0, 0.0)]
    #[case::half(0.5, -10.0)]
    #[case::under_half(0.2, -10.0)]
    fn strength_is_linear_between_its_ends(#[case] ratio: f64, #[case] points: f64) {
        assert!((strength_points(ratio) - points).abs() < 1e-12);
    }

    #[test]
    fn a_dearer_and_a_slower_way_lose_points_up_to_an_end() {
        // Hand-worked: 250 is two and a half tenths over 200; 9 h over the quickest are 3 points
        assert_eq!((money_points(250.0, 200.0), money_points(200.0, 200.0)), (-2.5, 0.0));
        assert_eq!((money_points(900.0, 200.0), hours_points(99.0, 1.0)), (-8.0, -6.0));
        assert_eq!(hours_points(10.0, 1.0), -3.0);
    }

    #[test]
    fn favours_are_capped_and_cautions_are_not() {
        assert_eq!(rule_points(3, 4), (20.0, -40.0));
    }
}
