//! The front end, shipped in the binary.

use std::convert::Infallible;
use std::path::PathBuf;

use rocket::http::{ContentType, Header, Status};
use rocket::request::{FromRequest, Outcome};
use rocket::{Request, get};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "$CARGO_MANIFEST_DIR/../../web/dist"]
#[allow_missing = true]
struct Dist;

/// A page, how long a browser may keep it, and how it is packed.
#[derive(rocket::Responder)]
pub struct CachedPage {
    page: (ContentType, Vec<u8>),
    cache: Header<'static>,
    packed: Header<'static>,
    vary: Header<'static>,
}

/// Whoever asks can unpack gzip.
pub struct Unpacks(bool);

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Unpacks {
    type Error = Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        let said = request.headers().get("Accept-Encoding").flat_map(|said| said.split(','));
        let mut kinds = said.map(|kind| kind.split(';').map(str::trim));
        let unpacks = kinds.any(|mut kind| kind.next() == Some("gzip") && kind.next() != Some("q=0"));
        Outcome::Success(Self(unpacks))
    }
}

fn page(path: &str, unpacks: &Unpacks) -> Option<CachedPage> {
    let packed = unpacks.0.then(|| Dist::get(&format!("{path}.gz"))).flatten();
    let (data, packing) = match packed {
        Some(file) => (file.data, "gzip"),
        None => (Dist::get(path)?.data, "identity"),
    };
    let kind = mime_guess::from_path(path).first_or_octet_stream();
    // Assets carry a hash in their name; the page itself is asked for each time.
    let cache = if path.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
    Some(CachedPage {
        page: (ContentType::parse_flexible(kind.as_ref()).unwrap_or(ContentType::Binary), data.into_owned()),
        cache: Header::new("Cache-Control", cache),
        packed: Header::new("Content-Encoding", packing),
        vary: Header::new("Vary", "Accept-Encoding"),
    })
}

#[get("/<path..>", rank = 20)]
pub fn file(path: PathBuf, unpacks: Unpacks) -> Result<CachedPage, Status> {
    let path = path.to_string_lossy();
    if path.starts_with("api/") || path == "api" {
        return Err(Status::NotFound);
    }
    // Places of the application are routed in the browser.
    let place = || page("index.html", &unpacks).filter(|_| !path.contains('.'));
    page(&path, &unpacks).or_else(place).ok_or(Status::NotFound)
}

/// Only a development build can be without its pages, and only until they are built: it reads them from
/// their folder each time.
#[get("/", rank = 19)]
pub fn index(unpacks: Unpacks) -> Result<CachedPage, (Status, &'static str)> {
    let unbuilt = "The pages are not built yet. Run: cargo xtask pages, then load this again.";
    page("index.html", &unpacks).ok_or((Status::ServiceUnavailable, unbuilt))
}
