//! `/api/ledger`: what the shop's own repairs have taught, as it is drawn and as tables.

use std::collections::HashSet;

use rocket::http::ContentType;
use rocket::serde::json::Json;
use rocket::{Route, State, get, routes};
use uuid::Uuid;
use vanadin_core::ledger::{Said, Wall, wall};
use vanadin_core::method::{Coupon, MethodId, OwnRepair};
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::{coupons, faults, learned, left_out, moves, repairs, timed, tips};

use crate::api_error::{ApiError, ProblemsBody};
use crate::desk::Desk;
use crate::shop::device_units::DeviceUnits;
use crate::stores::demand;

pub fn routes() -> Vec<Route> {
    routes![show, table]
}

/// What became of each repair as the shop knows it, and those that nobody was asked about.
async fn every_repair(desk: &Desk, told: Vec<OwnRepair>) -> Result<Vec<OwnRepair>, ApiError> {
    let asking = demand::all(&desk.database.pool).await?;
    let silent = asking.into_iter().flat_map(|(_, asks)| asks.repairs);
    let known: HashSet<Uuid> = told.iter().map(|it| it.lit).collect();
    let new: Vec<OwnRepair> = silent.filter(|it| !known.contains(&it.lit)).collect();
    Ok([told, new].concat())
}

async fn now(desk: &Desk, units: DeviceUnits) -> Result<Wall, ApiError> {
    let shop = desk.shop_in(units).await?;
    let all = every_repair(desk, repairs(&shop.facts)).await?;
    let said = Said {
        repairs: &all,
        timed: &timed(&shop.facts),
        learned: &learned(&shop.facts),
        tips: &tips(&shop.facts),
        moves: &moves(&shop.facts),
        faults: &faults(&shop.facts),
        coupons: &coupons(&shop.facts),
        left_out: &left_out(&shop.facts),
    };
    Ok(wall(&said, shop.shop.units))
}

/// The shop's wall: how repairs held, how honest the odds were, what was learned.
#[utoipa::path(get, path = "/api/ledger", operation_id = "show_ledger", responses(
    (status = 200, description = "The wall", body = Wall),
    (status = 500, description = "Something broke in the server", body = ProblemsBody)))]
#[get("/")]
pub async fn show(desk: &State<Desk>, units: DeviceUnits) -> Result<Json<Wall>, ApiError> {
    Ok(Json(now(desk, units).await?))
}

/// One of its tables, for another program: figures in SI, nobody's name.
#[utoipa::path(get, path = "/api/ledger/{table}", operation_id = "ledger_table", params(
    ("table" = String, Path, description = "repairs.csv, learned.csv, honest.csv or coupons.csv")), responses(
    (status = 200, description = "The table", content_type = "text/csv", body = String),
    (status = 404, description = "No such table", body = ProblemsBody)))]
#[get("/<table>")]
pub async fn table(desk: &State<Desk>, table: &str) -> Result<(ContentType, String), ApiError> {
    let rows = match table {
        "repairs.csv" => {
            let shop = desk.shop().await?;
            let out = left_out(&shop.facts);
            let all = every_repair(desk, repairs(&shop.facts)).await?;
            let head = ["method", "variant", "iron", "days", "became", "given", "burdened", "counts"];
            let row = |it: OwnRepair| {
                let given = it.given.map_or(String::new(), |p| p.to_string());
                let counts = if out.contains_key(&it.lit) { "no" } else { "yes" };
                let (days, shift) = (format!("{:.1}", it.days), it.shift.to_string());
                [
                    it.method.id().to_owned(),
                    it.variant,
                    it.iron.id().to_owned(),
                    days,
                    it.became,
                    given,
                    shift,
                ]
                .into_iter()
                .chain([counts.to_owned()])
                .collect()
            };
            (head.map(str::to_owned).to_vec(), all.into_iter().map(row).collect::<Vec<Vec<String>>>())
        }
        "learned.csv" => {
            let wall = now(desk, DeviceUnits(Some(UnitSystem::Metric))).await?;
            let head = ["what", "book", "here", "case"].map(str::to_owned).to_vec();
            let rows = wall.learned.iter().flat_map(|line| {
                line.cases.iter().map(|case| {
                    vec![
                        line.name.clone(),
                        line.book.to_string(),
                        line.here.to_string(),
                        case.value.to_string(),
                    ]
                })
            });
            (head, rows.collect())
        }
        "coupons.csv" => {
            let shop = desk.shop().await?;
            let out = left_out(&shop.facts);
            let head = ["iron", "joined", "stood_mpa", "broke", "load_kg", "guess_kg", "counts"];
            let row = |it: Coupon| {
                let counts = if out.contains_key(&it.coupon) { "no" } else { "yes" };
                let guess = it.read.and_then(|read| read.guess_kg).map_or(String::new(), |kg| kg.to_string());
                vec![
                    it.iron.id().to_owned(),
                    it.joined.map_or("whole", MethodId::id).to_owned(),
                    it.stood_mpa().map_or(String::new(), |mpa| format!("{mpa:.1}")),
                    it.broke.words().to_owned(),
                    it.read.map_or(String::new(), |read| read.load_kg.to_string()),
                    guess,
                    counts.to_owned(),
                ]
            };
            (head.map(str::to_owned).to_vec(), coupons(&shop.facts).into_iter().map(row).collect())
        }
        "honest.csv" => {
            let wall = now(desk, DeviceUnits(Some(UnitSystem::Metric))).await?;
            let head = ["n", "mean_given", "share_held", "low", "high"].map(str::to_owned).to_vec();
            let rows = wall.honest.iter().flat_map(|honest| &honest.tenths).map(|tenth| {
                let figures = [tenth.mean_p, tenth.share, tenth.low, tenth.high].map(|it| it.to_string());
                std::iter::once(tenth.n.to_string()).chain(figures).collect()
            });
            (head, rows.collect())
        }
        _ => return Err(ApiError::Unknown("such table")),
    };
    Ok((ContentType::CSV, written(&rows)?))
}

fn written((head, rows): &(Vec<String>, Vec<Vec<String>>)) -> Result<String, ApiError> {
    let broken = |error: csv::Error| ApiError::Broken(error.into());
    let mut table = csv::Writer::from_writer(Vec::new());
    table.write_record(head).map_err(broken)?;
    for row in rows {
        table.write_record(row).map_err(broken)?;
    }
    let bytes = table.into_inner().map_err(|error| ApiError::Broken(anyhow::anyhow!("{error}")))?;
    String::from_utf8(bytes).map_err(|error| ApiError::Broken(error.into()))
}
