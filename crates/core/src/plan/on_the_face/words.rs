//! What is said of a heated face.

use super::part::FacePart;
use crate::body::{RUNS_LIKELY_FROM, WATCHED_FROM};
use crate::quantity::{Rounding, Unit, number};

/// House: over this iron gives, in °C.
const GIVES_C: f64 = 500.0;
/// Ours: what would be said as nothing of what it stands is as good as shut.
const AS_GOOD_AS_SHUT: f64 = 0.05;
/// So long it is said in seconds.
const UNDER_MIN: f64 = 1.95;

/// How near a tip is to running.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(super) enum Nearness {
    Shut,
    Open,
    Watch,
    Runs,
}

impl Nearness {
    pub fn of(share: f64) -> Self {
        match share {
            share if share < AS_GOOD_AS_SHUT => Self::Shut,
            share if share < WATCHED_FROM => Self::Open,
            share if share < RUNS_LIKELY_FROM => Self::Watch,
            _ => Self::Runs,
        }
    }

    /// As it travels.
    pub fn id(self) -> &'static str {
        match self {
            Self::Shut => "shut",
            Self::Open => "open",
            Self::Watch => "watch",
            Self::Runs => "runs",
        }
    }
}

/// Shares as they lie between: "0.6 to 1.3 of what it stands", "shut all the way".
pub(super) fn shares_words(low: f64, high: f64) -> String {
    match (number(low.max(0.0), 1), number(high.max(0.0), 1)) {
        (_, high) if high == "0" || high == "0.0" => "as good as shut".to_owned(),
        (low, high) if low == high => format!("{high} of what it stands"),
        (low, high) => format!("{low} to {high} of what it stands"),
    }
}

impl FacePart {
    /// What is not in any answer: said once under it.
    pub(super) fn not_in_it(&self) -> String {
        format!(
            "Flat, elastic, the face as drawn. Not in it: stress that was cast in, iron that gives over {}, bending out \
             of the face, cracks nobody drew.",
            self.gives_words()
        )
    }

    /// From where on the iron gives.
    pub(super) fn gives_words(&self) -> String {
        self.celsius_words(GIVES_C)
    }

    /// How far a gap has opened: "gap 0.05 mm closer".
    pub(super) fn gap_words(&self, opened_mm: Option<f64>) -> String {
        let Some(mm) = opened_mm else { return "its parts lie where they are put".to_owned() };
        // To a hundredth of a millimetre, or a thousandth of an inch: nobody sees less.
        let hundredths = (mm.abs() * 100.0).round() / 100.0;
        let by = self.units.show(hundredths, Unit::Millimetres, Rounding::Exact);
        match mm {
            _ if by.number == "0" => "gap as it is".to_owned(),
            mm if mm > 0.0 => format!("gap {} wider", by.text()),
            _ => format!("gap {} closer", by.text()),
        }
    }

    pub(super) fn celsius_words(&self, celsius: f64) -> String {
        self.units.say(celsius, Unit::Celsius)
    }

    /// "12 to 19 min"
    pub(super) fn time_between(&self, soon: f64, late: f64) -> String {
        if soon < UNDER_MIN {
            let (soon, late) = (self.minutes_words(soon), self.minutes_words(late));
            return if soon == late { soon } else { format!("{soon} to {late}") };
        }
        let show = |minutes| self.units.show(minutes, Unit::Minutes, Rounding::Nearest);
        let (soon, late) = (show(soon), show(late));
        match (soon.unit == late.unit, soon.text() == late.text()) {
            (_, true) => late.text(),
            (true, false) => format!("{} to {}", soon.number, late.text()),
            (false, false) => format!("{} to {}", soon.text(), late.text()),
        }
    }

    /// In seconds while it is less than two minutes.
    pub(super) fn minutes_words(&self, minutes: f64) -> String {
        if minutes < UNDER_MIN {
            format!("{} s", number(minutes * 60.0, 0))
        } else {
            self.units.say(minutes, Unit::Minutes)
        }
    }
}
