//! The map as it is drawn: every face with what lies on it, and what is to be drilled, ground and kept off there.

mod marks;

use serde::Serialize;
use uuid::Uuid;

use super::pairs::hole_pairs;
use super::pins::{LockOnFace, PinOnFace};
use crate::crack::said::{CrackFate, WitnessSide};
use crate::field::crack;
use crate::job::{Job, Round};
use crate::map::{At, OnFace, Shape, beside, bounds, length_mm, serialize_drawn};
use crate::prep::groove::bright_margin_mm;
use crate::quantity::{Unit, UnitSystem};
use crate::stage::cracks::{CrackPlan, FaceGeometry, LaidLine, wall_at};
use crate::stage::prep::{PrepPlan, SeamPlan};

/// Every face of the part.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MapPlan {
    pub faces: Vec<FacePlan>,
    /// What was found and lies on no face yet.
    pub unplaced: Vec<Unplaced>,
    /// Two holes of a face each, as they are called: a distance that has to be kept names one of these.
    pub hole_pairs: Vec<String>,
}

/// A thing that is known, and not yet where.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Unplaced {
    pub id: Uuid,
    pub what: OnFace,
    /// "crack B", "hard spot at the rim"
    pub words: String,
}

/// What is shown of a face, in mm.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Frame {
    pub left_mm: f64,
    pub top_mm: f64,
    pub right_mm: f64,
    pub bottom_mm: f64,
}

impl Frame {
    fn of((left_mm, top_mm, right_mm, bottom_mm): (f64, f64, f64, f64)) -> Self {
        Self { left_mm, top_mm, right_mm, bottom_mm }
    }
}

/// The straightened picture of a face.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FaceSeen {
    pub frame: Frame,
    /// The fact that laid it there: another one is another picture.
    pub revision: u64,
    /// "one point of the picture is 0.12 mm in the middle, 0.2 mm at the worst corner"
    pub error: String,
}

/// One face with everything on it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FacePlan {
    pub id: Uuid,
    pub name: String,
    /// "200 mm by 140 mm"; empty while its outline is not known.
    pub size_words: String,
    pub frame: Frame,
    /// The outer rim first, then what is cut out of it; none while nobody has said.
    pub rims: Vec<Vec<At>>,
    pub seen: Option<FaceSeen>,
    /// It is the other side of this face.
    pub back_of: Option<Uuid>,
    pub lines: Vec<LineOnFace>,
    pub holes: Vec<HoleOnFace>,
    pub marks: Vec<MarkOnFace>,
    pub tacks: Vec<TackOnFace>,
    /// Pins and locks of a way that sets them.
    pub pins: Vec<PinOnFace>,
    pub locks: Vec<LockOnFace>,
    /// Punch marks past the tips of cracks that are watched.
    pub punches: Vec<At>,
    /// What is in the way of what.
    pub clashes: Vec<Clash>,
}

/// A crack on a face.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LineOnFace {
    pub crack: Uuid,
    pub letter: String,
    /// In the order in which it was drawn.
    pub points: Vec<At>,
    /// At each point, where it was measured.
    pub walls: Vec<Option<f64>>,
    pub length_words: String,
    /// It is a line of the other side of the wall, as it would be seen from here.
    pub from_behind: bool,
    /// It was not there, or not so far, in the first round.
    pub in_round: usize,
    /// As it was drawn in earlier rounds.
    pub earlier: Vec<Vec<At>>,
    /// Drawn beside it with a marker that survives grinding.
    #[serde(serialize_with = "serialize_drawn")]
    pub witness: Vec<At>,
    /// Where the groove opens at the face; empty while no groove is planned.
    #[serde(serialize_with = "serialize_drawn")]
    pub groove: Vec<At>,
    /// To be cleaned to bright metal; empty while no groove is planned.
    #[serde(serialize_with = "serialize_drawn")]
    pub margin: Vec<At>,
    pub becomes: CrackFate,
}

/// A stop-hole on a face.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HoleOnFace {
    pub crack: Uuid,
    /// left or right: which end.
    pub side: String,
    pub tip: At,
    pub at: At,
    pub drill_mm: f64,
    /// "A, 8 mm"
    pub words: String,
    /// "41 mm from the left edge"
    pub measured: Vec<String>,
    pub drilled: bool,
    /// The tip has to be found better first.
    pub uncertain: bool,
}

/// A hole, a hard spot, a missing piece or a place on a face.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MarkOnFace {
    pub id: Uuid,
    pub what: OnFace,
    pub name: String,
    pub shape: Shape,
    /// Its middle.
    pub middle: At,
    /// "13 mm across"; empty for nothing to say.
    pub words: String,
}

/// A tack of a full break.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TackOnFace {
    pub crack: Uuid,
    pub at: At,
    /// In the order they go in, from 1.
    pub number: u32,
}

/// Something that is in the way of something else.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Clash {
    pub at: At,
    pub sentence: String,
}

/// A face nobody has measured is drawn this large.
const BLANK_MM: (f64, f64, f64, f64) = (0.0, 0.0, 200.0, 140.0);
/// House: room round what lies on a face, as a share of its size.
const ROOM: f64 = 0.06;

pub(crate) struct MapInputs<'a> {
    pub job: &'a Job,
    pub laid: &'a FaceGeometry<'a>,
    pub cracks: &'a [CrackPlan],
    pub prep: Option<&'a PrepPlan>,
    pub units: UnitSystem,
}

/// Everything that is drawn.
pub(crate) fn map_plan(inputs: &MapInputs<'_>) -> MapPlan {
    let faces: Vec<FacePlan> = (0..inputs.laid.faces.len()).map(|at| inputs.face(at)).collect();
    let hole_pairs = faces.iter().flat_map(hole_pairs).map(|pair| pair.names).collect();
    MapPlan { faces, unplaced: inputs.unplaced(), hole_pairs }
}

impl MapInputs<'_> {
    fn round(&self) -> &Round {
        self.job.round()
    }

    pub(super) fn say(&self, mm: f64) -> String {
        self.units.say(mm, Unit::Millimetres)
    }

    fn face(&self, at: usize) -> FacePlan {
        let laid = &self.laid.faces[at];
        let seen = laid.face.picture.as_ref().and_then(|picture| {
            let [width, height] = picture.size_px;
            let map = picture.straightened()?;
            let middle = map.point_mm([width / 2.0, height / 2.0])?;
            let corners = [[0.0, 0.0], [width, 0.0], [width, height], [0.0, height]];
            let worst = corners.into_iter().filter_map(|px| map.point_mm(px)).fold(middle, f64::max);
            let error = format!(
                "one point of the picture is {} in the middle, {} at the worst corner",
                self.units.say_exactly((middle * 100.0).round() / 100.0, Unit::Millimetres),
                self.units.say_exactly((worst * 100.0).round() / 100.0, Unit::Millimetres)
            );
            Some(FaceSeen { frame: Frame::of(picture.frame()?), revision: picture.revision, error })
        });
        let marks = self.marks(at);
        let lines = self.lines(at);
        let outline = bounds(laid.rims.first().into_iter().flatten());
        // The outline and what is drawn; where nobody knows the outline, all that the picture shows.
        let framed = seen.as_ref().filter(|_| outline.is_none()).map(|seen| {
            let Frame { left_mm, top_mm, right_mm, bottom_mm } = seen.frame;
            [At::new(left_mm, top_mm), At::new(right_mm, bottom_mm)]
        });
        let framed: Vec<At> = framed.into_iter().flatten().collect();
        let drawn = lines.iter().flat_map(|line| &line.points);
        let all = laid.rims.iter().flatten().chain(drawn).chain(&framed);
        let (left, top, right, bottom) = bounds(all).unwrap_or(BLANK_MM);
        let room = match framed.is_empty() {
            true => ROOM * (right - left).max(bottom - top).max(20.0),
            false => 0.0,
        };
        let holes = self.holes(at);
        let pins = self.pins(at, &marks);
        let mut clashes = self.clashes(at, &lines, &holes, &marks);
        clashes.extend(self.pins_in_the_way(&pins));
        FacePlan {
            id: laid.face.id,
            name: laid.name.clone(),
            size_words: outline.map_or_else(String::new, |(left, top, right, bottom)| {
                format!("{} by {}", self.say(right - left), self.say(bottom - top))
            }),
            frame: Frame::of((left - room, top - room, right + room, bottom + room)),
            rims: laid.rims.clone(),
            seen,
            back_of: laid.back_of,
            tacks: self.tacks(at),
            pins,
            locks: self.locks(at),
            punches: self.punches(at),
            lines,
            holes,
            marks,
            clashes,
        }
    }

    fn lines(&self, at: usize) -> Vec<LineOnFace> {
        let mut lines = Vec::new();
        for plan in self.cracks {
            let Some(laid) = self.laid.cracks.get(&plan.id) else { continue };
            let mut begun_mm = 0.0;
            for line in &laid.lines {
                if line.face == at {
                    lines.push(self.line(plan, line, begun_mm));
                }
                begun_mm += length_mm(&line.points);
            }
            for line in &laid.backs {
                if line.face == at {
                    lines.push(self.bare(plan, line, line.points.clone(), false));
                }
            }
            // What is seen on the other side of the wall is shown through it.
            let other_side = laid.lines.iter().chain(&laid.backs).filter(|line| self.behind(at, line.face));
            for line in other_side {
                let through: Option<Vec<At>> =
                    line.points.iter().map(|point| self.laid.mirrored(*point, line.face, at)).collect();
                lines.extend(through.map(|points| self.bare(plan, line, points, true)));
            }
        }
        lines
    }

    fn behind(&self, a: usize, b: usize) -> bool {
        let (a, b) = (&self.laid.faces[a], &self.laid.faces[b]);
        a.back_of == Some(b.face.id) || b.back_of == Some(a.face.id)
    }

    fn bare(&self, plan: &CrackPlan, line: &LaidLine, points: Vec<At>, from_behind: bool) -> LineOnFace {
        LineOnFace {
            crack: plan.id,
            letter: plan.letter.clone(),
            length_words: self.say(length_mm(&points)),
            earlier: if from_behind { Vec::new() } else { self.earlier(line) },
            points: as_drawn(points, line.turned),
            walls: as_drawn(line.walls.clone(), line.turned),
            from_behind,
            in_round: line.in_round,
            witness: Vec::new(),
            groove: Vec::new(),
            margin: Vec::new(),
            becomes: plan.becomes,
        }
    }

    fn line(&self, plan: &CrackPlan, line: &LaidLine, begun_mm: f64) -> LineOnFace {
        let mut drawn = self.bare(plan, line, line.points.clone(), false);
        // House: 3 mm, or an eighth of an inch.
        let witness_mm = match self.units {
            UnitSystem::Metric => 3.0,
            UnitSystem::Imperial => 3.175,
        };
        let side =
            if self.round().get(crack::WITNESS.of(plan.id)) == Some(WitnessSide::Right) { -1.0 } else { 1.0 };
        drawn.witness = beside(&line.points, |_| side * witness_mm);
        let Some(seam) = self.seam(plan) else { return drawn };
        let walls: Vec<(f64, f64)> = plan.walls.iter().map(|at| (at.at_mm, at.wall_mm)).collect();
        let mut along_mm = begun_mm;
        let (mut opens, mut bright) = (Vec::new(), Vec::new());
        for (at, point) in line.points.iter().enumerate() {
            if at > 0 {
                along_mm += line.points[at - 1].distance_mm(*point);
            }
            let wall_mm = wall_at(&walls, along_mm).unwrap_or(plan.wall_mm);
            // As deep as the wall allows, so wide it opens.
            let half = seam.half_width_mm(wall_mm);
            opens.push(half);
            bright.push(half + bright_margin_mm(wall_mm));
        }
        drawn.groove = around(&line.points, &opens);
        drawn.margin = around(&line.points, &bright);
        drawn
    }

    fn seam(&self, plan: &CrackPlan) -> Option<&SeamPlan> {
        self.prep?.seams.iter().find(|seam| seam.id == plan.id && seam.section.is_some())
    }

    /// The same crack as it was drawn before, the last round first; what was drawn the same is left out.
    fn earlier(&self, line: &LaidLine) -> Vec<Vec<At>> {
        let face = self.laid.faces[line.face].face.id;
        let mut earlier: Vec<Vec<At>> = Vec::new();
        for round in self.job.rounds.iter().rev().skip(1) {
            let Some(placed) = round.placed(line.crack, face) else { break };
            let points = placed.shape.points();
            if points != as_drawn(line.points.clone(), line.turned) && earlier.last() != Some(&points) {
                earlier.push(points);
            }
        }
        earlier
    }

    pub(super) fn letter(&self, crack: Uuid) -> &str {
        self.cracks.iter().find(|plan| plan.id == crack).map_or("", |plan| &plan.letter)
    }
}

/// In the order in which it was drawn: its points are spoken of by their numbers.
fn as_drawn<T>(mut along: Vec<T>, turned: bool) -> Vec<T> {
    if turned {
        along.reverse();
    }
    along
}

/// The outline of what runs along a line, so far out on both sides at each of its points.
fn around(line: &[At], out_mm: &[f64]) -> Vec<At> {
    let far = |at: usize| out_mm.get(at).copied().unwrap_or_default();
    let mut outline = beside(line, far);
    let mut right = beside(line, |at| -far(at));
    right.reverse();
    outline.extend(right);
    outline
}

/// What is in the way of what, as it is said at the station.
pub(crate) fn clash_sentences(map: &MapPlan) -> impl Iterator<Item = &str> {
    map.faces.iter().flat_map(|face| &face.clashes).map(|clash| clash.sentence.as_str())
}
