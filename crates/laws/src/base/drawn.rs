//! Thinning of curves: as few points as draw the same line.

use serde::{Serialize, Serializer};

/// House: neither a screen nor paper shows less, in K.
const DRAWN_TO_K: f64 = 0.5;

/// The points of a curve that draw it within [`DRAWN_TO_K`] of each of its points: the first, the last, and those where
/// it bends, by height alone. Of two at one moment both stay where it steps.
#[must_use]
pub fn thinned_curve(curve: &[(f64, f64)]) -> Vec<(f64, f64)> {
    let off =
        |from: usize, to: usize, at: usize| (curve[at].1 - height(curve[from], curve[to], curve[at])).abs();
    let stays = bends(curve.len(), DRAWN_TO_K, off);
    curve.iter().zip(stays).filter(|(_, stays)| *stays).map(|(point, _)| *point).collect()
}

/// Which of so many points a line keeps: the first, the last, and each that is further off the line between two that stay
/// than `within`; `off` tells how far the third lies off the line from the first to the second.
///
/// # Source
/// Ramer, Douglas and Peucker's division (law).
#[must_use]
pub fn bends(points: usize, within: f64, off: impl Fn(usize, usize, usize) -> f64) -> Vec<bool> {
    let Some(last) = points.checked_sub(1) else { return Vec::new() };
    let mut stays = vec![false; points];
    (stays[0], stays[last]) = (true, true);
    let mut stretches = vec![(0, last)];
    while let Some((from, to)) = stretches.pop() {
        let each = (from + 1..to).map(|at| (at, off(from, to, at)));
        if let Some((at, far)) = each.max_by(|a, b| a.1.total_cmp(&b.1))
            && far > within
        {
            stays[at] = true;
            stretches.extend([(from, at), (at, to)]);
        }
    }
    stays
}

/// What a line between two points is at where a third lies; upright it is at the nearer of its ends.
fn height(from: (f64, f64), to: (f64, f64), at: (f64, f64)) -> f64 {
    let wide = to.0 - from.0;
    if wide > 0.0 {
        return from.1 + (to.1 - from.1) * (at.0 - from.0) / wide;
    }
    if (at.1 - from.1).abs() < (at.1 - to.1).abs() { from.1 } else { to.1 }
}

/// A length as it travels that is only drawn: to a tenth of a mm, finer than any pencil.
///
/// # Errors
/// Those of the serializer.
pub fn serialize_tenth<S: Serializer>(mm: &f64, serializer: S) -> Result<S::Ok, S::Error> {
    serializer.serialize_f64(tenth(*mm))
}

/// To a tenth.
#[must_use]
pub fn tenth(mm: f64) -> f64 {
    (mm * 10.0).round() / 10.0
}

/// A curve as it travels: thinned.
///
/// # Errors
/// Those of the serializer.
pub fn serialize_thinned<S: Serializer>(curve: &[(f64, f64)], serializer: S) -> Result<S::Ok, S::Error> {
    thinned_curve(curve).serialize(serializer)
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use rstest::rstest;

    use super::*;

    #[rstest]
    #[case::nothing(&[], 0)]
    #[case::one_point(&[(0.0, 20.0)], 1)]
    // By hand: each lies on the line from 20 to 320.
    #[case::a_straight_line(&[(0.0, 20.0), (1.0, 120.0), (2.0, 220.0), (3.0, 320.0)], 2)]
    // By hand: half way from 20 to 21 is 20.5; 0.4 over it is not seen, 0.6 is.
    #[case::hardly_bent(&[(0.0, 20.0), (1.0, 20.9), (2.0, 21.0)], 2)]
    #[case::bent(&[(0.0, 20.0), (1.0, 21.1), (2.0, 21.0)], 3)]
    #[case::a_step(&[(0.0, 325.0), (5.0, 325.0), (5.0, 425.0), (9.0, 425.0)], 4)]
    fn a_curve_keeps_the_points_where_it_bends(#[case] curve: &[(f64, f64)], #[case] kept: usize) {
        assert_eq!(thinned_curve(curve).len(), kept);
    }

    #[test]
    fn a_cooling_of_eleven_hours_is_drawn_by_a_few_points() {
        let curve: Vec<(f64, f64)> = (0..=160)
            .map(|at| f64::from(at) / 160.0 * 11.0)
            .map(|h| (h, 20.0 + 405.0 * (-h / 4.0).exp()))
            .collect();
        let kept = thinned_curve(&curve).len();
        assert!((8..=30).contains(&kept), "{kept}");
    }

    proptest! {
        #[test]
        fn no_point_lies_off_the_thinned_line(
            mut times in prop::collection::vec(0.0..600.0_f64, 2..80),
            heights in prop::collection::vec(10.0..900.0_f64, 80),
        ) {
            times.sort_by(f64::total_cmp);
            let curve: Vec<(f64, f64)> = times.into_iter().zip(heights).collect();
            let kept = thinned_curve(&curve);
            prop_assert_eq!((kept.first(), kept.last()), (curve.first(), curve.last()));
            for point in &curve {
                let after = kept.partition_point(|it| it.0 < point.0).max(1);
                let off = kept[after - 1..=after.min(kept.len() - 1)].windows(2).map(|it| (point.1 - height(it[0], it[1], *point)).abs());
                let at_one = kept.iter().filter(|it| it.0 == point.0).map(|it| (it.1 - point.1).abs());
                let off = off.chain(at_one).fold(f64::INFINITY, f64::min);
                prop_assert!(off <= DRAWN_TO_K + 1e-9, "{:?} is {} off", point, off);
            }
        }
    }
}
