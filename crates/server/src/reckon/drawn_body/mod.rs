//! `POST /api/reckon/{body-heat,body-tips,body-pull,body-load}`: a drawn face as a body.

mod asked;

use rocket::post;
use rocket::serde::json::Json;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::{FieldProblem, Problems};
use vanadin_core::body::{Boundary, Force, Loading, carried, heat, pulled, tips_while_heated};
use vanadin_core::map::At;

use super::at_the_heat::{none, within};
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;
use crate::job_service::long_work;

use asked::{at, heating, held_at, not_laid_out, not_reckoned, piece, places, problem};

/// A round by its middle and diameter, or an outline by its points.
#[derive(Debug, Deserialize, ToSchema)]
pub struct PlaceRequest {
    #[serde(default)]
    pub x: Option<f64>,
    #[serde(default)]
    pub y: Option<f64>,
    /// Diameter in mm.
    #[serde(default)]
    pub d: Option<f64>,
    #[serde(default)]
    pub points: Option<Vec<[f64; 2]>>,
    /// A place within the outline, where one is said.
    #[serde(default)]
    pub inside: Option<[f64; 2]>,
    /// Of a thick place.
    #[serde(default)]
    pub wall_mm: Option<f64>,
}

/// A flat body as it is drawn.
#[derive(Debug, Deserialize, ToSchema)]
pub struct FaceRequest {
    /// gray, ductile or malleable.
    pub iron: String,
    pub outline_mm: Vec<[f64; 2]>,
    #[serde(default)]
    pub holes_mm: Vec<PlaceRequest>,
    pub wall_mm: f64,
    /// A later one counts over an earlier.
    #[serde(default)]
    pub thick_mm: Vec<PlaceRequest>,
    /// A line each; an end on the outline or a hole is a mouth.
    #[serde(default)]
    pub cracks_mm: Vec<Vec<[f64; 2]>>,
}

/// A flame that burns from the beginning to the end.
#[derive(Debug, Deserialize, ToSchema)]
pub struct FlameRequest {
    pub x: f64,
    pub y: f64,
    /// Net, into the iron.
    pub power_w: f64,
    /// So much of it goes evenly over the face.
    #[serde(default = "half")]
    pub even_share: f64,
    #[serde(default = "usual_spot")]
    pub spot_mm: f64,
}

fn half() -> f64 {
    0.5
}

/// Of a usual tip; a small one has 40.
fn usual_spot() -> f64 {
    75.0
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct BodyHeatRequest {
    #[serde(flatten)]
    pub face: FaceRequest,
    pub ambient_c: f64,
    /// Ambient where it is left out.
    #[serde(default)]
    pub start_c: Option<f64>,
    pub minutes: f64,
    pub flames: Vec<FlameRequest>,
    /// Where it is asked for.
    #[serde(default)]
    pub at_mm: Vec<[f64; 2]>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct BodyHeatAnswer {
    /// At the end, one for each place.
    pub at_c: Vec<f64>,
    pub least_c: f64,
    pub most_c: f64,
}

/// The heat of a face under flames.
#[utoipa::path(post, path = "/api/reckon/body-heat", request_body = BodyHeatRequest, responses(
    (status = 200, description = "Temperatures at the end", body = BodyHeatAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/body-heat", data = "<body>")]
pub async fn body_heat(body: Body<BodyHeatRequest>) -> Result<Json<BodyHeatAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let (piece, _) = piece(&mut problems, &request.face);
    let heating = heating(&mut problems, &request);
    problems.finish()?;
    let Some(piece) = piece else { return none() };
    piece.check()?;
    let at = places(&piece, "at_mm", &request.at_mm)?;
    let found = long_work(move || heat(&piece, &heating, &at)).await?;
    let heated = found.map_err(|why| not_laid_out(&why))?;
    Ok(Json(BodyHeatAnswer { at_c: heated.at_c, least_c: heated.least_c, most_c: heated.most_c }))
}

#[derive(Debug, Serialize, ToSchema)]
pub struct TipAnswer {
    /// Counted from 0.
    pub crack: usize,
    /// a: its first point, b: its last.
    pub end: &'static str,
    /// The greatest on the way; 0 where it stays shut.
    pub k_mpa_sqrt_m: f64,
    /// When it was greatest; nothing where it stays shut.
    pub at_min: Option<f64>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct BodyTipsAnswer {
    pub tips: Vec<TipAnswer>,
    /// What the iron stands before a crack runs.
    pub stands_mpa_sqrt_m: f64,
    /// Numbers of the tips, in their order, that stay shut but slide by more than 0.4 of that.
    pub shut_but_sliding: Vec<usize>,
}

/// Whether cracks open while a face is heated.
#[utoipa::path(post, path = "/api/reckon/body-tips", request_body = BodyHeatRequest, responses(
    (status = 200, description = "The greatest stress intensity at each tip", body = BodyTipsAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/body-tips", data = "<body>")]
pub async fn body_tips(body: Body<BodyHeatRequest>) -> Result<Json<BodyTipsAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let (piece, stands) = piece(&mut problems, &request.face);
    let heating = heating(&mut problems, &request);
    problems.finish()?;
    let Some(piece) = piece else { return none() };
    piece.check()?;
    places(&piece, "at_mm", &request.at_mm)?;
    let looks =
        long_work(move || tips_while_heated(&piece, &heating)).await?.map_err(|why| not_reckoned(&why))?;
    Ok(Json(BodyTipsAnswer {
        shut_but_sliding: (0..looks.len()).filter(|at| looks[*at].slides_over(stands)).collect(),
        tips: looks
            .iter()
            .map(|look| TipAnswer {
                crack: look.crack,
                end: if look.at_last_point { "b" } else { "a" },
                k_mpa_sqrt_m: look.k_mpa_sqrt_m,
                at_min: look.at_min,
            })
            .collect(),
        stands_mpa_sqrt_m: stands,
    }))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct BodyPullRequest {
    #[serde(flatten)]
    pub face: FaceRequest,
    /// How much the seam shrinks across itself.
    pub shrink_mm: f64,
    /// Pairs of places whose distance is asked for.
    #[serde(default)]
    pub between_mm: Vec<[[f64; 2]; 2]>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct BodyPullAnswer {
    /// Over the whole seam.
    pub mean_pull_mpa: f64,
    /// One for each pair; nearer is negative.
    pub moves_mm: Vec<f64>,
}

/// What the first crack pulls once it is filled and shrinks.
#[utoipa::path(post, path = "/api/reckon/body-pull", request_body = BodyPullRequest, responses(
    (status = 200, description = "The pull, and how distances change", body = BodyPullAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/body-pull", data = "<body>")]
pub async fn body_pull(body: Body<BodyPullRequest>) -> Result<Json<BodyPullAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let (piece, _) = piece(&mut problems, &request.face);
    within(&mut problems, "shrink_mm", (0.0, 5.0), request.shrink_mm);
    if request.face.cracks_mm.is_empty() {
        problems.add(FieldProblem::new(
            "cracks_mm",
            "there is no seam without a crack",
            "[[[90, 70], [210, 70]]]",
        ));
    }
    problems.finish()?;
    let Some(piece) = piece else { return none() };
    piece.check()?;
    let flat: Vec<[f64; 2]> = request.between_mm.iter().flatten().copied().collect();
    let at = places(&piece, "between_mm", &flat)?;
    let between: Vec<(At, At)> = at.chunks_exact(2).map(|pair| (pair[0], pair[1])).collect();
    let found = long_work(move || pulled(&piece, request.shrink_mm, &between)).await?;
    let pulled = found.map_err(|why| not_reckoned(&why))?;
    Ok(Json(BodyPullAnswer { mean_pull_mpa: pulled.mean_pull_mpa, moves_mm: pulled.moves_mm }))
}

/// A hole's rim, or a stretch of a rim.
#[derive(Debug, Deserialize, ToSchema)]
pub struct HeldRequest {
    /// Counted from 0.
    #[serde(default)]
    pub hole: Option<usize>,
    #[serde(default)]
    pub edge_mm: Option<[[f64; 2]; 2]>,
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct ForceRequest {
    #[serde(flatten)]
    pub at: HeldRequest,
    #[serde(default)]
    pub fx_n: f64,
    #[serde(default)]
    pub fy_n: f64,
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct BodyLoadRequest {
    #[serde(flatten)]
    pub face: FaceRequest,
    /// Where it does not move.
    pub held: Vec<HeldRequest>,
    pub forces: Vec<ForceRequest>,
    pub seam_mm: Vec<[f64; 2]>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct BodyLoadAnswer {
    pub mean_mpa: f64,
    /// Of the straight line that fits the stress across the seam best: from its middle to its end.
    pub bend_mpa: f64,
    pub most_mpa: f64,
}

/// The stress across a seam of a face that is held and loaded; cracks are filled.
#[utoipa::path(post, path = "/api/reckon/body-load", request_body = BodyLoadRequest, responses(
    (status = 200, description = "Mean and bending across the seam", body = BodyLoadAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/body-load", data = "<body>")]
pub async fn body_load(body: Body<BodyLoadRequest>) -> Result<Json<BodyLoadAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let (piece, _) = piece(&mut problems, &request.face);
    let held: Vec<Boundary> = request
        .held
        .iter()
        .enumerate()
        .filter_map(|(at, held)| held_at(&mut problems, piece.as_ref(), &format!("held[{at}]"), held))
        .collect();
    let forces: Vec<Force> = request
        .forces
        .iter()
        .enumerate()
        .filter_map(|(at, force)| {
            let field = format!("forces[{at}]");
            within(&mut problems, &format!("{field}.fx_n"), (-1e7, 1e7), force.fx_n);
            within(&mut problems, &format!("{field}.fy_n"), (-1e7, 1e7), force.fy_n);
            let at = held_at(&mut problems, piece.as_ref(), &field, &force.at)?;
            Some(Force { at, x_n: force.fx_n, y_n: force.fy_n })
        })
        .collect();
    if request.held.is_empty() {
        problems.add(FieldProblem::new("held", "nothing holds it", "[{\"hole\": 0}]"));
    }
    let seam: Vec<At> = request.seam_mm.iter().map(at).collect();
    if !(2..=60).contains(&seam.len()) || seam.windows(2).any(|pair| pair[0].distance_mm(pair[1]) < 1.0) {
        problems.add(FieldProblem::new(
            "seam_mm",
            "a seam is a line of 2 to 60 points, at least 1 mm apart",
            "[[110, 0], [110, 70]]",
        ));
    }
    problems.finish()?;
    let Some(piece) = piece else { return none() };
    piece.check()?;
    let loading = Loading { held, forces };
    let found =
        long_work(move || carried(&piece, &loading, &[seam])).await?.map_err(|why| not_reckoned(&why))?;
    let Some(carried) = found.into_iter().next().flatten() else {
        return Err(problem("seam_mm", "there is no iron along this seam", "a line through the iron"));
    };
    Ok(Json(BodyLoadAnswer {
        mean_mpa: carried.mean_mpa,
        bend_mpa: carried.bend_mpa,
        most_mpa: carried.most_mpa,
    }))
}
