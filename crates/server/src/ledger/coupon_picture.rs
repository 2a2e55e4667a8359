//! A picture of where a coupon broke.

use std::collections::HashSet;

use rocket::data::Data;
use rocket::http::Status;
use rocket::tokio::task::spawn_blocking;
use rocket::{State, get, post};
use sqlx::{Row, SqlitePool};
use uuid::Uuid;
use vanadin_core::shop::coupons;

use crate::api_error::{ApiError, ProblemsBody};
use crate::body::spooled;
use crate::job::route::known;
use crate::job_service::JobService;
use crate::picture::MOST_MIB;
use crate::picture::route::{Counter, Jpeg};
use crate::picture::shrink::shrink;

/// Keeps a picture of a coupon that is on the wall; sent again it takes the place of the one before. The body is the
/// file itself: JPEG, PNG or WebP, up to 20 MB.
#[utoipa::path(post, path = "/api/ledger/coupons/{coupon}/picture", params(
    ("coupon" = Uuid, Path, description = "The coupon")),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 204, description = "Kept"),
    (status = 404, description = "No such coupon", body = ProblemsBody),
    (status = 408, description = "It did not come", body = ProblemsBody),
    (status = 413, description = "Over 20 MB", body = ProblemsBody),
    (status = 422, description = "No picture, or a damaged one", body = ProblemsBody)))]
#[post("/coupons/<coupon>/picture", data = "<data>")]
pub async fn take_coupon_picture(
    jobs: &State<JobService>,
    counter: &State<Counter>,
    coupon: &str,
    data: Data<'_>,
) -> Result<Status, ApiError> {
    let coupon = known(coupon)?;
    if !coupons(&jobs.shop().await?.facts).iter().any(|it| it.coupon == coupon) {
        return Err(ApiError::Unknown("such coupon"));
    }
    let sent = spooled(data, MOST_MIB, &jobs.database.at).await?;
    let opening = counter.turn().await?;
    let shrunk = spawn_blocking(move || Ok::<_, ApiError>(shrink(&sent.read()?))).await;
    drop(opening);
    let shrunk = shrunk.map_err(anyhow::Error::from)??.map_err(|problem| vec![problem])?;
    jobs.database
        .write(async |on| {
            sqlx::query("insert or replace into coupon_picture (coupon, jpeg, small) values (?, ?, ?)")
                .bind(coupon.to_string())
                .bind(&shrunk.jpeg)
                .bind(&shrunk.small)
                .execute(on)
                .await?;
            Ok(())
        })
        .await?;
    Ok(Status::NoContent)
}

/// The coupons that have a picture.
pub(super) async fn pictured(pool: &SqlitePool) -> Result<HashSet<Uuid>, ApiError> {
    let all: Vec<String> = sqlx::query_scalar("select coupon from coupon_picture").fetch_all(pool).await?;
    Ok(all.iter().filter_map(|id| id.parse().ok()).collect())
}

async fn shown(jobs: &JobService, coupon: &str, query: &'static str) -> Result<Jpeg, ApiError> {
    let coupon = known(coupon)?.to_string();
    let row = sqlx::query(query).bind(coupon).fetch_optional(&jobs.database.pool).await?;
    row.map(|row| Jpeg::of(row.get(0))).ok_or(ApiError::Unknown("such picture"))
}

/// The picture of a coupon.
#[utoipa::path(get, path = "/api/ledger/coupons/{coupon}/picture", params(
    ("coupon" = Uuid, Path, description = "The coupon")), responses(
    (status = 200, description = "The picture", content_type = "image/jpeg"),
    (status = 404, description = "No such picture", body = ProblemsBody)))]
#[get("/coupons/<coupon>/picture")]
pub async fn show_coupon_picture(jobs: &State<JobService>, coupon: &str) -> Result<Jpeg, ApiError> {
    shown(jobs, coupon, "select jpeg from coupon_picture where coupon = ?").await
}

/// The same, 320 points at its longest side.
#[utoipa::path(get, path = "/api/ledger/coupons/{coupon}/picture/small", params(
    ("coupon" = Uuid, Path, description = "The coupon")), responses(
    (status = 200, description = "The picture", content_type = "image/jpeg"),
    (status = 404, description = "No such picture", body = ProblemsBody)))]
#[get("/coupons/<coupon>/picture/small")]
pub async fn show_small_coupon_picture(jobs: &State<JobService>, coupon: &str) -> Result<Jpeg, ApiError> {
    shown(jobs, coupon, "select small from coupon_picture where coupon = ?").await
}
