//! The present job, made from its log.

use std::collections::{BTreeMap, HashMap, HashSet};

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::{Change, Fact, FieldValue, Observed, TorchEntry, job_field, parse_value, picture_key};
use crate::iron::{MeasuredTest, TypedValues};
use crate::plan::FrozenPlan;
use crate::quantity::{Kind, Unit, UnitSystem, both, parse};

/// A field as it was last typed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Held {
    pub typed: String,
    pub value: Option<FieldValue>,
    /// The revision that set it.
    pub revision: u64,
}

/// A place that is hard although the iron is not.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HardSpot {
    /// The fact that added it.
    pub id: Uuid,
    /// Where, in words.
    pub spot: String,
    pub found_in_round: usize,
}

/// Something beside the joint that must stay cool.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Neighbour {
    /// The fact that added it.
    pub id: Uuid,
}

/// A picture of the part.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Picture {
    /// The fact that added it; the picture itself is kept under it.
    pub id: Uuid,
    /// UTC, ms since 1970.
    pub at_ms: i64,
    pub taken_in_round: usize,
}

/// A crack on the map.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Crack {
    /// The fact that added it.
    pub id: Uuid,
    /// A, B, ... in the order found.
    pub letter: String,
    /// The round in which it was found, from 1.
    pub found_in_round: usize,
}

/// The torch is lit: from here the job has its own clock.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Lit {
    pub fact: Uuid,
    pub at_ms: i64,
    pub speed: f64,
    pub frozen: Option<FrozenPlan>,
}

impl Lit {
    /// Time on the job clock: lit at + speed x elapsed.
    #[must_use]
    pub fn job_ms(&self, now_ms: i64) -> i64 {
        self.at_ms + ((now_ms - self.at_ms) as f64 * self.speed) as i64
    }

    /// Minutes on the job clock since it was lit.
    #[must_use]
    pub fn minutes(&self, now_ms: i64) -> f64 {
        (self.job_ms(now_ms) - self.at_ms) as f64 / 60_000.0
    }
}

/// An entry of the torch log.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LogEntry {
    pub fact: Uuid,
    /// Minutes on the job clock since it was lit.
    pub minutes: f64,
    /// The same: "1 h 05".
    pub at: String,
    pub entry: TorchEntry,
    /// Of a reading, in degC.
    pub celsius: Option<f64>,
    pub who: String,
    pub struck: Option<String>,
}

impl LogEntry {
    #[must_use]
    pub fn stands(&self) -> bool {
        self.struck.is_none()
    }
}

/// One reading of the thermocouple.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Reading {
    /// Minutes on the job clock since it was lit.
    pub minutes: f64,
    pub celsius: f64,
}

/// One round: the facts as they stand in it, its map, its heat.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Round {
    pub values: BTreeMap<String, Held>,
    pub cracks: Vec<Crack>,
    pub hard_spots: Vec<HardSpot>,
    pub neighbours: Vec<Neighbour>,
    pub lit: Option<Lit>,
    pub log: Vec<LogEntry>,
    /// What the thermocouple recorded, in the order of time; not part of the log of facts.
    pub readings: Vec<Reading>,
    /// Why this round was opened; empty for the first.
    pub reason: String,
}

impl Round {
    fn value(&self, key: &str) -> Option<&FieldValue> {
        self.values.get(key)?.value.as_ref()
    }

    #[must_use]
    pub fn number(&self, key: &str) -> Option<f64> {
        match self.value(key)? {
            FieldValue::Number(number) => Some(*number),
            FieldValue::Text(_) | FieldValue::One(_) | FieldValue::Many(_) | FieldValue::YesNo(_) => None,
        }
    }

    #[must_use]
    pub fn choice(&self, key: &str) -> Option<&str> {
        match self.value(key)? {
            FieldValue::One(id) => Some(id),
            FieldValue::Number(_) | FieldValue::Text(_) | FieldValue::Many(_) | FieldValue::YesNo(_) => None,
        }
    }

    #[must_use]
    pub fn text(&self, key: &str) -> Option<&str> {
        match self.value(key)? {
            FieldValue::Text(text) => Some(text),
            FieldValue::Number(_) | FieldValue::One(_) | FieldValue::Many(_) | FieldValue::YesNo(_) => None,
        }
    }

    #[must_use]
    pub fn yes(&self, key: &str) -> Option<bool> {
        match self.value(key)? {
            FieldValue::YesNo(yes) => Some(*yes),
            FieldValue::Number(_) | FieldValue::One(_) | FieldValue::Many(_) | FieldValue::Text(_) => None,
        }
    }

    /// The choices of a field that takes several; nothing while nobody has said.
    #[must_use]
    pub fn choices(&self, key: &str) -> Option<&[String]> {
        match self.value(key)? {
            FieldValue::Many(ids) => Some(ids),
            FieldValue::Number(_) | FieldValue::One(_) | FieldValue::YesNo(_) | FieldValue::Text(_) => None,
        }
    }

    #[must_use]
    pub fn typed(&self, key: &str) -> Option<&str> {
        self.values.get(key).map(|held| held.typed.as_str())
    }

    /// Entries of the torch log that stand.
    pub fn standing_log(&self) -> impl DoubleEndedIterator<Item = &LogEntry> {
        self.log.iter().filter(|entry| entry.stands())
    }

    /// Minutes on the job clock at which the part was covered to cool.
    #[must_use]
    pub fn covered_minutes(&self) -> Option<f64> {
        self.standing_log().find(|entry| entry.entry == TorchEntry::Covered).map(|entry| entry.minutes)
    }

    /// The last temperature known, from the thermocouple or by hand.
    #[must_use]
    pub fn latest_reading(&self) -> Option<Reading> {
        let by_hand = self
            .standing_log()
            .filter_map(|entry| entry.celsius.map(|celsius| Reading { minutes: entry.minutes, celsius }));
        by_hand.chain(self.readings.iter().copied()).max_by(|a, b| a.minutes.total_cmp(&b.minutes))
    }

    #[must_use]
    pub fn beads(&self) -> usize {
        self.standing_log().filter(|entry| entry.entry == TorchEntry::Bead).count()
    }
}

/// A job as it stands.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Job {
    pub id: Uuid,
    pub revision: u64,
    pub evidence: Vec<Observed>,
    /// In the order taken.
    pub pictures: Vec<Picture>,
    /// First round first; never empty.
    pub rounds: Vec<Round>,
    pub put_away: bool,
    /// The latest change that can be taken back, and the latest that can be put back.
    pub can_undo: Option<Uuid>,
    pub can_redo: Option<Uuid>,
}

impl Job {
    /// The job its log makes. Total: a fact this version cannot read changes nothing.
    #[must_use]
    pub fn fold(id: Uuid, facts: &[Fact]) -> Self {
        let undone = undone(facts);
        let mut job = Self {
            id,
            revision: facts.last().map_or(0, |fact| fact.revision),
            evidence: Vec::new(),
            pictures: Vec::new(),
            rounds: vec![Round::default()],
            put_away: false,
            can_undo: None,
            can_redo: None,
        };
        for fact in facts.iter().filter(|fact| !undone.contains(&fact.id)) {
            job.apply(fact);
        }
        (job.can_undo, job.can_redo) = undo_and_redo(facts);
        job
    }

    /// The round in hand.
    #[must_use]
    pub fn round(&self) -> &Round {
        self.rounds.last().expect("a job has at least one round")
    }

    fn round_mut(&mut self) -> &mut Round {
        self.rounds.last_mut().expect("a job has at least one round")
    }

    #[must_use]
    pub fn name(&self) -> &str {
        self.round().text("part.name").unwrap_or("Not named yet")
    }

    /// The picture that stands for the job: the one chosen, or the first of all of it, or the first.
    #[must_use]
    pub fn face(&self) -> Option<Uuid> {
        let round = self.round();
        let known = |id: &Uuid| self.pictures.iter().any(|picture| picture.id == *id);
        let chosen = round.text("part.face").and_then(|id| id.parse().ok()).filter(known);
        let overall = || {
            let shows =
                |picture: &&Picture| round.choice(&picture_key(picture.id, "shows")) == Some("overall");
            self.pictures.iter().find(shows).or(self.pictures.first()).map(|picture| picture.id)
        };
        chosen.or_else(overall)
    }

    /// The revision of what a change would replace; 0 for nothing.
    #[must_use]
    pub fn revision_of(&self, change: &Change) -> u64 {
        match change {
            Change::Set { key, .. } => self.round().values.get(key).map_or(0, |h| h.revision),
            Change::Observe { test, spot, .. } | Change::Measure { test, spot, .. } => self
                .evidence
                .iter()
                .filter(|seen| seen.test == *test && seen.spot == *spot && seen.stands())
                .map(|seen| seen.revision)
                .max()
                .unwrap_or(0),
            Change::AddCrack
            | Change::AddHardSpot { .. }
            | Change::AddNeighbour
            | Change::AddPicture
            | Change::Strike { .. }
            | Change::Undo { .. }
            | Change::Redo { .. }
            | Change::Light { .. }
            | Change::CancelLight
            | Change::Torch { .. }
            | Change::NewRound { .. }
            | Change::PutAway
            | Change::BringBack => 0,
        }
    }

    fn apply(&mut self, fact: &Fact) {
        let rounds = self.rounds.len();
        match &fact.change {
            Change::Set { key, typed, shown_in } => {
                let Some(spec) = job_field(key) else { return };
                let Ok(value) = parse_value(key, spec, typed, *shown_in) else { return };
                let held = Held { typed: typed.trim().to_owned(), value, revision: fact.revision };
                self.round_mut().values.insert(key.clone(), held);
            }
            Change::Observe { test, outcome, confidence, spot } => self.evidence.push(Observed {
                fact: fact.id,
                revision: fact.revision,
                test: test.clone(),
                outcome: outcome.clone(),
                confidence: *confidence,
                spot: spot.clone(),
                typed: TypedValues::new(),
                shown_in: UnitSystem::Metric,
                hard_spot: None,
                struck: None,
            }),
            Change::Measure { test, typed, shown_in, confidence, spot } => {
                let outcome = MeasuredTest::from_id(test)
                    .and_then(|test| test.measure(typed, *shown_in).ok())
                    .map_or(String::new(), |measured| measured.outcome);
                self.evidence.push(Observed {
                    fact: fact.id,
                    revision: fact.revision,
                    test: test.clone(),
                    outcome,
                    confidence: *confidence,
                    spot: spot.clone(),
                    typed: typed.clone(),
                    shown_in: *shown_in,
                    hard_spot: None,
                    struck: None,
                });
            }
            Change::AddHardSpot { spot, observed } => {
                for seen in self.evidence.iter_mut().filter(|seen| Some(seen.fact) == *observed) {
                    seen.hard_spot = Some(fact.id);
                }
                let spot = HardSpot { id: fact.id, spot: spot.clone(), found_in_round: rounds };
                self.round_mut().hard_spots.push(spot);
            }
            Change::AddNeighbour => self.round_mut().neighbours.push(Neighbour { id: fact.id }),
            Change::AddPicture => {
                let picture = Picture { id: fact.id, at_ms: fact.at_ms(), taken_in_round: rounds };
                self.pictures.push(picture);
            }
            Change::AddCrack => {
                let used = self.rounds.iter().flat_map(|r| &r.cracks).filter(|c| c.found_in_round > 0);
                let letter = letter(used.map(|c| c.id).collect::<HashSet<_>>().len());
                let crack = Crack { id: fact.id, letter, found_in_round: rounds };
                self.round_mut().cracks.push(crack);
            }
            Change::Strike { target, reason } => self.strike(*target, reason),
            Change::Light { speed, frozen } => {
                self.round_mut().lit = Some(Lit {
                    fact: fact.id,
                    at_ms: fact.at_ms(),
                    speed: *speed,
                    frozen: frozen.as_deref().cloned(),
                });
            }
            Change::CancelLight => {
                let round = self.round_mut();
                round.lit = None;
                round.log.clear();
            }
            Change::Torch { entry } => {
                let round = self.round_mut();
                let Some(lit) = &round.lit else { return };
                let celsius = match entry {
                    TorchEntry::Reading { typed, shown_in } => {
                        parse(typed, Kind::Temperature, *shown_in).ok().map(|t| t.value)
                    }
                    TorchEntry::Bead
                    | TorchEntry::Peened
                    | TorchEntry::Reheated
                    | TorchEntry::Note { .. }
                    | TorchEntry::Covered => None,
                };
                let minutes = lit.minutes(fact.at_ms()).max(0.0);
                round.log.push(LogEntry {
                    fact: fact.id,
                    minutes,
                    at: both(minutes, Unit::Minutes).0.text(),
                    entry: entry.clone(),
                    celsius,
                    who: fact.who.clone(),
                    struck: None,
                });
                round.log.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
            }
            Change::NewRound { reason } => {
                let before = self.round();
                let values = before
                    .values
                    .iter()
                    .filter(|(key, _)| !key.starts_with("check.") && *key != "hand_over.done")
                    .map(|(key, held)| (key.clone(), held.clone()))
                    .collect();
                let next = Round {
                    values,
                    cracks: before.cracks.clone(),
                    hard_spots: before.hard_spots.clone(),
                    neighbours: before.neighbours.clone(),
                    reason: reason.clone(),
                    ..Round::default()
                };
                self.rounds.push(next);
            }
            Change::PutAway => self.put_away = true,
            Change::BringBack => self.put_away = false,
            Change::Undo { .. } | Change::Redo { .. } => {}
        }
    }

    fn strike(&mut self, target: Uuid, reason: &str) {
        for seen in self.evidence.iter_mut().filter(|seen| seen.fact == target) {
            seen.struck = Some(reason.to_owned());
        }
        for seen in self.evidence.iter_mut().filter(|seen| seen.hard_spot == Some(target)) {
            seen.hard_spot = None;
        }
        self.pictures.retain(|picture| picture.id != target);
        let round = self.round_mut();
        round.cracks.retain(|crack| crack.id != target);
        round.hard_spots.retain(|spot| spot.id != target);
        round.neighbours.retain(|neighbour| neighbour.id != target);
        for entry in round.log.iter_mut().filter(|entry| entry.fact == target) {
            entry.struck = Some(reason.to_owned());
        }
    }
}

/// A to Z, then AA, AB, ...
fn letter(index: usize) -> String {
    let last = char::from(b'A' + (index % 26) as u8);
    match index / 26 {
        0 => last.to_string(),
        before => format!("{}{last}", letter(before - 1)),
    }
}

pub(super) fn undone(facts: &[Fact]) -> HashSet<Uuid> {
    let mut undone = HashSet::new();
    for fact in facts {
        match &fact.change {
            Change::Undo { target } => {
                undone.insert(*target);
            }
            Change::Redo { target } => {
                undone.remove(target);
            }
            _ => {}
        }
    }
    undone
}

/// The top of the undo stack and of the redo stack. A new change empties the latter.
fn undo_and_redo(facts: &[Fact]) -> (Option<Uuid>, Option<Uuid>) {
    let (mut undo, mut redo): (Vec<Uuid>, Vec<Uuid>) = (Vec::new(), Vec::new());
    let kinds: HashMap<Uuid, bool> =
        facts.iter().map(|fact| (fact.id, can_be_taken_back(&fact.change))).collect();
    for fact in facts {
        match &fact.change {
            Change::Undo { target } => {
                undo.retain(|id| id != target);
                redo.push(*target);
            }
            Change::Redo { target } => {
                redo.retain(|id| id != target);
                undo.push(*target);
            }
            _ if kinds[&fact.id] => {
                undo.push(fact.id);
                redo.clear();
            }
            // What happened at the torch has happened: a wrong entry is struck instead.
            _ => undo.clear(),
        }
    }
    (undo.last().copied(), redo.last().copied())
}

pub(super) fn can_be_taken_back(change: &Change) -> bool {
    match change {
        Change::Set { .. }
        | Change::Observe { .. }
        | Change::Measure { .. }
        | Change::AddHardSpot { .. }
        | Change::AddNeighbour
        | Change::AddPicture
        | Change::AddCrack
        | Change::Strike { .. } => true,
        Change::Undo { .. }
        | Change::Redo { .. }
        | Change::Light { .. }
        | Change::CancelLight
        | Change::Torch { .. }
        | Change::NewRound { .. }
        | Change::PutAway
        | Change::BringBack => false,
    }
}
