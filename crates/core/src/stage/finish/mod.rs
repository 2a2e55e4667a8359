//! What is done to a mended part once it is cold and good: crown, skin, coats; in order, each a line to tick.

mod told;

use crate::casting::said::Machined;
use crate::casting::said::SeenAs;
use crate::faults::acceptance::Checked;
use crate::finish::CoatedWith;
use crate::method::customs::Blend;
use serde::Serialize;
use uuid::Uuid;

use super::looked::duty;
use super::part::PartFacts;
use super::prep::{PrepPlan, SeamPlan};
use super::strap::StrapPlan;
use super::taught::FINISH;
use crate::faults::acceptance::Found;
use crate::field;
use crate::finish::{Coat, Crown, FinishAs, FinishStep, coats, every_step, slag_min};
use crate::job::{CheckWhat, Round, Work, WorkStep};
use crate::quantity::{Unit, UnitSystem};
use crate::render::said;
use crate::shop::Shop;
use told::{StepText, told_of_coat, told_of_metal};

/// A line of the finish.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FinishLine {
    pub step: WorkStep,
    /// "Crown down"
    pub word: String,
    /// "A, second side"; empty for the whole part.
    pub place: String,
    pub sentence: String,
    /// "disc 36 or 40"
    pub settings: Vec<String>,
    /// What may hurt or spoil it; empty where nothing does.
    pub care: String,
    /// Of hands, in min.
    #[serde(skip)]
    pub minutes: f64,
    /// "7 min, then 24 h to dry"
    pub time_words: String,
    pub done: bool,
    /// Dry from then on, UTC in ms since 1970; left out for what needs no drying, or is not done.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dry_at_ms: Option<i64>,
}

/// The steps there are at a place, each in or out.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FinishPlace {
    /// "A, second side"; "all of it" for what is done once.
    pub words: String,
    /// Of each of its steps; left out for what is done once.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<Uuid>,
    /// Of each of its steps, the second side; left out for the first.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub number: Option<u32>,
    pub steps: Vec<FinishChoice>,
}

/// A step that is taken, or could be.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FinishChoice {
    pub what: Work,
    /// "Crown down"
    pub word: String,
    pub chosen: bool,
}

/// The finish of a part.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FinishPlan {
    pub lines: Vec<FinishLine>,
    /// Where steps can be taken out and put in.
    pub places: Vec<FinishPlace>,
    /// "5 steps, 25 min, then 24 h to dry"; empty where there is nothing to do.
    pub words: String,
    /// Straps that make up for what a joint does not stand.
    pub straps: Vec<StrapPlan>,
    /// Cracks whose seams are finished one way or another.
    pub seams: Vec<Uuid>,
}

/// What a finish is made from.
#[derive(Clone, Copy)]
pub(crate) struct FinishInputs<'a> {
    pub round: &'a Round,
    pub shop: &'a Shop,
    pub part: &'a PartFacts,
    pub prep: &'a PrepPlan,
    pub straps: &'a [StrapPlan],
}

/// The step of the hours in which it dries.
pub(crate) const DRIES: &str = "dry";

/// Minutes of hands on the metal, those of the coats, and those these dry.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub(crate) struct FinishMinutes {
    pub metal: f64,
    pub coats: f64,
    pub dries: f64,
}

fn sides(seam: &SeamPlan) -> u32 {
    if seam.is_double() { 2 } else { 1 }
}

impl FinishInputs<'_> {
    /// What a seam has to be on a side of it, from 1.
    ///
    /// As it was said for this seam; else by what the shop does: what is machined is level first, the seen face is
    /// blended, the hidden one stays as it is.
    fn finished_as(&self, seam: &SeamPlan, side: u32) -> FinishAs {
        let said = self.round.get(field::crack::FINISH.of(seam.id));
        let does = FINISH.on(self.round, self.shop);
        let hidden = self.round.get(field::part::SEEN) == Some(SeenAs::Hidden);
        let usual = if self.round.get(field::part::MACHINED) == Some(Machined::Across) {
            // The machine takes the rest.
            FinishAs::Flush
        } else if does == Blend::Leave || hidden && does != Blend::All {
            FinishAs::Leave
        } else {
            FinishAs::Seen
        };
        // The other side is not seen.
        match (side, does) {
            (1, _) => said.unwrap_or(usual),
            (_, Blend::All) => usual,
            (_, Blend::Seen | Blend::Leave) => FinishAs::Leave,
        }
    }

    fn crown(&self, seam: &SeamPlan, side: u32) -> Option<Crown> {
        let cm2 = seam.section?.top_width_mm * seam.length_mm / 100.0;
        let hard = self.round.looked.iter().any(|it| {
            let there = it.place.side.is_none_or(|of| of == side);
            it.found == Found::HardEdge && it.place.at == Some(seam.id) && there
        });
        let bronze = !self.prep.way.method.fusion();
        Some(Crown { cm2, length_mm: seam.length_mm, bronze, hard })
    }

    /// What lies over it at the end: as was said, else as its face is to be seen.
    fn coats(&self) -> Vec<Coat> {
        let painted = self.round.get(field::part::SEEN) == Some(SeenAs::Painted);
        let usual = if painted { CoatedWith::Paint } else { CoatedWith::Bare };
        let chosen = self.round.get(field::finish::COAT).unwrap_or(usual);
        coats(chosen, self.round.get(field::finish::PUTTY) == Some(true))
    }

    fn places(&self) -> impl Iterator<Item = (&SeamPlan, u32, Crown)> {
        let seams = self.prep.seams.iter().filter(|seam| seam.patch.is_none());
        let each = seams.flat_map(|seam| (1..=sides(seam)).map(move |side| (seam, side)));
        each.filter_map(|(seam, side)| Some((seam, side, self.crown(seam, side)?)))
    }

    pub fn minutes(&self) -> FinishMinutes {
        let steps = self.places().flat_map(|(seam, side, crown)| self.taken(seam, side, crown));
        let coats = self.coats();
        FinishMinutes {
            metal: steps.map(FinishStep::minutes).sum(),
            coats: coats.iter().map(|coat| coat.minutes().0).sum(),
            dries: coats.iter().map(|coat| coat.minutes().1).sum(),
        }
    }

    fn line(
        &self,
        step: WorkStep,
        place: String,
        (minutes, dries): (f64, f64),
        told: StepText,
    ) -> FinishLine {
        let units = self.part.units;
        let at_ms = self.round.ticked_ms.get(&step).copied();
        let hands = units.say(minutes.max(1.0), Unit::Minutes);
        let time_words = if dries > 0.0 {
            format!("{hands}, then {} to dry", units.say(dries, Unit::Minutes))
        } else {
            hands
        };
        FinishLine {
            step,
            word: step.what.word().to_owned(),
            place,
            sentence: said(told.sentence, units),
            settings: told.settings.iter().map(|it| said(it, units)).collect(),
            care: said(told.care, units),
            minutes,
            time_words,
            done: at_ms.is_some(),
            dry_at_ms: at_ms.filter(|_| dries > 0.0).map(|at_ms| at_ms + (dries * 60_000.0) as i64),
        }
    }

    /// A step is taken: as it was said, else where it usually makes the place what it has to be.
    fn is_taken(&self, (seam, side): (&SeamPlan, u32), step: FinishStep) -> bool {
        let said = self.round.finish_steps.get(&step_at(seam, side, step)).copied();
        said.unwrap_or_else(|| self.finished_as(seam, side).wants(step))
    }

    fn taken(&self, seam: &SeamPlan, side: u32, crown: Crown) -> Vec<FinishStep> {
        every_step(crown).into_iter().filter(|step| self.is_taken((seam, side), *step)).collect()
    }

    fn metal(&self, seam: &SeamPlan, side: u32, crown: Crown) -> Vec<FinishLine> {
        let place = place_of(seam, side);
        let line = |step: FinishStep| {
            let told = told_of_metal(step, crown.hard);
            self.line(step_at(seam, side, step), place.clone(), (step.minutes(), 0.0), told)
        };
        self.taken(seam, side, crown).into_iter().map(line).collect()
    }

    /// What can be taken out and put in at a place.
    fn place(&self, seam: &SeamPlan, side: u32, crown: Crown) -> FinishPlace {
        let choice = |step: FinishStep| {
            let what = what_of(step);
            FinishChoice { what, word: what.word().to_owned(), chosen: self.is_taken((seam, side), step) }
        };
        FinishPlace {
            words: place_of(seam, side),
            at: Some(seam.id),
            number: number_of(side),
            steps: every_step(crown).map(choice).to_vec(),
        }
    }
}

fn place_of(seam: &SeamPlan, side: u32) -> String {
    match (sides(seam), side) {
        (1, _) => seam.letter.clone(),
        (_, 1) => format!("{}, first side", seam.letter),
        _ => format!("{}, second side", seam.letter),
    }
}

fn what_of(step: FinishStep) -> Work {
    match step {
        FinishStep::CrownDown(_) => Work::CrownDown,
        FinishStep::Even(_) => Work::Even,
        FinishStep::Flat(_) => Work::Flat,
        FinishStep::Round(_) => Work::Round,
        FinishStep::Skin(_) => Work::Skin,
        FinishStep::EdgesBroken(_) => Work::EdgesBroken,
    }
}

/// Of a side, as its steps name it.
fn number_of(side: u32) -> Option<u32> {
    (side > 1).then_some(side)
}

fn step_at(seam: &SeamPlan, side: u32, step: FinishStep) -> WorkStep {
    WorkStep { what: what_of(step), at: Some(seam.id), number: number_of(side) }
}

/// Flux and slag come off all of it at once.
const SLAG_OFF: WorkStep = WorkStep { what: Work::SlagOff, at: None, number: None };

/// The lines of the finish, in the order of the work.
pub(crate) fn finish_plan(inputs: FinishInputs<'_>) -> FinishPlan {
    let units = inputs.part.units;
    let mut lines = Vec::new();
    let crowns: f64 = inputs.places().map(|(_, _, crown)| crown.cm2).sum();
    let fluxed = crowns > 0.0 && !inputs.prep.way.method.without_heat();
    let slag_off = inputs.round.finish_steps.get(&SLAG_OFF).copied().unwrap_or(true);
    if fluxed && slag_off {
        let told = StepText {
            sentence: "Hot water and wire, all of it: flux eats on under paint.",
            settings: &["wet"],
            care: "Mask: fibre and flux. Never acid on iron.",
        };
        let line = inputs.line(SLAG_OFF, String::new(), (slag_min(crowns), 0.0), told);
        // Looked at and found clean it is off.
        lines.push(FinishLine { done: line.done || clean(inputs.round), ..line });
    }
    lines.extend(inputs.places().flat_map(|(seam, side, crown)| inputs.metal(seam, side, crown)));
    for strap in inputs.straps.iter().filter(|it| it.chosen) {
        let told = StepText {
            sentence: "Cut, drilled and bolted over the seam, before any paint.",
            settings: &[],
            care: "Guard, goggles: the bit grabs as it comes through.",
        };
        let step = WorkStep { what: Work::StrapOn, at: Some(strap.crack), number: None };
        let line = inputs.line(step, strap.letter.clone(), (strap.minutes(), 0.0), told);
        let settings = [&strap.steel, &strap.bolts].into_iter().filter(|words| !words.is_empty()).cloned();
        lines.push(FinishLine { settings: settings.collect(), ..line });
    }
    for coat in inputs.coats() {
        let (what, mut told) = told_of_coat(coat);
        let duty = duty(inputs.round, inputs.part);
        if coat == Coat::Putty && (duty.carries || duty.tight) {
            told.care =
                "None where it carries or is tight, only beside that; not where it gets over {90 degC down}.";
        }
        let step = WorkStep { what, at: None, number: None };
        lines.push(inputs.line(step, String::new(), coat.minutes(), told));
    }
    let mut places: Vec<FinishPlace> =
        inputs.places().map(|(seam, side, crown)| inputs.place(seam, side, crown)).collect();
    if fluxed {
        let word = Work::SlagOff.word().to_owned();
        let steps = vec![FinishChoice { what: SLAG_OFF.what, word, chosen: slag_off }];
        places.push(FinishPlace {
            words: "all of it".to_owned(),
            at: SLAG_OFF.at,
            number: SLAG_OFF.number,
            steps,
        });
    }
    let mut seams: Vec<Uuid> = inputs.places().map(|(seam, _, _)| seam.id).collect();
    seams.dedup();
    FinishPlan { words: words(&lines, &inputs, units), straps: inputs.straps.to_vec(), places, seams, lines }
}

/// Nothing of flux and slag was found on it.
fn clean(round: &Round) -> bool {
    let looked = round.looked.iter().rfind(|it| it.place.what == CheckWhat::Clean);
    looked.map_or_else(|| round.get(field::check::CLEAN) == Some(Checked::Ok), |it| it.found == Found::Good)
}

fn words(lines: &[FinishLine], inputs: &FinishInputs<'_>, units: UnitSystem) -> String {
    if lines.is_empty() {
        return String::new();
    }
    let hands: f64 = lines.iter().map(|line| line.minutes).sum();
    let dries = inputs.minutes().dries;
    let steps = if lines.len() == 1 { "1 step".to_owned() } else { format!("{} steps", lines.len()) };
    let dries = if dries > 0.0 {
        format!(", then {} to dry", units.say(dries, Unit::Minutes))
    } else {
        String::new()
    };
    format!("{steps}, {}{dries}", units.say(hands.max(1.0), Unit::Minutes))
}
