//! Loading and caching: a job and its plan, made once for each revision of it and of the shop.

use std::collections::BTreeMap;
use std::sync::atomic::Ordering;
use std::sync::{Arc, OnceLock, PoisonError};

use uuid::Uuid;
use vanadin_core::field::FieldState;
use vanadin_core::heat::SimCache;
use vanadin_core::job::{Fact, Job, Recorded};
use vanadin_core::plan::{Live, Plan, live, plan_at, plan_with};
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::{Shop, ShopFact, settings};

use super::{JobService, News, work};
use crate::api_error::ApiError;
use crate::job::store;
use crate::rack::projection::{self, Projected};
use crate::shop::store as shop_store;

/// The shop with its log.
#[derive(Debug)]
pub struct ShopNow {
    pub shop: Shop,
    /// Of its log.
    pub revision: u64,
    /// What plans read of it, as one number.
    pub planned_by: u64,
    /// What stands in its settings, by key.
    pub values: BTreeMap<String, FieldState>,
    pub facts: Arc<Vec<ShopFact>>,
    /// The same shop in the other units, once somebody asked for it.
    other: OnceLock<Arc<Self>>,
}

/// A job, its log, its plan and its shop at one revision.
#[derive(Clone)]
pub struct Snapshot {
    pub facts: Arc<Vec<Fact>>,
    pub job: Arc<Job>,
    pub plan: Arc<Plan>,
    pub shop: Arc<ShopNow>,
}

impl ShopNow {
    /// The shop as its log makes it.
    #[must_use]
    pub fn of(facts: Vec<ShopFact>) -> Self {
        let values = settings(&facts);
        let shop = Shop::of_log(&values, &facts);
        let (revision, planned_by) = (facts.last().map_or(0, |fact| fact.revision), shop.planned_by());
        Self { shop, revision, planned_by, values, facts: Arc::new(facts), other: OnceLock::new() }
    }

    /// The same shop, told in these units.
    pub fn in_units(self: &Arc<Self>, units: UnitSystem) -> Arc<Self> {
        if self.shop.units == units {
            return self.clone();
        }
        let other = || {
            let shop = self.shop.told_in(units);
            let (revision, planned_by) = (self.revision, shop.planned_by());
            let (values, facts) = (self.values.clone(), self.facts.clone());
            Arc::new(Self { shop, revision, planned_by, values, facts, other: OnceLock::new() })
        };
        self.other.get_or_init(other).clone()
    }

    /// Whether a plan made in this shop stands in another.
    pub(super) fn plans_as(&self, other: &Self, job: Uuid, plan: &Plan) -> bool {
        if self.revision == other.revision {
            return true;
        }
        let kinds = plan.counted_kinds();
        self.planned_by == other.planned_by && self.shop.counts(job, &kinds) == other.shop.counts(job, &kinds)
    }
}

impl Snapshot {
    /// What the pad shows at a minute of the job clock, judged; nothing while nothing was read.
    #[must_use]
    pub fn live(&self, now_min: f64) -> Option<Live> {
        let round = self.job.round();
        let latest = round.latest_reading()?;
        let recorded = round.recorded();
        let before = recorded.partition_point(|reading| reading.minutes < latest.minutes);
        let work = self.plan.at_torch(&self.job);
        Some(live(latest, &recorded[..before], work.as_ref(), now_min))
    }

    /// Its line on the rack.
    #[must_use]
    pub fn line(&self, now_ms: i64) -> Projected {
        let shop = (&self.shop.shop, self.shop.revision, self.shop.planned_by);
        Projected::of((&self.job, &self.plan, &self.facts), shop, now_ms)
    }
}

/// Cache entry of a job.
#[derive(Clone)]
pub(super) struct CachedJob {
    facts: Arc<Vec<Fact>>,
    job: Arc<Job>,
    /// Nothing once something was read of it; and the shop it was worked out for.
    plan: Option<(Arc<Plan>, Arc<ShopNow>)>,
    /// The moment it was worked out for.
    began_ms: i64,
}

/// The plan of a job at a moment.
fn plan_of(job: &Job, shop: &Shop, sims: &SimCache, now_ms: i64) -> Plan {
    match shop_store::moment(shop, job, now_ms) {
        Some(moment) => plan_at(job, shop, sims, moment),
        None => plan_with(job, shop, sims),
    }
}

impl JobService {
    /// The plan of a job at a moment, worked out; each is counted.
    pub(super) fn planned(&self, job: &Job, shop: &Shop, now_ms: i64) -> Plan {
        self.on.plans_made.fetch_add(1, Ordering::Relaxed);
        plan_of(job, shop, &self.on.sims, now_ms)
    }

    /// Plans that were worked out since the start.
    #[must_use]
    pub fn plans_made(&self) -> u64 {
        self.on.plans_made.load(Ordering::Relaxed)
    }

    /// Loads the shop.
    ///
    /// # Errors
    /// The database cannot be read.
    pub async fn shop(&self) -> Result<Arc<ShopNow>, ApiError> {
        if let Some(shop) = &*self.on.shop.read().unwrap_or_else(PoisonError::into_inner) {
            return Ok(shop.clone());
        }
        self.read_the_shop().await
    }

    async fn read_the_shop(&self) -> Result<Arc<ShopNow>, ApiError> {
        let now = Arc::new(ShopNow::of(shop_store::facts(&self.database.pool).await?));
        self.shop_is(now.clone());
        Ok(now)
    }

    /// Sets the cached shop; of two the later revision counts.
    pub(super) fn shop_is(&self, now: Arc<ShopNow>) {
        let mut known = self.on.shop.write().unwrap_or_else(PoisonError::into_inner);
        if known.as_ref().is_none_or(|known| known.revision < now.revision) {
            *known = Some(now);
        }
    }

    /// Loads a job with its plan, from the cache where that is fresh.
    ///
    /// # Errors
    /// [`ApiError::Unknown`] when there is no such job.
    pub async fn load(&self, id: Uuid) -> Result<Snapshot, ApiError> {
        let shop = self.shop().await?;
        if let Some(seen) = self.fresh(id, &shop) {
            return Ok(seen);
        }
        let _lock = self.lock_job(id).await;
        self.load_locked(id, shop).await
    }

    fn fresh(&self, id: Uuid, shop: &Arc<ShopNow>) -> Option<Snapshot> {
        let CachedJob { facts, job, plan, began_ms } = self.on.cached.get(&id)?;
        let (plan, for_shop) = plan?;
        let stands = began_ms == shop_store::began_ms(self.now_ms()) && for_shop.plans_as(shop, id, &plan);
        stands.then(|| Snapshot { facts, job, plan, shop: shop.clone() })
    }

    /// The same for a caller that holds the job's lock.
    pub(super) async fn load_locked(&self, id: Uuid, shop: Arc<ShopNow>) -> Result<Snapshot, ApiError> {
        if let Some(seen) = self.fresh(id, &shop) {
            return Ok(seen);
        }
        let (facts, job) = match self.on.cached.get(&id) {
            Some(kept) => (kept.facts, kept.job),
            None => {
                let (job, facts) = store::load(&self.database.pool, id).await?;
                if !job.damaged.is_empty() {
                    self.mark_stale(id);
                }
                (Arc::new(facts), Arc::new(job))
            }
        };
        let (of, on, jobs) = (job.clone(), shop.clone(), self.clone());
        let now_ms = self.now_ms();
        let plan = Arc::new(work(move || jobs.planned(&of, &on.shop, now_ms)).await?);
        let seen = Snapshot { facts, job, plan, shop };
        self.cache(id, &seen, now_ms);
        Ok(seen)
    }

    /// Puts a snapshot into the cache.
    pub(super) fn cache(&self, id: Uuid, snapshot: &Snapshot, at_ms: i64) {
        let Snapshot { facts, job, plan, shop } = snapshot.clone();
        let began_ms = shop_store::began_ms(at_ms);
        self.on.cached.insert(id, CachedJob { facts, job, plan: Some((plan, shop)), began_ms });
    }

    /// Takes a job out of the cache.
    pub(super) fn evict(&self, id: Uuid) {
        self.on.cached.remove(&id);
        self.on.in_units.remove(&id);
    }

    /// Stores the thermocouple's readings of a lighting: they belong to the job from now on.
    ///
    /// # Errors
    /// They cannot be stored: nothing is taken of them.
    pub async fn add_readings(&self, id: Uuid, lit: Uuid, readings: &[Recorded]) -> Result<(), ApiError> {
        let _lock = self.lock_job(id).await;
        self.database.write(async |on| store::add_readings(on, id, lit, readings).await).await?;
        if let Some(mut kept) = self.on.cached.get(&id) {
            Arc::make_mut(&mut kept.job).read(lit, readings);
            kept.plan = None;
            self.on.cached.insert(id, kept);
        }
        self.mark_stale(id);
        Ok(())
    }

    /// Reloads a job of which readings were brought in or taken out in the past; whoever looks at it
    /// is told.
    pub async fn reload_readings(&self, id: Uuid) {
        let lock = self.lock_job(id).await;
        self.evict(id);
        drop(lock);
        self.mark_stale(id);
        // Nothing was said: whoever watches looks at everything again.
        self.notify(News::Said { job: id, revision: 0, fact: None });
    }

    /// Marks a job's line on the rack as stale: it is projected anew before the rack is looked at.
    fn mark_stale(&self, id: Uuid) {
        self.on.stale.lock().unwrap_or_else(PoisonError::into_inner).insert(id);
    }

    /// Projects the line of a job on the rack anew, and stores it.
    ///
    /// # Errors
    /// It cannot be read or stored.
    pub async fn reproject(&self, id: Uuid) -> Result<(), ApiError> {
        let shop = self.shop().await?;
        let _lock = self.lock_job(id).await;
        let was_kept = self.on.cached.get(&id).is_some();
        let seen = self.load_locked(id, shop).await?;
        let line = seen.line(self.now_ms());
        self.database.write(async |on| projection::put(on, &line).await).await?;
        self.in_order(id);
        // A walk over all jobs leaves in the cache what was there.
        if !was_kept {
            self.evict(id);
        }
        Ok(())
    }

    /// Works out anew the lines that are behind their job. One that cannot be stored now is tried the next
    /// time: the rack is seen all the same.
    pub async fn reproject_stale(&self) {
        let behind = std::mem::take(&mut *self.on.stale.lock().unwrap_or_else(PoisonError::into_inner));
        for id in behind {
            // One that was let go meanwhile is behind nothing.
            if let Err(error) = self.reproject(id).await
                && !matches!(error, ApiError::Unknown(_))
            {
                eprintln!("vanadin: the line of {id} is not brought up to date now: {error}");
                self.mark_stale(id);
            }
        }
    }

    /// Jobs that cannot be read at all, and why.
    pub fn damaged(&self) -> Vec<(Uuid, String)> {
        let damaged = self.on.damaged.lock().unwrap_or_else(PoisonError::into_inner);
        damaged.iter().map(|(id, why)| (*id, why.clone())).collect()
    }

    /// Works out the lines of these jobs; one that cannot be read hides no other.
    ///
    /// # Errors
    /// A line cannot be stored: those after it are as they were.
    pub async fn reproject_all(&self, ids: &[Uuid]) -> Result<(), ApiError> {
        for &id in ids {
            let read = store::load(&self.database.pool, id).await;
            let readable = read.is_ok();
            {
                let mut damaged = self.on.damaged.lock().unwrap_or_else(PoisonError::into_inner);
                match read {
                    Ok(_) => damaged.remove(&id),
                    Err(error) => {
                        eprintln!("vanadin: the job {id} cannot be read: {error}");
                        damaged.insert(id, error.to_string())
                    }
                };
            }
            if readable {
                self.reproject(id).await?;
            }
        }
        Ok(())
    }
}
