//! Nickel-iron stick.

use super::{Method, stick};
use crate::method::MethodId;
use crate::prep::filler::Filler;

pub(super) const METHOD: Method = stick::method(
    MethodId::ArcNickelIron,
    "arc_nickel_iron",
    "Nickel-iron stick",
    "Weld it with nickel-iron stick",
    filler,
);

/// # Source
/// AWS A5.15.
fn filler(wall_mm: f64, _ductile: bool) -> Filler {
    stick::stick("ENiFe-CI", "nickel-iron stick", ((400.0, 580.0), 300.0), wall_mm)
}
