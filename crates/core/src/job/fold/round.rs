//! What a fact does to the round in hand.

use uuid::Uuid;

use super::super::{Crack, LeftIn, Lit, LogEntry, Round, Timed, WorkStep};
use crate::casting::old_filler::OldFiller;
use crate::crack::said::CrackFate;
use crate::field::{self, Lasts, job_field};

impl Round {
    pub(super) fn tick(&mut self, step: WorkStep, done: bool, (at_ms, revision): (i64, u64)) {
        if done {
            self.ticked.insert(step);
            self.ticked_ms.entry(step).or_insert(at_ms);
            self.ticked_at.entry(step).or_insert(revision);
        } else {
            self.ticked.remove(&step);
            self.ticked_ms.remove(&step);
            self.ticked_at.remove(&step);
        }
    }

    /// Two hands do one thing at a time: what was timed until now is over.
    pub(super) fn time(&mut self, fact: Uuid, step: &str, running: bool, at_ms: i64) {
        for open in self.timed.iter_mut().filter(|open| open.to_ms.is_none()) {
            open.to_ms = Some(at_ms);
        }
        if running {
            self.timed.push(Timed { fact, step: step.to_owned(), from_ms: at_ms, to_ms: None });
        }
    }

    /// What is crossed out goes, and what hangs on it.
    pub(super) fn strike(&mut self, target: Uuid) {
        self.cracks.retain(|crack| crack.id != target);
        self.hard_spots.retain(|spot| spot.id != target);
        self.neighbours.retain(|neighbour| neighbour.id != target);
        self.marks.retain(|mark| mark.id != target);
        self.at_seams.retain(|reading| reading.id != target && reading.crack != target);
        self.looked.retain(|looked| looked.fact != target && looked.place.at != Some(target));
        self.followed.retain(|it| it.fact != target);
        self.drawn.retain(|placed| placed.mark != target && placed.face != target);
    }

    /// What was laid in it, and where; nothing where nothing was that is in the way of whoever repairs it again.
    fn leaves_in(&self) -> Option<LeftIn> {
        let stopped = self.cancelled.iter().map(|heat| (&heat.lit, heat.log.as_slice()));
        let last = self.lit.iter().map(|lit| (lit, self.log.as_slice()));
        let laid = |(lit, log): (&Lit, &[LogEntry])| {
            let way = lit.frozen.as_ref()?.way?;
            log.iter().any(|it| it.stands() && it.is_piece()).then(|| way.method.entry().leaves_in)
        };
        let filler = stopped.chain(last).filter_map(laid).next_back().filter(|it| *it != OldFiller::None)?;
        let repaired = |crack: &&Crack| {
            self.get(field::crack::BECOMES.of(crack.id)).unwrap_or(CrackFate::Repair) == CrackFate::Repair
        };
        Some(LeftIn { filler, cracks: self.cracks.iter().filter(repaired).map(|crack| crack.id).collect() })
    }

    /// The round after this one: its map, and what is true of the part whatever round it is.
    pub(super) fn next(&self, reason: &str) -> Self {
        let values = self
            .values
            .iter()
            .filter(|(key, _)| job_field(key).is_none_or(|spec| spec.lasts != Lasts::Round))
            .map(|(key, held)| (key.clone(), held.clone()))
            .collect();
        Self {
            values,
            cracks: self.cracks.clone(),
            hard_spots: self.hard_spots.clone(),
            neighbours: self.neighbours.clone(),
            marks: self.marks.clone(),
            drawn: self.drawn.clone(),
            left_in: self.leaves_in().or_else(|| self.left_in.clone()),
            reason: reason.to_owned(),
            ..Self::default()
        }
    }
}
