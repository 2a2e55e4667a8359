//! The rounds before the one in hand, each in a few sentences: the record goes with the part, all its repairs with it.

use serde::Serialize;

use super::afterwards;
use super::check::found_words;
use super::cracks::CrackPlan;
use super::looked::{self, LINES, Stands};
use super::part::PartFacts;
use super::proof::ProofPlan;
use crate::faults::acceptance::Checked;
use crate::faults::acceptance::Found;
use crate::field::{Field, One};
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

/// What the rounds are told from.
pub(crate) struct RoundsInputs<'a> {
    pub job: &'a Job,
    pub part: &'a PartFacts,
    pub cracks: &'a [CrackPlan],
    pub units: UnitSystem,
}

impl RoundsInputs<'_> {
    /// Every round but the last, the first first.
    pub fn told(&self) -> Vec<RoundTold> {
        let rounds = &self.job.rounds;
        let one = |(at, two): (usize, &[Round])| RoundTold {
            number: at + 1,
            lit_ms: two[0].lit.as_ref().map(|lit| lit.at_ms),
            words: self.words(&two[0], &two[1].reason),
        };
        rounds.windows(2).enumerate().map(one).collect()
    }

    fn words(&self, round: &Round, next: &str) -> String {
        let mut said = vec![by_what(round)];
        said.extend(laid(round));
        said.extend(went(round, self.units));
        said.extend(self.checked(round));
        if let Some(last) = round.followed.last() {
            said.push(format!("It was asked how it holds: {}", afterwards::words(last).to_lowercase()));
        }
        if !next.is_empty() {
            said.push(format!("Repaired again: {next}"));
        }
        let sentences = said.into_iter().filter(|words| !words.is_empty()).map(|words| format!("{words}."));
        sentences.collect::<Vec<_>>().join(" ")
    }

    /// "Not good: toes whole (not wetted, not fused)", what was good enough, what was left.
    fn checked(&self, round: &Round) -> Vec<String> {
        let looked: Vec<LookedAt> =
            LINES.into_iter().filter_map(|line| self.looked_at(round, line)).collect();
        let of = |became: LookedAs| {
            let here =
                looked.iter().filter(|it| it.became == became && (it.found || became == LookedAs::NotGood));
            here.map(|it| it.words.as_str()).collect::<Vec<_>>().join("; ")
        };
        let mut said = Vec::new();
        if !looked.is_empty() && looked.iter().all(|it| it.became == LookedAs::Good) {
            said.push("What was looked at was good".to_owned());
        }
        let each = [
            ("Not good", LookedAs::NotGood),
            ("Left, and said so", LookedAs::Left),
            ("Good enough", LookedAs::Good),
        ];
        let told = each.map(|(word, became)| (word, of(became)));
        said.extend(
            told.into_iter().filter(|(_, of)| !of.is_empty()).map(|(word, of)| format!("{word}: {of}")),
        );
        said
    }

    /// One thing that was looked for; of several looks at a place the last one stands. Nothing where nobody looked.
    fn looked_at(
        &self,
        round: &Round,
        (what, field, label): (CheckWhat, Field<One<Checked>>, &str),
    ) -> Option<LookedAt> {
        let looks = || round.looked.iter().filter(|it| it.place.what == what);
        let whole = round.get(field).map(|verdict| match verdict {
            Checked::NotOk => LookedAs::NotGood,
            Checked::Ok => LookedAs::Good,
        });
        let by_place = looks().map(|it| {
            let judged = looked::place(round, self.part, self.cracks, it.place);
            match looked::stands(round, it.place, &judged) {
                Stands::Good => LookedAs::Good,
                Stands::Left(_) => LookedAs::Left,
                Stands::NotGood(_) | Stands::Measure(_) | Stands::Open => LookedAs::NotGood,
            }
        });
        let became = by_place.max().or(whole)?;
        let proved = ProofPlan::of(round, self.units).done_words;
        let mut found: Vec<String> = looks()
            .filter(|it| it.found != Found::Good)
            .map(|it| found_words(it, self.units).to_lowercase())
            .collect();
        found.extend(Some(proved).filter(|words| what == CheckWhat::Leak && !words.is_empty()));
        let words = match found.is_empty() {
            true => label.to_lowercase(),
            false => format!("{} ({})", label.to_lowercase(), found.join("; ")),
        };
        Some(LookedAt { became, found: !found.is_empty(), words })
    }
}

/// What became of a thing that was looked for, the worst last.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
enum LookedAs {
    Good,
    Left,
    NotGood,
}

/// What was looked for in a round, whatever it was mended by, and what came of it.
struct LookedAt {
    became: LookedAs,
    /// There is more to say of it than that.
    found: bool,
    /// "toes whole (not wetted, not fused)"
    words: String,
}

fn by_what(round: &Round) -> String {
    match round.lit.as_ref() {
        None if round.repaired() => String::new(),
        None => "Nothing was done in it".to_owned(),
        Some(lit) => lit.frozen.as_ref().map_or_else(String::new, |frozen| frozen.label.clone()),
    }
}

/// "8 beads, 6 peened, 2 reheats"
fn laid(round: &Round) -> Option<String> {
    let count =
        |of: fn(&TorchEntry) -> bool| round.said_at_torch().filter(|(_, entry)| of(&entry.entry)).count();
    let pins = count(|entry| matches!(entry, TorchEntry::Pin { .. }));
    let beads = count(|entry| matches!(entry, TorchEntry::Bead { .. }));
    let way = round.lit.as_ref().and_then(|lit| lit.frozen.as_ref()).and_then(|frozen| frozen.way);
    let flows = way.is_some_and(|way| way.method.in_one_flow());
    let many = |count: usize, one: &str, more: &str| match count {
        0 => None,
        1 => Some(format!("1 {one}")),
        _ => Some(format!("{count} {more}")),
    };
    let counted: Vec<String> = [
        many(pins, "pin", "pins"),
        if flows { many(beads, "seam filled", "seams filled") } else { many(beads, "bead", "beads") },
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
