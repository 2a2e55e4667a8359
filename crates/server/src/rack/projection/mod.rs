//! The line of each job on the rack: stored with the fact that changed it.

mod line;

use std::sync::LazyLock;
use std::time::UNIX_EPOCH;

use anyhow::Context;
use serde::{Deserialize, Serialize};
use sqlx::sqlite::SqliteRow;
use sqlx::{QueryBuilder, Row, Sqlite, SqliteConnection, SqlitePool};
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::field;
use vanadin_core::job::{Fact, Job, Reading};
use vanadin_core::plan::{Asks, JobStatus, Plan, PlanLine, StationState, StatusTimeline};
use vanadin_core::practice::Past;
use vanadin_core::secret::Level;
use vanadin_core::shop::Shop;

use crate::api_error::ApiError;

use line::{iron_words, line, practice_line};

/// One job on the rack.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct RackLine {
    pub id: Uuid,
    pub name: String,
    /// Its picture; nothing while none was taken.
    pub face: Option<Uuid>,
    /// "gray", "ductile 78 %" while not settled; "24 kg"; the weight is empty while not known.
    pub iron: String,
    pub mass: String,
    pub round: usize,
    pub standing: JobStatus,
    pub stations: Vec<StationState>,
    pub lines: Vec<PlanLine>,
    /// The record of this round.
    pub record: Vec<Reading>,
    /// Records of the rounds before, first round first.
    pub earlier: Vec<Vec<Reading>>,
    /// When it was lit, UTC in ms since 1970; nothing while not lit.
    pub lit_at_ms: Option<i64>,
    pub speed: f64,
    pub put_away: bool,
    /// What cannot be read in it, in a sentence; empty for nothing.
    pub damaged: String,
    /// It is no repair but a practice; nothing for a real job.
    #[serde(default)]
    pub practice: Option<PracticeLine>,
}

/// A practice among the others.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub struct PracticeLine {
    pub title: String,
    /// Id of its lesson; empty for a free case.
    pub lesson: String,
    pub level: Level,
    pub seed: u32,
    pub made_by: String,
    /// What became of it; nothing while it is in hand.
    pub ended: Option<PracticeEnd>,
}

#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub struct PracticeEnd {
    pub holds: bool,
    /// Of a hundred such repairs so many hold: 0 to 1.
    pub odds: f64,
    pub of_100: String,
    pub headline: String,
}

/// Which build worked a line out: one of another build is worked out anew.
static BUILD: LazyLock<String> = LazyLock::new(|| {
    let made = std::env::current_exe().and_then(std::fs::metadata).ok().and_then(|file| {
        let at = file.modified().ok()?.duration_since(UNIX_EPOCH).ok()?;
        Some(format!(" {} {}", file.len(), at.as_millis()))
    });
    format!("{}{}", env!("CARGO_PKG_VERSION"), made.unwrap_or_default())
});

/// A line as it is stored.
pub struct Projected {
    revision: u64,
    shop_revision: u64,
    planned_by: u64,
    created_ms: Option<i64>,
    /// What finding looks through, in small letters.
    words: String,
    /// The longest of its lines, in minutes.
    longest_min: f64,
    /// It was in the heat and is not known to be cold: a pad is on it, or may be.
    heated: bool,
    pub line: RackLine,
    /// Of the stores.
    asks: Asks,
    standings: StatusTimeline,
    now_ms: i64,
}

/// What a stored line is sorted by, as it stands from one turn to the next.
struct SortKey {
    on_rack: bool,
    rank: u32,
    next_ms: i64,
    turns_ms: Option<i64>,
}

impl SortKey {
    fn at(standings: &StatusTimeline, put_away: bool, now_ms: i64) -> Self {
        let now = standings.at(now_ms);
        Self {
            // What is hot lies on the rack wherever it was put.
            on_rack: !put_away || now.hot.is_some(),
            rank: now.rank,
            next_ms: now.next.at_ms.unwrap_or(i64::MAX),
            turns_ms: standings.turns_after(now_ms),
        }
    }
}

impl Projected {
    /// The line of a job, placed as it stands at a moment.
    pub fn of(
        (job, plan, facts): (&Job, &Plan, &[Fact]),
        (shop, shop_revision, planned_by): (&Shop, u64, u64),
        now_ms: i64,
    ) -> Self {
        let standings = StatusTimeline::of(job, plan);
        let round = job.round();
        let words = [
            job.name(),
            round.get(field::part::OWNER).unwrap_or_default(),
            round.label(&field::part::FAMILY).unwrap_or_default(),
            &iron_words(plan),
        ];
        let lines = || plan.lines.iter().map(|line| line.unwrap_at.unwrap_or(line.beads_to));
        Self {
            revision: job.revision,
            shop_revision,
            planned_by,
            created_ms: None,
            words: words.join(" ").to_lowercase(),
            longest_min: lines().fold(0.0, f64::max),
            heated: plan.last_heat.as_ref().is_some_and(|last| {
                let heat = job.heats().find(|heat| heat.lit.fact == last.lit);
                heat.is_some_and(|heat| !heat.read_cold(last.over))
            }),
            line: RackLine {
                practice: job.practice.as_ref().map(|it| practice_line(it, job, shop)),
                ..line(job, plan, standings.at(now_ms))
            },
            asks: Asks::of(job, plan, facts, shop),
            standings,
            now_ms,
        }
    }

    /// When its job was made, for a new one.
    #[must_use]
    pub fn created(self, created_ms: i64) -> Self {
        Self { created_ms: Some(created_ms), ..self }
    }
}

fn written(part: &impl Serialize) -> anyhow::Result<String> {
    serde_json::to_string(part).context("a line cannot be written")
}

/// Stores a line in place of the one before.
pub async fn put(on: &mut SqliteConnection, it: &Projected) -> Result<(), ApiError> {
    let place = SortKey::at(&it.standings, it.line.put_away, it.now_ms);
    let (line, standings) = (written(&it.line)?, written(&it.standings)?);
    let practice = it.line.practice.is_some();
    // A practice asks for nothing, and teaches the shop nothing.
    let asks = if practice { String::new() } else { written(&it.asks)? };
    sqlx::query(
        "insert into rack_line (job_id, revision, shop_revision, build, created_ms, put_away, on_rack, rank, \
         next_ms, turns_ms, longest_min, heated, words, line, standings, asks, planned_by, practice) values (?1, ?2, ?3, ?4, \
         coalesce(?5, (select created_ms from job where id = ?1)), ?6, ?7, ?8, ?9, ?10, ?11, ?12, ?13, ?14, \
         ?15, ?16, ?17, ?18) on conflict (job_id) do update set revision = excluded.revision, \
         shop_revision = excluded.shop_revision, build = excluded.build, put_away = excluded.put_away, \
         on_rack = excluded.on_rack, rank = excluded.rank, next_ms = excluded.next_ms, \
         turns_ms = excluded.turns_ms, longest_min = excluded.longest_min, heated = excluded.heated, \
         words = excluded.words, line = excluded.line, standings = excluded.standings, \
         asks = excluded.asks, planned_by = excluded.planned_by, practice = excluded.practice",
    )
    .bind(it.line.id.to_string())
    .bind(it.revision.cast_signed())
    .bind(it.shop_revision.cast_signed())
    .bind(&*BUILD)
    .bind(it.created_ms)
    .bind(it.line.put_away)
    .bind(place.on_rack)
    .bind(place.rank)
    .bind(place.next_ms)
    .bind(place.turns_ms)
    .bind(it.longest_min)
    .bind(it.heated)
    .bind(&it.words)
    .bind(line)
    .bind(standings)
    .bind(asks)
    .bind(it.planned_by.cast_signed())
    .bind(practice)
    .execute(on)
    .await?;
    Ok(())
}

fn ids(rows: &[SqliteRow]) -> Vec<Uuid> {
    rows.iter().filter_map(|row| row.try_get::<String, _>(0).ok()?.parse().ok()).collect()
}

/// Whether there is a job of this name already, on the rack or put away.
pub async fn has_name(pool: &SqlitePool, name: &str) -> Result<bool, sqlx::Error> {
    let found = sqlx::query("select 1 from rack_line where json_extract(line, '$.name') = ? limit 1")
        .bind(name)
        .fetch_optional(pool)
        .await?;
    Ok(found.is_some())
}

/// Jobs without a line: of a database from before there were lines.
pub async fn without_a_line(pool: &SqlitePool) -> Result<Vec<Uuid>, sqlx::Error> {
    let rows = sqlx::query(
        "select id from job where id not in (select job_id from rack_line) order by created_ms desc",
    )
    .fetch_all(pool)
    .await?;
    Ok(ids(&rows))
}

/// Some jobs whose line was worked out by another build, or in a shop by which plans come out otherwise, what lies on
/// the rack first.
pub async fn out_of_date(pool: &SqlitePool, planned_by: u64, most: u32) -> Result<Vec<Uuid>, sqlx::Error> {
    let rows = sqlx::query(
        "select job_id from rack_line where planned_by is not ? or build <> ? \
         order by on_rack desc, rank, created_ms desc limit ?",
    )
    .bind(planned_by.cast_signed())
    .bind(&*BUILD)
    .bind(most)
    .fetch_all(pool)
    .await?;
    Ok(ids(&rows))
}

/// Jobs that were in the heat and are not known to be cold.
pub async fn heated(pool: &SqlitePool) -> Result<Vec<Uuid>, sqlx::Error> {
    Ok(ids(&sqlx::query("select job_id from rack_line where heated and not practice")
        .fetch_all(pool)
        .await?))
}

/// Each practice that is over, the first begun first: the id of its lesson, and how it ended.
pub async fn practices_over(pool: &SqlitePool) -> Result<Vec<(String, Past)>, sqlx::Error> {
    let rows = sqlx::query(
        "select json_extract(line, '$.practice.lesson'), json_extract(line, '$.practice.ended.odds'), \
         json_extract(line, '$.practice.ended.holds') from rack_line \
         where practice and json_extract(line, '$.practice.ended.odds') is not null order by created_ms, job_id",
    )
    .fetch_all(pool)
    .await?;
    let over = |row: &SqliteRow| {
        let (odds, holds) = (row.try_get(1).ok()?, row.try_get(2).ok()?);
        Some((row.try_get(0).ok()?, Past { odds, holds }))
    };
    Ok(rows.iter().filter_map(over).collect())
}

/// Practices whose made-up part was in the heat and is not known to be cold.
pub async fn practices_heated(pool: &SqlitePool) -> Result<Vec<Uuid>, sqlx::Error> {
    Ok(ids(&sqlx::query("select job_id from rack_line where heated and practice").fetch_all(pool).await?))
}

/// Places anew what stands otherwise by now, by itself; with `all` whatever may ever, for a clock that
/// was set.
pub async fn turn(on: &mut SqliteConnection, now_ms: i64, all: bool) -> Result<(), ApiError> {
    let rows = sqlx::query(
        "select job_id, put_away, standings from rack_line where turns_ms <= ?1 or (?2 and heated)",
    )
    .bind(now_ms)
    .bind(all)
    .fetch_all(&mut *on)
    .await?;
    for row in rows {
        // One that cannot be read is worked out anew: it keeps no other where it was.
        let Ok(standings) = row.try_get(2).map_err(ApiError::from).and_then(standings) else {
            sqlx::query("update rack_line set build = '', turns_ms = null where job_id = ?")
                .bind(row.try_get::<String, _>(0)?)
                .execute(&mut *on)
                .await?;
            continue;
        };
        let place = SortKey::at(&standings, row.try_get(1)?, now_ms);
        sqlx::query("update rack_line set on_rack = ?, rank = ?, next_ms = ?, turns_ms = ? where job_id = ?")
            .bind(place.on_rack)
            .bind(place.rank)
            .bind(place.next_ms)
            .bind(place.turns_ms)
            .bind(row.try_get::<String, _>(0)?)
            .execute(&mut *on)
            .await?;
    }
    Ok(())
}

/// Something stands otherwise by now.
pub async fn turned(pool: &SqlitePool, now_ms: i64) -> Result<bool, sqlx::Error> {
    let row = sqlx::query("select 1 from rack_line where turns_ms <= ? limit 1")
        .bind(now_ms)
        .fetch_optional(pool)
        .await?;
    Ok(row.is_some())
}

fn standings(text: &str) -> Result<StatusTimeline, ApiError> {
    Ok(serde_json::from_str(text).context("a stored line cannot be read")?)
}

/// Which lines are asked for.
pub struct RackQuery<'a> {
    pub away: bool,
    /// The practices, and none of the jobs.
    pub practice: bool,
    pub find: &'a str,
    pub from: u32,
    pub most: u32,
}

/// What was asked for.
pub struct Found {
    /// Most urgent first.
    pub lines: Vec<RackLine>,
    /// How many there are in all.
    pub total: u32,
    /// The longest of all, in minutes.
    pub longest_min: f64,
    /// Those of them that another build worked out, or in a shop by which plans come out otherwise, and those that
    /// cannot be read.
    pub out_of_date: Vec<Uuid>,
}

/// The lines asked for, as they stand at a moment.
pub async fn find(
    pool: &SqlitePool,
    asked: &RackQuery<'_>,
    (planned_by, now_ms): (u64, i64),
) -> Result<Found, ApiError> {
    let of_these = |what: &str| {
        let mut query = QueryBuilder::<Sqlite>::new(format!("select {what} from rack_line where "));
        // Whoever looks for a job may not know that it was put away.
        query.push(match (asked.away, asked.find.trim()) {
            (true, _) => "put_away = 1",
            (false, "") => "on_rack = 1",
            (false, _) => "true",
        });
        query.push(if asked.practice { " and practice" } else { " and not practice" });
        for word in asked.find.to_lowercase().split_whitespace() {
            query.push(" and instr(words, ").push_bind(word.to_owned()).push(") > 0");
        }
        query
    };
    let counted = of_these("count(*), coalesce(max(longest_min), 0.0)").build().fetch_one(pool).await?;
    let mut query = of_these("line, standings, planned_by, build, job_id");
    // Of two that are equally urgent the newer one lies above.
    // Those that were put away come last.
    let away_last = if asked.find.trim().is_empty() { "" } else { "on_rack desc, " };
    query
        .push(format!(" order by {away_last}rank, next_ms, created_ms desc, job_id limit "))
        .push_bind(asked.most);
    query.push(" offset ").push_bind(asked.from);
    let rows = query.build().fetch_all(pool).await?;
    let read = |row: &SqliteRow| -> Option<RackLine> {
        let line: RackLine = serde_json::from_str(row.try_get(0).ok()?).ok()?;
        Some(RackLine { standing: standings(row.try_get(1).ok()?).ok()?.at(now_ms), ..line })
    };
    let current = |row: &SqliteRow| {
        let made: (Result<i64, _>, Result<&str, _>) = (row.try_get(2), row.try_get(3));
        matches!(made, (Ok(by), Ok(build)) if by.cast_unsigned() == planned_by && build == *BUILD)
    };
    let (mut lines, mut out_of_date) = (Vec::with_capacity(rows.len()), Vec::new());
    for row in &rows {
        let line = read(row);
        if line.is_none() || !current(row) {
            out_of_date.extend(row.try_get::<&str, _>(4).ok().and_then(|id| id.parse::<Uuid>().ok()));
        }
        lines.extend(line);
    }
    Ok(Found { lines, total: counted.try_get(0)?, longest_min: counted.try_get(1)?, out_of_date })
}
