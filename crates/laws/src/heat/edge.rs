//! How hard the edge of a weld gets: how fast it cools from 800 to 500 degC.

use crate::iron::IronProperties;
use crate::quantity::{Celsius, WallMillimetres};

/// One pass of an arc.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pass {
    pub volts: f64,
    pub amps: f64,
    pub travel_mm_s: f64,
    /// Share of the arc's power that goes into the part.
    pub efficiency: f64,
}

/// House: under this many seconds the edge is hard, expect to grind.
pub const HARD_EDGE_S: f64 = 10.0;

/// Cooling time from 800 to 500 degC in s, the longer of the thick and the thin plate's.
///
/// q = eta V I / v in J/m; thick plate q / (2 pi k) x (1/(500-T0) - 1/(800-T0)); thin plate
/// q² / (4 pi k rho c d²) x (1/(500-T0)² - 1/(800-T0)²), c at 650 degC. Nothing at 500 degC or
/// more: the edge does not harden.
///
/// # Source
/// Rosenthal's moving source.
#[must_use]
pub fn t8_5_s(iron: &IronProperties, pass: Pass, wall: WallMillimetres, part: Celsius) -> Option<f64> {
    use std::f64::consts::PI;
    let t0 = part.celsius();
    if t0 >= 500.0 {
        return None;
    }
    let q = pass.efficiency * pass.volts * pass.amps / (pass.travel_mm_s / 1000.0);
    let (k, rho, c) = (iron.conductivity_w_mk, iron.density_kg_m3, iron.specific_heat(650.0));
    let d = wall.millimetres() / 1000.0;
    let (to_500, to_800) = (1.0 / (500.0 - t0), 1.0 / (800.0 - t0));
    let thick = q / (2.0 * PI * k) * (to_500 - to_800);
    let thin = q * q / (4.0 * PI * k * rho * c * d * d) * (to_500 * to_500 - to_800 * to_800);
    Some(thick.max(thin))
}

/// Least part temperature in degC, to 5 K, at which the edge takes [`HARD_EDGE_S`] to cool.
#[must_use]
pub fn softening_preheat_c(iron: &IronProperties, pass: Pass, wall: WallMillimetres) -> f64 {
    (4..=99)
        .map(|step| f64::from(step) * 5.0)
        .find(|celsius| {
            Celsius::new(*celsius)
                .ok()
                .and_then(|part| t8_5_s(iron, pass, wall, part))
                .is_none_or(|seconds| seconds >= HARD_EDGE_S)
        })
        .unwrap_or(500.0)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::iron::Iron;
    use rstest::rstest;

    #[rstest]
    // Published: the trade reference, examples, "edge"
    #[case::cold(Iron::Gray, 90.0, 20.0, 12.0, 2.3125)]
    #[case::hot(Iron::Gray, 90.0, 300.0, 12.0, 18.0089)]
    #[case::thick_ductile(Iron::Ductile, 115.0, 200.0, 25.0, 5.5616)]
    fn the_edge_cools_as_the_worked_examples_have_it(
        #[case] iron: Iron,
        #[case] amps: f64,
        #[case] t0_c: f64,
        #[case] wall_mm: f64,
        #[case] seconds: f64,
    ) {
        let pass = Pass { volts: 22.0, amps, travel_mm_s: 2.5, efficiency: 0.75 };
        let wall = WallMillimetres::new(wall_mm).unwrap();
        let found = t8_5_s(&iron.properties(), pass, wall, Celsius::new(t0_c).unwrap()).unwrap();
        assert!((found / seconds - 1.0).abs() < 0.01, "{found}");
    }

    #[test]
    fn a_part_at_five_hundred_has_no_hard_edge() {
        let pass = Pass { volts: 22.0, amps: 90.0, travel_mm_s: 2.5, efficiency: 0.75 };
        let wall = WallMillimetres::new(12.0).unwrap();
        let at = |celsius| t8_5_s(&Iron::Gray.properties(), pass, wall, Celsius::new(celsius).unwrap());
        assert_eq!(at(500.0), None);
        assert!(at(499.0).unwrap() > HARD_EDGE_S);
    }

    #[test]
    fn the_softening_preheat_is_just_enough() {
        let pass = Pass { volts: 22.0, amps: 90.0, travel_mm_s: 2.5, efficiency: 0.75 };
        let wall = WallMillimetres::new(12.0).unwrap();
        let iron = Iron::Gray.properties();
        let preheat = softening_preheat_c(&iron, pass, wall);
        let at = |celsius| t8_5_s(&iron, pass, wall, Celsius::new(celsius).unwrap()).unwrap();
        assert!(at(preheat) >= HARD_EDGE_S && at(preheat - 5.0) < HARD_EDGE_S, "{preheat}");
    }
}
