//! A number in the unit it was typed in.

use super::super::{Unit, UnitSystem};
use super::{BAR_PER_PSI, InUnit, KG_PER_LB, Kind, M3_PER_CUBIC_FOOT, MS_PER_IN_US};

/// Without a unit a fraction is one of an inch.
pub(super) fn length(number: f64, is_fraction: bool, unit: &str, shown_in: UnitSystem) -> InUnit {
    let each_mm = match unit {
        "" if is_fraction || shown_in == UnitSystem::Imperial => 25.4,
        "" | "mm" => 1.0,
        "cm" => 10.0,
        "m" => 1000.0,
        "in" | "ins" | "inch" | "inches" | "\"" | "''" => 25.4,
        "ft" | "foot" | "feet" | "'" => 304.8,
        _ => return None,
    };
    Some((number * each_mm, Unit::Millimetres))
}

pub(super) fn mass(number: f64, unit: &str, shown_in: UnitSystem) -> InUnit {
    let kg = match unit {
        "" if shown_in == UnitSystem::Imperial => number * KG_PER_LB,
        "" | "kg" | "kilo" | "kilos" => number,
        "oz" | "ounce" | "ounces" => number * KG_PER_LB / 16.0,
        "g" | "gram" | "grams" => number / 1000.0,
        "t" | "tonne" | "tonnes" => number * 1000.0,
        "lb" | "lbs" | "pound" | "pounds" => number * KG_PER_LB,
        _ => return None,
    };
    Some((kg, Unit::Kilograms))
}

pub(super) fn temperature(number: f64, unit: &str, shown_in: UnitSystem) -> InUnit {
    let celsius = match unit {
        "" if shown_in == UnitSystem::Imperial => celsius_of_fahrenheit(number),
        "" | "c" | "celsius" => number,
        "f" | "fahrenheit" => celsius_of_fahrenheit(number),
        "k" => number - 273.15,
        _ => return None,
    };
    Some((celsius, Unit::Celsius))
}

pub(super) fn time(number: f64, unit: &str, kind: Kind) -> InUnit {
    let minutes = match unit {
        // A day has no more hours: what is more was minutes.
        "" if kind == Kind::Hours && number <= 24.0 => number * 60.0,
        "" | "min" | "mins" | "minute" | "minutes" | "m" => number,
        "h" | "hr" | "hrs" | "hours" | "hour" => number * 60.0,
        "s" | "sec" | "secs" | "second" | "seconds" => number / 60.0,
        _ => return None,
    };
    Some((minutes, Unit::Minutes))
}

pub(super) fn days(number: f64, unit: &str) -> InUnit {
    let each = match unit {
        "" | "d" | "day" | "days" => 1.0,
        "w" | "week" | "weeks" => 7.0,
        "month" | "months" => 30.0,
        "y" | "year" | "years" => 365.0,
        _ => return None,
    };
    Some((number * each, Unit::Days))
}

pub(super) fn pressure(number: f64, unit: &str, shown_in: UnitSystem) -> InUnit {
    let bar = match unit {
        "" if shown_in == UnitSystem::Imperial => number * BAR_PER_PSI,
        "" | "bar" | "bars" | "barg" | "bar g" => number,
        "psi" | "psig" => number * BAR_PER_PSI,
        "mpa" => number * 10.0,
        "kpa" => number / 100.0,
        _ => return None,
    };
    Some((bar, Unit::Bar))
}

/// No gauge is set to under 1 m/s or over 1 in/µs: a bare number says itself which it is.
pub(super) fn sound_speed(number: f64, unit: &str) -> InUnit {
    let metres_per_second = match unit {
        "" if number < 1.0 => number * MS_PER_IN_US,
        "" | "m/s" | "ms" => number,
        "in/us" | "in/µs" | "in/usec" => number * MS_PER_IN_US,
        _ => return None,
    };
    Some((metres_per_second, Unit::MetresPerSecond))
}

pub(super) fn gas_volume(number: f64, unit: &str, shown_in: UnitSystem) -> InUnit {
    let m3 = match unit {
        "" if shown_in == UnitSystem::Imperial => number * M3_PER_CUBIC_FOOT,
        "" | "m³" | "cubic metres" => number,
        "ft³" | "cu ft" | "cf" | "cubic feet" => number * M3_PER_CUBIC_FOOT,
        _ => return None,
    };
    Some((m3, Unit::CubicMetres))
}

/// In whatever the shop counts: a word for it, or a currency's code.
pub(super) fn money(number: f64, unit: &str) -> InUnit {
    let known = matches!(unit, "" | "pound" | "pounds" | "dollar" | "dollars" | "euro" | "euros");
    let code = unit.len() == 3 && unit.chars().all(char::is_alphabetic);
    (known || code).then_some((number, Unit::Money))
}

pub(super) fn turns(number: f64, unit: &str) -> InUnit {
    let known = matches!(unit, "" | "rpm" | "/min" | "a minute" | "per minute" | "turns a minute");
    known.then_some((number, Unit::Rpm))
}

fn celsius_of_fahrenheit(fahrenheit: f64) -> f64 {
    (fahrenheit - 32.0) / 1.8
}
