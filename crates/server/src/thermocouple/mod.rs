//! The simulated thermocouple that ships with the server: a pad at the coldest far corner of each
//! part that is hot.

mod pad;

use std::collections::HashMap;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

use tokio::sync::Mutex;
use uuid::Uuid;
use vanadin_core::job::Job;
use vanadin_core::plan::{Plan, plan};
use vanadin_core::shop::Shop;

use crate::api_error::ApiError;
use crate::bench::{Bench, News};
use crate::job::store;
use crate::shop::the_shop;
pub use pad::Pad;

/// Every pad that is on a hot part. They are read until this is dropped or stopped.
pub struct Thermocouples {
    pads: Pads,
    stopped: Arc<AtomicBool>,
}

type Pads = Arc<Mutex<HashMap<Uuid, Pad>>>;

impl Drop for Thermocouples {
    fn drop(&mut self) {
        self.stop();
    }
}

/// How often a pad is read.
const TICK: Duration = Duration::from_millis(500);

impl Thermocouples {
    /// Goes on with every part that is hot, from its last stored reading.
    pub async fn start(bench: Bench) -> anyhow::Result<Self> {
        let pool = &bench.database.pool;
        let loaded = async {
            let shop = the_shop(pool).await?;
            let mut pads = HashMap::new();
            for id in store::all(pool).await? {
                let (job, _) = store::load(pool, id).await?;
                if let Some(pad) = Pad::on(&job, &plan(&job, &shop), &shop) {
                    pads.insert(id, pad);
                }
            }
            Ok::<_, ApiError>(pads)
        };
        let pads = loaded.await?;
        let all = Self { pads: Arc::new(Mutex::new(pads)), stopped: Arc::default() };
        let (pads, stopped) = (all.pads.clone(), all.stopped.clone());
        tokio::spawn(async move {
            let mut ticks = tokio::time::interval(TICK);
            while !stopped.load(Ordering::Relaxed) {
                ticks.tick().await;
                read_all(&bench, &pads).await;
            }
        });
        Ok(all)
    }

    pub fn stop(&self) {
        self.stopped.store(true, Ordering::Relaxed);
    }

    /// Puts a pad on a part that was lit, tells it what happened, takes it off when the part is
    /// out of the heat.
    pub fn attend(&self, job: &Job, plan: &Plan, shop: &Shop) {
        let (pads, id) = (self.pads.clone(), job.id);
        let fresh = Pad::on(job, plan, shop);
        tokio::spawn(async move {
            let mut pads = pads.lock().await;
            match (fresh, pads.remove(&id)) {
                (Some(fresh), Some(before)) => {
                    pads.insert(id, fresh.going_on_from(before));
                }
                (Some(fresh), None) => {
                    pads.insert(id, fresh);
                }
                (None, _) => {}
            }
        });
    }
}

/// Reads every pad, stores what is due, tells those who watch.
async fn read_all(bench: &Bench, pads: &Pads) {
    let now_ms = Bench::now_ms();
    let mut pads = pads.lock().await;
    let mut finished = Vec::new();
    for (&id, pad) in pads.iter_mut() {
        let due = pad.advance_to(pad.minutes_at(now_ms));
        if !due.is_empty()
            && let Err(error) = store::add_readings(&bench.database.pool, id, pad.lit(), &due).await
        {
            eprintln!("vanadin: readings of {id} could not be stored: {error}");
        }
        bench.tell(News::Reading { job: id, live: Box::new(pad.shows()) });
        if pad.finished() {
            finished.push(id);
        }
    }
    for id in finished {
        pads.remove(&id);
    }
}
