//! `GET /api/jobs/<id>/odds-moved`: what moved the odds of a job last.

use std::sync::{Arc, OnceLock};

use quick_cache::sync::Cache;
use rocket::serde::json::Json;
use rocket::{State, get};
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::plan::{OddsMoved, odds_moved_last};

use super::route::known;
use crate::api_error::{ApiError, ProblemsBody};
use crate::job_service::{JobService, work};
use crate::shop::device_units::DeviceUnits;

/// What moved the odds last.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct OddsMovedSeen {
    /// Nothing where no way is taken, or none of the last words moved them.
    pub moved: Option<OddsMoved>,
}

/// A job by its last word, in a shop as plans read it and as it is told.
type OddsKey = (Uuid, Option<Uuid>, u64);

/// Found once for each word: a plan is made for each word that is looked at.
fn kept() -> &'static Cache<OddsKey, Arc<OddsMovedSeen>> {
    /// Ours: some hundred bytes each.
    const KEPT: usize = 256;
    static FOUND: OnceLock<Cache<OddsKey, Arc<OddsMovedSeen>>> = OnceLock::new();
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
    let last = seen.facts.last().map(|fact| fact.id);
    let asked = (seen.job.id, last, seen.shop.planned_by);
    if let Some(found) = kept().get(&asked) {
        return Ok(Json((*found).clone()));
    }
    let sims = jobs.sims();
    let moved = work(move || odds_moved_last(&seen.job, &seen.facts, &seen.shop.shop, &sims)).await?;
    let found = OddsMovedSeen { moved };
    kept().insert(asked, Arc::new(found.clone()));
    Ok(Json(found))
}
