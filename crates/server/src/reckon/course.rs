//! `POST /api/reckon/{cooling-chain,cooling-refit,heating-refit}`: how a heat goes on.

use rocket::post;
use rocket::serde::json::Json;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::Problems;
use vanadin_core::heat::{
    BarPower, ChainStep, ReadAt, TOUCH_C, UNWRAP_C, cooling_chain, cooling_fit, heating_fit,
};
use vanadin_core::quantity::{Celsius, Watts};

use super::at_the_heat::{none, within};
use super::heat::{casting_of, wrapping};
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;

const MOST_HOURS: f64 = 72.0;

/// A step of the way down.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum ChainStepRequest {
    PostHeat {
        to_c: f64,
        minutes: f64,
    },
    Taper {
        minutes: f64,
    },
    Oven {
        at_c: f64,
        hours: f64,
    },
    DyingFire {
        time_constant_h: f64,
        hours: f64,
    },
    OvenRamp {
        to_c: f64,
        k_per_h: f64,
    },
    Packed {
        packing: String,
        #[serde(default)]
        thickness_m: f64,
        hours: f64,
        /// Where it was warmed.
        #[serde(default)]
        packing_c: Option<f64>,
        /// Bright foil over it.
        #[serde(default)]
        foil: bool,
    },
    Air {
        hours: f64,
    },
}

impl ChainStepRequest {
    fn step(&self, problems: &mut Problems, at: &str) -> Option<ChainStep> {
        let named = |name: &str| format!("{at}{name}");
        let mut hours = |name: &str, value: f64| within(problems, &named(name), (0.0, MOST_HOURS), value);
        match self {
            Self::PostHeat { to_c, minutes } => {
                hours("minutes", minutes / 60.0)?;
                let to = problems.take(&named("to_c"), Celsius::new(*to_c))?;
                Some(ChainStep::PostHeat { to_c: to.celsius(), minutes: *minutes })
            }
            Self::Taper { minutes } => {
                hours("minutes", minutes / 60.0)?;
                Some(ChainStep::Taper { minutes: *minutes })
            }
            Self::Oven { at_c, hours: lasts } => {
                hours("hours", *lasts)?;
                let oven = problems.take(&named("at_c"), Celsius::new(*at_c))?;
                Some(ChainStep::Oven { at_c: oven.celsius(), hours: *lasts })
            }
            Self::DyingFire { time_constant_h, hours: lasts } => {
                hours("hours", *lasts)?;
                within(problems, &named("time_constant_h"), (0.01, MOST_HOURS), *time_constant_h)?;
                Some(ChainStep::DyingFire { time_constant_h: *time_constant_h, hours: *lasts })
            }
            Self::OvenRamp { to_c, k_per_h } => {
                let to = problems.take(&named("to_c"), Celsius::new(*to_c))?;
                within(problems, &named("k_per_h"), (10.0, 100_000.0), *k_per_h)?;
                Some(ChainStep::OvenRamp { to_c: to.celsius(), k_per_h: *k_per_h })
            }
            Self::Packed { packing, thickness_m, hours: lasts, packing_c, foil } => {
                hours("hours", *lasts)?;
                let wrapping = wrapping(problems, at, packing, *thickness_m)?;
                let warmed = match packing_c {
                    None => None,
                    Some(celsius) => {
                        Some(problems.take(&named("packing_c"), Celsius::new(*celsius))?.celsius())
                    }
                };
                let wrapping = if *foil { wrapping.under_foil() } else { wrapping };
                Some(ChainStep::Packed { wrapping, hours: *lasts, packing_c: warmed })
            }
            Self::Air { hours: lasts } => {
                hours("hours", *lasts)?;
                Some(ChainStep::Air { hours: *lasts })
            }
        }
    }
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct CoolingChainRequest {
    pub iron: String,
    pub mass_kg: f64,
    pub length_m: f64,
    pub width_m: f64,
    pub height_m: f64,
    pub shape_factor: f64,
    pub ambient_c: f64,
    pub start_c: f64,
    /// Each begins where the one before it ended.
    pub steps: Vec<ChainStepRequest>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct CoolingChainAnswer {
    /// One a step.
    pub ends_c: Vec<f64>,
    pub lasts_h: Vec<f64>,
    /// (hours from the beginning, degC)
    pub curve: Vec<(f64, f64)>,
}

/// A casting down a chain of steps.
#[utoipa::path(post, path = "/api/reckon/cooling-chain", request_body = CoolingChainRequest, responses(
    (status = 200, description = "Where each step ends", body = CoolingChainAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/cooling-chain", data = "<body>")]
pub fn cooling_chain_of(body: Body<CoolingChainRequest>) -> Result<Json<CoolingChainAnswer>, ApiError> {
    const MOST_STEPS: f64 = 30.0;
    let request = body.0?;
    let mut problems = Problems::default();
    let casting = casting_of!(request, &mut problems);
    let start = problems.take("start_c", Celsius::new(request.start_c));
    within(&mut problems, "steps", (1.0, MOST_STEPS), request.steps.len() as f64);
    let steps: Vec<Option<ChainStep>> = (request.steps.iter().enumerate())
        .map(|(at, step)| step.step(&mut problems, &format!("steps[{at}].")))
        .collect();
    problems.finish()?;
    let (Some(casting), Some(start)) = (casting, start) else { return none() };
    let steps: Vec<ChainStep> = steps.into_iter().flatten().collect();
    let found = cooling_chain(&casting, start.celsius(), &steps);
    let mut before_s = 0.0;
    let mut curve = Vec::new();
    for descent in &found {
        let every = descent.curve.len().div_ceil(200).max(1);
        curve.extend(descent.curve.iter().step_by(every).map(|(s, c)| ((before_s + s) / 3600.0, *c)));
        before_s += descent.lasts_s;
    }
    curve.extend(found.last().map(|last| (before_s / 3600.0, last.ends_c)));
    Ok(Json(CoolingChainAnswer {
        ends_c: found.iter().map(|descent| descent.ends_c).collect(),
        lasts_h: found.iter().map(|descent| descent.lasts_s / 3600.0).collect(),
        curve,
    }))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct ReadingRequest {
    pub minutes: f64,
    pub celsius: f64,
}

/// Readings, checked at their fields.
fn readings(problems: &mut Problems, sent: &[ReadingRequest]) -> Vec<ReadAt> {
    const MOST: f64 = 5_000.0;
    within(problems, "readings", (1.0, MOST), sent.len() as f64);
    sent.iter()
        .enumerate()
        .filter_map(|(at, read)| {
            let minutes =
                within(problems, &format!("readings[{at}].minutes"), (0.0, MOST_HOURS * 60.0), read.minutes)?;
            let celsius =
                problems.take(&format!("readings[{at}].celsius"), Celsius::new(read.celsius))?.celsius();
            Some(ReadAt { minutes, celsius })
        })
        .collect()
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct CoolingRefitRequest {
    pub iron: String,
    pub mass_kg: f64,
    pub length_m: f64,
    pub width_m: f64,
    pub height_m: f64,
    pub shape_factor: f64,
    pub ambient_c: f64,
    pub start_c: f64,
    pub packing: String,
    #[serde(default)]
    pub thickness_m: f64,
    /// Since it was covered.
    pub readings: Vec<ReadingRequest>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct CoolingRefitAnswer {
    /// Of what the book's packing lets through; nothing without a reading after the start.
    pub scale: Option<f64>,
    /// When it was covered.
    pub covered_at_c: Option<f64>,
    /// False where it does not cool as such a packing does: the scale ran into a bound.
    pub fits: bool,
    pub hours_to_65c: Option<f64>,
    pub hours_to_45c: Option<f64>,
    /// Of the 80 % band, to 65 degC; nothing under 3 readings.
    pub early_h: Option<f64>,
    pub late_h: Option<f64>,
}

/// A cooling fitted to what was read of it.
#[utoipa::path(post, path = "/api/reckon/cooling-refit", request_body = CoolingRefitRequest, responses(
    (status = 200, description = "The scale, and the new time with its band", body = CoolingRefitAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/cooling-refit", data = "<body>")]
pub fn cooling_refit(body: Body<CoolingRefitRequest>) -> Result<Json<CoolingRefitAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let casting = casting_of!(request, &mut problems);
    let start = problems.take("start_c", Celsius::new(request.start_c));
    let packed = wrapping(&mut problems, "", &request.packing, request.thickness_m);
    let read = readings(&mut problems, &request.readings);
    problems.finish()?;
    let (Some(casting), Some(start), Some(packed)) = (casting, start, packed) else { return none() };
    let fit = cooling_fit(&casting, start, &packed, &read);
    let fit = fit.as_ref();
    let band = fit.and_then(|fit| fit.between_hours(UNWRAP_C));
    Ok(Json(CoolingRefitAnswer {
        scale: fit.map(|fit| fit.scale),
        covered_at_c: fit.map(|fit| fit.start_c),
        fits: fit.is_some_and(|fit| fit.fits),
        hours_to_65c: fit.and_then(|fit| fit.cooling.hours_to(UNWRAP_C)),
        hours_to_45c: fit.and_then(|fit| fit.cooling.hours_to(TOUCH_C)),
        early_h: band.map(|(early, _)| early),
        late_h: band.map(|(_, late)| late),
    }))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct HeatingRefitRequest {
    pub iron: String,
    pub mass_kg: f64,
    pub length_m: f64,
    pub width_m: f64,
    pub height_m: f64,
    pub shape_factor: f64,
    pub ambient_c: f64,
    pub even_w: f64,
    pub local_w: f64,
    /// Fraction 0 to 1 of the longest side.
    pub station: f64,
    /// At the coldest place, since it was lit.
    pub readings: Vec<ReadingRequest>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct HeatingRefitAnswer {
    /// On both powers; nothing without a reading after the start.
    pub factor: Option<f64>,
}

/// A heating fitted to what was read of it.
#[utoipa::path(post, path = "/api/reckon/heating-refit", request_body = HeatingRefitRequest, responses(
    (status = 200, description = "The factor on the source's power", body = HeatingRefitAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/heating-refit", data = "<body>")]
pub fn heating_refit(body: Body<HeatingRefitRequest>) -> Result<Json<HeatingRefitAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let casting = casting_of!(request, &mut problems);
    let even = problems.take("even_w", Watts::new(request.even_w));
    let local = problems.take("local_w", Watts::new(request.local_w));
    let station = within(&mut problems, "station", (0.0, 1.0), request.station);
    let read = readings(&mut problems, &request.readings);
    problems.finish()?;
    let (Some(casting), Some(even), Some(local), Some(station)) = (casting, even, local, station) else {
        return none();
    };
    let power = BarPower::Flame { even, local, station, covered: 0.0 };
    Ok(Json(HeatingRefitAnswer { factor: heating_fit(&casting, power, &read) }))
}
