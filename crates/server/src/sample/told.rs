//! A job of the sample shop as it is told, from its first word on.

use std::collections::BTreeMap;

use anyhow::anyhow;
use uuid::Uuid;
use vanadin_core::base::day::Day;
use vanadin_core::faults::acceptance::Found;
use vanadin_core::field::{crack_key, face_key, mark_key, neighbour_key, picture_key};
use vanadin_core::heat::SimCache;
use vanadin_core::iron::{Confidence, TypedValues};
use vanadin_core::job::{
    Change, CheckPlace, Fact, Job, Lighting, Parsed, Reading, Recorded, SeamReadingKind, TorchEntry, accept,
};
use vanadin_core::map::{Drawn, MarkKind, Shape};
use vanadin_core::plan::{Plan, plan_with};
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::Shop;
use vanadin_core::simulated_thermocouple::Pad;

use crate::job_service::NewJob;
use crate::picture::shrink::Shrunk;

/// How quickly its torch heats and its packing lets go, against the book: so many minutes of the book's in one.
#[derive(Clone, Copy)]
pub(super) struct Really {
    pub heats: f64,
    pub cools: f64,
}

impl Really {
    pub const BOOK: Self = Self { heats: 1.0, cools: 1.0 };

    /// What a pad shows of it, covered at this minute, where it would show this by the book.
    fn shows(self, by_the_book: &[Reading], covered_min: f64) -> Vec<Reading> {
        let minute_of_the_book = |minutes: f64| match minutes - covered_min {
            before if before <= 0.0 => minutes * self.heats,
            after => covered_min + after * self.cools,
        };
        let shown = |reading: &Reading| {
            let wanted = minute_of_the_book(reading.minutes);
            let at = by_the_book.partition_point(|read| read.minutes < wanted);
            let read = by_the_book.get(at).or(by_the_book.last()).unwrap_or(reading);
            Reading { minutes: reading.minutes, celsius: read.celsius }
        };
        by_the_book.iter().map(shown).collect()
    }
}

/// A job as it is told, each word checked as if somebody had typed it.
pub(super) struct SampleJob<'a> {
    id: Uuid,
    pub(super) shop: &'a Shop,
    /// When the next thing is said.
    at_ms: i64,
    now_ms: i64,
    facts: Vec<Fact>,
    pub(super) job: Job,
    pub(super) wrong: Option<anyhow::Error>,
    pictures: Vec<(Uuid, Shrunk)>,
    /// What its torch and its packing really do, where that is not what the book has: the pad shows it.
    pub(super) really: Really,
    /// Runs of the models, from word to word.
    sims: SimCache,
}

const MINUTE_MS: i64 = 60_000;

impl<'a> SampleJob<'a> {
    pub(super) fn new(shop: &'a Shop, now_ms: i64, age_min: i64) -> Self {
        let id = Uuid::new_v4();
        Self {
            id,
            shop,
            at_ms: now_ms - age_min * MINUTE_MS,
            now_ms,
            facts: Vec::new(),
            job: Job::fold(id, &[]),
            wrong: None,
            pictures: Vec::new(),
            really: Really::BOOK,
            sims: SimCache::default(),
        }
    }

    pub(super) fn plan(&self) -> Plan {
        plan_with(&self.job, self.shop, &self.sims)
    }

    pub(super) fn say(&mut self, change: Change) -> Uuid {
        let id = Uuid::new_v4();
        let allowed = || self.plan().allows(&self.job, self.at_ms.min(self.now_ms));
        if let Err(refused) = accept(&self.job, allowed, &change, None, "", None) {
            self.wrong.get_or_insert_with(|| anyhow!("the sample shop says {change:?}: {refused:?}"));
            return id;
        }
        let at_ms = self.at_ms.min(self.now_ms);
        self.facts.push(Fact {
            id,
            revision: self.facts.len() as u64 + 1,
            at_client_ms: at_ms,
            at_server_ms: at_ms,
            who: "bench".to_owned(),
            sender: String::new(),
            understood: Parsed::of(&change, None),
            change,
        });
        self.refold();
        id
    }

    pub(super) fn refold(&mut self) {
        let before = std::mem::replace(&mut self.job, Job::fold(self.id, &self.facts));
        self.job.record_of(before);
    }

    pub(super) fn set(&mut self, key: &str, typed: &str) {
        self.say(Change::Set { key: key.to_owned(), typed: typed.to_owned(), shown_in: UnitSystem::Metric });
    }

    pub(super) fn measured(
        &mut self,
        crack: Uuid,
        what: SeamReadingKind,
        number: Option<u32>,
        typed: &[(&str, &str)],
    ) {
        let typed = typed.iter().map(|(name, mm)| ((*name).to_owned(), (*mm).to_owned())).collect();
        self.say(Change::MeasureSeam { crack, what, number, typed, shown_in: UnitSystem::Metric });
    }

    /// A place was looked at.
    pub(super) fn looked(&mut self, place: CheckPlace, found: Found, size: &str, count: Option<u32>) -> Uuid {
        let typed = if size.is_empty() {
            TypedValues::new()
        } else {
            TypedValues::from([("size".to_owned(), size.to_owned())])
        };
        let shown_in = UnitSystem::Metric;
        let note = String::new();
        self.say(Change::Look { place, found, typed, shown_in, count, then: None, note })
    }

    pub(super) fn part(&mut self, facts: &[(&str, &str)]) {
        for (key, typed) in facts {
            self.set(&format!("part.{key}"), typed);
        }
        self.wait(4);
    }

    pub(super) fn tried(&mut self, test: &str, outcome: &str, confidence: Confidence) {
        self.say(Change::Observe {
            test: test.to_owned(),
            outcome: outcome.to_owned(),
            confidence,
            spot: "first spot".to_owned(),
        });
        self.wait(2);
    }

    pub(super) fn taken(&mut self, drawn: (&[u8], &[u8]), shows: &str) -> Uuid {
        let id = self.taken_of(None, drawn);
        self.set(&picture_key(id, "shows"), shows);
        id
    }

    /// A picture that proves something, or shows the part.
    pub(super) fn taken_of(&mut self, of: Option<Uuid>, (jpeg, small): (&[u8], &[u8])) -> Uuid {
        let id = self.say(Change::AddPicture { of });
        self.pictures.push((
            id,
            // As they were drawn.
            Shrunk { width: 800, height: 600, jpeg: jpeg.to_vec(), small: small.to_vec() },
        ));
        id
    }

    /// A plain face, its outline a rectangle.
    pub(super) fn face(&mut self, name: &str, across: &str, down: &str) -> Uuid {
        let face = self.say(Change::AddFace);
        for (field, typed) in [("name", name), ("outline", "rectangle"), ("across", across), ("down", down)] {
            self.set(&face_key(face, field), typed);
        }
        face
    }

    pub(super) fn draw(&mut self, mark: Uuid, face: Uuid, shape: Shape) {
        self.say(Change::Draw { drawn: vec![Drawn { mark, face, shape: Some(shape) }] });
        self.wait(1);
    }

    pub(super) fn stays_cool(&mut self, what: &str, limit: &str) {
        let id = self.say(Change::AddNeighbour);
        self.set(&neighbour_key(id, "what"), what);
        self.set(&neighbour_key(id, "limit"), limit);
    }

    /// Something that has to fit, with what is known of it.
    pub fn size(&mut self, said: &[(&str, &str)]) -> Uuid {
        let id = self.say(Change::AddMark { what: MarkKind::Feature });
        for (field, typed) in said {
            self.set(&mark_key(id, field), typed);
        }
        id
    }

    pub(super) fn marked(&mut self, mark: &str, spot: &str) {
        self.say(Change::Measure {
            test: "mark".to_owned(),
            typed: BTreeMap::from([("mark".to_owned(), mark.to_owned())]),
            shown_in: UnitSystem::Metric,
            confidence: Confidence::Sure,
            spot: spot.to_owned(),
        });
        self.wait(1);
    }

    pub(super) fn crack(&mut self, facts: &[(&str, &str)]) -> Uuid {
        let crack = self.say(Change::AddCrack);
        for (field, typed) in facts {
            self.set(&crack_key(crack, field), typed);
        }
        self.wait(5);
        crack
    }

    /// The day so many days from now.
    pub(super) fn day_in(&self, days: i64) -> String {
        self.day_at(self.now_ms + days * 1440 * MINUTE_MS)
    }

    fn day_at(&self, ms: i64) -> String {
        let then = jiff::Timestamp::from_millisecond(ms);
        then.map_or(String::new(), |then| then.to_zoned(jiff::tz::TimeZone::UTC).date().to_string())
    }

    pub(super) fn wait(&mut self, minutes: i64) {
        self.at_ms += minutes * MINUTE_MS;
    }

    /// What it would cost is put on paper, as it is reckoned now.
    pub(super) fn estimate(&mut self, until_days: i64) {
        let day = |ms: i64| Day::parse(&self.day_at(ms), None).ok();
        let until_ms = self.at_ms + until_days * 1440 * MINUTE_MS;
        let days = day(self.at_ms).zip(day(until_ms));
        let frozen = days.and_then(|(on, until)| self.plan().estimate(on, until));
        let until = self.day_at(until_ms);
        self.say(Change::Estimate { until, frozen: frozen.map(Box::new) });
    }

    pub(super) fn torch(&mut self, entry: TorchEntry) {
        self.say(Change::Torch { entry });
    }

    /// Lights up and lets the simulated pad run, laying every bead of the plan so many minutes apart.
    pub(super) fn heat(&mut self, every_min: i64) {
        self.set("prep.done", "holes,groove,inside,penetrant,paint");
        let frozen = Some(Box::new(self.plan().frozen()));
        let from_ms = self.at_ms;
        self.say(Change::Light {
            speed: 1.0,
            frozen,
            owned: String::new(),
            what: Lighting::Main,
            without: Vec::new(),
        });
        let now = self.plan();
        let ready = now.lines.first().map_or(0.0, |line| line.beads_from);
        let (beads, peens) = now.torch.map_or((0, false), |torch| (torch.planned, torch.peen));
        self.at_ms = from_ms + (ready * 60_000.0) as i64;
        for _ in 0..beads {
            self.torch(TorchEntry::Bead { at: None });
            if peens {
                self.at_ms += MINUTE_MS / 2;
                self.torch(TorchEntry::Peened);
            }
            self.wait(every_min);
        }
    }

    /// Covers it and records what the pad showed, up to `until_min` after that, at most until now.
    pub(super) fn cover(&mut self, until_min: i64) {
        let covered_ms = self.at_ms;
        self.torch(TorchEntry::Covered { why: String::new() });
        self.wait(until_min);
        self.record(covered_ms);
    }

    /// Cold and unwrapped, as a hand held to it says.
    pub(super) fn unwrap(&mut self) {
        self.torch(TorchEntry::Reading {
            typed: "24 C".to_owned(),
            shown_in: UnitSystem::Metric,
            joint: false,
            gun: None,
        });
        self.torch(TorchEntry::Unwrapped);
    }

    pub(super) fn record(&mut self, covered_ms: i64) {
        let until_ms = self.at_ms.min(self.now_ms);
        let now = self.plan();
        let Some(mut pad) = Pad::on(&self.job, &now, self.shop) else { return };
        let due = pad.advance_to(pad.minutes_at(until_ms));
        if let Some(round) = self.job.rounds.last_mut() {
            let lit_ms = round.lit.as_ref().map_or(covered_ms, |lit| lit.at_ms);
            round.readings = self.really.shows(&due, (covered_ms - lit_ms) as f64 / 60_000.0);
        }
    }

    /// The whole job, to be stored.
    pub(super) fn job(self) -> anyhow::Result<NewJob> {
        if let Some(wrong) = self.wrong {
            return Err(wrong);
        }
        let created_ms = self.facts.first().map_or(self.now_ms, |fact| fact.at_server_ms);
        let rounds = self.job.rounds;
        let readings = rounds
            .into_iter()
            .filter_map(|round| {
                let read = round.readings.into_iter().map(Recorded::from).collect();
                Some((round.lit?.fact, read))
            })
            .collect();
        Ok(NewJob { id: self.id, created_ms, facts: self.facts, readings, pictures: self.pictures })
    }
}
