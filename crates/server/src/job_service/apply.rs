//! Applying a change to a job: judged, stored, planned, published.

use std::sync::Arc;

use serde::Deserialize;
use sqlx::SqliteConnection;
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::base::day::Day;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::figure::{Moved, moved};
use vanadin_core::heat::SimCache;
use vanadin_core::job::{
    Change, FACTS_MOST, Fact, Job, Parsed, Recorded, TorchEntry, accept, possible_name, possible_time,
};
use vanadin_core::plan::Plan;
use vanadin_core::practice::{answered, answers_more};
use vanadin_core::shop::{Shop, ShopFact};

use super::{JobService, News, ShopNow, Snapshot, work};
use crate::api_error::ApiError;
use crate::job::store;
use crate::picture::shrink::Shrunk;
use crate::picture::store as pictures;
use crate::rack::projection::{self, Projected};
use crate::shop::store::{self as shop_store, today_in};

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

    /// A clock that is wrong and known is put right first: only then it is judged. What a clock of its own has in the
    /// future happened when it was sent.
    fn possible(&self, now_ms: i64) -> Result<(), Vec<FieldProblem>> {
        let problems: Vec<FieldProblem> = [
            possible_name("who", &self.who),
            possible_name("sender", &self.sender),
            possible_time("at_client_ms", self.happened_ms(now_ms)),
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

/// A whole job with its plan and its line, for the moment they were worked out.
struct WorkedOut {
    new: NewJob,
    seen: Snapshot,
    line: Projected,
    at_ms: i64,
}

impl WorkedOut {
    async fn store(&self, on: &mut SqliteConnection) -> Result<(), ApiError> {
        self.new.store(on).await?;
        projection::put(on, &self.line).await
    }
}

/// Where a change that a made-up part cannot answer is told.
fn field_of(change: &Change) -> &'static str {
    match change {
        Change::Observe { .. } | Change::Measure { .. } => "test",
        Change::Set { .. } => "method.choice",
        _ => "practice",
    }
}

/// What a made-up part shows of what was said of it last: the log with it, and the job; nothing where it shows nothing.
fn shown_of_it(
    facts: &[Fact],
    (job, plan): (&Job, &Plan),
    by: (&Shop, &SimCache),
) -> Option<(Vec<Fact>, Job)> {
    let last = facts.last()?;
    let shown = answers_more(job, plan, &last.change, by, Uuid::new_v4);
    if shown.is_empty() {
        return None;
    }
    let mut all = facts.to_vec();
    for (id, change) in shown {
        all.push(Fact {
            id,
            revision: all.len() as u64 + 1,
            // Nobody of the shop said it: nobody takes it back.
            who: String::new(),
            sender: String::new(),
            understood: Parsed::of(&change, None),
            change,
            ..*last
        });
    }
    let mut then = Job::fold(job.id, &all);
    then.record_of(job.clone());
    Some((all, then))
}

impl JobService {
    /// Applies a change to a job's log, if it may be; once, however often it is sent. Gives the job as it
    /// stands then, and the figures that moved.
    ///
    /// # Errors
    /// It may not be, at its field; or it cannot be stored, and is not.
    pub async fn apply(&self, id: Uuid, mut new: NewFact) -> Result<(Snapshot, Vec<Moved>), ApiError> {
        if new.folder.is_some_and(|folder| folder != self.database.folder) {
            return Err(ApiError::OtherFolder);
        }
        new.possible(self.now_ms())?;
        if matches!(new.change, Change::AddPicture { .. }) {
            self.must_be_kept(id, new.id).await?;
        }
        let shop = self.shop().await?;
        let shows_c = self.bring_up_to_now(id).await?;
        let _lock = self.lock_job(id).await;
        let before = self.load_locked(id, shop.clone()).await?;
        if before.facts.iter().any(|fact| fact.id == new.id) {
            return Ok((before, Vec::new()));
        }
        if before.facts.len() >= FACTS_MOST {
            return Err(vec![FieldProblem::new("change", "this job's log is full", "duplicate it")].into());
        }
        let today = today_in(&shop.shop, new.happened_ms(self.now_ms()));
        let field = field_of(&new.change);
        new.change = answered(&before.job, &before.plan, new.change, shows_c)
            .map_err(|(why, right)| vec![FieldProblem::new(field, why, right)])?;
        let allowed = || before.plan.allows(&before.job, self.now_ms());
        accept(&before.job, allowed, &new.change, new.base, &new.sender, today)?;
        if let Change::Light { frozen, what, without, .. } = &mut new.change {
            *frozen = Some(Box::new(before.plan.frozen()));
            *without = before.plan.not_laid_out(*what);
        }
        if let Change::Torch { entry: TorchEntry::Beads { at, over_min, .. } } = &mut new.change {
            *over_min = before.plan.beads_take_min(at);
        }
        if let Change::FollowUp { odds, .. } = &mut new.change {
            *odds = before.plan.odds_now();
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
            understood: Parsed::of(&new.change, today),
            change: new.change,
        };
        let (was, said, jobs) = (before.clone(), fact.clone(), self.clone());
        let (after, line, moved) = work(move || {
            let mut facts = was.facts.to_vec();
            facts.push(said);
            let mut job = Job::fold(id, &facts);
            job.record_of(Job::clone(&was.job));
            let mut plan = Arc::new(jobs.planned(&job, &was.shop.shop, now_ms));
            if let Some((more, then)) = shown_of_it(&facts, (&job, &plan), (&was.shop.shop, &jobs.sims())) {
                (facts, job) = (more, then);
                plan = Arc::new(jobs.planned(&job, &was.shop.shop, now_ms));
            }
            let moved = moved(&was.plan.figures, &plan.figures);
            let after = Snapshot { facts: Arc::new(facts), job: Arc::new(job), plan, shop: was.shop };
            let line = after.line(now_ms);
            (after, line, moved)
        })
        .await?;
        // Until it is known what came of it nothing is kept: whoever looks then reads it from the disk.
        self.evict(id);
        self.database
            .write(async |on| {
                store::append(on, id, &after.facts[before.facts.len()..]).await?;
                projection::put(on, &line).await
            })
            .await?;
        self.cache(id, &after, now_ms);
        self.in_order(id);
        self.notify(News::Said { job: id, revision: after.job.revision, fact: Some(fact.id) });
        Ok((after, moved))
    }

    /// Creates a whole job, all of it or nothing; one that is there already is left as it is.
    ///
    /// # Errors
    /// It cannot be stored.
    pub async fn create(&self, new: NewJob) -> Result<Snapshot, ApiError> {
        let shop = self.shop().await?;
        let _lock = self.lock_job(new.id).await;
        let id = new.id;
        if store::exists(&self.database.pool, id).await? {
            return self.load_locked(id, shop).await;
        }
        let made = self.compute(new, shop).await?;
        self.database.write(async |on| made.store(on).await).await?;
        Ok(self.finish_create(made))
    }

    /// Creates the shop and the jobs of an empty folder in one transaction.
    ///
    /// # Errors
    /// It cannot be stored.
    pub async fn create_all(&self, words: Vec<ShopFact>, jobs: Vec<NewJob>) -> Result<(), ApiError> {
        let _lock = self.on.shop_lock.lock().await;
        let before = self.shop().await?;
        let later = words.into_iter().zip(before.revision + 1..);
        let said: Vec<ShopFact> = later.map(|(word, revision)| ShopFact { revision, ..word }).collect();
        let shop = Arc::new(ShopNow::of([before.facts.to_vec(), said.clone()].concat()));
        let mut made = Vec::with_capacity(jobs.len());
        for new in jobs {
            made.push(self.compute(new, shop.clone()).await?);
        }
        self.database
            .write(async |on| {
                for fact in &said {
                    shop_store::add(on, fact).await?;
                }
                for job in &made {
                    job.store(on).await?;
                }
                Ok(())
            })
            .await?;
        let revision = shop.revision;
        self.shop_is(shop);
        self.notify(News::Shop { revision });
        for job in made {
            self.finish_create(job);
        }
        Ok(())
    }

    /// Computes the plan and the line of a whole job, not stored yet.
    async fn compute(&self, new: NewJob, shop: Arc<ShopNow>) -> Result<WorkedOut, ApiError> {
        let (at_ms, jobs) = (self.now_ms(), self.clone());
        work(move || {
            let mut job = Job::fold(new.id, &new.facts);
            job.record(|lit| {
                let of = new.readings.iter().find(|(known, _)| *known == lit);
                of.map_or(Vec::new(), |(_, readings)| readings.clone())
            });
            let plan = Arc::new(jobs.planned(&job, &shop.shop, at_ms));
            let seen = Snapshot { facts: Arc::new(new.facts.clone()), job: Arc::new(job), plan, shop };
            let line = seen.line(at_ms).created(new.created_ms);
            WorkedOut { new, seen, line, at_ms }
        })
        .await
    }

    /// Caches and publishes a whole job that was stored.
    fn finish_create(&self, made: WorkedOut) -> Snapshot {
        let WorkedOut { new, seen, at_ms, .. } = made;
        self.cache(new.id, &seen, at_ms);
        self.notify(News::Said { job: new.id, revision: seen.job.revision, fact: None });
        seen
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
