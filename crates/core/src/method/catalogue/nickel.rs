//! Nickel stick.

use super::{Method, stick};
use crate::method::MethodId;
use crate::prep::filler::Filler;

pub(super) const METHOD: Method =
    stick::method(MethodId::ArcNickel, "arc_nickel", "Nickel stick", "Weld it with nickel stick", filler);

/// # Source
/// AWS A5.15.
fn filler(wall_mm: f64, _ductile: bool) -> Filler {
    stick::stick("ENi-CI", "nickel stick", ((280.0, 450.0), 250.0), wall_mm)
}
