//! What learners handed back, in the database.

use anyhow::Context;
use serde::Serialize;
use sqlx::{Row, SqliteConnection, SqlitePool};
use utoipa::ToSchema;
use vanadin_core::practice::ResultFile;
use vanadin_core::quantity::of_100;

use crate::api_error::ApiError;

/// A result that was handed back.
#[derive(Debug, Serialize, ToSchema)]
pub struct HandedBack {
    #[serde(flatten)]
    pub result: ResultFile,
    /// Of a hundred such repairs so many hold.
    pub of_100: u32,
}

impl From<ResultFile> for HandedBack {
    fn from(result: ResultFile) -> Self {
        Self { of_100: of_100(result.odds), result }
    }
}

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
pub async fn all(pool: &SqlitePool) -> Result<Vec<HandedBack>, ApiError> {
    /// A teacher looks at so many.
    const MOST: u32 = 500;
    let rows = sqlx::query("select result from practice_result order by at_ms desc, practice limit ?")
        .bind(MOST)
        .fetch_all(pool)
        .await?;
    let read = |text: &str| serde_json::from_str::<ResultFile>(text).ok();
    Ok(rows.iter().filter_map(|row| Some(read(row.try_get(0).ok()?)?.into())).collect())
}
