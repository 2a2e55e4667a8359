//! The log of a job in the database.

use std::collections::HashMap;

use anyhow::Context;
use rocket::futures::TryStreamExt;
use sqlx::sqlite::SqliteRow;
use sqlx::{QueryBuilder, Row, Sqlite, SqliteConnection, SqlitePool};
use uuid::Uuid;
use vanadin_core::job::{Change, Fact, Job, Parsed, Recorded};

use crate::api_error::ApiError;

pub async fn create(on: &mut SqliteConnection, id: Uuid, now_ms: i64) -> Result<(), ApiError> {
    sqlx::query("insert into job (id, created_ms) values (?, ?) on conflict do nothing")
        .bind(id.to_string())
        .bind(now_ms)
        .execute(on)
        .await?;
    Ok(())
}

pub async fn exists(pool: &SqlitePool, id: Uuid) -> Result<bool, sqlx::Error> {
    let row = sqlx::query("select 1 from job where id = ?").bind(id.to_string()).fetch_optional(pool).await?;
    Ok(row.is_some())
}

/// There is a job at all.
pub async fn any(pool: &SqlitePool) -> Result<bool, sqlx::Error> {
    Ok(sqlx::query("select 1 from job limit 1").fetch_optional(pool).await?.is_some())
}

/// Jobs in whose log something cannot be read.
pub async fn damaged(pool: &SqlitePool) -> Result<Vec<Uuid>, sqlx::Error> {
    let mut found = Vec::new();
    let mut rows = sqlx::query("select job_id, id, change from fact").fetch(pool);
    while let Some(row) = rows.try_next().await? {
        let id = row.try_get::<&str, _>(1).is_ok_and(|id| id.parse::<Uuid>().is_ok());
        let change = row.try_get::<&str, _>(2).is_ok_and(|text| serde_json::from_str::<Change>(text).is_ok());
        let job = row.try_get::<&str, _>(0).ok().and_then(|id| id.parse().ok());
        if !(id && change)
            && let Some(job) = job
            && !found.contains(&job)
        {
            found.push(job);
        }
    }
    Ok(found)
}

/// The log of a job, first fact first. A fact that cannot be read is kept as it is.
pub async fn facts(pool: &SqlitePool, job: Uuid) -> Result<Vec<Fact>, ApiError> {
    let rows = sqlx::query(
        "select revision, id, at_client_ms, at_server_ms, who, change, sender, understood from fact where job_id = ? \
         order by revision",
    )
    .bind(job.to_string())
    .fetch_all(pool)
    .await?;
    Ok(rows.iter().map(|row| fact(job, row)).collect())
}

fn fact(job: Uuid, row: &SqliteRow) -> Fact {
    let revision = row.try_get::<i64, _>(0).unwrap_or(0).unsigned_abs();
    let words = |at: usize| row.try_get::<String, _>(at);
    let bytes = |at: usize| row.try_get_unchecked::<Vec<u8>, _>(at).unwrap_or_default();
    let id = words(1).ok().and_then(|id| id.parse().ok());
    let change = words(5).ok().and_then(|text| serde_json::from_str(&text).ok());
    // Its place in the log names it where its own name cannot be read.
    let stand_in = || Uuid::from_u128(job.as_u128() ^ u128::from(revision));
    let unreadable =
        || Change::Unreadable { text: String::from_utf8_lossy(&bytes(5)).chars().take(2_000).collect() };
    Fact {
        revision,
        at_client_ms: row.try_get(2).unwrap_or(0),
        at_server_ms: row.try_get(3).unwrap_or(0),
        who: words(4).unwrap_or_default(),
        sender: words(6).unwrap_or_default(),
        change: match (id, change) {
            (Some(_), Some(change)) => change,
            _ => unreadable(),
        },
        id: id.unwrap_or_else(stand_in),
        understood: words(7).ok().and_then(|text| serde_json::from_str(&text).ok()),
    }
}

/// Adds facts to a job's log.
pub async fn append(on: &mut SqliteConnection, job: Uuid, facts: &[Fact]) -> Result<(), ApiError> {
    for fact in facts {
        let change = serde_json::to_string(&fact.change).context("a change cannot be written")?;
        let understood = as_stored(fact.understood.as_ref())?;
        sqlx::query(
            "insert into fact (job_id, revision, id, at_client_ms, at_server_ms, who, change, sender, \
             understood) values (?, ?, ?, ?, ?, ?, ?, ?, ?)",
        )
        .bind(job.to_string())
        .bind(fact.revision.cast_signed())
        .bind(fact.id.to_string())
        .bind(fact.at_client_ms)
        .bind(fact.at_server_ms)
        .bind(&fact.who)
        .bind(change)
        .bind(&fact.sender)
        .bind(understood)
        .execute(&mut *on)
        .await?;
    }
    Ok(())
}

/// Deletes a job and everything that hangs on it.
pub async fn delete(on: &mut SqliteConnection, job: Uuid) -> Result<(), ApiError> {
    for what in [
        "delete from picture where job_id = ?",
        "delete from reading where job_id = ?",
        "delete from rack_line where job_id = ?",
        "delete from fact where job_id = ?",
        "delete from job where id = ?",
    ] {
        sqlx::query(what).bind(job.to_string()).execute(&mut *on).await?;
    }
    Ok(())
}

/// Empty for nothing to be understood.
fn as_stored(understood: Option<&Parsed>) -> Result<String, ApiError> {
    let text = understood.map(serde_json::to_string).transpose().context("a change cannot be written")?;
    Ok(text.unwrap_or_default())
}

/// Understands, once, what was said before it was kept what was understood.
pub async fn understand(on: &mut SqliteConnection) -> Result<(), ApiError> {
    let rows = sqlx::query("select job_id, revision, change from fact where understood is null")
        .fetch_all(&mut *on)
        .await?;
    for row in rows {
        // What cannot be read says nothing today either: it is kept as it is.
        let change = row.try_get::<&str, _>(2).ok().and_then(|text| serde_json::from_str(text).ok());
        let understood = change.and_then(|change| Parsed::of(&change, None));
        sqlx::query("update fact set understood = ? where job_id = ? and revision = ?")
            .bind(as_stored(understood.as_ref())?)
            .bind(row.try_get::<&str, _>(0)?)
            .bind(row.try_get::<i64, _>(1)?)
            .execute(&mut *on)
            .await?;
    }
    Ok(())
}

/// The readings of each lighting, by the fact that lit it, in the order of time.
pub async fn readings(pool: &SqlitePool, job: Uuid) -> Result<HashMap<Uuid, Vec<Recorded>>, sqlx::Error> {
    let rows = sqlx::query(
        "select lit_id, minutes, celsius, channel from reading where job_id = ? order by lit_id, minutes, channel",
    )
    .bind(job.to_string())
    .fetch_all(pool)
    .await?;
    let mut of: HashMap<Uuid, Vec<Recorded>> = HashMap::new();
    for row in &rows {
        let lit = row.try_get::<String, _>(0)?;
        if let Ok(lit) = lit.parse() {
            let reading =
                Recorded { minutes: row.try_get(1)?, celsius: row.try_get(2)?, channel: row.try_get(3)? };
            of.entry(lit).or_default().push(reading);
        }
    }
    Ok(of)
}

/// Adds readings of a lighting; one at a minute already stored is left as it is. Gives how many were new.
pub async fn add_readings(
    on: &mut SqliteConnection,
    job: Uuid,
    lit: Uuid,
    readings: &[Recorded],
) -> Result<usize, ApiError> {
    /// Rows a statement, under SQLite's least limit of values bound.
    const AT_ONCE: usize = 150;
    let mut added = 0;
    for some in readings.chunks(AT_ONCE) {
        let mut insert =
            QueryBuilder::<Sqlite>::new("insert into reading (job_id, lit_id, minutes, celsius, channel) ");
        insert.push_values(some, |mut row, reading| {
            row.push_bind(job.to_string())
                .push_bind(lit.to_string())
                .push_bind(reading.minutes)
                .push_bind(reading.celsius)
                .push_bind(reading.channel);
        });
        let done = insert.push(" on conflict do nothing").build().execute(&mut *on).await?;
        added += done.rows_affected() as usize;
    }
    Ok(added)
}

/// Takes readings of a lighting out again, where they stand as they are said. Gives how many there were.
pub async fn take_out_readings(
    on: &mut SqliteConnection,
    job: Uuid,
    lit: Uuid,
    readings: &[Recorded],
) -> Result<usize, ApiError> {
    let mut gone = 0;
    for reading in readings {
        let done = sqlx::query(
            "delete from reading where job_id = ? and lit_id = ? and minutes = ? and celsius = ? and channel = ?",
        )
        .bind(job.to_string())
        .bind(lit.to_string())
        .bind(reading.minutes)
        .bind(reading.celsius)
        .bind(reading.channel)
        .execute(&mut *on)
        .await?;
        gone += done.rows_affected() as usize;
    }
    Ok(gone)
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
    job.record(|lit| recorded.remove(&lit).unwrap_or_default());
    Ok((job, facts))
}
