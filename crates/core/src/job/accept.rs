//! Whether a change may be added to a job as it stands.

use serde::Serialize;
use uuid::Uuid;

use super::bounds::{
    FACES_MOST, FOLLOWED_MOST, LIST_MOST, PICTURES_MOST, SEAM_READINGS_MOST, TORCH_MOST, within_bounds,
};
use super::understood::lengths;
use super::{Change, HeatRef, Job, Lighting, LogEntry, Observed, Round, TorchEntry};
use crate::base::day::Day;
use crate::base::problem::FieldProblem;
use crate::field::{self, FieldValue, Saying, id_in, job_field, parse_value};
use crate::iron::{Iron, LookTest, MeasuredTest, TypedValues};
use crate::map::{Drawn, MarkKind, Shape};

/// Two people changed one fact.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
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

/// What the plan of a job says of what may be done to it: what a change is judged by, and no more.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Allowed {
    /// Why no method can be taken, and what would open the way; nothing while one can.
    pub no_method: Option<(String, String)>,
    /// Why it cannot be lit, each with what would open the way; empty where it can.
    pub not_lit: Vec<(String, String)>,
    /// The same for a bake, and for a tacking.
    pub not_baked: Vec<(String, String)>,
    pub not_tacked: Vec<(String, String)>,
    /// What somebody has to answer for who lights it; empty where nobody has to.
    pub to_own: String,
    /// Why no estimate can be given; nothing while one can.
    pub no_estimate: Option<(String, String)>,
    /// What is open before it is handed over and nobody answers for; empty where nothing is.
    pub open: Vec<String>,
}

/// Whether `change` may be added by `sender`. `base` is the revision of what the change replaces as the
/// client last saw it; `allowed` gives what the plan says, as it stands: it is asked by few changes.
///
/// # Errors
/// [`Refusal::Conflict`] when the fact has changed since `base`; [`Refusal::Problems`] for what
/// cannot be, at its field.
pub fn accept(
    job: &Job,
    allowed: impl Fn() -> Allowed,
    change: &Change,
    base: Option<u64>,
    sender: &str,
    today: Option<Day>,
) -> Result<(), Refusal> {
    within_bounds(change)?;
    let problem = |field: &str, message: &str, right: &str| {
        Err(Refusal::from(FieldProblem::new(field, message, right)))
    };
    let round = job.round();
    if job.practice.as_ref().is_some_and(|it| it.ended)
        && !matches!(change, Change::PutAway | Change::BringBack)
    {
        return problem("practice", "this practice is over", "play it again");
    }
    match change {
        Change::Set { key, typed, shown_in } => {
            let Some(spec) = job_field(key) else {
                return problem(key, "there is no such field", "");
            };
            let known = id_in(key).is_none_or(|id| {
                round.cracks.iter().any(|crack| crack.id == id)
                    || round.neighbours.iter().any(|neighbour| neighbour.id == id)
                    || job.pictures.iter().any(|picture| picture.id == id)
                    || job.faces.iter().any(|face| face.id == id)
                    || round.marks.iter().any(|mark| mark.id == id)
            });
            if !known {
                return problem(key, "that is no longer there", "");
            }
            let value = parse_value(key, spec, typed, Saying { shown_in: *shown_in, today })?;
            if key == field::method::CHOICE.key()
                && value.is_some()
                && let Some((why, unlock)) = allowed().no_method
            {
                return problem(key, &why, &unlock);
            }
            if key == field::hand_over::DONE.key() && value == Some(FieldValue::YesNo(true)) {
                handed_over(&allowed())?;
            }
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
        Change::AddFace => {
            if job.faces.len() >= FACES_MOST {
                return problem("face", "40 faces are more than a part has", "cross some out first");
            }
            Ok(())
        }
        Change::AddMark { .. } => {
            if round.marks.len() >= LIST_MOST {
                return problem("mark", "500 marks are more than a map shows", "cross some out first");
            }
            Ok(())
        }
        Change::Straighten { face, picture, .. } => {
            on_a_face(job, *face)?;
            if !job.pictures.iter().any(|known| known.id == *picture) {
                return problem("picture", "that picture is no longer there", "another picture of the job");
            }
            conflict(job, change, base, "picture", "a picture laid another way", "a picture")
        }
        Change::Draw { drawn } => {
            for (at, it) in drawn.iter().enumerate() {
                on_a_face(job, it.face)?;
                fits(job, it).map_err(|message| {
                    FieldProblem::new(format!("drawn[{at}].shape"), message, "as that thing is drawn")
                })?;
            }
            conflict(job, change, base, "drawn", "drawn another way", "as it lies now")
        }
        Change::SetPoint { mark, face, point, typed, shown_in } => {
            on_a_face(job, *face)?;
            let Some(placed) = round.placed(*mark, *face) else {
                return problem("mark", "that is no longer on the map", "");
            };
            let read = lengths(typed, *shown_in)?;
            let Some(shape) = placed.shape.with_point(*point, &read) else {
                return problem("point", "there is no such point", "one that is drawn");
            };
            shape.possible()?;
            conflict(job, change, base, "point", "typed another way", "as it lies now")
        }
        Change::MeasureSeam { crack, .. } => {
            if !round.cracks.iter().any(|known| known.id == *crack) {
                return problem("crack", "that crack is no longer there", "");
            }
            if round.at_seams.len() >= SEAM_READINGS_MOST {
                return problem("typed", "that is more than is read of a repair", "cross some out first");
            }
            Ok(())
        }
        Change::Look { place, .. } => {
            let known = place.at.is_none_or(|id| {
                round.cracks.iter().any(|crack| crack.id == id)
                    || round.said_at_torch().any(|(_, entry)| entry.fact == id)
            });
            if !known {
                return problem("place", "that place is no longer there", "");
            }
            if round.looked.len() >= SEAM_READINGS_MOST {
                return problem("place", "that is more than is looked at", "cross some out first");
            }
            Ok(())
        }
        Change::FollowUp { .. } => {
            if round.handed_over_ms.is_none() {
                return problem("became", "it was not handed over", "hand it over first");
            }
            if round.followed.len() >= FOLLOWED_MOST {
                return problem("became", "that is more than is asked", "cross some out first");
            }
            Ok(())
        }
        Change::Time { step, running } => {
            let open = round.timed.iter().find(|it| it.to_ms.is_none());
            if !running && open.is_none_or(|open| open.step != *step) {
                return problem("step", "that is not being timed", "begin it first");
            }
            Ok(())
        }
        Change::Estimate { until, .. } => {
            if let Some((why, unlock)) = allowed().no_estimate {
                return problem("until", &why, &unlock);
            }
            let day = Day::parse(until, today)
                .map_err(|none| FieldProblem::new("until", none.to_string(), none.would_be_right()))?;
            if today.is_some_and(|today| day.number() < today.number()) {
                return problem("until", "that day is past", "in 30 days");
            }
            Ok(())
        }
        Change::Tick { step, .. } => {
            let known = step.at.is_none_or(|id| {
                round.cracks.iter().any(|crack| crack.id == id)
                    || round.marks.iter().any(|mark| mark.id == id)
                    || job.faces.iter().any(|face| face.id == id)
            });
            if !known {
                return problem("step", "what that was done at is no longer there", "");
            }
            if round.ticked.len() >= SEAM_READINGS_MOST {
                return problem("step", "that is more than a list has", "");
            }
            Ok(())
        }
        Change::AddPicture => {
            if job.pictures.len() >= PICTURES_MOST {
                return problem("picture", "60 pictures of one job are enough", "cross some out first");
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
            if reason.trim().is_empty() {
                return problem("reason", "say why it is crossed out", "misread, wrong button");
            }
            let known = job.evidence.iter().any(|seen| seen.fact == *target)
                || round.cracks.iter().any(|crack| crack.id == *target)
                || round.hard_spots.iter().any(|spot| spot.id == *target)
                || round.neighbours.iter().any(|neighbour| neighbour.id == *target)
                || job.pictures.iter().any(|picture| picture.id == *target)
                || job.faces.iter().any(|face| face.id == *target)
                || round.marks.iter().any(|mark| mark.id == *target)
                || round.at_seams.iter().any(|reading| reading.id == *target)
                || round.looked.iter().any(|looked| looked.fact == *target)
                || round.followed.iter().any(|it| it.fact == *target)
                || job.heats().any(|heat| heat.log.iter().any(|entry| entry.fact == *target));
            if known { Ok(()) } else { problem("target", "there is nothing to cross out", "") }
        }
        Change::Undo { target } => {
            if job.own_word(sender).0 == Some(*target) {
                Ok(())
            } else {
                problem("target", "that is no longer the last thing said from here", "")
            }
        }
        Change::Redo { target } => {
            if job.own_word(sender).1 == Some(*target) {
                Ok(())
            } else {
                problem("target", "there is nothing to put back", "")
            }
        }
        Change::Light { owned, what, .. } => {
            if round.lit.is_some() && round.stopped().is_none() {
                return problem("light", "it is lit already", "");
            }
            let allowed = allowed();
            let not_lit = match what {
                Lighting::Main => &allowed.not_lit,
                Lighting::Bake => &allowed.not_baked,
                Lighting::Tack => &allowed.not_tacked,
            };
            let refused: Vec<FieldProblem> = not_lit
                .iter()
                .map(|(why, unlock)| FieldProblem::new("light", why.clone(), unlock.clone()))
                .collect();
            if !refused.is_empty() {
                return Err(Refusal::Problems(refused));
            }
            if what.is_main() && !allowed.to_own.is_empty() && owned.trim().is_empty() {
                let right = "who lights it all the same, and why";
                return problem("owned", &allowed.to_own, right);
            }
            Ok(())
        }
        Change::CancelLight => {
            if round.lit.is_none() {
                return problem("light", "it is not lit", "");
            }
            if !round.repaired() {
                return problem("light", "a bake or a tacking is put out", "say that it is over");
            }
            if round.beads() > 0 {
                return problem("light", "the first bead is laid: it can no longer be cancelled", "");
            }
            Ok(())
        }
        Change::PutOut => match round.lit_for() {
            Some(Lighting::Bake | Lighting::Tack) => Ok(()),
            Some(Lighting::Main) => problem("light", "it is covered, not put out", "cover it"),
            None => problem("light", "it is not lit", ""),
        },
        Change::Torch { entry } => {
            let Some(heat) = job.heat() else {
                return problem("torch", "nothing is lit", "light up first");
            };
            if heat.log.len() >= TORCH_MOST {
                return problem("torch", "the torch log is full", "");
            }
            torch_entry(entry, &heat, round)
        }
        Change::Unreadable { .. } => problem("change", "that cannot be said", ""),
        Change::NewRound { .. } => {
            if job.rounds.len() >= LIST_MOST {
                return problem("reason", "500 rounds are more than a repair", "");
            }
            if !round.repaired() {
                return problem("round", "this round has not been lit: map the crack in it", "");
            }
            Ok(())
        }
        Change::PutAway | Change::BringBack => Ok(()),
        Change::Practise { .. } => problem("change", "a job is a practice from its first word on", ""),
        Change::Pass { minutes } => {
            if job.practice.is_none() {
                return problem("minutes", "the clock of a real job goes by itself", "");
            }
            if job.heat().is_none() {
                return problem("minutes", "nothing is lit", "light up first");
            }
            if !(0.0..=PASS_MOST_MIN).contains(minutes) {
                return problem("minutes", "that is more than goes by at once", "up to 72 h");
            }
            Ok(())
        }
        Change::EndPractice => {
            if job.practice.is_none() {
                return problem(
                    "practice",
                    "a real job is followed up",
                    "say how it holds once it is handed over",
                );
            }
            Ok(())
        }
    }
}

/// Ours: no part is waited for any longer.
const PASS_MOST_MIN: f64 = 72.0 * 60.0;

fn on_a_face(job: &Job, face: Uuid) -> Result<(), Refusal> {
    if job.faces.iter().any(|known| known.id == face) {
        return Ok(());
    }
    Err(FieldProblem::new("face", "that face is no longer there", "a face of the part").into())
}

/// Whether a thing that is there can be drawn so.
fn fits(job: &Job, drawn: &Drawn) -> Result<(), &'static str> {
    let round = job.round();
    let Drawn { mark, face, shape } = drawn;
    let Some(shape) = shape else { return Ok(()) };
    let is = |wanted: &str| match shape {
        Shape::Line { .. } => wanted == "line",
        Shape::Circle { .. } => wanted == "circle",
        Shape::Outline { .. } => wanted == "outline",
        Shape::Place { .. } => wanted == "place",
    };
    let known = round.marks.iter().find(|known| known.id == *mark).map(|known| known.what);
    let wanted = if mark == face {
        "outline"
    } else if round.cracks.iter().any(|crack| crack.id == *mark) {
        "line"
    } else if round.hard_spots.iter().any(|spot| spot.id == *mark) {
        "circle"
    } else if round.neighbours.iter().any(|neighbour| neighbour.id == *mark) {
        "place"
    } else {
        match known {
            Some(MarkKind::BoltHole | MarkKind::Bore | MarkKind::ThickPlace) => "circle",
            Some(MarkKind::MachinedEdge | MarkKind::OldFiller) => "line",
            Some(MarkKind::MissingPiece | MarkKind::OldFracture | MarkKind::Opening) => "outline",
            Some(MarkKind::ReadingPlace | MarkKind::Feature) => "place",
            None => return Err("what is drawn is no longer there"),
        }
    };
    if is(wanted) { Ok(()) } else { Err("it is not drawn like that") }
}

/// Handing over says what is open, and somebody answers for it.
fn handed_over(allowed: &Allowed) -> Result<(), FieldProblem> {
    if allowed.open.is_empty() {
        return Ok(());
    }
    let right = "say why it goes out as it is, and who says so";
    Err(FieldProblem::new(field::hand_over::DONE.key(), allowed.open.join(" "), right))
}

/// One more observation may be added, and says where.
fn one_more(job: &Job, spot: &str) -> Result<(), Refusal> {
    if spot.trim().is_empty() {
        let problem = FieldProblem::new("spot", "say where it was tried", "first spot, rim, hub");
        return Err(problem.into());
    }
    if job.evidence.len() >= LIST_MOST {
        let problem = FieldProblem::new("test", "500 observations are enough", "cross some out first");
        return Err(problem.into());
    }
    Ok(())
}

fn stands_at<'a>(job: &'a Job, test: &str, spot: &str) -> Option<&'a Observed> {
    job.evidence.iter().rev().find(|seen| seen.test == test && seen.spot == spot && seen.stands())
}

/// What is said at the torch. A part that was heated is read, covered and unwrapped in whatever round the
/// job is by now; beads belong to a round that is lit.
fn torch_entry(entry: &TorchEntry, heat: &HeatRef<'_>, round: &Round) -> Result<(), Refusal> {
    let lit = round.lit.is_some();
    let repaired = round.repaired();
    let problem = |message: &str, right: &str| Err(Refusal::from(FieldProblem::new("torch", message, right)));
    match entry {
        TorchEntry::Reading { .. } | TorchEntry::Stick { .. } | TorchEntry::Note { .. } => Ok(()),
        TorchEntry::Covered { .. } if heat.covered() && !heat.unwrapped() => {
            problem("it is covered already", "")
        }
        TorchEntry::Unwrapped if heat.unwrapped() => problem("it is unwrapped already", ""),
        TorchEntry::Covered { .. } | TorchEntry::Unwrapped => Ok(()),
        TorchEntry::Bead { .. }
        | TorchEntry::Pin { .. }
        | TorchEntry::Peened
        | TorchEntry::Reheated
        | TorchEntry::Did { .. }
        | TorchEntry::Aligned { .. }
        | TorchEntry::Oven { .. }
            if !lit =>
        {
            problem("this round is not lit", "light up first")
        }
        TorchEntry::Bead { .. } | TorchEntry::Pin { .. } if !repaired => {
            problem("it is lit to bake or to tack", "that it is over, then light up")
        }
        TorchEntry::Oven { runs: true } if round.oven_runs().is_some() => problem("it runs already", ""),
        TorchEntry::Oven { runs: false } if round.oven_runs().is_none() => problem("it does not run", ""),
        TorchEntry::Bead { .. } | TorchEntry::Pin { .. } | TorchEntry::Reheated | TorchEntry::Did { .. }
            if heat.covered() =>
        {
            problem("it is covered and cooling", "cross out \"covered\" first")
        }
        TorchEntry::Bead { at: Some(at) } => {
            let there =
                |it: &LogEntry| matches!(it.entry, TorchEntry::Bead { at: Some(other) } if other == *at);
            if round.said_at_torch().any(|(_, it)| there(it)) {
                return problem("there lies a bead already", "the next one");
            }
            if [at.layer, at.side, at.beside, at.along].contains(&0) {
                return problem("beads are counted from 1", "1 or more");
            }
            Ok(())
        }
        TorchEntry::Trouble { seen, cause } if !cause.is_empty() && seen.cause(cause).is_none() => {
            problem("that is not a cause of what is seen", "one of those that are shown")
        }
        TorchEntry::Pin { number, .. } => {
            let set = round.said_at_torch().any(|(_, it)| it.entry == *entry);
            if set || *number == 0 {
                return problem("that pin is in already", "the next one");
            }
            Ok(())
        }
        TorchEntry::Bead { at: None }
        | TorchEntry::Peened
        | TorchEntry::Reheated
        | TorchEntry::Did { .. }
        | TorchEntry::Aligned { .. }
        | TorchEntry::Oven { .. }
        | TorchEntry::Trouble { .. } => Ok(()),
    }
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
