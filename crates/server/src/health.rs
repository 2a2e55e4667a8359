//! `GET /api/health`

use rocket::serde::json::Json;
use rocket::{State, get};
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;

use crate::job_service::JobService;

#[derive(Debug, Serialize, ToSchema)]
pub struct Health {
    pub ok: bool,
    pub version: &'static str,
    /// The data folder's own name: what waits in a browser belongs to one folder.
    pub folder: Uuid,
    /// The server's clock, UTC in ms since 1970.
    pub now_ms: i64,
    /// What has to be said of the computer's clock; empty while it goes as it should.
    pub clock_notice: String,
    /// Plans that were worked out since it was started.
    pub plans_made: u64,
}

/// The server answers.
#[utoipa::path(get, path = "/api/health", responses((status = 200, description = "It answers", body = Health)))]
#[get("/health")]
pub fn health(jobs: &State<JobService>) -> Json<Health> {
    Json(Health {
        ok: true,
        version: env!("CARGO_PKG_VERSION"),
        folder: jobs.database.folder,
        now_ms: jobs.now_ms(),
        clock_notice: jobs.notice(),
        plans_made: jobs.plans_made(),
    })
}
