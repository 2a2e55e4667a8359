//! `GET /api/health`

use rocket::get;
use rocket::serde::json::Json;
use serde::Serialize;
use utoipa::ToSchema;

#[derive(Debug, Serialize, ToSchema)]
pub struct Health {
    pub ok: bool,
    pub version: &'static str,
}

/// The server answers.
#[utoipa::path(get, path = "/api/health", responses((status = 200, description = "It answers", body = Health)))]
#[get("/health")]
pub fn health() -> Json<Health> {
    Json(Health { ok: true, version: env!("CARGO_PKG_VERSION") })
}
