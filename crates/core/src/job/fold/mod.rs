//! The present job, made from its log.

mod apply;
mod drawn;
mod lightings;
mod names;
mod revision;
mod round;
mod said;

use serde::Serialize;
use uuid::Uuid;

pub(super) use self::names::names;
use super::{Face, Fact, Observed, Picture, Round};
use crate::base::log::{OwnWord, own_words, undone};
use crate::casting::said::Shows;
use crate::field::{self, FieldState, FieldValue};
use crate::record::Estimate;
use crate::secret::Practice;

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

    /// What this sender can take back, and put back.
    #[must_use]
    pub fn own_word(&self, sender: &str) -> (Option<Uuid>, Option<Uuid>) {
        let own = self.own_words.iter().find(|own| own.sender == sender);
        own.map_or((None, None), |own| (own.undo, own.redo))
    }

    /// The round in hand.
    #[must_use]
    pub fn round(&self) -> &Round {
        self.rounds.last().expect("a job has at least one round")
    }

    fn round_mut(&mut self) -> &mut Round {
        self.rounds.last_mut().expect("a job has at least one round")
    }

    /// As if a field held this: to try what would be, nothing is said.
    pub(crate) fn assume(&mut self, key: &str, value: FieldValue) {
        let held = FieldState {
            typed: String::new(),
            value: Some(value),
            revision: 0,
            not_understood: String::new(),
        };
        self.round_mut().values.insert(key.to_owned(), held);
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
                |picture: &&Picture| round.get(field::picture::SHOWS.of(picture.id)) == Some(Shows::Overall);
            self.pictures.iter().find(shows).or(self.pictures.first()).map(|picture| picture.id)
        };
        chosen.or_else(overall)
    }

    /// The same job for the made-up part itself: planned with what its flame and its packing really do.
    #[must_use]
    pub fn as_it_is(&self) -> Self {
        let practice = self.practice.clone().map(|it| Practice { as_it_is: true, ..it });
        Self { practice, ..self.clone() }
    }
}
