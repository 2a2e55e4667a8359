//! The whole job as one file: `GET /api/jobs/<id>/export`, `POST /api/import`. See docs/job-file.md.

use std::collections::HashSet;

use rocket::http::Header;
use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::job::{Fact, Job, Reading, importable};
use vanadin_core::plan::plan;
use vanadin_core::problem::FieldProblem;

use crate::api_error::{ApiError, ProblemsBody};
use crate::bench::{Bench, News};
use crate::body::Body;
use crate::job::route::known;
use crate::job::store;
use crate::shop::the_shop;
use crate::thermocouple::Thermocouples;

const FORMAT: &str = "vanadin-job";
/// Raised when the shape changes; older files still open.
const VERSION: u32 = 1;

/// A job's file.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct JobFile {
    /// Always `vanadin-job`.
    pub format: String,
    pub version: u32,
    /// For the reader of the file only.
    #[serde(default)]
    pub name: String,
    /// The log, first fact first.
    pub facts: Vec<Fact>,
    /// What the thermocouple recorded, first round first.
    #[serde(default)]
    pub readings: Vec<RoundReadings>,
}

/// The readings of one round, in the order of time.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct RoundReadings {
    pub readings: Vec<Reading>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct Imported {
    pub id: Uuid,
    pub name: String,
}

#[derive(rocket::Responder)]
pub struct Download {
    file: Json<JobFile>,
    disposition: Header<'static>,
}

/// The whole job as one file.
#[utoipa::path(get, path = "/api/jobs/{id}/export", params(("id" = Uuid, Path, description = "The job")), responses(
    (status = 200, description = "The file", body = JobFile),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/export")]
pub async fn export(bench: &State<Bench>, id: &str) -> Result<Download, ApiError> {
    let (job, facts) = store::load(&bench.database.pool, known(id)?).await?;
    let plain: String = job
        .name()
        .chars()
        .map(|c| if c.is_ascii_alphanumeric() { c.to_ascii_lowercase() } else { '-' })
        .collect();
    let file = JobFile {
        format: FORMAT.to_owned(),
        version: VERSION,
        name: job.name().to_owned(),
        facts,
        readings: job.rounds.into_iter().map(|round| RoundReadings { readings: round.readings }).collect(),
    };
    let disposition = format!("attachment; filename=\"{plain}.vanadin.json\"");
    Ok(Download { file: Json(file), disposition: Header::new("Content-Disposition", disposition) })
}

/// Opens a job's file as a new job; it never replaces one.
#[utoipa::path(post, path = "/api/import", request_body = JobFile, responses(
    (status = 200, description = "The new job", body = Imported),
    (status = 413, description = "Too large", body = ProblemsBody),
    (status = 422, description = "Damaged, or not a job's file", body = ProblemsBody)))]
#[post("/", data = "<body>")]
pub async fn import(
    bench: &State<Bench>,
    thermocouples: &State<Thermocouples>,
    body: Body<JobFile>,
) -> Result<Json<Imported>, ApiError> {
    let file = body.0?;
    check(&file)?;
    let id = Uuid::new_v4();
    let pool = &bench.database.pool;
    let writing = bench.writing().await;
    store::create(pool, id, Bench::now_ms()).await?;
    store::append(pool, id, &file.facts).await?;
    for (round, readings) in Job::fold(id, &file.facts).rounds.iter().zip(&file.readings) {
        if let Some(lit) = &round.lit {
            store::add_readings(pool, id, lit.fact, &readings.readings).await?;
        }
    }
    drop(writing);
    let (job, _) = store::load(pool, id).await?;
    let shop = the_shop(pool).await?;
    thermocouples.attend(&job, &plan(&job, &shop), &shop);
    bench.tell(News::Changed { job: id, revision: job.revision });
    Ok(Json(Imported { id, name: job.name().to_owned() }))
}

/// Nothing is stored of a file with anything wrong in it.
fn check(file: &JobFile) -> Result<(), Vec<FieldProblem>> {
    let problem = |field: String, message: &str, right: &str| vec![FieldProblem::new(field, message, right)];
    if file.format != FORMAT {
        return Err(problem("format".to_owned(), "this is not a job's file", FORMAT));
    }
    if file.version == 0 || file.version > VERSION {
        let right = format!("up to version {VERSION}");
        return Err(problem("version".to_owned(), "this file is of a newer Vanadin", &right));
    }
    let mut seen = HashSet::new();
    for (at, fact) in file.facts.iter().enumerate() {
        let field = |name: &str| format!("facts[{at}].{name}");
        if fact.revision != at as u64 + 1 {
            return Err(problem(field("revision"), "the log is not in order", "1, 2, 3 and so on"));
        }
        if !seen.insert(fact.id) {
            return Err(problem(field("id"), "the log says this twice", "each fact once"));
        }
        if let Err(found) = importable(&fact.change) {
            return Err(problem(field("change"), &found.message, &found.would_be_right));
        }
    }
    let rounds = Job::fold(Uuid::nil(), &file.facts).rounds;
    if file.readings.len() > rounds.len() {
        return Err(problem("readings".to_owned(), "there are more rounds of readings than rounds", ""));
    }
    let unlit = rounds
        .iter()
        .zip(&file.readings)
        .position(|(round, it)| round.lit.is_none() && !it.readings.is_empty());
    if let Some(round) = unlit {
        return Err(problem(format!("readings[{round}]"), "this round was not lit", "no readings"));
    }
    for (round, readings) in file.readings.iter().enumerate() {
        for (at, reading) in readings.readings.iter().enumerate() {
            let possible =
                (0.0..=525_600.0).contains(&reading.minutes) && (-60.0..=1500.0).contains(&reading.celsius);
            if !possible {
                let field = format!("readings[{round}].readings[{at}]");
                return Err(problem(field, "no part was ever like this", "minutes from lighting up, degC"));
            }
        }
    }
    Ok(())
}
