//! The bar: a part along its longest side, heated by a swept flame, an oven or a fire.

use super::body::{STEFAN_BOLTZMANN, ThermalBody, ZERO_C, loss_w_m2k};
use crate::quantity::{Celsius, Watts};

/// House: cells along the bar.
const USUAL_CELLS: usize = 40;
/// House: emissivity of a casting's skin.
pub(crate) const EMISSIVITY: f64 = 0.8;
/// House: convection in still air and in surroundings that are hot already, W/m²K.
const STILL_AIR_H: f64 = 10.0;
const HOT_AIR_H: f64 = 20.0;
/// House: what gets out through a cover, W/m²K; nothing radiates through it.
const COVERED_H: f64 = 2.4;
/// House: standard deviation of a flame's spot along the bar, in m.
const FLAME_SPREAD_M: f64 = 0.075;
/// Time step in s.
const STEP_S: f64 = 2.0;
/// Ours: an oven that is ramped changes over hours, and the whole part with it.
const OVEN_STEP_S: f64 = 10.0;
const SLOW_RAMP_K_PER_H: f64 = 1_000.0;

/// What heats the bar.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum BarPower {
    /// `even` is swept over the whole part, `local` stays round the station, a fraction 0 to 1 of
    /// the length. A cover lies on this share of the surface, the bare rest round the station: `even` then goes to
    /// what is bare alone.
    Flame { even: Watts, local: Watts, station: f64, covered: f64 },
    /// Surroundings at this temperature from the start, and no power.
    Surroundings(Celsius),
    /// Surroundings that rise from ambient with a ramp to `set`, and never give more than `most` into
    /// the part.
    Oven { set: Celsius, ramp_k_per_h: f64, h_w_m2k: f64, most: Watts },
}

impl BarPower {
    pub(crate) fn step_s(self) -> f64 {
        match self {
            Self::Oven { ramp_k_per_h, .. } if ramp_k_per_h <= SLOW_RAMP_K_PER_H => OVEN_STEP_S,
            Self::Flame { .. } | Self::Surroundings(_) | Self::Oven { .. } => STEP_S,
        }
    }

    /// What a flame gives, or an oven at most, in W.
    pub fn net_w(self) -> f64 {
        match self {
            Self::Flame { even, local, .. } => even.watts() + local.watts(),
            Self::Oven { most, .. } => most.watts(),
            Self::Surroundings(_) => 0.0,
        }
    }

    /// What a cover leaves bare of the surface.
    pub fn bare_share(self) -> f64 {
        match self {
            Self::Flame { covered, .. } => 1.0 - covered,
            Self::Oven { .. } | Self::Surroundings(_) => 1.0,
        }
    }
}

/// A casting along its length, at a moment.
pub type Bar = BarOf<USUAL_CELLS>;

/// The same in so many cells: only to show that more of them change nothing.
#[derive(Debug, Clone)]
pub struct BarOf<const CELLS: usize> {
    cells_c: [f64; CELLS],
    /// Conduction between neighbours, W/K.
    link_w_k: f64,
    cell_mass_kg: f64,
    cell_surface_m2: f64,
    shares: [f64; CELLS],
    even_w: f64,
    local_w: f64,
    /// No cover lies on it.
    bare: [bool; CELLS],
    bare_count: f64,
    surroundings_c: f64,
    h: f64,
    /// Of an oven: set temperature, K/h, and the most it gives in W.
    oven: Option<(f64, f64, f64)>,
    body: ThermalBody,
}

impl<const CELLS: usize> BarOf<CELLS> {
    #[must_use]
    pub fn new(body: &ThermalBody, power: BarPower, start: Celsius) -> Self {
        let length_m = body.longest_m();
        let section_m2 = body.mass.kilograms() / body.iron.density_kg_m3 / length_m;
        let cell_m = length_m / CELLS as f64;
        let mut bar = Self {
            cells_c: [start.celsius(); CELLS],
            link_w_k: body.iron.conductivity_w_mk * section_m2 / cell_m,
            cell_mass_kg: body.mass.kilograms() / CELLS as f64,
            cell_surface_m2: body.surface_m2() / CELLS as f64,
            shares: [1.0 / CELLS as f64; CELLS],
            even_w: 0.0,
            local_w: 0.0,
            bare: [true; CELLS],
            bare_count: CELLS as f64,
            surroundings_c: body.ambient.celsius(),
            h: STILL_AIR_H,
            oven: None,
            body: *body,
        };
        bar.heat_with(power);
        bar
    }

    /// Changes what heats the bar, its temperatures kept.
    pub fn heat_with(&mut self, power: BarPower) {
        (self.bare, self.bare_count) = ([true; CELLS], CELLS as f64);
        match power {
            BarPower::Flame { even, local, station, covered } => {
                self.cover(station, covered);
                let length_m = self.body.longest_m();
                let weights: [f64; CELLS] = std::array::from_fn(|cell| {
                    let x = (cell as f64 + 0.5) / CELLS as f64;
                    let z = (x - station) * length_m / FLAME_SPREAD_M;
                    // A floor keeps the sum from vanishing when the flame is far off the part.
                    (-0.5 * z * z).exp().max(1e-300)
                });
                let sum: f64 = weights.iter().sum();
                self.shares = weights.map(|w| w / sum);
                (self.even_w, self.local_w) = (even.watts(), local.watts());
                (self.surroundings_c, self.h) = (self.body.ambient.celsius(), STILL_AIR_H);
                self.oven = None;
            }
            BarPower::Surroundings(surroundings) => {
                (self.even_w, self.local_w) = (0.0, 0.0);
                (self.surroundings_c, self.h) = (surroundings.celsius(), HOT_AIR_H);
                self.oven = None;
            }
            BarPower::Oven { set, ramp_k_per_h, h_w_m2k, most } => {
                (self.even_w, self.local_w) = (0.0, 0.0);
                // One that is on already stays as hot as it is; another begins at what it finds.
                if self.oven.is_none() {
                    self.surroundings_c = self.coldest_c();
                }
                (self.h, self.oven) = (h_w_m2k, Some((set.celsius(), ramp_k_per_h, most.watts())));
            }
        }
    }

    /// Lays a cover on a share of the surface; what lies nearest the station stays bare.
    fn cover(&mut self, station: f64, share: f64) {
        let bare = ((1.0 - share) * CELLS as f64).round().clamp(1.0, CELLS as f64) as usize;
        let mut nearest: [usize; CELLS] = std::array::from_fn(|cell| cell);
        let off = |cell: usize| ((cell as f64 + 0.5) / CELLS as f64 - station).abs();
        nearest.sort_by(|a, b| off(*a).total_cmp(&off(*b)));
        self.bare = [false; CELLS];
        for cell in &nearest[..bare] {
            self.bare[*cell] = true;
        }
        self.bare_count = bare as f64;
    }

    /// What a cell loses for each K at a temperature, to the air and to the iron round it.
    fn loss_w_k(&self, cell: usize, t: f64) -> f64 {
        self.cell_surface_m2 * self.loss_w_m2k(cell, t) + self.body.drain_w_k() / CELLS as f64
    }

    /// What a cell loses for each K and m² at a temperature.
    fn loss_w_m2k(&self, cell: usize, t: f64) -> f64 {
        if self.bare[cell] { loss_w_m2k(self.h, EMISSIVITY, t, self.surroundings_c) } else { COVERED_H }
    }

    /// The surroundings after a step, and the W into each cell where the oven gives all it has.
    fn warm_the_oven(&mut self, step_s: f64) -> Option<[f64; CELLS]> {
        let (set_c, ramp_k_per_h, most_w) = self.oven?;
        let up = ramp_k_per_h * step_s / 3600.0;
        self.surroundings_c = if self.surroundings_c < set_c {
            (self.surroundings_c + up).min(set_c)
        } else {
            (self.surroundings_c - up).max(set_c)
        };
        let into: [f64; CELLS] = std::array::from_fn(|cell| {
            let t = self.cells_c[cell];
            self.cell_surface_m2
                * loss_w_m2k(self.h, EMISSIVITY, t, self.surroundings_c)
                * (self.surroundings_c - t)
        });
        let all_w: f64 = into.iter().sum();
        (all_w > most_w).then(|| into.map(|w| w * most_w / all_w))
    }

    /// What is swept over the part, to each cell that is bare, in W.
    fn swept_w(&self) -> f64 {
        self.even_w / self.bare_count
    }

    fn power_into(&self, cell: usize, swept_w: f64) -> f64 {
        (if self.bare[cell] { swept_w } else { 0.0 }) + self.local_w * self.shares[cell]
    }

    /// One backward Euler step of `step_s`, properties and radiation taken at its start.
    pub fn step(&mut self, step_s: f64) {
        let given = self.warm_the_oven(step_s);
        let g = self.link_w_k;
        let (a_step_kg, swept_w) = (self.cell_mass_kg / step_s, self.swept_w());
        let (mut diagonal, mut load) = ([0.0; CELLS], [0.0; CELLS]);
        for cell in 0..CELLS {
            let t = self.cells_c[cell];
            let heat_w_k = a_step_kg * self.body.iron.specific_heat(t);
            let (loss_w_k, power_w) = match given {
                Some(given) => (0.0, given[cell]),
                None => (self.loss_w_k(cell, t), self.power_into(cell, swept_w)),
            };
            let links = if cell == 0 || cell == CELLS - 1 { g } else { 2.0 * g };
            diagonal[cell] = heat_w_k + loss_w_k + links;
            load[cell] = heat_w_k * t + loss_w_k * self.surroundings_c + power_w;
        }
        // Eliminated from both ends at once, to the two cells in the middle: neither chain waits for the other. Each
        // cell is then t + u times the one further in.
        let half = const {
            assert!(CELLS.is_multiple_of(2), "the chains meet between two cells");
            CELLS / 2
        };
        let (mut u, mut t) = ([0.0; CELLS], load);
        let eliminated = |cell: usize, (outer_u, outer_t): (f64, f64)| {
            let pivot = 1.0 / (diagonal[cell] - g * outer_u);
            (g * pivot, (load[cell] + g * outer_t) * pivot)
        };
        let (mut left, mut right) = ((0.0, 0.0), (0.0, 0.0));
        for outer in 0..half {
            let mirrored = CELLS - 1 - outer;
            left = eliminated(outer, left);
            right = eliminated(mirrored, right);
            (u[outer], t[outer]) = left;
            (u[mirrored], t[mirrored]) = right;
        }
        t[half] = (right.1 + right.0 * left.1) / (1.0 - right.0 * left.0);
        t[half - 1] = left.1 + left.0 * t[half];
        for outer in (0..half - 1).rev() {
            let mirrored = CELLS - 1 - outer;
            t[outer] += u[outer] * t[outer + 1];
            t[mirrored] += u[mirrored] * t[mirrored - 1];
        }
        self.cells_c = t;
    }

    /// Puts energy in J into the cell at `station`, a fraction of the length: a bead just laid.
    pub fn strike(&mut self, station: f64, joules: f64) {
        let cell = ((station * CELLS as f64) as usize).min(CELLS - 1);
        let heat = self.cell_mass_kg * self.body.iron.specific_heat(self.cells_c[cell]);
        self.cells_c[cell] += joules / heat;
    }

    #[must_use]
    pub fn cells_c(&self) -> &[f64] {
        &self.cells_c
    }

    #[must_use]
    pub fn coldest_c(&self) -> f64 {
        // Four at once: looked at after every step.
        let (fours, rest) = self.cells_c.as_chunks::<4>();
        let least = fours.iter().fold([f64::INFINITY; 4], |least, four| {
            std::array::from_fn(|at| if four[at] < least[at] { four[at] } else { least[at] })
        });
        least.into_iter().chain(rest.iter().copied()).fold(f64::INFINITY, f64::min)
    }

    #[must_use]
    pub fn hottest_c(&self) -> f64 {
        self.cells_c.iter().copied().fold(f64::NEG_INFINITY, f64::max)
    }

    #[must_use]
    pub fn mean_c(&self) -> f64 {
        self.cells_c.iter().sum::<f64>() / CELLS as f64
    }

    /// Temperature at a fraction of the length.
    #[must_use]
    pub fn at_c(&self, station: f64) -> f64 {
        self.cells_c[((station * CELLS as f64) as usize).min(CELLS - 1)]
    }

    /// Temperatures from one end to the other, in degC, averaged over so many places.
    #[must_use]
    pub fn along_c<const PLACES: usize>(&self) -> [f32; PLACES] {
        let each = CELLS / PLACES;
        std::array::from_fn(|place| {
            let cells = &self.cells_c[place * each..(place + 1) * each];
            (cells.iter().sum::<f64>() / each as f64) as f32
        })
    }

    /// Range of the departures from the least-squares straight line along the bar, in K: a
    /// straight gradient bends a free part without stress.
    #[must_use]
    pub fn unevenness_k(&self) -> f64 {
        let middle = (CELLS as f64 - 1.0) / 2.0;
        let mean = self.mean_c();
        let (mut slope, mut spread) = (0.0, 0.0);
        for (cell, t) in self.cells_c.iter().enumerate() {
            let x = cell as f64 - middle;
            slope += x * (t - mean);
            spread += x * x;
        }
        let slope = slope / spread;
        let residuals =
            self.cells_c.iter().enumerate().map(|(cell, t)| t - mean - slope * (cell as f64 - middle));
        let (low, high) =
            residuals.fold((f64::INFINITY, f64::NEG_INFINITY), |(l, h), r| (l.min(r), h.max(r)));
        high - low
    }

    /// Heat balance of a cell in W at the present temperatures.
    fn balance_w(&self, cell: usize) -> f64 {
        let t = self.cells_c[cell];
        let loss = self.loss_w_k(cell, t) * (t - self.surroundings_c);
        let left = if cell > 0 { self.cells_c[cell - 1] - t } else { 0.0 };
        let right = if cell < CELLS - 1 { self.cells_c[cell + 1] - t } else { 0.0 };
        self.power_into(cell, self.swept_w()) - loss + self.link_w_k * (left + right)
    }

    /// Moves the temperatures to the steady state by Newton's method.
    pub(crate) fn settle(&mut self) {
        /// House: Newton's method is there long before.
        const ROUNDS: usize = 100;
        if let Some((set_c, _, _)) = self.oven {
            self.surroundings_c = set_c;
        }
        // From far above, every step lands above the solution: the losses grow faster than
        // linearly. So it cannot oscillate.
        self.cells_c = [self.hottest_c().max(3000.0); CELLS];
        for _ in 0..ROUNDS {
            let g = self.link_w_k;
            let mut upper = [0.0; CELLS];
            let mut right = [0.0; CELLS];
            for cell in 0..CELLS {
                let kelvin = self.cells_c[cell] + ZERO_C;
                let radiates = 4.0 * EMISSIVITY * STEFAN_BOLTZMANN * kelvin.powi(3);
                let to_air = if self.bare[cell] { self.h + radiates } else { COVERED_H };
                let slope = self.cell_surface_m2 * to_air + self.body.drain_w_k() / CELLS as f64;
                let links = if cell == 0 || cell == CELLS - 1 { g } else { 2.0 * g };
                let (before_upper, before_right) =
                    if cell == 0 { (0.0, 0.0) } else { (upper[cell - 1], right[cell - 1]) };
                let below = if cell == 0 { 0.0 } else { g };
                let pivot = 1.0 / (slope + links - below * before_upper);
                upper[cell] = g * pivot;
                right[cell] = (self.balance_w(cell) + below * before_right) * pivot;
            }
            let mut moved: f64 = 0.0;
            let mut change = right[CELLS - 1];
            for cell in (0..CELLS).rev() {
                if cell < CELLS - 1 {
                    change = right[cell] + upper[cell] * change;
                }
                self.cells_c[cell] += change;
                moved = moved.max(change.abs());
            }
            if moved < 1e-4 {
                break;
            }
        }
    }
}

impl<const CELLS: usize> PartialEq for BarOf<CELLS> {
    fn eq(&self, other: &Self) -> bool {
        self.cells_c == other.cells_c
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;
    use crate::iron::Iron;
    use crate::quantity::{Kilograms, Millimetres};
    use crate::sim::energy_joules;

    fn body(kg: f64, [l, w, h]: [f64; 3]) -> ThermalBody {
        let mm = |value| Millimetres::new(value).unwrap();
        let ambient = Celsius::new(20.0).unwrap();
        ThermalBody::new(
            Iron::Gray.properties(),
            Kilograms::new(kg).unwrap(),
            (mm(l), mm(w), mm(h)),
            1.0,
            ambient,
        )
        .unwrap()
    }

    fn flame(watts: f64, even: f64, station: f64) -> BarPower {
        let watt = |w| Watts::new(w).unwrap();
        BarPower::Flame { even: watt(watts * even), local: watt(watts * (1.0 - even)), station, covered: 0.0 }
    }

    /// Coldest and hottest after so many minutes, in so many cells.
    fn after<const CELLS: usize>(body: &ThermalBody, power: BarPower, minutes: f64) -> (f64, f64) {
        let mut bar = BarOf::<CELLS>::new(body, power, body.ambient);
        for _ in 0..(minutes * 60.0 / STEP_S) as u32 {
            bar.step(STEP_S);
        }
        (bar.coldest_c(), bar.hottest_c())
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(16))]
        #[test]
        fn twice_as_many_cells_change_nothing_to_speak_of(
            kg in 4.0..60.0f64, watts in 1_000.0..8_000.0f64, even in 0.2..0.9f64, station in 0.0..1.0f64
        ) {
            let body = body(kg, [500.0, 200.0, 120.0]);
            let (coarse, fine) =
                (after::<40>(&body, flame(watts, even, station), 20.0), after::<80>(&body, flame(watts, even, station), 20.0));
            for (coarse, fine) in [(coarse.0, fine.0), (coarse.1, fine.1)] {
                prop_assert!(((coarse - 20.0) / (fine - 20.0) - 1.0).abs() < 0.02, "{coarse} {fine}");
            }
        }

        #[test]
        fn what_goes_in_is_stored_or_lost(
            kg in 4.0..60.0f64, watts in 500.0..8_000.0f64, even in 0.2..0.9f64, station in 0.0..1.0f64
        ) {
            let body = body(kg, [500.0, 200.0, 120.0]);
            let mut bar = Bar::new(&body, flame(watts, even, station), body.ambient);
            let stored = |bar: &Bar| -> f64 {
                let mass = Kilograms::new(bar.cell_mass_kg).unwrap();
                let cells = bar.cells_c.iter();
                cells.map(|c| energy_joules(&body.iron, mass, body.ambient, Celsius::new(*c).unwrap())).sum()
            };
            let (mut given, mut lost) = (0.0, 0.0);
            for _ in 0..600 {
                let loses: Vec<f64> = (0..USUAL_CELLS)
                    .map(|cell| bar.loss_w_m2k(cell, bar.cells_c[cell]) * bar.cell_surface_m2)
                    .collect();
                bar.step(STEP_S);
                given += watts * STEP_S;
                lost += loses.iter().zip(&bar.cells_c).map(|(w_k, c)| w_k * (c - 20.0) * STEP_S).sum::<f64>();
            }
            let off = given - lost - stored(&bar);
            prop_assert!(off.abs() < 0.005 * given, "{off} of {given}");
        }

        #[test]
        fn more_power_is_never_slower(
            kg in 4.0..60.0f64, watts in 500.0..8_000.0f64, more in 1.0..2.0f64, station in 0.0..1.0f64
        ) {
            let body = body(kg, [500.0, 200.0, 120.0]);
            let (weak, strong) =
                (after::<40>(&body, flame(watts, 0.5, station), 10.0), after::<40>(&body, flame(watts * more, 0.5, station), 10.0));
            prop_assert!(strong.0 >= weak.0 - 1e-9);
        }
    }
}
