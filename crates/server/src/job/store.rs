//! The log of a job in the database.

use std::collections::HashMap;

use anyhow::Context;
use sqlx::{QueryBuilder, Row, Sqlite, SqlitePool};
use uuid::Uuid;
use vanadin_core::job::{Fact, Job, Reading};

use crate::api_error::ApiError;

pub async fn create(pool: &SqlitePool, id: Uuid, now_ms: i64) -> Result<(), sqlx::Error> {
    sqlx::query("insert into job (id, created_ms) values (?, ?) on conflict do nothing")
        .bind(id.to_string())
        .bind(now_ms)
        .execute(pool)
        .await?;
    Ok(())
}

pub async fn exists(pool: &SqlitePool, id: Uuid) -> Result<bool, sqlx::Error> {
    let row = sqlx::query("select 1 from job where id = ?").bind(id.to_string()).fetch_optional(pool).await?;
    Ok(row.is_some())
}

/// Every job, the newest first.
pub async fn all(pool: &SqlitePool) -> Result<Vec<Uuid>, ApiError> {
    let rows = sqlx::query("select id from job order by created_ms desc, id").fetch_all(pool).await?;
    rows.iter()
        .map(|row| {
            let id: String = row.get(0);
            id.parse().context("a job's id in the database is no UUID").map_err(ApiError::from)
        })
        .collect()
}

/// The log of a job, first fact first.
pub async fn facts(pool: &SqlitePool, job: Uuid) -> Result<Vec<Fact>, ApiError> {
    let rows = sqlx::query(
        "select revision, id, at_client_ms, at_server_ms, who, change from fact where job_id = ? order by revision",
    )
    .bind(job.to_string())
    .fetch_all(pool)
    .await?;
    rows.iter()
        .map(|row| {
            let (id, change): (String, String) = (row.get(1), row.get(5));
            Ok(Fact {
                id: id.parse().context("a fact's id in the database is no UUID")?,
                revision: row.get::<i64, _>(0).unsigned_abs(),
                at_client_ms: row.get(2),
                at_server_ms: row.get(3),
                who: row.get(4),
                change: serde_json::from_str(&change).context("a fact in the database cannot be read")?,
            })
        })
        .collect::<anyhow::Result<_>>()
        .map_err(ApiError::from)
}

/// Adds facts to a job's log, all or none. They are on the disk when this returns.
pub async fn append(pool: &SqlitePool, job: Uuid, facts: &[Fact]) -> Result<(), ApiError> {
    let mut transaction = pool.begin().await?;
    for fact in facts {
        let change = serde_json::to_string(&fact.change).context("a change cannot be written")?;
        sqlx::query(
            "insert into fact (job_id, revision, id, at_client_ms, at_server_ms, who, change) \
             values (?, ?, ?, ?, ?, ?, ?)",
        )
        .bind(job.to_string())
        .bind(fact.revision.cast_signed())
        .bind(fact.id.to_string())
        .bind(fact.at_client_ms)
        .bind(fact.at_server_ms)
        .bind(&fact.who)
        .bind(change)
        .execute(&mut *transaction)
        .await?;
    }
    transaction.commit().await?;
    Ok(())
}

/// The readings of each lighting, by the fact that lit it, in the order of time.
pub async fn readings(pool: &SqlitePool, job: Uuid) -> Result<HashMap<String, Vec<Reading>>, sqlx::Error> {
    let rows =
        sqlx::query("select lit_id, minutes, celsius from reading where job_id = ? order by lit_id, minutes")
            .bind(job.to_string())
            .fetch_all(pool)
            .await?;
    let mut of: HashMap<String, Vec<Reading>> = HashMap::new();
    for row in &rows {
        of.entry(row.get(0)).or_default().push(Reading { minutes: row.get(1), celsius: row.get(2) });
    }
    Ok(of)
}

/// Stores readings of a lighting; one at a minute already stored is left as it is.
pub async fn add_readings(
    pool: &SqlitePool,
    job: Uuid,
    lit: Uuid,
    readings: &[Reading],
) -> Result<(), sqlx::Error> {
    /// Rows a statement, under SQLite's least limit of values bound.
    const AT_ONCE: usize = 200;
    let mut transaction = pool.begin().await?;
    for some in readings.chunks(AT_ONCE) {
        let mut insert =
            QueryBuilder::<Sqlite>::new("insert into reading (job_id, lit_id, minutes, celsius) ");
        insert.push_values(some, |mut row, reading| {
            row.push_bind(job.to_string())
                .push_bind(lit.to_string())
                .push_bind(reading.minutes)
                .push_bind(reading.celsius);
        });
        insert.push(" on conflict do nothing").build().execute(&mut *transaction).await?;
    }
    transaction.commit().await
}

/// The present job with everything the thermocouple recorded.
///
/// # Errors
/// [`ApiError::Unknown`] when there is no such job.
pub async fn load(pool: &SqlitePool, id: Uuid) -> Result<(Job, Vec<Fact>), ApiError> {
    if !exists(pool, id).await? {
        return Err(ApiError::Unknown("such job"));
    }
    let facts = facts(pool, id).await?;
    let mut job = Job::fold(id, &facts);
    let mut recorded = readings(pool, id).await?;
    for round in &mut job.rounds {
        if let Some(lit) = &round.lit {
            round.readings = recorded.remove(&lit.fact.to_string()).unwrap_or_default();
        }
    }
    Ok((job, facts))
}
