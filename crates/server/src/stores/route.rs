//! `/api/stores`: the shelves as they stand, and what has to be bought.

use rocket::http::ContentType;
use rocket::serde::json::Json;
use rocket::{State, get};
use serde::Serialize;
use utoipa::ToSchema;
use vanadin_core::base::day::Day;
use vanadin_core::quantity::marked_drills;
use vanadin_core::shop::{ShopWord, taken};
use vanadin_core::stores::{Buy, Demand, Stock, StoresPlan, Used, shelves};

use super::demand;
use crate::api_error::{ApiError, ProblemsBody};
use crate::job_service::JobService;
use crate::shop::device_units::DeviceUnits;
use crate::shop::store::today_in;

#[derive(Debug, Serialize, ToSchema)]
pub struct StoresView {
    pub plan: StoresPlan,
    /// The set of drills: across in mm, and what stands on each.
    pub drills: Vec<(f64, String)>,
    /// Of the shop's settings together: it grows with each change.
    pub shop_revision: u64,
}

async fn stores(jobs: &JobService, units: DeviceUnits) -> Result<StoresView, ApiError> {
    jobs.reproject_stale().await;
    let shop = jobs.shop_in(units).await?;
    let asks = demand::all(&jobs.database.pool).await?;
    let demands =
        asks.into_iter().map(|(job, asks)| Demand { job, name: asks.name, by: asks.by, takes: asks.to_take });
    let used: Vec<Used> = taken(&shop.facts)
        .filter_map(|fact| match &fact.change {
            ShopWord::Used { item, amount, job, name, .. } => Some(Used {
                fact: fact.id,
                item: *item,
                amount: *amount,
                job: *job,
                name: name.clone(),
                day: today_in(&shop.shop, fact.at_ms()).map(Day::said).unwrap_or_default(),
                revision: fact.revision,
            }),
            _ => None,
        })
        .collect();
    let plan = shelves(Stock {
        items: &shop.shop.stores,
        values: &shop.values,
        demands: demands.collect(),
        used: &used,
        units: shop.shop.units,
        currency: &shop.shop.currency,
    });
    let drills = marked_drills(&shop.shop.drills_mm, shop.shop.units);
    Ok(StoresView { plan, drills, shop_revision: shop.revision })
}

/// The shelves: what lies there, who will take of it, what is missing.
#[utoipa::path(get, path = "/api/stores", operation_id = "show_stores", responses(
    (status = 200, description = "The stores", body = StoresView)))]
#[get("/")]
pub async fn show(jobs: &State<JobService>, units: DeviceUnits) -> Result<Json<StoresView>, ApiError> {
    Ok(Json(stores(jobs, units).await?))
}

/// A cell of the list: quoted where it has to be, and never one that a sheet would reckon with.
fn cell(text: &str) -> String {
    let text = if text.starts_with(['=', '+', '-', '@']) { format!("'{text}") } else { text.to_owned() };
    if text.contains([',', '"', '\n', '\r']) { format!("\"{}\"", text.replace('"', "\"\"")) } else { text }
}

fn line(buy: &Buy) -> String {
    let price = buy.price.map_or(String::new(), |price| format!("{price:.2}"));
    let cells = [
        buy.what.clone(),
        buy.amount_words.clone(),
        buy.by.clone().unwrap_or_default(),
        buy.jobs.join("; "),
        price,
    ];
    cells.map(|text| cell(&text)).join(",")
}

/// What has to be bought, as a list that a sheet opens.
#[utoipa::path(get, path = "/api/stores/buying.csv", operation_id = "buying_list", responses(
    (status = 200, description = "What, how much, by when, for which jobs, at what price", content_type = "text/csv", body = String),
    (status = 500, description = "Something broke in the server", body = ProblemsBody)))]
#[get("/buying.csv")]
pub async fn buying(jobs: &State<JobService>, units: DeviceUnits) -> Result<(ContentType, String), ApiError> {
    let view = stores(jobs, units).await?;
    let head = "what,how much,by,for,price".to_owned();
    let lines: Vec<String> = std::iter::once(head).chain(view.plan.buying.iter().map(line)).collect();
    Ok((ContentType::CSV, lines.join("\r\n") + "\r\n"))
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    #[case::plain("Nickel stick", "Nickel stick")]
    #[case::with_a_comma("Nickel stick, 4 mm", "\"Nickel stick, 4 mm\"")]
    #[case::with_a_quote("3/8\" rod", "\"3/8\"\" rod\"")]
    #[case::what_a_sheet_would_reckon_with("=1+1", "'=1+1")]
    fn a_cell_is_what_it_says(#[case] text: &str, #[case] written: &str) {
        assert_eq!(cell(text), written);
    }
}
