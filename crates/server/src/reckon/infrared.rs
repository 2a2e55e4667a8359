//! `POST /api/reckon/{infrared,infrared-aim}`: what a gun shows, and what the iron is at.

use rocket::post;
use rocket::serde::json::Json;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::Problems;
use vanadin_core::heat::{DONT_STEER_UNDER, Infrared};

use super::at_the_heat::{none, within};
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;

#[derive(Debug, Deserialize, ToSchema)]
pub struct InfraredRequest {
    pub shown_c: f64,
    pub emissivity_set: f64,
    pub emissivity_true: f64,
    pub reflected_c: f64,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct InfraredAnswer {
    /// Nothing where no temperature would show that.
    pub true_c: Option<f64>,
    /// What to know about it; empty for nothing.
    pub cautions: Vec<String>,
}

fn shines(emissivity_true: f64) -> Vec<String> {
    if emissivity_true < DONT_STEER_UNDER {
        vec!["It shines too little to be steered by: dab it with soot or heat paint.".to_owned()]
    } else {
        Vec::new()
    }
}

/// What the surface is when the gun shows this.
#[utoipa::path(post, path = "/api/reckon/infrared", request_body = InfraredRequest, responses(
    (status = 200, description = "The temperature of the surface", body = InfraredAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/infrared", data = "<body>")]
pub fn infrared(body: Body<InfraredRequest>) -> Result<Json<InfraredAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let shown = within(&mut problems, "shown_c", (-40.0, 1_500.0), request.shown_c);
    let gun = gun(&mut problems, request.emissivity_set, request.emissivity_true, request.reflected_c);
    problems.finish()?;
    let (Some(shown), Some(gun)) = (shown, gun) else { return none() };
    Ok(Json(InfraredAnswer { true_c: gun.true_c(shown), cautions: shines(gun.emissivity_true) }))
}

/// The gun, each of its figures checked at its own field.
fn gun(problems: &mut Problems, set: f64, own: f64, reflected_c: f64) -> Option<Infrared> {
    let set = within(problems, "emissivity_set", (0.1, 1.0), set);
    let own = within(problems, "emissivity_true", (0.05, 1.0), own);
    let reflected = within(problems, "reflected_c", (-40.0, 1_400.0), reflected_c);
    Infrared::new(set?, own?, reflected?).ok()
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct InfraredAimRequest {
    pub true_c: f64,
    pub emissivity_set: f64,
    pub emissivity_true: f64,
    pub reflected_c: f64,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct InfraredAimAnswer {
    pub shown_c: Option<f64>,
    pub cautions: Vec<String>,
}

/// What the gun shows when the iron is right.
#[utoipa::path(post, path = "/api/reckon/infrared-aim", request_body = InfraredAimRequest, responses(
    (status = 200, description = "What the gun shows", body = InfraredAimAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/infrared-aim", data = "<body>")]
pub fn infrared_aim(body: Body<InfraredAimRequest>) -> Result<Json<InfraredAimAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let hot = within(&mut problems, "true_c", (-40.0, 1_500.0), request.true_c);
    let gun = gun(&mut problems, request.emissivity_set, request.emissivity_true, request.reflected_c);
    problems.finish()?;
    let (Some(hot), Some(gun)) = (hot, gun) else { return none() };
    Ok(Json(InfraredAimAnswer { shown_c: gun.shown_c(hot), cautions: shines(gun.emissivity_true) }))
}
