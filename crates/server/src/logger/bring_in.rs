//! `POST /api/jobs/<id>/readings/file`: a logger's file, looked at first, then kept, or taken out again.

use jiff::tz::TimeZone;
use rocket::serde::json::Json;
use rocket::{State, post};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::{FieldProblem, OutOfRange};
use vanadin_core::job::{CHANNELS, Lit, Recorded};

use super::file::{FileColumn, LoggerFile};
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;
use crate::job::route::known;
use crate::job::store;
use crate::job_service::JobService;
use crate::thermocouple::Thermocouples;

/// What is done with the file.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FileDone {
    LookedAt,
    Kept,
    /// What was kept of it is taken out again.
    TakenOut,
}

#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FileRequest {
    /// The file itself.
    pub text: String,
    pub done: FileDone,
    /// Which column, by its place in a row; the first where nobody has said.
    pub column: Option<usize>,
    /// `celsius` or `fahrenheit`: needed where its head does not say.
    pub unit: Option<String>,
    /// Minutes on the job clock at which its first row was read; by its own clock where nobody has said.
    pub first_min: Option<f64>,
    /// The channel it was, 1 to 4; the first where nobody has said.
    pub channel: Option<u8>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct FileSeen {
    pub columns: Vec<FileColumn>,
    pub rows: usize,
    pub lasts_min: f64,
    /// Minutes on the job clock at which its first row was read, by its own clock, to a tenth; nothing where that says no
    /// day.
    pub first_min: Option<f64>,
    /// Of the column chosen, as it lies on the job clock: (min, °C), thinned.
    pub lies: Vec<(f64, f64)>,
    /// Rows that were read before it was lit, or have not come yet: they are left out.
    pub left_out: usize,
    /// How many were kept, or taken out.
    pub changed: usize,
}

/// Points that show how it lies. Ours.
const SHOWN: usize = 200;

/// A logger's file is laid on the job clock of the last lighting.
#[utoipa::path(post, path = "/api/jobs/{id}/readings/file", operation_id = "bring_in_readings",
    params(("id" = String, Path, description = "The job")), request_body = FileRequest, responses(
    (status = 200, description = "How it lies", body = FileSeen),
    (status = 400, description = "Not JSON", body = ProblemsBody),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 408, description = "It did not come", body = ProblemsBody),
    (status = 413, description = "Too large", body = ProblemsBody),
    (status = 415, description = "Not JSON", body = ProblemsBody),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/<id>/readings/file", data = "<body>")]
pub async fn bring_in_readings(
    id: &str,
    body: Body<FileRequest, 16>,
    jobs: &State<JobService>,
    pads: &State<Thermocouples>,
) -> Result<Json<FileSeen>, ApiError> {
    let job = known(id)?;
    let request = body.0?;
    let seen = jobs.load(job).await?;
    let Some(lit) = seen.job.heat().map(|heat| heat.lit.clone()) else {
        let right = "light up first";
        return Err(problem("job", "it was never lit: there is no clock to lay this on", right));
    };
    let file = LoggerFile::read(&request.text).map_err(|problem| ApiError::NotAcceptable(vec![problem]))?;
    let by_itself = by_its_own_clock(&file, &lit, &seen.shop.shop.time_zone);
    let now_min = lit.minutes(jobs.now_ms());
    let column = match request.column {
        None => &file.columns[0],
        Some(at) => match file.columns.iter().find(|column| column.at == at) {
            Some(column) => column,
            None => return Err(problem("column", "there is no such column", "one of those that are shown")),
        },
    };
    let fahrenheit = match (request.unit.as_deref(), column.unit.as_deref(), request.done) {
        (Some("fahrenheit"), _, _) | (None, Some("fahrenheit"), _) => true,
        (Some("celsius"), _, _) | (None, Some(_), _) | (None, None, FileDone::LookedAt) => false,
        (Some(_), _, _) => return Err(problem("unit", "that is no unit", "celsius or fahrenheit")),
        (None, None, _) => return Err(problem("unit", "its head says no unit", "celsius or fahrenheit")),
    };
    if let Some(first) = request.first_min {
        OutOfRange::check("its first row", "min", (-525_600.0, 525_600.0), first)
            .map_err(|out| ApiError::NotAcceptable(vec![out.at("first_min")]))?;
    }
    let channel = request.channel.unwrap_or(*CHANNELS.start());
    if !CHANNELS.contains(&channel) {
        return Err(problem("channel", "a logger has no such channel", "1 to 4"));
    }
    let first_min = request.first_min.or(by_itself).unwrap_or(0.0);
    let all = file.readings(column.at, fahrenheit);
    let lies: Vec<Recorded> = all
        .iter()
        .map(|(minutes, celsius)| Recorded {
            minutes: ((minutes + first_min) * 600.0).round() / 600.0,
            celsius: *celsius,
            channel,
        })
        .filter(|reading| reading.minutes >= 0.0 && reading.minutes <= now_min)
        .collect();
    let changed = match request.done {
        FileDone::LookedAt => 0,
        FileDone::Kept => {
            if lies.is_empty() {
                return Err(problem(
                    "first_min",
                    "none of it lies between lighting up and now",
                    "another moment",
                ));
            }
            // What is measured is not mixed with what is made up.
            pads.leave(job, lit.fact).await;
            jobs.database.write(async |on| store::add_readings(on, job, lit.fact, &lies).await).await?
        }
        FileDone::TakenOut => {
            jobs.database.write(async |on| store::take_out_readings(on, job, lit.fact, &lies).await).await?
        }
    };
    if changed > 0 {
        jobs.reload_readings(job).await;
    }
    let every = lies.len().div_ceil(SHOWN).max(1);
    Ok(Json(FileSeen {
        rows: file.len(),
        lasts_min: file.lasts_min(),
        first_min: by_itself.map(|minutes| (minutes * 10.0).round() / 10.0),
        lies: lies.iter().step_by(every).map(|it| (it.minutes, it.celsius)).collect(),
        left_out: all.len() - lies.len(),
        changed,
        columns: file.columns,
    }))
}

fn problem(field: &str, message: &str, right: &str) -> ApiError {
    ApiError::NotAcceptable(vec![FieldProblem::new(field, message, right)])
}

/// Minutes on the job clock at which its first row was read, in the shop's time.
fn by_its_own_clock(file: &LoggerFile, lit: &Lit, zone: &str) -> Option<f64> {
    let zone = TimeZone::get(zone).ok()?;
    let first = file.first?.to_zoned(zone).ok()?;
    Some(lit.minutes(first.timestamp().as_millisecond()))
}
