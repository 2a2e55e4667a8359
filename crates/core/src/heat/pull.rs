//! Whether a crack runs while it is heated, and how warm a bead leaves the wall beside it.

use std::f64::consts::PI;

use statrs::function::erf::erf;

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

/// Pull across a crack in MPa that points at a hot spot in a plate; 0 where it is pressed shut, or lies across it.
///
/// E α ΔT [(s/r)² (1 − e) − e], e = exp(−r² / 2 s²)
///
/// # Source
/// Thermal stress round a Gaussian spot (law); the factor is house.
#[must_use]
pub fn pull_mpa(iron: &IronProperties, spot: &HotSpot) -> f64 {
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

/// A bead that was laid.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LaidBead {
    pub joules: f64,
    pub length_mm: f64,
    pub wall_mm: f64,
}

/// House: sooner after it no place beside a bead is reckoned, in s.
pub(super) const SOONEST_S: f64 = 5.0;
/// House: the heat that the plate gives off, W/m²K.
pub(super) const GIVES_OFF: f64 = 25.0;
/// House: its specific heat is taken at this temperature, in degC.
pub(super) const TAKEN_AT_C: f64 = 200.0;

/// Rise in K at the near surface `along_mm` from the start of a bead and `across_mm` beside it, so long after its end.
///
/// (E / d ρ c) / √(4 π a τ) × exp(−y² / 4 a τ) × [erf(x / 2√(a τ)) − erf((x − l) / 2√(a τ))] / 2 l
/// × [1 + 2 Σ exp(−n² π² a τ / d²)] × exp(−2 h τ / ρ c d)
///
/// # Source
/// Conduction in a plate (law); h and c are house.
#[must_use]
pub fn bead_rise_k(
    iron: &IronProperties,
    bead: &LaidBead,
    (along_mm, across_mm): (f64, f64),
    after_s: f64,
) -> f64 {
    const TERMS: u32 = 200;
    let tau = after_s.max(SOONEST_S);
    let (d, l) = (bead.wall_mm / 1000.0, bead.length_mm / 1000.0);
    let (x, y) = (along_mm / 1000.0, across_mm / 1000.0);
    let rho_c = iron.density_kg_m3 * iron.specific_heat(TAKEN_AT_C);
    let at = iron.conductivity_w_mk / rho_c * tau;
    let width = 2.0 * at.sqrt();
    let plate = bead.joules / (d * rho_c) / (4.0 * PI * at).sqrt() * (-y * y / (4.0 * at)).exp();
    let line = (erf(x / width) - erf((x - l) / width)) / (2.0 * l);
    let mut depth = 1.0;
    for n in 1..=TERMS {
        let term = (-f64::from(n * n) * PI * PI * at / (d * d)).exp();
        depth += 2.0 * term;
        if term < 1e-12 {
            break;
        }
    }
    plate * line * depth * (-2.0 * GIVES_OFF * tau / (rho_c * d)).exp()
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

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

    #[test]
    fn a_crack_is_pressed_shut_near_the_flame_and_pulled_open_beyond_it() {
        let gray = Iron::Gray.properties();
        // Published: nothing under 1.6 s, most at about 2.5 s, 0.11 of what is restrained
        assert_eq!(pull_mpa(&gray, &spot(1.5 * 75.0, true, false)), 0.0);
        let most = pull_mpa(&gray, &spot(2.5 * 75.0, true, false));
        assert!((most / (100e3 * 11.7e-6 * 160.0) - 0.11).abs() < 0.01, "{most}");
        assert_eq!(pull_mpa(&gray, &spot(2.5 * 75.0, false, true)), 0.0, "one that lies across it");
        assert!((pull_mpa(&gray, &spot(2.5 * 75.0, true, true)) - 3.0 * most).abs() < 1e-9);
    }

    proptest! {
        #[test]
        fn a_bead_warms_less_further_off(
            x in -40.0..60.0f64, y in 0.0..60.0f64, more in 0.1..40.0f64, after in 5.0..600.0f64
        ) {
            let bead = LaidBead { joules: 14_850.0, length_mm: 25.0, wall_mm: 10.0 };
            let gray = Iron::Gray.properties();
            let near = bead_rise_k(&gray, &bead, (x, y), after);
            prop_assert!(near >= 0.0);
            prop_assert!(bead_rise_k(&gray, &bead, (x, y + more), after) <= near + 1e-9);
        }
    }
}
