//! Metal that is missing, and what builds it up again.

use crate::base::problem::OutOfRange;
use crate::map::{At, ON_IT_MM, area_mm2, closed, nearest_rim};

/// Left on each free side to be machined off again, in mm. House.
pub const ALLOWANCE_MM: f64 = 3.0;
/// One layer of a 3.2 mm rod over the whole bond face, in mm. House.
pub const BUTTER_MM: f64 = 2.5;

/// What a missing piece takes, in mm³.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MissingMetal {
    /// With the allowance.
    pub volume_mm3: f64,
    /// The first layer, over all of the bond face: a part of the volume.
    pub butter_mm3: f64,
    /// Outline along which it is bonded to the casting, and where it is free, in mm.
    pub bond_mm: f64,
    pub free_mm: f64,
}

impl MissingMetal {
    /// A missing piece by its outline on a face with these rims: a side that runs along a rim is free, the others
    /// are bonded. The allowance goes on both flat sides and on every free edge.
    ///
    /// # Errors
    /// [`OutOfRange`] for a thickness of none or of an absurd size.
    pub fn of(outline: &[At], rims: &[Vec<At>], thick_mm: f64) -> Result<Self, OutOfRange> {
        OutOfRange::check("a thickness", "mm", (1.0, 300.0), thick_mm)?;
        let on_a_rim = |at: At| nearest_rim(rims, at).is_some_and(|(mm, _)| mm <= ON_IT_MM);
        let (mut bond_mm, mut free_mm) = (0.0, 0.0);
        for side in closed(outline).windows(2) {
            let long = side[0].distance_mm(side[1]);
            if [side[0], side[0].between(side[1], 0.5), side[1]].into_iter().all(on_a_rim) {
                free_mm += long;
            } else {
                bond_mm += long;
            }
        }
        let area = area_mm2(outline) + ALLOWANCE_MM * free_mm;
        let volume_mm3 = area * (thick_mm + 2.0 * ALLOWANCE_MM);
        Ok(Self {
            volume_mm3,
            butter_mm3: (bond_mm * thick_mm * BUTTER_MM).min(volume_mm3),
            bond_mm,
            free_mm,
        })
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    fn square(left: f64, top: f64, wide: f64, high: f64) -> Vec<At> {
        vec![
            At::new(left, top),
            At::new(left + wide, top),
            At::new(left + wide, top + high),
            At::new(left, top + high),
        ]
    }

    #[test]
    fn a_corner_that_is_gone_takes_its_allowance_too() {
        // Hand-worked: 40 x 30 out of the lower left corner of 200 x 140: free 40 below and 30 at the left, bonded
        // 70. Area 1200 + 3 x 70 = 1410; 12 + 6 = 18 thick: 25 380 mm3. Butter 70 x 12 x 2.5 = 2100 mm3.
        let rims = [square(0.0, 0.0, 200.0, 140.0)];
        let gone = MissingMetal::of(&square(0.0, 110.0, 40.0, 30.0), &rims, 12.0).unwrap();
        assert_eq!((gone.free_mm, gone.bond_mm), (70.0, 70.0));
        assert!((gone.volume_mm3 - 25_380.0).abs() < 1e-6, "{gone:?}");
        assert!((gone.butter_mm3 - 2_100.0).abs() < 1e-6, "{gone:?}");
    }

    #[test]
    fn a_hole_inside_is_bonded_all_round() {
        let rims = [square(0.0, 0.0, 200.0, 140.0)];
        let gone = MissingMetal::of(&square(50.0, 50.0, 20.0, 20.0), &rims, 10.0).unwrap();
        assert_eq!((gone.free_mm, gone.bond_mm), (0.0, 80.0));
        assert!((gone.volume_mm3 - 400.0 * 16.0).abs() < 1e-6);
    }

    #[test]
    fn a_thickness_of_none_is_refused() {
        for thick in [0.0, -3.0, f64::NAN, 400.0] {
            assert!(MissingMetal::of(&square(0.0, 0.0, 9.0, 9.0), &[], thick).is_err(), "{thick}");
        }
    }

    proptest! {
        #[test]
        fn moving_it_with_its_face_changes_nothing(dx in -500.0..500.0_f64, dy in -500.0..500.0_f64, thick in 1.0..80.0_f64) {
            let moved = |points: Vec<At>| points.into_iter().map(|at| At::new(at.x_mm + dx, at.y_mm + dy)).collect::<Vec<_>>();
            let (rim, piece) = (square(0.0, 0.0, 200.0, 140.0), square(0.0, 110.0, 40.0, 30.0));
            let here = MissingMetal::of(&piece, std::slice::from_ref(&rim), thick).unwrap();
            let there = MissingMetal::of(&moved(piece), &[moved(rim)], thick).unwrap();
            prop_assert!((here.volume_mm3 - there.volume_mm3).abs() < 1e-6 * here.volume_mm3);
            prop_assert!((here.bond_mm - there.bond_mm).abs() < 1e-6);
        }
    }
}
