//! Whether a word may be said of the shop.

use uuid::Uuid;

use super::word::{coupons, is_a_case, left_out, settings};
use super::{ShopFact, ShopWord};
use crate::base::log::{own_words, undone};
use crate::base::problem::{FieldProblem, OutOfRange};
use crate::crack::tip_offset::{APART_MOST_MM, OwnTip};
use crate::effort::durations::TimedStep;
use crate::faults::own::OwnFault;
use crate::field::{FieldValue, parse_value, shop_field};
use crate::heat::OwnFactor;
use crate::method::{Coupon, MOVED_MOST_MM, OwnMove, OwnRepair};
use crate::quantity::UnitSystem;
use crate::stores::{OwnUse, fits};

/// House: letters of a job's name as it is kept beside what it took.
const NAME_MOST: usize = 80;
/// Ours: more coupons are no bench but a laboratory.
const COUPONS_MOST: usize = 2_000;
/// Letters of why a case does not count.
const REASON_MOST: usize = 200;

/// Whether a word may be said of the shop: gives what is understood of it.
///
/// # Errors
/// The problem, at its field: not understood, no such setting, or not the sender's own last word.
pub fn may_be_said(
    facts: &[ShopFact],
    word: &ShopWord,
    sender: &str,
) -> Result<Option<Option<FieldValue>>, FieldProblem> {
    let own = || own_words(facts).into_iter().find(|own| own.sender == sender);
    let not_own = |what: &str| FieldProblem::new("shop", format!("that is not your last word {what}"), "");
    match word {
        ShopWord::Set { key, typed, shown_in } => return set(facts, key, typed, *shown_in).map(Some),
        ShopWord::Timed(own) => timed(own),
        ShopWord::Learned(own) => learned(own),
        ShopWord::FoundAgain(own) => found_again(own),
        ShopWord::Moved(own) => moved(own),
        ShopWord::WentWrong(own) => went_wrong(own),
        ShopWord::ScrapDone(own) => short("name", &own.name),
        ShopWord::ReallyUsed(own) => really_used(own),
        ShopWord::Became(repair) => became(repair),
        ShopWord::Used { amount, name, .. } => {
            // Of the program itself; the figure is checked like any other.
            OutOfRange::check("an amount", "", (0.0, 1e6), *amount)
                .map_err(|out| FieldProblem::new("amount", out.to_string(), "0 to 1000000"))?;
            short("name", name)
        }
        ShopWord::Coupon(own) => coupon(facts, own),
        ShopWord::LeaveOut { case, reason } => left_out_for(facts, *case, reason),
        ShopWord::LetIn { case } if left_out(facts).contains_key(case) => Ok(()),
        ShopWord::LetIn { .. } => Err(FieldProblem::new("case", "it counts already", "")),
        ShopWord::PutBack { target } => {
            let taken = |fact: &ShopFact| fact.id == *target && matches!(fact.change, ShopWord::Used { .. });
            if facts.iter().any(taken) && !undone(facts).contains(target) {
                Ok(())
            } else {
                Err(FieldProblem::new("shop", "that was not taken, or is back already", ""))
            }
        }
        ShopWord::Undo { target } if own().is_some_and(|own| own.undo == Some(*target)) => Ok(()),
        ShopWord::Undo { .. } => Err(not_own("to be taken back")),
        ShopWord::Redo { target } if own().is_some_and(|own| own.redo == Some(*target)) => Ok(()),
        ShopWord::Redo { .. } => Err(not_own("to be put back")),
        ShopWord::Unreadable { .. } => Err(FieldProblem::new("shop", "that cannot be said", "")),
    }
    .map(|()| None)
}

fn set(
    facts: &[ShopFact],
    key: &str,
    typed: &str,
    shown_in: UnitSystem,
) -> Result<Option<FieldValue>, FieldProblem> {
    let spec = shop_field(key).ok_or_else(|| FieldProblem::new(key, "there is no such setting", ""))?;
    let value = parse_value(key, spec, typed, shown_in)?;
    if let Some((item, field)) = thing_of(key)
        && let Err(why) = fits(&settings(facts), item, field, typed)
    {
        return Err(FieldProblem::new(key, format!("\"{typed}\" cannot be: {why}"), ""));
    }
    Ok(value)
}

/// The thing in the stores, and the field of it, that a key is of.
fn thing_of(key: &str) -> Option<(Uuid, &str)> {
    let (id, field) = key.strip_prefix("store.")?.split_once('.')?;
    Some((id.parse().ok()?, field))
}

fn short(field: &str, name: &str) -> Result<(), FieldProblem> {
    let fits = name.chars().count() <= NAME_MOST;
    fits.then_some(()).ok_or_else(|| FieldProblem::new(field, "the name is too long", "80 letters at most"))
}

fn timed(timed: &TimedStep) -> Result<(), FieldProblem> {
    OutOfRange::check("a pace", "times", (0.01, 100.0), timed.ratio)
        .map_err(|out| FieldProblem::new("ratio", out.to_string(), "0.2 to 5"))?;
    short("step", &timed.step)
}

fn learned(own: &OwnFactor) -> Result<(), FieldProblem> {
    OutOfRange::check("a factor", "times", (0.3, 2.5), own.factor)
        .map_err(|out| FieldProblem::new("factor", out.to_string(), "0.3 to 2.5"))?;
    (own.name.chars().count() <= NAME_MOST && own.what.is_known())
        .then_some(())
        .ok_or_else(|| FieldProblem::new("of", "that is no source and no packing", ""))
}

fn found_again(own: &OwnTip) -> Result<(), FieldProblem> {
    OutOfRange::check("how far beyond", "mm", (-APART_MOST_MM, APART_MOST_MM + 1.0), own.beyond_mm)
        .map_err(|out| FieldProblem::new("beyond_mm", out.to_string(), "a few mm"))?;
    short("name", &own.name)
}

fn went_wrong(own: &OwnFault) -> Result<(), FieldProblem> {
    short("name", &own.name)?;
    let known = own.cause.is_empty() || own.seen.cause(&own.cause).is_some();
    let not_of_it = || FieldProblem::new("cause", "that is not a cause of what is seen", "");
    known.then_some(()).ok_or_else(not_of_it)
}

fn moved(own: &OwnMove) -> Result<(), FieldProblem> {
    for (field, mm) in [("moved_mm", own.moved_mm), ("foreseen_mm", own.foreseen_mm)] {
        OutOfRange::check("a move", "mm", (-MOVED_MOST_MM, MOVED_MOST_MM), mm.unwrap_or(0.0))
            .map_err(|out| FieldProblem::new(field, out.to_string(), "a few mm at most"))?;
    }
    short("name", &own.name)?;
    short("what", &own.what)
}

fn really_used(own: &OwnUse) -> Result<(), FieldProblem> {
    for (field, amount) in [("planned", Some(own.planned)), ("used", own.used)] {
        OutOfRange::check("an amount", "", (0.0, 1e6), amount.unwrap_or(0.0))
            .map_err(|out| FieldProblem::new(field, out.to_string(), "0 to 1000000"))?;
    }
    short("what", &own.what)?;
    short("name", &own.name)
}

fn became(repair: &OwnRepair) -> Result<(), FieldProblem> {
    OutOfRange::check("a time in days", "days", (0.0, 1e5), repair.days)
        .map_err(|out| FieldProblem::new("days", out.to_string(), "0 to 100000"))?;
    OutOfRange::check("odds", "", (0.0, 1.0), repair.given.unwrap_or(0.0))
        .map_err(|out| FieldProblem::new("given", out.to_string(), "0 to 1"))?;
    let known = ["holds", "fault", "failed", "unknown"];
    (known.contains(&repair.became.as_str()) && repair.name.chars().count() <= NAME_MOST)
        .then_some(())
        .ok_or_else(|| FieldProblem::new("became", "that is no outcome", known.join(", ")))
}

fn coupon(facts: &[ShopFact], coupon: &Coupon) -> Result<(), FieldProblem> {
    if coupons(facts).len() >= COUPONS_MOST {
        return Err(FieldProblem::new("coupon", "that is more than a bench breaks", "leave some out"));
    }
    let read = |read| coupon.clone().understood().map(|it| it.read) == Ok(Some(read));
    coupon
        .read
        .is_some_and(read)
        .then_some(())
        .ok_or_else(|| FieldProblem::new("coupon", "it was not understood", ""))
}

fn left_out_for(facts: &[ShopFact], case: Uuid, reason: &str) -> Result<(), FieldProblem> {
    let problem = |field: &str, message: &str, right: &str| Err(FieldProblem::new(field, message, right));
    match reason.trim().chars().count() {
        _ if !is_a_case(facts, case) => problem("case", "there is no such case here", ""),
        0 => problem("reason", "say why it does not count", "the thermocouple had come off"),
        letters if letters > REASON_MOST => {
            problem("reason", "that is too long", &format!("{REASON_MOST} letters at most"))
        }
        _ => Ok(()),
    }
}
