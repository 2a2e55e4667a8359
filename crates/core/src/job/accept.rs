//! Whether a change may be added to a job as it stands.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::understood::lengths;
use super::{Change, Fact, HeatRef, Job, Observed, TorchEntry, Understood};
use crate::day::Day;
use crate::field::{self, FieldValue, Lasts, Saying, id_in, job_field, parse_value, within};
use crate::iron::{Iron, LookTest, MeasuredTest, TypedValues};
use crate::log::{Taking, Word, undone};
use crate::map::{Drawn, MarkKind, Shape, Straightened};
use crate::problem::{FieldProblem, OutOfRange};
use crate::quantity::{Kind, NotUnderstood, UnitSystem, WallMillimetres, parse};

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

/// Faces of one part. Ours.
const FACES_MOST: usize = 40;
/// Points said at once. Ours.
const POINTS_DRAWN_MOST: usize = 5_000;

/// Entries of one torch log.
const TORCH_MOST: usize = 20 * LIST_MOST;
/// Facts of one job. Ours: years of work stay well under it.
pub const FACTS_MOST: usize = 100_000;
/// Longest name of a part.
const COPIED_NAME_MOST: usize = 80;
/// Longest name of who said it, and of the browser it came from.
const NAME_MOST: usize = 80;
/// Times a fact may bear, UTC in ms since 1970: the years 2000 to 2200.
const TIMES_MS: (i64, i64) = (946_684_800_000, 7_258_118_400_000);

/// Whether a time may stand in a log.
///
/// # Errors
/// The problem, at `field`.
pub fn possible_time(field: &str, at_ms: i64) -> Result<(), FieldProblem> {
    if (TIMES_MS.0..TIMES_MS.1).contains(&at_ms) {
        return Ok(());
    }
    Err(FieldProblem::new(field, "no clock shows this time", "the years 2000 to 2200, in ms since 1970"))
}

/// Whether a name may stand beside a fact.
///
/// # Errors
/// The problem, at `field`.
pub fn possible_name(field: &str, name: &str) -> Result<(), FieldProblem> {
    if name.chars().count() <= NAME_MOST {
        return Ok(());
    }
    Err(FieldProblem::new(field, "that name is too long", format!("up to {NAME_MOST} letters")))
}

/// What the plan of a job says of what may be done to it: what a change is judged by, and no more.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Allowed {
    /// Why no method can be taken, and what would open the way; nothing while one can.
    pub no_method: Option<(String, String)>,
    /// Why it cannot be lit, each with what would open the way; empty where it can.
    pub not_lit: Vec<(String, String)>,
    /// What somebody has to answer for who lights it; empty where nobody has to.
    pub to_own: String,
    /// What is open before it is handed over and nobody answers for; empty where nothing is.
    pub open: Vec<String>,
}

/// Whether `change` may be added by `sender`. `base` is the revision of what the change replaces as the
/// client last saw it; `allowed` is what the plan says, as it stands.
///
/// # Errors
/// [`Refusal::Conflict`] when the fact has changed since `base`; [`Refusal::Problems`] for what
/// cannot be, at its field.
pub fn accept(
    job: &Job,
    allowed: &Allowed,
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
                && let Some((why, unlock)) = &allowed.no_method
            {
                return problem(key, why, unlock);
            }
            if key == field::hand_over::DONE.key() && value == Some(FieldValue::YesNo(true)) {
                handed_over(allowed)?;
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
        Change::Light { owned, .. } => {
            if round.lit.is_some() {
                return problem("light", "it is lit already", "");
            }
            let refused: Vec<FieldProblem> = allowed
                .not_lit
                .iter()
                .map(|(why, unlock)| FieldProblem::new("light", why.clone(), unlock.clone()))
                .collect();
            if !refused.is_empty() {
                return Err(Refusal::Problems(refused));
            }
            if !allowed.to_own.is_empty() && owned.trim().is_empty() {
                let right = "who lights it all the same, and why";
                return problem("owned", &allowed.to_own, right);
            }
            Ok(())
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
            let Some(heat) = job.heat() else {
                return problem("torch", "nothing is lit", "light up first");
            };
            if heat.log.len() >= TORCH_MOST {
                return problem("torch", "the torch log is full", "");
            }
            torch_entry(entry, &heat, round.lit.is_some())
        }
        Change::Unreadable { .. } => problem("change", "that cannot be said", ""),
        Change::NewRound { .. } => {
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
            Some(MarkKind::BoltHole | MarkKind::Bore) => "circle",
            Some(MarkKind::MachinedEdge | MarkKind::OldFiller) => "line",
            Some(MarkKind::MissingPiece) => "outline",
            Some(MarkKind::ReadingPlace) => "place",
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
fn torch_entry(entry: &TorchEntry, heat: &HeatRef<'_>, lit: bool) -> Result<(), Refusal> {
    let problem = |message: &str, right: &str| Err(Refusal::from(FieldProblem::new("torch", message, right)));
    match entry {
        TorchEntry::Reading { .. } | TorchEntry::Note { .. } => Ok(()),
        TorchEntry::Covered { .. } if heat.covered() => problem("it is covered already", ""),
        TorchEntry::Unwrapped if heat.unwrapped() => problem("it is unwrapped already", ""),
        TorchEntry::Covered { .. } | TorchEntry::Unwrapped => Ok(()),
        TorchEntry::Bead | TorchEntry::Peened | TorchEntry::Reheated if !lit => {
            problem("this round is not lit", "light up first")
        }
        TorchEntry::Bead | TorchEntry::Reheated if heat.covered() => {
            problem("it is covered and cooling", "cross out \"covered\" first")
        }
        TorchEntry::Bead | TorchEntry::Peened | TorchEntry::Reheated => Ok(()),
    }
}

/// Whether a change is one that anybody could have said, whatever job it is said of.
fn within_bounds(change: &Change) -> Result<(), FieldProblem> {
    match change {
        Change::Set { key, typed, .. } => {
            short_as("key", key, 120)?;
            short_as(key, typed, 2 * TEXT_MOST)
        }
        Change::Observe { test, outcome, spot, .. } => {
            short("test", test).and_then(|()| short("outcome", outcome)).and_then(|()| short("spot", spot))
        }
        Change::Measure { test, typed, spot, .. } => {
            short("test", test)?;
            short("spot", spot)?;
            if typed.len() > 12 {
                return Err(FieldProblem::new("typed", "no test asks for so much", "up to 12 values"));
            }
            typed.iter().try_for_each(|(field, text)| short("typed", field).and_then(|()| short(field, text)))
        }
        Change::AddHardSpot { spot, .. } => short("spot", spot),
        Change::Straighten { points_px, size_px, typed, shown_in, .. } => {
            for points in size_px {
                OutOfRange::check("a picture", "points", (2.0, 20_000.0), *points)
                    .map_err(|out| out.at("size_px"))?;
            }
            laid(points_px, typed, *shown_in)
        }
        Change::Draw { drawn } => {
            if drawn.is_empty() || drawn.len() > LIST_MOST {
                return Err(FieldProblem::new("drawn", "nothing, or too much, is drawn", "1 to 500 things"));
            }
            let points: usize = drawn.iter().filter_map(|it| Some(it.shape.as_ref()?.points().len())).sum();
            if points > POINTS_DRAWN_MOST {
                return Err(FieldProblem::new("drawn", "that is too much at once", "up to 5000 points"));
            }
            drawn.iter().enumerate().try_for_each(|(at, it)| {
                let Some(shape) = &it.shape else { return Ok(()) };
                shape.possible().map_err(|problem| {
                    let field = format!("drawn[{at}].{}", problem.field);
                    FieldProblem::new(field, problem.message, problem.would_be_right)
                })
            })
        }
        Change::SetPoint { typed, shown_in, .. } => {
            const NAMES: [&str; 5] = ["x", "y", "wall", "from_before", "across"];
            let known = typed.keys().all(|name| NAMES.contains(&name.as_str()));
            if typed.is_empty() || !known {
                return Err(FieldProblem::new("typed", "nothing of a point was typed", NAMES.join(", ")));
            }
            let read = lengths(typed, *shown_in)?;
            match read.get("wall").copied().flatten() {
                Some(wall) => WallMillimetres::new(wall).map(|_| ()).map_err(|out| out.at("wall")),
                None => Ok(()),
            }
        }
        Change::Strike { reason, .. } | Change::NewRound { reason } => short("reason", reason),
        Change::Light { speed, frozen, owned } => {
            short("owned", owned)?;
            crate::problem::OutOfRange::check("the job clock", "times", (1.0, 60.0), *speed)
                .map_err(|out| out.at("speed"))?;
            frozen.as_ref().map_or(Ok(()), |frozen| frozen.possible())
        }
        Change::Torch { entry } => match entry {
            TorchEntry::Reading { typed, shown_in, .. } => {
                let right = NotUnderstood::would_be_right(Kind::Temperature);
                let read = parse(typed, Kind::Temperature, *shown_in)
                    .map_err(|error| FieldProblem::new("typed", error.to_string(), right))?;
                crate::quantity::Celsius::new(read.value).map(|_| ()).map_err(|out| {
                    let bounds = within(Kind::Temperature, (out.low, out.high), "°C", *shown_in);
                    FieldProblem::new("typed", format!("{} cannot be read off a part", typed.trim()), bounds)
                })
            }
            TorchEntry::Note { text } => short("text", text),
            TorchEntry::Covered { why } => short("why", why),
            TorchEntry::Bead | TorchEntry::Peened | TorchEntry::Reheated | TorchEntry::Unwrapped => Ok(()),
        },
        Change::Unreadable { text } => short_as("text", text, 4 * TEXT_MOST),
        Change::AddCrack
        | Change::AddFace
        | Change::AddMark { .. }
        | Change::AddNeighbour
        | Change::AddPicture
        | Change::Undo { .. }
        | Change::Redo { .. }
        | Change::CancelLight
        | Change::PutAway
        | Change::BringBack => Ok(()),
    }
}

/// Whether a picture can be laid on a face so.
fn laid(points_px: &[[f64; 2]], typed: &TypedValues, shown_in: UnitSystem) -> Result<(), FieldProblem> {
    let read = lengths(typed, shown_in)?;
    let needed = |name: &str, message: &str| {
        let right = if shown_in == UnitSystem::Imperial { "8 in" } else { "200 mm" };
        read.get(name).copied().flatten().ok_or_else(|| FieldProblem::new(name, message, right))
    };
    let laid = match *points_px {
        [a, b] => Straightened::by_distance(a, b, needed("across", "say how far apart they are")?),
        [a, b, c, d] => Straightened::by_corners(
            [a, b, c, d],
            needed("across", "say how wide it is")?,
            needed("down", "say how high it is")?,
        ),
        _ => {
            let right = "two points on a known distance, or four corners";
            return Err(FieldProblem::new("points_px", "that many points give no scale", right));
        }
    };
    laid.map(|_| ()).map_err(|problem| {
        let field = match problem.field.as_str() {
            "corners_px" => "points_px",
            "width_mm" => "across",
            _ => "down",
        };
        FieldProblem::new(field, problem.message, problem.would_be_right)
    })
}

fn short(field: &str, text: &str) -> Result<(), FieldProblem> {
    short_as(field, text, TEXT_MOST)
}

fn short_as(field: &str, text: &str, most: usize) -> Result<(), FieldProblem> {
    if text.chars().count() <= most {
        return Ok(());
    }
    Err(FieldProblem::new(field, "that is too long", format!("up to {most} letters")))
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
        if undone.contains(&fact.id) || fact.change.taking() != Taking::Open {
            continue;
        }
        let id = new_id();
        renamed.push((fact.id.to_string(), id.to_string()));
        let mut change = fact.change.clone();
        match &mut change {
            Change::Set { key, typed, .. } => {
                if job_field(key).is_some_and(|spec| spec.lasts != Lasts::Copies) {
                    continue;
                }
                if key == field::part::NAME.key() {
                    *typed = another(typed);
                }
                for (was, now) in &renamed {
                    *key = key.replace(was, now);
                    // Which face it is the back of, and from where holes are measured.
                    if key.starts_with("face.") {
                        *typed = typed.replace(was, now);
                    }
                }
            }
            Change::Draw { drawn } => {
                for it in drawn {
                    (it.mark, it.face) = (renewed(&renamed, it.mark), renewed(&renamed, it.face));
                }
            }
            Change::SetPoint { mark, face, .. } => {
                (*mark, *face) = (renewed(&renamed, *mark), renewed(&renamed, *face));
            }
            Change::Straighten { .. } => continue,
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
            sender: fact.sender.clone(),
            understood: understood(fact, &change),
            change,
        });
    }
    copied
}

/// The id that a thing has in the copy.
fn renewed(renamed: &[(String, String)], id: Uuid) -> Uuid {
    let now = renamed.iter().find(|(was, _)| *was == id.to_string());
    now.and_then(|(_, now)| now.parse().ok()).unwrap_or(id)
}

/// A copy's name is its own: what was understood of it is too.
fn understood(fact: &Fact, change: &Change) -> Option<Understood> {
    if fact.change == *change {
        fact.understood.clone()
    } else {
        Understood::of(change, None).or(fact.understood.clone())
    }
}

/// The name of another one: "Lever" leads to "Lever (2)", that to "Lever (3)".
fn another(name: &str) -> String {
    let name = name.trim();
    if name.is_empty() {
        return String::new();
    }
    let numbered = name.strip_suffix(')').and_then(|rest| rest.rsplit_once(" ("));
    let numbered = numbered.and_then(|(first, number)| Some((first, number.parse::<u32>().ok()?)));
    let (first, number) = numbered.map_or((name, 2), |(first, number)| (first, number.saturating_add(1)));
    let end = format!(" ({number})");
    let most = COPIED_NAME_MOST - end.chars().count();
    first.chars().take(most).chain(end.chars()).collect()
}

/// What a log from elsewhere holds so far: a file keeps the limits of the door.
#[derive(Debug, Default)]
pub struct Importing {
    cracks: usize,
    hard_spots: usize,
    neighbours: usize,
    pictures: usize,
    faces: usize,
    marks: usize,
    evidence: usize,
    torch: usize,
    rounds: usize,
}

impl Importing {
    /// Whether a fact could ever have been said, after those before it.
    ///
    /// # Errors
    /// The problem, at its field.
    pub fn fact(&mut self, fact: &Fact) -> Result<(), FieldProblem> {
        possible_time("at_client_ms", fact.at_client_ms)?;
        possible_time("at_server_ms", fact.at_server_ms)?;
        possible_name("who", &fact.who)?;
        possible_name("sender", &fact.sender)?;
        importable(&fact.change)?;
        let (counted, most, what) = match &fact.change {
            Change::AddCrack => (&mut self.cracks, LIST_MOST, "cracks"),
            Change::AddHardSpot { .. } => (&mut self.hard_spots, LIST_MOST, "hard spots"),
            Change::AddNeighbour => (&mut self.neighbours, LIST_MOST, "things that must stay cool"),
            Change::AddFace => (&mut self.faces, FACES_MOST, "faces"),
            Change::AddMark { .. } => (&mut self.marks, LIST_MOST, "marks"),
            Change::AddPicture => (&mut self.pictures, PICTURES_MOST, "pictures"),
            Change::Observe { .. } | Change::Measure { .. } => {
                (&mut self.evidence, LIST_MOST, "observations")
            }
            Change::Torch { .. } => (&mut self.torch, TORCH_MOST, "entries at the torch"),
            Change::NewRound { .. } => (&mut self.rounds, LIST_MOST, "rounds"),
            _ => return Ok(()),
        };
        *counted += 1;
        if *counted <= most {
            return Ok(());
        }
        Err(FieldProblem::new("change", format!("there are too many {what}"), format!("up to {most}")))
    }
}

/// Whether a change could ever have been said: what a file from elsewhere is checked by. What was kept as
/// unreadable is taken along as it is.
fn importable(change: &Change) -> Result<(), FieldProblem> {
    within_bounds(change)?;
    match change {
        Change::Set { key, typed, shown_in } => {
            let spec = job_field(key).ok_or_else(|| FieldProblem::new(key, "there is no such field", ""))?;
            // Any day will do: what was understood on its own day stands beside it.
            let saying = Saying { shown_in: *shown_in, today: Day::new(2000, 1, 1) };
            parse_value(key, spec, typed, saying).map(|_| ())
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
        Change::Light { .. }
        | Change::Torch { .. }
        | Change::AddCrack
        | Change::AddFace
        | Change::AddMark { .. }
        | Change::Straighten { .. }
        | Change::Draw { .. }
        | Change::SetPoint { .. }
        | Change::AddHardSpot { .. }
        | Change::AddNeighbour
        | Change::AddPicture
        | Change::Unreadable { .. }
        | Change::Strike { .. }
        | Change::Undo { .. }
        | Change::Redo { .. }
        | Change::CancelLight
        | Change::NewRound { .. }
        | Change::PutAway
        | Change::BringBack => Ok(()),
    }
}

/// Whether a change may be taken in on its own: a picture that says what it shows.
///
/// # Errors
/// The problem, at its field.
pub fn could_be_said(change: &Change) -> Result<(), FieldProblem> {
    importable(change)
}
