//! The lightings of a job, with what was read and said of each.

use std::collections::HashMap;

use uuid::Uuid;

use super::super::{
    CHANNELS, Fact, HeatRef, Lit, LogEntry, Parsed, Reading, Recorded, TorchEntry, every_channel,
    job_ms_to_clock,
};
use super::Job;
use crate::quantity::{Unit, exactly};

impl Job {
    /// Lays what the thermocouple recorded beside each lighting.
    pub fn record(&mut self, mut readings_of: impl FnMut(Uuid) -> Vec<Recorded>) {
        for round in &mut self.rounds {
            for heat in &mut round.cancelled {
                (heat.readings, heat.others) = by_channel(readings_of(heat.lit.fact));
            }
            if let Some(lit) = &round.lit {
                (round.readings, round.others) = by_channel(readings_of(lit.fact));
            }
        }
        self.doubt();
    }

    /// Adds what the thermocouple, or a logger, read of a lighting, however late it comes: by time, and of one moment
    /// what was known first stays. It is then as [`record`](Self::record) lays it from the disk.
    pub fn read(&mut self, of: Uuid, readings: &[impl Copy + Into<Recorded>]) {
        let (first, others) = by_channel(readings.iter().copied().map(Into::into).collect());
        for round in &mut self.rounds {
            let cancelled = round.cancelled.iter_mut();
            let cancelled = cancelled.map(|heat| (heat.lit.fact, (&mut heat.readings, &mut heat.others)));
            let lit = round.lit.as_ref().map(|lit| (lit.fact, (&mut round.readings, &mut round.others)));
            for (_, (known, known_others)) in cancelled.chain(lit).filter(|(lit, _)| *lit == of) {
                merge(known, &first, |read| (read.minutes, *CHANNELS.start()));
                merge(known_others, &others, |read| (read.minutes, read.channel));
            }
        }
        self.doubt();
    }

    /// Takes the readings of an earlier fold of the same job along.
    pub fn record_of(&mut self, before: Self) {
        let mut of: HashMap<Uuid, Vec<Recorded>> = HashMap::new();
        for round in before.rounds {
            let cancelled = round.cancelled.into_iter();
            of.extend(cancelled.map(|heat| (heat.lit.fact, every_channel(&heat.readings, &heat.others))));
            if let Some(lit) = round.lit {
                of.insert(lit.fact, every_channel(&round.readings, &round.others));
            }
        }
        self.record(|lit| of.remove(&lit).unwrap_or_default());
    }

    /// Every lighting, the last first.
    pub fn heats(&self) -> impl Iterator<Item = HeatRef<'_>> {
        self.rounds.iter().enumerate().rev().flat_map(|(round, it)| {
            let lit = it.lit.as_ref().map(|lit| HeatRef {
                lit,
                log: &it.log,
                readings: &it.readings,
                others: &it.others,
                slipped: &it.slipped,
                pads: it.pads(),
                cancelled_min: None,
                round,
            });
            let cancelled = it.cancelled.iter().rev().map(move |heat| HeatRef {
                lit: &heat.lit,
                log: &heat.log,
                readings: &heat.readings,
                others: &heat.others,
                slipped: &heat.slipped,
                pads: it.pads(),
                cancelled_min: heat.cancelled_min,
                round,
            });
            lit.into_iter().chain(cancelled)
        })
    }

    /// The last lighting, whichever round it belongs to; nothing while the job was never lit.
    #[must_use]
    pub fn heat(&self) -> Option<HeatRef<'_>> {
        self.heats().next()
    }

    /// The log and the lighting that something said at the torch belongs to.
    fn log_in_hand(&mut self) -> Option<(&Lit, &mut Vec<LogEntry>)> {
        let round = self.rounds.iter_mut().rev().find(|it| it.lit.is_some() || !it.cancelled.is_empty())?;
        match &round.lit {
            Some(lit) => Some((lit, &mut round.log)),
            None => round.cancelled.last_mut().map(|heat| (&heat.lit, &mut heat.log)),
        }
    }

    /// Something said at the torch goes into the log of the lighting it belongs to.
    pub(super) fn at_torch(&mut self, fact: &Fact, entry: &TorchEntry, understood: Option<&Parsed>) {
        let Some((lit, log)) = self.log_in_hand() else { return };
        let celsius = match understood {
            Some(Parsed::Celsius(celsius)) => Some(*celsius),
            _ => None,
        };
        let stick = matches!(entry, TorchEntry::Stick { .. });
        let (celsius, melts_c) = if stick { (None, celsius) } else { (celsius, None) };
        let minutes = lit.minutes(fact.at_ms()).max(0.0);
        let said = |minutes: f64, entry: TorchEntry| LogEntry {
            fact: fact.id,
            minutes,
            at: exactly(minutes, Unit::Minutes).0.text(),
            at_joint: matches!(entry, TorchEntry::Reading { joint: true, .. }),
            entry,
            celsius,
            melts_c,
            who: fact.who.clone(),
            struck: None,
            doubted: false,
        };
        match entry {
            TorchEntry::Beads { at, peened, over_min } => {
                let ends = spread(log, minutes, (at.len(), *over_min));
                for (at, minutes) in at.iter().zip(ends) {
                    log.push(said(minutes, TorchEntry::Bead { at: Some(*at) }));
                    log.extend(peened.then(|| said(minutes, TorchEntry::Peened)));
                }
            }
            _ => log.push(said(minutes, entry.clone())),
        }
        log.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
    }

    /// The job clock of a practice goes ahead at once: it is as if it had been lit so much earlier.
    pub(super) fn pass(&mut self, minutes: f64) {
        if self.practice.is_none() {
            return;
        }
        let round = self.rounds.iter_mut().rev().find(|it| it.lit.is_some() || !it.cancelled.is_empty());
        let lit = round.and_then(|round| match &mut round.lit {
            Some(lit) => Some(lit),
            None => round.cancelled.last_mut().map(|heat| &mut heat.lit),
        });
        if let Some(lit) = lit {
            lit.at_ms = job_ms_to_clock(lit.at_ms, lit.speed, -minutes);
        }
    }
}

/// When each of several beads that are said at once was done: one after the other, as long as they take, and none
/// before the piece that was said before them.
fn spread(log: &[LogEntry], said_min: f64, (count, over_min): (usize, Option<f64>)) -> Vec<f64> {
    let before = || log.iter().filter(|it| it.stands() && it.minutes <= said_min);
    let piece = before().filter(|it| it.is_piece()).map(|it| it.minutes).reduce(f64::max);
    // Nobody knows how long they took: since the last thing that was said.
    let thing = || before().map(|it| it.minutes).reduce(f64::max).unwrap_or(said_min);
    let from = piece.unwrap_or(0.0).max(over_min.map_or_else(thing, |over| said_min - over));
    let each = (said_min - from) / count.max(1) as f64;
    (1..=count).map(|bead| from + each * bead as f64).collect()
}

/// More of what is in the order of its moments; of one moment the first stays.
fn merge<T: Copy>(known: &mut Vec<T>, more: &[T], moment: impl Fn(&T) -> (f64, u8)) {
    known.extend(more);
    // Stable, and quick where all but the last of it is in order.
    known.sort_by(|a, b| {
        let ((a, on_a), (b, on_b)) = (moment(a), moment(b));
        a.total_cmp(&b).then(on_a.cmp(&on_b))
    });
    known.dedup_by(|later, first| moment(later) == moment(first));
}

/// The first channel apart from the others.
fn by_channel(all: Vec<Recorded>) -> (Vec<Reading>, Vec<Recorded>) {
    let (first, others): (Vec<Recorded>, Vec<Recorded>) =
        all.into_iter().partition(|read| read.channel == *CHANNELS.start());
    (first.into_iter().map(Recorded::reading).collect(), others)
}
