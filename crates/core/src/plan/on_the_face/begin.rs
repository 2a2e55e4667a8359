//! Where to begin with the flame: places of the face, each tried from cold.

use serde::Serialize;

use super::course::{As, Course, TRIED, Trial};
use super::part::FacePart;
use super::words::{Nearness, shares_words};
use crate::body::FaceModel;
use crate::map::{At, FlamePlace, nearest};
use crate::plan::{FacePlan, LineOnFace};

/// Places to begin with, the first choice first, what must not be last.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Beginnings {
    pub sentence: String,
    pub places: Vec<Beginning>,
    /// Of those that ask little of a tip the one that opens the longest crack most.
    #[serde(skip)]
    pub opens_most: Option<OpensMost>,
    /// How many were tried.
    pub tried: usize,
}

/// A place of the flame that opens a crack before it is filled.
#[derive(Debug, Clone, PartialEq)]
pub struct OpensMost {
    /// Of the crack.
    pub letter: String,
    pub name: String,
    pub swept: bool,
    pub opens_mm: f64,
}

/// One place to begin with.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Beginning {
    /// "Beside the break"
    pub name: String,
    pub at: At,
    pub swept: bool,
    /// "12 to 19 min"; empty where the joint does not get warm enough.
    pub minutes_words: String,
    /// "as good as shut", "0.6 to 1.3 of what it stands"
    pub share_words: String,
    pub gap_words: String,
    /// shut, open, watch or runs.
    pub state: String,
}

/// Where it was said that the flame begins: "Begin at the top, the flame held there."; nothing where nobody said, or the
/// face is gone.
#[must_use]
pub fn begins_words(flame: FlamePlace, faces: &[FacePlan]) -> Option<String> {
    let face = faces.iter().find(|face| face.id == flame.face)?;
    if flame.swept {
        return Some("Begin with the flame swept over all of it.".to_owned());
    }
    let beside =
        |line: &LineOnFace| nearest(&line.points, flame.at).is_some_and(|near| near.distance_mm <= BESIDE_MM);
    if face.lines.iter().any(beside) {
        return Some("Begin beside the break, the flame held there.".to_owned());
    }
    let (left, top, right, bottom) = crate::map::bounds(face.rims.first()?)?;
    let third = |at: f64, from: f64, to: f64| ((at - from) / (to - from) * 3.0).clamp(0.0, 2.0) as usize;
    let sector = SECTORS[third(flame.at.y_mm, top, bottom)][third(flame.at.x_mm, left, right)];
    Some(format!("Begin {}, the flame held there.", sector.to_lowercase()))
}

/// House: so near to a crack a flame is beside the break.
const BESIDE_MM: f64 = 50.0;

/// Rows and columns of places that are looked for over a face.
const SECTORS: [[&str; 3]; 3] = [
    ["Upper left", "At the top", "Upper right"],
    ["At the left", "In the middle", "At the right"],
    ["Lower left", "At the bottom", "Lower right"],
];
/// House: points of a sector that are looked at, along and across.
const LOOKED_AT: u32 = 9;

/// A place, and how it went there.
struct Tried {
    name: &'static str,
    at: At,
    swept: bool,
    course: Course,
}

impl Tried {
    /// The first choice is what leaves every tip under four tenths and is there soonest; else what asks least.
    fn worse_than(&self) -> (bool, bool, f64) {
        let worst = self.course.worst();
        let calm = Nearness::of(worst) < Nearness::Watch;
        let there = self.course.there_min;
        (!calm, there.is_none(), if calm { there.unwrap_or(f64::MAX) } else { worst })
    }
}

/// The best places to begin with, and the worst.
#[must_use]
pub fn where_to_begin(part: &FacePart, model: &FaceModel) -> Beginnings {
    let joint = part.joint();
    let mut asked = vec![("Beside the break", joint, false), ("Swept over all", joint, true)];
    for (name, at) in part.sectors() {
        // A flame does not tell places apart that lie within its own spread.
        if asked.iter().all(|(_, other, swept)| *swept || other.distance_mm(at) > 0.8 * part.flame.spot_mm) {
            asked.push((name, at, false));
        }
    }
    let mut tried: Vec<Tried> = asked
        .into_iter()
        .map(|(name, at, swept)| {
            let course = part.course(model, Trial { at, swept, path: &[], by: As::Asked, pace: TRIED });
            Tried { name, at, swept, course }
        })
        .collect();
    tried.sort_by(|one, other| {
        let (a, b) = (one.worse_than(), other.worse_than());
        a.0.cmp(&b.0).then(a.1.cmp(&b.1)).then(a.2.total_cmp(&b.2))
    });
    let count = tried.len();
    // Two to choose from, and what asks most of a tip.
    let worst = (2..count).max_by(|a, b| tried[*a].course.worst().total_cmp(&tried[*b].course.worst()));
    let shown: Vec<&Tried> = tried.iter().take(2).chain(worst.map(|at| &tried[at])).collect();
    let places: Vec<Beginning> = shown.iter().map(|tried| part.beginning(model, tried)).collect();
    Beginnings {
        sentence: part.begin_said(&places, &shown),
        places,
        opens_most: part.opens_most(&tried),
        tried: count,
    }
}

impl FacePart {
    /// Places spread over the face, in the middle of its iron.
    pub(super) fn places(&self) -> Vec<At> {
        self.sectors().into_iter().map(|(_, at)| at).collect()
    }

    /// Of each ninth of the face the place that lies deepest in the iron.
    pub(super) fn sectors(&self) -> Vec<(&'static str, At)> {
        let rims = self.piece.rims();
        let Some((left, top, right, bottom)) = crate::map::bounds(&rims[0]) else { return Vec::new() };
        let (wide, high) = ((right - left) / 3.0, (bottom - top) / 3.0);
        let mut places = Vec::new();
        for (row, names) in SECTORS.iter().enumerate() {
            for (column, name) in names.iter().enumerate() {
                let (x, y) = (left + column as f64 * wide, top + row as f64 * high);
                let middle = At::new(x + wide / 2.0, y + high / 2.0);
                let steps = (0..LOOKED_AT * LOOKED_AT).map(|at| (at % LOOKED_AT, at / LOOKED_AT));
                let points = steps.map(|(i, j)| {
                    let share = |step: u32| (f64::from(step) + 0.5) / f64::from(LOOKED_AT);
                    At::new(x + share(i) * wide, y + share(j) * high)
                });
                let deep = |at: &At| 2.0 * self.piece.depth_mm(&rims, *at) - at.distance_mm(middle);
                let best = points
                    .filter(|at| self.piece.depth_mm(&rims, *at) > 0.0)
                    .max_by(|a, b| deep(a).total_cmp(&deep(b)));
                places.extend(best.map(|at| (*name, at)));
            }
        }
        places
    }

    fn beginning(&self, model: &FaceModel, tried: &Tried) -> Beginning {
        let (at, swept) = (tried.at, tried.swept);
        let [strong, weak] = [As::Strong, As::Weak]
            .map(|by| self.course(model, Trial { at, swept, path: &[], by, pace: TRIED }));
        let last = tried.course.looks.last();
        let longest = self.longest_crack();
        let opened = last.and_then(|look| *look.opened_mm.get(longest?)?);
        let worst = tried.course.worst();
        Beginning {
            name: tried.name.to_owned(),
            at: tried.at,
            swept: tried.swept,
            minutes_words: match (strong.there_min, tried.course.there_min, weak.there_min) {
                (_, None, _) => String::new(),
                (Some(soon), Some(_), Some(late)) => self.time_between(soon, late),
                (soon, Some(minutes), _) => {
                    format!("{} or longer", self.minutes_words(soon.unwrap_or(minutes)))
                }
            },
            share_words: shares_words(weak.worst(), strong.worst()),
            gap_words: self.gap_words(opened),
            state: Nearness::of(worst).id().to_owned(),
        }
    }

    fn opens_most(&self, tried: &[Tried]) -> Option<OpensMost> {
        let longest = self.longest_crack()?;
        let calm = tried.iter().filter(|it| Nearness::of(it.course.worst()) < Nearness::Watch);
        let opens = |it: &Tried| it.course.looks.last().and_then(|look| look.opened_mm[longest]);
        let (opens_mm, most) = calm
            .filter_map(|it| Some((opens(it)?, it)))
            .max_by(|(one, _), (other, _)| one.total_cmp(other))?;
        Some(OpensMost {
            letter: self.letters[longest].clone(),
            name: most.name.to_owned(),
            swept: most.swept,
            opens_mm,
        })
    }

    fn longest_crack(&self) -> Option<usize> {
        let long = |at: &usize| crate::map::length_mm(&self.piece.cracks[*at]);
        (0..self.piece.cracks.len()).max_by(|a, b| long(a).total_cmp(&long(b)))
    }

    fn begin_said(&self, places: &[Beginning], shown: &[&Tried]) -> String {
        let (Some(first), Some(tried)) = (places.first(), shown.first()) else { return String::new() };
        let name = first.name.to_lowercase();
        match (Nearness::of(tried.course.worst()), tried.course.there_min) {
            (Nearness::Shut | Nearness::Open, Some(_)) => format!("Begin {name}."),
            (Nearness::Shut | Nearness::Open, None) => {
                "No place of the flame gets the joint warm enough by itself.".to_owned()
            }
            (Nearness::Watch | Nearness::Runs, _) => {
                format!(
                    "Nowhere without asking much of a tip; {name} asks least. Two flames, or an oven, ask less."
                )
            }
        }
    }
}
