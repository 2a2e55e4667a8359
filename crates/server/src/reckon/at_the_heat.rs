//! `POST /api/reckon/{gas,acetylene,sticks,edge,oven,out-of-heat,pull}`

use rocket::post;
use rocket::serde::json::Json;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::{OutOfRange, Problems};
use vanadin_core::heat::{
    HotSpot, OutOfHeat, OvenRun, Pass, gas_need_m3, in_the_oven_c, runs_out_min, sticks as chosen_sticks,
    stress_intensity, t8_5_s, thermal_stress_mpa, withdrawal,
};
use vanadin_core::iron::Iron;
use vanadin_core::quantity::{Celsius, WallMillimetres};

use super::heat::casting_of;
use super::heated_iron;
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;

/// A number within bounds, at its field.
pub(super) fn within(problems: &mut Problems, field: &str, bounds: (f64, f64), got: f64) -> Option<f64> {
    problems.take(field, OutOfRange::check("a value here", "", bounds, got))
}

pub(super) fn none<T>() -> Result<Json<T>, ApiError> {
    Err(ApiError::NotAcceptable(Vec::new()))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct GasRequest {
    pub flow_m3_h: f64,
    pub minutes: f64,
    pub have_m3: f64,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct GasAnswer {
    /// With its reserve.
    pub need_m3: f64,
    pub enough: bool,
    /// Without the reserve; nothing where nothing flows.
    pub runs_out_min: Option<f64>,
}

/// Gas for a heating, against what is there.
#[utoipa::path(post, path = "/api/reckon/gas", request_body = GasRequest, responses(
    (status = 200, description = "What is needed, and when it runs out", body = GasAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/gas", data = "<body>")]
pub fn gas(body: Body<GasRequest>) -> Result<Json<GasAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let flow = within(&mut problems, "flow_m3_h", (0.0, 1_000.0), request.flow_m3_h);
    let minutes = within(&mut problems, "minutes", (0.0, 100_000.0), request.minutes);
    let have = within(&mut problems, "have_m3", (0.0, 100_000.0), request.have_m3);
    problems.finish()?;
    let (Some(flow), Some(minutes), Some(have)) = (flow, minutes, have) else { return none() };
    let need_m3 = gas_need_m3(flow, minutes);
    Ok(Json(GasAnswer { need_m3, enough: need_m3 <= have, runs_out_min: runs_out_min(flow, have) }))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct AcetyleneRequest {
    pub capacity_m3: f64,
    pub flow_m3_h: f64,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct AcetyleneAnswer {
    pub limit_continuous_m3_h: f64,
    pub limit_intermittent_m3_h: f64,
    pub cylinders_continuous: u32,
    pub cylinders_intermittent: u32,
}

/// How fast acetylene may be drawn, and from how many cylinders.
#[utoipa::path(post, path = "/api/reckon/acetylene", request_body = AcetyleneRequest, responses(
    (status = 200, description = "The limits, and the cylinders on the manifold", body = AcetyleneAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/acetylene", data = "<body>")]
pub fn acetylene(body: Body<AcetyleneRequest>) -> Result<Json<AcetyleneAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let capacity = within(&mut problems, "capacity_m3", (0.01, 1_000.0), request.capacity_m3);
    let flow = within(&mut problems, "flow_m3_h", (0.0, 1_000.0), request.flow_m3_h);
    let drawn = capacity
        .zip(flow)
        .and_then(|(capacity, flow)| problems.take("flow_m3_h", withdrawal(capacity, flow)));
    problems.finish()?;
    let Some(drawn) = drawn else { return none() };
    Ok(Json(AcetyleneAnswer {
        limit_continuous_m3_h: drawn.continuous_m3_h,
        limit_intermittent_m3_h: drawn.intermittent_m3_h,
        cylinders_continuous: drawn.cylinders_continuous,
        cylinders_intermittent: drawn.cylinders_intermittent,
    }))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct SticksRequest {
    pub target_c: f64,
    pub most_c: f64,
    pub ratings_c: Vec<f64>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct SticksAnswer {
    /// Nothing where none of the set will do: to be bought.
    pub must_melt_c: Option<f64>,
    pub must_not_melt_c: Option<f64>,
}

/// The two temperature sticks of a set.
#[utoipa::path(post, path = "/api/reckon/sticks", request_body = SticksRequest, responses(
    (status = 200, description = "Which must melt, and which must not", body = SticksAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/sticks", data = "<body>")]
pub fn sticks(body: Body<SticksRequest>) -> Result<Json<SticksAnswer>, ApiError> {
    const SET_MOST: f64 = 200.0;
    let request = body.0?;
    let mut problems = Problems::default();
    let target = problems.take("target_c", Celsius::new(request.target_c));
    let most = within(&mut problems, "most_c", (request.target_c.max(-60.0), 1_500.0), request.most_c);
    within(&mut problems, "ratings_c", (0.0, SET_MOST), request.ratings_c.len() as f64);
    for rating in &request.ratings_c {
        within(&mut problems, "ratings_c", (0.0, 1_500.0), *rating);
    }
    problems.finish()?;
    let (Some(target), Some(most)) = (target, most) else { return none() };
    let found = chosen_sticks(target.celsius(), most, &request.ratings_c);
    Ok(Json(SticksAnswer { must_melt_c: found.must_melt_c, must_not_melt_c: found.must_not_melt_c }))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct EdgeRequest {
    pub iron: String,
    pub volts: f64,
    pub amps: f64,
    pub travel_mm_s: f64,
    pub efficiency: f64,
    /// Of the part when the bead is laid.
    pub t0_c: f64,
    pub wall_mm: f64,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct EdgeAnswer {
    /// From 800 to 500 degC, in s; nothing where the part is at 500 already: the edge does not harden.
    pub t85_s: Option<f64>,
}

/// How fast the edge of a bead cools.
#[utoipa::path(post, path = "/api/reckon/edge", request_body = EdgeRequest, responses(
    (status = 200, description = "How quickly it cools", body = EdgeAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/edge", data = "<body>")]
pub fn edge(body: Body<EdgeRequest>) -> Result<Json<EdgeAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let iron = heated_iron(&mut problems, &request.iron);
    let volts = within(&mut problems, "volts", (1.0, 100.0), request.volts);
    let amps = within(&mut problems, "amps", (1.0, 2_000.0), request.amps);
    let travel = within(&mut problems, "travel_mm_s", (0.01, 1_000.0), request.travel_mm_s);
    let efficiency = within(&mut problems, "efficiency", (0.01, 1.0), request.efficiency);
    let part = problems.take("t0_c", Celsius::new(request.t0_c));
    let wall = problems.take("wall_mm", WallMillimetres::new(request.wall_mm));
    problems.finish()?;
    let (Some(iron), Some(volts), Some(amps), Some(travel_mm_s), Some(efficiency), Some(part), Some(wall)) =
        (iron, volts, amps, travel, efficiency, part, wall)
    else {
        return none();
    };
    let pass = Pass { volts, amps, travel_mm_s, efficiency };
    Ok(Json(EdgeAnswer { t85_s: t8_5_s(&iron, pass, wall, part) }))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct OvenRequest {
    pub iron: String,
    pub mass_kg: f64,
    pub length_m: f64,
    pub width_m: f64,
    pub height_m: f64,
    pub shape_factor: f64,
    pub ambient_c: f64,
    pub set_c: f64,
    pub ramp_k_per_h: f64,
    pub for_s: f64,
    /// What it gives at most; nothing where it gives what is asked.
    #[serde(default)]
    pub most_w: Option<f64>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct OvenAnswer {
    pub part_c: f64,
}

/// A part after a time in an oven that is ramped.
#[utoipa::path(post, path = "/api/reckon/oven", request_body = OvenRequest, responses(
    (status = 200, description = "The part", body = OvenAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/oven", data = "<body>")]
pub fn oven(body: Body<OvenRequest>) -> Result<Json<OvenAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let casting = casting_of!(request, &mut problems);
    let set = problems.take("set_c", Celsius::new(request.set_c));
    let ramp = within(&mut problems, "ramp_k_per_h", (1.0, 100_000.0), request.ramp_k_per_h);
    let for_s = within(&mut problems, "for_s", (0.0, 72.0 * 3600.0), request.for_s);
    let most = request.most_w.map(|most| within(&mut problems, "most_w", (0.0, 1e6), most));
    problems.finish()?;
    let (Some(casting), Some(set), Some(ramp_k_per_h), Some(for_s)) = (casting, set, ramp, for_s) else {
        return none();
    };
    let oven = OvenRun { set_c: set.celsius(), ramp_k_per_h, most_w: most.flatten() };
    Ok(Json(OvenAnswer { part_c: in_the_oven_c(&casting, &oven, for_s) }))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct OutOfHeatRequest {
    pub iron: String,
    pub mass_kg: f64,
    pub length_m: f64,
    pub width_m: f64,
    pub height_m: f64,
    pub shape_factor: f64,
    pub ambient_c: f64,
    pub from_c: f64,
    pub to_c: f64,
    /// 10 in still air, 25 in a draught.
    pub h_w_m2k: f64,
    /// 1, or 0.25 wrapped but for the joint.
    pub bare_share: f64,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct OutOfHeatAnswer {
    /// 0 where it is there already; nothing where it never gets there.
    pub seconds: Option<f64>,
}

/// Seconds out of the heat until the least between beads.
#[utoipa::path(post, path = "/api/reckon/out-of-heat", request_body = OutOfHeatRequest, responses(
    (status = 200, description = "The seconds there are", body = OutOfHeatAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/out-of-heat", data = "<body>")]
pub fn out_of_heat(body: Body<OutOfHeatRequest>) -> Result<Json<OutOfHeatAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let casting = casting_of!(request, &mut problems);
    let from = problems.take("from_c", Celsius::new(request.from_c));
    let to = problems.take("to_c", Celsius::new(request.to_c));
    let h = within(&mut problems, "h_w_m2k", (0.1, 1_000.0), request.h_w_m2k);
    let bare = within(&mut problems, "bare_share", (0.0, 1.0), request.bare_share);
    problems.finish()?;
    let (Some(casting), Some(from), Some(to), Some(h_w_m2k), Some(bare_share)) = (casting, from, to, h, bare)
    else {
        return none();
    };
    let out = OutOfHeat { h_w_m2k, bare_share };
    Ok(Json(OutOfHeatAnswer { seconds: out.seconds(&casting, from.celsius(), to.celsius()) }))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct PullRequest {
    pub iron: String,
    pub spread_mm: f64,
    pub tip_distance_mm: f64,
    pub difference_k: f64,
    pub crack_length_mm: f64,
    pub from_edge: bool,
    pub points_at_flame: bool,
    pub free_edge_beyond: bool,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct PullAnswer {
    /// 0 where it is pressed shut.
    pub pull_mpa: f64,
    pub k_mpa_sqrt_m: f64,
    /// Of what the iron stands.
    pub share: f64,
}

/// Whether a crack runs while it is heated.
#[utoipa::path(post, path = "/api/reckon/pull", request_body = PullRequest, responses(
    (status = 200, description = "The pull, and its share of what the iron stands", body = PullAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/pull", data = "<body>")]
pub fn pull(body: Body<PullRequest>) -> Result<Json<PullAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let properties = heated_iron(&mut problems, &request.iron);
    let spread = within(&mut problems, "spread_mm", (1.0, 2_000.0), request.spread_mm);
    let tip = within(&mut problems, "tip_distance_mm", (0.0, 20_000.0), request.tip_distance_mm);
    let difference = within(&mut problems, "difference_k", (-1_500.0, 1_500.0), request.difference_k);
    let length = within(&mut problems, "crack_length_mm", (0.1, 20_000.0), request.crack_length_mm);
    problems.finish()?;
    let (
        Some(properties),
        Some(iron),
        Some(spread_mm),
        Some(tip_distance_mm),
        Some(difference_k),
        Some(length),
    ) = (properties, Iron::from_id(&request.iron), spread, tip, difference, length)
    else {
        return none();
    };
    let spot = HotSpot {
        spread_mm,
        tip_distance_mm,
        difference_k,
        points_at_flame: request.points_at_flame,
        free_edge_beyond: request.free_edge_beyond,
    };
    let pull_mpa = thermal_stress_mpa(&properties, &spot);
    let k_mpa_sqrt_m = stress_intensity(pull_mpa, length, request.from_edge);
    Ok(Json(PullAnswer { pull_mpa, k_mpa_sqrt_m, share: k_mpa_sqrt_m / iron.toughness_mpa_sqrt_m() }))
}
