//! `/api/address`: where the other devices of the shop find this server.

use rocket::serde::json::Json;
use rocket::{State, get};
use serde::Serialize;
use utoipa::ToSchema;

use super::addresses::ServerAddresses;
use super::qr;
use super::trust_page::Trust;

/// Where and how this server is reached.
#[derive(Debug, Serialize, ToSchema)]
pub struct AddressView {
    /// Where the pages are opened, the likeliest first.
    pub pages: Vec<String>,
    /// Where a device comes to trust the shop's certificate first; empty without one.
    pub trust: Vec<String>,
    /// What a camera reads to get there, an SVG: the first of `trust`, or of `pages`. Empty where no
    /// other device gets here.
    pub qr: String,
    /// Of the certificate that a device has to trust; empty without one.
    pub fingerprint: String,
    /// Other devices reach it.
    pub by_others: bool,
    pub tls: bool,
}

/// Where the other devices of the shop find this server.
#[utoipa::path(get, path = "/api/address", responses((status = 200, description = "Where it is found", body = AddressView)))]
#[get("/address")]
pub fn address(reached: &State<ServerAddresses>, trust: &State<Option<Trust>>) -> Json<AddressView> {
    let trust = trust.inner().as_ref();
    let reached = reached.inner().clone();
    let first = reached.trust.first().or(reached.pages.first()).filter(|_| reached.by_others);
    Json(AddressView {
        qr: first.and_then(|url| qr::svg(url)).unwrap_or_default(),
        fingerprint: trust.map_or_else(String::new, Trust::fingerprint),
        by_others: reached.by_others,
        tls: reached.tls,
        pages: reached.pages,
        trust: reached.trust,
    })
}
