//! Where the next bead goes, when it may start, and what the seams look like by now.

mod ahead;
mod plan;
mod shown;
mod strip;

use std::sync::Arc;

pub use ahead::{BeadsAhead, LiveBead};
pub use plan::{AtOnce, BeadsPlan, LayerStrip, NextBead, SeamStrip, StripBead};

use super::heated_by::HeatedBy;
use crate::heat::{BarPower, BeadPlace, BeadSchedule, Burnt, PastBead, SimCache};
use crate::job::{BeadAt, HeatState, Reading, Round, TorchEntry};
use crate::quantity::{UnitSystem, Watts};
use crate::stage::HeatPlan;
use crate::stage::method::ToFill;
use crate::stage::prep::SeamOfBeads;

/// Ours: a wait, or a gain, that is under this is not spoken of.
pub(super) const WORTH_SAYING_S: f64 = 30.0;

/// A part as it is known to be: as a whole, at a moment of the job clock in s.
#[derive(Debug, Clone, Copy)]
struct Known {
    bulk_c: f64,
    at_s: f64,
}

/// What the beads are put in order from.
pub(crate) struct BeadsInputs<'a> {
    pub round: &'a Round,
    pub heat: &'a HeatPlan,
    pub to_fill: ToFill,
    /// All there are, those that build up missing metal among them: these have no order.
    pub planned: u32,
    pub sims: &'a SimCache,
    pub units: UnitSystem,
}

impl BeadsInputs<'_> {
    /// The beads as they stand, and what a later reading is judged by.
    pub fn plan(self) -> (BeadsPlan, BeadsAhead) {
        let ToFill { course, begins_c, .. } = &self.to_fill;
        let lit = self.round.repaired();
        let begins = Known { bulk_c: *begins_c, at_s: 0.0 };
        let laid = self.laid();
        let now_s = self.now_s();
        let lead_k = self.lead_k(now_s / 60.0);
        let burnt = self.burnt(&laid);
        let known = self.known(&laid).unwrap_or(begins);
        let bulk_c = course.bulk_after(
            known.bulk_c,
            now_s - known.at_s,
            &since(&laid, known.at_s),
            &burnt.since(known.at_s),
        );
        let states = self.round.states_of_heat();
        let held =
            |(_, state): &(f64, HeatState)| matches!(state, HeatState::HeldAtJoint | HeatState::HeldOver);
        let course =
            &if states.last().is_some_and(held) { course.clone().held(true) } else { course.clone() };
        let schedule = if laid.is_empty() {
            let taken = self.sims.bead_order(course, bulk_c);
            let of = |taken: BeadSchedule| {
                // What is not waited for is compared with nothing.
                let compared = !taken.end_to_end && taken.waiting_s >= WORTH_SAYING_S;
                let waits_s = compared.then(|| self.sims.end_to_end_waiting_s(course, bulk_c)).flatten();
                BeadSchedule { end_to_end_waiting_s: waits_s, ..taken }
            };
            taken.as_ref().clone().map(of)
        } else {
            course.order(bulk_c, &since(&laid, now_s))
        };
        let schedule = schedule.as_ref();
        let plan = self.shown(schedule, &laid, if lit { now_s } else { 0.0 });
        let next = schedule.and_then(|it| it.beads.first()).map(|it| it.place);
        let next = next.zip(plan.ahead.first().map(|it| it.number));
        (plan, BeadsAhead { course: Arc::new(course.clone()), laid, next, lead_k, burnt })
    }

    fn seams(&self) -> &[SeamOfBeads] {
        &self.to_fill.seams
    }

    /// The last moment that anything is known of, in s.
    fn now_s(&self) -> f64 {
        let said = self.round.standing_log().map(|entry| entry.minutes);
        let read = self.round.latest_reading().map(|reading| reading.minutes);
        said.chain(read).fold(0.0, f64::max) * 60.0
    }

    /// The last reading of the part; without one the first bead, which nobody lays before it is warm.
    fn known(&self, laid: &[PastBead]) -> Option<Known> {
        if let Some(Reading { minutes, celsius }) = self.round.latest_reading() {
            return Some(Known { bulk_c: celsius + self.lead_k(minutes), at_s: minutes * 60.0 });
        }
        let first_s = laid.iter().map(|it| it.ended_s).filter(|at| *at >= 0.0).reduce(f64::min)?;
        let begins_c = self.to_fill.begins_c;
        Some(Known { bulk_c: begins_c, at_s: (first_s - self.seams()[0].seam.each_s()).max(0.0) })
    }

    /// What heated it, and when, in s on the job clock: by what was said, a bead from its beginning on.
    fn burnt(&self, laid: &[PastBead]) -> Burnt {
        let ToFill { power, steps, begins_c, .. } = self.to_fill;
        let heated = HeatedBy { main: power, steps, aim_c: self.heat.aim_c(), whole_c: begins_c };
        heated.burnt(self.round, |ended_s| {
            let bead = laid.iter().find(|it| (it.ended_s - ended_s).abs() < 1e-6);
            bead.map_or(ended_s, |it| ended_s - self.seams()[it.place.seam].seam.each_s())
        })
    }

    /// How far the part as a whole stands over its coldest place at a time on the job clock: it evens out once it is
    /// out of the heat.
    fn lead_k(&self, minutes: f64) -> f64 {
        if self.heat.cold {
            return 0.0;
        }
        let out = self.round.out_of_the_heat().into_iter();
        let mut out =
            out.filter(|(from, to)| (*from..*to).contains(&minutes)).map(|(from, _)| minutes - from);
        self.bar(out.next_back().unwrap_or(0.0) * 60.0).unwrap_or(0.0)
    }

    /// Mean less coldest of the bar, heated to the target and then left alone for so long, in K.
    fn bar(&self, alone_s: f64) -> Option<f64> {
        /// Ours: after so long nothing is left of it.
        const MOST_S: f64 = 7_200.0;
        const STEP_S: f64 = 10.0;
        let power = self.to_fill.power?;
        let heating = self.heat.run_to_target(&self.to_fill.body, power, self.sims)?;
        let mut bar = heating.bar.clone();
        let none = Watts::new(0.0).ok()?;
        bar.heat_with(BarPower::Flame { even: none, local: none, station: 0.5, covered: 0.0 });
        let mut left_s = alone_s.min(MOST_S);
        while left_s > 0.0 {
            bar.step(STEP_S.min(left_s));
            left_s -= STEP_S;
        }
        Some(bar.mean_c() - bar.coldest_c())
    }

    /// What lies there by the log: where it was said, else in the order that was planned.
    fn laid(&self) -> Vec<PastBead> {
        let entries = || {
            self.round.said_at_torch().filter_map(|(minutes, entry)| match entry.entry {
                TorchEntry::Bead { at } => Some((minutes * 60.0, at.and_then(|at| self.place(at)))),
                _ => None,
            })
        };
        let said: Vec<BeadPlace> = entries().filter_map(|(_, place)| place).collect();
        let counted = entries().filter(|(_, place)| place.is_none()).count();
        let mut in_turn = Vec::new();
        let ToFill { course, begins_c, .. } = &self.to_fill;
        if counted > 0
            && let Some(planned) = self.sims.bead_order(course, *begins_c).as_ref()
        {
            in_turn = planned.beads.iter().map(|it| it.place).filter(|it| !said.contains(it)).collect();
        }
        let mut in_turn = in_turn.into_iter();
        entries()
            .filter_map(|(ended_s, place)| {
                Some(PastBead { place: place.or_else(|| in_turn.next())?, ended_s })
            })
            .collect()
    }

    fn place(&self, at: BeadAt) -> Option<BeadPlace> {
        let seam = self.seams().iter().position(|it| it.crack == at.crack && it.hole() == at.hole)?;
        let passes = &self.seams()[seam].seam.passes;
        let pass = passes.iter().position(|pass| (pass.layer, pass.side) == (at.layer, at.side))?;
        let (lane, along) = (at.beside.checked_sub(1)? as usize, at.along.checked_sub(1)? as usize);
        let there = lane < passes[pass].offsets_mm.len() && along < self.seams()[seam].seam.along();
        there.then_some(BeadPlace { seam, pass, lane, along })
    }

    fn at(&self, place: BeadPlace) -> BeadAt {
        let of = &self.seams()[place.seam];
        let pass = &of.seam.passes[place.pass];
        BeadAt {
            crack: of.crack,
            layer: pass.layer,
            side: pass.side,
            beside: place.lane as u32 + 1,
            along: place.along as u32 + 1,
            hole: of.hole(),
        }
    }

    /// Of seams, not of their stop-holes, there is more than one.
    fn several(&self) -> bool {
        self.seams().iter().filter(|it| it.hole().is_none()).count() > 1
    }

    /// The seam that a place belongs to, its stop-holes with it.
    fn seam_of(&self, place: BeadPlace) -> usize {
        self.seams()[place.seam].seam.hole_of.map_or(place.seam, |hole| hole.seam)
    }
}

/// The same beads, on a clock that begins then.
fn since(laid: &[PastBead], from_s: f64) -> Vec<PastBead> {
    laid.iter().map(|it| PastBead { ended_s: it.ended_s - from_s, ..*it }).collect()
}
