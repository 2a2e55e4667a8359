//! What lies on a face: every mark is a thing of the trade with its dimensions.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::{At, FACE_MOST_MM, crosses_itself, length_mm};
use crate::base::choice::choice;
use crate::base::problem::{FieldProblem, OutOfRange};
use crate::quantity::WallMillimetres;

choice! {
    /// What a mark is on the iron. Cracks, hard spots and what must stay cool are facts of their own.
    pub enum MarkKind {
        BoltHole = "bolt_hole", "bolt hole";
        Bore = "bore", "bore";
        MachinedEdge = "machined_edge", "machined edge";
        MissingPiece = "missing_piece", "missing piece";
        /// Where the temperature is read.
        ReadingPlace = "reading_place", "reading place";
        OldFiller = "old_filler", "old filler";
        /// On the broken face of a full break: dark, rusty, oily or painted.
        OldFracture = "old_fracture", "old fracture";
        /// A bore, hole, thread, flat or slot that has to be as it was.
        Feature = "feature", "size to keep";
        /// Cut out of the face: a window, a slot.
        Opening = "opening", "opening";
        /// A boss, a hub, the root of a rib: thicker than the wall round it.
        ThickPlace = "thick_place", "thick place";
    }
}

/// What lies on a face and is a fact of its own.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum OwnThing {
    Crack,
    HardSpot,
    /// What must stay cool.
    Neighbour,
}

/// What lies on a face: a mark of some kind, or a thing of its own.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(untagged)]
pub enum OnFace {
    Mark(MarkKind),
    Own(OwnThing),
}

impl OnFace {
    /// Everything that can be put on a face, marks first.
    pub fn all() -> impl Iterator<Item = Self> {
        let own = [OwnThing::Crack, OwnThing::HardSpot, OwnThing::Neighbour];
        MarkKind::all().map(Self::Mark).chain(own.into_iter().map(Self::Own))
    }

    /// What it is called where it is put.
    #[must_use]
    pub fn label(self) -> &'static str {
        match self {
            Self::Mark(kind) => kind.label(),
            Self::Own(OwnThing::Crack) => "crack",
            Self::Own(OwnThing::HardSpot) => "hard spot",
            Self::Own(OwnThing::Neighbour) => "must stay cool",
        }
    }

    pub const HARD_SPOT: Self = Self::Own(OwnThing::HardSpot);
    pub const NEIGHBOUR: Self = Self::Own(OwnThing::Neighbour);
}

impl MarkKind {
    /// A crack can run into it, and nothing is drilled near it.
    #[must_use]
    pub fn is_hole(self) -> bool {
        matches!(self, Self::BoltHole | Self::Bore)
    }
}

/// A point of a line, with the wall there where it was measured.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Vertex {
    pub x_mm: f64,
    pub y_mm: f64,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wall_mm: Option<f64>,
}

impl Vertex {
    #[must_use]
    pub fn at(&self) -> At {
        At::new(self.x_mm, self.y_mm)
    }
}

/// Where something lies on a face.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Shape {
    /// A crack, a machined edge, old filler.
    Line { points: Vec<Vertex> },
    /// A hole, a hard spot.
    Circle { x_mm: f64, y_mm: f64, radius_mm: f64 },
    /// A missing piece, the outline of a face.
    Outline { points: Vec<At> },
    /// Where the temperature is read, where something must stay cool.
    Place { x_mm: f64, y_mm: f64 },
}

/// What sort of shape a thing is drawn as.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DrawnAs {
    Line,
    Circle,
    Outline,
    Place,
}

impl DrawnAs {
    pub fn of(shape: &Shape) -> Self {
        match shape {
            Shape::Line { .. } => Self::Line,
            Shape::Circle { .. } => Self::Circle,
            Shape::Outline { .. } => Self::Outline,
            Shape::Place { .. } => Self::Place,
        }
    }
}

choice! {
    /// An edge of a face from which places are measured.
    pub enum FaceEdge {
        Left = "left", "Left edge";
        Right = "right", "Right edge";
        Top = "top", "Top edge";
        Bottom = "bottom", "Bottom edge";
    }
}

/// Points of one shape. Ours: a traced crack has some dozens.
pub const POINTS_MOST: usize = 2_000;
/// A crack under this is a scratch. Ours.
pub const LINE_LEAST_MM: f64 = 0.5;

impl Shape {
    /// Its points, in order.
    #[must_use]
    pub fn points(&self) -> Vec<At> {
        match self {
            Self::Line { points } => points.iter().map(Vertex::at).collect(),
            Self::Outline { points } => points.clone(),
            Self::Circle { x_mm, y_mm, .. } | Self::Place { x_mm, y_mm } => vec![At::new(*x_mm, *y_mm)],
        }
    }

    /// The same with lengths typed for one of its points, counted from 0: `x` and `y` where it lies, `wall`
    /// the wall there, `from_before` how far from the point before it, `across` a circle's diameter. What
    /// was emptied is left, but for a wall: that is not known. Nothing where there is no such point.
    #[must_use]
    pub fn with_point(&self, point: usize, typed: &BTreeMap<String, Option<f64>>) -> Option<Self> {
        let mm = |name: &str| typed.get(name).copied().flatten();
        let moved = |at: At| At::new(mm("x").unwrap_or(at.x_mm), mm("y").unwrap_or(at.y_mm));
        let follows = |points: &[At]| -> Option<At> {
            let at = moved(*points.get(point)?);
            let Some(long) = mm("from_before") else { return Some(at) };
            let before = *points.get(point.checked_sub(1)?)?;
            Some(before.along(before.toward(at)?, long))
        };
        let mut shape = self.clone();
        match &mut shape {
            Self::Line { points } => {
                let at = follows(&points.iter().map(Vertex::at).collect::<Vec<_>>())?;
                let vertex = points.get_mut(point)?;
                (vertex.x_mm, vertex.y_mm) = (at.x_mm, at.y_mm);
                if let Some(wall) = typed.get("wall") {
                    vertex.wall_mm = *wall;
                }
            }
            Self::Outline { points } => {
                let at = follows(points)?;
                *points.get_mut(point)? = at;
            }
            Self::Circle { x_mm, y_mm, radius_mm } => {
                let at = moved(At::new(*x_mm, *y_mm));
                (*x_mm, *y_mm) = (at.x_mm, at.y_mm);
                *radius_mm = mm("across").map_or(*radius_mm, |across| across / 2.0);
            }
            Self::Place { x_mm, y_mm } => {
                let at = moved(At::new(*x_mm, *y_mm));
                (*x_mm, *y_mm) = (at.x_mm, at.y_mm);
            }
        }
        (point < self.points().len()).then_some(shape)
    }

    /// Whether it can lie on any face.
    ///
    /// # Errors
    /// At `points`, `x_mm`, `wall_mm` or `radius_mm`: too many points, one that lies nowhere, a line of no
    /// length, an outline that crosses itself.
    pub fn possible(&self) -> Result<(), FieldProblem> {
        let place = |field: &str, at: At| {
            for mm in [at.x_mm, at.y_mm] {
                OutOfRange::check("a place on a face", "mm", (-FACE_MOST_MM, FACE_MOST_MM), mm)
                    .map_err(|out| out.at(field))?;
            }
            Ok(())
        };
        let points = self.points();
        if points.len() > POINTS_MOST {
            let message = format!("{} points are more than a line has", points.len());
            return Err(FieldProblem::new("points", message, format!("up to {POINTS_MOST} points")));
        }
        for (at, point) in points.iter().enumerate() {
            place(&format!("points[{at}]"), *point)?;
        }
        match self {
            Self::Line { points: vertices } => {
                for (at, vertex) in vertices.iter().enumerate() {
                    if let Some(wall) = vertex.wall_mm {
                        let field = format!("points[{at}].wall_mm");
                        WallMillimetres::new(wall).map_err(|out| out.at(&field))?;
                    }
                }
                if vertices.len() < 2 || length_mm(&points) < LINE_LEAST_MM {
                    let right = "two places, at least 0.5 mm apart";
                    return Err(FieldProblem::new("points", "a crack of no length is none", right));
                }
            }
            Self::Outline { .. } => {
                if points.len() < 3 {
                    let right = "at least three corners";
                    return Err(FieldProblem::new("points", "that encloses nothing", right));
                }
                if let Some((first, second)) = crosses_itself(&points) {
                    let message =
                        format!("the outline crosses itself: its sides {} and {}", first + 1, second + 1);
                    return Err(FieldProblem::new(
                        "points",
                        message,
                        "corners in the order one walks round it",
                    ));
                }
                if super::area_mm2(&points) < 1.0 {
                    return Err(FieldProblem::new(
                        "points",
                        "that encloses nothing",
                        "corners not on one line",
                    ));
                }
            }
            Self::Circle { radius_mm, .. } => {
                OutOfRange::check("a radius", "mm", (0.25, FACE_MOST_MM / 2.0), *radius_mm)
                    .map_err(|out| out.at("radius_mm"))?;
            }
            Self::Place { .. } => {}
        }
        Ok(())
    }
}

/// A mark drawn on a face: its whole shape there, or that it is no longer there.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Drawn {
    /// The crack, hard spot, neighbour or mark; the face itself for its outline.
    pub mark: Uuid,
    pub face: Uuid,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shape: Option<Shape>,
}

/// Where a flame begins on a drawn face.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FlamePlace {
    pub face: Uuid,
    /// Its middle, in mm.
    pub at: At,
    /// Swept over the whole part, not held there.
    #[serde(default)]
    pub swept: bool,
}

/// What stands drawn on a face.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Placed {
    pub mark: Uuid,
    pub face: Uuid,
    pub shape: Shape,
    /// The round in which it was drawn so, from 1.
    pub in_round: usize,
    pub revision: u64,
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    fn line(points: &[(f64, f64)]) -> Shape {
        let vertex = |&(x_mm, y_mm): &(f64, f64)| Vertex { x_mm, y_mm, wall_mm: None };
        Shape::Line { points: points.iter().map(vertex).collect() }
    }

    fn outline(points: &[(f64, f64)]) -> Shape {
        Shape::Outline { points: points.iter().map(|&(x, y)| At::new(x, y)).collect() }
    }

    #[rstest]
    #[case::of_no_length(line(&[(5.0, 5.0), (5.0, 5.0)]), "points")]
    #[case::one_point(line(&[(5.0, 5.0)]), "points")]
    #[case::nowhere(line(&[(5.0, f64::NAN), (9.0, 5.0)]), "points[0]")]
    #[case::forty_metres_off(line(&[(5.0, 5.0), (40_000.0, 5.0)]), "points[1]")]
    #[case::ten_thousand_points(line(&vec![(5.0, 5.0); 10_000]), "points")]
    #[case::a_bow_tie(outline(&[(0.0, 0.0), (10.0, 10.0), (10.0, 0.0), (0.0, 10.0)]), "points")]
    #[case::all_on_a_line(outline(&[(0.0, 0.0), (10.0, 0.0), (20.0, 0.0)]), "points")]
    #[case::no_wall(
        Shape::Line { points: vec![
            Vertex { x_mm: 0.0, y_mm: 0.0, wall_mm: Some(0.0) },
            Vertex { x_mm: 9.0, y_mm: 0.0, wall_mm: None },
        ] },
        "points[0].wall_mm"
    )]
    #[case::no_radius(Shape::Circle { x_mm: 5.0, y_mm: 5.0, radius_mm: 0.0 }, "radius_mm")]
    fn what_cannot_lie_on_a_face_is_refused_at_its_place(#[case] shape: Shape, #[case] field: &str) {
        assert_eq!(shape.possible().unwrap_err().field, field);
    }

    #[test]
    fn what_is_typed_moves_one_point() {
        let typed = |values: &[(&str, Option<f64>)]| {
            values.iter().map(|(name, mm)| ((*name).to_owned(), *mm)).collect::<BTreeMap<_, _>>()
        };
        let bent = line(&[(0.0, 0.0), (30.0, 40.0), (90.0, 40.0)]);
        let moved = |point, values: &[(&str, Option<f64>)]| bent.with_point(point, &typed(values));
        assert_eq!(moved(2, &[("y", Some(50.0))]), Some(line(&[(0.0, 0.0), (30.0, 40.0), (90.0, 50.0)])));
        // Twice as far in the same direction.
        let far = moved(1, &[("from_before", Some(100.0))]).unwrap().points()[1];
        assert!(far.distance_mm(At::new(60.0, 80.0)) < 1e-9);
        assert_eq!(moved(0, &[("from_before", Some(10.0))]), None, "nothing lies before it");
        assert_eq!(moved(3, &[("x", Some(1.0))]), None);
        let walled = moved(1, &[("wall", Some(12.0))]).unwrap();
        assert_eq!(walled.with_point(1, &typed(&[("wall", None)])), Some(bent.clone()));
        let hole = Shape::Circle { x_mm: 10.0, y_mm: 10.0, radius_mm: 4.0 };
        let wider = hole.with_point(0, &typed(&[("across", Some(13.0))]));
        assert_eq!(wider, Some(Shape::Circle { x_mm: 10.0, y_mm: 10.0, radius_mm: 6.5 }));
    }

    #[rstest]
    #[case::the_shortest(line(&[(5.0, 5.0), (5.5, 5.0)]))]
    #[case::walked_round_the_other_way(outline(&[(0.0, 0.0), (0.0, 10.0), (10.0, 10.0)]))]
    #[case::at_the_rim(Shape::Place { x_mm: 0.0, y_mm: -3.0 })]
    fn what_can_is_taken(#[case] shape: Shape) {
        assert_eq!(shape.possible(), Ok(()));
    }
}
