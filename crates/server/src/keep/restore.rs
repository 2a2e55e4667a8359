//! `vanadin restore`: a copy is put back, and what lay there is kept.

use std::fs;
use std::path::{Path, PathBuf};

use anyhow::{Context, bail, ensure};

use super::check::look_through;
use super::open_file as look_into;
use crate::database::{FILE, lock, own_file, sidecar_path};

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
    if new.exists() {
        fs::remove_file(&new).with_context(|| format!("{} is in the way", new.display()))?;
    }
    let copy = own_file(&new).with_context(|| format!("{} cannot be written", new.display()))?;
    // Not byte by byte: what was written last may lie beside it, and belongs to it.
    let copied = sqlx::query("vacuum into ?").bind(new.display().to_string());
    copied
        .execute(&mut look_into(from).await?)
        .await
        .with_context(|| format!("{} cannot be copied", from.display()))?;
    copy.sync_all().context("the copy cannot be brought to the disk")?;
    // What was written last lies beside the file, also where that is gone: laid on another it would tear it.
    let there: Vec<&str> =
        ["", "-wal", "-shm"].into_iter().filter(|ending| sidecar_path(&file, ending).exists()).collect();
    let aside = (!there.is_empty()).then(|| free_name(&file)).transpose()?;
    for ending in there {
        let Some(aside) = &aside else { break };
        fs::rename(sidecar_path(&file, ending), sidecar_path(aside, ending))
            .context("what lies there cannot be moved aside")?;
    }
    fs::rename(&new, &file).context("the copy cannot be put in its place")?;
    // The names are on the disk as well when it is told.
    fs::File::open(folder)
        .and_then(|folder| folder.sync_all())
        .context("the folder cannot be brought to the disk")?;
    Ok(aside)
}

/// `vanadin.sqlite.before-1`, or the first number that is free.
fn free_name(file: &Path) -> anyhow::Result<PathBuf> {
    let names = (1..10_000).map(|number| sidecar_path(file, &format!(".before-{number}")));
    let is_free =
        |name: &PathBuf| ["", "-wal", "-shm"].iter().all(|ending| !sidecar_path(name, ending).exists());
    names.into_iter().find(is_free).context("there are too many copies moved aside already")
}
