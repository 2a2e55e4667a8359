//! Whether a crack runs while it is heated.

use std::f64::consts::PI;

use crate::iron::IronProperties;

/// A hot spot and the tip of a crack.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HotSpot {
    pub spread_mm: f64,
    /// From the middle of the spot to the tip.
    pub tip_distance_mm: f64,
    /// The spot over the mean of the rest.
    pub difference_k: f64,
    pub points_at_flame: bool,
    /// It runs away from the flame, to a free edge beyond it.
    pub free_edge_beyond: bool,
}

/// House, from a comparison with finite elements: towards a free edge it pulls so much more.
const TOWARD_AN_EDGE: f64 = 3.0;

/// House: from this share of what the iron stands a tip is likely to run on.
pub const RUNS_FROM: f64 = 0.7;

/// Pull across a crack in MPa that points at a hot spot in a plate; 0 where it is pressed shut, or lies across it.
///
/// E α ΔT [(s/r)² (1 − e) − e], e = exp(−r² / 2 s²)
///
/// # Source
/// Thermal stress round a Gaussian spot (law); the factor is house.
#[must_use]
pub fn thermal_stress_mpa(iron: &IronProperties, spot: &HotSpot) -> f64 {
    if !spot.points_at_flame || spot.tip_distance_mm <= 0.0 {
        return 0.0;
    }
    let ratio = spot.spread_mm / spot.tip_distance_mm;
    let e = (-0.5 / (ratio * ratio)).exp();
    let restrained_mpa = iron.youngs_gpa * 1e3 * iron.expansion_1e6_per_k * 1e-6 * spot.difference_k;
    let around = restrained_mpa * (ratio * ratio * (1.0 - e) - e);
    (around * if spot.free_edge_beyond { TOWARD_AN_EDGE } else { 1.0 }).max(0.0)
}

/// Stress intensity in MPa√m at the tip of a crack of this length under a pull.
///
/// σ √(π c), c half the length; from an edge 1.12 σ √(π length).
///
/// # Source
/// Linear elastic fracture mechanics (law).
#[must_use]
pub fn stress_intensity(pull_mpa: f64, crack_length_mm: f64, from_edge: bool) -> f64 {
    let metres = crack_length_mm / 1000.0;
    if from_edge { 1.12 * pull_mpa * (PI * metres).sqrt() } else { pull_mpa * (PI * metres / 2.0).sqrt() }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::iron::Iron;

    fn spot(r: f64, points: bool, edge: bool) -> HotSpot {
        HotSpot {
            spread_mm: 75.0,
            tip_distance_mm: r,
            difference_k: 160.0,
            points_at_flame: points,
            free_edge_beyond: edge,
        }
    }

    /// By hand: 100 √(π 0.010) = 17.72; from an edge 1.12 × 100 √(π 0.020) = 28.07.
    #[test]
    fn a_crack_feels_half_its_length_and_from_an_edge_all_of_it() {
        assert!((stress_intensity(100.0, 20.0, false) - 17.725).abs() < 0.001);
        assert!((stress_intensity(100.0, 20.0, true) - 28.074).abs() < 0.001);
    }

    #[test]
    fn a_crack_is_pressed_shut_near_the_flame_and_pulled_open_beyond_it() {
        let gray = Iron::Gray.properties();
        // Published: nothing under 1.6 s, most at about 2.5 s, 0.11 of what is restrained
        assert_eq!(thermal_stress_mpa(&gray, &spot(1.5 * 75.0, true, false)), 0.0);
        let most = thermal_stress_mpa(&gray, &spot(2.5 * 75.0, true, false));
        assert!((most / (100e3 * 11.7e-6 * 160.0) - 0.11).abs() < 0.01, "{most}");
        assert_eq!(thermal_stress_mpa(&gray, &spot(2.5 * 75.0, false, true)), 0.0, "one that lies across it");
        assert!((thermal_stress_mpa(&gray, &spot(2.5 * 75.0, true, true)) - 3.0 * most).abs() < 1e-9);
    }
}
