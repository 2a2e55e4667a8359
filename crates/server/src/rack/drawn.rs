//! A curve with no more points than a strip of the rack can show.

use std::cmp::Ordering;
use std::collections::{BTreeSet, BinaryHeap};

/// What a strip cannot show, as a share of the curve's height.
const UNSEEN: f64 = 0.006;
/// A noisy record is drawn with so many points at most.
const MOST: usize = 120;

/// Two points with what lies between them, and the one of it that is farthest off their line.
struct Span {
    off: f64,
    at: usize,
    ends: (usize, usize),
}

/// The curve, (min, degC) in the order of time, without the points that lie on the line between others: those
/// farthest off come first, as Ramer, Douglas and Peucker do it, until no more can be shown. Rounded to a tenth.
pub fn drawn(curve: &[(f64, f64)]) -> Vec<(f64, f64)> {
    let heights = || curve.iter().map(|(_, celsius)| *celsius);
    let (low, high) = (heights().fold(f64::INFINITY, f64::min), heights().fold(f64::NEG_INFINITY, f64::max));
    let unseen = (high - low) * UNSEEN;
    let ends = curve.len().checked_sub(1).map(|last| (0, last));
    let mut kept = BTreeSet::from_iter(ends.into_iter().flat_map(|(first, last)| [first, last]));
    let mut spans: BinaryHeap<Span> = ends.and_then(|ends| Span::between(curve, ends)).into_iter().collect();
    while kept.len() < MOST {
        let Some(Span { at, ends: (from, to), .. }) = spans.pop().filter(|span| span.off > unseen) else {
            break;
        };
        kept.insert(at);
        spans.extend([(from, at), (at, to)].into_iter().filter_map(|ends| Span::between(curve, ends)));
    }
    let tenth = |value: f64| (value * 10.0).round() / 10.0;
    kept.into_iter().map(|at| (tenth(curve[at].0), tenth(curve[at].1))).collect()
}

impl Span {
    /// Nothing where there is nothing between them.
    fn between(curve: &[(f64, f64)], ends: (usize, usize)) -> Option<Self> {
        let offs = (ends.0 + 1..ends.1).map(|at| Self { off: off(curve, ends, at), at, ends });
        offs.max()
    }
}

impl Ord for Span {
    fn cmp(&self, other: &Self) -> Ordering {
        self.off.total_cmp(&other.off).then(self.at.cmp(&other.at))
    }
}

impl PartialOrd for Span {
    fn partial_cmp(&self, other: &Self) -> Option<Ordering> {
        Some(self.cmp(other))
    }
}

impl PartialEq for Span {
    fn eq(&self, other: &Self) -> bool {
        self.cmp(other) == Ordering::Equal
    }
}

impl Eq for Span {}

/// How far a point lies off the line between two others, in K.
fn off(curve: &[(f64, f64)], (from, to): (usize, usize), at: usize) -> f64 {
    let ((x0, y0), (x1, y1), (x, y)) = (curve[from], curve[to], curve[at]);
    let along = if x1 > x0 { (x - x0) / (x1 - x0) } else { 0.0 };
    (y - (y0 + (y1 - y0) * along)).abs()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::nothing(&[], &[])]
    #[case::one(&[(0.0, 18.0)], &[(0.0, 18.0)])]
    #[case::a_straight_line(&[(0.0, 18.0), (5.0, 168.0), (10.0, 318.0)], &[(0.0, 18.0), (10.0, 318.0)])]
    #[case::corners_stay(
        &[(0.0, 18.0), (0.94, 300.0), (12.0, 300.0), (20.94, 300.0)],
        &[(0.0, 18.0), (0.9, 300.0), (20.9, 300.0)]
    )]
    #[case::a_step_at_one_moment(&[(0.0, 300.0), (5.0, 300.0), (5.0, 200.0)], &[(0.0, 300.0), (5.0, 300.0), (5.0, 200.0)])]
    fn what_lies_on_the_line_between_others_is_left_out(
        #[case] curve: &[(f64, f64)],
        #[case] expected: &[(f64, f64)],
    ) {
        assert_eq!(drawn(curve), expected);
    }

    #[test]
    fn no_point_of_a_cooling_is_further_off_than_a_strip_can_show() {
        let curve: Vec<(f64, f64)> = (0..=720)
            .map(|minutes| (f64::from(minutes), 18.0 + 600.0 * (-f64::from(minutes) / 150.0).exp()))
            .collect();
        let shown = drawn(&curve);
        assert!(shown.len() < 40, "{}", shown.len());
        for (minutes, celsius) in curve {
            let after = shown.iter().position(|(at, _)| *at >= minutes).unwrap();
            let between = [shown[after.saturating_sub(1)], shown[after], (minutes, celsius)];
            assert!(off(&between, (0, 1), 2) <= 0.006 * 600.0 + 0.2, "at {minutes}");
        }
    }

    #[test]
    fn a_noisy_record_is_drawn_with_few_enough_points() {
        let noisy: Vec<(f64, f64)> =
            (0..5_000).map(|at| (f64::from(at), if at % 2 == 0 { 18.0 } else { 19.0 })).collect();
        let shown = drawn(&noisy);
        assert!(shown.len() <= MOST, "{}", shown.len());
        assert_eq!(shown.first().zip(shown.last()), Some((&(0.0, 18.0), &(4_999.0, 19.0))));
    }
}
