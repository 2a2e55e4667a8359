//! Keeping what is stored: copies of it, a look at whether it is whole, and a copy put back.

mod backup;
mod check;
mod daily;
mod restore;

pub use backup::backup;
pub use check::{Checked, check};
pub use daily::keep_daily;
pub use restore::restore;

use std::path::{Path, PathBuf};

use anyhow::Context;
use sqlx::sqlite::SqliteConnectOptions;
use sqlx::{Connection, SqliteConnection};

use crate::database::{self, FILE};

/// The data file of a folder.
///
/// # Errors
/// There is none.
fn data_file(folder: &Path) -> anyhow::Result<PathBuf> {
    let file = folder.join(FILE);
    anyhow::ensure!(file.exists(), "there is no data file {}", file.display());
    Ok(file)
}

/// Looks into a data file beside whoever serves it; nothing of it is changed.
///
/// # Errors
/// It cannot be read; or it lies where nothing can be written, and what was written last is not in it.
async fn open_file(file: &Path) -> anyhow::Result<SqliteConnection> {
    let options = SqliteConnectOptions::new().filename(file).read_only(true);
    let why = match look(&options).await {
        Ok(database) => return Ok(database),
        Err(why) => why,
    };
    // Where nothing can be written nobody serves it either: it is read as it lies.
    let Ok(database) = look(&options.immutable(true)).await else {
        return Err(why).with_context(|| format!("{} cannot be opened", file.display()));
    };
    let log = database::sidecar_path(file, "-wal");
    let last = std::fs::metadata(&log).is_ok_and(|log| log.is_file() && log.len() > 0);
    anyhow::ensure!(
        !last,
        "what was written last lies in {}, and cannot be read where nothing can be written: copy both files to \
         another folder",
        log.display()
    );
    Ok(database)
}

/// Opened, and asked once: a file is read no sooner.
async fn look(options: &SqliteConnectOptions) -> sqlx::Result<SqliteConnection> {
    let mut database = SqliteConnection::connect_with(options).await?;
    sqlx::query("select 1 from sqlite_master").fetch_optional(&mut database).await?;
    Ok(database)
}
