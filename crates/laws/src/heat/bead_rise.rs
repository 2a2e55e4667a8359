//! How warm a bead leaves the wall beside it.

use std::f64::consts::PI;

use statrs::function::erf::erf;

use crate::iron::IronProperties;

/// A bead that was laid.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LaidBead {
    pub joules: f64,
    pub length_mm: f64,
    pub wall_mm: f64,
}

/// Free edges either side of a place, in mm from it: they throw the heat back. Nothing where the iron goes on.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct FreeEdges {
    pub less: Option<f64>,
    pub more: Option<f64>,
}

impl FreeEdges {
    /// House: between two edges so many periods of its images are felt, either way.
    const PERIODS: i32 = 2;

    /// A place and its mirror images: a bead is felt at each of them.
    ///
    /// # Source
    /// Method of images (law): no heat goes through a free edge.
    pub fn images(self, at_mm: f64) -> impl Iterator<Item = f64> {
        self.again(at_mm).chain(self.mirrored(at_mm))
    }

    /// The place itself, and where it comes again between two edges.
    pub(super) fn again(self, at_mm: f64) -> impl Iterator<Item = f64> {
        let period = self.less.zip(self.more).map(|(less, more)| 2.0 * (less + more));
        let periods = if period.is_some() { Self::PERIODS } else { 0 };
        (-periods..=periods).map(move |n| at_mm + f64::from(n) * period.unwrap_or(0.0))
    }

    /// Its mirror images alone.
    pub(super) fn mirrored(self, at_mm: f64) -> impl Iterator<Item = f64> {
        let mirrored = match (self.less, self.more) {
            (Some(less), _) => Some(-2.0 * less - at_mm),
            (None, more) => more.map(|more| 2.0 * more - at_mm),
        };
        mirrored.into_iter().flat_map(move |place| self.again(place))
    }

    /// At most so many places feel what is felt at one.
    pub(super) fn count(self) -> usize {
        self.images(0.0).count()
    }

    /// No image of a place within a length of these edges lies further away, in mm.
    pub(super) fn reach_mm(self, length_mm: f64) -> f64 {
        self.images(0.0).chain(self.images(length_mm)).map(f64::abs).fold(length_mm, f64::max)
    }

    /// The same edges from a place that lies so much further on.
    #[must_use]
    pub fn from_mm(self, further_mm: f64) -> Self {
        Self { less: self.less.map(|mm| mm + further_mm), more: self.more.map(|mm| mm - further_mm) }
    }
}

/// Where the wall round a bead ends.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct WallEnds {
    /// Behind and ahead of its start.
    pub along: FreeEdges,
    /// To the right and to the left of it, looking along it: left is +y.
    pub across: FreeEdges,
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
/// × [1 + 2 Σ exp(−n² π² a τ / d²)] × exp(−2 h τ / ρ c d), summed over the images of the place along and across.
///
/// # Source
/// Conduction in a plate (law); h and c are house.
#[must_use]
pub fn bead_rise_k(
    iron: &IronProperties,
    bead: &LaidBead,
    ends: &WallEnds,
    (along_mm, across_mm): (f64, f64),
    after_s: f64,
) -> f64 {
    /// House: images on either side; what lies further adds nothing a pad would read.
    const TERMS: u32 = 200;
    let tau = after_s.max(SOONEST_S);
    let (d, l) = (bead.wall_mm / 1000.0, bead.length_mm / 1000.0);
    let rho_c = iron.density_kg_m3 * iron.specific_heat(TAKEN_AT_C);
    let at = iron.conductivity_w_mk / rho_c * tau;
    let width = 2.0 * at.sqrt();
    let plate = bead.joules / (d * rho_c) / (4.0 * PI * at).sqrt();
    let metres = |mm: f64| mm / 1000.0;
    let beside: f64 = ends.across.images(across_mm).map(metres).map(|y| (-y * y / (4.0 * at)).exp()).sum();
    let along = ends.along.images(along_mm).map(metres);
    let line: f64 = along.map(|x| (erf(x / width) - erf((x - l) / width)) / (2.0 * l)).sum();
    let mut depth = 1.0;
    for n in 1..=TERMS {
        let term = (-f64::from(n * n) * PI * PI * at / (d * d)).exp();
        depth += 2.0 * term;
        if term < 1e-12 {
            break;
        }
    }
    plate * beside * line * depth * (-2.0 * GIVES_OFF * tau / (rho_c * d)).exp()
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use rstest::rstest;

    use super::*;
    use crate::iron::Iron;

    const OPEN: WallEnds = WallEnds {
        along: FreeEdges { less: None, more: None },
        across: FreeEdges { less: None, more: None },
    };

    fn edges(less: Option<f64>, more: Option<f64>) -> FreeEdges {
        FreeEdges { less, more }
    }

    #[rstest]
    // Published: the trade reference, examples of bead-rise
    #[case::none(Iron::Gray, (14_850.0, 25.0, 10.0), (12.5, 0.0), 60.0, OPEN, 37.1)]
    #[case::behind(Iron::Gray, (14_850.0, 25.0, 10.0), (12.5, 0.0), 60.0, WallEnds { along: edges(Some(0.0), None), ..OPEN }, 67.91)]
    #[case::left(Iron::Gray, (14_850.0, 25.0, 10.0), (12.5, 0.0), 60.0, WallEnds { across: edges(None, Some(30.0)), ..OPEN }, 49.4)]
    #[case::both_ends(Iron::Ductile, (20_000.0, 40.0, 12.0), (20.0, 0.0), 45.0, WallEnds { along: edges(Some(10.0), Some(50.0)), ..OPEN }, 98.69)]
    #[case::a_strip(Iron::Gray, (15_000.0, 25.0, 12.0), (5.0, 0.0), 90.0, WallEnds { across: edges(Some(25.0), Some(25.0)), ..OPEN }, 50.24)]
    #[case::beside(Iron::Gray, (15_000.0, 25.0, 12.0), (12.5, 15.0), 60.0, WallEnds { across: edges(None, Some(30.0)), ..OPEN }, 46.59)]
    fn edges_throw_the_heat_back(
        #[case] iron: Iron,
        #[case] (joules, length_mm, wall_mm): (f64, f64, f64),
        #[case] at: (f64, f64),
        #[case] after_s: f64,
        #[case] ends: WallEnds,
        #[case] expected_k: f64,
    ) {
        let bead = LaidBead { joules, length_mm, wall_mm };
        let got = bead_rise_k(&iron.properties(), &bead, &ends, at, after_s);
        assert!((got / expected_k - 1.0).abs() < 0.005, "{got}");
    }

    proptest! {
        #[test]
        fn a_bead_warms_less_further_off(
            x in -40.0..60.0f64, y in 0.0..60.0f64, more in 0.1..40.0f64, after in 5.0..600.0f64
        ) {
            let bead = LaidBead { joules: 14_850.0, length_mm: 25.0, wall_mm: 10.0 };
            let gray = Iron::Gray.properties();
            let near = bead_rise_k(&gray, &bead, &OPEN, (x, y), after);
            prop_assert!(near >= 0.0);
            prop_assert!(bead_rise_k(&gray, &bead, &OPEN, (x, y + more), after) <= near + 1e-9);
        }
    }

    proptest! {
        #[test]
        fn an_edge_never_makes_it_cooler_and_one_far_off_is_not_felt(
            x in -10.0..50.0f64, y in -10.0..10.0f64, after in 5.0..600.0f64, off in 10.0..90.0f64
        ) {
            let bead = LaidBead { joules: 14_850.0, length_mm: 25.0, wall_mm: 10.0 };
            let gray = Iron::Gray.properties();
            let open = bead_rise_k(&gray, &bead, &OPEN, (x, y), after);
            for side in [edges(Some(off), None), edges(None, Some(off + 50.0)), edges(Some(off), Some(off + 50.0))] {
                let along = bead_rise_k(&gray, &bead, &WallEnds { along: side, ..OPEN }, (x, y), after);
                let across = bead_rise_k(&gray, &bead, &WallEnds { across: side, ..OPEN }, (x, y), after);
                prop_assert!(along >= open && across >= open);
            }
            let far = WallEnds { along: edges(Some(3_000.0), None), across: edges(None, Some(3_000.0)) };
            prop_assert!((bead_rise_k(&gray, &bead, &far, (x, y), after) - open).abs() < 1e-9);
        }

        #[test]
        fn through_an_edge_no_heat_goes(y in 0.5..10.0f64, after in 5.0..300.0f64, off in 10.0..60.0f64) {
            // The two sides of an edge mirror each other: as much is felt just before it as just beyond.
            let bead = LaidBead { joules: 14_850.0, length_mm: 25.0, wall_mm: 10.0 };
            let gray = Iron::Gray.properties();
            let ends = WallEnds { across: edges(None, Some(off)), ..OPEN };
            let at = |y: f64| bead_rise_k(&gray, &bead, &ends, (12.5, y), after);
            prop_assert!((at(off - y) - at(off + y)).abs() < 1e-9);
        }
    }
}
