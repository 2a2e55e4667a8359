//! What people type: `3/16`, `1 1/2 in`, `6,4`, `500F`, `3 lb 2 oz`, `about 12 kg`, `5-7 mm`, `half a day`.

mod units;

use super::spoken::{Spoken, spoken};
use super::{Unit, UnitSystem};

use units::{days, gas_volume, length, mass, money, pressure, sound_speed, temperature, time, turns};

/// What sort of quantity a field holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Kind {
    Length,
    Mass,
    Temperature,
    /// Minutes inside, shown as hours and minutes.
    Duration,
    /// The same of a working day: a bare number is hours.
    Hours,
    /// Minutes after midnight inside.
    TimeOfDay,
    /// Days inside: weeks, months and years are understood.
    Days,
    /// Pressure over the air's, as a gauge shows it.
    GaugePressure,
    /// Sound speed in metal, as an ultrasonic gauge is set.
    SoundSpeed,
    /// Gas, as it would fill a room.
    GasVolume,
    /// In the shop's own currency, whatever sign stands beside it.
    Money,
    Percent,
    /// Degrees of an angle.
    Angle,
    /// Turns a minute.
    Turns,
    Plain,
}

impl Kind {
    /// The unit a bare number is taken in, metric and imperial; nothing where there is one for all.
    #[must_use]
    pub fn asked_in(self) -> Option<(&'static str, &'static str)> {
        match self {
            Self::Length => Some(("mm", "in")),
            Self::Mass => Some(("kg", "lb")),
            Self::Temperature => Some(("°C", "°F")),
            Self::Duration => Some(("min", "min")),
            Self::Hours => Some(("h", "h")),
            Self::Days => Some(("days", "days")),
            Self::GaugePressure => Some(("bar", "psi")),
            Self::SoundSpeed => Some(("m/s", "m/s")),
            Self::GasVolume => Some(("m³", "ft³")),
            Self::TimeOfDay | Self::Money | Self::Percent | Self::Angle | Self::Turns | Self::Plain => None,
        }
    }

    /// What a gloved hand needs beside the number keys of a phone, the likeliest first: units, and what parts numbers.
    #[must_use]
    pub fn keys(self, units: UnitSystem) -> &'static [&'static str] {
        match (self, units) {
            (Self::Length, UnitSystem::Metric) => &["mm", "cm", "m", "in", "/", "-"],
            (Self::Length, UnitSystem::Imperial) => &["in", "ft", "/", "-", "mm"],
            (Self::Mass, UnitSystem::Metric) => &["kg", "g", "t", "lb", "-"],
            (Self::Mass, UnitSystem::Imperial) => &["lb", "oz", "kg", "-"],
            (Self::Temperature, UnitSystem::Metric) => &["°C", "°F", "-"],
            (Self::Temperature, UnitSystem::Imperial) => &["°F", "°C", "-"],
            (Self::Duration, _) => &["min", "h"],
            (Self::Hours, _) => &["h", "min"],
            (Self::TimeOfDay, _) => &[":", "am", "pm"],
            (Self::Days, _) => &["days", "weeks", "months", "years"],
            (Self::GaugePressure, UnitSystem::Metric) => &["bar", "MPa", "psi"],
            (Self::GaugePressure, UnitSystem::Imperial) => &["psi", "bar"],
            (Self::SoundSpeed, _) => &["m/s", "in/us"],
            (Self::GasVolume, UnitSystem::Metric) => &["m³", "ft³"],
            (Self::GasVolume, UnitSystem::Imperial) => &["ft³", "m³"],
            (Self::Percent, _) => &["%"],
            (Self::Angle, _) => &["°"],
            (Self::Turns, _) => &["rpm"],
            (Self::Money | Self::Plain, _) => &[],
        }
    }

    /// The unit it is held in, where shops differ in how they show it.
    #[must_use]
    pub fn held_in(self) -> Option<Unit> {
        match self {
            Self::Length => Some(Unit::Millimetres),
            Self::Mass => Some(Unit::Kilograms),
            Self::Temperature => Some(Unit::Celsius),
            Self::Duration | Self::Hours => Some(Unit::Minutes),
            Self::Days => Some(Unit::Days),
            Self::GaugePressure => Some(Unit::Bar),
            Self::SoundSpeed => Some(Unit::MetresPerSecond),
            Self::GasVolume => Some(Unit::CubicMetres),
            Self::TimeOfDay | Self::Money | Self::Percent | Self::Angle | Self::Turns | Self::Plain => None,
        }
    }
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
    #[error("\"{0}\" goes from more to less")]
    BackwardRange(String),
    #[error("\"{0}\" divides by zero")]
    ZeroDenominator(String),
}

impl NotUnderstood {
    /// What would be right in a field of this kind.
    #[must_use]
    pub fn would_be_right(kind: Kind) -> &'static str {
        match kind {
            Kind::Length => "6.4 mm, 1/4, 1 1/2 in, 2 ft 3 in or 5-7 mm",
            Kind::Mass => "12 kg, 3 lb 2 oz or about 26 lb",
            Kind::Temperature => "260 C or 500 F",
            Kind::Duration => "45 min, 1h20 or half an hour",
            Kind::Hours => "5, 5 h or 4 h 30",
            Kind::TimeOfDay => "7:30, 7:30 am, 0730 or 8",
            Kind::Days => "90 days, half a day, 6 months or 2 years",
            Kind::GaugePressure => "6 bar, 0.6 MPa or 90 psi",
            Kind::SoundSpeed => "5920 m/s or 0.233 in/us",
            Kind::GasVolume => "10 m³ or 350 ft³",
            Kind::Money => "400 or £400",
            Kind::Percent => "30 or 30 %",
            Kind::Angle => "70 or 70°",
            Kind::Turns => "1400 or 1400 rpm",
            Kind::Plain => "a plain number",
        }
    }
}

/// Reads a quantity as people say it.
///
/// The unit typed wins. Without one it means `shown_in`, the unit printed on the field; a bare
/// fraction of a length means inches, since nobody says three sixteenths of a millimetre.
/// A comma is a decimal sign, but where it parts thousands. Of a range it is the middle.
///
/// # Errors
/// [`NotUnderstood`] when there is no number, or the unit is not one of this kind.
pub fn parse(text: &str, kind: Kind, shown_in: UnitSystem) -> Result<Typed, NotUnderstood> {
    let text = text.trim();
    if text.is_empty() {
        return Err(NotUnderstood::Empty);
    }
    // A raised three would be read as a second number.
    let raised = text.replace("m3", "m³").replace("ft3", "ft³");
    let text = if kind == Kind::GasVolume { raised.as_str() } else { text };
    if kind == Kind::TimeOfDay {
        return time_of_day(text).map(|value| Typed { value, unit: Unit::Minutes });
    }
    let plain = spoken(text, kind);
    if matches!(kind, Kind::Duration | Kind::Hours)
        && let Some(minutes) = by_the_clock(&plain)
    {
        return Ok(Typed { value: minutes, unit: Unit::Minutes });
    }
    let read =
        |said: &str, unit_of_the_other: &str| one_or_more(said, unit_of_the_other, kind, shown_in, text);
    match Spoken::of(&plain) {
        Spoken::One(said) => read(said, ""),
        Spoken::Range(from, to) => {
            let from = read(from, unit_in(to))?;
            let to = read(to, "")?;
            if from.value > to.value {
                return Err(NotUnderstood::BackwardRange(text.to_owned()));
            }
            Ok(Typed { value: f64::midpoint(from.value, to.value), unit: to.unit })
        }
    }
}

/// A number and its unit, or several that make one: `2 ft 3 in`, `3 lb 2 oz`, `1 h 20`.
fn one_or_more(
    said: &str,
    unit_of_the_other: &str,
    kind: Kind,
    shown_in: UnitSystem,
    text: &str,
) -> Result<Typed, NotUnderstood> {
    let mut rest = said.trim();
    let mut sum: Option<Typed> = None;
    let mut unit_before = "";
    loop {
        let (digits, unit, left) = next_part(rest);
        let unit = match (unit, sum) {
            ("", None) => unit_of_the_other,
            ("", Some(_)) => smaller_than(unit_before).unwrap_or_default(),
            (unit, _) => unit,
        };
        let part = one(digits, unit, kind, shown_in, text)?;
        if sum.is_some() && smaller_than(unit_before).is_none() {
            return Err(NotUnderstood::SeveralNumbers(text.to_owned()));
        }
        let before = sum.map_or(0.0, |sum| sum.value);
        sum = Some(Typed { value: before + part.value, unit: part.unit });
        (unit_before, rest) = (unit, left);
        if rest.is_empty() {
            return Ok(Typed { value: before + part.value, unit: part.unit });
        }
    }
}

/// What comes after a number in this unit, where nothing is said: two foot three, three pound two.
fn smaller_than(unit: &str) -> Option<&'static str> {
    match unit {
        "ft" | "foot" | "feet" | "'" => Some("in"),
        "lb" | "lbs" | "pound" | "pounds" => Some("oz"),
        "kg" | "kilo" | "kilos" => Some("g"),
        "h" | "hr" | "hrs" | "hour" | "hours" => Some("min"),
        "m" => Some("cm"),
        "y" | "year" | "years" => Some("months"),
        "month" | "months" => Some("weeks"),
        "w" | "week" | "weeks" => Some("days"),
        _ => None,
    }
}

/// Digits, unit, and what stands after them.
fn next_part(said: &str) -> (&str, &str, &str) {
    let is_number = |c: char| c.is_ascii_digit() || matches!(c, '.' | '/' | ' ' | '-' | '+');
    let split = said.find(|c: char| !is_number(c)).unwrap_or(said.len());
    let (digits, rest) = said.split_at(split);
    let after = rest.find(|c: char| c.is_ascii_digit()).unwrap_or(rest.len());
    let (unit, left) = rest.split_at(after);
    (digits.trim(), unit.trim(), left)
}

/// The unit at the end of what was said.
fn unit_in(said: &str) -> &str {
    let (_, unit, left) = next_part(said);
    if left.is_empty() { unit } else { "" }
}

fn one(
    digits: &str,
    unit: &str,
    kind: Kind,
    shown_in: UnitSystem,
    text: &str,
) -> Result<Typed, NotUnderstood> {
    if unit.starts_with('o') && unit != "oz" && !unit.starts_with("ounce") {
        return Err(NotUnderstood::LetterO(text.to_owned()));
    }
    let (number, is_fraction) = number_or_fraction(digits, text)?;
    let unit = match kind {
        Kind::Temperature => {
            unit.trim_start_matches("degrees").trim_start_matches("deg").trim_start_matches('°')
        }
        _ => unit,
    };
    let unit = unit.trim().trim_end_matches('.');
    let read = match kind {
        Kind::Length => length(number, is_fraction, unit, shown_in),
        Kind::Mass => mass(number, unit, shown_in),
        Kind::Temperature => temperature(number, unit, shown_in),
        Kind::Duration | Kind::Hours => time(number, unit, kind),
        Kind::Days => days(number, unit),
        Kind::GaugePressure => pressure(number, unit, shown_in),
        Kind::SoundSpeed => sound_speed(number, unit),
        Kind::GasVolume => gas_volume(number, unit, shown_in),
        Kind::Money => money(number, unit),
        Kind::Percent => matches!(unit, "" | "%" | "per cent" | "percent").then_some((number, Unit::Percent)),
        Kind::Angle => matches!(unit, "" | "°" | "deg" | "degrees").then_some((number, Unit::Plain)),
        Kind::Turns => turns(number, unit),
        Kind::Plain => unit.is_empty().then_some((number, Unit::Plain)),
        // Read as a whole, before this.
        Kind::TimeOfDay => None,
    };
    let (value, unit) = read.ok_or_else(|| NotUnderstood::UnknownUnit(unit.to_owned()))?;
    Ok(Typed { value, unit })
}

/// A number in the unit it was said in, as it is kept; nothing where that is no unit of its kind.
type InUnit = Option<(f64, Unit)>;

/// Exact, by the international agreement on the pound, by definition.
const KG_PER_LB: f64 = 0.453_592_37;
/// By definition: 0.3048 m, three times.
pub(super) const M3_PER_CUBIC_FOOT: f64 = 0.028_316_846_592;
/// Bar in a pound on a square inch, by definition.
pub(super) const BAR_PER_PSI: f64 = 0.068_947_573;
/// m/s in an inch a µs, by definition.
pub(super) const MS_PER_IN_US: f64 = 25_400.0;

/// `1:20`, as a clock has it.
fn by_the_clock(text: &str) -> Option<f64> {
    let (hours, minutes) = text.split_once(':')?;
    let minutes = minutes.trim_end_matches('h').trim();
    let (hours, minutes): (u32, u32) = (hours.trim().parse().ok()?, minutes.parse().ok()?);
    (minutes < 60).then(|| f64::from(hours * 60 + minutes))
}

/// A time of day in minutes after midnight: `7:30`, `7.30 am`, `0730`, `8`, `5 pm`, `17h`.
fn time_of_day(text: &str) -> Result<f64, NotUnderstood> {
    let small = text.to_lowercase().replace('.', ":");
    let (said, half) = ["a:m:", "am", "p:m:", "pm"]
        .iter()
        .find_map(|half| Some((small.strip_suffix(half)?, Some(half.starts_with('p')))))
        .unwrap_or((small.as_str(), None));
    let said = said.trim().trim_end_matches("o'clock").trim_end_matches('h').trim();
    let no_number = || NotUnderstood::NoNumber(text.to_owned());
    let digits = |said: &str| -> Result<u32, NotUnderstood> {
        let only = !said.is_empty() && said.len() <= 2 && said.bytes().all(|b| b.is_ascii_digit());
        if only { said.parse().map_err(|_| no_number()) } else { Err(no_number()) }
    };
    let (hours, minutes) = match said.split_once([':', 'h']) {
        Some((hours, minutes)) => (digits(hours.trim())?, digits(minutes.trim())?),
        // As a watch is read aloud: the last two are the minutes.
        None if matches!(said.len(), 3 | 4) && said.is_ascii() => {
            let (hours, minutes) = said.split_at(said.len() - 2);
            (digits(hours)?, digits(minutes)?)
        }
        None => (digits(said)?, 0),
    };
    let hours = match half {
        None => hours,
        Some(_) if hours == 0 || hours > 12 => return Err(no_number()),
        Some(after_noon) => hours % 12 + if after_noon { 12 } else { 0 },
    };
    if minutes > 59 || hours * 60 + minutes > 24 * 60 {
        return Err(NotUnderstood::UnknownUnit(text.to_owned()));
    }
    Ok(f64::from(hours * 60 + minutes))
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

    const KINDS: [Kind; 15] = [
        Kind::Length,
        Kind::Mass,
        Kind::Temperature,
        Kind::Duration,
        Kind::Hours,
        Kind::TimeOfDay,
        Kind::Days,
        Kind::GaugePressure,
        Kind::SoundSpeed,
        Kind::GasVolume,
        Kind::Money,
        Kind::Percent,
        Kind::Angle,
        Kind::Turns,
        Kind::Plain,
    ];

    /// A key that makes of a number something that is not understood would be worse than none.
    #[test]
    fn each_key_of_a_unit_makes_of_a_number_what_is_understood() {
        for units in [UnitSystem::Metric, UnitSystem::Imperial] {
            for kind in KINDS {
                for key in kind.keys(units).iter().filter(|key| !["/", "-", ":"].contains(key)) {
                    let typed = format!("7 {key}");
                    assert!(parse(&typed, kind, units).is_ok(), "{typed:?} as {kind:?}");
                }
                let first = kind.keys(units).first().filter(|_| kind != Kind::TimeOfDay);
                if let Some((key, (metric, imperial))) = first.zip(kind.asked_in()) {
                    assert_eq!(*key, units.of((metric, imperial)), "the field's own unit is the first");
                }
            }
        }
    }

    #[rstest]
    #[case::pounds_and_ounces("3 lb2 oz", Kind::Mass, parse("3 lb 2 oz", Kind::Mass, UnitSystem::Metric))]
    #[case::hours_and_minutes("1 h20", Kind::Duration, parse("1 h 20", Kind::Duration, UnitSystem::Metric))]
    #[case::feet_and_inches("2 ft3 in", Kind::Length, parse("2 ft 3 in", Kind::Length, UnitSystem::Metric))]
    #[case::a_range("5-7 mm", Kind::Length, parse("6 mm", Kind::Length, UnitSystem::Metric))]
    #[case::an_inch_and_a_half("1-1/2 in", Kind::Length, parse("38.1 mm", Kind::Length, UnitSystem::Metric))]
    fn what_keys_without_a_space_make_is_understood(
        #[case] typed: &str,
        #[case] kind: Kind,
        #[case] same: Result<Typed, NotUnderstood>,
    ) {
        let close = |a: f64, b: f64| (a - b).abs() < 1e-9;
        let (typed, same) = (parse(typed, kind, UnitSystem::Metric).unwrap(), same.unwrap());
        assert!(typed.unit == same.unit && close(typed.value, same.value), "{typed:?} against {same:?}");
    }

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
    #[case::half_a_day("half a day", Kind::Days, 0.5)]
    #[case::a_week("a week", Kind::Days, 7.0)]
    #[case::two_weeks("two weeks", Kind::Days, 14.0)]
    #[case::weeks_and_days("2 weeks 3 days", Kind::Days, 17.0)]
    #[case::half_an_hour("half an hour", Kind::Duration, 30.0)]
    #[case::one_and_a_half("1 and a half hours", Kind::Duration, 90.0)]
    #[case::hours_minutes_in_words("2 hours 5 min", Kind::Duration, 125.0)]
    #[case::by_the_clock("1:20", Kind::Duration, 80.0)]
    #[case::about("about 12 kg", Kind::Mass, 12.0)]
    #[case::a_tilde("~12kg", Kind::Mass, 12.0)]
    #[case::roughly("approx. 12 kg", Kind::Mass, 12.0)]
    #[case::thousands("1,200 kg", Kind::Mass, 1200.0)]
    #[case::under_one("0,125 in", Kind::Length, 3.175)]
    // Hand-worked: (3 + 2 / 16) x 0.45359237
    #[case::pounds_and_ounces("3 lb 2 oz", Kind::Mass, 1.417_476_156_25)]
    #[case::pounds_and_ounces_close("3lb 2oz", Kind::Mass, 1.417_476_156_25)]
    #[case::three_pound_two("3 lb 2", Kind::Mass, 1.417_476_156_25)]
    #[case::feet("2 ft", Kind::Length, 609.6)]
    #[case::feet_and_inches("2 ft 3 in", Kind::Length, 685.8)]
    #[case::feet_and_inches_in_marks("2' 3\"", Kind::Length, 685.8)]
    #[case::feet_and_a_fraction("2' 3 1/2\"", Kind::Length, 698.5)]
    #[case::a_range("5-7 mm", Kind::Length, 6.0)]
    #[case::a_range_in_words("5 to 7 mm", Kind::Length, 6.0)]
    #[case::a_range_with_a_long_dash("5 – 7 mm", Kind::Length, 6.0)]
    #[case::a_range_with_both_units("5 mm - 7 mm", Kind::Length, 6.0)]
    // Hand-worked: (1/4 + 3/8) / 2 x 25.4
    #[case::a_range_of_fractions("1/4 - 3/8 in", Kind::Length, 7.9375)]
    #[case::a_range_below_zero("-10 to 20 C", Kind::Temperature, 5.0)]
    #[case::pounds_sterling("£400", Kind::Money, 400.0)]
    #[case::dollars("$ 40", Kind::Money, 40.0)]
    #[case::euros("1.250,50 EUR", Kind::Money, 1250.5)]
    #[case::money_in_thousands("£1,250", Kind::Money, 1250.0)]
    #[case::per_cent("30 %", Kind::Percent, 30.0)]
    #[case::angle("70°", Kind::Angle, 70.0)]
    #[case::turns("1400 rpm", Kind::Turns, 1400.0)]
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
    #[case::two_lengths("5 mm 7 mm", Kind::Length, NotUnderstood::SeveralNumbers("5 mm 7 mm".into()))]
    #[case::backward("7-5 mm", Kind::Length, NotUnderstood::BackwardRange("7-5 mm".into()))]
    #[case::only_about("about", Kind::Mass, NotUnderstood::NoNumber("about".into()))]
    #[case::no_money("400 kg", Kind::Money, NotUnderstood::UnknownUnit("kg".into()))]
    #[case::no_hour("1:75", Kind::Duration, NotUnderstood::UnknownUnit(":".into()))]
    fn what_is_no_quantity_is_refused_with_the_reason(
        #[case] text: &str,
        #[case] kind: Kind,
        #[case] reason: NotUnderstood,
    ) {
        assert_eq!(parse(text, kind, UnitSystem::Metric), Err(reason));
    }
}
