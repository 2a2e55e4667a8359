//! Where the next bead goes, when it may start, and what the seams look like by now.

use std::sync::Arc;

use serde::{Deserialize, Serialize};

use super::BeadOnFace;
use crate::heat::{BarPower, BeadCourse, BeadPlace, BeadSchedule, Burning, Burnt, Laid, PlannedBead, Runs};
use crate::job::{BeadAt, Deed, HeatState, Reading, Round, TorchEntry};
use crate::quantity::{Unit, UnitSystem, Watts};
use crate::stage::HeatPlan;
use crate::stage::method::ToFill;
use crate::stage::prep::SeamOfBeads;

/// The beads of the seams, laid and to be laid.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BeadsPlan {
    pub seams: Vec<SeamStrip>,
    /// Those to be laid, in their order: the first is the next. Where it never comes to its end there is none.
    pub ahead: Vec<NextBead>,
    /// "In this order 9 min of waiting, from end to end 12." Empty where nothing is waited for.
    pub waits_words: String,
    /// Why there is no order: the heat does not reach, or it never falls under the most. Empty else.
    pub never: String,
    /// Of all that is to be laid, in min.
    pub arc_min: f64,
    pub waiting_min: f64,
    pub elapsed_min: f64,
    pub reheats: usize,
    /// What can be said at once of them, the least first: a layer, a side, a seam. Empty where one bead is left of it.
    pub at_once: Vec<AtOnce>,
}

/// Beads that are said at once.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct AtOnce {
    /// "Layer 2 of A: the 7 that are left"
    pub words: String,
    /// In the order in which they are laid.
    pub at: Vec<BeadAt>,
    /// How long they take in this order, with what is waited for, in min.
    pub over_min: f64,
}

/// One seam, from its first end to its last.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SeamStrip {
    pub crack: uuid::Uuid,
    pub letter: String,
    pub length_mm: f64,
    /// What lies at its ends: "stop-hole", "edge", "branch" ...
    pub ends: [String; 2],
    /// No front: an open edge.
    pub open: [bool; 2],
    pub layers: Vec<LayerStrip>,
    /// Its stop-holes that are filled, each a bead.
    pub holes: Vec<StripBead>,
}

/// The beads of one layer on one side.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LayerStrip {
    pub layer: u32,
    pub side: u32,
    /// "layer 1", "layer 2, far side"
    pub words: String,
    pub beads: Vec<StripBead>,
}

/// One bead on the strip.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StripBead {
    pub at: BeadAt,
    /// Along the seam, the lesser first.
    pub from_mm: f64,
    pub to_mm: f64,
    /// In the order in which it was or is to be laid, from 1; 0 where that is not known.
    pub number: u32,
    pub laid: bool,
    /// It is laid towards the first end.
    pub leftward: bool,
}

/// A bead to be laid.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct NextBead {
    pub at: BeadAt,
    pub number: u32,
    /// "Bead 5 of 12, A: from 75 to 50 mm, layer 1."
    pub words: String,
    /// What comes before it: "Turn it first." Empty for most.
    pub before: String,
    /// Along its seam, where it begins and ends.
    pub from_mm: f64,
    pub to_mm: f64,
    /// Of the first of them, where it lies on the map; empty where its crack is not drawn.
    pub on_map: Vec<BeadOnFace>,
    /// Minutes on the job clock when it may start, and end; from the beginning of the beads while it is not lit.
    pub start_min: f64,
    pub ends_min: f64,
    pub wait_s: f64,
    /// It is reheated first, for so long.
    pub reheat_s: f64,
    /// The hottest place on its span as it begins, in degC.
    pub before_c: f64,
}

/// The next bead by now.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LiveBead {
    pub number: u32,
    /// From now on, in s; 0 where it may start.
    pub wait_s: f64,
    /// Minutes on the job clock when it may start.
    pub start_min: f64,
    /// Where it goes, the hottest place there now, in degC: worked out, not measured.
    pub there_c: f64,
}

/// What the order is worked out from, kept for the next reading.
#[derive(Debug, Clone, PartialEq)]
pub struct BeadsAhead {
    course: Arc<BeadCourse>,
    /// Ended on the job clock, in s.
    laid: Vec<Laid>,
    next: Option<(BeadPlace, u32)>,
    /// The part as a whole over its coldest place, in K.
    lead_k: f64,
    /// What heated it, and when.
    burnt: Burnt,
}

/// Ours: a wait, or a gain, that is under this is not spoken of.
pub(super) const WORTH_SAYING_S: f64 = 30.0;

/// A part as it is known to be: as a whole, at a moment of the job clock in s.
#[derive(Debug, Clone, Copy)]
struct Known {
    bulk_c: f64,
    at_s: f64,
}

/// What the beads are put in order from.
pub(crate) struct BeadsAsked<'a> {
    pub round: &'a Round,
    pub heat: &'a HeatPlan,
    pub to_fill: ToFill,
    /// All there are, those that build up missing metal among them: these have no order.
    pub planned: u32,
    pub runs: &'a Runs,
    pub units: UnitSystem,
}

impl BeadsAsked<'_> {
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
            let taken = self.runs.bead_order(course, bulk_c);
            let of = |taken: BeadSchedule| {
                // What is not waited for is compared with nothing.
                let compared = !taken.end_to_end && taken.waiting_s >= WORTH_SAYING_S;
                let waits_s = compared.then(|| self.runs.end_to_end_waiting_s(course, bulk_c)).flatten();
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
    fn known(&self, laid: &[Laid]) -> Option<Known> {
        if let Some(Reading { minutes, celsius }) = self.round.latest_reading() {
            return Some(Known { bulk_c: celsius + self.lead_k(minutes), at_s: minutes * 60.0 });
        }
        let first_s = laid.iter().map(|it| it.ended_s).filter(|at| *at >= 0.0).reduce(f64::min)?;
        let begins_c = self.to_fill.begins_c;
        Some(Known { bulk_c: begins_c, at_s: (first_s - self.seams()[0].seam.each_s()).max(0.0) })
    }

    /// What heated it, and when, in s on the job clock: by what was said, a bead from its beginning on.
    fn burnt(&self, laid: &[Laid]) -> Burnt {
        let power = self.to_fill.power;
        let by = |state: HeatState| match (state, power) {
            (HeatState::HeldOver, _) => Burning::Kept,
            (HeatState::InTheHeat, Some(power)) => Burning::by(power, self.to_fill.begins_c),
            (HeatState::HeldAtJoint, Some(power @ BarPower::Flame { .. })) => {
                Burning::Held { net_w: power.net_w() }
            }
            // Out of the oven, and some flame holds it: which one, nobody has said.
            (HeatState::HeldAtJoint, Some(_)) => Burning::Kept,
            (HeatState::InTheHeat | HeatState::HeldAtJoint | HeatState::Out, _) => Burning::Off,
        };
        let began_s = |ended_s: f64| {
            let bead = laid.iter().find(|it| (it.ended_s - ended_s).abs() < 1e-6);
            bead.map_or(ended_s, |it| ended_s - self.seams()[it.place.seam].seam.each_s())
        };
        let states = self.round.states_of_heat().into_iter();
        Burnt::new(states.map(|(minutes, state)| (began_s(minutes * 60.0), by(state))).collect())
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
        let heating = self.heat.run_to_target(&self.to_fill.body, power, self.runs)?;
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
    fn laid(&self) -> Vec<Laid> {
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
            && let Some(planned) = self.runs.bead_order(course, *begins_c).as_ref()
        {
            in_turn = planned.beads.iter().map(|it| it.place).filter(|it| !said.contains(it)).collect();
        }
        let mut in_turn = in_turn.into_iter();
        entries()
            .filter_map(|(ended_s, place)| Some(Laid { place: place.or_else(|| in_turn.next())?, ended_s }))
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

    fn shown(&self, schedule: Option<&BeadSchedule>, laid: &[Laid], from_s: f64) -> BeadsPlan {
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
            let beads: Vec<&PlannedBead> = ahead.iter().filter(|it| is_of_it(it.place)).collect();
            let [first, .., last] = beads.as_slice() else { continue };
            if groups.last().is_some_and(|before| before.at.len() == beads.len()) {
                continue;
            }
            groups.push(AtOnce {
                words: format!("{words}: the {} that are left", beads.len()),
                at: beads.iter().map(|it| self.at(it.place)).collect(),
                over_min: (last.ends_s - first.start_s).max(0.0) / 60.0,
            });
        }
        groups
    }

    fn waits(&self, schedule: &BeadSchedule) -> String {
        let say = |seconds: f64| self.units.say(seconds / 60.0, Unit::Minutes);
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
    fn before(&self, at: usize, ahead: &[PlannedBead], laid: &[Laid]) -> String {
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

    /// A bead as it stands on the strip.
    fn strip_bead(
        &self,
        place: BeadPlace,
        (from_mm, to_mm): (f64, f64),
        ahead: &[PlannedBead],
        laid: &[Laid],
    ) -> StripBead {
        let laid_as = laid.iter().position(|it| it.place == place);
        let to_come = ahead.iter().position(|it| it.place == place);
        let number = laid_as.or(to_come.map(|at| laid.len() + at)).map_or(0, |at| at + 1);
        StripBead {
            at: self.at(place),
            from_mm,
            to_mm,
            number: number as u32,
            laid: laid_as.is_some(),
            leftward: to_come.is_some_and(|at| ahead[at].from_mm > ahead[at].to_mm),
        }
    }

    fn holes(&self, seam: usize, ahead: &[PlannedBead], laid: &[Laid]) -> Vec<StripBead> {
        let of_it = |hole: &crate::heat::HoleOf| hole.seam == seam;
        let holes = self.seams().iter().enumerate();
        let holes = holes.filter_map(|(at, it)| Some((at, it.seam.hole_of.filter(of_it)?)));
        let bead = |(at, hole): (usize, crate::heat::HoleOf)| {
            let end_mm = if hole.last { self.seams()[seam].seam.length_mm } else { 0.0 };
            let place = BeadPlace { seam: at, pass: 0, lane: 0, along: 0 };
            self.strip_bead(place, (end_mm, end_mm), ahead, laid)
        };
        holes.map(bead).collect()
    }

    fn strip(&self, seam: usize, ahead: &[PlannedBead], laid: &[Laid]) -> SeamStrip {
        let of = &self.seams()[seam];
        let each_mm = of.seam.each_mm();
        let layer = |(pass, lanes): (usize, &crate::heat::BeadPass)| {
            let places = (0..lanes.offsets_mm.len()).flat_map(|lane| {
                (0..of.seam.along()).map(move |along| BeadPlace { seam, pass, lane, along })
            });
            let gone = |place: &BeadPlace| {
                let BeadPlace { pass, lane, along, .. } = *place;
                of.seam.left_out.contains(&crate::heat::LeftOut { pass, lane, along })
            };
            let bead = |place: BeadPlace| {
                let (from_mm, to_mm) = (place.along as f64 * each_mm, (place.along + 1) as f64 * each_mm);
                self.strip_bead(place, (from_mm, to_mm), ahead, laid)
            };
            let side = if lanes.side == 2 { ", far side" } else { "" };
            LayerStrip {
                layer: lanes.layer,
                side: lanes.side,
                words: format!("layer {}{side}", lanes.layer),
                beads: places.filter(|place| !gone(place)).map(bead).collect(),
            }
        };
        SeamStrip {
            crack: of.crack,
            letter: of.letter.clone(),
            length_mm: of.seam.length_mm,
            ends: of.ends.map(|end| end.map_or_else(String::new, |end| end.words().to_owned())),
            open: of.seam.closed.map(|closed| !closed),
            layers: of.seam.passes.iter().enumerate().map(layer).collect(),
            holes: self.holes(seam, ahead, laid),
        }
    }
}

/// The same beads, on a clock that begins then.
fn since(laid: &[Laid], from_s: f64) -> Vec<Laid> {
    laid.iter().map(|it| Laid { ended_s: it.ended_s - from_s, ..*it }).collect()
}

impl BeadsAhead {
    /// Minutes on the job clock at which the last bead was laid.
    pub(super) fn last_laid_min(&self) -> Option<f64> {
        self.laid.iter().map(|it| it.ended_s / 60.0).reduce(f64::max)
    }

    /// The part as a whole at a time in s: since it was read it fell or was held, and the beads laid since have warmed
    /// it.
    fn bulk_c(&self, reading: Reading, now_s: f64) -> f64 {
        let read_s = reading.minutes * 60.0;
        let (laid, burnt) = (since(&self.laid, read_s), self.burnt.since(read_s));
        self.course.bulk_after(reading.celsius + self.lead_k, now_s - read_s, &laid, &burnt)
    }

    /// Its coldest place by now, for all that is known.
    pub(super) fn coldest_c(&self, reading: Reading, now_min: f64) -> f64 {
        self.bulk_c(reading, now_min.max(reading.minutes) * 60.0) - self.lead_k
    }

    /// The next bead by now, from a reading of the part on; nothing where none is to come, or it never may.
    #[must_use]
    pub fn live(&self, reading: Reading, now_min: f64) -> Option<LiveBead> {
        let (place, number) = self.next?;
        let now_s = now_min.max(reading.minutes) * 60.0;
        let bulk_c = self.bulk_c(reading, now_s);
        let may = self.course.may_begin(bulk_c, &since(&self.laid, now_s), place)?;
        let wait_s = may.wait_s + may.reheat_s;
        Some(LiveBead { number, wait_s, start_min: (now_s + wait_s) / 60.0, there_c: may.now_c })
    }
}
