//! Stage 9: a list made from this job's risks and its log, each thing at each of its places.

use serde::Serialize;
use uuid::Uuid;

use super::cracks::CrackPlan;
use super::looked::{self, LINES, Stands};
use super::map::{LineOnFace, MapPlan};
use super::part::PartFacts;
use super::prep::{PrepPlan, SeamPlan};
use super::proof::ProofPlan;
use super::taught::PORES;
use super::torch::TorchPlan;
use super::{Amount, Caution, Stage, Station};
use crate::base::day::DAY_MS;
use crate::crack::said::CrackFate;
use crate::faults::acceptance::{Extent, Found, Then};
use crate::field;
use crate::job::{CheckPlace, CheckWhat, Looked, Round, TorchEntry};
use crate::map::{At, length_mm, place_along};
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
    /// "ok", "not_ok", "left" where something is left with its reason, or empty while not looked at.
    pub verdict: String,
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
        self.verdict.is_empty() && self.due_ms.is_none()
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
    /// As of its line.
    pub verdict: String,
    /// "Pores, pinholes, 1.2 mm, 2 within 25 mm: good enough, 1.5 mm across, 3 within 25 mm"; empty while nobody has looked.
    pub sentence: String,
    /// What is done about it; nothing where nobody has said.
    pub then: Option<Then>,
    pub then_words: String,
    /// Every look at it, the last first.
    pub looks: Vec<LookLine>,
    pub on_map: Vec<PlaceOnMap>,
    /// Where the file is tried: along both toes.
    pub points: Vec<PlaceOnMap>,
    /// "8 points, each 50 mm along both toes"; empty where none are told.
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

/// So far apart a file is tried along the toes.
const FILED_EACH_MM: f64 = 50.0;

/// What the list is made from.
pub(crate) struct CheckAsked<'a> {
    pub shop: &'a Shop,
    pub round: &'a Round,
    pub part: &'a PartFacts,
    pub cracks: &'a [CrackPlan],
    pub prep: Option<&'a PrepPlan>,
    pub map: &'a MapPlan,
    pub way: Option<Way>,
    pub torch: Option<&'a TorchPlan>,
}

pub(crate) fn stage(asked: &CheckAsked<'_>) -> Stage<Vec<CheckLine>> {
    let CheckAsked { shop, round, way, torch, .. } = *asked;
    let plan = asked.lines();
    Stage {
        amount: amount(&plan),
        missing: Vec::new(),
        cautions: cautions(round, torch)
            .into_iter()
            .chain(way.filter(|way| PORES.for_method(way.method, round, shop) == "all").map(|_| {
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

impl CheckAsked<'_> {
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
                done if !done.is_empty() && !line.verdict.is_empty() => done.to_owned(),
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
        let any = |verdict: &str| places.iter().any(|place| place.verdict == verdict);
        let verdict = ["not_ok", "", "left"].into_iter().find(|verdict| any(verdict)).unwrap_or("ok");
        CheckLine {
            key: field.key().to_owned(),
            label: label.to_owned(),
            how: how.to_owned(),
            verdict: verdict.to_owned(),
            choices: self.choices(what),
            // Nickel is looked at again so long after. House.
            due_ms: self.round.cracks_looked_for_ms.filter(|_| what == NextDay).map(|ms| ms + DAY_MS),
            places,
            proof: None,
        }
    }

    /// Faults that were seen at the torch, each with the bead it was at.
    fn faults(&self) -> impl Iterator<Item = (Uuid, String)> + '_ {
        let mut beads = 0;
        self.round.said_at_torch().filter_map(move |(_, entry)| match &entry.entry {
            TorchEntry::Bead { .. } | TorchEntry::Pin { .. } => {
                beads += 1;
                None
            }
            TorchEntry::Trouble { seen, .. } => {
                let piece = self.torch.map_or("bead", |torch| torch.piece.as_str());
                let at = if beads == 0 { "before the first".to_owned() } else { format!("{piece} {beads}") };
                Some((entry.fact, format!("{}, {at}", seen.words())))
            }
            _ => None,
        })
    }

    /// Where something is looked for.
    fn places(&self, what: CheckWhat) -> Vec<(CheckPlace, String)> {
        let whole = || vec![(CheckPlace { what, at: None, side: None }, "the whole part".to_owned())];
        let seams: Vec<(CheckPlace, String)> = match what {
            CheckWhat::Leak | CheckWhat::Alignment => return whole(),
            CheckWhat::Faults => self
                .faults()
                .map(|(fact, words)| (CheckPlace { what, at: Some(fact), side: None }, words))
                .collect(),
            CheckWhat::CracksAgain | CheckWhat::NextDay => self
                .cracks
                .iter()
                .filter(|crack| crack.worked() || crack.becomes == CrackFate::Leave)
                .map(|crack| {
                    let watched = if crack.worked() { "" } else { ", watched" };
                    let place = CheckPlace { what, at: Some(crack.id), side: None };
                    (place, format!("{}{watched}", crack.letter))
                })
                .collect(),
            CheckWhat::Pins | CheckWhat::Clean | CheckWhat::Toes | CheckWhat::FileEdge => {
                let seams = self.prep.map_or(&[][..], |prep| &prep.seams);
                let sides = |seam: &SeamPlan| match seam.form.as_deref() {
                    Some("double_V") => vec![(Some(1), ", first side"), (Some(2), ", second side")],
                    _ => vec![(None, "")],
                };
                let at = |seam: &SeamPlan, side| CheckPlace { what, at: Some(seam.id), side };
                seams
                    .iter()
                    .filter(|seam| seam.patch.is_none())
                    .flat_map(|seam| {
                        sides(seam)
                            .into_iter()
                            .map(|(side, words)| (at(seam, side), format!("{}{words}", seam.letter)))
                            .collect::<Vec<_>>()
                    })
                    .collect()
            }
        };
        if seams.is_empty() { whole() } else { seams }
    }

    fn place(&self, at: CheckPlace, words: String) -> PlaceLine {
        let place = looked::place(self.round, self.part, self.cracks, at);
        let stands = looked::stands(self.round, at, &place);
        let said = |template: &str| said(template, self.part.units);
        let found = |it: &Looked| found_words(it, self.part.units);
        let looks = self.round.looked.iter().rev().filter(|it| it.place == at);
        let last = looks.clone().next();
        let limit = |it: &Looked| said(&place.limit(it.found));
        let sentence = match (stands, last) {
            (Stands::Open, _) | (Stands::Good | Stands::NotGood(None), None) => String::new(),
            (Stands::Measure(it), _) => format!("{}: measure it. Good enough is {}.", found(it), limit(it)),
            (Stands::Left(it), _) => format!("{}: more than {}.", found(it), limit(it)),
            (Stands::NotGood(Some(it)), _) => format!("{}. Good enough is {}.", found(it), limit(it)),
            (Stands::Good, Some(it)) if it.found != Found::Good => {
                format!("{}: good enough ({}).", found(it), limit(it))
            }
            (Stands::Good | Stands::NotGood(None), Some(_)) => String::new(),
        };
        let then = match stands {
            Stands::Left(it) | Stands::NotGood(Some(it)) => it.then,
            _ => None,
        };
        PlaceLine {
            number: 0,
            words,
            verdict: stands.id().to_owned(),
            sentence,
            then,
            then_words: then.map_or_else(String::new, |then| then_words(at.what, then).to_owned()),
            looks: looks
                .map(|it| LookLine {
                    fact: it.fact,
                    at_ms: it.at_ms,
                    who: it.who.clone(),
                    words: match it.note.as_str() {
                        "" => found(it),
                        note => format!("{}. {note}", found(it)),
                    },
                })
                .collect(),
            on_map: self.on_map(at),
            points_words: self.points_words(at),
            points: self.points(at),
            place: at,
        }
    }

    fn choices(&self, what: CheckWhat) -> Vec<FoundChoice> {
        let place =
            looked::place(self.round, self.part, self.cracks, CheckPlace { what, at: None, side: None });
        let choice = |found: &Found| FoundChoice {
            found: *found,
            words: found.words().to_owned(),
            limit: said(&place.limit(*found), self.part.units),
            measured: found.measured().unwrap_or_default().to_owned(),
            counted: *found == Found::Pore,
            // The most that can be done: what is too large for it is judged once it is measured.
            then: place
                .ways_on(*found, Extent { mm: Some(0.0), count: None })
                .iter()
                .map(|then| ThenChoice { then: *then, words: then_words(what, *then).to_owned() })
                .collect(),
        };
        may_be_found(what).iter().map(choice).collect()
    }

    /// Half way along the seam on its face; of a second side on the face behind where that is drawn, else on the same,
    /// beside the first.
    fn on_map(&self, at: CheckPlace) -> Vec<PlaceOnMap> {
        let Some(crack) = at.at else { return Vec::new() };
        let on = |behind: bool| {
            let faces = self.map.faces.iter();
            let mut lines = faces.flat_map(|face| face.lines.iter().map(move |line| (face.id, line)));
            lines.find(|(_, line)| line.crack == crack && line.from_behind == behind)
        };
        let (found, share, behind) = match (at.side, on(true)) {
            (Some(2), Some(back)) => (Some(back), 1.0 / 2.0, false),
            (Some(2), None) => (on(false), 2.0 / 3.0, true),
            (Some(_), None) => (on(false), 1.0 / 3.0, false),
            _ => (on(false), 1.0 / 2.0, false),
        };
        let place = |(face, line): (Uuid, &LineOnFace)| {
            let at = place_along(&line.points, share * length_mm(&line.points))?;
            Some(PlaceOnMap { face, at, behind })
        };
        found.and_then(place).into_iter().collect()
    }

    /// The seam that is filed, and how many points lie along one of its toes.
    fn filed(&self, at: CheckPlace) -> Option<(&SeamPlan, usize)> {
        let seam = self.prep?.seams.iter().find(|seam| Some(seam.id) == at.at)?;
        let count = (seam.length_mm / FILED_EACH_MM).ceil().max(1.0) as usize;
        (at.what == CheckWhat::FileEdge).then_some((seam, count))
    }

    fn points_words(&self, at: CheckPlace) -> String {
        let Some((_, count)) = self.filed(at) else { return String::new() };
        let apart = said("{50 mm}", self.part.units);
        match count {
            1 => "2 points, one at each toe".to_owned(),
            _ => format!("{} points, each {apart} along both toes", 2 * count),
        }
    }

    /// Half as far from either end as they are apart, at the edge of the filler on both sides of the seam.
    fn points(&self, at: CheckPlace) -> Vec<PlaceOnMap> {
        let Some((seam, count)) = self.filed(at) else { return Vec::new() };
        let Some(place) = self.on_map(at).into_iter().next() else { return Vec::new() };
        let mut lines =
            self.map.faces.iter().filter(|face| face.id == place.face).flat_map(|face| &face.lines);
        let Some(line) = lines.find(|line| line.crack == seam.id) else { return Vec::new() };
        let long = length_mm(&line.points);
        let off = seam.section.map_or(0.0, |section| section.top_width_mm / 2.0);
        let beside = |along: f64| {
            let (here, near) = (place_along(&line.points, along)?, place_along(&line.points, along - 0.5)?);
            let (x, y) = (here.x_mm - near.x_mm, here.y_mm - near.y_mm);
            let one = x.hypot(y).max(f64::MIN_POSITIVE);
            let at = |side: f64| At::new(here.x_mm - side * off * y / one, here.y_mm + side * off * x / one);
            Some([-1.0, 1.0].map(|side| PlaceOnMap { at: at(side), ..place.clone() }))
        };
        let each = (0..count).filter_map(|step| beside((step as f64 + 0.5) / count as f64 * long));
        each.flatten().collect()
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
    let looked_at = lines.iter().filter(|line| !line.verdict.is_empty()).count();
    if looked_at == 0 {
        Amount::Nothing
    } else if lines.iter().all(|line| !line.open() && line.verdict != "not_ok") {
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
            torch.done, torch.planned, torch.piece
        ));
    }
    found.extend(torch.passed.iter().cloned());
    found.into_iter().map(|sentence| Caution::new(Station::Check, sentence)).collect()
}

/// All that is not good is to be filled again, place by place; false where everything is good.
pub(crate) fn only_to_refill(check: &[CheckLine]) -> bool {
    let bad: Vec<&CheckLine> = check.iter().filter(|line| line.verdict == "not_ok").collect();
    let refilled = |line: &&CheckLine| {
        let mut bad = line.places.iter().filter(|place| place.verdict == "not_ok");
        bad.all(|place| place.then == Some(Then::RefillHot))
    };
    !bad.is_empty() && bad.iter().all(refilled)
}
