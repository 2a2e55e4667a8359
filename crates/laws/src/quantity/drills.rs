//! A shop's drills: sizes as they stand on the shank, in mm.

use super::{MM_PER_IN, Rounding, Unit, UnitSystem};
use crate::base::problem::FieldProblem;

/// Number sizes 1 to 80, in thousandths of an inch and tenths of them.
///
/// # Source
/// ASME B94.11M.
const NUMBERS_IN: [f64; 80] = [
    0.2280, 0.2210, 0.2130, 0.2090, 0.2055, 0.2040, 0.2010, 0.1990, 0.1960, 0.1935, 0.1910, 0.1890, 0.1850,
    0.1820, 0.1800, 0.1770, 0.1730, 0.1695, 0.1660, 0.1610, 0.1590, 0.1570, 0.1540, 0.1520, 0.1495, 0.1470,
    0.1440, 0.1405, 0.1360, 0.1285, 0.1200, 0.1160, 0.1130, 0.1110, 0.1100, 0.1065, 0.1040, 0.1015, 0.0995,
    0.0980, 0.0960, 0.0935, 0.0890, 0.0860, 0.0820, 0.0810, 0.0785, 0.0760, 0.0730, 0.0700, 0.0670, 0.0635,
    0.0595, 0.0550, 0.0520, 0.0465, 0.0430, 0.0420, 0.0410, 0.0400, 0.0390, 0.0380, 0.0370, 0.0360, 0.0350,
    0.0330, 0.0320, 0.0310, 0.0292, 0.0280, 0.0260, 0.0250, 0.0240, 0.0225, 0.0210, 0.0200, 0.0180, 0.0160,
    0.0145, 0.0135,
];

/// Letter sizes A to Z, in inches.
///
/// # Source
/// ASME B94.11M.
const LETTERS_IN: [f64; 26] = [
    0.234, 0.238, 0.242, 0.246, 0.250, 0.257, 0.261, 0.266, 0.272, 0.277, 0.281, 0.290, 0.295, 0.302, 0.316,
    0.323, 0.332, 0.339, 0.348, 0.358, 0.368, 0.377, 0.386, 0.397, 0.404, 0.413,
];

/// Drills of one shop. Ours.
const DRILLS_MOST: usize = 300;
/// The smallest and the largest drill of a bench. Ours.
const SIZES_MM: (f64, f64) = (0.3, 50.0);

/// What stands on a drill of a number or letter size; nothing for any other.
#[must_use]
pub fn named(mm: f64) -> Option<String> {
    /// Half of the last place in which these sizes are given: arithmetic.
    const SAME_IN: f64 = 0.00005;
    let inches = mm / MM_PER_IN;
    // What is a round metric size is called so, whatever lies near it.
    if (mm * 10.0 - (mm * 10.0).round()).abs() < 1e-6 {
        return None;
    }
    let is = |size: &f64| (size - inches).abs() < SAME_IN;
    let number = || NUMBERS_IN.iter().position(is).map(|at| format!("#{}", at + 1));
    let letter = || LETTERS_IN.iter().position(is).map(|at| char::from(b'A' + at as u8).to_string());
    let sixty_fourth = (inches * 64.0 - (inches * 64.0).round()).abs() / 64.0 < SAME_IN;
    if sixty_fourth { None } else { number().or_else(letter) }
}

/// The mark of the drill in inches for a thread whose tap drill this is, in mm, and its size in inches: the nearest
/// of sixty-fourths, letters and numbers that is not more than 0.05 mm under it. Nothing where none is within 0.2 mm.
///
/// # Source
/// House.
#[must_use]
pub fn for_a_thread(mm: f64) -> Option<(String, f64)> {
    /// House: so far under, a tap still cuts without harm.
    const UNDER_MM: f64 = 0.05;
    /// House: a drill further off is none for this thread.
    const NEAR_MM: f64 = 0.2;
    let sixty_fourths =
        (1..=64_u32).map(|parts| (super::shown::fraction(parts, 64), f64::from(parts) / 64.0));
    let letters = LETTERS_IN.iter().zip('A'..='Z').map(|(inches, letter)| (letter.to_string(), *inches));
    let numbers = NUMBERS_IN.iter().zip(1..).map(|(inches, number)| (format!("#{number}"), *inches));
    let off = |inches: f64| inches * MM_PER_IN - mm;
    let fits = |off: f64| (-UNDER_MM..=NEAR_MM).contains(&off);
    let fitting = sixty_fourths.chain(letters).chain(numbers).filter(|(_, inches)| fits(off(*inches)));
    fitting.min_by(|(_, a), (_, b)| off(*a).abs().total_cmp(&off(*b).abs()))
}

/// One drill as it is said: `#7`, `F`, `1/4`, `6.5`, `1 1/8 in`, `13 mm`. A fraction is of an inch; a bare
/// decimal is in the units of the shop, but over 2 it can only be in mm.
fn one(text: &str, shown_in: UnitSystem) -> Option<f64> {
    let text = text.trim();
    let bare = text.trim_end_matches("mm").trim_end_matches("in").trim_end_matches('"').trim();
    let (in_mm, in_inches) = (text.ends_with("mm"), text.ends_with("in") || text.ends_with('"'));
    let number =
        text.strip_prefix('#').or_else(|| text.strip_prefix("No.")).or_else(|| text.strip_prefix("no."));
    if let Some(number) = number {
        let at: usize = number.trim().parse().ok()?;
        return Some(NUMBERS_IN.get(at.checked_sub(1)?)? * MM_PER_IN);
    }
    if let [letter] = text.as_bytes()
        && letter.is_ascii_alphabetic()
    {
        return Some(LETTERS_IN[usize::from(letter.to_ascii_uppercase() - b'A')] * MM_PER_IN);
    }
    if let Some((whole, below)) = bare.split_once('/') {
        let (whole, above) = whole.trim().rsplit_once([' ', '-']).unwrap_or(("0", whole.trim()));
        let (whole, above, below): (f64, f64, f64) =
            (whole.trim().parse().ok()?, above.parse().ok()?, below.trim().parse().ok()?);
        return (!in_mm).then_some((whole + above / below) * MM_PER_IN);
    }
    let size: f64 = bare.replace(',', ".").parse().ok()?;
    let inches = in_inches || (!in_mm && shown_in == UnitSystem::Imperial && size <= 2.0);
    Some(if inches { size * MM_PER_IN } else { size })
}

/// A set as it stands on a shelf: each across in mm, with its number, letter or size; the unit goes without saying.
#[must_use]
pub fn marked(drills_mm: &[f64], units: UnitSystem) -> Vec<(f64, String)> {
    let mark = |mm: f64| units.show(mm, Unit::Drill, Rounding::Nearest).number;
    drills_mm.iter().map(|mm| (*mm, mark(*mm))).collect()
}

/// A set as it is typed: sizes with commas between them, `1 to 13 by 0.5` for a row of them. In mm, the
/// smallest first, each once.
///
/// # Errors
/// At `key`: one that is no drill, or more than a shop has.
pub fn parse_drills(key: &str, typed: &str, shown_in: UnitSystem) -> Result<Vec<f64>, FieldProblem> {
    let right = "#7, F, 1/4, 6.5 mm, or 1 to 13 mm by 0.5";
    let no_drill = |text: &str| FieldProblem::new(key, format!("\"{}\" is no drill", text.trim()), right);
    let mut drills = Vec::new();
    for part in typed.split([',', ';', '\n']).filter(|part| !part.trim().is_empty()) {
        let Some((from, rest)) = part.split_once(" to ") else {
            drills.push(one(part, shown_in).ok_or_else(|| no_drill(part))?);
            continue;
        };
        let (to, by) = rest.split_once(" by ").ok_or_else(|| no_drill(part))?;
        let unit = ["mm", "in"].into_iter().find(|unit| rest.contains(unit)).unwrap_or("");
        let with_unit = |text: &str| {
            let text = text.trim();
            if text.ends_with("mm") || text.ends_with("in") {
                text.to_owned()
            } else {
                format!("{text} {unit}")
            }
        };
        let read = |text: &str| one(with_unit(text).trim(), shown_in).ok_or_else(|| no_drill(part));
        let (from, to, by) = (read(from)?, read(to)?, read(by)?);
        let steps = (to - from) / by;
        if !(by > 0.0 && (0.0..=DRILLS_MOST as f64).contains(&steps)) {
            return Err(no_drill(part));
        }
        drills.extend((0..=(steps + 1e-9) as u32).map(|step| from + f64::from(step) * by));
    }
    let (low, high) = SIZES_MM;
    if let Some(odd) = drills.iter().find(|mm| !mm.is_finite() || !(low..=high).contains(*mm)) {
        let message = format!("{:.2} mm is no drill of a bench", odd);
        return Err(FieldProblem::new(key, message, format!("{low} to {high} mm")));
    }
    drills.sort_by(f64::total_cmp);
    drills.dedup_by(|a, b| (*a - *b).abs() < 1e-6);
    if drills.len() > DRILLS_MOST {
        return Err(FieldProblem::new(key, "that are more drills than a shop has", "up to 300"));
    }
    Ok(drills)
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    fn read(typed: &str, shown_in: UnitSystem) -> Result<Vec<f64>, String> {
        parse_drills("shop.drills", typed, shown_in).map_err(|problem| problem.message)
    }

    #[rstest]
    // Hand-worked: 0.201 in = 5.1054 mm; 0.257 = 6.5278; 1/4 = 6.35
    #[case::the_four_ways("#7, F, 1/4, 6.5", UnitSystem::Metric, &[5.1054, 6.35, 6.5, 6.5278])]
    #[case::inches_and_a_half("1 1/2 in", UnitSystem::Imperial, &[38.1])]
    #[case::a_decimal_of_an_inch("0.201", UnitSystem::Imperial, &[5.1054])]
    #[case::a_millimetre_drill_in_an_imperial_shop("6.5", UnitSystem::Imperial, &[6.5])]
    #[case::a_comma_of_the_continent_needs_its_unit("3.2 mm; 3.2", UnitSystem::Metric, &[3.2])]
    #[case::a_row("3 to 5 mm by 0.5", UnitSystem::Metric, &[3.0, 3.5, 4.0, 4.5, 5.0])]
    #[case::a_row_of_fractions("1/8 to 1/4 by 1/16", UnitSystem::Metric, &[3.175, 4.7625, 6.35])]
    #[case::the_ends(" #1 , #80, a, Z ", UnitSystem::Metric, &[0.3429, 5.7912, 5.9436, 10.4902])]
    fn sizes_are_understood_as_they_stand_on_the_shank(
        #[case] typed: &str,
        #[case] shown_in: UnitSystem,
        #[case] mm: &[f64],
    ) {
        let read = read(typed, shown_in).unwrap();
        assert_eq!(read.len(), mm.len(), "{read:?}");
        assert!(read.iter().zip(mm).all(|(got, mm)| (got - mm).abs() < 1e-9), "{read:?}");
    }

    #[rstest]
    #[case::no_size("#81", "\"#81\" is no drill")]
    #[case::number_nought("#0", "\"#0\" is no drill")]
    #[case::words("big", "\"big\" is no drill")]
    #[case::over_nothing("1/0", "inf mm is no drill of a bench")]
    #[case::a_crowbar("900", "900.00 mm is no drill of a bench")]
    #[case::a_row_that_never_ends("1 to 13 by 0", "\"1 to 13 by 0\" is no drill")]
    #[case::backwards("13 to 1 mm by 0.5", "\"13 to 1 mm by 0.5\" is no drill")]
    fn what_is_no_drill_is_refused(#[case] typed: &str, #[case] message: &str) {
        assert_eq!(read(typed, UnitSystem::Metric), Err(message.to_owned()));
    }

    #[test]
    fn a_drill_is_called_by_what_stands_on_it() {
        for (mm, name) in [
            (5.1054, Some("#7")),
            (6.5278, Some("F")),
            (6.35, None),
            (6.5, None),
            (3.2639, Some("#30")),
            (4.8, None),
            (4.8006, Some("#12")),
        ] {
            assert_eq!(named(mm).as_deref(), name, "{mm}");
        }
        for typed in ["#1", "#7", "#29", "#80", "A", "F", "Q", "Z"] {
            let mm = read(typed, UnitSystem::Metric).unwrap()[0];
            assert_eq!(named(mm).as_deref(), Some(typed));
        }
    }
}
