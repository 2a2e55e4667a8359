//! A lighting: its clock, its log, what was read.

use std::borrow::Cow;

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::pads::{last_of_each, of_the_part};
use super::{Deed, PadsOn, Recorded, TorchEntry};
use crate::heat::{ReadAt, TOUCH_C};
use crate::record::FrozenPlan;

/// What it is lit for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Lighting {
    /// To bake oil out of the pores; the repair comes later.
    Bake,
    /// To tack the pieces of a full break, nothing preheated.
    Tack,
    /// The repair itself.
    #[default]
    Main,
}

impl Lighting {
    pub(crate) fn is_main(&self) -> bool {
        *self == Self::Main
    }

    /// As it is called when it is over.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Bake => "Bake",
            Self::Tack => "Tacking",
            Self::Main => "Heat",
        }
    }
}

/// The torch is lit: from here the job has its own clock.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Lit {
    pub fact: Uuid,
    pub at_ms: i64,
    pub speed: f64,
    pub frozen: Option<FrozenPlan>,
    /// Who lit it although the heat at hand may not do, and why; empty where nobody had to.
    #[serde(default)]
    pub owned: String,
    pub what: Lighting,
    /// What was to be laid out first and was not ticked.
    pub without: Vec<String>,
}

impl Lit {
    /// Time on the job clock: lit at + speed x elapsed.
    #[must_use]
    pub fn job_ms(&self, now_ms: i64) -> i64 {
        job_ms(self.at_ms, self.speed, now_ms)
    }

    /// Minutes on the job clock since it was lit.
    #[must_use]
    pub fn minutes(&self, now_ms: i64) -> f64 {
        (self.job_ms(now_ms) - self.at_ms) as f64 / 60_000.0
    }

    /// A minute on the job clock of another lighting, on this one's: under 0 for what was before it was lit.
    #[must_use]
    pub(super) fn minutes_of(&self, other: &Self, minutes: f64) -> f64 {
        let at_ms = job_ms_to_clock(other.at_ms, other.speed, minutes);
        (at_ms - self.at_ms) as f64 * self.speed / 60_000.0
    }
}

/// The job clock, UTC in ms since 1970, of what was lit `at_ms`: lit at + speed x elapsed.
#[must_use]
pub fn job_ms(at_ms: i64, speed: f64, now_ms: i64) -> i64 {
    at_ms + ((now_ms - at_ms) as f64 * speed) as i64
}

/// The moment, UTC in ms since 1970, at which so many minutes have gone by on the job clock of what was lit `at_ms`.
#[must_use]
pub fn job_ms_to_clock(at_ms: i64, speed: f64, minutes: f64) -> i64 {
    at_ms + (minutes * 60_000.0 / speed.max(1e-6)) as i64
}

/// An entry of the torch log.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LogEntry {
    pub fact: Uuid,
    /// Minutes on the job clock since it was lit.
    pub minutes: f64,
    /// The same: "1 h 05".
    pub at: String,
    pub entry: TorchEntry,
    /// Of a reading, in degC.
    pub celsius: Option<f64>,
    /// Of a stick, in degC: where it melts.
    pub melts_c: Option<f64>,
    /// It was read at the joint, not at the part.
    #[serde(default)]
    pub at_joint: bool,
    pub who: String,
    pub struck: Option<String>,
    /// A part does not cool so fast: it counts for nothing until it is said again.
    #[serde(default)]
    pub doubted: bool,
}

impl LogEntry {
    #[must_use]
    pub fn stands(&self) -> bool {
        self.struck.is_none()
    }

    /// A bead is laid, a pin set, a seam filled.
    #[must_use]
    pub fn is_piece(&self) -> bool {
        matches!(self.entry, TorchEntry::Bead { .. } | TorchEntry::Pin { .. })
    }

    /// A seam is begun that is filled in one flow.
    #[must_use]
    pub fn begins_flow(&self) -> bool {
        self.entry == TorchEntry::Did { what: Deed::FlowBegun }
    }

    /// Of the part, read by hand; nothing for anything else.
    pub(super) fn of_part(&self) -> Option<Reading> {
        let celsius = self.celsius.filter(|_| !self.at_joint && !self.doubted)?;
        Some(Reading { minutes: self.minutes, celsius })
    }

    /// Where a stick melts, and whether it did; nothing for anything else.
    fn stick(&self) -> Option<(f64, bool)> {
        match self.entry {
            TorchEntry::Stick { melted, .. } if !self.doubted => Some((self.melts_c?, melted)),
            _ => None,
        }
    }
}

/// Ours: what a stick that melts no more is over the part at least, in K.
const UNDER_A_STICK_K: f64 = 1.0;

/// What sticks say of the part while it burns, beside what was read of it. One that melts is a reading of its own
/// figure: the part is that hot at least. One that does not says nothing by itself, but where the part was hotter
/// before, it has fallen.
fn by_stick(log: &[LogEntry], recorded: &[Reading]) -> Vec<Reading> {
    let standing = || log.iter().filter(|entry| entry.stands());
    if !standing().any(|entry| entry.stick().is_some()) {
        return Vec::new();
    }
    let covered = |entry: &&LogEntry| matches!(entry.entry, TorchEntry::Covered { .. });
    let covered_min = standing().find(covered).map_or(f64::INFINITY, |entry| entry.minutes);
    let mut said: Vec<Reading> = Vec::new();
    for entry in standing().take_while(|entry| entry.minutes <= covered_min) {
        let Some((melts_c, melted)) = entry.stick() else { continue };
        let minutes = entry.minutes;
        if melted {
            said.push(Reading { minutes, celsius: melts_c });
            continue;
        }
        let by_hand = standing().filter_map(LogEntry::of_part);
        let before = by_hand
            .chain(recorded.iter().copied())
            .chain(said.iter().copied())
            .filter(|read| read.minutes <= minutes)
            .max_by(|a, b| a.minutes.total_cmp(&b.minutes));
        if before.is_some_and(|before| before.celsius >= melts_c) {
            said.push(Reading { minutes, celsius: melts_c - UNDER_A_STICK_K });
        }
    }
    said
}

/// One reading of the thermocouple.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Reading {
    /// Minutes on the job clock since it was lit.
    pub minutes: f64,
    pub celsius: f64,
}

/// What sticks that melted say the part was at least.
pub(super) fn melted(log: &[LogEntry]) -> impl Iterator<Item = Reading> + '_ {
    log.iter().filter(|entry| entry.stands()).filter_map(|entry| {
        let (melts_c, _) = entry.stick().filter(|(_, melted)| *melted)?;
        Some(Reading { minutes: entry.minutes, celsius: melts_c })
    })
}

/// Every temperature of the part that is known of a lighting, in no order: by hand, by pad, by stick.
pub(super) fn known<'a>(
    log: &'a [LogEntry],
    recorded: Cow<'a, [Reading]>,
) -> impl Iterator<Item = Reading> + 'a {
    let by_hand = log.iter().filter(|entry| entry.stands()).filter_map(LogEntry::of_part);
    let sticks = by_stick(log, &recorded);
    by_hand.chain((0..recorded.len()).map(move |at| recorded[at])).chain(sticks)
}

/// The last temperature that was measured up to a time; nothing where a stick has said since that it is hotter.
pub(super) fn measured_at(log: &[LogEntry], recorded: &[Reading], minutes: f64) -> Option<Reading> {
    let standing = || log.iter().filter(|entry| entry.stands());
    let by_hand = standing().filter_map(LogEntry::of_part);
    let last = by_hand
        .chain(recorded.iter().copied())
        .filter(|reading| reading.minutes <= minutes)
        .max_by(|a, b| a.minutes.total_cmp(&b.minutes))?;
    let hotter = |entry: &LogEntry| {
        let since = entry.minutes > last.minutes && entry.minutes <= minutes;
        since && entry.stick().is_some_and(|(melts_c, melted)| melted && melts_c > last.celsius)
    };
    (!standing().any(hotter)).then_some(last)
}

/// The last of all that is [`known`], of what the pads recorded in the order of time and of when one of them had slipped.
pub(super) fn latest(log: &[LogEntry], recorded: Cow<'_, [Reading]>, slipped: &[f64]) -> Option<Reading> {
    let standing = || log.iter().filter(|entry| entry.stands());
    // A part is read for hours, and asked for what was read last again and again.
    let last = recorded.iter().rev().find(|read| is_the_part(read, slipped)).copied();
    let sticks = if standing().any(|entry| entry.stick().is_some()) {
        by_stick(log, &without(recorded, slipped))
    } else {
        Vec::new()
    };
    let by_hand = standing().filter_map(LogEntry::of_part);
    by_hand.chain(last).chain(sticks).max_by(|a, b| a.minutes.total_cmp(&b.minutes))
}

/// Readings without those of some moments, which are in the order of time.
pub(super) fn without<'a>(recorded: Cow<'a, [Reading]>, slipped: &[f64]) -> Cow<'a, [Reading]> {
    if slipped.is_empty() {
        return recorded;
    }
    Cow::Owned(recorded.iter().filter(|read| is_the_part(read, slipped)).copied().collect())
}

fn is_the_part(read: &Reading, slipped: &[f64]) -> bool {
    let (Some(first), Some(last)) = (slipped.first(), slipped.last()) else { return true };
    // Nearly all lie outside: a part is read for hours, and a pad slips for minutes.
    read.minutes < *first
        || read.minutes > *last
        || slipped.binary_search_by(|at| at.total_cmp(&read.minutes)).is_err()
}

/// One lighting, with what was said and read of it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Heat {
    pub lit: Lit,
    pub log: Vec<LogEntry>,
    /// What the thermocouple recorded, in the order of time.
    pub readings: Vec<Reading>,
    /// What the other channels of a logger recorded.
    pub others: Vec<Recorded>,
    /// When the pads read what no part can have come to by then, in minutes: such readings are not the part's.
    #[serde(skip)]
    pub slipped: Vec<f64>,
    /// Minutes on the job clock at which it was cancelled, or a bake or a tacking was over; nothing for one that was
    /// covered and gone on with later.
    pub cancelled_min: Option<f64>,
}

/// A lighting of the job, wherever it is kept.
#[derive(Debug, Clone, Copy)]
pub struct HeatRef<'a> {
    pub lit: &'a Lit,
    pub log: &'a [LogEntry],
    pub readings: &'a [Reading],
    pub others: &'a [Recorded],
    pub(super) slipped: &'a [f64],
    pub(super) pads: PadsOn,
    pub cancelled_min: Option<f64>,
    /// The round it belongs to, from 0.
    pub round: usize,
}

impl HeatRef<'_> {
    fn standing_log(&self) -> impl DoubleEndedIterator<Item = &LogEntry> {
        self.log.iter().filter(|entry| entry.stands())
    }

    /// Minutes on the job clock at which the flame was off for good: covered, unwrapped or cancelled.
    #[must_use]
    pub fn out_of_heat_min(&self) -> Option<f64> {
        let off =
            |entry: &&LogEntry| matches!(entry.entry, TorchEntry::Covered { .. } | TorchEntry::Unwrapped);
        self.cancelled_min.or_else(|| self.standing_log().find(off).map(|entry| entry.minutes))
    }

    #[must_use]
    pub fn covered(&self) -> bool {
        self.standing_log().any(|entry| matches!(entry.entry, TorchEntry::Covered { .. }))
    }

    /// Minutes on the job clock at which it was covered last: what was unwrapped too early is covered again.
    #[must_use]
    pub fn covered_last_min(&self) -> Option<f64> {
        let mut covered = self.standing_log().rev();
        covered.find(|it| matches!(it.entry, TorchEntry::Covered { .. })).map(|it| it.minutes)
    }

    /// The packing is off, and was not laid on again.
    #[must_use]
    pub fn unwrapped(&self) -> bool {
        self.unwrapped_min().is_some()
    }

    /// Since when it is, in minutes on the job clock.
    #[must_use]
    pub fn unwrapped_min(&self) -> Option<f64> {
        let off =
            |entry: &&LogEntry| matches!(entry.entry, TorchEntry::Unwrapped | TorchEntry::Covered { .. });
        let last = self.standing_log().rev().find(off)?;
        (last.entry == TorchEntry::Unwrapped).then_some(last.minutes)
    }

    /// The last temperature known of the part, from the thermocouple or by hand.
    #[must_use]
    pub fn latest_reading(&self) -> Option<Reading> {
        latest(self.log, self.as_recorded(), self.slipped)
    }

    /// What the pads on the part recorded of it: without what they read after one slipped off.
    #[must_use]
    pub fn recorded(&self) -> Cow<'_, [Reading]> {
        without(self.as_recorded(), self.slipped)
    }

    /// The same with all that they read.
    pub(super) fn as_recorded(&self) -> Cow<'_, [Reading]> {
        of_the_part(self.readings, self.others, self.pads, self.out_of_heat_min())
    }

    /// What the pads read last, where that is not the part's.
    #[must_use]
    pub fn slipped(&self) -> Option<Reading> {
        let last = *self.as_recorded().last()?;
        self.slipped.contains(&last.minutes).then_some(last)
    }

    /// What sticks that melted say it was at least.
    pub(crate) fn melted(&self) -> impl Iterator<Item = Reading> + '_ {
        melted(self.log)
    }

    /// Every temperature of the part that is known, in no order.
    fn known(&self) -> impl Iterator<Item = Reading> + '_ {
        known(self.log, self.recorded())
    }

    /// The last temperature known of the part up to a time on the job clock.
    #[must_use]
    pub fn reading_at(&self, minutes: f64) -> Option<Reading> {
        self.known()
            .filter(|reading| reading.minutes <= minutes)
            .max_by(|a, b| a.minutes.total_cmp(&b.minutes))
    }

    /// The last temperature measured of the part up to a time on the job clock; nothing where a stick has said since
    /// that it is hotter, and nobody knows by how much.
    #[must_use]
    pub fn measured_at(&self, minutes: f64) -> Option<Reading> {
        measured_at(self.log, &self.recorded(), minutes)
    }

    /// Readings of the part between two times of the job clock, on a clock that begins with the first.
    #[must_use]
    pub fn read_between(&self, from_min: f64, to_min: f64) -> Vec<ReadAt> {
        // A stick bounds it from one side: nothing is fitted to it.
        let by_hand = self.standing_log().filter_map(LogEntry::of_part);
        let mut read: Vec<ReadAt> = by_hand
            .chain(self.recorded().iter().copied())
            .filter(|reading| reading.minutes > from_min && reading.minutes <= to_min)
            .map(|reading| ReadAt { minutes: reading.minutes - from_min, celsius: reading.celsius })
            .collect();
        read.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
        read
    }

    /// A reading taken out of the heat says that a hand may touch it.
    #[must_use]
    pub fn read_cold(&self, over: bool) -> bool {
        let off = match self.out_of_heat_min() {
            Some(off) => off,
            // Work goes on in another round: the flame is off, nobody said when.
            None if over => 0.0,
            None => return false,
        };
        let by_stick =
            |entry: &LogEntry| entry.stick().is_some_and(|(melts_c, melted)| !melted && melts_c <= TOUCH_C);
        let stick = self.standing_log().rev().find(|entry| by_stick(entry)).map(|entry| entry.minutes);
        let last = self.latest_reading().filter(|last| last.minutes >= off);
        // A pad that may lie on it and was hot when it was heard of last: it is until somebody reads or rubs it since.
        let by_hand = self.standing_log().filter(|entry| entry.of_part().is_some() || by_stick(entry));
        let by_hand_min = by_hand.map(|entry| entry.minutes).fold(f64::NEG_INFINITY, f64::max);
        let hot_pad = last_of_each(self.others, self.pads)
            .any(|pad| pad.minutes >= off && pad.minutes > by_hand_min && pad.celsius > TOUCH_C);
        if hot_pad {
            return false;
        }
        // What was said last counts.
        let stick = stick.filter(|at| *at >= off && last.is_none_or(|last| last.minutes <= *at));
        stick.is_some() || last.is_some_and(|last| last.celsius <= TOUCH_C)
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;
    use crate::quantity::UnitSystem;

    /// What was said of the part: read by hand, or by a stick that melted or did not.
    fn said() -> impl Strategy<Value = LogEntry> {
        (0..40u32, 0..4u32, 0..3u32, any::<bool>()).prop_map(|(at, celsius, how, struck)| {
            let celsius = f64::from(celsius) * 100.0;
            let entry = match how {
                0 => TorchEntry::Reading {
                    typed: celsius.to_string(),
                    shown_in: UnitSystem::Metric,
                    joint: false,
                    gun: None,
                },
                melted => TorchEntry::Stick {
                    typed: celsius.to_string(),
                    shown_in: UnitSystem::Metric,
                    melted: melted == 1,
                },
            };
            LogEntry {
                fact: Uuid::nil(),
                minutes: f64::from(at) / 2.0,
                at: String::new(),
                celsius: (how == 0).then_some(celsius),
                melts_c: (how > 0).then_some(celsius),
                at_joint: false,
                entry,
                who: String::new(),
                struck: struck.then(String::new),
                doubted: false,
            }
        })
    }

    proptest! {
        #[test]
        fn the_last_that_is_known_is_the_latest_of_all_that_is_known(
            mut log in prop::collection::vec(said(), 0..5),
            pads in prop::collection::vec((0..40u32, 0..8u32, any::<bool>()), 0..12),
        ) {
            log.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
            let minutes = |at: &u32| f64::from(*at) / 2.0;
            let mut recorded: Vec<Reading> =
                pads.iter().map(|(at, c, _)| Reading { minutes: minutes(at), celsius: f64::from(*c) * 50.0 }).collect();
            recorded.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
            let mut slipped: Vec<f64> = pads.iter().filter(|(.., off)| *off).map(|(at, ..)| minutes(at)).collect();
            slipped.sort_by(f64::total_cmp);
            let of_all = known(&log, without(Cow::Borrowed(&recorded), &slipped))
                .max_by(|a, b| a.minutes.total_cmp(&b.minutes));
            prop_assert_eq!(latest(&log, Cow::Borrowed(&recorded), &slipped), of_all);
        }
    }
}
