//! Overlapping threaded pins, cold: how many, how far apart, in which order.

use serde::{Deserialize, Serialize};

use crate::base::problem::OutOfRange;
use crate::quantity::WallMillimetres;

#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum StitchOutline {
    Straight,
    Closed,
}

/// A row of pins, checked.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StitchRow {
    outline: StitchOutline,
    length_mm: f64,
    pin_mm: f64,
    overlap: f64,
}

/// Pins and the distance between their centres.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Pins {
    pub pins: u32,
    pub pitch_mm: f64,
}

impl StitchRow {
    /// `length_mm` is outer edge to outer edge of the pins on a straight row, the perimeter on a
    /// closed one; `overlap` is a share of the diameter.
    ///
    /// # Errors
    /// [`OutOfRange`] with the wire name of its field: a row shorter than one pin or longer than
    /// 20 m, a pin outside 2 to 30 mm, an overlap outside 0 to 0.9.
    pub fn new(
        outline: StitchOutline,
        length_mm: f64,
        pin_mm: f64,
        overlap: f64,
    ) -> Result<Self, (&'static str, OutOfRange)> {
        OutOfRange::check("a pin", "mm", (2.0, 30.0), pin_mm).map_err(|e| ("pin_mm", e))?;
        OutOfRange::check("an overlap", "of the diameter", (0.0, 0.9), overlap)
            .map_err(|e| ("overlap", e))?;
        OutOfRange::check("a row of pins", "mm", (pin_mm, 20_000.0), length_mm)
            .map_err(|e| ("length_mm", e))?;
        Ok(Self { outline, length_mm, pin_mm, overlap })
    }

    /// Straight: n = ceil((L - d) / (d (1 - o))) + 1, pitch (L - d) / (n - 1).
    /// Closed: n = ceil(P / (d (1 - o))), pitch P / n.
    #[must_use]
    pub fn pins(&self) -> Pins {
        let reach = self.pin_mm * (1.0 - self.overlap);
        match self.outline {
            StitchOutline::Straight => {
                let between = self.length_mm - self.pin_mm;
                let gaps = (between / reach - 1e-9).ceil().max(0.0);
                Pins { pins: gaps as u32 + 1, pitch_mm: if gaps > 0.0 { between / gaps } else { 0.0 } }
            }
            StitchOutline::Closed => {
                let pins = (self.length_mm / reach - 1e-9).ceil().max(1.0);
                Pins { pins: pins as u32, pitch_mm: self.length_mm / pins }
            }
        }
    }
}

/// The pin for a wall, in mm; nothing under 5 mm, where no thread holds. House.
#[must_use]
pub fn pin_for_wall_mm(wall: WallMillimetres) -> Option<f64> {
    match wall.millimetres() {
        wall if wall < 5.0 => None,
        wall if wall < 8.0 => Some(6.0),
        wall if wall < 13.0 => Some(8.0),
        wall if wall < 20.0 => Some(10.0),
        _ => Some(12.0),
    }
}

/// Tap drill in mm for an ISO coarse thread of this diameter; nothing for other threads.
#[must_use]
pub fn tap_drill_mm(pin_mm: f64) -> Option<f64> {
    [(6.0, 5.0), (8.0, 6.8), (10.0, 8.5), (12.0, 10.2)]
        .into_iter()
        .find(|(pin, _)| *pin == pin_mm)
        .map(|(_, drill)| drill)
}

/// The order of the pins of a crack, numbered from one end: every second first, then between.
#[must_use]
pub fn crack_order(pins: u32) -> Vec<u32> {
    (1..=pins).step_by(2).chain((2..=pins).step_by(2)).collect()
}

/// Pins that hold a patch before the rest go in, at its quarters. House.
pub const ANCHORS: u32 = 4;

/// The order of the pins round a patch, numbered from one of them: four anchors at the quarters, then each gap from
/// an anchor on.
///
/// # Source
/// House.
#[must_use]
pub fn patch_order(pins: u32) -> Vec<u32> {
    let mut anchors: Vec<u32> = (0..ANCHORS).map(|quarter| quarter * pins / ANCHORS + 1).collect();
    anchors.dedup();
    anchors.retain(|pin| *pin <= pins);
    let between = (1..=pins).filter(|pin| !anchors.contains(pin)).collect::<Vec<_>>();
    anchors.into_iter().chain(between).collect()
}

/// Locks across a crack of this length in mm: one each 40 to 60 mm as near as it divides, one at least.
///
/// # Source
/// House.
#[must_use]
pub fn locks_across(length_mm: f64) -> u32 {
    /// House: locks lie no further apart along a crack.
    const APART_MM: f64 = 60.0;
    (length_mm / APART_MM - 1e-9).ceil().max(1.0) as u32
}

/// How long a lock is in mm, for pins of this diameter. House.
#[must_use]
pub fn lock_length_mm(pin_mm: f64) -> f64 {
    5.0 * pin_mm
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::below_five(4.99, None)]
    #[case::at_five(5.0, Some(6.0))]
    #[case::just_below_eight(7.99, Some(6.0))]
    #[case::at_eight(8.0, Some(8.0))]
    #[case::at_thirteen(13.0, Some(10.0))]
    #[case::at_twenty(20.0, Some(12.0))]
    fn the_pin_follows_the_wall(#[case] wall: f64, #[case] pin: Option<f64>) {
        assert_eq!(pin_for_wall_mm(WallMillimetres::new(wall).unwrap()), pin);
    }

    #[test]
    fn a_row_of_one_pin_has_no_pitch() {
        let row = StitchRow::new(StitchOutline::Straight, 8.0, 8.0, 1.0 / 3.0).unwrap();
        assert_eq!(row.pins(), Pins { pins: 1, pitch_mm: 0.0 });
    }

    #[test]
    fn every_second_pin_goes_first() {
        assert_eq!(crack_order(5), vec![1, 3, 5, 2, 4]);
    }

    #[rstest]
    #[case::none(0, &[])]
    #[case::one(1, &[1])]
    #[case::three(3, &[1, 2, 3])]
    #[case::eight(8, &[1, 3, 5, 7, 2, 4, 6, 8])]
    // Hand-worked: quarters of 46 begin at 0, 11.5, 23 and 34.5 pins
    #[case::ten(10, &[1, 3, 6, 8, 2, 4, 5, 7, 9, 10])]
    fn a_patch_is_anchored_at_its_quarters_first(#[case] pins: u32, #[case] order: &[u32]) {
        assert_eq!(patch_order(pins), order);
        let of_many = patch_order(46);
        assert_eq!(of_many[..6], [1, 12, 24, 35, 2, 3]);
        assert_eq!(of_many.len(), 46);
    }

    #[rstest]
    #[case::shorter_than_a_pin(7.9, 8.0, 0.3, "length_mm")]
    #[case::no_pin(50.0, 0.0, 0.3, "pin_mm")]
    #[case::all_overlap(50.0, 8.0, 1.0, "overlap")]
    fn an_impossible_row_is_refused_at_its_field(
        #[case] length: f64,
        #[case] pin: f64,
        #[case] overlap: f64,
        #[case] field: &str,
    ) {
        let refused = StitchRow::new(StitchOutline::Straight, length, pin, overlap).unwrap_err();
        assert_eq!(refused.0, field);
    }
}
