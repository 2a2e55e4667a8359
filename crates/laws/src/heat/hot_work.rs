//! Fire: how far round hot work is cleared.

use crate::quantity::UnitSystem;

/// How far round the work must be clear.
///
/// # Source
/// NFPA 51B.
pub fn hot_work_clearance(units: UnitSystem) -> &'static str {
    match units {
        UnitSystem::Metric => "11 m",
        UnitSystem::Imperial => "35 ft",
    }
}
