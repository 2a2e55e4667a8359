//! What learners handed back, in the database.

use anyhow::Context;
use sqlx::{Row, SqliteConnection, SqlitePool};
use vanadin_core::practice::ResultFile;

use crate::api_error::ApiError;

/// Keeps a result; one that was read before is replaced.
pub async fn keep(on: &mut SqliteConnection, result: &ResultFile, now_ms: i64) -> Result<(), ApiError> {
    let text = serde_json::to_string(result).context("a result cannot be written")?;
    sqlx::query(
        "insert into practice_result (practice, at_ms, result) values (?, ?, ?) \
         on conflict (practice) do update set at_ms = excluded.at_ms, result = excluded.result",
    )
    .bind(result.practice.to_string())
    .bind(now_ms)
    .bind(text)
    .execute(on)
    .await?;
    Ok(())
}

/// All that were read back, the newest first. One that cannot be read hides no other.
pub async fn all(pool: &SqlitePool) -> Result<Vec<ResultFile>, ApiError> {
    /// A teacher looks at so many.
    const MOST: u32 = 500;
    let rows = sqlx::query("select result from practice_result order by at_ms desc, practice limit ?")
        .bind(MOST)
        .fetch_all(pool)
        .await?;
    Ok(rows.iter().filter_map(|row| serde_json::from_str(row.try_get::<&str, _>(0).ok()?).ok()).collect())
}
