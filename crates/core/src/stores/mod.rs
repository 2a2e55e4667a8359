//! The stores: what lies on the shelves, what the jobs on the rack will take of it, what is missing.

mod item;
mod own;
mod really;
mod shelves;
mod take;
mod used;

pub use item::{StoreItem, amount_words, filler_of, fits, gas_words, id_of_a_list, weighs_kg_m3};
pub(crate) use item::{items, kinds_there, named, signs};
pub use own::OwnUse;
pub use really::{UsedInRound, UsedUpHere, used_amount};
pub use shelves::{Buy, Demand, ShelfPlan, Stock, StoresPlan, Taker, Thing, Used, shelves};
pub use take::{Take, TakenWhen};
pub use used::{UsedUp, taking_word, used_up};
