//! Distances that have to be kept: what the seams do to them.

use serde::Serialize;
use uuid::Uuid;

use super::order::Pull;
use crate::field::mark;
use crate::job::Round;
use crate::prep::said::SizeKind;
use crate::quantity::UnitSystem;
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
    units: UnitSystem,
) -> Vec<KeptDistance> {
    let distances =
        round.marks.iter().filter(|it| round.get(mark::KIND.of(it.id)) == Some(SizeKind::Distance));
    distances
        .map(|it| {
            let said = round.get(mark::BETWEEN.of(it.id)).unwrap_or_default();
            let pair = pairs.iter().position(|pair| pair.names.eq_ignore_ascii_case(said.trim()));
            let moves_mm = pair.map(|at| pulls.iter().map(|pull| pull.moves_mm[at]).sum::<f64>());
            let words = match moves_mm {
                Some(mm) => forecast(mm, units),
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

fn forecast(mm: f64, units: UnitSystem) -> String {
    let far = super::hundredths(mm.abs(), units);
    if far == super::hundredths(0.0, units) {
        return "By the seams it stays as it is, within a hundredth.".to_owned();
    }
    format!("By the seams about {far} {}.", if mm < 0.0 { "less" } else { "more" })
}
