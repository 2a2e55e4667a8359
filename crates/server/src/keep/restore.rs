//! `vanadin restore`: a copy is put back, and what lay there is kept.

use std::fs;
use std::path::{Path, PathBuf};

use anyhow::{Context, bail, ensure};

use super::check::look_through;
use crate::database::{FILE, beside, lock};

/// Puts a copy in the place of a folder's data file. What lay there is moved aside, not lost: gives where.
///
/// # Errors
/// The folder is in use, or the copy is no data file, or damaged: nothing was changed then.
pub async fn restore(folder: &Path, from: &Path) -> anyhow::Result<Option<PathBuf>> {
    let _alone = lock(folder)?;
    ensure!(from.exists(), "there is no file {}", from.display());
    let found = look_through(from).await?;
    if !found.broken.is_empty() {
        bail!("{} is damaged itself: {}. Nothing was changed", from.display(), found.broken.join("; "));
    }
    let file = folder.join(FILE);
    // All of it lies on the same disk before anything is moved.
    let new = folder.join("vanadin.sqlite.restored");
    fs::copy(from, &new).with_context(|| format!("{} cannot be copied", from.display()))?;
    fs::File::open(&new)
        .and_then(|copy| copy.sync_all())
        .context("the copy cannot be brought to the disk")?;
    let aside = file.exists().then(|| free_name(&file)).transpose()?;
    if let Some(aside) = &aside {
        for ending in ["", "-wal", "-shm"] {
            let part = beside(&file, ending);
            if part.exists() {
                fs::rename(&part, beside(aside, ending)).context("what lies there cannot be moved aside")?;
            }
        }
    }
    fs::rename(&new, &file).context("the copy cannot be put in its place")?;
    Ok(aside)
}

/// `vanadin.sqlite.before-1`, or the first number that is free.
fn free_name(file: &Path) -> anyhow::Result<PathBuf> {
    let names = (1..10_000).map(|number| beside(file, &format!(".before-{number}")));
    names.into_iter().find(|name| !name.exists()).context("there are too many copies moved aside already")
}
