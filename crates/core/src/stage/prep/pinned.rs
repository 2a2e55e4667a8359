//! A row of pins, and a lap that is brazed.

use super::PrepInputs;
use super::seam::PinsThat;
use super::seam::{SeamPlan, bare_seam};
use crate::crack::said::EndKind;
use crate::method::Joins;
use crate::pins::rows::{
    StitchOutline, StitchRow, crack_order, lock_length_mm, locks_across, pin_for_wall_mm, tap_drill_mm,
};
use crate::quantity::WallMillimetres;
use crate::stage::cracks::CrackPlan;

/// House: tight joints overlap by half, others by a third.
pub(super) fn overlap_of(inputs: &PrepInputs<'_>) -> f64 {
    if inputs.fluid_tight { 0.5 } else { 1.0 / 3.0 }
}

pub(super) fn pin_seam(
    inputs: &PrepInputs<'_>,
    crack: &CrackPlan,
    length_mm: f64,
    wall_mm: f64,
) -> Option<SeamPlan> {
    let pin_mm = pin_for_wall_mm(WallMillimetres::new(wall_mm).ok()?)?;
    // One pin beyond each end that stops in the metal; none in the air past an edge.
    let row_mm =
        length_mm + pin_mm * f64::from(crack.ends.iter().filter(|end| goes_beyond(end.kind)).count() as u32);
    let row = StitchRow::new(StitchOutline::Straight, row_mm.max(pin_mm), pin_mm, overlap_of(inputs)).ok()?;
    /// Anchors that only seal stand so far apart. House.
    const ANCHORS_MM: f64 = 50.0;
    let mut pins = row.pins();
    if inputs.anchors {
        let gaps = (row_mm / ANCHORS_MM).ceil().max(1.0);
        pins.pins = gaps as u32 + 1;
        pins.pitch_mm = (row_mm - pin_mm).max(0.0) / gaps;
    }
    let locked = inputs.way.method.entry().joins == Joins::PinsAndLocks;
    Some(SeamPlan {
        pins: pins.pins,
        pin_mm,
        locks: if locked { locks_across(length_mm) } else { 0 },
        lock_mm: if locked { lock_length_mm(pin_mm) } else { 0.0 },
        pitch_mm: pins.pitch_mm,
        // A row begins a pin before a tip, and at an edge with the edge.
        first_pin_mm: match crack.ends.first().is_none_or(|end| goes_beyond(end.kind)) {
            true => -pin_mm / 2.0,
            false => pin_mm / 2.0,
        },
        tap_drill_mm: tap_drill_mm(pin_mm)?,
        pin_order: crack_order(pins.pins),
        pins_that: Some(PinsThat::Draw),
        ..bare_seam(crack, length_mm, wall_mm, inputs.units)
    })
}

/// An end that stops in the metal, or that nobody has seen: the row of pins goes on past it.
fn goes_beyond(kind: Option<EndKind>) -> bool {
    !matches!(kind, Some(EndKind::Edge | EndKind::Hole | EndKind::Branch))
}

/// A seam that is neither ground nor pinned: lapped, strapped over or filled cold.
pub(super) fn lap_seam(inputs: &PrepInputs<'_>, crack: &CrackPlan, length_mm: f64, wall_mm: f64) -> SeamPlan {
    let lapped = inputs.way.method.entry().joins == Joins::Silver;
    SeamPlan {
        // Drawn in with one run of the torch.
        beads: u32::from(lapped),
        volume_cm3: if lapped { length_mm * LAP_WALLS * wall_mm * LAP_GAP_MM / 1000.0 } else { 0.0 },
        ..bare_seam(crack, length_mm, wall_mm, inputs.units)
    }
}

/// House: a lap is so many walls wide, and the gap that silver fills is so wide in mm.
const LAP_WALLS: f64 = 3.0;
const LAP_GAP_MM: f64 = 0.1;
