//! How the heating goes by what was read of it: when it is at its target, or that it will not be.

use super::HeatPlan;
use super::learned::{RISEN_K, from_cold};
use crate::heat::{FACTORS, SimCache, ceiling_c, one_each};
use crate::iron::Iron;
use crate::job::{Deed, Job, Lighting, LogEntry, TorchEntry};
use crate::quantity::{Celsius, Seconds};
use crate::stage::heat::{MOST_MIN, scaled};
use crate::stage::part::PartFacts;
use crate::stage::torch::Warming;

/// Ours: a heating is short, and is fitted anew each so many minutes.
const EVERY_MIN: f64 = 2.0;
/// Ours: so close to its bound a fit says no more than the bound.
const AT_THE_BOUND: f64 = 0.01;

/// Of a part that comes up with a flame, not begun with: nothing while too little was read, once it is warm, and
/// where the flame was off in between.
pub(super) fn warming(
    job: &Job,
    facts: (&PartFacts, &[Iron]),
    heat: &HeatPlan,
    sims: &SimCache,
) -> Option<Warming> {
    let lit = job.heat().filter(|it| it.round + 1 == job.rounds.len() && it.cancelled_min.is_none())?;
    let off = |entry: &LogEntry| {
        entry.is_piece()
            || matches!(entry.entry, TorchEntry::Covered { .. } | TorchEntry::Did { what: Deed::OutOfHeat })
    };
    if lit.lit.what != Lighting::Main || lit.log.iter().any(|entry| entry.stands() && off(entry)) {
        return None;
    }
    let (body, power) = from_cold(job, &lit, facts, heat)?;
    let ambient_c = body.ambient.celsius();
    let read = one_each(&lit.read_between(0.0, f64::INFINITY), EVERY_MIN);
    let last = read.last()?;
    let warm = read.iter().any(|read| read.celsius >= heat.target_c);
    if warm || read.len() < 2 || last.celsius - ambient_c < RISEN_K {
        return None;
    }
    let factor = sims.heating_fit(&body, power, &read)?;
    let power = scaled(power, factor)?;
    let most = Seconds::new(MOST_MIN * 60.0).ok()?;
    let heating = sims.heat_until(&body, power, Celsius::new(heat.target_c).ok()?, most);
    Some(Warming {
        target_c: heat.target_c,
        least_c: heat.least_c,
        at_target_min: heating.minutes_to(heat.target_c).filter(|_| factor > FACTORS.0 + AT_THE_BOUND),
        weaker: factor <= FACTORS.0 + AT_THE_BOUND,
        ceiling_c: ceiling_c(&body, power),
        factor,
        readings: read.len(),
    })
}
