//! The map as it is drawn: every face with what lies on it, and what is to be drilled, ground and kept off there.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::laid::{LaidLine, mark_name};
use super::{CrackPlan, Laid, OFF_HARD_SPOT_MM, wall_at};
use crate::field::{crack, neighbour};
use crate::job::{Job, Round};
use crate::map::{
    At, Drawing, Layer, MarkKind, ON_IT_MM, Placed, Shape, Stroke, beside, bounds, closed, inside, length_mm,
    nearest, place_along, tacks_mm,
};
use crate::quantity::{Unit, UnitSystem};
use crate::stage::prep::{PrepPlan, SeamPlan};

/// Every face of the part.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MapPlan {
    pub faces: Vec<FacePlan>,
    /// What was found and lies on no face yet.
    pub unplaced: Vec<Unplaced>,
    /// What a line on a face has to be kept to, in mm: so near a press means a thing that is there.
    pub on_it_mm: f64,
}

/// A thing that is known, and not yet where.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Unplaced {
    pub id: Uuid,
    /// crack, hard_spot, neighbour or a kind of mark.
    pub what: String,
    /// "crack B", "hard spot at the rim"
    pub words: String,
}

/// What is shown of a face, in mm.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
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
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FaceSeen {
    pub frame: Frame,
    /// The fact that laid it there: another one is another picture.
    pub revision: u64,
    /// "one point of the picture is 0.12 mm in the middle, 0.2 mm at the worst corner"
    pub error: String,
}

/// One face with everything on it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
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
    /// What is in the way of what.
    pub clashes: Vec<Clash>,
}

/// A crack on a face.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
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
    pub witness: Vec<At>,
    /// Where the groove opens at the face; empty while no groove is planned.
    pub groove: Vec<At>,
    /// To be cleaned to bright metal; empty while no groove is planned.
    pub margin: Vec<At>,
    pub becomes: String,
}

/// A stop-hole on a face.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
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
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MarkOnFace {
    pub id: Uuid,
    /// `hard_spot`, `neighbour` or a kind of mark.
    pub what: String,
    pub name: String,
    pub shape: Shape,
    /// "13 mm across"; empty for nothing to say.
    pub words: String,
}

/// A tack of a full break.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TackOnFace {
    pub crack: Uuid,
    pub at: At,
    /// In the order they go in, from 1.
    pub number: u32,
}

/// Something that is in the way of something else.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Clash {
    pub at: At,
    pub sentence: String,
}

/// A face nobody has measured is drawn this large.
const BLANK_MM: (f64, f64, f64, f64) = (0.0, 0.0, 200.0, 140.0);
/// Room round what lies on a face, as a share of its size.
const ROOM: f64 = 0.06;

pub(crate) struct MapAsked<'a> {
    pub job: &'a Job,
    pub laid: &'a Laid<'a>,
    pub cracks: &'a [CrackPlan],
    pub prep: Option<&'a PrepPlan>,
    pub units: UnitSystem,
}

/// Everything that is drawn.
pub(crate) fn map_plan(asked: &MapAsked<'_>) -> MapPlan {
    let faces = (0..asked.laid.faces.len()).map(|at| asked.face(at)).collect();
    MapPlan { faces, unplaced: asked.unplaced(), on_it_mm: ON_IT_MM }
}

impl MapAsked<'_> {
    fn round(&self) -> &Round {
        self.job.round()
    }

    fn say(&self, mm: f64) -> String {
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
        let clashes = self.clashes(at, &lines, &holes, &marks);
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
            becomes: plan.becomes.clone(),
        }
    }

    fn line(&self, plan: &CrackPlan, line: &LaidLine, begun_mm: f64) -> LineOnFace {
        let mut drawn = self.bare(plan, line, line.points.clone(), false);
        // House: 3 mm, or an eighth of an inch.
        let witness_mm = match self.units {
            UnitSystem::Metric => 3.0,
            UnitSystem::Imperial => 3.175,
        };
        let side = if self.round().get(crack::WITNESS.of(plan.id)) == Some("right") { -1.0 } else { 1.0 };
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
            bright.push(half + margin_mm(wall_mm));
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

    fn marks(&self, at: usize) -> Vec<MarkOnFace> {
        let face = self.laid.faces[at].face.id;
        let round = self.round();
        let here = round.drawn.iter().filter(|placed| placed.face == face && placed.mark != face);
        here.filter_map(|placed| self.mark(placed)).collect()
    }

    fn mark(&self, placed: &Placed) -> Option<MarkOnFace> {
        let round = self.round();
        let (what, name) = if let Some(mark) = round.marks.iter().find(|mark| mark.id == placed.mark) {
            (kind_id(mark.what).to_owned(), mark_name(round, mark))
        } else if let Some(spot) = round.hard_spots.iter().find(|spot| spot.id == placed.mark) {
            ("hard_spot".to_owned(), format!("hard spot, {}", spot.spot))
        } else {
            let of = round.neighbours.iter().find(|neighbour| neighbour.id == placed.mark)?;
            let what = round.get(neighbour::WHAT.of(of.id)).unwrap_or("what must stay cool");
            ("neighbour".to_owned(), what.to_owned())
        };
        let words = match &placed.shape {
            Shape::Circle { radius_mm, .. } => format!("{} across", self.say(2.0 * radius_mm)),
            Shape::Line { .. } => self.say(length_mm(&placed.shape.points())),
            Shape::Outline { .. } | Shape::Place { .. } => String::new(),
        };
        Some(MarkOnFace { id: placed.mark, what, name, shape: placed.shape.clone(), words })
    }

    fn holes(&self, at: usize) -> Vec<HoleOnFace> {
        let face = self.laid.faces[at].face.id;
        let mut holes = Vec::new();
        for plan in self.cracks {
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

    fn tacks(&self, at: usize) -> Vec<TackOnFace> {
        let mut tacks = Vec::new();
        for plan in self.cracks.iter().filter(|plan| plan.full_break && plan.becomes == "repair") {
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

    fn clashes(
        &self,
        at: usize,
        lines: &[LineOnFace],
        holes: &[HoleOnFace],
        marks: &[MarkOnFace],
    ) -> Vec<Clash> {
        let laid = &self.laid.faces[at];
        let mut clashes = Vec::new();
        let mut clash = |at: At, sentence: String| clashes.push(Clash { at, sentence });
        for (first, hole) in holes.iter().enumerate() {
            let letter = self.letter(hole.crack);
            let radius = hole.drill_mm / 2.0;
            for other in &laid.holes {
                if other.middle.distance_mm(hole.at) < other.radius_mm + radius {
                    clash(hole.at, format!("The stop-hole of crack {letter} runs into {}.", other.name));
                }
            }
            for other in &holes[first + 1..] {
                if other.at.distance_mm(hole.at) < radius + other.drill_mm / 2.0 {
                    let with = self.letter(other.crack);
                    clash(hole.at, format!("The stop-holes of cracks {letter} and {with} meet."));
                }
            }
            for mark in marks {
                let off = match (&mark.shape, mark.what.as_str()) {
                    (Shape::Circle { x_mm, y_mm, radius_mm }, "hard_spot") => {
                        At::new(*x_mm, *y_mm).distance_mm(hole.at) - radius_mm - radius - OFF_HARD_SPOT_MM
                    }
                    (shape @ Shape::Line { .. }, "machined_edge") => {
                        nearest(&shape.points(), hole.at).map_or(1.0, |near| near.distance_mm - radius)
                    }
                    _ => continue,
                };
                if off < 0.0 && mark.what == "hard_spot" {
                    let keep = self.say(OFF_HARD_SPOT_MM);
                    let name = &mark.name;
                    clash(
                        hole.at,
                        format!(
                            "The stop-hole of crack {letter} lies closer than {keep} to {name}: cut the spot out first."
                        ),
                    );
                } else if off < 0.0 {
                    clash(hole.at, format!("The stop-hole of crack {letter} cuts into {}.", mark.name));
                }
            }
        }
        for line in lines.iter().filter(|line| !line.from_behind) {
            for mark in marks.iter().filter(|mark| mark.what == "neighbour") {
                let Shape::Place { x_mm, y_mm } = mark.shape else { continue };
                let place = At::new(x_mm, y_mm);
                if !line.margin.is_empty() && inside(&line.margin, place) {
                    let (letter, name) = (&line.letter, &mark.name);
                    clash(place, format!("The bright margin of crack {letter} runs over {name}."));
                }
            }
            let off = |point: &&At| {
                laid.rims.first().is_some_and(|rim| {
                    !inside(rim, **point)
                        && nearest(&closed(rim), **point).is_some_and(|near| near.distance_mm > ON_IT_MM)
                })
            };
            if let Some(point) = line.points.iter().find(off) {
                let count = line.points.iter().filter(off).count();
                let points = if count == 1 { "point lies" } else { "points lie" };
                clash(*point, format!("Crack {}: {count} {points} off the face.", line.letter));
            }
        }
        self.walls_that_differ(at, &mut clash);
        clashes
    }

    /// Where one crack joins another both say how thick the wall is there.
    fn walls_that_differ(&self, at: usize, clash: &mut impl FnMut(At, String)) {
        /// House: a caliper and a gauge differ by less.
        const DIFFERS: f64 = 0.2;
        for plan in self.cracks.iter().filter(|plan| !plan.walls.is_empty()) {
            let Some(laid) = self.laid.cracks.get(&plan.id) else { continue };
            for (end, along) in laid.ends.iter().zip([0.0, laid.length_mm]) {
                if end.face != at || end.kind != Some("branch") {
                    continue;
                }
                for other in self.cracks.iter().filter(|other| other.id != plan.id && !other.walls.is_empty())
                {
                    let Some(joined) = self.laid.cracks.get(&other.id) else { continue };
                    let Some(line) = joined.lines.iter().find(|line| line.face == at) else { continue };
                    let Some(near) =
                        nearest(&line.points, end.at).filter(|near| near.distance_mm <= ON_IT_MM)
                    else {
                        continue;
                    };
                    let walls = laid.wall_at(along).zip(joined.wall_at(near.along_mm));
                    if let Some((mine, theirs)) = walls
                        && (mine - theirs).abs() > DIFFERS * mine.max(theirs)
                    {
                        let sentence = format!(
                            "Where {} joins {} the wall is {} by one and {} by the other: measure it again.",
                            plan.letter,
                            other.letter,
                            self.say(mine),
                            self.say(theirs)
                        );
                        clash(end.at, sentence);
                    }
                }
            }
        }
    }

    fn letter(&self, crack: Uuid) -> &str {
        self.cracks.iter().find(|plan| plan.id == crack).map_or("", |plan| &plan.letter)
    }

    fn unplaced(&self) -> Vec<Unplaced> {
        let round = self.round();
        let placed = |id: Uuid| {
            round.drawn.iter().any(|placed| {
                placed.mark == id && self.laid.faces.iter().any(|face| face.face.id == placed.face)
            })
        };
        let cracks = round.cracks.iter().map(|crack| (crack.id, "crack", format!("crack {}", crack.letter)));
        let spots =
            round.hard_spots.iter().map(|spot| (spot.id, "hard_spot", format!("hard spot at {}", spot.spot)));
        let beside = round.neighbours.iter().map(|of| {
            let what = round.get(neighbour::WHAT.of(of.id)).unwrap_or("what must stay cool");
            (of.id, "neighbour", what.to_owned())
        });
        let marks = round.marks.iter().map(|mark| (mark.id, kind_id(mark.what), mark_name(round, mark)));
        cracks
            .chain(spots)
            .chain(beside)
            .chain(marks)
            .filter(|(id, ..)| !placed(*id))
            .map(|(id, what, words)| Unplaced { id, what: what.to_owned(), words })
            .collect()
    }
}

fn kind_id(what: MarkKind) -> &'static str {
    match what {
        MarkKind::BoltHole => "bolt_hole",
        MarkKind::Bore => "bore",
        MarkKind::MachinedEdge => "machined_edge",
        MarkKind::MissingPiece => "missing_piece",
        MarkKind::ReadingPlace => "reading_place",
        MarkKind::OldFiller => "old_filler",
    }
}

/// In the order in which it was drawn: its points are spoken of by their numbers.
fn as_drawn<T>(mut along: Vec<T>, turned: bool) -> Vec<T> {
    if turned {
        along.reverse();
    }
    along
}

/// Bright metal on each side of the groove: 1.5 times the wall, 12 mm at least. House.
pub(crate) fn margin_mm(wall_mm: f64) -> f64 {
    (1.5 * wall_mm).max(12.0)
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

impl FacePlan {
    /// The face at 1:1, to be wrapped on, cut or engraved.
    #[must_use]
    pub fn drawing(&self, job: &str) -> Drawing {
        let line = |points: &[At], closed: bool| Stroke::Line { points: points.to_vec(), closed };
        let layer = |name, width_mm, dashes_mm, strokes| Layer { name, width_mm, dashes_mm, strokes };
        let here = || self.lines.iter().filter(|line| !line.from_behind);
        let shapes = |what: &[&str]| -> Vec<Stroke> {
            let marks = self.marks.iter().filter(|mark| what.contains(&mark.what.as_str()));
            marks
                .map(|mark| match &mark.shape {
                    Shape::Circle { x_mm, y_mm, radius_mm } => {
                        Stroke::Circle { middle: At::new(*x_mm, *y_mm), radius_mm: *radius_mm }
                    }
                    // A place is a small ring.
                    Shape::Place { x_mm, y_mm } => {
                        Stroke::Circle { middle: At::new(*x_mm, *y_mm), radius_mm: 2.0 }
                    }
                    Shape::Line { .. } => line(&mark.shape.points(), false),
                    Shape::Outline { points } => line(points, true),
                })
                .collect()
        };
        let along = |what: fn(&LineOnFace) -> &Vec<At>, closed: bool| -> Vec<Stroke> {
            here().map(what).filter(|points| points.len() > 1).map(|points| line(points, closed)).collect()
        };
        let middles = self.holes.iter().flat_map(|hole| {
            let reach = hole.drill_mm / 2.0 + 3.0;
            let arm = |dx: f64, dy: f64| {
                line(&[hole.at.along((dx, dy), -reach), hole.at.along((dx, dy), reach)], false)
            };
            let rim = Stroke::Circle { middle: hole.at, radius_mm: hole.drill_mm / 2.0 };
            [rim, arm(1.0, 0.0), arm(0.0, 1.0)]
        });
        let letters = here().filter_map(|line| {
            let at = place_along(&line.points, length_mm(&line.points) / 2.0)?;
            Some(Stroke::Words { at: At::new(at.x_mm + 3.0, at.y_mm - 4.0), text: line.letter.clone() })
        });
        let drills = self.holes.iter().map(|hole| {
            let at = At::new(hole.at.x_mm + hole.drill_mm / 2.0 + 2.0, hole.at.y_mm - 2.0);
            Stroke::Words { at, text: hole.words.clone() }
        });
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
                layer("GROOVE", 0.25, None, along(|line| &line.groove, true)),
                layer("MARGIN", 0.18, Some((2.0, 2.0)), along(|line| &line.margin, true)),
                layer("HOLES", 0.35, None, shapes(&["bolt_hole", "bore"])),
                layer("MACHINED_EDGES", 0.5, None, shapes(&["machined_edge"])),
                layer("HARD_SPOTS", 0.35, Some((1.0, 1.0)), shapes(&["hard_spot"])),
                layer("MISSING", 0.35, Some((4.0, 2.0)), shapes(&["missing_piece"])),
                layer("OLD_FILLER", 0.35, Some((1.0, 1.0)), shapes(&["old_filler"])),
                layer("PLACES", 0.25, None, shapes(&["reading_place", "neighbour"])),
                layer("TACKS", 0.25, None, tacks.collect()),
                layer("WORDS", 0.25, None, letters.chain(drills).collect()),
                layer("CHECK_RULER", 0.25, None, ruler),
            ],
        }
    }
}

/// A ruler that proves the scale of what was printed: 100 mm, a tick each 10.
fn check_ruler(from: At) -> Vec<Stroke> {
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

/// What is in the way of what, as it is said at the station.
pub(crate) fn clash_sentences(map: &MapPlan) -> impl Iterator<Item = &str> {
    map.faces.iter().flat_map(|face| &face.clashes).map(|clash| clash.sentence.as_str())
}
