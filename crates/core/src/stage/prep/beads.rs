//! The seams as the order of beads sees them: passes, lanes, fronts, the heat of each bead.

use std::collections::BTreeSet;

use uuid::Uuid;

use super::along::layers_by_length;
use super::{PrepInputs, PrepPlan};
use crate::crack::said::CrackFate;
use crate::crack::said::EndKind;
use crate::heat::{BeadPass, BeadSeam, HoleOf, LeftOut, WallEnds, along_a_seam};
use crate::method::amps_at;
use crate::stage::cracks::CrackPlan;

/// A seam, and the crack it follows.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct SeamOfBeads {
    pub crack: Uuid,
    pub letter: String,
    /// At its first end and at its last; nothing while not known.
    pub ends: [Option<EndKind>; 2],
    pub seam: BeadSeam,
}

impl SeamOfBeads {
    /// Of a stop-hole: at which end of its crack, 1 or 2.
    pub fn hole(&self) -> Option<u32> {
        self.seam.hole_of.map(|hole| 1 + u32::from(hole.last))
    }
}

/// Every seam that is laid in beads with an arc; none for a flame, for pins, or where it is not known yet.
pub(crate) fn bead_seams(inputs: &PrepInputs<'_>, prep: &PrepPlan, preheat_c: f64) -> Vec<SeamOfBeads> {
    let way = inputs.way;
    let (Some(arc), Some(filling)) = (way.method.entry().arc, way.method.entry().filling) else {
        return Vec::new();
    };
    let of = |crack: &CrackPlan| -> Option<SeamOfBeads> {
        let planned = prep.seams.iter().find(|seam| seam.id == crack.id && seam.beads > 0)?;
        let (sides, by_length) = layers_by_length(inputs, crack, planned.length_mm)?;
        let width_mm = (filling.layer)(planned.wall_mm).1?;
        // As many layers, and as many beads beside each other, as at the deepest place of all.
        let most_layers = by_length.iter().map(Vec::len).max()?;
        let across =
            |layer: usize| by_length.iter().filter_map(|it| it.get(layer)).copied().max().unwrap_or(1);
        let mut passes = Vec::new();
        let mut left_out = BTreeSet::new();
        for layer in 0..most_layers {
            for side in 1..=sides {
                let lanes = across(layer);
                for lane in 0..lanes {
                    let shallow = |along: &usize| by_length[*along].get(layer).is_none_or(|n| *n <= lane);
                    let pass = passes.len();
                    let gone = (0..by_length.len()).filter(shallow);
                    left_out.extend(gone.map(|along| LeftOut { pass, lane: lane as usize, along }));
                }
                let offset = |lane: u32| (f64::from(lane) - (f64::from(lanes) - 1.0) / 2.0) * width_mm;
                passes.push(BeadPass {
                    layer: layer as u32 + 1,
                    side,
                    offsets_mm: (0..lanes).map(offset).collect(),
                });
            }
        }
        let thinnest = crack.walls.iter().map(|at| at.wall_mm).fold(planned.wall_mm, f64::min);
        let amps =
            amps_at(arc.usual_amps(planned.wall_mm, way.school), way.method.entry().setup.melts_c, preheat_c);
        let closed = |at: usize| !crack.ends.get(at).is_some_and(|end| end.kind == Some(EndKind::Edge));
        let closed = [closed(0), closed(1)];
        let ends = WallEnds {
            along: along_a_seam(planned.length_mm, closed, crack.free_edges.beyond_mm),
            across: crack.free_edges.across,
        };
        let end = |at: usize| crack.ends.get(at).and_then(|end| end.kind);
        Some(SeamOfBeads {
            crack: crack.id,
            letter: crack.letter.clone(),
            ends: [end(0), end(1)],
            seam: BeadSeam {
                length_mm: planned.length_mm,
                bead_mm: inputs.bead_mm,
                // Where it is thinnest a bead is felt the most.
                wall_mm: thinnest,
                closed,
                ends,
                passes,
                left_out,
                power_w: arc.efficiency * arc.volts * amps,
                travel_mm_s: planned.travel_mm_s.unwrap_or(arc.travel_mm_s),
                hole_of: None,
            },
        })
    };
    let mut seams: Vec<SeamOfBeads> =
        inputs.cracks.iter().filter(|crack| crack.becomes == CrackFate::Repair).filter_map(of).collect();
    let order = inputs.round.seams_in_order();
    // Those that are not named come last, as they are lettered.
    seams.sort_by_key(|seam| order.iter().position(|crack| *crack == seam.crack).unwrap_or(order.len()));
    let holes: Vec<SeamOfBeads> =
        seams.iter().enumerate().flat_map(|(at, seam)| holes(inputs, prep, (at, seam))).collect();
    seams.extend(holes);
    seams
}

/// The stop-holes of a seam, each one bead: as long as it takes to lay what the hole takes.
fn holes(inputs: &PrepInputs<'_>, prep: &PrepPlan, (at, of): (usize, &SeamOfBeads)) -> Vec<SeamOfBeads> {
    let crack = inputs.cracks.iter().find(|crack| crack.id == of.crack);
    let planned = prep.seams.iter().find(|seam| seam.id == of.crack);
    let Some((crack, planned)) = crack.zip(planned).filter(|(_, planned)| planned.hole_beads() > 0) else {
        return Vec::new();
    };
    let hole = |last: bool| {
        let end = crack.ends.get(usize::from(last))?;
        let drill_mm = end.stop_hole?.drill_mm;
        let laid_s = prep.laying_min * 60.0 * planned.holes_cm3[usize::from(last)] / prep.volume_cm3;
        let seam = BeadSeam {
            length_mm: drill_mm,
            bead_mm: drill_mm,
            wall_mm: end.wall_mm,
            closed: [true, true],
            ends: WallEnds::default(),
            passes: vec![BeadPass { layer: 1, side: 1, offsets_mm: vec![0.0] }],
            left_out: BTreeSet::new(),
            travel_mm_s: drill_mm / laid_s,
            hole_of: Some(HoleOf { seam: at, last }),
            power_w: of.seam.power_w,
        };
        (laid_s > 0.0).then(|| SeamOfBeads { seam, ..of.clone() })
    };
    [hole(false), hole(true)].into_iter().flatten().collect()
}
