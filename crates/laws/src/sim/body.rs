//! The casting as the heat model sees it.

use crate::base::problem::OutOfRange;
use crate::casting::shape::SURFACE_FACTORS;
use crate::iron::IronProperties;
use crate::quantity::{Celsius, Kilograms, Millimetres};

/// Stefan and Boltzmann's constant in W/m²K⁴ (law).
pub(crate) const STEFAN_BOLTZMANN: f64 = 5.670_374e-8;
/// 0 degC in K, by definition.
pub(crate) const ZERO_C: f64 = 273.15;

/// A casting of known mass and bounding size in known surroundings.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ThermalBody {
    pub iron: IronProperties,
    pub mass: Kilograms,
    pub length: Millimetres,
    pub width: Millimetres,
    pub height: Millimetres,
    surface_factor: f64,
    pub ambient: Celsius,
    /// What the cold iron round it draws off, in W/K; 0 for a whole casting.
    drain_w_k: f64,
}

impl ThermalBody {
    /// # Errors
    /// [`OutOfRange`] for a surface factor outside 0.1 to 3.
    pub fn new(
        iron: IronProperties,
        mass: Kilograms,
        (length, width, height): (Millimetres, Millimetres, Millimetres),
        surface_factor: f64,
        ambient: Celsius,
    ) -> Result<Self, OutOfRange> {
        OutOfRange::check("a shape factor", "", SURFACE_FACTORS, surface_factor)?;
        Ok(Self { iron, mass, length, width, height, surface_factor, ambient, drain_w_k: 0.0 })
    }

    /// Surface in m²: the bounding box's, times the shape factor.
    #[must_use]
    pub fn surface_m2(&self) -> f64 {
        let [l, w, h] = [self.length, self.width, self.height].map(|side| side.millimetres() / 1000.0);
        2.0 * (l * w + w * h + h * l) * self.surface_factor
    }

    /// A piece of a larger casting, whose iron draws off so much of it in W/K.
    #[must_use]
    pub fn drained(self, drain_w_k: f64) -> Self {
        Self { drain_w_k, ..self }
    }

    /// What the cold iron round it draws off, in W/K; 0 for a whole casting.
    pub fn drain_w_k(&self) -> f64 {
        self.drain_w_k
    }

    /// The same in size, if it weighed so much.
    #[must_use]
    pub(crate) fn with_mass(self, mass: Kilograms) -> Self {
        Self { mass, ..self }
    }

    /// With so many times its surface.
    #[must_use]
    pub(crate) fn with_surface(self, factor: f64) -> Self {
        Self { surface_factor: self.surface_factor * factor, ..self }
    }

    /// Longest side in m: the bar model runs along it.
    pub(super) fn longest_m(&self) -> f64 {
        [self.length, self.width, self.height]
            .map(|side| side.millimetres() / 1000.0)
            .into_iter()
            .fold(0.0, f64::max)
    }
}

/// Energy in J to take `mass` from one temperature to another: m [a T + b T² / 2] between the two.
///
/// # Source
/// EN 1561 / EN 1563, mean specific heats.
#[must_use]
pub fn energy_joules(iron: &IronProperties, mass: Kilograms, from: Celsius, to: Celsius) -> f64 {
    let held = |t: f64| iron.heat_a * t + iron.heat_b * t * t / 2.0;
    mass.kilograms() * (held(to.celsius()) - held(from.celsius()))
}

/// Heat given off to `surroundings_c` by convection `h` and radiation, as one coefficient in
/// W/m²K, with the radiation taken at `surface_c`.
pub(crate) fn loss_w_m2k(h: f64, emissivity: f64, surface_c: f64, surroundings_c: f64) -> f64 {
    let (t, s) = (surface_c + ZERO_C, surroundings_c + ZERO_C);
    h + emissivity * STEFAN_BOLTZMANN * (t * t + s * s) * (t + s)
}
