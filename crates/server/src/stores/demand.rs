//! What the jobs ask of the stores, read from their lines.

use sqlx::{Row, SqlitePool};
use uuid::Uuid;
use vanadin_core::plan::Asks;

/// What every job asks for, its line as it was last worked out. One that cannot be read hides no other.
pub async fn all(pool: &SqlitePool) -> Result<Vec<(Uuid, Asks)>, sqlx::Error> {
    let rows = sqlx::query("select job_id, asks from rack_line where asks <> '' order by created_ms, job_id")
        .fetch_all(pool)
        .await?;
    let read = |row: &sqlx::sqlite::SqliteRow| -> anyhow::Result<(Uuid, Asks)> {
        Ok((row.try_get::<&str, _>(0)?.parse()?, serde_json::from_str(row.try_get(1)?)?))
    };
    let mut asks = Vec::with_capacity(rows.len());
    for row in &rows {
        match read(row) {
            Ok(found) => asks.push(found),
            Err(error) => eprintln!("vanadin: what a job asks of the stores cannot be read: {error}"),
        }
    }
    Ok(asks)
}
