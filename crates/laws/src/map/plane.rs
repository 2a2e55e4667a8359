//! Plane geometry on a face, in mm: x to the right, y down.

use serde::{Deserialize, Serialize, Serializer};

use crate::base::drawn::{bends, tenth};

/// A place on a face, in mm from its upper left corner.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct At {
    pub x_mm: f64,
    pub y_mm: f64,
}

/// No face is so large that its squares would not fit: this is quicker than what guards against that.
fn long_mm(dx: f64, dy: f64) -> f64 {
    (dx * dx + dy * dy).sqrt()
}

impl At {
    /// As it is drawn: to a tenth of a mm.
    fn to_a_tenth(self) -> Self {
        Self::new(tenth(self.x_mm), tenth(self.y_mm))
    }

    #[must_use]
    pub const fn new(x_mm: f64, y_mm: f64) -> Self {
        Self { x_mm, y_mm }
    }

    #[must_use]
    pub fn distance_mm(self, other: Self) -> f64 {
        long_mm(self.x_mm - other.x_mm, self.y_mm - other.y_mm)
    }

    /// So far from here along a direction.
    #[must_use]
    pub fn along(self, (dx, dy): (f64, f64), mm: f64) -> Self {
        Self::new(self.x_mm + dx * mm, self.y_mm + dy * mm)
    }

    /// The direction to another place, of length 1; nothing where both are one.
    #[must_use]
    pub fn toward(self, other: Self) -> Option<(f64, f64)> {
        let long = self.distance_mm(other);
        (long > 1e-9).then(|| ((other.x_mm - self.x_mm) / long, (other.y_mm - self.y_mm) / long))
    }

    #[must_use]
    pub fn between(self, other: Self, share: f64) -> Self {
        Self::new(self.x_mm + (other.x_mm - self.x_mm) * share, self.y_mm + (other.y_mm - self.y_mm) * share)
    }
}

/// The place of a line that lies nearest to another one.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Nearest {
    pub at: At,
    pub distance_mm: f64,
    /// Along the line from its first point.
    pub along_mm: f64,
}

/// Length of a line in mm.
#[must_use]
pub fn length_mm(line: &[At]) -> f64 {
    line.windows(2).map(|pair| pair[0].distance_mm(pair[1])).sum()
}

/// The place so far along a line; its end where the line is shorter.
#[must_use]
pub fn place_along(line: &[At], along_mm: f64) -> Option<At> {
    let mut left = along_mm.max(0.0);
    for pair in line.windows(2) {
        let long = pair[0].distance_mm(pair[1]);
        if left <= long && long > 0.0 {
            return Some(pair[0].between(pair[1], left / long));
        }
        left -= long;
    }
    line.last().copied()
}

/// The part of a line between two places along it, from the first to the second, whichever lies further along.
#[must_use]
pub fn part_of(line: &[At], from_mm: f64, to_mm: f64) -> Vec<At> {
    let long = length_mm(line);
    let (low, high) = (from_mm.min(to_mm).min(long), from_mm.max(to_mm).min(long));
    let mut part: Vec<At> = place_along(line, low).into_iter().collect();
    let mut along = 0.0;
    for pair in line.windows(2) {
        along += pair[0].distance_mm(pair[1]);
        if along > low && along < high {
            part.push(pair[1]);
        }
    }
    part.extend(place_along(line, high));
    if from_mm > to_mm {
        part.reverse();
    }
    part
}

/// The nearest place of a line; nothing for a line without a point.
#[must_use]
pub fn nearest(line: &[At], to: At) -> Option<Nearest> {
    let first = line.first()?;
    let mut best = Nearest { at: *first, distance_mm: first.distance_mm(to), along_mm: 0.0 };
    let mut along_mm = 0.0;
    for pair in line.windows(2) {
        let long = pair[0].distance_mm(pair[1]);
        if let Some((dx, dy)) = pair[0].toward(pair[1]) {
            let foot = ((to.x_mm - pair[0].x_mm) * dx + (to.y_mm - pair[0].y_mm) * dy).clamp(0.0, long);
            let at = pair[0].along((dx, dy), foot);
            let distance_mm = at.distance_mm(to);
            if distance_mm < best.distance_mm {
                best = Nearest { at, distance_mm, along_mm: along_mm + foot };
            }
        }
        along_mm += long;
    }
    Some(best)
}

/// The last point once more after the first, so that a closed outline is a line.
#[must_use]
pub fn closed(outline: &[At]) -> Vec<At> {
    let mut line = outline.to_vec();
    line.extend(outline.first());
    line
}

/// Area in mm² that an outline encloses.
#[must_use]
pub fn area_mm2(outline: &[At]) -> f64 {
    let around = closed(outline);
    let twice: f64 =
        around.windows(2).map(|pair| pair[0].x_mm * pair[1].y_mm - pair[1].x_mm * pair[0].y_mm).sum();
    twice.abs() / 2.0
}

/// Whether a place lies within an outline.
#[must_use]
pub fn inside(outline: &[At], at: At) -> bool {
    let mut within = false;
    for (corner, b) in outline.iter().enumerate() {
        let a = outline[corner.checked_sub(1).unwrap_or(outline.len() - 1)];
        if (a.y_mm > at.y_mm) != (b.y_mm > at.y_mm) {
            let x = a.x_mm + (at.y_mm - a.y_mm) / (b.y_mm - a.y_mm) * (b.x_mm - a.x_mm);
            within ^= at.x_mm < x;
        }
    }
    within
}

/// Where two stretches cross or touch; nothing where they do not, or run along each other.
#[must_use]
pub fn crossing((a, b): (At, At), (c, d): (At, At)) -> Option<At> {
    let (rx, ry) = (b.x_mm - a.x_mm, b.y_mm - a.y_mm);
    let (sx, sy) = (d.x_mm - c.x_mm, d.y_mm - c.y_mm);
    let across = rx * sy - ry * sx;
    if across.abs() < 1e-12 {
        return None;
    }
    let (qx, qy) = (c.x_mm - a.x_mm, c.y_mm - a.y_mm);
    let (t, u) = ((qx * sy - qy * sx) / across, (qx * ry - qy * rx) / across);
    let on = |share: f64| (-1e-9..=1.0 + 1e-9).contains(&share);
    (on(t) && on(u)).then(|| a.between(b, t))
}

/// Whether a closed outline crosses itself: the first two of its sides that do, counted from 0.
#[must_use]
pub fn crosses_itself(outline: &[At]) -> Option<(usize, usize)> {
    let around = closed(outline);
    let sides: Vec<(At, At)> = around.windows(2).map(|pair| (pair[0], pair[1])).collect();
    let last = sides.len().saturating_sub(1);
    for (first, side) in sides.iter().enumerate() {
        for (second, other) in sides.iter().enumerate().skip(first + 2) {
            // The last side ends where the first begins.
            let neighbours = first == 0 && second == last;
            if !neighbours && crossing(*side, *other).is_some() {
                return Some((first, second));
            }
        }
    }
    None
}

/// The direction in which a line leaves its last point: from its last two points at least 5 mm apart;
/// from its first where it is shorter than that. Nothing for a line of no length.
///
/// # Source
/// House.
#[must_use]
pub fn end_direction(line: &[At]) -> Option<(f64, f64)> {
    let tip = *line.last()?;
    let back = line.iter().rev().find(|at| at.distance_mm(tip) >= 5.0).or(line.first())?;
    back.toward(tip)
}

/// A line beside another: so far to its left as it is walked, for each of its points. Corners are
/// mitred, at most twice as far out.
#[must_use]
pub fn beside(line: &[At], left_mm: impl Fn(usize) -> f64) -> Vec<At> {
    let steps: Vec<Option<(f64, f64)>> = line.windows(2).map(|pair| pair[0].toward(pair[1])).collect();
    let mut beside = Vec::with_capacity(line.len());
    for (at, point) in line.iter().enumerate() {
        let before = steps[..at.min(steps.len())].iter().rev().find_map(|step| *step);
        let after = steps[at.min(steps.len())..].iter().find_map(|step| *step);
        let (Some(before), Some(after)) = (before.or(after), after.or(before)) else { continue };
        // With y down the left hand of one who walks along (dx, dy) is at (dy, -dx).
        let (nx, ny) = (before.1 + after.1, -before.0 - after.0);
        let long = long_mm(nx, ny);
        let (nx, ny, out) = if long < 1e-6 {
            (before.1, -before.0, 1.0)
        } else {
            // The cosine of half the corner.
            (nx / long, ny / long, (long / 2.0).max(0.5))
        };
        beside.push(point.along((nx, ny), left_mm(at) / out));
    }
    beside
}

/// Leaves out what lies closer than `within_mm` to the line that is left (Ramer, Douglas and Peucker).
#[must_use]
pub fn simplified(line: &[At], within_mm: f64) -> Vec<At> {
    let off = |from: usize, to: usize, at: usize| {
        nearest(&[line[from], line[to]], line[at]).map_or(0.0, |it| it.distance_mm)
    };
    let kept = bends(line.len(), within_mm, off);
    line.iter().zip(kept).filter_map(|(at, kept)| kept.then_some(*at)).collect()
}

/// A place as it travels that is only drawn: to a tenth of a mm.
///
/// # Errors
/// Those of the serializer.
pub fn serialize_drawn_at<S: Serializer>(at: &At, serializer: S) -> Result<S::Ok, S::Error> {
    at.to_a_tenth().serialize(serializer)
}

/// An outline as it travels: to a tenth of a mm, finer than any pencil. What was drawn by hand is not one.
///
/// # Errors
/// Those of the serializer.
pub fn serialize_drawn<S: Serializer>(outline: &[At], serializer: S) -> Result<S::Ok, S::Error> {
    serializer.collect_seq(outline.iter().map(|at| at.to_a_tenth()))
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use rstest::rstest;

    use super::*;

    fn line(points: &[(f64, f64)]) -> Vec<At> {
        points.iter().map(|&(x, y)| At::new(x, y)).collect()
    }

    #[test]
    fn a_bent_line_is_measured_along_itself() {
        let bent = line(&[(0.0, 0.0), (30.0, 40.0), (30.0, 60.0)]);
        assert!((length_mm(&bent) - 70.0).abs() < 1e-12);
        assert_eq!(place_along(&bent, 25.0), Some(At::new(15.0, 20.0)));
        assert_eq!(place_along(&bent, 99.0), Some(At::new(30.0, 60.0)));
        let near = nearest(&bent, At::new(34.0, 50.0)).unwrap();
        assert_eq!((near.at, near.distance_mm, near.along_mm), (At::new(30.0, 50.0), 4.0, 60.0));
    }

    #[rstest]
    #[case::straight(&[(0.0, 0.0), (20.0, 0.0)], (1.0, 0.0))]
    #[case::a_last_bend_under_five_mm_does_not_count(&[(0.0, 0.0), (20.0, 0.0), (20.0, 3.0)], (20.0, 3.0))]
    #[case::one_of_five_does(&[(0.0, 0.0), (20.0, 0.0), (20.0, 5.0)], (0.0, 1.0))]
    #[case::shorter_than_five(&[(0.0, 0.0), (0.0, 2.0)], (0.0, 1.0))]
    fn an_end_points_as_its_last_five_mm_do(#[case] points: &[(f64, f64)], #[case] to: (f64, f64)) {
        let (dx, dy) = end_direction(&line(points)).unwrap();
        let long = long_mm(to.0, to.1);
        assert!((dx - to.0 / long).abs() < 1e-9 && (dy - to.1 / long).abs() < 1e-9, "{dx} {dy}");
    }

    #[test]
    fn a_line_beside_keeps_its_distance_round_a_corner() {
        let corner = line(&[(0.0, 0.0), (20.0, 0.0), (20.0, 20.0)]);
        // Walked to the right the left hand is up; then the right of the page.
        let up_and_out = line(&[(0.0, -3.0), (23.0, -3.0), (23.0, 20.0)]);
        for (got, hand_worked) in beside(&corner, |_| 3.0).into_iter().zip(up_and_out) {
            assert!(got.distance_mm(hand_worked) < 1e-9, "{got:?}");
        }
        let there_and_back = line(&[(0.0, 0.0), (20.0, 0.0), (0.0, 0.0)]);
        assert_eq!(beside(&there_and_back, |_| 3.0).len(), 3);
        assert!(beside(&line(&[(1.0, 1.0), (1.0, 1.0)]), |_| 3.0).is_empty());
    }

    #[rstest]
    #[case::a_square(&[(0.0, 0.0), (10.0, 0.0), (10.0, 10.0), (0.0, 10.0)], None)]
    #[case::a_bow_tie(&[(0.0, 0.0), (10.0, 10.0), (10.0, 0.0), (0.0, 10.0)], Some((0, 2)))]
    #[case::a_triangle(&[(0.0, 0.0), (10.0, 0.0), (5.0, 8.0)], None)]
    fn an_outline_that_crosses_itself_is_found(
        #[case] outline: &[(f64, f64)],
        #[case] crosses: Option<(usize, usize)>,
    ) {
        assert_eq!(crosses_itself(&line(outline)), crosses);
    }

    #[test]
    fn what_is_within_an_outline() {
        let l = line(&[(0.0, 0.0), (30.0, 0.0), (30.0, 10.0), (10.0, 10.0), (10.0, 30.0), (0.0, 30.0)]);
        assert!(inside(&l, At::new(5.0, 25.0)) && !inside(&l, At::new(20.0, 20.0)));
        assert!((area_mm2(&l) - 500.0).abs() < 1e-9);
    }

    fn lines() -> impl Strategy<Value = Vec<At>> {
        proptest::collection::vec((0.0..400.0, 0.0..300.0), 2..40)
            .prop_map(|points| points.into_iter().map(|(x, y)| At::new(x, y)).collect())
    }

    proptest! {
        #[test]
        fn moving_and_turning_changes_no_length(line in lines(), (x, y) in (-500.0..500.0, -500.0..500.0), turn in 0.0..6.3_f64) {
            let (sin, cos) = turn.sin_cos();
            let moved: Vec<At> = line
                .iter()
                .map(|at| At::new(x + at.x_mm * cos - at.y_mm * sin, y + at.x_mm * sin + at.y_mm * cos))
                .collect();
            prop_assert!((length_mm(&moved) - length_mm(&line)).abs() < 1e-6);
            prop_assert!((area_mm2(&moved) - area_mm2(&line)).abs() < 1e-4);
        }

        #[test]
        fn what_is_left_out_lies_within_the_tolerance(line in lines(), within in 0.1..20.0_f64) {
            let left = simplified(&line, within);
            prop_assert_eq!((left.first(), left.last()), (line.first(), line.last()));
            for at in &line {
                prop_assert!(nearest(&left, *at).unwrap().distance_mm <= within + 1e-9);
            }
        }
    }

    #[test]
    fn a_part_of_a_line_keeps_its_bends_and_goes_either_way() {
        // Hand-worked: 30 across, then 40 down
        let line = line(&[(0.0, 0.0), (30.0, 0.0), (30.0, 40.0)]);
        let at = |x, y| At::new(x, y);
        assert_eq!(part_of(&line, 10.0, 50.0), [at(10.0, 0.0), at(30.0, 0.0), at(30.0, 20.0)]);
        assert_eq!(part_of(&line, 50.0, 10.0), [at(30.0, 20.0), at(30.0, 0.0), at(10.0, 0.0)]);
        assert_eq!(part_of(&line, 60.0, 900.0), [at(30.0, 30.0), at(30.0, 40.0)], "no further than it goes");
        assert!(part_of(&[], 0.0, 10.0).is_empty());
    }
}
