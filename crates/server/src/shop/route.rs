//! `/api/shop`: units, theme, time zone, gear at hand.

use std::collections::BTreeMap;

use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::{Deserialize, Serialize};
use sqlx::SqlitePool;
use utoipa::ToSchema;
use vanadin_core::field::{Held, shop_field};
use vanadin_core::job::Conflict;
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::Shop;

use super::store::{revision_of, set, values};
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;
use crate::desk::Desk;
use crate::wire::field::FieldHeld;

#[derive(Debug, Serialize, ToSchema)]
pub struct ShopView {
    pub shop: Shop,
    /// Of all its settings together: it grows with each change.
    pub revision: u64,
    /// What stands in its settings, by key; nothing for those that nobody has filled in.
    pub fields: BTreeMap<String, FieldHeld>,
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

async fn view(pool: &SqlitePool) -> Result<Json<ShopView>, ApiError> {
    let values = values(pool).await?;
    let held = |(key, held): (&String, &Held)| Some((key.clone(), FieldHeld::of(shop_field(key)?, held)));
    let fields = values.iter().filter_map(held).collect();
    Ok(Json(ShopView { shop: Shop::of(&values), revision: revision_of(&values), fields }))
}

/// The shop and its settings.
#[utoipa::path(get, path = "/api/shop", operation_id = "show_shop", responses((status = 200, description = "The shop", body = ShopView)))]
#[get("/")]
pub async fn show(desk: &State<Desk>) -> Result<Json<ShopView>, ApiError> {
    view(&desk.database.pool).await
}

/// Changes one setting.
#[utoipa::path(post, path = "/api/shop", operation_id = "change_shop", request_body = ShopChange, responses(
    (status = 200, description = "The shop as it is now", body = ShopView),
    (status = 409, description = "Somebody else changed it", body = ProblemsBody),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/", data = "<body>")]
pub async fn change(desk: &State<Desk>, body: Body<ShopChange>) -> Result<Json<ShopView>, ApiError> {
    let change = body.0?;
    let pool = &desk.database.pool;
    let mut writing = desk.database.writing().await?;
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
    desk.shop_changed().await?;
    view(pool).await
}
