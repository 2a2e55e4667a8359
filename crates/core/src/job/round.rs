//! A round: the facts as they stand in it, its map, its heat.

use std::borrow::Cow;
use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;
use uuid::Uuid;

use super::heat::{known, latest, measured_at, melted, without};
use super::pads::of_the_part;
use super::{
    Became, CHANNELS, Crack, Deed, Followed, HardSpot, Heat, Lighting, Lit, LogEntry, Looked, Mark,
    Neighbour, PadsOn, Reading, Recorded, SeamReading, Timed, TorchEntry, Work, WorkStep, pad_on,
};
use crate::casting::old_filler::OldFiller;
use crate::crack::said::CrackFate;
use crate::field::{self, Field, FieldKind, FieldState, Holds, Keyed, get};
use crate::heat::PadOn;
use crate::heat::ReadAt;
use crate::map::{Drawn, FlamePlace, Placed, Shape};
use crate::stores::UsedUpHere;

/// The letters that are named in what was typed: "B, A".
pub(super) fn letters(typed: &str) -> impl Iterator<Item = &str> {
    typed.split(|sign: char| !sign.is_alphanumeric()).filter(|letter| !letter.is_empty())
}

/// What a round before laid.
#[derive(Debug, Clone, PartialEq)]
pub struct LeftIn {
    pub filler: OldFiller,
    /// At these cracks.
    pub cracks: Vec<Uuid>,
}

/// One round: the facts as they stand in it, its map, its heat.
#[derive(Debug, Clone, PartialEq, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Round {
    pub values: BTreeMap<String, FieldState>,
    pub cracks: Vec<Crack>,
    pub hard_spots: Vec<HardSpot>,
    pub neighbours: Vec<Neighbour>,
    pub marks: Vec<Mark>,
    /// What lies where on which face, as it was last drawn.
    pub drawn: Vec<Placed>,
    /// Where the flame begins, as it was last said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub flame: Option<FlamePlace>,
    /// Each time that was said, UTC in ms since 1970; nothing where it was left open.
    #[serde(skip)]
    pub flames: Vec<(i64, Option<FlamePlace>)>,
    /// What was measured at the seams, in the order said.
    pub at_seams: Vec<SeamReading>,
    /// Lines of the work list that are done.
    pub ticked: BTreeSet<WorkStep>,
    /// When, UTC in ms since 1970: what was laid over it dries from then on.
    #[serde(skip)]
    pub ticked_ms: BTreeMap<WorkStep, i64>,
    /// By which revision: what was found later was not known yet.
    #[serde(skip)]
    pub ticked_at: BTreeMap<WorkStep, u64>,
    /// Steps of the finish that were put in, or taken out.
    #[serde(skip)]
    pub finish_steps: BTreeMap<WorkStep, bool>,
    /// Steps that were timed on the bench, the first first; at most one of them is running.
    #[serde(default)]
    pub timed: Vec<Timed>,
    /// What was looked at after the repair, in the order said.
    pub looked: Vec<Looked>,
    /// What was really used, as it was last said of each thing.
    #[serde(default)]
    pub used: Vec<UsedUpHere>,
    /// When it was handed over, UTC, ms since 1970; nothing while it was not.
    pub handed_over_ms: Option<i64>,
    /// How it held, each time it was asked, in the order said.
    pub followed: Vec<Followed>,
    /// When cracks were first looked for after the repair, UTC, ms since 1970.
    pub cracks_looked_for_ms: Option<i64>,
    pub lit: Option<Lit>,
    pub log: Vec<LogEntry>,
    /// What the thermocouple recorded, in the order of time; not part of the log of facts.
    pub readings: Vec<Reading>,
    /// What the other channels of a logger recorded, in the order of time.
    pub others: Vec<Recorded>,
    /// When the pads read what no part can have come to by then: such readings are not the part's.
    #[serde(skip)]
    pub slipped: Vec<f64>,
    /// Lightings that were cancelled, bakes and tackings that are over, heats that were stopped and gone on with
    /// later, the first first: the part became hot all the same.
    pub cancelled: Vec<Heat>,
    /// What the rounds before laid, and where.
    #[serde(skip)]
    pub left_in: Option<LeftIn>,
    /// Why this round was opened; empty for the first.
    pub reason: String,
}

impl Round {
    /// What became of its repair, as it was said last; nothing while nobody was asked.
    #[must_use]
    pub fn became(&self) -> Option<Became> {
        self.followed.last().map(|it| it.became)
    }

    /// What was really used of a thing; nothing while nobody has said.
    #[must_use]
    pub fn used_of(&self, what: &str, size_mm: Option<f64>) -> Option<&UsedUpHere> {
        self.used.iter().find(|used| used.is_of(what, size_mm))
    }

    /// What a field holds; nothing while nothing is known.
    #[must_use]
    pub fn get<T: Holds>(&self, field: impl Keyed<T>) -> Option<T::Got<'_>> {
        get(&self.values, field)
    }

    /// The label of what is chosen in a field; nothing while nothing is.
    #[must_use]
    pub fn label<T>(&self, field: &Field<T>) -> Option<&'static str> {
        let FieldKind::One(choices) = field.spec.kind else { return None };
        let id = self.typed(field.key())?;
        choices.iter().find(|(known, _)| *known == id).map(|(_, label)| *label)
    }

    /// Where something lies on a face; nothing while nobody has said.
    #[must_use]
    pub fn placed(&self, mark: Uuid, face: Uuid) -> Option<&Placed> {
        self.drawn.iter().find(|placed| placed.mark == mark && placed.face == face)
    }

    /// Lays something where it was drawn; takes it off where it was drawn off.
    pub(super) fn draw(&mut self, drawn: &Drawn, in_round: usize, revision: u64) {
        let Drawn { mark, face, shape } = drawn;
        let at = self.drawn.iter().position(|placed| placed.mark == *mark && placed.face == *face);
        let placed =
            |shape: &Shape| Placed { mark: *mark, face: *face, shape: shape.clone(), in_round, revision };
        match (at, shape) {
            (Some(at), Some(shape)) => self.drawn[at] = placed(shape),
            (Some(at), None) => {
                self.drawn.remove(at);
            }
            (None, Some(shape)) => self.drawn.push(placed(shape)),
            (None, None) => {}
        }
    }

    /// What it was repaired with before: of what is on the map the worst for a new repair, else what was said of
    /// the part; what a round before laid where it is repaired again counts with it. Nothing while nobody has looked.
    #[must_use]
    pub fn old_filler(&self) -> Option<OldFiller> {
        const WORST_FIRST: [OldFiller; 4] =
            [OldFiller::Other, OldFiller::Bronze, OldFiller::Steel, OldFiller::Nickel];
        let on_the_map: Vec<OldFiller> =
            self.marks.iter().filter_map(|mark| self.get(field::mark::FILLER.of(mark.id))).collect();
        let worst = WORST_FIRST.into_iter().find(|worst| on_the_map.contains(worst));
        let said = worst.or_else(|| self.get(field::part::OLD_FILLER));
        let known: Vec<OldFiller> = said.into_iter().chain(self.laid_before()).collect();
        WORST_FIRST.into_iter().find(|worst| known.contains(worst)).or(said)
    }

    /// What a round before laid at a crack that is repaired again.
    #[must_use]
    pub fn laid_before(&self) -> Option<OldFiller> {
        let left = self.left_in.as_ref()?;
        let fate = |crack: &Uuid| self.get(field::crack::BECOMES.of(*crack)).unwrap_or(CrackFate::Repair);
        let again = |crack: &Crack| left.cracks.contains(&crack.id) && fate(&crack.id) == CrackFate::Repair;
        self.cracks.iter().any(again).then_some(left.filler)
    }

    /// Places of the flame in minutes on the job clock, the first first; one that was said before it was lit stands at or
    /// before 0. None while it is not lit.
    #[must_use]
    pub fn flames_since_lit(&self) -> Vec<(f64, Option<FlamePlace>)> {
        let Some(lit) = &self.lit else { return Vec::new() };
        let mut placed: Vec<(f64, Option<FlamePlace>)> =
            self.flames.iter().map(|(at_ms, place)| (lit.minutes(*at_ms), *place)).collect();
        placed.sort_by(|a, b| a.0.total_cmp(&b.0));
        placed
    }

    #[must_use]
    pub fn typed(&self, key: &str) -> Option<&str> {
        self.values.get(key).map(|held| held.typed.as_str())
    }

    /// Entries of the torch log that stand.
    pub fn standing_log(&self) -> impl DoubleEndedIterator<Item = &LogEntry> {
        self.log.iter().filter(|entry| entry.stands())
    }

    /// Minutes on the job clock at which the part was covered to cool; covered again, from then.
    #[must_use]
    pub fn covered_minutes(&self) -> Option<f64> {
        self.standing_log()
            .rev()
            .find(|entry| matches!(entry.entry, TorchEntry::Covered { .. }))
            .map(|entry| entry.minutes)
    }

    /// Why it was covered, where that was said; nothing while it is not covered.
    #[must_use]
    pub fn covered_because(&self) -> Option<&str> {
        self.standing_log().find_map(|entry| match &entry.entry {
            TorchEntry::Covered { why } => Some(why.as_str()),
            _ => None,
        })
    }

    /// The last temperature known of the part, from the thermocouple or by hand.
    #[must_use]
    pub fn latest_reading(&self) -> Option<Reading> {
        latest(&self.log, self.as_recorded(), &self.slipped)
    }

    /// The last temperature measured of the part up to a time on the job clock, as
    /// [`HeatRef::measured_at`](super::HeatRef::measured_at).
    #[must_use]
    pub fn measured_at(&self, minutes: f64) -> Option<Reading> {
        measured_at(&self.log, &self.recorded(), minutes)
    }

    /// What sticks that melted say it was at least.
    pub(crate) fn melted(&self) -> impl Iterator<Item = Reading> + '_ {
        melted(&self.log)
    }

    /// It was unwrapped after it was covered last: since when, in minutes on the job clock.
    #[must_use]
    pub fn unwrapped_minutes(&self) -> Option<f64> {
        let mut last = self.standing_log().rev();
        let last = last.find(|it| matches!(it.entry, TorchEntry::Unwrapped | TorchEntry::Covered { .. }))?;
        (last.entry == TorchEntry::Unwrapped).then_some(last.minutes)
    }

    /// Readings of the part since it was covered last, and while it was, on a clock that begins then.
    #[must_use]
    pub fn read_in_the_packing(&self) -> Vec<ReadAt> {
        let Some(from) = self.covered_minutes() else { return Vec::new() };
        let to = self.unwrapped_minutes().unwrap_or(f64::INFINITY);
        let inside = |reading: &Reading| reading.minutes > from && reading.minutes <= to;
        let mut read: Vec<ReadAt> = (self.part_readings().filter(inside))
            .map(|reading| ReadAt { minutes: reading.minutes - from, celsius: reading.celsius })
            .collect();
        read.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
        read
    }

    /// Every temperature of the part that is known, in no order.
    pub fn part_readings(&self) -> impl Iterator<Item = Reading> + '_ {
        known(&self.log, self.recorded())
    }

    /// What the pads on the part recorded of it.
    #[must_use]
    pub fn recorded(&self) -> Cow<'_, [Reading]> {
        without(self.as_recorded(), &self.slipped)
    }

    fn as_recorded(&self) -> Cow<'_, [Reading]> {
        of_the_part(&self.readings, &self.others, self.pads(), self.covered_minutes())
    }

    /// What the channels 2 to 4 of a logger lie on.
    #[must_use]
    pub fn pads(&self) -> PadsOn {
        [field::heat::PAD_2, field::heat::PAD_3, field::heat::PAD_4].map(|pad| self.get(pad))
    }

    /// The last that a channel read; nothing while it read nothing.
    #[must_use]
    pub fn last_of(&self, channel: u8) -> Option<Recorded> {
        self.others.iter().rev().find(|read| read.channel == channel).copied()
    }

    /// Since when the oven runs, in minutes on the job clock; nothing while it does not.
    #[must_use]
    pub fn oven_runs(&self) -> Option<f64> {
        let last = self.standing_log().rev().find_map(|entry| match entry.entry {
            TorchEntry::Oven { runs } => Some((runs, entry.minutes)),
            _ => None,
        });
        last.filter(|(runs, _)| *runs).map(|(_, since)| since)
    }

    /// The last temperature read at the joint.
    #[must_use]
    pub fn latest_joint(&self) -> Option<Reading> {
        let joint = |entry: &LogEntry| {
            entry
                .celsius
                .filter(|_| entry.at_joint)
                .map(|celsius| Reading { minutes: entry.minutes, celsius })
        };
        let by_hand = self.standing_log().filter_map(joint).next_back();
        let pads = self.pads();
        let by_pad = CHANNELS.filter(|channel| pad_on(pads, *channel) == Some(PadOn::Joint));
        let by_pad = by_pad.filter_map(|channel| self.last_of(channel)).map(Recorded::reading);
        by_hand.into_iter().chain(by_pad).max_by(|a, b| a.minutes.total_cmp(&b.minutes))
    }

    /// The cracks in the order in which it was said that their seams are filled, one after the other; empty where they
    /// are filled side by side.
    pub fn seams_in_order(&self) -> Vec<Uuid> {
        let said = self.get(field::prep::ORDER).unwrap_or_default();
        letters(said).filter_map(|letter| self.crack_called(letter)).collect()
    }

    /// The crack of this letter, however it is written.
    pub(super) fn crack_called(&self, letter: &str) -> Option<Uuid> {
        self.cracks.iter().find(|crack| crack.letter.eq_ignore_ascii_case(letter)).map(|crack| crack.id)
    }

    /// Everything said at the torch in this round that stands, whichever lighting it was: minutes on the clock of the
    /// last one, under 0 for what was said before.
    pub fn said_at_torch(&self) -> impl Iterator<Item = (f64, &LogEntry)> {
        let before = self.cancelled.iter().flat_map(move |heat| {
            let on_this_clock = move |minutes: f64| {
                self.lit.as_ref().map_or(minutes, |lit| lit.minutes_of(&heat.lit, minutes))
            };
            let stands = heat.log.iter().filter(|entry| entry.stands());
            stands.map(move |entry| (on_this_clock(entry.minutes), entry))
        });
        before.chain(self.standing_log().map(|entry| (entry.minutes, entry)))
    }

    /// Every temperature of the part that is known of this round, whichever lighting it was, on the same clock.
    pub fn read_in_round(&self) -> Vec<Reading> {
        let mut read: Vec<Reading> = self.part_readings().collect();
        for heat in &self.cancelled {
            let here =
                |minutes: f64| self.lit.as_ref().map_or(minutes, |lit| lit.minutes_of(&heat.lit, minutes));
            let recorded = of_the_part(&heat.readings, &heat.others, self.pads(), None);
            let all = known(&heat.log, without(recorded, &heat.slipped));
            read.extend(all.map(|it| Reading { minutes: here(it.minutes), ..it }));
        }
        read.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
        read
    }

    #[must_use]
    pub fn beads(&self) -> usize {
        self.said_at_torch().filter(|(_, it)| it.is_piece()).count()
    }

    /// How many tacks are in.
    #[must_use]
    pub fn tacks(&self) -> usize {
        let tacked = |it: &LogEntry| it.entry == TorchEntry::Did { what: Deed::Tacked };
        self.said_at_torch().filter(|(_, it)| tacked(it)).count()
    }

    /// What it is lit for; nothing while it is not.
    #[must_use]
    pub fn lit_for(&self) -> Option<Lighting> {
        self.lit.as_ref().map(|lit| lit.what)
    }

    /// Every lighting for the repair itself that was not cancelled, with what was said of it, the first first.
    pub fn repairs_lit(&self) -> impl Iterator<Item = (&Lit, &[LogEntry])> {
        let gone_on = self.cancelled.iter().filter(|heat| heat.cancelled_min.is_none());
        let before = gone_on.map(|heat| (&heat.lit, heat.log.as_slice()));
        before
            .chain(self.lit.iter().map(|lit| (lit, self.log.as_slice())))
            .filter(|(lit, _)| lit.what.is_main())
    }

    /// The repair itself is lit, or was.
    #[must_use]
    pub fn repaired(&self) -> bool {
        self.lit_for() == Some(Lighting::Main)
    }

    /// It was covered before all was done, and why.
    #[must_use]
    pub fn stopped(&self) -> Option<&str> {
        self.covered_because().filter(|why| self.repaired() && !why.is_empty())
    }

    /// The lighting in hand is over, or goes on as another: at `over_ms` it was out of the heat for good.
    pub(super) fn put_aside(&mut self, over_ms: Option<i64>) {
        let Some(lit) = self.lit.take() else { return };
        let (log, readings) = (std::mem::take(&mut self.log), std::mem::take(&mut self.readings));
        let (others, slipped) = (std::mem::take(&mut self.others), std::mem::take(&mut self.slipped));
        let cancelled_min = over_ms.map(|at_ms| lit.minutes(at_ms).max(0.0));
        self.cancelled.push(Heat { lit, log, readings, others, slipped, cancelled_min });
        // What lay ready lies ready no longer.
        self.ticked.retain(|step| step.what != Work::LayOut);
    }
}
