//! A JSON body: unreadable is 400, too large 413, of the wrong shape 422 at its field.

use rocket::Request;
use rocket::data::{Data, FromData, Outcome, ToByteUnit};
use serde::de::DeserializeOwned;
use vanadin_core::problem::FieldProblem;

use crate::api_error::ApiError;

/// Largest body that is read. A job of months stays well under it.
const MOST_MIB: u64 = 8;

/// What was sent, or why it cannot be used. Handlers take it apart with `?`. At most `MIB` are read.
pub struct Body<T, const MIB: u64 = MOST_MIB>(pub Result<T, ApiError>);

#[rocket::async_trait]
impl<'r, T: DeserializeOwned + Send, const MIB: u64> FromData<'r> for Body<T, MIB> {
    type Error = std::convert::Infallible;

    async fn from_data(_request: &'r Request<'_>, data: Data<'r>) -> Outcome<'r, Self> {
        let read = data.open(MIB.mebibytes()).into_bytes().await;
        Outcome::Success(Self(match read {
            Err(error) => Err(ApiError::Unreadable(error.to_string())),
            Ok(bytes) if !bytes.is_complete() => Err(ApiError::TooLarge(MIB)),
            Ok(bytes) => understand(&bytes),
        }))
    }
}

fn understand<T: DeserializeOwned>(bytes: &[u8]) -> Result<T, ApiError> {
    let value: serde_json::Value =
        serde_json::from_slice(bytes).map_err(|error| ApiError::Unreadable(error.to_string()))?;
    if !value.is_object() {
        let problem = FieldProblem::new("", "an object with named fields is needed", "{ ... }");
        return Err(ApiError::NotAcceptable(vec![problem]));
    }
    serde_path_to_error::deserialize(value).map_err(|error| {
        let path = error.path().to_string();
        let message = error.inner().to_string();
        let missing = message.strip_prefix("missing field `").and_then(|rest| rest.split('`').next());
        let field = match (path.as_str(), missing) {
            (".", Some(field)) => field.to_owned(),
            (path, Some(field)) => format!("{path}.{field}"),
            (".", None) => String::new(),
            (path, None) => path.to_owned(),
        };
        ApiError::NotAcceptable(vec![FieldProblem::new(field, message, "see /api/openapi.json")])
    })
}
