//! What every handler works with: the store, the clock, the news.

use tokio::sync::broadcast;
use uuid::Uuid;
use vanadin_core::plan::Live;

use crate::clock::Clock;
use crate::database::Database;

/// Something a page that shows a job wants to know at once.
#[derive(Debug, Clone)]
pub enum News {
    /// The job's log grew.
    Changed { job: Uuid, revision: u64 },
    /// The shop's settings changed.
    Shop { revision: u64 },
    /// There is something to say of the computer's clock, or no longer.
    Clock,
    /// The thermocouple shows this now.
    Reading { job: Uuid, live: Box<Live> },
}

/// The store, the clock and the news, cheap to clone.
#[derive(Clone)]
pub struct Bench {
    pub database: Database,
    pub clock: Clock,
    news: broadcast::Sender<News>,
}

impl Bench {
    pub fn new(database: Database, clock: Clock) -> Self {
        let (news, _) = broadcast::channel(256);
        Self { database, clock, news }
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
}
