//! Holes whose distance may matter, two and two.

use super::faces::FacePlan;
use crate::map::{At, MarkKind, OnFace, Shape, inside};

/// Two holes of a face.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct HolePair {
    /// "bolt hole 1 and bolt hole 2"
    pub names: String,
    /// From rim to rim, on the side of each other.
    pub between: (At, At),
}

/// Bolt holes and bores within the rims of a face: name, middle, radius.
pub(crate) fn round_holes(of: &FacePlan) -> impl Iterator<Item = (&str, At, f64)> {
    let kinds = [MarkKind::BoltHole, MarkKind::Bore].map(OnFace::Mark);
    let rims = of.rims.as_slice();
    of.marks.iter().filter(move |mark| kinds.contains(&mark.what)).filter_map(move |mark| match mark.shape {
        Shape::Circle { x_mm, y_mm, radius_mm } => {
            let middle = At::new(x_mm, y_mm);
            let (outline, cut_out) = rims.split_first()?;
            let within = inside(outline, middle) && !cut_out.iter().any(|rim| inside(rim, middle));
            within.then_some((mark.name.as_str(), middle, radius_mm))
        }
        Shape::Line { .. } | Shape::Outline { .. } | Shape::Place { .. } => None,
    })
}

/// House: nobody keeps the distances of more holes than these.
const HOLES_MOST: usize = 6;

/// Each two of the holes of a face.
pub(crate) fn hole_pairs(of: &FacePlan) -> Vec<HolePair> {
    let holes: Vec<(&str, At, f64)> = round_holes(of).take(HOLES_MOST).collect();
    let mut pairs = Vec::new();
    for (at, (name, middle, radius)) in holes.iter().enumerate() {
        for (other, there, far) in &holes[at + 1..] {
            let Some(way) = middle.toward(*there) else { continue };
            let between = (middle.along(way, *radius), there.along(way, -far));
            pairs.push(HolePair { names: format!("{name} and {other}"), between });
        }
    }
    pairs
}
