//! Every observation that was ever made, and what became of it.

use serde::Serialize;
use uuid::Uuid;

use crate::iron::{Belief, Confidence, Counts, Iron, WhiteStanding};
use crate::job::Job;
use crate::quantity::UnitSystem;

/// What became of an observation.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum FoundState {
    Counts,
    /// Another spot of the same test counts in full: this one by half.
    CountsByHalf,
    /// Done again at the same spot since.
    Replaced,
    /// Explained by a hard spot.
    HardSpot,
    Struck,
}

/// An observation, ready to be shown.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FoundLine {
    pub fact: Uuid,
    pub test: String,
    pub outcome: String,
    /// "Punch: raises a rim".
    pub words: String,
    /// "rim, fairly sure".
    pub how: String,
    pub spot: String,
    pub confidence: Confidence,
    pub state: FoundState,
    /// Why it was struck, what replaced it, what else it says; empty for nothing.
    pub note: String,
}

pub fn found(job: &Job, belief: &Belief, units: UnitSystem) -> Vec<FoundLine> {
    let mut counts = belief.counts.iter();
    job.evidence
        .iter()
        .map(|seen| {
            // The belief was made from those that are evidence, in this order.
            let counts = seen.evidence().and_then(|_| counts.next());
            let sure = seen.confidence.word();
            let (state, note) = match (&seen.struck, seen.hard_spot, counts) {
                (Some(reason), _, _) => (FoundState::Struck, format!("crossed out: {reason}")),
                (None, Some(_), _) => (FoundState::HardSpot, "a hard spot, on the map".to_owned()),
                (None, None, Some(Counts::Not)) => {
                    (FoundState::Replaced, "done again there since".to_owned())
                }
                (None, None, Some(Counts::ByHalf)) => {
                    (FoundState::CountsByHalf, "counts by half: a further spot".to_owned())
                }
                (None, None, Some(Counts::InFull) | None) => (FoundState::Counts, seen.note()),
            };
            FoundLine {
                fact: seen.fact,
                test: seen.test.clone(),
                outcome: seen.outcome.clone(),
                words: seen.words(units),
                how: format!("{}, {sure}", seen.spot),
                spot: seen.spot.clone(),
                confidence: seen.confidence,
                state,
                note,
            }
        })
        .collect()
}

/// The last observation that is hard where the iron is not: a skin, a chill or one hard spot.
pub fn may_be_a_hard_spot(belief: &Belief, found: &[FoundLine]) -> Option<FoundLine> {
    if belief.leading == Iron::White || belief.white == WhiteStanding::Believed {
        return None;
    }
    found
        .iter()
        .rev()
        .filter(|line| matches!(line.state, FoundState::Counts | FoundState::CountsByHalf))
        .find(|line| {
            matches!(
                (line.test.as_str(), line.outcome.as_str()),
                ("file" | "punch", "skates") | ("drill", "will_not_bite")
            )
        })
        .cloned()
}
