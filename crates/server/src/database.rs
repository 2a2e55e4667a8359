//! One SQLite file in the data folder.

use std::fs::{File, TryLockError};
use std::path::Path;
use std::sync::Arc;

use anyhow::{Context, bail};
use sqlx::SqlitePool;
use sqlx::migrate::{MigrateError, Migrator};
use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode, SqlitePoolOptions, SqliteSynchronous};

static MIGRATIONS: Migrator = sqlx::migrate!();

/// The database, and the lock on its folder for as long as it is in use.
#[derive(Clone)]
pub struct Database {
    pub pool: SqlitePool,
    _lock: Arc<File>,
}

/// Opens the folder's database, brings it up to date, and keeps a second server out.
///
/// # Errors
/// The folder cannot be used: in use, written by a newer version, or not writable.
pub async fn open(folder: &Path) -> anyhow::Result<Database> {
    std::fs::create_dir_all(folder)
        .with_context(|| format!("the data folder {} cannot be made", folder.display()))?;
    let lock = File::create(folder.join("in-use.lock"))
        .with_context(|| format!("the data folder {} cannot be written", folder.display()))?;
    match lock.try_lock() {
        Ok(()) => {}
        Err(TryLockError::WouldBlock) => {
            bail!("another server is using the data folder {}", folder.display())
        }
        Err(TryLockError::Error(error)) => return Err(error).context("the data folder cannot be locked"),
    }
    let options = SqliteConnectOptions::new()
        .filename(folder.join("vanadin.sqlite"))
        .create_if_missing(true)
        .journal_mode(SqliteJournalMode::Wal)
        .synchronous(SqliteSynchronous::Full)
        .foreign_keys(true);
    let pool = SqlitePoolOptions::new()
        .max_connections(4)
        .connect_with(options)
        .await
        .context("the database cannot be opened")?;
    match MIGRATIONS.run(&pool).await {
        Ok(()) => {}
        Err(MigrateError::VersionMissing(version)) => {
            bail!("the data folder was written by a newer Vanadin (step {version}): use that one")
        }
        Err(error) => return Err(error).context("the database cannot be brought up to date"),
    }
    Ok(Database { pool, _lock: Arc::new(lock) })
}
