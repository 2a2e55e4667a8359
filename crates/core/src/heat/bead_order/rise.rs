//! What the beads laid so far leave of warmth beside a place, looked up instead of worked out each time.

use std::f64::consts::PI;

use statrs::function::erf::erf;

use crate::heat::pull::{GIVES_OFF, SOONEST_S, TAKEN_AT_C};
use crate::iron::IronProperties;
use crate::sim::Body;

use super::BeadSeam;

/// Ours: the table's rows are so far apart in the logarithm of time; between them it is taken straight.
const ROW: f64 = 0.03;
/// Ours: places are looked at each quarter of a bead.
const QUARTERS: usize = 4;
/// Beyond this many widths of the spreading heat there is none to speak of.
const REACH: f64 = 4.5;

/// Rise over the part's own temperature that an equal bead leaves along the seam, by time since its end.
#[derive(Debug, PartialEq)]
pub(super) struct RiseTable {
    /// K at each quarter of a bead from the bead's middle outwards, a row a time.
    rows: Vec<Vec<f64>>,
    /// a, in m²/s.
    spreads_m2_s: f64,
    bulk_k: f64,
}

impl RiseTable {
    /// For a seam so long, until a bead is not to be felt any more, for a day at most.
    ///
    /// As [`bead_rise_k`](crate::heat::bead_rise_k), at y = 0.
    pub fn new(body: &Body, seam: &BeadSeam) -> Self {
        let joules = seam.power_w * seam.each_s();
        // So much of its rise is in the part as a whole already.
        let bulk_k = joules / (body.mass.kilograms() * body.iron.specific_heat(TAKEN_AT_C));
        Self::of(&body.iron, (joules, seam.each_mm(), seam.wall_mm), seam.length_mm, bulk_k)
    }

    fn of(
        iron: &IronProperties,
        (joules, each_mm, wall_mm): (f64, f64, f64),
        seam_mm: f64,
        bulk_k: f64,
    ) -> Self {
        const A_DAY_S: f64 = 86_400.0;
        let (d, l) = (wall_mm / 1000.0, each_mm / 1000.0);
        let rho_c = iron.density_kg_m3 * iron.specific_heat(TAKEN_AT_C);
        let spreads_m2_s = iron.conductivity_w_mk / rho_c;
        let quarter = l / QUARTERS as f64;
        let most = (seam_mm / 1000.0 / quarter).ceil() as usize + QUARTERS;
        let mut rows = Vec::new();
        let mut tau = SOONEST_S;
        while tau < A_DAY_S {
            let at = spreads_m2_s * tau;
            let width = 2.0 * at.sqrt();
            let mut depth = 1.0;
            for n in 1..=200_u32 {
                let term = (-f64::from(n * n) * PI * PI * at / (d * d)).exp();
                depth += 2.0 * term;
                if term < 1e-12 {
                    break;
                }
            }
            let plate = joules / (d * rho_c) / (4.0 * PI * at).sqrt()
                * depth
                * (-2.0 * GIVES_OFF * tau / (rho_c * d)).exp();
            let reaches = ((REACH * width + l) / quarter).ceil() as usize;
            let places = most.min(reaches) + 1;
            // The error function at each quarter from a bead's length before the middle outwards.
            let half = QUARTERS / 2;
            let steps: Vec<f64> =
                (0..places + QUARTERS).map(|at| erf((at as f64 - half as f64) * quarter / width)).collect();
            let row: Vec<f64> = (0..places)
                .map(|place| plate * (steps[place + QUARTERS] - steps[place]) / (2.0 * l))
                .collect();
            let felt = row[0] > bulk_k.max(0.01);
            rows.push(row);
            if !felt {
                break;
            }
            tau *= ROW.exp();
        }
        Self { rows, spreads_m2_s, bulk_k }
    }

    /// How a bead that ended so long ago is felt; nothing once it is not.
    pub fn after(&self, seconds: f64) -> Option<Felt<'_>> {
        let tau = seconds.max(SOONEST_S);
        let row = (tau / SOONEST_S).ln() / ROW;
        let before = row.floor() as usize;
        let (before_row, after_row) = (self.rows.get(before)?, self.rows.get(before + 1)?);
        Some(Felt {
            before: before_row,
            after: after_row,
            part: row - before as f64,
            four_a_tau_mm2: 4e6 * self.spreads_m2_s * tau,
            bulk_k: self.bulk_k,
        })
    }
}

/// A bead at a moment.
#[derive(Debug, Clone, Copy)]
pub(super) struct Felt<'a> {
    before: &'a [f64],
    after: &'a [f64],
    part: f64,
    four_a_tau_mm2: f64,
    bulk_k: f64,
}

impl Felt<'_> {
    /// How much less it is felt this far beside it.
    pub fn beside(&self, across_mm: f64) -> f64 {
        if across_mm == 0.0 { 1.0 } else { (-across_mm * across_mm / self.four_a_tau_mm2).exp() }
    }

    /// K over the part's own temperature, so many quarters of a bead from its middle.
    pub fn rise_k(&self, quarters: usize, beside: f64) -> f64 {
        let (Some(before), after) = (self.before.get(quarters), self.after.get(quarters)) else { return 0.0 };
        let rise = before + (after.copied().unwrap_or(0.0) - before) * self.part;
        (rise * beside - self.bulk_k).max(0.0)
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;
    use crate::heat::{LaidBead, bead_rise_k};
    use crate::iron::Iron;

    proptest! {
        #[test]
        fn looked_up_it_is_what_the_law_gives(
            quarter in 0..40_usize, after in 0.0..1500.0f64, y in prop::sample::select(vec![0.0, 4.0, 12.0])
        ) {
            let gray = Iron::Gray.properties();
            let table = RiseTable::of(&gray, (14_850.0, 25.0, 10.0), 250.0, 0.0);
            let law = LaidBead { joules: 14_850.0, length_mm: 25.0, wall_mm: 10.0 };
            let along = 12.5 + quarter as f64 * 6.25;
            let expected = bead_rise_k(&gray, &law, (along, y), after);
            let got = table.after(after).map_or(0.0, |felt| felt.rise_k(quarter, felt.beside(y)));
            prop_assert!((got - expected).abs() < 0.05 + expected * 2e-3, "{got} {expected}");
        }
    }

    #[test]
    fn what_is_in_the_bulk_already_is_not_counted_again() {
        let gray = Iron::Gray.properties();
        let table = RiseTable::of(&gray, (14_850.0, 25.0, 10.0), 250.0, 5.0);
        let law = LaidBead { joules: 14_850.0, length_mm: 25.0, wall_mm: 10.0 };
        let felt = table.after(30.0).unwrap();
        let expected = bead_rise_k(&gray, &law, (12.5, 0.0), 30.0) - 5.0;
        assert!((felt.rise_k(0, 1.0) - expected).abs() < 0.2);
        assert!(table.after(20_000.0).is_none(), "it is not felt for ever");
    }
}
