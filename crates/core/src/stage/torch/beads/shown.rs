//! What is said of the beads to come.

use super::{AtOnce, BeadsInputs, BeadsPlan, NextBead, ToFill, WORTH_SAYING_S};
use crate::heat::{BeadPlace, BeadSchedule, PastBead, PlannedBead};
use crate::job::{Deed, TorchEntry};
use crate::quantity::Unit;

impl BeadsInputs<'_> {
    /// Where a bead begins and ends along its seam: of a stop-hole, at the end it lies at.
    fn span(&self, bead: &PlannedBead) -> (f64, f64) {
        let of = &self.seams()[bead.place.seam].seam;
        match of.hole_of {
            None => (bead.from_mm, bead.to_mm),
            Some(hole) => {
                let seam = &self.seams()[hole.seam].seam;
                let wide = of.length_mm.min(seam.length_mm);
                if hole.last { (seam.length_mm - wide, seam.length_mm) } else { (wide, 0.0) }
            }
        }
    }

    pub(super) fn shown(&self, schedule: Option<&BeadSchedule>, laid: &[PastBead], from_s: f64) -> BeadsPlan {
        let ahead = schedule.map_or(&[][..], |it| it.beads.as_slice());
        let all = self.planned as usize;
        let next = |at: usize, bead: &PlannedBead| {
            let number = laid.len() + at + 1;
            let (from_mm, to_mm) = self.span(bead);
            NextBead {
                at: self.at(bead.place),
                number: number as u32,
                words: self.words(number, all, bead),
                before: self.before(at, ahead, laid),
                from_mm,
                to_mm,
                on_map: Vec::new(),
                start_min: (from_s + bead.start_s) / 60.0,
                ends_min: (from_s + bead.ends_s) / 60.0,
                wait_s: bead.wait_s,
                reheat_s: bead.reheat_s,
                before_c: bead.before_c,
            }
        };
        BeadsPlan {
            seams: (0..self.seams().len())
                .filter(|seam| self.seams()[*seam].hole().is_none())
                .map(|seam| self.strip(seam, ahead, laid))
                .collect(),
            ahead: ahead.iter().enumerate().map(|(at, bead)| next(at, bead)).collect(),
            waits_words: schedule.map_or(String::new(), |schedule| self.waits(schedule)),
            never: match schedule {
                Some(_) => String::new(),
                None if self.heat.cold => format!(
                    "The shop is too warm: it never falls under {}.",
                    self.units.say_most(self.heat.most_c, Unit::Celsius)
                ),
                None if self.to_fill.course.comes_back() => format!(
                    "Between {} and {} no bead has room: the part falls out of it sooner than what the last one left. \
                     Hold it with the flame on, or in an oven.",
                    self.units.say_least(self.heat.least_c, Unit::Celsius),
                    self.units.say_most(self.heat.most_c, Unit::Celsius)
                ),
                None => format!(
                    "{} does not bring it back to {}: a stronger flame, or a cover.",
                    self.heat.source_label,
                    self.units.say_least(self.heat.least_c, Unit::Celsius)
                ),
            },
            arc_min: schedule.map_or(0.0, |it| it.arc_s) / 60.0,
            waiting_min: schedule.map_or(0.0, |it| it.waiting_s) / 60.0,
            elapsed_min: schedule.map_or(0.0, |it| it.elapsed_s) / 60.0,
            reheats: schedule.map_or(0, |it| it.reheats),
            at_once: self.at_once(ahead),
        }
    }

    /// What is left of the layer, of the side, of the seam that the next bead belongs to, and of all of them: each
    /// where it is more than what stands before it.
    fn at_once(&self, ahead: &[PlannedBead]) -> Vec<AtOnce> {
        let Some(next) = ahead.first().map(|it| it.place) else { return Vec::new() };
        let of = &self.seams()[next.seam];
        let side = |it: BeadPlace| self.seams()[it.seam].seam.passes[it.pass].side;
        let letter = if self.several() { format!(" of {}", of.letter) } else { String::new() };
        let pass = &of.seam.passes[next.pass];
        let far = if pass.side == 2 { ", far side" } else { "" };
        let which_side = if pass.side == 2 { "The far side" } else { "This side" };
        let two_sided = of.seam.passes.iter().any(|it| it.side != pass.side);
        let layer = |it: BeadPlace| (it.seam, it.pass) == (next.seam, next.pass);
        let this_side = |it: BeadPlace| it.seam == next.seam && side(it) == pass.side;
        type Those<'a> = (String, &'a dyn Fn(BeadPlace) -> bool);
        let mut those: Vec<Those<'_>> = vec![(format!("Layer {}{letter}{far}", pass.layer), &layer)];
        if two_sided {
            those.push((format!("{which_side}{letter}"), &this_side));
        }
        let seam = |it: BeadPlace| self.seam_of(it) == self.seam_of(next);
        those.push((format!("Seam {}", of.letter), &seam));
        those.push(("All seams".to_owned(), &|_| true));
        let mut groups: Vec<AtOnce> = Vec::new();
        for (words, is_of_it) in those {
            let of_ahead: Vec<usize> = (0..ahead.len()).filter(|at| is_of_it(ahead[*at].place)).collect();
            let many = of_ahead.len();
            if many < 2 || groups.last().is_some_and(|before| before.at.len() == many) {
                continue;
            }
            groups.push(AtOnce {
                words: format!("{words}: the {many} that are left"),
                at: of_ahead.iter().map(|at| self.at(ahead[*at].place)).collect(),
                of_ahead,
            });
        }
        groups
    }

    fn waits(&self, schedule: &BeadSchedule) -> String {
        let say = |seconds: f64| self.units.say(seconds / 60.0, Unit::Minutes);
        if self.one_after_another() {
            return self.in_turn_words(schedule.waiting_s);
        }
        if schedule.waiting_s < WORTH_SAYING_S {
            return String::new();
        }
        let plain = match schedule.end_to_end_waiting_s {
            _ if schedule.end_to_end => {
                return format!("From end to end: {} of waiting.", say(schedule.waiting_s));
            }
            Some(plain) if plain - schedule.waiting_s > WORTH_SAYING_S => {
                format!(", from end to end {}", say(plain))
            }
            Some(_) | None => String::new(),
        };
        format!("In this order {} of waiting{plain}.", say(schedule.waiting_s))
    }

    fn one_after_another(&self) -> bool {
        self.several() && self.to_fill.course.work().one_after_another
    }

    /// "B, then A, as said: 14 min of waiting, side by side 9."
    fn in_turn_words(&self, waiting_s: f64) -> String {
        let say = |seconds: f64| self.units.say(seconds / 60.0, Unit::Minutes);
        let seams = self.seams().iter().filter(|seam| seam.hole().is_none());
        let letters: Vec<&str> = seams.map(|seam| seam.letter.as_str()).collect();
        let in_turn = format!("{}, as said", letters.join(", then "));
        if waiting_s < WORTH_SAYING_S {
            return format!("{in_turn}.");
        }
        let ToFill { course, begins_c, .. } = &self.to_fill;
        // What is laid already is laid.
        let nothing_laid = self.laid().is_empty();
        let side_by_side = nothing_laid
            .then(|| self.sims.bead_order(&course.side_by_side(), *begins_c))
            .and_then(|order| order.as_ref().as_ref().map(|order| order.waiting_s));
        let beside = match side_by_side.filter(|beside_s| waiting_s - beside_s > WORTH_SAYING_S) {
            Some(beside_s) => format!(", side by side {}", say(beside_s)),
            None => String::new(),
        };
        format!("{in_turn}: {} of waiting{beside}.", say(waiting_s))
    }

    fn words(&self, number: usize, all: usize, bead: &PlannedBead) -> String {
        let of = &self.seams()[bead.place.seam];
        let pass = &of.seam.passes[bead.place.pass];
        let seam = if self.several() { format!(", {}", of.letter) } else { String::new() };
        if let Some(hole) = of.seam.hole_of {
            let end = if hole.last { "last" } else { "first" };
            return format!("Bead {number} of {all}{seam}: the stop-hole at its {end} end, from the rim.");
        }
        let layers = of.seam.passes.iter().map(|pass| pass.layer).max().unwrap_or(1);
        let layer = if layers > 1 { format!(", layer {}", pass.layer) } else { String::new() };
        let side = if pass.side == 2 { ", far side" } else { "" };
        let say =
            |mm: f64| self.units.show(mm.round(), Unit::Millimetres, crate::quantity::Rounding::Nearest);
        format!(
            "Bead {number} of {all}{seam}: from {} to {}{layer}{side}.",
            say(bead.from_mm).number,
            say(bead.to_mm).text()
        )
    }

    /// What is done before one of the beads to come: the part is turned, the layer under it looked over.
    fn before(&self, at: usize, ahead: &[PlannedBead], laid: &[PastBead]) -> String {
        let place = ahead[at].place;
        let of = &self.seams()[place.seam];
        let pass = &of.seam.passes[place.pass];
        let last_laid = laid.iter().max_by(|a, b| a.ended_s.total_cmp(&b.ended_s)).map(|it| it.place);
        let last = match at.checked_sub(1) {
            Some(before) => Some(ahead[before].place),
            None => last_laid,
        };
        // What was done since the last bead is not asked again.
        let done = |deed: Deed| at == 0 && self.done_since_the_last_bead(deed);
        let side_of = |it: BeadPlace| self.seams()[it.seam].seam.passes[it.pass].side;
        let turned = last.is_some_and(|last| side_of(last) != pass.side) && !done(Deed::Turned);
        let in_it = |it: &BeadPlace| (it.seam, it.pass) == (place.seam, place.pass);
        let first_of_it =
            !laid.iter().any(|it| in_it(&it.place)) && !ahead[..at].iter().any(|it| in_it(&it.place));
        let mut words = Vec::new();
        if pass.layer > 1 && first_of_it && !done(Deed::Refilled) {
            let seam = if self.several() { format!(" of {}", of.letter) } else { String::new() };
            words.push(format!("Layer {}{seam} is full: see to its pinholes first.", pass.layer - 1));
        }
        if turned {
            words.push("Turn it first.".to_owned());
        }
        words.join(" ")
    }

    fn done_since_the_last_bead(&self, deed: Deed) -> bool {
        let mut since = self.round.standing_log().rev().take_while(|it| !it.is_piece());
        since.any(|it| it.entry == TorchEntry::Did { what: deed })
    }
}
