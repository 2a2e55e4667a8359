//! What can be said at all, whatever job it is said of.

use super::understood::lengths;
use super::{BeadAt, Change, SeamReadingKind, TorchEntry};
use crate::base::problem::{FieldProblem, OutOfRange};
use crate::faults::acceptance::Found;
use crate::field::{is_no_letter, within};
use crate::iron::TypedValues;
use crate::map::{Drawn, FACE_MOST_MM, FlamePlace, Straightened};
use crate::quantity::{Celsius, Kind, NotUnderstood, UnitSystem, WallMillimetres, parse};
use crate::secret::{Practised, open};
use crate::stores::used_amount;

/// Longest name of a step that is timed. **House**.
const STEP_MOST: usize = 40;
/// Longest text a reason, a spot or a note may have. **House**.
const TEXT_MOST: usize = 600;
/// Lists hold at most this many entries.
pub(super) const LIST_MOST: usize = 500;
/// Pictures of one job. Ours: they travel in the job's file.
pub(super) const PICTURES_MOST: usize = 60;

/// Faces of one part. Ours.
pub(super) const FACES_MOST: usize = 40;
/// Answers to follow-ups of one round. **House**: more often nobody asks.
pub(super) const FOLLOWED_MOST: usize = 100;
/// Readings along the seams of one job. **House**.
pub(super) const SEAM_READINGS_MOST: usize = 4 * LIST_MOST;
/// Points said at once. Ours.
pub(super) const POINTS_DRAWN_MOST: usize = 5_000;

/// What beads that are said at once took together, in min: a day. **House**.
const BEADS_MOST_MIN: f64 = 24.0 * 60.0;

/// House: entries of one torch log.
pub(super) const TORCH_MOST: usize = 20 * LIST_MOST;
/// Facts of one job. Ours: years of work stay well under it.
pub const FACTS_MOST: usize = 100_000;
/// Lines that lie ready before a lighting. Ours.
const LINES_MOST: usize = 100;
/// Longest name of a part.
pub(super) const COPIED_NAME_MOST: usize = 80;
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
    if name.chars().any(is_no_letter) {
        return Err(FieldProblem::new(field, "that name has signs that nobody sees", "letters and figures"));
    }
    if name.chars().count() <= NAME_MOST {
        return Ok(());
    }
    Err(FieldProblem::new(field, "that name is too long", format!("up to {NAME_MOST} letters")))
}

/// Whether a change is one that anybody could have said, whatever job it is said of.
pub(super) fn within_bounds(change: &Change) -> Result<(), FieldProblem> {
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
        Change::Draw { drawn } => drawn_within(drawn),
        Change::PutFlame { flame } => flame.iter().try_for_each(flame_within),
        Change::SetPoint { typed, shown_in, .. } => point_within(typed, *shown_in),
        Change::MeasureSeam { what, number, typed, shown_in, .. } => {
            measured_at_seam(*what, *number, typed, *shown_in)
        }
        Change::Look { found, typed, shown_in, count, note, .. } => {
            short_as("note", note, TEXT_MOST)?;
            looked_within(*found, typed, *shown_in, *count)
        }
        Change::Use { what, size_mm, typed, holds_m3 } => {
            short_as("typed", typed, TEXT_MOST)?;
            used_amount((what, *size_mm), *holds_m3, typed).map(drop)
        }
        Change::FollowUp { became, went, after, did, note, odds } => {
            let nowhere = went.is_some() && !became.went();
            followed_within(nowhere, [("after", after), ("did", did), ("note", note)], *odds)
        }
        Change::Strike { reason, .. } | Change::NewRound { reason } => short("reason", reason),
        Change::Light { speed, frozen, owned, without, .. } => {
            short("owned", owned)?;
            if without.len() > LINES_MOST {
                return Err(FieldProblem::new("without", "more lines than are laid out", "100 at most"));
            }
            without.iter().try_for_each(|words| short_as("without", words, TEXT_MOST))?;
            OutOfRange::check("the job clock", "times", (1.0, 60.0), *speed)
                .map_err(|out| out.at("speed"))?;
            frozen.as_ref().map_or(Ok(()), |frozen| frozen.possible())
        }
        Change::Torch { entry } => entry_within(entry),
        Change::Unreadable { text } => short_as("text", text, 4 * TEXT_MOST),
        Change::Time { step, .. } => short_as("step", step, STEP_MOST),
        Change::Estimate { until, frozen } => {
            short_as("until", until, TEXT_MOST)?;
            frozen.as_ref().map_or(Ok(()), |estimate| estimate.possible())
        }
        Change::AddCrack
        | Change::AddFace
        | Change::AddMark { .. }
        | Change::Tick { .. }
        | Change::FinishStep { .. }
        | Change::AddNeighbour
        | Change::AddPicture { .. }
        | Change::Undo { .. }
        | Change::Redo { .. }
        | Change::CancelLight
        | Change::PutOut
        | Change::PutAway
        | Change::BringBack
        | Change::EndPractice => Ok(()),
        Change::Pass { minutes } if minutes.is_finite() => Ok(()),
        Change::Pass { .. } => Err(FieldProblem::new("minutes", "that is no number of minutes", "10")),
        Change::Practise { of } => practised(of),
    }
}

/// Whether an answer is one that anybody could have given; `nowhere` where it says where a part went that holds.
fn followed_within(nowhere: bool, all: [(&str, &String); 3], odds: Option<f64>) -> Result<(), FieldProblem> {
    OutOfRange::check("odds", "", (0.0, 1.0), odds.unwrap_or(0.0)).map_err(|out| out.at("odds"))?;
    for (at, words) in all {
        short_as(at, words, TEXT_MOST)?;
    }
    if nowhere {
        return Err(FieldProblem::new("went", "it went nowhere while it holds", "leave it out"));
    }
    Ok(())
}

/// Whether a flame may be put there.
fn flame_within(flame: &FlamePlace) -> Result<(), FieldProblem> {
    for mm in [flame.at.x_mm, flame.at.y_mm] {
        OutOfRange::check("a place", "mm", (-FACE_MOST_MM, FACE_MOST_MM), mm)
            .map_err(|out| out.at("flame.at"))?;
    }
    Ok(())
}

/// Whether this much can be drawn at once, each thing as it can lie.
fn drawn_within(drawn: &[Drawn]) -> Result<(), FieldProblem> {
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

/// Whether a point can be typed so.
fn point_within(typed: &TypedValues, shown_in: UnitSystem) -> Result<(), FieldProblem> {
    const NAMES: [&str; 5] = ["x", "y", "wall", "from_before", "across"];
    let known = typed.keys().all(|name| NAMES.contains(&name.as_str()));
    if typed.is_empty() || !known {
        return Err(FieldProblem::new("typed", "nothing of a point was typed", NAMES.join(", ")));
    }
    let read = lengths(typed, shown_in)?;
    match read.get("wall").copied().flatten() {
        Some(wall) => WallMillimetres::new(wall).map(|_| ()).map_err(|out| out.at("wall")),
        None => Ok(()),
    }
}

/// Whether that can be found where it was looked.
fn looked_within(
    found: Found,
    typed: &TypedValues,
    shown_in: UnitSystem,
    count: Option<u32>,
) -> Result<(), FieldProblem> {
    if let Some(name) = typed.keys().find(|name| !["size", "count"].contains(&name.as_str())) {
        return Err(FieldProblem::new(name, "that is not measured here", "size"));
    }
    if let Some(count) = count {
        OutOfRange::check("how many", "", (1.0, 99.0), f64::from(count)).map_err(|out| out.at("count"))?;
    }
    let read = lengths(typed, shown_in)?;
    if read.get("size").copied().flatten().is_some() && found.measured().is_none() {
        return Err(FieldProblem::new("size", "nothing of that is measured", "leave it empty"));
    }
    if read.get("count").copied().flatten().is_some() && found != Found::Pore {
        return Err(FieldProblem::new("count", "nothing of that is counted", "leave it empty"));
    }
    Ok(())
}

/// Whether that can be said at the torch.
fn entry_within(entry: &TorchEntry) -> Result<(), FieldProblem> {
    match entry {
        TorchEntry::Reading { typed, shown_in, gun, .. } => {
            let right = NotUnderstood::would_be_right(Kind::Temperature);
            let read = parse(typed, Kind::Temperature, *shown_in)
                .map_err(|error| FieldProblem::new("typed", error.to_string(), right))?;
            let iron_c = match gun {
                None => read.value,
                Some(gun) => gun.true_c(read.value).ok_or_else(|| {
                    FieldProblem::new(
                        "typed",
                        "no iron would show that on this surface",
                        "what the gun shows",
                    )
                })?,
            };
            of_a_part(iron_c, typed, *shown_in)
        }
        TorchEntry::Stick { typed, shown_in, .. } => {
            let right = NotUnderstood::would_be_right(Kind::Temperature);
            let read = parse(typed, Kind::Temperature, *shown_in)
                .map_err(|error| FieldProblem::new("typed", error.to_string(), right))?;
            of_a_part(read.value, typed, *shown_in)
        }
        TorchEntry::Aligned { typed, shown_in } => {
            if typed.trim().is_empty() {
                return Err(FieldProblem::new("typed", "nothing was read", "0.4 mm, or 0"));
            }
            let off = std::collections::BTreeMap::from([("off".to_owned(), typed.clone())]);
            lengths(&off, *shown_in).map(|_| ()).map_err(|mut problem| {
                problem.field = "typed".to_owned();
                problem
            })
        }
        TorchEntry::Note { text } => short("text", text),
        TorchEntry::Covered { why } => short("why", why),
        TorchEntry::Beads { at, over_min, .. } => beads_within(at, *over_min),
        TorchEntry::Bead { .. }
        | TorchEntry::Pin { .. }
        | TorchEntry::Peened
        | TorchEntry::Reheated
        | TorchEntry::Did { .. }
        | TorchEntry::Oven { .. }
        | TorchEntry::Unwrapped => Ok(()),
        TorchEntry::Trouble { cause, .. } => short("cause", cause),
    }
}

fn beads_within(at: &[BeadAt], over_min: Option<f64>) -> Result<(), FieldProblem> {
    let right = format!("1 to {LIST_MOST} beads");
    if at.is_empty() || at.len() > LIST_MOST {
        return Err(FieldProblem::new("at", "which beads were laid is not said", right));
    }
    if over_min.is_some_and(|minutes| !(0.0..=BEADS_MOST_MIN).contains(&minutes)) {
        return Err(FieldProblem::new("over_min", "no seam takes that long", "minutes of one heat"));
    }
    Ok(())
}

/// Whether a practice may be told so.
fn practised(of: &Practised) -> Result<(), FieldProblem> {
    /// Ours: no case needs a longer story, or more kinds of gear.
    const GEAR_MOST: usize = 60;
    short_as("title", &of.title, TEXT_MOST)?;
    short_as("words", &of.words, TEXT_MOST)?;
    short_as("lesson", &of.lesson, TEXT_MOST)?;
    short_as("made_by", &of.made_by, TEXT_MOST)?;
    let lists = [&of.gear.sources, &of.gear.packings, &of.gear.rods, &of.gear.sets];
    if lists.iter().any(|list| list.len() > GEAR_MOST || list.iter().any(|id| id.len() > TEXT_MOST)) {
        return Err(FieldProblem::new("gear", "that is more gear than a shop has", "fewer of it"));
    }
    open(&of.sealed)
        .map(drop)
        .map_err(|broken| FieldProblem::new("sealed", broken.words(), "the seal as it was handed out"))
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

/// What no part was ever at is not taken.
fn of_a_part(celsius: f64, typed: &str, shown_in: UnitSystem) -> Result<(), FieldProblem> {
    Celsius::new(celsius).map(|_| ()).map_err(|out| {
        let bounds = within(Kind::Temperature, (out.low, out.high), "°C", shown_in);
        FieldProblem::new("typed", format!("{} cannot be read off a part", typed.trim()), bounds)
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

/// Whether that can be read along a seam so.
fn measured_at_seam(
    what: SeamReadingKind,
    number: Option<u32>,
    typed: &TypedValues,
    shown_in: UnitSystem,
) -> Result<(), FieldProblem> {
    /// Tacks of one break. Ours.
    const TACKS_MOST: u32 = 500;
    let names = what.names();
    if let Some(odd) = typed.keys().find(|name| !names.contains(&name.as_str())) {
        return Err(FieldProblem::new(odd, "that is not read there", names.join(", ")));
    }
    let read = lengths(typed, shown_in)?;
    for name in what.needed() {
        if read.get(*name).copied().flatten().is_none() {
            let right = NotUnderstood::would_be_right(Kind::Length);
            return Err(FieldProblem::new(*name, "say what was measured", right));
        }
    }
    match (what, number) {
        (SeamReadingKind::Tack, Some(number)) if (1..=TACKS_MOST).contains(&number) => Ok(()),
        (SeamReadingKind::Tack, _) => {
            Err(FieldProblem::new("number", "say which tack it is", format!("1 to {TACKS_MOST}")))
        }
        (SeamReadingKind::FitUp, _) if read.len() < 2 => {
            Err(FieldProblem::new("gap", "say the gap, the step or both", "0.5 mm"))
        }
        _ => Ok(()),
    }
}
