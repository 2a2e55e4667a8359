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

/// A number of each of the castings that are run side by side.
type Each<const L: usize> = [f64; L];

/// Lumps in their shells, run side by side: one waits for its own last step, several do not wait for each other. Of
/// each, node 0 is the casting, node 60 the outermost shell.
///
/// Only the casting's own heat and the loss at the outside change from step to step. What lies
/// between is eliminated once: each inner temperature is p + q T60 + r T0, and a step solves the
/// two ends for T0 and T60.
pub(crate) struct Shells<const L: usize> {
    body: ThermalBody,
    t: [Each<L>; SHELLS + 1],
    /// Conductance in W/K from node i to node i + 1.
    link: [Each<L>; SHELLS],
    /// Heat capacity over the step in W/K, of shell i + 1.
    heat_w_k: [Each<L>; SHELLS],
    /// Of inner node i + 1, eliminated from both ends to the middle: one over its pivot, and with that the links to the
    /// node further out and further in.
    pivot: [Each<L>; INNER],
    outward: [Each<L>; INNER],
    inward: [Each<L>; INNER],
    q: [Each<L>; INNER],
    r: [Each<L>; INNER],
    /// Conductance in W/K from the last shell's middle to the outer surface.
    outer_link: Each<L>,
    outer_area: Each<L>,
    outer_c: Each<L>,
    outside: Outside,
}

/// Something of each of the castings.
fn each<const L: usize>(of: impl FnMut(usize) -> f64) -> Each<L> {
    std::array::from_fn(of)
}

impl<const L: usize> Shells<L> {
    pub(crate) fn new(body: &ThermalBody, start_c: Each<L>, shell: [Shell; L], outside: Outside) -> Self {
        let inner = (body.surface_m2() / (4.0 * PI)).sqrt();
        let edge = |l: usize, at: usize| inner + shell[l].thickness_m / SHELLS as f64 * at as f64;
        let middle = |l: usize, at: usize| edge(l, at) + shell[l].thickness_m / SHELLS as f64 / 2.0;
        let conductance = |l: usize, from: f64, to: f64| 4.0 * PI * shell[l].k / (1.0 / from - 1.0 / to);
        let mut t = [each(|l| shell[l].start_c); SHELLS + 1];
        t[0] = start_c;
        let link: [Each<L>; SHELLS] = std::array::from_fn(|i| {
            each(|l| conductance(l, if i == 0 { inner } else { middle(l, i - 1) }, middle(l, i)))
        });
        let heat_w_k: [Each<L>; SHELLS] = std::array::from_fn(|i| {
            let volume = |l: usize| 4.0 / 3.0 * PI * (edge(l, i + 1).powi(3) - edge(l, i).powi(3));
            each(|l| shell[l].rho_c * volume(l) / PACKED_STEP_S)
        });
        let mut shells = Self {
            t,
            link,
            heat_w_k,
            pivot: [[0.0; L]; INNER],
            outward: [[0.0; L]; INNER],
            inward: [[0.0; L]; INNER],
            q: [[0.0; L]; INNER],
            r: [[0.0; L]; INNER],
            outer_link: each(|l| conductance(l, middle(l, SHELLS - 1), edge(l, SHELLS))),
            outer_area: each(|l| 4.0 * PI * edge(l, SHELLS) * edge(l, SHELLS)),
            outer_c: each(|l| shell[l].start_c),
            outside,
            body: *body,
        };
        shells.eliminate();
        let mut from_outside = [[0.0; L]; INNER];
        from_outside[INNER - 1] = link[SHELLS - 1];
        shells.q = shells.inner(&from_outside);
        let mut from_casting = [[0.0; L]; INNER];
        from_casting[0] = link[0];
        shells.r = shells.inner(&from_casting);
        shells
    }

    /// (link outwards, link inwards): the left half counts from the casting, the right half from outside.
    fn eliminate(&mut self) {
        for l in 0..L {
            let own = |i: usize| self.heat_w_k[i][l] + self.link[i][l] + self.link[i + 1][l];
            let (mut left, mut right) = (0.0, 0.0);
            for i in 0..MIDDLE {
                let mirrored = INNER - 1 - i;
                for (at, out, inner, before) in [
                    (i, self.link[i][l], self.link[i + 1][l], &mut left),
                    (mirrored, self.link[mirrored + 1][l], self.link[mirrored][l], &mut right),
                ] {
                    self.pivot[at][l] = 1.0 / (own(at) - out * *before);
                    self.outward[at][l] = out * self.pivot[at][l];
                    self.inward[at][l] = inner * self.pivot[at][l];
                    *before = self.inward[at][l];
                }
            }
            self.pivot[MIDDLE][l] =
                1.0 / (own(MIDDLE) - self.link[MIDDLE][l] * left - self.link[MIDDLE + 1][l] * right);
        }
    }

    /// The inner temperatures that a load in W gives, with both ends at 0 degC.
    fn inner(&self, load: &[Each<L>; INNER]) -> [Each<L>; INNER] {
        let mut x: [Each<L>; INNER] = std::array::from_fn(|i| each(|l| load[i][l] * self.pivot[i][l]));
        let (mut left, mut right) = ([0.0; L], [0.0; L]);
        for i in 0..MIDDLE {
            let mirrored = INNER - 1 - i;
            for l in 0..L {
                left[l] = x[i][l] + self.outward[i][l] * left[l];
                right[l] = x[mirrored][l] + self.outward[mirrored][l] * right[l];
            }
            (x[i], x[mirrored]) = (left, right);
        }
        for l in 0..L {
            x[MIDDLE][l] += (self.link[MIDDLE][l] * left[l] + self.link[MIDDLE + 1][l] * right[l])
                * self.pivot[MIDDLE][l];
        }
        (left, right) = (x[MIDDLE], x[MIDDLE]);
        for i in (0..MIDDLE).rev() {
            let mirrored = INNER - 1 - i;
            for l in 0..L {
                left[l] = x[i][l] + self.inward[i][l] * left[l];
                right[l] = x[mirrored][l] + self.inward[mirrored][l] * right[l];
            }
            (x[i], x[mirrored]) = (left, right);
        }
        x
    }

    /// A step of all of them; the loss outside is taken at the surface's last temperature, and scaled by a factor each.
    pub(crate) fn step_all(&mut self, loss_factor: Each<L>) {
        let load: [Each<L>; INNER] =
            std::array::from_fn(|i| each(|l| self.heat_w_k[i][l] * self.t[i + 1][l]));
        let p = self.inner(&load);
        let (mut casting_c, mut outermost_c) = ([0.0; L], [0.0; L]);
        for l in 0..L {
            (casting_c[l], outermost_c[l]) = self.ends(l, loss_factor[l], &p);
        }
        let between = p.iter().zip(self.q.iter().zip(&self.r));
        for (t, (p, (q, r))) in self.t[1..SHELLS].iter_mut().zip(between) {
            *t = each(|l| p[l] + q[l] * outermost_c[l] + r[l] * casting_c[l]);
        }
        (self.t[0], self.t[SHELLS]) = (casting_c, outermost_c);
    }

    /// The casting and the outermost shell after a step.
    fn ends(&mut self, l: usize, loss_factor: f64, p: &[Each<L>; INNER]) -> (f64, f64) {
        let ambient = self.body.ambient.celsius();
        let surface_w_k = self.outer_area[l]
            * loss_factor
            * loss_w_m2k(OUTSIDE_H, self.outside.emissivity, self.outer_c[l], ambient);
        let out_w_k = 1.0 / (1.0 / self.outer_link[l] + 1.0 / surface_w_k);
        let last = INNER - 1;
        let (first_link, last_link) = (self.link[0][l], self.link[SHELLS - 1][l]);
        let (here, outermost) = (self.t[0][l], self.t[SHELLS][l]);
        let casting_w_k = self.body.mass.kilograms() * self.body.iron.specific_heat(here) / PACKED_STEP_S;
        // a T0 + b T60 = e at the casting, c T0 + d T60 = f at the outermost shell.
        let drain_w_k = self.body.drain_w_k();
        let (a, b) =
            (casting_w_k + drain_w_k + first_link * (1.0 - self.r[0][l]), -first_link * self.q[0][l]);
        let (c, d) = (
            -last_link * self.r[last][l],
            self.heat_w_k[SHELLS - 1][l] + last_link * (1.0 - self.q[last][l]) + out_w_k,
        );
        let e = casting_w_k * here + drain_w_k * ambient + first_link * p[0][l];
        let f = self.heat_w_k[SHELLS - 1][l] * outermost + out_w_k * ambient + last_link * p[last][l];
        let (casting_c, outermost_c) = ((e * d - b * f) / (a * d - b * c), (a * f - c * e) / (a * d - b * c));
        self.outer_c[l] =
            (self.outer_link[l] * outermost_c + surface_w_k * ambient) / (self.outer_link[l] + surface_w_k);
        (casting_c, outermost_c)
    }

    /// The castings' temperatures in degC.
    pub(crate) fn cores_c(&self) -> Each<L> {
        self.t[0]
    }
}

impl Cools for Shells<1> {
    const STEP_S: f64 = PACKED_STEP_S;

    fn step(&mut self, loss_factor: f64) {
        self.step_all([loss_factor]);
    }

    fn core_c(&self) -> f64 {
        self.t[0][0]
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
            let mut shells = Shells::new(&body, [start_c], [shell], Outside { emissivity: 0.9 });
            let mut lost = 0.0;
            for _ in 0..720 {
                let surface_w_k = shells.outer_area[0] * loss_w_m2k(OUTSIDE_H, 0.9, shells.outer_c[0], 20.0);
                shells.step(1.0);
                lost += surface_w_k * (shells.outer_c[0] - 20.0) * PACKED_STEP_S;
            }
            let start = Celsius::new(start_c).unwrap();
            let given = energy_joules(&body.iron, mass, Celsius::new(shells.core_c()).unwrap(), start);
            let held = shells.t[1..].iter().zip(&shells.heat_w_k);
            let stored: f64 = held.map(|(c, w_k)| w_k[0] * PACKED_STEP_S * (c[0] - 20.0)).sum();
            prop_assert!((given - stored - lost).abs() < 0.005 * given, "{given} {stored} {lost}");
        }
    }
}
