//! `/api/jobs/<id>/label-code`: what a camera reads on the label of a part.

use rocket::serde::json::Json;
use rocket::{State, get};
use serde::Serialize;
use utoipa::ToSchema;

use super::route::known;
use crate::api_error::{ApiError, ProblemsBody};
use crate::job_service::JobService;
use crate::reach::addresses::ServerAddresses;
use crate::reach::qr;

/// The code on a label.
#[derive(Debug, Serialize, ToSchema)]
pub struct LabelCode {
    /// What it says: where the record is found in the shop, or that there is one, in words. Nothing private.
    pub says: String,
    /// An SVG.
    pub qr: String,
}

/// What a camera reads on the label of a part: the address of its record where other devices reach this server, else
/// in words that there is one.
#[utoipa::path(get, path = "/api/jobs/{id}/label-code", params(("id" = Uuid, Path, description = "The job")), responses(
    (status = 200, description = "The code", body = LabelCode),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/label-code")]
pub async fn label_code(
    id: &str,
    jobs: &State<JobService>,
    reached: &State<ServerAddresses>,
) -> Result<Json<LabelCode>, ApiError> {
    let id = known(id)?;
    let seen = jobs.load(id).await?;
    let page = reached.pages.first().filter(|_| reached.by_others);
    let says = page.map_or_else(
        || format!("Repaired: see record {} at {}", &id.to_string()[..8], seen.shop.shop.name),
        |page| format!("{}/jobs/{}/hand-over", page.trim_end_matches('/'), id),
    );
    Ok(Json(LabelCode { qr: qr::svg(&says).unwrap_or_default(), says }))
}
