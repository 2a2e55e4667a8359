//! `POST /api/jobs/<id>/readings`: the lines of a logger, with the shop's token.

use std::net::IpAddr;

use rocket::data::Data;
use rocket::request::{FromRequest, Outcome};
use rocket::serde::json::Json;
use rocket::{Request, State, post};
use serde::Serialize;
use utoipa::ToSchema;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::job::Recorded;

use super::lines::{LoggerLine, ReadWhen, lines};
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::received;
use crate::door::known::{Door, bearer};
use crate::job::route::known;
use crate::job_service::{JobService, News};
use crate::proxy::ClientAddresses;
use crate::shop::logger_key::is_the_key;
use crate::thermocouple::Thermocouples;

/// What was kept of what a logger sent.
#[derive(Debug, Serialize, ToSchema)]
pub struct KeptReadings {
    pub kept: usize,
    /// Minutes on the job clock by now.
    pub job_min: f64,
}

/// The token that came with it, `Authorization: Bearer ...`, and from where.
pub struct Token {
    key: String,
    from: Option<IpAddr>,
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Token {
    type Error = std::convert::Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        let key = bearer(request).unwrap_or_default().to_owned();
        Outcome::Success(Self { key, from: ClientAddresses::of(request).map(|from| from.ip()) })
    }
}

/// Readings, one a line: `minutes_or_time,channel,celsius`. Channel 1 lies at the coldest far corner, what the others
/// lie on is said on Heat. An instrument that knows for which lighting it reads says so: of another nothing is taken.
#[utoipa::path(post, path = "/api/jobs/{id}/readings", operation_id = "log_readings",
    params(("id" = String, Path, description = "The job"),
        ("lit" = Option<String>, Query, description = "The lighting that is read, as the job names it"),
        ("Authorization" = String, Header, description = "Bearer and the shop's token")),
    request_body(content = String, content_type = "text/csv"), responses(
    (status = 200, description = "How many were kept", body = KeptReadings),
    (status = 401, description = "Not the shop's token", body = ProblemsBody),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 408, description = "It did not come", body = ProblemsBody),
    (status = 413, description = "Over 1 MB", body = ProblemsBody),
    (status = 422, description = "Not acceptable", body = ProblemsBody),
    (status = 429, description = "Not the shop's token, too often", body = ProblemsBody)))]
#[post("/<id>/readings?<lit>", data = "<data>")]
pub async fn log_readings(
    id: &str,
    lit: Option<&str>,
    token: Token,
    data: Data<'_>,
    jobs: &State<JobService>,
    door: &State<Door>,
    pads: &State<Thermocouples>,
) -> Result<Json<KeptReadings>, ApiError> {
    const MOST_MIB: u64 = 1;
    /// House: the clocks of a logger and of this machine may differ by so much.
    const AHEAD_MIN: f64 = 2.0;
    let (job, of) = (known(id)?, lit);
    let shop = jobs.shop().await?;
    let made_up = pads.is_theirs(&token.key);
    if !made_up {
        // A key is not guessed at either.
        let tried = door.tries(token.from)?;
        if !is_the_key(&shop.values, &token.key) {
            return Err(ApiError::Closed);
        }
        tried.was_right();
    }
    let sent = received(data, MOST_MIB).await?;
    let text = String::from_utf8(sent).map_err(|_| {
        ApiError::NotAcceptable(vec![FieldProblem::new("lines", "it is no text", "lines of CSV, UTF-8")])
    })?;
    let sent = lines(&text).map_err(ApiError::NotAcceptable)?;
    let seen = jobs.load(job).await?;
    let Some(lit) = seen.job.round().lit.as_ref() else {
        let problem =
            FieldProblem::new("job", "it is not lit: there is no clock to lay this on", "light up first");
        return Err(ApiError::NotAcceptable(vec![problem]));
    };
    if of.is_some_and(|of| of != lit.fact.to_string()) {
        let problem = FieldProblem::new("lit", "another lighting is under way", "the one that is");
        return Err(ApiError::NotAcceptable(vec![problem]));
    }
    if made_up && pads.has_left(job, lit.fact).await {
        let problem = FieldProblem::new("lit", "a logger of the shop reads it", "nothing that is made up");
        return Err(ApiError::NotAcceptable(vec![problem]));
    }
    let now_min = lit.minutes(jobs.now_ms());
    let mut problems = Vec::new();
    let mut readings: Vec<Recorded> = Vec::new();
    for (at, LoggerLine { when, channel, celsius }) in sent.into_iter().enumerate() {
        let minutes = match when {
            ReadWhen::Minutes(minutes) => minutes,
            ReadWhen::At(at_ms) => lit.minutes(at_ms),
        };
        let mut wrong = |message: String, right: &str| {
            problems.push(FieldProblem::new(format!("reading[{}]", at + 1), message, right));
        };
        if minutes < 0.0 {
            wrong("it was read before the part was lit".to_owned(), "a time since then");
        } else if minutes > now_min + AHEAD_MIN {
            wrong(format!("{minutes:.1} min have not come yet"), "now, or earlier");
        } else {
            readings.push(Recorded { minutes: (minutes * 600.0).round() / 600.0, celsius, channel });
        }
    }
    if !problems.is_empty() {
        return Err(ApiError::NotAcceptable(problems));
    }
    // What is measured is not mixed with what is made up.
    let lit = lit.fact;
    if !made_up {
        pads.leave(job, lit).await;
    }
    jobs.add_readings(job, lit, &readings).await?;
    let seen = jobs.load(job).await?;
    if let Some(live) = seen.live(now_min) {
        jobs.notify(News::Reading { job, now_min, live: Box::new(live) });
    }
    Ok(Json(KeptReadings { kept: readings.len(), job_min: now_min }))
}
