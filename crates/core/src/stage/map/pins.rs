//! Pins and locks as they are set along a crack on a face, and which of them cannot go where they should.

use serde::Serialize;
use uuid::Uuid;

use super::faces::{Clash, MapInputs, MarkOnFace};
use crate::map::{At, MarkKind, OnFace, Shape, inside, length_mm, nearest_rim, place_along};
use crate::quantity::Unit;
use crate::stage::SeamPlan;
use crate::stage::cracks::{FaceGeometry, LaidLine, OFF_HARD_SPOT_MM};

/// One pin on a face.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PinOnFace {
    pub crack: Uuid,
    /// From the first end of the crack, from 1.
    pub number: u32,
    /// The how-manieth to go in.
    pub turn: u32,
    pub at: At,
    pub across_mm: f64,
    /// It cannot go there, and why; empty where it can.
    pub why_not: String,
}

/// One lock, across the crack.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LockOnFace {
    pub crack: Uuid,
    pub from: At,
    pub to: At,
}

/// A place along a crack, carried on straight beyond its ends.
fn place(line: &LaidLine, along_mm: f64) -> Option<At> {
    let points = &line.points;
    let long = length_mm(points);
    let beyond = |tip: At, before: At, far: f64| {
        let step = tip.distance_mm(before);
        (step > 0.0).then(|| {
            let toward = ((tip.x_mm - before.x_mm) / step, (tip.y_mm - before.y_mm) / step);
            tip.along(toward, far)
        })
    };
    if along_mm < 0.0 {
        return beyond(*points.first()?, *points.get(1)?, -along_mm);
    }
    if along_mm > long {
        let last = points.len().checked_sub(1)?;
        return beyond(points[last], *points.get(last.checked_sub(1)?)?, along_mm - long);
    }
    place_along(points, along_mm)
}

/// Where the pins of a row go: the face, counted from 0, its number and its middle.
pub(crate) fn places(seam: &SeamPlan, geometry: &FaceGeometry<'_>) -> Vec<(usize, u32, At)> {
    if let Some(patch) = &seam.patch {
        let Some(at) = geometry.faces.iter().position(|face| face.face.id == patch.face) else {
            return Vec::new();
        };
        return (1..).zip(&patch.pins_at).map(|(number, middle)| (at, number, *middle)).collect();
    }
    let Some(crack) = geometry.cracks.get(&seam.id) else { return Vec::new() };
    let mut places = Vec::new();
    let last_line = crack.lines.len().saturating_sub(1);
    let mut begun_mm = 0.0;
    for (which, line) in crack.lines.iter().enumerate() {
        let long = length_mm(&line.points);
        for number in 1..=seam.pins {
            let along = f64::from(number - 1) * seam.pitch_mm + seam.first_pin_mm - begun_mm;
            let before = along < 0.0 && which > 0;
            let after = along > long && which < last_line;
            if let Some(middle) = place(line, along).filter(|_| !before && !after) {
                places.push((line.face, number, middle));
            }
        }
        begun_mm += long;
    }
    places
}

impl MapInputs<'_> {
    /// The pins that lie on this face: of each crack one beyond each tip, evenly along; round each patch.
    pub(super) fn pins(&self, at: usize, marks: &[MarkOnFace]) -> Vec<PinOnFace> {
        let mut pins = Vec::new();
        for seam in self.prep.into_iter().flat_map(|prep| &prep.seams).filter(|seam| seam.pins > 0) {
            let turn_of = |number: u32| {
                seam.pin_order.iter().position(|pin| *pin == number).map_or(number, |turn| turn as u32 + 1)
            };
            for (_, number, middle) in places(seam, self.laid).into_iter().filter(|(face, ..)| *face == at) {
                pins.push(PinOnFace {
                    crack: seam.id,
                    number,
                    turn: turn_of(number),
                    at: middle,
                    across_mm: seam.pin_mm,
                    why_not: self.why_not(at, marks, middle, seam.pin_mm),
                });
            }
        }
        pins
    }

    /// Why a pin cannot go there; empty where it can.
    fn why_not(&self, at: usize, marks: &[MarkOnFace], middle: At, pin_mm: f64) -> String {
        let radius = pin_mm / 2.0;
        for mark in marks {
            let Shape::Circle { x_mm, y_mm, radius_mm } = mark.shape else { continue };
            let apart = middle.distance_mm(At::new(x_mm, y_mm)) - radius_mm - radius;
            match mark.what {
                OnFace::HARD_SPOT if apart < OFF_HARD_SPOT_MM => {
                    return format!(
                        "{} is nearer than {}",
                        mark.name,
                        self.units.say_least(OFF_HARD_SPOT_MM, Unit::Millimetres)
                    );
                }
                OnFace::Mark(MarkKind::BoltHole | MarkKind::Bore) if apart < 0.0 => {
                    return format!("it would run into {}", mark.name);
                }
                _ => {}
            }
        }
        let rims = &self.laid.faces[at].rims;
        let Some(outer) = rims.first() else { return String::new() };
        let off = !inside(outer, middle) || rims.iter().skip(1).any(|hole| inside(hole, middle));
        if off {
            return "it would be off the iron".to_owned();
        }
        match nearest_rim(rims, middle) {
            // At an edge the crack runs out of the row ends with the iron: half a hole is none.
            Some((near, _)) if near < radius - 0.05 => "it would break out at the edge".to_owned(),
            _ => String::new(),
        }
    }

    /// Locks on this face, across the crack, evenly along it.
    pub(super) fn locks(&self, at: usize) -> Vec<LockOnFace> {
        let mut locks = Vec::new();
        for seam in self.prep.into_iter().flat_map(|prep| &prep.seams).filter(|seam| seam.locks > 0) {
            let Some(laid) = self.laid.cracks.get(&seam.id) else { continue };
            let all: f64 = laid.lines.iter().map(|line| length_mm(&line.points)).sum();
            let mut begun_mm = 0.0;
            for line in &laid.lines {
                let long = length_mm(&line.points);
                for lock in 0..seam.locks {
                    let along = all * (f64::from(lock) + 0.5) / f64::from(seam.locks) - begun_mm;
                    if line.face != at || !(0.0..=long).contains(&along) {
                        continue;
                    }
                    let (Some(before), Some(middle), Some(after)) = (
                        place(line, (along - 1.0).max(0.0)),
                        place(line, along),
                        place(line, (along + 1.0).min(long)),
                    ) else {
                        continue;
                    };
                    let step = before.distance_mm(after);
                    if step > 0.0 {
                        let across = (-(after.y_mm - before.y_mm) / step, (after.x_mm - before.x_mm) / step);
                        let half = seam.lock_mm / 2.0;
                        locks.push(LockOnFace {
                            crack: seam.id,
                            from: middle.along(across, -half),
                            to: middle.along(across, half),
                        });
                    }
                }
                begun_mm += long;
            }
        }
        locks
    }

    /// A crack by its letter, a patch by its name.
    fn row_name(&self, id: Uuid) -> &str {
        let seams = self.prep.into_iter().flat_map(|prep| &prep.seams);
        seams.into_iter().find(|seam| seam.id == id).map_or("", |seam| &seam.letter)
    }

    /// What is said of the pins that cannot go in, crack by crack.
    pub(super) fn pins_in_the_way(&self, pins: &[PinOnFace]) -> Vec<Clash> {
        let mut said: Vec<Clash> = Vec::new();
        for pin in pins.iter().filter(|pin| !pin.why_not.is_empty()) {
            let letter = self.row_name(pin.crack);
            let same = |other: &&PinOnFace| other.crack == pin.crack && other.why_not == pin.why_not;
            let numbers: Vec<String> = pins.iter().filter(same).map(|pin| pin.number.to_string()).collect();
            let pin_words = if numbers.len() == 1 { "Pin" } else { "Pins" };
            let sentence = format!(
                "{pin_words} {} of {letter} cannot go there: {}. Shift the row, or leave them out.",
                numbers.join(", "),
                pin.why_not
            );
            if !said.iter().any(|clash| clash.sentence == sentence) {
                said.push(Clash { at: pin.at, sentence });
            }
        }
        said
    }
}
