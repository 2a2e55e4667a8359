//! Nickel stick.

use super::stick::{AT_TORCH, GROOVE, PRACTICES, STANDS, joint_words, layer, stick};
use super::{Filling, Joins, Method};
use crate::filler::Filler;
use crate::method::MethodId;

pub(super) const METHOD: Method = Method {
    method: MethodId::ArcNickel,
    id: "arc_nickel",
    label: "Nickel stick",
    joins: Joins::Arc,
    practices: PRACTICES,
    stands: STANDS,
    efficiency: 0.8,
    groove: Some(GROOVE),
    filling: Some(Filling { filler, layer, laid_g_a_min: None }),
    prep: &[],
    at_torch: AT_TORCH,
    joint_words,
};

/// # Source
/// AWS A5.15.
fn filler(wall_mm: f64, _ductile: bool) -> Filler {
    stick("ENi-CI", "nickel stick", (280.0, 450.0), wall_mm)
}
