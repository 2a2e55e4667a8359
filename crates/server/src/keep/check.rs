//! `vanadin check`: whether a data file is whole, and what in it cannot be read.

use std::fmt;
use std::fs;
use std::path::Path;

use anyhow::{Context, ensure};
use rocket::futures::TryStreamExt;
use sqlx::{Row, SqliteConnection};
use vanadin_core::job::Change;

use super::{data_file, open_file};
use crate::database::FILE;

/// What was found in a data file.
#[derive(Debug, Default)]
pub struct Checked {
    /// What SQLite finds wrong with the file itself.
    pub broken: Vec<String>,
    /// Entries that cannot be read: of which job, and which place in its log.
    pub unreadable: Vec<(String, i64)>,
    /// What can be read and cannot be: a gap in a log, a reading of no temperature, a job without a name of its own.
    pub odd: Vec<String>,
    pub jobs: i64,
    pub facts: i64,
    pub readings: i64,
    pub pictures: i64,
    pub picture_bytes: i64,
    pub bytes: u64,
}

impl Checked {
    #[must_use]
    pub fn whole(&self) -> bool {
        self.broken.is_empty() && self.unreadable.is_empty() && self.odd.is_empty()
    }
}

impl fmt::Display for Checked {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        writeln!(f, "{FILE}: {:.1} MB", self.bytes as f64 / 1e6)?;
        writeln!(f, "  {} jobs, {} entries, {} readings", self.jobs, self.facts, self.readings)?;
        writeln!(f, "  {} pictures, {:.1} MB", self.pictures, self.picture_bytes as f64 / 1e6)?;
        for found in &self.broken {
            writeln!(f, "  the file is damaged: {found}")?;
        }
        for (job, revision) in &self.unreadable {
            writeln!(f, "  job {job}: entry no. {revision} cannot be read")?;
        }
        for found in &self.odd {
            writeln!(f, "  {found}")?;
        }
        if self.whole() {
            write!(f, "  everything can be read")
        } else {
            write!(f, "  put back a copy: vanadin restore")
        }
    }
}

/// Looks through a whole data file; nothing of it is changed.
///
/// # Errors
/// There is none, or it cannot be opened at all.
pub async fn check(folder: &Path) -> anyhow::Result<Checked> {
    look_through(&data_file(folder)?).await
}

/// The same of a file wherever it lies.
pub(super) async fn look_through(file: &Path) -> anyhow::Result<Checked> {
    let mut database = open_file(file).await?;
    let named = sqlx::query("select 1 from sqlite_master where name = '_sqlx_migrations'")
        .fetch_optional(&mut database)
        .await
        .with_context(|| format!("{} is no data file", file.display()))?;
    ensure!(named.is_some(), "{} is no data file of Vanadin's", file.display());
    let mut found = Checked { bytes: fs::metadata(file)?.len(), ..Checked::default() };
    let said: Vec<String> = sqlx::query_scalar("pragma integrity_check").fetch_all(&mut database).await?;
    found.broken = said.into_iter().filter(|said| said != "ok").collect();
    let on = &mut database;
    found.jobs = count(on, "select count(*) from job").await?;
    found.facts = count(on, "select count(*) from fact").await?;
    found.readings = count(on, "select count(*) from reading").await?;
    found.pictures = count(on, "select count(*) from picture").await?;
    found.picture_bytes =
        count(on, "select coalesce(sum(length(jpeg) + length(small)), 0) from picture").await?;
    let mut rows = sqlx::query("select job_id, revision, change from fact").fetch(on);
    while let Some(row) = rows.try_next().await? {
        let readable =
            row.try_get::<&str, _>(2).is_ok_and(|text| serde_json::from_str::<Change>(text).is_ok());
        if !readable {
            found.unreadable.push((row.try_get(0).unwrap_or_default(), row.try_get(1).unwrap_or_default()));
        }
    }
    drop(rows);
    for (which, what) in ODD {
        // A copy of before may not have it yet.
        let there =
            sqlx::query("select 1 from sqlite_master where type = 'table' and instr(?, ' ' || name) > 0");
        if there.bind(*which).fetch_optional(&mut database).await?.is_none() {
            continue;
        }
        let jobs: Vec<String> = sqlx::query_scalar(*which).fetch_all(&mut database).await?;
        found.odd.extend(jobs.into_iter().map(|job| what.replace("{}", &job)));
    }
    Ok(found)
}

/// What is odd, by what finds it: of which job, or of the shop.
const ODD: &[(&str, &str)] = &[
    (
        "select coalesce(id, '?') from job where id is null or length(id) <> 36 or id glob '*[^0-9a-f-]*'",
        "the job {} has no name that can be read",
    ),
    (
        "select job_id from fact group by job_id having count(*) <> max(revision) or min(revision) <> 1",
        "job {}: an entry is missing in its log",
    ),
    (
        "select distinct job_id from reading where typeof(celsius) <> 'real' or celsius not between -100 and 2000 \
         or typeof(minutes) <> 'real' or minutes not between -1e6 and 1e9",
        "job {}: a reading says no temperature of a part, or no time",
    ),
    (
        "select 'no. ' || revision from shop_fact where not json_valid(change)",
        "the shop: what was said as {} cannot be read",
    ),
    (
        "select cast(max(revision) as text) from shop_fact having count(*) <> max(revision)",
        "the shop: an entry before no. {} is missing in its log",
    ),
];

async fn count(on: &mut SqliteConnection, what: &'static str) -> Result<i64, sqlx::Error> {
    sqlx::query_scalar(what).fetch_one(on).await
}
