//! What a device is shown that does not trust the shop's certificate yet: on plain http, by itself.

use std::net::Ipv4Addr;

use rocket::http::{ContentType, Header};
use rocket::response::Redirect;
use rocket::{Build, Config, Request, Rocket, State, catch, catchers, get, routes};

use super::addresses::ServerAddresses;
use crate::door::headers::Headers;

/// The authority a device has to trust.
#[derive(Debug, Clone)]
pub struct Trust {
    /// Its certificate, PEM.
    pub authority: String,
    /// The port on which it is handed out.
    pub port: u16,
}

impl Trust {
    /// What two people compare: SHA-256 of the certificate, in pairs.
    #[must_use]
    pub fn fingerprint(&self) -> String {
        use base64::Engine;
        use sha2::{Digest, Sha256};
        let body: String = self.authority.lines().filter(|line| !line.starts_with("-----")).collect();
        let bytes = base64::engine::general_purpose::STANDARD.decode(body).unwrap_or_default();
        Sha256::digest(&bytes).iter().map(|byte| format!("{byte:02X}")).collect::<Vec<_>>().join(" ")
    }
}

/// The certificate as phones and computers take it.
#[derive(rocket::Responder)]
struct Handed {
    certificate: (ContentType, String),
    name: Header<'static>,
}

#[get("/vanadin-shop.crt")]
fn certificate(trust: &State<Trust>) -> Handed {
    Handed {
        certificate: (ContentType::new("application", "x-x509-ca-cert"), trust.authority.clone()),
        name: Header::new("Content-Disposition", "attachment; filename=\"vanadin-shop.crt\""),
    }
}

#[get("/")]
fn page(trust: &State<Trust>, reached: &State<ServerAddresses>) -> (ContentType, String) {
    let links = reached.pages.iter().map(|url| format!("<a class=\"plate\" href=\"{url}\">{url}</a>"));
    let page = include_str!("trust_page.html")
        .replace("{links}", &links.collect::<String>())
        .replace("{fingerprint}", &trust.fingerprint());
    (ContentType::HTML, page)
}

/// Whatever else is asked for here is meant for the pages.
#[catch(default)]
fn elsewhere(_request: &Request<'_>) -> Redirect {
    Redirect::to("/")
}

/// The page and the certificate, on a port of their own.
#[must_use]
pub fn rocket(trust: Trust, reached: ServerAddresses) -> Rocket<Build> {
    let figment = Config::figment()
        .merge(("address", Ipv4Addr::LOCALHOST))
        .merge(("port", 0))
        .merge(("log_level", "off"))
        .merge(("shutdown.grace", 1))
        .merge(("shutdown.mercy", 1))
        .merge(("cli_colors", false));
    rocket::custom(figment)
        .manage(trust)
        .manage(reached)
        .attach(Headers)
        .mount("/", routes![page, certificate])
        .register("/", catchers![elsewhere])
}
