//! `/api/shop`: units, theme, time zone, gear at hand.

use std::collections::BTreeMap;

use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::{Deserialize, Serialize};
use sqlx::{Row, SqlitePool};
use utoipa::ToSchema;
use vanadin_core::job::{Conflict, Held, SHOP_FIELDS, parse_value, shop_field};
use vanadin_core::plan::ShopClock;
use vanadin_core::problem::FieldProblem;
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::Shop;

use crate::api_error::{ApiError, ProblemsBody};
use crate::bench::Bench;
use crate::body::Body;
use crate::job::view::{FieldView, field_view};

#[derive(Debug, Serialize, ToSchema)]
pub struct ShopView {
    pub shop: Shop,
    /// By key.
    pub fields: BTreeMap<String, FieldView>,
}

/// A setting as typed.
#[derive(Debug, Deserialize, ToSchema)]
pub struct ShopChange {
    pub key: String,
    pub typed: String,
    pub shown_in: UnitSystem,
    /// The revision it replaces, as last seen; nothing to replace whatever stands.
    #[serde(default)]
    pub base: Option<u64>,
}

async fn values(pool: &SqlitePool) -> Result<BTreeMap<String, Held>, sqlx::Error> {
    let rows = sqlx::query("select key, typed, shown_in, revision from shop_value").fetch_all(pool).await?;
    Ok(rows
        .iter()
        .filter_map(|row| {
            let (key, typed, shown_in): (String, String, String) = (row.get(0), row.get(1), row.get(2));
            let shown_in = if shown_in == "imperial" { UnitSystem::Imperial } else { UnitSystem::Metric };
            let value = parse_value(&key, shop_field(&key)?, &typed, shown_in).ok()?;
            let revision = row.get::<i64, _>(3).unsigned_abs();
            Some((key, Held { typed, value, revision }))
        })
        .collect())
}

/// The shop's own clock. A zone that is not known here is taken as UTC.
pub fn shop_clock(shop: &Shop, now_ms: i64) -> ShopClock {
    let ahead_min = jiff::Timestamp::from_millisecond(now_ms)
        .ok()
        .zip(jiff::tz::TimeZone::get(&shop.time_zone).ok())
        .map_or(0, |(now, zone)| i64::from(zone.to_offset(now).seconds()) / 60);
    ShopClock { now_ms, ahead_min }
}

pub async fn the_shop(pool: &SqlitePool) -> Result<Shop, ApiError> {
    Ok(Shop::of(&values(pool).await?))
}

async fn view(pool: &SqlitePool) -> Result<Json<ShopView>, ApiError> {
    let values = values(pool).await?;
    let fields = SHOP_FIELDS
        .iter()
        .map(|spec| (spec.key.to_owned(), field_view(spec.key.to_owned(), spec, values.get(spec.key))))
        .collect();
    Ok(Json(ShopView { shop: Shop::of(&values), fields }))
}

/// The shop and its settings.
#[utoipa::path(get, path = "/api/shop", operation_id = "show_shop", responses((status = 200, description = "The shop", body = ShopView)))]
#[get("/")]
pub async fn show(bench: &State<Bench>) -> Result<Json<ShopView>, ApiError> {
    view(&bench.database.pool).await
}

/// Changes one setting.
#[utoipa::path(post, path = "/api/shop", operation_id = "change_shop", request_body = ShopChange, responses(
    (status = 200, description = "The shop as it is now", body = ShopView),
    (status = 409, description = "Somebody else changed it", body = ProblemsBody),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/", data = "<body>")]
pub async fn change(bench: &State<Bench>, body: Body<ShopChange>) -> Result<Json<ShopView>, ApiError> {
    let change = body.0?;
    let pool = &bench.database.pool;
    let _writing = bench.writing().await;
    let stands = values(pool).await?.remove(&change.key);
    if let (Some(held), Some(base)) = (&stands, change.base)
        && held.revision > base
        && held.typed != change.typed
    {
        return Err(ApiError::Changed(Conflict {
            field: change.key,
            yours: change.typed,
            theirs: held.typed.clone(),
            revision: held.revision,
        }));
    }
    set(pool, &change.key, &change.typed, change.shown_in, stands.map_or(1, |held| held.revision + 1))
        .await?;
    view(pool).await
}

/// Stores a setting if it can be understood.
pub async fn set(
    pool: &SqlitePool,
    key: &str,
    typed: &str,
    shown_in: UnitSystem,
    revision: u64,
) -> Result<(), ApiError> {
    let spec = shop_field(key).ok_or_else(|| vec![FieldProblem::new(key, "there is no such setting", "")])?;
    parse_value(key, spec, typed, shown_in).map_err(|problem| vec![problem])?;
    if key == "shop.time_zone" && !typed.trim().is_empty() && jiff::tz::TimeZone::get(typed.trim()).is_err() {
        let message = format!("\"{typed}\" is not a time zone");
        return Err(vec![FieldProblem::new(key, message, "Europe/London or America/Chicago")].into());
    }
    sqlx::query(
        "insert into shop_value (key, typed, shown_in, revision) values (?, ?, ?, ?) \
         on conflict (key) do update set typed = excluded.typed, shown_in = excluded.shown_in, \
         revision = excluded.revision",
    )
    .bind(key)
    .bind(typed.trim())
    .bind(match shown_in {
        UnitSystem::Metric => "metric",
        UnitSystem::Imperial => "imperial",
    })
    .bind(revision.cast_signed())
    .execute(pool)
    .await?;
    Ok(())
}
