//! What people type: `3/16`, `1 1/2 in`, `6,4`, `500F`, `12 lb`, `1h20`.

use super::{Unit, UnitSystem};

/// What sort of quantity a field holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Kind {
    Length,
    Mass,
    Temperature,
    /// Minutes inside, shown as hours and minutes.
    Duration,
    /// Days inside: weeks, months and years are understood.
    Days,
    /// Pressure over the air's, as a gauge shows it.
    GaugePressure,
    /// Sound speed in metal, as an ultrasonic gauge is set.
    SoundSpeed,
    Plain,
}

/// A typed quantity in the unit the core works in: mm, kg, degC, min, days, bar, m/s.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Typed {
    pub value: f64,
    pub unit: Unit,
}

/// Typed text that is not a quantity of this kind.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum NotUnderstood {
    #[error("nothing was typed")]
    Empty,
    #[error("there is no number in \"{0}\"")]
    NoNumber(String),
    #[error("there are several numbers in \"{0}\"")]
    SeveralNumbers(String),
    #[error("a letter o stands where a zero should be in \"{0}\"")]
    LetterO(String),
    #[error("\"{0}\" is not a unit that fits here")]
    UnknownUnit(String),
    #[error("\"{0}\" divides by zero")]
    ZeroDenominator(String),
}

impl NotUnderstood {
    /// What would be right in a field of this kind.
    #[must_use]
    pub fn would_be_right(kind: Kind) -> &'static str {
        match kind {
            Kind::Length => "6.4 mm, 1/4, 1 1/2 in or 20 cm",
            Kind::Mass => "12 kg or 26 lb",
            Kind::Temperature => "260 C or 500 F",
            Kind::Duration => "45 min, 1h20 or 2 h",
            Kind::Days => "90 days, 6 months or 2 years",
            Kind::GaugePressure => "6 bar, 0.6 MPa or 90 psi",
            Kind::SoundSpeed => "5920 m/s or 0.233 in/us",
            Kind::Plain => "a plain number",
        }
    }
}

/// Reads a quantity as people say it.
///
/// The unit typed wins. Without one it means `shown_in`, the unit printed on the field; a bare
/// fraction of a length means inches, since nobody says three sixteenths of a millimetre.
/// A comma is a decimal sign.
///
/// # Errors
/// [`NotUnderstood`] when there is no number, or the unit is not one of this kind.
pub fn parse(text: &str, kind: Kind, shown_in: UnitSystem) -> Result<Typed, NotUnderstood> {
    let text = text.trim();
    if text.is_empty() {
        return Err(NotUnderstood::Empty);
    }
    let lower = text.to_lowercase().replace(',', ".").replace('½', " 1/2");
    if kind == Kind::Duration
        && let Some(minutes) = hours_and_minutes(&lower)
    {
        return Ok(Typed { value: minutes, unit: Unit::Minutes });
    }
    let split = lower
        .find(|c: char| !(c.is_ascii_digit() || matches!(c, '.' | '/' | ' ' | '-' | '+')))
        .unwrap_or(lower.len());
    let (digits, unit) = (lower[..split].trim(), lower[split..].trim());
    if unit.starts_with('o') {
        return Err(NotUnderstood::LetterO(text.to_owned()));
    }
    let (number, is_fraction) = number_or_fraction(digits, text)?;
    let unit = unit.trim_start_matches("deg").trim_start_matches('°').trim();
    let (value, unit) = match (kind, unit) {
        (Kind::Length, "") if is_fraction => (number * 25.4, Unit::Millimetres),
        (Kind::Length, "") => match shown_in {
            UnitSystem::Metric => (number, Unit::Millimetres),
            UnitSystem::Imperial => (number * 25.4, Unit::Millimetres),
        },
        (Kind::Length, "mm") => (number, Unit::Millimetres),
        (Kind::Length, "cm") => (number * 10.0, Unit::Millimetres),
        (Kind::Length, "m") => (number * 1000.0, Unit::Millimetres),
        (Kind::Length, "in" | "inch" | "inches" | "\"" | "''") => (number * 25.4, Unit::Millimetres),
        (Kind::Length, "ft" | "foot" | "feet" | "'") => (number * 304.8, Unit::Millimetres),
        (Kind::Mass, "") => match shown_in {
            UnitSystem::Metric => (number, Unit::Kilograms),
            UnitSystem::Imperial => (number * KG_PER_LB, Unit::Kilograms),
        },
        (Kind::Mass, "kg" | "kilo" | "kilos") => (number, Unit::Kilograms),
        (Kind::Mass, "g") => (number / 1000.0, Unit::Kilograms),
        (Kind::Mass, "t") => (number * 1000.0, Unit::Kilograms),
        (Kind::Mass, "lb" | "lbs" | "pound" | "pounds") => (number * KG_PER_LB, Unit::Kilograms),
        (Kind::Temperature, "") => match shown_in {
            UnitSystem::Metric => (number, Unit::Celsius),
            UnitSystem::Imperial => (celsius_of_fahrenheit(number), Unit::Celsius),
        },
        (Kind::Temperature, "c") => (number, Unit::Celsius),
        (Kind::Temperature, "f") => (celsius_of_fahrenheit(number), Unit::Celsius),
        (Kind::Temperature, "k") => (number - 273.15, Unit::Celsius),
        (Kind::Duration, "" | "min" | "mins" | "minutes" | "m") => (number, Unit::Minutes),
        (Kind::Duration, "h" | "hr" | "hours" | "hour") => (number * 60.0, Unit::Minutes),
        (Kind::Duration, "s" | "sec") => (number / 60.0, Unit::Minutes),
        (Kind::Days, "" | "d" | "day" | "days") => (number, Unit::Days),
        (Kind::Days, "w" | "week" | "weeks") => (number * 7.0, Unit::Days),
        (Kind::Days, "month" | "months") => (number * 30.0, Unit::Days),
        (Kind::Days, "y" | "year" | "years") => (number * 365.0, Unit::Days),
        (Kind::GaugePressure, "") => match shown_in {
            UnitSystem::Metric => (number, Unit::Bar),
            UnitSystem::Imperial => (number * BAR_PER_PSI, Unit::Bar),
        },
        (Kind::GaugePressure, "bar" | "bars" | "barg" | "bar g") => (number, Unit::Bar),
        (Kind::GaugePressure, "psi" | "psig") => (number * BAR_PER_PSI, Unit::Bar),
        (Kind::GaugePressure, "mpa") => (number * 10.0, Unit::Bar),
        (Kind::GaugePressure, "kpa") => (number / 100.0, Unit::Bar),
        // No gauge is set to under 1 m/s or over 1 in/µs: a bare number says itself which it is.
        (Kind::SoundSpeed, "") if number < 1.0 => (number * MS_PER_IN_US, Unit::MetresPerSecond),
        (Kind::SoundSpeed, "" | "m/s" | "ms") => (number, Unit::MetresPerSecond),
        (Kind::SoundSpeed, "in/us" | "in/µs" | "in/usec") => (number * MS_PER_IN_US, Unit::MetresPerSecond),
        (Kind::Plain, "") => (number, Unit::Plain),
        (
            Kind::Length
            | Kind::Mass
            | Kind::Temperature
            | Kind::Duration
            | Kind::Days
            | Kind::GaugePressure
            | Kind::SoundSpeed
            | Kind::Plain,
            unknown,
        ) => return Err(NotUnderstood::UnknownUnit(unknown.to_owned())),
    };
    Ok(Typed { value, unit })
}

/// Exact, by the international agreement on the pound.
const KG_PER_LB: f64 = 0.453_592_37;
pub(super) const BAR_PER_PSI: f64 = 0.068_947_573;
/// An inch in a millionth of a second.
pub(super) const MS_PER_IN_US: f64 = 25_400.0;

fn celsius_of_fahrenheit(fahrenheit: f64) -> f64 {
    (fahrenheit - 32.0) / 1.8
}

fn hours_and_minutes(text: &str) -> Option<f64> {
    let (hours, minutes) = text.split_once('h')?;
    let hours: f64 = hours.trim().parse().ok()?;
    let minutes = minutes.trim().trim_end_matches("min").trim_end_matches('m').trim();
    if minutes.is_empty() {
        return Some(hours * 60.0);
    }
    Some(hours * 60.0 + minutes.parse::<f64>().ok()?)
}

/// The number, and whether it was a fraction: `3/16`, `1 1/2`, `1-1/2`.
fn number_or_fraction(digits: &str, text: &str) -> Result<(f64, bool), NotUnderstood> {
    let no_number = || NotUnderstood::NoNumber(text.to_owned());
    let Some((left, denominator)) = digits.split_once('/') else {
        if !only_thousands_apart(digits) {
            return Err(NotUnderstood::SeveralNumbers(text.to_owned()));
        }
        let plain: f64 = digits.replace(' ', "").parse().map_err(|_| no_number())?;
        return Ok((plain, false));
    };
    let denominator: f64 = denominator.trim().parse().map_err(|_| no_number())?;
    if denominator == 0.0 {
        return Err(NotUnderstood::ZeroDenominator(text.to_owned()));
    }
    let left = left.trim();
    let (whole, numerator) = left.rsplit_once([' ', '-']).unwrap_or(("0", left));
    let whole: f64 = match whole.trim() {
        "" => return Err(no_number()),
        whole => whole.parse().map_err(|_| no_number())?,
    };
    let numerator: f64 = numerator.trim().parse().map_err(|_| no_number())?;
    Ok((whole + numerator / denominator, true))
}

/// Spaces may part thousands, as in `20 000`, and nothing else.
fn only_thousands_apart(digits: &str) -> bool {
    digits.split_whitespace().skip(1).all(|group| {
        let whole = group.split('.').next().unwrap_or_default();
        whole.len() == 3 && whole.chars().all(|c| c.is_ascii_digit())
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    // Hand-worked: 25.4 mm to the inch, exactly
    #[case::bare_fraction_is_inches("3/16", Kind::Length, 4.7625)]
    #[case::mixed_inches("1 1/2 in", Kind::Length, 38.1)]
    #[case::mixed_with_a_dash("1-1/2\"", Kind::Length, 38.1)]
    #[case::millimetres("6.4 mm", Kind::Length, 6.4)]
    #[case::decimal_comma("6,4", Kind::Length, 6.4)]
    #[case::centimetres("20cm", Kind::Length, 200.0)]
    // Hand-worked: (500 - 32) / 1.8
    #[case::fahrenheit("500F", Kind::Temperature, 260.0)]
    #[case::celsius("260 C", Kind::Temperature, 260.0)]
    #[case::degree_sign("260 °C", Kind::Temperature, 260.0)]
    #[case::below_zero("-4 F", Kind::Temperature, -20.0)]
    // Hand-worked: 12 x 0.45359237
    #[case::pounds("12 lb", Kind::Mass, 5.443_108_44)]
    #[case::hours_and_minutes("1h20", Kind::Duration, 80.0)]
    #[case::hours("2 h", Kind::Duration, 120.0)]
    #[case::bare_minutes("45", Kind::Duration, 45.0)]
    #[case::years("2 years", Kind::Days, 730.0)]
    #[case::bar("6 bar", Kind::GaugePressure, 6.0)]
    #[case::megapascals("0.6 MPa", Kind::GaugePressure, 6.0)]
    // Hand-worked: 100 x 0.068947573
    #[case::pounds_on_a_square_inch("100 psi", Kind::GaugePressure, 6.894_757_3)]
    #[case::sound("5920 m/s", Kind::SoundSpeed, 5920.0)]
    // Hand-worked: 0.233 x 25400
    #[case::sound_in_inches("0.233 in/us", Kind::SoundSpeed, 5918.2)]
    #[case::sound_in_bare_inches("0.233", Kind::SoundSpeed, 5918.2)]
    fn what_people_type_is_understood(#[case] text: &str, #[case] kind: Kind, #[case] value: f64) {
        let typed = parse(text, kind, UnitSystem::Metric).unwrap();
        assert!((typed.value - value).abs() < 1e-9, "{text}: {}", typed.value);
    }

    #[rstest]
    #[case::length("8", Kind::Length, 203.2)]
    #[case::mass("10", Kind::Mass, 4.535_923_7)]
    #[case::temperature("500", Kind::Temperature, 260.0)]
    #[case::typed_unit_wins("8 mm", Kind::Length, 8.0)]
    fn a_bare_number_means_the_unit_on_the_field(#[case] text: &str, #[case] kind: Kind, #[case] value: f64) {
        let typed = parse(text, kind, UnitSystem::Imperial).unwrap();
        assert!((typed.value - value).abs() < 1e-9);
    }

    #[rstest]
    #[case::letter_o("28o C", Kind::Temperature, NotUnderstood::LetterO("28o C".into()))]
    #[case::wrong_unit("500Q", Kind::Temperature, NotUnderstood::UnknownUnit("q".into()))]
    #[case::mass_in_a_length("5 kg", Kind::Length, NotUnderstood::UnknownUnit("kg".into()))]
    #[case::words("thick", Kind::Length, NotUnderstood::NoNumber("thick".into()))]
    #[case::over_zero("3/0", Kind::Length, NotUnderstood::ZeroDenominator("3/0".into()))]
    #[case::empty("  ", Kind::Length, NotUnderstood::Empty)]
    fn what_is_no_quantity_is_refused_with_the_reason(
        #[case] text: &str,
        #[case] kind: Kind,
        #[case] reason: NotUnderstood,
    ) {
        assert_eq!(parse(text, kind, UnitSystem::Metric), Err(reason));
    }
}
