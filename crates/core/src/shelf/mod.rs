//! What can lie on a shelf, and how a rod without a name is told: it knows no shop and no job.

mod kind;
mod named;

pub use kind::{KIND_CHOICES, KINDS, Measure, Shelf, StoreKind, UNNAMED};
pub use named::{BEADS, CouldBe, FILES, LOOKS, MAGNETS, SPARKS, Signs, could_be};
