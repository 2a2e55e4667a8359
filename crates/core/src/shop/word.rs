//! What is said of the shop, and what its log says.

use std::collections::{BTreeMap, HashMap};

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use crate::base::log::{Fact, Taking, Word, undone};
use crate::crack::tip_offset::OwnTip;
use crate::effort::durations::TimedStep;
use crate::faults::own::OwnFault;
use crate::field::{FieldState, FieldValue, parse_value, shop_field};
use crate::heat::OwnFactor;
use crate::method::{Coupon, OwnMove, OwnRepair, OwnScrap};
use crate::quantity::UnitSystem;
use crate::stores::OwnUse;

/// Something said of the shop.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum ShopWord {
    /// A setting as typed.
    Set {
        key: String,
        typed: String,
        shown_in: UnitSystem,
    },
    /// A job took so much of a thing in the stores: said by the program when it is lit, or done; `instead` names the word
    /// of the job that said what was really used, or the lighting whose plan stands again once that was taken back.
    Used {
        item: Uuid,
        amount: f64,
        job: Uuid,
        name: String,
        #[serde(default, skip_serializing_if = "Option::is_none")]
        instead: Option<Uuid>,
    },
    /// What a job really used of a thing, against its plan: said by the program.
    ReallyUsed(OwnUse),
    /// What became of a repair, as its job has it: said by the program, and again when that was corrected.
    Became(OwnRepair),
    /// How long a step took here, against what was reckoned: said by the program once it was timed.
    Timed(TimedStep),
    /// How a heating or a cooling here went against the book: said by the program once it was read to its end.
    Learned(OwnFactor),
    /// An end of a crack was found again, better: said by the program.
    FoundAgain(OwnTip),
    /// What the torch moved at a size of a part: said by the program.
    Moved(OwnMove),
    /// Something went wrong at a torch, and what was found to be its cause: said by the program, and again when that
    /// was corrected.
    WentWrong(OwnFault),
    /// A piece of scrap was done first by a method, or that was taken back: said by the program.
    ScrapDone(OwnScrap),
    /// A coupon was broken on the bench; said again under its id it takes that one's place.
    Coupon(Box<Coupon>),
    /// One of the shop's own cases counts no more, and why: a repair, a heating or cooling, a timing, an end.
    LeaveOut {
        case: Uuid,
        reason: String,
    },
    /// It counts again.
    LetIn {
        case: Uuid,
    },
    /// It was not taken: puts back what a job took.
    PutBack {
        target: Uuid,
    },
    /// Takes an earlier word back, or puts it back.
    Undo {
        target: Uuid,
    },
    Redo {
        target: Uuid,
    },
    /// Something that this version cannot read, as it is stored. It is kept and shown, and cannot be said.
    Unreadable {
        text: String,
    },
}

impl Word for ShopWord {
    fn taking(&self) -> Taking {
        match self {
            Self::Set { .. } | Self::Coupon(_) | Self::LeaveOut { .. } | Self::LetIn { .. } => Taking::Open,
            // Nobody said it: it is put back, not taken back.
            Self::Used { .. }
            | Self::Became(_)
            | Self::Timed(_)
            | Self::Learned(_)
            | Self::FoundAgain(_)
            | Self::Moved(_)
            | Self::WentWrong(_)
            | Self::ScrapDone(_)
            | Self::ReallyUsed(_)
            | Self::Unreadable { .. } => Taking::Aside,
            Self::PutBack { target } => Taking::Back(*target),
            Self::Undo { target } => Taking::Back(*target),
            Self::Redo { target } => Taking::Again(*target),
        }
    }
}

/// A word as it was stored: with the value that was understood, nothing for an emptied setting.
pub type ShopFact = Fact<ShopWord, Option<FieldValue>>;

/// The settings that the log makes, by key. A setting that this version does not know changes nothing.
#[must_use]
pub fn settings(facts: &[ShopFact]) -> BTreeMap<String, FieldState> {
    let undone = undone(facts);
    let mut values = BTreeMap::new();
    for fact in facts.iter().filter(|fact| !undone.contains(&fact.id)) {
        let ShopWord::Set { key, typed, shown_in } = &fact.change else { continue };
        let Some(spec) = shop_field(key) else { continue };
        let (value, not_understood) = match &fact.understood {
            Some(value) => (value.clone(), String::new()),
            None => match parse_value(key, spec, typed, *shown_in) {
                Ok(value) => (value, String::new()),
                Err(problem) => (None, problem.message),
            },
        };
        let typed = typed.trim().to_owned();
        values.insert(key.clone(), FieldState { typed, value, revision: fact.revision, not_understood });
    }
    values
}

/// What jobs took and what has not been put back, the first first.
pub fn taken(facts: &[ShopFact]) -> impl Iterator<Item = &ShopFact> {
    let undone = undone(facts);
    facts
        .iter()
        .filter(move |fact| matches!(fact.change, ShopWord::Used { .. }) && !undone.contains(&fact.id))
}

/// What the program said of this shop, each as it was last said, the first first. `of` finds those among which the
/// same one is looked for: a shop has thousands of repairs, and few things are said of one.
fn last_said<T: Clone>(
    facts: &[ShopFact],
    said: fn(&ShopWord) -> Option<&T>,
    of: fn(&T) -> Uuid,
    same: fn(&T, &T) -> bool,
) -> Vec<T> {
    let mut last: Vec<&T> = Vec::new();
    let mut places: HashMap<Uuid, Vec<usize>> = HashMap::new();
    for own in facts.iter().filter_map(|fact| said(&fact.change)) {
        let among = places.entry(of(own)).or_default();
        match among.iter().find(|at| same(last[**at], own)) {
            Some(at) => last[*at] = own,
            None => {
                among.push(last.len());
                last.push(own);
            }
        }
    }
    last.into_iter().cloned().collect()
}

fn any<T>(_: &T, _: &T) -> bool {
    true
}

/// What became of each repair, as it was last said.
#[must_use]
pub fn repairs(facts: &[ShopFact]) -> Vec<OwnRepair> {
    fn said(word: &ShopWord) -> Option<&OwnRepair> {
        if let ShopWord::Became(repair) = word { Some(repair) } else { None }
    }
    last_said(facts, said, |own| own.lit, any)
}

/// What was timed here, each timing as it was last said.
#[must_use]
pub fn timed(facts: &[ShopFact]) -> Vec<TimedStep> {
    fn said(word: &ShopWord) -> Option<&TimedStep> {
        if let ShopWord::Timed(timed) = word { Some(timed) } else { None }
    }
    last_said(facts, said, |own| own.fact, any)
}

/// How each heating and cooling went here, as it was last said.
#[must_use]
pub fn learned(facts: &[ShopFact]) -> Vec<OwnFactor> {
    fn said(word: &ShopWord) -> Option<&OwnFactor> {
        if let ShopWord::Learned(own) = word { Some(own) } else { None }
    }
    last_said(facts, said, |own| own.lit, OwnFactor::is_of)
}

/// Ends that were found again here, each as it was last said.
#[must_use]
pub fn tips(facts: &[ShopFact]) -> Vec<OwnTip> {
    fn said(word: &ShopWord) -> Option<&OwnTip> {
        if let ShopWord::FoundAgain(own) = word { Some(own) } else { None }
    }
    last_said(facts, said, |own| own.crack, OwnTip::is_of)
}

/// What the torch moved here, each size as it was last said.
#[must_use]
pub fn moves(facts: &[ShopFact]) -> Vec<OwnMove> {
    fn said(word: &ShopWord) -> Option<&OwnMove> {
        if let ShopWord::Moved(own) = word { Some(own) } else { None }
    }
    last_said(facts, said, |own| own.size, any)
}

/// Pieces of scrap that were done first here, each as it was last said.
#[must_use]
pub fn scraps(facts: &[ShopFact]) -> Vec<OwnScrap> {
    fn said(word: &ShopWord) -> Option<&OwnScrap> {
        if let ShopWord::ScrapDone(own) = word { Some(own) } else { None }
    }
    last_said(facts, said, |own| own.job, OwnScrap::is_of)
}

/// What was really used here, each as it was last said.
#[must_use]
pub fn uses(facts: &[ShopFact]) -> Vec<OwnUse> {
    fn said(word: &ShopWord) -> Option<&OwnUse> {
        if let ShopWord::ReallyUsed(own) = word { Some(own) } else { None }
    }
    last_said(facts, said, |own| own.lit, OwnUse::is_of)
}

/// What went wrong here, each as it was last said.
#[must_use]
pub fn faults(facts: &[ShopFact]) -> Vec<OwnFault> {
    fn said(word: &ShopWord) -> Option<&OwnFault> {
        if let ShopWord::WentWrong(own) = word { Some(own) } else { None }
    }
    last_said(facts, said, |own| own.entry, any)
}

/// Coupons that were broken here, each as it was last said, in the order of their breaking.
#[must_use]
pub fn coupons(facts: &[ShopFact]) -> Vec<Coupon> {
    let undone = undone(facts);
    let mut last: Vec<Coupon> = Vec::new();
    for fact in facts.iter().filter(|fact| !undone.contains(&fact.id)) {
        let ShopWord::Coupon(own) = &fact.change else { continue };
        match last.iter_mut().find(|known| known.coupon == own.coupon) {
            Some(known) => known.clone_from(own),
            None => last.push(Coupon::clone(own)),
        }
    }
    last
}

/// Cases that count no more, with the reason, as last said of each.
#[must_use]
pub fn left_out(facts: &[ShopFact]) -> BTreeMap<Uuid, String> {
    let undone = undone(facts);
    let mut out = BTreeMap::new();
    for fact in facts.iter().filter(|fact| !undone.contains(&fact.id)) {
        match &fact.change {
            ShopWord::LeaveOut { case, reason } => drop(out.insert(*case, reason.clone())),
            ShopWord::LetIn { case } => drop(out.remove(case)),
            _ => {}
        }
    }
    out
}

/// Every case there is: of what one may be left out.
pub(super) fn is_a_case(facts: &[ShopFact], case: Uuid) -> bool {
    facts.iter().any(|fact| match &fact.change {
        ShopWord::Became(repair) => repair.lit == case,
        ShopWord::Timed(timed) => timed.fact == case,
        ShopWord::Learned(own) => own.lit == case,
        ShopWord::FoundAgain(own) => own.crack == case,
        ShopWord::Moved(own) => own.size == case,
        ShopWord::WentWrong(own) => own.entry == case,
        ShopWord::ScrapDone(own) => own.piece == case,
        ShopWord::Coupon(own) => own.coupon == case,
        _ => false,
    })
}

/// What of the shop's log this version cannot read, the first first: its place in the log, and as it is stored.
pub fn unreadable(facts: &[ShopFact]) -> impl Iterator<Item = (u64, &str)> {
    facts.iter().filter_map(|fact| match &fact.change {
        ShopWord::Unreadable { text } => Some((fact.revision, text.as_str())),
        _ => None,
    })
}
