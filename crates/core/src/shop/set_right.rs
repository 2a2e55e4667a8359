//! The shelves follow what was really used: what was taken as planned goes back, and what was used is taken.

use uuid::Uuid;

use super::word::{ShopFact, ShopWord, taken};
use crate::base::log::undone;
use crate::stores::{StoreItem, TakenWhen, UsedInRound, UsedUpHere, taking_word};

/// One thing that was taken for a job, and stands.
struct StandingTake {
    fact: Uuid,
    item: Uuid,
    amount: f64,
    instead: Option<Uuid>,
    revision: u64,
}

fn standing(facts: &[ShopFact], of: Uuid) -> Vec<StandingTake> {
    let one = |fact: &ShopFact| match &fact.change {
        ShopWord::Used { item, amount, job, instead, .. } if *job == of => Some(StandingTake {
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

/// What is said so that the shelves hold what the job says it used: nothing once they do. A thing of which a round says
/// nothing stays as it was planned for it; of what was counted since nothing is taken.
#[must_use]
pub fn set_right(
    facts: &[ShopFact],
    items: &[StoreItem],
    (job, name): (Uuid, &str),
    rounds: &[UsedInRound],
) -> Vec<ShopWord> {
    let standing = standing(facts, job);
    let serves = |item: Uuid, used: &UsedUpHere| {
        let item = items.iter().find(|it| it.id == item);
        item.is_some_and(|it| it.serves(&used.what, used.size_mm))
    };
    let said = || rounds.iter().flat_map(|round| round.used.iter().map(move |used| (round, used)));
    // As planned, where the round has said otherwise; and what was said and is no more.
    let planned = |old: &StandingTake| {
        let round = planned_for(rounds, (old.fact, old.item, old.instead)).map(|(round, _)| round);
        round.is_some_and(|round| round.used.iter().any(|used| serves(old.item, used)))
    };
    let is_a_lighting = |fact: Uuid| rounds.iter().any(|round| round.lit.contains(&fact));
    let stale = |old: &StandingTake| {
        old.instead.is_some_and(|fact| !is_a_lighting(fact) && said().all(|(_, used)| used.fact != fact))
    };
    let goes: Vec<&StandingTake> = standing.iter().filter(|old| planned(old) || stale(old)).collect();
    let take = |item: Uuid, amount: f64, instead: Option<Uuid>| ShopWord::Used {
        item,
        amount,
        job,
        name: name.to_owned(),
        instead,
    };
    let mut words = Vec::new();
    // It was taken back: as it was planned again.
    for old in goes.iter().filter(|old| stale(old) && !said().any(|(_, used)| serves(old.item, used))) {
        let before = planned_before(facts, rounds, (job, old.item));
        words.extend(before.map(|(lit, amount)| take(old.item, amount, Some(lit))));
    }
    words.extend(goes.iter().map(|old| ShopWord::PutBack { target: old.fact }));
    let mut left: Vec<f64> = items
        .iter()
        .map(|item| {
            // What goes back is there again, as far as nobody counted since.
            let back = goes.iter().filter(|old| old.item == item.id && old.revision > item.counted_revision);
            item.amount.unwrap_or(0.0) + back.map(|old| old.amount).sum::<f64>()
        })
        .collect();
    for (_, used) in said() {
        let told = |fact: &ShopFact| matches!(&fact.change, ShopWord::Used { instead, .. } if *instead == Some(used.fact));
        if facts.iter().any(told) {
            continue;
        }
        let counted = |item: &StoreItem| item.counted_revision > 0 && item.counted_ms <= used.at_ms;
        let mut serving: Vec<usize> = (0..items.len())
            .filter(|at| items[*at].serves(&used.what, used.size_mm) && counted(&items[*at]))
            .collect();
        // What it was taken of before, then what was opened first.
        serving.sort_by_key(|at| {
            let item = &items[*at];
            let before = goes.iter().any(|old| old.item == item.id);
            (!before, item.opened.is_none(), item.opened.clone())
        });
        // None is said as well: taken back it is as planned again.
        if used.amount <= 0.0 {
            words.extend(serving.first().map(|at| take(items[*at].id, 0.0, Some(used.fact))));
        }
        let mut open = used.amount;
        for at in serving {
            let amount = left[at].min(open);
            if amount > 0.0 {
                open -= amount;
                left[at] -= amount;
                words.push(take(items[at].id, amount, Some(used.fact)));
            }
        }
    }
    words
}

/// The round whose plan took something, and its lighting: by the word's own id, or as it was put back for that.
fn planned_for(
    rounds: &[UsedInRound],
    (fact, item, instead): (Uuid, Uuid, Option<Uuid>),
) -> Option<(&UsedInRound, Uuid)> {
    let by = |lit: &Uuid| {
        let whens = [TakenWhen::Lit, TakenWhen::Done];
        instead == Some(*lit) || whens.iter().any(|when| taking_word(*lit, *when, item) == fact)
    };
    rounds.iter().find_map(|round| Some((round, *round.lit.iter().find(|lit| by(lit))?)))
}

/// What was taken of a thing as planned before it went back for what was used, and the lighting; nothing where it
/// stands, or a person put it back.
fn planned_before(
    facts: &[ShopFact],
    rounds: &[UsedInRound],
    (job, item): (Uuid, Uuid),
) -> Option<(Uuid, f64)> {
    let undone = undone(facts);
    let as_planned = |fact: &ShopFact| match &fact.change {
        ShopWord::Used { item: of, job: by, instead, amount, .. } if *of == item && *by == job => {
            planned_for(rounds, (fact.id, item, *instead)).map(|(_, lit)| (fact.id, lit, *amount))
        }
        _ => None,
    };
    let all: Vec<(Uuid, Uuid, f64)> = facts.iter().filter_map(as_planned).collect();
    if all.iter().any(|(id, ..)| !undone.contains(id)) {
        return None;
    }
    let (last, lit, amount) = *all.last()?;
    let by_itself = |fact: &ShopFact| {
        fact.change == ShopWord::PutBack { target: last } && fact.who.is_empty() && fact.sender.is_empty()
    };
    facts.iter().any(by_itself).then_some((lit, amount))
}
