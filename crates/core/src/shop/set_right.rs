//! The shelves follow what was really used: what was taken as planned goes back, and what was used is taken.

use uuid::Uuid;

use super::word::{ShopFact, ShopWord, taken};
use crate::base::log::undone;
use crate::stores::{StoreItem, UsedUpHere};

/// One thing that was taken for a job, and stands.
struct Standing {
    fact: Uuid,
    item: Uuid,
    amount: f64,
    instead: Option<Uuid>,
    revision: u64,
}

fn standing(facts: &[ShopFact], of: Uuid) -> Vec<Standing> {
    let one = |fact: &ShopFact| match &fact.change {
        ShopWord::Used { item, amount, job, instead, .. } if *job == of => Some(Standing {
            fact: fact.id,
            item: *item,
            amount: *amount,
            instead: *instead,
            revision: fact.revision,
        }),
        _ => None,
    };
    taken(facts).filter_map(one).collect()
}

/// What is said so that the shelves hold what the job says it used: nothing once they do. A thing of which the job says
/// nothing stays as it was planned; of what was counted since nothing is taken.
#[must_use]
pub fn set_right(
    facts: &[ShopFact],
    items: &[StoreItem],
    (job, name): (Uuid, &str),
    used: &[UsedUpHere],
) -> Vec<ShopWord> {
    let standing = standing(facts, job);
    let serves = |item: Uuid, used: &UsedUpHere| {
        let item = items.iter().find(|it| it.id == item);
        item.is_some_and(|it| it.serves(&used.what, used.size_mm))
    };
    let take = |item: Uuid, amount: f64, instead: Option<Uuid>| ShopWord::Used {
        item,
        amount,
        job,
        name: name.to_owned(),
        instead,
    };
    let mut words = Vec::new();
    for it in used {
        let wrong: Vec<&Standing> =
            standing.iter().filter(|old| old.instead != Some(it.fact) && serves(old.item, it)).collect();
        words.extend(wrong.iter().map(|old| ShopWord::PutBack { target: old.fact }));
        let told = |fact: &ShopFact| matches!(&fact.change, ShopWord::Used { instead, .. } if *instead == Some(it.fact));
        if facts.iter().any(told) {
            continue;
        }
        // What goes back is there again, as far as nobody counted since.
        let back = |item: &StoreItem| -> f64 {
            let of = wrong.iter().filter(|old| old.item == item.id && old.revision > item.counted_revision);
            of.map(|old| old.amount).sum()
        };
        let counted = |item: &&StoreItem| item.counted_revision > 0 && item.counted_ms <= it.at_ms;
        let mut serving: Vec<&StoreItem> =
            items.iter().filter(|item| item.serves(&it.what, it.size_mm)).filter(counted).collect();
        let was_taken = |item: &StoreItem| wrong.iter().any(|old| old.item == item.id);
        serving.sort_by(|a, b| {
            let opened = |item: &StoreItem| (!was_taken(item), item.opened.is_none(), item.opened.clone());
            opened(a).cmp(&opened(b))
        });
        let mut open = it.amount;
        for item in serving {
            let amount = (item.amount.unwrap_or(0.0) + back(item)).min(open);
            if amount > 0.0 {
                open -= amount;
                words.push(take(item.id, amount, Some(it.fact)));
            }
        }
    }
    // It was taken back: as it was planned again.
    for old in standing.iter().filter(|old| {
        old.instead.is_some_and(|fact| used.iter().all(|it| it.fact != fact))
            && !used.iter().any(|it| serves(old.item, it))
    }) {
        words.extend(planned_before(facts, job, old.item).map(|amount| take(old.item, amount, None)));
        words.push(ShopWord::PutBack { target: old.fact });
    }
    words
}

/// What was taken of a thing as planned before it went back for what was used; nothing where it stands, or a person put
/// it back.
fn planned_before(facts: &[ShopFact], job: Uuid, item: Uuid) -> Option<f64> {
    let undone = undone(facts);
    let as_planned = |fact: &&ShopFact| match &fact.change {
        ShopWord::Used { item: of, job: by, instead: None, .. } => *of == item && *by == job,
        _ => false,
    };
    let mut all = facts.iter().filter(as_planned);
    if all.clone().any(|fact| !undone.contains(&fact.id)) {
        return None;
    }
    let last = all.next_back()?;
    let by_itself = |fact: &ShopFact| {
        fact.change == ShopWord::PutBack { target: last.id } && fact.who.is_empty() && fact.sender.is_empty()
    };
    match &last.change {
        ShopWord::Used { amount, .. } if facts.iter().any(by_itself) => Some(*amount),
        _ => None,
    }
}
