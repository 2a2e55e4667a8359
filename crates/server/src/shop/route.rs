//! `/api/shop`: units, theme, time zone, gear at hand.

use std::collections::BTreeMap;

use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::base::log::{OwnWord, own_words};
use vanadin_core::field::{self, FieldState, shop_field};
use vanadin_core::job::Damaged;
use vanadin_core::shop::{Shop, unreadable};

use crate::StandIns;
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;
use crate::door::helper::Helps;
use crate::job_service::{JobService, NewShopFact, ShopNow};
use crate::shop::device_units::DeviceUnits;
use crate::wire::field::FieldHeld;

#[derive(Debug, Serialize, ToSchema)]
pub struct ShopView {
    pub shop: Shop,
    /// Of all its settings together: it grows with each change.
    pub revision: u64,
    /// What stands in its settings, by key; nothing for those that nobody has filled in.
    pub fields: BTreeMap<String, FieldHeld>,
    /// Of each sender what can be taken back and put back.
    pub own_words: Vec<OwnWord>,
    /// A logger has a key. Which one is shown to nobody.
    pub logger: bool,
    /// What of its log cannot be read, the first first: it changes nothing.
    pub damaged: Vec<Damaged>,
    /// The thermocouples are simulated: what they show is made up.
    pub stand_ins: bool,
    /// The one job at which this device helps: of the shop it is told what pages are drawn by, and nothing else.
    pub helps: Option<Uuid>,
    /// This device chose its units: those of `shop`. Nothing where it has the shop's.
    pub chose_units: bool,
}

/// What a helper's pages are drawn by.
fn for_a_helper(values: &BTreeMap<String, FieldState>) -> Shop {
    const TOLD: [&str; 5] = ["shop.name", "shop.units", "shop.clock", "shop.theme", "shop.time_zone"];
    let told = values.iter().filter(|(key, _)| TOLD.contains(&key.as_str()));
    Shop::of(&told.map(|(key, held)| (key.clone(), held.clone())).collect())
}

fn view(now: &ShopNow, units: DeviceUnits, stand_ins: StandIns) -> Json<ShopView> {
    let held = |(key, held): (&String, &FieldState)| {
        Some((key.clone(), FieldHeld::of(shop_field(key)?, held, now.shop.units)))
    };
    let logger = field::shop::LOGGER.key();
    let damaged = unreadable(&now.facts);
    Json(ShopView {
        shop: now.shop.clone(),
        revision: now.revision,
        fields: now.values.iter().filter(|(key, _)| *key != logger).filter_map(held).collect(),
        own_words: own_words(&now.facts),
        logger: now.values.get(logger).is_some_and(|held| !held.typed.is_empty()),
        damaged: damaged.map(|(revision, text)| Damaged { revision, text: text.to_owned() }).collect(),
        stand_ins: stand_ins.0,
        helps: None,
        chose_units: units.0.is_some(),
    })
}

/// The shop and its settings.
#[utoipa::path(get, path = "/api/shop", operation_id = "show_shop", responses((status = 200, description = "The shop", body = ShopView)))]
#[get("/")]
pub async fn show(
    jobs: &State<JobService>,
    stand_ins: &State<StandIns>,
    helps: Helps,
    units: DeviceUnits,
) -> Result<Json<ShopView>, ApiError> {
    let now = jobs.shop_in(units).await?;
    if helps.0.is_none() {
        return Ok(view(&now, units, **stand_ins));
    }
    Ok(Json(ShopView {
        shop: for_a_helper(&now.values).told_in(now.shop.units),
        revision: now.revision,
        fields: BTreeMap::new(),
        own_words: Vec::new(),
        logger: false,
        damaged: Vec::new(),
        stand_ins: stand_ins.0,
        helps: helps.0,
        chose_units: units.0.is_some(),
    }))
}

/// Changes one setting, or takes back or puts back one's own last word.
#[utoipa::path(post, path = "/api/shop", operation_id = "change_shop", request_body = NewShopFact, responses(
    (status = 200, description = "The shop as it is now", body = ShopView),
    (status = 409, description = "Somebody else changed it", body = ProblemsBody),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/", data = "<body>")]
pub async fn change(
    jobs: &State<JobService>,
    stand_ins: &State<StandIns>,
    units: DeviceUnits,
    body: Body<NewShopFact>,
) -> Result<Json<ShopView>, ApiError> {
    jobs.apply_to_shop(body.0?).await?;
    Ok(view(&*jobs.shop_in(units).await?, units, **stand_ins))
}
