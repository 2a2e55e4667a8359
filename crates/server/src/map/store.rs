//! Straightened pictures in the database.

use sqlx::{Row, SqliteConnection, SqlitePool};
use uuid::Uuid;

use crate::api_error::ApiError;

/// The picture of a face as it was laid by that fact; nothing while it has not been made.
pub async fn kept(
    pool: &SqlitePool,
    job: Uuid,
    face: Uuid,
    revision: u64,
) -> Result<Option<Vec<u8>>, sqlx::Error> {
    let row = sqlx::query("select jpeg from straightened where job_id = ? and face_id = ? and revision = ?")
        .bind(job.to_string())
        .bind(face.to_string())
        .bind(i64::try_from(revision).unwrap_or(i64::MAX))
        .fetch_optional(pool)
        .await?;
    Ok(row.map(|row| row.get(0)))
}

/// Keeps it in the place of the one that was laid before.
pub async fn keep(
    on: &mut SqliteConnection,
    job: Uuid,
    face: Uuid,
    revision: u64,
    jpeg: &[u8],
) -> Result<(), ApiError> {
    sqlx::query("insert or replace into straightened (job_id, face_id, revision, jpeg) values (?, ?, ?, ?)")
        .bind(job.to_string())
        .bind(face.to_string())
        .bind(i64::try_from(revision).unwrap_or(i64::MAX))
        .bind(jpeg)
        .execute(on)
        .await?;
    Ok(())
}
