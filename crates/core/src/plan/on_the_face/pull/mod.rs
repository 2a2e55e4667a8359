//! What the seams of a drawn face pull as they shrink: on themselves, and how far holes move; in which order, by which
//! way, and warmed where, they pull least.

mod kept;
mod order;
mod shrinking;

pub use kept::KeptDistance;
use serde::Serialize;

use super::Beginnings;
use super::part::{FlatFace, flat_face};
use crate::job::Job;
use crate::method::{Joins, moved_factor};
use crate::plan::Plan;
use crate::quantity::{Rounding, Unit, UnitSystem};
use crate::shop::Shop;
use crate::stage::map::{HolePair, hole_pairs};
use kept::kept;
use order::{Pull, Seams, hardest_mpa};
use shrinking::Shrinking;

/// What the seams of a face pull.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SeamPulls {
    /// Of each seam that is joined hot, the one that pulls most first.
    pub seams: Vec<SeamPull>,
    /// "Fill B, then A: so no seam pulls more than about 60 MPa on itself, in the worst order 108 MPa." Empty where it is all
    /// the same.
    pub order: String,
    /// The letters of that order, as `prep.order` takes them; empty where it is filled so, or it is all the same.
    pub better_order: String,
    /// What other ways would pull, a sentence each.
    pub other_ways: Vec<String>,
    /// Distances that have to be kept.
    pub kept: Vec<KeptDistance>,
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

/// House: heat and walls are known so well.
const KNOWN: f64 = 0.3;
/// House: from here a move is told, and from this share of what gives what would lessen the pull.
const TOLD_MM: f64 = 0.02;
const MUCH: f64 = 0.3;
/// Ours: an order, or a place to warm, that lessens it by less is not spoken of.
const WORTH_SAYING: f64 = 0.1;

/// A way that stands beside the chosen one, planned.
#[derive(Debug, Clone, PartialEq)]
pub struct OtherWay {
    /// "Nickel stick, hot"
    pub label: String,
    pub plan: Plan,
}

/// What the seams of the drawn face pull, by the way that is chosen and by others. `begun` are places to begin with the
/// flame: a gap that is opened first takes from what the seam pulls. Else why nothing is said; empty where no face is
/// drawn, or nothing is laid in beads.
///
/// # Errors
/// The sentence.
pub fn seam_pulls(
    job: &Job,
    plan: &Plan,
    shop: &Shop,
    others: &[OtherWay],
    begun: Option<&Beginnings>,
) -> Result<SeamPulls, String> {
    // Nothing is said of a face where nothing is joined hot, not even why.
    if !is_joined_hot(plan) {
        return Err(String::new());
    }
    let flat = flat_face(job, plan, shop)?;
    let shrinking = Shrinking::of(plan, &flat, shop).ok_or_else(String::new)?;
    let pairs = hole_pairs(flat.of);
    let seams = Seams::new(&flat, &shrinking, pairs.iter().map(|pair| pair.between).collect());
    let (best, worst) = seams.best_and_worst(&shrinking).ok_or_else(String::new)?;
    let in_turn = !job.round().seams_in_order().is_empty();
    // The strips stand as it was said that they are filled.
    let as_said: Vec<usize> = (0..shrinking.seams.len()).collect();
    let filled =
        if in_turn { seams.filled_in(&as_said, &shrinking).ok_or_else(String::new)? } else { best.clone() };
    // Where nothing pulls to speak of no order is better than another.
    let pulls = !worst.iter().all(|pull| is_next_to_nothing(pull, shrinking.gives_mpa));
    let said = Said { flat: &flat, shop, shrinking: &shrinking, pairs: &pairs, begun, units: plan.units };
    let mut by_pull: Vec<&Pull> = filled.iter().collect();
    by_pull.sort_by(|one, other| other.mean_mpa.total_cmp(&one.mean_mpa));
    Ok(SeamPulls {
        seams: by_pull.into_iter().map(|pull| said.seam(pull)).collect(),
        order: match (in_turn, pulls) {
            (_, false) => String::new(),
            (true, true) => said.in_turn(&filled, &best),
            (false, true) => said.order(&best, &worst),
        },
        better_order: match pulls {
            true => said.better_order(if in_turn { &filled } else { &worst }, &best),
            false => String::new(),
        },
        other_ways: others.iter().filter_map(|other| said.other_way(other, &seams, &filled)).collect(),
        kept: kept(job.round(), &pairs, &filled, (shop, plan.units)),
        not_in_it: "Flat, elastic, the face as drawn, filled from end to end; heat elsewhere, and stress that was cast \
             in, are not in it."
            .to_owned(),
    })
}

/// Ours: so little of what brings something to give that no figure of it is worth naming.
const NEXT_TO_NOTHING: f64 = 0.02;

fn is_next_to_nothing(pull: &Pull, gives_mpa: f64) -> bool {
    pull.elastic_mpa.abs() < NEXT_TO_NOTHING * gives_mpa && pull.misfit_mm < TOLD_MM
}

/// Beads that are put in order, or a flame that fills it.
fn is_joined_hot(plan: &Plan) -> bool {
    let in_order = || plan.torch.as_ref().is_some_and(|torch| torch.beads.is_some());
    plan.methods.chosen.is_some_and(|way| match way.method.entry().joins {
        Joins::Arc | Joins::ArcBronze => in_order(),
        joins => joins.by_flame(),
    })
}

/// An order of several that pulls less than another, by as much as is worth saying.
fn is_better(best: &[Pull], than: &[Pull]) -> bool {
    best.len() > 1 && hardest_mpa(best) <= hardest_mpa(than) * (1.0 - WORTH_SAYING)
}

/// To the hundredth, as it is measured.
fn hundredths(mm: f64, units: UnitSystem) -> String {
    units.say_exactly((mm * 100.0).round() / 100.0, Unit::Millimetres)
}

/// What is said of the seams.
struct Said<'a> {
    flat: &'a FlatFace<'a>,
    shop: &'a Shop,
    shrinking: &'a Shrinking,
    pairs: &'a [HolePair],
    begun: Option<&'a Beginnings>,
    units: UnitSystem,
}

impl Said<'_> {
    fn mpa(&self, mpa: f64) -> String {
        self.units.show(mpa, Unit::Megapascals, Rounding::Nearest).text()
    }

    fn letter(&self, pull: &Pull) -> &str {
        &self.shrinking.seams[pull.seam].0
    }

    /// "60 to 110 MPa"
    fn between(&self, mean_mpa: f64, elastic_mpa: f64, gives_mpa: f64) -> String {
        let show = |mpa: f64| self.units.show(mpa.max(0.0), Unit::Megapascals, Rounding::Nearest);
        let low = show(mean_mpa * (1.0 - KNOWN));
        let high = show((elastic_mpa * (1.0 + KNOWN)).min(gives_mpa));
        match low.number == high.number {
            true => high.text(),
            false => format!("{} to {}", low.number, high.text()),
        }
    }

    fn seam(&self, pull: &Pull) -> SeamPull {
        let gives = self.shrinking.gives_mpa;
        let letter = self.letter(pull).to_owned();
        if is_next_to_nothing(pull, gives) {
            let sentence = format!(
                "Crack {letter} shrinks and pulls next to nothing on itself: what pulls is how the part cools."
            );
            return SeamPull { letter, sentence, moves: Vec::new(), lessens: String::new() };
        }
        let sentence = format!(
            "Crack {letter} shrinks about {} across itself and pulls {} on itself; at {} something gives.",
            hundredths(pull.shrinks_mm, self.units),
            self.between(pull.mean_mpa, pull.elastic_mpa, gives),
            self.mpa(gives),
        );
        let (factor, _) = moved_factor(&self.shop.moves);
        let mut moves: Vec<(f64, String)> = self
            .pairs
            .iter()
            .zip(pull.moves_mm.iter().map(|mm| factor * mm))
            .filter(|(_, mm)| mm.abs() >= TOLD_MM)
            .map(|(pair, mm)| {
                let way = if mm < 0.0 { "nearer" } else { "further apart" };
                let far = hundredths(mm.abs(), self.units);
                (mm.abs(), format!("{} come about {far} {way}", pair.names))
            })
            .collect();
        moves.sort_by(|one, other| other.0.total_cmp(&one.0));
        let moves = moves.into_iter().take(3).map(|(_, words)| words).collect();
        SeamPull { sentence, moves, lessens: self.lessens(pull), letter }
    }

    /// What would lessen what a seam pulls.
    fn lessens(&self, pull: &Pull) -> String {
        let mut lessens = Vec::new();
        if pull.mean_mpa > MUCH * self.shrinking.gives_mpa {
            lessens.push("run the groove out to an edge".to_owned());
            if !self.shrinking.peened {
                lessens.push("peen each bead while it is hot".to_owned());
            }
            let warmed = self.warmed_first(pull);
            lessens.push(
                warmed.unwrap_or_else(|| "warm the side opposite so that the gap opens first".to_owned()),
            );
        }
        if lessens.is_empty() { String::new() } else { format!("Less: {}.", lessens.join("; ")) }
    }

    /// Of the places to begin that ask little of a tip the one that opens the gap most: what is open as it is filled
    /// need not shrink.
    fn warmed_first(&self, pull: &Pull) -> Option<String> {
        let place = self.begun?.opens_most.as_ref().filter(|it| it.letter == self.letter(pull))?;
        let left = (1.0 - place.opens_mm / pull.misfit_mm).max(0.0);
        let elastic_mpa = pull.elastic_mpa * left;
        (place.opens_mm >= TOLD_MM && left <= 1.0 - WORTH_SAYING).then(|| {
            format!(
                "warm it {} first, the flame {}: the gap opens by about {}, and filled so it pulls {}",
                place.name.to_lowercase(),
                if place.swept { "swept over all" } else { "held there" },
                hundredths(place.opens_mm, self.units),
                self.between(elastic_mpa.min(pull.mean_mpa), elastic_mpa, self.shrinking.gives_mpa),
            )
        })
    }

    fn letters(&self, pulls: &[Pull], between: &str) -> String {
        let letters: Vec<&str> = pulls.iter().map(|pull| self.letter(pull)).collect();
        letters.join(between)
    }

    fn order(&self, best: &[Pull], worst: &[Pull]) -> String {
        if !is_better(best, worst) {
            return String::new();
        }
        format!(
            "Fill {}: so no seam pulls more than about {} on itself, in the worst order {}.",
            self.letters(best, ", then "),
            self.mpa(hardest_mpa(best)),
            self.mpa(hardest_mpa(worst))
        )
    }

    /// Filled one after the other, as it was said.
    fn in_turn(&self, filled: &[Pull], best: &[Pull]) -> String {
        if filled.len() < 2 {
            return String::new();
        }
        let better = match is_better(best, filled) {
            true => {
                format!("; {} no more than {}", self.letters(best, ", then "), self.mpa(hardest_mpa(best)))
            }
            false => String::new(),
        };
        format!(
            "Filled {}, as said, no seam pulls more than about {} on itself{better}.",
            self.letters(filled, ", then "),
            self.mpa(hardest_mpa(filled))
        )
    }

    fn better_order(&self, than: &[Pull], best: &[Pull]) -> String {
        if is_better(best, than) { self.letters(best, ", ") } else { String::new() }
    }

    /// The same seams in the same order by another way; nothing where it is not laid in beads.
    fn other_way(&self, other: &OtherWay, seams: &Seams<'_>, best: &[Pull]) -> Option<String> {
        let mut shrinking = Shrinking::of(&other.plan, self.flat, self.shop)?;
        if shrinking.seams.len() != self.shrinking.seams.len() {
            return None;
        }
        // Of the same seams, in the order in which they stand here.
        let own = self.shrinking.seams.iter();
        let same = own.map(|(letter, _)| shrinking.seams.iter().find(|(other, _)| other == letter).cloned());
        shrinking.seams = same.collect::<Option<_>>()?;
        let order: Vec<usize> = best.iter().map(|pull| pull.seam).collect();
        let pulls = seams.filled_in(&order, &shrinking)?;
        let hardest = pulls.iter().max_by(|a, b| a.mean_mpa.total_cmp(&b.mean_mpa))?;
        if is_next_to_nothing(hardest, shrinking.gives_mpa) {
            return Some(format!("{}: next to nothing.", other.label));
        }
        Some(format!(
            "{}: {} of the {} at which something gives.",
            other.label,
            self.between(hardest.mean_mpa, hardest.elastic_mpa, shrinking.gives_mpa),
            self.mpa(shrinking.gives_mpa)
        ))
    }
}
