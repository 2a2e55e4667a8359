//! Simulated thermocouples of practices: the pad on a made-up part shows what that part really does, with nobody's help.

use std::collections::HashSet;
use std::sync::PoisonError;
use std::time::Duration;

use tokio::sync::broadcast::error::RecvError;
use uuid::Uuid;
use vanadin_core::job::Recorded;
use vanadin_core::plan::{FlamePlacement, WarmFace, face_part, plan_with};
use vanadin_core::secret::bench;
use vanadin_core::simulated_thermocouple::Pad;

use super::{JobService, News, Snapshot, work};
use crate::api_error::ApiError;
use crate::job::faces::Faces;
use crate::rack::projection;

/// A pad, and the revision of the job it was laid on.
pub(super) struct PadOn {
    revision: u64,
    pad: Pad,
}

/// How often a pad is looked at while its part is hot.
const READ_EVERY: Duration = Duration::from_millis(500);

impl JobService {
    /// What the pad of a practice read until now is kept. Gives what it shows, in degC; nothing for a real job, and for a
    /// part that is not hot.
    ///
    /// # Errors
    /// It cannot be read or stored.
    pub async fn bring_up_to_now(&self, id: Uuid) -> Result<Option<f64>, ApiError> {
        let seen = match self.load(id).await {
            Ok(seen) => seen,
            // Whoever asks finds out by themselves.
            Err(ApiError::Unknown(_)) => return Ok(None),
            Err(error) => return Err(error),
        };
        if seen.job.practice.as_ref().is_none_or(|it| it.ended) {
            self.pads().remove(&id);
            return Ok(None);
        }
        let Some((lit, read, now_min, shows_c)) = self.read_of_the_pad(id, &seen).await? else {
            return Ok(None);
        };
        if !read.is_empty() {
            self.add_readings(id, lit, &read).await?;
            if let Some(live) = self.load(id).await?.live(now_min) {
                self.notify(News::Reading { job: id, now_min, live: Box::new(live) });
            }
        }
        Ok(Some(shows_c))
    }

    fn pads(&self) -> std::sync::MutexGuard<'_, std::collections::HashMap<Uuid, PadOn>> {
        self.on.pads.lock().unwrap_or_else(PoisonError::into_inner)
    }

    async fn read_of_the_pad(
        &self,
        id: Uuid,
        snapshot: &Snapshot,
    ) -> Result<Option<(Uuid, Vec<Recorded>, f64, f64)>, ApiError> {
        let (revision, now_ms) = (snapshot.job.revision, self.now_ms());
        let before = self.pads().remove(&id);
        let (snapshot, sims) = (snapshot.clone(), self.sims());
        let on = work(move || {
            let mut fresh = None;
            let mut pad = match before {
                Some(on) if on.revision == revision => on.pad,
                before => {
                    let truly = snapshot.job.as_it_is();
                    let shop = bench(truly.practice.as_ref()?, &snapshot.shop.shop);
                    let plan = plan_with(&truly, &shop, &sims);
                    let laid = Pad::on(&truly, &plan, &shop)?;
                    let face = face_part(&truly, &plan, &shop).ok();
                    let face = face.and_then(|part| Some((Faces::kept().model(&part).ok()?, part)));
                    let laid = match face {
                        Some((model, part)) => {
                            let put = FlamePlacement::default().or_as_said(&truly, part.face);
                            laid.on_the_face(|start_c| WarmFace::new(&part, model, &put, start_c))
                        }
                        None => laid,
                    };
                    match before {
                        Some(before) => laid.going_on_from(before.pad),
                        None => {
                            fresh = laid.first();
                            laid
                        }
                    }
                }
            };
            let now_min = pad.minutes_at(now_ms);
            let read: Vec<Recorded> =
                fresh.into_iter().chain(pad.advance_to(now_min)).map(Recorded::from).collect();
            Some((pad, read, now_min))
        })
        .await?;
        Ok(on.map(|(pad, read, now_min)| {
            let shown = (pad.lit(), read, now_min, pad.true_c());
            self.pads().insert(id, PadOn { revision, pad });
            shown
        }))
    }

    /// Reads the pads of all practices that are lit, until the data are closed.
    pub async fn tend_practices(self) {
        let mut news = self.subscribe();
        let mut looks = tokio::time::interval(READ_EVERY);
        let mut hot: HashSet<Uuid> = match projection::practices_heated(&self.database.pool).await {
            Ok(heated) => heated.into_iter().collect(),
            Err(error) => {
                eprintln!("vanadin: which practices are lit cannot be read: {error}");
                HashSet::new()
            }
        };
        while !self.database.pool.is_closed() {
            tokio::select! {
                told = news.recv() => match told {
                    Ok(News::Said { job, .. }) => drop(hot.insert(job)),
                    Ok(News::Gone { job }) => drop(hot.remove(&job)),
                    Ok(_) | Err(RecvError::Lagged(_)) => {}
                    Err(RecvError::Closed) => break,
                },
                _ = looks.tick() => {
                    for job in hot.clone() {
                        match self.bring_up_to_now(job).await {
                            Ok(Some(_)) => {}
                            // It is no practice, or not hot.
                            Ok(None) => drop(hot.remove(&job)),
                            Err(error) => {
                                eprintln!("vanadin: the pad of a practice is not read: {error}");
                                hot.remove(&job);
                            }
                        }
                    }
                }
            }
        }
    }
}
