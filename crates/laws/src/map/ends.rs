//! What the ends of a crack are, and what follows from where they lie.

use super::{At, closed, crossing, nearest};

/// An end this close to something lies on it, in mm. House: nobody presses closer.
pub const ON_IT_MM: f64 = 1.0;

/// Distance in mm to the nearest of these rims, and the place on it; nothing without one.
#[must_use]
pub fn nearest_rim(rims: &[Vec<At>], to: At) -> Option<(f64, At)> {
    rims.iter()
        .filter_map(|rim| nearest(&closed(rim), to))
        .map(|near| (near.distance_mm, near.at))
        .min_by(|a, b| a.0.total_cmp(&b.0))
}

/// Where a line that goes on straight from an end first meets one of these rims, no further than
/// `within_mm`; nothing where it meets none.
#[must_use]
pub fn goes_on_to(rims: &[Vec<At>], from: At, direction: (f64, f64), within_mm: f64) -> Option<At> {
    let far = from.along(direction, within_mm);
    rims.iter()
        .flat_map(|rim| {
            let around = closed(rim);
            around.windows(2).map(|side| (side[0], side[1])).collect::<Vec<_>>()
        })
        .filter_map(|side| crossing((from, far), side))
        .min_by(|a, b| a.distance_mm(from).total_cmp(&b.distance_mm(from)))
}

/// Closer than 2 D from the hole's rim to an edge or a bore it will most likely break out when heated.
///
/// # Source
/// House.
#[must_use]
pub fn breaks_out(centre_to_rim_mm: f64, drill_mm: f64) -> bool {
    centre_to_rim_mm - drill_mm / 2.0 < 2.0 * drill_mm
}

/// Tacks of a full break: where along it, in mm, in the order they go in.
///
/// At least 2, then one each 75 mm of joint or each change of direction, none on a corner nor where the
/// first bead ends: each straight run is cut into even lengths of 75 mm at most, a tack in the middle of
/// each. The outermost go first, so that the piece can no longer turn.
///
/// # Source
/// House.
#[must_use]
pub fn tacks_mm(line: &[At]) -> Vec<f64> {
    /// House: more than this is a change of direction, in degrees.
    const TURN: f64 = 30.0;
    /// House: tacks lie no further apart.
    const APART_MM: f64 = 75.0;
    let mut runs: Vec<(f64, f64)> = Vec::new();
    let (mut begun, mut along) = (0.0, 0.0);
    let mut before: Option<(f64, f64)> = None;
    for pair in line.windows(2) {
        let Some(step) = pair[0].toward(pair[1]) else { continue };
        let turned = before
            .is_some_and(|(x, y)| (x * step.0 + y * step.1).clamp(-1.0, 1.0).acos().to_degrees() > TURN);
        if turned {
            runs.push((begun, along));
            begun = along;
        }
        along += pair[0].distance_mm(pair[1]);
        before = Some(step);
    }
    if along <= 0.0 {
        return Vec::new();
    }
    runs.push((begun, along));
    let alone = runs.len() == 1;
    let mut tacks: Vec<f64> = runs
        .into_iter()
        .flat_map(|(from, to)| {
            let parts = ((to - from) / APART_MM - 1e-9).ceil().max(if alone { 2.0 } else { 1.0 });
            (0..parts as u32).map(move |part| from + (to - from) * (f64::from(part) + 0.5) / parts)
        })
        .collect();
    let mut order = Vec::with_capacity(tacks.len());
    while !tacks.is_empty() {
        order.push(tacks.remove(0));
        order.extend(tacks.pop());
    }
    order
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    fn line(points: &[(f64, f64)]) -> Vec<At> {
        points.iter().map(|&(x, y)| At::new(x, y)).collect()
    }

    #[rstest]
    #[case::just_under(23.9, true)]
    #[case::just_two_diameters(24.0, false)]
    fn a_hole_closer_than_two_diameters_breaks_out(#[case] to_rim_mm: f64, #[case] breaks: bool) {
        // 9.6 mm: the rim 4.8 from the centre, two diameters 19.2
        assert_eq!(breaks_out(to_rim_mm, 9.6), breaks);
    }

    #[test]
    fn a_crack_goes_on_to_the_first_edge_ahead() {
        let square = line(&[(0.0, 0.0), (100.0, 0.0), (100.0, 80.0), (0.0, 80.0)]);
        let bore = super::super::circle(At::new(60.0, 40.0), 10.0);
        let from = At::new(20.0, 40.0);
        let edge = goes_on_to(std::slice::from_ref(&square), from, (1.0, 0.0), 200.0).unwrap();
        assert!(edge.distance_mm(At::new(100.0, 40.0)) < 1e-9);
        let rim = goes_on_to(&[square.clone(), bore], from, (1.0, 0.0), 200.0).unwrap();
        assert!(rim.distance_mm(At::new(50.0, 40.0)) < 0.01);
        assert_eq!(goes_on_to(&[square], from, (1.0, 0.0), 50.0), None);
    }

    #[rstest]
    // Outermost first, then what is left from both sides.
    #[case::short(&[(0.0, 0.0), (40.0, 0.0)], &[10.0, 30.0])]
    #[case::just_two_lengths(&[(0.0, 0.0), (150.0, 0.0)], &[37.5, 112.5])]
    #[case::over_it(&[(0.0, 0.0), (151.0, 0.0)], &[151.0 / 6.0, 151.0 * 5.0 / 6.0, 75.5])]
    #[case::a_corner(&[(0.0, 0.0), (60.0, 0.0), (60.0, 40.0)], &[30.0, 80.0])]
    #[case::a_bend_is_no_corner(&[(0.0, 0.0), (60.0, 0.0), (100.0, 20.0)], &[26.180_339, 78.541_019])]
    #[case::nothing(&[(0.0, 0.0), (0.0, 0.0)], &[])]
    fn tacks_are_laid_out_along_the_joint(#[case] points: &[(f64, f64)], #[case] tacks: &[f64]) {
        let got = tacks_mm(&line(points));
        assert_eq!(got.len(), tacks.len(), "{got:?}");
        for (got, hand_worked) in got.iter().zip(tacks) {
            assert!((got - hand_worked).abs() < 1e-4, "{got} {hand_worked}");
        }
    }
}
