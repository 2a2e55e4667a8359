//! The shop: its ways of showing things and the gear at hand.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

use crate::heat::{HeatSource, Packing};
use crate::job::{FieldValue, Held};
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
        let value = |key: &str| values.get(key).and_then(|held| held.value.as_ref());
        let text = |key: &str, otherwise: &str| match value(key) {
            Some(FieldValue::Text(text) | FieldValue::One(text)) => text.clone(),
            _ => otherwise.to_owned(),
        };
        let many = |key: &str| match value(key) {
            Some(FieldValue::Many(ids)) => Some(ids.clone()),
            _ => None,
        };
        Self {
            name: text("shop.name", "This shop"),
            units: if text("shop.units", "metric") == "imperial" {
                UnitSystem::Imperial
            } else {
                UnitSystem::Metric
            },
            theme: text("shop.theme", "shop"),
            time_zone: text("shop.time_zone", "UTC"),
            ambient_c: match value("shop.ambient") {
                Some(FieldValue::Number(celsius)) => *celsius,
                _ => 20.0,
            },
            sources: many("shop.sources"),
            packings: many("shop.packings"),
            rods: many("shop.rods"),
            stitch_kit: match value("shop.stitch_kit") {
                Some(FieldValue::YesNo(yes)) => Some(*yes),
                _ => None,
            },
            pins: match value("shop.pins") {
                Some(FieldValue::One(id)) => Some(id.clone()),
                _ => None,
            },
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
