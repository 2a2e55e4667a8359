//! `GET /api/jobs/<id>/oven.csv` and `/oven`: the oven's program, for a real one to be set by, and whether it runs.

use rocket::http::ContentType;
use rocket::serde::json::Json;
use rocket::{State, get};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::plan::OvenSegment;

use super::route::known;
use crate::api_error::{ApiError, ProblemsBody};
use crate::job_service::JobService;
use crate::shop::device_units::DeviceUnits;

/// What an oven controller follows.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct OvenSeen {
    /// Since when its program runs, in minutes on the job clock; nothing while it does not.
    pub runs_from_min: Option<f64>,
    /// Minutes on the job clock by now; nothing while the part is not lit.
    pub job_min: Option<f64>,
    pub segments: Vec<OvenSegment>,
}

/// The oven's program, and whether it was started.
#[utoipa::path(get, path = "/api/jobs/{id}/oven", operation_id = "oven_runs",
    params(("id" = String, Path, description = "The job")), responses(
    (status = 200, description = "Its program, and since when it runs", body = OvenSeen),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/oven")]
pub async fn oven(
    id: &str,
    units: DeviceUnits,
    jobs: &State<JobService>,
) -> Result<Json<OvenSeen>, ApiError> {
    let seen = jobs.load_in(known(id)?, units).await?;
    let round = seen.job.round();
    Ok(Json(OvenSeen {
        runs_from_min: round.oven_runs(),
        job_min: round.lit.as_ref().map(|lit| lit.minutes(jobs.now_ms())),
        segments: seen.plan.heat.as_ref().map(|heat| heat.oven.clone()).unwrap_or_default(),
    }))
}

/// The segments of the oven's program: `segment,to_celsius,kelvins_per_hour,hold_minutes,what`.
#[utoipa::path(get, path = "/api/jobs/{id}/oven.csv", operation_id = "oven_program",
    params(("id" = String, Path, description = "The job")), responses(
    (status = 200, description = "Segment by segment; no rate where it goes as it will", content_type = "text/csv", body = String),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 422, description = "It is not heated in an oven", body = ProblemsBody)))]
#[get("/<id>/oven.csv")]
pub async fn oven_program(id: &str, jobs: &State<JobService>) -> Result<(ContentType, String), ApiError> {
    let seen = jobs.load(known(id)?).await?;
    let segments = seen.plan.heat.as_ref().map(|heat| heat.oven.as_slice()).unwrap_or_default();
    if segments.is_empty() {
        let problem = FieldProblem::new("heat.source", "it is not heated in an oven", "an oven, on Heat");
        return Err(ApiError::NotAcceptable(vec![problem]));
    }
    let mut table = csv::Writer::from_writer(Vec::new());
    let written = |error: csv::Error| ApiError::Broken(error.into());
    let head = ["segment", "to_celsius", "kelvins_per_hour", "hold_minutes", "what"];
    table.write_record(head).map_err(written)?;
    for (at, segment) in segments.iter().enumerate() {
        let rate = segment.k_per_h.map_or(String::new(), |rate| format!("{rate:.0}"));
        let row = [
            (at + 1).to_string(),
            format!("{:.0}", segment.to_c),
            rate,
            format!("{:.0}", segment.hold_min),
            segment.what.clone(),
        ];
        table.write_record(&row).map_err(written)?;
    }
    let bytes = table.into_inner().map_err(|error| ApiError::Broken(anyhow::anyhow!("{error}")))?;
    let text = String::from_utf8(bytes).map_err(|error| ApiError::Broken(error.into()))?;
    Ok((ContentType::CSV, text))
}
