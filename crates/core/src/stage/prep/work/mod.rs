//! The order of the work as a list: made from the map and the groove, each line with its settings.

mod fill;
mod found;
mod holes;

use crate::crack::said::Behind;
use crate::prep::said::PrepDone;
use serde::Serialize;
use uuid::Uuid;

use super::seam::{SeamPlan, rounded};
use super::{PrepInputs, PrepPlan, said_as_a_whole};
use crate::crack::stop_hole::FoundBy;
use crate::field;
use crate::field::crack;
use crate::iron::{Iron, LookTest};
use crate::job::{Work, WorkStep};
use crate::prep::groove::bright_margin_mm;
use crate::quantity::Unit;
use crate::render::said;
use crate::stage::cracks::{CrackPlan, FaceGeometry};

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
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tells: Option<LookTest>,
}

/// What the list is made from beside what the seams are.
pub(crate) struct WorkInputs<'a> {
    pub prep: &'a PrepInputs<'a>,
    pub laid: &'a FaceGeometry<'a>,
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
    inputs: &'a WorkInputs<'a>,
    lines: Vec<WorkLine>,
    /// What tells these cracks from any others: a line that is about all of them is open again when one more is found.
    of_all: u32,
}

/// What tells these things from any others.
fn told_apart(things: impl Iterator<Item = (Uuid, u32)>) -> u32 {
    /// Prime of the FNV-1a hash of 32 bits.
    const PRIME: u32 = 16_777_619;
    things.fold(2_166_136_261, |so_far, (id, number)| {
        let id =
            id.as_bytes().iter().fold(so_far, |so_far, byte| (so_far ^ u32::from(*byte)).wrapping_mul(PRIME));
        (id ^ number).wrapping_mul(PRIME)
    })
}

/// The list of a way, in the order of the work.
pub(crate) fn work_list(inputs: &WorkInputs<'_>, plan: &PrepPlan) -> Vec<WorkLine> {
    let cracks = inputs.prep.cracks.iter().filter(|crack| crack.worked());
    let of_all = told_apart(cracks.map(|crack| (crack.id, 0)));
    let mut list = List { inputs, lines: Vec::new(), of_all };
    list.found();
    list.holes(&plan.seams);
    if inputs.prep.way.method.pins() {
        list.pins(&plan.seams);
    } else {
        if inputs.prep.way.method.entry().groove.is_some() {
            list.grooves(&plan.seams);
        }
        list.rest(&plan.seams);
    }
    let ticked = &inputs.prep.round.ticked;
    for line in &mut list.lines {
        line.done = ticked.contains(&line.step) || done_as_a_whole(inputs.prep, plan, line.step);
    }
    tell(&mut list.lines, &inputs.untold);
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

/// What of it has been said or measured without the list.
fn done_as_a_whole(inputs: &PrepInputs<'_>, plan: &PrepPlan, step: WorkStep) -> bool {
    let said = part_of(step.what).is_some_and(|what| {
        plan.to_do.iter().any(|item| item.id == what && item.done)
            || step.at.is_some() && said_as_a_whole(inputs, what, step.at)
    });
    let crack = || inputs.cracks.iter().find(|crack| Some(crack.id) == step.at);
    let measured = match step.what {
        Work::Open | Work::Shape => crack().is_some_and(|crack| crack.ground_mm.is_some()),
        _ => false,
    };
    said || measured
}

/// Which of the things that cannot be done hot a line belongs to.
pub(crate) fn part_of(work: Work) -> Option<PrepDone> {
    match work {
        Work::Punch | Work::Pilot | Work::Drill => Some(PrepDone::Holes),
        Work::Open | Work::Shape | Work::Countersink => Some(PrepDone::Groove),
        Work::Inside => Some(PrepDone::Inside),
        Work::PenetrantOut => Some(PrepDone::Penetrant),
        Work::PaintOff => Some(PrepDone::Paint),
        _ => None,
    }
}

impl<'a> List<'a> {
    fn prep(&self) -> &'a PrepInputs<'a> {
        self.inputs.prep
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

    fn rest(&mut self, seams: &[SeamPlan]) {
        let PrepInputs { round, cracks, way, units, paint_of_unknown_age, .. } = *self.prep();
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
            .filter(|crack| crack.worked() && kept_faces && behind(crack) == Some(Behind::Kept))
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
