//! A curve with no more points than a strip of the rack can show.

/// What a strip cannot show, as a share of the curve's height.
const UNSEEN: f64 = 0.006;
/// A noisy record is drawn with so many points at most.
const MOST: usize = 120;

/// The curve, (min, degC) in the order of time, without the points that lie on the line between others,
/// as Ramer, Douglas and Peucker do it; both rounded to a tenth.
pub fn drawn(curve: &[(f64, f64)]) -> Vec<(f64, f64)> {
    let heights = || curve.iter().map(|(_, celsius)| *celsius);
    let (low, high) = (heights().fold(f64::INFINITY, f64::min), heights().fold(f64::NEG_INFINITY, f64::max));
    let mut unseen = (high - low) * UNSEEN;
    let mut shown = without(curve, unseen);
    while shown.len() > MOST {
        unseen *= 1.5;
        shown = without(curve, unseen);
    }
    let tenth = |value: f64| (value * 10.0).round() / 10.0;
    shown.into_iter().map(|(minutes, celsius)| (tenth(minutes), tenth(celsius))).collect()
}

/// Without the points that are no further off than that, in K.
fn without(curve: &[(f64, f64)], unseen: f64) -> Vec<(f64, f64)> {
    let mut kept = vec![false; curve.len()];
    let mut spans = Vec::from_iter(curve.len().checked_sub(1).map(|last| (0, last)));
    while let Some((from, to)) = spans.pop() {
        (kept[from], kept[to]) = (true, true);
        let offs = (from + 1..to).map(|at| (at, off(curve, (from, to), at)));
        let farthest = offs.max_by(|a, b| a.1.total_cmp(&b.1));
        if let Some((at, _)) = farthest.filter(|(_, off)| *off > unseen) {
            spans.extend([(from, at), (at, to)]);
        }
    }
    curve.iter().zip(kept).filter(|(_, kept)| *kept).map(|(point, _)| *point).collect()
}

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
