//! A hot casting as one lump: bare in still air, or inside the shells of its packing.

use std::f64::consts::PI;

use super::body::{ThermalBody, loss_w_m2k};

/// Loss of the packing's outside to still air, W/m²K. House.
const OUTSIDE_H: f64 = 10.0;
/// House: shells a packing is laid out in.
const SHELLS: usize = 60;
/// House: a step in a packing, in s.
const PACKED_STEP_S: f64 = 20.0;
/// House: a step in still air, in s.
const AIR_STEP_S: f64 = 2.0;

/// What cools, a step at a time.
pub(crate) trait Cools {
    const STEP_S: f64;
    /// One backward Euler step; the loss outside is scaled by a factor.
    fn step(&mut self, loss_factor: f64);
    /// The casting's temperature in degC.
    fn core_c(&self) -> f64;
}

/// What is outermost, as the shop sees it.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Outside {
    pub emissivity: f64,
}

/// A packing round a casting.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Shell {
    pub thickness_m: f64,
    /// W/mK and J/m³K.
    pub k: f64,
    pub rho_c: f64,
    /// As warm as this when it is laid on.
    pub start_c: f64,
}

/// The casting alone.
pub(crate) struct Lump {
    body: ThermalBody,
    core_c: f64,
    outside: Outside,
}

impl Lump {
    pub(crate) fn new(body: &ThermalBody, start_c: f64, outside: Outside) -> Self {
        Self { body: *body, core_c: start_c, outside }
    }
}

impl Cools for Lump {
    const STEP_S: f64 = AIR_STEP_S;

    fn step(&mut self, loss_factor: f64) {
        let (t, ambient) = (self.core_c, self.body.ambient.celsius());
        let heat = self.body.mass.kilograms() * self.body.iron.specific_heat(t) / AIR_STEP_S;
        let to_air = loss_factor * loss_w_m2k(OUTSIDE_H, self.outside.emissivity, t, ambient);
        let loss = self.body.surface_m2() * to_air + self.body.drain_w_k();
        self.core_c = (heat * t + loss * ambient) / (heat + loss);
    }

    fn core_c(&self) -> f64 {
        self.core_c
    }
}

/// Shells between the innermost and the outermost: arithmetic; their equations never change.
const INNER: usize = SHELLS - 1;
/// House: the one in the middle of them: as many lie on either side.
const MIDDLE: usize = INNER / 2;
const _: () = assert!(INNER % 2 == 1);

/// The lump and its shells; node 0 is the casting, node 60 the outermost shell.
///
/// Only the casting's own heat and the loss at the outside change from step to step. What lies
/// between is eliminated once: each inner temperature is p + q T60 + r T0, and a step solves the
/// two ends for T0 and T60.
pub(crate) struct Shells {
    body: ThermalBody,
    t: [f64; SHELLS + 1],
    /// Conductance in W/K from node i to node i + 1.
    link: [f64; SHELLS],
    /// Heat capacity over the step in W/K, of shell i + 1.
    heat_w_k: [f64; SHELLS],
    /// Of inner node i + 1, eliminated from both ends to the middle: one over its pivot, and with that the links to the
    /// node further out and further in.
    pivot: [f64; INNER],
    outward: [f64; INNER],
    inward: [f64; INNER],
    q: [f64; INNER],
    r: [f64; INNER],
    /// Conductance in W/K from the last shell's middle to the outer surface.
    outer_link: f64,
    outer_area: f64,
    outer_c: f64,
    outside: Outside,
}

impl Shells {
    pub(crate) fn new(body: &ThermalBody, start_c: f64, shell: Shell, outside: Outside) -> Self {
        let Shell { thickness_m, k, rho_c, start_c: shell_c } = shell;
        let inner = (body.surface_m2() / (4.0 * PI)).sqrt();
        let step = thickness_m / SHELLS as f64;
        let edge = |shell: usize| inner + step * shell as f64;
        let middle = |shell: usize| edge(shell) + step / 2.0;
        let conductance = |from: f64, to: f64| 4.0 * PI * k / (1.0 / from - 1.0 / to);
        let mut t = [shell_c; SHELLS + 1];
        t[0] = start_c;
        let outer = edge(SHELLS);
        let link: [f64; SHELLS] = std::array::from_fn(|i| {
            let from = if i == 0 { inner } else { middle(i - 1) };
            conductance(from, middle(i))
        });
        let heat_w_k: [f64; SHELLS] = std::array::from_fn(|i| {
            rho_c * 4.0 / 3.0 * PI * (edge(i + 1).powi(3) - edge(i).powi(3)) / PACKED_STEP_S
        });
        let (mut pivot, mut outward, mut inward) = ([0.0; INNER], [0.0; INNER], [0.0; INNER]);
        let own = |i: usize| heat_w_k[i] + link[i] + link[i + 1];
        // (link outwards, link inwards): the left half counts from the casting, the right half from outside.
        let mut eliminate = |i: usize, (out, inner): (f64, f64), before: f64| {
            pivot[i] = 1.0 / (own(i) - out * before);
            (outward[i], inward[i]) = (out * pivot[i], inner * pivot[i]);
            inward[i]
        };
        let (mut left, mut right) = (0.0, 0.0);
        for i in 0..MIDDLE {
            let mirrored = INNER - 1 - i;
            left = eliminate(i, (link[i], link[i + 1]), left);
            right = eliminate(mirrored, (link[mirrored + 1], link[mirrored]), right);
        }
        pivot[MIDDLE] = 1.0 / (own(MIDDLE) - link[MIDDLE] * left - link[MIDDLE + 1] * right);
        let mut shells = Self {
            t,
            link,
            heat_w_k,
            pivot,
            outward,
            inward,
            q: [0.0; INNER],
            r: [0.0; INNER],
            outer_link: conductance(middle(SHELLS - 1), outer),
            outer_area: 4.0 * PI * outer * outer,
            outer_c: shell_c,
            outside,
            body: *body,
        };
        let mut from_outside = [0.0; INNER];
        from_outside[INNER - 1] = link[SHELLS - 1];
        shells.q = shells.inner(&from_outside);
        let mut from_casting = [0.0; INNER];
        from_casting[0] = link[0];
        shells.r = shells.inner(&from_casting);
        shells
    }

    /// The inner temperatures that a load in W gives, with both ends at 0 degC.
    fn inner(&self, load: &[f64; INNER]) -> [f64; INNER] {
        let mut x: [f64; INNER] = std::array::from_fn(|i| load[i] * self.pivot[i]);
        let (mut left, mut right) = (0.0, 0.0);
        for i in 0..MIDDLE {
            let mirrored = INNER - 1 - i;
            left = x[i] + self.outward[i] * left;
            right = x[mirrored] + self.outward[mirrored] * right;
            (x[i], x[mirrored]) = (left, right);
        }
        x[MIDDLE] += (self.link[MIDDLE] * left + self.link[MIDDLE + 1] * right) * self.pivot[MIDDLE];
        (left, right) = (x[MIDDLE], x[MIDDLE]);
        for i in (0..MIDDLE).rev() {
            let mirrored = INNER - 1 - i;
            left = x[i] + self.inward[i] * left;
            right = x[mirrored] + self.inward[mirrored] * right;
            (x[i], x[mirrored]) = (left, right);
        }
        x
    }
}

impl Cools for Shells {
    const STEP_S: f64 = PACKED_STEP_S;

    /// The loss outside is taken at the surface's last temperature.
    fn step(&mut self, loss_factor: f64) {
        let ambient = self.body.ambient.celsius();
        let surface_w_k = self.outer_area
            * loss_factor
            * loss_w_m2k(OUTSIDE_H, self.outside.emissivity, self.outer_c, ambient);
        let out_w_k = 1.0 / (1.0 / self.outer_link + 1.0 / surface_w_k);
        let load: [f64; INNER] = std::array::from_fn(|i| self.heat_w_k[i] * self.t[i + 1]);
        let p = self.inner(&load);
        let last = INNER - 1;
        let (first_link, last_link) = (self.link[0], self.link[SHELLS - 1]);
        let casting_w_k =
            self.body.mass.kilograms() * self.body.iron.specific_heat(self.t[0]) / PACKED_STEP_S;
        // a T0 + b T60 = e at the casting, c T0 + d T60 = f at the outermost shell.
        let drain_w_k = self.body.drain_w_k();
        let (a, b) = (casting_w_k + drain_w_k + first_link * (1.0 - self.r[0]), -first_link * self.q[0]);
        let (c, d) = (
            -last_link * self.r[last],
            self.heat_w_k[SHELLS - 1] + last_link * (1.0 - self.q[last]) + out_w_k,
        );
        let e = casting_w_k * self.t[0] + drain_w_k * ambient + first_link * p[0];
        let f = self.heat_w_k[SHELLS - 1] * self.t[SHELLS] + out_w_k * ambient + last_link * p[last];
        let (casting_c, outermost_c) = ((e * d - b * f) / (a * d - b * c), (a * f - c * e) / (a * d - b * c));
        for (t, (p, (q, r))) in self.t[1..SHELLS].iter_mut().zip(p.iter().zip(self.q.iter().zip(&self.r))) {
            *t = p + q * outermost_c + r * casting_c;
        }
        (self.t[0], self.t[SHELLS]) = (casting_c, outermost_c);
        self.outer_c =
            (self.outer_link * outermost_c + surface_w_k * ambient) / (self.outer_link + surface_w_k);
    }

    fn core_c(&self) -> f64 {
        self.t[0]
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;
    use crate::iron::Iron;
    use crate::quantity::{Celsius, Kilograms, Millimetres};
    use crate::sim::energy_joules;

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(16))]
        #[test]
        fn what_the_casting_gives_is_stored_in_the_packing_or_lost_outside(
            kg in 8.0..60.0f64, start_c in 150.0..650.0f64, thick_m in 0.02..0.2f64, k in 0.06..0.3f64
        ) {
            let mm = |value| Millimetres::new(value).unwrap();
            let (mass, ambient) = (Kilograms::new(kg).unwrap(), Celsius::new(20.0).unwrap());
            let body =
                ThermalBody::new(Iron::Gray.properties(), mass, (mm(400.0), mm(300.0), mm(200.0)), 1.0, ambient).unwrap();
            let shell = Shell { thickness_m: thick_m, k, rho_c: 100e3, start_c: 20.0 };
            let mut shells = Shells::new(&body, start_c, shell, Outside { emissivity: 0.9 });
            let mut lost = 0.0;
            for _ in 0..720 {
                let surface_w_k = shells.outer_area * loss_w_m2k(OUTSIDE_H, 0.9, shells.outer_c, 20.0);
                shells.step(1.0);
                lost += surface_w_k * (shells.outer_c - 20.0) * PACKED_STEP_S;
            }
            let start = Celsius::new(start_c).unwrap();
            let given = energy_joules(&body.iron, mass, Celsius::new(shells.core_c()).unwrap(), start);
            let held = shells.t[1..].iter().zip(&shells.heat_w_k);
            let stored: f64 = held.map(|(c, w_k)| w_k * PACKED_STEP_S * (c - 20.0)).sum();
            prop_assert!((given - stored - lost).abs() < 0.005 * given, "{given} {stored} {lost}");
        }
    }
}
