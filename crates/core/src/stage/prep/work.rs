//! The order of the work as a list: made from the map and the groove, each line with its settings.

use serde::Serialize;
use uuid::Uuid;

use super::seam::{SeamPlan, rounded};
use super::{PrepAsked, PrepPlan, said_as_a_whole};
use crate::casting::old_filler::OldFiller;
use crate::crack::said::CrackFate;
use crate::crack::said::Edges;
use crate::crack::said::EndKind;
use crate::crack::stop_hole::{FoundBy, drill_under};
use crate::field::{self, crack};
use crate::iron::{Iron, LookTest};
use crate::job::{Work, WorkStep};
use crate::map::MarkKind;
use crate::prep::drill_speed::{DrillTool, drill_speed_rpm};
use crate::prep::groove::bright_margin_mm;
use crate::quantity::{Millimetres, Unit, UnitSystem};
use crate::render::{said, upper};
use crate::stage::cracks::{CrackPlan, EndPlan, Laid, OFF_HARD_SPOT_MM};

/// One line of the work list.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WorkLine {
    pub step: WorkStep,
    /// "Drill"
    pub word: String,
    pub sentence: String,
    /// "8 mm", "995 rpm": what is set for it.
    pub settings: Vec<String>,
    /// It was ticked, or measured, or said to be done as a whole.
    pub done: bool,
    /// What this work shows of the iron by the way, where nobody has said it yet: the chip of a hole, the sparks of
    /// a cut.
    pub tells: Option<LookTest>,
}

/// What the list is made from beside what the seams are.
pub(crate) struct WorkAsked<'a> {
    pub prep: &'a PrepAsked<'a>,
    pub laid: &'a Laid<'a>,
    /// The iron that takes the slowest drill of those it may be.
    pub slowest: Iron,
    /// Tests of the iron that nobody has done, while not enough is known of it.
    pub untold: Vec<LookTest>,
}

/// Oil is baked out at this, in degC, so long at least and so much longer for each mm of wall. House.
pub(crate) const BAKE_C: f64 = 370.0;
pub(crate) const BAKE_MIN: (f64, f64) = (30.0, 2.0);
/// Solvent and penetrant are dried out at this, in degC. House.
const DRIED_C: f64 = 200.0;
/// A burnt, melted or flame-cut edge is taken back at least so far. House.
const BACK_MM: f64 = 6.0;
/// Water is dried out at this, in degC. House.
const DRY_C: f64 = 120.0;

struct List<'a> {
    asked: &'a WorkAsked<'a>,
    lines: Vec<WorkLine>,
    /// What tells these cracks from any others: a line that is about all of them is open again when one more is found.
    of_all: u32,
}

/// What tells these things from any others.
fn told_apart(things: impl Iterator<Item = (Uuid, u32)>) -> u32 {
    const PRIME: u32 = 16_777_619;
    things.fold(2_166_136_261, |so_far, (id, number)| {
        let id =
            id.as_bytes().iter().fold(so_far, |so_far, byte| (so_far ^ u32::from(*byte)).wrapping_mul(PRIME));
        (id ^ number).wrapping_mul(PRIME)
    })
}

/// The list of a way, in the order of the work.
pub(crate) fn work_list(asked: &WorkAsked<'_>, plan: &PrepPlan) -> Vec<WorkLine> {
    let cracks = asked.prep.cracks.iter().filter(|crack| crack.worked());
    let of_all = told_apart(cracks.map(|crack| (crack.id, 0)));
    let mut list = List { asked, lines: Vec::new(), of_all };
    list.found();
    list.holes(&plan.seams);
    if asked.prep.way.method.pins() {
        list.pins(&plan.seams);
    } else {
        if asked.prep.way.method.entry().groove.is_some() {
            list.grooves(&plan.seams);
        }
        list.rest(&plan.seams);
    }
    let ticked = &asked.prep.round.ticked;
    for line in &mut list.lines {
        line.done = ticked.contains(&line.step) || done_as_a_whole(asked.prep, plan, line.step);
    }
    tell(&mut list.lines, &asked.untold);
    list.lines
}

/// The first hole and the first cut are tests of the iron, done without leaving a mark of their own.
fn tell(lines: &mut [WorkLine], untold: &[LookTest]) {
    for test in untold {
        let works = match test {
            LookTest::Drill => [Work::Pilot, Work::Drill],
            LookTest::Spark => [Work::Open, Work::Shape],
            _ => continue,
        };
        if let Some(line) = lines.iter_mut().find(|line| works.contains(&line.step.what)) {
            line.tells = Some(*test);
        }
    }
}

/// What of it has been said or measured without the list: ids of `prep.done`.
fn done_as_a_whole(asked: &PrepAsked<'_>, plan: &PrepPlan, step: WorkStep) -> bool {
    let said = part_of(step.what).is_some_and(|id| {
        plan.to_do.iter().any(|item| item.id == id && item.done)
            || step.at.is_some() && said_as_a_whole(asked, id, step.at)
    });
    let crack = || asked.cracks.iter().find(|crack| Some(crack.id) == step.at);
    let measured = match step.what {
        Work::Open | Work::Shape => crack().is_some_and(|crack| crack.ground_mm.is_some()),
        _ => false,
    };
    said || measured
}

/// Which of the things that cannot be done hot a line belongs to.
pub(crate) fn part_of(work: Work) -> Option<&'static str> {
    match work {
        Work::Punch | Work::Pilot | Work::Drill => Some("holes"),
        Work::Open | Work::Shape | Work::Countersink => Some("groove"),
        Work::Inside => Some("inside"),
        Work::PenetrantOut => Some("penetrant"),
        Work::PaintOff => Some("paint"),
        _ => None,
    }
}

impl<'a> List<'a> {
    fn prep(&self) -> &'a PrepAsked<'a> {
        self.asked.prep
    }

    fn say(&self, mm: f64) -> String {
        self.prep().units.say(rounded(mm), Unit::Millimetres)
    }

    fn drill(&self, mm: f64) -> String {
        self.prep().units.say(mm, Unit::Drill)
    }

    fn line(&mut self, what: Work, at: (Option<Uuid>, Option<u32>), sentence: String, settings: Vec<String>) {
        self.lines.push(WorkLine {
            step: WorkStep { what, at: at.0, number: at.1 },
            word: what.word().to_owned(),
            sentence,
            settings,
            done: false,
            tells: None,
        });
    }

    fn once(&mut self, what: Work, sentence: impl Into<String>) {
        self.at_all(what, sentence, Vec::new());
    }

    /// What is done once, at all the cracks there are.
    fn at_all(&mut self, what: Work, sentence: impl Into<String>, settings: Vec<String>) {
        self.line(what, (None, Some(self.of_all)), sentence.into(), settings);
    }

    /// From the dirty part to the marked crack.
    fn found(&mut self) {
        let PrepAsked { round, cracks, units, way, .. } = *self.prep();
        self.once(Work::Clean, "To bright metal along every crack, and well beyond its ends.");
        if round.get(field::part::OIL) == Some("soaked") {
            let at = units.say(BAKE_C, Unit::Celsius);
            let thickest = cracks.iter().map(|plan| plan.wall_mm).fold(0.0, f64::max);
            let long = units.say(BAKE_MIN.0 + BAKE_MIN.1 * thickest, Unit::Minutes);
            self.line(
                Work::BakeOut,
                (None, Some(self.of_all)),
                "Solvent without chlorine, let it flash off, then bake until it neither smokes nor weeps."
                    .to_owned(),
                vec![at, format!("{long} at least")],
            );
        }
        for plan in cracks.iter().filter(|plan| plan.worked()).filter(|plan| {
            plan.ends.iter().any(|end| end.kind.is_none_or(|kind| kind == EndKind::Hidden))
                || plan.ends.iter().any(|end| end.stop_hole.is_some_and(|hole| hole.find_tip_better))
        }) {
            let sentence =
                format!("Of crack {}, with chalk and oil, dye or magnetic particles; cold.", plan.letter);
            self.line(Work::FindEnds, (Some(plan.id), None), sentence, Vec::new());
        }
        self.old_filler();
        for plan in cracks.iter().filter(|plan| plan.repaired()) {
            let Some(edge) = round.get(crack::EDGE.of(plan.id)).filter(|edge| *edge != Edges::Clean) else {
                continue;
            };
            let letter = &plan.letter;
            let sentence = match edge {
                Edges::Burnt => {
                    format!(
                        "Crack {letter} is burnt: back to gray metal, or no filler wets it. A file must bite."
                    )
                }
                Edges::Clean | Edges::FlameCut | Edges::Melted => {
                    format!("Crack {letter} was cut or melted: take its edges back until a file bites.")
                }
            };
            let least = format!("{} at least", self.say(BACK_MM));
            self.line(Work::BurntEdge, (Some(plan.id), None), sentence, vec![least]);
        }
        for plan in cracks.iter().filter(|plan| plan.full_break && plan.becomes == CrackFate::Repair) {
            let letter = &plan.letter;
            let sentence = format!(
                "The pieces of {letter}, dry, before any groove: they key together one way only. Write down gap, step \
                 and rock; force nothing closed."
            );
            self.line(Work::FitUp, (Some(plan.id), None), sentence, Vec::new());
            if way.method.entry().groove.is_some() {
                let sentence = format!(
                    "At the tacks of {letter} only, small: the rest keeps its keyed fit until it is tacked."
                );
                self.line(Work::TackGroove, (Some(plan.id), None), sentence, Vec::new());
            }
        }
        let beside = match units {
            UnitSystem::Metric => "3 mm",
            UnitSystem::Imperial => "1/8 in",
        };
        self.line(
            Work::Witness,
            (None, Some(self.of_all)),
            "Beside each crack, scribed or in paint that survives grinding: grinding smears the crack out of sight."
                .to_owned(),
            vec![format!("{beside} off")],
        );
    }

    fn old_filler(&mut self) {
        let PrepAsked { round, way, .. } = *self.prep();
        let fusion = way.method.fusion();
        let told = |filler: OldFiller| match filler {
            OldFiller::Bronze if fusion => {
                Some("Bronze: all of it out before any fusion weld. It makes the weld crack.")
            }
            OldFiller::Bronze => {
                Some("Bronze: it may stay where it is sound. What lifts or is porous comes out.")
            }
            OldFiller::Nickel => Some("The old nickel weld cracked: out to clean casting."),
            OldFiller::Steel => {
                Some("The old steel weld cracked: out to clean casting, its hard edge with it.")
            }
            OldFiller::Other => {
                Some("Find out what it is, by colour, magnet and file; out where it will be melted.")
            }
            OldFiller::None => None,
        };
        let marks = round.marks.iter().filter(|mark| mark.what == MarkKind::OldFiller);
        let marked: Vec<(Uuid, String)> = marks
            .filter_map(|mark| {
                let told = told(round.get(field::mark::FILLER.of(mark.id))?)?;
                Some((mark.id, format!("At {}: {told}", mark.name)))
            })
            .collect();
        let of_the_part = round.old_filler().and_then(told).filter(|_| marked.is_empty());
        for (mark, sentence) in marked {
            self.line(Work::OldFiller, (Some(mark), None), sentence, Vec::new());
        }
        if let Some(sentence) = of_the_part {
            self.once(Work::OldFiller, sentence);
        }
    }

    /// All punched first, then bit by bit: a drill is changed as seldom as can be.
    fn holes(&mut self, seams: &[SeamPlan]) {
        let PrepAsked { cracks, drills_mm, .. } = *self.prep();
        let slowest = self.asked.slowest;
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

    fn pins(&mut self, seams: &[SeamPlan]) {
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
                    match seam.pins_that.as_str() {
                        "push" => "four anchors at the quarters first, then each gap from an anchor on",
                        _ => "every second pin first, then those between",
                    }
                ),
                vec![if seam.pins_that == "push" { "plain pins" } else { "pins that draw in" }.to_owned()],
            );
        }
        let that = |pins: &str| seams.iter().any(|seam| seam.pins_that == pins);
        if that("draw") && that("push") {
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

    fn grooves(&mut self, seams: &[SeamPlan]) {
        let PrepAsked { round, both_sides, way, .. } = *self.prep();
        let mut face_up = None;
        for seam in self.in_turn(seams) {
            let reach = round.get(crack::REACH.of(seam.id));
            let gets = |tool: &str| reach.is_none_or(|reach| reach.iter().any(|known| known == tool));
            let closes = round.get(crack::CLOSES.of(seam.id)) == Some(true);
            let letter = &seam.letter;
            let face =
                self.asked.laid.cracks.get(&seam.id).and_then(|laid| laid.lines.first()).map(|l| l.face);
            if let Some(face) = face.filter(|_| face_up != face) {
                face_up = Some(face);
                let laid = &self.asked.laid.faces[face];
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
            let opened = match (gets("disc"), gets("burr"), gets("chisel")) {
                (true, _, _) => "with a thin cut-off disc, down its middle",
                (false, true, _) => "with a burr: a disc does not get there",
                (false, false, true) => "with a chisel: neither disc nor burr gets there",
                (false, false, false) => "by another way in: no tool that was named gets there",
            };
            self.line(Work::Open, (Some(seam.id), None), format!("{letter}, {opened}."), Vec::new());
            let shaped = match (seam.form.as_deref(), gets("burr"), gets("disc")) {
                (Some("U"), true, _) => "round at its root, with a burr",
                (_, _, true) => "with a thicker disc",
                (_, true, _) => "with a burr",
                (..) => "with a chisel",
            };
            let mut sentence = format!("{letter}, {shaped}. Read the depth along it; at the lip stop.");
            if seam.form.as_deref() == Some("double_V") {
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
            if !gets("eye") {
                sentence.push_str(" Nobody sees into it: a mirror, or another way in.");
            }
            if !gets("torch") {
                sentence.push_str(" The torch does not get there: another way in, or pins.");
            }
            self.line(Work::Shape, (Some(seam.id), None), sentence, settings);
            let through = seam.form.as_deref() != Some("double_V") && seam.wall_mm - seam.depth_mm < 0.05;
            let cut = seam.read.iter().any(|read| {
                read.says == "through"
                    || (read.says == "into_the_lip" && seam.form.as_deref() != Some("double_V"))
            });
            if cut || (through && way.method.entry().arc.is_none()) {
                let why = if cut { "it was cut deeper than the lip" } else { "the groove goes through" };
                let sentence = format!("Behind {letter}, copper or carbon plate, or clay: {why}.");
                self.line(Work::Backing, (Some(seam.id), None), sentence, Vec::new());
            }
        }
    }

    fn rest(&mut self, seams: &[SeamPlan]) {
        let PrepAsked { round, cracks, way, units, paint_of_unknown_age, .. } = *self.prep();
        let thickest = seams.iter().map(|seam| seam.wall_mm).fold(0.0, f64::max);
        let margin = units.say(bright_margin_mm(thickest).ceil(), Unit::Millimetres);
        self.line(
            Work::Margins,
            (None, Some(self.of_all)),
            "Bright metal on each side of every groove.".to_owned(),
            vec![format!("{margin} each side")],
        );
        // A face that is not to be touched is washed, not ground.
        let kept_faces = round.get(field::part::KEEP_OFF).is_some();
        let behind = |crack: &CrackPlan| round.get(crack::BEHIND.of(crack.id));
        let kept: Vec<&str> = cracks
            .iter()
            .filter(|crack| crack.worked() && kept_faces && behind(crack) == Some("kept"))
            .map(|crack| crack.letter.as_str())
            .collect();
        let all = cracks.iter().filter(|crack| crack.worked()).count();
        let washed = "only washed with solvent without chlorine: that face is not to be touched";
        self.once(
            Work::Inside,
            match kept.len() {
                0 => "The far side of the seam too, as bright as this one.".to_owned(),
                some if some == all => format!("The far side of the seam is {washed}."),
                _ => format!("The far side too, as bright as this one; behind {} {washed}.", kept.join(", ")),
            },
        );
        let left_in = cracks.iter().any(|crack| crack.found_by.is_some_and(FoundBy::leaves_something));
        if left_in {
            let at = units.say(DRIED_C, Unit::Celsius);
            let how = "Dye, chalk and oil: solvent without chlorine, let it flash off, then dry.";
            self.line(Work::PenetrantOut, (None, Some(self.of_all)), how.to_owned(), vec![at]);
        }
        if cracks.iter().any(|crack| crack.found_by == Some(FoundBy::Magnetic)) {
            let how =
                "Magnetic particles leave the part a magnet: the arc wanders, and chips stick in the groove.";
            self.once(Work::Demagnetise, how);
        }
        if paint_of_unknown_age {
            self.once(
                Work::PaintOff,
                "Round all that gets hot; it may be lead: wet, masked, no dry grinding.",
            );
        }
        for (at, step) in way.method.entry().prep.iter().enumerate() {
            self.line(Work::OfMethod, (None, Some(at as u32 + 1)), said(step, units), Vec::new());
        }
        let at = units.say(DRY_C, Unit::Celsius);
        let how = "Water and solvent out of pores and holes, before the heat goes on.";
        self.line(Work::Dry, (None, Some(self.of_all)), how.to_owned(), vec![at]);
    }
}
