//! What is drawn.

use uuid::Uuid;

use super::super::understood::lengths;
use super::{ChangeContext, Refusal, holds, refused};
use crate::base::problem::FieldProblem;
use crate::iron::TypedValues;
use crate::map::{Drawn, DrawnAs, MarkKind};
use crate::quantity::UnitSystem;

impl ChangeContext<'_> {
    pub(super) fn straightened(&self, face: Uuid, picture: Uuid) -> Result<(), Refusal> {
        self.on_a_face(face)?;
        let known = self.job.pictures.iter().any(|known| known.id == picture);
        holds(known, "picture", "that picture is no longer there", "another picture of the job")?;
        self.unless_changed("picture", "a picture laid another way", "a picture")
    }

    pub(super) fn drawn(&self, drawn: &[Drawn]) -> Result<(), Refusal> {
        for (at, it) in drawn.iter().enumerate() {
            self.on_a_face(it.face)?;
            self.fits(it).map_err(|message| {
                FieldProblem::new(format!("drawn[{at}].shape"), message, "as that thing is drawn")
            })?;
        }
        self.unless_changed("drawn", "drawn another way", "as it lies now")
    }

    pub(super) fn point_set(
        &self,
        (mark, face): (Uuid, Uuid),
        point: usize,
        typed: &TypedValues,
        shown_in: UnitSystem,
    ) -> Result<(), Refusal> {
        self.on_a_face(face)?;
        let Some(placed) = self.round.placed(mark, face) else {
            return refused("mark", "that is no longer on the map", "");
        };
        let read = lengths(typed, shown_in)?;
        let Some(shape) = placed.shape.with_point(point, &read) else {
            return refused("point", "there is no such point", "one that is drawn");
        };
        shape.possible()?;
        self.unless_changed("point", "typed another way", "as it lies now")
    }

    /// Whether a thing that is there can be drawn so.
    fn fits(&self, drawn: &Drawn) -> Result<(), &'static str> {
        let Drawn { mark, face, shape } = drawn;
        let Some(shape) = shape else { return Ok(()) };
        let round = self.round;
        let known = round.marks.iter().find(|known| known.id == *mark).map(|known| known.what);
        let wanted = if mark == face {
            DrawnAs::Outline
        } else if round.cracks.iter().any(|crack| crack.id == *mark) {
            DrawnAs::Line
        } else if round.hard_spots.iter().any(|spot| spot.id == *mark) {
            DrawnAs::Circle
        } else if round.neighbours.iter().any(|neighbour| neighbour.id == *mark) {
            DrawnAs::Place
        } else {
            match known {
                Some(MarkKind::BoltHole | MarkKind::Bore | MarkKind::ThickPlace) => DrawnAs::Circle,
                Some(MarkKind::MachinedEdge | MarkKind::OldFiller) => DrawnAs::Line,
                Some(MarkKind::MissingPiece | MarkKind::OldFracture | MarkKind::Opening) => DrawnAs::Outline,
                Some(MarkKind::ReadingPlace | MarkKind::Feature) => DrawnAs::Place,
                None => return Err("what is drawn is no longer there"),
            }
        };
        if wanted == DrawnAs::of(shape) { Ok(()) } else { Err("it is not drawn like that") }
    }
}
