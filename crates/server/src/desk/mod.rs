//! The one way in and the one way out of a job: what is said of it, and what is seen of it.

mod let_go;
mod news;
mod practised;
mod say;
mod say_shop;
mod see;
mod told;
mod work;

use std::collections::{BTreeMap, HashMap, HashSet};
use std::sync::atomic::AtomicU64;
use std::sync::{Arc, Mutex, PoisonError, RwLock};

use quick_cache::sync::Cache;
use tokio::sync::{MutexGuard, broadcast};
use uuid::Uuid;
use vanadin_core::heat::Runs;

use crate::clock::Clock;
use crate::database::Database;
pub use news::News;
use practised::PadOn;
pub use say::{NewFact, NewJob};
pub use say_shop::NewShopFact;
use see::Kept;
pub use see::{Seen, ShopNow};
use told::Told;
pub use work::{long_work, work};

/// Jobs that are kept worked out, those seen last.
const KEPT: usize = 64;
/// So many jobs can be written to at the same time.
const TURNS: usize = 64;

/// What of keeping the data may have to be told.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Matter {
    File,
    Copies,
}

/// The store, the clock, the news, and what was worked out last; cheap to clone.
#[derive(Clone)]
pub struct Desk {
    pub database: Database,
    pub clock: Clock,
    news: broadcast::Sender<News>,
    on: Arc<OnTheDesk>,
}

struct OnTheDesk {
    kept: Cache<Uuid, Kept>,
    /// The same in the units that are not the shop's.
    told: Cache<Uuid, Told>,
    /// Runs of the models, for the plans to come.
    runs: Arc<Runs>,
    shop: RwLock<Option<Arc<ShopNow>>>,
    /// Whoever changes the shop waits for their turn.
    shop_turn: tokio::sync::Mutex<()>,
    /// Whoever changes a job, or works it out, waits for their turn.
    turns: [tokio::sync::Mutex<()>; TURNS],
    /// Jobs of which something is known since their line on the rack was worked out.
    behind: Mutex<HashSet<Uuid>>,
    /// Plans that were worked out since the start.
    plans_made: AtomicU64,
    /// What has to be known on every page of how the data are kept, by its matter.
    notices: Mutex<BTreeMap<Matter, String>>,
    /// Jobs that cannot be read at all, and why.
    damaged: Mutex<HashMap<Uuid, String>>,
    /// Pads on the made-up parts of practices.
    pads: Mutex<HashMap<Uuid, PadOn>>,
}

impl Desk {
    pub fn new(database: Database, clock: Clock) -> Self {
        let (news, _) = broadcast::channel(256);
        let on = OnTheDesk {
            kept: Cache::new(KEPT),
            told: Cache::new(KEPT),
            runs: Arc::default(),
            shop: RwLock::default(),
            shop_turn: tokio::sync::Mutex::default(),
            turns: std::array::from_fn(|_| tokio::sync::Mutex::default()),
            behind: Mutex::default(),
            plans_made: AtomicU64::default(),
            notices: Mutex::default(),
            damaged: Mutex::default(),
            pads: Mutex::default(),
        };
        Self { database, clock, news, on: Arc::new(on) }
    }

    pub fn tell(&self, news: News) {
        // Nobody listening is no failure.
        let _ = self.news.send(news);
    }

    pub fn listen(&self) -> broadcast::Receiver<News> {
        self.news.subscribe()
    }

    /// UTC in ms since 1970.
    pub fn now_ms(&self) -> i64 {
        self.clock.now_ms()
    }

    /// Says on every page what has to be known of a matter; nothing where all is well again.
    pub fn note(&self, matter: Matter, words: Option<String>) {
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
        self.tell(News::Clock);
    }

    /// What has to be known on every page: of the computer's clock, and of how the data are kept.
    #[must_use]
    pub fn notice(&self) -> String {
        let notices = self.on.notices.lock().unwrap_or_else(PoisonError::into_inner);
        let all: Vec<String> = self.clock.notice().into_iter().chain(notices.values().cloned()).collect();
        all.join(" ")
    }

    pub fn runs(&self) -> Arc<Runs> {
        self.on.runs.clone()
    }

    /// The line of a job is as the job is, or both are gone.
    fn in_order(&self, job: Uuid) {
        self.on.behind.lock().unwrap_or_else(PoisonError::into_inner).remove(&job);
        self.on.damaged.lock().unwrap_or_else(PoisonError::into_inner).remove(&job);
    }

    async fn turn(&self, job: Uuid) -> MutexGuard<'_, ()> {
        let at = usize::from(job.as_bytes()[15]) % TURNS;
        self.on.turns[at].lock().await
    }
}
