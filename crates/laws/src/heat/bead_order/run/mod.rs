//! One run through the beads, a choice at a time.

mod candidates;
mod reheat;

use super::rise::RiseTable;
use super::{
    BeadCourse, BeadPlace, BeadSchedule, BeadSeam, BeadWork, LeftOut, MayBegin, PastBead, PlannedBead,
};
use crate::heat::bead_rise::SOONEST_S;
use crate::heat::{Burning, Burnt, Running};

/// House: nothing is waited for longer, in s.
const MOST_WAIT_S: f64 = 72.0 * 3600.0;
/// House: the step in which a wait is looked for, in s.
const STEP_S: f64 = 1.0;
/// Ours: where the torch is fetched more often before one bead, the window is too narrow to lay it in: the part falls
/// out of it sooner than what the beads left.
const REHEATS_MOST: u32 = 12;
/// So many unfilled beads are allowed at each front.
const AT_A_FRONT: usize = 3;
/// Of the window, over the least: a reheat goes so far.
const REHEAT_SHARE: f64 = 0.25;
/// House: where the source does not hold that, so far under what it holds, in K.
const UNDER_WHAT_IT_HOLDS_K: f64 = 5.0;

#[derive(Debug, Clone)]
pub(super) struct Run<'a> {
    work: &'a BeadWork,
    tables: &'a [RiseTable],
    laid: Vec<PastBead>,
    /// Of these those that are still to be felt.
    felt: Vec<PastBead>,
    /// Of each seam the places still open, by pass.
    open: Vec<Vec<Vec<BeadPlace>>>,
    bulk_c: f64,
    time_s: f64,
}

/// A bead that may come next: which, and to which front it belongs.
#[derive(Debug, Clone, Copy)]
struct Candidate {
    place: BeadPlace,
    front: Front,
}

/// What it took until a bead may begin.
#[derive(Debug, Clone, Copy)]
struct Begins {
    wait_s: f64,
    reheat_s: f64,
    /// The hottest place on its span then.
    before_c: f64,
}

/// How hot the candidates are at a moment.
#[derive(Debug, Clone)]
struct Look {
    time_s: f64,
    bulk_c: f64,
    /// The coolest of them over the most.
    over_k: f64,
    hot_c: Vec<f64>,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Front {
    Left,
    Right,
}

impl<'a> Run<'a> {
    pub fn new(course: &'a BeadCourse, bulk_c: f64, laid: &[PastBead]) -> Self {
        let work = &course.work;
        let is_open = |place: &BeadPlace| {
            let BeadPlace { seam, pass, lane, along } = *place;
            !laid.iter().any(|laid| laid.place == *place)
                && !work.seams[seam].left_out.contains(&LeftOut { pass, lane, along })
        };
        let open = work.seams.iter().enumerate().map(|(at, seam)| {
            let passes = seam.passes.iter().enumerate().map(|(pass, lanes)| {
                let lanes = 0..lanes.offsets_mm.len();
                let places = lanes.flat_map(|lane| {
                    (0..seam.along()).map(move |along| BeadPlace { seam: at, pass, lane, along })
                });
                places.filter(is_open).collect()
            });
            passes.collect()
        });
        Self {
            work,
            tables: &course.tables,
            laid: laid.to_vec(),
            felt: laid.to_vec(),
            open: open.collect(),
            bulk_c,
            time_s: 0.0,
        }
    }

    /// Every bead that is open; nothing where it never comes to its end, or waits as long as so many seconds.
    pub fn all(mut self, end_to_end: bool, under_s: f64) -> Option<BeadSchedule> {
        let mut beads = Vec::new();
        let (mut arc_s, mut waiting_s, mut reheats) = (0.0, 0.0, 0);
        while let Some(bead) = self.next(end_to_end)? {
            arc_s += bead.ends_s - bead.start_s;
            waiting_s += bead.wait_s;
            if waiting_s >= under_s {
                return None;
            }
            reheats += usize::from(bead.reheat_s > 0.0);
            beads.push(bead);
        }
        Some(BeadSchedule {
            beads,
            arc_s,
            waiting_s,
            reheats,
            elapsed_s: self.time_s,
            end_to_end_waiting_s: None,
            end_to_end,
        })
    }

    /// The next bead, laid; nothing left inside, or nothing where it can never begin.
    fn next(&mut self, end_to_end: bool) -> Option<Option<PlannedBead>> {
        let candidates = if end_to_end { self.in_line() } else { self.allowed() };
        if candidates.is_empty() {
            return Some(None);
        }
        let (chosen, Begins { wait_s, reheat_s, before_c }) = self.until_one_may(&candidates)?;
        let seam = &self.work.seams[chosen.place.seam];
        let (start_s, bulk_c) = (self.time_s, self.bulk_c);
        self.lay(seam);
        let ends_s = self.time_s;
        let laid = PastBead { place: chosen.place, ended_s: ends_s };
        self.laid.push(laid);
        self.felt.retain(|it| self.tables[it.place.seam].is_felt(ends_s - it.ended_s));
        self.felt.push(laid);
        self.open[chosen.place.seam][chosen.place.pass].retain(|place| *place != chosen.place);
        let (left_mm, right_mm) =
            (chosen.place.along as f64 * seam.each_mm(), (chosen.place.along + 1) as f64 * seam.each_mm());
        // Back-step: against the progress of its front; end to end with it.
        let (from_mm, to_mm) = match (chosen.front, end_to_end) {
            (Front::Left, false) => (right_mm, left_mm),
            (Front::Right, false) | (_, true) => (left_mm, right_mm),
        };
        Some(Some(PlannedBead {
            place: chosen.place,
            from_mm,
            to_mm,
            start_s,
            ends_s,
            wait_s,
            reheat_s,
            before_c,
            bulk_c,
        }))
    }

    /// Waits, and reheats, until one of these may begin: which, and how hot it is there. Nothing for never.
    fn until_one_may(&mut self, candidates: &[Candidate]) -> Option<(Candidate, Begins)> {
        let (mut wait_s, mut reheat_s, mut reheats) = (0.0, 0.0, 0);
        reheat_s += self.reheat()?;
        let (chosen, before_c) = loop {
            if reheats > REHEATS_MOST || wait_s > MOST_WAIT_S {
                return None;
            }
            let began_s = self.time_s;
            let hot_c = self.wait(candidates, MOST_WAIT_S - wait_s)?;
            wait_s += self.time_s - began_s;
            let warmed_s = self.reheat()?;
            if warmed_s == 0.0 {
                let hot = candidates.iter().copied().zip(hot_c);
                let may: Vec<(Candidate, f64)> = hot.filter(|(_, hot)| *hot <= self.work.most_c).collect();
                break self.farthest(&may);
            }
            (reheat_s, reheats) = (reheat_s + warmed_s, reheats + 1);
        };
        Some((chosen, Begins { wait_s, reheat_s, before_c }))
    }

    /// Waits until the coolest of these is not over the most any more: how hot each is then. Nothing where that takes
    /// longer than so many seconds.
    fn wait(&mut self, candidates: &[Candidate], most_s: f64) -> Option<Vec<f64>> {
        let mut at = self.look(candidates);
        if at.over_k > 0.0
            && self.bulk_c > self.work.most_c
            && self.work.body.ambient.celsius() >= self.work.most_c
        {
            return None;
        }
        let began_s = self.time_s;
        let mut before: Option<Look> = None;
        while at.over_k > 0.0 {
            let ahead_s = self.ahead_s(before.as_ref(), &at);
            let after = self.look_after(&at, ahead_s, candidates);
            if after.over_k > 0.0 {
                if self.time_s - began_s > most_s {
                    return None;
                }
                before = Some(std::mem::replace(&mut at, after));
            } else {
                at = self.first_between(at, after, candidates);
            }
        }
        Some(at.hot_c)
    }

    /// How hot it is there now.
    fn look(&self, candidates: &[Candidate]) -> Look {
        let hot_c = self.hottest(candidates);
        let over_k = hot_c.iter().copied().fold(f64::INFINITY, f64::min) - self.work.most_c;
        Look { time_s: self.time_s, bulk_c: self.bulk_c, over_k, hot_c }
    }

    /// The same so many seconds after a look.
    fn look_after(&mut self, from: &Look, seconds: f64, candidates: &[Candidate]) -> Look {
        (self.time_s, self.bulk_c) = (from.time_s, from.bulk_c);
        self.rest(seconds);
        self.look(candidates)
    }

    /// Of the seconds between one look that was too hot and one that was not: the first that is not, to within what
    /// nobody reads.
    fn first_between(&mut self, mut over: Look, mut under: Look, candidates: &[Candidate]) -> Look {
        /// House: no pad tells less, in K.
        const NOBODY_READS_K: f64 = 0.1;
        while under.over_k < -NOBODY_READS_K {
            let apart_s = under.time_s - over.time_s;
            if apart_s <= STEP_S + 1e-9 {
                break;
            }
            let part = over.over_k / (over.over_k - under.over_k);
            let seconds = (apart_s * part).floor().min(apart_s - STEP_S).max(STEP_S);
            let between = self.look_after(&over, seconds, candidates);
            if between.over_k > 0.0 {
                over = between;
            } else {
                under = between;
            }
        }
        (self.time_s, self.bulk_c) = (under.time_s, under.bulk_c);
        under
    }

    /// A guess, in whole seconds, at how long the coolest still is over the most: what a bead leaves falls by a power
    /// of the time since its end, the part as a whole far more slowly.
    fn ahead_s(&self, before: Option<&Look>, at: &Look) -> f64 {
        /// House: of the power, while nothing was seen of it.
        const USUAL: f64 = 0.8;
        /// House: a guess reaches no further, in s.
        const MOST_S: f64 = 600.0;
        let ended_s = self.laid.iter().map(|laid| laid.ended_s).fold(f64::NEG_INFINITY, f64::max);
        let since_s = |look: &Look| (look.time_s - ended_s).max(SOONEST_S);
        // Over the part as a whole: now, and how much it may be.
        let rise_k = |look: &Look| look.over_k + self.work.most_c - look.bulk_c;
        let may_k = self.work.most_c - at.bulk_c;
        let power = before.map_or(USUAL, |before| {
            (rise_k(before) / rise_k(at)).ln() / (since_s(at) / since_s(before)).ln()
        });
        let seconds = since_s(at) * ((rise_k(at) / may_k).powf(1.0 / power) - 1.0);
        let falls = may_k > 0.0 && power > 0.0 && seconds.is_finite();
        // A guess from so far away is not believed much further.
        let most_s = if since_s(at).is_finite() { (2.0 * since_s(at)).min(MOST_S) } else { MOST_S };
        if falls { seconds.floor().clamp(STEP_S, most_s) } else { most_s.floor() }
    }

    /// When this one may begin.
    pub fn may_begin(mut self, place: BeadPlace) -> Option<MayBegin> {
        let alone = [Candidate { place, front: Front::Left }];
        let now_c = self.hottest(&alone)[0];
        let (_, Begins { wait_s, reheat_s, .. }) = self.until_one_may(&alone)?;
        Some(MayBegin { wait_s, reheat_s, now_c })
    }

    /// The part as a whole after so many seconds in these states of heat, with the beads that ended in them.
    pub fn after(mut self, seconds: f64, laid: &[PastBead], burnt: &Burnt) -> f64 {
        if seconds > MOST_WAIT_S {
            return self.work.body.ambient.celsius();
        }
        let mut ended: Vec<&PastBead> =
            laid.iter().filter(|laid| laid.ended_s > 0.0 && laid.ended_s <= seconds).collect();
        ended.sort_by(|a, b| a.ended_s.total_cmp(&b.ended_s));
        for bead in ended {
            let seam = &self.work.seams[bead.place.seam];
            // Where two were said at once, the second was laid after the first for all that is known.
            self.burn_until(bead.ended_s - seam.each_s(), burnt, 0.0);
            let from_s = self.time_s;
            self.burn_until(from_s + seam.each_s(), burnt, seam.power_w);
        }
        self.burn_until(seconds, burnt, 0.0);
        self.bulk_c
    }

    /// On to a time, in whatever states of heat there were.
    fn burn_until(&mut self, until_s: f64, burnt: &Burnt, arc_w: f64) {
        while until_s - self.time_s > 1e-9 {
            let to_s = until_s.min(burnt.next_after(self.time_s));
            let step_s = (to_s - self.time_s).min(STEP_S);
            self.step_in(step_s, burnt.at(self.time_s), arc_w);
        }
    }

    fn rest(&mut self, seconds: f64) {
        let mut left_s = seconds;
        while left_s > 1e-9 {
            let step_s = left_s.min(STEP_S);
            self.step(step_s, 0.0);
            left_s -= step_s;
        }
    }

    fn lay(&mut self, seam: &BeadSeam) {
        let mut left_s = seam.each_s();
        while left_s > 1e-9 {
            let step_s = left_s.min(STEP_S);
            self.step(step_s, seam.power_w);
            left_s -= step_s;
        }
    }

    /// So long between beads, under the arc or under the flame of a reheat.
    fn step(&mut self, step_s: f64, watts: f64) {
        // Who holds a flame on it takes it back once it is warm enough.
        let burning =
            if self.work.held && self.bulk_c < self.wanted_c() { Burning::Kept } else { Burning::Off };
        self.step_in(step_s, burning, watts);
    }

    fn step_in(&mut self, step_s: f64, burning: Burning, watts: f64) {
        let mut part =
            Running { body: &self.work.body, bare_share: self.work.bare_share, bulk_c: self.bulk_c };
        part.step(step_s, burning, watts);
        self.bulk_c = part.bulk_c;
        self.time_s += step_s;
    }
}
