//! `POST /api/reckon/{energy,heating,cooling}`

use rocket::post;
use rocket::serde::json::Json;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::{FieldProblem, OutOfRange, Problems};
use vanadin_core::casting::shape::SURFACE_FACTORS;
use vanadin_core::heat::{
    BarPower, HeatingKnown, Packing, TOUCH_C, ThermalBody as Casting, UNWRAP_C, Wrapping, ceiling_c, cool,
    energy_joules, heat_for, heat_until, heating_band,
};
use vanadin_core::iron::IronProperties;
use vanadin_core::quantity::{Celsius, Kilograms, Millimetres, Seconds, Watts};

use super::{chosen, heated_iron};
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;

#[derive(Debug, Deserialize, ToSchema)]
pub struct EnergyRequest {
    pub iron: String,
    pub mass_kg: f64,
    pub from_c: f64,
    pub to_c: f64,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct EnergyAnswer {
    pub joules: f64,
}

/// Energy to heat a casting from one temperature to another.
#[utoipa::path(post, path = "/api/reckon/energy", request_body = EnergyRequest, responses(
    (status = 200, description = "The energy", body = EnergyAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/energy", data = "<body>")]
pub fn energy(body: Body<EnergyRequest>) -> Result<Json<EnergyAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let iron = heated_iron(&mut problems, &request.iron);
    let mass = problems.take("mass_kg", Kilograms::new(request.mass_kg));
    let from = problems.take("from_c", Celsius::new(request.from_c));
    let to = problems.take("to_c", Celsius::new(request.to_c));
    problems.finish()?;
    match (iron, mass, from, to) {
        (Some(iron), Some(mass), Some(from), Some(to)) => {
            Ok(Json(EnergyAnswer { joules: energy_joules(&iron, mass, from, to) }))
        }
        _ => Err(ApiError::NotAcceptable(Vec::new())),
    }
}

/// A casting as it is sent: the same fields for heating and cooling.
pub(super) struct CastingFields<'a> {
    pub iron: &'a str,
    pub mass_kg: f64,
    pub size_m: [f64; 3],
    pub shape_factor: f64,
    pub ambient_c: f64,
}

/// The casting of a request that carries its fields: a field that is wrong is told by its own name, so they are
/// not gathered in a struct inside it.
macro_rules! casting_of {
    ($request:expr, $problems:expr) => {
        $crate::reckon::heat::CastingFields {
            iron: &$request.iron,
            mass_kg: $request.mass_kg,
            size_m: [$request.length_m, $request.width_m, $request.height_m],
            shape_factor: $request.shape_factor,
            ambient_c: $request.ambient_c,
        }
        .casting($problems)
    };
}
pub(super) use casting_of;

impl CastingFields<'_> {
    pub fn casting(&self, problems: &mut Problems) -> Option<Casting> {
        let iron: Option<IronProperties> = heated_iron(problems, self.iron);
        let mass = problems.take("mass_kg", Kilograms::new(self.mass_kg));
        let mut side = |field: &str, metres: f64| {
            let refused = |out: OutOfRange| OutOfRange {
                unit: "m",
                low: out.low / 1000.0,
                high: out.high / 1000.0,
                got: metres,
                ..out
            };
            problems.take(field, Millimetres::new(metres * 1000.0).map_err(refused))
        };
        let [l, w, h] = self.size_m;
        let (l, w, h) = (side("length_m", l), side("width_m", w), side("height_m", h));
        let ambient = problems.take("ambient_c", Celsius::new(self.ambient_c));
        let checked = OutOfRange::check("a shape factor", "", SURFACE_FACTORS, self.shape_factor);
        let factor = problems.take("shape_factor", checked);
        Casting::new(iron?, mass?, (l?, w?, h?), factor?, ambient?).ok()
    }
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct HeatingRequest {
    pub iron: String,
    pub mass_kg: f64,
    pub length_m: f64,
    pub width_m: f64,
    pub height_m: f64,
    pub shape_factor: f64,
    pub ambient_c: f64,
    /// Net power swept evenly, and round the station.
    #[serde(default)]
    pub even_w: Option<f64>,
    #[serde(default)]
    pub local_w: Option<f64>,
    /// Fraction 0 to 1 of the longest side.
    #[serde(default)]
    pub station: Option<f64>,
    /// An oven or a fire instead of a flame.
    #[serde(default)]
    pub surroundings_c: Option<f64>,
    pub for_s: f64,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct HeatingAnswer {
    pub coldest_c: f64,
    pub hottest_c: f64,
    pub mean_c: f64,
    pub unevenness_k: f64,
    /// Where the coldest cell ends up when it goes on for ever.
    pub ceiling_c: f64,
    /// (min, coldest degC, hottest degC)
    pub curve: Vec<(f64, f64, f64)>,
    /// What to know about the answer; empty for nothing.
    pub cautions: Vec<String>,
}

/// A part heated from ambient for a time, by the bar model.
#[utoipa::path(post, path = "/api/reckon/heating", request_body = HeatingRequest, responses(
    (status = 200, description = "The bar at the end", body = HeatingAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/heating", data = "<body>")]
pub fn heating(body: Body<HeatingRequest>) -> Result<Json<HeatingAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let casting = casting_of!(request, &mut problems);
    let time = problems.take("for_s", Seconds::new(request.for_s));
    let power = heating_power(&mut problems, &request);
    problems.finish()?;
    let (Some(casting), Some(time), Some(power)) = (casting, time, power) else {
        return Err(ApiError::NotAcceptable(Vec::new()));
    };
    let heating = heat_for(&casting, power, time);
    let bar = &heating.bar;
    let mut cautions = Vec::new();
    if bar.hottest_c() > 700.0 {
        cautions.push(
            "Over 700 °C the iron's own structure changes: outside what the model is good for.".to_owned(),
        );
    }
    let every = heating.curve.len().div_ceil(400).max(1);
    Ok(Json(HeatingAnswer {
        coldest_c: bar.coldest_c(),
        hottest_c: bar.hottest_c(),
        mean_c: bar.mean_c(),
        unevenness_k: bar.unevenness_k(),
        ceiling_c: ceiling_c(&casting, power),
        curve: heating.curve.iter().copied().step_by(every).collect(),
        cautions,
    }))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct HeatingBandRequest {
    pub iron: String,
    pub mass_kg: f64,
    pub length_m: f64,
    pub width_m: f64,
    pub height_m: f64,
    pub shape_factor: f64,
    pub ambient_c: f64,
    /// Net power swept evenly, and round the station.
    pub even_w: f64,
    pub local_w: f64,
    /// Fraction 0 to 1 of the longest side.
    pub station: f64,
    /// At the coldest place.
    pub to_c: f64,
    pub mass_weighed: bool,
    /// Of this source, in this shop.
    #[serde(default)]
    pub own_heatings: u32,
}

/// A time with its 80 % band.
#[derive(Debug, Serialize, ToSchema)]
pub struct HeatingBandAnswer {
    /// Nothing where it does not get there within 72 h.
    pub minutes: Option<f64>,
    pub low: Option<f64>,
    /// Nothing where it may not get there.
    pub high: Option<f64>,
    /// The share of such heatings that get there.
    pub share_there: Option<f64>,
}

/// How soon and how late a flame gets a part there.
#[utoipa::path(post, path = "/api/reckon/heating-band", request_body = HeatingBandRequest, responses(
    (status = 200, description = "The time, early and late", body = HeatingBandAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/heating-band", data = "<body>")]
pub fn heating_band_of(body: Body<HeatingBandRequest>) -> Result<Json<HeatingBandAnswer>, ApiError> {
    const MOST_S: f64 = 72.0 * 3600.0;
    let request = body.0?;
    let mut problems = Problems::default();
    let casting = casting_of!(request, &mut problems);
    let even = problems.take("even_w", Watts::new(request.even_w));
    let local = problems.take("local_w", Watts::new(request.local_w));
    let station = problems.take("station", OutOfRange::check("a station", "", (0.0, 1.0), request.station));
    let to = problems.take("to_c", Celsius::new(request.to_c));
    problems.finish()?;
    let (Some(casting), Some(even), Some(local), Some(station), Some(to)) =
        (casting, even, local, station, to)
    else {
        return Err(ApiError::NotAcceptable(Vec::new()));
    };
    let power = BarPower::Flame { even, local, station, covered: 0.0 };
    let known =
        HeatingKnown { mass_weighed: request.mass_weighed, own_heatings: request.own_heatings as usize };
    let to_c = to.celsius();
    let minutes = |casting: &Casting, power: BarPower| {
        // What stops short of it is not waited for.
        if ceiling_c(casting, power) <= to_c {
            return None;
        }
        heat_until(casting, power, to, Seconds::new(MOST_S).ok()?).minutes_to(to_c)
    };
    let band = heating_band(&casting, power, to_c, known, minutes);
    Ok(Json(HeatingBandAnswer {
        minutes: band.map(|band| band.minutes),
        low: band.map(|band| band.low),
        high: band.and_then(|band| band.high),
        share_there: band.map(|band| band.share_there),
    }))
}

fn heating_power(problems: &mut Problems, request: &HeatingRequest) -> Option<BarPower> {
    let flame = request.even_w.is_some() || request.local_w.is_some();
    match request.surroundings_c {
        Some(_) if flame => {
            problems.add(FieldProblem::new(
                "surroundings_c",
                "an oven and a flame at once are not worked out",
                "surroundings_c alone, or even_w with local_w",
            ));
            None
        }
        Some(surroundings) => {
            problems.take("surroundings_c", Celsius::new(surroundings)).map(BarPower::Surroundings)
        }
        None if !flame => {
            problems.add(FieldProblem::new(
                "even_w",
                "nothing heats the part",
                "even_w and local_w, or surroundings_c",
            ));
            None
        }
        None => {
            let even = problems.take("even_w", Watts::new(request.even_w.unwrap_or(0.0)));
            let local = problems.take("local_w", Watts::new(request.local_w.unwrap_or(0.0)));
            let station =
                OutOfRange::check("a station", "of the length", (0.0, 1.0), request.station.unwrap_or(0.5));
            let station = problems.take("station", station);
            Some(BarPower::Flame { even: even?, local: local?, station: station?, covered: 0.0 })
        }
    }
}

/// A packing and its thickness, at the fields of that name behind `at`.
pub(super) fn wrapping(
    problems: &mut Problems,
    at: &str,
    packing: &str,
    thickness_m: f64,
) -> Option<Wrapping> {
    let known: Vec<&str> = Packing::CHOICES.iter().map(|(id, _)| *id).collect();
    let found =
        chosen(problems, &format!("{at}packing"), packing, Packing::from_id(packing), &known.join(", "));
    found.and_then(|found| problems.take(&format!("{at}thickness_m"), Wrapping::new(found, thickness_m)))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct CoolingRequest {
    pub iron: String,
    pub mass_kg: f64,
    pub length_m: f64,
    pub width_m: f64,
    pub height_m: f64,
    pub shape_factor: f64,
    pub ambient_c: f64,
    pub start_c: f64,
    /// air, blanket, vermiculite, dry_sand, wood_ash, lime or litter.
    pub packing: String,
    #[serde(default)]
    pub thickness_m: f64,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct CoolingAnswer {
    pub after_1h_c: Option<f64>,
    pub after_4h_c: Option<f64>,
    /// Nothing when not reached within 72 h.
    pub hours_to_65c: Option<f64>,
    pub hours_to_45c: Option<f64>,
    /// Worst mean over any 30 min.
    pub fastest_k_per_h: f64,
    /// (hours, degC)
    pub curve: Vec<(f64, f64)>,
}

/// A casting cooling in its packing.
#[utoipa::path(post, path = "/api/reckon/cooling", request_body = CoolingRequest, responses(
    (status = 200, description = "The curve", body = CoolingAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/cooling", data = "<body>")]
pub fn cooling(body: Body<CoolingRequest>) -> Result<Json<CoolingAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let casting = casting_of!(request, &mut problems);
    let start = problems.take("start_c", Celsius::new(request.start_c));
    let wrapping = wrapping(&mut problems, "", &request.packing, request.thickness_m);
    problems.finish()?;
    let (Some(casting), Some(start), Some(wrapping)) = (casting, start, wrapping) else {
        return Err(ApiError::NotAcceptable(Vec::new()));
    };
    let cooling = cool(&casting, start, &wrapping);
    Ok(Json(CoolingAnswer {
        after_1h_c: cooling.after_hours(1.0),
        after_4h_c: cooling.after_hours(4.0),
        hours_to_65c: cooling.hours_to(UNWRAP_C),
        hours_to_45c: cooling.hours_to(TOUCH_C),
        fastest_k_per_h: cooling.fastest_k_per_h(),
        curve: cooling.curve(200, TOUCH_C),
    }))
}
