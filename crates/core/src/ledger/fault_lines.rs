//! What went wrong at the torch, and what it was put down to.

use std::collections::BTreeSet;

use serde::Serialize;
use uuid::Uuid;

use super::learned_lines::LearnedCase;
use super::said::{Said, times};
use crate::faults::causes::Symptom;
use crate::faults::own::OwnFault;

/// Something that went wrong at the torch here, and what it was put down to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FaultLine {
    pub seen: Symptom,
    pub label: &'static str,
    /// "4 times on 3 parts"
    pub words: String,
    /// The most often first, what nobody found last.
    pub causes: Vec<FaultCause>,
    #[serde(skip)]
    pub cases: Vec<LearnedCase>,
}

/// What a fault was put down to.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FaultCause {
    pub words: String,
    pub times: u32,
}

/// What went wrong, by what was seen.
pub(super) fn fault_lines(all: &Said<'_>) -> Vec<FaultLine> {
    let mut of_seen: Vec<(Symptom, Vec<&OwnFault>)> = Vec::new();
    for own in all.faults.iter().filter(|it| !it.taken_back && !all.left_out.contains_key(&it.entry)) {
        match of_seen.iter_mut().find(|(seen, _)| *seen == own.seen) {
            Some((_, faults)) => faults.push(own),
            None => of_seen.push((own.seen, vec![own])),
        }
    }
    of_seen.sort_by_key(|(_, faults)| std::cmp::Reverse(faults.len()));
    let cause = |own: &OwnFault| own.seen.cause(&own.cause).map_or("nobody found why", |cause| cause.words);
    let line = |(seen, faults): (Symptom, Vec<&OwnFault>)| {
        let mut causes: Vec<FaultCause> = Vec::new();
        for own in &faults {
            match causes.iter_mut().find(|known| known.words == cause(own)) {
                Some(known) => known.times += 1,
                None => causes.push(FaultCause { words: cause(own).to_owned(), times: 1 }),
            }
        }
        causes.sort_by_key(|it| (it.words == "nobody found why", std::cmp::Reverse(it.times)));
        let parts: BTreeSet<Uuid> = faults.iter().map(|own| own.job).collect();
        FaultLine {
            seen,
            label: seen.words(),
            words: format!("{} on {}", times(faults.len(), "time"), times(parts.len(), "part")),
            causes,
            cases: faults
                .iter()
                .map(|own| LearnedCase {
                    case: own.entry,
                    job: Some(own.job),
                    name: own.name.clone(),
                    value: 1.0,
                    words: format!("{}: {}", own.way.label(), cause(own)),
                })
                .collect(),
        }
    };
    of_seen.into_iter().map(line).collect()
}
