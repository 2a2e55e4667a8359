//! The hole that ends a crack: which drill, how far past the found tip, how sure.

use serde::Serialize;
use statrs::distribution::{ContinuousCDF, Normal};

use crate::base::choice::choice;
use crate::iron::Iron;
use crate::quantity::WallMillimetres;
use std::f64::consts::PI;

choice! {
    /// How an end of a crack was found.
    pub enum FoundBy {
        Eye = "eye", "By eye";
        ChalkAndOil = "chalk_and_oil", "Chalk and oil";
        Dye = "dye", "Dye penetrant";
        Magnetic = "magnetic", "Magnetic particles";
        /// It showed up or grew when it was heated.
        Heat = "heat", "Seen when it was heated";
        /// It showed up after cooling.
        AfterCooling = "after_cooling", "Seen after cooling";
    }
}

impl FoundBy {
    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::Eye => "found by eye",
            Self::ChalkAndOil => "found with chalk and oil",
            Self::Dye => "found with dye",
            Self::Magnetic => "found with magnetic particles",
            Self::Heat => "seen when it was heated",
            Self::AfterCooling => "seen after cooling",
        }
    }

    /// Something was put on the iron to find it, which has to come out again before any filler.
    #[must_use]
    pub fn leaves_something(self) -> bool {
        matches!(self, Self::ChalkAndOil | Self::Dye)
    }

    /// The iron is cleaned before it is looked at so.
    #[must_use]
    pub fn cleaned_first(self) -> bool {
        matches!(self, Self::ChalkAndOil | Self::Dye | Self::Magnetic)
    }

    /// Mean and standard deviation in mm of how far the true tip lies beyond the found one. House; what
    /// the heat showed is seen by the eye (ours).
    #[must_use]
    pub fn beyond_mm(self) -> (f64, f64) {
        match self {
            Self::Eye | Self::Heat | Self::AfterCooling => (4.0, 3.0),
            Self::ChalkAndOil => (1.5, 1.5),
            Self::Dye => (0.7, 0.8),
            Self::Magnetic => (0.3, 0.6),
        }
    }
}

/// How far the true tip lies beyond the found one, in mm: a mean and how it scatters.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Beyond {
    pub mean_mm: f64,
    pub deviation_mm: f64,
}

impl From<FoundBy> for Beyond {
    /// By the book.
    fn from(found_by: FoundBy) -> Self {
        let (mean_mm, deviation_mm) = found_by.beyond_mm();
        Self { mean_mm, deviation_mm }
    }
}

/// House: the drills a shop has unless it says otherwise, in mm (1/8 to 3/8 in).
pub const ORDINARY_DRILLS_MM: [f64; 7] = [3.2, 4.0, 4.8, 5.5, 6.4, 8.0, 9.5];

/// The drill of the set at or just under a diameter, the smallest where none is; an empty set stands for the
/// ordinary one.
#[must_use]
pub fn drill_under(mm: f64, drills_mm: &[f64]) -> f64 {
    let set = if drills_mm.is_empty() { &ORDINARY_DRILLS_MM } else { drills_mm };
    let smallest = set.iter().copied().fold(f64::INFINITY, f64::min);
    set.iter().copied().filter(|drill| *drill <= mm + 0.05).fold(smallest, f64::max)
}

/// Where to drill, and how likely the crack still runs past.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StopHole {
    pub drill_mm: f64,
    /// Centre of the hole beyond the found tip, along the crack.
    pub offset_mm: f64,
    /// Chance, 0 to 1, that the true tip lies beyond the far side of the hole.
    pub run_past_chance: f64,
    /// No drill of the set catches this tip well enough: find it better first.
    pub find_tip_better: bool,
    /// Drill first with this; nothing for small holes.
    pub pilot_mm: Option<f64>,
    /// Where no drill catches the tip: so far past it the hole would leave 2 % at most, the groove carried
    /// on into it. Nothing where the hole catches it anyway.
    pub well_past_mm: Option<f64>,
}

impl StopHole {
    /// The same drill well past the tip, the groove carried on into the hole; itself where it catches the
    /// tip anyway.
    #[must_use]
    pub fn well_past(self, beyond: impl Into<Beyond>) -> Self {
        let Some(offset_mm) = self.well_past_mm else { return self };
        Self {
            offset_mm,
            run_past_chance: run_past_chance(self.drill_mm, offset_mm, beyond.into()),
            find_tip_better: false,
            ..self
        }
    }

    /// A hole that was really drilled, its centre so far past the found tip.
    #[must_use]
    pub fn drilled(drill_mm: f64, offset_mm: f64, beyond: impl Into<Beyond>) -> Self {
        Self {
            drill_mm,
            offset_mm,
            run_past_chance: run_past_chance(drill_mm, offset_mm, beyond.into()),
            find_tip_better: false,
            pilot_mm: None,
            well_past_mm: None,
        }
    }
}

/// The stop-hole for an end in this wall whose true tip lies so far beyond the found one.
///
/// Wanted diameter = half the wall, between 3.2 and 9.5 mm; D = the next drill at or above.
/// Offset = max(0.3 D, m + 2.054 u - D/2): the first keeps the hole at the end, the second leaves
/// at most 2 % that the tip lies beyond. The crack must still run into the hole, so offset <= D/2,
/// else the next larger drill; else the first D at D/2, and the tip has to be found better, or the hole
/// goes m + 2.054 u - D/2 past it and the groove into the hole.
/// Run past = 1 - Phi((offset + D/2 - m) / u).
///
/// `drills_mm` is the shop's set in any order; an empty one stands for the ordinary set.
///
/// # Source
/// House.
#[must_use]
pub fn stop_hole(wall: WallMillimetres, beyond: impl Into<Beyond>, drills_mm: &[f64]) -> StopHole {
    let mut drills: Vec<f64> =
        if drills_mm.is_empty() { ORDINARY_DRILLS_MM.to_vec() } else { drills_mm.to_vec() };
    drills.sort_by(f64::total_cmp);
    let wanted = (wall.millimetres() / 2.0).clamp(3.2, 9.5);
    let first = drills.iter().position(|&d| d >= wanted).unwrap_or(drills.len() - 1);
    let beyond = beyond.into();
    let Beyond { mean_mm: m, deviation_mm: u } = beyond;
    let offset_for = |d: f64| (0.3 * d).max(m + 2.054 * u - d / 2.0);
    let chosen = drills[first..].iter().copied().find(|&d| offset_for(d) <= d / 2.0);
    let (drill_mm, offset_mm) = match chosen {
        Some(d) => (d, offset_for(d)),
        None => (drills[first], drills[first] / 2.0),
    };
    StopHole {
        drill_mm,
        offset_mm,
        run_past_chance: run_past_chance(drill_mm, offset_mm, beyond),
        find_tip_better: chosen.is_none(),
        // House: from 5 mm on a pilot of three quarters keeps the drill from wandering.
        pilot_mm: (drill_mm >= 5.0).then_some(0.75 * drill_mm),
        well_past_mm: chosen.is_none().then(|| m + 2.054 * u - drill_mm / 2.0),
    }
}

fn run_past_chance(drill_mm: f64, offset_mm: f64, beyond: Beyond) -> f64 {
    let Beyond { mean_mm: m, deviation_mm: u } = beyond;
    Normal::standard().sf((offset_mm + drill_mm / 2.0 - m) / u)
}

/// What a tip is asked for with a hole drilled at it, of what the same tip asks bare: 1 / √(1 + D / (8 L)).
///
/// # Source
/// The stress ahead of a blunt notch over 2 L, L = (K / UTS)² / π, after Creager and Paris; K stood is house.
#[must_use]
pub fn blunted(drill_mm: f64, iron: Iron) -> f64 {
    1.0 / (1.0 + drill_mm / (8.0 * stressed_over_mm(iron))).sqrt()
}

/// L, half of the length ahead of a notch over which iron breaks, in mm.
#[must_use]
pub fn stressed_over_mm(iron: Iron) -> f64 {
    (iron.toughness_mpa_sqrt_m() / iron.properties().tensile_mpa).powi(2) / PI * 1000.0
}

/// What is left of what the bare tip of a crack asks for once its hole is drilled: the tip is blunt, and the crack by
/// half of the hole longer.
#[must_use]
pub fn left_with_hole(length_mm: f64, drill_mm: f64, iron: Iron) -> f64 {
    ((length_mm + drill_mm / 2.0) / length_mm).sqrt() * blunted(drill_mm, iron)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn wall(mm: f64) -> WallMillimetres {
        WallMillimetres::new(mm).unwrap()
    }

    #[rstest]
    #[case::thin_wall_still_gets_the_smallest_ordinary_drill(2.0, FoundBy::Magnetic, 3.2)]
    #[case::thick_wall_is_capped(60.0, FoundBy::Magnetic, 9.5)]
    #[case::poorly_found_tip_goes_up_a_drill(8.0, FoundBy::ChalkAndOil, 4.8)]
    fn the_drill_follows_wall_and_tip(#[case] mm: f64, #[case] found: FoundBy, #[case] drill: f64) {
        assert_eq!(stop_hole(wall(mm), found, &[]).drill_mm, drill);
    }

    #[test]
    fn a_set_without_a_large_enough_drill_uses_its_largest() {
        let hole = stop_hole(wall(14.0), FoundBy::Magnetic, &[5.0, 3.0]);
        assert_eq!((hole.drill_mm, hole.find_tip_better), (5.0, false));
    }

    #[test]
    fn a_tip_seen_by_eye_alone_always_wants_finding_better() {
        for mm in [3.0, 8.0, 14.0, 40.0] {
            let hole = stop_hole(wall(mm), FoundBy::Eye, &[]);
            assert!(hole.find_tip_better, "{mm}");
            assert!(hole.run_past_chance > 0.02, "{mm}");
        }
    }

    #[test]
    fn well_past_a_tip_seen_by_eye_leaves_two_per_cent() {
        let hole = stop_hole(wall(14.0), FoundBy::Eye, &[]);
        // Hand-worked: 4 + 2.054 x 3 - 8 / 2 = 6.162; 1 - Phi(2.054) = 0.02
        let past = hole.well_past(FoundBy::Eye);
        assert!((past.offset_mm - 6.162).abs() < 1e-9 && (past.run_past_chance - 0.02).abs() < 1e-4);
        assert!(!past.find_tip_better && hole.find_tip_better);
        let dye = stop_hole(wall(14.0), FoundBy::Dye, &[]);
        assert_eq!((dye.well_past_mm, dye.well_past(FoundBy::Dye)), (None, dye));
    }

    #[test]
    fn a_hole_blunts_the_tip_and_lengthens_the_crack() {
        // Hand-worked: gray L = (18 / 200)² / pi = 2.578 mm; √(64 / 60) / √(1 + 8 / 20.63) = 1.0328 / 1.1780 = 0.8767
        assert!((left_with_hole(60.0, 8.0, Iron::Gray) - 0.8767).abs() < 1e-4);
        // A large hole at the end of a short crack lengthens it by more than it blunts.
        assert!(left_with_hole(5.0, 8.0, Iron::Gray) > 1.0);
        assert!(left_with_hole(60.0, 9.5, Iron::Gray) < left_with_hole(60.0, 5.0, Iron::Gray));
    }
}
