//! Where the next beads lie on the map.

use serde::Serialize;
use uuid::Uuid;

use super::BeadsPlan;
use crate::map::{At, length_mm, part_of, serialize_drawn};
use crate::stage::map::MapPlan;

/// A bead as it lies on a face.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BeadOnFace {
    pub face: Uuid,
    /// From where it begins to where it ends.
    #[serde(serialize_with = "serialize_drawn")]
    pub points: Vec<At>,
}

/// Ours: as many as may wait here for a server that is gone.
const SHOWN: usize = 8;

/// Lays the next beads on the faces where their cracks are drawn. A crack that runs over an edge is left out: where on
/// which face a bead of it lies nobody has measured.
pub(super) fn lay_on_map(beads: &mut BeadsPlan, map: &MapPlan) {
    for bead in beads.ahead.iter_mut().take(SHOWN) {
        let mut drawn = map.faces.iter().flat_map(|face| {
            let lines = face.lines.iter().filter(|line| line.crack == bead.at.crack && !line.from_behind);
            lines.map(|line| (face.id, line))
        });
        let (Some((face, line)), None) = (drawn.next(), drawn.next()) else { continue };
        let Some(seam) = beads.seams.iter().find(|seam| seam.crack == bead.at.crack) else { continue };
        // It was measured along the crack; on the map it is drawn to scale as well as it was drawn.
        let scale = length_mm(&line.points) / seam.length_mm.max(1.0);
        let points = part_of(&line.points, bead.from_mm * scale, bead.to_mm * scale);
        if points.len() > 1 {
            bead.on_map.push(BeadOnFace { face, points });
        }
    }
}
