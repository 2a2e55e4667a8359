//! Stage 3: every crack with its ends and what to drill there.

mod figures;
mod laid;
mod map;

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::part::GUESSED_WALL_MM;
use super::{Amount, Caution, Missing, Stage, Station};
use crate::field::{self, FieldOfEach, Number, OneOf, YesNo, crack};
use crate::figure::Certainty;
use crate::groove::usual_lip_mm;
use crate::iron::Iron;
use crate::job::Round;
use crate::map::{At, breaks_out, circle, goes_on_to, nearest_rim};
use crate::quantity::{Unit, UnitSystem, WallMillimetres, both};
use crate::shop::Shop;
use crate::stop_hole::{FoundBy, StopHole, stop_hole};

use laid::LaidEnd;
pub(crate) use laid::{Laid, wall_at};
pub use map::{
    Clash, FacePlan, FaceSeen, Frame, HoleOnFace, LineOnFace, MapPlan, MarkOnFace, TackOnFace, Unplaced,
};
pub(crate) use map::{MapAsked, clash_sentences, map_plan, margin_mm};

/// So much is kept off a hard spot: no drill bites it. House.
pub(crate) const OFF_HARD_SPOT_MM: f64 = 6.0;

/// One end of a crack.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EndPlan {
    /// "left" for its first end, "right" for its last: what its figures are called by.
    pub side: String,
    /// left, right, upper, lower, first or last, as one looks at it.
    pub name: String,
    /// The wall there.
    pub wall_mm: f64,
    /// What it runs into, where that is on the map: "crack A", "bolt hole 2".
    pub meets: String,
    /// Where it is; nothing while it is not on the map.
    pub at: Option<EndAt>,
    /// On the other side of the wall the tip lies so much further on: the hole is measured from there.
    pub further_mm: f64,
    /// A hole there would break out: the groove is better run out to the edge.
    pub run_out: Option<RunOut>,
    /// tip, edge, hole, branch, hidden; empty while not known.
    pub kind: String,
    /// Only at a tip with known wall and way of finding: as planned, or as it was really drilled.
    pub stop_hole: Option<StopHole>,
    /// It was drilled: the figures are those of the hole that is there.
    pub drilled: bool,
    /// It would come out at a face that must not be touched: not through.
    pub blind: bool,
    /// What to do at this end, in a sentence.
    pub sentence: String,
}

/// Where an end of a crack is on the map.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EndAt {
    pub face: Uuid,
    /// The tip as it was found on this face.
    pub tip: At,
    /// The middle of its stop-hole; nothing where it gets none.
    pub hole: Option<At>,
    /// Where that is: "41 mm from the left edge".
    pub measured: Vec<String>,
}

/// The proposal to run the groove out to the edge.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RunOut {
    /// Where it runs out.
    pub to: At,
    /// From the tip.
    pub mm: f64,
    /// It is done so.
    pub taken: bool,
    pub sentence: String,
}

/// A measured wall along a crack.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WallAlong {
    /// From its first end.
    pub at_mm: f64,
    pub wall_mm: f64,
}

/// One crack, as far as it is known.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CrackPlan {
    pub id: Uuid,
    pub letter: String,
    /// As it is drawn on the map, or as it was measured.
    pub length_mm: Option<f64>,
    /// It lies on a face of the map.
    pub on_map: bool,
    /// Walls measured along it; empty where it is one wall all along.
    pub walls: Vec<WallAlong>,
    /// What its groove is run out further than the crack itself.
    pub run_out_mm: f64,
    /// repair, stop_only or leave.
    pub becomes: String,
    /// The thickest along it, or at the part's break, or a guess.
    pub wall_mm: f64,
    pub wall_guessed: bool,
    /// "14 mm"
    pub wall_words: String,
    /// "118 mm, wall 14 mm", for the drawing.
    pub words: String,
    pub found_by: Option<FoundBy>,
    pub found_in_round: usize,
    pub ends: Vec<EndPlan>,
    /// It runs from edge to edge: it parts the casting.
    pub full_break: bool,
    /// there, lost or donor; empty while nobody has said, or nothing broke off.
    pub piece: String,
    /// The groove as it was really ground: depth, and width at the face.
    pub ground_mm: Option<(f64, f64)>,
    /// Everything the later stages need is known.
    pub complete: bool,
}

pub(crate) fn stage(
    round: &Round,
    laid: &Laid<'_>,
    part_wall_mm: Option<f64>,
    plausible: &[Iron],
    shop: &Shop,
) -> Stage<Vec<CrackPlan>> {
    let units = shop.units;
    let plan = crack_plans(round, laid, part_wall_mm, shop);
    Stage {
        amount: amount(&plan),
        missing: missing(&plan, units),
        cautions: cautions(round, laid, &plan, units),
        figures: figures::figures(&plan, plausible, &shop.drills_mm),
        plan,
    }
}

fn crack_plans(round: &Round, laid: &Laid<'_>, part_wall_mm: Option<f64>, shop: &Shop) -> Vec<CrackPlan> {
    let units = shop.units;
    let say = |mm| units.say(mm, Unit::Millimetres);
    round
        .cracks
        .iter()
        .map(|crack| {
            let of = crack.id;
            let on_map = laid.cracks.get(&of);
            let length_mm = on_map.map(|crack| crack.length_mm).or(round.get(crack::LENGTH.of(of)));
            let measured = on_map.map_or(&[][..], |crack| &crack.walls);
            let thickest = measured.iter().map(|(_, wall)| *wall).reduce(f64::max);
            let known_wall_mm = thickest.or(round.get(crack::WALL.of(of))).or(part_wall_mm);
            let wall_mm = known_wall_mm.unwrap_or(GUESSED_WALL_MM);
            let wall_guessed = known_wall_mm.is_none();
            let found_by = round.get(crack::FOUND_BY.of(of));
            let kept = round
                .get(field::part::KEEP_OFF)
                .map(|faces| Kept { faces, behind: round.get(crack::BEHIND.of(of)) });
            let becomes = round.get(crack::BECOMES.of(of)).unwrap_or("repair");
            let length = length_mm.unwrap_or(0.0);
            let asked = |at: usize,
                         kind: FieldOfEach<OneOf>,
                         drilled: FieldOfEach<Number>,
                         past: FieldOfEach<Number>,
                         run_out: FieldOfEach<YesNo>| {
                let along_mm = if at == 0 { 0.0 } else { length };
                let on_map = on_map.map(|crack| &crack.ends[at]);
                EndAsked {
                    kind: kind_of_end(on_map, round.get(kind.of(of)), laid),
                    wall_mm: wall_at(measured, along_mm).unwrap_or(wall_mm),
                    found_by,
                    find_better: round.get(crack::TIP_WAY.of(of)) == Some("find_better"),
                    drilled_mm: round.get(drilled.of(of)),
                    past_mm: round.get(past.of(of)),
                    run_out: round.get(run_out.of(of)) == Some(true),
                    watched: becomes == "leave",
                    kept,
                    on_map,
                    laid,
                    round,
                    drills_mm: &shop.drills_mm,
                    units,
                }
            };
            let ends = vec![
                end("left", &asked(0, crack::END_A, crack::DRILLED_A, crack::PAST_A, crack::RUN_OUT_A)),
                end("right", &asked(1, crack::END_B, crack::DRILLED_B, crack::PAST_B, crack::RUN_OUT_B)),
            ];
            let full_break = ends.iter().all(|end| end.kind == "edge");
            let thinnest = measured.iter().map(|(_, wall)| *wall).reduce(f64::min);
            let wall_words = match thinnest {
                Some(thin) if thin < wall_mm - 0.05 => format!("{} to {}", say(thin), say(wall_mm)),
                _ => say(wall_mm),
            };
            let run_outs = ends.iter().filter_map(|end| end.run_out.as_ref());
            let piece = round.get(crack::PIECE.of(of)).filter(|_| full_break).unwrap_or_default().to_owned();
            let ground = (round.get(crack::GROUND_DEPTH.of(of)), round.get(crack::GROUND_WIDTH.of(of)));
            CrackPlan {
                id: crack.id,
                letter: crack.letter.clone(),
                length_mm,
                on_map: on_map.is_some(),
                walls: measured.iter().map(|&(at_mm, wall_mm)| WallAlong { at_mm, wall_mm }).collect(),
                run_out_mm: run_outs.filter(|run_out| run_out.taken).map(|run_out| run_out.mm).sum(),
                becomes: becomes.to_owned(),
                wall_mm,
                wall_guessed,
                wall_words: wall_words.clone(),
                words: format!(
                    "{}, wall {}{}",
                    length_mm.map_or("length not known".to_owned(), say),
                    wall_words,
                    if wall_guessed { ", a guess" } else { "" }
                ),
                found_by,
                found_in_round: crack.found_in_round,
                complete: length_mm.is_some()
                    && !wall_guessed
                    && found_by.is_some()
                    && ends.iter().all(|end| !end.kind.is_empty())
                    && !(full_break && piece.is_empty()),
                full_break,
                piece,
                ground_mm: ground.0.zip(ground.1),
                ends,
            }
        })
        .collect()
}

/// Faces that must not be touched, and whether one lies behind this crack.
#[derive(Clone, Copy)]
struct Kept<'a> {
    faces: &'a str,
    behind: Option<&'a str>,
}

/// What an end is laid out from.
struct EndAsked<'a> {
    kind: Option<&'a str>,
    wall_mm: f64,
    found_by: Option<FoundBy>,
    find_better: bool,
    /// What was really drilled, and how far past the found tip.
    drilled_mm: Option<f64>,
    past_mm: Option<f64>,
    /// The welder runs the groove out to the edge instead.
    run_out: bool,
    /// It is neither stopped nor repaired.
    watched: bool,
    kept: Option<Kept<'a>>,
    on_map: Option<&'a LaidEnd>,
    laid: &'a Laid<'a>,
    round: &'a Round,
    drills_mm: &'a [f64],
    units: UnitSystem,
}

impl EndAsked<'_> {
    fn planned(&self) -> Option<StopHole> {
        let (wall, found_by) = (WallMillimetres::new(self.wall_mm).ok()?, self.found_by?);
        let hole = stop_hole(wall, found_by, self.drills_mm);
        Some(if self.find_better { hole } else { hole.well_past(found_by) })
    }

    fn hole(&self) -> Option<StopHole> {
        let planned = self.planned()?;
        let Some(drill_mm) = self.drilled_mm else { return Some(planned) };
        let offset_mm = self.past_mm.unwrap_or(planned.offset_mm);
        Some(StopHole::drilled(drill_mm, offset_mm, self.found_by?))
    }

    /// What the hole must not come out at.
    fn behind(&self) -> Option<String> {
        let Kept { faces, behind } = self.kept?;
        let lip = self.units.say(usual_lip_mm(self.wall_mm), Unit::Millimetres);
        match behind {
            Some("kept") => Some(format!(
                "Not through: {faces} lies behind and is not to be touched. Blind, {lip} short of the far side, or a \
                 smaller hole, or ask whose it is."
            )),
            Some(_) => None,
            None => Some(format!(
                "A hole through may come out at what is not to be touched ({faces}): look first. If it does: blind, \
                 {lip} short of the far side, a smaller hole, or ask whose it is."
            )),
        }
    }

    /// Where the hole goes on the face.
    fn hole_at(&self, hole: &StopHole) -> Option<At> {
        let end = self.on_map?;
        Some(end.at.along(end.direction, end.further_mm + hole.offset_mm))
    }

    /// What a hole that would break out is better left for.
    fn run_out(&self, hole: &StopHole) -> Option<RunOut> {
        let end = self.on_map?;
        let face = &self.laid.faces[end.face];
        let mut rims = face.rims.clone();
        rims.extend(face.holes.iter().map(|hole| circle(hole.middle, hole.radius_mm)));
        let middle = self.hole_at(hole)?;
        let (off_mm, nearest) = nearest_rim(&rims, middle)?;
        if self.drilled_mm.is_some() || !breaks_out(off_mm, hole.drill_mm) {
            return None;
        }
        // Straight on where the crack points at the edge, else the shortest way.
        let to = goes_on_to(&rims, end.at, end.direction, 6.0 * hole.drill_mm).unwrap_or(nearest);
        let mm = end.at.distance_mm(to);
        let say = |mm: f64| self.units.say(mm, Unit::Millimetres);
        let rim = (off_mm - hole.drill_mm / 2.0).max(0.0);
        let sentence = format!(
            "The hole would lie {} from the edge, under twice its size: it will most likely break out when heated. \
             Run the groove out to the edge instead, {} further.",
            say(rim),
            say(mm)
        );
        Some(RunOut { to, mm, taken: self.run_out, sentence })
    }

    fn sentence(&self, hole: Option<&StopHole>) -> String {
        let say = |mm| self.units.say(mm, Unit::Millimetres);
        let Some(hole) = hole else { return "how it was found gives the stop-hole".to_owned() };
        let mut said = if self.drilled_mm.is_some() {
            let chance = both(hole.run_past_chance * 100.0, Unit::Percent).0.text();
            format!(
                "drilled: {}, its middle {} past the tip; {chance} that the crack runs past it",
                say(hole.drill_mm),
                say(hole.offset_mm)
            )
        } else if hole.find_tip_better {
            "find the tip better first, with chalk and oil, dye or magnetic particles".to_owned()
        } else if hole.well_past_mm.is_some() {
            "well past it, since the eye does not see the end: drill through, and carry the groove on into the \
             hole. Or find the tip better: chalk and oil first"
                .to_owned()
        } else {
            "drill through, centre punch first, countersink after".to_owned()
        };
        if self.drilled_mm.is_none()
            && let Some(behind) = self.behind()
        {
            said = match self.kept.and_then(|kept| kept.behind) {
                Some("kept") => behind,
                _ => format!("{said}. {behind}"),
            };
        }
        said
    }
}

/// What an end is: as it lies on the map, and only where it is free as it was said.
fn kind_of_end<'a>(on_map: Option<&LaidEnd>, said: Option<&'a str>, laid: &Laid<'_>) -> Option<&'a str> {
    let Some(end) = on_map else { return said };
    match (end.kind, said) {
        (Some(kind), _) => Some(kind),
        // Where the edges are not known, the end may lie on one.
        (None, Some("edge")) if !laid.faces[end.face].rims.is_empty() => None,
        (None, said) => said,
    }
}

fn end(side: &str, asked: &EndAsked<'_>) -> EndPlan {
    let kind = asked.kind;
    let planned = (kind == Some("tip") && !asked.watched).then(|| asked.hole()).flatten();
    let run_out = planned.as_ref().and_then(|hole| asked.run_out(hole));
    let taken = run_out.as_ref().is_some_and(|run_out| run_out.taken);
    let hole = planned.filter(|_| !taken);
    let meets = asked.on_map.map_or_else(String::new, |end| end.meets.clone());
    let into = |what: &str| if meets.is_empty() { what.to_owned() } else { meets.clone() };
    let further_mm = asked.on_map.map_or(0.0, |end| end.further_mm);
    let mut sentence = match kind {
        None => "say how it ends".to_owned(),
        Some("tip") if asked.watched => "two punch marks past it show whether it grows".to_owned(),
        Some("tip") if taken => "groove run out to the edge: no stop-hole".to_owned(),
        Some("tip") => asked.sentence(hole.as_ref()),
        Some("edge") => "runs out: no stop-hole".to_owned(),
        Some("hole") => format!("ends in {}: no stop-hole", into("a bore")),
        Some("branch") => format!("joins {}: no stop-hole", into("another crack")),
        Some(_) => "goes out of sight: look at the other face before any heat".to_owned(),
    };
    if hole.is_some() && further_mm > 0.05 {
        let say = asked.units.say(further_mm, Unit::Millimetres);
        sentence =
            format!("{sentence}. On the other face it runs {say} further: the hole goes past that tip");
    }
    EndPlan {
        side: side.to_owned(),
        name: asked.on_map.map_or(side, |end| end.name).to_owned(),
        wall_mm: asked.wall_mm,
        meets,
        at: asked.on_map.map(|end| {
            let hole = hole.as_ref().and_then(|hole| asked.hole_at(hole));
            let measured = hole.map(|at| asked.laid.measured(asked.round, end.face, at, asked.units));
            EndAt {
                face: asked.laid.faces[end.face].face.id,
                tip: end.at,
                hole,
                measured: measured.unwrap_or_default(),
            }
        }),
        further_mm,
        run_out,
        kind: kind.unwrap_or_default().to_owned(),
        drilled: hole.is_some() && asked.drilled_mm.is_some(),
        blind: hole.is_some() && asked.kept.is_some_and(|kept| kept.behind == Some("kept")),
        stop_hole: hole,
        sentence,
    }
}

/// A mapped hard spot is in the way of a drill and of a pin.
fn cautions(round: &Round, laid: &Laid<'_>, cracks: &[CrackPlan], units: UnitSystem) -> Vec<Caution> {
    let off = units.say(OFF_HARD_SPOT_MM, Unit::Millimetres);
    let hard = round.hard_spots.iter().map(|spot| Caution {
        station: Station::Prep,
        sentence: format!("Hard spot at {}: no drill bites it. Cut it out, or keep {off} off it.", spot.spot),
    });
    let one_side = cracks.iter().filter(|crack| {
        let through = round.get(crack::THROUGH.of(crack.id)) != Some(false);
        through && laid.cracks.get(&crack.id).is_some_and(|laid| laid.other_face_open)
    });
    let one_side = one_side.map(|crack| {
        let sentence = format!(
            "Crack {} is mapped on one side of the wall: look at the other face, its tip may lie further on.",
            crack.letter
        );
        Caution::new(Station::Cracks, sentence)
    });
    hard.chain(one_side).collect()
}

fn missing(cracks: &[CrackPlan], units: UnitSystem) -> Vec<Missing> {
    let say = |key: String, verb: String, what: String, why: &str| Missing {
        key,
        station: Station::Cracks,
        verb,
        what,
        why: why.to_owned(),
    };
    if cracks.is_empty() {
        return vec![say(
            "crack".to_owned(),
            "Map the crack".to_owned(),
            "No crack is mapped".to_owned(),
            "holes, groove, filler and hours all follow from the map",
        )];
    }
    let mut found = Vec::new();
    for crack in cracks {
        let letter = &crack.letter;
        let of = crack.id;
        let mut need = |absent: bool, key: String, verb: String, what: &str, why: &str| {
            if absent {
                found.push(say(key, verb, format!("Crack {letter}: {what}"), why));
            }
        };
        need(
            crack.length_mm.is_none(),
            crack::LENGTH.of(of).key(),
            format!("Measure crack {letter}"),
            "length",
            "filler and time follow from it",
        );
        need(
            crack.wall_guessed,
            crack::WALL.of(of).key(),
            format!("Measure the wall at {letter}"),
            "wall",
            &format!(
                "stop-holes, groove and rods are for a guess of {}",
                units.say(GUESSED_WALL_MM, Unit::Millimetres)
            ),
        );
        need(
            crack.found_by.is_none(),
            crack::FOUND_BY.of(of).key(),
            format!("Say how {letter} was found"),
            "how its ends were found",
            "the stop-hole's offset follows from it",
        );
        for (end, at) in crack.ends.iter().zip([crack::END_A, crack::END_B]) {
            need(
                end.kind.is_empty(),
                at.of(of).key(),
                format!("Say how {letter} ends, {}", end.name),
                &format!("{} end", end.name),
                "only a tip gets a stop-hole",
            );
        }
        need(
            crack.full_break && crack.piece.is_empty(),
            crack::PIECE.of(of).key(),
            format!("Say whether the piece at {letter} is there"),
            "the broken-off piece",
            "what is lost cannot be joined on again",
        );
    }
    found
}

fn amount(cracks: &[CrackPlan]) -> Amount {
    if cracks.is_empty() {
        Amount::Nothing
    } else if cracks.iter().all(|crack| {
        let tip_wants_finding =
            crack.ends.iter().any(|end| end.stop_hole.is_some_and(|hole| hole.find_tip_better));
        crack.complete && !tip_wants_finding
    }) {
        Amount::Enough
    } else {
        Amount::Something
    }
}

/// How a figure says that its wall is a guess, and how sure it then is.
pub(crate) fn wall_words(guessed: bool) -> (&'static str, Certainty) {
    if guessed { (", a guess", Certainty::Guess) } else { ("", Certainty::Computed) }
}
