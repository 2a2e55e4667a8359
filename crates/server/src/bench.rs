//! What every handler works with: the store, the news, one writer at a time.

use std::sync::Arc;

use jiff::Timestamp;
use tokio::sync::{Mutex, MutexGuard, broadcast};
use uuid::Uuid;
use vanadin_core::plan::Live;

use crate::database::Database;

/// Something a page that shows a job wants to know at once.
#[derive(Debug, Clone)]
pub enum News {
    /// The job's log grew.
    Changed { job: Uuid, revision: u64 },
    /// The thermocouple shows this now.
    Reading { job: Uuid, live: Box<Live> },
}

/// The store and the news, cheap to clone.
#[derive(Clone)]
pub struct Bench {
    pub database: Database,
    news: broadcast::Sender<News>,
    writer: Arc<Mutex<()>>,
}

impl Bench {
    pub fn new(database: Database) -> Self {
        let (news, _) = broadcast::channel(256);
        Self { database, news, writer: Arc::default() }
    }

    /// Held while a change is judged and stored, so that no other comes between.
    pub async fn writing(&self) -> MutexGuard<'_, ()> {
        self.writer.lock().await
    }

    pub fn tell(&self, news: News) {
        // Nobody listening is no failure.
        let _ = self.news.send(news);
    }

    pub fn listen(&self) -> broadcast::Receiver<News> {
        self.news.subscribe()
    }

    /// UTC in ms since 1970.
    pub fn now_ms() -> i64 {
        Timestamp::now().as_millisecond()
    }
}
