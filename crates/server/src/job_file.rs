//! The whole job as one file: `GET /api/jobs/<id>/export`, `POST /api/import`. See docs/job-file.md.

use std::collections::HashSet;

use base64::Engine as _;
use base64::prelude::BASE64_STANDARD;
use rocket::http::Header;
use rocket::serde::json::Json;
use rocket::tokio::task::spawn_blocking;
use rocket::{State, get, post};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::job::{Change, FACTS_MOST, Fact, Importing, Job, Reading};
use vanadin_core::plan::plan;
use vanadin_core::problem::FieldProblem;

use crate::api_error::{ApiError, ProblemsBody};
use crate::bench::{Bench, News};
use crate::body::Body;
use crate::job::route::known;
use crate::job::store;
use crate::picture::shrink::{Shrunk, shrink};
use crate::picture::store as pictures;
use crate::shop::the_shop;
use crate::thermocouple::Thermocouples;

const FORMAT: &str = "vanadin-job";
/// Raised when the shape changes; older files still open.
const VERSION: u32 = 3;
/// A job with all the pictures it may have fits into this.
const MOST_MIB: u64 = 96;

type SentFile = Body<JobFile, { MOST_MIB }>;

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
    /// The pictures the log speaks of; since version 2.
    #[serde(default)]
    pub pictures: Vec<FilePicture>,
}

/// A picture of the job.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct FilePicture {
    /// The fact that added it.
    pub id: Uuid,
    /// The JPEG in base64.
    pub jpeg_base64: String,
}

/// The readings of one round, in the order of time.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct RoundReadings {
    pub readings: Vec<Reading>,
    /// Those of its cancelled lightings, the first first; since version 3.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub cancelled: Vec<Vec<Reading>>,
}

/// Readings of one lighting that a file may hold: a reading each 10 s for a month.
const READINGS_MOST: usize = 260_000;

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
    let pool = &bench.database.pool;
    let (job, facts) = store::load(pool, known(id)?).await?;
    let mut pictures = Vec::new();
    for fact in facts.iter().filter(|fact| fact.change == Change::AddPicture) {
        if let Some(jpeg) = pictures::jpeg(pool, job.id, fact.id, false).await? {
            pictures.push(FilePicture { id: fact.id, jpeg_base64: BASE64_STANDARD.encode(jpeg) });
        }
    }
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
        readings: job
            .rounds
            .into_iter()
            .map(|round| RoundReadings {
                readings: round.readings,
                cancelled: round.cancelled.into_iter().map(|heat| heat.readings).collect(),
            })
            .collect(),
        pictures,
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
    body: SentFile,
) -> Result<Json<Imported>, ApiError> {
    let file = body.0?;
    check(&file)?;
    let (mut file, shrunk) = spawn_blocking(move || {
        let shrunk = shrunk(&file);
        (file, shrunk)
    })
    .await
    .map_err(anyhow::Error::from)?;
    let shrunk = shrunk?;
    file.pictures.clear();
    let id = Uuid::new_v4();
    let pool = &bench.database.pool;
    let now_ms = bench.now_ms();
    let rounds = Job::fold(id, &file.facts).rounds;
    // All of it or nothing.
    bench
        .database
        .write(async |on| {
            store::create(on, id, now_ms).await?;
            store::append(on, id, &file.facts).await?;
            for (round, readings) in rounds.iter().zip(&file.readings) {
                if let Some(lit) = &round.lit {
                    store::add_readings(on, id, lit.fact, &readings.readings).await?;
                }
                for (heat, readings) in round.cancelled.iter().zip(&readings.cancelled) {
                    store::add_readings(on, id, heat.lit.fact, readings).await?;
                }
            }
            for (picture, shrunk) in &shrunk {
                pictures::keep(on, id, *picture, shrunk).await?;
            }
            Ok(())
        })
        .await?;
    let (job, _) = store::load(pool, id).await?;
    let shop = the_shop(pool).await?;
    thermocouples.attend(&job, &plan(&job, &shop), &shop).await;
    bench.tell(News::Changed { job: id, revision: job.revision });
    Ok(Json(Imported { id, name: job.name().to_owned() }))
}

/// The pictures of a file, opened one by one and made harmless as if they had just been taken.
fn shrunk(file: &JobFile) -> Result<Vec<(Uuid, Shrunk)>, Vec<FieldProblem>> {
    let made = |(at, picture): (usize, &FilePicture)| {
        let field = format!("pictures[{at}].jpeg_base64");
        let bytes = BASE64_STANDARD
            .decode(&picture.jpeg_base64)
            .map_err(|_| vec![FieldProblem::new(field.clone(), "this is not base64", "a JPEG in base64")])?;
        let shrunk = shrink(&bytes)
            .map_err(|problem| vec![FieldProblem::new(field, problem.message, problem.would_be_right)])?;
        Ok((picture.id, shrunk))
    };
    file.pictures.iter().enumerate().map(made).collect()
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
    if file.facts.len() > FACTS_MOST {
        return Err(problem("facts".to_owned(), "the log is too long", &format!("up to {FACTS_MOST} facts")));
    }
    let mut seen = HashSet::new();
    let mut importing = Importing::default();
    for (at, fact) in file.facts.iter().enumerate() {
        let field = |name: &str| format!("facts[{at}].{name}");
        if fact.revision != at as u64 + 1 {
            return Err(problem(field("revision"), "the log is not in order", "1, 2, 3 and so on"));
        }
        if !seen.insert(fact.id) {
            return Err(problem(field("id"), "the log says this twice", "each fact once"));
        }
        if let Err(found) = importing.fact(fact) {
            let name = if ["at_client_ms", "at_server_ms", "who", "sender"].contains(&found.field.as_str()) {
                found.field.clone()
            } else {
                "change".to_owned()
            };
            return Err(problem(field(&name), &found.message, &found.would_be_right));
        }
    }
    let taken: HashSet<Uuid> =
        file.facts.iter().filter(|fact| fact.change == Change::AddPicture).map(|fact| fact.id).collect();
    let held: HashSet<Uuid> = file.pictures.iter().map(|picture| picture.id).collect();
    if taken != held || held.len() != file.pictures.len() {
        let right = "one for each that the log adds";
        return Err(problem("pictures".to_owned(), "the pictures and the log do not fit", right));
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
        if readings.cancelled.len() > rounds.get(round).map_or(0, |round| round.cancelled.len()) {
            let field = format!("readings[{round}].cancelled");
            return Err(problem(field, "more lightings were read than cancelled", "one list for each"));
        }
        let lists = || std::iter::once(&readings.readings).chain(&readings.cancelled);
        if lists().any(|list| list.len() > READINGS_MOST) {
            let field = format!("readings[{round}]");
            return Err(problem(field, "there are too many readings", &format!("up to {READINGS_MOST}")));
        }
        for (at, reading) in lists().flatten().enumerate() {
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
