//! `/api/rack`: the jobs as thin lines, the one that needs a hand first on top.

use rocket::serde::json::Json;
use rocket::{State, get};
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;

use super::projection::{self, Found, RackLine, RackQuery};
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::asked;
use crate::job_service::JobService;
use crate::shop::device_units::DeviceUnits;

/// A job that cannot be read at all.
#[derive(Debug, Serialize, ToSchema)]
pub struct DamagedJob {
    pub id: Uuid,
    pub why: String,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct Rack {
    /// Those asked for.
    pub lines: Vec<RackLine>,
    /// How many there are in all.
    pub total: u32,
    /// The longest of all their lines, in minutes: they share one scale.
    pub longest_min: f64,
    /// Jobs that cannot be shown: the others are.
    pub damaged: Vec<DamagedJob>,
    /// Of the shop's settings together.
    pub shop_revision: u64,
    /// What has to be said of the computer's clock; empty while it goes as it should.
    pub clock_notice: String,
    pub now_ms: i64,
}

/// Lines sent at a time, where nobody says how many; and the most.
const AT_A_TIME: u32 = 20;
const MOST: u32 = 100;

/// The jobs, those put away left out unless `away` is asked for, and only those that `find` fits: a
/// number of them from a place on, the most urgent first.
#[utoipa::path(get, path = "/api/rack", params(
    ("away" = Option<bool>, Query, description = "The jobs put away instead"),
    ("find" = Option<String>, Query, description = "Words in the name, the owner or the sort of part"),
    ("from" = Option<u32>, Query, description = "So many are left out from the top"),
    ("most" = Option<u32>, Query, description = "So many are sent: 20, and up to 100")),
    responses(
    (status = 200, description = "The rack, most urgent first", body = Rack),
    (status = 422, description = "What is asked for cannot be read", body = ProblemsBody)))]
#[get("/?<away>&<find>&<from>&<most>")]
pub async fn rack(
    jobs: &State<JobService>,
    units: DeviceUnits,
    away: Option<&str>,
    find: Option<&str>,
    from: Option<&str>,
    most: Option<&str>,
) -> Result<Json<Rack>, ApiError> {
    let asked = RackQuery {
        // Named alone it is asked for.
        away: away.is_some_and(|away| away.is_empty())
            || asked("away", away.filter(|it| !it.is_empty()), "true or false")?.unwrap_or(false),
        practice: false,
        find: find.unwrap_or_default(),
        from: asked("from", from, "a number of jobs")?.unwrap_or(0),
        most: asked("most", most, "a number of jobs")?.unwrap_or(AT_A_TIME).min(MOST),
    };
    let pool = &jobs.database.pool;
    // A full disk keeps nobody from seeing what is hot: how a line stands is worked out when it is read.
    jobs.reproject_stale().await;
    let now_ms = jobs.now_ms();
    if projection::turned(pool, now_ms).await?
        && let Err(error) = jobs.database.write(async |on| projection::turn(on, now_ms, false).await).await
    {
        eprintln!("vanadin: the order of the rack is as it was: {error}");
    }
    let shop = jobs.shop().await?;
    let mut found = projection::find(pool, &asked, (shop.planned_by, now_ms)).await?;
    if !found.out_of_date.is_empty() {
        // The others are worked out anew in the background; what is looked at, now.
        if let Err(error) = jobs.reproject_all(&found.out_of_date).await {
            eprintln!("vanadin: the rack is shown as it was: {error}");
        }
        found = projection::find(pool, &asked, (shop.planned_by, now_ms)).await?;
    }
    let Found { mut lines, total, longest_min, .. } = found;
    if units.0.is_some_and(|units| units != shop.shop.units) {
        for line in &mut lines {
            match jobs.load_in(line.id, units).await {
                Ok(seen) => *line = seen.line(now_ms).line,
                // It is shown as it was stored rather than not at all.
                Err(error) => eprintln!("vanadin: the line of {} is shown in other units: {error}", line.id),
            }
        }
    }
    Ok(Json(Rack {
        lines,
        total,
        longest_min,
        damaged: jobs.damaged().into_iter().map(|(id, why)| DamagedJob { id, why }).collect(),
        shop_revision: shop.revision,
        clock_notice: jobs.notice(),
        now_ms,
    }))
}
