//! For a teacher: a case goes out as a file with its secret sealed, and results come back as files.

use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::iron::Iron;
use vanadin_core::practice::{CaseFile, ResultFile, own};
use vanadin_core::secret::{Hidden, Level, Practised, Truth, open};

use super::results::{self, HandedBack};
use super::route::{end_of, no_practice, taken_in};
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;
use crate::job::route::known;
use crate::job_service::JobService;
use crate::shop::device_units::DeviceUnits;
use crate::wire::job::JobView;
use crate::wire::shown::Shown;

/// A case that is made by hand of a job's part, with what only its maker knows.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CaseToHandOut {
    pub title: String,
    /// What whoever brings the part says.
    pub words: String,
    pub made_by: String,
    pub iron: Iron,
    /// How far each true end lies beyond where the eye sees it, in standard deviations about the mean: -3 to 3.
    pub beyond: f64,
    pub oil: bool,
    pub locked_in: bool,
    pub old_bronze: bool,
    /// A second crack of this length in mm; nothing for none.
    pub hidden_mm: Option<f64>,
    /// Of a hundred such parts so many stand a year as they are: 0 to 1.
    pub left_alone: f64,
}

/// A case that was handed out.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CaseTakenUp {
    pub id: Uuid,
    pub file: CaseFile,
    pub level: Level,
}

/// Who hands a result back.
#[derive(Debug, Serialize, ToSchema)]
pub struct ReadBack {
    /// What learners handed back, the newest first.
    pub results: Vec<HandedBack>,
}

/// Seals a job's part and cracks as a case to be handed out.
#[utoipa::path(post, path = "/api/jobs/{id}/practice/case", operation_id = "hand_out_case",
    params(("id" = Uuid, Path, description = "The job whose part it is")), request_body = CaseToHandOut, responses(
    (status = 200, description = "The file", body = CaseFile),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 422, description = "What cannot be, at its field", body = ProblemsBody)))]
#[post("/jobs/<id>/practice/case", data = "<body>")]
pub async fn hand_out(
    jobs: &State<JobService>,
    id: &str,
    body: Body<CaseToHandOut>,
) -> Result<Json<CaseFile>, ApiError> {
    let (seen, case) = (jobs.load(known(id)?).await?, body.0?);
    if case.title.trim().is_empty() {
        return Err(vec![FieldProblem::new("title", "give it a name", "Bracket, week 3")].into());
    }
    if seen.plan.cracks.is_empty() {
        return Err(
            vec![FieldProblem::new("id", "no crack is on that part yet", "put one on its map")].into()
        );
    }
    let seed = Uuid::new_v4().as_u128() as u32;
    // What a case needs beside its secret is drawn as for one of one's own.
    let base = own(&seen.job, &seen.plan, &seen.shop.shop, seed, Level::Alone);
    let drawn = open(&base.sealed).map_err(|broken| vec![FieldProblem::new("id", broken.words(), "")])?;
    let cracks = drawn
        .cracks
        .iter()
        .map(|crack| vanadin_core::secret::TrueCrack { beyond: [case.beyond; 2], ..*crack });
    let wall_mm = seen.plan.cracks.first().map_or(12.0, |crack| crack.wall_mm);
    let truth = Truth {
        iron: case.iron,
        cracks: cracks.collect(),
        oil: case.oil,
        locked_in: case.locked_in,
        old_bronze: case.old_bronze,
        hidden: case.hidden_mm.map(|length_mm| Hidden { length_mm, wall_mm }),
        left_alone: case.left_alone,
        ..drawn
    };
    truth.possible().map_err(|why| vec![FieldProblem::new("secret", why, "")])?;
    let of = Practised { title: case.title, words: case.words, made_by: case.made_by, ..base };
    Ok(Json(CaseFile::of(&seen.job, of, &truth)))
}

/// Takes up a case that was handed out.
#[utoipa::path(post, path = "/api/practice/case", operation_id = "take_up_case", request_body = CaseTakenUp, responses(
    (status = 200, description = "The practice, as a job", body = JobView),
    (status = 422, description = "It is no case, or not whole, at its place", body = ProblemsBody)))]
#[post("/practice/case", data = "<body>")]
pub async fn take_up(
    jobs: &State<JobService>,
    units: DeviceUnits,
    body: Body<CaseTakenUp>,
) -> Result<Shown<JobView>, ApiError> {
    let CaseTakenUp { id, file, level } = body.0?;
    let facts = file.told(level, Uuid::new_v4, jobs.now_ms()).map_err(|problem| vec![problem])?;
    for fact in &facts {
        vanadin_core::job::could_be_said(&fact.change).map_err(|problem| vec![problem])?;
    }
    taken_in(jobs, units, id, facts).await
}

/// The result of a practice that is over, to be handed back.
#[utoipa::path(get, path = "/api/jobs/{id}/practice/result", operation_id = "hand_back_result", params(
    ("id" = Uuid, Path, description = "The practice"),
    ("who" = Option<String>, Query, description = "Who hands it back")), responses(
    (status = 200, description = "The file", body = ResultFile),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 422, description = "It is no practice, or not over", body = ProblemsBody)))]
#[get("/jobs/<id>/practice/result?<who>")]
pub async fn hand_back(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
    who: Option<&str>,
) -> Result<Json<ResultFile>, ApiError> {
    let id = known(id)?;
    let end = end_of(jobs, units, id).await?;
    let seen = jobs.load(id).await?;
    Ok(Json(ResultFile::of(&seen.job, &end, who.unwrap_or_default()).ok_or_else(no_practice)?))
}

/// Reads a result back; read twice it is kept once.
#[utoipa::path(post, path = "/api/practice/results", operation_id = "read_back_result",
    request_body = ResultFile, responses(
    (status = 200, description = "All that were handed back", body = ReadBack),
    (status = 422, description = "It is no result, or cannot be, at its place", body = ProblemsBody)))]
#[post("/practice/results", data = "<body>")]
pub async fn read_back(jobs: &State<JobService>, body: Body<ResultFile>) -> Result<Json<ReadBack>, ApiError> {
    let result = body.0?;
    result.possible().map_err(|problem| vec![problem])?;
    let now_ms = jobs.now_ms();
    jobs.database.write(async |on| results::keep(on, &result, now_ms).await).await?;
    Ok(Json(ReadBack { results: results::all(&jobs.database.pool).await? }))
}
