//! `/api/rack`: every job as a thin line, the one that needs a hand first on top.

use rocket::serde::json::Json;
use rocket::{State, get};
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::job::{Job, Reading};
use vanadin_core::plan::{Plan, PlanLine, Standing, StationState, plan, standing};

use crate::api_error::ApiError;
use crate::bench::Bench;
use crate::job::store;
use crate::job::view::thinned;
use crate::shop::{shop_revision, the_shop};

/// One job on the rack.
#[derive(Debug, Serialize, ToSchema)]
pub struct RackLine {
    pub id: Uuid,
    pub name: String,
    /// Its picture; nothing while none was taken.
    pub face: Option<Uuid>,
    /// "gray", "ductile 78 %" while not settled; "24 kg"; the weight is empty while not known.
    pub iron: String,
    pub mass: String,
    pub round: usize,
    pub standing: Standing,
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
}

/// A job that cannot be read at all.
#[derive(Debug, Serialize, ToSchema)]
pub struct DamagedJob {
    pub id: Uuid,
    pub why: String,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct Rack {
    pub lines: Vec<RackLine>,
    /// Jobs that cannot be shown: the others are.
    pub damaged: Vec<DamagedJob>,
    /// Of the shop's settings together.
    pub shop_revision: u64,
    /// What has to be said of the computer's clock; empty while it goes as it should.
    pub clock_notice: String,
    pub now_ms: i64,
}

/// Points of a record that are drawn on the rack.
const DRAWN: usize = 120;

/// The jobs, those put away left out unless `away` is asked for, and only those that `find` fits.
#[utoipa::path(get, path = "/api/rack", params(
    ("away" = Option<bool>, Query, description = "The jobs put away instead"),
    ("find" = Option<String>, Query, description = "Words in the name, the owner or the iron")),
    responses((status = 200, description = "The rack, most urgent first", body = Rack)))]
#[get("/?<away>&<find>")]
pub async fn rack(
    bench: &State<Bench>,
    away: Option<bool>,
    find: Option<&str>,
) -> Result<Json<Rack>, ApiError> {
    let pool = &bench.database.pool;
    let shop = the_shop(pool).await?;
    let now_ms = bench.now_ms();
    let away = away.unwrap_or(false);
    let (mut lines, mut damaged) = (Vec::new(), Vec::new());
    for id in store::all(pool).await? {
        let job = match store::load(pool, id).await {
            Ok((job, _)) => job,
            Err(error) => {
                damaged.push(DamagedJob { id, why: error.to_string() });
                continue;
            }
        };
        // What was put away cold need not be worked out; what is hot lies on the rack wherever it was put.
        let warm = job.put_away && job.heat().is_some_and(|heat| !heat.read_cold(true));
        let asked_for = job.put_away == away || (warm && !away);
        if !asked_for || !find.is_none_or(|words| fits(&job, words)) {
            continue;
        }
        let plan = plan(&job, &shop);
        let standing = standing(&job, &plan, now_ms);
        if job.put_away == away || standing.hot.is_some() {
            lines.push(line(job, plan, standing));
        }
    }
    // Stable: of two that are equally urgent the newer one stays above.
    lines.sort_by_key(|line| (line.standing.rank, line.standing.next.at_ms.unwrap_or(i64::MAX)));
    Ok(Json(Rack {
        lines,
        damaged,
        shop_revision: shop_revision(pool).await?,
        clock_notice: bench.clock.notice().unwrap_or_default(),
        now_ms,
    }))
}

fn fits(job: &Job, words: &str) -> bool {
    let round = job.round();
    let text = [
        job.name(),
        round.text("part.owner").unwrap_or_default(),
        round.choice("part.family").unwrap_or_default(),
    ]
    .join(" ")
    .to_lowercase();
    words.to_lowercase().split_whitespace().all(|word| text.contains(word))
}

fn line(job: Job, plan: Plan, standing: Standing) -> RackLine {
    let round = job.round();
    let leading = plan.iron.shares.first();
    let iron = leading.map_or(String::new(), |share| {
        if plan.iron.steps.is_empty() {
            "iron not tested".to_owned()
        } else if plan.iron.enough {
            // Settled: how sure stands on its card.
            share.label.to_lowercase()
        } else {
            format!("{} {}", share.label.to_lowercase(), share.shown.text())
        }
    });
    RackLine {
        id: job.id,
        name: job.name().to_owned(),
        face: job.face(),
        iron,
        mass: plan.part.weight_words.clone(),
        round: job.rounds.len(),
        record: thinned(&round.readings, DRAWN),
        earlier: job.rounds[..job.rounds.len() - 1]
            .iter()
            .map(|round| thinned(&round.readings, DRAWN))
            .collect(),
        lit_at_ms: round.lit.as_ref().map(|lit| lit.at_ms),
        speed: round.lit.as_ref().map_or(1.0, |lit| lit.speed),
        put_away: job.put_away,
        damaged: plan
            .cautions
            .iter()
            .find(|caution| !job.damaged.is_empty() && caution.sentence.contains("cannot be read"))
            .map_or(String::new(), |caution| caution.sentence.clone()),
        stations: plan.stations,
        lines: plan.lines,
        standing,
    }
}
