//! Distances that have to be kept: what the seams do to them.

use serde::Serialize;
use uuid::Uuid;

use super::order::Pull;
use crate::field::mark;
use crate::job::Round;
use crate::method::moved_factor;
use crate::prep::said::SizeKind;
use crate::quantity::UnitSystem;
use crate::shop::Shop;
use crate::stage::map::HolePair;

/// A distance that has to be kept, and what the seams do to it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct KeptDistance {
    /// The size it is.
    pub mark: Uuid,
    /// "By the seams about 0.16 mm less"; or what has to be said first.
    pub words: String,
    /// Nearer is negative; nothing while it is not known which holes it is between.
    pub moves_mm: Option<f64>,
}

/// Each distance that is to be as it was, after all of the seams.
pub(super) fn kept(
    round: &Round,
    pairs: &[HolePair],
    pulls: &[Pull],
    (shop, units): (&Shop, UnitSystem),
) -> Vec<KeptDistance> {
    let distances =
        round.marks.iter().filter(|it| round.get(mark::KIND.of(it.id)) == Some(SizeKind::Distance));
    let (factor, count) = moved_factor(&shop.moves);
    distances
        .map(|it| {
            let said = round.get(mark::BETWEEN.of(it.id)).unwrap_or_default();
            let pair = pairs.iter().position(|pair| pair.names.eq_ignore_ascii_case(said.trim()));
            let moves_mm = pair.map(|at| factor * pulls.iter().map(|pull| pull.moves_mm[at]).sum::<f64>());
            let words = match moves_mm {
                Some(mm) => format!("{}{}", forecast(mm, units), learned(factor, count)),
                None if said.is_empty() => {
                    "What the seams do to it is foreseen once it is said which two holes it is between."
                        .to_owned()
                }
                None => format!("No {said} on this face: what the seams do to it is not foreseen."),
            };
            KeptDistance { mark: it.id, words, moves_mm }
        })
        .collect()
}

/// What the shop's own moves made of it; empty while it has none.
fn learned(factor: f64, count: usize) -> String {
    match count {
        0 => String::new(),
        1 => format!(" By one that was measured here {}.", against_foreseen(factor)),
        count => format!(" By {count} that were measured here {}.", against_foreseen(factor)),
    }
}

fn against_foreseen(factor: f64) -> String {
    /// Ours: a hundredth is all that is read.
    const AS_FORESEEN: f64 = 0.03;
    let more = factor - 1.0;
    match more {
        none if none.abs() < AS_FORESEEN => "as far as is reckoned".to_owned(),
        more if more > 0.0 => format!("{:.0} % more than is reckoned", more * 100.0),
        less => format!("{:.0} % less than is reckoned", -less * 100.0),
    }
}

fn forecast(mm: f64, units: UnitSystem) -> String {
    let far = super::hundredths(mm.abs(), units);
    if far == super::hundredths(0.0, units) {
        return "By the seams it stays as it is, within a hundredth.".to_owned();
    }
    format!("By the seams about {far} {}.", if mm < 0.0 { "less" } else { "more" })
}
