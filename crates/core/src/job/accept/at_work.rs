//! What is done to the part before and after the torch, and what is offered for it.

use uuid::Uuid;

use super::super::bounds::{FOLLOWED_MOST, LIST_MOST, SEAM_READINGS_MOST};

use super::super::WorkStep;
use super::{ChangeContext, Refusal, holds, refused, room_for};
use crate::base::day::Day;
use crate::base::problem::FieldProblem;
use crate::faults::acceptance::Found;

/// **House**: no part is waited for any longer.
const PASS_MOST_MIN: f64 = 72.0 * 60.0;

impl ChangeContext<'_> {
    pub(super) fn seam_measured(&self, crack: Uuid) -> Result<(), Refusal> {
        let known = self.round.cracks.iter().any(|known| known.id == crack);
        holds(known, "crack", "that crack is no longer there", "")?;
        let full = "that is more than is read of a repair";
        room_for(self.round.at_seams.len(), SEAM_READINGS_MOST, "typed", full, "cross some out first")
    }

    pub(super) fn looked(&self, at: Option<Uuid>, found: Found) -> Result<(), Refusal> {
        let round = self.round;
        let known = at.is_none_or(|id| {
            round.cracks.iter().any(|crack| crack.id == id)
                || round.said_at_torch().any(|(_, entry)| entry.fact == id)
        });
        holds(known, "place", "that place is no longer there", "")?;
        // What is bad is seen on hot iron too.
        if found == Found::Good {
            self.cold("place")?;
        }
        let full = "that is more than is looked at";
        room_for(round.looked.len(), SEAM_READINGS_MOST, "place", full, "cross some out first")
    }

    /// What wants it cold waits until it is.
    pub(super) fn cold(&self, field: &str) -> Result<(), Refusal> {
        match (self.allowed)().hot {
            Some(why) => refused(field, &why, "read it cold first"),
            None => Ok(()),
        }
    }

    pub(super) fn used(&self, what: &str, size_mm: Option<f64>, typed: &str) -> Result<(), Refusal> {
        let stands = self.round.used_of(what, size_mm);
        if stands.is_some_and(|used| used.typed == typed.trim()) {
            return Ok(());
        }
        holds(
            self.round.repaired(),
            "typed",
            "nothing is used before it is lit, or begun",
            "light up first",
        )?;
        room_for(self.round.used.len(), LIST_MOST, "typed", "that is more than a repair takes", "")?;
        self.unless_changed("typed", typed, stands.map_or("", |used| &used.typed))
    }

    pub(super) fn followed_up(&self) -> Result<(), Refusal> {
        let out = self.round.handed_over_ms.is_some();
        holds(out, "became", "it was not handed over", "hand it over first")?;
        let full = "that is more than is asked";
        room_for(self.round.followed.len(), FOLLOWED_MOST, "became", full, "cross some out first")
    }

    pub(super) fn timed(&self, step: &str, running: bool) -> Result<(), Refusal> {
        let open = self.round.timed.iter().find(|it| it.to_ms.is_none());
        let can = running || open.is_some_and(|open| open.step == *step);
        holds(can, "step", "that is not being timed", "begin it first")
    }

    pub(super) fn estimated(&self, until: &str) -> Result<(), Refusal> {
        if let Some((why, unlock)) = (self.allowed)().no_estimate {
            return refused("until", &why, &unlock);
        }
        let day = Day::parse(until, self.today)
            .map_err(|none| FieldProblem::new("until", none.to_string(), none.would_be_right()))?;
        let past = self.today.is_some_and(|today| day.number() < today.number());
        holds(!past, "until", "that day is past", "in 30 days")
    }

    pub(super) fn ticked(&self, step: WorkStep, done: bool) -> Result<(), Refusal> {
        let Self { job, round, .. } = self;
        let known = step.at.is_none_or(|id| {
            round.cracks.iter().any(|crack| crack.id == id)
                || round.marks.iter().any(|mark| mark.id == id)
                || job.faces.iter().any(|face| face.id == id)
        });
        holds(known, "step", "what that was done at is no longer there", "")?;
        if done && step.what.wants_it_cold() {
            self.cold("step")?;
        }
        room_for(round.ticked.len(), SEAM_READINGS_MOST, "step", "that is more than a list has", "")
    }

    pub(super) fn finish_step(&self, step: WorkStep) -> Result<(), Refusal> {
        let known = step.at.is_none_or(|id| self.round.cracks.iter().any(|crack| crack.id == id));
        // The first side goes without a number.
        let known = known && step.number.is_none_or(|side| side == 2);
        holds(step.what.finishes() && known, "step", "that is no step of the finish", "a step of its list")?;
        let full = "that is more than a list has";
        room_for(self.round.finish_steps.len(), SEAM_READINGS_MOST, "step", full, "")
    }

    pub(super) fn new_round(&self) -> Result<(), Refusal> {
        room_for(self.job.rounds.len(), LIST_MOST, "reason", "500 rounds are more than a repair", "")?;
        let not_lit = "this round has not been lit: map the crack in it";
        holds(self.round.repaired(), "round", not_lit, "")
    }

    pub(super) fn passed(&self, minutes: f64) -> Result<(), Refusal> {
        let practised = self.job.practice.is_some();
        holds(practised, "minutes", "the clock of a real job goes by itself", "")?;
        holds(self.job.heat().is_some(), "minutes", "nothing is lit", "light up first")?;
        let bounded = (0.0..=PASS_MOST_MIN).contains(&minutes);
        holds(bounded, "minutes", "that is more than goes by at once", "up to 72 h")
    }
}
