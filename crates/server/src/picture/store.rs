//! Pictures in the database.

use sqlx::{Row, SqliteConnection, SqlitePool};
use uuid::Uuid;

use super::shrink::Shrunk;
use crate::api_error::ApiError;

/// Keeps a picture; one that is kept already stays as it is.
pub async fn keep(on: &mut SqliteConnection, job: Uuid, id: Uuid, picture: &Shrunk) -> Result<(), ApiError> {
    sqlx::query(
        "insert into picture (job_id, id, width, height, jpeg, small) values (?, ?, ?, ?, ?, ?) \
         on conflict do nothing",
    )
    .bind(job.to_string())
    .bind(id.to_string())
    .bind(picture.width)
    .bind(picture.height)
    .bind(&picture.jpeg)
    .bind(&picture.small)
    .execute(on)
    .await?;
    Ok(())
}

/// Deletes a picture of which the job's log says nothing: its word was refused.
pub async fn without_its_word(on: &mut SqliteConnection, job: Uuid, id: Uuid) -> Result<(), ApiError> {
    sqlx::query(
        "delete from picture where job_id = ?1 and id = ?2 \
         and not exists (select 1 from fact where fact.job_id = ?1 and fact.id = ?2)",
    )
    .bind(job.to_string())
    .bind(id.to_string())
    .execute(on)
    .await?;
    Ok(())
}

/// Deletes every picture of which no log says anything: one whose word was on its way when the server ended is sent
/// again.
pub async fn without_a_word(on: &mut SqliteConnection) -> Result<(), ApiError> {
    sqlx::query(
        "delete from picture where not exists \
         (select 1 from fact where fact.job_id = picture.job_id and fact.id = picture.id)",
    )
    .execute(on)
    .await?;
    Ok(())
}

/// A picture as it is kept, or the small one.
pub async fn jpeg(
    pool: &SqlitePool,
    job: Uuid,
    id: Uuid,
    small: bool,
) -> Result<Option<Vec<u8>>, sqlx::Error> {
    let query = if small {
        "select small from picture where job_id = ? and id = ?"
    } else {
        "select jpeg from picture where job_id = ? and id = ?"
    };
    let row = sqlx::query(query).bind(job.to_string()).bind(id.to_string()).fetch_optional(pool).await?;
    Ok(row.map(|row| row.get(0)))
}
