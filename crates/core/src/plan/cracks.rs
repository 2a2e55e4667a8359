//! Stage 3: every crack with its ends and what to drill there.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::part::{Caution, GUESSED_WALL_MM, Missing};
use super::{Amount, Station};
use crate::drill_speed::{DrillTool, cutting_speed_m_min, drill_speed_rpm};
use crate::figure::{Certainty, Figure, Source};
use crate::iron::{Iron, least};
use crate::job::{Round, crack_key};
use crate::quantity::{Millimetres, Unit, UnitSystem, WallMillimetres};
use crate::stop_hole::{BARE_TIP_RADIUS_MM, FoundBy, StopHole, stop_hole, tip_stress_factor};

/// One end of a crack.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EndPlan {
    /// "left" or "right".
    pub side: String,
    /// tip, edge, hole, branch, hidden; empty while not known.
    pub kind: String,
    /// Only at a tip with known wall and way of finding.
    pub stop_hole: Option<StopHole>,
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
    /// "118 mm, wall 14 mm", for the drawing.
    pub words: String,
    pub found_by: Option<FoundBy>,
    pub found_in_round: usize,
    pub ends: Vec<EndPlan>,
    /// Everything the later stages need is known.
    pub complete: bool,
}

pub(super) fn crack_plans(round: &Round, part_wall_mm: Option<f64>, units: UnitSystem) -> Vec<CrackPlan> {
    let say = |mm| units.say(mm, Unit::Millimetres);
    round
        .cracks
        .iter()
        .map(|crack| {
            let key = |field: &str| crack_key(crack.id, field);
            let length_mm = round.number(&key("length"));
            let known_wall_mm = round.number(&key("wall")).or(part_wall_mm);
            let wall_mm = known_wall_mm.unwrap_or(GUESSED_WALL_MM);
            let wall_guessed = known_wall_mm.is_none();
            let found_by = round.choice(&key("found_by")).and_then(FoundBy::from_id);
            let ends: Vec<EndPlan> = [("left", "end_a"), ("right", "end_b")]
                .into_iter()
                .map(|(side, field)| end(side, round.choice(&key(field)), wall_mm, found_by))
                .collect();
            CrackPlan {
                id: crack.id,
                letter: crack.letter.clone(),
                length_mm,
                wall_mm,
                wall_guessed,
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
                    && ends.iter().all(|end| !end.kind.is_empty()),
                ends,
            }
        })
        .collect()
}

fn end(side: &str, kind: Option<&str>, wall_mm: f64, found_by: Option<FoundBy>) -> EndPlan {
    let wall = WallMillimetres::new(wall_mm).ok();
    let hole = match (kind, wall, found_by) {
        (Some("tip"), Some(wall), Some(found_by)) => Some(stop_hole(wall, found_by, &[])),
        _ => None,
    };
    let sentence = match kind {
        None => "say how it ends".to_owned(),
        Some("tip") => match &hole {
            Some(hole) if hole.find_tip_better => {
                "find the tip better first, with dye or magnetic particles".to_owned()
            }
            Some(_) => "drill through, centre punch first, countersink after".to_owned(),
            None => "how it was found gives the stop-hole".to_owned(),
        },
        Some("edge") => "runs out: no stop-hole".to_owned(),
        Some("hole") => "ends in a bore: no stop-hole".to_owned(),
        Some("branch") => "joins another crack: no stop-hole".to_owned(),
        Some(_) => "goes out of sight: look at the other face before any heat".to_owned(),
    };
    EndPlan { side: side.to_owned(), kind: kind.unwrap_or_default().to_owned(), stop_hole: hole, sentence }
}

/// A mapped hard spot is in the way of a drill and of a pin.
pub(super) fn cautions(round: &Round, units: UnitSystem) -> Vec<Caution> {
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

pub(super) fn missing(cracks: &[CrackPlan]) -> Vec<Missing> {
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
        let mut need = |absent: bool, field: &str, verb: String, what: &str, why: &str| {
            if absent {
                found.push(say(crack_key(crack.id, field), verb, format!("Crack {letter}: {what}"), why));
            }
        };
        need(
            crack.length_mm.is_none(),
            "length",
            format!("Measure crack {letter}"),
            "length",
            "filler and time follow from it",
        );
        need(
            crack.wall_guessed,
            "wall",
            format!("Measure the wall at {letter}"),
            "wall",
            "stop-holes, groove and rods are for a guess of 10 mm",
        );
        need(
            crack.found_by.is_none(),
            "found_by",
            format!("Say how {letter} was found"),
            "how its ends were found",
            "the stop-hole's offset follows from it",
        );
        for (end, field) in crack.ends.iter().zip(["end_a", "end_b"]) {
            need(
                end.kind.is_empty(),
                field,
                format!("Say how {letter} ends, {}", end.side),
                &format!("{} end", end.side),
                "only a tip gets a stop-hole",
            );
        }
    }
    found
}

pub(super) fn amount(cracks: &[CrackPlan]) -> Amount {
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
pub(super) fn wall_words(guessed: bool) -> (&'static str, Certainty) {
    if guessed { (", a guess", Certainty::Guess) } else { ("", Certainty::Computed) }
}

/// Drill, offset, pilot, spindle speed and the chance that it runs past, for each tip.
pub(super) fn figures(cracks: &[CrackPlan], plausible: &[Iron]) -> Vec<Figure> {
    let mut figures = Vec::new();
    let slowest = least(plausible, |iron| cutting_speed_m_min(iron, DrillTool::Hss));
    for crack in cracks {
        let wall = crack.wall_mm;
        let Some(found_by) = crack.found_by else { continue };
        for end in &crack.ends {
            let Some(hole) = end.stop_hole else { continue };
            let at = format!("cracks.{}.{}", crack.letter, end.side);
            let name = |what: &str| format!("{what}, {} {}", crack.letter, end.side);
            let (m, u) = found_by.beyond_mm();
            let house = |figure: Figure| {
                let (guess, how_sure) = wall_words(crack.wall_guessed);
                figure
                    .fact("Wall", format!("{wall} mm{guess}"))
                    .fact("End", found_by.words())
                    .source(Source::House, how_sure)
            };
            figures.push(
                house(Figure::new(
                    format!("{at}.drill"),
                    name("Stop-hole"),
                    hole.drill_mm,
                    Unit::Millimetres,
                ))
                .formula(format!("wanted: half of {wall} mm, between 3.2 and 9.5"))
                .formula(format!("next drill whose hole catches the tip: {} mm", hole.drill_mm)),
            );
            figures.push(
                house(Figure::new(
                    format!("{at}.offset"),
                    name("Past the tip"),
                    hole.offset_mm,
                    Unit::Millimetres,
                ))
                .formula(format!(
                    "max(0.3 x {d}, {m} + 2.054 x {u} - {d} / 2) = {o:.2} mm",
                    d = hole.drill_mm,
                    o = hole.offset_mm
                ))
                .note(if hole.find_tip_better {
                    "Held at half the drill so that the crack still runs into the hole."
                } else {
                    ""
                }),
            );
            figures.push(
                house(Figure::new(
                    format!("{at}.run_past"),
                    name("Runs past"),
                    hole.run_past_chance * 100.0,
                    Unit::Percent,
                ))
                .formula(format!(
                    "1 - Phi(({o:.2} + {d} / 2 - {m}) / {u})",
                    o = hole.offset_mm,
                    d = hole.drill_mm
                )),
            );
            if let Some(pilot) = hole.pilot_mm {
                figures.push(
                    house(Figure::new(format!("{at}.pilot"), name("Pilot"), pilot, Unit::Millimetres))
                        .formula(format!("0.75 x {} mm", hole.drill_mm)),
                );
            }
            if let Ok(drill) = Millimetres::new(hole.drill_mm) {
                let v = cutting_speed_m_min(slowest.iron, DrillTool::Hss);
                figures.push(
                    house(Figure::new(
                        format!("{at}.rpm"),
                        name("Spindle"),
                        drill_speed_rpm(slowest.iron, drill, DrillTool::Hss),
                        Unit::Rpm,
                    ))
                    .formula(format!("1000 x {v} / (pi x {})", hole.drill_mm))
                    .note("High-speed steel, dry.")
                    .forced_by(slowest.forced_by()),
                );
            }
            if let Some(length) = crack.length_mm {
                let from_edge = crack.ends.iter().any(|e| e.kind == "edge");
                let bare = tip_stress_factor(length, from_edge, BARE_TIP_RADIUS_MM);
                let holed = tip_stress_factor(length, from_edge, hole.drill_mm / 2.0);
                figures.push(
                    Figure::new(format!("{at}.pull"), name("Pull at the end"), holed, Unit::Points)
                        .formula(format!("bare tip, radius 0.05 mm: {bare:.0} times"))
                        .formula(format!("hole, radius {:.1} mm: {holed:.1} times", hole.drill_mm / 2.0))
                        .fact("Crack", format!("{length} mm"))
                        .source(
                            Source::Law("Inglis' ellipse; bare tip house".to_owned()),
                            Certainty::Estimate,
                        ),
                );
            }
        }
    }
    figures
}
