//! The shop: its ways of showing things and the gear at hand.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

use crate::field::{Held, get, shop};
use crate::heat::{HeatSource, Packing};
use crate::quantity::UnitSystem;

/// The shop as its settings make it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Shop {
    pub name: String,
    pub units: UnitSystem,
    pub theme: String,
    /// IANA name.
    pub time_zone: String,
    pub ambient_c: f64,
    /// Ids of the heat sources, packings and rods at hand; `None` while nobody has said.
    pub sources: Option<Vec<String>>,
    pub packings: Option<Vec<String>>,
    pub rods: Option<Vec<String>>,
    pub stitch_kit: Option<bool>,
    /// draw_in or plain; nothing while nobody has said.
    pub pins: Option<String>,
}

impl Shop {
    #[must_use]
    pub fn of(values: &BTreeMap<String, Held>) -> Self {
        let many = |field| get(values, field).map(<[String]>::to_vec);
        Self {
            name: get(values, shop::NAME).unwrap_or("This shop").to_owned(),
            units: if get(values, shop::UNITS) == Some("imperial") {
                UnitSystem::Imperial
            } else {
                UnitSystem::Metric
            },
            theme: get(values, shop::THEME).unwrap_or("shop").to_owned(),
            time_zone: get(values, shop::TIME_ZONE).unwrap_or("UTC").to_owned(),
            ambient_c: get(values, shop::AMBIENT).unwrap_or(20.0),
            sources: many(shop::SOURCES),
            packings: many(shop::PACKINGS),
            rods: many(shop::RODS),
            stitch_kit: get(values, shop::STITCH_KIT),
            pins: get(values, shop::PINS).map(str::to_owned),
        }
    }

    /// The heat sources at hand, as listed.
    pub fn heat_sources(&self) -> impl Iterator<Item = &'static HeatSource> + '_ {
        self.sources.iter().flatten().filter_map(|id| HeatSource::from_id(id))
    }

    /// The packings at hand. Without a word a ceramic blanket is taken for granted.
    #[must_use]
    pub fn packings_at_hand(&self) -> Vec<Packing> {
        match &self.packings {
            None => vec![Packing::Blanket],
            Some(ids) => ids.iter().filter_map(|id| Packing::from_id(id)).collect(),
        }
    }
}
