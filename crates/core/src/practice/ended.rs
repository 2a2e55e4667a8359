//! What became of a practice: the parts of the odds worked out with the truth in place of what was believed.

use crate::casting::said::Oil;
use serde::Serialize;
use uuid::Uuid;

use super::answers::{beyond_mm, hidden_found, hole_to_mm};
use super::opened::opened;
use super::otherwise::{Otherwise, otherwise};
use super::truth_words::truth_words;
use crate::faults::causes::Symptom;
use crate::heat::SimCache;
use crate::iron::Iron;
use crate::job::{Job, Lighting, TorchEntry};
use crate::map::At;
use crate::method::{CRACK_OPEN, Joins, MethodId, Moves, OddsPart, shift_of};
use crate::plan::{Opens, Plan, plan_as_if, plan_with};
use crate::quantity::UnitSystem;
use crate::render::{said, upper};
use crate::secret::Practice;
use crate::shop::Shop;
use crate::stage::Contender;

/// A part of the odds, with the truth in it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EndedPart {
    /// As the reckoner calls it, or `burnt`, `rod_wrong`, `hidden_crack`, `bronze_hot`, `steel`.
    pub name: String,
    /// In log-odds.
    pub shift: f64,
    pub words: String,
    /// "6 fewer of 100"
    pub moves: String,
}

/// An end of a crack as it really is.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TrueTip {
    pub crack: String,
    /// "left", "right"
    pub end: String,
    /// Beyond where it was found, in mm.
    pub beyond_mm: f64,
    /// How far the hole reaches, in mm; nothing where none was drilled.
    pub hole_to_mm: Option<f64>,
    /// Nothing while the crack lies on no face.
    pub on_map: Option<TipOnMap>,
    pub words: String,
}

/// Where an end was found on a face, and where it really is.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TipOnMap {
    pub face: Uuid,
    pub found: At,
    pub truly: At,
}

/// What became of a made-up part.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Ended {
    pub holds: bool,
    /// "It held." or what it failed of.
    pub headline: String,
    /// Of a hundred such repairs so many hold a year: 0 to 1.
    pub odds: f64,
    pub of_100: String,
    /// The way that was taken; empty where it was left alone.
    pub way: String,
    /// What moved them, the largest first.
    pub parts: Vec<EndedPart>,
    /// What the part was, a sentence each.
    pub truth: Vec<String>,
    pub tips: Vec<TrueTip>,
    /// The same case with one choice changed, the best first.
    pub otherwise: Vec<Otherwise>,
    /// Minutes of tests, and of the job clock.
    pub minutes: f64,
}

/// House: the parts that only a truth can have, on top of the floor of what counts against a repair.
pub(super) const BURNT: f64 = -2.5;
pub(super) const ROD_WRONG: f64 = -1.0;
pub(super) const HIDDEN: f64 = -1.5;
pub(super) const BRONZE_HOT: f64 = -3.0;
pub(super) const STEEL: f64 = -0.5;
/// What is not filled, or is open, is never given more.
pub(super) const OPEN_MOST: f64 = 0.05;
/// No repair is given more.
const MOST: f64 = 0.97;

/// What was done, as far as it counts.
pub(super) struct Did<'a> {
    pub practice: &'a Practice,
    pub job: &'a Job,
    /// As the learner saw it, and as it is.
    pub believed: &'a Plan,
    pub truly: &'a Plan,
    /// The way that was taken: nothing where it was left alone.
    pub way: Option<&'a Contender>,
    /// The crack that ran on while it was heated.
    pub opened: Option<Opens>,
}

/// Of the parts of a contender those that the truth says otherwise.
const SAID_OTHERWISE: [&str; 7] =
    ["tip_missed", "no_hole", "oil", "old_filler", "iron_unsure", "skill", "locked_in"];

impl<'a> Did<'a> {
    fn of(practice: &'a Practice, job: &'a Job, believed: &'a Plan, truly: &'a Plan) -> Self {
        let laid = job.round().repaired() && believed.torch.as_ref().is_some_and(|torch| torch.done > 0);
        let lit = job.round().lit.as_ref().and_then(|lit| lit.frozen.as_ref()).and_then(|frozen| frozen.way);
        let way = lit.filter(|_| laid);
        let way = way.and_then(|way| truly.methods.contenders.iter().find(|it| it.way.method == way.method));
        Self { practice, job, believed, truly, way, opened: None }
    }

    /// Fewer beads or pins than the seams take, or the check found a crack and it was left: one is open.
    pub(super) fn open(&self) -> bool {
        let found = |way: &Contender| way.odds_parts.iter().any(|part| part.name == CRACK_OPEN);
        // One that ran on in the heat is open by itself, whatever the check found.
        let at_the_check = !ran_on(self.job) && self.way.is_some_and(found);
        self.unfinished() || self.opened.is_some() || at_the_check
    }

    fn unfinished(&self) -> bool {
        let torch = self.believed.torch.as_ref();
        self.way.is_some() && torch.is_some_and(|torch| torch.done < torch.planned)
    }

    /// Each tip that is mended: how far it lies beyond where it was found, and how far its hole reaches.
    pub(super) fn tips(&self) -> Vec<TrueTip> {
        let mut tips = Vec::new();
        for crack in &self.job.round().cracks {
            for end in 0..2 {
                let Some(beyond_mm) = beyond_mm(self.practice, self.job, crack, end) else { continue };
                let hole_to_mm = hole_to_mm(self.practice, self.job, self.believed, (crack.id, end));
                let name = ["left", "right"][end];
                let lies = format!(
                    "Crack {}, {name} end: {{{beyond_mm:.1} mm}} beyond where it was found",
                    crack.letter
                );
                let words = match hole_to_mm {
                    None => format!("{lies}, and no hole."),
                    Some(reach) if reach >= beyond_mm => {
                        format!("{lies}; the hole reaches {{{reach:.1} mm}}: caught.")
                    }
                    Some(reach) => format!("{lies}; the hole reaches {{{reach:.1} mm}}: missed."),
                };
                let on_map = self.on_map(crack.id, end, beyond_mm);
                tips.push(TrueTip {
                    on_map,
                    crack: crack.letter.clone(),
                    end: name.to_owned(),
                    beyond_mm,
                    hole_to_mm,
                    words,
                });
            }
        }
        tips
    }

    fn on_map(&self, crack: Uuid, end: usize, beyond_mm: f64) -> Option<TipOnMap> {
        let placed = self.job.round().drawn.iter().find(|placed| placed.mark == crack)?;
        let mut points = placed.shape.points();
        if end == 0 {
            points.reverse();
        }
        let [.., before, found] = points.as_slice() else { return None };
        let truly = found.along(before.toward(*found)?, beyond_mm);
        Some(TipOnMap { face: placed.face, found: *found, truly })
    }

    /// What the truth alone says of the way: tips, oil, old filler, stress.
    pub(super) fn of_the_truth(&self, method: MethodId, tips: &[TrueTip], baked: bool) -> Moves {
        let truth = &self.practice.truth;
        let missed =
            |tip: &TrueTip| tip.hole_to_mm.map(|reach| if tip.beyond_mm > reach { 1.0 } else { 0.0 });
        let out = self.job.round().get(crate::field::part::OLD_FILLER_OUT) == Some(true);
        Moves {
            run_past: tips.iter().filter_map(missed).collect(),
            // Where it ran on its hole is behind it.
            tips_without_hole: (tips.iter().filter(|tip| tip.hole_to_mm.is_none()).count()
                + usize::from(self.opened.is_some())) as u32,
            oil_soaked_unbaked: truth.oil && !baked,
            // Bronze may stay under bronze.
            old_filler_left: truth.old_bronze && method.fusion() && !out,
            locked_in_stress: truth.locked_in,
            ..Moves::default()
        }
    }

    /// It burned to bake the oil out, and somebody said that it is clean.
    pub(super) fn baked(&self) -> bool {
        let bake = self.job.heats().any(|heat| heat.lit.what == Lighting::Bake);
        bake && self.job.round().get(crate::field::part::OIL) == Some(Oil::BakedClean)
    }

    /// The parts of a way, with the truth in them; and those that come on top of the floor.
    pub(super) fn parts(
        &self,
        contender: &Contender,
        tips: &[TrueTip],
        baked: bool,
        found: bool,
    ) -> (Vec<OddsPart>, Vec<OddsPart>) {
        let method = contender.way.method;
        let mut parts = contender.parts_of_odds();
        parts.retain(|part| !SAID_OTHERWISE.contains(&part.name.as_str()) && part.shift != 0.0);
        parts.extend(self.of_the_truth(method, tips, baked).parts(method));
        parts.sort_by(|a, b| b.shift.abs().total_cmp(&a.shift.abs()));
        (parts, self.on_top(method, found))
    }

    fn on_top(&self, method: MethodId, found: bool) -> Vec<OddsPart> {
        let truth = &self.practice.truth;
        let stands = method.entry().stands;
        let service_c = truth.service_c.or(self.job.round().get(crate::field::part::SERVICE_TEMPERATURE));
        let over = service_c.is_some_and(|service_c| service_c > stands.with_caution_c);
        let believes_ductile = self.believed.iron.leading == Iron::Ductile;
        let lines = [
            ("burnt", BURNT, method.fusion() && matches!(truth.iron, Iron::Malleable | Iron::White)),
            (
                "rod_wrong",
                ROD_WRONG,
                method == MethodId::GasIron && truth.iron == Iron::Ductile && !believes_ductile,
            ),
            ("hidden_crack", HIDDEN, truth.hidden.is_some() && !found),
            (
                "bronze_hot",
                BRONZE_HOT,
                matches!(method.entry().joins, Joins::Bronze | Joins::ArcBronze) && over,
            ),
            ("steel", STEEL, truth.iron == Iron::Steel && self.believed.iron.leading != Iron::Steel),
        ];
        let counts = lines.into_iter().filter(|(_, _, counts)| *counts);
        counts.map(|(name, shift, _)| OddsPart { name: name.to_owned(), shift }).collect()
    }

    /// Of a hundred such repairs so many hold: 0 to 1.
    pub(super) fn odds(&self, start: f64, parts: &[OddsPart], on_top: &[OddsPart], open: bool) -> f64 {
        let shift = shift_of(parts) + on_top.iter().map(|part| part.shift).sum::<f64>();
        let odds = start / (1.0 - start) * shift.exp();
        let p = (odds / (1.0 + odds)).min(MOST);
        if open { p.min(OPEN_MOST) } else { p }
    }

    pub(super) fn hidden_found(&self) -> bool {
        hidden_found(self.practice, self.job)
    }
}

impl Ended {
    /// With its quantities said in these units.
    #[must_use]
    pub fn said(mut self, units: UnitSystem) -> Self {
        for words in &mut self.truth {
            *words = said(words, units);
        }
        for tip in &mut self.tips {
            tip.words = said(&tip.words, units);
        }
        for other in &mut self.otherwise {
            other.words = said(&other.words, units);
        }
        self
    }
}

/// What became of a practice; nothing for a real job. The same truth, seed and choices give the same.
#[must_use]
pub fn ended(job: &Job, shop: &Shop, sims: &SimCache) -> Option<Ended> {
    let practice = job.practice.as_ref()?;
    let believed = plan_with(job, shop, sims);
    let truly = plan_as_if(&job.as_it_is(), shop, practice.truth.iron, sims);
    let mut did = Did::of(practice, job, &believed, &truly);
    if did.way.is_some() && ran_on(job) {
        did.opened = opened(job, shop, sims);
    }
    let (tips, baked, found) = (did.tips(), did.baked(), did.hidden_found());
    let drawn = practice.draws().even("holds", "");
    let (odds, parts, on_top) = match did.way {
        None => (practice.truth.left_alone, Vec::new(), Vec::new()),
        Some(way) => {
            let (parts, on_top) = did.parts(way, &tips, baked, found);
            let odds = did.odds(way.odds_start.mean, &parts, &on_top, did.open());
            (odds, parts, on_top)
        }
    };
    let holds = drawn < odds;
    let all: Vec<OddsPart> = parts.iter().chain(&on_top).cloned().collect();
    let shown = |part: &OddsPart| {
        let without = |list: &[OddsPart]| -> Vec<OddsPart> {
            list.iter().filter(|it| it.name != part.name).cloned().collect()
        };
        let start = did.way.map_or(odds, |way| way.odds_start.mean);
        let then = did.odds(start, &without(&parts), &without(&on_top), did.open());
        let of_100 = (odds - then) * 100.0;
        EndedPart {
            name: part.name.clone(),
            shift: part.shift,
            words: part_words(&part.name),
            moves: match of_100.abs() {
                least if least < 0.5 => "hardly".to_owned(),
                many if of_100 < 0.0 => format!("{many:.0} fewer of 100"),
                many => format!("{many:.0} more of 100"),
            },
        }
    };
    let mut ends: Vec<EndedPart> = all.iter().map(shown).collect();
    ends.sort_by(|a, b| b.shift.abs().total_cmp(&a.shift.abs()));
    Some(Ended {
        holds,
        headline: headline(&did, holds, &all),
        odds,
        of_100: format!("{:.0} of 100", odds * 100.0),
        way: did.way.map_or(String::new(), |way| way.label.clone()),
        parts: ends,
        truth: truth_words(&did),
        otherwise: otherwise(&did, (odds, drawn), (shop, sims)),
        tips,
        minutes: minutes(job),
    })
}

fn part_words(name: &str) -> String {
    let alone = match name {
        "tip_missed" => "a true tip lies past its hole",
        "burnt" => "fused, and this iron takes no weld",
        "rod_wrong" => "a gray rod in ductile iron",
        "hidden_crack" => "a second crack that nobody found",
        "bronze_hot" => "bronze where it is too hot for it",
        "steel" => "it was steel, and taken for iron",
        other => crate::method::odds_words(other),
    };
    alone.to_owned()
}

/// What became of it, and of what: a failure has a cause drawn in proportion to what spoke against it.
fn headline(did: &Did<'_>, holds: bool, all: &[OddsPart]) -> String {
    let Some(way) = did.way else {
        let held = if holds { "It stood" } else { "It went on" };
        return format!("Left alone. {held}.");
    };
    if holds {
        return format!("{}: it held.", way.label);
    }
    if did.unfinished() {
        return format!("{}: it failed. It was not done to the end.", way.label);
    }
    if did.opened.is_some() {
        return format!("{}: it failed. A crack ran on in the heat, and it was left open.", way.label);
    }
    if did.open() {
        return format!("{}: it failed. The check had found a crack, and it was left open.", way.label);
    }
    let weights: Vec<f64> = all.iter().map(|part| (-part.shift).max(0.0)).collect();
    let cause = did.practice.draws().one("cause", "", &weights);
    match cause {
        None => format!("{}: it failed. By chance: nothing that was done speaks against it.", way.label),
        Some(at) => format!("{}: it failed. {}.", way.label, upper(&part_words(&all[at].name))),
    }
}

/// It was seen at the torch that a crack got longer.
fn ran_on(job: &Job) -> bool {
    let seen = |entry: &TorchEntry| matches!(entry, TorchEntry::Trouble { seen: Symptom::RanOn, .. });
    job.round().said_at_torch().any(|(_, it)| seen(&it.entry))
}

/// Of the tests, and of the job clock until the last that was said.
fn minutes(job: &Job) -> f64 {
    use crate::iron::LookTest;
    let tests = job.evidence.iter().filter_map(|seen| LookTest::from_id(&seen.test)).map(LookTest::minutes);
    let lit = job.heats().map(|heat| heat.log.iter().map(|entry| entry.minutes).fold(0.0, f64::max));
    tests.sum::<f64>() + lit.sum::<f64>()
}
