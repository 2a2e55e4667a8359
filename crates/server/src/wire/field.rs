//! A field as a page needs it: what is always so of it, and what stands in it.

use serde::Serialize;
use utoipa::ToSchema;
use vanadin_core::base::day::Day;
use vanadin_core::field::{Choice, FieldKind, FieldSpec, FieldState, FieldValue};
use vanadin_core::quantity::{Kind, Shown, Unit, UnitSystem, both, exactly, number};
use vanadin_core::render::said;

/// One choice of a field.
#[derive(Debug, Serialize, ToSchema)]
pub struct ChoiceView {
    pub id: &'static str,
    pub label: String,
}

impl ChoiceView {
    pub fn all(choices: &'static [Choice], units: UnitSystem) -> Vec<Self> {
        choices.iter().map(|&(id, label)| Self { id, label: said(label, units) }).collect()
    }
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
    /// What is pressed beside the number keys of a phone; nothing where words are typed.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<Vec<String>>)]
    pub keys: Option<&'static [&'static str]>,
}

/// What stands in a field: as it was typed, and how it was understood.
#[derive(Debug, Serialize, ToSchema)]
pub struct FieldHeld {
    pub typed: String,
    /// How it was understood, in the units of the device that asks; left out for words and choices.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub shown: Option<Shown>,
    /// Why what was typed is not understood any more; left out where it is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub not_understood: Option<String>,
    /// Base a change on this.
    pub revision: u64,
}

/// Words up to this many letters are asked for in one line.
const ONE_LINE: usize = 200;

fn asks_for(kind: Kind) -> AsksFor {
    match kind {
        Kind::Length => AsksFor::Length,
        Kind::Mass => AsksFor::Mass,
        Kind::Temperature => AsksFor::Temperature,
        Kind::Duration | Kind::Hours | Kind::TimeOfDay => AsksFor::Duration,
        Kind::Days => AsksFor::Days,
        Kind::GaugePressure => AsksFor::Pressure,
        Kind::SoundSpeed
        | Kind::GasVolume
        | Kind::Money
        | Kind::Percent
        | Kind::Angle
        | Kind::Turns
        | Kind::Plain => AsksFor::Number,
    }
}

impl FieldTable {
    pub fn of(spec: &FieldSpec, shop_units: UnitSystem) -> Self {
        let (asks_for, choices, units) = match spec.kind {
            FieldKind::Text { most } if most > ONE_LINE => (AsksFor::Prose, &[][..], ("", "")),
            FieldKind::Text { .. } => (AsksFor::Text, &[][..], ("", "")),
            FieldKind::Quantity { kind, unit, .. } => {
                (asks_for(kind), &[][..], kind.asked_in().unwrap_or((unit, unit)))
            }
            FieldKind::One(choices) => (AsksFor::One, choices, ("", "")),
            FieldKind::Many(choices) => (AsksFor::Many, choices, ("", "")),
            FieldKind::YesNo => (AsksFor::YesNo, &[("yes", "Yes"), ("no", "No")][..], ("", "")),
            FieldKind::Date => (AsksFor::Date, &[][..], ("", "")),
        };
        let keys = match spec.kind {
            FieldKind::Quantity { kind, .. } => Some(kind.keys(shop_units)),
            FieldKind::Text { .. }
            | FieldKind::One(_)
            | FieldKind::Many(_)
            | FieldKind::YesNo
            | FieldKind::Date => None,
        };
        Self {
            label: spec.label,
            asks_for,
            keys,
            unit_metric: units.0,
            unit_imperial: units.1,
            choices: ChoiceView::all(choices, shop_units),
            example: said(spec.example, shop_units),
        }
    }
}

impl FieldHeld {
    pub fn of(spec: &FieldSpec, held: &FieldState, units: UnitSystem) -> Self {
        let unit = match spec.kind {
            FieldKind::Quantity { kind, .. } => kind.held_in(),
            _ => None,
        };
        let shown = match (unit, &held.value) {
            (Some(unit), Some(FieldValue::Number(value))) => Some(units.of(as_typed(*value, unit))),
            _ => None,
        };
        let typed = match (spec.kind, &held.value) {
            // Said as *Friday* it would be another one tomorrow.
            (FieldKind::Date, Some(FieldValue::Text(day))) => Day::say(day),
            _ => held.typed.clone(),
        };
        let not_understood = Some(held.not_understood.clone()).filter(|it| !it.is_empty());
        Self { typed, shown, not_understood, revision: held.revision }
    }
}

/// As it was typed; where it was typed in the other system, as a rule of this one shows it.
fn as_typed(value: f64, unit: Unit) -> (Shown, Shown) {
    let (metric, imperial) = exactly(value, unit);
    if unit != Unit::Millimetres {
        return (metric, imperial);
    }
    let (near_metric, near_imperial) = both(value, unit);
    match (metric == near_metric, imperial == near_imperial) {
        // What was typed to the tenth is not told as a whole millimetre, however long it is.
        (true, false) if (value * 100.0 - (value * 100.0).round()).abs() < 1e-6 => {
            (Shown { number: number(value, 2), ..metric }, near_imperial)
        }
        (true, false) => (metric, near_imperial),
        (false, true) => (near_metric, imperial),
        _ => (metric, imperial),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    // Hand-worked: 14 / 25.4 = 0.551, 9/16 in = 0.5625; 7/8 in = 22.225 mm
    #[case::typed_in_millimetres(14.0, Unit::Millimetres, "14 mm", "9/16 in")]
    // By hand: 259.9 / 25.4 = 10.232, 10 1/4 in = 260.35 mm
    #[case::long_and_typed_to_the_tenth(259.9, Unit::Millimetres, "259.9 mm", "10 1/4 in")]
    #[case::typed_in_inches(22.225, Unit::Millimetres, "22 mm", "7/8 in")]
    #[case::typed_to_the_hundredth(7.34, Unit::Millimetres, "7.34 mm", "0.289 in")]
    // A limit is not rounded away: 180 degC = 356 degF
    #[case::a_temperature(180.0, Unit::Celsius, "180 °C", "356 °F")]
    fn what_was_typed_in_the_other_system_reads_as_on_a_rule(
        #[case] value: f64,
        #[case] unit: Unit,
        #[case] metric: &str,
        #[case] imperial: &str,
    ) {
        let (shown_metric, shown_imperial) = as_typed(value, unit);
        assert_eq!((shown_metric.text().as_str(), shown_imperial.text().as_str()), (metric, imperial));
    }
}
