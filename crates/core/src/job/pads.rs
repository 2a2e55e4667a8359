//! The channels of a logger: the first lies at the coldest far corner, where the others lie is said.

use std::borrow::Cow;

use serde::{Deserialize, Serialize};

use super::Reading;
use crate::heat::PadOn;

/// A reading as it is kept, with the channel that read it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Recorded {
    /// Minutes on the job clock since it was lit.
    pub minutes: f64,
    pub celsius: f64,
    /// 1 to 4; 1 where nothing is said: the coldest far corner.
    #[serde(default = "first", skip_serializing_if = "is_first")]
    pub channel: u8,
}

/// Channels of a logger.
pub const CHANNELS: std::ops::RangeInclusive<u8> = FIRST..=4;
const FIRST: u8 = 1;

fn first() -> u8 {
    FIRST
}

fn is_first(channel: &u8) -> bool {
    *channel == FIRST
}

impl From<Reading> for Recorded {
    fn from(Reading { minutes, celsius }: Reading) -> Self {
        Self { minutes, celsius, channel: FIRST }
    }
}

impl Recorded {
    #[must_use]
    pub fn reading(self) -> Reading {
        Reading { minutes: self.minutes, celsius: self.celsius }
    }
}

/// Every channel of a lighting in one list.
#[must_use]
pub fn every_channel(first: &[Reading], others: &[Recorded]) -> Vec<Recorded> {
    first.iter().copied().map(Recorded::from).chain(others.iter().copied()).collect()
}

/// As it is shown beside what a pad reads.
#[must_use]
pub fn pad_words(on: Option<PadOn>) -> &'static str {
    match on {
        Some(PadOn::Corner) => "another corner",
        Some(PadOn::Joint) => "the joint",
        Some(PadOn::Neighbour) => "what must stay cool",
        Some(PadOn::Air) => "not the part",
        None => "nobody said on what",
    }
}

/// It may lie on the part: while it is hot, the part is.
fn may_be_the_part(on: Option<PadOn>) -> bool {
    on != Some(PadOn::Air)
}

/// What the channels 2 to 4 lie on.
pub type PadsOn = [Option<PadOn>; 3];

/// What this channel lies on, nothing while nobody has said; the first is at the coldest far corner.
#[must_use]
pub fn pad_on(pads: PadsOn, channel: u8) -> Option<PadOn> {
    match channel {
        FIRST => Some(PadOn::Corner),
        other => usize::from(other).checked_sub(2).and_then(|at| pads.get(at)).copied().flatten(),
    }
}

/// The last that each other pad read that may lie on the part.
pub(super) fn last_of_each(others: &[Recorded], pads: PadsOn) -> impl Iterator<Item = Recorded> + '_ {
    CHANNELS
        .filter(move |channel| may_be_the_part(pad_on(pads, *channel)))
        .filter_map(|channel| others.iter().rev().find(|read| read.channel == channel).copied())
}

/// House: what a pad read so long ago says nothing of the part beside what another reads now, in min.
const FRESH_MIN: f64 = 2.0;

/// What all pads on the part say of it: the coldest of its corners while it burns, the hottest of all that may lie on
/// it once it is covered.
pub(super) fn of_the_part<'a>(
    first: &'a [Reading],
    others: &[Recorded],
    pads: PadsOn,
    covered_min: Option<f64>,
) -> Cow<'a, [Reading]> {
    let covered_min = covered_min.unwrap_or(f64::INFINITY);
    let counts = |read: &&Recorded| {
        let on = pad_on(pads, read.channel);
        if read.minutes < covered_min { on == Some(PadOn::Corner) } else { may_be_the_part(on) }
    };
    let mut all: Vec<Recorded> = others.iter().filter(counts).copied().collect();
    if all.is_empty() {
        return Cow::Borrowed(first);
    }
    all.extend(first.iter().copied().map(Recorded::from));
    all.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
    let mut last: [Option<Recorded>; 4] = [None; 4];
    let said = all.into_iter().map(|read| {
        last[usize::from(read.channel.clamp(FIRST, 4) - FIRST)] = Some(read);
        let fresh = last.iter().flatten().filter(|it| read.minutes - it.minutes <= FRESH_MIN);
        let (low, high) = fresh.fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), it| {
            (low.min(it.celsius), high.max(it.celsius))
        });
        Reading { minutes: read.minutes, celsius: if read.minutes < covered_min { low } else { high } }
    });
    Cow::Owned(said.collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    const PADS: PadsOn = [Some(PadOn::Corner), Some(PadOn::Joint), Some(PadOn::Air)];

    fn first(of: &[(f64, f64)]) -> Vec<Reading> {
        of.iter().map(|&(minutes, celsius)| Reading { minutes, celsius }).collect()
    }

    fn other(channel: u8, minutes: f64, celsius: f64) -> Recorded {
        Recorded { minutes, celsius, channel }
    }

    fn said(others: &[Recorded], covered_min: Option<f64>) -> Vec<(f64, f64)> {
        let first = first(&[(1.0, 100.0), (10.0, 300.0), (20.0, 310.0)]);
        let said = of_the_part(&first, others, PADS, covered_min);
        said.iter().map(|read| (read.minutes, read.celsius)).collect()
    }

    #[test]
    fn the_coldest_corner_counts_while_it_burns() {
        let others = [other(2, 10.5, 250.0), other(3, 11.0, 700.0), other(4, 11.5, 20.0)];
        // The joint and the oven's air are no corners; what was read 9.5 min before says nothing any more.
        assert_eq!(said(&others, None), [(1.0, 100.0), (10.0, 300.0), (10.5, 250.0), (20.0, 310.0)]);
        let colder = [other(2, 19.0, 250.0)];
        assert_eq!(said(&colder, None)[3], (20.0, 250.0), "a minute ago it was colder there");
        assert_eq!(said(&[other(2, 18.0, 250.0)], None)[3], (20.0, 250.0), "two minutes are fresh");
        assert_eq!(said(&[other(2, 17.9, 250.0)], None)[3], (20.0, 310.0), "more are not");
    }

    #[test]
    fn the_hottest_of_all_counts_once_it_is_covered() {
        let others = [other(2, 19.5, 250.0), other(3, 19.8, 500.0), other(4, 19.9, 900.0)];
        assert_eq!(said(&others, Some(15.0)).last(), Some(&(20.0, 500.0)), "the air is not the part");
        assert_eq!(said(&others, Some(19.85)).last(), Some(&(20.0, 310.0)));
    }

    #[test]
    fn a_pad_of_which_nobody_said_where_it_lies_keeps_a_part_hot_and_no_more() {
        let first = first(&[(20.0, 40.0)]);
        let lies = |covered| {
            of_the_part(&first, &[other(2, 19.9, 90.0)], PadsOn::default(), covered).last().unwrap().celsius
        };
        assert_eq!((lies(None), lies(Some(5.0))), (40.0, 90.0));
    }
}
