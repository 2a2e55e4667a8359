//! Sizes that have to be kept or restored: read before the torch, after the tacks, cold, and finished. What moved, what
//! is left to take off, and by whom.

use serde::Serialize;
use uuid::Uuid;

use super::bench::BenchInputs;
use crate::field::{FieldOfEach, Number, mark};
use crate::job::{Mark, SeamReadingKind};
use crate::prep::said::{SizeKind, TakenOffBy};

/// A size of the part and what became of it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SizePlan {
    pub mark: Uuid,
    pub name: String,
    /// "bore, 25 mm give or take 0.1 mm, from the left face"
    pub words: String,
    /// What was measured means; empty while nothing was.
    pub verdict: String,
    /// The last reading is within its tolerance; nothing while nothing is known of one of them.
    pub within: Option<bool>,
    /// In the order of the work.
    pub readings: Vec<SizeReading>,
    /// What the heat did to it: cold, else finished, against before the torch. In mm.
    #[serde(skip)]
    pub moved_mm: Option<f64>,
    /// The same: "0.12 mm less"; empty for nothing, and for no change.
    pub moved_words: String,
    /// The field of the reading that was not taken and is due next; empty for none.
    pub due: String,
    /// What is to be done about it, and by whom; empty for nothing.
    pub to_do: String,
    /// Who takes off what is left; nothing while nobody has said.
    pub by: Option<TakenOffBy>,
    /// Readings beside what it may be, to be drawn; nothing while nothing was read.
    pub strip: Option<SizeStrip>,
}

impl SizePlan {
    /// It has to be read before the torch, and was not.
    pub(crate) fn due_before(&self) -> bool {
        self.due.ends_with(".before")
    }

    /// It was read since the torch.
    #[must_use]
    pub fn read_again(&self) -> bool {
        self.readings.iter().any(|it| matches!(it.when.as_str(), "cold" | "after"))
    }
}

/// One reading of a size.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SizeReading {
    /// `before`, `tacked`, `cold` or `after`: the end of its field's key.
    pub when: String,
    pub label: String,
    pub mm: f64,
    pub words: String,
    /// Against the first: "0.12 mm more"; empty for the first, and for no change.
    pub moved: String,
}

/// Readings along a line, from its left end (0) to its right (1).
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SizeStrip {
    /// From where to where it is good; nothing while no tolerance is known.
    pub good: Option<[f64; 2]>,
    /// Where it should be, and in words.
    pub should: Option<f64>,
    pub should_words: String,
    pub at: Vec<f64>,
}

/// How a kind of size is judged.
#[derive(Clone, Copy, PartialEq)]
enum Kind {
    /// Metal stands inside: a bore, a hole, a thread, a slot is opened.
    Opening,
    /// Metal stands outside: a pin, a shaft is turned down.
    Round,
    /// Between two places: nothing can be taken off.
    Between,
    /// Should be nought: a flat, a step, a run-out.
    Nought,
}

impl Kind {
    fn of(said: Option<SizeKind>) -> Self {
        match said {
            Some(SizeKind::Pin) => Self::Round,
            Some(SizeKind::Distance) => Self::Between,
            Some(SizeKind::Flat | SizeKind::Step | SizeKind::RunOut) => Self::Nought,
            Some(SizeKind::Bore | SizeKind::Hole | SizeKind::Thread | SizeKind::Slot) | None => Self::Opening,
        }
    }
}

/// House: what fits, fits within this where nobody has said.
const FIT_MM: f64 = 0.05;
/// House: what is flat, or lies so far apart, keeps that within so much where nobody has said.
const OUT_MM: f64 = 0.5;
const OUT_OVER_MM: f64 = 300.0;

/// When a size is read, in the order of the work.
const WHEN: [(&str, &str, FieldOfEach<Number>); 4] = [
    ("before", "before the torch", mark::BEFORE),
    ("tacked", "after the tacks", mark::TACKED),
    ("cold", "cold", mark::COLD),
    ("after", "finished", mark::AFTER),
];

/// What has been read of one size, and what it may be.
struct Size<'a> {
    asked: &'a BenchInputs<'a>,
    of: Uuid,
    kind: Kind,
    /// What it should be, else what it was before.
    should_mm: Option<f64>,
    tolerance_mm: Option<f64>,
    /// Nobody has said the tolerance.
    guessed: bool,
    read: [Option<f64>; 4],
}

impl BenchInputs<'_> {
    pub(super) fn size(&self, of: &Mark) -> SizePlan {
        let round = self.round;
        let said_kind = round.get(mark::KIND.of(of.id));
        let kind = Kind::of(said_kind);
        let mm = |field: FieldOfEach<Number>| round.get(field.of(of.id));
        let read = WHEN.map(|(_, _, field)| mm(field));
        let nominal = if kind == Kind::Nought { Some(0.0) } else { mm(mark::NOMINAL) };
        let should_mm = nominal.or(read[0]);
        let said = mm(mark::TOLERANCE);
        let usual = should_mm.map(|should| match kind {
            Kind::Opening | Kind::Round => FIT_MM,
            Kind::Between => (OUT_MM * should / OUT_OVER_MM).max(FIT_MM),
            Kind::Nought => OUT_MM,
        });
        let size = Size {
            asked: self,
            of: of.id,
            kind,
            should_mm,
            tolerance_mm: said.or(usual),
            guessed: said.is_none(),
            read,
        };
        let words = match (kind, nominal, said) {
            (Kind::Nought, _, Some(most)) => Some(format!("{} at most", self.exactly(most))),
            (Kind::Nought, _, None) => None,
            (_, Some(nominal), Some(give)) => {
                Some(format!("{} give or take {}", self.exactly(nominal), self.exactly(give)))
            }
            (_, Some(nominal), None) => Some(self.exactly(nominal)),
            (_, None, Some(give)) => Some(format!("as it was, give or take {}", self.exactly(give))),
            (_, None, None) => None,
        };
        let between = round.get(mark::BETWEEN.of(of.id)).map(|holes| format!("between {holes}"));
        let from = round.get(mark::DATUM.of(of.id)).map(|datum| format!("from {datum}"));
        let called = said_kind.map_or("size", SizeKind::word).to_owned();
        SizePlan {
            mark: of.id,
            name: self.name(of),
            words: [Some(called), words, between, from].into_iter().flatten().collect::<Vec<_>>().join(", "),
            verdict: size.verdict(),
            within: size.within(),
            readings: size.readings(),
            moved_mm: size.moved_mm(),
            moved_words: size.moved_mm().map_or_else(String::new, |mm| size.moved_words(mm)),
            due: size.due(),
            to_do: size.to_do(),
            by: round.get(mark::BY.of(of.id)),
            strip: size.strip(),
        }
    }
}

impl Size<'_> {
    fn say(&self, mm: f64) -> String {
        self.asked.exactly(mm)
    }

    /// What was read since the torch was near it.
    fn since_mm(&self) -> Option<f64> {
        self.read[1..].iter().rev().flatten().next().copied()
    }

    fn off_mm(&self) -> Option<f64> {
        Some(self.since_mm()? - self.should_mm?)
    }

    fn within(&self) -> Option<bool> {
        Some(self.off_mm()?.abs() <= self.tolerance_mm? + 1e-9)
    }

    fn moved_mm(&self) -> Option<f64> {
        Some(self.read[2].or(self.read[3])? - self.read[0]?)
    }

    fn readings(&self) -> Vec<SizeReading> {
        let first = self.read.iter().flatten().next().copied();
        WHEN.iter()
            .zip(self.read)
            .filter_map(|((when, label, _), mm)| {
                let mm = mm?;
                let moved = mm - first?;
                Some(SizeReading {
                    when: (*when).to_owned(),
                    label: (*label).to_owned(),
                    mm,
                    words: self.say(mm),
                    moved: self.moved_words(moved),
                })
            })
            .collect()
    }

    /// Nothing for what does not show in the units it is told in.
    fn moved_words(&self, moved_mm: f64) -> String {
        let far = self.say(moved_mm.abs());
        let way = if moved_mm > 0.0 { "more" } else { "less" };
        if far == self.say(0.0) { String::new() } else { format!("{far} {way}") }
    }

    fn verdict(&self) -> String {
        let mut said = Vec::new();
        match (self.read[0], self.since_mm()) {
            (Some(before), Some(after)) => {
                said.push(format!("{} before, {} after", self.say(before), self.say(after)));
            }
            (Some(before), None) => said.push(format!("{} before", self.say(before))),
            (None, Some(after)) => said.push(format!("{} after, not read before", self.say(after))),
            (None, None) => {}
        }
        let guess = match self.tolerance_mm {
            Some(most) if self.guessed => format!(" ({}, a guess)", self.say(most)),
            _ => String::new(),
        };
        match (self.off_mm(), self.within()) {
            (Some(_), Some(true)) => said.push(format!("within its tolerance{guess}")),
            (Some(off), Some(false)) if self.kind == Kind::Nought => {
                said.push(format!("{} out, over its tolerance{guess}", self.say(off.abs())));
            }
            (Some(off), Some(false)) => {
                let way = if off > 0.0 { "over" } else { "under" };
                said.push(format!(
                    "{} {way} what it should be: out of its tolerance{guess}",
                    self.say(off.abs())
                ));
            }
            _ => {}
        }
        said.join("; ")
    }

    /// Before the torch it is read before; after the tacks where there are any; then cold, then finished where it
    /// had to be worked.
    fn due(&self) -> String {
        let round = self.asked.round;
        let key = |at: usize| WHEN[at].2.of(self.of).key();
        let lit = round.lit.is_some() && round.repaired();
        let tacked = round.at_seams.iter().any(|it| it.what == SeamReadingKind::Tack);
        match self.read {
            [None, ..] if !lit => key(0),
            [_, None, None, None] if tacked && !lit => key(1),
            [_, _, None, None] if lit && round.covered_minutes().is_some() => key(2),
            [_, _, Some(_), None] if self.within() == Some(false) => key(3),
            _ => String::new(),
        }
    }

    fn to_do(&self) -> String {
        let (Some(off), Some(false)) = (self.off_mm(), self.within()) else { return String::new() };
        let by = match self.asked.round.get(mark::BY.of(self.of)) {
            Some(TakenOffBy::Owner) => "left for the owner",
            Some(TakenOffBy::Outside) => "by a machine shop",
            Some(TakenOffBy::Shop) => "done here",
            None => "nobody has said by whom",
        };
        let side = self.say(off.abs() / 2.0);
        let how = match self.kind {
            Kind::Opening if off < 0.0 => format!("Too tight: {side} a side to bore or ream"),
            Kind::Opening => "Too wide: sleeve it, or build it up and bore it anew".to_owned(),
            Kind::Round if off > 0.0 => format!("Too thick: {side} a side to turn off"),
            Kind::Round => "Too thin: build it up and turn it anew".to_owned(),
            Kind::Between => "Nothing can be taken off: slot or bush a hole, never pull it cold".to_owned(),
            Kind::Nought => format!("{} to file or mill off, never pull it cold", self.say(off.abs())),
        };
        format!("{how}; {by}.")
    }

    fn strip(&self) -> Option<SizeStrip> {
        let read: Vec<f64> = self.read.iter().flatten().copied().collect();
        let should = self.should_mm?;
        let give = self.tolerance_mm?;
        let low = if self.kind == Kind::Nought { should } else { should - give };
        let known = || read.iter().copied().chain([low, should + give]);
        let (from, to) = (known().reduce(f64::min)?, known().reduce(f64::max)?);
        // Names stand beside the outermost, on a phone too.
        let room = (0.35 * (to - from)).max(1e-6);
        let (from, to) = (from - room, to + room);
        let along = |mm: f64| ((mm - from) / (to - from) * 1e4).round() / 1e4;
        if read.is_empty() {
            return None;
        }
        Some(SizeStrip {
            good: Some([along(low), along(should + give)]),
            should: Some(along(should)),
            should_words: self.say(should),
            at: read.into_iter().map(along).collect(),
        })
    }
}
