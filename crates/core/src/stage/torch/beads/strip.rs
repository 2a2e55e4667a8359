//! A seam from its first end to its last, each bead where it lies.

use super::{BeadsInputs, LayerStrip, SeamStrip, StripBead};
use crate::heat::{BeadPlace, PastBead, PlannedBead};

impl BeadsInputs<'_> {
    /// A bead as it stands on the strip.
    fn strip_bead(
        &self,
        place: BeadPlace,
        (from_mm, to_mm): (f64, f64),
        ahead: &[PlannedBead],
        laid: &[PastBead],
    ) -> StripBead {
        let laid_as = laid.iter().position(|it| it.place == place);
        let to_come = ahead.iter().position(|it| it.place == place);
        let number = laid_as.or(to_come.map(|at| laid.len() + at)).map_or(0, |at| at + 1);
        StripBead {
            beside: place.lane as u32 + 1,
            along: place.along as u32 + 1,
            from_mm,
            to_mm,
            number: number as u32,
            laid: laid_as.is_some(),
            leftward: to_come.is_some_and(|at| ahead[at].from_mm > ahead[at].to_mm),
        }
    }

    fn holes(&self, seam: usize, ahead: &[PlannedBead], laid: &[PastBead]) -> Vec<StripBead> {
        let of_it = |hole: &crate::heat::HoleOf| hole.seam == seam;
        let holes = self.seams().iter().enumerate();
        let holes = holes.filter_map(|(at, it)| Some((at, it.seam.hole_of.filter(of_it)?)));
        let bead = |(at, hole): (usize, crate::heat::HoleOf)| {
            let end_mm = if hole.last { self.seams()[seam].seam.length_mm } else { 0.0 };
            let place = BeadPlace { seam: at, pass: 0, lane: 0, along: 0 };
            self.strip_bead(place, (end_mm, end_mm), ahead, laid)
        };
        holes.map(bead).collect()
    }

    pub(super) fn strip(&self, seam: usize, ahead: &[PlannedBead], laid: &[PastBead]) -> SeamStrip {
        let of = &self.seams()[seam];
        let each_mm = of.seam.each_mm();
        let layer = |(pass, lanes): (usize, &crate::heat::BeadPass)| {
            let places = (0..lanes.offsets_mm.len()).flat_map(|lane| {
                (0..of.seam.along()).map(move |along| BeadPlace { seam, pass, lane, along })
            });
            let gone = |place: &BeadPlace| {
                let BeadPlace { pass, lane, along, .. } = *place;
                of.seam.left_out.contains(&crate::heat::LeftOut { pass, lane, along })
            };
            let bead = |place: BeadPlace| {
                let (from_mm, to_mm) = (place.along as f64 * each_mm, (place.along + 1) as f64 * each_mm);
                self.strip_bead(place, (from_mm, to_mm), ahead, laid)
            };
            let side = if lanes.side == 2 { ", far side" } else { "" };
            LayerStrip {
                layer: lanes.layer,
                side: lanes.side,
                words: format!("layer {}{side}", lanes.layer),
                beads: places.filter(|place| !gone(place)).map(bead).collect(),
            }
        };
        SeamStrip {
            crack: of.crack,
            letter: of.letter.clone(),
            length_mm: of.seam.length_mm,
            ends: of.ends.map(|end| end.map_or_else(String::new, |end| end.words().to_owned())),
            open: of.seam.closed.map(|closed| !closed),
            layers: of.seam.passes.iter().enumerate().map(layer).collect(),
            holes: self.holes(seam, ahead, laid),
        }
    }
}
