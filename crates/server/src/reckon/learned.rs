//! `POST /api/reckon/{calibration,break-ratio}`: what outcomes and coupons say.

use rocket::post;
use rocket::serde::json::Json;
use serde::Deserialize;
use utoipa::ToSchema;
use vanadin_core::base::problem::Problems;
use vanadin_core::ledger::{self, BreakRatio, Calibration, WithOutcome};

use super::at_the_heat::{none, within};
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;

/// Lists longer than this are refused.
const LIST_MOST: f64 = 500.0;

/// What was said of a repair, and what became of it.
#[derive(Debug, Deserialize, ToSchema)]
pub struct OutcomeRequest {
    /// Odds at hand-over, for the days it was followed.
    pub p: f64,
    /// 1 it holds, 0.5 with a fault, 0 it failed.
    pub y: f64,
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct CalibrationRequest {
    pub outcomes: Vec<OutcomeRequest>,
}

/// How honest the odds were, and how well they ranked.
#[utoipa::path(post, path = "/api/reckon/calibration", request_body = CalibrationRequest, responses(
    (status = 200, description = "The odds against what came", body = Calibration),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/calibration", data = "<body>")]
pub fn calibration(body: Body<CalibrationRequest>) -> Result<Json<Calibration>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    within(&mut problems, "outcomes", (1.0, LIST_MOST), request.outcomes.len() as f64);
    for (at, it) in request.outcomes.iter().enumerate().take(LIST_MOST as usize) {
        within(&mut problems, &format!("outcomes[{at}].p"), (0.0, 1.0), it.p);
        within(&mut problems, &format!("outcomes[{at}].y"), (0.0, 1.0), it.y);
    }
    problems.finish()?;
    let outcomes: Vec<WithOutcome> =
        request.outcomes.iter().map(|it| WithOutcome { p: it.p, y: it.y }).collect();
    ledger::calibration(&outcomes).map_or_else(none, |found| Ok(Json(found)))
}

/// Stresses at which coupons of the same iron broke.
#[derive(Debug, Deserialize, ToSchema)]
pub struct BreakRatioRequest {
    pub repaired_mpa: Vec<f64>,
    pub whole_mpa: Vec<f64>,
}

/// How strong a joint is against whole iron.
#[utoipa::path(post, path = "/api/reckon/break-ratio", request_body = BreakRatioRequest, responses(
    (status = 200, description = "The ratio, with its interval", body = BreakRatio),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/break-ratio", data = "<body>")]
pub fn break_ratio(body: Body<BreakRatioRequest>) -> Result<Json<BreakRatio>, ApiError> {
    /// More than any iron bears.
    const STRESS: (f64, f64) = (0.1, 3_000.0);
    let request = body.0?;
    let mut problems = Problems::default();
    for (field, stresses) in [("repaired_mpa", &request.repaired_mpa), ("whole_mpa", &request.whole_mpa)] {
        within(&mut problems, field, (1.0, LIST_MOST), stresses.len() as f64);
        for (at, mpa) in stresses.iter().enumerate().take(LIST_MOST as usize) {
            within(&mut problems, &format!("{field}[{at}]"), STRESS, *mpa);
        }
    }
    problems.finish()?;
    ledger::break_ratio(&request.repaired_mpa, &request.whole_mpa).map_or_else(none, |found| Ok(Json(found)))
}
