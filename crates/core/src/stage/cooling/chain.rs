//! What is done with a part before it is packed, step by step.

use crate::field;
use crate::heat::{ChainStep, Descent, SimCache, ThermalBody, UNWRAP_C, Wrapping, cooling_chain};
use crate::job::Round;
use crate::quantity::{Celsius, Unit, UnitSystem};
use serde::Serialize;

/// One step of the way down.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ChainLine {
    /// "Heat it all to 330 °C, 15 min"
    pub words: String,
    pub lasts_hours: f64,
    pub ends_c: f64,
    /// What the way down takes longer for it, in hours until it may be unwrapped; 0 for the packing itself.
    pub gains_hours: f64,
}

/// What is done before it is packed, and how warm it then is.
pub(super) fn before_the_packing(
    round: &Round,
    body: &ThermalBody,
    start_c: f64,
    units: UnitSystem,
) -> (Vec<(String, Descent)>, f64) {
    // What is covered has these behind it: it starts as it was read.
    if round.covered_minutes().is_some() {
        return (Vec::new(), start_c);
    }
    let mut steps: Vec<(String, ChainStep)> = Vec::new();
    let minutes = |minutes: f64| units.say_exactly(minutes, Unit::Minutes);
    if let Some(to_c) = round.get(field::cooling::POST_HEAT) {
        let hold = round.get(field::cooling::POST_HEAT_FOR).unwrap_or(0.0);
        let words = format!("Heat it all to {}, {}", units.say(to_c, Unit::Celsius), minutes(hold));
        steps.push((words, ChainStep::PostHeat { to_c, minutes: hold }));
    }
    if let Some(over) = round.get(field::cooling::TAPER).filter(|over| *over > 0.0) {
        steps.push((format!("Flame off by degrees, {}", minutes(over)), ChainStep::Taper { minutes: over }));
    }
    if let Some(at_c) = round.get(field::cooling::OVEN) {
        let hours = round.get(field::cooling::OVEN_FOR).unwrap_or(0.0) / 60.0;
        let words = format!("In the oven at {}, {}", units.say(at_c, Unit::Celsius), minutes(hours * 60.0));
        steps.push((words, ChainStep::Oven { at_c, hours }));
    }
    if let Some(fire) = round.get(field::cooling::FIRE) {
        let (time_constant_h, hours) = (fire.time_constant_h(), fire.lasts_h());
        let words = format!("In the fire as it goes out, {}", minutes(hours * 60.0));
        steps.push((words, ChainStep::DyingFire { time_constant_h, hours }));
    }
    let (words, steps): (Vec<String>, Vec<ChainStep>) = steps.into_iter().unzip();
    let done = cooling_chain(body, start_c, &steps);
    let ends_c = done.last().map_or(start_c, |last| last.ends_c);
    (words.into_iter().zip(done).collect(), ends_c)
}

/// (hours, degC) of all that is done before it is packed.
pub(super) fn descended(before: &[(String, Descent)]) -> Vec<(f64, f64)> {
    let mut curve = Vec::new();
    let mut from_s = 0.0;
    for (_, descent) in before {
        let every = descent.curve.len().div_ceil(60).max(1);
        curve.extend(
            descent.curve.iter().step_by(every).map(|(at_s, celsius)| ((from_s + at_s) / 3600.0, *celsius)),
        );
        from_s += descent.lasts_s;
    }
    curve
}

/// Each step with what it gains: how much later it may be unwrapped than without all that comes after the one before.
pub(super) fn chain_lines(
    before: Vec<(String, Descent)>,
    (body, start_c): (&ThermalBody, f64),
    wrapping: &Wrapping,
    units: UnitSystem,
    sims: &SimCache,
) -> Vec<ChainLine> {
    let packed_h = |from_c: f64| {
        let start = Celsius::new(from_c).ok()?;
        sims.cool(body, start, wrapping).hours_to(UNWRAP_C)
    };
    let mut lines = Vec::new();
    let mut reached_c = start_c;
    let mut so_far_h = 0.0;
    let mut in_all_h = packed_h(start_c);
    for (words, descent) in before {
        so_far_h += descent.lasts_s / 3600.0;
        reached_c = descent.ends_c;
        let now_h = packed_h(reached_c).map(|hours| hours + so_far_h);
        lines.push(ChainLine {
            words,
            lasts_hours: descent.lasts_s / 3600.0,
            ends_c: descent.ends_c,
            gains_hours: now_h.zip(in_all_h).map_or(0.0, |(now, before)| now - before),
        });
        in_all_h = now_h;
    }
    if !lines.is_empty()
        && let Some(hours) = packed_h(reached_c)
    {
        let words =
            format!("{}, until {}", wrapping.packing().label(), units.say_most(UNWRAP_C, Unit::Celsius));
        lines.push(ChainLine { words, lasts_hours: hours, ends_c: UNWRAP_C, gains_hours: 0.0 });
    }
    lines
}
