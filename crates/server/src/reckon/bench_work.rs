//! `POST /api/reckon/{stop-hole,drill-speed,groove,stitch}`

use rocket::post;
use rocket::serde::json::Json;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::{FieldProblem, OutOfRange, Problems};
use vanadin_core::crack::stop_hole::{Beyond, FoundBy, StopHole};
use vanadin_core::crack::tip_offset::{APART_MOST_MM, learned};
use vanadin_core::iron::Iron;
use vanadin_core::pins::rows::{Pins, StitchOutline, StitchRow};
use vanadin_core::prep::drill_speed::{DrillTool, drill_speed_rpm};
use vanadin_core::prep::groove::{Groove, GrooveForm, GrooveSection, usual_root_radius_mm};
use vanadin_core::quantity::{Millimetres, WallMillimetres};

use super::chosen;
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;

#[derive(Debug, Deserialize, ToSchema)]
pub struct StopHoleRequest {
    pub wall_mm: f64,
    /// eye, chalk_and_oil, dye or magnetic.
    pub found_by: String,
    /// The shop's own set; the ordinary one when left out.
    #[serde(default)]
    pub drills_mm: Vec<f64>,
}

fn found_by(problems: &mut Problems, id: &str) -> Option<FoundBy> {
    chosen(problems, "found_by", id, FoundBy::from_id(id), "eye, chalk_and_oil, dye or magnetic")
}

/// Where to drill at the end of a crack.
#[utoipa::path(post, path = "/api/reckon/stop-hole", request_body = StopHoleRequest, responses(
    (status = 200, description = "The hole", body = StopHole),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/stop-hole", data = "<body>")]
pub fn stop_hole(body: Body<StopHoleRequest>) -> Result<Json<StopHole>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let wall = problems.take("wall_mm", WallMillimetres::new(request.wall_mm));
    let found_by = found_by(&mut problems, &request.found_by);
    if request.drills_mm.len() > 500 {
        problems.add(FieldProblem::new("drills_mm", "the list is too long", "up to 500 drills"));
    } else {
        for (at, &drill) in request.drills_mm.iter().enumerate() {
            problems.take(&format!("drills_mm[{at}]"), Millimetres::new(drill));
        }
    }
    problems.finish()?;
    match (wall, found_by) {
        (Some(wall), Some(found_by)) => {
            Ok(Json(vanadin_core::crack::stop_hole::stop_hole(wall, found_by, &request.drills_mm)))
        }
        _ => Err(ApiError::NotAcceptable(Vec::new())),
    }
}

/// Ends found in one way that were found again, better.
#[derive(Debug, Deserialize, ToSchema)]
pub struct TipLearnedRequest {
    /// eye, chalk_and_oil, dye or magnetic.
    pub found_by: String,
    /// How much further on each was, with what lies beyond for the better way.
    pub beyond_mm: Vec<f64>,
}

/// How far beyond the found tip a crack ends, by the book and these ends.
#[utoipa::path(post, path = "/api/reckon/tip-learned", request_body = TipLearnedRequest, responses(
    (status = 200, description = "Mean and deviation", body = Beyond),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/tip-learned", data = "<body>")]
pub fn tip_learned(body: Body<TipLearnedRequest>) -> Result<Json<Beyond>, ApiError> {
    /// More ends than any shop finds.
    const MOST: usize = 10_000;
    let request = body.0?;
    let mut problems = Problems::default();
    let found_by = found_by(&mut problems, &request.found_by);
    if request.beyond_mm.len() > MOST {
        problems.add(FieldProblem::new("beyond_mm", "the list is too long", "up to 10000 ends"));
    }
    for (at, &mm) in request.beyond_mm.iter().enumerate().take(MOST) {
        let within = OutOfRange::check("an end", "mm", (-APART_MOST_MM, APART_MOST_MM), mm);
        problems.take(&format!("beyond_mm[{at}]"), within);
    }
    problems.finish()?;
    match found_by {
        Some(found_by) => Ok(Json(learned(found_by, &request.beyond_mm))),
        None => Err(ApiError::NotAcceptable(Vec::new())),
    }
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct DrillSpeedRequest {
    pub iron: String,
    pub drill_mm: f64,
    pub tool: DrillTool,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct DrillSpeedAnswer {
    pub rpm: f64,
}

/// How fast to turn a drill.
#[utoipa::path(post, path = "/api/reckon/drill-speed", request_body = DrillSpeedRequest, responses(
    (status = 200, description = "The speed", body = DrillSpeedAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/drill-speed", data = "<body>")]
pub fn drill_speed(body: Body<DrillSpeedRequest>) -> Result<Json<DrillSpeedAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let iron = Iron::from_id(&request.iron).filter(|iron| iron.has_own_properties());
    let iron = chosen(&mut problems, "iron", &request.iron, iron, "gray, ductile or malleable");
    let drill = problems.take("drill_mm", Millimetres::new(request.drill_mm));
    problems.finish()?;
    match (iron, drill) {
        (Some(iron), Some(drill)) => {
            Ok(Json(DrillSpeedAnswer { rpm: drill_speed_rpm(iron, drill, request.tool) }))
        }
        _ => Err(ApiError::NotAcceptable(Vec::new())),
    }
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct GrooveRequest {
    /// V or U.
    pub form: String,
    pub depth_mm: f64,
    /// Included angle.
    pub angle_deg: f64,
    /// Of a U; by the wall when left out.
    #[serde(default)]
    pub root_radius_mm: Option<f64>,
    /// The wall it is ground in; as thick as the groove is deep when left out.
    #[serde(default)]
    pub wall_mm: Option<f64>,
    #[serde(default)]
    pub root_gap_mm: f64,
    #[serde(default)]
    pub cap_mm: f64,
}

/// The section of one side of a groove.
#[utoipa::path(post, path = "/api/reckon/groove", request_body = GrooveRequest, responses(
    (status = 200, description = "The section", body = GrooveSection),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/groove", data = "<body>")]
pub fn groove(body: Body<GrooveRequest>) -> Result<Json<GrooveSection>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let depth = problems.take("depth_mm", WallMillimetres::new(request.depth_mm));
    let wall = request.wall_mm.map(|mm| problems.take("wall_mm", WallMillimetres::new(mm)));
    let wall_mm = wall.flatten().map_or(request.depth_mm, WallMillimetres::millimetres);
    let usual_radius = usual_root_radius_mm(wall_mm);
    let form = match request.form.as_str() {
        "V" => Some(GrooveForm::V),
        "U" => Some(GrooveForm::U { root_radius_mm: request.root_radius_mm.unwrap_or(usual_radius) }),
        _ => None,
    };
    let form = chosen(&mut problems, "form", &request.form, form, "V or U");
    let (form, depth) = match (form, depth) {
        (Some(form), Some(depth)) => (form, depth),
        (form, depth) => {
            // Tell what is wrong with the other fields in the same answer.
            let stand_in = WallMillimetres::new(10.0).map_err(|out| vec![out.at("depth_mm")])?;
            let tried = Groove::new(
                form.unwrap_or(GrooveForm::V),
                depth.unwrap_or(stand_in),
                request.angle_deg,
                request.root_gap_mm,
                request.cap_mm,
            );
            if let Err((field, out)) = tried {
                problems.add(out.at(field));
            }
            problems.finish()?;
            return Err(ApiError::NotAcceptable(Vec::new()));
        }
    };
    let groove = Groove::new(form, depth, request.angle_deg, request.root_gap_mm, request.cap_mm)
        .map_err(|(field, out)| vec![out.at(field)])?;
    Ok(Json(groove.section()))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct StitchRequest {
    pub outline: StitchOutline,
    /// Outer edge to outer edge of a straight row, or the perimeter of a closed one.
    pub length_mm: f64,
    pub pin_mm: f64,
    /// Share of the diameter.
    pub overlap: f64,
}

/// How many pins, how far apart.
#[utoipa::path(post, path = "/api/reckon/stitch", request_body = StitchRequest, responses(
    (status = 200, description = "The pins", body = Pins),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/stitch", data = "<body>")]
pub fn stitch(body: Body<StitchRequest>) -> Result<Json<Pins>, ApiError> {
    let request = body.0?;
    let row = StitchRow::new(request.outline, request.length_mm, request.pin_mm, request.overlap)
        .map_err(|(field, out)| vec![out.at(field)])?;
    Ok(Json(row.pins()))
}
