//! One pass of an arc, and how much less current a warm part wants.

use super::Way;
use crate::heat::Pass;
use crate::quantity::WallMillimetres;

/// The current for a preheat: what the iron brings along the arc need not.
///
/// I2 = I1 (Tm − T2) / (Tm − 20), T2 in degC and 250 at most.
///
/// # Source
/// House.
#[must_use]
pub fn amps_at(amps: f64, melts_c: f64, preheat_c: f64) -> f64 {
    /// House: over this preheat the current falls no further, in degC.
    const MOST_C: f64 = 250.0;
    amps * (melts_c - preheat_c.clamp(20.0, MOST_C)) / (melts_c - 20.0)
}

/// One pass of a way in a wall, with the part as warm as this; nothing for what has no arc.
pub(crate) fn pass_of(way: Way, wall: WallMillimetres, part_c: f64) -> Option<Pass> {
    let entry = way.method.entry();
    let arc = entry.arc?;
    Some(Pass {
        volts: arc.volts,
        amps: amps_at(arc.usual_amps(wall.millimetres(), way.school), entry.setup.melts_c, part_c),
        travel_mm_s: arc.travel_mm_s,
        efficiency: arc.efficiency,
    })
}
