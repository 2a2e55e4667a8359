//! `POST /api/reckon/{seam,straighten}`

use rocket::post;
use rocket::serde::json::Json;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::{FieldProblem, OutOfRange, Problems};
use vanadin_core::map::Straightened;
use vanadin_core::prep::filler::Filler;
use vanadin_core::prep::groove::{GrooveForm, usual_root_radius_mm};
use vanadin_core::prep::groove_volume::{SeamGroove, SeamHole, SeamStation, seam_fill};

use super::chosen;
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;

#[derive(Debug, Deserialize, ToSchema)]
pub struct StationRequest {
    /// From the beginning of the seam.
    pub at_mm: f64,
    pub wall_mm: f64,
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct HoleRequest {
    pub drill_mm: f64,
    pub wall_mm: f64,
    #[serde(default)]
    pub countersunk: bool,
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct SeamRequest {
    /// V or U.
    pub form: String,
    /// Included angle.
    pub angle_deg: f64,
    /// Of a U; by the thickest wall when left out.
    #[serde(default)]
    pub root_radius_mm: Option<f64>,
    #[serde(default)]
    pub root_gap_mm: f64,
    #[serde(default)]
    pub cap_mm: f64,
    /// Left at the bottom; the usual one when left out, none of a double V.
    #[serde(default)]
    pub lip_mm: Option<f64>,
    /// From both sides, half the wall each.
    #[serde(default)]
    pub double: bool,
    /// The wall along the seam, where it begins first.
    pub stations: Vec<StationRequest>,
    #[serde(default)]
    pub holes: Vec<HoleRequest>,
    pub density_kg_m3: f64,
    /// Share of the usable rod that ends up in the joint.
    pub recovery: f64,
    /// Diameter of a rod.
    pub rod_mm: f64,
    pub rod_length_mm: f64,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct SeamAnswer {
    /// Filler in place.
    pub volume_mm3: f64,
    pub mass_g: f64,
    /// To buy.
    pub metal_g: f64,
    /// With one for tacks.
    pub rods: f64,
}

/// What a groove along a seam takes of filler.
#[utoipa::path(post, path = "/api/reckon/seam", request_body = SeamRequest, responses(
    (status = 200, description = "Filler and rods", body = SeamAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/seam", data = "<body>")]
pub fn seam(body: Body<SeamRequest>) -> Result<Json<SeamAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let thickest = request.stations.iter().map(|station| station.wall_mm).fold(0.0, f64::max);
    let root_radius_mm = request.root_radius_mm.unwrap_or_else(|| usual_root_radius_mm(thickest));
    let form = match request.form.as_str() {
        "V" => Some(GrooveForm::V),
        "U" => Some(GrooveForm::U { root_radius_mm }),
        _ => None,
    };
    let form = chosen(&mut problems, "form", &request.form, form, "V or U");
    let mut bounded = |field: &'static str, what, unit, bounds, value| {
        problems.take(field, OutOfRange::check(what, unit, bounds, value));
    };
    bounded("density_kg_m3", "a density", "kg/m³", (1000.0, 20_000.0), request.density_kg_m3);
    bounded("recovery", "what stays of a rod", "", (0.05, 1.0), request.recovery);
    bounded("rod_mm", "a rod", "mm", (0.5, 20.0), request.rod_mm);
    bounded("rod_length_mm", "a rod's length", "mm", (60.0, 2000.0), request.rod_length_mm);
    let groove = SeamGroove {
        form: form.unwrap_or(GrooveForm::V),
        angle_deg: request.angle_deg,
        root_gap_mm: request.root_gap_mm,
        cap_mm: request.cap_mm,
        lip_mm: request.lip_mm,
        double: request.double,
    };
    let stations: Vec<SeamStation> = request
        .stations
        .iter()
        .map(|station| SeamStation { at_mm: station.at_mm, wall_mm: station.wall_mm })
        .collect();
    let holes: Vec<SeamHole> = request
        .holes
        .iter()
        .map(|hole| SeamHole {
            drill_mm: hole.drill_mm,
            wall_mm: hole.wall_mm,
            countersunk: hole.countersunk,
        })
        .collect();
    let volume_mm3 = groove.volume_mm3(&stations, &holes).unwrap_or_else(|problem| {
        problems.add(problem);
        0.0
    });
    problems.finish()?;
    let filler = Filler {
        class: "",
        name: "",
        density_kg_m3: request.density_kg_m3,
        recovery: request.recovery,
        rod_diameter_mm: request.rod_mm,
        rod_length_mm: request.rod_length_mm,
        tensile_mpa: (0.0, 0.0),
        yield_mpa: None,
    };
    let fill = seam_fill(volume_mm3, &filler);
    Ok(Json(SeamAnswer { volume_mm3, mass_g: fill.mass_g, metal_g: fill.metal_g, rods: fill.rods }))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct StraightenRequest {
    /// Corners of a rectangle on the part, as points of the picture: upper left, upper right, lower right,
    /// lower left.
    pub corners_px: [[f64; 2]; 4],
    pub width_mm: f64,
    pub height_mm: f64,
    /// Points of the picture whose place is asked.
    pub points_px: Vec<[f64; 2]>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct StraightenAnswer {
    /// From the upper left corner of the rectangle.
    pub points_mm: Vec<[f64; 2]>,
}

/// Where points of a slanted picture lie on the part.
#[utoipa::path(post, path = "/api/reckon/straighten", request_body = StraightenRequest, responses(
    (status = 200, description = "The places", body = StraightenAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/straighten", data = "<body>")]
pub fn straighten(body: Body<StraightenRequest>) -> Result<Json<StraightenAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let map = match Straightened::by_corners(request.corners_px, request.width_mm, request.height_mm) {
        Ok(map) => Some(map),
        Err(problem) => {
            problems.add(problem);
            None
        }
    };
    if request.points_px.len() > 10_000 {
        let message = "the list is too long";
        problems.add(FieldProblem::new("points_px", message, "up to 10 000 points"));
        problems.finish()?;
        return Err(ApiError::NotAcceptable(Vec::new()));
    }
    let mut points_mm = Vec::with_capacity(request.points_px.len());
    for (at, &point) in request.points_px.iter().enumerate() {
        match map.map(|map| map.mm(point)) {
            Some(Some(place)) => points_mm.push([place.x_mm, place.y_mm]),
            Some(None) => problems.add(FieldProblem::new(
                format!("points_px[{at}]"),
                "it lies beyond the horizon of the picture",
                "a point on the part",
            )),
            None => {}
        }
    }
    problems.finish()?;
    Ok(Json(StraightenAnswer { points_mm }))
}
