//! A field as a page needs it: what is always so of it, and what stands in it.

use serde::Serialize;
use utoipa::ToSchema;
use vanadin_core::field::{FieldKind, FieldSpec, FieldValue, Held};
use vanadin_core::quantity::{Kind, Shown, Unit, UnitSystem, both};
use vanadin_core::said::said;

/// One choice of a field.
#[derive(Debug, Serialize, ToSchema)]
pub struct ChoiceView {
    pub id: &'static str,
    pub label: String,
}

/// What a field asks for.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AsksFor {
    Text,
    /// Words in several lines.
    Prose,
    Length,
    Mass,
    Temperature,
    Duration,
    Days,
    Pressure,
    Number,
    One,
    Many,
    YesNo,
    Date,
}

/// What is always so of a field, in the units of the shop.
#[derive(Debug, Serialize, ToSchema)]
pub struct FieldTable {
    pub label: &'static str,
    pub asks_for: AsksFor,
    /// The unit a bare number is taken in: metric, imperial.
    pub unit_metric: &'static str,
    pub unit_imperial: &'static str,
    pub choices: Vec<ChoiceView>,
    /// What might stand in it; empty for nothing.
    pub example: String,
}

/// What stands in a field: as it was typed, and how it was understood.
#[derive(Debug, Serialize, ToSchema)]
pub struct FieldHeld {
    pub typed: String,
    /// How it was understood; nothing for words and choices.
    pub metric: Option<Shown>,
    pub imperial: Option<Shown>,
    /// Why what was typed is not understood any more; empty where it is.
    pub not_understood: String,
    /// Base a change on this.
    pub revision: u64,
}

/// Words up to this many letters are asked for in one line.
const ONE_LINE: usize = 200;

/// The unit a quantity is held in, and the one a bare number is taken in: metric, imperial.
fn units_of(kind: Kind, plain: &'static str) -> (AsksFor, Option<Unit>, (&'static str, &'static str)) {
    match kind {
        Kind::Length => (AsksFor::Length, Some(Unit::Millimetres), ("mm", "in")),
        Kind::Mass => (AsksFor::Mass, Some(Unit::Kilograms), ("kg", "lb")),
        Kind::Temperature => (AsksFor::Temperature, Some(Unit::Celsius), ("°C", "°F")),
        Kind::Duration => (AsksFor::Duration, Some(Unit::Minutes), ("min", "min")),
        Kind::Days => (AsksFor::Days, Some(Unit::Days), ("days", "days")),
        Kind::GaugePressure => (AsksFor::Pressure, Some(Unit::Bar), ("bar", "psi")),
        Kind::SoundSpeed => (AsksFor::Number, Some(Unit::MetresPerSecond), ("m/s", "m/s")),
        Kind::Plain => (AsksFor::Number, None, (plain, plain)),
    }
}

impl FieldTable {
    pub fn of(spec: &FieldSpec, shop_units: UnitSystem) -> Self {
        let (asks_for, choices, units) = match spec.kind {
            FieldKind::Text { most } if most > ONE_LINE => (AsksFor::Prose, &[][..], ("", "")),
            FieldKind::Text { .. } => (AsksFor::Text, &[][..], ("", "")),
            FieldKind::Quantity { kind, unit, .. } => {
                let (asks_for, _, units) = units_of(kind, unit);
                (asks_for, &[][..], units)
            }
            FieldKind::One(choices) => (AsksFor::One, choices, ("", "")),
            FieldKind::Many(choices) => (AsksFor::Many, choices, ("", "")),
            FieldKind::YesNo => (AsksFor::YesNo, &[("yes", "Yes"), ("no", "No")][..], ("", "")),
            FieldKind::Date => (AsksFor::Date, &[][..], ("", "")),
        };
        Self {
            label: spec.label,
            asks_for,
            unit_metric: units.0,
            unit_imperial: units.1,
            choices: choices
                .iter()
                .map(|&(id, label)| ChoiceView { id, label: said(label, shop_units) })
                .collect(),
            example: said(spec.example, shop_units),
        }
    }
}

impl FieldHeld {
    pub fn of(spec: &FieldSpec, held: &Held) -> Self {
        let unit = match spec.kind {
            FieldKind::Quantity { kind, unit, .. } => units_of(kind, unit).1,
            _ => None,
        };
        let shown = match (unit, &held.value) {
            (Some(unit), Some(FieldValue::Number(value))) => Some(both(*value, unit)),
            _ => None,
        };
        let (metric, imperial) = shown.unzip();
        Self {
            typed: held.typed.clone(),
            metric,
            imperial,
            not_understood: held.not_understood.clone(),
            revision: held.revision,
        }
    }
}
