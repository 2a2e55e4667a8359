//! `GET /api/jobs/<id>/odds-moved`: what moved the odds of a job last.

use std::sync::OnceLock;

use quick_cache::sync::Cache;
use rocket::serde::json::Json;
use rocket::{State, get};
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::job::Fact;
use vanadin_core::plan::{OddsMoved, OddsThen, odds_moved_last, odds_then};

use super::route::known;
use crate::api_error::{ApiError, ProblemsBody};
use crate::job_service::{JobService, Snapshot, work};
use crate::shop::device_units::DeviceUnits;
use crate::wire::job::readings;

/// What moved the odds last.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct OddsMovedSeen {
    /// Nothing where no way is taken, or none of the last words moved them.
    pub moved: Option<OddsMoved>,
}

/// A job by its last word, how much is read of it, and a shop as plans read it and as it is told.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
struct OddsKey {
    job: Uuid,
    last: Option<Uuid>,
    readings: usize,
    planned_by: u64,
}

/// Cache of the odds after each word: the next one asks for those before it, and they were worked out then.
fn kept() -> &'static Cache<OddsKey, OddsThen> {
    /// Ours: some fifty bytes each.
    const KEPT: usize = 8_192;
    static FOUND: OnceLock<Cache<OddsKey, OddsThen>> = OnceLock::new();
    FOUND.get_or_init(|| Cache::new(KEPT))
}

/// The word of the log after which the odds of the way that is taken were others, and by how much.
#[utoipa::path(get, path = "/api/jobs/{id}/odds-moved",
    params(("id" = String, Path, description = "The job")), responses(
    (status = 200, description = "What moved them, if any of its last words did", body = OddsMovedSeen),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/odds-moved")]
pub async fn odds_moved(
    id: &str,
    units: DeviceUnits,
    jobs: &State<JobService>,
) -> Result<Json<OddsMovedSeen>, ApiError> {
    let seen = jobs.load_in(known(id)?, units).await?;
    let (readings, planned_by) = (readings(&seen.job), seen.shop.planned_by);
    let sims = jobs.sims();
    let moved = work(move || {
        let Snapshot { job, facts, plan, shop } = seen;
        let key = |facts: &[Fact]| {
            let last = facts.last().map(|fact| fact.id);
            OddsKey { job: job.id, last, readings, planned_by }
        };
        let now = plan.odds_taken();
        // The next word asks for the odds before it.
        kept().insert(key(&facts), now);
        let then = |facts: &[Fact]| {
            let key = key(facts);
            kept().get(&key).unwrap_or_else(|| {
                let then = odds_then(&job, facts, &shop.shop, &sims);
                kept().insert(key, then);
                then
            })
        };
        odds_moved_last(&facts, &shop.shop, now, then)
    });
    Ok(Json(OddsMovedSeen { moved: moved.await? }))
}
