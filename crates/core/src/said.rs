//! A sentence as a template with quantities in it, said in the units of a shop.

use crate::quantity::{Unit, UnitSystem};

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
    let mut parts = template.split('{');
    let mut sentence = parts.next().unwrap_or_default().to_owned();
    for part in parts {
        match part.split_once('}').and_then(|(inside, rest)| Some((quantity(inside, units)?, rest))) {
            Some((quantity, rest)) => sentence.extend([&quantity, rest]),
            None => sentence.extend(["{", part]),
        }
    }
    sentence
}

fn quantity(inside: &str, units: UnitSystem) -> Option<String> {
    let (numbers, unit) = inside.rsplit_once(' ')?;
    let (_, unit) = UNITS.iter().find(|(name, _)| *name == unit)?;
    match numbers.split_once(" to ") {
        None => Some(units.say(numbers.parse().ok()?, *unit)),
        Some((low, high)) => {
            // The unit is said once.
            let low = units.say(low.parse().ok()?, *unit);
            let number = low.split(' ').next().unwrap_or_default();
            Some(format!("{number} to {}", units.say(high.parse().ok()?, *unit)))
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    // Hand-worked: 260 degC = 500 degF, 350 degC = 662 degF; 100 K/h = 180 F deg/h; 25.4 mm = 1 in
    #[case::plain("no number", "no number", "no number")]
    #[case::one("over {260 degC} it runs", "over 260 °C it runs", "over 500 °F it runs")]
    #[case::between("{260 to 350 degC}", "260 to 350 °C", "500 to 662 °F")]
    #[case::several("{25.4 mm}, {100 K/h}", "25.4 mm, 100 K/h", "1 in, 180 F deg/h")]
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
