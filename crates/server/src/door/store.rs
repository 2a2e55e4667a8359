//! Passphrase and devices in the database.

use std::collections::{HashMap, HashSet};

use serde::Serialize;
use sqlx::{Row, SqliteConnection, SqlitePool};
use utoipa::ToSchema;
use uuid::Uuid;

use crate::api_error::ApiError;

/// A device that may come in.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Device {
    pub id: Uuid,
    pub name: String,
    /// Since when, UTC in ms since 1970.
    pub known_ms: i64,
    /// The one job at whose torch it helps; nothing for one that said the passphrase.
    pub helps: Option<Uuid>,
}

pub async fn hash(pool: &SqlitePool) -> Result<Option<String>, sqlx::Error> {
    sqlx::query_scalar("select hash from passphrase").fetch_optional(pool).await
}

pub async fn devices(pool: &SqlitePool) -> Result<HashMap<[u8; 32], Device>, sqlx::Error> {
    let rows = sqlx::query("select token, id, name, known_ms, helps from device").fetch_all(pool).await?;
    Ok(rows
        .iter()
        .filter_map(|row| {
            let token = row.try_get::<Vec<u8>, _>(0).ok()?.try_into().ok()?;
            let id = row.try_get::<&str, _>(1).ok()?.parse().ok()?;
            // One whose job cannot be read is no device: it would have every right.
            let helps = row.try_get::<Option<&str>, _>(4).ok()?.map(str::parse).transpose().ok()?;
            let device = Device { id, name: row.try_get(2).ok()?, known_ms: row.try_get(3).ok()?, helps };
            Some((token, device))
        })
        .collect())
}

/// Sets the passphrase; every device but one is forgotten.
pub async fn set(on: &mut SqliteConnection, hash: &str, keep: Option<Uuid>) -> Result<(), ApiError> {
    sqlx::query("insert into passphrase values (1, ?) on conflict do update set hash = excluded.hash")
        .bind(hash)
        .execute(&mut *on)
        .await?;
    sqlx::query("delete from device where id is not ?")
        .bind(keep.map(|id| id.to_string()))
        .execute(on)
        .await?;
    Ok(())
}

pub async fn add(on: &mut SqliteConnection, token: &[u8; 32], device: &Device) -> Result<(), ApiError> {
    sqlx::query("insert into device (id, token, name, known_ms, helps) values (?, ?, ?, ?, ?)")
        .bind(device.id.to_string())
        .bind(&token[..])
        .bind(&device.name)
        .bind(device.known_ms)
        .bind(device.helps.map(|job| job.to_string()))
        .execute(on)
        .await?;
    Ok(())
}

/// Devices that were turned out, by what they show.
pub async fn turned_out(pool: &SqlitePool) -> Result<HashSet<[u8; 32]>, sqlx::Error> {
    let rows = sqlx::query("select token from turned_out").fetch_all(pool).await?;
    Ok(rows.iter().filter_map(|row| row.try_get::<Vec<u8>, _>(0).ok()?.try_into().ok()).collect())
}

/// A device is turned out; those of which it is so long ago that they are known nowhere any more are forgotten.
pub async fn remove(
    on: &mut SqliteConnection,
    device: Uuid,
    (now_ms, since_ms): (i64, i64),
) -> Result<(), ApiError> {
    sqlx::query("insert or replace into turned_out select token, ? from device where id = ?")
        .bind(now_ms)
        .bind(device.to_string())
        .execute(&mut *on)
        .await?;
    sqlx::query("delete from turned_out where out_ms < ?").bind(since_ms).execute(&mut *on).await?;
    sqlx::query("delete from device where id = ?").bind(device.to_string()).execute(on).await?;
    Ok(())
}
