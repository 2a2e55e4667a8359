//! Pages of other sites, and names that were made to point here, cannot write.

use std::net::IpAddr;

use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::Method;
use rocket::http::uri::Origin;
use rocket::{Data, Request, post};

use crate::api_error::ApiError;

/// Sends every foreign write to [`refused`] before any handler sees it.
pub struct KeepOut;

#[rocket::async_trait]
impl Fairing for KeepOut {
    fn info(&self) -> Info {
        Info { name: "foreign writes", kind: Kind::Request }
    }

    async fn on_request(&self, request: &mut Request<'_>, _data: &mut Data<'_>) {
        let writes = !matches!(request.method(), Method::Get | Method::Head | Method::Options);
        if writes && is_foreign(request) {
            request.set_uri(Origin::parse("/api/foreign").expect("a fixed path"));
        }
    }
}

/// A host that is an address or this machine's own name cannot have been made up by a name
/// server; an origin, where one is given, is the host itself.
fn is_foreign(request: &Request<'_>) -> bool {
    let Some(host) = request.headers().get_one("Host") else {
        return true;
    };
    let name = match host.strip_prefix('[') {
        Some(rest) => rest.split(']').next().unwrap_or_default(),
        None => host.split(':').next().unwrap_or_default(),
    };
    let ours = name == "localhost" || name.parse::<IpAddr>().is_ok();
    let origin_differs = request
        .headers()
        .get_one("Origin")
        .is_some_and(|origin| origin != format!("http://{host}") && origin != format!("https://{host}"));
    !ours || origin_differs
}

#[post("/foreign")]
pub fn refused(request: Host<'_>) -> ApiError {
    ApiError::Foreign(request.0.to_owned())
}

/// Where a request says it comes from.
pub struct Host<'r>(&'r str);

#[rocket::async_trait]
impl<'r> rocket::request::FromRequest<'r> for Host<'r> {
    type Error = std::convert::Infallible;

    async fn from_request(request: &'r Request<'_>) -> rocket::request::Outcome<Self, Self::Error> {
        let headers = request.headers();
        let from = headers.get_one("Origin").or_else(|| headers.get_one("Host"));
        rocket::request::Outcome::Success(Self(from.unwrap_or("nowhere")))
    }
}
