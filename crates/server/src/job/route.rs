//! `/api/jobs`

use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::figure::{Moved, moved};
use vanadin_core::iron::{Iron, LookTest};
use vanadin_core::job::{Change, Fact, Job, accept, duplicate};
use vanadin_core::plan::{Answer, FrozenPlan, Plan, answers, available, plan, plan_as_if, standing};
use vanadin_core::problem::FieldProblem;

use super::store;
use super::view::JobView;
use crate::api_error::{ApiError, ProblemsBody};
use crate::bench::{Bench, News};
use crate::body::Body;
use crate::picture::route::must_be_kept;
use crate::shop::{shop_clock, the_shop};
use crate::thermocouple::Thermocouples;

/// A job to be made. The client makes the id: sent twice, made once.
#[derive(Debug, Deserialize, ToSchema)]
pub struct NewJob {
    pub id: Uuid,
}

/// A change to a job.
#[derive(Debug, Deserialize, ToSchema)]
pub struct NewFact {
    /// Made by the client: sent twice, stored once.
    pub id: Uuid,
    /// When it happened by the client's clock, UTC in ms since 1970.
    pub at_client_ms: i64,
    #[serde(default)]
    pub who: String,
    /// The revision of what it replaces, as last seen; nothing to replace whatever stands.
    #[serde(default)]
    pub base: Option<u64>,
    pub change: Change,
}

/// The log of a job.
#[derive(Debug, Serialize, ToSchema)]
pub struct History {
    /// First fact first.
    pub facts: Vec<Fact>,
}

async fn view(bench: &Bench, job: Job, moved: Vec<Moved>) -> Result<Json<JobView>, ApiError> {
    let shop = the_shop(&bench.database.pool).await?;
    let plan = plan(&job, &shop);
    let now_ms = Bench::now_ms();
    let standing = standing(&job, &plan, now_ms);
    let available = available(&job, &plan, shop_clock(&shop, now_ms));
    Ok(Json(JobView::new(job, plan, standing, available, moved, now_ms)))
}

/// Makes an empty job.
#[utoipa::path(post, path = "/api/jobs", request_body = NewJob, responses(
    (status = 200, description = "The job", body = JobView),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/", data = "<body>")]
pub async fn create(bench: &State<Bench>, body: Body<NewJob>) -> Result<Json<JobView>, ApiError> {
    let new = body.0?;
    let pool = &bench.database.pool;
    store::create(pool, new.id, Bench::now_ms()).await?;
    bench.tell(News::Changed { job: new.id, revision: 0 });
    let (job, _) = store::load(pool, new.id).await?;
    view(bench, job, Vec::new()).await
}

/// A job with its plan and what needs a hand.
#[utoipa::path(get, path = "/api/jobs/{id}", params(("id" = Uuid, Path, description = "The job")), responses(
    (status = 200, description = "The job", body = JobView),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>")]
pub async fn show(bench: &State<Bench>, id: &str) -> Result<Json<JobView>, ApiError> {
    let (job, _) = store::load(&bench.database.pool, known(id)?).await?;
    view(bench, job, Vec::new()).await
}

/// Adds a change to a job's log, if it may be.
#[utoipa::path(post, path = "/api/jobs/{id}/facts", params(("id" = Uuid, Path, description = "The job")),
    request_body = NewFact, responses(
    (status = 200, description = "Stored; the job as it stands now, and the figures that moved", body = JobView),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 409, description = "Somebody else changed it; both values are told", body = ProblemsBody),
    (status = 422, description = "Not acceptable, at its field", body = ProblemsBody)))]
#[post("/<id>/facts", data = "<body>")]
pub async fn add_fact(
    bench: &State<Bench>,
    thermocouples: &State<Thermocouples>,
    id: &str,
    body: Body<NewFact>,
) -> Result<Json<JobView>, ApiError> {
    let (id, new) = (known(id)?, body.0?);
    if new.change == Change::AddPicture {
        must_be_kept(bench, id, new.id).await?;
    }
    add(bench, thermocouples, id, new).await
}

/// Adds a change to a job's log, if it may be; once, however often it is sent.
pub async fn add(
    bench: &State<Bench>,
    thermocouples: &State<Thermocouples>,
    id: Uuid,
    mut new: NewFact,
) -> Result<Json<JobView>, ApiError> {
    let pool = &bench.database.pool;
    if new.who.chars().count() > 80 {
        return Err(vec![FieldProblem::new("who", "that name is too long", "up to 80 letters")].into());
    }
    let writing = bench.writing().await;
    let (job, mut facts) = store::load(pool, id).await?;
    if facts.iter().any(|fact| fact.id == new.id) {
        drop(writing);
        return view(bench, job, Vec::new()).await;
    }
    let shop = the_shop(pool).await?;
    let was = plan(&job, &shop);
    accept(&job, &was, &new.change, new.base)?;
    if let Change::Light { frozen, .. } = &mut new.change {
        *frozen = Some(Box::new(FrozenPlan::of(&was)));
    }
    let fact = Fact {
        id: new.id,
        revision: job.revision + 1,
        at_client_ms: new.at_client_ms,
        at_server_ms: Bench::now_ms(),
        who: new.who,
        change: new.change,
    };
    store::append(pool, id, std::slice::from_ref(&fact)).await?;
    drop(writing);
    facts.push(fact);
    let mut changed = Job::fold(id, &facts);
    for (round, before) in changed.rounds.iter_mut().zip(job.rounds) {
        // A lighting that is cancelled takes its readings along.
        if round.lit.as_ref().map(|lit| lit.fact) == before.lit.as_ref().map(|lit| lit.fact) {
            round.readings = before.readings;
        }
    }
    let now = plan(&changed, &shop);
    thermocouples.attend(&changed, &now, &shop);
    bench.tell(News::Changed { job: id, revision: changed.revision });
    let moved = moved(&was.figures, &now.figures);
    let now_ms = Bench::now_ms();
    let standing = standing(&changed, &now, now_ms);
    let available = available(&changed, &now, shop_clock(&shop, now_ms));
    Ok(Json(JobView::new(changed, now, standing, available, moved, now_ms)))
}

/// Everything that was ever said of a job.
#[utoipa::path(get, path = "/api/jobs/{id}/history", params(("id" = Uuid, Path, description = "The job")), responses(
    (status = 200, description = "The log", body = History),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/history")]
pub async fn history(bench: &State<Bench>, id: &str) -> Result<Json<History>, ApiError> {
    let (_, facts) = store::load(&bench.database.pool, known(id)?).await?;
    Ok(Json(History { facts }))
}

/// A new job with this one's part, iron and map, and none of its heat.
#[utoipa::path(post, path = "/api/jobs/{id}/copy", params(("id" = Uuid, Path, description = "The job")),
    request_body = NewJob, responses(
    (status = 200, description = "The copy", body = JobView),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[post("/<id>/copy", data = "<body>")]
pub async fn copy(bench: &State<Bench>, id: &str, body: Body<NewJob>) -> Result<Json<JobView>, ApiError> {
    let (from, new) = (known(id)?, body.0?);
    let pool = &bench.database.pool;
    let (_, facts) = store::load(pool, from).await?;
    let writing = bench.writing().await;
    if !store::exists(pool, new.id).await? {
        let now_ms = Bench::now_ms();
        store::create(pool, new.id, now_ms).await?;
        store::append(pool, new.id, &duplicate(&facts, Uuid::new_v4, now_ms)).await?;
    }
    drop(writing);
    let (job, _) = store::load(pool, new.id).await?;
    bench.tell(News::Changed { job: new.id, revision: job.revision });
    view(bench, job, Vec::new()).await
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
pub async fn what_if(bench: &State<Bench>, id: &str, test: &str) -> Result<Json<Answers>, ApiError> {
    let test = LookTest::from_id(test).ok_or(ApiError::Unknown("such test"))?;
    let pool = &bench.database.pool;
    let (job, _) = store::load(pool, known(id)?).await?;
    let shop = the_shop(pool).await?;
    Ok(Json(Answers { test, answers: answers(&job, &shop, test) }))
}

/// The plan as if the iron were known. Nothing is stored.
#[utoipa::path(get, path = "/api/jobs/{id}/as-if/{iron}", params(
    ("id" = Uuid, Path, description = "The job"),
    ("iron" = String, Path, description = "gray, ductile, malleable, white, ni_resist or steel")), responses(
    (status = 200, description = "The plan", body = Plan),
    (status = 404, description = "No such job or iron", body = ProblemsBody)))]
#[get("/<id>/as-if/<iron>")]
pub async fn as_if(bench: &State<Bench>, id: &str, iron: &str) -> Result<Json<Plan>, ApiError> {
    let iron = Iron::from_id(iron).ok_or(ApiError::Unknown("such iron"))?;
    let pool = &bench.database.pool;
    let (job, _) = store::load(pool, known(id)?).await?;
    let shop = the_shop(pool).await?;
    Ok(Json(plan_as_if(&job, &shop, iron)))
}

pub fn known(id: &str) -> Result<Uuid, ApiError> {
    id.parse().map_err(|_| ApiError::Unknown("such job"))
}
