//! Inner corners of a face, and the iron across them.

use super::face::{FlatBody, ONE_PLACE_MM};
use crate::map::{At, closed, crossing};

/// A corner that goes into the iron.
#[derive(Debug, Clone, PartialEq)]
pub struct InnerCorner {
    pub at: At,
    /// From the corner straight through the iron to the next rim.
    pub across: Vec<At>,
}

/// House: what turns by less, in degrees, is rounded off.
const TURNS_BY: f64 = 30.0;

impl FlatBody {
    /// Corners of the outline that go in, and of outlined holes that go out into the iron, each with the line through the
    /// iron that halves it.
    #[must_use]
    pub fn inner_corners(&self) -> Vec<InnerCorner> {
        let rims = self.rims();
        let round = |rim: usize| rim.checked_sub(1).is_some_and(|hole| self.holes[hole].is_round());
        let outlined = rims.iter().enumerate().filter(|(rim, _)| !round(*rim));
        outlined.flat_map(|(rim, points)| corners(points, rim == 0, &rims)).collect()
    }
}

fn corners(points: &[At], outer: bool, rims: &[Vec<At>]) -> Vec<InnerCorner> {
    let count = points.len();
    let turn = |at: usize| {
        let [before, here, after] = [(at + count - 1) % count, at, (at + 1) % count].map(|it| points[it]);
        let (one, other) = (before.toward(here)?, here.toward(after)?);
        Some(libm::atan2(one.0 * other.1 - one.1 * other.0, one.0 * other.0 + one.1 * other.1))
    };
    // All turns of a rim together go round once, this way or that.
    let way: f64 = (0..count).filter_map(turn).sum::<f64>().signum();
    let into_iron = if outer { -way } else { way };
    (0..count)
        .filter(|at| turn(*at).is_some_and(|by| by * into_iron >= TURNS_BY.to_radians()))
        .filter_map(|at| {
            let here = points[at];
            let to_before = here.toward(points[(at + count - 1) % count])?;
            let to_after = here.toward(points[(at + 1) % count])?;
            // Away from what is hollow between its sides.
            let middle = At::new(here.x_mm - to_before.0 - to_after.0, here.y_mm - to_before.1 - to_after.1);
            let end = next_rim(rims, here, here.toward(middle)?)?;
            Some(InnerCorner { at: here, across: vec![here, end] })
        })
        .collect()
}

/// The first place on a rim from a place on, this way.
fn next_rim(rims: &[Vec<At>], from: At, way: (f64, f64)) -> Option<At> {
    let far_mm = rims.iter().flatten().map(|at| at.distance_mm(from)).fold(0.0, f64::max) + 1.0;
    let ray = (from.along(way, 2.0 * ONE_PLACE_MM), from.along(way, far_mm));
    let sides = rims.iter().flat_map(|rim| {
        let around = closed(rim);
        (1..around.len()).map(move |at| (around[at - 1], around[at])).collect::<Vec<_>>()
    });
    sides
        .filter_map(|side| crossing(ray, side))
        .min_by(|one, other| one.distance_mm(from).total_cmp(&other.distance_mm(from)))
}

#[cfg(test)]
mod tests {
    use super::super::face::Hole;
    use super::*;
    use crate::iron::Iron;

    fn face(outline: &[(f64, f64)], holes: Vec<Hole>) -> FlatBody {
        FlatBody {
            iron: Iron::Gray.properties(),
            outline: outline.iter().map(|(x, y)| At::new(*x, *y)).collect(),
            holes,
            wall_mm: 20.0,
            thick: Vec::new(),
            cracks: Vec::new(),
        }
    }

    fn ends(piece: &FlatBody) -> Vec<((f64, f64), (f64, f64))> {
        let place = |at: At| ((at.x_mm * 10.0).round() / 10.0, (at.y_mm * 10.0).round() / 10.0);
        piece.inner_corners().iter().map(|it| (place(it.across[0]), place(it.across[1]))).collect()
    }

    #[test]
    fn a_window_has_four_and_a_bracket_one_whichever_way_they_are_drawn() {
        let plate = [(0.0, 0.0), (400.0, 0.0), (400.0, 300.0), (0.0, 300.0)];
        let window = [(50.0, 50.0), (350.0, 50.0), (350.0, 250.0), (50.0, 250.0)];
        let hole =
            |points: &[(f64, f64)]| Hole::Outlined(points.iter().map(|(x, y)| At::new(*x, *y)).collect());
        // Halved at 45 degrees each runs into the corner of the plate.
        let expected = [
            ((50.0, 50.0), (0.0, 0.0)),
            ((350.0, 50.0), (400.0, 0.0)),
            ((350.0, 250.0), (400.0, 300.0)),
            ((50.0, 250.0), (0.0, 300.0)),
        ];
        let mut found = ends(&face(&plate, vec![hole(&window)]));
        assert_eq!(found, expected);
        let (mut plate_back, mut window_back) = (plate, window);
        plate_back.reverse();
        window_back.reverse();
        found = ends(&face(&plate_back, vec![hole(&window_back)]));
        found.reverse();
        assert_eq!(found, expected);
        let bracket = [(0.0, 0.0), (200.0, 0.0), (200.0, 40.0), (40.0, 40.0), (40.0, 200.0), (0.0, 200.0)];
        assert_eq!(ends(&face(&bracket, Vec::new())), [((40.0, 40.0), (0.0, 0.0))]);
    }

    #[test]
    fn what_is_round_or_goes_out_has_none() {
        let bore = Hole::Round { middle: At::new(100.0, 100.0), across_mm: 60.0 };
        let plate = [(0.0, 0.0), (200.0, 0.0), (200.0, 200.0), (0.0, 200.0)];
        assert_eq!(ends(&face(&plate, vec![bore])), []);
        // A window that is drawn round, a side each 10 degrees.
        let round = (0..36).map(|at| f64::from(at) * 10.0_f64.to_radians());
        let round = round.map(|turn| At::new(100.0 + 40.0 * turn.cos(), 100.0 + 40.0 * turn.sin()));
        assert_eq!(ends(&face(&plate, vec![Hole::Outlined(round.collect())])), []);
    }
}
