//! How a method is done on this job, where practice differs.

use super::MethodContext;
use crate::field;
use crate::heat::{HeatSource, Packing};
use crate::method::customs::{
    After, BeadLength, BrazePreheat, Dirt, Fixture, GrooveDepth, OldWeld, Peening, PinDensity, Polarity,
    Pores,
};
use crate::method::{Effect, Fired, MethodId, Ruling, School, Way};
use crate::quantity::Unit;
use crate::render::said;
use crate::stage::taught::{
    AFTER, BEAD, BRAZE_HEAT, DENSITY, DIRT, FIXTURE, GAS_HEAT, GROOVE, OLD_WELD, PEENING, POLARITY, PORES,
    PREHEAT,
};

impl MethodContext<'_> {
    /// The seam and what lies round it can be warmed for a method that may be done so.
    pub(super) fn seam_reached(&self, method: MethodId) -> bool {
        let way = Way { method, school: School::Local };
        let at = self.target_of(way).zip(self.sources_of(way));
        at.is_some_and(|(target, sources)| sources.reach(&target).is_some())
    }

    /// Of each choice that is in force and moves no figure here: why.
    fn moves_nothing(&self, way: Way) -> Vec<String> {
        let none_moves = [
            (
                self.taught(&GROOVE, way) == GrooveDepth::Through && self.both_sides(),
                "through: from both sides the grooves meet in the middle, no figure moves",
            ),
            (
                self.taught(&FIXTURE, way) == Fixture::Tacks,
                "held for its tacks only: it is free again before the heat, no figure moves",
            ),
            (
                self.taught(&FIXTURE, way) == Fixture::Clamped,
                "clamped to a plate: it stays flat and keeps its pull in, no figure moves",
            ),
            (
                self.taught(&OLD_WELD, way) == OldWeld::Over && !self.old_filler_left(way),
                "over sound parts of an old weld: none that matters to it is known here, no figure moves",
            ),
            (
                self.taught(&POLARITY, way) == Polarity::Minus,
                "holder in minus: it digs less and takes up less of the iron, no figure moves",
            ),
            (
                self.taught(&POLARITY, way) == Polarity::Ac,
                "alternating: as the box says, at the same amperes, no figure moves",
            ),
            (
                self.taught(&PORES, way) == Pores::All,
                "every pore refilled: what there is of them is found at the check, no figure moves before",
            ),
            (
                self.taught(&PEENING, way) == Peening::Light,
                "peened lightly: as many blows, each lighter, no figure moves",
            ),
            (
                self.taught(&DENSITY, way) == PinDensity::Bridged,
                "every second pin first, then those between: as many in the end, no figure moves",
            ),
            (
                self.taught(&BRAZE_HEAT, way) == BrazePreheat::ArcOnly && way.school != School::ArcOnly,
                "not by the arc alone: it warms {1 kg} at most, this part is warmed first",
            ),
        ];
        let here = none_moves.into_iter().filter(|(here, _)| *here);
        here.map(|(_, why)| said(why, self.part.units)).collect()
    }

    /// The school that stands for a method: the welder's for the method they chose, else hot if it is
    /// reached evenly and something to pack it in is at hand, else warm if so, else cold. A fall that is
    /// too fast is a caution, never a reason against a school.
    fn school_by_itself(&self, method: MethodId, ruling: &Ruling) -> (School, Vec<String>) {
        let mut schools: Vec<School> = method.schools().collect();
        let mut said = Vec::new();
        let chosen = self.round.get(field::method::CHOICE) == Some(method);
        let wanted = self.round.get(field::method::SCHOOL).filter(|_| chosen);
        if let Some(wanted) = wanted.filter(|school| schools.contains(school)) {
            return (wanted, vec![format!("{}: the welder's choice", wanted.word())]);
        }
        // The seam alone is nobody's first choice: it is offered.
        schools.retain(|school| *school != School::Local);
        // The arc alone where it is known to warm the part, and first there.
        if self.warmed_by_the_arc().is_some_and(|it| it.is_ok()) {
            schools.sort_by_key(|school| *school != School::ArcOnly);
        } else {
            schools.retain(|school| *school != School::ArcOnly);
        }
        let out = |school: School| {
            let fired = |it: &&Fired| it.method == method && it.school == Some(school);
            ruling.fired.iter().filter(fired).find(|it| it.effect == Effect::Exclude)
        };
        // As it is done on this job, or in this shop, where that is not ruled out.
        let (round, shop) = (self.round, self.shop);
        let own = [
            PREHEAT.for_method(method, round, shop).school(),
            BRAZE_HEAT.for_method(method, round, shop).school(),
            GAS_HEAT.for_method(method, round, shop).school(),
        ];
        let own = own.into_iter().flatten().next();
        if let Some(own) = own.filter(|own| method.schools().all(|it| it != *own)) {
            said.push(format!("not {}: this way has no such heat, no figure moves", own.word()));
        }
        if let Some(own) = own.filter(|own| schools.contains(own)) {
            match out(own) {
                None => return (own, vec![format!("{}: as it is done here", own.word())]),
                Some(fired) => said.push(format!("not {}: {}", own.word(), fired.sentence)),
            }
        }
        let slow = self.shop.packings_at_hand().iter().any(|packing| *packing != Packing::Air)
            || self.shop.heat_sources().any(HeatSource::is_oven);
        for &school in &schools {
            let way = Way { method, school };
            if let Some(fired) = out(school) {
                let why = format!("not {}: {}", school.word(), fired.sentence);
                if !said.contains(&why) {
                    said.push(why);
                }
                continue;
            }
            if !matches!(school, School::Hot | School::Warm) {
                return (school, said);
            }
            let Some(target) = self.target_of(way) else { continue };
            let Some(sources) = self.sources else {
                said.push(format!("not {}: weight, size, shape or heat not known", school.word()));
                continue;
            };
            match sources.reach(&target) {
                Some(reached) if !reached.even_enough => {
                    let worst = self.part.units.say_least(reached.worst_k, Unit::Kelvins);
                    said.push(format!("not {}: it heats unevenly, by {worst}", school.word()));
                }
                Some(_) if !slow => {
                    said.push(format!("not {}: nothing but still air to cool it in", school.word()));
                }
                Some(_) => return (school, said),
                None => {}
            }
        }
        // Where every school is out, the first one stands for the method and says why.
        (schools.first().copied().unwrap_or(School::NoHeat), said)
    }

    /// The school that stands for a method, and what is said of the others: where the seam alone can be warmed, that it
    /// can be chosen.
    pub(super) fn school_of(&self, method: MethodId, ruling: &Ruling) -> (School, Vec<String>) {
        let (school, mut said) = self.school_by_itself(method, ruling);
        said.extend(self.moves_nothing(Way { method, school }));
        let way = Way { method, school: School::Local };
        let local = school != School::Local && method.schools().any(|it| it == School::Local);
        if !local || self.sources_of(way).is_none() {
            return (school, said);
        }
        let reached = |school: School| {
            let target = self.target_of(Way { method, school });
            target.zip(self.sources).is_some_and(|(target, sources)| sources.reach(&target).is_some())
        };
        let whole = method.schools().filter(|it| it.preheats() && *it != School::Local).any(reached);
        let there = self.seam_reached(method);
        if there && !whole {
            said.push(
                "or local, where that is chosen: the part is too large for the heat at hand, its seam is not"
                    .to_owned(),
            );
        } else if there && self.part.shape.is_some() && !self.part.restraint().holds() {
            said.push(
                "or local, where that is chosen: the part is open and can expand round its seam".to_owned(),
            );
        }
        (school, said)
    }

    /// House: short beads are 10 mm, long ones half as long again as their heat asks.
    pub(super) fn bead_mm(&self, way: Way) -> f64 {
        /// House: a short bead.
        const SHORT_MM: f64 = 10.0;
        let usual = way.bead_mm();
        match self.taught(&BEAD, way) {
            BeadLength::Short => usual.min(SHORT_MM),
            BeadLength::Long => usual * 1.5,
            BeadLength::Usual => usual,
        }
    }

    /// What is said of a choice that most would not make.
    pub(super) fn taught_cautions(&self, way: Way) -> Vec<String> {
        let clamped = if way.school.preheats() {
            "Clamped while it is hot it cannot move, and cracks beside the bead: free on bricks."
        } else {
            "Clamped it stays flat and keeps its pull in: it may crack when it is let go."
        };
        let said = [
            (self.taught(&FIXTURE, way) == Fixture::Clamped, clamped),
            (self.taught(&DIRT, way) == Dirt::Flux, "What is not cleaned off makes pores, flux or not."),
            (
                self.taught(&DENSITY, way) == PinDensity::Anchors,
                "A few anchors and epoxy seal, and carry nothing.",
            ),
            (
                self.taught(&AFTER, way) == After::Still,
                "Shortly heated and left in still air: for thin walls, not for thick ones.",
            ),
            (
                self.taught(&OLD_WELD, way) == OldWeld::Over,
                "The old weld stays under the new one, with whatever broke it.",
            ),
        ];
        said.into_iter().filter(|(is, _)| *is).map(|(_, sentence)| sentence.to_owned()).collect()
    }
}
