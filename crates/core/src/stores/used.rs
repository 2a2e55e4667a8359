//! What was taken is taken off the shelves, once.

use std::collections::HashSet;

use uuid::Uuid;

use super::item::StoreItem;
use super::take::{Take, TakenWhen};

/// So much of a thing is gone.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct UsedUp {
    /// The same however often it is worked out: said twice, stored once.
    pub id: Uuid,
    pub item: Uuid,
    pub amount: f64,
}

/// The id of the word that says that this lighting, or the work after it, took of this thing.
#[must_use]
pub fn taking_word(lit: Uuid, when: TakenWhen, item: Uuid) -> Uuid {
    let mut bytes = *lit.as_bytes();
    for (to, from) in bytes.iter_mut().zip(item.as_bytes()) {
        *to = to.rotate_left(3) ^ from;
    }
    bytes[15] ^= when as u8;
    Uuid::from_bytes(bytes)
}

/// What a job that was lit took of which thing: nothing that is in the log already, and nothing of what was counted
/// since, for that was left over. `said` are the ids of all that stands in the shop's log.
#[must_use]
pub fn used_up(
    items: &[StoreItem],
    (lit, when, at_ms): (Uuid, TakenWhen, i64),
    takes: &[Take],
    said: &HashSet<Uuid>,
) -> Vec<UsedUp> {
    // Told once, it is not told again of what was bought later.
    if items.iter().any(|item| said.contains(&taking_word(lit, when, item.id))) {
        return Vec::new();
    }
    let mut used: Vec<UsedUp> = Vec::new();
    for take in takes {
        let mut open = take.amount;
        let mut serving: Vec<&StoreItem> = items
            .iter()
            .filter(|item| item.serves(&take.kind, take.size_mm))
            .filter(|item| item.counted_revision > 0 && item.counted_ms <= at_ms)
            .collect();
        serving.sort_by(|a, b| a.opened.is_none().cmp(&b.opened.is_none()).then(a.opened.cmp(&b.opened)));
        for item in serving {
            let amount = item.amount.unwrap_or(0.0).min(open);
            if amount > 0.0 {
                open -= amount;
                used.push(UsedUp { id: taking_word(lit, when, item.id), item: item.id, amount });
            }
        }
    }
    used
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::quantity::UnitSystem;

    fn nickel(id: u128, amount: f64, counted_ms: i64, opened: Option<&str>) -> StoreItem {
        StoreItem {
            id: Uuid::from_u128(id),
            kind: "nickel".to_owned(),
            name: String::new(),
            size_mm: Some(3.2),
            amount: Some(amount),
            holds_m3: None,
            price: None,
            lot: String::new(),
            opened: opened.map(str::to_owned),
            place: String::new(),
            melts_c: None,
            counted_revision: 1,
            counted_ms,
        }
    }

    fn six(items: &[StoreItem]) -> Vec<Take> {
        let shop = (items, UnitSystem::Metric);
        vec![Take::of(("nickel", Some(3.2)), 6.0, TakenWhen::Done, shop).unwrap()]
    }

    const LIT: Uuid = Uuid::from_u128(9);

    #[test]
    fn what_was_opened_goes_first_and_the_rest_from_the_next() {
        let items = [nickel(1, 10.0, 0, None), nickel(2, 4.0, 0, Some("2026-03-01"))];
        let used = used_up(&items, (LIT, TakenWhen::Done, 100), &six(&items), &HashSet::new());
        let of: Vec<(u128, f64)> = used.iter().map(|it| (it.item.as_u128(), it.amount)).collect();
        assert_eq!(of, [(2, 4.0), (1, 2.0)]);
    }

    #[test]
    fn it_is_taken_once_and_never_of_what_was_counted_since() {
        let items = [nickel(1, 10.0, 50, None)];
        let used = used_up(&items, (LIT, TakenWhen::Done, 100), &six(&items), &HashSet::new());
        assert_eq!(used.len(), 1);
        let said: HashSet<Uuid> = used.iter().map(|it| it.id).collect();
        assert!(used_up(&items, (LIT, TakenWhen::Done, 100), &six(&items), &said).is_empty());
        assert!(
            used_up(&items, (LIT, TakenWhen::Done, 49), &six(&items), &HashSet::new()).is_empty(),
            "counted after it was used: what is left was counted"
        );
        assert_eq!(
            used_up(&items, (LIT, TakenWhen::Lit, 100), &six(&items), &said).len(),
            1,
            "another word for another time"
        );
    }

    #[test]
    fn no_more_is_taken_than_was_there() {
        let items = [nickel(1, 2.0, 0, None)];
        let used = used_up(&items, (LIT, TakenWhen::Done, 100), &six(&items), &HashSet::new());
        assert_eq!(used[0].amount, 2.0);
    }
}
