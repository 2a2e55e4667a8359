//! Drawn cracks as slits of the face they lie on, and whether the iron round them holds them in.

use super::{CrackPlan, FaceGeometry};
use crate::body::{FlatBody, held_in};
use crate::crack::said::CrackFate;
use crate::heat::SimCache;
use crate::iron::Iron;
use crate::job::Round;
use crate::map::{At, ON_IT_MM, inside, nearest_rim};
use crate::stage::part::{PartFacts, piece};

/// House: points of a crack nearer than this are one: no triangle fits between them.
const APART_MM: f64 = 1.5;
/// House: as hard as this a seam is held in; see [`held_in`].
const HELD_IN_FROM: f64 = 0.2;

impl FaceGeometry<'_> {
    /// Whether the iron round it holds a seam of the drawn face in. Nothing while no face is the part, or none of its
    /// cracks is mended.
    ///
    /// # Source
    /// House; the pull is elastic, the other cracks are open.
    pub(crate) fn held_in(
        &self,
        (round, part): (&Round, &PartFacts),
        (cracks, iron): (&[CrackPlan], Iron),
        sims: &SimCache,
    ) -> Option<bool> {
        let (drawn, wall_mm) = part.drawn.as_ref().zip(part.wall_mm)?;
        let face = self.faces.iter().position(|face| face.face.id == drawn.face)?;
        let bare = piece(round, self.faces[face].face, iron.properties(), wall_mm)?;
        let open = cracks.iter().filter(|crack| crack.becomes != CrackFate::Sound);
        let lines =
            open.filter_map(|crack| Some((crack, self.cracks.get(&crack.id)?))).flat_map(|(crack, laid)| {
                let on_face = laid.lines.iter().filter(|line| line.face == face);
                on_face.map(|line| (crack.letter.as_str(), line.points.as_slice()))
            });
        let (letters, slits) = slits(&bare.rims(), lines);
        let mended = |letter: &str| cracks.iter().any(|crack| crack.letter == letter && crack.repaired());
        let seams: Vec<usize> = (0..slits.len()).filter(|at| mended(&letters[*at])).collect();
        let hardest = seams
            .iter()
            .filter_map(|seam| {
                let mut slits = slits.clone();
                slits[..=*seam].rotate_right(1);
                let piece = FlatBody { cracks: slits, ..bare.clone() };
                sims.number(piece.decides(), || piece.check().ok().and_then(|()| held_in(&piece).ok()))
            })
            .reduce(f64::max)?;
        Some(hardest >= HELD_IN_FROM)
    }
}

/// Its cracks as slits, with their letters: drawn ends that lie at a rim are put on it.
pub(crate) fn slits<'a>(
    rims: &[Vec<At>],
    lines: impl Iterator<Item = (&'a str, &'a [At])>,
) -> (Vec<String>, Vec<Vec<At>>) {
    lines
        .filter_map(|(letter, points)| {
            let mut slit: Vec<At> = Vec::new();
            for point in points {
                if slit.last().is_none_or(|last| last.distance_mm(*point) >= APART_MM) {
                    slit.push(*point);
                }
            }
            let last = slit.len().checked_sub(1).filter(|last| *last > 0)?;
            for end in [0, last] {
                let inward = slit[if end == 0 { 1 } else { last - 1 }];
                slit[end] = on_the_rim(rims, slit[end], inward);
            }
            Some((letter.to_owned(), slit))
        })
        .unzip()
}

/// An end of a crack, where its line leaves the iron: a hand does not draw to the hundredth.
fn on_the_rim(rims: &[Vec<At>], end: At, inward: At) -> At {
    if let Some((_, at)) = nearest_rim(rims, end).filter(|(mm, _)| *mm <= ON_IT_MM) {
        return at;
    }
    let outside = !inside(&rims[0], end) || rims[1..].iter().any(|rim| inside(rim, end));
    let crosses = rims.iter().flat_map(|rim| {
        let around = crate::map::closed(rim);
        let sides: Vec<(At, At)> = around.windows(2).map(|side| (side[0], side[1])).collect();
        sides.into_iter().filter_map(|side| crate::map::crossing((inward, end), side))
    });
    let first = crosses.min_by(|a, b| a.distance_mm(inward).total_cmp(&b.distance_mm(inward)));
    first.filter(|_| outside).unwrap_or(end)
}
