//! `/api/shop`: units, theme, time zone, gear at hand.

use std::collections::BTreeMap;

use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::{Deserialize, Serialize};
use sqlx::{Row, SqliteConnection, SqlitePool};
use utoipa::ToSchema;
use vanadin_core::job::{Conflict, Held, SHOP_FIELDS, parse_value, shop_field};
use vanadin_core::plan::FETCHED_AT_HOUR;
use vanadin_core::problem::FieldProblem;
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::Shop;

use crate::api_error::{ApiError, ProblemsBody};
use crate::bench::{Bench, News};
use crate::body::Body;
use crate::job::view::{FieldView, field_view};

#[derive(Debug, Serialize, ToSchema)]
pub struct ShopView {
    pub shop: Shop,
    /// Of all its settings together: it grows with each change.
    pub revision: u64,
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
            let (value, not_understood) = match parse_value(&key, shop_field(&key)?, &typed, shown_in) {
                Ok(value) => (value, String::new()),
                Err(problem) => (None, problem.message),
            };
            let revision = row.get::<i64, _>(3).unsigned_abs();
            Some((key, Held { typed, value, revision, not_understood }))
        })
        .collect())
}

/// When a part that is wanted on `day`, `YYYY-MM-DD`, is fetched: at its hour of that day in the shop's
/// own zone, whatever the zone's clocks do until then. A zone that is not known here is taken as UTC.
pub fn fetched_at_ms(shop: &Shop, day: &str) -> Option<i64> {
    let day: jiff::civil::Date = day.parse().ok()?;
    let zone = jiff::tz::TimeZone::get(&shop.time_zone).unwrap_or(jiff::tz::TimeZone::UTC);
    let fetched = day.at(FETCHED_AT_HOUR, 0, 0, 0).to_zoned(zone).ok()?;
    Some(fetched.timestamp().as_millisecond())
}

pub async fn the_shop(pool: &SqlitePool) -> Result<Shop, ApiError> {
    Ok(Shop::of(&values(pool).await?))
}

fn revision_of(values: &BTreeMap<String, Held>) -> u64 {
    values.values().map(|held| held.revision).sum()
}

/// The revision of all settings together.
pub async fn shop_revision(pool: &SqlitePool) -> Result<u64, ApiError> {
    Ok(revision_of(&values(pool).await?))
}

async fn view(pool: &SqlitePool) -> Result<Json<ShopView>, ApiError> {
    let values = values(pool).await?;
    let fields = SHOP_FIELDS
        .iter()
        .map(|spec| (spec.key.to_owned(), field_view(spec.key.to_owned(), spec, values.get(spec.key))))
        .collect();
    Ok(Json(ShopView { shop: Shop::of(&values), revision: revision_of(&values), fields }))
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
    let mut writing = bench.database.writing().await?;
    let stands = values(pool).await?.remove(&change.key);
    if let (Some(held), Some(base)) = (&stands, change.base)
        && held.revision > base
        && held.typed != change.typed
    {
        writing.left().await;
        return Err(ApiError::Changed(Conflict {
            field: change.key,
            yours: change.typed,
            theirs: held.typed.clone(),
            revision: held.revision,
        }));
    }
    let revision = stands.map_or(1, |held| held.revision + 1);
    if let Err(error) = set(writing.on(), &change.key, &change.typed, change.shown_in, revision).await {
        return Err(writing.given_up(error).await);
    }
    writing.done().await?;
    bench.tell(News::Shop { revision: shop_revision(pool).await? });
    view(pool).await
}

/// Stores a setting if it can be understood.
pub async fn set(
    on: &mut SqliteConnection,
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
    .execute(on)
    .await?;
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    // Hand-worked: 17:00 in London is 17:00 UTC in winter, 16:00 from the last Sunday of March on; in
    // Chicago 23:00, from the second Sunday of March on 22:00
    #[case::winter("Europe/London", "2026-03-28", "2026-03-28T17:00:00Z")]
    #[case::the_day_the_clocks_change("Europe/London", "2026-03-29", "2026-03-29T16:00:00Z")]
    #[case::back_again("Europe/London", "2026-10-25", "2026-10-25T17:00:00Z")]
    #[case::behind("America/Chicago", "2026-03-07", "2026-03-07T23:00:00Z")]
    #[case::behind_in_summer("America/Chicago", "2026-03-08", "2026-03-08T22:00:00Z")]
    #[case::no_such_zone("Moon/Tycho", "2026-03-08", "2026-03-08T17:00:00Z")]
    fn a_part_is_fetched_at_five_of_the_shops_own_day(
        #[case] zone: &str,
        #[case] day: &str,
        #[case] expected: &str,
    ) {
        let shop = Shop { time_zone: zone.to_owned(), ..Shop::of(&BTreeMap::new()) };
        let expected: jiff::Timestamp = expected.parse().unwrap();
        assert_eq!(fetched_at_ms(&shop, day), Some(expected.as_millisecond()));
    }
}
