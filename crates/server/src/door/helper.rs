//! A helper's phone: it sees one job and logs at its torch, and can do nothing else here.

use rocket::Request;
use rocket::http::Method;
use rocket::request::{FromRequest, Outcome};
use uuid::Uuid;
use vanadin_core::job::Change;

use super::known::{Asks, Door};
use crate::api_error::ApiError;

/// The job whoever sends this helps at; nothing for those who may do everything.
pub struct Helps(pub Option<Uuid>);

impl Helps {
    fn of(request: &Request<'_>) -> Option<Uuid> {
        let door = request.rocket().state::<Door>().filter(|door| door.asks != Asks::Nobody)?;
        door.device_of(request)?.helps
    }

    /// Whether they may say this.
    ///
    /// # Errors
    /// It is no entry at the torch.
    pub fn may_say(&self, change: &Change) -> Result<(), ApiError> {
        if self.0.is_none() || matches!(change, Change::Torch { .. }) { Ok(()) } else { Err(ApiError::Helps) }
    }
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Helps {
    type Error = std::convert::Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        Outcome::Success(Self(Self::of(request)))
    }
}

/// Somebody who helps asks for what is not theirs: all but that one job, and the words it is told in.
#[must_use]
pub fn is_none_of_theirs(request: &Request<'_>) -> bool {
    let Some(job) = Helps::of(request) else { return false };
    let looks = request.method() == Method::Get;
    let parts: Vec<&str> = request.uri().path().segments().collect();
    match parts.as_slice() {
        // With the passphrase it becomes a device like others.
        ["api", "door"] | ["api", "door", "helped"] | ["api", "units"] => false,
        ["api", "health" | "shop"] | ["api", "tables", _] => !looks,
        ["api", "jobs", id, rest @ ..] if id.parse() == Ok(job) => match rest {
            [] | ["stream"] => !looks,
            ["facts"] => looks,
            _ => true,
        },
        ["api", ..] => true,
        _ => false,
    }
}
