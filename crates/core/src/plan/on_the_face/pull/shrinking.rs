//! How much the seams of a way shrink across themselves, and where one of them gives.

use super::super::part::FlatFace;
use crate::body::{Shrinks, shrink_mm};
use crate::iron::Iron;
use crate::plan::Plan;
use crate::stage::{LayerStrip, SeamStrip};

/// The seams of a way that is laid in beads.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Shrinking {
    /// Where iron or filler gives, in MPa.
    pub gives_mpa: f64,
    pub peened: bool,
    /// Letter of each seam, and how much it shrinks, in mm.
    pub seams: Vec<(String, f64)>,
}

/// House: of the iron's strength, what brings it to give.
const IRON_GIVES: f64 = 0.8;
/// Of a rod of iron, of what the casting stands.
const IRON_ROD_GIVES: f64 = 0.5;
/// Ours: a seam of one of the first few; each asks for a mesh.
const SEAMS_MOST: usize = 4;

impl Shrinking {
    /// Of the way a plan is made for; nothing where nothing is laid in beads on this face.
    pub fn of(plan: &Plan, flat: &FlatFace<'_>) -> Option<Self> {
        let (way, torch) = (plan.methods.chosen?, plan.torch.as_ref()?);
        let (arc, beads) = (way.method.entry().arc?, torch.beads.as_ref()?);
        let (wall_mm, iron) = (flat.piece.wall_mm, &flat.piece.iron);
        let gives_mpa = way
            .method
            .filler(wall_mm, flat.iron == Iron::Ductile)
            .map_or(iron.tensile_mpa, |filler| filler.yield_mpa.unwrap_or(IRON_ROD_GIVES * iron.tensile_mpa))
            .min(IRON_GIVES * iron.tensile_mpa);
        let peened = torch.peen;
        let strips = beads.seams.iter().filter(|strip| flat.letters.contains(&strip.letter));
        let seams: Vec<(String, f64)> = strips
            .take(SEAMS_MOST)
            .map(|strip| {
                let planned = plan.prep.iter().flat_map(|prep| &prep.seams);
                let travel = planned.filter(|it| it.letter == strip.letter).find_map(|it| it.travel_mm_s);
                let joules_a_mm = arc.joules_a_mm(wall_mm, way.school, travel);
                let shrinks = Shrinks { joules_a_mm, passes: passes(strip), peened };
                (strip.letter.clone(), shrink_mm(iron, wall_mm, shrinks))
            })
            .collect();
        (!seams.is_empty()).then_some(Self { gives_mpa, peened, seams })
    }
}

/// Beads in the same cross-section.
fn passes(strip: &SeamStrip) -> u32 {
    let beside = |layer: &LayerStrip| layer.beads.iter().map(|bead| bead.at.beside).max().unwrap_or(1);
    strip.layers.iter().map(beside).sum::<u32>().max(1)
}
