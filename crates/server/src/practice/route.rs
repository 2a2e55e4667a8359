//! A practice is begun, played again, and looked at when it is over.

use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::job::{Change, Fact, duplicate};
use vanadin_core::practice::{
    Case, Curve, Ended, LESSONS, Past, as_a_case, before_the_heat, curve, ended, free, lesson, own, told,
};
use vanadin_core::secret::Level;

use super::results::{self, HandedBack};
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;
use crate::job::route::{known, view};
use crate::job_service::{JobService, NewJob, work};
use crate::rack::projection::{self, RackLine, RackQuery};
use crate::shop::device_units::DeviceUnits;
use crate::wire::job::JobView;
use crate::wire::shown::Shown;

/// One of the ten, and how often it was played.
#[derive(Debug, Serialize, ToSchema)]
pub struct LessonLine {
    pub id: String,
    pub title: String,
    /// What whoever brings it says.
    pub words: String,
    /// What it is about; empty until it was played once.
    pub teaches: String,
    pub played: usize,
    pub held: usize,
}

/// The place of practice.
#[derive(Debug, Serialize, ToSchema)]
pub struct PracticePlace {
    pub lessons: Vec<LessonLine>,
    /// Those in hand, and those that are over: the last begun first.
    pub cases: Vec<RackLine>,
    pub curve: Curve,
    /// What learners handed back, the newest first.
    pub results: Vec<HandedBack>,
}

/// A practice to be begun. The client makes the id: sent twice, begun once.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PracticeToBegin {
    pub id: Uuid,
    /// Id of a lesson; nothing for a free case.
    pub lesson: Option<String>,
    /// Nothing for one by chance.
    pub seed: Option<u32>,
    pub level: Level,
}

/// One to be played again, or one's own repair to be played.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlayedAgain {
    pub id: Uuid,
    pub level: Level,
    /// From where a practice is played again; of one's own repair always from the beginning.
    #[serde(default)]
    pub from: PlayedFrom,
}

/// From where a practice is played again.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PlayedFrom {
    #[default]
    Beginning,
    /// All that was said before anything was lit stands: one choice is changed.
    BeforeTheHeat,
}

/// The most that are shown at a time.
const SHOWN: u32 = 100;

/// Lessons, cases, one's own curve, what was handed back.
#[utoipa::path(get, path = "/api/practice", operation_id = "show_practice", responses(
    (status = 200, description = "The place", body = PracticePlace)))]
#[get("/practice")]
pub async fn show(jobs: &State<JobService>) -> Result<Json<PracticePlace>, ApiError> {
    jobs.reproject_stale().await;
    let (pool, shop) = (&jobs.database.pool, jobs.shop().await?);
    let asked = |away: bool| RackQuery { away, practice: true, find: "", from: 0, most: SHOWN };
    let by = (shop.planned_by, jobs.now_ms());
    let mut found = projection::find(pool, &asked(false), by).await?;
    if !found.out_of_date.is_empty() {
        jobs.reproject_all(&found.out_of_date).await?;
        found = projection::find(pool, &asked(false), by).await?;
    }
    let over = projection::practices_over(pool).await?;
    let lessons = LESSONS.iter().map(|it| {
        let of: Vec<&(String, Past)> = over.iter().filter(|(lesson, _)| lesson == it.id).collect();
        LessonLine {
            id: it.id.to_owned(),
            title: it.title.to_owned(),
            words: it.words.to_owned(),
            teaches: if of.is_empty() { String::new() } else { it.teaches.to_owned() },
            played: of.len(),
            held: of.iter().filter(|(_, past)| past.holds).count(),
        }
    });
    Ok(Json(PracticePlace {
        lessons: lessons.collect(),
        curve: curve(over.iter().map(|(_, past)| *past).collect()),
        cases: found.lines,
        results: results::all(pool).await?,
    }))
}

fn new_job(id: Uuid, created_ms: i64, facts: Vec<Fact>) -> NewJob {
    NewJob { id, created_ms, facts, readings: Vec::new(), pictures: Vec::new() }
}

/// A practice of the shop's, taken in and shown.
pub(super) async fn taken_in(
    jobs: &JobService,
    units: DeviceUnits,
    id: Uuid,
    facts: Vec<Fact>,
) -> Result<Shown<JobView>, ApiError> {
    let made = jobs.create(new_job(id, jobs.now_ms(), facts)).await?;
    Ok(view(jobs, &jobs.in_units(id, made, units).await?, Vec::new()))
}

/// A number by chance.
fn any_seed() -> u32 {
    Uuid::new_v4().as_u128() as u32
}

/// Begins a lesson, or a free case.
#[utoipa::path(post, path = "/api/practice", operation_id = "begin_practice", request_body = PracticeToBegin, responses(
    (status = 200, description = "The practice, as a job", body = JobView),
    (status = 422, description = "There is no such lesson", body = ProblemsBody)))]
#[post("/practice", data = "<body>")]
pub async fn begin(
    jobs: &State<JobService>,
    units: DeviceUnits,
    body: Body<PracticeToBegin>,
) -> Result<Shown<JobView>, ApiError> {
    let PracticeToBegin { id, lesson: of, seed, level } = body.0?;
    let seed = seed.unwrap_or_else(any_seed);
    let case: Case = match of.as_deref() {
        None => free(seed),
        Some(of) => match lesson(of) {
            Some(lesson) => lesson.case(seed),
            None => {
                return Err(vec![FieldProblem::new("lesson", "there is no such lesson", "test_first")].into());
            }
        },
    };
    let facts = told(&case, level, Uuid::new_v4, jobs.now_ms());
    taken_in(jobs, units, id, facts).await
}

/// How the log of a practice began: with what was told of the part.
fn beginning(facts: &[Fact]) -> &[Fact] {
    let told = |fact: &&Fact| {
        fact.who.is_empty()
            && fact.sender.is_empty()
            && facts.first().is_some_and(|first| first.at_server_ms == fact.at_server_ms)
    };
    &facts[..facts.iter().take_while(told).count()]
}

/// The same case once more, from its beginning or from before it was lit: the same secret, the same luck.
#[utoipa::path(post, path = "/api/jobs/{id}/practice/again", operation_id = "play_again",
    params(("id" = Uuid, Path, description = "The practice")), request_body = PlayedAgain, responses(
    (status = 200, description = "The new practice, as a job", body = JobView),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 422, description = "It is no practice", body = ProblemsBody)))]
#[post("/jobs/<id>/practice/again", data = "<body>")]
pub async fn again(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
    body: Body<PlayedAgain>,
) -> Result<Shown<JobView>, ApiError> {
    let (from, new) = (known(id)?, body.0?);
    let seen = jobs.load(from).await?;
    if seen.job.practice.is_none() {
        return Err(no_practice());
    }
    if new.from == PlayedFrom::BeforeTheHeat {
        let facts = before_the_heat(&seen.facts, new.level, jobs.now_ms()).ok_or_else(|| {
            let right = "play it again from its beginning";
            ApiError::from(vec![FieldProblem::new("from", "nothing was lit", right)])
        })?;
        return taken_in(jobs, units, new.id, facts).await;
    }
    let mut facts = duplicate(beginning(&seen.facts), Uuid::new_v4, jobs.now_ms());
    if let Some(Change::Practise { of }) = facts.first_mut().map(|fact| &mut fact.change) {
        of.level = new.level;
    }
    taken_in(jobs, units, new.id, facts).await
}

/// One's own repair as a case: the logged part, and a truth drawn anew from what is believed of it.
#[utoipa::path(post, path = "/api/jobs/{id}/practice/own", operation_id = "practise_own",
    params(("id" = Uuid, Path, description = "The job")), request_body = PlayedAgain, responses(
    (status = 200, description = "The practice, as a job", body = JobView),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 422, description = "It is a practice already", body = ProblemsBody)))]
#[post("/jobs/<id>/practice/own", data = "<body>")]
pub async fn own_repair(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
    body: Body<PlayedAgain>,
) -> Result<Shown<JobView>, ApiError> {
    let (from, new) = (known(id)?, body.0?);
    let seen = jobs.load(from).await?;
    if seen.job.practice.is_some() {
        return Err(vec![FieldProblem::new("id", "it is a practice already", "play it again")].into());
    }
    let now_ms = jobs.now_ms();
    let of = own(&seen.job, &seen.plan, &seen.shop.shop, any_seed(), new.level);
    let part = duplicate(&seen.facts, Uuid::new_v4, now_ms);
    taken_in(jobs, units, new.id, as_a_case(part, of, Uuid::new_v4(), now_ms)).await
}

pub(super) fn no_practice() -> ApiError {
    vec![FieldProblem::new("id", "it is no practice", "one of the cases in Practice")].into()
}

/// What became of it and why; once it is over.
#[utoipa::path(get, path = "/api/jobs/{id}/practice", operation_id = "practice_became",
    params(("id" = Uuid, Path, description = "The practice")), responses(
    (status = 200, description = "What became of it", body = Ended),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 422, description = "It is no practice, or not over", body = ProblemsBody)))]
#[get("/jobs/<id>/practice")]
pub async fn became(jobs: &State<JobService>, units: DeviceUnits, id: &str) -> Result<Json<Ended>, ApiError> {
    Ok(Json(end_of(jobs, units, known(id)?).await?))
}

/// How a practice that is over ended, in these units.
pub(super) async fn end_of(jobs: &JobService, units: DeviceUnits, id: Uuid) -> Result<Ended, ApiError> {
    let (seen, shop, sims) = (jobs.load(id).await?, jobs.shop_in(units).await?, jobs.sims());
    match &seen.job.practice {
        None => return Err(no_practice()),
        Some(practice) if !practice.ended => {
            return Err(vec![FieldProblem::new("id", "it is not over", "see what became of it")].into());
        }
        Some(_) => {}
    }
    let end = work(move || ended(&seen.job, &shop.shop, &sims).map(|end| end.said(shop.shop.units))).await?;
    end.ok_or_else(no_practice)
}
