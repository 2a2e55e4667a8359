//! What people type and what they are shown, for any value.

use proptest::prelude::*;
use rstest::rstest;
use vanadin_core::quantity::{Kind, NotUnderstood, Unit, UnitSystem, both, exactly, parse};

/// How far what is read back may be from the value: half a unit of the last digit shown, or the
/// tenth of a millimetre within which a fraction of an inch may stand for it.
fn close(shown: &str, value: f64, back: f64, unit: Unit) -> bool {
    let decimals = shown
        .split_once('.')
        .map_or(0, |(_, digits)| digits.chars().take_while(char::is_ascii_digit).count());
    let digit = 0.5 * 10f64.powi(-i32::try_from(decimals).unwrap());
    let in_our_unit = match unit {
        Unit::Millimetres => 25.4 * digit,
        Unit::Kilograms => digit,
        _ => digit,
    };
    (value - back).abs() <= in_our_unit.max(0.1) + 1e-9
}

proptest! {
    #[test]
    fn a_length_shown_is_read_back_in_both_systems(mm in 0.05..20_000.0f64) {
        let (metric, imperial) = both(mm, Unit::Millimetres);
        for shown in [metric.text(), imperial.text()] {
            let back = parse(&shown, Kind::Length, UnitSystem::Metric).unwrap().value;
            prop_assert!(close(&shown, mm, back, Unit::Millimetres), "{} shown as {} read as {}", mm, shown, back);
        }
    }

    #[test]
    fn a_temperature_shown_is_read_back_in_both_systems(celsius in -40.0..1400.0f64) {
        let (metric, imperial) = exactly(celsius, Unit::Celsius);
        for (shown, unit) in [(metric, "C"), (imperial, "F")] {
            let back = parse(&format!("{} {unit}", shown.number), Kind::Temperature, UnitSystem::Metric).unwrap();
            prop_assert!((back.value - celsius).abs() <= 0.5 + 1e-9, "{} as {}", celsius, shown.text());
        }
    }

    #[test]
    fn a_mass_shown_is_read_back_in_both_systems(kg in 0.1..20_000.0f64) {
        let (metric, imperial) = both(kg, Unit::Kilograms);
        for shown in [metric.text(), imperial.text()] {
            let back = parse(&shown, Kind::Mass, UnitSystem::Imperial).unwrap().value;
            prop_assert!(close(&shown, kg, back, Unit::Kilograms), "{} as {} read as {}", kg, shown, back);
        }
    }

    #[test]
    fn the_unit_typed_wins_over_the_unit_shown(number in 0.1..900.0f64) {
        for (unit, kind) in [("mm", Kind::Length), ("in", Kind::Length), ("lb", Kind::Mass), ("F", Kind::Temperature)] {
            let typed = format!("{number:.1} {unit}");
            let metric = parse(&typed, kind, UnitSystem::Metric).unwrap();
            let imperial = parse(&typed, kind, UnitSystem::Imperial).unwrap();
            prop_assert_eq!(metric, imperial);
        }
    }

    #[test]
    fn whatever_is_typed_is_understood_or_refused_with_a_sentence(typed in "\\PC{0,24}") {
        for kind in [Kind::Length, Kind::Mass, Kind::Temperature, Kind::Duration, Kind::Days, Kind::Plain] {
            for shown_in in [UnitSystem::Metric, UnitSystem::Imperial] {
                if let Err(refused) = parse(&typed, kind, shown_in) {
                    prop_assert!(!refused.to_string().is_empty());
                    prop_assert!(!NotUnderstood::would_be_right(kind).is_empty());
                }
            }
        }
    }

    #[test]
    fn what_would_be_right_is_right(which in 0..6usize) {
        let kind = [Kind::Length, Kind::Mass, Kind::Temperature, Kind::Duration, Kind::Days, Kind::Plain][which];
        let examples = NotUnderstood::would_be_right(kind);
        for example in examples.split(" or ").flat_map(|part| part.split(", ")).filter(|e| *e != "a plain number") {
            prop_assert!(parse(example, kind, UnitSystem::Metric).is_ok(), "{}", example);
        }
    }
}

#[rstest]
// Hand-worked: 3/16 x 25.4 = 4.7625; 1.5 x 25.4 = 38.1
#[case::bare_fraction("3/16", Kind::Length, UnitSystem::Metric, 4.7625)]
#[case::bare_mixed_number("1 1/2", Kind::Length, UnitSystem::Metric, 38.1)]
#[case::mixed_with_unit("1 1/2 in", Kind::Length, UnitSystem::Metric, 38.1)]
#[case::hyphenated("1-1/2 in", Kind::Length, UnitSystem::Metric, 38.1)]
#[case::comma("6,4", Kind::Length, UnitSystem::Metric, 6.4)]
#[case::bare_number_in_an_imperial_shop("2", Kind::Length, UnitSystem::Imperial, 50.8)]
#[case::inch_sign("1\"", Kind::Length, UnitSystem::Metric, 25.4)]
#[case::no_space("500F", Kind::Temperature, UnitSystem::Metric, 260.0)]
#[case::degree_sign("260 °C", Kind::Temperature, UnitSystem::Imperial, 260.0)]
#[case::bare_in_an_imperial_shop("212", Kind::Temperature, UnitSystem::Imperial, 100.0)]
#[case::hours_and_minutes("1h20", Kind::Duration, UnitSystem::Metric, 80.0)]
#[case::hours_and_minutes_spaced("1 h 20 min", Kind::Duration, UnitSystem::Metric, 80.0)]
#[case::thousands("20 000", Kind::Length, UnitSystem::Metric, 20_000.0)]
#[case::thousands_and_a_tenth("1 200,5 mm", Kind::Length, UnitSystem::Metric, 1200.5)]
#[case::pounds("12 lb", Kind::Mass, UnitSystem::Metric, 5.443_108_44)]
#[case::grams("450 g", Kind::Mass, UnitSystem::Imperial, 0.45)]
#[case::weeks("2 weeks", Kind::Days, UnitSystem::Metric, 14.0)]
fn what_people_say_is_understood(
    #[case] typed: &str,
    #[case] kind: Kind,
    #[case] shown_in: UnitSystem,
    #[case] value: f64,
) {
    let understood = parse(typed, kind, shown_in).unwrap().value;
    assert!((understood - value).abs() < 1e-9, "{typed}: {understood}");
}

#[rstest]
#[case::no_such_unit("500Q", Kind::Temperature)]
#[case::a_letter_for_a_zero("28o C", Kind::Temperature)]
#[case::a_mass_for_a_length("12 kg", Kind::Length)]
#[case::words("thick", Kind::Length)]
#[case::divided_by_zero("1/0", Kind::Length)]
#[case::two_fractions("1/2/3", Kind::Length)]
#[case::only_a_unit("mm", Kind::Length)]
#[case::only_a_sign("-", Kind::Plain)]
#[case::two_numbers("1 2", Kind::Mass)]
#[case::nothing("   ", Kind::Plain)]
fn what_nobody_says_is_refused(#[case] typed: &str, #[case] kind: Kind) {
    assert!(parse(typed, kind, UnitSystem::Metric).is_err(), "{typed}");
}

#[rstest]
#[case::by_a_watch("7:30", 450.0)]
#[case::in_the_morning("7:30 am", 450.0)]
#[case::with_dots("7.30 a.m.", 450.0)]
#[case::read_aloud("0730", 450.0)]
#[case::three_digits("730", 450.0)]
#[case::an_hour("8", 480.0)]
#[case::an_hour_after_noon("5 pm", 1020.0)]
#[case::noon("12 pm", 720.0)]
#[case::after_midnight("12:15 am", 15.0)]
#[case::twenty_four("24:00", 1440.0)]
#[case::with_an_h("17h30", 1050.0)]
fn a_time_of_day_is_read_as_it_is_said(#[case] typed: &str, #[case] minutes: f64) {
    let read = parse(typed, Kind::TimeOfDay, UnitSystem::Imperial).unwrap();
    assert_eq!((read.value, read.unit), (minutes, Unit::Minutes));
}

#[rstest]
#[case::minutes("7:60")]
#[case::hours("25")]
#[case::thirteen_in_the_afternoon("13 pm")]
#[case::nought_in_the_morning("0 am")]
#[case::words("early")]
#[case::a_length("8 in")]
#[case::many("12345")]
fn what_is_no_time_of_day_is_told(#[case] typed: &str) {
    assert!(parse(typed, Kind::TimeOfDay, UnitSystem::Metric).is_err());
}

#[rstest]
#[case::bare("5", 300.0)]
#[case::said("4 h 30", 270.0)]
#[case::half("4.5", 270.0)]
#[case::minutes("90", 90.0)]
#[case::the_most_hours("24", 1440.0)]
fn hours_of_a_day_need_no_unit(#[case] typed: &str, #[case] minutes: f64) {
    assert_eq!(parse(typed, Kind::Hours, UnitSystem::Metric).unwrap().value, minutes);
}
