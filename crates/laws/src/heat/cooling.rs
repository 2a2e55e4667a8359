//! A hot casting in its packing: when it may be unwrapped, when touched, how fast it fell.

use serde::{Deserialize, Serialize};

use crate::base::problem::OutOfRange;
use crate::quantity::Celsius;
use crate::sim::{Cools, Lump, Outside, Shell, Shells, ThermalBody};

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
    GlassWool,
    Leather,
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
        ("glass_wool", "Glass wool"),
        ("leather", "Leather, gloves and coats"),
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
            Self::GlassWool => 50.0,
            Self::Leather => 10.0,
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
            Self::GlassWool => Some((0.06, 30.0 * 840.0)),
            Self::Leather => Some((0.08, 400.0 * 1500.0)),
        }
    }

    /// The hottest iron in degC it may lie on; nothing where it bears what iron is packed at. House.
    #[must_use]
    pub fn bears_c(self) -> Option<f64> {
        match self {
            Self::GlassWool => Some(230.0),
            Self::Leather => Some(120.0),
            Self::Air
            | Self::Blanket
            | Self::Vermiculite
            | Self::DrySand
            | Self::WoodAsh
            | Self::Lime
            | Self::Litter => None,
        }
    }
}

/// A packing of a thickness, checked.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wrapping {
    packing: Packing,
    thickness_m: f64,
    foil: bool,
    /// Of what the book has it let through.
    scale: f64,
}

impl Wrapping {
    /// # Errors
    /// [`OutOfRange`] for a packing under 1 mm or over 2 m; still air has no thickness to check.
    pub fn new(packing: Packing, thickness_m: f64) -> Result<Self, OutOfRange> {
        if packing != Packing::Air {
            OutOfRange::check("a packing's thickness", "m", (0.001, 2.0), thickness_m)?;
        }
        Ok(Self { packing, thickness_m, foil: false, scale: 1.0 })
    }

    /// The packing at its usual thickness.
    #[must_use]
    pub fn usual(packing: Packing) -> Self {
        Self { packing, thickness_m: packing.usual_mm() / 1000.0, foil: false, scale: 1.0 }
    }

    /// With bright foil over it: it radiates less. There is none over still air.
    #[must_use]
    pub fn under_foil(self) -> Self {
        Self { foil: self.packing != Packing::Air, ..self }
    }

    /// As leaky as this shop's own have been, against the book.
    #[must_use]
    pub fn letting_through(self, scale: f64) -> Self {
        Self { scale, ..self }
    }

    /// The same, where nobody is to be burnt by what other packings let through.
    #[must_use]
    pub fn no_leakier_than_the_book(self) -> Self {
        Self { scale: self.scale.min(1.0), ..self }
    }

    #[must_use]
    pub(super) fn by_the_book(self) -> Self {
        Self { scale: 1.0, ..self }
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

/// House: no cooling is followed longer.
const MOST_HOURS: f64 = 72.0;

/// How a casting cools.
#[derive(Debug, Clone, PartialEq)]
pub struct Cooling {
    step_s: f64,
    /// degC after each step, first the start.
    core_c: Vec<f64>,
    ambient_c: f64,
}

impl Cooling {
    /// As [`cool_scaled`], so far only as is asked for.
    pub(super) fn until(
        body: &ThermalBody,
        start: Celsius,
        wrapping: &Wrapping,
        loss_factor: f64,
        until_h: f64,
    ) -> Self {
        let (start_c, ambient_c) = (start.celsius(), body.ambient.celsius());
        let loss_factor = loss_factor * wrapping.scale;
        match shells(body, start_c, wrapping, loss_factor, ambient_c) {
            Some(shells) => run(shells, body, loss_factor, until_h),
            None => run(Lump::new(body, start_c, outer(wrapping)), body, loss_factor, until_h),
        }
    }

    /// Several of them side by side, each with its own start and factor: each comes out as by itself, all together in
    /// little more than the time of one.
    pub(super) fn several<const L: usize>(
        body: &ThermalBody,
        starts: [Celsius; L],
        wrapping: &Wrapping,
        loss_factors: [f64; L],
        until_h: f64,
    ) -> [Self; L] {
        let one = |at: usize| Self::until(body, starts[at], wrapping, loss_factors[at], until_h);
        let Some((k, rho_c)) = wrapping.packing.properties() else { return std::array::from_fn(one) };
        let ambient_c = body.ambient.celsius();
        let factors = loss_factors.map(|factor| factor * wrapping.scale);
        let shell = |factor: f64| Shell {
            thickness_m: wrapping.thickness_m,
            k: k * factor,
            rho_c,
            start_c: ambient_c,
        };
        let mut shells = Shells::new(body, starts.map(Celsius::celsius), factors.map(shell), outer(wrapping));
        let step_s = Shells::<1>::STEP_S;
        let mut all = shells.cores_c().map(|c| Self { step_s, core_c: vec![c], ambient_c });
        let mut open = [true; L];
        for steps in 0_u32.. {
            for (open, c) in open.iter_mut().zip(shells.cores_c()) {
                *open = *open && !done(f64::from(steps) * step_s / 3600.0, c, until_h);
            }
            if open.iter().all(|open| !open) {
                break;
            }
            shells.step_all(factors);
            let cores_c = shells.cores_c();
            for (run, (_, c)) in all.iter_mut().zip(open.iter().zip(cores_c)).filter(|(_, (open, _))| **open)
            {
                run.core_c.push(c);
            }
        }
        all
    }

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
pub fn cool(body: &ThermalBody, start: Celsius, wrapping: &Wrapping) -> Cooling {
    cool_scaled(body, start, wrapping, 1.0)
}

/// As [`cool`], with conductivity and outside loss scaled by `loss_factor`: what a shop's own
/// readings say about its packing.
#[must_use]
pub fn cool_scaled(body: &ThermalBody, start: Celsius, wrapping: &Wrapping, loss_factor: f64) -> Cooling {
    Cooling::until(body, start, wrapping, loss_factor, f64::INFINITY)
}

/// How what is outside takes it: with its emissivity.
pub(super) fn outer(wrapping: &Wrapping) -> Outside {
    /// House: of bright foil, and of everything else.
    const FOIL: f64 = 0.1;
    const ANYTHING: f64 = 0.9;
    Outside { emissivity: if wrapping.foil { FOIL } else { ANYTHING } }
}

/// The casting in its packing, which begins as warm as said; nothing in still air.
pub(super) fn shells(
    body: &ThermalBody,
    start_c: f64,
    wrapping: &Wrapping,
    loss_factor: f64,
    packing_c: f64,
) -> Option<Shells<1>> {
    let (k, rho_c) = wrapping.packing.properties()?;
    let shell = Shell { thickness_m: wrapping.thickness_m, k: k * loss_factor, rho_c, start_c: packing_c };
    Some(Shells::new(body, [start_c], [shell], outer(wrapping)))
}

fn run<C: Cools>(mut cools: C, body: &ThermalBody, loss_factor: f64, until_h: f64) -> Cooling {
    let mut core_c = vec![cools.core_c()];
    let mut steps = 0_u32;
    while !done(f64::from(steps) * C::STEP_S / 3600.0, cools.core_c(), until_h) {
        cools.step(loss_factor);
        core_c.push(cools.core_c());
        steps += 1;
    }
    Cooling { step_s: C::STEP_S, core_c, ambient_c: body.ambient.celsius() }
}

fn done(hours: f64, core_c: f64, until_h: f64) -> bool {
    /// Every cooling is worked out this far, so that its early hours can be asked about.
    const LEAST_HOURS: f64 = 4.0;
    /// A step further, so that what lies before the end can be asked.
    const STEP_OVER_H: f64 = 20.0 / 3600.0;
    hours >= MOST_HOURS
        || hours >= until_h + STEP_OVER_H
        || (core_c < TOUCH_C && hours > LEAST_HOURS.min(until_h))
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::iron::Iron;
    use crate::quantity::{Kilograms, Millimetres};

    fn body() -> ThermalBody {
        let mm = |value| Millimetres::new(value).unwrap();
        ThermalBody::new(
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
    fn run_side_by_side_each_cools_as_by_itself() {
        let starts = [650.0, 40.0, 300.0].map(|c| Celsius::new(c).unwrap());
        let factors = [1.0, 0.6, 3.0];
        for wrapping in [
            Wrapping::usual(Packing::Vermiculite).letting_through(1.2),
            Wrapping::usual(Packing::Blanket).under_foil(),
            Wrapping::usual(Packing::Air),
        ] {
            for until_h in [2.0, f64::INFINITY] {
                let all = Cooling::several(&body(), starts, &wrapping, factors, until_h);
                for (at, run) in all.iter().enumerate() {
                    let alone = Cooling::until(&body(), starts[at], &wrapping, factors[at], until_h);
                    assert_eq!(*run, alone, "{at} in {:?} until {until_h}", wrapping.packing());
                }
            }
        }
    }

    #[test]
    fn what_leads_less_and_holds_as_much_cools_slower() {
        let of = |packing| hours(280.0, &Wrapping::new(packing, 0.1).unwrap()).unwrap();
        // Published: 0.10, 0.12 and 0.13 W/mK, of loose things that hold about as much each
        assert!(of(Packing::WoodAsh) > of(Packing::Litter), "{}", of(Packing::Litter));
        assert!(of(Packing::Litter) > of(Packing::Lime), "{}", of(Packing::Lime));
    }

    #[rstest]
    // Published: the trade reference, heat, what is packed with: W/mK, kg/m³ x J/kgK, the hottest it may lie on
    #[case(Packing::Blanket, "Ceramic blanket", 0.08, 107_520.0, None)]
    #[case(Packing::Vermiculite, "Vermiculite", 0.09, 99_000.0, None)]
    #[case(Packing::DrySand, "Dry sand", 0.30, 1_240_000.0, None)]
    #[case(Packing::WoodAsh, "Wood ash", 0.10, 425_000.0, None)]
    #[case(Packing::Lime, "Hydrated lime, dry", 0.13, 495_000.0, None)]
    #[case(Packing::Litter, "Mineral litter, oven-dried", 0.12, 495_000.0, None)]
    #[case(Packing::GlassWool, "Glass wool", 0.06, 25_200.0, Some(230.0))]
    #[case(Packing::Leather, "Leather, gloves and coats", 0.08, 600_000.0, Some(120.0))]
    fn what_is_packed_with_leads_and_holds_as_published(
        #[case] packing: Packing,
        #[case] label: &str,
        #[case] conductivity: f64,
        #[case] heat: f64,
        #[case] bears_c: Option<f64>,
    ) {
        let (led, held) = packing.properties().unwrap();
        assert!((led - conductivity).abs() < 1e-9 && (held - heat).abs() < 1e-6, "{led} {held}");
        assert_eq!((packing.label(), packing.bears_c()), (label, bears_c));
    }

    #[test]
    fn the_fastest_fall_is_taken_between_its_points() {
        let fall = |core_c: &[f64]| Cooling { step_s: 20.0, core_c: core_c.to_vec(), ambient_c: 20.0 };
        // By hand: from 230 down to 130 is a step and 70 of the 80 K of the next, 37.5 s; from 200 to 100 two whole ones.
        assert!((fall(&[230.0, 200.0, 120.0, 100.0, 40.0]).fastest_k_per_h() - 9_600.0).abs() < 1e-6);
        // 140 over its surroundings: 70 K, from 130 to 60 a step and half of the next.
        assert!((fall(&[160.0, 130.0, 90.0, 30.0]).fastest_k_per_h() - 8_400.0).abs() < 1e-6);
        assert_eq!(fall(&[20.0, 20.0]).fastest_k_per_h(), 0.0);
    }

    #[rstest]
    #[case::after_three_days_whatever_it_is(72.0, 500.0, f64::INFINITY, true)]
    #[case::not_before(71.9, 500.0, f64::INFINITY, false)]
    #[case::a_step_past_what_is_asked(2.0 + 20.0 / 3600.0, 500.0, 2.0, true)]
    #[case::not_at_what_is_asked(2.0, 500.0, 2.0, false)]
    #[case::cold_after_four_hours(4.1, 44.0, f64::INFINITY, true)]
    #[case::cold_before(4.0, 44.0, f64::INFINITY, false)]
    #[case::cold_and_asked_about_no_further(1.001, 44.0, 1.0, true)]
    #[case::too_hot_to_touch(4.1, 45.0, f64::INFINITY, false)]
    fn it_is_followed_until_it_is_cold_or_nobody_asks(
        #[case] hours: f64,
        #[case] core_c: f64,
        #[case] until_h: f64,
        #[case] followed: bool,
    ) {
        assert_eq!(done(hours, core_c, until_h), followed);
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
        let body = ThermalBody::new(
            Iron::Gray.properties(),
            Kilograms::new(mass_kg).unwrap(),
            size,
            factor,
            ambient,
        );
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
