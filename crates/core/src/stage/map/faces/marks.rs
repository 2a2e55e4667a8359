//! Marks, holes, tacks and punches of a face.

use uuid::Uuid;

use super::{HoleOnFace, MapInputs, MarkOnFace, TackOnFace, Unplaced};
use crate::crack::said::CrackFate;
use crate::field::{mark, neighbour};
use crate::map::{At, MarkKind, OnFace, OwnThing, Placed, Shape, bounds, length_mm, place_along, tacks_mm};
use crate::quantity::Unit;
use crate::stage::cracks::mark_name;

impl MapInputs<'_> {
    pub(super) fn marks(&self, at: usize) -> Vec<MarkOnFace> {
        let face = self.laid.faces[at].face.id;
        let round = self.round();
        let here = round.drawn.iter().filter(|placed| placed.face == face && placed.mark != face);
        here.filter_map(|placed| self.mark(placed)).collect()
    }

    pub(super) fn mark(&self, placed: &Placed) -> Option<MarkOnFace> {
        let round = self.round();
        let (what, name) = if let Some(mark) = round.marks.iter().find(|mark| mark.id == placed.mark) {
            (OnFace::Mark(mark.what), mark_name(round, mark))
        } else if let Some(spot) = round.hard_spots.iter().find(|spot| spot.id == placed.mark) {
            (OnFace::HARD_SPOT, format!("hard spot, {}", spot.spot))
        } else {
            let of = round.neighbours.iter().find(|neighbour| neighbour.id == placed.mark)?;
            let what = round.get(neighbour::WHAT.of(of.id)).unwrap_or("what must stay cool");
            (OnFace::NEIGHBOUR, what.to_owned())
        };
        let words = match &placed.shape {
            Shape::Circle { radius_mm, .. } => format!("{} across", self.say(2.0 * radius_mm)),
            Shape::Line { .. } => self.say(length_mm(&placed.shape.points())),
            Shape::Outline { .. } | Shape::Place { .. } => String::new(),
        };
        let thick =
            round.get(mark::THICKNESS.of(placed.mark)).filter(|_| what == OnFace::Mark(MarkKind::ThickPlace));
        let words = match thick {
            Some(mm) => format!("{words}, {} thick", self.say(mm)),
            None => words,
        };
        let (left, top, right, bottom) = bounds(&placed.shape.points())?;
        let middle = At::new((left + right) / 2.0, (top + bottom) / 2.0);
        Some(MarkOnFace { id: placed.mark, what, name, shape: placed.shape.clone(), middle, words })
    }

    pub(super) fn holes(&self, at: usize) -> Vec<HoleOnFace> {
        let face = self.laid.faces[at].face.id;
        let mut holes = Vec::new();
        let pinned = self.prep.is_some_and(|prep| prep.pins > 0);
        // Where pins are set the end pin stops the crack.
        for plan in self.cracks.iter().filter(|plan| !pinned || plan.becomes != CrackFate::Repair) {
            for end in &plan.ends {
                let (Some(hole), Some(place)) = (&end.stop_hole, &end.at) else { continue };
                let Some(middle) = place.hole.filter(|_| place.face == face) else { continue };
                holes.push(HoleOnFace {
                    crack: plan.id,
                    side: end.side.clone(),
                    tip: place.tip,
                    at: middle,
                    drill_mm: hole.drill_mm,
                    words: format!("{}, {}", plan.letter, self.units.say(hole.drill_mm, Unit::Drill)),
                    measured: place.measured.clone(),
                    drilled: end.drilled,
                    uncertain: hole.find_tip_better,
                });
            }
        }
        holes
    }

    pub(super) fn tacks(&self, at: usize) -> Vec<TackOnFace> {
        let mut tacks = Vec::new();
        for plan in self.cracks.iter().filter(|plan| plan.full_break && plan.becomes == CrackFate::Repair) {
            let Some(laid) = self.laid.cracks.get(&plan.id) else { continue };
            let mut number = 0;
            for line in &laid.lines {
                for along_mm in tacks_mm(&line.points) {
                    number += 1;
                    if line.face == at {
                        let place = place_along(&line.points, along_mm);
                        tacks.extend(place.map(|at| TackOnFace { crack: plan.id, at, number }));
                    }
                }
            }
        }
        tacks
    }

    pub(super) fn punches(&self, at: usize) -> Vec<At> {
        let face = self.laid.faces[at].face.id;
        let ends = self.cracks.iter().flat_map(|plan| &plan.ends).filter_map(|end| end.at.as_ref());
        ends.filter(|place| place.face == face).filter_map(|place| place.punch).collect()
    }

    pub(super) fn unplaced(&self) -> Vec<Unplaced> {
        let round = self.round();
        let placed = |id: Uuid| {
            round.drawn.iter().any(|placed| {
                placed.mark == id && self.laid.faces.iter().any(|face| face.face.id == placed.face)
            })
        };
        let cracks = round
            .cracks
            .iter()
            .map(|crack| (crack.id, OnFace::Own(OwnThing::Crack), format!("crack {}", crack.letter)));
        let spots = round
            .hard_spots
            .iter()
            .map(|spot| (spot.id, OnFace::HARD_SPOT, format!("hard spot at {}", spot.spot)));
        let beside = round.neighbours.iter().map(|of| {
            let what = round.get(neighbour::WHAT.of(of.id)).unwrap_or("what must stay cool");
            (of.id, OnFace::NEIGHBOUR, what.to_owned())
        });
        let marks = round.marks.iter().map(|mark| (mark.id, OnFace::Mark(mark.what), mark_name(round, mark)));
        cracks
            .chain(spots)
            .chain(beside)
            .chain(marks)
            .filter(|(id, ..)| !placed(*id))
            .map(|(id, what, words)| Unplaced { id, what, words })
            .collect()
    }
}
