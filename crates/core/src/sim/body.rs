//! The casting as the heat model sees it.

use serde::{Deserialize, Serialize};

use crate::iron::IronProperties;
use crate::problem::OutOfRange;
use crate::quantity::{Celsius, Kilograms, Millimetres};

/// Stefan and Boltzmann's constant, W/m²K⁴.
pub(crate) const STEFAN_BOLTZMANN: f64 = 5.670_374e-8;
/// 0 degC in K.
pub(crate) const ZERO_C: f64 = 273.15;

/// What shape a part has: how much more surface than its envelope, and whether it can move freely.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PartShape {
    SolidBlock,
    ThinPlate,
    RibbedOrOpenFrame,
    SpokedWheel,
    ClosedFrame,
    HollowBox,
}

impl PartShape {
    pub const CHOICES: &'static [(&'static str, &'static str)] = &[
        ("solid_block", "Solid block"),
        ("thin_plate", "Thin plate"),
        ("ribbed_or_open_frame", "Ribbed or open frame"),
        ("spoked_wheel", "Spoked wheel"),
        ("closed_frame", "Closed frame"),
        ("hollow_box", "Hollow box"),
    ];

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        serde_json::from_value(serde_json::Value::String(id.to_owned())).ok()
    }

    /// Surface over the envelope's. House.
    #[must_use]
    pub fn surface_factor(self) -> f64 {
        match self {
            Self::SolidBlock | Self::ThinPlate | Self::HollowBox => 1.0,
            Self::RibbedOrOpenFrame | Self::SpokedWheel | Self::ClosedFrame => 1.3,
        }
    }

    /// A closed section restrains itself: it cannot bend out of an uneven heat.
    #[must_use]
    pub fn closed(self) -> bool {
        match self {
            Self::SpokedWheel | Self::ClosedFrame | Self::HollowBox => true,
            Self::SolidBlock | Self::ThinPlate | Self::RibbedOrOpenFrame => false,
        }
    }
}

/// A casting of known mass and bounding size in known surroundings.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Body {
    pub iron: IronProperties,
    pub mass: Kilograms,
    pub length: Millimetres,
    pub width: Millimetres,
    pub height: Millimetres,
    surface_factor: f64,
    pub ambient: Celsius,
}

impl Body {
    /// # Errors
    /// [`OutOfRange`] for a surface factor outside 0.5 to 5.
    pub fn new(
        iron: IronProperties,
        mass: Kilograms,
        (length, width, height): (Millimetres, Millimetres, Millimetres),
        surface_factor: f64,
        ambient: Celsius,
    ) -> Result<Self, OutOfRange> {
        OutOfRange::check("a shape factor", "", (0.5, 5.0), surface_factor)?;
        Ok(Self { iron, mass, length, width, height, surface_factor, ambient })
    }

    /// Surface in m²: the bounding box's, times the shape factor.
    #[must_use]
    pub fn surface_m2(&self) -> f64 {
        let [l, w, h] = [self.length, self.width, self.height].map(|side| side.millimetres() / 1000.0);
        2.0 * (l * w + w * h + h * l) * self.surface_factor
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
pub(super) fn loss_w_m2k(h: f64, emissivity: f64, surface_c: f64, surroundings_c: f64) -> f64 {
    let (t, s) = (surface_c + ZERO_C, surroundings_c + ZERO_C);
    h + emissivity * STEFAN_BOLTZMANN * (t * t + s * s) * (t + s)
}
