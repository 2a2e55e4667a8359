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
