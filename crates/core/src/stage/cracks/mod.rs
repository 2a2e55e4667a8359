//! Stage 3: every crack with its ends and what to drill there.

mod figures;

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::part::GUESSED_WALL_MM;
use super::{Amount, Caution, Missing, Stage, Station};
use crate::field::{self, FieldOfEach, Number, OneOf, crack};
use crate::figure::Certainty;
use crate::groove::usual_lip_mm;
use crate::iron::Iron;
use crate::job::Round;
use crate::quantity::{Unit, UnitSystem, WallMillimetres, both};
use crate::stop_hole::{FoundBy, StopHole, stop_hole};

/// One end of a crack.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EndPlan {
    /// "left" or "right".
    pub side: String,
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

/// One crack, as far as it is known.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CrackPlan {
    pub id: Uuid,
    pub letter: String,
    pub length_mm: Option<f64>,
    /// Along it, or at the part's break, or a guess.
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
    part_wall_mm: Option<f64>,
    plausible: &[Iron],
    units: UnitSystem,
) -> Stage<Vec<CrackPlan>> {
    let plan = crack_plans(round, part_wall_mm, units);
    Stage {
        amount: amount(&plan),
        missing: missing(&plan, units),
        cautions: cautions(round, units),
        figures: figures::figures(&plan, plausible),
        plan,
    }
}

fn crack_plans(round: &Round, part_wall_mm: Option<f64>, units: UnitSystem) -> Vec<CrackPlan> {
    let say = |mm| units.say(mm, Unit::Millimetres);
    round
        .cracks
        .iter()
        .map(|crack| {
            let of = crack.id;
            let length_mm = round.get(crack::LENGTH.of(of));
            let known_wall_mm = round.get(crack::WALL.of(of)).or(part_wall_mm);
            let wall_mm = known_wall_mm.unwrap_or(GUESSED_WALL_MM);
            let wall_guessed = known_wall_mm.is_none();
            let found_by = round.get(crack::FOUND_BY.of(of));
            let kept = round
                .get(field::part::KEEP_OFF)
                .map(|faces| Kept { faces, behind: round.get(crack::BEHIND.of(of)) });
            let asked = |kind: FieldOfEach<OneOf>,
                         drilled: FieldOfEach<Number>,
                         past: FieldOfEach<Number>| EndAsked {
                kind: round.get(kind.of(of)),
                wall_mm,
                found_by,
                find_better: round.get(crack::TIP_WAY.of(of)) == Some("find_better"),
                drilled_mm: round.get(drilled.of(of)),
                past_mm: round.get(past.of(of)),
                kept,
                units,
            };
            let ends = vec![
                end("left", &asked(crack::END_A, crack::DRILLED_A, crack::PAST_A)),
                end("right", &asked(crack::END_B, crack::DRILLED_B, crack::PAST_B)),
            ];
            let full_break = ends.iter().all(|end| end.kind == "edge");
            let piece = round.get(crack::PIECE.of(of)).filter(|_| full_break).unwrap_or_default().to_owned();
            let ground = (round.get(crack::GROUND_DEPTH.of(of)), round.get(crack::GROUND_WIDTH.of(of)));
            CrackPlan {
                id: crack.id,
                letter: crack.letter.clone(),
                length_mm,
                wall_mm,
                wall_guessed,
                wall_words: say(wall_mm),
                words: format!(
                    "{}, wall {}{}",
                    length_mm.map_or("length not known".to_owned(), say),
                    say(wall_mm),
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
    kept: Option<Kept<'a>>,
    units: UnitSystem,
}

impl EndAsked<'_> {
    fn planned(&self) -> Option<StopHole> {
        let (wall, found_by) = (WallMillimetres::new(self.wall_mm).ok()?, self.found_by?);
        let hole = stop_hole(wall, found_by, &[]);
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

fn end(side: &str, asked: &EndAsked<'_>) -> EndPlan {
    let kind = asked.kind;
    let hole = (kind == Some("tip")).then(|| asked.hole()).flatten();
    let sentence = match kind {
        None => "say how it ends".to_owned(),
        Some("tip") => asked.sentence(hole.as_ref()),
        Some("edge") => "runs out: no stop-hole".to_owned(),
        Some("hole") => "ends in a bore: no stop-hole".to_owned(),
        Some("branch") => "joins another crack: no stop-hole".to_owned(),
        Some(_) => "goes out of sight: look at the other face before any heat".to_owned(),
    };
    EndPlan {
        side: side.to_owned(),
        kind: kind.unwrap_or_default().to_owned(),
        drilled: hole.is_some() && asked.drilled_mm.is_some(),
        blind: hole.is_some() && asked.kept.is_some_and(|kept| kept.behind == Some("kept")),
        stop_hole: hole,
        sentence,
    }
}

/// A mapped hard spot is in the way of a drill and of a pin.
fn cautions(round: &Round, units: UnitSystem) -> Vec<Caution> {
    round
        .hard_spots
        .iter()
        .map(|spot| Caution {
            station: Station::Prep,
            sentence: format!(
                "Hard spot at {}: no drill bites it. Cut it out, or keep {} off it.",
                spot.spot,
                units.say(6.0, Unit::Millimetres)
            ),
        })
        .collect()
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
                format!("Say how {letter} ends, {}", end.side),
                &format!("{} end", end.side),
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
