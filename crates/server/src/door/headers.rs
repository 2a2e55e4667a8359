//! What every answer says of itself to the browser.

use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::Header;
use rocket::{Request, Response};

/// Scripts, styles, fonts and pictures come from here and nowhere else; no page of others may show this
/// one in a frame. Styles may stand in the page: lists and sheets lock its scrolling by one.
const POLICY: &str = "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' blob: data:; \
                      font-src 'self'; connect-src 'self'; worker-src 'self'; object-src 'none'; \
                      base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

/// Puts them on.
pub struct Headers;

#[rocket::async_trait]
impl Fairing for Headers {
    fn info(&self) -> Info {
        Info { name: "headers", kind: Kind::Response }
    }

    async fn on_response<'r>(&self, request: &'r Request<'_>, response: &mut Response<'r>) {
        response.set_header(Header::new("Content-Security-Policy", POLICY));
        response.set_header(Header::new("Referrer-Policy", "no-referrer"));
        response.set_header(Header::new("X-Content-Type-Options", "nosniff"));
        response.set_header(Header::new("Cross-Origin-Resource-Policy", "same-origin"));
        let api = request.uri().path().segments().next() == Some("api");
        // What says for itself how long it stays right is left alone: a picture never changes.
        if api && !response.headers().contains("Cache-Control") {
            response.set_header(Header::new("Cache-Control", "no-store"));
        }
    }
}
