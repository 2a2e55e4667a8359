//! Lengths as they are shown: tenths, inches and their parts, drills.

use super::{MM_PER_IN, Rounding, Shown, Unit, fraction, number};

/// A length in both systems: as it is measured, as a drill is called, as a packing is laid.
pub(super) fn lengths(value: f64, unit: Unit, rounding: Rounding) -> (Shown, Shown) {
    match unit {
        Unit::Drill => match super::super::drills::named(value) {
            Some(name) => (
                Shown::new(name.clone(), &format!("({} mm)", number(value, 1))),
                Shown::new(name, &format!("({} in)", number(value / MM_PER_IN, 3))),
            ),
            None => (Shown::new(number(value, 2), "mm"), drill_inches(value / MM_PER_IN)),
        },
        Unit::TapDrill => {
            let imperial = super::super::drills::for_a_thread(value).map_or_else(
                || drill_inches(value / MM_PER_IN),
                |(mark, inches)| Shown::new(mark, &format!("({} in)", number(inches, 3))),
            );
            (Shown::new(number(value, 1), "mm"), imperial)
        }
        Unit::Packing => {
            let whole = (value / MM_PER_IN).round();
            // Half an inch off is no rounding any more: what was typed stands.
            let near = whole >= 1.0 && (value / MM_PER_IN - whole).abs() <= 0.1;
            let (metric, imperial) = lengths(value, Unit::Millimetres, rounding);
            let imperial = match whole {
                _ if near => Shown::new(number(whole, 0), "in"),
                // Gloves and quilts are not measured finer.
                whole if whole < 1.0 => {
                    Shown::new(fraction((value / MM_PER_IN * 8.0).round().max(1.0) as u32, 8), "in")
                }
                _ => imperial,
            };
            (metric, imperial)
        }
        _ => (millimetres(value, rounding), inches(value / MM_PER_IN, rounding)),
    }
}

/// As a rule is read: tenths by the vernier, from 10 mm on by halves, from 100 mm on by the line.
pub(super) fn millimetres(mm: f64, rounding: Rounding) -> Shown {
    let text = match (rounding, mm.abs()) {
        (Rounding::Exact, size) if size < 100.0 => number(mm, 2),
        (_, size) if size < 1.0 => number(mm, 2),
        (_, size) if size < 10.0 => number(rounding.to(mm, 0.1), 1),
        (_, size) if size < 100.0 => number(rounding.to(mm, 0.5), 1),
        _ => number(rounding.to(mm, 1.0), 0),
    };
    Shown::new(text, "mm")
}

/// As tape and rule have them: sixteenths, under half an inch thirty-seconds, under a quarter sixty-fourths, over
/// a foot eighths; what is less than a line of the rule in thousandths.
pub(super) fn inches(inches: f64, rounding: Rounding) -> Shown {
    let parts = match inches.abs() {
        size if size < 1.0 / 64.0 => return Shown::new(number(inches, 3), "in"),
        size if size < 0.25 => 64,
        size if size < 0.5 => 32,
        size if size < 12.0 => 16,
        _ => 8,
    };
    // Read exactly it may lie between two lines.
    let fine = (inches * f64::from(parts)).round() / f64::from(parts);
    if rounding == Rounding::Exact && (fine - inches).abs() > 0.002 {
        return drill_inches(inches);
    }
    let rounding = if rounding == Rounding::Exact { Rounding::Nearest } else { rounding };
    Shown::new(
        fraction((rounding.to(inches, 1.0 / f64::from(parts)) * f64::from(parts)).round() as u32, parts),
        "in",
    )
}

/// As a drill index reads: sixty-fourths, decimals where none comes within 0.1 mm.
fn drill_inches(inches: f64) -> Shown {
    let parts = 64;
    let close = (inches * f64::from(parts)).round();
    if close < 1.0 || (close / f64::from(parts) - inches).abs() * MM_PER_IN >= 0.1 {
        return Shown::new(number(inches, 3), "in");
    }
    Shown::new(fraction(close as u32, parts), "in")
}
