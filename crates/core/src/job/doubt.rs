//! A cold reading of a part that cannot have cooled so far by then. One that was typed is doubted until it is said
//! again. A pad that reads so has slipped off: what it reads is not the part's until the part can have come to it, or
//! somebody says that it has.

use super::heat::{HeatRef, LogEntry};
use super::{Job, Lighting, Round, TorchEntry};
use crate::field;
use crate::heat::{Fall, OutOfHeat, TOUCH_C, ThermalBody, UNWRAP_C};
use crate::iron::Iron;
use crate::quantity::{Celsius, Kilograms, Millimetres};

/// House: the fastest a part cools without being quenched, W/m²K over its whole surface: a draught on five of its six
/// sides, and cold iron under the sixth.
const FASTEST: OutOfHeat = OutOfHeat { h_w_m2k: 40.0, bare_share: 1.0 };
/// House: the most surface a casting has, against that of the box it fits in.
const MOST_SURFACE: f64 = 1.3;
/// House: the coldest shop it may stand in.
const COLDEST_C: f64 = 0.0;
/// House: a part of which weight or size is not known may be so heavy that it takes so long, in min.
const OF_ANY_SIZE_MIN: f64 = 12.0 * 60.0;
/// Ours: what nobody read and nothing planned is taken as hot as it may be planned.
const HOTTEST_C: f64 = 700.0;
/// House: two readings say the same when they are no further apart, in K.
const THE_SAME_K: f64 = 10.0;

/// The soonest that the part can have fallen from one temperature to another, in min; as soon as it may be called cold
/// where that is lower.
fn soonest_min(fall: Option<&Fall>, from_c: f64, to_c: f64) -> f64 {
    let to_c = to_c.max(TOUCH_C);
    if from_c <= to_c {
        return 0.0;
    }
    fall.and_then(|fall| fall.seconds(from_c, to_c)).map_or(OF_ANY_SIZE_MIN, |seconds| seconds / 60.0)
}

/// The part as it cools the fastest; nothing while weight or size is not known.
fn body(round: &Round) -> Option<ThermalBody> {
    let mm = |key| Millimetres::new(round.get(key)?).ok();
    let size = (mm(field::part::LENGTH)?, mm(field::part::WIDTH)?, mm(field::part::HEIGHT)?);
    let mass = Kilograms::new(round.get(field::part::MASS)?).ok()?;
    let coldest = Celsius::new(COLDEST_C).ok()?;
    ThermalBody::new(Iron::Gray.properties(), mass, size, MOST_SURFACE, coldest).ok()
}

/// What is known of the part at a moment of its lighting.
#[derive(Clone, Copy)]
struct Known {
    minutes: f64,
    celsius: f64,
    /// Which entry of the log said it; nothing for a pad, and for what is only planned.
    entry: Option<usize>,
}

/// What was typed of the part as it stands: a reading, or a stick that did not melt.
fn typed(at: usize, entry: &LogEntry) -> Option<Known> {
    let celsius = match entry.entry {
        TorchEntry::Stick { melted: true, .. } => None,
        TorchEntry::Stick { melted: false, .. } => entry.melts_c.filter(|melts_c| *melts_c <= TOUCH_C),
        _ => entry.celsius.filter(|_| !entry.at_joint),
    }?;
    Some(Known { minutes: entry.minutes, celsius, entry: Some(at) })
}

/// How hot it may be where nobody read it: as planned, as hot as any, or not at all.
fn planned_c(heat: &HeatRef<'_>) -> Option<f64> {
    let frozen = heat.lit.frozen.as_ref();
    let heats = frozen.and_then(|frozen| frozen.way).is_none_or(|way| way.school.heats());
    if heat.lit.what == Lighting::Tack || !heats {
        return None;
    }
    let curve = frozen.filter(|_| heat.lit.what == Lighting::Main).map(|frozen| &frozen.curve);
    let planned = curve.into_iter().flatten().map(|(_, celsius)| *celsius).fold(f64::NAN, f64::max);
    Some(if planned.is_finite() { planned } else { HOTTEST_C })
}

/// What of a lighting is doubted.
#[derive(Default)]
struct Doubted {
    /// Entries of the log.
    entries: Vec<usize>,
    /// Minutes at which the pads read what is not the part's, in the order of time.
    slipped: Vec<f64>,
}

/// House: readings no further apart say the same of when the part can be cold, in K and min.
const STEP_K: f64 = 5.0;
const STEP_MIN: f64 = 1.0;

/// When the part can be cold at the soonest, by all that was known of it up to a moment.
struct Soonest<'a> {
    fall: Option<&'a Fall>,
    cold_min: f64,
    /// What that was worked out from last: the next one near it says no more.
    from: Option<Known>,
}

impl Soonest<'_> {
    fn take(&mut self, known: Known) {
        let near = |from: Known| {
            (from.celsius - known.celsius).abs() < STEP_K && known.minutes - from.minutes < STEP_MIN
        };
        let told = self.from.is_some_and(near);
        if !told && known.celsius > TOUCH_C {
            let cold_min = known.minutes + soonest_min(self.fall, known.celsius, TOUCH_C);
            self.cold_min = self.cold_min.max(cold_min);
            self.from = Some(known);
        }
    }

    /// Somebody says, and is believed, that it is cold.
    fn cold(&mut self, minutes: f64) {
        self.cold_min = minutes;
    }
}

/// By everything that is known of it, in the order of time.
fn doubted(heat: &HeatRef<'_>, body: Option<&ThermalBody>, over: bool) -> Doubted {
    let standing = || heat.log.iter().enumerate().filter(|(_, entry)| entry.stands());
    let off_min = heat.out_of_heat_min();
    // Work goes on in another round: the flame is off, nobody said when.
    let after_min = off_min.or(over.then_some(0.0));
    let after_it = |minutes: f64| after_min.is_some_and(|off| minutes >= off);
    let recorded = heat.as_recorded();
    let cold_pad = |read: &super::Reading| after_it(read.minutes) && read.celsius <= UNWRAP_C;
    let cold_typed =
        standing().filter_map(|(at, entry)| typed(at, entry)).any(|known| known.celsius <= UNWRAP_C);
    if !cold_typed && !recorded.iter().any(cold_pad) {
        return Doubted::default();
    }
    let by_pad = |read: &super::Reading| Known { minutes: read.minutes, celsius: read.celsius, entry: None };
    let mut all: Vec<Known> = recorded.iter().map(by_pad).collect();
    all.extend(standing().filter_map(|(at, entry)| typed(at, entry)));
    all.extend(heat.melted().map(|read| by_pad(&read)));
    let by_then = |minutes: f64| all.iter().any(|known| known.minutes < minutes);
    if let (Some(minutes), Some(celsius)) = (off_min, planned_c(heat))
        && !by_then(minutes)
    {
        all.insert(0, Known { minutes, celsius, entry: None });
    }
    // Of one moment the order in which they were said.
    all.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
    let hottest_c = all.iter().map(|known| known.celsius).fold(TOUCH_C, f64::max);
    let fall = body.map(|body| Fall::new(FASTEST, body, hottest_c, TOUCH_C));
    let mut soonest = Soonest { fall: fall.as_ref(), cold_min: f64::NEG_INFINITY, from: None };
    let (mut last, mut doubted, mut slipped) = (None::<Known>, Vec::<Known>::new(), Vec::new());
    for known in all {
        let cold = known.celsius <= UNWRAP_C;
        if known.entry.is_none() && cold && after_it(known.minutes) && known.minutes < soonest.cold_min {
            slipped.push(known.minutes);
            continue;
        }
        let too_soon = last.is_some_and(|last| {
            known.minutes - last.minutes < soonest_min(fall.as_ref(), last.celsius, known.celsius)
        });
        let again = doubted.iter().any(|before| (before.celsius - known.celsius).abs() <= THE_SAME_K);
        if known.entry.is_some() && cold && too_soon && !again {
            doubted.push(known);
            continue;
        }
        if known.entry.is_some() && cold {
            soonest.cold(known.minutes);
        } else {
            soonest.take(known);
        }
        last = Some(known);
    }
    Doubted { entries: doubted.into_iter().filter_map(|known| known.entry).collect(), slipped }
}

impl Job {
    /// Marks what was typed at the torch, or read by a pad, and cannot be, by everything that is known of each lighting.
    pub(super) fn doubt(&mut self) {
        let mut of: Vec<_> = self
            .heats()
            .map(|heat| {
                let over = heat.round + 1 < self.rounds.len();
                (heat.lit.fact, doubted(&heat, body(&self.rounds[heat.round]).as_ref(), over))
            })
            .collect();
        for round in &mut self.rounds {
            let cancelled = round.cancelled.iter_mut();
            let cancelled = cancelled.map(|heat| (heat.lit.fact, &mut heat.log, &mut heat.slipped));
            let lit = round.lit.as_ref().map(|lit| (lit.fact, &mut round.log, &mut round.slipped));
            for (lit, log, slipped) in cancelled.chain(lit) {
                let found = of.iter_mut().find(|(heat, _)| *heat == lit);
                let found = found.map_or_else(Doubted::default, |(_, found)| std::mem::take(found));
                for (at, entry) in log.iter_mut().enumerate() {
                    entry.doubted = found.entries.contains(&at);
                }
                *slipped = found.slipped;
            }
        }
    }
}
