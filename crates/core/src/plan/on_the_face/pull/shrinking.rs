//! How much the seams of a way shrink across themselves, and where one of them gives.

use super::super::part::FlatFace;
use crate::body::{Shrinks, flame_shrink_mm, shrink_mm};
use crate::iron::Iron;
use crate::method::{ArcUse, Way};
use crate::plan::Plan;
use crate::shop::Shop;
use crate::stage::heat::net_flame;
use crate::stage::{LayerStrip, SeamStrip};

/// The seams of a way that joins them hot.
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
    /// Of the way a plan is made for; nothing where nothing is joined hot on this face.
    pub fn of(plan: &Plan, flat: &FlatFace<'_>, shop: &Shop) -> Option<Self> {
        let way = plan.methods.chosen?;
        let (wall_mm, iron) = (flat.piece.wall_mm, &flat.piece.iron);
        let gives_mpa = way
            .method
            .filler(wall_mm, flat.iron == Iron::Ductile)
            .map_or(iron.tensile_mpa, |filler| filler.yield_mpa.unwrap_or(IRON_ROD_GIVES * iron.tensile_mpa))
            .min(IRON_GIVES * iron.tensile_mpa);
        let peened = plan.torch.as_ref().is_some_and(|torch| torch.peen);
        let seams = match way.method.entry().arc {
            Some(arc) => in_beads((plan, way, arc), flat, peened)?,
            None if way.method.entry().joins.by_flame() => by_flame(plan, flat, shop)?,
            None => return None,
        };
        (!seams.is_empty()).then_some(Self { gives_mpa, peened, seams })
    }
}

fn in_beads(
    (plan, way, arc): (&Plan, Way, ArcUse),
    flat: &FlatFace<'_>,
    peened: bool,
) -> Option<Vec<(String, f64)>> {
    let (wall_mm, iron) = (flat.piece.wall_mm, &flat.piece.iron);
    let beads = plan.torch.as_ref()?.beads.as_ref()?;
    let strips = beads.seams.iter().filter(|strip| flat.letters.contains(&strip.letter));
    let seams = strips.take(SEAMS_MOST).map(|strip| {
        let planned = plan.prep.iter().flat_map(|prep| &prep.seams);
        let travel = planned.filter(|it| it.letter == strip.letter).find_map(|it| it.travel_mm_s);
        let joules_a_mm = arc.joules_a_mm(wall_mm, way.school, travel);
        let shrinks = Shrinks { joules_a_mm, passes: passes(strip), peened };
        (strip.letter.clone(), shrink_mm(iron, wall_mm, shrinks))
    });
    Some(seams.collect())
}

/// Filled with the flame that heats the part: its power as long as it is in the groove.
fn by_flame(plan: &Plan, flat: &FlatFace<'_>, shop: &Shop) -> Option<Vec<(String, f64)>> {
    let prep = plan.prep.as_ref()?;
    // Another source warms it: no flame in the groove puts in less than what counts.
    let net_w =
        plan.heat.as_ref().and_then(|heat| net_flame(heat, shop)).map_or(f64::INFINITY, |(net_w, _)| net_w);
    let (wall_mm, iron) = (flat.piece.wall_mm, &flat.piece.iron);
    let filled = prep.seams.iter().filter(|seam| flat.letters.contains(&seam.letter) && seam.length_mm > 0.0);
    let shrinks = filled.take(SEAMS_MOST).map(|seam| {
        let laid_s = prep.laying_min * 60.0 * seam.volume_cm3 / prep.volume_cm3.max(f64::MIN_POSITIVE);
        (seam.letter.clone(), flame_shrink_mm(iron, wall_mm, net_w * laid_s / seam.length_mm))
    });
    Some(shrinks.collect())
}

/// Beads in the same cross-section.
fn passes(strip: &SeamStrip) -> u32 {
    let beside = |layer: &LayerStrip| layer.beads.iter().map(|bead| bead.beside).max().unwrap_or(1);
    strip.layers.iter().map(beside).sum::<u32>().max(1)
}
