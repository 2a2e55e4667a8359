//! The truth of a made-up part.

use serde::{Deserialize, Serialize};

use crate::iron::Iron;

/// What nobody sees until it is over.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Truth {
    pub iron: Iron,
    /// Those that are in sight, the first first.
    pub cracks: Vec<TrueCrack>,
    /// Soaked with oil, whatever was said.
    pub oil: bool,
    pub locked_in: bool,
    /// Filled with bronze before, under the paint.
    pub old_bronze: bool,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hidden: Option<Hidden>,
    /// Hottest in service in degC, where that is not as it was said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub service_c: Option<f64>,
    /// What the flame brings in, what the packing lets through, and how far the flame wanders: each against the book.
    pub power: f64,
    pub packing: f64,
    pub sweep: f64,
    /// Of a hundred such parts so many hold a year as they are: 0 to 1.
    pub left_alone: f64,
}

/// A crack as it really is.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TrueCrack {
    /// From true end to true end.
    pub length_mm: f64,
    /// How far both ends lie beyond where each way of finding shows them, in standard deviations of that way about its
    /// mean.
    pub beyond: [f64; 2],
}

/// A second crack that no eye sees.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Hidden {
    pub length_mm: f64,
    pub wall_mm: f64,
}

impl Truth {
    /// Of a plain gray casting with nothing hidden in it.
    #[must_use]
    pub fn plain() -> Self {
        Self {
            iron: Iron::Gray,
            cracks: Vec::new(),
            oil: false,
            locked_in: false,
            old_bronze: false,
            hidden: None,
            service_c: None,
            power: 1.0,
            packing: 1.0,
            sweep: 1.0,
            left_alone: 0.1,
        }
    }

    /// House: the flame, the packing and the sweep of a case are drawn within this share of the book.
    pub const WITHIN: f64 = 0.15;

    /// Whether all of it is possible.
    ///
    /// # Errors
    /// What is not, in words.
    pub fn possible(&self) -> Result<(), &'static str> {
        let within = |value: f64, least: f64, most: f64| value >= least && value <= most;
        let factor = |value: f64| within(value, 1.0 - Self::WITHIN - 1e-9, 1.0 + Self::WITHIN + 1e-9);
        if !self.cracks.iter().flat_map(|crack| crack.beyond).all(|z| within(z, -3.0, 3.0)) {
            return Err("a tip lies further off than any way of finding misses it");
        }
        if !self.cracks.iter().all(|crack| within(crack.length_mm, 1.0, 20_000.0)) || self.cracks.len() > 20 {
            return Err("a crack is from 1 mm to 20 m long, and there are 20 at most");
        }
        if ![self.power, self.packing, self.sweep].into_iter().all(factor) {
            return Err("flame, packing and sweep are within 15 % of the book");
        }
        if !within(self.left_alone, 0.0, 1.0) {
            return Err("what holds as it is, is a share from 0 to 1");
        }
        if self.service_c.is_some_and(|service_c| !within(service_c, -40.0, 1_400.0)) {
            return Err("no part of iron works at such a heat");
        }
        let hidden = |it: Hidden| within(it.length_mm, 1.0, 20_000.0) && within(it.wall_mm, 1.0, 300.0);
        if self.hidden.is_some_and(|it| !hidden(it)) {
            return Err("no hidden crack is so long, in no such wall");
        }
        Ok(())
    }
}

/// What is at hand for a case, whatever the shop has.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Gear {
    /// Ids of sources, packings and rods.
    pub sources: Vec<String>,
    pub packings: Vec<String>,
    pub rods: Vec<String>,
    /// Ids of welding sets.
    pub sets: Vec<String>,
    pub stitch_kit: bool,
}
