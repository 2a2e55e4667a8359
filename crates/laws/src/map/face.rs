//! The outline of a face, from the sizes that were typed or the points that were drawn.

use std::f64::consts::PI;

use super::At;
use crate::base::choice::choice;

choice! {
    /// How the outline of a face is said.
    pub enum OutlineKind {
        Rectangle = "rectangle", "Rectangle";
        Circle = "circle", "Circle";
        Ring = "ring", "Ring";
        L = "l", "L";
        Unrolled = "unrolled", "A round, laid flat";
        Drawn = "drawn", "As drawn";
    }
}

/// The shape of a plain face.
#[derive(Debug, Clone, PartialEq)]
pub enum Outline {
    Rectangle {
        across_mm: f64,
        down_mm: f64,
    },
    Circle {
        across_mm: f64,
    },
    Ring {
        across_mm: f64,
        bore_mm: f64,
    },
    /// An upright leg at the left and a foot at the bottom.
    L {
        across_mm: f64,
        down_mm: f64,
        leg_mm: f64,
        foot_mm: f64,
    },
    /// A bore or a round laid flat: its way round, and its length.
    Unrolled {
        around_mm: f64,
        down_mm: f64,
    },
    Drawn(Vec<At>),
}

/// House: corners of a circle as it is laid out: it is off by less than a thousandth of its radius.
const CORNERS: u32 = 180;

impl Outline {
    /// The rims of the face: the outer one first, then those of what is cut out of it.
    #[must_use]
    pub fn rims(&self) -> Vec<Vec<At>> {
        let rectangle = |across: f64, down: f64| {
            vec![At::new(0.0, 0.0), At::new(across, 0.0), At::new(across, down), At::new(0.0, down)]
        };
        match *self {
            Self::Rectangle { across_mm, down_mm } => vec![rectangle(across_mm, down_mm)],
            Self::Unrolled { around_mm, down_mm } => vec![rectangle(PI * around_mm, down_mm)],
            Self::Circle { across_mm } => {
                vec![circle(At::new(across_mm / 2.0, across_mm / 2.0), across_mm / 2.0)]
            }
            Self::Ring { across_mm, bore_mm } => {
                let middle = At::new(across_mm / 2.0, across_mm / 2.0);
                vec![circle(middle, across_mm / 2.0), circle(middle, bore_mm.min(across_mm) / 2.0)]
            }
            Self::L { across_mm, down_mm, leg_mm, foot_mm } => {
                let (leg, foot) = (leg_mm.min(across_mm), foot_mm.min(down_mm));
                vec![vec![
                    At::new(0.0, 0.0),
                    At::new(leg, 0.0),
                    At::new(leg, down_mm - foot),
                    At::new(across_mm, down_mm - foot),
                    At::new(across_mm, down_mm),
                    At::new(0.0, down_mm),
                ]]
            }
            Self::Drawn(ref points) => vec![points.clone()],
        }
    }
}

/// A circle as it is laid out.
#[must_use]
pub fn circle(middle: At, radius_mm: f64) -> Vec<At> {
    circle_of(middle, radius_mm, CORNERS)
}

/// A circle of so many corners.
#[must_use]
pub fn circle_of(middle: At, radius_mm: f64, corners: u32) -> Vec<At> {
    (0..corners)
        .map(|corner| f64::from(corner) / f64::from(corners) * 2.0 * PI)
        .map(|turn| middle.along((libm::cos(turn), libm::sin(turn)), radius_mm))
        .collect()
}

/// What encloses all of these places: (left, top, right, bottom); nothing for none.
#[must_use]
pub fn bounds<'a>(places: impl IntoIterator<Item = &'a At>) -> Option<(f64, f64, f64, f64)> {
    places.into_iter().fold(None, |so_far, at| {
        let (left, top, right, bottom) = so_far.unwrap_or((at.x_mm, at.y_mm, at.x_mm, at.y_mm));
        Some((left.min(at.x_mm), top.min(at.y_mm), right.max(at.x_mm), bottom.max(at.y_mm)))
    })
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::map::area_mm2;

    #[rstest]
    #[case::rectangle(Outline::Rectangle { across_mm: 200.0, down_mm: 140.0 }, 28_000.0)]
    // Hand-worked: 200 x 140 less the notch of 150 x 100
    #[case::an_l(Outline::L { across_mm: 200.0, down_mm: 140.0, leg_mm: 50.0, foot_mm: 40.0 }, 13_000.0)]
    // pi/4 x 100² = 7854
    #[case::circle(Outline::Circle { across_mm: 100.0 }, 7854.0)]
    // pi x 50 x 80 = 12566
    #[case::a_bore_laid_flat(Outline::Unrolled { around_mm: 50.0, down_mm: 80.0 }, 12_566.4)]
    fn a_plain_face_has_the_area_its_sizes_give(#[case] outline: Outline, #[case] area: f64) {
        let rims = outline.rims();
        assert!((area_mm2(&rims[0]) - area).abs() < area / 1000.0, "{}", area_mm2(&rims[0]));
    }

    #[test]
    fn a_ring_has_a_rim_within() {
        let rims = Outline::Ring { across_mm: 100.0, bore_mm: 60.0 }.rims();
        assert_eq!(rims.len(), 2);
        assert_eq!(bounds(&rims[0]).map(|(left, ..)| left.abs() < 1e-9), Some(true));
        assert!(bounds(&rims[1]).is_some_and(|(left, ..)| (left - 20.0).abs() < 1e-9));
        assert_eq!(bounds(&[]), None);
    }
}
