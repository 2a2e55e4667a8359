//! The drawn face as it was heated: by what was said and read at the torch, moment by moment.

use super::course::{As, Course, HELD_BACK_C};
use super::moments::{CourseView, FaceHeat, shown_of};
use super::part::FacePart;
use super::words::Nearness;
use crate::body::{BodyHeating, FaceModel, Flame, Look, Pace, WATCHED_FROM};
use crate::job::{HeatState, Job, Round};
use crate::map::{At, FlamePlace};
use crate::plan::Plan;
use crate::quantity::{Unit, number};

/// Ours: it is stepped so closely.
const STEP_S: f64 = 30.0;
/// Ours: under a minute of a log there is nothing to show.
const LEAST_MIN: f64 = 1.0;
/// Ours: so often it is looked at, and no more often than that.
const LOOKS: f64 = 24.0;

/// What burns in one stretch of the log.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Burns {
    Off,
    /// Where it was put until the joint may be worked, then over all of it, no further than this.
    Whole {
        to_c: f64,
    },
    /// Held on the joint at this.
    Joint {
        to_c: f64,
    },
    /// Kept as warm as its coldest place was.
    Kept {
        at_c: f64,
    },
}

/// A face on its clock.
struct Clock<'a> {
    part: &'a FacePart,
    model: &'a FaceModel,
    /// Of the flame by the book.
    strength: f64,
    celsius: Vec<f64>,
    coldest_c: f64,
    is_swept: bool,
    /// The last place it was said to be at.
    put: FlamePlace,
    /// In the stretch that was gone through last.
    burns: Burns,
}

impl Clock<'_> {
    fn flame(&self) -> Flame {
        let joint = self.part.joint();
        match self.burns {
            Burns::Joint { .. } => self.part.flame_at(joint, false, self.strength),
            Burns::Whole { .. } => {
                self.part.flame_at(self.put.at, self.is_swept || self.put.swept, self.strength)
            }
            Burns::Kept { .. } | Burns::Off => self.part.flame_at(joint, true, self.strength),
        }
    }

    /// Where it burns; nothing where it is off.
    fn burns_at(&self) -> Option<At> {
        (self.burns != Burns::Off).then(|| self.flame().at)
    }

    fn goes_on(&mut self, minutes: f64, burns: Burns) {
        self.burns = burns;
        let mut left_s = minutes * 60.0;
        while left_s > 1e-6 {
            let heating = BodyHeating {
                pace: Pace { step_s: STEP_S, looks_s: STEP_S, ..Pace::EVEN },
                most_c: Some(HELD_BACK_C),
                ..BodyHeating::new(self.part.ambient_c, left_s / 60.0, vec![self.flame()])
            };
            let held = matches!(burns, Burns::Whole { .. }) && !self.is_swept && !self.put.swept;
            let least_c = self.part.least_c;
            let mut turned = false;
            let steps = self.model.goes_on(&mut self.celsius, &heating, |joint_c, coldest_c| {
                // Warm enough at the joint it is swept over all of it.
                turned = held && joint_c >= least_c;
                (!turned).then_some(match burns {
                    Burns::Off => false,
                    Burns::Whole { to_c } | Burns::Kept { at_c: to_c } => coldest_c < to_c,
                    Burns::Joint { to_c } => joint_c < to_c,
                })
            });
            self.coldest_c = steps.last().copied().unwrap_or(self.coldest_c);
            left_s -= steps.len() as f64 * STEP_S;
            self.is_swept |= turned;
            if !turned {
                break;
            }
        }
    }
}

/// States of heat and places of the flame in one list: minutes, from when on, the last for good.
fn stretches(round: &Round, face: uuid::Uuid, until_min: f64) -> Vec<(f64, HeatState, Option<FlamePlace>)> {
    let states = round.states_of_heat();
    let placed = round.flames_since_lit();
    let state_at = |minutes: f64| {
        let so_far = states.iter().take_while(|(from, _)| *from <= minutes);
        so_far.last().map_or(HeatState::InTheHeat, |(_, state)| *state)
    };
    let place_at = |minutes: f64| {
        let so_far = placed.iter().take_while(|(from, _)| *from <= minutes);
        so_far.last().and_then(|(_, place)| *place).filter(|place| place.face == face)
    };
    let mut from: Vec<f64> =
        states.iter().map(|(from, _)| *from).chain(placed.iter().map(|(from, _)| from.max(0.0))).collect();
    from.retain(|minutes| *minutes < until_min);
    from.sort_by(f64::total_cmp);
    from.dedup();
    from.into_iter().map(|minutes| (minutes, state_at(minutes), place_at(minutes))).collect()
}

/// Minutes on the job clock until it was covered, or until the last that is known of it; nothing while it is not lit.
fn until_min(round: &Round) -> Option<f64> {
    let said = round.standing_log().map(|entry| entry.minutes);
    let read = round.latest_reading().map(|reading| reading.minutes);
    let known_min = said.chain(read).fold(0.0, f64::max);
    let until_min = round.covered_minutes().unwrap_or(known_min);
    (round.repaired() && until_min >= LEAST_MIN).then_some(until_min)
}

/// What each node of a face was at when it was covered, or at the last that is known of it; nothing while it is not lit.
pub(super) fn warm_by_the_log(
    job: &Job,
    plan: &Plan,
    part: &FacePart,
    model: &FaceModel,
) -> Option<Vec<f64>> {
    let mut last = None;
    by_the_log((job, plan), (part, model), until_min(job.round())?, |clock, _| {
        last = Some(clock.celsius.clone());
    })?;
    last
}

/// The face from lighting up until it was covered, or until the last that is known of it. Nothing while it is not lit.
#[must_use]
pub fn face_logged(job: &Job, plan: &Plan, part: &FacePart, model: &FaceModel) -> Option<FaceHeat> {
    let round = job.round();
    let until_min = until_min(round)?;
    let (mut looks, mut flames): (Vec<Look>, Vec<Option<At>>) = (Vec::new(), Vec::new());
    let put = by_the_log((job, plan), (part, model), until_min, |clock, minutes| {
        looks.push(model.look_at(&clock.celsius, minutes, part.ambient_c));
        flames.push(clock.burns_at());
    })?;
    let course = Course::of(part, model, looks, As::Asked);
    let read = round.latest_reading().filter(|it| it.minutes <= until_min);
    let beneath = match read {
        Some(reading) => {
            let near = |look: &&Look| (look.minutes - reading.minutes).abs();
            let then = course.looks.iter().min_by(|a, b| near(a).total_cmp(&near(b)));
            format!(
                "{} was read after {}; by the log its coldest place is reckoned at {} then.",
                part.units.say_exactly(reading.celsius, Unit::Celsius),
                part.minutes_words(reading.minutes),
                part.celsius_words(then.map_or(part.ambient_c, |look| look.least_c))
            )
        }
        None => "Nothing was read of it yet.".to_owned(),
    };
    let seen = CourseView { part, model, course: &course, places: part.places(), cools: false };
    Some(FaceHeat {
        sentence: sentence(part, model, &course),
        beneath: format!("{beneath} What the beads gave is not in it."),
        logged: true,
        asks_much: Nearness::of(course.worst()) >= Nearness::Watch,
        ..shown_of(&seen, &flames, put)
    })
}

/// A face goes through its log; `seen` looks at it now and then. Gives where the flame was put last.
fn by_the_log(
    (job, plan): (&Job, &Plan),
    (part, model): (&FacePart, &FaceModel),
    until_min: f64,
    mut seen: impl FnMut(&Clock<'_>, f64),
) -> Option<FlamePlace> {
    let round = job.round();
    let (heat, torch) = (plan.heat.as_ref()?, plan.torch.as_ref()?);
    let begins = FlamePlace { face: part.face, at: part.joint(), swept: false };
    let mut clock = Clock {
        part,
        model,
        strength: torch.warming.map_or(1.0, |warming| warming.factor),
        celsius: model.evenly(part.ambient_c),
        coldest_c: part.ambient_c,
        is_swept: false,
        put: begins,
        burns: Burns::Off,
    };
    let stretches = stretches(round, part.face, until_min);
    let ends = stretches.iter().skip(1).map(|(from, ..)| *from).chain([until_min]);
    let every_min = (until_min / LOOKS).max(STEP_S / 60.0);
    for ((from_min, state, place), to_min) in stretches.iter().zip(ends) {
        clock.put = place.unwrap_or(begins);
        let burns = match state {
            HeatState::InTheHeat => Burns::Whole { to_c: heat.aim_c() },
            HeatState::HeldAtJoint => Burns::Joint { to_c: heat.aim_c() },
            HeatState::HeldOver => Burns::Kept { at_c: clock.coldest_c },
            HeatState::Out => Burns::Off,
        };
        let mut minutes = *from_min;
        while minutes < to_min - 1e-9 {
            let next = (minutes + every_min).min(to_min);
            clock.goes_on(next - minutes, burns);
            minutes = next;
            seen(&clock, minutes);
        }
    }
    Some(clock.put)
}

fn sentence(part: &FacePart, model: &FaceModel, course: &Course) -> String {
    let worst = course.worst();
    let tip = || part.named(model, course.worst_tip());
    match (Nearness::of(worst), course.runs_at()) {
        (Nearness::Runs, Some((minutes, tip))) => format!(
            "By the log {} was likely to run on, from about {} on: look at it.",
            part.named(model, tip),
            part.minutes_words(minutes)
        ),
        (Nearness::Watch | Nearness::Runs, _) => {
            format!("By the log {} was asked for {} of what it stands: look at it.", tip(), number(worst, 1))
        }
        (Nearness::Open | Nearness::Shut, _) => {
            format!("By the log each tip stayed under {} of what it stands.", number(WATCHED_FROM, 1))
        }
    }
}
