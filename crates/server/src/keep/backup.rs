//! `vanadin backup`: one whole file, also while it is being served.

use std::fs::{self, File};
use std::path::Path;

use anyhow::{Context, ensure};

use super::{data_file, open_file};
use crate::database::own_file;

/// Copies everything that was acknowledged up to now into one file of its own, whether it is served or
/// not. The copy is made beside its place and moved there whole.
///
/// # Errors
/// There is no data file, something lies at `to` already, or it cannot be written.
pub async fn backup(folder: &Path, to: &Path) -> anyhow::Result<()> {
    let file = data_file(folder)?;
    ensure!(!to.exists(), "{} is there already: nothing is written over", to.display());
    let mut name = to.file_name().context("that is no name for a file")?.to_owned();
    name.push(".part");
    let part = to.with_file_name(name);
    if part.exists() {
        fs::remove_file(&part).with_context(|| format!("{} is in the way", part.display()))?;
    }
    let mut database = open_file(&file).await?;
    own_file(&part).with_context(|| format!("{} cannot be written", to.display()))?;
    let copied = sqlx::query("vacuum into ?").bind(part.display().to_string()).execute(&mut database).await;
    if let Err(error) = copied {
        // What there is of it is of no use to anybody.
        let _ = fs::remove_file(&part);
        return Err(error).with_context(|| format!("{} cannot be written", to.display()));
    }
    File::open(&part).and_then(|copy| copy.sync_all()).context("the copy cannot be brought to the disk")?;
    fs::rename(&part, to).with_context(|| format!("{} cannot be written", to.display()))
}
