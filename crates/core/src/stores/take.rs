//! What a job takes from the stores.

use serde::{Deserialize, Serialize};

use super::item::{StoreItem, amount_words, named};
use crate::quantity::UnitSystem;
use crate::shelf::{Shelf, StoreKind};

/// When it is gone from the shelf.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TakenWhen {
    /// Once it is lit.
    Lit,
    /// Once the beads are laid, or the pins set.
    Done,
    /// It is needed and comes back: packing.
    Kept,
}

/// Something that a job takes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Take {
    /// As the stores call it: `nickel_iron`.
    pub kind: String,
    /// Across, for rods and pins; nothing where that makes no difference.
    pub size_mm: Option<f64>,
    /// In what its kind is counted in.
    pub amount: f64,
    pub when: TakenWhen,
    /// "6 rods", "Nickel-iron stick, 4 mm".
    pub amount_words: String,
    pub words: String,
    /// How much of it is in the stores: "3 are here"; empty where nobody has counted.
    pub here_words: String,
    /// Fewer are there than it takes.
    pub short: bool,
}

impl Take {
    /// It comes out of a cylinder.
    #[must_use]
    pub fn is_gas(&self) -> bool {
        StoreKind::from_id(&self.kind).is_some_and(|kind| kind.shelf == Shelf::Gas)
    }

    /// What is taken, against what lies there; nothing for a kind that is not known, or for none of it.
    #[must_use]
    pub fn of(
        (kind, size_mm): (&str, Option<f64>),
        amount: f64,
        when: TakenWhen,
        (items, units): (&[StoreItem], UnitSystem),
    ) -> Option<Self> {
        let known = StoreKind::from_id(kind).filter(|_| amount > 0.0)?;
        let serving = || items.iter().filter(|item| item.serves(kind, size_mm));
        // One lot that nobody has counted leaves open how many there are.
        let here: Option<f64> = serving().map(|item| item.amount).sum();
        // Where nothing of it lies on a shelf that is kept, there is none.
        let kept = items.iter().any(|item| item.kind().shelf == known.shelf);
        let counted = here.filter(|_| kept);
        let short = counted.is_some_and(|here| here + 1e-9 < amount);
        Some(Self {
            kind: kind.to_owned(),
            size_mm,
            amount,
            when,
            amount_words: amount_words(known, amount, units),
            words: named(known, size_mm, units),
            here_words: match counted {
                None => String::new(),
                Some(here) if here <= 0.0 => "none here".to_owned(),
                Some(_) if !short => "all here".to_owned(),
                Some(here) => format!("{} here", amount_words(known, here, units)),
            },
            short,
        })
    }

    /// What it costs at the price that is written on what lies there; nothing while none is.
    #[must_use]
    pub fn cost(&self, items: &[StoreItem]) -> Option<f64> {
        let priced = items.iter().filter(|item| item.serves(&self.kind, self.size_mm));
        // The dearest of several lots: an estimate is not undercut by the last of the old ones.
        let price = priced.filter_map(|item| item.price).reduce(f64::max)?;
        Some(price * self.amount)
    }
}
