//! The map of a job: what lies on each face, what is planned there, and what is in the way.

mod clashes;
mod drawing;
mod faces;
mod pairs;
mod pins;

pub use faces::{
    Clash, FacePlan, FaceSeen, Frame, HoleOnFace, LineOnFace, MapPlan, MarkOnFace, TackOnFace, Unplaced,
};
pub(crate) use faces::{MapInputs, clash_sentences, map_plan};
pub(crate) use pairs::{HolePair, hole_pairs, round_holes};
pub(crate) use pins::places as pin_places;
pub use pins::{LockOnFace, PinOnFace};
