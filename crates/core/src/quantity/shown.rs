//! How a quantity is shown: in both systems, so that a figure carries both texts.

use serde::{Deserialize, Serialize};

#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum UnitSystem {
    #[default]
    Metric,
    Imperial,
}

/// The unit a value is held in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Unit {
    Millimetres,
    SquareMillimetres,
    CubicCentimetres,
    Kilograms,
    Grams,
    Celsius,
    Kelvins,
    KelvinsPerHour,
    Minutes,
    Days,
    Megajoules,
    Bar,
    Megapascals,
    MetresPerSecond,
    MetresPerMinute,
    Rpm,
    /// In the shop's own currency.
    Money,
    Percent,
    Count,
    Points,
    Plain,
}

impl Unit {
    /// Its word, as it is stored.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Millimetres => "millimetres",
            Self::SquareMillimetres => "square_millimetres",
            Self::CubicCentimetres => "cubic_centimetres",
            Self::Kilograms => "kilograms",
            Self::Grams => "grams",
            Self::Celsius => "celsius",
            Self::Kelvins => "kelvins",
            Self::KelvinsPerHour => "kelvins_per_hour",
            Self::Minutes => "minutes",
            Self::Days => "days",
            Self::Megajoules => "megajoules",
            Self::Bar => "bar",
            Self::Megapascals => "megapascals",
            Self::MetresPerSecond => "metres_per_second",
            Self::MetresPerMinute => "metres_per_minute",
            Self::Rpm => "rpm",
            Self::Money => "money",
            Self::Percent => "percent",
            Self::Count => "count",
            Self::Points => "points",
            Self::Plain => "plain",
        }
    }
}

/// A number and its unit, ready to be set in type.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Shown {
    pub number: String,
    pub unit: String,
}

impl Shown {
    fn new(number: String, unit: &str) -> Self {
        Self { number, unit: unit.to_owned() }
    }

    #[must_use]
    pub fn text(&self) -> String {
        if self.unit.is_empty() { self.number.clone() } else { format!("{} {}", self.number, self.unit) }
    }
}

impl UnitSystem {
    /// A value and its unit in this system, to stand in a sentence.
    #[must_use]
    pub fn say(self, value: f64, unit: Unit) -> String {
        self.show(value, unit).text()
    }

    /// A value in this system.
    #[must_use]
    pub fn show(self, value: f64, unit: Unit) -> Shown {
        let (metric, imperial) = both(value, unit);
        match self {
            Self::Metric => metric,
            Self::Imperial => imperial,
        }
    }
}

/// The value in metric and in imperial units.
#[must_use]
pub fn both(value: f64, unit: Unit) -> (Shown, Shown) {
    let same = |shown: Shown| (shown.clone(), shown);
    match unit {
        Unit::Millimetres => (Shown::new(number(value, length_decimals(value)), "mm"), inches(value / 25.4)),
        Unit::SquareMillimetres => {
            (Shown::new(number(value, 0), "mm²"), Shown::new(number(value / 645.16, 3), "in²"))
        }
        Unit::CubicCentimetres => {
            (Shown::new(number(value, 1), "cm³"), Shown::new(number(value / 16.387_064, 2), "in³"))
        }
        Unit::Kilograms => (
            Shown::new(number(value, mass_decimals(value)), "kg"),
            Shown::new(number(value / 0.453_592_37, mass_decimals(value)), "lb"),
        ),
        Unit::Grams => (Shown::new(number(value, 0), "g"), Shown::new(number(value / 28.349_523, 1), "oz")),
        Unit::Celsius => {
            (Shown::new(number(value, 0), "°C"), Shown::new(number(value * 1.8 + 32.0, 0), "°F"))
        }
        Unit::Kelvins => (Shown::new(number(value, 0), "K"), Shown::new(number(value * 1.8, 0), "F deg")),
        Unit::KelvinsPerHour => {
            (Shown::new(number(value, 0), "K/h"), Shown::new(number(value * 1.8, 0), "F deg/h"))
        }
        Unit::Minutes => same(duration(value)),
        Unit::Days => same(Shown::new(number(value, 0), "days")),
        Unit::Megajoules => {
            (Shown::new(number(value, 1), "MJ"), Shown::new(number(value * 947.817, 0), "BTU"))
        }
        Unit::Bar => (
            Shown::new(number(value, 1), "bar"),
            Shown::new(number(value / super::typed::BAR_PER_PSI, 0), "psi"),
        ),
        Unit::MetresPerSecond => (
            Shown::new(number(value, 0), "m/s"),
            Shown::new(number(value / super::typed::MS_PER_IN_US, 4), "in/µs"),
        ),
        Unit::Megapascals => (
            Shown::new(number(value, 0), "MPa"),
            Shown::new(number((value * 1.450_377).round() * 100.0, 0), "psi"),
        ),
        Unit::MetresPerMinute => {
            (Shown::new(number(value, 0), "m/min"), Shown::new(number(value / 0.3048, 0), "ft/min"))
        }
        Unit::Money => same(Shown::new(number(value, 0), "")),
        Unit::Rpm => same(Shown::new(number((value / 10.0).round() * 10.0, 0), "rpm")),
        Unit::Percent => same(percent(value)),
        Unit::Count => same(Shown::new(number(value, 0), "")),
        Unit::Points => same(Shown::new(number(value, 1), "")),
        Unit::Plain => same(Shown::new(number(value, 2), "")),
    }
}

fn length_decimals(mm: f64) -> usize {
    if mm.abs() < 10.0 {
        2
    } else if mm.abs() < 100.0 {
        1
    } else {
        0
    }
}

fn mass_decimals(kg: f64) -> usize {
    usize::from(kg.abs() < 20.0)
}

/// Fixed decimals, trailing zeros dropped, minus zero never shown.
#[must_use]
pub fn number(value: f64, decimals: usize) -> String {
    let fixed = format!("{value:.decimals$}");
    let trimmed =
        if fixed.contains('.') { fixed.trim_end_matches('0').trim_end_matches('.') } else { &fixed };
    match trimmed {
        "-0" | "" => "0".to_owned(),
        other => other.to_owned(),
    }
}

/// Inches as they are said: as a drill index reads under an inch, coarser fractions above; decimals
/// where no fraction comes within 0.1 mm.
fn inches(inches: f64) -> Shown {
    let (parts, decimals) = match inches.abs() {
        size if size < 1.0 => (64, 3),
        size if size < 2.0 => (16, 2),
        size if size < 12.0 => (8, 2),
        _ => (1, 1),
    };
    let fractions = (inches * f64::from(parts)).round();
    let close = (fractions / f64::from(parts) - inches).abs() * 25.4 < 0.1;
    if !close || fractions < 1.0 {
        return Shown::new(number(inches, decimals), "in");
    }
    let total = fractions as u32;
    let (whole, mut top, mut bottom) = (total / parts, total % parts, parts);
    while top > 0 && top.is_multiple_of(2) {
        top /= 2;
        bottom /= 2;
    }
    let text = match (whole, top) {
        (whole, 0) => whole.to_string(),
        (0, top) => format!("{top}/{bottom}"),
        (whole, top) => format!("{whole} {top}/{bottom}"),
    };
    Shown::new(text, "in")
}

fn duration(minutes: f64) -> Shown {
    let total = minutes.round() as i64;
    if total < 60 {
        return Shown::new(total.to_string(), "min");
    }
    Shown::new(format!("{} h {:02}", total / 60, total % 60), "")
}

/// A share in percent. Small and near-certain shares keep their meaning: "under 0.1", "over 99.9".
fn percent(percent: f64) -> Shown {
    let text = if percent <= 0.0 {
        "0".to_owned()
    } else if percent < 0.1 {
        "under 0.1".to_owned()
    } else if percent >= 100.0 {
        "100".to_owned()
    } else if percent > 99.9 {
        "over 99.9".to_owned()
    } else if !(10.0..=99.0).contains(&percent) {
        number(percent, 1)
    } else {
        number(percent, 0)
    };
    Shown::new(text, "%")
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    // Hand-worked: 6.35 mm is exactly a quarter of an inch; 7.1 mm is 0.2795 in, 17.9 / 64
    #[case::drill(6.35, Unit::Millimetres, "6.35 mm", "1/4 in")]
    #[case::mixed(38.1, Unit::Millimetres, "38.1 mm", "1 1/2 in")]
    #[case::a_part_is_not_said_in_sixty_fourths(90.0, Unit::Millimetres, "90 mm", "3.54 in")]
    #[case::a_long_part(460.0, Unit::Millimetres, "460 mm", "18.1 in")]
    #[case::not_a_sixty_fourth(2.18, Unit::Millimetres, "2.18 mm", "0.086 in")]
    #[case::temperature(260.0, Unit::Celsius, "260 °C", "500 °F")]
    #[case::difference(100.0, Unit::Kelvins, "100 K", "180 F deg")]
    #[case::time(80.0, Unit::Minutes, "1 h 20", "1 h 20")]
    #[case::short_time(42.4, Unit::Minutes, "42 min", "42 min")]
    #[case::tiny_share(0.02, Unit::Percent, "under 0.1 %", "under 0.1 %")]
    // Hand-worked: 400 / 0.006894757 = 58,015, to the hundred; 20 / 0.3048
    #[case::strength(400.0, Unit::Megapascals, "400 MPa", "58000 psi")]
    #[case::cutting_speed(20.0, Unit::MetresPerMinute, "20 m/min", "66 ft/min")]
    #[case::gauge_pressure(6.0, Unit::Bar, "6 bar", "87 psi")]
    #[case::sound(5920.0, Unit::MetresPerSecond, "5920 m/s", "0.2331 in/µs")]
    #[case::near_certain(99.97, Unit::Percent, "over 99.9 %", "over 99.9 %")]
    fn a_value_is_shown_in_both_systems(
        #[case] value: f64,
        #[case] unit: Unit,
        #[case] metric: &str,
        #[case] imperial: &str,
    ) {
        let (in_metric, in_imperial) = both(value, unit);
        assert_eq!(in_metric.text(), metric);
        assert_eq!(in_imperial.text(), imperial);
    }
}
