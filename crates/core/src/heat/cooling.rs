//! A hot casting in its packing: when it may be unwrapped, when touched, how fast it fell.

use std::f64::consts::PI;

use serde::{Deserialize, Serialize};

use super::body::{Body, loss_w_m2k};
use crate::problem::OutOfRange;
use crate::quantity::Celsius;

/// What a hot casting is packed in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Packing {
    Air,
    Blanket,
    Vermiculite,
    DrySand,
    WoodAsh,
    Lime,
    Litter,
}

impl Packing {
    pub const CHOICES: &'static [(&'static str, &'static str)] = &[
        ("air", "Still air"),
        ("blanket", "Ceramic blanket"),
        ("vermiculite", "Vermiculite"),
        ("dry_sand", "Dry sand"),
        ("wood_ash", "Wood ash"),
        ("lime", "Hydrated lime, dry"),
        ("litter", "Mineral litter, oven-dried"),
    ];

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        serde_json::from_value(serde_json::Value::String(id.to_owned())).ok()
    }

    #[must_use]
    pub fn label(self) -> &'static str {
        Self::CHOICES[self as usize].1
    }

    /// Thickness in mm it is usually put on. Ours: a blanket's layer, a box's margin.
    #[must_use]
    pub fn usual_mm(self) -> f64 {
        match self {
            Self::Air => 0.0,
            Self::Blanket => 25.0,
            Self::Vermiculite | Self::WoodAsh | Self::Lime | Self::Litter => 100.0,
            Self::DrySand => 150.0,
        }
    }

    /// Conductivity in W/mK and volumetric heat in J/m³K; nothing for still air. House.
    fn properties(self) -> Option<(f64, f64)> {
        match self {
            Self::Air => None,
            Self::Blanket => Some((0.08, 128.0 * 840.0)),
            Self::Vermiculite => Some((0.09, 110.0 * 900.0)),
            Self::DrySand => Some((0.30, 1550.0 * 800.0)),
            Self::WoodAsh => Some((0.10, 500.0 * 850.0)),
            Self::Lime => Some((0.13, 550.0 * 900.0)),
            Self::Litter => Some((0.12, 550.0 * 900.0)),
        }
    }
}

/// A packing of a thickness, checked.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wrapping {
    packing: Packing,
    thickness_m: f64,
}

impl Wrapping {
    /// # Errors
    /// [`OutOfRange`] for a packing under 1 mm or over 2 m; still air has no thickness to check.
    pub fn new(packing: Packing, thickness_m: f64) -> Result<Self, OutOfRange> {
        if packing != Packing::Air {
            OutOfRange::check("a packing's thickness", "m", (0.001, 2.0), thickness_m)?;
        }
        Ok(Self { packing, thickness_m })
    }

    /// The packing at its usual thickness.
    #[must_use]
    pub fn usual(packing: Packing) -> Self {
        Self { packing, thickness_m: packing.usual_mm() / 1000.0 }
    }

    #[must_use]
    pub fn packing(&self) -> Packing {
        self.packing
    }

    #[must_use]
    pub fn thickness_mm(&self) -> f64 {
        self.thickness_m * 1000.0
    }
}

/// House: under these the casting may be unwrapped, and touched, in degC.
pub const UNWRAP_C: f64 = 65.0;
pub const TOUCH_C: f64 = 45.0;

/// House: the fall that a rate is taken over.
const FALL_K: f64 = 100.0;

const MOST_HOURS: f64 = 72.0;
const OUTSIDE_H: f64 = 10.0;
const OUTSIDE_EMISSIVITY: f64 = 0.9;
const SHELLS: usize = 60;
const PACKED_STEP_S: f64 = 20.0;
const AIR_STEP_S: f64 = 2.0;

/// How a casting cools.
#[derive(Debug, Clone, PartialEq)]
pub struct Cooling {
    step_s: f64,
    /// degC after each step, first the start.
    core_c: Vec<f64>,
    ambient_c: f64,
}

impl Cooling {
    /// How much there is to keep of it.
    pub(super) fn points(&self) -> usize {
        self.core_c.len()
    }

    /// Hours until the core is under `celsius`; nothing when that takes over 72 h.
    #[must_use]
    pub fn hours_to(&self, celsius: f64) -> Option<f64> {
        let at = self.core_c.iter().position(|&t| t <= celsius)?;
        if at == 0 {
            return Some(0.0);
        }
        let (before, after) = (self.core_c[at - 1], self.core_c[at]);
        let part = (before - celsius) / (before - after);
        Some((at as f64 - 1.0 + part) * self.step_s / 3600.0)
    }

    /// Core temperature in degC after a time; nothing past the end of what was worked out.
    #[must_use]
    pub fn after_hours(&self, hours: f64) -> Option<f64> {
        let steps = hours * 3600.0 / self.step_s;
        let at = steps.floor() as usize;
        let before = *self.core_c.get(at)?;
        let after = self.core_c.get(at + 1).copied().unwrap_or(before);
        Some(before + (after - before) * (steps - at as f64))
    }

    /// How fast it falls at the fastest, in K/h: 100 K, or half of what it stands over its surroundings
    /// where that is less, over the shortest time in which it falls by so much.
    ///
    /// # Source
    /// House.
    #[must_use]
    pub fn fastest_k_per_h(&self) -> f64 {
        let start = self.core_c[0];
        let fall_k = FALL_K.min((start - self.ambient_c) / 2.0);
        if fall_k <= 0.0 {
            return 0.0;
        }
        let mut shortest = f64::INFINITY;
        let mut to = 0;
        for (from, &high) in self.core_c.iter().enumerate() {
            let low = high - fall_k;
            while to < self.core_c.len() && self.core_c[to] > low {
                to += 1;
            }
            if to == self.core_c.len() {
                break;
            }
            let (before, after) = (self.core_c[to - 1], self.core_c[to]);
            let steps = (to - 1 - from) as f64 + (before - low) / (before - after);
            shortest = shortest.min(steps);
        }
        fall_k / (shortest * self.step_s) * 3600.0
    }

    /// (hours, degC) thinned to `points` or fewer, up to `until_c`.
    #[must_use]
    pub fn curve(&self, points: usize, until_c: f64) -> Vec<(f64, f64)> {
        let end = self.core_c.iter().position(|&t| t <= until_c).unwrap_or(self.core_c.len() - 1);
        let every = (end / points.max(1)).max(1);
        let mut curve: Vec<(f64, f64)> =
            (0..end).step_by(every).map(|at| (at as f64 * self.step_s / 3600.0, self.core_c[at])).collect();
        curve.push((end as f64 * self.step_s / 3600.0, self.core_c[end]));
        curve
    }
}

/// Cools a casting from `start` in its wrapping, until it is under 45 degC and 4 h have passed,
/// or for 72 h.
///
/// The casting is one lump with the body's surface inside a spherical shell of equal inner area.
/// 60 shells of equal radius steps, backward Euler, 20 s; outside 10 W/m²K and radiation of
/// emissivity 0.9, taken at the outer surface's last temperature. The packing starts at ambient.
/// Still air: the lump alone, 2 s.
///
/// # Source
/// Carslaw and Jaeger (conduction), Stefan-Boltzmann's law; packing properties are house.
#[must_use]
pub fn cool(body: &Body, start: Celsius, wrapping: &Wrapping) -> Cooling {
    cool_scaled(body, start, wrapping, 1.0)
}

/// As [`cool`], with conductivity and outside loss scaled by `loss_factor`: what a shop's own
/// readings say about its packing.
#[must_use]
pub fn cool_scaled(body: &Body, start: Celsius, wrapping: &Wrapping, loss_factor: f64) -> Cooling {
    match wrapping.packing.properties() {
        None => in_still_air(body, start.celsius(), loss_factor),
        Some((k, rho_c)) => {
            Shells::new(body, start.celsius(), wrapping.thickness_m, k * loss_factor, rho_c).run(loss_factor)
        }
    }
}

fn done(hours: f64, core_c: f64) -> bool {
    /// Every cooling is worked out this far, so that its early hours can be asked about.
    const LEAST_HOURS: f64 = 4.0;
    hours >= MOST_HOURS || (core_c < TOUCH_C && hours > LEAST_HOURS)
}

fn in_still_air(body: &Body, start_c: f64, loss_factor: f64) -> Cooling {
    let (surface, mass) = (body.surface_m2(), body.mass.kilograms());
    let ambient = body.ambient.celsius();
    let mut t = start_c;
    let mut core_c = vec![t];
    let mut steps = 0_u32;
    while !done(f64::from(steps) * AIR_STEP_S / 3600.0, t) {
        let heat = mass * body.iron.specific_heat(t) / AIR_STEP_S;
        let loss = surface * loss_factor * loss_w_m2k(OUTSIDE_H, OUTSIDE_EMISSIVITY, t, ambient);
        t = (heat * t + loss * ambient) / (heat + loss);
        core_c.push(t);
        steps += 1;
    }
    Cooling { step_s: AIR_STEP_S, core_c, ambient_c: ambient }
}

/// Shells between the innermost and the outermost, whose equations never change.
const INNER: usize = SHELLS - 1;

/// The lump and its shells; node 0 is the casting, node 60 the outermost shell.
///
/// Only the casting's own heat and the loss at the outside change from step to step. What lies
/// between is eliminated once: each inner temperature is p + q T60 + r T0, and a step solves the
/// two ends for T0 and T60.
struct Shells {
    body: Body,
    t: [f64; SHELLS + 1],
    /// Conductance in W/K from node i to node i + 1.
    link: [f64; SHELLS],
    /// Heat capacity over the step in W/K, of shell i + 1.
    heat_w_k: [f64; SHELLS],
    /// Of inner node i + 1: one over its pivot, and what it passes on to the next.
    pivot: [f64; INNER],
    upper: [f64; INNER],
    q: [f64; INNER],
    r: [f64; INNER],
    /// Conductance in W/K from the last shell's middle to the outer surface.
    outer_link: f64,
    outer_area: f64,
    outer_c: f64,
}

impl Shells {
    fn new(body: &Body, start_c: f64, thickness_m: f64, k: f64, rho_c: f64) -> Self {
        let inner = (body.surface_m2() / (4.0 * PI)).sqrt();
        let step = thickness_m / SHELLS as f64;
        let edge = |shell: usize| inner + step * shell as f64;
        let middle = |shell: usize| edge(shell) + step / 2.0;
        let conductance = |from: f64, to: f64| 4.0 * PI * k / (1.0 / from - 1.0 / to);
        let ambient = body.ambient.celsius();
        let mut t = [ambient; SHELLS + 1];
        t[0] = start_c;
        let outer = edge(SHELLS);
        let link: [f64; SHELLS] = std::array::from_fn(|i| {
            let from = if i == 0 { inner } else { middle(i - 1) };
            conductance(from, middle(i))
        });
        let heat_w_k: [f64; SHELLS] = std::array::from_fn(|i| {
            rho_c * 4.0 / 3.0 * PI * (edge(i + 1).powi(3) - edge(i).powi(3)) / PACKED_STEP_S
        });
        let (mut pivot, mut upper) = ([0.0; INNER], [0.0; INNER]);
        for i in 0..INNER {
            let passed = if i == 0 { 0.0 } else { link[i] * upper[i - 1] };
            pivot[i] = 1.0 / (heat_w_k[i] + link[i] + link[i + 1] - passed);
            upper[i] = link[i + 1] * pivot[i];
        }
        let mut shells = Self {
            t,
            link,
            heat_w_k,
            pivot,
            upper,
            q: [0.0; INNER],
            r: [0.0; INNER],
            outer_link: conductance(middle(SHELLS - 1), outer),
            outer_area: 4.0 * PI * outer * outer,
            outer_c: ambient,
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
        let mut x = [0.0; INNER];
        let mut before = 0.0;
        for i in 0..INNER {
            before = (load[i] + self.link[i] * before) * self.pivot[i];
            x[i] = before;
        }
        let mut after = 0.0;
        for i in (0..INNER).rev() {
            after = x[i] + self.upper[i] * after;
            x[i] = after;
        }
        x
    }

    /// One backward Euler step; the loss outside is taken at the surface's last temperature.
    fn step(&mut self, loss_factor: f64) {
        let ambient = self.body.ambient.celsius();
        let surface_w_k =
            self.outer_area * loss_factor * loss_w_m2k(OUTSIDE_H, OUTSIDE_EMISSIVITY, self.outer_c, ambient);
        let out_w_k = 1.0 / (1.0 / self.outer_link + 1.0 / surface_w_k);
        let load: [f64; INNER] = std::array::from_fn(|i| self.heat_w_k[i] * self.t[i + 1]);
        let p = self.inner(&load);
        let last = INNER - 1;
        let (first_link, last_link) = (self.link[0], self.link[SHELLS - 1]);
        let casting_w_k =
            self.body.mass.kilograms() * self.body.iron.specific_heat(self.t[0]) / PACKED_STEP_S;
        // a T0 + b T60 = e at the casting, c T0 + d T60 = f at the outermost shell.
        let (a, b) = (casting_w_k + first_link * (1.0 - self.r[0]), -first_link * self.q[0]);
        let (c, d) = (
            -last_link * self.r[last],
            self.heat_w_k[SHELLS - 1] + last_link * (1.0 - self.q[last]) + out_w_k,
        );
        let e = casting_w_k * self.t[0] + first_link * p[0];
        let f = self.heat_w_k[SHELLS - 1] * self.t[SHELLS] + out_w_k * ambient + last_link * p[last];
        let (casting_c, outermost_c) = ((e * d - b * f) / (a * d - b * c), (a * f - c * e) / (a * d - b * c));
        for (t, (p, (q, r))) in self.t[1..SHELLS].iter_mut().zip(p.iter().zip(self.q.iter().zip(&self.r))) {
            *t = p + q * outermost_c + r * casting_c;
        }
        (self.t[0], self.t[SHELLS]) = (casting_c, outermost_c);
        self.outer_c =
            (self.outer_link * outermost_c + surface_w_k * ambient) / (self.outer_link + surface_w_k);
    }

    fn run(mut self, loss_factor: f64) -> Cooling {
        let mut core_c = vec![self.t[0]];
        let mut steps = 0_u32;
        while !done(f64::from(steps) * PACKED_STEP_S / 3600.0, self.t[0]) {
            self.step(loss_factor);
            core_c.push(self.t[0]);
            steps += 1;
        }
        Cooling { step_s: PACKED_STEP_S, core_c, ambient_c: self.body.ambient.celsius() }
    }
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
            Kilograms::new(22.0).unwrap(),
            (mm(420.0), mm(300.0), mm(220.0)),
            1.0,
            Celsius::new(20.0).unwrap(),
        )
        .unwrap()
    }

    fn hours(start_c: f64, wrapping: &Wrapping) -> Option<f64> {
        cool(&body(), Celsius::new(start_c).unwrap(), wrapping).hours_to(UNWRAP_C)
    }

    #[test]
    fn a_thicker_blanket_cools_slower() {
        let layers = |m| hours(280.0, &Wrapping::new(Packing::Blanket, m).unwrap()).unwrap();
        assert!(layers(0.05) > layers(0.025));
    }

    fn cooling(mass_kg: f64, size: [f64; 3], factor: f64, start_c: f64, wrapping: &Wrapping) -> Cooling {
        let mm = |value| Millimetres::new(value).unwrap();
        let ambient = Celsius::new(20.0).unwrap();
        let size = (mm(size[0]), mm(size[1]), mm(size[2]));
        let body =
            Body::new(Iron::Gray.properties(), Kilograms::new(mass_kg).unwrap(), size, factor, ambient);
        cool(&body.unwrap(), Celsius::new(start_c).unwrap(), wrapping)
    }

    #[test]
    fn the_fall_is_taken_over_its_fastest_hundred_kelvins() {
        // Published: the trade reference's worked examples, cooling, each with its own tolerance
        let large = [420.0, 300.0, 220.0];
        let wrapped = |packing, m| Wrapping::new(packing, m).unwrap();
        for (found, expected, tolerance) in [
            (cooling(22.0, large, 1.0, 280.0, &wrapped(Packing::Blanket, 0.025)), 123.0, 3.7),
            (cooling(22.0, large, 1.0, 280.0, &wrapped(Packing::DrySand, 0.15)), 1439.0, 43.2),
            (cooling(22.0, large, 1.3, 280.0, &wrapped(Packing::Vermiculite, 0.1)), 91.0, 2.7),
            (cooling(4.0, [200.0, 140.0, 80.0], 1.0, 220.0, &wrapped(Packing::Air, 0.0)), 607.0, 18.2),
        ] {
            let rate = found.fastest_k_per_h();
            assert!((rate - expected).abs() < tolerance, "{rate} against {expected}");
        }
    }

    #[test]
    fn what_stands_little_over_its_surroundings_falls_by_half_of_that() {
        let barely = cooling(4.0, [200.0, 140.0, 80.0], 1.0, 21.0, &Wrapping::usual(Packing::Air));
        assert!(barely.fastest_k_per_h() > 0.0 && barely.fastest_k_per_h() < 30.0);
        let cold = cooling(4.0, [200.0, 140.0, 80.0], 1.0, 20.0, &Wrapping::usual(Packing::Air));
        assert_eq!(cold.fastest_k_per_h(), 0.0);
    }

    #[test]
    fn a_cold_casting_may_be_unwrapped_at_once() {
        assert_eq!(hours(40.0, &Wrapping::usual(Packing::Air)), Some(0.0));
    }

    #[test]
    fn the_curve_never_rises_and_ends_at_touch() {
        let cooling = cool(&body(), Celsius::new(280.0).unwrap(), &Wrapping::usual(Packing::Vermiculite));
        let curve = cooling.curve(100, TOUCH_C);
        assert!(curve.windows(2).all(|pair| pair[1].1 <= pair[0].1));
        assert!((curve.last().unwrap().1 - TOUCH_C).abs() < 0.5);
    }
}
