//! A copy a day, kept for a week beside the data.

use std::fs::{self, DirBuilder};
use std::os::unix::fs::DirBuilderExt;
use std::path::{Path, PathBuf};

use anyhow::Context;
use jiff::Timestamp;
use jiff::civil::Date;
use jiff::tz::TimeZone;

use super::backup;
use crate::database::COPIES;

/// So many days are kept.
const DAYS: usize = 7;

fn named(folder: &Path, day: Date) -> PathBuf {
    folder.join(COPIES).join(format!("vanadin-{day}.sqlite"))
}

/// The days of which there is a copy, the last first.
fn days(folder: &Path) -> anyhow::Result<Vec<Date>> {
    let mut days: Vec<Date> = fs::read_dir(folder.join(COPIES))?
        .filter_map(|entry| {
            let name = entry.ok()?.file_name().into_string().ok()?;
            name.strip_prefix("vanadin-")?.strip_suffix(".sqlite")?.parse().ok()
        })
        .collect();
    days.sort_unstable_by(|a, b| b.cmp(a));
    Ok(days)
}

/// Copies of days that have not come, of a clock that was ahead: they are kept, and count for no day.
fn set_aside(folder: &Path, today: Date) -> anyhow::Result<()> {
    for day in days(folder)?.into_iter().filter(|day| *day > today) {
        let ahead = folder.join(COPIES).join(format!("ahead-{day}.sqlite"));
        fs::rename(named(folder, day), ahead).context("a copy of a day to come cannot be set aside")?;
    }
    Ok(())
}

/// Makes the copy of the day if there is none yet, and lets those go that are older than a week's. True
/// where one was made.
///
/// # Errors
/// The copy cannot be made; those before it stay.
pub async fn keep_daily(folder: &Path, now_ms: i64) -> anyhow::Result<bool> {
    let now = Timestamp::from_millisecond(now_ms).context("no day has this time")?;
    let today = now.to_zoned(TimeZone::UTC).date();
    DirBuilder::new()
        .recursive(true)
        .mode(0o700)
        .create(folder.join(COPIES))
        .context("there is no room for copies")?;
    set_aside(folder, today)?;
    if named(folder, today).exists() {
        return Ok(false);
    }
    backup(folder, &named(folder, today)).await?;
    for day in days(folder)?.into_iter().skip(DAYS) {
        fs::remove_file(named(folder, day)).context("an old copy cannot be removed")?;
    }
    Ok(true)
}
