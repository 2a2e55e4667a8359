//! What moved the odds of a job last: the word of its log after which they were others.

use serde::Serialize;
use uuid::Uuid;

use super::Plan;
use super::make::odds_taken;
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

impl Plan {
    /// The way that is taken, and how often it holds; nothing where none is taken.
    #[must_use]
    pub fn odds_taken(&self) -> OddsThen {
        self.methods.taken().map(|taken| (taken.way, taken.odds.mean))
    }
}

/// The odds of a job as it was after the first of its words, with what is recorded of it until now. Nothing else is
/// planned of it.
#[must_use]
pub fn odds_then(job: &Job, facts: &[Fact], shop: &Shop, sims: &SimCache) -> OddsThen {
    let mut then = Job::fold(job.id, facts);
    then.record_of(job.clone());
    odds_taken(&then, shop, sims)
}

/// What moved the odds last, of the log's last words; nothing where none of them did, or where the way was chosen
/// since. `now` are the odds after all of them: [`Plan::odds_taken`]. `odds_then` is asked for the odds after the first
/// of the words, once for each that is looked at: see [`odds_then`]; whoever keeps its answers works out nothing twice
/// from word to word.
#[must_use]
pub fn odds_moved_last(
    facts: &[Fact],
    shop: &Shop,
    now: OddsThen,
    mut odds_then: impl FnMut(&[Fact]) -> OddsThen,
) -> Option<OddsMoved> {
    let (way, mut to) = now?;
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
