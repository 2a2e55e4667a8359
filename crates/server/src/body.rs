//! A body: unreadable is 400, stalled 408, too large 413, no JSON 415, of the wrong shape 422 at its field.

use std::fs::File;
use std::io::{Read, Seek, Write};
use std::path::Path;
use std::time::Duration;

use rocket::Request;
use rocket::data::{Data, FromData, Outcome, ToByteUnit};
use rocket::http::ContentType;
use rocket::tokio::io::AsyncReadExt;
use rocket::tokio::time::{Instant, timeout, timeout_at};
use serde::de::{DeserializeOwned, IgnoredAny};
use serde_json::error::Category;
use vanadin_core::base::problem::FieldProblem;

use crate::api_error::ApiError;

/// Largest body that is read. A job of months stays well under it.
const MOST_MIB: u64 = 8;

/// What was sent, or why it cannot be used. Handlers take it apart with `?`. At most `MIB` are read.
pub struct Body<T, const MIB: u64 = MOST_MIB>(pub Result<T, ApiError>);

#[rocket::async_trait]
impl<'r, T: DeserializeOwned + Send, const MIB: u64> FromData<'r> for Body<T, MIB> {
    type Error = std::convert::Infallible;

    async fn from_data(request: &'r Request<'_>, data: Data<'r>) -> Outcome<'r, Self> {
        if !is_json(request) {
            return Outcome::Success(Self(Err(ApiError::NotJson)));
        }
        let read = received(data, MIB).await;
        Outcome::Success(Self(read.and_then(|bytes| understand(&bytes))))
    }
}

/// Whether it says that it is JSON: a page of others may send text to anybody; JSON only to its own.
pub fn is_json(request: &Request<'_>) -> bool {
    request.content_type().is_some_and(|kind| kind.media_type() == ContentType::JSON.media_type())
}

/// Nobody is waited for longer than this without a byte of theirs, nor listened to for longer in all.
const SILENCE: Duration = Duration::from_secs(15);
const IN_ALL: Duration = Duration::from_secs(600);

/// What is sent, up to the limit. The rest of a larger one is read and dropped, so that whoever sends it
/// hears why.
///
/// # Errors
/// It is too large, or does not come.
pub async fn received(data: Data<'_>, most_mib: u64) -> Result<Vec<u8>, ApiError> {
    let end = Instant::now() + IN_ALL;
    timeout_at(end, received_within(data, most_mib, SILENCE)).await.map_err(|_| ApiError::TooSlow)?
}

/// The same, into a file without a name: however slowly it comes, it takes no room in memory and nobody's turn.
///
/// # Errors
/// It is too large, or does not come, or there is no room for it.
pub async fn spooled(data: Data<'_>, most_mib: u64, folder: &Path) -> Result<Spooled, ApiError> {
    let file = tempfile::tempfile_in(folder).map_err(anyhow::Error::from)?;
    let end = Instant::now() + IN_ALL;
    timeout_at(end, spooled_within(data, most_mib, file)).await.map_err(|_| ApiError::TooSlow)?
}

/// What was sent, in a file without a name.
pub struct Spooled(File);

impl Spooled {
    /// All of it.
    ///
    /// # Errors
    /// The disk does not give it back.
    pub fn read(mut self) -> Result<Vec<u8>, ApiError> {
        let mut bytes = Vec::new();
        let read = self.0.rewind().and_then(|()| self.0.read_to_end(&mut bytes));
        read.map_err(anyhow::Error::from)?;
        Ok(bytes)
    }
}

async fn spooled_within(data: Data<'_>, most_mib: u64, mut file: File) -> Result<Spooled, ApiError> {
    let (mut came, most) = (0, usize::try_from(most_mib << 20).unwrap_or(usize::MAX));
    pieces(data, SILENCE, |piece| {
        came += piece.len();
        // What is too much is heard and dropped.
        if came > most { Ok(()) } else { file.write_all(piece) }
    })
    .await?;
    if came > most { Err(ApiError::TooLarge(most_mib)) } else { Ok(Spooled(file)) }
}

async fn received_within(data: Data<'_>, most_mib: u64, silence: Duration) -> Result<Vec<u8>, ApiError> {
    let most = usize::try_from(most_mib << 20).unwrap_or(usize::MAX);
    let mut bytes = Vec::new();
    let mut too_large = false;
    pieces(data, silence, |piece| {
        if too_large || bytes.len() + piece.len() > most {
            too_large = true;
            bytes = Vec::new();
        } else {
            bytes.extend_from_slice(piece);
        }
        Ok(())
    })
    .await?;
    if too_large { Err(ApiError::TooLarge(most_mib)) } else { Ok(bytes) }
}

/// Each piece as it comes.
async fn pieces(
    data: Data<'_>,
    silence: Duration,
    mut take: impl FnMut(&[u8]) -> std::io::Result<()>,
) -> Result<(), ApiError> {
    /// Nobody is listened to for more.
    const GIVE_UP_MIB: u64 = 400;
    const PIECE: usize = 64 * 1024;
    let mut stream = data.open(GIVE_UP_MIB.mebibytes());
    let mut piece = vec![0; PIECE];
    loop {
        let read = timeout(silence, stream.read(&mut piece)).await.map_err(|_| ApiError::TooSlow)?;
        let read = read.map_err(|error| ApiError::Unreadable(error.to_string()))?;
        if read == 0 {
            return Ok(());
        }
        take(&piece[..read]).map_err(anyhow::Error::from)?;
    }
}

/// Read once, into what it is to be: what is no such thing ends where that is seen.
///
/// # Errors
/// It is no JSON, or of another shape: the problem, at its field.
pub fn understand<T: DeserializeOwned>(bytes: &[u8]) -> Result<T, ApiError> {
    let begins_as_object = bytes.iter().find(|byte| !byte.is_ascii_whitespace()) == Some(&b'{');
    if !begins_as_object {
        let any: Result<IgnoredAny, _> = serde_json::from_slice(bytes);
        return Err(match any {
            Err(error) => ApiError::Unreadable(error.to_string()),
            Ok(_) => {
                let problem = FieldProblem::new("", "an object with named fields is needed", "{ ... }");
                ApiError::NotAcceptable(vec![problem])
            }
        });
    }
    let mut reader = serde_json::Deserializer::from_slice(bytes);
    let read = serde_path_to_error::deserialize(&mut reader).map_err(|error| {
        let path = error.path().to_string();
        let message = match error.inner().classify() {
            Category::Data => error.inner().to_string(),
            // A list where a word belongs is told as broken JSON: it is only where nothing can be read at all.
            Category::Io | Category::Syntax | Category::Eof => {
                match serde_json::from_slice::<IgnoredAny>(bytes) {
                    Err(broken) => return ApiError::Unreadable(broken.to_string()),
                    Ok(_) => "this is of another kind than it should be".to_owned(),
                }
            }
        };
        ApiError::NotAcceptable(vec![of_the_wrong_shape(&path, &message)])
    })?;
    reader.end().map_err(|error| ApiError::Unreadable(error.to_string()))?;
    Ok(read)
}

fn of_the_wrong_shape(path: &str, message: &str) -> FieldProblem {
    // Where in the text it is says nothing to whoever filled in a field.
    let message = message.split(" at line ").next().unwrap_or_default();
    let missing = message.strip_prefix("missing field `").and_then(|rest| rest.split('`').next());
    let field = match (path, missing) {
        (".", Some(field)) => field.to_owned(),
        (path, Some(field)) => format!("{path}.{field}"),
        (".", None) => String::new(),
        (path, None) => path.to_owned(),
    };
    FieldProblem::new(field, message, "see /api/openapi.json")
}
/// What stands in the address under a name, as what it should be; nothing where nothing does.
///
/// # Errors
/// It is something else: the problem, at its name.
pub fn asked<T: std::str::FromStr>(
    name: &str,
    said: Option<&str>,
    would_be_right: &str,
) -> Result<Option<T>, ApiError> {
    let read = |said: &str| {
        let message = format!("\"{}\" cannot be read", said.chars().take(40).collect::<String>());
        said.parse().map_err(|_| ApiError::from(vec![FieldProblem::new(name, message, would_be_right)]))
    };
    said.map(read).transpose()
}
