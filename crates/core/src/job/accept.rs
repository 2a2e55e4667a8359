//! Whether a change may be added to a job as it stands.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::fields::id_in;
use super::fold::{can_be_taken_back, undone};
use super::{Change, Fact, Job, Observed, TorchEntry, job_field, parse_value};
use crate::iron::{Iron, LookTest, MeasuredTest, TypedValues};
use crate::plan::Plan;
use crate::problem::FieldProblem;
use crate::quantity::{Kind, NotUnderstood, parse};

/// Two people changed one fact.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Conflict {
    pub field: String,
    /// What was sent, and what stands.
    pub yours: String,
    pub theirs: String,
    /// The revision to base the next try on.
    pub revision: u64,
}

/// Why a change was refused.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Refusal {
    Problems(Vec<FieldProblem>),
    Conflict(Conflict),
}

impl From<FieldProblem> for Refusal {
    fn from(problem: FieldProblem) -> Self {
        Self::Problems(vec![problem])
    }
}

/// Longest text a reason, a spot or a note may have. Ours.
const TEXT_MOST: usize = 600;
/// Lists hold at most this many entries.
const LIST_MOST: usize = 500;
/// Pictures of one job. Ours: they travel in the job's file.
const PICTURES_MOST: usize = 60;

/// Whether `change` may be added. `base` is the revision of what the change replaces as the client
/// last saw it; `plan` is the plan as it stands.
///
/// # Errors
/// [`Refusal::Conflict`] when the fact has changed since `base`; [`Refusal::Problems`] for what
/// cannot be, at its field.
pub fn accept(job: &Job, plan: &Plan, change: &Change, base: Option<u64>) -> Result<(), Refusal> {
    let problem = |field: &str, message: &str, right: &str| {
        Err(Refusal::from(FieldProblem::new(field, message, right)))
    };
    let round = job.round();
    match change {
        Change::Set { key, typed, shown_in } => {
            let Some(spec) = job_field(key) else {
                return problem(key, "there is no such field", "");
            };
            let known = id_in(key).is_none_or(|id| {
                round.cracks.iter().any(|crack| crack.id == id)
                    || round.neighbours.iter().any(|neighbour| neighbour.id == id)
                    || job.pictures.iter().any(|picture| picture.id == id)
            });
            if !known {
                return problem(key, "that is no longer there", "");
            }
            parse_value(key, spec, typed, *shown_in)?;
            let stands = round.values.get(key);
            if stands.is_some_and(|held| held.typed == typed.trim()) {
                return Ok(());
            }
            conflict(job, change, base, key, typed, stands.map_or("", |h| &h.typed))
        }
        Change::Observe { test, outcome, spot, .. } => {
            one_more(job, spot)?;
            let known = match test.as_str() {
                "mark" => Iron::from_id(outcome).is_some(),
                test => match LookTest::from_id(test) {
                    Some(look) => look.outcome(outcome).is_some(),
                    None => {
                        return problem("test", "there is no such test", "spark, punch, drill or another");
                    }
                },
            };
            if !known {
                return problem("outcome", "the test has no such outcome", "one of the pictures");
            }
            let theirs = stands_at(job, test, spot).map_or("", |seen: &Observed| &seen.outcome);
            conflict(job, change, base, &format!("evidence.{test}"), outcome, theirs)
        }
        Change::Measure { test, typed, shown_in, spot, .. } => {
            one_more(job, spot)?;
            let Some(measured) = MeasuredTest::from_id(test) else {
                return problem("test", "there is no such test", "sound, density or mark");
            };
            measured.measure(typed, *shown_in).map_err(Refusal::Problems)?;
            let said = |typed: &TypedValues| typed.values().cloned().collect::<Vec<_>>().join(", ");
            let theirs = stands_at(job, test, spot).map_or(String::new(), |seen| said(&seen.typed));
            conflict(job, change, base, &format!("evidence.{test}"), &said(typed), &theirs)
        }
        Change::AddHardSpot { spot, observed } => {
            short("spot", spot)?;
            if spot.trim().is_empty() {
                return problem("spot", "say where it is", "rim, beside the hub");
            }
            if round.hard_spots.len() >= LIST_MOST {
                return problem("spot", "500 hard spots are more than a repair", "");
            }
            let known = observed.is_none_or(|id| job.evidence.iter().any(|s| s.fact == id && s.stands()));
            if known { Ok(()) } else { problem("observed", "that observation no longer stands", "") }
        }
        Change::AddNeighbour => {
            if round.neighbours.len() >= LIST_MOST {
                return problem("neighbour", "500 of them are more than a repair", "");
            }
            Ok(())
        }
        Change::AddPicture => {
            if job.pictures.len() >= PICTURES_MOST {
                return problem("picture", "60 pictures of one job are enough", "strike some out first");
            }
            Ok(())
        }
        Change::AddCrack => {
            if round.cracks.len() >= LIST_MOST {
                return problem("crack", "500 cracks are more than a repair", "recast it");
            }
            Ok(())
        }
        Change::Strike { target, reason } => {
            short("reason", reason)?;
            if reason.trim().is_empty() {
                return problem("reason", "say why it is struck out", "misread, wrong button");
            }
            let known = job.evidence.iter().any(|seen| seen.fact == *target)
                || round.cracks.iter().any(|crack| crack.id == *target)
                || round.hard_spots.iter().any(|spot| spot.id == *target)
                || round.neighbours.iter().any(|neighbour| neighbour.id == *target)
                || job.pictures.iter().any(|picture| picture.id == *target)
                || round.log.iter().any(|entry| entry.fact == *target);
            if known { Ok(()) } else { problem("target", "there is nothing to strike", "") }
        }
        Change::Undo { target } => {
            if job.can_undo == Some(*target) {
                Ok(())
            } else {
                problem("target", "something else has happened since: undo that first", "")
            }
        }
        Change::Redo { target } => {
            if job.can_redo == Some(*target) {
                Ok(())
            } else {
                problem("target", "there is nothing to put back", "")
            }
        }
        Change::Light { speed, .. } => {
            if round.lit.is_some() {
                return problem("light", "it is lit already", "");
            }
            if !speed.is_finite() || !(1.0..=60.0).contains(speed) {
                return problem("speed", "the job clock runs at 1 to 60 times", "1 to 60");
            }
            match plan.unlit_reason() {
                Some(why) => problem("light", &why, "fill in what is missing first"),
                None => Ok(()),
            }
        }
        Change::CancelLight => {
            if round.lit.is_none() {
                return problem("light", "it is not lit", "");
            }
            if round.beads() > 0 {
                return problem("light", "the first bead is laid: it can no longer be cancelled", "");
            }
            Ok(())
        }
        Change::Torch { entry } => {
            if round.lit.is_none() {
                return problem("torch", "nothing is lit", "light up first");
            }
            if round.log.len() >= 20 * LIST_MOST {
                return problem("torch", "the torch log is full", "");
            }
            torch_entry(entry, round.covered_minutes().is_some())
        }
        Change::NewRound { reason } => {
            short("reason", reason)?;
            if job.rounds.len() >= LIST_MOST {
                return problem("reason", "500 rounds are more than a repair", "");
            }
            if round.lit.is_none() {
                return problem("round", "this round has not been lit: map the crack in it", "");
            }
            Ok(())
        }
        Change::PutAway | Change::BringBack => Ok(()),
    }
}

/// One more observation may be added, and says where.
fn one_more(job: &Job, spot: &str) -> Result<(), Refusal> {
    short("spot", spot)?;
    if spot.trim().is_empty() {
        let problem = FieldProblem::new("spot", "say where it was tried", "first spot, rim, hub");
        return Err(problem.into());
    }
    if job.evidence.len() >= LIST_MOST {
        let problem = FieldProblem::new("test", "500 observations are enough", "strike some out first");
        return Err(problem.into());
    }
    Ok(())
}

fn stands_at<'a>(job: &'a Job, test: &str, spot: &str) -> Option<&'a Observed> {
    job.evidence.iter().rev().find(|seen| seen.test == test && seen.spot == spot && seen.stands())
}

fn torch_entry(entry: &TorchEntry, covered: bool) -> Result<(), Refusal> {
    match entry {
        TorchEntry::Reading { typed, shown_in } => {
            let right = NotUnderstood::would_be_right(Kind::Temperature);
            let read = parse(typed, Kind::Temperature, *shown_in)
                .map_err(|error| FieldProblem::new("typed", error.to_string(), right))?;
            crate::quantity::Celsius::new(read.value).map_err(|out| out.at("typed"))?;
            Ok(())
        }
        TorchEntry::Note { text } => short("text", text),
        TorchEntry::Covered if covered => Err(FieldProblem::new("torch", "it is covered already", "").into()),
        TorchEntry::Bead | TorchEntry::Reheated if covered => {
            Err(FieldProblem::new("torch", "it is covered and cooling", "strike \"covered\" out first")
                .into())
        }
        TorchEntry::Bead | TorchEntry::Peened | TorchEntry::Reheated | TorchEntry::Covered => Ok(()),
    }
}

fn short(field: &str, text: &str) -> Result<(), Refusal> {
    if text.chars().count() <= TEXT_MOST {
        return Ok(());
    }
    Err(FieldProblem::new(field, "that is too long", format!("up to {TEXT_MOST} letters")).into())
}

fn conflict(
    job: &Job,
    change: &Change,
    base: Option<u64>,
    field: &str,
    yours: &str,
    theirs: &str,
) -> Result<(), Refusal> {
    let revision = job.revision_of(change);
    match base {
        Some(base) if revision > base => Err(Refusal::Conflict(Conflict {
            field: field.to_owned(),
            yours: yours.to_owned(),
            theirs: theirs.to_owned(),
            revision,
        })),
        Some(_) | None => Ok(()),
    }
}

/// What a copy of a job starts with: the part, the iron and the map, none of the heat.
///
/// `new_id` makes the ids of the copy's facts.
#[must_use]
pub fn duplicate(facts: &[Fact], mut new_id: impl FnMut() -> Uuid, now_ms: i64) -> Vec<Fact> {
    let undone = undone(facts);
    let mut renamed: Vec<(String, String)> = Vec::new();
    let mut copied = Vec::new();
    for fact in facts {
        if undone.contains(&fact.id) || !can_be_taken_back(&fact.change) {
            continue;
        }
        let id = new_id();
        renamed.push((fact.id.to_string(), id.to_string()));
        let mut change = fact.change.clone();
        match &mut change {
            Change::Set { key, .. } => {
                let left_behind = ["check.", "hand_over.", "picture.", "part.face"];
                if left_behind.iter().any(|prefix| key.starts_with(prefix)) {
                    continue;
                }
                for (was, now) in &renamed {
                    *key = key.replace(was, now);
                }
            }
            // A picture is of that one part.
            Change::AddPicture => {
                renamed.pop();
                continue;
            }
            Change::AddHardSpot { observed: Some(observed), .. } => {
                let now = renamed.iter().find(|(was, _)| *was == observed.to_string());
                if let Some(now) = now.and_then(|(_, now)| now.parse().ok()) {
                    *observed = now;
                }
            }
            Change::Strike { target, .. } => {
                let now = renamed.iter().find(|(was, _)| *was == target.to_string());
                match now.and_then(|(_, now)| now.parse().ok()) {
                    Some(now) => *target = now,
                    None => continue,
                }
            }
            _ => {}
        }
        copied.push(Fact {
            id,
            revision: copied.len() as u64 + 1,
            at_client_ms: now_ms,
            at_server_ms: now_ms,
            who: fact.who.clone(),
            change,
        });
    }
    copied
}

/// Whether a change could ever have been said: what a file from elsewhere is checked by.
///
/// # Errors
/// The problem, at its field.
pub fn importable(change: &Change) -> Result<(), FieldProblem> {
    match change {
        Change::Set { key, typed, shown_in } => {
            let spec = job_field(key).ok_or_else(|| FieldProblem::new(key, "there is no such field", ""))?;
            parse_value(key, spec, typed, *shown_in).map(|_| ())
        }
        Change::Observe { test, outcome, .. } => {
            let known = match LookTest::from_id(test) {
                Some(look) => look.outcome(outcome).is_some(),
                None => test == "mark" && Iron::from_id(outcome).is_some(),
            };
            if known {
                Ok(())
            } else {
                Err(FieldProblem::new("test", "there is no such test or outcome", ""))
            }
        }
        Change::Light { speed, .. } => {
            crate::problem::OutOfRange::check("the job clock", "times", (1.0, 60.0), *speed)
                .map(|_| ())
                .map_err(|out| out.at("speed"))
        }
        Change::Torch { entry: TorchEntry::Reading { typed, shown_in } } => {
            parse(typed, Kind::Temperature, *shown_in).map(|_| ()).map_err(|error| {
                FieldProblem::new(
                    "typed",
                    error.to_string(),
                    NotUnderstood::would_be_right(Kind::Temperature),
                )
            })
        }
        Change::Measure { test, typed, shown_in, .. } => match MeasuredTest::from_id(test) {
            Some(measured) => match measured.measure(typed, *shown_in) {
                Ok(_) => Ok(()),
                Err(problems) => Err(problems
                    .into_iter()
                    .next()
                    .unwrap_or_else(|| FieldProblem::new("typed", "this cannot be read", ""))),
            },
            None => Err(FieldProblem::new("test", "there is no such test", "sound, density or mark")),
        },
        Change::AddCrack
        | Change::AddHardSpot { .. }
        | Change::AddNeighbour
        | Change::AddPicture
        | Change::Strike { .. }
        | Change::Undo { .. }
        | Change::Redo { .. }
        | Change::CancelLight
        | Change::Torch { .. }
        | Change::NewRound { .. }
        | Change::PutAway
        | Change::BringBack => Ok(()),
    }
}
