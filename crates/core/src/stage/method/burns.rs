//! What a way burns in one lighting, and how it is parted into sessions.

use super::Judged;
use super::hours::Steps;
use crate::effort::sessions::{Parting, Session, sessions};
use crate::field;
use crate::method::{Joins, Way};
use crate::stage::heat::{HeatStep, StepBurn, soak_minutes};
use crate::stage::prep::PrepPlan;
use crate::stage::taught::AFTER;

/// What a source burns on a job, in min.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Burns {
    /// So often it is lit, a session each.
    pub lightings: f64,
    /// Each time until it is warm, and then soaked.
    pub heat_min: f64,
    pub soak_min: f64,
    /// Of its full flame: while it heats, and while it holds.
    pub throttle: f64,
    pub hold_share: f64,
    /// And then, each time: reheats, and after the last bead.
    pub reheating_min: f64,
    pub after_min: f64,
}

impl Burns {
    /// Each time until it is warm and soaked.
    pub fn warm_min(self) -> f64 {
        self.heat_min + self.soak_min
    }

    /// What it burns each time beside its reheats, as minutes of its full flame.
    pub fn full_but_reheats_min(self) -> f64 {
        self.heat_min * self.throttle + (self.soak_min + self.after_min) * self.hold_share
    }

    /// In all sessions together, as minutes of its full flame.
    pub fn full_min(self) -> f64 {
        self.lightings * (self.full_but_reheats_min() + self.reheating_min * self.throttle)
    }
}

impl Judged<'_> {
    /// The sessions of a way whose heating takes so many minutes of hands.
    pub(super) fn parted(&self, way: Way, prep: &PrepPlan, heat_up_min: f64) -> Vec<Session> {
        let whole = matches!(way.method.entry().joins, Joins::Flame | Joins::Bronze | Joins::Silver);
        sessions(&Parting {
            beads: prep.beads.max(prep.pins),
            bead_min: self.fill(way, prep).minutes,
            heat_up_min,
            day_min: self.shop.hood_min,
            // Whole-part fusion and a braze that is hot are done in one go.
            never_split: whole || prep.beads.max(prep.pins) == 0,
        })
    }

    /// What is done with the heat before it is packed, where that is not just to pack it: as it was said at Cooling,
    /// else as it is done here.
    pub(super) fn after_the_last(&self, way: Way, times: f64, steps: &mut Steps) {
        const AS_SAID: &str = "as said at Cooling";
        if !way.school.preheats() {
            return;
        }
        let round = self.round;
        let said = |of: field::Field<field::Number>| round.get(of);
        let held =
            said(field::cooling::POST_HEAT).map(|_| said(field::cooling::POST_HEAT_FOR).unwrap_or(0.0));
        let (taper, oven) = (
            said(field::cooling::TAPER),
            said(field::cooling::OVEN).map(|_| said(field::cooling::OVEN_FOR).unwrap_or(0.0)),
        );
        if held.or(taper).or(oven).is_some() {
            steps.hands("post_heat", "Heat it once more", times * held.unwrap_or(0.0), AS_SAID);
            steps.hands("taper", "Take the flame off by degrees", times * taper.unwrap_or(0.0), AS_SAID);
            steps.add("hold", "Hold it in the oven", 0.0, times * oven.unwrap_or(0.0), AS_SAID);
            return;
        }
        match self.taught(&AFTER, way) {
            "post_heat" => steps.hands("post_heat", "Heat it once more", times * 15.0, "held for 15 min"),
            "taper" => steps.hands("taper", "Take the flame off by degrees", times * 12.5, "10 to 15 min"),
            "oven" => steps.add("hold", "Hold it in the oven", 0.0, times * 240.0, "4 h at {120 degC}"),
            "still" => steps.hands("post_heat", "Heat it shortly", times * 5.0, "5 min"),
            _ => {}
        }
    }

    /// What the source burns in one lighting.
    pub(crate) fn burns(&self, way: Way, prep: &PrepPlan) -> Option<Burns> {
        if !way.school.preheats() {
            return None;
        }
        let sources = self.sources_of(way)?;
        let reached = sources.reach(&self.target_of(way)?)?;
        let target_c = self.target_of(way)?.target_c;
        let (heat_min, soak_min) = (reached.minutes, soak_minutes(way, self.part.wall_mm));
        let warm_min = heat_min + soak_min;
        let by_hand = !reached.run.source.is_oven() || reached.run.source.is_fire();
        let lightings = self.parted(way, prep, if by_hand { warm_min } else { 0.0 }).len() as f64;
        let mut after = Steps { list: Vec::new() };
        self.after_the_last(way, 1.0, &mut after);
        Some(Burns {
            lightings,
            heat_min,
            soak_min,
            throttle: reached.run.throttle,
            hold_share: sources.hold_share(reached.run, target_c),
            reheating_min: self.fill(way, prep).reheating_min / lightings,
            after_min: after.list.iter().map(|step| step.attended_min).sum(),
        })
    }

    /// What burns in one lighting, step by step, each under its own source where one was said.
    pub(crate) fn step_burns(&self, way: Way, prep: &PrepPlan) -> Option<Vec<StepBurn>> {
        let (burns, target, sources) = (self.burns(way, prep)?, self.target_of(way)?, self.sources_of(way)?);
        let reached = sources.reach(&target)?;
        let fill_min = self.fill(way, prep).minutes / burns.lightings;
        // Nobody holds a flame on it unless that was said.
        let held_min = if self.steps.of(HeatStep::Hold).is_some() { fill_min } else { 0.0 };
        let minutes = |step| match step {
            HeatStep::Heat => burns.heat_min,
            HeatStep::Soak => burns.soak_min,
            HeatStep::Hold => held_min,
            HeatStep::Reheat => burns.reheating_min,
            HeatStep::After => burns.after_min,
        };
        let burn = |step| self.steps.burn(step, minutes(step), target.target_c, (sources, reached.run));
        Some(HeatStep::ALL.into_iter().map(burn).collect())
    }
}
