//! How a quantity is shown: in both systems, so that a figure carries both texts.

mod lengths;
mod times;
mod whole;

use serde::{Deserialize, Serialize};

use lengths::lengths;
use times::{days, duration, in_steps, percent};
pub use whole::{money, of_100};

#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum UnitSystem {
    #[default]
    Metric,
    Imperial,
}

/// The unit a value is held in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Unit {
    Millimetres,
    /// A drill, as it is bought.
    Drill,
    /// The drill for a thread: the nearest that is sold, never one that leaves the tap too much to cut.
    TapDrill,
    /// How thick a packing is: by whole inches where it is near one.
    Packing,
    /// An ISO coarse thread, by its mark.
    Thread,
    SquareMillimetres,
    SquareMetres,
    CubicCentimetres,
    CubicMetres,
    Litres,
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
    KilogramsPerCubicMetre,
    /// So many times something else.
    Times,
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
            Self::Drill => "drill",
            Self::TapDrill => "tap_drill",
            Self::Packing => "packing",
            Self::Thread => "thread",
            Self::SquareMillimetres => "square_millimetres",
            Self::SquareMetres => "square_metres",
            Self::CubicCentimetres => "cubic_centimetres",
            Self::CubicMetres => "cubic_metres",
            Self::Litres => "litres",
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
            Self::KilogramsPerCubicMetre => "kilograms_per_cubic_metre",
            Self::Times => "times",
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

/// How far a number is rounded to what a person can set, buy or know.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Rounding {
    /// As it was read or typed.
    Exact,
    /// To the nearest that can be set.
    Nearest,
    /// Never under it: what is needed at least.
    Up,
    /// Never over it: what is allowed at most.
    Down,
}

impl Rounding {
    fn to(self, value: f64, step: f64) -> f64 {
        // What a conversion leaves behind the last digit does not carry it a step on.
        const NOISE: f64 = 1e-6;
        match self {
            Self::Exact => value,
            Self::Nearest => (value / step + NOISE).round() * step,
            Self::Up => (value / step - NOISE).ceil() * step,
            Self::Down => (value / step + NOISE).floor() * step,
        }
    }
}

impl UnitSystem {
    /// Of what is held in both, that of this system.
    #[must_use]
    pub fn of<T>(self, (metric, imperial): (T, T)) -> T {
        match self {
            Self::Metric => metric,
            Self::Imperial => imperial,
        }
    }

    /// A value and its unit in this system, to stand in a sentence.
    #[must_use]
    pub fn say(self, value: f64, unit: Unit) -> String {
        self.show(value, unit, Rounding::Nearest).text()
    }

    /// What is needed at least.
    #[must_use]
    pub fn say_least(self, value: f64, unit: Unit) -> String {
        self.show(value, unit, Rounding::Up).text()
    }

    /// What is allowed at most.
    #[must_use]
    pub fn say_most(self, value: f64, unit: Unit) -> String {
        self.show(value, unit, Rounding::Down).text()
    }

    /// A value as it was read or typed.
    #[must_use]
    pub fn say_exactly(self, value: f64, unit: Unit) -> String {
        self.show(value, unit, Rounding::Exact).text()
    }

    /// What a temperature stick melts at, as it is sold: a stick of 316 °C is one of 600 °F, whatever 316 °C come to. One
    /// that is to be bought is the nearest there is; they are sold in steps of 25 °F. House.
    #[must_use]
    pub fn say_stick(self, celsius: f64, to_buy: bool) -> String {
        /// House: sticks are sold in such steps, in °F.
        const STEP_F: f64 = 25.0;
        /// House: a stick this near to a step is that one, in °F.
        const SAME_F: f64 = 3.0;
        let fahrenheit = celsius * 1.8 + 32.0;
        let sold = (fahrenheit / STEP_F).round() * STEP_F;
        if self == Self::Imperial && (to_buy || (sold - fahrenheit).abs() <= SAME_F) {
            return format!("{sold:.0} °F");
        }
        self.say_exactly(celsius, Unit::Celsius)
    }

    /// The two ends of a window, each rounded inwards where room is left between them.
    #[must_use]
    pub fn window(self, low: f64, high: f64, unit: Unit) -> (Shown, Shown) {
        let (least, most) = (self.show(low, unit, Rounding::Up), self.show(high, unit, Rounding::Down));
        // Rounded inwards a narrow window would close, or its ends change sides.
        let closed = match (least.number.parse::<f64>(), most.number.parse::<f64>()) {
            (Ok(least), Ok(most)) => least > most || (low < high && least >= most),
            _ => low < high && least.number == most.number,
        };
        if closed {
            return (self.show(low, unit, Rounding::Exact), self.show(high, unit, Rounding::Exact));
        }
        (least, most)
    }

    /// The figures of the two ends of a window of temperatures, in degC.
    #[must_use]
    pub fn window_ends(self, (low, high): (f64, f64)) -> (String, String) {
        let (least, most) = self.window(low, high, Unit::Celsius);
        (least.number, most.number)
    }

    /// A value in this system.
    #[must_use]
    pub fn show(self, value: f64, unit: Unit, rounding: Rounding) -> Shown {
        let (metric, imperial) = rounded(value, unit, rounding);
        match self {
            Self::Metric => metric,
            Self::Imperial => imperial,
        }
    }
}

/// The value in metric and in imperial units, to the nearest that can be set or known.
#[must_use]
pub fn both(value: f64, unit: Unit) -> (Shown, Shown) {
    rounded(value, unit, Rounding::Nearest)
}

/// The value in metric and in imperial units, as it was read or typed.
#[must_use]
pub fn exactly(value: f64, unit: Unit) -> (Shown, Shown) {
    rounded(value, unit, Rounding::Exact)
}

/// The value in metric and in imperial units.
#[must_use]
pub fn rounded(value: f64, unit: Unit, rounding: Rounding) -> (Shown, Shown) {
    let same = |shown: Shown| (shown.clone(), shown);
    let to = |value: f64, step: f64| number(rounding.to(value, step), 2);
    // A difference or a rate: small ones to the degree.
    let degrees = |value: f64, step: f64| {
        let step = if value.abs() < 4.0 * step { 1.0 } else { step };
        number(rounding.to(value, step), 0)
    };
    match unit {
        Unit::Millimetres | Unit::Drill | Unit::TapDrill | Unit::Packing => lengths(value, unit, rounding),
        Unit::Thread => same(Shown::new(format!("M{}", number(value, 1)), "coarse")),
        Unit::SquareMillimetres => {
            (Shown::new(number(value, 0), "mm²"), Shown::new(number(value / 645.16, 2), "in²"))
        }
        Unit::SquareMetres => (
            Shown::new(number(value, if value < 0.1 { 3 } else { 2 }), "m²"),
            Shown::new(number(value / 0.092_903_04, usize::from(value < 1.0)), "ft²"),
        ),
        Unit::CubicCentimetres => (
            Shown::new(number(value, usize::from(value < 10.0)), "cm³"),
            Shown::new(number(value / 16.387_064, 1), "in³"),
        ),
        Unit::CubicMetres => (
            Shown::new(number(value, if value < 1.0 { 2 } else { 1 }), "m³"),
            Shown::new(number(value / 0.028_316_847, 0), "ft³"),
        ),
        Unit::Litres => (Shown::new(number(value, 0), "l"), Shown::new(number(value / 3.785_412, 0), "gal")),
        Unit::Kilograms => (
            Shown::new(number(value, mass_decimals(value)), "kg"),
            Shown::new(number(value / 0.453_592_37, mass_decimals(value)), "lb"),
        ),
        Unit::Grams => (Shown::new(number(value, 0), "g"), Shown::new(number(value / 28.349_523, 1), "oz")),
        Unit::Celsius if rounding == Rounding::Exact => {
            (Shown::new(number(value, 0), "°C"), Shown::new(number(fahrenheit(value), 0), "°F"))
        }
        Unit::Celsius => (Shown::new(to(value, 5.0), "°C"), Shown::new(to(fahrenheit(value), 10.0), "°F")),
        Unit::Kelvins => {
            (Shown::new(degrees(value, 5.0), "°C"), Shown::new(degrees(value * 1.8, 10.0), "°F"))
        }
        Unit::KelvinsPerHour => (
            Shown::new(degrees(value, 5.0), "°C an hour"),
            Shown::new(degrees(value * 1.8, 10.0), "°F an hour"),
        ),
        Unit::Minutes => same(duration(value, rounding)),
        Unit::Days => same(days(value)),
        Unit::Megajoules => (
            Shown::new(number(value, 1), "MJ"),
            Shown::new(number((value * 94.7817).round() * 10.0, 0), "BTU"),
        ),
        Unit::Bar => (
            // A breath of air is little, and not nothing.
            Shown::new(number(value, if value < 0.1 { 2 } else { 1 }), "bar"),
            Shown::new(
                number(
                    value / super::typed::BAR_PER_PSI,
                    usize::from(value < 10.0 * super::typed::BAR_PER_PSI),
                ),
                "psi",
            ),
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
        Unit::Rpm => {
            let step = if value < 1000.0 { 10.0 } else { 50.0 };
            same(Shown::new(number((value / step).round() * step, 0), "rpm"))
        }
        Unit::KilogramsPerCubicMetre => {
            (Shown::new(number(value, 0), "kg/m³"), Shown::new(number(value * 0.062_427_96, 0), "lb/ft³"))
        }
        Unit::Times => same(Shown::new(number(value, usize::from(value < 20.0)), "times")),
        Unit::Percent => same(percent(value)),
        Unit::Count => same(Shown::new(number(value, 0), "")),
        Unit::Points => same(Shown::new(number(value, 0), "points")),
        Unit::Plain => same(Shown::new(number(value, 2), "")),
    }
}

/// mm in an inch, by definition.
pub const MM_PER_IN: f64 = 25.4;

fn fahrenheit(celsius: f64) -> f64 {
    celsius * 1.8 + 32.0
}

pub(super) fn fraction(total: u32, parts: u32) -> String {
    let (whole, mut top, mut bottom) = (total / parts, total % parts, parts);
    while top > 0 && top.is_multiple_of(2) {
        top /= 2;
        bottom /= 2;
    }
    match (whole, top) {
        (whole, 0) => whole.to_string(),
        (0, top) => format!("{top}/{bottom}"),
        (whole, top) => format!("{whole} {top}/{bottom}"),
    }
}

fn mass_decimals(kg: f64) -> usize {
    usize::from(kg.abs() < 20.0)
}

/// Fixed decimals, trailing zeros dropped, minus zero never shown.
#[must_use]
pub fn number(value: f64, decimals: usize) -> String {
    if let Some(steps) = whole_steps(value, decimals) {
        return steps;
    }
    let fixed = format!("{value:.decimals$}");
    let trimmed =
        if fixed.contains('.') { fixed.trim_end_matches('0').trim_end_matches('.') } else { &fixed };
    match trimmed {
        "-0" | "" => "0".to_owned(),
        other => other.to_owned(),
    }
}

/// A value of whole steps of its last decimal, which is most of what is said: told without the search for the
/// digits of a fraction. Nothing for any other value.
fn whole_steps(value: f64, decimals: usize) -> Option<String> {
    /// Arithmetic: up to here every step is a number of its own.
    const MOST: f64 = 1e12;
    let step = 10_u64.pow(u32::try_from(decimals).ok().filter(|decimals| *decimals < 7)?);
    let steps = value * step as f64;
    if steps != steps.trunc() || steps.abs() >= MOST {
        return None;
    }
    let sign = if steps < 0.0 { "-" } else { "" };
    let (whole, part) = (steps.abs() as u64 / step, steps.abs() as u64 % step);
    if part == 0 {
        return Some(format!("{sign}{whole}"));
    }
    let part = format!("{part:0>decimals$}");
    Some(format!("{sign}{whole}.{}", part.trim_end_matches('0')))
}

/// To the minute under 20, to 5 under 3 h, to a quarter of an hour above.
/// Minutes as they are shown: what is reckoned from what is printed goes by these.
#[must_use]
pub fn minutes_shown(minutes: f64) -> f64 {
    in_steps(minutes, Rounding::Nearest)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    // Hand-worked: 316 °C are 600.8 °F, sold as 600; 302 °C are 575.6
    #[case::as_sold(316.0, false, "600 °F", "316 °C")]
    #[case::half_way_between_two(308.0, false, "586 °F", "308 °C")]
    // Hand-worked: 325 °C are 617 °F: 625 is the nearest; 300 °C are 572: 575
    #[case::to_be_bought(325.0, true, "625 °F", "325 °C")]
    #[case::bought_near_by(300.0, true, "575 °F", "300 °C")]
    fn a_stick_is_called_what_it_is_sold_as(
        #[case] celsius: f64,
        #[case] to_buy: bool,
        #[case] imperial: &str,
        #[case] metric: &str,
    ) {
        assert_eq!(UnitSystem::Imperial.say_stick(celsius, to_buy), imperial);
        assert_eq!(UnitSystem::Metric.say_stick(celsius, to_buy), metric);
    }

    #[rstest]
    #[case::wide(UnitSystem::Metric, 300.0, 400.0, "300", "400")]
    #[case::inwards(UnitSystem::Metric, 302.0, 398.0, "305", "395")]
    // Hand-worked: 325 °C are 617 °F: up 620, down 610, which is no window
    #[case::a_point(UnitSystem::Imperial, 325.0, 325.0, "617", "617")]
    // Hand-worked: 571.6 to 577 °F: up 580, down 570
    #[case::narrow(UnitSystem::Imperial, 299.8, 302.8, "572", "577")]
    fn a_window_is_rounded_inwards_and_never_turned_over(
        #[case] units: UnitSystem,
        #[case] low: f64,
        #[case] high: f64,
        #[case] least: &str,
        #[case] most: &str,
    ) {
        let (low, high) = units.window(low, high, Unit::Celsius);
        assert_eq!((low.number.as_str(), high.number.as_str()), (least, most));
    }

    #[rstest]
    // Hand-worked: 6.35 mm is exactly a quarter of an inch
    #[case::a_quarter(6.35, Unit::Millimetres, "6.4 mm", "1/4 in")]
    #[case::mixed(38.1, Unit::Millimetres, "38 mm", "1 1/2 in")]
    // Hand-worked: 90 / 25.4 = 3.5433, x 16 = 56.7, 57 / 16; 460 / 25.4 = 18.11, x 8 = 144.9, 145 / 8
    #[case::a_part_by_the_tape(90.0, Unit::Millimetres, "90 mm", "3 9/16 in")]
    #[case::a_long_part(460.0, Unit::Millimetres, "460 mm", "18 1/8 in")]
    #[case::by_halves(14.2, Unit::Millimetres, "14 mm", "9/16 in")]
    // Hand-worked: 1.92 / 25.4 x 64 = 4.84; 0.2 / 25.4
    #[case::by_the_rule(1.92, Unit::Millimetres, "1.9 mm", "5/64 in")]
    #[case::less_than_a_line(0.2, Unit::Millimetres, "0.2 mm", "0.008 in")]
    #[case::a_drill(6.4, Unit::Drill, "6.4 mm", "1/4 in")]
    #[case::a_number_size(5.1054, Unit::Drill, "#7 (5.1 mm)", "#7 (0.201 in)")]
    #[case::a_letter_size(6.5278, Unit::Drill, "F (6.5 mm)", "F (0.257 in)")]
    // Tap drills of M6 to M12: 0.196 in is 4.98 mm, 0.266 is 6.76, 0.339 is 8.61 (Q, 8.43, would be tight), 0.404 is 10.26
    #[case::for_m6(5.0, Unit::TapDrill, "5 mm", "#9 (0.196 in)")]
    #[case::for_m8(6.8, Unit::TapDrill, "6.8 mm", "H (0.266 in)")]
    #[case::for_m10(8.5, Unit::TapDrill, "8.5 mm", "R (0.339 in)")]
    #[case::for_m12(10.2, Unit::TapDrill, "10.2 mm", "Y (0.404 in)")]
    // Hand-worked: 100 / 25.4 = 3.94, 150 / 25.4 = 5.91, 10 / 25.4 = 0.39; an inch and a half stands
    #[case::heaped(100.0, Unit::Packing, "100 mm", "4 in")]
    #[case::sand(150.0, Unit::Packing, "150 mm", "6 in")]
    #[case::gloves(10.0, Unit::Packing, "10 mm", "3/8 in")]
    #[case::as_it_was_typed(38.1, Unit::Packing, "38 mm", "1 1/2 in")]
    #[case::a_thread(8.0, Unit::Thread, "M8 coarse", "M8 coarse")]
    #[case::a_drill_of_no_index(2.18, Unit::Drill, "2.18 mm", "0.086 in")]
    // Hand-worked: 666 x 1.8 + 32 = 1230.8
    #[case::temperature(666.0, Unit::Celsius, "665 °C", "1230 °F")]
    #[case::difference(63.0, Unit::Kelvins, "65 °C", "110 °F")]
    #[case::small_difference(7.4, Unit::Kelvins, "7 °C", "13 °F")]
    #[case::rate(74.0, Unit::KelvinsPerHour, "75 °C an hour", "130 °F an hour")]
    #[case::under_twenty(17.4, Unit::Minutes, "17 min", "17 min")]
    #[case::short_time(42.4, Unit::Minutes, "40 min", "40 min")]
    #[case::time(82.0, Unit::Minutes, "1 h 20", "1 h 20")]
    #[case::long_time(611.0, Unit::Minutes, "10 h 15", "10 h 15")]
    #[case::half_a_day(0.5, Unit::Days, "0.5 days", "0.5 days")]
    #[case::a_day(1.0, Unit::Days, "1 day", "1 day")]
    #[case::share(3.8, Unit::Percent, "4 %", "4 %")]
    #[case::tiny_share(0.02, Unit::Percent, "under 1 %", "under 1 %")]
    #[case::near_certain(99.4, Unit::Percent, "over 99 %", "over 99 %")]
    // Hand-worked: 400 / 0.006894757 = 58,015, to the hundred; 20 / 0.3048
    #[case::strength(400.0, Unit::Megapascals, "400 MPa", "58000 psi")]
    #[case::cutting_speed(20.0, Unit::MetresPerMinute, "20 m/min", "66 ft/min")]
    #[case::gauge_pressure(6.0, Unit::Bar, "6 bar", "87 psi")]
    // Hand-worked: 0.03 / 0.0689476 = 0.435
    #[case::a_breath(0.03, Unit::Bar, "0.03 bar", "0.4 psi")]
    #[case::just_more(0.1, Unit::Bar, "0.1 bar", "1.5 psi")]
    #[case::sound(5920.0, Unit::MetresPerSecond, "5920 m/s", "0.2331 in/µs")]
    #[case::spindle(1240.0, Unit::Rpm, "1250 rpm", "1250 rpm")]
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

    #[rstest]
    // Hand-worked: 65 x 1.8 + 32 = 149, 260 x 1.8 + 32 = 500, 175 x 1.8 + 32 = 347
    #[case::unwrap_at_most(65.0, Rounding::Down, "65 °C", "140 °F")]
    #[case::on_a_step(260.0, Rounding::Up, "260 °C", "500 °F")]
    #[case::heat_to_at_least(175.0, Rounding::Up, "175 °C", "350 °F")]
    #[case::between_steps(177.0, Rounding::Down, "175 °C", "350 °F")]
    #[case::as_it_was_read(312.4, Rounding::Exact, "312 °C", "594 °F")]
    fn a_limit_is_rounded_to_its_own_side(
        #[case] celsius: f64,
        #[case] rounding: Rounding,
        #[case] metric: &str,
        #[case] imperial: &str,
    ) {
        let (in_metric, in_imperial) = rounded(celsius, Unit::Celsius, rounding);
        assert_eq!((in_metric.text().as_str(), in_imperial.text().as_str()), (metric, imperial));
    }

    #[rstest]
    #[case::a_bare_fraction(4.7625, "4.76 mm", "3/16 in")]
    #[case::between_two_lines(9.0, "9 mm", "0.354 in")]
    #[case::within_a_tenth(14.2, "14.2 mm", "9/16 in")]
    fn what_was_typed_is_shown_as_it_is(#[case] mm: f64, #[case] metric: &str, #[case] imperial: &str) {
        let (in_metric, in_imperial) = exactly(mm, Unit::Millimetres);
        assert_eq!((in_metric.text().as_str(), in_imperial.text().as_str()), (metric, imperial));
    }

    proptest::proptest! {
        #[test]
        fn whole_steps_are_said_as_any_value_is(steps in -2_000_000_i64..2_000_000, decimals in 0..4_usize) {
            let value = steps as f64 / 10f64.powi(decimals as i32);
            let fixed = format!("{value:.decimals$}");
            let trimmed =
                if fixed.contains('.') { fixed.trim_end_matches('0').trim_end_matches('.') } else { &fixed };
            let expected = if trimmed == "-0" { "0" } else { trimmed };
            proptest::prop_assert_eq!(number(value, decimals), expected);
        }
    }

    #[rstest]
    #[case::nothing(0.0, 2, "0")]
    #[case::less_than_nothing(-0.0, 1, "0")]
    #[case::between_steps(1.005, 2, "1.00")]
    #[case::far_out(3e15, 0, "3000000000000000")]
    fn a_number_is_said_without_what_says_nothing(
        #[case] value: f64,
        #[case] decimals: usize,
        #[case] said: &str,
    ) {
        assert_eq!(number(value, decimals), said.trim_end_matches(".00"));
    }
}
