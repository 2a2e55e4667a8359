//! `/api/jobs`

use std::sync::Arc;

use rocket::response::status::NoContent;
use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::field;
use vanadin_core::figure::Moved;
use vanadin_core::iron::{Iron, LookTest};
use vanadin_core::job::{Fact, Job, Telling, duplicate};
use vanadin_core::method::MethodId;
use vanadin_core::plan::{Answer, Plan, Would, answers, available, plan, plan_as_if, status, would};

use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;
use crate::door::helper::Helps;
use crate::job_service::{JobService, NewFact, NewJob, Snapshot, work};
use crate::shop::device_units::DeviceUnits;
use crate::shop::store::{fetched_at_ms, moment};
use crate::wire::job::{At, JobView};
use crate::wire::shown::Shown;

/// A job to be made. The client makes the id: sent twice, made once.
#[derive(Debug, Deserialize, ToSchema)]
pub struct JobToMake {
    pub id: Uuid,
}

/// The log of a job.
#[derive(Debug, Serialize, ToSchema)]
pub struct History {
    /// First fact first.
    pub facts: Vec<Fact>,
    /// Each of them in words, in the units of whoever asks.
    pub told: Vec<String>,
}

/// A job as it stands now, for a page.
pub fn view(jobs: &JobService, snapshot: &Snapshot, moved: Vec<Moved>) -> Shown<JobView> {
    let now_ms = jobs.now_ms();
    let (job, plan) = (&*snapshot.job, &*snapshot.plan);
    let standing = status(job, plan, now_ms);
    let wanted = job.round().get(field::part::WANTED).and_then(|day| fetched_at_ms(&snapshot.shop.shop, day));
    let available = available(job, plan, now_ms, wanted);
    let telling = Telling::new(&snapshot.facts, plan.units);
    let told = snapshot.facts.last().map_or_else(String::new, |last| telling.told(last));
    let (job, plan) = (job.clone(), plan.clone().said());
    let at = At { now_ms, folder: jobs.database.folder, told };
    Shown(JobView::new(job, plan, standing, available, moved, at))
}

/// Makes an empty job.
#[utoipa::path(post, path = "/api/jobs", request_body = JobToMake, responses(
    (status = 200, description = "The job", body = JobView),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/", data = "<body>")]
pub async fn create(
    jobs: &State<JobService>,
    units: DeviceUnits,
    body: Body<JobToMake>,
) -> Result<Shown<JobView>, ApiError> {
    let (id, created_ms) = (body.0?.id, jobs.now_ms());
    let empty = NewJob { id, created_ms, facts: Vec::new(), readings: Vec::new(), pictures: Vec::new() };
    let made = jobs.create(empty).await?;
    Ok(view(jobs, &jobs.in_units(id, made, units).await?, Vec::new()))
}

/// A job of which nothing is known, in the shop as it is: what a page shows of a new one until the server has
/// it. Its id is nobody's.
#[utoipa::path(get, path = "/api/blank", responses((status = 200, description = "The job", body = JobView)))]
#[get("/blank")]
pub async fn blank(jobs: &State<JobService>, units: DeviceUnits) -> Result<Shown<JobView>, ApiError> {
    let shop = jobs.shop_in(units).await?;
    let job = Job::fold(Uuid::nil(), &[]);
    let plan = plan(&job, &shop.shop).said();
    let seen = Snapshot { facts: Arc::default(), job: Arc::new(job), plan: Arc::new(plan), shop };
    Ok(view(jobs, &seen, Vec::new()))
}

/// A job with its plan and what needs a hand.
#[utoipa::path(get, path = "/api/jobs/{id}", params(("id" = Uuid, Path, description = "The job")), responses(
    (status = 200, description = "The job", body = JobView),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>")]
pub async fn show(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
) -> Result<Shown<JobView>, ApiError> {
    Ok(view(jobs, &jobs.load_in(known(id)?, units).await?, Vec::new()))
}

/// Adds a change to a job's log, if it may be.
#[utoipa::path(post, path = "/api/jobs/{id}/facts", params(("id" = Uuid, Path, description = "The job")),
    request_body = NewFact, responses(
    (status = 200, description = "Stored; the job as it stands now, and the figures that moved", body = JobView),
    (status = 403, description = "A helper's phone, and no entry at the torch", body = ProblemsBody),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 409, description = "Somebody else changed it; both values are told", body = ProblemsBody),
    (status = 421, description = "Said to another data folder than the one that answers", body = ProblemsBody),
    (status = 422, description = "Not acceptable, at its field", body = ProblemsBody)))]
#[post("/<id>/facts", data = "<body>")]
pub async fn add_fact(
    jobs: &State<JobService>,
    helps: Helps,
    units: DeviceUnits,
    id: &str,
    body: Body<NewFact>,
) -> Result<Shown<JobView>, ApiError> {
    let fact = body.0?;
    helps.may_say(&fact.change)?;
    let id = known(id)?;
    let (seen, moved) = jobs.apply(id, fact).await?;
    Ok(view(jobs, &jobs.in_units(id, seen, units).await?, moved))
}

/// Everything that was ever said of a job.
#[utoipa::path(get, path = "/api/jobs/{id}/history", params(("id" = Uuid, Path, description = "The job")), responses(
    (status = 200, description = "The log", body = History),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/history")]
pub async fn history(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
) -> Result<Json<History>, ApiError> {
    let seen = jobs.load_in(known(id)?, units).await?;
    let telling = Telling::new(&seen.facts, seen.plan.units);
    let told = seen.facts.iter().map(|fact| telling.told(fact)).collect();
    Ok(Json(History { told, facts: seen.facts.to_vec() }))
}

/// A new job with this one's part, iron and map, and none of its heat.
#[utoipa::path(post, path = "/api/jobs/{id}/copy", params(("id" = Uuid, Path, description = "The job")),
    request_body = JobToMake, responses(
    (status = 200, description = "The copy", body = JobView),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[post("/<id>/copy", data = "<body>")]
pub async fn copy(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
    body: Body<JobToMake>,
) -> Result<Shown<JobView>, ApiError> {
    let (from, new) = (known(id)?, body.0?);
    let created_ms = jobs.now_ms();
    let facts = duplicate(&jobs.load(from).await?.facts, Uuid::new_v4, created_ms);
    let copy = NewJob { id: new.id, created_ms, facts, readings: Vec::new(), pictures: Vec::new() };
    let made = jobs.create(copy).await?;
    Ok(view(jobs, &jobs.in_units(new.id, made, units).await?, Vec::new()))
}

/// Whoever lets a job go types its name.
#[derive(Debug, Deserialize, ToSchema)]
pub struct LetGo {
    pub name: String,
}

/// Deletes a job that was put away, with its readings and pictures. It cannot be taken back.
#[utoipa::path(post, path = "/api/jobs/{id}/let-go", params(("id" = Uuid, Path, description = "The job")),
    request_body = LetGo, responses(
    (status = 204, description = "It is gone"),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 422, description = "It lies on the rack, is hot, or has another name", body = ProblemsBody)))]
#[post("/<id>/let-go", data = "<body>")]
pub async fn let_go(jobs: &State<JobService>, id: &str, body: Body<LetGo>) -> Result<NoContent, ApiError> {
    jobs.delete(known(id)?, &body.0?.name).await?;
    Ok(NoContent)
}

/// What each answer of a test would change.
#[derive(Debug, Serialize, ToSchema)]
pub struct Answers {
    pub test: LookTest,
    /// In the order of the pictures.
    pub answers: Vec<Answer>,
}

/// What each possible answer of a test would change in the plan. Nothing is stored.
#[utoipa::path(get, path = "/api/jobs/{id}/answers/{test}", params(
    ("id" = Uuid, Path, description = "The job"),
    ("test" = String, Path, description = "spark, punch, drill, ring, fracture, file or magnet")), responses(
    (status = 200, description = "The answers", body = Answers),
    (status = 404, description = "No such job or test", body = ProblemsBody)))]
#[get("/<id>/answers/<test>")]
pub async fn what_if(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
    test: &str,
) -> Result<Json<Answers>, ApiError> {
    let test = LookTest::from_id(test).ok_or(ApiError::Unknown("such test"))?;
    let (Snapshot { job, shop, .. }, sims) = (jobs.load_in(known(id)?, units).await?, jobs.sims());
    let answers = work(move || answers(&job, &shop.shop, test, &sims)).await?;
    Ok(Json(Answers { test, answers }))
}

/// The plan as if the iron were known. Nothing is stored.
#[utoipa::path(get, path = "/api/jobs/{id}/as-if/{iron}", params(
    ("id" = Uuid, Path, description = "The job"),
    ("iron" = String, Path, description = "gray, ductile, malleable, white, ni_resist or steel")), responses(
    (status = 200, description = "The plan", body = Plan),
    (status = 404, description = "No such job or iron", body = ProblemsBody)))]
#[get("/<id>/as-if/<iron>")]
pub async fn as_if(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
    iron: &str,
) -> Result<Shown<Plan>, ApiError> {
    let iron = Iron::from_id(iron).ok_or(ApiError::Unknown("such iron"))?;
    let (Snapshot { job, shop, .. }, sims) = (jobs.load_in(known(id)?, units).await?, jobs.sims());
    Ok(Shown(work(move || plan_as_if(&job, &shop.shop, iron, &sims).said()).await?))
}

/// What would have to change for a method to be the first choice: tried, not stored.
#[utoipa::path(get, path = "/api/jobs/{id}/would/{method}", params(
    ("id" = Uuid, Path, description = "The job"),
    ("method" = String, Path, description = "A method's id: torch_braze")), responses(
    (status = 200, description = "The least change", body = Would),
    (status = 404, description = "No such job or method", body = ProblemsBody)))]
#[get("/<id>/would/<method>")]
pub async fn would_be_first(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
    method: &str,
) -> Result<Json<Would>, ApiError> {
    let method = MethodId::from_id(method).ok_or(ApiError::Unknown("such method"))?;
    let (Snapshot { job, shop, .. }, sims) = (jobs.load_in(known(id)?, units).await?, jobs.sims());
    let moment = moment(&shop.shop, &job, jobs.now_ms());
    Ok(Json(work(move || would(&job, &shop.shop, &sims, moment, method)).await?))
}

pub fn known(id: &str) -> Result<Uuid, ApiError> {
    id.parse().map_err(|_| ApiError::Unknown("such job"))
}
