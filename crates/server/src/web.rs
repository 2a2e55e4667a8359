//! The front end, shipped in the binary.

use std::path::PathBuf;

use rocket::get;
use rocket::http::{ContentType, Header, Status};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "$CARGO_MANIFEST_DIR/../../web/dist"]
#[allow_missing = true]
struct Dist;

type Page = (ContentType, Vec<u8>);

/// A page and how long a browser may keep it.
#[derive(rocket::Responder)]
pub struct Kept {
    page: Page,
    cache: Header<'static>,
}

fn page(path: &str) -> Option<Kept> {
    let file = Dist::get(path)?;
    let kind = mime_guess::from_path(path).first_or_octet_stream();
    // Assets carry a hash in their name; the page itself is asked for each time.
    let cache = if path.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
    Some(Kept {
        page: (
            ContentType::parse_flexible(kind.as_ref()).unwrap_or(ContentType::Binary),
            file.data.into_owned(),
        ),
        cache: Header::new("Cache-Control", cache),
    })
}

#[get("/<path..>", rank = 20)]
pub fn file(path: PathBuf) -> Result<Kept, Status> {
    let path = path.to_string_lossy();
    if path.starts_with("api/") || path == "api" {
        return Err(Status::NotFound);
    }
    // Places of the application are routed in the browser.
    page(&path).or_else(|| page("index.html").filter(|_| !path.contains('.'))).ok_or(Status::NotFound)
}

/// Only a development build can be without its pages, and only until they are built: it reads them from
/// their folder each time.
#[get("/", rank = 19)]
pub fn index() -> Result<Kept, (Status, &'static str)> {
    let unbuilt = "The pages are not built yet. Run: cargo xtask pages, then load this again.";
    page("index.html").ok_or((Status::ServiceUnavailable, unbuilt))
}
