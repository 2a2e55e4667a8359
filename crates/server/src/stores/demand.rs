//! What the jobs ask of the stores, read from their lines.

use sqlx::sqlite::SqliteRow;
use sqlx::{Row, SqlitePool};
use uuid::Uuid;
use vanadin_core::plan::Asks;

/// What every job asks for, its line as it was last worked out. One that cannot be read hides no other.
pub async fn all(pool: &SqlitePool) -> Result<Vec<(Uuid, Asks)>, sqlx::Error> {
    let rows = sqlx::query("select job_id, asks from rack_line where asks <> '' order by created_ms, job_id")
        .fetch_all(pool)
        .await?;
    Ok(rows.iter().filter_map(read).collect())
}

/// What one job asks for; nothing where it has no line.
pub async fn of(pool: &SqlitePool, job: Uuid) -> Result<Option<(Uuid, Asks)>, sqlx::Error> {
    let row = sqlx::query("select job_id, asks from rack_line where asks <> '' and job_id = ?")
        .bind(job.to_string())
        .fetch_optional(pool)
        .await?;
    Ok(row.as_ref().and_then(read))
}

fn read(row: &SqliteRow) -> Option<(Uuid, Asks)> {
    let found = || -> anyhow::Result<(Uuid, Asks)> {
        Ok((row.try_get::<&str, _>(0)?.parse()?, serde_json::from_str(row.try_get(1)?)?))
    };
    found()
        .inspect_err(|error| eprintln!("vanadin: what a job asks of the stores cannot be read: {error}"))
        .ok()
}
