//! The present job, made from its log.

use std::collections::HashMap;

use serde::Serialize;
use uuid::Uuid;

use super::{
    Became, CHANNELS, Change, CheckWhat, Crack, Face, FacePicture, Fact, Followed, HardSpot, HeatRef, Lit,
    LogEntry, Looked, Mark, Neighbour, Observed, Picture, Reading, Recorded, Round, SeamReading, Timed,
    TorchEntry, Understood, every_channel, job_ms_to_clock,
};
use crate::base::log::{OwnWord, own_words, undone};
use crate::field::{self, FieldValue, Held, Lasts, job_field, parse_value};
use crate::iron::TypedValues;
use crate::map::Drawn;
use crate::quantity::{Unit, UnitSystem, exactly};
use crate::record::Estimate;
use crate::secret::{Broken, Practice, Practised};

/// A fact that this version cannot make sense of.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Damaged {
    /// Its place in the log.
    pub revision: u64,
    /// As it is stored.
    pub text: String,
}

/// A job as it stands.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Job {
    pub id: Uuid,
    pub revision: u64,
    pub evidence: Vec<Observed>,
    /// In the order taken.
    pub pictures: Vec<Picture>,
    /// In the order added.
    pub faces: Vec<Face>,
    /// First round first; never empty.
    pub rounds: Vec<Round>,
    pub put_away: bool,
    /// The estimate given last; nothing while none was.
    #[serde(default)]
    pub estimate: Option<Estimate>,
    /// What cannot be read, the first first.
    pub damaged: Vec<Damaged>,
    /// Of each sender what can be taken back and put back.
    pub own_words: Vec<OwnWord>,
    /// It is no repair: nothing for a real job. What it hides is never sent.
    #[serde(skip)]
    pub practice: Option<Practice>,
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
            faces: Vec::new(),
            rounds: vec![Round::default()],
            put_away: false,
            estimate: None,
            damaged: Vec::new(),
            own_words: own_words(facts),
            practice: None,
        };
        let names = names(facts);
        for fact in facts.iter().filter(|fact| !undone.contains(&fact.id)) {
            job.apply(fact, &names);
        }
        job.doubt();
        job
    }

    /// Lays what the thermocouple recorded beside each lighting.
    pub fn record(&mut self, mut readings_of: impl FnMut(Uuid) -> Vec<Recorded>) {
        for round in &mut self.rounds {
            for heat in &mut round.cancelled {
                (heat.readings, heat.others) = by_channel(readings_of(heat.lit.fact));
            }
            if let Some(lit) = &round.lit {
                (round.readings, round.others) = by_channel(readings_of(lit.fact));
            }
        }
        self.doubt();
    }

    /// What the thermocouple, or a logger, read of a lighting since. False, and nothing is taken, where any of it is not
    /// later than all that is known: the job has to be read anew then, as it is on the disk.
    #[must_use]
    pub fn read(&mut self, of: Uuid, readings: &[impl Copy + Into<Recorded>]) -> bool {
        let read: Vec<Recorded> = readings.iter().copied().map(Into::into).collect();
        let last = self.heats().find(|heat| heat.lit.fact == of).and_then(|heat| {
            let known = heat.readings.last().map(|read| read.minutes).into_iter();
            known.chain(heat.others.iter().map(|read| read.minutes)).reduce(f64::max)
        });
        let later = last.is_none_or(|last| read.first().is_none_or(|read| read.minutes > last));
        if !later || !read.is_sorted_by(|a, b| (a.minutes, a.channel) < (b.minutes, b.channel)) {
            return false;
        }
        let (first, others) = by_channel(read);
        for round in &mut self.rounds {
            let cancelled = round.cancelled.iter_mut();
            let cancelled = cancelled.map(|heat| (heat.lit.fact, (&mut heat.readings, &mut heat.others)));
            let lit = round.lit.as_ref().map(|lit| (lit.fact, (&mut round.readings, &mut round.others)));
            for (_, (known, known_others)) in cancelled.chain(lit).filter(|(lit, _)| *lit == of) {
                known.extend(&first);
                known_others.extend(&others);
            }
        }
        self.doubt();
        true
    }

    /// Takes the readings of an earlier fold of the same job along.
    pub fn record_of(&mut self, before: Self) {
        let mut of: HashMap<Uuid, Vec<Recorded>> = HashMap::new();
        for round in before.rounds {
            let cancelled = round.cancelled.into_iter();
            of.extend(cancelled.map(|heat| (heat.lit.fact, every_channel(&heat.readings, &heat.others))));
            if let Some(lit) = round.lit {
                of.insert(lit.fact, every_channel(&round.readings, &round.others));
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
                others: &it.others,
                slipped: &it.slipped,
                pads: it.pads(),
                cancelled_min: None,
                round,
            });
            let cancelled = it.cancelled.iter().rev().map(move |heat| HeatRef {
                lit: &heat.lit,
                log: &heat.log,
                readings: &heat.readings,
                others: &heat.others,
                slipped: &heat.slipped,
                pads: it.pads(),
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
        self.round().get(field::part::NAME).unwrap_or("Not named yet")
    }

    /// The picture that stands for the job: the one chosen, or the first of all of it, or the first.
    #[must_use]
    pub fn face(&self) -> Option<Uuid> {
        let round = self.round();
        let known = |id: &Uuid| self.pictures.iter().any(|picture| picture.id == *id);
        let chosen = round.get(field::part::FACE).and_then(|id| id.parse().ok()).filter(known);
        let overall = || {
            let shows =
                |picture: &&Picture| round.get(field::picture::SHOWS.of(picture.id)) == Some("overall");
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
            Change::Straighten { face, .. } => {
                let face = self.faces.iter().find(|known| known.id == *face);
                face.and_then(|face| face.picture.as_ref()).map_or(0, |picture| picture.revision)
            }
            Change::Draw { drawn } => {
                let stands = |(mark, face)| self.round().placed(mark, face).map(|placed| placed.revision);
                drawn.iter().filter_map(|it| stands((it.mark, it.face))).max().unwrap_or(0)
            }
            Change::SetPoint { mark, face, .. } => {
                self.round().placed(*mark, *face).map_or(0, |placed| placed.revision)
            }
            Change::AddCrack
            | Change::AddFace
            | Change::AddMark { .. }
            | Change::MeasureSeam { .. }
            | Change::Tick { .. }
            | Change::Look { .. }
            | Change::FollowUp { .. }
            | Change::Estimate { .. }
            | Change::Time { .. }
            | Change::AddHardSpot { .. }
            | Change::AddNeighbour
            | Change::AddPicture
            | Change::Strike { .. }
            | Change::Undo { .. }
            | Change::Redo { .. }
            | Change::Light { .. }
            | Change::CancelLight
            | Change::PutOut
            | Change::Torch { .. }
            | Change::NewRound { .. }
            | Change::Unreadable { .. }
            | Change::PutAway
            | Change::BringBack
            | Change::Practise { .. }
            | Change::Pass { .. }
            | Change::EndPractice => 0,
        }
    }

    /// One answer stands in its field: a later one takes its place there, an empty one takes it out.
    fn followed_in_its_field(&mut self, fact: &Fact, value: &Option<FieldValue>) {
        let round = self.round_mut();
        round.followed.retain(|it| !it.in_its_field);
        if let Some(became) = value.as_ref().and_then(one_chosen).and_then(Became::from_id) {
            round.followed.push(Followed { in_its_field: true, ..followed(fact, became) });
        }
    }

    fn apply(&mut self, fact: &Fact, names: &HashMap<Uuid, String>) {
        let rounds = self.rounds.len();
        // What was understood when it was said; of what is older than that was kept, what is today.
        let today = fact.understood.is_none().then(|| Understood::of(&fact.change, None)).flatten();
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
                if key == field::check::CRACKS_AGAIN.key() && !typed.is_empty() {
                    self.round_mut().cracks_looked_for_ms.get_or_insert(fact.at_ms());
                }
                if key == field::hand_over::DONE.key() {
                    let out = value == Some(FieldValue::YesNo(true));
                    self.round_mut().handed_over_ms = out.then(|| fact.at_ms());
                }
                if key == field::hand_over::BECAME.key() {
                    self.followed_in_its_field(fact, &value);
                }
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
                let letter = names.get(&fact.id).cloned().unwrap_or_default();
                let crack = Crack { id: fact.id, letter, found_in_round: rounds, revision: fact.revision };
                self.round_mut().cracks.push(crack);
            }
            Change::AddFace => {
                let name = names.get(&fact.id).cloned().unwrap_or_default();
                self.faces.push(Face { id: fact.id, name, added_in_round: rounds, picture: None });
            }
            Change::AddMark { what } => {
                let name = names.get(&fact.id).cloned().unwrap_or_default();
                let mark = Mark { id: fact.id, what: *what, name, found_in_round: rounds };
                self.round_mut().marks.push(mark);
            }
            Change::Straighten { face, picture, points_px, size_px, .. } => {
                let Some(Understood::Lengths(typed)) = understood else { return };
                let length = |name: &str| typed.get(name).copied().flatten();
                let Some(across_mm) = length("across") else { return };
                for known in self.faces.iter_mut().filter(|known| known.id == *face) {
                    known.picture = Some(FacePicture {
                        picture: *picture,
                        points_px: points_px.clone(),
                        size_px: *size_px,
                        across_mm,
                        down_mm: length("down"),
                        revision: fact.revision,
                    });
                }
            }
            Change::Draw { drawn } => {
                for it in drawn {
                    self.round_mut().draw(it, rounds, fact.revision);
                }
            }
            Change::SetPoint { mark, face, point, .. } => {
                let Some(Understood::Lengths(typed)) = understood else { return };
                let Some(placed) = self.round().placed(*mark, *face) else { return };
                let Some(shape) = placed.shape.with_point(*point, typed) else { return };
                let drawn = Drawn { mark: *mark, face: *face, shape: Some(shape) };
                self.round_mut().draw(&drawn, rounds, fact.revision);
            }
            Change::MeasureSeam { crack, what, number, .. } => {
                let Some(Understood::Lengths(typed)) = understood else { return };
                let mm = typed.iter().filter_map(|(name, mm)| Some((name.clone(), (*mm)?))).collect();
                let (id, at_ms) = (fact.id, fact.at_ms());
                let reading = SeamReading { id, crack: *crack, what: *what, number: *number, mm, at_ms };
                self.round_mut().at_seams.push(reading);
            }
            Change::Tick { step, done } => {
                let round = self.round_mut();
                if *done {
                    round.ticked.insert(*step);
                    round.ticked_ms.entry(*step).or_insert(fact.at_ms());
                } else {
                    round.ticked.remove(step);
                    round.ticked_ms.remove(step);
                }
            }
            Change::Look { place, found, count, then, note, .. } => {
                let mm = match understood {
                    Some(Understood::Lengths(typed)) => typed.get("size").copied().flatten(),
                    _ => None,
                };
                if place.what == CheckWhat::CracksAgain {
                    self.round_mut().cracks_looked_for_ms.get_or_insert(fact.at_ms());
                }
                self.round_mut().looked.push(Looked {
                    fact: fact.id,
                    revision: fact.revision,
                    at_ms: fact.at_ms(),
                    who: fact.who.clone(),
                    place: *place,
                    found: *found,
                    size_mm: mm,
                    count: *count,
                    then: *then,
                    note: note.trim().to_owned(),
                });
            }
            Change::FollowUp { became, went, after, did, note } => {
                let [after, did, note] = [after, did, note].map(|words| words.trim().to_owned());
                let said = Followed { went: *went, after, did, note, ..followed(fact, *became) };
                self.round_mut().followed.push(said);
            }
            Change::Time { step, running } => {
                let (fact, at_ms) = (fact.id, fact.at_ms());
                let timed = &mut self.round_mut().timed;
                // Two hands do one thing at a time.
                for open in timed.iter_mut().filter(|open| open.to_ms.is_none()) {
                    open.to_ms = Some(at_ms);
                }
                if *running {
                    timed.push(Timed { fact, step: step.clone(), from_ms: at_ms, to_ms: None });
                }
            }
            Change::Estimate { frozen, .. } => {
                // One that the server has not filled in offers nothing.
                self.estimate = frozen.as_deref().cloned().or(self.estimate.take());
            }
            Change::Strike { target, reason } => self.strike(*target, reason),
            Change::Light { speed, frozen, owned, what, without } => {
                self.round_mut().put_aside(None);
                self.round_mut().lit = Some(Lit {
                    what: *what,
                    without: without.clone(),
                    owned: owned.clone(),
                    fact: fact.id,
                    at_ms: fact.at_ms(),
                    speed: *speed,
                    frozen: frozen.as_deref().cloned(),
                });
            }
            Change::CancelLight | Change::PutOut => self.round_mut().put_aside(Some(fact.at_ms())),
            Change::Torch { entry } => {
                let Some((lit, log)) = self.log_in_hand() else { return };
                let celsius = match understood {
                    Some(Understood::Celsius(celsius)) => Some(*celsius),
                    _ => None,
                };
                let stick = matches!(entry, TorchEntry::Stick { .. });
                let (celsius, melts_c) = if stick { (None, celsius) } else { (celsius, None) };
                let at_joint = matches!(entry, TorchEntry::Reading { joint: true, .. });
                let minutes = lit.minutes(fact.at_ms()).max(0.0);
                log.push(LogEntry {
                    fact: fact.id,
                    minutes,
                    at: exactly(minutes, Unit::Minutes).0.text(),
                    entry: entry.clone(),
                    celsius,
                    melts_c,
                    at_joint,
                    who: fact.who.clone(),
                    struck: None,
                    doubted: false,
                });
                log.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
            }
            Change::NewRound { reason } => {
                let before = self.round();
                let values = before
                    .values
                    .iter()
                    .filter(|(key, _)| job_field(key).is_none_or(|spec| spec.lasts != Lasts::Round))
                    .map(|(key, held)| (key.clone(), held.clone()))
                    .collect();
                let next = Round {
                    values,
                    cracks: before.cracks.clone(),
                    hard_spots: before.hard_spots.clone(),
                    neighbours: before.neighbours.clone(),
                    marks: before.marks.clone(),
                    drawn: before.drawn.clone(),
                    reason: reason.clone(),
                    ..Round::default()
                };
                self.rounds.push(next);
            }
            Change::PutAway => self.put_away = true,
            Change::BringBack => self.put_away = false,
            Change::Practise { of } => self.practise(of, fact.revision),
            Change::Pass { minutes } => self.pass(*minutes),
            Change::EndPractice => {
                if let Some(practice) = &mut self.practice {
                    practice.ended = true;
                }
            }
            Change::Undo { .. } | Change::Redo { .. } => {}
        }
    }

    /// A practice whose seal is not whole stays one: it is never taken for a repair.
    fn practise(&mut self, of: &Practised, revision: u64) {
        self.practice = Some(Practice::begun(of).unwrap_or_else(|| {
            self.damaged.push(Damaged { revision, text: Broken.words().to_owned() });
            Practice::without_truth(of)
        }));
    }

    /// The job clock of a practice goes ahead at once: it is as if it had been lit so much earlier.
    fn pass(&mut self, minutes: f64) {
        if self.practice.is_none() {
            return;
        }
        let round = self.rounds.iter_mut().rev().find(|it| it.lit.is_some() || !it.cancelled.is_empty());
        let lit = round.and_then(|round| match &mut round.lit {
            Some(lit) => Some(lit),
            None => round.cancelled.last_mut().map(|heat| &mut heat.lit),
        });
        if let Some(lit) = lit {
            lit.at_ms = job_ms_to_clock(lit.at_ms, lit.speed, -minutes);
        }
    }

    /// The same job for the made-up part itself: planned with what its flame and its packing really do.
    #[must_use]
    pub fn as_it_is(&self) -> Self {
        let practice = self.practice.clone().map(|it| Practice { as_it_is: true, ..it });
        Self { practice, ..self.clone() }
    }

    fn strike(&mut self, target: Uuid, reason: &str) {
        for seen in self.evidence.iter_mut().filter(|seen| seen.fact == target) {
            seen.struck = Some(reason.to_owned());
        }
        for seen in self.evidence.iter_mut().filter(|seen| seen.hard_spot == Some(target)) {
            seen.hard_spot = None;
        }
        self.pictures.retain(|picture| picture.id != target);
        self.faces.retain(|face| face.id != target);
        let round = self.round_mut();
        round.cracks.retain(|crack| crack.id != target);
        round.hard_spots.retain(|spot| spot.id != target);
        round.neighbours.retain(|neighbour| neighbour.id != target);
        round.marks.retain(|mark| mark.id != target);
        round.at_seams.retain(|reading| reading.id != target && reading.crack != target);
        round.looked.retain(|looked| looked.fact != target && looked.place.at != Some(target));
        round.followed.retain(|it| it.fact != target);
        round.drawn.retain(|placed| placed.mark != target && placed.face != target);
        for round in &mut self.rounds {
            let cancelled = round.cancelled.iter_mut().flat_map(|heat| &mut heat.log);
            for entry in round.log.iter_mut().chain(cancelled).filter(|entry| entry.fact == target) {
                entry.struck = Some(reason.to_owned());
            }
        }
    }
}

/// What each thing on the map is called: a name that is given once, also when the thing is taken back.
/// Cracks have letters, faces and marks numbers, each kind its own.
pub(super) fn names(facts: &[Fact]) -> HashMap<Uuid, String> {
    let mut named = HashMap::new();
    let (mut cracks, mut faces) = (0, 0);
    let mut marks: HashMap<&str, usize> = HashMap::new();
    for fact in facts {
        let name = match &fact.change {
            Change::AddCrack => {
                cracks += 1;
                letter(cracks - 1)
            }
            Change::AddFace => {
                faces += 1;
                format!("face {faces}")
            }
            Change::AddMark { what } => {
                let number = marks.entry(what.word()).or_default();
                *number += 1;
                format!("{} {number}", what.word())
            }
            _ => continue,
        };
        named.insert(fact.id, name);
    }
    named
}

/// A to Z, then AA, AB, ...
fn one_chosen(value: &FieldValue) -> Option<&str> {
    match value {
        FieldValue::One(id) => Some(id),
        FieldValue::Text(_) | FieldValue::Number(_) | FieldValue::Many(_) | FieldValue::YesNo(_) => None,
    }
}

/// An answer, and nothing beside it.
fn followed(fact: &Fact, became: Became) -> Followed {
    Followed {
        fact: fact.id,
        revision: fact.revision,
        at_ms: fact.at_ms(),
        who: fact.who.clone(),
        became,
        went: None,
        after: String::new(),
        did: String::new(),
        note: String::new(),
        in_its_field: false,
    }
}

fn letter(index: usize) -> String {
    let last = char::from(b'A' + (index % 26) as u8);
    match index / 26 {
        0 => last.to_string(),
        before => format!("{}{last}", letter(before - 1)),
    }
}

/// The first channel apart from the others.
fn by_channel(all: Vec<Recorded>) -> (Vec<Reading>, Vec<Recorded>) {
    let (first, others): (Vec<Recorded>, Vec<Recorded>) =
        all.into_iter().partition(|read| read.channel == *CHANNELS.start());
    (first.into_iter().map(Recorded::reading).collect(), others)
}
