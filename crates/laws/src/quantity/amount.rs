//! How much of a thing lies there, and what it costs, as people say it: `12 rods`, `2.5 kg`, `half a bottle`, `110 bar`, `38 a kg`.

use super::spoken::{CURRENCY_SIGNS, spoken};
use super::typed::M3_PER_CUBIC_FOOT;
use super::{Kind, NotUnderstood, UnitSystem, parse};

/// What an amount was said in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SaidIn {
    /// A number alone: in whatever the thing is counted in.
    Bare,
    Pieces,
    Kilograms,
    /// As the gauge shows it.
    Bar,
    /// Full cylinders, sacks or packets.
    Full,
    CubicMetres,
    Litres,
}

/// An amount as it was said.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SaidAmount {
    pub value: f64,
    pub said_in: SaidIn,
}

/// What would be right where an amount is asked for.
pub const AMOUNTS: &str = "12 rods, 2.5 kg or 5 lb, half a bottle, 110 bar or 1600 psi";
/// What would be right where a price is asked for.
pub const PRICES: &str = "38 a kg, 1.20 a rod or 95 a bottle";

/// Of the United States, by definition: shops that say gallons show inches.
const LITRES_PER_GALLON: f64 = 3.785_412;

const PIECES: &[&str] = &[
    "rod",
    "rods",
    "stick",
    "sticks",
    "pin",
    "pins",
    "lock",
    "locks",
    "tap",
    "taps",
    "disc",
    "discs",
    "piece",
    "pieces",
    "pcs",
    "pc",
    "each",
    "pair",
    "pairs",
    "electrodes",
    "electrode",
    "tube",
    "tubes",
    "off",
];
const FULL: &[&str] = &[
    "bottle",
    "bottles",
    "cylinder",
    "cylinders",
    "sack",
    "sacks",
    "bag",
    "bags",
    "full",
    "spool",
    "spools",
];

/// What a unit stands for, and what makes it one of the core's; nothing where it is none of these.
fn unit(word: &str) -> Option<(SaidIn, f64)> {
    let kilograms = |word: &str| parse(&format!("1 {word}"), Kind::Mass, UnitSystem::Metric).ok();
    let bar = |word: &str| parse(&format!("1 {word}"), Kind::GaugePressure, UnitSystem::Metric).ok();
    match word {
        "" => Some((SaidIn::Bare, 1.0)),
        word if PIECES.contains(&word) => Some((SaidIn::Pieces, 1.0)),
        word if FULL.contains(&word) => Some((SaidIn::Full, 1.0)),
        "dozen" => Some((SaidIn::Pieces, 12.0)),
        "m³" | "cubic metre" | "cubic metres" => Some((SaidIn::CubicMetres, 1.0)),
        "ft³" | "cu ft" | "cf" | "cubic feet" | "cubic foot" => {
            Some((SaidIn::CubicMetres, M3_PER_CUBIC_FOOT))
        }
        "l" | "litre" | "litres" | "liter" | "liters" => Some((SaidIn::Litres, 1.0)),
        "gallon" | "gallons" | "gal" => Some((SaidIn::Litres, LITRES_PER_GALLON)),
        word => kilograms(word)
            .map(|one| (SaidIn::Kilograms, one.value))
            .or_else(|| bar(word).map(|one| (SaidIn::Bar, one.value))),
    }
}

/// Words that are a share of a whole, and the longer first.
const SHARES: &[(&str, f64)] = &[
    ("three quarters of a ", 0.75),
    ("a quarter of a ", 0.25),
    ("a third of a ", 1.0 / 3.0),
    ("a full ", 1.0),
];

/// Reads an amount as people say it.
///
/// # Errors
/// [`NotUnderstood`] when there is no number, or what it is in is not a thing here.
pub fn parse_amount(text: &str) -> Result<SaidAmount, NotUnderstood> {
    let small = text.trim().to_lowercase().replace("m3", "m³").replace("ft3", "ft³");
    match small.as_str() {
        "" => return Err(NotUnderstood::Empty),
        "none" | "nothing" | "empty" | "no" => return Ok(SaidAmount { value: 0.0, said_in: SaidIn::Bare }),
        "full" => return Ok(SaidAmount { value: 1.0, said_in: SaidIn::Full }),
        _ => {}
    }
    let share = SHARES.iter().find_map(|(words, share)| Some((*share, small.strip_prefix(words)?)));
    let (number, word) = match share {
        Some((share, rest)) => (share, rest.trim().to_owned()),
        None => {
            let said = spoken(&small, Kind::Plain);
            let at = said.find(|c: char| c.is_alphabetic()).unwrap_or(said.len());
            let (digits, word) = said.split_at(at);
            let number =
                parse(digits.trim(), Kind::Plain, UnitSystem::Metric).map_err(|error| match error {
                    NotUnderstood::SeveralNumbers(_) => NotUnderstood::SeveralNumbers(text.to_owned()),
                    _ => NotUnderstood::NoNumber(text.to_owned()),
                })?;
            (number.value, word.trim().trim_end_matches('.').to_owned())
        }
    };
    let word = word.strip_prefix("of ").unwrap_or(&word);
    let (said_in, one) = unit(word).ok_or_else(|| NotUnderstood::UnknownUnit(word.to_owned()))?;
    let value = number * one;
    if !value.is_finite() || value < 0.0 {
        return Err(NotUnderstood::NoNumber(text.to_owned()));
    }
    Ok(SaidAmount { value, said_in })
}

/// An amount as it is typed in these units, to three figures: what [`parse_amount`] reads back.
#[must_use]
pub fn typed_amount(said: SaidAmount, units: UnitSystem) -> String {
    let words = match (said.said_in, units) {
        (SaidIn::Bare | SaidIn::Pieces, _) => "",
        (SaidIn::Kilograms, UnitSystem::Metric) => "kg",
        (SaidIn::Kilograms, UnitSystem::Imperial) => "lb",
        (SaidIn::Bar, UnitSystem::Metric) => "bar",
        (SaidIn::Bar, UnitSystem::Imperial) => "psi",
        (SaidIn::Full, _) => "full",
        (SaidIn::CubicMetres, UnitSystem::Metric) => "m³",
        (SaidIn::CubicMetres, UnitSystem::Imperial) => "ft³",
        (SaidIn::Litres, UnitSystem::Metric) => "l",
        (SaidIn::Litres, UnitSystem::Imperial) => "gal",
    };
    let value = said.value / unit(words).map_or(1.0, |(_, one)| one);
    let places = match value {
        value if value >= 100.0 => 0,
        value if value >= 10.0 => 1,
        value if value >= 1.0 => 2,
        _ => 3,
    };
    format!("{} {words}", super::number(value, places)).trim().to_owned()
}

/// Reads a price and what it is the price of: `38 a kg`, `£1.20 each`, `95 per bottle`, `4/rod`.
///
/// # Errors
/// [`NotUnderstood`] when there is no number, or it is the price of nothing known here.
pub fn parse_price(text: &str) -> Result<SaidAmount, NotUnderstood> {
    let small = text.trim().to_lowercase().replace("m3", "m³").replace("ft3", "ft³");
    let parted = [" per ", " a ", " an ", "/"].iter().find_map(|between| small.split_once(between));
    let (money, word) = match parted {
        Some((money, word)) => (money.trim(), word.trim()),
        None => match small.strip_suffix(" each") {
            Some(money) => (money.trim(), "each"),
            None => (small.as_str(), ""),
        },
    };
    let value = parse(money, Kind::Money, UnitSystem::Metric)?.value;
    let word = word.trim_start_matches(CURRENCY_SIGNS);
    let (said_in, one) = unit(word).ok_or_else(|| NotUnderstood::UnknownUnit(word.to_owned()))?;
    if !value.is_finite() || value < 0.0 || said_in == SaidIn::Bar {
        return Err(NotUnderstood::UnknownUnit(word.to_owned()));
    }
    Ok(SaidAmount { value: value / one, said_in })
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    #[case("12 rods", 12.0, SaidIn::Pieces)]
    #[case("12", 12.0, SaidIn::Bare)]
    #[case("a dozen", 12.0, SaidIn::Pieces)]
    #[case("2.5 kg", 2.5, SaidIn::Kilograms)]
    #[case("2,5kg", 2.5, SaidIn::Kilograms)]
    #[case("1 lb", 0.45359, SaidIn::Kilograms)]
    #[case("half a bottle", 0.5, SaidIn::Full)]
    #[case("a quarter of a cylinder", 0.25, SaidIn::Full)]
    #[case("full", 1.0, SaidIn::Full)]
    #[case("two bottles", 2.0, SaidIn::Full)]
    #[case("110 bar", 110.0, SaidIn::Bar)]
    #[case("1500 psi", 103.421, SaidIn::Bar)]
    #[case("3 m3", 3.0, SaidIn::CubicMetres)]
    #[case("100 cu ft", 2.8317, SaidIn::CubicMetres)]
    #[case("60 l", 60.0, SaidIn::Litres)]
    #[case("empty", 0.0, SaidIn::Bare)]
    fn an_amount_is_read_as_it_is_said(#[case] text: &str, #[case] value: f64, #[case] said_in: SaidIn) {
        let read = parse_amount(text).unwrap();
        assert_eq!(read.said_in, said_in, "{text}");
        assert!((read.value - value).abs() < 0.001, "{text}: {}", read.value);
    }

    #[rstest]
    #[case::nothing("")]
    #[case::no_number("some rods")]
    #[case::no_such_thing("12 dragons")]
    #[case::several("12 14 rods")]
    fn what_is_no_amount_is_refused(#[case] text: &str) {
        assert!(parse_amount(text).is_err(), "{text}");
    }

    #[rstest]
    #[case("38 a kg", 38.0, SaidIn::Kilograms)]
    #[case("£1.20 each", 1.2, SaidIn::Pieces)]
    #[case("95 per bottle", 95.0, SaidIn::Full)]
    #[case("4/rod", 4.0, SaidIn::Pieces)]
    #[case("10 a lb", 22.0462, SaidIn::Kilograms)]
    #[case("12", 12.0, SaidIn::Bare)]
    fn a_price_is_the_price_of_something(#[case] text: &str, #[case] value: f64, #[case] said_in: SaidIn) {
        let read = parse_price(text).unwrap();
        assert_eq!(read.said_in, said_in, "{text}");
        assert!((read.value - value).abs() < 0.001, "{text}: {}", read.value);
    }

    #[rstest]
    #[case::of_nothing_known("4 a dragon")]
    #[case::a_bar_has_no_price("4 a bar")]
    #[case::no_money("dear")]
    fn what_is_no_price_is_refused(#[case] text: &str) {
        assert!(parse_price(text).is_err(), "{text}");
    }
}
