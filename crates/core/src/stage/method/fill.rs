//! Filling the seams of a way: what its beads are put in order from, and the minutes that takes.

use std::collections::HashMap;
use std::sync::{Mutex, PoisonError};

use super::MethodContext;
use crate::heat::{BarPower, BeadCourse, BeadSchedule, BeadWork, ThermalBody};
use crate::iron::slowest_to_heat;
use crate::method::{School, Way};
use crate::quantity::{Unit, number};
use crate::stage::heat::StepPowers;
use crate::stage::prep::{PrepPlan, SeamOfBeads, bead_seams};

/// More beads than this are counted and not put in order: no seam of one heat has so many. Ours.
pub(crate) const BEADS_MOST: usize = 600;

/// The seams of a way with what heats them: what its beads are put in order from.
pub(crate) struct ToFill {
    pub seams: Vec<SeamOfBeads>,
    pub course: BeadCourse,
    pub body: ThermalBody,
    /// What heats it; nothing for a way that is not preheated.
    pub power: Option<BarPower>,
    /// The steps that have a source of their own.
    pub steps: StepPowers,
    /// The part as a whole as the first bead begins.
    pub begins_c: f64,
}

/// Filling the seams of a way.
#[derive(Debug, Clone, PartialEq, Default)]
pub(crate) struct Fill {
    /// Hands, in min: laid, waited, reheated.
    pub minutes: f64,
    /// Of these the arc or the rod lays metal.
    pub laying_min: f64,
    /// Of these the source burns.
    pub reheating_min: f64,
    /// So often it is turned.
    pub turns: usize,
    pub working: String,
}

/// What was worked out for each way already.
#[derive(Debug, Default)]
pub(crate) struct FillsKnown(Mutex<HashMap<Way, Fill>>);

impl FillsKnown {
    fn get(&self, way: Way) -> Option<Fill> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).get(&way).cloned()
    }

    fn keep(&self, way: Way, fill: Fill) {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).insert(way, fill);
    }
}

impl MethodContext<'_> {
    /// What is warmed for a way, as the heat model has it.
    pub fn body_of(&self, way: Way) -> Option<ThermalBody> {
        match way.school {
            School::Local => self.sources_of(way).map(|sources| sources.body),
            _ => self.body(),
        }
    }

    /// The casting as the heat model has it; nothing while weight, size or shape is not known.
    pub fn body(&self) -> Option<ThermalBody> {
        let slowest = || slowest_to_heat(&self.belief.plausible).iron.properties();
        self.sources.map(|sources| sources.body).or_else(|| self.part.body(slowest()))
    }

    /// What the beads of a way are put in order from; nothing where none are, where they are too many, or where the
    /// casting or its heat is not known.
    pub fn to_fill(&self, way: Way, prep: &PrepPlan) -> Option<ToFill> {
        let counted = prep.seams.iter().map(|seam| seam.beads as usize).sum::<usize>();
        if counted == 0 || counted > BEADS_MOST {
            return None;
        }
        let target = self.target_of(way)?;
        let body = self.body_of(way)?;
        let (power, begins_c, preheat_c) = if way.school.preheats() {
            let sources = self.sources_of(way)?;
            let reached = sources.reach(&target);
            let run = reached.map(|it| it.run).or_else(|| sources.hottest_run(target.target_c))?;
            // One that does not get there is begun as warm as it gets.
            let minutes = reached.map_or(f64::INFINITY, |it| it.minutes);
            let power = sources.power_for(run, target.target_c)?;
            (Some(power), run.heating.mean_at_c(minutes), target.target_c)
        } else {
            let ambient_c = body.ambient.celsius();
            (None, ambient_c, ambient_c)
        };
        let seams = bead_seams(&self.prep_inputs(way), prep, preheat_c);
        let beads = seams.iter().map(|it| it.seam.beads()).sum::<usize>();
        if beads == 0 || beads > BEADS_MOST {
            return None;
        }
        let steps = self.steps.powers(target.target_c);
        let course = self.sims.bead_course(BeadWork {
            body,
            least_c: target.least_c,
            most_c: target.most_c,
            one_after_another: !self.round.seams_in_order().is_empty(),
            held: power.is_some() && self.steps.held(target.target_c),
            reheat_w: power.map(|power| steps.reheat.unwrap_or(power).net_w()),
            bare_share: power.map_or(1.0, BarPower::bare_share),
            seams: seams.iter().map(|it| it.seam.clone()).collect(),
        });
        Some(ToFill { seams, course, body, power, steps, begins_c })
    }

    /// The minutes of a way at its seams.
    ///
    /// Pins: 4 min each, locks 12. A braze with the torch or a gas weld is laid in one go, at what is laid in a minute.
    /// Beads of an arc: what their order comes to, with its waits and its reheats; where there is none, what is laid in
    /// a minute and the wait of the school for each.
    ///
    /// # Source
    /// House.
    pub fn fill(&self, way: Way, prep: &PrepPlan) -> Fill {
        if let Some(known) = self.fills.get(way) {
            return known;
        }
        let fill = self.filled(way, prep);
        self.fills.keep(way, fill.clone());
        fill
    }

    fn filled(&self, way: Way, prep: &PrepPlan) -> Fill {
        /// House: minutes for a pin: drilled, tapped, set, cut.
        const PIN_MIN: f64 = 4.0;
        /// House: minutes for a lock.
        const LOCK_MIN: f64 = 12.0;
        if way.school == School::NoHeat {
            let minutes = f64::from(prep.pins) * PIN_MIN + f64::from(prep.locks) * LOCK_MIN;
            return Fill { minutes, ..Fill::default() };
        }
        let beads = f64::from(prep.beads);
        // Once over where both sides are filled and nothing is put in order.
        let turns = prep.seams.iter().filter(|seam| seam.is_double()).count();
        if beads == 0.0 || !way.method.entry().filling.is_some_and(|filling| filling.bead_by_bead) {
            let working = "what is laid in a minute".to_owned();
            let laying_min = prep.laying_min;
            return Fill { minutes: laying_min, laying_min, reheating_min: 0.0, turns, working };
        }
        let each_min = way.school.wait_min_a_bead();
        let waits = |beads: f64| format!("{beads:.0} beads with {} min after each", number(each_min, 1));
        let counted = |why: &str| Fill {
            minutes: prep.laying_min + beads * each_min,
            laying_min: prep.laying_min,
            reheating_min: 0.0,
            turns,
            working: waits(beads) + why,
        };
        let Some(to_fill) = self.to_fill(way, prep) else {
            return counted(match self.body() {
                None => ", until weight and size are known",
                Some(_) => ", not put in order",
            });
        };
        let order = self.sims.bead_order(&to_fill.course, to_fill.begins_c);
        let Some(order) = order.as_ref() else { return counted(": no order of them comes to its end") };
        // What builds up missing metal is laid in no order of its own.
        let others = (beads - order.beads.len() as f64).max(0.0);
        let built_up = if prep.volume_cm3 > 0.0 { prep.missing_cm3 / prep.volume_cm3 } else { 0.0 };
        let others_laid_min = built_up * prep.laying_min;
        Fill {
            minutes: order.elapsed_s / 60.0 + others_laid_min + others * each_min,
            laying_min: order.arc_s / 60.0 + others_laid_min,
            reheating_min: order.reheating_s() / 60.0,
            turns: turned(order, &to_fill.seams),
            working: self.order_words(order) + &built_up_words(others, waits),
        }
    }

    /// "36 beads in their order: 6 min of arc, 42 min of waiting"
    fn order_words(&self, order: &BeadSchedule) -> String {
        let say = |seconds: f64| match seconds {
            ..60.0 => "under a minute".to_owned(),
            _ => self.shop.units.say(seconds / 60.0, Unit::Minutes),
        };
        let mut words = format!("{} beads in their order: {} of arc", order.beads.len(), say(order.arc_s));
        if order.waiting_s > 0.0 {
            words += &format!(", {} of waiting", say(order.waiting_s));
        }
        match order.reheats {
            0 => {}
            1 => words += &format!(", a reheat of {}", say(order.reheating_s())),
            times => words += &format!(", {times} reheats of {} in all", say(order.reheating_s())),
        }
        words
    }
}

fn built_up_words(beads: f64, waits: impl Fn(f64) -> String) -> String {
    if beads > 0.0 { format!("; {} to build up", waits(beads)) } else { String::new() }
}

/// How often the part is turned over: from bead to bead to the other side of the wall.
fn turned(order: &BeadSchedule, seams: &[SeamOfBeads]) -> usize {
    let side = |at: usize| {
        let place = order.beads[at].place;
        seams[place.seam].seam.passes[place.pass].side
    };
    (1..order.beads.len()).filter(|at| side(*at) != side(*at - 1)).count()
}
