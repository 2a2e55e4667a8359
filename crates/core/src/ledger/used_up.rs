//! What was used against what was planned, kind by kind.

use std::collections::BTreeMap;

use super::learned_lines::{LearnedCase, LearnedLine, line};
use super::said::{Said, times};
use crate::quantity::{UnitSystem, number};
use crate::shelf::{KINDS, StoreKind};
use crate::stores::{OwnUse, amount_words};

/// Each kind on its own line, as the shelves have them: how much of what was planned is used on average, each repair a
/// mark. No plan goes by it.
pub(super) fn use_lines(all: &Said<'_>, units: UnitSystem) -> Vec<LearnedLine> {
    let mut of_kind: BTreeMap<usize, Vec<(&OwnUse, f64, &StoreKind)>> = BTreeMap::new();
    for own in all.uses.iter().filter(|it| !all.left_out.contains_key(&it.lit) && it.planned > 0.0) {
        let at = KINDS.iter().position(|kind| kind.id == own.what);
        let (Some(at), Some(used)) = (at, own.used) else { continue };
        of_kind.entry(at).or_default().push((own, used, &KINDS[at]));
    }
    of_kind.into_values().map(|uses| of_one_kind(&uses, units)).collect()
}

fn of_one_kind(uses: &[(&OwnUse, f64, &StoreKind)], units: UnitSystem) -> LearnedLine {
    let (planned, used) =
        uses.iter().fold((0.0, 0.0), |(planned, used), (own, it, _)| (planned + own.planned, used + it));
    // Of all that was planned: a small part says little.
    let here = used / planned;
    let cases = uses.iter().map(|(own, used, kind)| LearnedCase {
        case: own.lit,
        job: Some(own.job),
        name: own.name.clone(),
        value: used / own.planned,
        words: format!(
            "{} used, {} planned",
            amount_words(kind, *used, units),
            amount_words(kind, own.planned, units)
        ),
    });
    let label = uses.first().map_or("", |(_, _, kind)| kind.label);
    let words = format!("{} of what is planned, from {}", number(here, 2), times(uses.len(), "repair"));
    line(format!("{label}, used"), (1.0, here), words, cases.collect())
}
