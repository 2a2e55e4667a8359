//! `/api/jobs/<id>/pictures`

use rocket::data::Data;
use rocket::http::{ContentType, Header};
use rocket::tokio::sync::{Semaphore, SemaphorePermit};
use rocket::tokio::task::spawn_blocking;
use rocket::{State, get, post};
use uuid::Uuid;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::field::picture_key;
use vanadin_core::job::{Change, accept, could_be_said};
use vanadin_core::quantity::UnitSystem;

use super::shrink::shrink;
use super::{MOST_MIB, store};
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::{asked, spooled};
use crate::job::route::{known, view};
use crate::job_service::{JobService, NewFact};
use crate::wire::job::JobView;
use crate::wire::shown::Shown;

/// One is opened at a time: what pictures cost in memory is bounded by it, however many come at once.
pub struct Counter(Semaphore);

impl Counter {
    pub fn new() -> Self {
        Self(Semaphore::new(1))
    }

    /// Only what has come waits for its turn.
    ///
    /// # Errors
    /// The program ends.
    pub async fn turn(&self) -> Result<SemaphorePermit<'_>, ApiError> {
        self.0.acquire().await.map_err(|_| anyhow::anyhow!("the counter is closed").into())
    }
}

#[derive(rocket::Responder)]
#[response(status = 200)]
pub struct Jpeg {
    bytes: Vec<u8>,
    content_type: ContentType,
    as_said: Header<'static>,
}

impl Jpeg {
    pub fn of(bytes: Vec<u8>) -> Self {
        let as_said = Header::new("X-Content-Type-Options", "nosniff");
        Self { bytes, content_type: ContentType::JPEG, as_said }
    }
}

/// Keeps a picture of a job and says so in its log. The body is the file itself: JPEG, PNG or WebP, up
/// to 20 MB and 50 million points. It is turned upright, made smaller, and stripped of everything but
/// the picture. Sent twice under one id it is kept once.
#[utoipa::path(post, path = "/api/jobs/{id}/pictures/{picture}", params(
    ("id" = Uuid, Path, description = "The job"),
    ("picture" = Uuid, Path, description = "Made by the client"),
    ("shows" = Option<String>, Query, description = "overall, break, mark, before or after"),
    ("of" = Option<Uuid>, Query, description = "What it proves: what was said at the torch, a look, an answer how it holds, a mark, a crack"),
    ("at_client_ms" = i64, Query, description = "When it was taken by the client's clock, UTC in ms since 1970"),
    ("sent_at_client_ms" = Option<i64>, Query, description = "The client's clock when it sends this"),
    ("who" = Option<String>, Query, description = "Who took it"),
    ("sender" = Option<String>, Query, description = "The browser it comes from"),
    ("folder" = Option<Uuid>, Query, description = "The data folder it was said to")),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"), responses(
    (status = 200, description = "Kept; the job as it stands now", body = JobView),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 408, description = "It did not come", body = ProblemsBody),
    (status = 413, description = "Over 20 MB", body = ProblemsBody),
    (status = 421, description = "Said to another data folder than the one that answers", body = ProblemsBody),
    (status = 422, description = "No picture, a damaged one, or too many points", body = ProblemsBody)))]
#[post(
    "/<id>/pictures/<picture>?<shows>&<of>&<at_client_ms>&<sent_at_client_ms>&<who>&<sender>&<folder>",
    data = "<data>"
)]
#[allow(clippy::too_many_arguments)] // one for each part of the request
pub async fn take_picture(
    jobs: &State<JobService>,
    counter: &State<Counter>,
    id: &str,
    picture: &str,
    shows: Option<&str>,
    of: Option<&str>,
    at_client_ms: Option<&str>,
    sent_at_client_ms: Option<&str>,
    who: Option<&str>,
    sender: Option<&str>,
    folder: Option<&str>,
    data: Data<'_>,
) -> Result<Shown<JobView>, ApiError> {
    let (job, picture) = (known(id)?, known(picture)?);
    let folder: Option<Uuid> = asked("folder", folder, "the id of a data folder")?;
    let of: Option<Uuid> = asked("of", of, "the id of what it proves")?;
    let time = "UTC, in ms since 1970";
    let sent_at_client_ms = asked("sent_at_client_ms", sent_at_client_ms, time)?;
    let at_client_ms = asked("at_client_ms", at_client_ms, time)?
        .ok_or_else(|| vec![FieldProblem::new("at_client_ms", "when it was taken is not said", time)])?;
    if folder.is_some_and(|folder| folder != jobs.database.folder) {
        return Err(ApiError::OtherFolder);
    }
    let stands = jobs.load(job).await?;
    // What would not be taken is not opened either.
    if !stands.job.pictures.iter().any(|known| known.id == picture) {
        let allowed = || stands.plan.allows(&stands.job, jobs.now_ms());
        accept(&stands.job, allowed, &Change::AddPicture { of }, None, "", None)?;
    }
    if let Some(change) = shows.map(|shows| shows_change(picture, shows)) {
        could_be_said(&change).map_err(|problem| vec![problem])?;
    }
    let sent = spooled(data, MOST_MIB, &jobs.database.at).await?;
    let opening = counter.turn().await?;
    let shrunk = spawn_blocking(move || Ok::<_, ApiError>(shrink(&sent.read()?))).await;
    drop(opening);
    let shrunk = shrunk.map_err(anyhow::Error::from)??.map_err(|problem| vec![problem])?;
    jobs.database.write(async |on| store::keep(on, job, picture, &shrunk).await).await?;
    let fact = |id: Uuid, change: Change| NewFact {
        id,
        at_client_ms,
        sent_at_client_ms,
        who: who.unwrap_or_default().to_owned(),
        sender: sender.unwrap_or_default().to_owned(),
        folder,
        base: None,
        change,
    };
    let (added, moved) = match jobs.apply(job, fact(picture, Change::AddPicture { of })).await {
        Ok(said) => said,
        Err(refused) => {
            // A picture of which nothing is said is nobody's.
            jobs.database.write(async |on| store::without_its_word(on, job, picture).await).await?;
            return Err(refused);
        }
    };
    let Some(shows) = shows else { return Ok(view(jobs, &added, moved)) };
    // The second word has an id made from the first: said twice, it is stored once as well.
    let second = Uuid::from_u128(picture.as_u128() ^ 1);
    let (shown, moved) = jobs.apply(job, fact(second, shows_change(picture, shows))).await?;
    Ok(view(jobs, &shown, moved))
}

fn shows_change(picture: Uuid, shows: &str) -> Change {
    Change::Set { key: picture_key(picture, "shows"), typed: shows.to_owned(), shown_in: UnitSystem::Metric }
}

/// A picture as it is kept.
#[utoipa::path(get, path = "/api/jobs/{id}/pictures/{picture}", params(
    ("id" = Uuid, Path, description = "The job"), ("picture" = Uuid, Path, description = "The picture")),
    responses(
    (status = 200, description = "The picture", content_type = "image/jpeg"),
    (status = 404, description = "No such picture", body = ProblemsBody)))]
#[get("/<id>/pictures/<picture>")]
pub async fn show_picture(jobs: &State<JobService>, id: &str, picture: &str) -> Result<Jpeg, ApiError> {
    shown(jobs, id, picture, false).await
}

/// The same, 320 points at its longest side.
#[utoipa::path(get, path = "/api/jobs/{id}/pictures/{picture}/small", params(
    ("id" = Uuid, Path, description = "The job"), ("picture" = Uuid, Path, description = "The picture")),
    responses(
    (status = 200, description = "The picture", content_type = "image/jpeg"),
    (status = 404, description = "No such picture", body = ProblemsBody)))]
#[get("/<id>/pictures/<picture>/small")]
pub async fn show_small_picture(jobs: &State<JobService>, id: &str, picture: &str) -> Result<Jpeg, ApiError> {
    shown(jobs, id, picture, true).await
}

async fn shown(jobs: &State<JobService>, id: &str, picture: &str, small: bool) -> Result<Jpeg, ApiError> {
    let found = store::jpeg(&jobs.database.pool, known(id)?, known(picture)?, small).await?;
    found.map(Jpeg::of).ok_or(ApiError::Unknown("such picture"))
}
