//! A sentence as a template with quantities in it, said in the units of a shop.

use crate::quantity::{Rounding, Unit, UnitSystem};

/// What a quantity in a template may be in.
const UNITS: [(&str, Unit); 9] = [
    ("bar", Unit::Bar),
    ("degC", Unit::Celsius),
    ("K/h", Unit::KelvinsPerHour),
    ("K", Unit::Kelvins),
    ("mm", Unit::Millimetres),
    ("kg", Unit::Kilograms),
    ("MPa", Unit::Megapascals),
    ("m/s", Unit::MetresPerSecond),
    ("min", Unit::Minutes),
];

/// A template in the units of a shop: `{260 degC}` and `{260 to 350 degC}` are quantities in the unit the
/// core works in. What stands in braces and is none stays as it is.
#[must_use]
pub fn said(template: &str, units: UnitSystem) -> String {
    rounded(template, units, Rounding::Nearest)
}

/// The same, to the degree: what might be typed or read.
#[must_use]
pub fn said_exactly(template: &str, units: UnitSystem) -> String {
    rounded(template, units, Rounding::Exact)
}

fn rounded(template: &str, units: UnitSystem, rounding: Rounding) -> String {
    let mut parts = template.split('{');
    let mut sentence = parts.next().unwrap_or_default().to_owned();
    for part in parts {
        match part.split_once('}').and_then(|(inside, rest)| Some((quantity(inside, units, rounding)?, rest)))
        {
            Some((quantity, rest)) => sentence.extend([&quantity, rest]),
            None => sentence.extend(["{", part]),
        }
    }
    sentence
}

fn quantity(inside: &str, units: UnitSystem, rounding: Rounding) -> Option<String> {
    let (numbers, unit) = inside.rsplit_once(' ')?;
    let (_, unit) = UNITS.iter().find(|(name, _)| *name == unit)?;
    match numbers.split_once(" to ") {
        None => Some(units.show(numbers.parse().ok()?, *unit, rounding).text()),
        Some((low, high)) => {
            // The unit is said once.
            let low = units.show(low.parse().ok()?, *unit, rounding).number;
            Some(format!("{low} to {}", units.show(high.parse().ok()?, *unit, rounding).text()))
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    // Hand-worked: 260 degC = 500 degF, 350 degC = 662 degF; 100 K/h = 180 °F an hour; 25.4 mm = 1 in; to ten degrees
    #[case::plain("no number", "no number", "no number")]
    #[case::one("over {260 degC} it runs", "over 260 °C it runs", "over 500 °F it runs")]
    #[case::between("{260 to 350 degC}", "260 to 350 °C", "500 to 660 °F")]
    #[case::several("{25.4 mm}, {100 K/h}", "25.5 mm, 100 °C an hour", "1 in, 180 °F an hour")]
    #[case::no_quantity("{so} {260} {x degC}", "{so} {260} {x degC}", "{so} {260} {x degC}")]
    #[case::never_closed("from {260 degC", "from {260 degC", "from {260 degC")]
    fn a_template_speaks_the_units_of_the_shop(
        #[case] template: &str,
        #[case] metric: &str,
        #[case] imperial: &str,
    ) {
        assert_eq!(said(template, UnitSystem::Metric), metric);
        assert_eq!(said(template, UnitSystem::Imperial), imperial);
    }
}
