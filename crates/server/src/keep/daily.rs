//! A copy a day, kept for a week beside the data.

use std::fs;
use std::path::{Path, PathBuf};

use anyhow::Context;
use jiff::Timestamp;
use jiff::civil::Date;
use jiff::tz::TimeZone;

use super::backup;

/// Where the copies lie in the data folder.
pub const COPIES: &str = "copies";
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

/// Makes the copy of the day if there is none yet, and lets those go that are older than a week's. True
/// where one was made.
///
/// # Errors
/// The copy cannot be made; those before it stay.
pub async fn keep_daily(folder: &Path, now_ms: i64) -> anyhow::Result<bool> {
    let now = Timestamp::from_millisecond(now_ms).context("no day has this time")?;
    let today = now.to_zoned(TimeZone::UTC).date();
    fs::create_dir_all(folder.join(COPIES)).context("there is no room for copies")?;
    if named(folder, today).exists() {
        return Ok(false);
    }
    backup(folder, &named(folder, today)).await?;
    for day in days(folder)?.into_iter().skip(DAYS) {
        fs::remove_file(named(folder, day)).context("an old copy cannot be removed")?;
    }
    Ok(true)
}
