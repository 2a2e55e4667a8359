//! The simulated thermocouple that ships with the server: a pad at the coldest far corner of each
//! part that is hot.

use std::collections::{HashMap, HashSet};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

use tokio::select;
use tokio::sync::Mutex;
use tokio::sync::broadcast::error::RecvError;
use uuid::Uuid;
use vanadin_core::job::Recorded;
use vanadin_core::pad::Pad;

use crate::api_error::ApiError;
use crate::desk::{Desk, News};
use crate::job::store;
use crate::rack::projection;

/// Every pad that is on a hot part. They are read until this is dropped or stopped.
pub struct Thermocouples {
    desk: Desk,
    state: Arc<Mutex<State>>,
    stopped: Arc<AtomicBool>,
}

#[derive(Default)]
struct State {
    pads: HashMap<Uuid, Pad>,
    /// Lightings that a logger of the shop reads: nothing is made up beside it.
    left: HashSet<(Uuid, Uuid)>,
    /// What was read and is not on the disk yet, by job and lighting: it is stored with the next.
    unsaved: HashMap<(Uuid, Uuid), Vec<Recorded>>,
}

impl Drop for Thermocouples {
    fn drop(&mut self) {
        self.stop();
    }
}

/// How often a pad is read.
const TICK: Duration = Duration::from_millis(500);

impl Thermocouples {
    /// Goes on with every part that is hot, from its last stored reading, and puts a pad on each that is
    /// lit from now on. A job that cannot be read hides no other.
    pub async fn start(desk: Desk) -> anyhow::Result<Self> {
        let mut news = desk.listen();
        let all = Self { desk, state: Arc::default(), stopped: Arc::default() };
        for id in projection::heated(&all.desk.database.pool).await? {
            attend(&all.desk, &all.state, id).await;
        }
        let (desk, state, stopped) = (all.desk.clone(), all.state.clone(), all.stopped.clone());
        tokio::spawn(async move {
            let mut ticks = tokio::time::interval(TICK);
            let mut failing = false;
            while !stopped.load(Ordering::Relaxed) {
                select! {
                    told = news.recv() => match told {
                        Ok(News::Said { job, .. }) => attend(&desk, &state, job).await,
                        Ok(News::Gone { job }) => take_off(&state, job).await,
                        Ok(News::Shop { .. } | News::Clock | News::Reading { .. }) => {}
                        Err(RecvError::Lagged(_)) => attend_all(&desk, &state).await,
                        Err(RecvError::Closed) => break,
                    },
                    _ = ticks.tick() => {
                        read_all(&desk, &state).await;
                        let stored = store_all(&desk, &state).await;
                        if let Err(error) = &stored
                            && !failing
                        {
                            eprintln!("vanadin: readings cannot be stored and are kept: {error}");
                        }
                        failing = stored.is_err();
                    }
                }
            }
        });
        Ok(all)
    }

    /// No pads at all: what is read is read by the shop's own instruments.
    #[must_use]
    pub fn none(desk: Desk) -> Self {
        Self { desk, state: Arc::default(), stopped: Arc::new(AtomicBool::new(true)) }
    }

    /// Takes the pad off a lighting that is read by a logger, for good.
    pub async fn leave(&self, job: Uuid, lit: Uuid) {
        let State { pads, left, .. } = &mut *self.state.lock().await;
        left.insert((job, lit));
        if pads.get(&job).is_some_and(|pad| pad.lit() == lit) {
            pads.remove(&job);
        }
    }

    pub fn stop(&self) {
        self.stopped.store(true, Ordering::Relaxed);
    }

    /// Stores what was read and is not on the disk yet.
    ///
    /// # Errors
    /// It cannot be stored; it is kept.
    pub async fn store(&self) -> Result<(), ApiError> {
        store_all(&self.desk, &self.state).await
    }
}

/// Puts a pad on a part that was lit, tells it what happened, takes it off when the part is out of the
/// heat and cold.
async fn attend(desk: &Desk, state: &Mutex<State>, id: Uuid) {
    let seen = match desk.see(id).await {
        Ok(seen) => seen,
        Err(error) => return eprintln!("vanadin: the job {id} cannot be read: {error}"),
    };
    let fresh = Pad::on(&seen.job, &seen.plan, &seen.shop.shop);
    let mut state = state.lock().await;
    let before = state.pads.remove(&id);
    let now = match (fresh, before) {
        (Some(fresh), Some(before)) => Some(fresh.going_on_from(before)),
        (fresh, _) => fresh,
    };
    let now = now.filter(|pad| !state.left.contains(&(id, pad.lit())));
    state.pads.extend(Some(id).zip(now));
}

/// The job is gone, and what was read of it with it.
async fn take_off(state: &Mutex<State>, job: Uuid) {
    let State { pads, unsaved, .. } = &mut *state.lock().await;
    pads.remove(&job);
    unsaved.retain(|(of, _), _| *of != job);
}

/// Some news were missed: every part that may be hot is looked at again.
async fn attend_all(desk: &Desk, state: &Mutex<State>) {
    match projection::heated(&desk.database.pool).await {
        Ok(heated) => {
            for id in heated {
                attend(desk, state, id).await;
            }
        }
        Err(error) => eprintln!("vanadin: what is hot cannot be read: {error}"),
    }
}

/// Reads every pad and tells those who watch.
async fn read_all(desk: &Desk, state: &Mutex<State>) {
    let now_ms = desk.now_ms();
    let State { pads, unsaved, .. } = &mut *state.lock().await;
    for (&id, pad) in pads.iter_mut() {
        let due = pad.advance_to(pad.minutes_at(now_ms));
        if !due.is_empty() {
            unsaved.entry((id, pad.lit())).or_default().extend(due.into_iter().map(Recorded::from));
        }
        desk.tell(News::Reading { job: id, live: Box::new(pad.shows()) });
    }
    pads.retain(|_, pad| !pad.finished());
}

/// Stores what was read; what cannot be stored is kept for the next time.
async fn store_all(desk: &Desk, state: &Mutex<State>) -> Result<(), ApiError> {
    let unsaved = std::mem::take(&mut state.lock().await.unsaved);
    if unsaved.is_empty() {
        return Ok(());
    }
    let stored = desk
        .database
        .write(async |on| {
            for ((job, lit), readings) in &unsaved {
                store::add_readings(on, *job, *lit, readings).await?;
            }
            Ok(())
        })
        .await;
    if stored.is_ok() {
        for ((job, lit), readings) in &unsaved {
            desk.read(*job, *lit, readings).await;
            let warms = state.lock().await.pads.get(job).is_some_and(Pad::warms);
            if warms {
                attend(desk, state, *job).await;
            }
        }
    } else {
        let mut state = state.lock().await;
        for (of, mut readings) in unsaved {
            let since = state.unsaved.remove(&of).unwrap_or_default();
            readings.extend(since);
            state.unsaved.insert(of, readings);
        }
    }
    stored
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::clock::Clock;
    use crate::database::open;
    use crate::sample::fill_if_empty;

    #[tokio::test]
    async fn readings_that_cannot_be_stored_are_kept_and_stored_later() {
        let folder = tempfile::tempdir().unwrap();
        let desk =
            Desk::new(open(folder.path(), None).await.unwrap(), Clock::starting(Some(1_800_000_000_000)));
        fill_if_empty(&desk).await.unwrap();
        let pool = &desk.database.pool;
        let (job, lit): (String, String) =
            sqlx::query_as("select job_id, lit_id from reading limit 1").fetch_one(pool).await.unwrap();
        let of: (Uuid, Uuid) = (job.parse().unwrap(), lit.parse().unwrap());
        let read = |minutes| Recorded { minutes, celsius: 80.0, channel: 1 };
        let state = Mutex::new(State::default());
        state.lock().await.unsaved.insert(of, vec![read(90_000.0)]);
        sqlx::query("create trigger refuse before insert on reading begin select raise(abort, 'no'); end")
            .execute(pool)
            .await
            .unwrap();
        assert!(store_all(&desk, &state).await.is_err());
        state.lock().await.unsaved.entry(of).or_default().push(read(90_001.0));
        assert!(store_all(&desk, &state).await.is_err());
        sqlx::query("drop trigger refuse").execute(pool).await.unwrap();
        assert!(store_all(&desk, &state).await.is_ok());
        let stored: Vec<f64> =
            sqlx::query_scalar("select minutes from reading where minutes >= 90000 order by minutes")
                .fetch_all(pool)
                .await
                .unwrap();
        assert_eq!(stored, [90_000.0, 90_001.0]);
        assert!(state.lock().await.unsaved.is_empty());
        desk.database.close().await;
    }
}
