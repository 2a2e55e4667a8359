//! A thing on its shelf, or missing from it.

use std::collections::BTreeMap;

use super::super::item::{StoreItem, amount_words, named};
use super::super::signs;
use super::{Buy, Missing, NOTHING, Taker, Thing, Used, short_day};
use crate::field::FieldState;
use crate::quantity::UnitSystem;
use crate::shelf::{StoreKind, UNNAMED, could_be};

pub(super) fn thing(
    item: &StoreItem,
    takers: Vec<(Taker, f64)>,
    (values, used): (&BTreeMap<String, FieldState>, &[Used]),
    units: UnitSystem,
) -> Thing {
    let kind = item.kind();
    let could = (item.kind == UNNAMED).then(|| could_be(signs(values, item.id)));
    Thing {
        id: Some(item.id),
        kind: item.kind.clone(),
        words: item.words(units),
        name: item.name.clone(),
        amount_words: match item.amount {
            Some(amount) if amount <= NOTHING => "none left".to_owned(),
            Some(_) => item.amount_words(units),
            None => "how much is not said".to_owned(),
        },
        amount: item.amount,
        size_mm: item.size_mm,
        share: item.amount.zip(item.holds_m3).map(|(amount, holds)| (amount / holds).clamp(0.0, 1.0)),
        melts_c: item.melts_c,
        melts_words: item
            .melts_c
            .filter(|_| item.kind == "stick")
            .map_or(String::new(), |celsius| units.say_stick(celsius, false)),
        spoken_for: takers.iter().map(|(_, amount)| amount).sum(),
        takers: takers.into_iter().map(|(taker, _)| taker).collect(),
        used: used
            .iter()
            .filter(|used| used.item == item.id && used.revision > item.counted_revision && used.amount > 0.0)
            .map(|used| Taker {
                job: used.job,
                name: used.name.clone(),
                words: format!("{} for {}, {}", amount_words(kind, used.amount, units), used.name, used.day),
                taken: Some(used.fact),
            })
            .collect(),
        short: Vec::new(),
        could_be: could.as_ref().map_or(String::new(), |could| {
            let labels = could.kinds.iter().filter_map(|id| StoreKind::from_id(id)).map(|kind| kind.label);
            let labels: Vec<String> = labels.map(str::to_lowercase).collect();
            match (labels.as_slice(), could.seen) {
                (_, 0) => "Look at it, try a magnet, a file, the wheel, and a bead on scrap.".to_owned(),
                ([], _) => "What was seen goes with nothing known: don't use it.".to_owned(),
                ([only], _) if could.named().is_some() => format!("It can only be {only}."),
                ([only], _) => format!("It looks like {only}: one more test."),
                (several, _) => format!("It could be {}.", several.join(" or ")),
            }
        }),
        named: could.and_then(|could| could.named()).map(str::to_owned),
    }
}

pub(super) fn not_there(missing: &Missing, units: UnitSystem) -> Thing {
    Thing {
        id: None,
        kind: missing.kind.id.to_owned(),
        words: named(missing.kind, missing.size_mm, units),
        name: String::new(),
        amount_words: "none here".to_owned(),
        amount: Some(0.0),
        size_mm: missing.size_mm,
        share: None,
        melts_c: None,
        melts_words: String::new(),
        spoken_for: 0.0,
        takers: Vec::new(),
        used: Vec::new(),
        short: missing.lines.clone(),
        could_be: String::new(),
        named: None,
    }
}

pub(super) fn buy(missing: &Missing, items: &[StoreItem], units: UnitSystem, currency: &str) -> Buy {
    let last = items
        .iter()
        .filter(|item| item.serves(missing.kind.id, missing.size_mm))
        .filter_map(|item| item.price)
        .reduce(f64::max);
    let price = last.map(|price| price * missing.amount);
    Buy {
        kind: missing.kind.id.to_owned(),
        size_mm: missing.size_mm,
        what: named(missing.kind, missing.size_mm, units),
        amount: missing.amount,
        amount_words: amount_words(missing.kind, missing.amount, units),
        by_words: missing.by.as_deref().map_or(String::new(), short_day),
        by: missing.by.clone(),
        jobs: missing.jobs.clone(),
        price_words: price.map(|price| format!("{currency}{price:.2}")),
        price,
    }
}
