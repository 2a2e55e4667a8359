//! `/api/units`: the units of one device. A device that never chose has the shop's.

use rocket::http::{Cookie, CookieJar, SameSite};
use rocket::request::{FromRequest, Outcome};
use rocket::response::status::NoContent;
use rocket::time::Duration;
use rocket::{Request, post};
use serde::Deserialize;
use utoipa::ToSchema;
use vanadin_core::quantity::UnitSystem;

use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;

const COOKIE: &str = "vanadin-units";
/// As long as browsers keep one.
const KEPT: Duration = Duration::days(400);

/// The units the device that sends this chose; nothing where it never did.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct DeviceUnits(pub Option<UnitSystem>);

#[rocket::async_trait]
impl<'r> FromRequest<'r> for DeviceUnits {
    type Error = std::convert::Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        let chosen = request.cookies().get(COOKIE).and_then(|cookie| match cookie.value() {
            "metric" => Some(UnitSystem::Metric),
            "imperial" => Some(UnitSystem::Imperial),
            _ => None,
        });
        Outcome::Success(Self(chosen))
    }
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct ChosenUnits {
    pub units: UnitSystem,
}

/// From now on everything is told to this device in these units, and what is typed there is read in them. Others are
/// told as before.
#[utoipa::path(post, path = "/api/units", operation_id = "choose_units", request_body = ChosenUnits, responses(
    (status = 204, description = "It is so, by a cookie"),
    (status = 422, description = "No such units", body = ProblemsBody)))]
#[post("/units", data = "<body>")]
pub fn choose_units(body: Body<ChosenUnits>, cookies: &CookieJar<'_>) -> Result<NoContent, ApiError> {
    let value = match body.0?.units {
        UnitSystem::Metric => "metric",
        UnitSystem::Imperial => "imperial",
    };
    let cookie = Cookie::build((COOKIE, value)).http_only(true).same_site(SameSite::Strict).path("/");
    cookies.add(cookie.max_age(KEPT).build());
    Ok(NoContent)
}
