//! The job service: loads, plans, caches, changes and projects jobs; the one way in and out of them.

mod apply;
mod apply_to_shop;
mod delete;
mod in_units;
mod load;
mod news;
mod practice_pads;
mod work;

use std::collections::{BTreeMap, HashMap, HashSet};
use std::sync::atomic::AtomicU64;
use std::sync::{Arc, Mutex, PoisonError, RwLock};

use quick_cache::sync::Cache;
use tokio::sync::{MutexGuard, broadcast};
use uuid::Uuid;
use vanadin_core::heat::SimCache;

use crate::clock::Clock;
use crate::database::Database;
pub use apply::{NewFact, NewJob};
pub use apply_to_shop::NewShopFact;
use in_units::PlanInUnits;
use load::CachedJob;
pub use load::{ShopNow, Snapshot};
pub use news::News;
use practice_pads::PadOn;
pub use work::{long_work, work};

/// Capacity of the cache of planned jobs, those seen last.
const CACHED: usize = 64;
/// Stripes of the job locks: so many jobs can be written to at the same time.
const JOB_LOCKS: usize = 64;

/// Topics of a notice about how the data are kept.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Matter {
    File,
    Copies,
}

/// Handle on the database, the clock, the news and the cache of planned jobs; cheap to clone.
#[derive(Clone)]
pub struct JobService {
    pub database: Database,
    pub clock: Clock,
    news: broadcast::Sender<News>,
    on: Arc<Shared>,
}

struct Shared {
    cached: Cache<Uuid, CachedJob>,
    /// Cache of the same plans in the units that are not the shop's.
    in_units: Cache<Uuid, PlanInUnits>,
    /// Memo of simulations, for the plans to come.
    sims: Arc<SimCache>,
    shop: RwLock<Option<Arc<ShopNow>>>,
    /// Lock of the shop: whoever changes it waits for it.
    shop_lock: tokio::sync::Mutex<()>,
    /// Striped locks of the jobs: whoever changes one, or plans it, waits for its own.
    job_locks: [tokio::sync::Mutex<()>; JOB_LOCKS],
    /// Jobs whose line on the rack is older than what is known of them.
    stale: Mutex<HashSet<Uuid>>,
    /// Counter of the plans made since the start.
    plans_made: AtomicU64,
    /// What has to be known on every page of how the data are kept, by its matter.
    notices: Mutex<BTreeMap<Matter, String>>,
    /// Jobs that cannot be read at all, and why.
    damaged: Mutex<HashMap<Uuid, String>>,
    /// Pads on the made-up parts of practices.
    pads: Mutex<HashMap<Uuid, PadOn>>,
}

impl JobService {
    pub fn new(database: Database, clock: Clock) -> Self {
        let (news, _) = broadcast::channel(256);
        let on = Shared {
            cached: Cache::new(CACHED),
            in_units: Cache::new(CACHED),
            sims: Arc::default(),
            shop: RwLock::default(),
            shop_lock: tokio::sync::Mutex::default(),
            job_locks: std::array::from_fn(|_| tokio::sync::Mutex::default()),
            stale: Mutex::default(),
            plans_made: AtomicU64::default(),
            notices: Mutex::default(),
            damaged: Mutex::default(),
            pads: Mutex::default(),
        };
        Self { database, clock, news, on: Arc::new(on) }
    }

    pub fn notify(&self, news: News) {
        // Nobody listening is no failure.
        let _ = self.news.send(news);
    }

    pub fn subscribe(&self) -> broadcast::Receiver<News> {
        self.news.subscribe()
    }

    /// UTC in ms since 1970.
    pub fn now_ms(&self) -> i64 {
        self.clock.now_ms()
    }

    /// Says on every page what has to be known of a matter; nothing where all is well again.
    pub fn set_notice(&self, matter: Matter, words: Option<String>) {
        let mut notices = self.on.notices.lock().unwrap_or_else(PoisonError::into_inner);
        let before = notices.get(&matter).cloned();
        if before == words {
            return;
        }
        match words {
            Some(words) => drop(notices.insert(matter, words)),
            None => drop(notices.remove(&matter)),
        }
        drop(notices);
        self.notify(News::Clock);
    }

    /// What has to be known on every page: of the computer's clock, and of how the data are kept.
    #[must_use]
    pub fn notice(&self) -> String {
        let notices = self.on.notices.lock().unwrap_or_else(PoisonError::into_inner);
        let all: Vec<String> = self.clock.notice().into_iter().chain(notices.values().cloned()).collect();
        all.join(" ")
    }

    pub fn sims(&self) -> Arc<SimCache> {
        self.on.sims.clone()
    }

    /// Clears a job's stale and damaged marks: its line is as the job is, or both are gone.
    fn in_order(&self, job: Uuid) {
        self.on.stale.lock().unwrap_or_else(PoisonError::into_inner).remove(&job);
        self.on.damaged.lock().unwrap_or_else(PoisonError::into_inner).remove(&job);
    }

    async fn lock_job(&self, job: Uuid) -> MutexGuard<'_, ()> {
        let at = usize::from(job.as_bytes()[15]) % JOB_LOCKS;
        self.on.job_locks[at].lock().await
    }
}
