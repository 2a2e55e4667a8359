//! Holes at the ends: drilled, punched, countersunk.

use uuid::Uuid;

use super::super::PrepInputs;
use super::super::seam::SeamPlan;
use super::{List, told_apart};
use crate::crack::said::CrackFate;
use crate::crack::stop_hole::drill_under;
use crate::job::Work;
use crate::prep::drill_speed::{DrillTool, drill_speed_rpm};
use crate::quantity::{Millimetres, Unit};
use crate::stage::cracks::{CrackPlan, EndPlan};

impl<'a> List<'a> {
    /// All punched first, then bit by bit: a drill is changed as seldom as can be.
    pub(super) fn holes(&mut self, seams: &[SeamPlan]) {
        let PrepInputs { cracks, drills_mm, .. } = *self.prep();
        let slowest = self.inputs.slowest;
        let pinned = self.prep().way.method.pins();
        // Where pins are set the end pin stops the crack.
        let open: Vec<(&CrackPlan, usize, &EndPlan)> = cracks
            .iter()
            .filter(|plan| !pinned || plan.becomes != CrackFate::Repair)
            .flat_map(|plan| plan.ends.iter().enumerate().map(move |(at, end)| (plan, at, end)))
            .filter(|(_, _, end)| end.stop_hole.is_some() && !end.drilled)
            .collect();
        self.punched(&open);
        let named = |of: &[&(&CrackPlan, usize, &EndPlan)]| -> String {
            let ends: Vec<String> =
                of.iter().map(|(plan, _, end)| format!("{} {}", plan.letter, end.name)).collect();
            ends.join(", ")
        };
        let speed = |mm: f64| {
            let rpm = Millimetres::new(mm).ok().map(|drill| drill_speed_rpm(slowest, drill, DrillTool::Hss));
            rpm.map(|rpm| self.prep().units.say(rpm, Unit::Rpm))
        };
        // The size and the holes: one more of this size, and the line is open again.
        let which = |mm: f64, of: &[&(&CrackPlan, usize, &EndPlan)]| {
            let size = (mm * 100.0).round() as u32;
            told_apart(of.iter().map(|(plan, at, _)| (plan.id, size * 10 + *at as u32)))
        };
        let by_size = |size: &dyn Fn(&EndPlan) -> Option<f64>| {
            let mut sizes: Vec<f64> = open.iter().filter_map(|(_, _, end)| size(end)).collect();
            sizes.sort_by(f64::total_cmp);
            sizes.dedup();
            let of =
                |mm: f64| open.iter().filter(move |(_, _, end)| size(end) == Some(mm)).collect::<Vec<_>>();
            sizes.into_iter().map(|mm| (mm, of(mm))).collect::<Vec<_>>()
        };
        let pilot = |end: &EndPlan| Some(drill_under(end.stop_hole?.pilot_mm?, drills_mm));
        let mut lines = Vec::new();
        for (mm, of) in by_size(&pilot) {
            let settings = [Some(self.drill(mm)), speed(mm)].into_iter().flatten().collect();
            lines.push((Work::Pilot, which(mm, &of), format!("{}, dry.", named(&of)), settings));
        }
        let drill = |end: &EndPlan| Some(end.stop_hole?.drill_mm);
        for (mm, of) in by_size(&drill) {
            let settings: Vec<String> = [Some(self.drill(mm)), speed(mm)].into_iter().flatten().collect();
            let blind: Vec<_> = of.iter().filter(|(_, _, end)| end.blind).copied().collect();
            let through: Vec<_> = of.iter().filter(|(_, _, end)| !end.blind).copied().collect();
            let mut sentence = String::new();
            if !through.is_empty() {
                sentence = format!("{}: through, dry; ease the feed before it breaks out.", named(&through));
            }
            if !blind.is_empty() {
                let lip = self.say(crate::prep::groove::usual_lip_mm(blind[0].2.wall_mm));
                let space = if sentence.is_empty() { "" } else { " " };
                sentence = format!(
                    "{sentence}{space}{}: blind, {lip} short of the far side, a face that is not to be touched.",
                    named(&blind)
                );
            }
            lines.push((Work::Drill, which(mm, &of), sentence, settings));
        }
        for (what, which, sentence, settings) in lines {
            self.line(what, (None, Some(which)), sentence, settings);
        }
        self.countersunk(&open, seams);
    }

    /// Where each hole is punched.
    fn punched(&mut self, open: &[(&CrackPlan, usize, &EndPlan)]) {
        for (plan, at, end) in open {
            let Some(hole) = end.stop_hole else { continue };
            let past = self.say(end.further_mm + hole.offset_mm);
            let (letter, name) = (&plan.letter, &end.name);
            let measured = end.at.as_ref().map(|at| at.measured.join(", ")).unwrap_or_default();
            let sentence = if measured.is_empty() {
                format!("{letter}, {name} end: {past} past the tip, in the line of the crack.")
            } else {
                format!("{letter}, {name} end: {measured}; {past} past the tip.")
            };
            self.line(Work::Punch, (Some(plan.id), Some(*at as u32 + 1)), sentence, Vec::new());
        }
    }

    /// Each hole opened as wide as its groove.
    fn countersunk(&mut self, open: &[(&CrackPlan, usize, &EndPlan)], seams: &[SeamPlan]) {
        let sinks: Vec<(Uuid, u32, String, String)> = open
            .iter()
            .filter_map(|(plan, at, end)| {
                let seam = seams.iter().find(|seam| seam.id == plan.id && seam.section.is_some())?;
                let wide = self.say(2.0 * seam.half_width_mm(end.wall_mm));
                Some((
                    plan.id,
                    *at as u32 + 1,
                    format!("{}, {} end.", plan.letter, end.name),
                    format!("to {wide}"),
                ))
            })
            .collect();
        for (crack, number, sentence, wide) in sinks {
            self.line(Work::Countersink, (Some(crack), Some(number)), sentence, vec![wide]);
        }
    }
}
