//! `/api/ledger`: what the shop's own repairs have taught, as it is drawn and as tables.

pub mod coupon_picture;
mod tables;

use std::collections::HashSet;

use rocket::http::ContentType;
use rocket::serde::json::Json;
use rocket::{Route, State, get, routes};
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::ledger::{LedgerAnswer, LedgerCase, QUESTION_MOST, Said, Wall, ask, cases_among, wall};
use vanadin_core::method::OwnRepair;
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::{coupons, faults, learned, left_out, moves, repairs, scraps, timed, tips, uses};

use crate::api_error::{ApiError, ProblemsBody};
use crate::job_service::JobService;
use crate::shop::device_units::DeviceUnits;
use crate::stores::demand;

pub fn routes() -> Vec<Route> {
    routes![
        show,
        asked,
        cases,
        table,
        coupon_picture::take_coupon_picture,
        coupon_picture::show_coupon_picture,
        coupon_picture::show_small_coupon_picture
    ]
}

/// What became of each repair as the shop knows it, and those that nobody was asked about.
async fn every_repair(jobs: &JobService, told: Vec<OwnRepair>) -> Result<Vec<OwnRepair>, ApiError> {
    let asking = demand::all(&jobs.database.pool).await?;
    let silent = asking.into_iter().flat_map(|(_, asks)| asks.repairs);
    let known: HashSet<Uuid> = told.iter().map(|it| it.lit).collect();
    let new: Vec<OwnRepair> = silent.filter(|it| !known.contains(&it.lit)).collect();
    Ok([told, new].concat())
}

async fn with<T>(
    jobs: &JobService,
    units: DeviceUnits,
    work: impl FnOnce(&Said<'_>, UnitSystem) -> T,
) -> Result<T, ApiError> {
    let shop = jobs.shop_in(units).await?;
    let all = every_repair(jobs, repairs(&shop.facts)).await?;
    let said = Said {
        repairs: &all,
        timed: &timed(&shop.facts),
        learned: &learned(&shop.facts),
        tips: &tips(&shop.facts),
        moves: &moves(&shop.facts),
        faults: &faults(&shop.facts),
        uses: &uses(&shop.facts),
        scraps: &scraps(&shop.facts),
        done_often: shop.shop.done_often.as_deref().unwrap_or_default(),
        coupons: &coupons(&shop.facts),
        left_out: &left_out(&shop.facts),
    };
    Ok(work(&said, shop.shop.units))
}

async fn now(jobs: &JobService, units: DeviceUnits) -> Result<Wall, ApiError> {
    with(jobs, units, wall).await
}

/// A question in words of the trade, answered as far as the cases go.
#[utoipa::path(get, path = "/api/ledger/ask", operation_id = "ask_ledger", params(
    ("words" = String, Query, description = "\"does peening help here?\", up to 200 letters")), responses(
    (status = 200, description = "What the cases say", body = LedgerAnswer),
    (status = 422, description = "It is too long", body = ProblemsBody)))]
#[get("/ask?<words>")]
pub async fn asked(
    jobs: &State<JobService>,
    units: DeviceUnits,
    words: &str,
) -> Result<Json<LedgerAnswer>, ApiError> {
    if words.chars().count() > QUESTION_MOST {
        return Err(
            vec![FieldProblem::new("words", "that is more than a question", "which rod held best?")].into()
        );
    }
    Ok(Json(with(jobs, units, |said, units| ask(words, said, units)).await?))
}

/// The shop's wall: how repairs held, how honest the odds were, what was learned.
#[utoipa::path(get, path = "/api/ledger", operation_id = "show_ledger", responses(
    (status = 200, description = "The wall", body = Wall),
    (status = 500, description = "Something broke in the server", body = ProblemsBody)))]
#[get("/")]
pub async fn show(jobs: &State<JobService>, units: DeviceUnits) -> Result<Json<Wall>, ApiError> {
    let mut wall = now(jobs, units).await?;
    let pictured = coupon_picture::pictured(&jobs.database.pool).await?;
    for coupon in wall.bench.iter_mut().flat_map(|line| &mut line.coupons) {
        coupon.pictured = pictured.contains(&coupon.case);
    }
    Ok(Json(wall))
}

/// What a line stands on.
#[derive(Debug, Serialize, ToSchema)]
pub struct LedgerCases {
    pub cases: Vec<LedgerCase>,
}

/// What a line of it stands on, case by case.
#[utoipa::path(get, path = "/api/ledger/cases", operation_id = "ledger_cases", params(
    ("of" = String, Query, description = "held, split, setting, learned or fault"),
    ("line" = String, Query, description = "What the line is called there"),
    ("words" = Option<String>, Query, description = "Of the answer to this question, not of the wall")), responses(
    (status = 200, description = "Up to 500 of them", body = LedgerCases),
    (status = 404, description = "No such line", body = ProblemsBody)))]
#[get("/cases?<of>&<line>&<words>")]
pub async fn cases(
    jobs: &State<JobService>,
    units: DeviceUnits,
    of: &str,
    line: &str,
    words: Option<&str>,
) -> Result<Json<LedgerCases>, ApiError> {
    let found = match words {
        Some(words) => {
            let words: String = words.chars().take(QUESTION_MOST).collect();
            cases_among(&with(jobs, units, |said, units| ask(&words, said, units)).await?.lines, line)
        }
        None => now(jobs, units).await?.cases_of(of, line),
    };
    found.map(|cases| Json(LedgerCases { cases })).ok_or(ApiError::Unknown("such line"))
}

/// One of its tables, for another program: figures in SI, nobody's name.
#[utoipa::path(get, path = "/api/ledger/{table}", operation_id = "ledger_table", params(
    ("table" = String, Path, description = "repairs.csv, learned.csv, faults.csv, moved.csv, used.csv, honest.csv or coupons.csv")), responses(
    (status = 200, description = "The table", content_type = "text/csv", body = String),
    (status = 404, description = "No such table", body = ProblemsBody)))]
#[get("/<table>")]
pub async fn table(jobs: &State<JobService>, table: &str) -> Result<(ContentType, String), ApiError> {
    let shop = jobs.shop().await?;
    let facts = &shop.facts;
    let metric = DeviceUnits(Some(UnitSystem::Metric));
    let table = match table {
        "repairs.csv" => tables::repairs(every_repair(jobs, repairs(facts)).await?, facts),
        "learned.csv" => tables::learned(&now(jobs, metric).await?),
        "faults.csv" => tables::faults(facts),
        "moved.csv" => tables::moved(facts),
        "used.csv" => tables::used(facts),
        "coupons.csv" => tables::coupons(facts),
        "honest.csv" => tables::honest(&now(jobs, metric).await?),
        _ => return Err(ApiError::Unknown("such table")),
    };
    Ok((ContentType::CSV, table.written()?))
}
