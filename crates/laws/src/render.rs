//! A sentence as a template with quantities in it, said in the units of a shop.

use crate::quantity::{Rounding, Unit, UnitSystem};

/// What a quantity in a template may be in.
const UNITS: [(&str, Unit); 18] = [
    ("bar", Unit::Bar),
    ("degC", Unit::Celsius),
    ("K/h", Unit::KelvinsPerHour),
    ("K", Unit::Kelvins),
    ("mm", Unit::Millimetres),
    ("kg", Unit::Kilograms),
    ("MPa", Unit::Megapascals),
    ("m/s", Unit::MetresPerSecond),
    ("min", Unit::Minutes),
    ("drill", Unit::Drill),
    ("mm2", Unit::SquareMillimetres),
    ("m2", Unit::SquareMetres),
    ("cm3", Unit::CubicCentimetres),
    ("m3", Unit::CubicMetres),
    ("g", Unit::Grams),
    ("m/min", Unit::MetresPerMinute),
    ("MJ", Unit::Megajoules),
    ("kg/m3", Unit::KilogramsPerCubicMetre),
];

/// A template in the units of a shop: `{260 degC}` and `{260 to 350 degC}` are quantities in the unit the
/// core works in; `{65 degC down}` is a limit that is never said higher than it is. What stands in
/// braces and is none stays as it is.
#[must_use]
pub fn said(template: &str, units: UnitSystem) -> String {
    rounded(template, units, Rounding::Nearest)
}

/// With a capital letter.
#[must_use]
pub fn upper(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

/// The same, to the degree: what might be typed or read.
#[must_use]
pub fn said_exactly(template: &str, units: UnitSystem) -> String {
    rounded(template, units, Rounding::Exact)
}

/// Several of a kind: "steel, malleable and ductile".
#[must_use]
pub fn all_of(words: &[String]) -> String {
    match words {
        [] => String::new(),
        [only] => only.clone(),
        [others @ .., last] => format!("{} and {last}", others.join(", ")),
    }
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
    let (inside, rounding) =
        inside.strip_suffix(" down").map_or((inside, rounding), |inside| (inside, Rounding::Down));
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
    #[case::none(&[], "")]
    #[case::one(&["steel"], "steel")]
    #[case::two(&["steel", "ductile"], "steel and ductile")]
    #[case::three(&["steel", "malleable", "ductile"], "steel, malleable and ductile")]
    fn several_of_a_kind_are_told_as_one_tells_them(#[case] words: &[&str], #[case] told: &str) {
        let words: Vec<String> = words.iter().map(|&word| word.to_owned()).collect();
        assert_eq!(all_of(&words), told);
    }

    #[rstest]
    // Hand-worked: 260 degC = 500 degF, 350 degC = 662 degF; 100 K/h = 180 °F an hour; 25.4 mm = 1 in; to ten degrees
    #[case::plain("no number", "no number", "no number")]
    #[case::one("over {260 degC} it runs", "over 260 °C it runs", "over 500 °F it runs")]
    #[case::between("{260 to 350 degC}", "260 to 350 °C", "500 to 660 °F")]
    #[case::several("{25.4 mm}, {100 K/h}", "25.5 mm, 100 °C an hour", "1 in, 180 °F an hour")]
    // Hand-worked: 65 degC = 149 degF
    #[case::never_over("under {65 degC down}", "under 65 °C", "under 140 °F")]
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
