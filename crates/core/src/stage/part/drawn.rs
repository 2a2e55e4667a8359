//! The faces as they are drawn: rims, holes and thick places; and which of them is the part itself.

use crate::map::OutlineKind;
use uuid::Uuid;

use super::facts::PartFacts;
use crate::body::{FlatBody, Hole, ThickPlace};
use crate::casting::shape::PartShape;
use crate::field::{face, mark};
use crate::iron::IronProperties;
use crate::job::{Face, Job, Mark, Round};
use crate::map::{At, MarkKind, Outline, Shape, inside};

/// House: a drawn face with its wall is the part where it weighs so much of what the part weighs.
const IS_THE_PART: (f64, f64) = (0.6, 1.7);

/// A drawn face that is the part.
#[derive(Debug, Clone, PartialEq)]
pub struct DrawnPart {
    pub face: Uuid,
    pub name: String,
    /// What it gives off heat by.
    pub surface_m2: f64,
}

/// The rims of a face: the outer one first, then what is cut out; none while its outline is not known.
pub(crate) fn rims(round: &Round, of: &Face) -> Vec<Vec<At>> {
    let number = |field: crate::field::FieldOfEach<crate::field::Number>| round.get(field.of(of.id));
    let drawn = || match &round.placed(of.id, of.id)?.shape {
        Shape::Outline { points } => Some(Outline::Drawn(points.clone())),
        _ => None,
    };
    let (across, down) = (number(face::ACROSS), number(face::DOWN));
    let outline = match round.get(face::OUTLINE.of(of.id)) {
        Some(OutlineKind::Rectangle) => {
            across.zip(down).map(|(across_mm, down_mm)| Outline::Rectangle { across_mm, down_mm })
        }
        Some(OutlineKind::Circle) => across.map(|across_mm| Outline::Circle { across_mm }),
        Some(OutlineKind::Ring) => {
            across.zip(number(face::BORE)).map(|(across_mm, bore_mm)| Outline::Ring { across_mm, bore_mm })
        }
        Some(OutlineKind::L) => across
            .zip(down)
            .zip(number(face::LEG).zip(number(face::FOOT)))
            .map(|((a, d), (leg_mm, foot_mm))| Outline::L { across_mm: a, down_mm: d, leg_mm, foot_mm }),
        Some(OutlineKind::Unrolled) => number(face::AROUND)
            .zip(down)
            .map(|(around_mm, down_mm)| Outline::Unrolled { around_mm, down_mm }),
        Some(OutlineKind::Drawn) | None => drawn(),
    };
    let mut rims = outline.map(|outline| outline.rims()).unwrap_or_default();
    // What is cut out of a face nobody has outlined is cut out of nothing.
    if !rims.is_empty() {
        let openings = round.marks.iter().filter(|mark| mark.what == MarkKind::Opening);
        rims.extend(openings.filter_map(|mark| match &round.placed(mark.id, of.id)?.shape {
            Shape::Outline { points } => Some(points.clone()),
            _ => None,
        }));
    }
    rims
}

/// Marks of a face that were drawn as circles: middle and radius.
pub(crate) fn circles(
    round: &Round,
    of: Uuid,
    is: impl Fn(MarkKind) -> bool,
) -> impl Iterator<Item = (&Mark, At, f64)> {
    round.marks.iter().filter(move |mark| is(mark.what)).filter_map(move |mark| {
        match round.placed(mark.id, of)?.shape {
            Shape::Circle { x_mm, y_mm, radius_mm } => Some((mark, At::new(x_mm, y_mm), radius_mm)),
            Shape::Line { .. } | Shape::Outline { .. } | Shape::Place { .. } => None,
        }
    })
}

/// A face as a flat body of such a wall, without its cracks; nothing while its outline is not known.
pub(crate) fn piece(round: &Round, of: &Face, iron: IronProperties, wall_mm: f64) -> Option<FlatBody> {
    let rims = rims(round, of);
    let (outline, cut_out) = rims.split_first()?;
    let within = |middle: At| inside(outline, middle) && !cut_out.iter().any(|rim| inside(rim, middle));
    let holes = circles(round, of.id, MarkKind::is_hole)
        .filter(|(_, middle, _)| within(*middle))
        .map(|(_, middle, radius_mm)| Hole::Round { middle, across_mm: 2.0 * radius_mm });
    let thick =
        circles(round, of.id, |kind| kind == MarkKind::ThickPlace).filter_map(|(mark, middle, radius_mm)| {
            let place = Hole::Round { middle, across_mm: 2.0 * radius_mm };
            Some(ThickPlace { place, wall_mm: round.get(mark::THICKNESS.of(mark.id))? })
        });
    Some(FlatBody {
        iron,
        outline: outline.clone(),
        holes: cut_out.iter().cloned().map(Hole::Outlined).chain(holes).collect(),
        wall_mm,
        thick: thick.collect(),
        cracks: Vec::new(),
    })
}

/// Why a face is no flat body that could be the part; nothing where it may be.
pub(crate) fn not_flat(round: &Round, of: Uuid, shape: Option<PartShape>) -> Option<&'static str> {
    if round.get(face::OUTLINE.of(of)) == Some(OutlineKind::Unrolled) {
        return Some("a bore laid flat is not flat");
    }
    (shape == Some(PartShape::HollowBox)).then_some("a hollow box is not flat")
}

/// What a face weighs with its wall, and whether that is what the part weighs, in kg.
pub(crate) fn weighs(piece: &FlatBody, part: &PartFacts) -> (f64, bool) {
    let kg = piece.volume_mm3() * piece.iron.density_kg_m3 / 1e9;
    let (low, high) = part.weight.as_ref().map_or((kg, kg), |weight| weight.range_kg());
    (kg, kg >= IS_THE_PART.0 * low && kg <= IS_THE_PART.1 * high)
}

/// The drawn face that is the part: of several the largest, of two sides of one wall the one that was drawn first.
pub(super) fn drawn_part(job: &Job, round: &Round, part: &PartFacts) -> Option<DrawnPart> {
    let (wall_mm, _) = part.wall_mm.zip(part.weight.as_ref())?;
    // Ours: the irons differ by 2 % in density, far less than a drawing is good to.
    let iron = crate::iron::Iron::Gray.properties();
    let of_face = |of: &Face| {
        if not_flat(round, of.id, part.shape).is_some() {
            return None;
        }
        let piece = piece(round, of, iron, wall_mm)?;
        let is_it = piece.check().is_ok() && weighs(&piece, part).1;
        let name = round.get(face::NAME.of(of.id)).unwrap_or(&of.name).to_owned();
        is_it.then(|| DrawnPart { face: of.id, name, surface_m2: piece.surface_mm2() / 1e6 })
    };
    job.faces.iter().rev().filter_map(of_face).max_by(|a, b| a.surface_m2.total_cmp(&b.surface_m2))
}
