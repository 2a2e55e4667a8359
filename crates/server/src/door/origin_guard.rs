//! Pages of other sites cannot write, names that were made to point here can neither read nor write, and
//! whoever has not said the passphrase neither.

use std::net::IpAddr;

use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::Method;
use rocket::http::uri::Origin;
use rocket::{Data, Request, get, post};

use super::helper::is_none_of_theirs;
use super::known::Door;
use crate::api_error::ApiError;
use crate::thermocouple::Thermocouples;

/// Sends every foreign request to [`refused`] before any handler sees it.
pub struct OriginGuard;

#[rocket::async_trait]
impl Fairing for OriginGuard {
    fn info(&self) -> Info {
        Info { name: "foreign requests", kind: Kind::Request }
    }

    async fn on_request(&self, request: &mut Request<'_>, _data: &mut Data<'_>) {
        let writes = !matches!(request.method(), Method::Get | Method::Head | Method::Options);
        let headers = request.headers();
        let host = headers.get_one("Host");
        let foreign = host.map_or(writes, |host| !is_ours(host))
            || (writes && headers.get_one("Origin").is_some_and(|origin| !is_of(origin, host)));
        let to = if foreign {
            Some(REFUSED)
        } else if closed_to(request) {
            Some(CLOSED)
        } else if is_none_of_theirs(request) {
            Some(HELPS)
        } else {
            None
        };
        if let Some(to) = to {
            request.set_uri(Origin::parse(to).expect("a fixed path"));
        }
    }
}

const REFUSED: &str = "/api/foreign";
const CLOSED: &str = "/api/closed";
const HELPS: &str = "/api/helps";

/// The passphrase has to be said first: for everything but the pages themselves and the door.
fn closed_to(request: &Request<'_>) -> bool {
    // As they are routed: unpacked, without empty ones.
    let mut parts = request.uri().path().segments();
    let free = match (parts.next(), parts.next(), parts.next(), parts.next(), parts.next()) {
        (Some("api"), Some("door"), None, ..) => true,
        (Some("api"), Some("door"), Some("helped"), None, ..) => true,
        // A logger says no passphrase: it has a token of its own, which is asked for there.
        (Some("api"), Some("jobs"), Some(_), Some("readings"), None) => request.method() == Method::Post,
        (first, ..) => first != Some("api"),
    };
    // An instrument that was started by this server looks, and posts as a logger does.
    let looks = request.method() == Method::Get;
    let ours = || request.rocket().state::<Thermocouples>().is_some_and(|pads| pads.sends(request));
    let asked = request.rocket().state::<Door>().is_some_and(|door| !door.lets_in(request));
    !free && asked && !(looks && ours())
}

#[get("/closed")]
pub fn closed_to_read(out: Out) -> ApiError {
    out.0
}

#[post("/closed")]
pub fn closed(out: Out) -> ApiError {
    out.0
}

#[get("/helps")]
pub fn helps_to_read() -> ApiError {
    ApiError::Helps
}

#[post("/helps")]
pub fn helps() -> ApiError {
    ApiError::Helps
}

/// Why whoever sends this may not come in.
pub struct Out(ApiError);

#[rocket::async_trait]
impl<'r> rocket::request::FromRequest<'r> for Out {
    type Error = std::convert::Infallible;

    async fn from_request(request: &'r Request<'_>) -> rocket::request::Outcome<Self, Self::Error> {
        let out = request.rocket().state::<Door>().is_some_and(|door| door.has_turned_out(request));
        rocket::request::Outcome::Success(Self(if out { ApiError::TurnedOut } else { ApiError::Closed }))
    }
}

/// A host that is an address or this machine's own name cannot have been made up by a name server.
fn is_ours(host: &str) -> bool {
    let name = match host.strip_prefix('[') {
        Some(rest) => rest.split(']').next().unwrap_or_default(),
        None => host.split(':').next().unwrap_or_default(),
    };
    let name = name.strip_suffix('.').unwrap_or(name);
    name.eq_ignore_ascii_case("localhost") || name.parse::<IpAddr>().is_ok()
}

/// The page that writes comes from the host it writes to.
fn is_of(origin: &str, host: Option<&str>) -> bool {
    let from = origin.strip_prefix("http://").or(origin.strip_prefix("https://"));
    from.zip(host).is_some_and(|(from, host)| from.eq_ignore_ascii_case(host))
}

#[get("/foreign")]
pub fn refused_to_read(request: Host<'_>) -> ApiError {
    ApiError::Foreign(request.0.to_owned())
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

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::own_name("localhost", true)]
    #[case::own_name_with_port("localhost:8420", true)]
    #[case::in_capitals("LocalHost:8420", true)]
    #[case::with_a_dot("localhost.:8420", true)]
    #[case::address("192.168.1.20:8420", true)]
    #[case::address_in_six("[fe80::1]:8420", true)]
    #[case::a_name_made_to_point_here("localhost.elsewhere.example", false)]
    #[case::one_more_dot("localhost..", false)]
    #[case::no_address("192.168.1.20.elsewhere.example:8420", false)]
    #[case::nothing("", false)]
    fn only_an_address_or_this_machine_is_ours(#[case] host: &str, #[case] ours: bool) {
        assert_eq!(is_ours(host), ours);
    }

    #[rstest]
    #[case::same("http://localhost:8420", true)]
    #[case::same_behind_tls("https://LOCALHOST:8420", true)]
    #[case::other_port("http://localhost:9000", false)]
    #[case::of_nothing("null", false)]
    #[case::no_scheme("localhost:8420", false)]
    fn a_page_writes_to_where_it_comes_from(#[case] origin: &str, #[case] same: bool) {
        assert_eq!(is_of(origin, Some("localhost:8420")), same);
    }
}
