//! `/api/jobs`

use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::figure::{Moved, moved};
use vanadin_core::iron::{Iron, LookTest};
use vanadin_core::job::{Change, FACTS_MOST, Fact, Job, accept, duplicate, possible_name, possible_time};
use vanadin_core::plan::{Answer, FrozenPlan, Plan, answers, available, plan, plan_as_if, standing};
use vanadin_core::problem::FieldProblem;
use vanadin_core::shop::Shop;

use super::store;
use super::view::JobView;
use crate::api_error::{ApiError, ProblemsBody};
use crate::bench::{Bench, News};
use crate::body::Body;
use crate::picture::route::must_be_kept;
use crate::shop::{fetched_at_ms, the_shop};
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
    /// The client's clock when it sends this: by the difference to the server's the time above is put
    /// right. Nothing leaves it as it is.
    #[serde(default)]
    pub sent_at_client_ms: Option<i64>,
    #[serde(default)]
    pub who: String,
    /// The browser it comes from: everybody takes back their own word.
    #[serde(default)]
    pub sender: String,
    /// The data folder it was said to; nothing where that does not matter.
    #[serde(default)]
    pub folder: Option<Uuid>,
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
    Ok(Json(seen(bench, &shop, job, plan, moved)))
}

fn seen(bench: &Bench, shop: &Shop, job: Job, plan: Plan, moved: Vec<Moved>) -> JobView {
    let now_ms = bench.now_ms();
    let standing = standing(&job, &plan, now_ms);
    let wanted = job.round().text("part.wanted").and_then(|day| fetched_at_ms(shop, day));
    let available = available(&job, &plan, now_ms, wanted);
    JobView::new(job, plan, standing, available, moved, (now_ms, bench.database.folder))
}

impl NewFact {
    /// When it happened, by the server's clock.
    fn happened_ms(&self, now_ms: i64) -> i64 {
        let off_ms = self.sent_at_client_ms.map_or(0, |sent| now_ms.saturating_sub(sent));
        self.at_client_ms.saturating_add(off_ms)
    }
}

/// Makes an empty job.
#[utoipa::path(post, path = "/api/jobs", request_body = NewJob, responses(
    (status = 200, description = "The job", body = JobView),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/", data = "<body>")]
pub async fn create(bench: &State<Bench>, body: Body<NewJob>) -> Result<Json<JobView>, ApiError> {
    let new = body.0?;
    let pool = &bench.database.pool;
    let now_ms = bench.now_ms();
    bench.database.write(async |on| store::create(on, new.id, now_ms).await).await?;
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
    if new.folder.is_some_and(|folder| folder != bench.database.folder) {
        return Err(ApiError::OtherFolder);
    }
    let problems: Vec<FieldProblem> = [
        possible_name("who", &new.who),
        possible_name("sender", &new.sender),
        possible_time("at_client_ms", new.at_client_ms),
        new.sent_at_client_ms.map_or(Ok(()), |at_ms| possible_time("sent_at_client_ms", at_ms)),
    ]
    .into_iter()
    .filter_map(Result::err)
    .collect();
    if !problems.is_empty() {
        return Err(problems.into());
    }
    let now_ms = bench.now_ms();
    let mut writing = bench.database.writing().await?;
    let (job, mut facts) = store::load(pool, id).await?;
    if facts.iter().any(|fact| fact.id == new.id) {
        writing.left().await;
        return view(bench, job, Vec::new()).await;
    }
    if facts.len() >= FACTS_MOST {
        writing.left().await;
        return Err(vec![FieldProblem::new("change", "this job's log is full", "duplicate it")].into());
    }
    let shop = the_shop(pool).await?;
    let was = plan(&job, &shop);
    if let Err(refused) = accept(&job, &was, &new.change, new.base, &new.sender) {
        writing.left().await;
        return Err(refused.into());
    }
    if let Change::Light { frozen, .. } = &mut new.change {
        *frozen = Some(Box::new(FrozenPlan::of(&was)));
    }
    let fact = Fact {
        id: new.id,
        revision: job.revision + 1,
        at_client_ms: new.happened_ms(now_ms),
        at_server_ms: now_ms,
        who: new.who,
        sender: new.sender,
        change: new.change,
    };
    if let Err(error) = store::append(writing.on(), id, std::slice::from_ref(&fact)).await {
        return Err(writing.given_up(error).await);
    }
    writing.done().await?;
    facts.push(fact);
    let mut changed = Job::fold(id, &facts);
    changed.record_of(job);
    let now = plan(&changed, &shop);
    thermocouples.attend(&changed, &now, &shop).await;
    bench.tell(News::Changed { job: id, revision: changed.revision });
    let moved = moved(&was.figures, &now.figures);
    Ok(Json(seen(bench, &shop, changed, now, moved)))
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
    if !store::exists(pool, new.id).await? {
        let now_ms = bench.now_ms();
        let copied = duplicate(&facts, Uuid::new_v4, now_ms);
        bench
            .database
            .write(async |on| {
                store::create(on, new.id, now_ms).await?;
                store::append(on, new.id, &copied).await
            })
            .await?;
    }
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
