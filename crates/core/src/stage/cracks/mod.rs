//! Stage 3: every crack with its ends and what to drill there.

mod ends;
mod figures;
mod free_edges;
mod laid;
mod slits;

use crate::crack::said::TipWay;
use serde::Serialize;
use uuid::Uuid;

use super::part::GUESSED_WALL_MM;
use super::{Amount, Caution, Missing, Stage, Station};
use crate::crack::said::{CrackFate, EndKind, PieceState};
use crate::crack::stop_hole::FoundBy;
use crate::crack::tip_offset::beyond;
use crate::field::{self, FieldOfEach, Number, One, YesNo, crack};
use crate::figure::Certainty;
use crate::iron::Iron;
use crate::job::{Crack, Round};
use crate::quantity::{Unit, UnitSystem};
use crate::shop::Shop;
use crate::stage::taught::DRILL;

pub use ends::{EndAt, EndPlan, Grown, RunOut};
use ends::{EndInputs, KeptFaces, end, kind_of_end};
pub(crate) use free_edges::FreeEdgesNear;
pub(crate) use laid::{FaceGeometry, LaidLine, by_rule, mark_name, wall_at};
pub(crate) use slits::slits;

/// So much is kept off a hard spot: no drill bites it. House.
pub(crate) const OFF_HARD_SPOT_MM: f64 = 6.0;

/// A measured wall along a crack.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WallAlong {
    /// From its first end.
    pub at_mm: f64,
    pub wall_mm: f64,
}

impl CrackPlan {
    /// Something is done at it: it is not left and watched, nor sound from an earlier round.
    pub(crate) fn worked(&self) -> bool {
        !matches!(self.becomes, CrackFate::Leave | CrackFate::Sound)
    }

    /// It gets filler or pins.
    pub(crate) fn repaired(&self) -> bool {
        self.becomes == CrackFate::Repair
    }
}

/// One crack, as far as it is known.
#[derive(Debug, Clone, PartialEq, Serialize)]
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
    #[serde(skip)]
    pub run_out_mm: f64,
    pub becomes: CrackFate,
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
    /// Nothing while nobody has said, or nothing broke off.
    pub piece: Option<PieceState>,
    /// The groove as it was really ground: depth, and width at the face.
    #[serde(skip)]
    pub ground_mm: Option<(f64, f64)>,
    /// Everything the later stages need is known.
    #[serde(skip)]
    pub complete: bool,
    #[serde(skip)]
    pub(crate) free_edges: FreeEdgesNear,
}

pub(crate) fn stage(
    round: &Round,
    geometry: &FaceGeometry<'_>,
    part_wall_mm: Option<f64>,
    plausible: &[Iron],
    shop: &Shop,
) -> Stage<Vec<CrackPlan>> {
    let units = shop.units;
    let plan = crack_plans(round, geometry, part_wall_mm, shop);
    Stage {
        amount: amount(&plan),
        missing: missing(&plan, units),
        cautions: cautions(round, geometry, &plan, units),
        figures: figures::figures(&plan, plausible, shop),
        plan,
    }
}

fn crack_plans(
    round: &Round,
    geometry: &FaceGeometry<'_>,
    part_wall_mm: Option<f64>,
    shop: &Shop,
) -> Vec<CrackPlan> {
    let asked = CracksInputs { round, laid: geometry, part_wall_mm, shop };
    round.cracks.iter().map(|crack| asked.plan_of(crack)).collect()
}

/// What the plans of the cracks are made from.
struct CracksInputs<'a> {
    round: &'a Round,
    laid: &'a FaceGeometry<'a>,
    part_wall_mm: Option<f64>,
    shop: &'a Shop,
}

/// The fields of one end of a crack.
struct FieldsOfEnd {
    kind: FieldOfEach<One<EndKind>>,
    drilled: FieldOfEach<Number>,
    past: FieldOfEach<Number>,
    run_out: FieldOfEach<YesNo>,
    grown: FieldOfEach<Number>,
}

/// Left, right.
const ENDS: [FieldsOfEnd; 2] = [
    FieldsOfEnd {
        kind: crack::END_A,
        drilled: crack::DRILLED_A,
        past: crack::PAST_A,
        run_out: crack::RUN_OUT_A,
        grown: crack::GROWN_A,
    },
    FieldsOfEnd {
        kind: crack::END_B,
        drilled: crack::DRILLED_B,
        past: crack::PAST_B,
        run_out: crack::RUN_OUT_B,
        grown: crack::GROWN_B,
    },
];

impl CracksInputs<'_> {
    fn say(&self, mm: f64) -> String {
        self.shop.units.say(mm, Unit::Millimetres)
    }

    /// Its ends, left and right, for a wall where none was measured.
    fn ends(&self, crack: &Crack, length_mm: f64, wall_mm: f64) -> Vec<EndPlan> {
        let Self { round, laid, shop, .. } = *self;
        let of = crack.id;
        let on_map = laid.cracks.get(&of);
        let measured = on_map.map_or(&[][..], |crack| &crack.walls);
        let faces = round.get(field::part::KEEP_OFF);
        let asked = |at: usize| {
            let fields = &ENDS[at];
            let along_mm = if at == 0 { 0.0 } else { length_mm };
            let on_map = on_map.map(|crack| &crack.ends[at]);
            EndInputs {
                kind: kind_of_end(on_map, round.get(fields.kind.of(of)), laid),
                wall_mm: wall_at(measured, along_mm).unwrap_or(wall_mm),
                beyond: round.get(crack::FOUND_BY.of(of)).map(|it| beyond(&shop.tips, it).0),
                find_better: round.get(crack::TIP_WAY.of(of)) == Some(TipWay::FindBetter),
                drilled_mm: round.get(fields.drilled.of(of)),
                past_mm: round.get(fields.past.of(of)),
                run_out: round.get(fields.run_out.of(of)) == Some(true),
                watched: matches!(
                    round.get(crack::BECOMES.of(of)),
                    Some(CrackFate::Leave | CrackFate::Sound)
                ),
                grown_mm: round.get(fields.grown.of(of)),
                kept: faces.map(|faces| KeptFaces { faces, behind: round.get(crack::BEHIND.of(of)) }),
                on_map,
                laid,
                round,
                drills_mm: &shop.drills_mm,
                drill: DRILL.on(round, shop),
                units: shop.units,
            }
        };
        vec![end("left", &asked(0)), end("right", &asked(1))]
    }

    fn plan_of(&self, crack: &Crack) -> CrackPlan {
        let Self { round, laid, .. } = *self;
        let of = crack.id;
        let on_map = laid.cracks.get(&of);
        let length_mm = on_map.map(|crack| crack.length_mm).or(round.get(crack::LENGTH.of(of)));
        let measured = on_map.map_or(&[][..], |crack| &crack.walls);
        let walls = || measured.iter().map(|(_, wall)| *wall);
        let known_wall_mm = walls().reduce(f64::max).or(round.get(crack::WALL.of(of))).or(self.part_wall_mm);
        let wall_mm = known_wall_mm.unwrap_or(GUESSED_WALL_MM);
        let wall_guessed = known_wall_mm.is_none();
        let found_by = round.get(crack::FOUND_BY.of(of));
        let ends = self.ends(crack, length_mm.unwrap_or(0.0), wall_mm);
        let full_break = ends.iter().all(|end| end.kind == Some(EndKind::Edge));
        let wall_words = match walls().reduce(f64::min) {
            Some(thin) if thin < wall_mm - 0.05 => format!("{} to {}", self.say(thin), self.say(wall_mm)),
            _ => self.say(wall_mm),
        };
        let run_outs = ends.iter().filter_map(|end| end.run_out.as_ref());
        let piece = round.get(crack::PIECE.of(of)).filter(|_| full_break);
        let ground = (round.get(crack::GROUND_DEPTH.of(of)), round.get(crack::GROUND_WIDTH.of(of)));
        CrackPlan {
            id: of,
            letter: crack.letter.clone(),
            length_mm,
            on_map: on_map.is_some(),
            walls: measured.iter().map(|&(at_mm, wall_mm)| WallAlong { at_mm, wall_mm }).collect(),
            run_out_mm: run_outs.filter(|run_out| run_out.taken).map(|run_out| run_out.mm).sum(),
            becomes: round.get(crack::BECOMES.of(of)).unwrap_or(CrackFate::Repair),
            wall_mm,
            wall_guessed,
            words: format!(
                "{}, wall {}{}",
                length_mm.map_or("length not known".to_owned(), |mm| self.say(mm)),
                wall_words,
                if wall_guessed { ", a guess" } else { "" }
            ),
            wall_words,
            found_by,
            found_in_round: crack.found_in_round,
            complete: length_mm.is_some()
                && !wall_guessed
                && (found_by.is_some() || full_break)
                && ends.iter().all(|end| end.kind.is_some())
                && !(full_break && piece.is_none()),
            full_break,
            piece,
            free_edges: on_map.map(|crack| laid.free_edges(crack)).unwrap_or_default(),
            ground_mm: ground.0.zip(ground.1),
            ends,
        }
    }
}

/// A mapped hard spot is in the way of a drill and of a pin.
fn cautions(
    round: &Round,
    geometry: &FaceGeometry<'_>,
    cracks: &[CrackPlan],
    units: UnitSystem,
) -> Vec<Caution> {
    let off = units.say_least(OFF_HARD_SPOT_MM, Unit::Millimetres);
    let hard = round.hard_spots.iter().map(|spot| Caution {
        station: Station::Prep,
        sentence: format!("Hard spot at {}: no drill bites it. Cut it out, or keep {off} off it.", spot.spot),
    });
    let one_side = cracks.iter().filter(|crack| {
        let through = round.get(crack::THROUGH.of(crack.id)) != Some(false);
        through && geometry.cracks.get(&crack.id).is_some_and(|geometry| geometry.other_face_open)
    });
    let one_side = one_side.map(|crack| {
        let sentence = format!(
            "Crack {} is mapped on one side of the wall: look at the other face, its tip may lie further on.",
            crack.letter
        );
        Caution::new(Station::Cracks, sentence)
    });
    let grows = cracks.iter().flat_map(|crack| crack.ends.iter().map(move |end| (crack, end)));
    let grows = grows.filter(|(_, end)| end.grown.is_some_and(|grown| grown.really)).map(|(crack, end)| {
        let sentence =
            format!("Crack {}, {} end, has grown: it is no longer one to leave.", crack.letter, end.name);
        Caution::new(Station::Cracks, sentence)
    });
    hard.chain(one_side).chain(grows).collect()
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
    if cracks.iter().all(|crack| crack.becomes == CrackFate::Sound) {
        return vec![say(
            "crack".to_owned(),
            "Map the new crack".to_owned(),
            "Every crack that is mapped is sound".to_owned(),
            "nothing is left to be mended, unless there is another",
        )];
    }
    let mut found = Vec::new();
    // What is watched or sound asks for nothing before the rest is mended.
    for crack in cracks.iter().filter(|crack| crack.worked()) {
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
            // What is broken off has no tip that could hide.
            crack.found_by.is_none() && !crack.full_break,
            crack::FOUND_BY.of(of).key(),
            format!("Say how {letter} was found"),
            "how its ends were found",
            "the stop-hole's offset follows from it",
        );
        for (end, at) in crack.ends.iter().zip([crack::END_A, crack::END_B]) {
            need(
                end.kind.is_none(),
                at.of(of).key(),
                format!("Say how {letter} ends, {}", end.name),
                &format!("{} end", end.name),
                "only a tip gets a stop-hole",
            );
        }
        need(
            crack.full_break && crack.piece.is_none(),
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
    } else if cracks.iter().filter(|crack| crack.worked()).all(|crack| {
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
