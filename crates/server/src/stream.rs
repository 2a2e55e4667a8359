//! `/api/jobs/<id>/stream`: what the thermocouple shows and when the log grew, as it happens.

use rocket::response::stream::{Event, EventStream};
use rocket::{Shutdown, State, get};
use tokio::select;
use tokio::sync::broadcast::error::RecvError;
use uuid::Uuid;

use crate::api_error::ApiError;
use crate::bench::{Bench, News};
use crate::job::route::known;
use crate::job::store;

/// Server-sent events: `reading` with what the pad shows now, judged ([`Live`]); `changed` with
/// the revision, `shop` with the revision of its settings, `clock` when there is something to say of the
/// computer's clock or no longer, `hello` at the start.
#[utoipa::path(get, path = "/api/jobs/{id}/stream", params(("id" = Uuid, Path, description = "The job")), responses(
    (status = 200, description = "text/event-stream", content_type = "text/event-stream", body = String),
    (status = 404, description = "No such job", body = crate::api_error::ProblemsBody)))]
#[get("/<id>/stream")]
pub async fn stream<'r>(
    bench: &'r State<Bench>,
    id: &str,
    mut shutdown: Shutdown,
) -> Result<EventStream![Event + 'r], ApiError> {
    let id: Uuid = known(id)?;
    if !store::exists(&bench.database.pool, id).await? {
        return Err(ApiError::Unknown("such job"));
    }
    let mut news = bench.listen();
    Ok(EventStream! {
        yield Event::data("").event("hello");
        loop {
            let told = select! {
                told = news.recv() => told,
                () = &mut shutdown => break,
            };
            match told {
                Ok(News::Changed { job, revision }) if job == id => {
                    yield Event::data(revision.to_string()).event("changed");
                }
                Ok(News::Reading { job, live }) if job == id => {
                    yield Event::json(&*live).event("reading");
                }
                Ok(News::Shop { revision }) => {
                    yield Event::data(revision.to_string()).event("shop");
                }
                Ok(News::Clock) => yield Event::data("").event("clock"),
                Ok(_) => {}
                // Missed some: have the page ask for everything.
                Err(RecvError::Lagged(_)) => yield Event::data("0").event("changed"),
                Err(RecvError::Closed) => break,
            }
        }
    })
}
