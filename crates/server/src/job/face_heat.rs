//! `POST /api/jobs/<id>/face-heat` and `/face-warmth`, `GET /api/jobs/<id>/where-to-begin` and `/seam-pull`: the drawn
//! face of a job as it is heated and welded.

use rocket::serde::json::Json;
use rocket::{State, get, post};
use serde::Serialize;
use utoipa::ToSchema;
use vanadin_core::base::problem::{FieldProblem, OutOfRange, Problems};
use vanadin_core::plan::{
    Beginnings, FaceHeat, FaceLoad, FacePart, FlamePlacement, PATH_MOST, SeamPulls, cooling_face,
    face_cooling, face_heat, face_load, face_logged, face_part, face_warmth, other_ways, seam_pulls,
};

use super::faces::Faces;
use super::route::known;
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;
use crate::job_service::{JobService, long_work, work};
use crate::shop::device_units::DeviceUnits;

/// A face under a flame.
#[derive(Debug, Serialize, ToSchema)]
pub struct FaceHeatSeen {
    /// Why there is none; empty where there is one, and where no face is drawn or nothing is heated.
    pub why_not: String,
    pub heat: Option<FaceHeat>,
}

/// Where to begin with the flame.
#[derive(Debug, Serialize, ToSchema)]
pub struct BeginningsSeen {
    pub beginnings: Option<Beginnings>,
}

/// What the seams of a face pull.
#[derive(Debug, Serialize, ToSchema)]
pub struct SeamPullsSeen {
    /// Why there is none; empty where there is one, and where no face is drawn or nothing is laid in beads.
    pub why_not: String,
    pub pulls: Option<SeamPulls>,
}

/// The drawn face from cold under a flame, until the joint is warm enough.
#[utoipa::path(post, path = "/api/jobs/{id}/face-heat", request_body = FlamePlacement,
    params(("id" = String, Path, description = "The job")), responses(
    (status = 200, description = "Moment by moment; or why there is none", body = FaceHeatSeen),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/<id>/face-heat", data = "<asked>")]
pub async fn face_heated(
    id: &str,
    units: DeviceUnits,
    jobs: &State<JobService>,
    asked: Body<FlamePlacement>,
) -> Result<Json<FaceHeatSeen>, ApiError> {
    let found = match under_a_flame(id, units, jobs, asked.0?).await? {
        Ok(UnderAFlame { part, asked, said }) => {
            long_work(move || face_heat(&part, |part| Faces::kept().model(part), &asked, said)).await?
        }
        Err(why_not) => Err(why_not),
    };
    Ok(Json(found.map(Some).into()))
}

/// The same as a picture alone: what its places are at, before it is known what that asks of its cracks.
#[utoipa::path(post, path = "/api/jobs/{id}/face-warmth", request_body = FlamePlacement,
    params(("id" = String, Path, description = "The job")), responses(
    (status = 200, description = "Moment by moment, without tips and without a sentence; or why there is none", body = FaceHeatSeen),
    (status = 404, description = "No such job", body = ProblemsBody),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/<id>/face-warmth", data = "<asked>")]
pub async fn face_warms(
    id: &str,
    units: DeviceUnits,
    jobs: &State<JobService>,
    asked: Body<FlamePlacement>,
) -> Result<Json<FaceHeatSeen>, ApiError> {
    let found = match under_a_flame(id, units, jobs, asked.0?).await? {
        // Somebody has a finger on it: it does not wait for what takes long.
        Ok(UnderAFlame { part, asked, said }) => {
            work(move || face_warmth(&part, |part| Faces::kept().model(part), &asked, said)).await?
        }
        Err(why_not) => Err(why_not),
    };
    Ok(Json(found.map(Some).into()))
}

impl From<Result<Option<FaceHeat>, String>> for FaceHeatSeen {
    fn from(found: Result<Option<FaceHeat>, String>) -> Self {
        match found {
            Ok(heat) => Self { why_not: String::new(), heat },
            Err(why_not) => Self { why_not, heat: None },
        }
    }
}

/// A face and the flame that is put at it.
struct UnderAFlame {
    part: FacePart,
    asked: FlamePlacement,
    /// It was said that it begins there.
    said: bool,
}

/// The face of a job under the flame that is asked for; else why there is none.
async fn under_a_flame(
    id: &str,
    units: DeviceUnits,
    jobs: &JobService,
    asked: FlamePlacement,
) -> Result<Result<UnderAFlame, String>, ApiError> {
    let id = known(id)?;
    let mut problems = Problems::default();
    for (field, mm) in asked.at.iter().flat_map(|at| [("at.x_mm", at.x_mm), ("at.y_mm", at.y_mm)]) {
        problems.take(field, OutOfRange::check("a place", "mm", (-20_000.0, 20_000.0), mm));
    }
    for (at, place) in asked.path.iter().enumerate() {
        for (axis, mm) in [("x_mm", place.x_mm), ("y_mm", place.y_mm)] {
            let field = format!("path[{at}].{axis}");
            problems.take(&field, OutOfRange::check("a place", "mm", (-20_000.0, 20_000.0), mm));
        }
    }
    if asked.path.len() > PATH_MOST {
        problems.add(FieldProblem::new("path", format!("{PATH_MOST} places at most"), "fewer of them"));
    }
    problems.finish()?;
    let seen = jobs.load_in(id, units).await?;
    let part = match face_part(&seen.job, &seen.plan, &seen.shop.shop) {
        Ok(part) => part,
        Err(why_not) => return Ok(Err(why_not)),
    };
    let asked = asked.or_as_said(&seen.job, part.face);
    let put = seen.job.round().flame.filter(|put| put.face == part.face);
    let said =
        put.is_some_and(|put| Some(put.at) == asked.at && put.swept == asked.swept && asked.path.len() < 2);
    Ok(Ok(UnderAFlame { part, asked, said }))
}

/// The drawn face as it was heated, by what was said and read since it was lit.
#[utoipa::path(get, path = "/api/jobs/{id}/face-logged",
    params(("id" = String, Path, description = "The job")), responses(
    (status = 200, description = "Moment by moment; nothing while it is not lit, or why there is none", body = FaceHeatSeen),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/face-logged")]
pub async fn face_as_logged(
    id: &str,
    units: DeviceUnits,
    jobs: &State<JobService>,
) -> Result<Json<FaceHeatSeen>, ApiError> {
    let seen = jobs.load_in(known(id)?, units).await?;
    let part = match face_part(&seen.job, &seen.plan, &seen.shop.shop) {
        Ok(part) => part,
        Err(why_not) => return Ok(Json(Err(why_not).into())),
    };
    let found = long_work(move || {
        Faces::kept().model(&part).map(|model| face_logged(&seen.job, &seen.plan, &part, &model))
    })
    .await?;
    Ok(Json(found.into()))
}

/// The drawn face on its way down, from when it was covered to hand-warm.
#[utoipa::path(get, path = "/api/jobs/{id}/face-cooling",
    params(("id" = String, Path, description = "The job")), responses(
    (status = 200, description = "Moment by moment; or why there is none", body = FaceHeatSeen),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/face-cooling")]
pub async fn face_cools(
    id: &str,
    units: DeviceUnits,
    jobs: &State<JobService>,
) -> Result<Json<FaceHeatSeen>, ApiError> {
    let seen = jobs.load_in(known(id)?, units).await?;
    let found = long_work(move || -> Result<Option<FaceHeat>, String> {
        let (job, plan, shop) = (&seen.job, &seen.plan, &seen.shop.shop);
        let cools = cooling_face(job, plan, shop)?;
        let model = Faces::kept().model(&cools.part)?;
        // Where an oven heats it, it is as warm all over.
        let heated = face_part(job, plan, shop).ok();
        let hot = heated.as_ref().and_then(|part| Some((part, Faces::kept().model(part).ok()?)));
        Ok(face_cooling(
            (job, plan),
            (&cools, &model),
            hot.as_ref().map(|(part, model)| (*part, model.as_ref())),
        ))
    })
    .await?;
    Ok(Json(found.into()))
}

/// What a face carries.
#[derive(Debug, Serialize, ToSchema)]
pub struct FaceLoadSeen {
    /// Why nothing is said; empty where it is, and while no load is said.
    pub why_not: String,
    pub load: Option<FaceLoad>,
}

/// What the drawn face carries, whole and mended, by the load that was said.
#[utoipa::path(get, path = "/api/jobs/{id}/face-load",
    params(("id" = String, Path, description = "The job")), responses(
    (status = 200, description = "Seam by seam; or why there is nothing", body = FaceLoadSeen),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/face-load")]
pub async fn face_carries(
    id: &str,
    units: DeviceUnits,
    jobs: &State<JobService>,
) -> Result<Json<FaceLoadSeen>, ApiError> {
    let seen = jobs.load_in(known(id)?, units).await?;
    let found = long_work(move || face_load(&seen.job, &seen.plan, &seen.shop.shop)).await?;
    Ok(Json(match found {
        Ok(load) => FaceLoadSeen { why_not: String::new(), load: Some(load) },
        Err(why_not) => FaceLoadSeen { why_not, load: None },
    }))
}

/// Some places of the drawn face, each tried from cold with the flame at hand.
#[utoipa::path(get, path = "/api/jobs/{id}/where-to-begin",
    params(("id" = String, Path, description = "The job")), responses(
    (status = 200, description = "The best of them and the worst; nothing where no face is reckoned", body = BeginningsSeen),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/where-to-begin")]
pub async fn beginnings(
    id: &str,
    units: DeviceUnits,
    jobs: &State<JobService>,
) -> Result<Json<BeginningsSeen>, ApiError> {
    let seen = jobs.load_in(known(id)?, units).await?;
    let Ok(part) = face_part(&seen.job, &seen.plan, &seen.shop.shop) else {
        return Ok(Json(BeginningsSeen { beginnings: None }));
    };
    let found = long_work(move || Faces::kept().begun(&part)).await?;
    Ok(Json(BeginningsSeen { beginnings: found.ok().map(|found| (*found).clone()) }))
}

/// What the seams of the drawn face pull as they shrink.
#[utoipa::path(get, path = "/api/jobs/{id}/seam-pull",
    params(("id" = String, Path, description = "The job")), responses(
    (status = 200, description = "Seam by seam; or why there is none", body = SeamPullsSeen),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/seam-pull")]
pub async fn seams_pull(
    id: &str,
    units: DeviceUnits,
    jobs: &State<JobService>,
) -> Result<Json<SeamPullsSeen>, ApiError> {
    let seen = jobs.load_in(known(id)?, units).await?;
    let found = long_work(move || {
        let (job, plan, shop) = (&seen.job, &seen.plan, &seen.shop.shop);
        // Where an oven heats it there is no place to begin with, and nothing is opened first.
        let begun = face_part(job, plan, shop).ok().and_then(|part| Faces::kept().begun(&part).ok());
        seam_pulls(job, plan, shop, &other_ways(job, plan, shop), begun.as_deref())
    })
    .await?;
    Ok(Json(match found {
        Ok(pulls) => SeamPullsSeen { why_not: String::new(), pulls: Some(pulls) },
        Err(why_not) => SeamPullsSeen { why_not, pulls: None },
    }))
}
