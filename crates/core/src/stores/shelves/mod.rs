//! The shelves as they stand: what is there, who will take of it, what is missing and by when.

mod things;

use std::collections::BTreeMap;

use serde::Serialize;
use uuid::Uuid;

use super::item::{StoreItem, amount_words};
use super::take::{Take, TakenWhen};
use crate::base::day::Day;
use crate::field::FieldState;
use crate::quantity::UnitSystem;
use crate::shelf::{KINDS, Measure, Shelf, StoreKind};

use things::{buy, not_there, thing};

/// What a job on the rack will take.
#[derive(Debug, Clone, PartialEq)]
pub struct Demand {
    pub job: Uuid,
    pub name: String,
    /// `YYYY-MM-DD`, the day it has to be there; nothing while no day is said.
    pub by: Option<String>,
    pub takes: Vec<Take>,
}

/// What a job took, as it stands in the shop's log.
#[derive(Debug, Clone, PartialEq)]
pub struct Used {
    /// The word that says so.
    pub fact: Uuid,
    pub item: Uuid,
    pub amount: f64,
    pub job: Uuid,
    pub name: String,
    /// The day it was taken, in the shop's words.
    pub day: String,
    /// Its place in the shop's log.
    pub revision: u64,
}

/// A job that takes of a thing.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Taker {
    pub job: Uuid,
    pub name: String,
    /// "6 for the side frame".
    pub words: String,
    /// The word that says so, where it has been taken: it can be put back.
    pub taken: Option<Uuid>,
}

/// One thing on a shelf.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Thing {
    /// Nothing where none of it lies there.
    pub id: Option<Uuid>,
    pub kind: String,
    /// "Nickel-iron stick, 4 mm".
    pub words: String,
    /// As it is written on it; empty for nothing.
    pub name: String,
    /// "14 rods"; what to say where nobody has counted.
    pub amount_words: String,
    /// In what it is counted in; nothing while nobody has said.
    pub amount: Option<f64>,
    pub size_mm: Option<f64>,
    /// Of what a full one holds; nothing where that is not known.
    pub share: Option<f64>,
    pub melts_c: Option<f64>,
    /// At what it melts, in the shop's units; empty where nobody has said.
    pub melts_words: String,
    /// How much of it the jobs on the rack will take.
    pub spoken_for: f64,
    pub takers: Vec<Taker>,
    /// Who took of it since it was counted.
    pub used: Vec<Taker>,
    /// "5 more by Thu 12 Mar: quadrant".
    pub short: Vec<String>,
    /// What a bundle without a name could be, in a sentence; empty for what has one.
    pub could_be: String,
    /// The kind that it can only be.
    pub named: Option<String>,
}

/// A shelf.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ShelfPlan {
    pub shelf: Shelf,
    pub label: String,
    pub things: Vec<Thing>,
    /// Kinds that have their place here: id and label.
    pub kinds: Vec<(String, String)>,
}

/// One line of the buying list.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Buy {
    pub kind: String,
    pub size_mm: Option<f64>,
    pub what: String,
    pub amount: f64,
    pub amount_words: String,
    /// `YYYY-MM-DD`, and in words; nothing and empty while no job says a day.
    pub by: Option<String>,
    pub by_words: String,
    pub jobs: Vec<String>,
    /// At the price it was bought for last; nothing while that is not known.
    #[serde(skip)]
    pub price: Option<f64>,
    /// The same as it is shown: "£4.50".
    pub price_words: Option<String>,
}

/// The stores as they stand.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StoresPlan {
    /// "Two things are missing for Thu 12 Mar."
    pub headline: String,
    pub second: String,
    pub shelves: Vec<ShelfPlan>,
    pub buying: Vec<Buy>,
}

/// Of one kind and size: how much is missing, for whom, the first by when.
struct Missing {
    kind: &'static StoreKind,
    size_mm: Option<f64>,
    amount: f64,
    by: Option<String>,
    jobs: Vec<String>,
    lines: Vec<String>,
}

/// Who takes what, the first wanted first.
struct Shared<'a> {
    items: &'a [StoreItem],
    left: Vec<Option<f64>>,
    takers: Vec<Vec<(Taker, f64)>>,
    missing: Vec<Missing>,
    units: UnitSystem,
}

/// House: less than this of anything is nothing.
const NOTHING: f64 = 1e-6;

impl Shared<'_> {
    fn take(&mut self, demand: &Demand, take: &Take) {
        let Some(kind) = StoreKind::from_id(&take.kind) else { return };
        let mut serving: Vec<usize> =
            (0..self.items.len()).filter(|at| self.items[*at].serves(&take.kind, take.size_mm)).collect();
        // What was opened first goes first, and of several the smallest lot.
        serving.sort_by(|a, b| {
            let key = |at: usize| self.items[at].opened.clone().unwrap_or_else(|| "9".to_owned());
            key(*a)
                .cmp(&key(*b))
                .then(self.left[*a].unwrap_or(f64::MAX).total_cmp(&self.left[*b].unwrap_or(f64::MAX)))
        });
        let mut open = take.amount;
        for at in serving {
            if open <= NOTHING {
                break;
            }
            let taken = match self.left[at] {
                // Nobody has counted it: it is taken to be enough, and it says so.
                None => open,
                Some(left) => left.min(open),
            };
            if taken <= NOTHING {
                continue;
            }
            // Packing is dug out again: the next job has it too.
            if let Some(left) = self.left[at].as_mut().filter(|_| take.when != TakenWhen::Kept) {
                *left -= taken;
            }
            open -= taken;
            let words = format!("{} for {}", amount_words(kind, taken, self.units), demand.name);
            let taker = Taker { job: demand.job, name: demand.name.clone(), words, taken: None };
            self.takers[at].push((taker, taken));
        }
        if open > NOTHING {
            self.miss(kind, demand, take, open);
        }
    }

    fn miss(&mut self, kind: &'static StoreKind, demand: &Demand, take: &Take, open: f64) {
        let same = |it: &Missing| it.kind.id == kind.id && it.size_mm == take.size_mm;
        let at = match self.missing.iter().position(same) {
            Some(at) => at,
            None => {
                self.missing.push(Missing {
                    kind,
                    size_mm: take.size_mm,
                    amount: 0.0,
                    by: None,
                    jobs: Vec::new(),
                    lines: Vec::new(),
                });
                self.missing.len() - 1
            }
        };
        let more = match kind.measure {
            Measure::Pieces => format!("{}", open.ceil()),
            _ => amount_words(kind, open, self.units),
        };
        let by = demand.by.as_deref().map_or(String::new(), |day| format!(" by {}", short_day(day)));
        let missing = &mut self.missing[at];
        missing.amount = match take.when {
            TakenWhen::Kept => missing.amount.max(open),
            TakenWhen::Lit | TakenWhen::Done => missing.amount + open,
        };
        missing.lines.push(format!("{more} more{by}: {}", demand.name));
        // They come in the order of their days: the first is the soonest.
        missing.by = missing.by.take().or_else(|| demand.by.clone());
        if !missing.jobs.contains(&demand.name) {
            missing.jobs.push(demand.name.clone());
        }
    }
}

/// "Thu 12 Mar": the year goes without saying.
fn short_day(day: &str) -> String {
    let said = Day::say(day);
    said.rsplit_once(' ').map_or(said.clone(), |(day, _)| day.to_owned())
}

/// What the shelves are made from.
#[derive(Debug)]
pub struct Stock<'a> {
    pub items: &'a [StoreItem],
    /// The shop's settings: what was seen of bundles without a name.
    pub values: &'a BTreeMap<String, FieldState>,
    pub demands: Vec<Demand>,
    pub used: &'a [Used],
    pub units: UnitSystem,
    /// "£"; empty where nobody has said.
    pub currency: &'a str,
}

/// The stores: every thing with who takes of it, and what has to be bought. The jobs that are wanted first take first.
#[must_use]
pub fn shelves(stock: Stock<'_>) -> StoresPlan {
    let Stock { items, values, mut demands, used, units, currency } = stock;
    // A job that nobody wants on a day comes after those that are.
    demands.sort_by(|a, b| {
        let key = |demand: &Demand| demand.by.clone().unwrap_or_else(|| "9".to_owned());
        key(a).cmp(&key(b))
    });
    let mut shared = Shared {
        items,
        left: items.iter().map(|item| item.amount).collect(),
        takers: vec![Vec::new(); items.len()],
        missing: Vec::new(),
        units,
    };
    for demand in &demands {
        for take in &demand.takes {
            shared.take(demand, take);
        }
    }
    let Shared { takers, missing, .. } = shared;
    let mut things: Vec<Thing> =
        items.iter().zip(takers).map(|(item, takers)| thing(item, takers, (values, used), units)).collect();
    for missing in &missing {
        let beside = things.iter_mut().find(|thing| {
            let same_size = thing.size_mm == missing.size_mm;
            thing.kind == missing.kind.id
                && (same_size || thing.size_mm.is_none() || missing.size_mm.is_none())
        });
        match beside {
            Some(thing) => thing.short.extend(missing.lines.clone()),
            None => things.push(not_there(missing, units)),
        }
    }
    let buying: Vec<Buy> = missing.iter().map(|missing| buy(missing, items, units, currency)).collect();
    let (headline, second) = headline(items, &demands, &buying);
    StoresPlan {
        headline,
        second,
        shelves: Shelf::ALL.into_iter().map(|shelf| on_the_shelf(shelf, &things)).collect(),
        buying,
    }
}

fn headline(items: &[StoreItem], demands: &[Demand], buying: &[Buy]) -> (String, String) {
    const WORDS: [&str; 7] = ["No", "One", "Two", "Three", "Four", "Five", "Six"];
    let takes = demands.iter().any(|demand| !demand.takes.is_empty());
    let count = buying.len();
    if count == 0 {
        return match (items.is_empty(), takes) {
            (true, _) => (
                "The shelves are empty.".to_owned(),
                "Put on them what lies in the shop: every plan is worked out with it.".to_owned(),
            ),
            (false, false) => ("Nothing on the rack takes anything yet.".to_owned(), String::new()),
            (false, true) => ("Everything on the rack is covered.".to_owned(), String::new()),
        };
    }
    let number = WORDS.get(count).map_or(count.to_string(), |word| (*word).to_owned());
    let things = if count == 1 { "thing is" } else { "things are" };
    let by = buying.iter().filter_map(|buy| buy.by.as_deref()).min();
    let by = by.map_or(String::new(), |day| format!(", the first by {}", short_day(day)));
    (format!("{number} {things} missing{by}."), "Everything else on the rack is covered.".to_owned())
}

fn on_the_shelf(shelf: Shelf, things: &[Thing]) -> ShelfPlan {
    let kinds = || KINDS.iter().filter(move |kind| kind.shelf == shelf);
    // In the order of the kinds; sticks by the heat they melt at, rods by size.
    let mut here: Vec<Thing> =
        things.iter().filter(|thing| kinds().any(|kind| kind.id == thing.kind)).cloned().collect();
    here.sort_by(|a, b| {
        let place = |thing: &Thing| kinds().position(|kind| kind.id == thing.kind);
        let size = |thing: &Thing| thing.melts_c.or(thing.size_mm).unwrap_or(0.0);
        place(a).cmp(&place(b)).then(size(a).total_cmp(&size(b))).then(a.id.cmp(&b.id))
    });
    ShelfPlan {
        shelf,
        label: shelf.label().to_owned(),
        things: here,
        kinds: kinds().map(|kind| (kind.id.to_owned(), kind.label.to_owned())).collect(),
    }
}
