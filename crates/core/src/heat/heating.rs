//! The bar model: the part as a bar along its longest side, heated by a swept flame, an oven or a fire.

use super::body::{Body, STEFAN_BOLTZMANN, ZERO_C, loss_w_m2k};
use crate::quantity::{Celsius, Seconds, Watts};

/// Cells along the bar.
const CELLS: usize = 40;
/// House: emissivity of a casting's skin.
const EMISSIVITY: f64 = 0.8;
/// House: convection in still air and in surroundings that are hot already, W/m²K.
const STILL_AIR_H: f64 = 10.0;
const HOT_AIR_H: f64 = 20.0;
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
    /// the length.
    Flame { even: Watts, local: Watts, station: f64 },
    /// Surroundings at this temperature from the start, and no power.
    Surroundings(Celsius),
    /// Surroundings that rise from ambient with a ramp to `set`, and never give more than `most` into
    /// the part.
    Oven { set: Celsius, ramp_k_per_h: f64, h_w_m2k: f64, most: Watts },
}

impl BarPower {
    fn step_s(self) -> f64 {
        match self {
            Self::Oven { ramp_k_per_h, .. } if ramp_k_per_h <= SLOW_RAMP_K_PER_H => OVEN_STEP_S,
            Self::Flame { .. } | Self::Surroundings(_) | Self::Oven { .. } => STEP_S,
        }
    }
}

/// A casting along its length, at a moment.
#[derive(Debug, Clone)]
pub struct Bar {
    cells_c: [f64; CELLS],
    /// Conduction between neighbours, W/K.
    link_w_k: f64,
    cell_mass_kg: f64,
    cell_surface_m2: f64,
    shares: [f64; CELLS],
    even_w: f64,
    local_w: f64,
    surroundings_c: f64,
    h: f64,
    /// Of an oven: set temperature, K/h, and the most it gives in W.
    oven: Option<(f64, f64, f64)>,
    body: Body,
}

impl Bar {
    #[must_use]
    pub fn new(body: &Body, power: BarPower, start: Celsius) -> Self {
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
        match power {
            BarPower::Flame { even, local, station } => {
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

    fn power_into(&self, cell: usize) -> f64 {
        self.even_w / CELLS as f64 + self.local_w * self.shares[cell]
    }

    /// One backward Euler step of `step_s`, properties and radiation taken at its start.
    pub fn step(&mut self, step_s: f64) {
        let given = self.warm_the_oven(step_s);
        let g = self.link_w_k;
        let mut upper = [0.0; CELLS];
        let mut right = [0.0; CELLS];
        for cell in 0..CELLS {
            let t = self.cells_c[cell];
            let heat_w_k = self.cell_mass_kg * self.body.iron.specific_heat(t) / step_s;
            let (loss_w_k, power_w) = match given {
                Some(given) => (0.0, given[cell]),
                None => {
                    let loss = loss_w_m2k(self.h, EMISSIVITY, t, self.surroundings_c);
                    (self.cell_surface_m2 * loss, self.power_into(cell))
                }
            };
            let links = if cell == 0 || cell == CELLS - 1 { g } else { 2.0 * g };
            let diagonal = heat_w_k + loss_w_k + links;
            let load = heat_w_k * t + loss_w_k * self.surroundings_c + power_w;
            let (before_upper, before_right) =
                if cell == 0 { (0.0, 0.0) } else { (upper[cell - 1], right[cell - 1]) };
            let below = if cell == 0 { 0.0 } else { g };
            let pivot = 1.0 / (diagonal - below * before_upper);
            upper[cell] = g * pivot;
            right[cell] = (load + below * before_right) * pivot;
        }
        self.cells_c[CELLS - 1] = right[CELLS - 1];
        for cell in (0..CELLS - 1).rev() {
            self.cells_c[cell] = right[cell] + upper[cell] * self.cells_c[cell + 1];
        }
    }

    /// Puts energy in J into the cell at `station`, a fraction of the length: a bead just laid.
    pub fn strike(&mut self, station: f64, joules: f64) {
        let cell = ((station * CELLS as f64) as usize).min(CELLS - 1);
        let heat = self.cell_mass_kg * self.body.iron.specific_heat(self.cells_c[cell]);
        self.cells_c[cell] += joules / heat;
    }

    #[must_use]
    pub fn coldest_c(&self) -> f64 {
        self.cells_c.iter().copied().fold(f64::INFINITY, f64::min)
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
        let loss = loss_w_m2k(self.h, EMISSIVITY, t, self.surroundings_c)
            * self.cell_surface_m2
            * (t - self.surroundings_c);
        let left = if cell > 0 { self.cells_c[cell - 1] - t } else { 0.0 };
        let right = if cell < CELLS - 1 { self.cells_c[cell + 1] - t } else { 0.0 };
        self.power_into(cell) - loss + self.link_w_k * (left + right)
    }

    /// Moves the temperatures to the steady state by Newton's method.
    fn settle(&mut self) {
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
                let slope =
                    self.cell_surface_m2 * (self.h + 4.0 * EMISSIVITY * STEFAN_BOLTZMANN * kelvin.powi(3));
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

/// How a heating went.
#[derive(Debug, Clone, PartialEq)]
pub struct Heating {
    /// The bar at the end.
    pub bar: Bar,
    /// (time in min, coldest degC, hottest degC), about one a minute.
    pub curve: Vec<(f64, f64, f64)>,
    /// (time in min, worst unevenness in K so far, worst hottest less coldest in K so far), every
    /// 30 s, counted while the hottest cell was under 500 degC, where it stresses the part.
    worst: Vec<(f64, f64, f64)>,
    /// Coldest cell's temperature after each step, first the start.
    coldest_c: Vec<f32>,
    step_s: f64,
}

impl PartialEq for Bar {
    fn eq(&self, other: &Self) -> bool {
        self.cells_c == other.cells_c
    }
}

impl Heating {
    /// How much there is to keep of it, in numbers of 8 bytes.
    pub(super) fn points(&self) -> usize {
        3 * (self.curve.len() + self.worst.len()) + self.coldest_c.len() / 2
    }

    /// Minutes until the coldest cell reached `target_c`; nothing when it did not.
    #[must_use]
    pub fn minutes_to(&self, target_c: f64) -> Option<f64> {
        let at = self.coldest_c.iter().position(|&t| f64::from(t) >= target_c)?;
        if at == 0 {
            return Some(0.0);
        }
        let (before, after) = (f64::from(self.coldest_c[at - 1]), f64::from(self.coldest_c[at]));
        let part = (target_c - before) / (after - before);
        Some((at as f64 - 1.0 + part) * self.step_s / 60.0)
    }

    /// The coldest cell at the end.
    #[must_use]
    pub fn coldest_at_the_end_c(&self) -> f64 {
        self.coldest_c.last().copied().map_or(f64::NAN, f64::from)
    }

    /// The hottest cell after a time, as the curve has it.
    #[must_use]
    pub fn hottest_at_c(&self, minutes: f64) -> f64 {
        let after = self.curve.partition_point(|(at, _, _)| *at < minutes);
        self.curve[after.min(self.curve.len() - 1)].2
    }

    /// Worst unevenness and worst difference hottest to coldest, in K, up to a time.
    #[must_use]
    pub fn worst_until(&self, minutes: f64) -> (f64, f64) {
        let after = self.worst.partition_point(|(at, _, _)| *at <= minutes + 0.5);
        let (_, unevenness_k, difference_k) = self.worst[after.max(1) - 1];
        (unevenness_k, difference_k)
    }

    fn run(body: &Body, power: BarPower, most_s: f64, stop_at_c: f64) -> Self {
        /// House: above this the iron gives, and unevenness does not stress it.
        const GIVES_C: f64 = 500.0;
        let mut bar = Bar::new(body, power, body.ambient);
        let start = body.ambient.celsius();
        let mut coldest_c = vec![start as f32];
        let mut curve = vec![(0.0, start, start)];
        let (mut worst_unevenness_k, mut worst_difference_k) = (0.0_f64, 0.0_f64);
        let mut worst = vec![(0.0, 0.0, 0.0)];
        let step_s = power.step_s();
        // Worst every 30 s, a point of the curve each minute.
        let (look, point) = ((30.0 / step_s) as u64, (60.0 / step_s) as u64);
        let mut time_s = 0.0;
        let mut step: u64 = 0;
        while time_s < most_s - 1e-9 {
            let this_step = step_s.min(most_s - time_s);
            bar.step(this_step);
            time_s += this_step;
            step += 1;
            let coldest = bar.coldest_c();
            coldest_c.push(coldest as f32);
            if step.is_multiple_of(look) {
                let hottest = bar.hottest_c();
                if hottest < GIVES_C {
                    worst_unevenness_k = worst_unevenness_k.max(bar.unevenness_k());
                    worst_difference_k = worst_difference_k.max(hottest - coldest);
                }
                worst.push((time_s / 60.0, worst_unevenness_k, worst_difference_k));
                if step.is_multiple_of(point) {
                    curve.push((time_s / 60.0, coldest, hottest));
                }
            }
            if coldest >= stop_at_c {
                break;
            }
        }
        curve.push((time_s / 60.0, bar.coldest_c(), bar.hottest_c()));
        Self { bar, curve, worst, coldest_c, step_s }
    }
}

/// Heats a part from ambient for a time.
///
/// Bar of 40 cells along the longest side; section = mass / rho / L; conduction between cells;
/// the surface spread evenly; loss 10 W/m²K and radiation of emissivity 0.8, in an oven 20 W/m²K.
/// Backward Euler, 2 s (an oven with its ramp 10 s), properties and radiation lagged. An oven's
/// surroundings rise with its ramp, and what it gives into the part is held at its power.
///
/// # Validity
/// Estimate within 30 % (house). The iron's own transformation above 730 degC is not in it.
#[must_use]
pub fn heat_for(body: &Body, power: BarPower, time: Seconds) -> Heating {
    Heating::run(body, power, time.seconds(), f64::INFINITY)
}

/// Heats a part from ambient until its coldest cell is at `target`, or `most` has passed.
#[must_use]
pub fn heat_until(body: &Body, power: BarPower, target: Celsius, most: Seconds) -> Heating {
    Heating::run(body, power, most.seconds(), target.celsius())
}

/// Where the coldest cell ends up in degC when the source stays on for ever.
#[must_use]
pub fn ceiling_c(body: &Body, power: BarPower) -> f64 {
    let mut bar = Bar::new(body, power, body.ambient);
    bar.settle();
    bar.coldest_c()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::iron::Iron;
    use crate::quantity::{Kilograms, Millimetres};

    fn body() -> Body {
        let mm = |value| Millimetres::new(value).unwrap();
        Body::new(
            Iron::Gray.properties(),
            Kilograms::new(9.0).unwrap(),
            (mm(500.0), mm(120.0), mm(100.0)),
            1.0,
            Celsius::new(20.0).unwrap(),
        )
        .unwrap()
    }

    fn flame(watts: f64, even: f64, station: f64) -> BarPower {
        let watt = |w| Watts::new(w).unwrap();
        BarPower::Flame { even: watt(watts * even), local: watt(watts * (1.0 - even)), station }
    }

    #[test]
    fn a_long_heating_comes_to_the_ceiling() {
        let power = flame(1500.0, 0.5, 0.3);
        let long = heat_for(&body(), power, Seconds::new(100_000.0).unwrap());
        assert!((long.bar.coldest_c() - ceiling_c(&body(), power)).abs() < 0.1);
    }

    #[test]
    fn a_careful_sweep_is_more_even_than_a_fixed_flame() {
        let worst = |even| {
            let most = Seconds::new(1200.0).unwrap();
            heat_for(&body(), flame(1500.0, even, 0.5), most).worst_until(20.0).0
        };
        assert!(worst(0.8) < worst(0.5) && worst(0.5) < worst(0.2));
    }

    #[test]
    fn a_target_above_the_ceiling_is_never_reached() {
        let power = flame(300.0, 0.5, 0.5);
        let most = Seconds::new(10_800.0).unwrap();
        let run = heat_until(&body(), power, Celsius::new(600.0).unwrap(), most);
        assert_eq!(run.minutes_to(600.0), None);
        assert!(run.minutes_to(60.0).is_some());
    }

    fn frame(kg: f64, size_mm: (f64, f64, f64)) -> Body {
        let mm = |value| Millimetres::new(value).unwrap();
        let (l, w, h) = size_mm;
        let ambient = Celsius::new(20.0).unwrap();
        let kg = Kilograms::new(kg).unwrap();
        Body::new(Iron::Gray.properties(), kg, (mm(l), mm(w), mm(h)), 1.3, ambient).unwrap()
    }

    fn oven(set_c: f64, ramp_k_per_h: f64, most_w: f64) -> BarPower {
        let (set, most) = (Celsius::new(set_c).unwrap(), Watts::new(most_w).unwrap());
        BarPower::Oven { set, ramp_k_per_h, h_w_m2k: 20.0, most }
    }

    #[test]
    fn an_oven_follows_its_ramp_and_never_gives_more_than_it_has() {
        // Published: the trade reference's worked examples, oven, both cases, to 1.5 K
        let ramped = frame(22.0, (420.0, 300.0, 220.0));
        let hour = Seconds::new(3600.0).unwrap();
        let at = heat_for(&ramped, oven(300.0, 300.0, 1e6), hour).bar.mean_c();
        assert!((at - 288.1).abs() < 1.5, "{at}");
        let weak = frame(11.0, (350.0, 350.0, 250.0));
        let five = Seconds::new(300.0).unwrap();
        let at = heat_for(&weak, oven(260.0, 6000.0, 2500.0), five).bar.mean_c();
        assert!((at - 151.3).abs() < 1.5, "{at}");
    }

    #[test]
    fn a_kiln_takes_as_long_as_its_ramp() {
        // Hand-worked: from 20 to 600 degC at 300 K/h is 116 min, at 100 K/h 348 min; the part lags.
        let body = frame(11.0, (350.0, 350.0, 250.0));
        let most = Seconds::new(36_000.0).unwrap();
        let minutes = |ramp| {
            let run = heat_until(&body, oven(650.0, ramp, 8_000.0), Celsius::new(600.0).unwrap(), most);
            run.minutes_to(600.0).unwrap()
        };
        assert!((116.0..126.0).contains(&minutes(300.0)), "{}", minutes(300.0));
        assert!((348.0..366.0).contains(&minutes(100.0)), "{}", minutes(100.0));
    }

    #[test]
    fn no_heating_time_leaves_the_part_at_ambient() {
        let run = heat_for(&body(), flame(1500.0, 0.5, 0.5), Seconds::new(0.0).unwrap());
        assert_eq!((run.bar.coldest_c(), run.minutes_to(20.0)), (20.0, Some(0.0)));
    }
}
