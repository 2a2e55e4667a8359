//! What is set and ground before it is filled: pins and grooves.

use super::super::PrepInputs;
use super::super::seam::SeamPlan;
use super::List;
use crate::crack::said::SeamReach;
use crate::field::crack;
use crate::job::Work;
use crate::prep::said::SeamForm;
use crate::quantity::Unit;
use crate::render::upper;
use crate::stage::cracks::OFF_HARD_SPOT_MM;
use crate::stage::prep::{GroundSays, PinsThat};

impl<'a> List<'a> {
    pub(super) fn pins(&mut self, seams: &[SeamPlan]) {
        let locks: u32 = seams.iter().map(|seam| seam.locks).sum();
        if let Some(seam) = seams.iter().find(|seam| seam.locks > 0) {
            let long = self.say(seam.lock_mm);
            let word = if locks == 1 { "lock" } else { "locks" };
            self.line(
                Work::Pins,
                (None, Some(3)),
                format!(
                    "{locks} {word} across the crack first, spread along it; then the pins between them."
                ),
                vec![format!("{long} long")],
            );
        }
        for (number, seam) in (4..).zip(seams.iter().filter(|seam| seam.patch.is_some())) {
            self.line(
                Work::Pins,
                (None, Some(number)),
                format!(
                    "Set the patch in at {}, filed to fit and held flush: {}.",
                    seam.letter,
                    match seam.pins_that {
                        Some(PinsThat::Push) => {
                            "four anchors at the quarters first, then each gap from an anchor on"
                        }
                        Some(PinsThat::Draw) | None => "every second pin first, then those between",
                    }
                ),
                vec![
                    if seam.pins_that == Some(PinsThat::Push) { "plain pins" } else { "pins that draw in" }
                        .to_owned(),
                ],
            );
        }
        let that = |pins: PinsThat| seams.iter().any(|seam| seam.pins_that == Some(pins));
        if that(PinsThat::Draw) && that(PinsThat::Push) {
            self.line(
                Work::Pins,
                (None, Some(1_000)),
                "Along a crack pins that draw its sides together; round a patch plain ones, which push outwards."
                    .to_owned(),
                Vec::new(),
            );
        }
        let keep = self.prep().units.say_least(OFF_HARD_SPOT_MM, Unit::Millimetres);
        self.once(Work::Pins, "Drill and tap pin by pin; each one cuts into its neighbour.");
        self.line(
            Work::Pins,
            (None, Some(2)),
            "Keep off any hard spot. If the drill skates, stop and cut it out.".to_owned(),
            vec![format!("{keep} off")],
        );
    }

    /// Which seams first: what closes up once it is joined, then the rest as they were found.
    fn in_turn<'s>(&self, seams: &'s [SeamPlan]) -> Vec<&'s SeamPlan> {
        let closes = |seam: &&SeamPlan| self.prep().round.get(crack::CLOSES.of(seam.id)) == Some(true);
        let (first, then): (Vec<_>, Vec<_>) = seams.iter().partition(closes);
        first.into_iter().chain(then).collect()
    }

    pub(super) fn grooves(&mut self, seams: &[SeamPlan]) {
        let PrepInputs { round, both_sides, way, .. } = *self.prep();
        let mut face_up = None;
        for seam in self.in_turn(seams) {
            let reach = round.get(crack::REACH.of(seam.id));
            let gets = |tool: SeamReach| reach.as_ref().is_none_or(|reach| reach.contains(&tool));
            let closes = round.get(crack::CLOSES.of(seam.id)) == Some(true);
            let letter = &seam.letter;
            let face =
                self.inputs.laid.cracks.get(&seam.id).and_then(|laid| laid.lines.first()).map(|l| l.face);
            if let Some(face) = face.filter(|_| face_up != face) {
                face_up = Some(face);
                let laid = &self.inputs.laid.faces[face];
                let name = &laid.name;
                let first = match closes {
                    true => format!("First, since it closes up once joined: {name}"),
                    false => upper(name),
                };
                let sentence = format!(
                    "{first} up, on bricks under sound metal, so that no heat drains into the bench and nothing \
                     shifts."
                );
                self.line(Work::Turn, (Some(laid.face.id), None), sentence, Vec::new());
            }
            let settings: Vec<String> = seam
                .usual
                .iter()
                .map(|_| seam.depth_words.clone())
                .chain(seam.usual.iter().map(|_| format!("{} wide", seam.opens_words)))
                .collect();
            let opened = match (gets(SeamReach::Disc), gets(SeamReach::Burr), gets(SeamReach::Chisel)) {
                (true, _, _) => "with a thin cut-off disc, down its middle",
                (false, true, _) => "with a burr: a disc does not get there",
                (false, false, true) => "with a chisel: neither disc nor burr gets there",
                (false, false, false) => "by another way in: no tool that was named gets there",
            };
            self.line(Work::Open, (Some(seam.id), None), format!("{letter}, {opened}."), Vec::new());
            let shaped = match (seam.form, gets(SeamReach::Burr), gets(SeamReach::Disc)) {
                (Some(SeamForm::U), true, _) => "round at its root, with a burr",
                (_, _, true) => "with a thicker disc",
                (_, true, _) => "with a burr",
                (..) => "with a chisel",
            };
            let mut sentence = format!("{letter}, {shaped}. Read the depth along it; at the lip stop.");
            if seam.is_double() {
                sentence = if closes || !both_sides {
                    format!(
                        "{letter}, {shaped}: the side that closes up first, then back to sound filler from the other."
                    )
                } else {
                    format!(
                        "{letter}, {shaped}: one side, then back to sound filler from the other. Read the depth."
                    )
                };
            }
            if !gets(SeamReach::Eye) {
                sentence.push_str(" Nobody sees into it: a mirror, or another way in.");
            }
            if !gets(SeamReach::Torch) {
                sentence.push_str(" The torch does not get there: another way in, or pins.");
            }
            self.line(Work::Shape, (Some(seam.id), None), sentence, settings);
            let through = !seam.is_double() && seam.wall_mm - seam.depth_mm < 0.05;
            let cut = seam.read.iter().any(|read| match read.says {
                GroundSays::Through => true,
                GroundSays::IntoTheLip => !seam.is_double(),
                GroundSays::GoOn | GroundSays::Stop => false,
            });
            if cut || (through && way.method.entry().arc.is_none()) {
                let why = if cut { "it was cut deeper than the lip" } else { "the groove goes through" };
                let sentence = format!("Behind {letter}, copper or carbon plate, or clay: {why}.");
                self.line(Work::Backing, (Some(seam.id), None), sentence, Vec::new());
            }
        }
    }
}
