//! What a way burns in one lighting, and how it is parted into sessions.

use super::MethodContext;
use super::hours::Steps;
use crate::effort::sessions::{Parting, Session, sessions};
use crate::field;
use crate::heat::HeatSource;
use crate::method::customs::After;
use crate::method::{School, Way};
use crate::stage::heat::{HeatStep, SourceRun, Sources, StepBurn, StepSources, soak_minutes};
use crate::stage::prep::PrepPlan;
use crate::stage::taught::AFTER;

/// What a source burns on a job, in min.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Burns {
    /// So often it is heated from cold: once for each session, or once where it is held over night.
    pub lightings: f64,
    pub sessions: f64,
    /// Between them, where it is held; 0 where it cools.
    pub nights_min: f64,
    /// Each time until it is warm, and then soaked.
    pub heat_min: f64,
    pub soak_min: f64,
    /// Of its full flame: while it heats, and while it holds.
    pub throttle: f64,
    pub hold_share: f64,
    /// And then, each time it was heated: reheats, and after the last bead.
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

/// Published: the trade reference, after the last bead in an oven.
const OVEN_MIN: f64 = 240.0;
const OVEN_C: f64 = 120.0;

/// How a part is kept between two sessions.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Night {
    pub source: &'static HeatSource,
    /// From closing to opening, in min.
    pub minutes: f64,
}

impl MethodContext<'_> {
    /// What it is held in over night at what the work may go on at; nothing where it cools, or what was said does not
    /// keep it there by itself.
    pub(super) fn night(&self, way: Way) -> Option<Night> {
        if !way.school.preheats() || way.school == School::Local {
            return None;
        }
        let (source, kept) = self.steps.kept_over_night(self.target_of(way)?.least_c)?;
        kept.then(|| Night { source, minutes: self.shop.week.closed_min() })
    }

    /// How long it is held in the oven before it is packed, and at what; nothing where it is not.
    fn way_down(&self, way: Way) -> Option<(f64, f64)> {
        let round = self.round;
        let said = round
            .get(field::cooling::OVEN)
            .map(|at_c| (round.get(field::cooling::OVEN_FOR).unwrap_or(0.0), at_c));
        let once_more = round.get(field::cooling::POST_HEAT).or(round.get(field::cooling::TAPER)).is_some()
            || round.get(field::cooling::FIRE).is_some();
        said.or_else(|| (!once_more && self.taught(&AFTER, way) == After::Oven).then_some((OVEN_MIN, OVEN_C)))
    }

    /// The sessions of a way whose heating takes so many minutes of hands.
    pub(super) fn parted(&self, way: Way, prep: &PrepPlan, heat_up_min: f64) -> Vec<Session> {
        let whole = way.method.in_one_flow();
        sessions(&Parting {
            beads: prep.beads.max(prep.pins),
            bead_min: self.fill(way, prep).minutes,
            heat_up_min,
            heat_up_again_min: if self.night(way).is_some() { 0.0 } else { heat_up_min },
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
        let said_fire = round.get(field::cooling::FIRE);
        let held =
            said(field::cooling::POST_HEAT).map(|_| said(field::cooling::POST_HEAT_FOR).unwrap_or(0.0));
        let fire_min = said_fire.map_or(0.0, |fire| fire.lasts_h() * 60.0);
        let (taper, oven) = (
            said(field::cooling::TAPER),
            said(field::cooling::OVEN).map(|_| said(field::cooling::OVEN_FOR).unwrap_or(0.0)),
        );
        if held.or(taper).or(oven).is_some() || said_fire.is_some() {
            steps.hands("post_heat", "Heat it once more", times * held.unwrap_or(0.0), AS_SAID);
            steps.hands("taper", "Take the flame off by degrees", times * taper.unwrap_or(0.0), AS_SAID);
            steps.add("hold", "Hold it in the oven", 0.0, times * oven.unwrap_or(0.0), AS_SAID);
            steps.add("dying_fire", "Leave it in the fire as it goes out", 0.0, times * fire_min, AS_SAID);
            return;
        }
        match self.taught(&AFTER, way) {
            After::Oven => {
                steps.add("hold", "Hold it in the oven", 0.0, times * OVEN_MIN, "4 h at {120 degC}")
            }
            After::PostHeat => steps.hands("post_heat", "Heat it once more", times * 15.0, "held for 15 min"),
            After::Taper => {
                steps.hands("taper", "Take the flame off by degrees", times * 12.5, "10 to 15 min")
            }
            After::Still => steps.hands("post_heat", "Heat it shortly", times * 5.0, "5 min"),
            After::Wrap => {}
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
        let sessions = self.parted(way, prep, if by_hand { warm_min } else { 0.0 }).len() as f64;
        let night = self.night(way);
        let lightings = if night.is_some() { 1.0 } else { sessions };
        let mut after = Steps { list: Vec::new() };
        self.after_the_last(way, 1.0, &mut after);
        Some(Burns {
            lightings,
            sessions,
            nights_min: night.map_or(0.0, |night| (sessions - 1.0) * night.minutes),
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
            HeatStep::Night => burns.nights_min,
            HeatStep::After => burns.after_min,
            // A flame does not stay on it for hours: of that nothing is reckoned.
            HeatStep::WayDown if !down_in(self.steps, (sources, reached.run)).1.source.is_oven() => 0.0,
            HeatStep::WayDown => self.way_down(way).map_or(0.0, |(minutes, _)| minutes),
        };
        let at_c = |step| match step {
            HeatStep::Night => target.least_c,
            HeatStep::WayDown => self.way_down(way).map_or(target.target_c, |(_, at_c)| at_c),
            _ => target.target_c,
        };
        let burn = |step| {
            let heat = (sources, reached.run);
            let by = if step == HeatStep::WayDown { down_in(self.steps, heat) } else { heat };
            let mut burn = self.steps.burn(step, minutes(step), at_c(step), by);
            if step == HeatStep::Night && burns.sessions > 1.0 {
                burn.does_nothing = burn
                    .does_nothing
                    .map(|_| "nothing: it does not keep it warm by itself, and nobody is there");
            }
            burn
        };
        let fire = self.round.get(field::cooling::FIRE).map(StepBurn::in_a_dying_fire);
        Some(HeatStep::ALL.into_iter().map(burn).chain(fire).collect())
    }
}

/// What a part is in on its way down: as it was said, else in an oven that is here, else in what heated it.
fn down_in<'a>(
    steps: &'a StepSources,
    (sources, run): (&'a Sources, &'a SourceRun),
) -> (&'a Sources, &'a SourceRun) {
    let said = steps.of(HeatStep::WayDown).and_then(|own| Some((own, own.runs.first()?)));
    let oven = || sources.runs.iter().find(|run| run.source.keeps_by_itself());
    said.unwrap_or_else(|| (sources, oven().unwrap_or(run)))
}
