//! What moved the odds of a job last: the word of its log after which they were others.

use serde::Serialize;
use uuid::Uuid;

use super::plan_with;
use crate::heat::SimCache;
use crate::job::{Change, Fact, Job, Telling};
use crate::method::Way;
use crate::shop::Shop;
use crate::stage::method::of_a_hundred;

/// What moved the odds of the chosen way last.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OddsMoved {
    /// The fact that did.
    pub fact: Uuid,
    /// UTC, ms since 1970.
    pub at_ms: i64,
    /// What was said, as the history tells it.
    pub said: String,
    /// "6 fewer of 100"
    pub moves: String,
    /// The odds before and after, 0 to 1.
    pub from: f64,
    pub to: f64,
}

/// **House**: so many words back it is looked for; what moved them before that is long forgotten.
const LOOKED_BACK: usize = 40;
/// Under half of one in a hundred nobody sees it. **House**.
const LEAST: f64 = 0.005;

/// The way that is taken after some of a job's words, and how often it holds; nothing where none is taken.
pub type OddsThen = Option<(Way, f64)>;

/// Plans a job as it was after the first of its words, with what is recorded of it until now.
#[must_use]
pub fn odds_then(job: &Job, facts: &[Fact], shop: &Shop, sims: &SimCache) -> OddsThen {
    let mut then = Job::fold(job.id, facts);
    then.record_of(job.clone());
    plan_with(&then, shop, sims).methods.taken().map(|taken| (taken.way, taken.odds.mean))
}

/// What moved the odds last, of the log's last words; nothing where none of them did, or where the way was chosen
/// since. `odds_then` is asked for the odds after the first of the words, once for each that is looked at: see
/// [`odds_then`]; whoever keeps its answers plans nothing twice from word to word.
#[must_use]
pub fn odds_moved_last(
    facts: &[Fact],
    shop: &Shop,
    mut odds_then: impl FnMut(&[Fact]) -> OddsThen,
) -> Option<OddsMoved> {
    let (way, mut to) = odds_then(facts)?;
    let telling = Telling::new(facts, shop.units);
    for index in (facts.len().saturating_sub(LOOKED_BACK)..facts.len()).rev() {
        if moves_nothing(&facts[index].change) {
            continue;
        }
        let (before, from) = odds_then(&facts[..index])?;
        if before != way {
            return None;
        }
        if (to - from).abs() >= LEAST {
            let fact = &facts[index];
            let (said, moves) = (telling.told(fact), of_a_hundred(to - from));
            return Some(OddsMoved { fact: fact.id, at_ms: fact.at_ms(), said, moves, from, to });
        }
        to = from;
    }
    None
}

/// What is said of no plan.
fn moves_nothing(change: &Change) -> bool {
    match change {
        Change::Set { key, .. } => key.starts_with("note.") || key.starts_with("picture."),
        Change::AddPicture { .. } | Change::Time { .. } | Change::Estimate { .. } => true,
        _ => false,
    }
}
