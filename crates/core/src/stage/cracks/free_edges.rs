//! Where the face ends round a seam: a free edge throws its heat back.

use super::laid::{FaceGeometry, LaidCrack};
use crate::heat::{EDGE_FELT_WITHIN_MM, FreeEdges};
use crate::map::{At, goes_on_to, length_mm, place_along};

/// The rims of a drawn face near a seam, in mm; nothing where there is none within reach.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(crate) struct FreeEdgesNear {
    /// Straight on beyond its first end and its last.
    pub beyond_mm: [Option<f64>; 2],
    /// To the right of its middle and to the left, looking along it.
    pub across: FreeEdges,
}

impl FaceGeometry<'_> {
    /// Rims near a crack. One that runs over several faces has none beside it: there the iron goes on round the corner.
    ///
    /// # Source
    /// House: beside it the middle of the crack stands for all of it.
    pub(crate) fn free_edges(&self, crack: &LaidCrack) -> FreeEdgesNear {
        let beyond_mm = crack.ends.each_ref().map(|end| self.rim_mm(end.face, end.at, end.direction));
        let across = match &crack.lines[..] {
            [only] => self.beside(only.face, &only.points).unwrap_or_default(),
            _ => FreeEdges::default(),
        };
        FreeEdgesNear { beyond_mm, across }
    }

    fn beside(&self, face: usize, line: &[At]) -> Option<FreeEdges> {
        let long = length_mm(line);
        let (before, middle, after) =
            (place_along(line, 0.4 * long)?, place_along(line, 0.5 * long)?, place_along(line, 0.6 * long)?);
        let (dx, dy) = before.toward(after)?;
        // The face's y runs down: to the left of what runs to the right is up.
        let towards = |sign: f64| self.rim_mm(face, middle, (sign * dy, -sign * dx));
        Some(FreeEdges { less: towards(-1.0), more: towards(1.0) })
    }

    /// How far from a place a rim lies this way.
    fn rim_mm(&self, face: usize, from: At, direction: (f64, f64)) -> Option<f64> {
        let rim = goes_on_to(&self.faces[face].rims, from, direction, EDGE_FELT_WITHIN_MM)?;
        Some(rim.distance_mm(from))
    }
}
