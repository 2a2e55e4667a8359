//! What a page asks for when it is opened on it: how a way is weighed and done, a figure's working, what will happen.

use std::sync::Arc;

use rocket::serde::json::Json;
use rocket::{State, get};
use vanadin_core::figure::Figure;
use vanadin_core::iron::Iron;
use vanadin_core::method::MethodId;
use vanadin_core::plan::{Plan, RehearsalStep, WayOpened, plan_as_if};

use super::route::known;
use crate::api_error::{ApiError, ProblemsBody};
use crate::job_service::{JobService, Snapshot, work};
use crate::shop::device_units::DeviceUnits;
use crate::wire::shown::Shown;

/// The plan of a job as it stands, or as if its iron were known.
async fn planned(
    jobs: &State<JobService>,
    units: DeviceUnits,
    (id, iron): (&str, Option<&str>),
) -> Result<Arc<Plan>, ApiError> {
    let seen = jobs.load_in(known(id)?, units).await?;
    let Some(iron) = iron else { return Ok(seen.plan) };
    let iron = Iron::from_id(iron).ok_or(ApiError::Unknown("such iron"))?;
    let (Snapshot { job, shop, .. }, sims) = (seen, jobs.sims());
    Ok(Arc::new(work(move || plan_as_if(&job, &shop.shop, iron, &sims)).await?))
}

/// A way of a job, opened: its points, its odds part by part, its steps, its settings, its price line by line.
#[utoipa::path(get, path = "/api/jobs/{id}/ways/{method}", params(
    ("id" = Uuid, Path, description = "The job"),
    ("method" = String, Path, description = "A method's id: torch_braze"),
    ("iron" = Option<String>, Query, description = "As if it were this iron: gray, ductile ...")), responses(
    (status = 200, description = "The way as the plan has it", body = WayOpened),
    (status = 404, description = "No such job, method or iron", body = ProblemsBody)))]
#[get("/<id>/ways/<method>?<iron>")]
pub async fn way(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
    method: &str,
    iron: Option<&str>,
) -> Result<Shown<WayOpened>, ApiError> {
    let method = MethodId::from_id(method).ok_or(ApiError::Unknown("such method"))?;
    let plan = planned(jobs, units, (id, iron)).await?;
    let way = plan.methods.contenders.iter().find(|it| it.way.method == method);
    way.map(|way| Shown(way.clone().into())).ok_or(ApiError::Unknown("such method"))
}

/// A figure of a job with its working: the formula with this job's numbers in it, the facts, the source, how sure it is.
#[utoipa::path(get, path = "/api/jobs/{id}/figures/{figure}", params(
    ("id" = Uuid, Path, description = "The job"),
    ("figure" = String, Path, description = "A figure's id: heat.target"),
    ("iron" = Option<String>, Query, description = "As if it were this iron: gray, ductile ...")), responses(
    (status = 200, description = "The figure as the plan has it", body = Figure),
    (status = 404, description = "No such job, figure or iron", body = ProblemsBody)))]
#[get("/<id>/figures/<figure>?<iron>")]
pub async fn figure(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
    figure: &str,
    iron: Option<&str>,
) -> Result<Shown<Figure>, ApiError> {
    let plan = planned(jobs, units, (id, iron)).await?;
    let found = plan.figures.iter().find(|it| it.id == figure);
    found.map(|it| Shown(it.clone().said_in(plan.units))).ok_or(ApiError::Unknown("such figure"))
}

/// What will happen once a job is lit, step by step.
#[utoipa::path(get, path = "/api/jobs/{id}/rehearsal", params(("id" = Uuid, Path, description = "The job")), responses(
    (status = 200, description = "The steps in their order; none once it is begun", body = Vec<RehearsalStep>),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/rehearsal")]
pub async fn rehearsal(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
) -> Result<Json<Vec<RehearsalStep>>, ApiError> {
    let plan = planned(jobs, units, (id, None)).await?;
    Ok(Json(plan.torch.as_ref().map_or_else(Vec::new, |torch| torch.rehearsal.clone())))
}
