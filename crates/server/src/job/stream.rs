//! `/api/jobs/<id>/stream`: what the thermocouple shows and when the log grew, as it happens.

use std::sync::Arc;
use std::time::Duration;

use rocket::response::stream::{Event, EventStream};
use rocket::{Shutdown, State, get};
use serde::Serialize;
use tokio::select;
use tokio::sync::broadcast::error::RecvError;
use uuid::Uuid;
use vanadin_core::plan::{Next, Plan, StatusTimeline, status};

use super::route::known;
use super::store;
use crate::api_error::ApiError;
use crate::door::known::{Door, Right};
use crate::job_service::{JobService, News, Snapshot};
use crate::shop::device_units::DeviceUnits;
use crate::shop::store::{STANDS_MS, began_ms};
use crate::wire::job::readings;

/// What was said: a page that said it itself knows already.
#[derive(Serialize, utoipa::ToSchema)]
pub struct Said {
    pub revision: u64,
    pub fact: Option<Uuid>,
}

/// What a page that has just begun to listen compares with what it was shown.
#[derive(Serialize, utoipa::ToSchema)]
pub struct Hello {
    pub revision: u64,
    /// Of the shop's settings together.
    pub shop: u64,
    pub readings: usize,
}

impl Hello {
    fn of(snapshot: &Snapshot) -> Self {
        Self {
            revision: snapshot.job.revision,
            shop: snapshot.shop.revision,
            readings: readings(&snapshot.job),
        }
    }
}

/// What of how a job stands a page draws more by than by what is read: where that changes it looks at everything.
fn how_it_stands(snapshot: &Snapshot, now_ms: i64) -> (Next, bool, Option<String>) {
    let standing = status(&snapshot.job, &snapshot.plan, now_ms);
    // Of when it is to be done the reading itself tells.
    (Next { at_ms: None, ..standing.next }, standing.hot.is_some(), standing.stopped)
}

/// How a job stands over time, by its plan.
struct Timeline {
    plan: Arc<Plan>,
    of: StatusTimeline,
}

impl Timeline {
    fn of(snapshot: &Snapshot) -> Self {
        Self { plan: snapshot.plan.clone(), of: StatusTimeline::of(&snapshot.job, &snapshot.plan) }
    }

    /// The same where it is by the same plan: what is said of other jobs changes nothing.
    fn or_anew(self, snapshot: &Snapshot) -> Self {
        if Arc::ptr_eq(&self.plan, &snapshot.plan) { self } else { Self::of(snapshot) }
    }
}

/// Until a job stands otherwise by itself, or its plan is one of another quarter of an hour.
fn until_it_turns(timeline: &StatusTimeline, now_ms: i64) -> Duration {
    let plan_ms = began_ms(now_ms) + STANDS_MS;
    let turns_ms = timeline.turns_after(now_ms);
    let next_ms = turns_ms.map_or(plan_ms, |turns_ms| turns_ms.min(plan_ms));
    Duration::from_millis((next_ms - now_ms).max(0).unsigned_abs()) + AFTER_IT
}

/// Then it stands otherwise, whatever was rounded on the way.
const AFTER_IT: Duration = Duration::from_millis(250);

/// Server-sent events: `reading` with what the pad shows now, judged (`Live`); `changed` with
/// the revision and the id of what was said, `shop` with the revision of its settings, `clock` when there is something to say of the
/// computer's clock or no longer, `hello` at the start, with what is known then. A job that stands otherwise by itself is `changed` as well, with revision 0.
#[utoipa::path(get, path = "/api/jobs/{id}/stream", params(("id" = Uuid, Path, description = "The job")), responses(
    (status = 200, description = "text/event-stream", content_type = "text/event-stream", body = Said),
    (status = 404, description = "No such job", body = crate::api_error::ProblemsBody)))]
#[get("/<id>/stream")]
pub async fn stream<'r>(
    jobs: &'r State<JobService>,
    door: &'r State<Door>,
    right: Right,
    units: DeviceUnits,
    id: &str,
    mut shutdown: Shutdown,
) -> Result<EventStream![Event + 'r], ApiError> {
    let id: Uuid = known(id)?;
    if !store::exists(&jobs.database.pool, id).await? {
        return Err(ApiError::Unknown("such job"));
    }
    let jobs = jobs.inner();
    let (mut news, mut out) = (jobs.subscribe(), door.listen());
    Ok(EventStream! {
        let Ok(seen) = jobs.load(id).await else { return };
        yield Event::json(&Hello::of(&seen)).event("hello");
        let mut stood = how_it_stands(&seen, jobs.now_ms());
        let mut timeline = Timeline::of(&seen);
        drop(seen);
        loop {
            let Ok(seen) = jobs.load(id).await else { break };
            timeline = timeline.or_anew(&seen);
            drop(seen);
            let turns = until_it_turns(&timeline.of, jobs.now_ms());
            let told = select! {
                told = news.recv() => told,
                _ = out.changed() => {
                    // Whoever may come in no longer hears no more.
                    if door.still(&right) {
                        continue;
                    }
                    break;
                }
                () = tokio::time::sleep(turns) => Ok(News::Said { job: id, revision: 0, fact: None }),
                () = &mut shutdown => break,
            };
            match told {
                Ok(News::Said { job, revision, fact }) if job == id => {
                    yield Event::json(&Said { revision, fact }).event("changed");
                }
                Ok(News::Reading { job, now_min, live }) if job == id => {
                    let Ok(seen) = jobs.load_in(id, units).await else { break };
                    let own = units.0.and_then(|_| seen.live(now_min));
                    yield Event::json(&own.unwrap_or(*live)).event("reading");
                    let stands = how_it_stands(&seen, jobs.now_ms());
                    if stands != stood {
                        stood = stands;
                        yield Event::json(&Said { revision: 0, fact: None }).event("changed");
                    }
                }
                Ok(News::Shop { revision }) => {
                    yield Event::data(revision.to_string()).event("shop");
                }
                Ok(News::Clock) => yield Event::data("").event("clock"),
                // There is nothing left to tell of it: asked for again it is not there.
                Ok(News::Gone { job }) if job == id => break,
                Ok(_) => {}
                // Missed some: have the page ask for everything.
                Err(RecvError::Lagged(_)) => yield Event::json(&Said { revision: 0, fact: None }).event("changed"),
                Err(RecvError::Closed) => break,
            }
        }
    })
}
