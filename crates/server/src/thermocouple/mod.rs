//! The simulated thermocouples of a demo: a stand-in's program is started for each part that is hot, and ended when
//! that part is cold, or when a logger of the shop reads it.

use std::collections::{HashMap, HashSet};
use std::net::{Ipv4Addr, SocketAddr};
use std::process::Stdio;
use std::sync::{Arc, PoisonError};
use std::time::Duration;

use rocket::Request;
use tokio::process::{Child, Command};
use tokio::select;
use tokio::sync::Mutex;
use tokio::sync::broadcast::error::RecvError;
use tokio::task::AbortHandle;
use uuid::Uuid;
use vanadin_core::simulated_thermocouple::Pad;

use crate::api_error::ApiError;
use crate::door::known::{bearer, random, same};
use crate::job_service::{JobService, News};
use crate::rack::projection;
use crate::stand_in::KEY;

/// Which parts a stand-in reads, and how it shows that it is one. Without stand-ins it starts nothing and knows no key.
pub struct Thermocouples {
    key: Option<String>,
    state: Arc<Mutex<State>>,
    begun: std::sync::Mutex<Option<AbortHandle>>,
}

#[derive(Default)]
struct State {
    /// The programs that run, by job. They end with this.
    running: HashMap<Uuid, Child>,
    /// Lightings that a logger of the shop reads: nothing is made up beside it.
    left: HashSet<(Uuid, Uuid)>,
}

/// How often a program that ended is seen, and a part that has become cold.
const LOOK_EVERY: Duration = Duration::from_secs(10);
/// How often a pad is looked at.
const READ_EVERY_MS: u32 = 500;

impl Thermocouples {
    /// # Errors
    /// There is no chance on this machine.
    pub fn new(stand_ins: bool) -> Result<Self, ApiError> {
        let key = stand_ins.then(random).transpose()?;
        Ok(Self { key, state: Arc::default(), begun: std::sync::Mutex::default() })
    }

    /// Starts a program for every part that is hot, and for each that is lit from now on. The pages are on this port
    /// of this machine.
    pub fn begin(&self, jobs: JobService, port: u16) {
        let Some(key) = self.key.clone() else { return };
        let starter = Starter { jobs, key, at: SocketAddr::from((Ipv4Addr::LOCALHOST, port)) };
        let going = tokio::spawn(starter.go_on(self.state.clone()));
        let before = self.begun.lock().unwrap_or_else(PoisonError::into_inner).replace(going.abort_handle());
        if let Some(before) = before {
            before.abort();
        }
    }

    /// One of its programs sends this.
    #[must_use]
    pub fn sends(&self, request: &Request<'_>) -> bool {
        bearer(request).is_some_and(|shown| self.is_theirs(shown))
    }

    #[must_use]
    pub fn is_theirs(&self, shown: &str) -> bool {
        self.key.as_deref().is_some_and(|key| same(key, shown))
    }

    /// A logger reads this lighting: nothing is made up beside it any more.
    pub async fn leave(&self, job: Uuid, lit: Uuid) {
        let State { running, left } = &mut *self.state.lock().await;
        left.insert((job, lit));
        running.remove(&job);
    }

    /// Whether a logger of the shop reads this lighting.
    pub async fn has_left(&self, job: Uuid, lit: Uuid) -> bool {
        self.state.lock().await.left.contains(&(job, lit))
    }

    /// Ends every program.
    pub async fn stop(&self) {
        let begun = self.begun.lock().unwrap_or_else(PoisonError::into_inner).take();
        if let Some(begun) = begun {
            begun.abort();
        }
        self.state.lock().await.running.clear();
    }
}

struct Starter {
    jobs: JobService,
    key: String,
    at: SocketAddr,
}

impl Starter {
    async fn go_on(self, state: Arc<Mutex<State>>) {
        let mut news = self.jobs.subscribe();
        let mut looks = tokio::time::interval(LOOK_EVERY);
        loop {
            select! {
                told = news.recv() => match told {
                    Ok(News::Said { job, .. }) => self.attend(&state, job).await,
                    Ok(News::Gone { job }) => drop(state.lock().await.running.remove(&job)),
                    Ok(News::Shop { .. } | News::Clock | News::Reading { .. }) => {}
                    Err(RecvError::Lagged(_)) => self.attend_all(&state).await,
                    Err(RecvError::Closed) => break,
                },
                _ = looks.tick() => self.attend_all(&state).await,
            }
        }
    }

    /// Every part that may be hot, and every one on which a program runs. A job that cannot be read hides no other.
    async fn attend_all(&self, state: &Mutex<State>) {
        let heated = match projection::heated(&self.jobs.database.pool).await {
            Ok(heated) => heated,
            Err(error) => return eprintln!("vanadin: what is hot cannot be read: {error}"),
        };
        let running: Vec<Uuid> = {
            let running = &mut state.lock().await.running;
            // One that ended by itself is started again.
            running.retain(|_, child| matches!(child.try_wait(), Ok(None)));
            running.keys().copied().collect()
        };
        let all: HashSet<Uuid> = heated.into_iter().chain(running).collect();
        for job in all {
            self.attend(state, job).await;
        }
    }

    /// Starts a program on a part that was lit, ends it when the part is out of the heat and cold.
    async fn attend(&self, state: &Mutex<State>, job: Uuid) {
        let seen = match self.jobs.load(job).await {
            Ok(seen) => seen,
            Err(error) => return eprintln!("vanadin: the job {job} cannot be read: {error}"),
        };
        // A made-up part has a pad of its own.
        let real = seen.job.practice.is_none();
        let pad = real.then(|| Pad::on(&seen.job, &seen.plan, &seen.shop.shop)).flatten();
        let lit = pad.map(|pad| pad.lit());
        let State { running, left } = &mut *state.lock().await;
        match lit.filter(|lit| !left.contains(&(job, *lit))) {
            None => drop(running.remove(&job)),
            Some(_) if running.contains_key(&job) => {}
            Some(_) => match self.program(job) {
                Ok(child) => drop(running.insert(job, child)),
                Err(error) => eprintln!("vanadin: no stand-in can be started: {error}"),
            },
        }
    }

    /// The same program that anybody can start. It ends when this server is gone, however it goes.
    fn program(&self, job: Uuid) -> std::io::Result<Child> {
        Command::new(std::env::current_exe()?)
            .args(["stand-in", "thermocouple", "--while-open"])
            .arg("--at")
            .arg(format!("http://{}", self.at))
            .arg("--job")
            .arg(job.to_string())
            .arg("--every-ms")
            .arg(READ_EVERY_MS.to_string())
            // Not among its words: those are shown to everybody on this machine.
            .env(KEY, &self.key)
            .stdin(Stdio::piped())
            .stdout(Stdio::null())
            .kill_on_drop(true)
            .spawn()
    }
}
