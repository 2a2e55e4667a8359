//! From points of a picture to mm on the part, and back.

use super::At;
use crate::base::problem::FieldProblem;

/// How a picture's points lie on a face.
///
/// u = (a x + b y + c) / (g x + h y + 1), v = (d x + e y + f) / (g x + h y + 1), from picture points (x, y)
/// to mm (u, v). Error of the lens is left alone.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Straightened {
    to_mm: [f64; 9],
    to_px: [f64; 9],
}

/// Corners closer than this are one press. House.
pub const CORNERS_APART_PX: f64 = 20.0;
/// What a face may measure: a part larger than this is not mended on a bench. Ours.
pub const FACE_MOST_MM: f64 = 20_000.0;

fn refused(field: &str, message: &str, right: &str) -> FieldProblem {
    FieldProblem::new(field, message, right)
}

fn size(field: &'static str, mm: f64) -> Result<f64, FieldProblem> {
    crate::base::problem::OutOfRange::check("a size", "mm", (1.0, FACE_MOST_MM), mm)
        .map_err(|out| out.at(field))
}

impl Straightened {
    /// By the four corners of a rectangle on the part, from its upper left one clockwise, and its size.
    ///
    /// # Errors
    /// At `corners_px`: three lie on a line, they cross or go the other way round, or are closer than 20
    /// points; at `width_mm` or `height_mm`: no size of a part.
    pub fn by_corners(
        corners_px: [[f64; 2]; 4],
        width_mm: f64,
        height_mm: f64,
    ) -> Result<Self, FieldProblem> {
        const AT: &str = "corners_px";
        let (width, height) = (size("width_mm", width_mm)?, size("height_mm", height_mm)?);
        if corners_px.iter().flatten().any(|number| !number.is_finite() || number.abs() > 1e6) {
            return Err(refused(AT, "a corner lies nowhere", "points of the picture"));
        }
        for (at, a) in corners_px.iter().enumerate() {
            for b in &corners_px[at + 1..] {
                if (a[0] - b[0]).hypot(a[1] - b[1]) < CORNERS_APART_PX {
                    return Err(refused(AT, "two corners are one place", "corners at least 20 points apart"));
                }
            }
        }
        let turn = |at: usize| {
            let [a, b, c] = [0, 1, 2].map(|step| corners_px[(at + step) % 4]);
            let (rx, ry, sx, sy) = (b[0] - a[0], b[1] - a[1], c[0] - b[0], c[1] - b[1]);
            (rx * sy - ry * sx) / (rx.hypot(ry) * sx.hypot(sy))
        };
        let turns: Vec<f64> = (0..4).map(turn).collect();
        // The sine of one degree: flatter than that no eye sees a corner.
        if turns.iter().any(|turn| turn.abs() < 0.017) {
            return Err(refused(AT, "three corners lie on one line", "the four corners of a rectangle"));
        }
        if turns.iter().all(|turn| *turn < 0.0) {
            let right = "upper left, upper right, lower right, lower left";
            return Err(refused(AT, "the corners go round the wrong way", right));
        }
        if turns.iter().any(|turn| *turn < 0.0) {
            return Err(refused(AT, "the sides cross", "upper left, upper right, lower right, lower left"));
        }
        let to_px = of_unit_square(corners_px);
        let to_px = times(&to_px, &[1.0 / width, 0.0, 0.0, 0.0, 1.0 / height, 0.0, 0.0, 0.0, 1.0]);
        // Up to a factor it is the same map: a corner is seen, so the camera's side of it is where its depth is.
        let [x, y] = corners_px[0];
        let to_mm = inverse(&to_px);
        let depth = to_mm[6] * x + to_mm[7] * y + to_mm[8];
        Ok(Self { to_mm: to_mm.map(|it| it / depth), to_px })
    }

    /// By two points on a known distance: the picture as it lies, its upper left corner at the origin.
    ///
    /// # Errors
    /// At `corners_px`: the points are closer than 20 points; at `width_mm`: no distance on a part.
    pub fn by_distance(a: [f64; 2], b: [f64; 2], distance_mm: f64) -> Result<Self, FieldProblem> {
        let distance = size("width_mm", distance_mm)?;
        let apart = (a[0] - b[0]).hypot(a[1] - b[1]);
        if !(CORNERS_APART_PX..1e6).contains(&apart) {
            let right = "points at least 20 points apart";
            return Err(refused("corners_px", "the two points are one place", right));
        }
        let scale = distance / apart;
        let (down, up) = (scale, 1.0 / scale);
        Ok(Self {
            to_mm: [down, 0.0, 0.0, 0.0, down, 0.0, 0.0, 0.0, 1.0],
            to_px: [up, 0.0, 0.0, 0.0, up, 0.0, 0.0, 0.0, 1.0],
        })
    }

    /// Where a point of the picture lies on the part; nothing for one at or beyond the horizon.
    #[must_use]
    pub fn mm(&self, [x, y]: [f64; 2]) -> Option<At> {
        mapped(&self.to_mm, x, y).map(|(x, y)| At::new(x, y))
    }

    /// Where a place of the part lies in the picture; nothing where the camera cannot have seen it.
    #[must_use]
    pub fn px(&self, at: At) -> Option<[f64; 2]> {
        mapped(&self.to_px, at.x_mm, at.y_mm).map(|(x, y)| [x, y])
    }

    /// What one point of the picture is worth in mm there: the longer side of its shadow on the part.
    #[must_use]
    pub fn point_mm(&self, [x, y]: [f64; 2]) -> Option<f64> {
        let here = self.mm([x, y])?;
        let (right, below) = (self.mm([x + 1.0, y])?, self.mm([x, y + 1.0])?);
        Some(here.distance_mm(right).max(here.distance_mm(below)))
    }

    /// The part that a picture of this size shows, in mm: (left, top, right, bottom), no further out than
    /// `most_mm` from the middle of what the picture shows.
    #[must_use]
    pub fn shown(&self, width_px: f64, height_px: f64, most_mm: f64) -> Option<(f64, f64, f64, f64)> {
        let middle = self.mm([width_px / 2.0, height_px / 2.0])?;
        let (mut low, mut high) = (middle, middle);
        // House: along the rim: a corner may lie beyond the horizon where the side before it does not.
        const STEPS: u32 = 64;
        for step in 0..=STEPS {
            let share = f64::from(step) / f64::from(STEPS);
            let (x, y) = (share * width_px, share * height_px);
            let rim = [[x, 0.0], [x, height_px], [0.0, y], [width_px, y]];
            for at in rim.into_iter().filter_map(|px| self.mm(px)) {
                low = At::new(low.x_mm.min(at.x_mm), low.y_mm.min(at.y_mm));
                high = At::new(high.x_mm.max(at.x_mm), high.y_mm.max(at.y_mm));
            }
        }
        Some((
            low.x_mm.max(middle.x_mm - most_mm),
            low.y_mm.max(middle.y_mm - most_mm),
            high.x_mm.min(middle.x_mm + most_mm),
            high.y_mm.min(middle.y_mm + most_mm),
        ))
    }
}

fn mapped(map: &[f64; 9], x: f64, y: f64) -> Option<(f64, f64)> {
    let [a, b, c, d, e, f, g, h, i] = *map;
    let depth = g * x + h * y + i;
    let (u, v) = ((a * x + b * y + c) / depth, (d * x + e * y + f) / depth);
    (depth > 1e-6 && u.is_finite() && v.is_finite()).then_some((u, v))
}

/// The projective map that takes the corners of the unit square, from (0, 0) over (1, 0), to these.
fn of_unit_square([p0, p1, p2, p3]: [[f64; 2]; 4]) -> [f64; 9] {
    let (dx1, dx2) = (p1[0] - p2[0], p3[0] - p2[0]);
    let (dy1, dy2) = (p1[1] - p2[1], p3[1] - p2[1]);
    let (sx, sy) = (p0[0] - p1[0] + p2[0] - p3[0], p0[1] - p1[1] + p2[1] - p3[1]);
    let across = dx1 * dy2 - dx2 * dy1;
    let g = (sx * dy2 - dx2 * sy) / across;
    let h = (dx1 * sy - sx * dy1) / across;
    [
        p1[0] - p0[0] + g * p1[0],
        p3[0] - p0[0] + h * p3[0],
        p0[0],
        p1[1] - p0[1] + g * p1[1],
        p3[1] - p0[1] + h * p3[1],
        p0[1],
        g,
        h,
        1.0,
    ]
}

fn times(a: &[f64; 9], b: &[f64; 9]) -> [f64; 9] {
    std::array::from_fn(|at| (0..3).map(|k| a[at / 3 * 3 + k] * b[k * 3 + at % 3]).sum())
}

/// The inverse up to a factor, which a projective map does not mind.
fn inverse(m: &[f64; 9]) -> [f64; 9] {
    let [a, b, c, d, e, f, g, h, i] = *m;
    [
        e * i - f * h,
        c * h - b * i,
        b * f - c * e,
        f * g - d * i,
        a * i - c * g,
        c * d - a * f,
        d * h - e * g,
        b * g - a * h,
        a * e - b * d,
    ]
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use rstest::rstest;

    use super::*;

    const SLANTED: [[f64; 2]; 4] = [[412.0, 296.0], [1530.0, 358.0], [1466.0, 1190.0], [372.0, 1024.0]];

    #[test]
    fn a_slanted_picture_is_straightened() {
        // Published: the trade reference's example.
        let map = Straightened::by_corners(SLANTED, 200.0, 140.0).unwrap();
        for (px, mm) in [
            ([900.0, 700.0], (98.489, 67.246)),
            ([1466.0, 1190.0], (200.0, 140.0)),
            ([412.0, 900.0], (6.838, 115.007)),
        ] {
            assert!(map.mm(px).unwrap().distance_mm(At::new(mm.0, mm.1)) < 0.002, "{px:?}");
        }
    }

    #[rstest]
    #[case::three_on_a_line([[0.0, 0.0], [50.0, 0.0], [100.0, 0.0], [0.0, 80.0]], 200.0, "corners_px")]
    #[case::crossed([[0.0, 0.0], [100.0, 80.0], [100.0, 0.0], [0.0, 80.0]], 200.0, "corners_px")]
    #[case::the_wrong_way_round([[0.0, 0.0], [0.0, 80.0], [100.0, 80.0], [100.0, 0.0]], 200.0, "corners_px")]
    #[case::under_twenty_apart([[0.0, 0.0], [19.0, 0.0], [100.0, 80.0], [0.0, 80.0]], 200.0, "corners_px")]
    #[case::not_a_number([[f64::NAN, 0.0], [50.0, 0.0], [100.0, 80.0], [0.0, 80.0]], 200.0, "corners_px")]
    #[case::no_width(SLANTED, 0.0, "width_mm")]
    #[case::forty_metres(SLANTED, 40_000.0, "width_mm")]
    fn corners_that_make_no_rectangle_are_refused(
        #[case] corners: [[f64; 2]; 4],
        #[case] width: f64,
        #[case] field: &str,
    ) {
        assert_eq!(Straightened::by_corners(corners, width, 100.0).unwrap_err().field, field);
    }

    #[test]
    fn just_twenty_apart_will_do() {
        let corners = [[0.0, 0.0], [20.0, 0.0], [20.0, 20.0], [0.0, 20.0]];
        let map = Straightened::by_corners(corners, 10.0, 10.0).unwrap();
        assert!((map.point_mm([10.0, 10.0]).unwrap() - 0.5).abs() < 1e-9);
    }

    #[test]
    fn two_points_on_a_distance_give_the_scale() {
        let map = Straightened::by_distance([100.0, 100.0], [400.0, 500.0], 250.0).unwrap();
        assert_eq!(map.mm([200.0, 60.0]), Some(At::new(100.0, 30.0)));
        assert_eq!(map.shown(1000.0, 600.0, 1e4), Some((0.0, 0.0, 500.0, 300.0)));
        let apart = |mm| Straightened::by_distance([0.0, 0.0], [300.0, 0.0], mm).map(|_| ());
        assert_eq!(apart(0.0).unwrap_err().field, "width_mm");
        let one_place = Straightened::by_distance([0.0, 0.0], [19.9, 0.0], 10.0).unwrap_err();
        assert_eq!(one_place.field, "corners_px");
    }

    #[test]
    fn beyond_the_horizon_there_is_nothing() {
        // Two sides that meet 100 points above the picture's upper edge.
        let corners = [[400.0, 0.0], [600.0, 0.0], [800.0, 100.0], [200.0, 100.0]];
        let map = Straightened::by_corners(corners, 100.0, 100.0).unwrap();
        assert!(map.mm([500.0, 50.0]).is_some() && map.mm([500.0, -60.0]).is_none());
    }

    #[test]
    fn a_slant_so_steep_that_the_pictures_own_corner_lies_beyond_the_horizon_is_straightened() {
        // Hand-worked: each corner of the rectangle comes back to its place, and so does its middle.
        let corners = [[330.0, 250.0], [820.0, 65.0], [900.0, 650.0], [100.0, 560.0]];
        let map = Straightened::by_corners(corners, 300.0, 200.0).unwrap();
        assert_eq!(map.mm([0.0, 0.0]), None);
        for (corner, (x, y)) in
            corners.into_iter().zip([(0.0, 0.0), (300.0, 0.0), (300.0, 200.0), (0.0, 200.0)])
        {
            assert!(map.mm(corner).unwrap().distance_mm(At::new(x, y)) < 1e-6, "{corner:?}");
        }
        let middle = map.px(At::new(150.0, 100.0)).unwrap();
        assert!(map.mm(middle).unwrap().distance_mm(At::new(150.0, 100.0)) < 1e-6);
    }

    proptest! {
        #[test]
        fn there_and_back_is_the_same_place(
            bend in proptest::array::uniform4((-120.0..120.0, -90.0..90.0)),
            (x, y) in (0.0..300.0, 0.0..200.0),
        ) {
            let square = [[200.0, 150.0], [900.0, 150.0], [900.0, 650.0], [200.0, 650.0]];
            let corners = std::array::from_fn(|at| [square[at][0] + bend[at].0, square[at][1] + bend[at].1]);
            let map = Straightened::by_corners(corners, 300.0, 200.0).unwrap();
            let px = map.px(At::new(x, y)).unwrap();
            prop_assert!(map.mm(px).unwrap().distance_mm(At::new(x, y)) < 1e-6);
        }
    }
}
