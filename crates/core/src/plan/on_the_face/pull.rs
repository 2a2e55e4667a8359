//! What the seams of a drawn face pull as they shrink: on themselves, and how far holes move.

use serde::Serialize;

use super::part::{FlatFace, flat_face, round_holes};
use crate::body::{Piece, Shrinks, pulled, shrink_mm};
use crate::job::Job;
use crate::map::At;
use crate::plan::{FacePlan, Plan};
use crate::quantity::{Rounding, Unit, UnitSystem};
use crate::shop::Shop;
use crate::stage::{LayerStrip, SeamStrip};

/// What the seams of a face pull.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SeamPulls {
    /// Of each seam that is laid in beads, the one that pulls most first.
    pub seams: Vec<SeamPull>,
    pub not_in_it: String,
}

/// What one seam pulls.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SeamPull {
    pub letter: String,
    /// "Crack A shrinks about 0.2 mm across itself and pulls 60 to 110 MPa on itself; at 160 MPa something gives."
    pub sentence: String,
    /// "bolt hole 1 and bolt hole 2 come 0.16 mm nearer"
    pub moves: Vec<String>,
    /// What would lessen it.
    pub lessens: String,
}

/// House: of the iron's strength, what brings it to give.
const IRON_GIVES: f64 = 0.8;
/// Of a rod of iron, of what the casting stands.
const IRON_ROD_GIVES: f64 = 0.5;
/// House: heat and walls are known so well.
const KNOWN: f64 = 0.3;
/// House: from here a move is told, and from this share of what gives what would lessen the pull.
const TOLD_MM: f64 = 0.02;
const MUCH: f64 = 0.3;
/// Ours: a seam of one of the first few; each asks for a mesh.
const SEAMS_MOST: usize = 4;

/// What the seams of the drawn face pull. Else why nothing is said; empty where no face is drawn, or nothing is laid in
/// beads.
///
/// # Errors
/// The sentence.
pub fn seam_pulls(job: &Job, plan: &Plan, shop: &Shop) -> Result<SeamPulls, String> {
    let (Some(way), Some(torch)) = (plan.methods.chosen, &plan.torch) else { return Err(String::new()) };
    let (Some(arc), Some(beads)) = (way.method.entry().arc, &torch.beads) else { return Err(String::new()) };
    let flat = flat_face(job, plan, shop)?;
    let wall_mm = flat.piece.wall_mm;
    let iron = &flat.piece.iron;
    let gives_mpa = way
        .method
        .filler(wall_mm, flat.iron == crate::iron::Iron::Ductile)
        .map_or(iron.tensile_mpa, |filler| filler.yield_mpa.unwrap_or(IRON_ROD_GIVES * iron.tensile_mpa))
        .min(IRON_GIVES * iron.tensile_mpa);
    let peened = torch.peen;
    let seams = beads.seams.iter().filter(|strip| flat.letters.contains(&strip.letter)).take(SEAMS_MOST);
    let mut found: Vec<(f64, SeamPull)> = seams
        .filter_map(|strip| {
            let seams = plan.prep.iter().flat_map(|prep| &prep.seams);
            let travel = seams.filter(|seam| seam.letter == strip.letter).find_map(|seam| seam.travel_mm_s);
            let joules_a_mm = arc.joules_a_mm(wall_mm, way.school, travel);
            let shrinks = Shrinks { joules_a_mm, passes: passes(strip), peened };
            let asked =
                Asked { flat: &flat, strip, shrink_mm: shrink_mm(iron, wall_mm, shrinks), peened, gives_mpa };
            asked.pull(plan.units)
        })
        .collect();
    found.sort_by(|one, other| other.0.total_cmp(&one.0));
    if found.is_empty() {
        return Err(String::new());
    }
    Ok(SeamPulls {
        seams: found.into_iter().map(|(_, pull)| pull).collect(),
        not_in_it: "Flat, elastic, the face as drawn, filled from end to end; heat elsewhere, and stress that was cast \
             in, are not in it."
            .to_owned(),
    })
}

/// Beads in the same cross-section.
fn passes(strip: &SeamStrip) -> u32 {
    let beside = |layer: &LayerStrip| layer.beads.iter().map(|bead| bead.at.beside).max().unwrap_or(1);
    strip.layers.iter().map(beside).sum::<u32>().max(1)
}

struct Asked<'a> {
    flat: &'a FlatFace<'a>,
    strip: &'a SeamStrip,
    shrink_mm: f64,
    peened: bool,
    gives_mpa: f64,
}

impl Asked<'_> {
    fn pull(&self, units: UnitSystem) -> Option<(f64, SeamPull)> {
        let own = self.flat.letters.iter().position(|letter| *letter == self.strip.letter)?;
        let mut cracks = self.flat.piece.cracks.clone();
        cracks.swap(0, own);
        let piece = Piece { cracks, ..self.flat.piece.clone() };
        let pairs = hole_pairs(self.flat.of);
        let between: Vec<(At, At)> = pairs.iter().map(|pair| pair.between).collect();
        let whole = pulled(&piece, self.shrink_mm, &between).ok()?;
        // Beyond it something gives: all that goes with the shrinking stops there.
        let gives = (self.gives_mpa / whole.most_pull_mpa.max(1e-9)).min(1.0);
        let shrinks = self.shrink_mm * gives;
        let mean = whole.mean_pull_mpa * gives;
        let (low, high) = (mean * (1.0 - KNOWN), (whole.mean_pull_mpa * (1.0 + KNOWN)).min(self.gives_mpa));
        let say_mm = |mm: f64| units.say_exactly((mm * 100.0).round() / 100.0, Unit::Millimetres);
        let show_mpa = |mpa: f64| units.show(mpa, Unit::Megapascals, Rounding::Nearest);
        let (low, high) = (show_mpa(low.max(0.0)), show_mpa(high.max(0.0)));
        let pulls = match low.number == high.number {
            true => high.text(),
            false => format!("{} to {}", low.number, high.text()),
        };
        let sentence = format!(
            "Crack {} shrinks about {} across itself and pulls {pulls} on itself; at {} something gives.",
            self.strip.letter,
            say_mm(shrinks),
            show_mpa(self.gives_mpa).text(),
        );
        let mut moves: Vec<(f64, String)> = pairs
            .iter()
            .zip(&whole.moves_mm)
            .map(|(pair, mm)| (mm * gives, pair))
            .filter(|(mm, _)| mm.abs() >= TOLD_MM)
            .map(|(mm, pair)| {
                let way = if mm < 0.0 { "nearer" } else { "further apart" };
                (mm.abs(), format!("{} come about {} {way}", pair.names, say_mm(mm.abs())))
            })
            .collect();
        moves.sort_by(|one, other| other.0.total_cmp(&one.0));
        let mut lessens = Vec::new();
        if mean > MUCH * self.gives_mpa {
            lessens.push("run the groove out to an edge");
            if !self.peened {
                lessens.push("peen each bead while it is hot");
            }
            lessens.push("warm the side opposite so that the gap opens first");
        }
        let lessens =
            if lessens.is_empty() { String::new() } else { format!("Less: {}.", lessens.join("; ")) };
        let moves = moves.into_iter().take(3).map(|(_, words)| words).collect();
        Some((mean, SeamPull { letter: self.strip.letter.clone(), sentence, moves, lessens }))
    }
}

/// Two holes whose distance may matter.
struct Pair {
    names: String,
    between: (At, At),
}

/// Pairs of bolt holes and bores: their distance is measured from rim to rim on the side of each other.
fn hole_pairs(of: &FacePlan) -> Vec<Pair> {
    let holes: Vec<(&str, At, f64)> = round_holes(of).take(6).collect();
    let mut pairs = Vec::new();
    for (at, (name, middle, radius)) in holes.iter().enumerate() {
        for (other, there, far) in &holes[at + 1..] {
            let Some(way) = middle.toward(*there) else { continue };
            let from = middle.along(way, *radius);
            pairs
                .push(Pair { names: format!("{name} and {other}"), between: (from, there.along(way, -far)) });
        }
    }
    pairs
}
