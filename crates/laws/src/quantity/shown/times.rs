//! Times and shares as they are shown.

use super::{Rounding, Shown, number};

pub(super) fn in_steps(minutes: f64, rounding: Rounding) -> f64 {
    let step = match minutes.abs() {
        _ if rounding == Rounding::Exact => 1.0,
        few if few < 20.0 => 1.0,
        some if some < 180.0 => 5.0,
        _ => 15.0,
    };
    rounding.to(minutes, step).round()
}

pub(super) fn duration(minutes: f64, rounding: Rounding) -> Shown {
    let total = in_steps(minutes, rounding) as i64;
    if total < 60 {
        return Shown::new(total.to_string(), "min");
    }
    Shown::new(format!("{} h {:02}", total / 60, total % 60), "")
}

pub(super) fn days(days: f64) -> Shown {
    let text = number(days, usize::from(days < 3.0));
    Shown::new(text, if (days - 1.0).abs() < 1e-9 { "day" } else { "days" })
}

/// A share in percent, whole; small and near-certain shares keep their meaning.
pub(super) fn percent(percent: f64) -> Shown {
    let text = if percent <= 0.0 {
        "0".to_owned()
    } else if percent < 1.0 {
        "under 1".to_owned()
    } else if percent >= 100.0 {
        "100".to_owned()
    } else if percent > 99.0 {
        "over 99".to_owned()
    } else {
        number(percent, 0)
    };
    Shown::new(text, "%")
}
