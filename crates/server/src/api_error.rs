//! Everything that can go wrong on the way, in one shape.

use rocket::http::Status;
use rocket::response::{self, Responder};
use rocket::serde::json::Json;
use rocket::{Catcher, Request, catch, catchers};
use serde::Serialize;
use utoipa::ToSchema;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::job::Refusal;

/// The body of every answer that is not what was asked for.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProblemsBody {
    pub problems: Vec<FieldProblem>,
}

#[derive(Debug, thiserror::Error)]
pub enum ApiError {
    #[error("this cannot be read: {0}")]
    Unreadable(String),
    #[error("a request from {0} may not write here")]
    Foreign(String),
    #[error("there is no {0} here")]
    Unknown(&'static str),
    #[error("somebody else changed it")]
    Changed(vanadin_core::job::Conflict),
    #[error("this device is not known here")]
    Closed,
    #[error("this device was turned out")]
    TurnedOut,
    #[error("that is not the passphrase")]
    WrongPassphrase,
    #[error("this code lets nobody in any more")]
    WrongCode,
    #[error("this phone helps at the torch of one job")]
    Helps,
    #[error("wrong too often")]
    TooManyTries,
    #[error("the body is no JSON")]
    NotJson,
    #[error("it did not come")]
    TooSlow,
    #[error("more than {0} MB are too many")]
    TooLarge(u64),
    #[error("this waits for another data folder than the one that answers here")]
    OtherFolder,
    #[error("not acceptable")]
    NotAcceptable(Vec<FieldProblem>),
    #[error("the disk is full")]
    DiskFull,
    #[error("the data file cannot be written")]
    NotWritable,
    #[error("another program holds the data file")]
    HeldElsewhere,
    #[error("the data file {0} is not there any more")]
    DataGone(String),
    #[error(transparent)]
    Broken(#[from] anyhow::Error),
}

impl From<sqlx::Error> for ApiError {
    fn from(error: sqlx::Error) -> Self {
        // SQLite's own numbers; what is more than a byte says more of the same.
        let code = error.as_database_error().and_then(|told| told.code()?.parse::<u32>().ok());
        match code.map(|code| code & 0xff) {
            Some(5 | 6) => Self::HeldElsewhere,
            Some(8) => Self::NotWritable,
            Some(13) => Self::DiskFull,
            _ => Self::Broken(error.into()),
        }
    }
}

impl From<Refusal> for ApiError {
    fn from(refusal: Refusal) -> Self {
        match refusal {
            Refusal::Problems(problems) => Self::NotAcceptable(problems),
            Refusal::Conflict(conflict) => Self::Changed(conflict),
        }
    }
}

impl From<Vec<FieldProblem>> for ApiError {
    fn from(problems: Vec<FieldProblem>) -> Self {
        Self::NotAcceptable(problems)
    }
}

impl<'r> Responder<'r, 'static> for ApiError {
    fn respond_to(self, request: &'r Request<'_>) -> response::Result<'static> {
        let one = |message: String, right: &str| vec![FieldProblem::new("", message, right)];
        let said = self.to_string();
        let (status, problems) = match self {
            Self::Unreadable(_) => (Status::BadRequest, one(said, "a JSON document")),
            Self::Foreign(_) => (Status::Forbidden, one(said, "open it by the address the server printed")),
            Self::Unknown(_) => (Status::NotFound, one(said, "")),
            Self::Changed(conflict) => (
                Status::Conflict,
                vec![FieldProblem::new(
                    conflict.field,
                    format!(
                        "Changed meanwhile: it now says \"{}\", you said \"{}\".",
                        conflict.theirs, conflict.yours
                    ),
                    conflict.theirs,
                )],
            ),
            Self::OtherFolder => (Status::MisdirectedRequest, one(said, "the server it was said to")),
            Self::Closed => (Status::Unauthorized, one(said, "the shop's passphrase")),
            Self::TurnedOut => {
                let right = "the shop's passphrase";
                (Status::Unauthorized, vec![FieldProblem::new("turned_out", said, right)])
            }
            Self::WrongPassphrase => {
                let right = "the one the shop goes by";
                (Status::Unauthorized, vec![FieldProblem::new("passphrase", said, right)])
            }
            Self::WrongCode => {
                let right = "another one, from the sheet it was on";
                (Status::Unauthorized, vec![FieldProblem::new("code", said, right)])
            }
            Self::Helps => (Status::Forbidden, one(said, "a device that has said the shop's passphrase")),
            Self::TooManyTries => {
                (Status::TooManyRequests, vec![FieldProblem::new("passphrase", said, "wait a minute")])
            }
            Self::NotJson => (Status::UnsupportedMediaType, one(said, "Content-Type: application/json")),
            Self::TooSlow => (Status::RequestTimeout, one(said, "send it again")),
            Self::TooLarge(_) => (Status::PayloadTooLarge, one(said, "a smaller one")),
            Self::NotAcceptable(problems) => (Status::UnprocessableEntity, problems),
            Self::DiskFull => {
                (Status::InsufficientStorage, one(format!("{said}. Nothing was changed"), "make room on it"))
            }
            Self::NotWritable | Self::HeldElsewhere => {
                let right = "look at the computer that serves";
                (Status::ServiceUnavailable, one(format!("{said}. Nothing was changed"), right))
            }
            Self::DataGone(_) => {
                let right = "stop the server, and put a copy back with vanadin restore";
                (Status::ServiceUnavailable, one(format!("{said}. Nothing was changed"), right))
            }
            Self::Broken(cause) => {
                eprintln!("vanadin: {} {}: {cause:#}", request.method(), request.uri());
                let message = "Something broke in the server. Nothing was changed.".to_owned();
                (Status::InternalServerError, one(message, "try again"))
            }
        };
        (status, Json(ProblemsBody { problems })).respond_to(request)
    }
}

/// What Rocket refuses by itself is answered in the same shape.
pub fn catchers() -> Vec<Catcher> {
    catchers![refused]
}

#[catch(default)]
fn refused(status: Status, _request: &Request<'_>) -> (Status, Json<ProblemsBody>) {
    // An unreadable id in a path finds no route, which Rocket calls unprocessable.
    let status = if status == Status::UnprocessableEntity { Status::NotFound } else { status };
    let message = match status.code {
        404 => "there is nothing at this address".to_owned(),
        405 => "that cannot be done here".to_owned(),
        413 => "that is too large".to_owned(),
        code if code >= 500 => "Something broke in the server. Nothing was changed.".to_owned(),
        _ => "this cannot be read".to_owned(),
    };
    (status, Json(ProblemsBody { problems: vec![FieldProblem::new("", message, "")] }))
}
