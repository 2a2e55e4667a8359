//! The whole job as one file: `GET /api/jobs/<id>/export`, `POST /api/import`. See docs/job-file.md.

use std::collections::{HashMap, HashSet};
use std::convert::Infallible;
use std::fmt;
use std::marker::PhantomData;

use base64::Engine as _;
use base64::prelude::BASE64_STANDARD;
use rocket::data::{Data, FromData, Outcome};
use rocket::http::Header;
use rocket::serde::json::Json;
use rocket::tokio::sync::{Semaphore, SemaphorePermit};
use rocket::tokio::task::spawn_blocking;
use rocket::{Request, State, get, post};
use serde::de::{Error as _, SeqAccess, Visitor};
use serde::{Deserialize, Deserializer, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::job::{
    CHANNELS, Change, FACTS_MOST, Fact, Importing, Job, Parsed, Recorded, every_channel,
};

use crate::api_error::{ApiError, ProblemsBody};
use crate::body::{is_json, spooled, understand};
use crate::job::route::known;
use crate::job_service::{JobService, NewJob, Snapshot};
use crate::picture::shrink::{Shrunk, shrink};
use crate::picture::store as pictures;
use crate::rack::projection::has_name;
use crate::shop::store::today_in;

const FORMAT: &str = "vanadin-job";
/// Raised when the shape changes; older files still open.
const VERSION: u32 = 19;
/// A job with all the pictures it may have fits into this.
const MOST_MIB: u64 = 96;

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
    #[serde(deserialize_with = "at_most::<_, _, FACTS_MOST>")]
    pub facts: Vec<Fact>,
    /// What the thermocouple recorded, first round first.
    #[serde(default, deserialize_with = "at_most::<_, _, FACTS_MOST>")]
    pub readings: Vec<RoundReadings>,
    /// The pictures the log speaks of; since version 2.
    #[serde(default, deserialize_with = "at_most::<_, _, FACTS_MOST>")]
    pub pictures: Vec<FilePicture>,
}

impl JobFile {
    /// The job that it holds, under this id.
    pub fn job(self, id: Uuid) -> Job {
        let mut job = Job::fold(id, &self.facts);
        let mut of: HashMap<Uuid, Vec<Recorded>> = by_lighting(&job, self.readings).collect();
        job.record(|lit| of.remove(&lit).unwrap_or_default());
        job
    }
}

/// What was read, by the fact that lit it.
fn by_lighting(job: &Job, read: Vec<RoundReadings>) -> impl Iterator<Item = (Uuid, Vec<Recorded>)> {
    job.rounds.iter().zip(read).flat_map(|(round, read)| {
        let before = round.cancelled.iter().map(|heat| heat.lit.fact).zip(read.cancelled);
        round.lit.as_ref().map(|lit| (lit.fact, read.readings)).into_iter().chain(before)
    })
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
    #[serde(deserialize_with = "at_most::<_, _, READINGS_MOST>")]
    pub readings: Vec<Recorded>,
    /// Those of its cancelled lightings, the first first; since version 3.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub cancelled: Vec<Vec<Recorded>>,
}

/// Readings of one lighting that a file may hold: a reading each 10 s for a month.
const READINGS_MOST: usize = 260_000;

/// A list that is read no further than it may be long.
fn at_most<'de, D: Deserializer<'de>, T: Deserialize<'de>, const MOST: usize>(
    from: D,
) -> Result<Vec<T>, D::Error> {
    struct AtMost<T, const MOST: usize>(PhantomData<T>);
    impl<'de, T: Deserialize<'de>, const MOST: usize> Visitor<'de> for AtMost<T, MOST> {
        type Value = Vec<T>;

        fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
            write!(f, "a list of up to {MOST}")
        }

        fn visit_seq<A: SeqAccess<'de>>(self, mut list: A) -> Result<Self::Value, A::Error> {
            let mut read = Vec::new();
            while let Some(next) = list.next_element()? {
                if read.len() == MOST {
                    return Err(A::Error::custom(format!("there are more than {MOST}")));
                }
                read.push(next);
            }
            Ok(read)
        }
    }
    from.deserialize_seq(AtMost::<T, MOST>(PhantomData))
}

/// Files are taken in one at a time: what one costs in memory is bounded by its size.
pub struct OneFile(Semaphore);

impl OneFile {
    pub fn new() -> Self {
        Self(Semaphore::new(1))
    }
}

/// A job's file, and the turn to take one in.
pub struct SentFile<'r> {
    file: JobFile,
    _turn: SemaphorePermit<'r>,
}

/// What was sent in a turn of its own, or why it cannot be used.
pub struct Sent<'r>(Result<SentFile<'r>, ApiError>);

async fn sent<'r>(request: &'r Request<'_>, data: Data<'r>) -> Result<SentFile<'r>, ApiError> {
    let (one, jobs) = (request.rocket().state::<OneFile>(), request.rocket().state::<JobService>());
    let (Some(one), Some(jobs)) = (one, jobs) else { return Err(ApiError::Unknown("desk")) };
    if !is_json(request) {
        return Err(ApiError::NotJson);
    }
    let sent = spooled(data, MOST_MIB, &jobs.database.at).await?;
    // Only what has come waits for its turn.
    let turn = one.0.acquire().await.map_err(|_| anyhow::anyhow!("no file is taken in any more"))?;
    Ok(SentFile { file: understand(&sent.read()?)?, _turn: turn })
}

#[rocket::async_trait]
impl<'r> FromData<'r> for Sent<'r> {
    type Error = Infallible;

    async fn from_data(request: &'r Request<'_>, data: Data<'r>) -> Outcome<'r, Self> {
        Outcome::Success(Self(sent(request, data).await))
    }
}

#[derive(Debug, Serialize, ToSchema)]
pub struct Imported {
    pub id: Uuid,
    pub name: String,
    /// There was a job of this name already: it stays as it is, this one lies beside it.
    pub beside_another: bool,
}

#[derive(rocket::Responder)]
pub struct Download {
    file: Json<JobFile>,
    disposition: Header<'static>,
}

/// The whole job as one file. Without its pictures it is smaller, to be looked at: it cannot be opened again as a job.
#[utoipa::path(get, path = "/api/jobs/{id}/export", params(
    ("id" = Uuid, Path, description = "The job"),
    ("pictures" = Option<String>, Query, description = "`no` leaves the pictures out")), responses(
    (status = 200, description = "The file", body = JobFile),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/export?<pictures>")]
pub async fn export(
    jobs: &State<JobService>,
    id: &str,
    pictures: Option<&str>,
) -> Result<Download, ApiError> {
    let with_pictures = pictures != Some("no");
    let pool = &jobs.database.pool;
    let Snapshot { job, facts, .. } = jobs.load(known(id)?).await?;
    let mut pictures = Vec::new();
    for fact in facts.iter().filter(|fact| with_pictures && takes_a_picture(fact)) {
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
        facts: facts.to_vec(),
        readings: job
            .rounds
            .iter()
            .map(|round| RoundReadings {
                readings: every_channel(&round.readings, &round.others),
                cancelled: round
                    .cancelled
                    .iter()
                    .map(|heat| every_channel(&heat.readings, &heat.others))
                    .collect(),
            })
            .collect(),
        pictures,
    };
    let practice = if job.practice.is_some() { "practice-" } else { "" };
    let disposition = format!("attachment; filename=\"{practice}{plain}.vanadin.json\"");
    Ok(Download { file: Json(file), disposition: Header::new("Content-Disposition", disposition) })
}

/// Opens a job's file as a new job; it never replaces one.
#[utoipa::path(post, path = "/api/import", request_body = JobFile, responses(
    (status = 200, description = "The new job", body = Imported),
    (status = 413, description = "Too large", body = ProblemsBody),
    (status = 422, description = "Damaged, or not a job's file", body = ProblemsBody)))]
#[post("/", data = "<sent>")]
pub async fn import(jobs: &State<JobService>, sent: Sent<'_>) -> Result<Json<Imported>, ApiError> {
    let SentFile { file, _turn } = sent.0?;
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
    // What a file says was understood is for whoever reads the file: it keeps the limits of the door.
    let shop = jobs.shop().await?;
    for fact in &mut file.facts {
        fact.understood = Parsed::of(&fact.change, today_in(&shop.shop, fact.at_client_ms));
    }
    let job = Job::fold(id, &file.facts);
    let beside_another = has_name(&jobs.database.pool, job.name()).await?;
    let readings = by_lighting(&job, file.readings).collect();
    let created_ms = jobs.now_ms();
    let new = NewJob { id, created_ms, facts: file.facts, readings, pictures: shrunk };
    let seen = jobs.create(new).await?;
    Ok(Json(Imported { id, name: seen.job.name().to_owned(), beside_another }))
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
        file.facts.iter().filter(|fact| takes_a_picture(fact)).map(|fact| fact.id).collect();
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
            let possible = CHANNELS.contains(&reading.channel)
                && (0.0..=525_600.0).contains(&reading.minutes)
                && (-60.0..=1500.0).contains(&reading.celsius);
            if !possible {
                let field = format!("readings[{round}].readings[{at}]");
                return Err(problem(
                    field,
                    "no part was ever like this",
                    "minutes from lighting up, degC, channel 1 to 4",
                ));
            }
        }
    }
    Ok(())
}

fn takes_a_picture(fact: &Fact) -> bool {
    matches!(fact.change, Change::AddPicture { .. })
}
