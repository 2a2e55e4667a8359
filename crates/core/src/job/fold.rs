//! The present job, made from its log.

use std::collections::{BTreeMap, HashMap};

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::{
    Change, Fact, FieldValue, Observed, TorchEntry, Understood, job_field, parse_value, picture_key,
};
use crate::heat::TOUCH_C;
use crate::iron::TypedValues;
use crate::log::{OwnWord, own_words, undone};
use crate::quantity::{Unit, UnitSystem, both};
use crate::record::FrozenPlan;

/// A field as it was last typed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Held {
    pub typed: String,
    pub value: Option<FieldValue>,
    /// The revision that set it.
    pub revision: u64,
    /// Why it is not understood any more; empty where it is.
    #[serde(default)]
    pub not_understood: String,
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
    /// Who lit it although the heat at hand may not do, and why; empty where nobody had to.
    #[serde(default)]
    pub owned: String,
}

impl Lit {
    /// Time on the job clock: lit at + speed x elapsed.
    #[must_use]
    pub fn job_ms(&self, now_ms: i64) -> i64 {
        job_ms(self.at_ms, self.speed, now_ms)
    }

    /// Minutes on the job clock since it was lit.
    #[must_use]
    pub fn minutes(&self, now_ms: i64) -> f64 {
        (self.job_ms(now_ms) - self.at_ms) as f64 / 60_000.0
    }
}

/// The job clock, UTC in ms since 1970, of what was lit `at_ms`: lit at + speed x elapsed.
#[must_use]
pub fn job_ms(at_ms: i64, speed: f64, now_ms: i64) -> i64 {
    at_ms + ((now_ms - at_ms) as f64 * speed) as i64
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
    /// It was read at the joint, not at the part.
    #[serde(default)]
    pub at_joint: bool,
    pub who: String,
    pub struck: Option<String>,
}

impl LogEntry {
    #[must_use]
    pub fn stands(&self) -> bool {
        self.struck.is_none()
    }

    /// Of the part, read by hand; nothing for anything else.
    fn of_part(&self) -> Option<Reading> {
        let celsius = self.celsius.filter(|_| !self.at_joint)?;
        Some(Reading { minutes: self.minutes, celsius })
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

/// One lighting, with what was said and read of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Heat {
    pub lit: Lit,
    pub log: Vec<LogEntry>,
    /// What the thermocouple recorded, in the order of time.
    pub readings: Vec<Reading>,
    /// Minutes on the job clock at which it was cancelled; nothing for one that was not.
    pub cancelled_min: Option<f64>,
}

/// A lighting of the job, wherever it is kept.
#[derive(Debug, Clone, Copy)]
pub struct HeatRef<'a> {
    pub lit: &'a Lit,
    pub log: &'a [LogEntry],
    pub readings: &'a [Reading],
    pub cancelled_min: Option<f64>,
    /// The round it belongs to, from 0.
    pub round: usize,
}

impl HeatRef<'_> {
    fn standing_log(&self) -> impl DoubleEndedIterator<Item = &LogEntry> {
        self.log.iter().filter(|entry| entry.stands())
    }

    /// Minutes on the job clock at which the flame was off for good: covered, unwrapped or cancelled.
    #[must_use]
    pub fn out_of_heat_min(&self) -> Option<f64> {
        let off =
            |entry: &&LogEntry| matches!(entry.entry, TorchEntry::Covered { .. } | TorchEntry::Unwrapped);
        self.cancelled_min.or_else(|| self.standing_log().find(off).map(|entry| entry.minutes))
    }

    #[must_use]
    pub fn covered(&self) -> bool {
        self.standing_log().any(|entry| matches!(entry.entry, TorchEntry::Covered { .. }))
    }

    #[must_use]
    pub fn unwrapped(&self) -> bool {
        self.standing_log().any(|entry| entry.entry == TorchEntry::Unwrapped)
    }

    /// The last temperature known of the part, from the thermocouple or by hand.
    #[must_use]
    pub fn latest_reading(&self) -> Option<Reading> {
        let by_hand = self.standing_log().filter_map(LogEntry::of_part);
        by_hand.chain(self.readings.iter().copied()).max_by(|a, b| a.minutes.total_cmp(&b.minutes))
    }

    /// The last temperature known of the part up to a time on the job clock.
    #[must_use]
    pub fn reading_at(&self, minutes: f64) -> Option<Reading> {
        let by_hand = self.standing_log().filter_map(LogEntry::of_part);
        by_hand
            .chain(self.readings.iter().copied())
            .filter(|reading| reading.minutes <= minutes)
            .max_by(|a, b| a.minutes.total_cmp(&b.minutes))
    }

    /// A reading taken out of the heat says that a hand may touch it.
    #[must_use]
    pub fn read_cold(&self, over: bool) -> bool {
        let off = match self.out_of_heat_min() {
            Some(off) => off,
            // Work goes on in another round: the flame is off, nobody said when.
            None if over => 0.0,
            None => return false,
        };
        let last = self.latest_reading().filter(|last| last.minutes >= off);
        last.is_some_and(|last| last.celsius <= TOUCH_C)
    }
}

/// A fact that this version cannot make sense of.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Damaged {
    /// Its place in the log.
    pub revision: u64,
    /// As it is stored.
    pub text: String,
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
    /// Lightings that were cancelled, the first first: the part may have become hot all the same.
    pub cancelled: Vec<Heat>,
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
        self.standing_log()
            .find(|entry| matches!(entry.entry, TorchEntry::Covered { .. }))
            .map(|entry| entry.minutes)
    }

    /// Why it was covered, where that was said; nothing while it is not covered.
    #[must_use]
    pub fn covered_because(&self) -> Option<&str> {
        self.standing_log().find_map(|entry| match &entry.entry {
            TorchEntry::Covered { why } => Some(why.as_str()),
            _ => None,
        })
    }

    /// The last temperature known of the part, from the thermocouple or by hand.
    #[must_use]
    pub fn latest_reading(&self) -> Option<Reading> {
        self.part_readings().max_by(|a, b| a.minutes.total_cmp(&b.minutes))
    }

    /// Every temperature of the part that is known, in no order.
    pub fn part_readings(&self) -> impl Iterator<Item = Reading> + '_ {
        let by_hand = self.standing_log().filter_map(LogEntry::of_part);
        by_hand.chain(self.readings.iter().copied())
    }

    /// The last temperature read at the joint.
    #[must_use]
    pub fn latest_joint(&self) -> Option<Reading> {
        let joint = |entry: &LogEntry| {
            entry
                .celsius
                .filter(|_| entry.at_joint)
                .map(|celsius| Reading { minutes: entry.minutes, celsius })
        };
        self.standing_log().filter_map(joint).next_back()
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
    /// What cannot be read, the first first.
    pub damaged: Vec<Damaged>,
    /// Of each sender what can be taken back and put back.
    pub own_words: Vec<OwnWord>,
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
            damaged: Vec::new(),
            own_words: own_words(facts),
        };
        let letters = letters(facts);
        for fact in facts.iter().filter(|fact| !undone.contains(&fact.id)) {
            job.apply(fact, &letters);
        }
        job
    }

    /// Lays what the thermocouple recorded beside each lighting.
    pub fn record(&mut self, mut readings_of: impl FnMut(Uuid) -> Vec<Reading>) {
        for round in &mut self.rounds {
            for heat in &mut round.cancelled {
                heat.readings = readings_of(heat.lit.fact);
            }
            if let Some(lit) = &round.lit {
                round.readings = readings_of(lit.fact);
            }
        }
    }

    /// What the thermocouple read of a lighting since.
    pub fn read(&mut self, of: Uuid, readings: &[Reading]) {
        for round in &mut self.rounds {
            let cancelled = round.cancelled.iter_mut().map(|heat| (heat.lit.fact, &mut heat.readings));
            let lit = round.lit.as_ref().map(|lit| (lit.fact, &mut round.readings));
            for (_, known) in cancelled.chain(lit).filter(|(lit, _)| *lit == of) {
                // What was read from the disk meanwhile is there already.
                let last = known.last().map_or(f64::NEG_INFINITY, |last| last.minutes);
                known.extend(readings.iter().filter(|reading| reading.minutes > last));
            }
        }
    }

    /// Takes the readings of an earlier fold of the same job along.
    pub fn record_of(&mut self, before: Self) {
        let mut of: HashMap<Uuid, Vec<Reading>> = HashMap::new();
        for round in before.rounds {
            of.extend(round.cancelled.into_iter().map(|heat| (heat.lit.fact, heat.readings)));
            if let Some(lit) = round.lit {
                of.insert(lit.fact, round.readings);
            }
        }
        self.record(|lit| of.remove(&lit).unwrap_or_default());
    }

    /// Every lighting, the last first.
    pub fn heats(&self) -> impl Iterator<Item = HeatRef<'_>> {
        self.rounds.iter().enumerate().rev().flat_map(|(round, it)| {
            let lit = it.lit.as_ref().map(|lit| HeatRef {
                lit,
                log: &it.log,
                readings: &it.readings,
                cancelled_min: None,
                round,
            });
            let cancelled = it.cancelled.iter().rev().map(move |heat| HeatRef {
                lit: &heat.lit,
                log: &heat.log,
                readings: &heat.readings,
                cancelled_min: heat.cancelled_min,
                round,
            });
            lit.into_iter().chain(cancelled)
        })
    }

    /// The last lighting, whichever round it belongs to; nothing while the job was never lit.
    #[must_use]
    pub fn heat(&self) -> Option<HeatRef<'_>> {
        self.heats().next()
    }

    /// What this sender can take back, and put back.
    #[must_use]
    pub fn own_word(&self, sender: &str) -> (Option<Uuid>, Option<Uuid>) {
        let own = self.own_words.iter().find(|own| own.sender == sender);
        own.map_or((None, None), |own| (own.undo, own.redo))
    }

    /// The log and the lighting that something said at the torch belongs to.
    fn log_in_hand(&mut self) -> Option<(&Lit, &mut Vec<LogEntry>)> {
        let round = self.rounds.iter_mut().rev().find(|it| it.lit.is_some() || !it.cancelled.is_empty())?;
        match &round.lit {
            Some(lit) => Some((lit, &mut round.log)),
            None => round.cancelled.last_mut().map(|heat| (&heat.lit, &mut heat.log)),
        }
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
            | Change::Unreadable { .. }
            | Change::PutAway
            | Change::BringBack => 0,
        }
    }

    fn apply(&mut self, fact: &Fact, letters: &HashMap<Uuid, String>) {
        let rounds = self.rounds.len();
        // What was understood when it was said; of what is older than that was kept, what is today.
        let today = fact.understood.is_none().then(|| Understood::of(&fact.change)).flatten();
        let understood = fact.understood.as_ref().or(today.as_ref());
        match &fact.change {
            Change::Set { key, typed, shown_in } => {
                let Some(spec) = job_field(key) else {
                    self.damaged.push(Damaged { revision: fact.revision, text: format!("{key}: {typed}") });
                    return;
                };
                let (value, not_understood) = match understood {
                    Some(Understood::Field(value)) => (value.clone(), String::new()),
                    _ => match parse_value(key, spec, typed, *shown_in) {
                        Ok(value) => (value, String::new()),
                        Err(problem) => (None, problem.message),
                    },
                };
                let typed = typed.trim().to_owned();
                let held = Held { typed, value, revision: fact.revision, not_understood };
                self.round_mut().values.insert(key.clone(), held);
            }
            Change::Unreadable { text } => {
                self.damaged.push(Damaged { revision: fact.revision, text: text.clone() });
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
                let outcome = match understood {
                    Some(Understood::Outcome(outcome)) => outcome.clone(),
                    _ => String::new(),
                };
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
                let letter = letters.get(&fact.id).cloned().unwrap_or_default();
                let crack = Crack { id: fact.id, letter, found_in_round: rounds };
                self.round_mut().cracks.push(crack);
            }
            Change::Strike { target, reason } => self.strike(*target, reason),
            Change::Light { speed, frozen, owned } => {
                self.round_mut().lit = Some(Lit {
                    owned: owned.clone(),
                    fact: fact.id,
                    at_ms: fact.at_ms(),
                    speed: *speed,
                    frozen: frozen.as_deref().cloned(),
                });
            }
            Change::CancelLight => {
                let round = self.round_mut();
                let (log, readings) = (std::mem::take(&mut round.log), std::mem::take(&mut round.readings));
                if let Some(lit) = round.lit.take() {
                    let cancelled_min = Some(lit.minutes(fact.at_ms()).max(0.0));
                    round.cancelled.push(Heat { lit, log, readings, cancelled_min });
                }
            }
            Change::Torch { entry } => {
                let Some((lit, log)) = self.log_in_hand() else { return };
                let celsius = match understood {
                    Some(Understood::Celsius(celsius)) => Some(*celsius),
                    _ => None,
                };
                let at_joint = matches!(entry, TorchEntry::Reading { joint: true, .. });
                let minutes = lit.minutes(fact.at_ms()).max(0.0);
                log.push(LogEntry {
                    fact: fact.id,
                    minutes,
                    at: both(minutes, Unit::Minutes).0.text(),
                    entry: entry.clone(),
                    celsius,
                    at_joint,
                    who: fact.who.clone(),
                    struck: None,
                });
                log.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
            }
            Change::NewRound { reason } => {
                let before = self.round();
                let values = before
                    .values
                    .iter()
                    .filter(|(key, _)| {
                        !key.starts_with("check.")
                            && !["hand_over.done", "hand_over.owned", "prep.done"].contains(&key.as_str())
                    })
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
        for round in &mut self.rounds {
            let cancelled = round.cancelled.iter_mut().flat_map(|heat| &mut heat.log);
            for entry in round.log.iter_mut().chain(cancelled).filter(|entry| entry.fact == target) {
                entry.struck = Some(reason.to_owned());
            }
        }
    }
}

/// The letter of each crack ever added: a name that is given once, also when the crack is taken back.
fn letters(facts: &[Fact]) -> HashMap<Uuid, String> {
    let added = facts.iter().filter(|fact| fact.change == Change::AddCrack);
    added.enumerate().map(|(at, fact)| (fact.id, letter(at))).collect()
}

/// A to Z, then AA, AB, ...
fn letter(index: usize) -> String {
    let last = char::from(b'A' + (index % 26) as u8);
    match index / 26 {
        0 => last.to_string(),
        before => format!("{}{last}", letter(before - 1)),
    }
}
