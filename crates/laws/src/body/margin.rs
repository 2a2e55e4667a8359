//! What is said of how much of it a load uses up.

use crate::quantity::number;

/// Standard gravity in m/s², rounded (law).
pub const GRAVITY: f64 = 9.81;
/// House: the usual margin for iron where a load lies still, and where it comes with knocks; under the last it is said
/// plainly.
const MARGIN: (f64, f64) = (4.0, 8.0);
const LEAST_MARGIN: f64 = 2.0;

/// What has to be known beside what it stands; `margin` is what the mended part stands over what is asked of it.
#[must_use]
pub fn margin_notes(whole_breaks: bool, margin: f64) -> Vec<String> {
    let cause = "Whole it would not have stood that either: the load is more, or the corner did it. Find the cause first.";
    let short = "That is less than twice what hangs on it: strap it, or take the load off.";
    let usual = format!(
        "The usual margin for iron is {} where a load lies still and {} where it is knocked. What lifts, carries people \
         or stands under pressure is for somebody who answers for it.",
        number(MARGIN.0, 0),
        number(MARGIN.1, 0)
    );
    let cause = whole_breaks.then(|| cause.to_owned());
    let short = (margin < LEAST_MARGIN).then(|| short.to_owned());
    cause.into_iter().chain(short).chain([usual]).collect()
}
