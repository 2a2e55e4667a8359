//! What is said of a job: judged, stored, worked out, told.

use std::sync::Arc;

use serde::Deserialize;
use sqlx::SqliteConnection;
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::day::Day;
use vanadin_core::figure::{Moved, moved};
use vanadin_core::job::{
    Change, FACTS_MOST, Fact, Job, Recorded, Understood, accept, possible_name, possible_time,
};
use vanadin_core::problem::FieldProblem;

use super::see::planned;
use super::{Desk, News, Seen, work};
use crate::api_error::ApiError;
use crate::job::store;
use crate::picture::shrink::Shrunk;
use crate::picture::store as pictures;
use crate::rack::projection;
use crate::shop::store::today_in;

/// A change to a job.
#[derive(Debug, Deserialize, ToSchema)]
pub struct NewFact {
    /// Made by the client: sent twice, stored once.
    pub id: Uuid,
    /// When it happened by the client's clock, UTC in ms since 1970.
    pub at_client_ms: i64,
    /// The client's clock when it sends this: by the difference to the server's the time above is put
    /// right. Nothing leaves it as it is.
    #[serde(default)]
    pub sent_at_client_ms: Option<i64>,
    #[serde(default)]
    pub who: String,
    /// The browser it comes from: everybody takes back their own word.
    #[serde(default)]
    pub sender: String,
    /// The data folder it was said to; nothing where that does not matter.
    #[serde(default)]
    pub folder: Option<Uuid>,
    /// The revision of what it replaces, as last seen; nothing to replace whatever stands.
    #[serde(default)]
    pub base: Option<u64>,
    pub change: Change,
}

impl NewFact {
    /// When it happened, by the server's clock.
    fn happened_ms(&self, now_ms: i64) -> i64 {
        let off_ms = self.sent_at_client_ms.map_or(0, |sent| now_ms.saturating_sub(sent));
        self.at_client_ms.saturating_add(off_ms)
    }

    fn possible(&self) -> Result<(), Vec<FieldProblem>> {
        let problems: Vec<FieldProblem> = [
            possible_name("who", &self.who),
            possible_name("sender", &self.sender),
            possible_time("at_client_ms", self.at_client_ms),
            self.sent_at_client_ms.map_or(Ok(()), |at_ms| possible_time("sent_at_client_ms", at_ms)),
        ]
        .into_iter()
        .filter_map(Result::err)
        .collect();
        if problems.is_empty() { Ok(()) } else { Err(problems) }
    }
}

/// A whole job that comes at once: empty, copied, from a file, or of the sample shop.
pub struct NewJob {
    pub id: Uuid,
    pub created_ms: i64,
    pub facts: Vec<Fact>,
    /// By the fact that lit it.
    pub readings: Vec<(Uuid, Vec<Recorded>)>,
    pub pictures: Vec<(Uuid, Shrunk)>,
}

impl NewJob {
    async fn store(&self, on: &mut SqliteConnection) -> Result<(), ApiError> {
        store::create(on, self.id, self.created_ms).await?;
        store::append(on, self.id, &self.facts).await?;
        for (lit, readings) in &self.readings {
            store::add_readings(on, self.id, *lit, readings).await?;
        }
        for (id, picture) in &self.pictures {
            pictures::keep(on, self.id, *id, picture).await?;
        }
        Ok(())
    }
}

impl Desk {
    /// Adds a change to a job's log, if it may be; once, however often it is sent. Gives the job as it
    /// stands then, and the figures that moved.
    ///
    /// # Errors
    /// It may not be, at its field; or it cannot be stored, and is not.
    pub async fn say(&self, id: Uuid, mut new: NewFact) -> Result<(Seen, Vec<Moved>), ApiError> {
        if new.folder.is_some_and(|folder| folder != self.database.folder) {
            return Err(ApiError::OtherFolder);
        }
        new.possible()?;
        if new.change == Change::AddPicture {
            self.must_be_kept(id, new.id).await?;
        }
        let shop = self.shop().await?;
        let _turn = self.turn(id).await;
        let before = self.see_in_turn(id, shop.clone()).await?;
        if before.facts.iter().any(|fact| fact.id == new.id) {
            return Ok((before, Vec::new()));
        }
        if before.facts.len() >= FACTS_MOST {
            return Err(vec![FieldProblem::new("change", "this job's log is full", "duplicate it")].into());
        }
        let today = today_in(&shop.shop, new.happened_ms(self.now_ms()));
        accept(&before.job, &before.plan.allows(), &new.change, new.base, &new.sender, today)?;
        if let Change::Light { frozen, what, without, .. } = &mut new.change {
            *frozen = Some(Box::new(before.plan.frozen()));
            *without = before.plan.not_laid_out(*what);
        }
        if let Change::Estimate { until, frozen } = &mut new.change {
            let days = today.zip(Day::parse(until, today).ok());
            *frozen = days.and_then(|(on, until)| before.plan.estimate(on, until)).map(Box::new);
        }
        let now_ms = self.now_ms();
        let fact = Fact {
            id: new.id,
            revision: before.job.revision + 1,
            at_client_ms: new.happened_ms(now_ms),
            at_server_ms: now_ms,
            who: new.who,
            sender: new.sender,
            understood: Understood::of(&new.change, today),
            change: new.change,
        };
        let (was, said, runs) = (before.clone(), fact.clone(), self.runs());
        let (after, line, moved) = work(move || {
            let mut facts = was.facts.to_vec();
            facts.push(said);
            let mut job = Job::fold(id, &facts);
            job.record_of(Job::clone(&was.job));
            let plan = Arc::new(planned(&job, &was.shop.shop, &runs, now_ms));
            let moved = moved(&was.plan.figures, &plan.figures);
            let after = Seen { facts: Arc::new(facts), job: Arc::new(job), plan, shop: was.shop };
            let line = after.line(now_ms);
            (after, line, moved)
        })
        .await?;
        // Until it is known what came of it nothing is kept: whoever looks then reads it from the disk.
        self.forget(id);
        self.database
            .write(async |on| {
                store::append(on, id, std::slice::from_ref(&fact)).await?;
                projection::put(on, &line).await
            })
            .await?;
        self.keep(id, &after, now_ms);
        self.in_order(id);
        self.tell(News::Said { job: id, revision: after.job.revision, fact: Some(fact.id) });
        Ok((after, moved))
    }

    /// Takes in a whole job, all of it or nothing; one that is there already is left as it is.
    ///
    /// # Errors
    /// It cannot be stored.
    pub async fn take_in(&self, new: NewJob) -> Result<Seen, ApiError> {
        let shop = self.shop().await?;
        let _turn = self.turn(new.id).await;
        let id = new.id;
        if !store::exists(&self.database.pool, id).await? {
            let (now_ms, runs) = (self.now_ms(), self.runs());
            let (new, seen, line) = work(move || {
                let mut job = Job::fold(id, &new.facts);
                job.record(|lit| {
                    let of = new.readings.iter().find(|(known, _)| *known == lit);
                    of.map_or(Vec::new(), |(_, readings)| readings.clone())
                });
                let plan = Arc::new(planned(&job, &shop.shop, &runs, now_ms));
                let seen = Seen { facts: Arc::new(new.facts.clone()), job: Arc::new(job), plan, shop };
                let line = seen.line(now_ms).created(new.created_ms);
                (new, seen, line)
            })
            .await?;
            self.database
                .write(async |on| {
                    new.store(on).await?;
                    projection::put(on, &line).await
                })
                .await?;
            self.keep(id, &seen, now_ms);
            self.tell(News::Said { job: id, revision: seen.job.revision, fact: None });
            return Ok(seen);
        }
        self.see_in_turn(id, shop).await
    }

    /// A fact says that a picture was added: it must be kept already.
    async fn must_be_kept(&self, job: Uuid, id: Uuid) -> Result<(), ApiError> {
        if pictures::jpeg(&self.database.pool, job, id, true).await?.is_some() {
            return Ok(());
        }
        let problem = FieldProblem::new("picture", "send the picture itself", "POST .../pictures/<id>");
        Err(vec![problem].into())
    }
}
