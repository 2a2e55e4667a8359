//! The rounds before the one in hand, each in a few sentences: the record goes with the part, all its repairs with it.

use serde::Serialize;

use super::afterwards;
use super::check::found_words;
use super::looked::LINES;
use super::proof::ProofPlan;
use crate::faults::acceptance::Found;
use crate::job::{CheckWhat, Job, Round, TorchEntry};
use crate::quantity::{Unit, UnitSystem};

/// A round that came before, as the record tells it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RoundTold {
    /// From 1.
    pub number: usize,
    /// UTC, ms since 1970; nothing where it was never lit or begun.
    pub lit_ms: Option<i64>,
    /// "Nickel arc, cold. 8 beads, 6 peened. It did not go well: pores. Covered 1 h 51 after it was lit. Not good: ..."
    pub words: String,
}

/// Every round but the last, the first first.
pub(crate) fn told(job: &Job, units: UnitSystem) -> Vec<RoundTold> {
    let before = job.rounds.len().saturating_sub(1);
    let one = |(at, round): (usize, &Round)| {
        let next = job.rounds.get(at + 1).map_or("", |next| next.reason.as_str());
        RoundTold {
            number: at + 1,
            lit_ms: round.lit.as_ref().map(|lit| lit.at_ms),
            words: words(round, next, units),
        }
    };
    job.rounds.iter().enumerate().take(before).map(one).collect()
}

fn words(round: &Round, next: &str, units: UnitSystem) -> String {
    let mut said = vec![by_what(round)];
    said.extend(laid(round));
    said.extend(went(round, units));
    let looked = looked_at(round, units);
    let of = |is: fn(&LookedAt) -> bool| {
        looked.iter().filter(|it| is(it)).map(|it| it.words.as_str()).collect::<Vec<_>>().join("; ")
    };
    let (not_good, good_enough) = (of(|it| !it.good), of(|it| it.good && it.found));
    if !not_good.is_empty() {
        said.push(format!("Not good: {not_good}"));
    } else if !looked.is_empty() {
        said.push("What was looked at was good".to_owned());
    }
    if !good_enough.is_empty() {
        said.push(format!("Good enough: {good_enough}"));
    }
    if let Some(last) = round.followed.last() {
        said.push(format!("It was asked how it holds: {}", afterwards::words(last).to_lowercase()));
    }
    if !next.is_empty() {
        said.push(format!("Repaired again: {next}"));
    }
    let sentences = said.into_iter().filter(|words| !words.is_empty()).map(|words| format!("{words}."));
    sentences.collect::<Vec<_>>().join(" ")
}

fn by_what(round: &Round) -> String {
    match round.lit.as_ref() {
        None if round.repaired() => String::new(),
        None => "Nothing was done in it".to_owned(),
        Some(lit) => lit.frozen.as_ref().map_or_else(String::new, |frozen| frozen.label.clone()),
    }
}

/// What was looked for in a round, whatever it was mended by, and what came of it.
struct LookedAt {
    good: bool,
    /// There is more to say of it than that.
    found: bool,
    /// "toes whole (not wetted, not fused)"
    words: String,
}

/// Each thing that was looked for, in the order of the list; of several looks the last one stands.
fn looked_at(round: &Round, units: UnitSystem) -> Vec<LookedAt> {
    let one = |(what, field, label)| {
        let looks = || round.looked.iter().filter(|it| it.place.what == what);
        let of_last = looks().next_back().map(|it| it.found == Found::Good);
        let good = round.get(field).map(|verdict| verdict != "not_ok").or(of_last)?;
        let proved = ProofPlan::of(round, units).done_words;
        let found: Vec<String> = looks()
            .filter(|it| it.found != Found::Good)
            .map(|it| found_words(it, units).to_lowercase())
            .chain(Some(proved).filter(|words| what == CheckWhat::Leak && !words.is_empty()))
            .collect();
        let label: &str = label;
        let words = match found.is_empty() {
            true => label.to_lowercase(),
            false => format!("{} ({})", label.to_lowercase(), found.join("; ")),
        };
        Some(LookedAt { good, found: !found.is_empty(), words })
    };
    LINES.into_iter().filter_map(one).collect()
}

/// "8 beads, 6 peened, 2 reheats"
fn laid(round: &Round) -> Option<String> {
    let count =
        |of: fn(&TorchEntry) -> bool| round.said_at_torch().filter(|(_, entry)| of(&entry.entry)).count();
    let pins = count(|entry| matches!(entry, TorchEntry::Pin { .. }));
    let beads = count(|entry| matches!(entry, TorchEntry::Bead { .. }));
    let many = |count: usize, one: &str, more: &str| match count {
        0 => None,
        1 => Some(format!("1 {one}")),
        _ => Some(format!("{count} {more}")),
    };
    let counted: Vec<String> = [
        many(pins, "pin", "pins"),
        many(beads, "bead", "beads"),
        many(count(|entry| *entry == TorchEntry::Peened), "peened", "peened"),
        many(count(|entry| *entry == TorchEntry::Reheated), "reheat", "reheats"),
    ]
    .into_iter()
    .flatten()
    .collect();
    (!counted.is_empty()).then(|| counted.join(", "))
}

/// What did not go well, and when it was covered.
fn went(round: &Round, units: UnitSystem) -> Vec<String> {
    let faults: Vec<String> = round
        .said_at_torch()
        .filter_map(|(_, entry)| match &entry.entry {
            TorchEntry::Trouble { seen, .. } => Some(seen.words().to_lowercase()),
            _ => None,
        })
        .collect();
    let mut said = Vec::new();
    if !faults.is_empty() {
        said.push(format!("It did not go well: {}", faults.join("; ")));
    }
    if let Some(minutes) = round.covered_minutes() {
        said.push(format!("Covered {} after it was lit", units.say_exactly(minutes, Unit::Minutes)));
    }
    said
}
