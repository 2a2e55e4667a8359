//! The cracks as they lie on the faces of the part: length, wall along them, what their ends run into.

use std::collections::HashMap;

use uuid::Uuid;

use crate::crack::said::EndKind;
use crate::field::face;
use crate::job::{Face, Job, Round};
use crate::map::FaceEdge;
use crate::map::{
    At, MarkKind, ON_IT_MM, Placed, Shape, bounds, end_direction, length_mm, nearest, nearest_rim,
};
use crate::quantity::{Unit, UnitSystem, number};
use crate::stage::part::{circles, rims};

/// A face with its outline.
pub(crate) struct LaidFace<'a> {
    pub face: &'a Face,
    pub name: String,
    /// The outer rim first, then what is cut out; none while its outline is not known.
    pub rims: Vec<Vec<At>>,
    pub back_of: Option<Uuid>,
    pub holes: Vec<LaidHole>,
}

/// A bolt hole or a bore on a face.
pub(crate) struct LaidHole {
    pub name: String,
    pub middle: At,
    pub radius_mm: f64,
}

/// One crack on one face.
#[derive(Clone)]
pub(crate) struct LaidLine {
    pub crack: Uuid,
    /// Its place among the faces.
    pub face: usize,
    pub points: Vec<At>,
    pub walls: Vec<Option<f64>>,
    pub in_round: usize,
    /// It is walked the other way round than it was drawn.
    pub turned: bool,
    reach: (f64, f64, f64, f64),
}

/// An end of a crack on the map.
#[derive(Clone)]
pub(crate) struct LaidEnd {
    pub face: usize,
    pub at: At,
    /// In which the crack runs there.
    pub direction: (f64, f64),
    /// edge, hole or branch; nothing for an end that is free.
    pub kind: Option<EndKind>,
    /// "crack A", "bolt hole 2"; empty for nothing with a name.
    pub meets: String,
    /// left, right, upper or lower, as one looks at the face.
    pub name: &'static str,
    /// The tip on the other side of the wall lies so much further on.
    pub further_mm: f64,
}

/// A crack with all its lines.
pub(crate) struct LaidCrack {
    /// As it goes on from face to face.
    pub lines: Vec<LaidLine>,
    /// The same crack as it shows on the other side of the wall.
    pub backs: Vec<LaidLine>,
    pub length_mm: f64,
    /// Walls measured along it, by the length from its first end.
    pub walls: Vec<(f64, f64)>,
    pub ends: [LaidEnd; 2],
    /// The face behind is mapped, and this crack is not on it.
    pub other_face_open: bool,
}

impl LaidCrack {
    /// The wall so far along; nothing where none was measured.
    pub fn wall_at(&self, along_mm: f64) -> Option<f64> {
        wall_at(&self.walls, along_mm)
    }
}

/// Between measured walls it changes evenly, beyond them not at all.
pub(crate) fn wall_at(walls: &[(f64, f64)], along_mm: f64) -> Option<f64> {
    let (first, last) = (walls.first()?, walls.last()?);
    if along_mm <= first.0 {
        return Some(first.1);
    }
    let pair = walls.windows(2).find(|pair| along_mm <= pair[1].0);
    Some(pair.map_or(last.1, |pair| {
        let long = pair[1].0 - pair[0].0;
        let share = if long > 0.0 { (along_mm - pair[0].0) / long } else { 1.0 };
        pair[0].1 + (pair[1].1 - pair[0].1) * share
    }))
}

/// Everything that is on the map.
#[derive(Default)]
pub(crate) struct FaceGeometry<'a> {
    pub faces: Vec<LaidFace<'a>>,
    pub cracks: HashMap<Uuid, LaidCrack>,
}

impl<'a> FaceGeometry<'a> {
    pub fn read(job: &'a Job) -> Self {
        let round = job.round();
        let faces: Vec<LaidFace<'a>> = job.faces.iter().map(|face| laid_face(round, face)).collect();
        // A machined edge and old filler are lines too, and no cracks.
        let is_crack = |placed: &&Placed| round.cracks.iter().any(|crack| crack.id == placed.mark);
        let lines: Vec<LaidLine> =
            round.drawn.iter().filter(is_crack).filter_map(|placed| line(&faces, placed)).collect();
        let mut of: HashMap<Uuid, Vec<&LaidLine>> = HashMap::new();
        for line in &lines {
            of.entry(line.crack).or_default().push(line);
        }
        let reader = Reader { faces: &faces, lines: &lines, round };
        let cracks = round
            .cracks
            .iter()
            .filter_map(|crack| Some((crack.id, reader.crack(of.get(&crack.id)?)?)))
            .collect();
        Self { faces, cracks }
    }

    /// Where a place is, from the two edges or holes that were chosen.
    pub fn measured(&self, round: &Round, at: usize, place: At, units: UnitSystem) -> Vec<String> {
        let laid = &self.faces[at];
        let of = laid.face.id;
        let across = round.get(face::FROM_ACROSS.of(of)).unwrap_or(FaceEdge::Left.id());
        let down = round.get(face::FROM_DOWN.of(of)).unwrap_or(FaceEdge::Top.id());
        [across, down].into_iter().filter_map(|from| measured_from(round, laid, place, from, units)).collect()
    }

    /// Where a place of one face lies when it is looked at from the face behind.
    pub fn mirrored(&self, at: At, from: usize, to: usize) -> Option<At> {
        mirrored(&self.faces, at, from, to)
    }
}

fn laid_face<'a>(round: &Round, of: &'a Face) -> LaidFace<'a> {
    let holes = circles(round, of.id, MarkKind::is_hole).map(|(mark, middle, radius_mm)| LaidHole {
        name: mark_name(round, mark),
        middle,
        radius_mm,
    });
    LaidFace {
        face: of,
        name: round.get(face::NAME.of(of.id)).unwrap_or(&of.name).to_owned(),
        rims: rims(round, of),
        back_of: round.get(face::BACK_OF.of(of.id)).and_then(|id| id.parse().ok()),
        holes: holes.collect(),
    }
}

/// As the welder calls it, or by its kind and number.
pub(crate) fn mark_name(round: &Round, mark: &crate::job::Mark) -> String {
    round.get(crate::field::mark::NAME.of(mark.id)).unwrap_or(&mark.name).to_owned()
}

fn line(faces: &[LaidFace<'_>], placed: &Placed) -> Option<LaidLine> {
    let Shape::Line { points: vertices } = &placed.shape else { return None };
    let points: Vec<At> = vertices.iter().map(crate::map::Vertex::at).collect();
    Some(LaidLine {
        crack: placed.mark,
        face: faces.iter().position(|face| face.face.id == placed.face)?,
        walls: vertices.iter().map(|vertex| vertex.wall_mm).collect(),
        in_round: placed.in_round,
        turned: false,
        reach: bounds(&points)?,
        points,
    })
}

fn mirrored(faces: &[LaidFace<'_>], at: At, from: usize, to: usize) -> Option<At> {
    let middle =
        |face: usize| bounds(faces[face].rims.iter().flatten()).map(|(left, _, right, _)| left + right);
    // Both sides of one wall have one outline: the one that is known will do for both.
    let twice = middle(to).or(middle(from))?;
    Some(At::new(twice - at.x_mm, at.y_mm))
}

struct Reader<'a> {
    faces: &'a [LaidFace<'a>],
    lines: &'a [LaidLine],
    round: &'a Round,
}

impl Reader<'_> {
    fn is_back(&self, a: usize, b: usize) -> bool {
        let (a, b) = (&self.faces[a], &self.faces[b]);
        a.back_of == Some(b.face.id) || b.back_of == Some(a.face.id)
    }

    fn crack(&self, lines: &[&LaidLine]) -> Option<LaidCrack> {
        let first = *lines.first()?;
        let (backs, mut open): (Vec<&LaidLine>, Vec<&LaidLine>) =
            lines[1..].iter().copied().partition(|line| self.is_back(first.face, line.face));
        // From face to face over their edges, in whichever direction each was drawn.
        let mut chain = vec![first.clone()];
        while let Some(at) = open.iter().position(|line| self.on_a_rim(line).is_some()) {
            let mut next = open.remove(at).clone();
            if self.on_a_rim(&next) == Some(1) {
                turn(&mut next);
            }
            let last = chain.last()?;
            if last.points.last().is_some_and(|at| self.at_the_rim(last.face, *at)) {
                chain.push(next);
            } else {
                // It goes on from its other end: the whole of it is walked the other way round.
                chain.reverse();
                chain.iter_mut().for_each(turn);
                chain.push(next);
            }
        }
        let whole_mm: f64 = chain.iter().map(|line| length_mm(&line.points)).sum();
        let mut walls = Vec::new();
        let mut begun = 0.0;
        for line in &chain {
            let mut along = begun;
            for (at, wall) in line.walls.iter().enumerate() {
                if at > 0 {
                    along += line.points[at - 1].distance_mm(line.points[at]);
                }
                walls.extend(wall.map(|wall| (along, wall)));
            }
            begun += length_mm(&line.points);
        }
        let (begins, ends) = (chain.first()?, chain.last()?);
        let mut both = [self.end(begins, false), self.end(ends, true)];
        let (a, b) = (both[0].at, both[1].at);
        let names = if begins.face != ends.face {
            ("first", "last")
        } else if (a.x_mm - b.x_mm).abs() >= (a.y_mm - b.y_mm).abs() {
            if a.x_mm <= b.x_mm { ("left", "right") } else { ("right", "left") }
        } else if a.y_mm <= b.y_mm {
            ("upper", "lower")
        } else {
            ("lower", "upper")
        };
        (both[0].name, both[1].name) = names;
        for end in &mut both {
            end.further_mm = self.further(end, &backs).unwrap_or(0.0);
        }
        let behind = |face: usize| (0..self.faces.len()).any(|other| self.is_back(face, other));
        Some(LaidCrack {
            other_face_open: backs.is_empty() && chain.iter().any(|line| behind(line.face)),
            lines: chain,
            backs: backs.into_iter().cloned().collect(),
            length_mm: whole_mm,
            walls,
            ends: both,
        })
    }

    /// Which of its ends lies on the outline of its face: 0 for the first, 1 for the last.
    fn on_a_rim(&self, line: &LaidLine) -> Option<usize> {
        if self.at_the_rim(line.face, *line.points.first()?) {
            return Some(0);
        }
        self.at_the_rim(line.face, *line.points.last()?).then_some(1)
    }

    fn at_the_rim(&self, face: usize, at: At) -> bool {
        nearest_rim(&self.faces[face].rims, at).is_some_and(|(mm, _)| mm <= ON_IT_MM)
    }

    /// How much further on the crack's tip lies on the other side of the wall.
    fn further(&self, end: &LaidEnd, backs: &[&LaidLine]) -> Option<f64> {
        let tips = backs.iter().flat_map(|line| {
            let tips = [line.points.first(), line.points.last()];
            tips.into_iter().flatten().filter_map(|at| mirrored(self.faces, *at, line.face, end.face))
        });
        let tip = tips.min_by(|a, b| a.distance_mm(end.at).total_cmp(&b.distance_mm(end.at)))?;
        let (dx, dy) = end.direction;
        Some(((tip.x_mm - end.at.x_mm) * dx + (tip.y_mm - end.at.y_mm) * dy).max(0.0))
    }

    fn end(&self, line: &LaidLine, last: bool) -> LaidEnd {
        let mut walked = line.points.clone();
        if !last {
            walked.reverse();
        }
        let at = walked.last().copied().unwrap_or(At::new(0.0, 0.0));
        let direction = end_direction(&walked).unwrap_or((1.0, 0.0));
        let (kind, meets) = self.runs_into(line, at);
        LaidEnd { face: line.face, at, direction, kind, meets, name: "", further_mm: 0.0 }
    }

    fn runs_into(&self, line: &LaidLine, at: At) -> (Option<EndKind>, String) {
        let face = &self.faces[line.face];
        let hole = face.holes.iter().find(|hole| hole.middle.distance_mm(at) <= hole.radius_mm + ON_IT_MM);
        if let Some(hole) = hole {
            return (Some(EndKind::Hole), hole.name.clone());
        }
        if self.at_the_rim(line.face, at) {
            return (Some(EndKind::Edge), String::new());
        }
        let near = |other: &&LaidLine| {
            let (left, top, right, bottom) = other.reach;
            let beyond = at.x_mm < left - ON_IT_MM
                || at.x_mm > right + ON_IT_MM
                || at.y_mm < top - ON_IT_MM
                || at.y_mm > bottom + ON_IT_MM;
            other.face == line.face
                && other.crack != line.crack
                && !beyond
                && nearest(&other.points, at).is_some_and(|near| near.distance_mm <= ON_IT_MM)
        };
        match self.lines.iter().find(near) {
            Some(other) => {
                let letter = self.round.cracks.iter().find(|crack| crack.id == other.crack);
                (
                    Some(EndKind::Branch),
                    letter.map_or_else(String::new, |crack| format!("crack {}", crack.letter)),
                )
            }
            None => (None, String::new()),
        }
    }
}

fn turn(line: &mut LaidLine) {
    line.points.reverse();
    line.walls.reverse();
    line.turned = !line.turned;
}

/// A length as it is laid off with a rule, which is read to half a millimetre.
pub(crate) fn by_rule(mm: f64, units: UnitSystem) -> String {
    match units {
        UnitSystem::Metric => format!("{} mm", number((mm * 2.0).round() / 2.0, 1)),
        UnitSystem::Imperial => units.say(mm, Unit::Millimetres),
    }
}

fn measured_from(
    round: &Round,
    laid: &LaidFace<'_>,
    place: At,
    from: &str,
    units: UnitSystem,
) -> Option<String> {
    let exact = |mm: f64| by_rule(mm, units);
    if let Ok(id) = from.parse::<Uuid>() {
        let mark = round.marks.iter().find(|mark| mark.id == id)?;
        let name = mark_name(round, mark);
        return match &round.placed(id, laid.face.id)?.shape {
            Shape::Circle { x_mm, y_mm, .. } => {
                let middle = At::new(*x_mm, *y_mm);
                Some(format!("{} from the middle of {name}", exact(place.distance_mm(middle))))
            }
            shape @ Shape::Line { .. } => {
                let off = nearest(&shape.points(), place)?.distance_mm;
                Some(format!("{} from {name}", exact(off)))
            }
            Shape::Outline { .. } | Shape::Place { .. } => None,
        };
    }
    // Without an outline the picture's own corner is all there is.
    let (left, top, right, bottom) = bounds(laid.rims.first()?)?;
    let edge = FaceEdge::from_id(from)?;
    let mm = match edge {
        FaceEdge::Left => place.x_mm - left,
        FaceEdge::Right => right - place.x_mm,
        FaceEdge::Top => place.y_mm - top,
        FaceEdge::Bottom => bottom - place.y_mm,
    };
    Some(format!("{} from the {} edge", exact(mm), edge.id()))
}
