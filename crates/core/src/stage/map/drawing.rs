//! A face as a drawing at 1:1: a layer for each kind of mark, and a ruler.

use super::faces::{FacePlan, LineOnFace};
use crate::map::{At, Drawing, Layer, MarkKind, OnFace, Shape, Stroke, bounds, length_mm, place_along};

impl FacePlan {
    /// Marks of these sorts, as they are drawn.
    fn shapes(&self, what: &[OnFace]) -> Vec<Stroke> {
        let marks = self.marks.iter().filter(|mark| what.contains(&mark.what));
        marks
            .map(|mark| match &mark.shape {
                Shape::Circle { x_mm, y_mm, radius_mm } => {
                    Stroke::Circle { middle: At::new(*x_mm, *y_mm), radius_mm: *radius_mm }
                }
                // A place is a small ring.
                Shape::Place { x_mm, y_mm } => {
                    Stroke::Circle { middle: At::new(*x_mm, *y_mm), radius_mm: 2.0 }
                }
                Shape::Line { .. } => Stroke::Line { points: mark.shape.points(), closed: false },
                Shape::Outline { points } => Stroke::Line { points: points.clone(), closed: true },
            })
            .collect()
    }

    /// The face at 1:1, to be wrapped on, cut or engraved.
    #[must_use]
    pub fn drawing(&self, job: &str) -> Drawing {
        let line = |points: &[At], closed: bool| Stroke::Line { points: points.to_vec(), closed };
        let stroke = |at: At, (dx, dy): (f64, f64), reach: f64| {
            line(&[at.along((dx, dy), -reach), at.along((dx, dy), reach)], false)
        };
        let layer = |name, width_mm, dashes_mm, strokes| Layer { name, width_mm, dashes_mm, strokes };
        let here = || self.lines.iter().filter(|line| !line.from_behind);
        let shapes = |what: &[OnFace]| self.shapes(what);
        let along = |what: fn(&LineOnFace) -> &Vec<At>, closed: bool| -> Vec<Stroke> {
            here().map(what).filter(|points| points.len() > 1).map(|points| line(points, closed)).collect()
        };
        let middles = self.holes.iter().flat_map(|hole| {
            let reach = hole.drill_mm / 2.0 + 3.0;
            let rim = Stroke::Circle { middle: hole.at, radius_mm: hole.drill_mm / 2.0 };
            [rim, stroke(hole.at, (1.0, 0.0), reach), stroke(hole.at, (0.0, 1.0), reach)]
        });
        let letters = here().filter_map(|line| {
            let at = place_along(&line.points, length_mm(&line.points) / 2.0)?;
            Some(Stroke::Words { at: At::new(at.x_mm + 3.0, at.y_mm - 4.0), text: line.letter.clone() })
        });
        let drills = self.holes.iter().map(|hole| {
            let at = At::new(hole.at.x_mm + hole.drill_mm / 2.0 + 2.0, hole.at.y_mm - 2.0);
            Stroke::Words { at, text: hole.words.clone() }
        });
        // What cannot go in is not drilled.
        let pins = self.pins.iter().filter(|pin| pin.why_not.is_empty()).flat_map(|pin| {
            let rim = Stroke::Circle { middle: pin.at, radius_mm: pin.across_mm / 2.0 };
            [rim, stroke(pin.at, (1.0, 0.0), 1.5), stroke(pin.at, (0.0, 1.0), 1.5)]
        });
        let locks = self.locks.iter().map(|lock| line(&[lock.from, lock.to], false));
        let punches =
            self.punches.iter().flat_map(|at| [stroke(*at, (0.7, 0.7), 2.0), stroke(*at, (0.7, -0.7), 2.0)]);
        let tacks = self.tacks.iter().map(|tack| Stroke::Circle { middle: tack.at, radius_mm: 2.5 });
        let (left, bottom) = bounds(self.rims.iter().flatten().chain(here().flat_map(|line| &line.points)))
            .map_or((0.0, 0.0), |(left, _, _, bottom)| (left, bottom));
        let ruler = check_ruler(At::new(left, bottom + 14.0));
        Drawing {
            title: format!("{job}, {}", self.name),
            layers: vec![
                layer("OUTLINE", 0.5, None, self.rims.iter().map(|rim| line(rim, true)).collect()),
                layer("CRACKS", 0.7, None, along(|line| &line.points, false)),
                layer("WITNESS", 0.25, Some((4.0, 2.0)), along(|line| &line.witness, false)),
                layer("STOP_HOLES", 0.35, None, middles.collect()),
                layer("PINS", 0.35, None, pins.collect()),
                layer("LOCKS", 0.7, None, locks.collect()),
                layer("GROOVE", 0.25, None, along(|line| &line.groove, true)),
                layer("MARGIN", 0.18, Some((2.0, 2.0)), along(|line| &line.margin, true)),
                layer("HOLES", 0.35, None, shapes(&[MarkKind::BoltHole, MarkKind::Bore].map(OnFace::Mark))),
                layer("MACHINED_EDGES", 0.5, None, shapes(&[OnFace::Mark(MarkKind::MachinedEdge)])),
                layer("HARD_SPOTS", 0.35, Some((1.0, 1.0)), shapes(&[OnFace::HARD_SPOT])),
                layer("MISSING", 0.35, Some((4.0, 2.0)), shapes(&[OnFace::Mark(MarkKind::MissingPiece)])),
                layer("THICK_PLACES", 0.25, Some((6.0, 2.0)), shapes(&[OnFace::Mark(MarkKind::ThickPlace)])),
                layer("OLD_FRACTURE", 0.25, Some((2.0, 1.0)), shapes(&[OnFace::Mark(MarkKind::OldFracture)])),
                layer("OLD_FILLER", 0.35, Some((1.0, 1.0)), shapes(&[OnFace::Mark(MarkKind::OldFiller)])),
                layer(
                    "PLACES",
                    0.25,
                    None,
                    shapes(&[
                        OnFace::Mark(MarkKind::ReadingPlace),
                        OnFace::NEIGHBOUR,
                        OnFace::Mark(MarkKind::Feature),
                    ]),
                ),
                layer("TACKS", 0.25, None, tacks.collect()),
                layer("PUNCH_MARKS", 0.35, None, punches.collect()),
                layer("WORDS", 0.25, None, letters.chain(drills).collect()),
                layer("CHECK_RULER", 0.25, None, ruler),
            ],
        }
    }
}

/// A ruler that proves the scale of what was printed: 100 mm, a tick each 10.
fn check_ruler(from: At) -> Vec<Stroke> {
    /// House: how long the ruler is that proves the scale.
    const LONG_MM: f64 = 100.0;
    let line = |a: At, b: At| Stroke::Line { points: vec![a, b], closed: false };
    let mut strokes = vec![line(from, from.along((1.0, 0.0), LONG_MM))];
    strokes.extend((0..=10).map(|tick| {
        let at = from.along((1.0, 0.0), f64::from(tick) * 10.0);
        line(at, at.along((0.0, -1.0), if tick % 5 == 0 { 5.0 } else { 3.0 }))
    }));
    let text = "100 mm: measure it, then the rest is to scale".to_owned();
    strokes.push(Stroke::Words { at: from.along((0.0, 1.0), 6.0), text });
    strokes
}
