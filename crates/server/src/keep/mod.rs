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

use crate::database::FILE;

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
async fn beside(file: &Path) -> anyhow::Result<SqliteConnection> {
    let options = SqliteConnectOptions::new().filename(file).read_only(true);
    let opened = SqliteConnection::connect_with(&options).await;
    opened.with_context(|| format!("{} cannot be opened", file.display()))
}
