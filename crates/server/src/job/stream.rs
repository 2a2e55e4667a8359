//! `/api/jobs/<id>/stream`: what the thermocouple shows and when the log grew, as it happens.

use rocket::response::stream::{Event, EventStream};
use rocket::{Shutdown, State, get};
use serde::Serialize;
use tokio::select;
use tokio::sync::broadcast::error::RecvError;
use uuid::Uuid;

use super::route::known;
use super::store;
use crate::api_error::ApiError;
use crate::desk::{Desk, News};

/// What was said: a page that said it itself knows already.
#[derive(Serialize, utoipa::ToSchema)]
pub struct Said {
    pub revision: u64,
    pub fact: Option<Uuid>,
}

/// Server-sent events: `reading` with what the pad shows now, judged (`Live`); `changed` with
/// the revision and the id of what was said, `shop` with the revision of its settings, `clock` when there is something to say of the
/// computer's clock or no longer, `hello` at the start.
#[utoipa::path(get, path = "/api/jobs/{id}/stream", params(("id" = Uuid, Path, description = "The job")), responses(
    (status = 200, description = "text/event-stream", content_type = "text/event-stream", body = Said),
    (status = 404, description = "No such job", body = crate::api_error::ProblemsBody)))]
#[get("/<id>/stream")]
pub async fn stream<'r>(
    desk: &'r State<Desk>,
    id: &str,
    mut shutdown: Shutdown,
) -> Result<EventStream![Event + 'r], ApiError> {
    let id: Uuid = known(id)?;
    if !store::exists(&desk.database.pool, id).await? {
        return Err(ApiError::Unknown("such job"));
    }
    let mut news = desk.listen();
    Ok(EventStream! {
        yield Event::data("").event("hello");
        loop {
            let told = select! {
                told = news.recv() => told,
                () = &mut shutdown => break,
            };
            match told {
                Ok(News::Said { job, revision, fact }) if job == id => {
                    yield Event::json(&Said { revision, fact }).event("changed");
                }
                Ok(News::Reading { job, live }) if job == id => {
                    yield Event::json(&*live).event("reading");
                }
                Ok(News::Shop { revision }) => {
                    yield Event::data(revision.to_string()).event("shop");
                }
                Ok(News::Clock) => yield Event::data("").event("clock"),
                // There is nothing left to tell of it: asked for again it is not there.
                Ok(News::Gone { job }) if job == id => break,
                Ok(_) => {}
                // Missed some: have the page ask for everything.
                Err(RecvError::Lagged(_)) => yield Event::json(&Said { revision: 0, fact: None }).event("changed"),
                Err(RecvError::Closed) => break,
            }
        }
    })
}
