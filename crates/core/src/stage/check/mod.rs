//! Stage 9: a list made from this job's risks and its log, each thing at each of its places.

mod on_map;
mod places;

use serde::Serialize;
use uuid::Uuid;

use super::cracks::CrackPlan;
pub use super::looked::CheckState;
use super::looked::LINES;
use super::map::MapPlan;
use super::part::PartFacts;
use super::prep::PrepPlan;
use super::proof::ProofPlan;
use super::taught::PORES;
use super::torch::TorchPlan;
use super::{Amount, Caution, Stage, Station};
use crate::base::day::DAY_MS;
use crate::faults::acceptance::{Found, Then};
use crate::field;
use crate::job::{CheckPlace, CheckWhat, Looked, Round};
use crate::map::{At, serialize_drawn, serialize_drawn_at};
use crate::method::customs::Pores;
use crate::method::{Joins, Way};
use crate::quantity::{Unit, UnitSystem};
use crate::render::said;
use crate::shop::Shop;

/// One thing to look at, at each of its places.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CheckLine {
    pub key: String,
    pub label: String,
    pub how: String,
    pub verdict: CheckState,
    /// Where; none where it is the whole part.
    pub places: Vec<PlaceLine>,
    /// What may be found, the good first.
    pub choices: Vec<FoundChoice>,
    /// From when it is to be looked at, UTC, ms since 1970: until then it keeps nothing back. Nothing for at once.
    pub due_ms: Option<i64>,
    /// How it is proved with water; nothing where it is not.
    pub proof: Option<ProofPlan>,
}

impl CheckLine {
    /// It is looked at with the others, and nobody has.
    #[must_use]
    pub fn open(&self) -> bool {
        self.verdict == CheckState::Open && self.due_ms.is_none()
    }
}

/// One place that is looked at.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PlaceLine {
    pub place: CheckPlace,
    /// As it is numbered on the map, from 1: places at one spot share theirs.
    pub number: u32,
    /// "A, second side"
    pub words: String,
    pub verdict: CheckState,
    /// "Pores, pinholes, 1.2 mm, 2 within 25 mm: good enough, 1.5 mm across, 3 within 25 mm"; empty while nobody has looked.
    pub sentence: String,
    /// What is done about it; nothing where nobody has said.
    #[serde(skip)]
    pub then: Option<Then>,
    /// The same in words; left out where nobody has said.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub then_words: String,
    /// Every look at it, the last first.
    pub looks: Vec<LookLine>,
    pub on_map: Vec<PlaceOnMap>,
    /// Where the file is tried: along both toes.
    #[serde(serialize_with = "serialize_drawn")]
    pub points: Vec<At>,
    /// "8 points, each 50 mm along both toes"; left out where none are told.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub points_words: String,
}

/// One look.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LookLine {
    pub fact: Uuid,
    /// UTC, ms since 1970.
    pub at_ms: i64,
    pub who: String,
    pub words: String,
}

/// Where a place lies.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PlaceOnMap {
    pub face: Uuid,
    #[serde(serialize_with = "serialize_drawn_at")]
    pub at: At,
    /// It is on the other side, and that is not drawn.
    pub behind: bool,
}

/// What may be found.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FoundChoice {
    pub found: Found,
    pub words: String,
    /// How much of it is good enough here.
    pub limit: String,
    /// What is measured of it; empty where seeing it is enough.
    pub measured: String,
    /// How many lie close together counts.
    pub counted: bool,
    /// What can be done about it, the first first.
    pub then: Vec<ThenChoice>,
}

/// A way on from what is not good enough.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ThenChoice {
    pub then: Then,
    pub words: String,
}

/// What the list is made from.
pub(crate) struct CheckInputs<'a> {
    pub shop: &'a Shop,
    pub round: &'a Round,
    pub part: &'a PartFacts,
    pub cracks: &'a [CrackPlan],
    pub prep: Option<&'a PrepPlan>,
    pub map: &'a MapPlan,
    pub way: Option<Way>,
    pub torch: Option<&'a TorchPlan>,
}

pub(crate) fn stage(inputs: &CheckInputs<'_>) -> Stage<Vec<CheckLine>> {
    let CheckInputs { shop, round, way, torch, .. } = *inputs;
    let plan = inputs.lines();
    Stage {
        amount: amount(&plan),
        missing: Vec::new(),
        cautions: cautions(round, torch)
            .into_iter()
            .chain(way.filter(|way| PORES.for_method(way.method, round, shop) == Pores::All).map(|_| {
                Caution::new(
                    Station::Check,
                    "Every pore is refilled, also where it neither weeps nor carries.",
                )
            }))
            .collect(),
        figures: Vec::new(),
        plan,
    }
}

/// "Pores, pinholes, 1.2 mm, 2 within 25 mm"
pub(super) fn found_words(it: &Looked, units: UnitSystem) -> String {
    let size = it.size_mm.map(|mm| format!(", {}", units.say_exactly(mm, Unit::Millimetres)));
    let close = said("{25 mm}", units);
    let count = it.count.map(|count| format!(", {count} within {close}"));
    format!("{}{}{}", it.found.words(), size.unwrap_or_default(), count.unwrap_or_default())
}

/// What can be found where something is looked for.
fn may_be_found(what: CheckWhat) -> &'static [Found] {
    use Found::{
        Crack, Good, HardEdge, Leak, LowSpot, NotWetted, Notch, OutOfLine, PinLoose, Pore, ResidueLeft,
    };
    match what {
        CheckWhat::Pins => &[Good, PinLoose],
        CheckWhat::Clean => &[Good, ResidueLeft],
        CheckWhat::Toes => &[Good, Notch, NotWetted, LowSpot, Pore, Crack],
        CheckWhat::CracksAgain => &[Good, Crack, Pore],
        CheckWhat::NextDay => &[Good, Crack],
        CheckWhat::FileEdge => &[Good, HardEdge],
        CheckWhat::Leak => &[Good, Leak],
        CheckWhat::Alignment => &[Good, OutOfLine],
        CheckWhat::Faults => &[Good, Pore, NotWetted, Notch, LowSpot, Crack],
    }
}

fn then_words(what: CheckWhat, then: Then) -> &'static str {
    match (then, what) {
        (Then::RefillHot, CheckWhat::Pins) => "The next size, or a lock",
        (Then::RefillHot, CheckWhat::Clean) => "Off with it, and look again",
        (Then::RefillHot, _) => "Ground out and refilled, the part warm",
        (Then::NewRound, _) => "A new round",
        (Then::LeftAndSaid, CheckWhat::Alignment) => "Machined, or left and said: never pulled cold",
        (Then::LeftAndSaid, _) => "Left, and said so",
        (Then::Watch, _) => "Watched: punch marks and a date",
    }
}

impl CheckInputs<'_> {
    /// The list for a way. House.
    fn lines(&self) -> Vec<CheckLine> {
        use CheckWhat::{Alignment, Clean, CracksAgain, Faults, FileEdge, Leak, NextDay, Pins, Toes};
        let Some(way) = self.way else { return Vec::new() };
        let mut lines = Vec::new();
        match way.method.entry().joins {
            Joins::Pins | Joins::PinsAndLocks => {
                lines.push(self.line(Pins, "tap each one: a loose pin rattles"));
            }
            Joins::Strap | Joins::Epoxy => {}
            Joins::Arc | Joins::ArcBronze | Joins::Bronze | Joins::Silver | Joins::Flame => {
                lines.push(self.line(Clean, "wet, masked, wire brush"));
                lines.push(self.line(Toes, "run a nail and a glass along both edges of the filler"));
            }
        }
        let dye = "dye or magnetic particles over the repair and past every stop-hole";
        lines.push(self.line(CracksAgain, dye));
        if way.method.lays_nickel() && self.round.cracks_looked_for_ms.is_some() {
            lines.push(self.line(NextDay, dye));
        }
        if way.method.fusion() {
            lines.push(self.line(FileEdge, "a skating file marks a hard spot: map it before drilling"));
        }
        if self.part.duct() {
            let most = self.part.units.say(0.03, Unit::Bar);
            let how = format!("gas: soap or smoke under {most}, flange flat on a plate; never filled");
            lines.push(self.line(Leak, &how));
        } else if self.part.fluid_tight == Some(true) {
            let proof = ProofPlan::of(self.round, self.part.units);
            let line = self.line(Leak, "water: full, vented, slowly; never with air");
            // While it goes on its steps say how far it is.
            let how = match proof.done_words.as_str() {
                done if !done.is_empty() && line.verdict != CheckState::Open => done.to_owned(),
                _ => line.how.clone(),
            };
            lines.push(CheckLine { proof: Some(proof), how, ..line });
        }
        lines.push(self.line(Alignment, "straight edge, flat plate, pin through the holes"));
        if self.faults().next().is_some() {
            lines.push(self.line(Faults, "each where it was, ground bright, under a glass"));
        }
        self.number(&mut lines);
        lines
    }

    fn line(&self, what: CheckWhat, how: &str) -> CheckLine {
        use CheckWhat::NextDay;
        let (field, label) = LINES
            .into_iter()
            .find(|(known, ..)| *known == what)
            .map_or((field::check::TOES, ""), |(_, field, label)| (field, label));
        let places: Vec<PlaceLine> =
            self.places(what).into_iter().map(|(place, words)| self.place(place, words)).collect();
        let any = |verdict: &CheckState| places.iter().any(|place| place.verdict == *verdict);
        let worst = [CheckState::NotOk, CheckState::Open, CheckState::Left];
        let verdict = worst.into_iter().find(any).unwrap_or(CheckState::Ok);
        CheckLine {
            key: field.key().to_owned(),
            label: label.to_owned(),
            how: how.to_owned(),
            verdict,
            choices: self.choices(what),
            // Nickel is looked at again so long after. House.
            due_ms: self.round.cracks_looked_for_ms.filter(|_| what == NextDay).map(|ms| ms + DAY_MS),
            places,
            proof: None,
        }
    }

    /// What lies at one spot has one number.
    fn number(&self, lines: &mut [CheckLine]) {
        let mut known: Vec<(Option<Uuid>, Option<u32>)> = Vec::new();
        for place in lines.iter_mut().flat_map(|line| &mut line.places) {
            let spot = (place.place.at, place.place.side.filter(|side| *side > 1));
            let at = known.iter().position(|it| *it == spot).unwrap_or_else(|| {
                known.push(spot);
                known.len() - 1
            });
            place.number = at as u32 + 1;
        }
    }
}

fn amount(lines: &[CheckLine]) -> Amount {
    let looked_at = lines.iter().filter(|line| line.verdict != CheckState::Open).count();
    if looked_at == 0 {
        Amount::Nothing
    } else if lines.iter().all(|line| !line.open() && line.verdict != CheckState::NotOk) {
        Amount::Enough
    } else {
        Amount::Something
    }
}

/// What Check has to know of how the heat ended.
fn cautions(round: &Round, torch: Option<&TorchPlan>) -> Vec<Caution> {
    let Some(torch) = torch else { return Vec::new() };
    let mut found = Vec::new();
    if let Some(why) = round.covered_because()
        && torch.done < torch.planned
    {
        let because = if why.is_empty() { "nobody said why".to_owned() } else { why.to_owned() };
        found.push(format!(
            "Covered with {} of {} {}s laid ({because}): the joint is not whole. Look at what is open before anything \
             else.",
            torch.done,
            torch.planned,
            torch.piece.word()
        ));
    }
    found.extend(torch.passed.iter().cloned());
    found.into_iter().map(|sentence| Caution::new(Station::Check, sentence)).collect()
}

/// All that is not good is to be filled again, place by place; false where everything is good.
pub(crate) fn only_to_refill(check: &[CheckLine]) -> bool {
    let bad: Vec<&CheckLine> = check.iter().filter(|line| line.verdict == CheckState::NotOk).collect();
    let refilled = |line: &&CheckLine| {
        let mut bad = line.places.iter().filter(|place| place.verdict == CheckState::NotOk);
        bad.all(|place| place.then == Some(Then::RefillHot))
    };
    !bad.is_empty() && bad.iter().all(refilled)
}
