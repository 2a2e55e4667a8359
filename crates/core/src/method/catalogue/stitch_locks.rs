//! Stitching with pins, and locks across the crack.

use super::{Joins, Method, Practice, Start, stitch};
use crate::method::MethodId;

pub(super) const METHOD: Method = stitch::method(
    MethodId::StitchLocks,
    "stitch_locks",
    "Stitching with locks",
    "Set pins along it and locks across it, cold",
    Joins::PinsAndLocks,
    0.85,
    PRACTICES,
);

const PRACTICES: &[Practice] = &[stitch::practice(Start::ByLocks)];
