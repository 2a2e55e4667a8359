//! Stage 4: the contenders side by side, with the reasons for and against.

mod contender;
mod figures;
mod fill;
mod hours;
mod odds;
mod price;
mod schools;
mod sessions;
mod settings;
mod takes;
mod words;

use std::sync::Arc;

use serde::Serialize;
use uuid::Uuid;

use super::cracks::{CrackPlan, Laid};
use super::heat::{NoZone, Sources, StepSources};
use super::part::{GUESSED_WALL_MM, PartFacts};
use super::prep::{AlongKnown, ChosenGroove, MissingPlan, PrepAsked, PrepPlan, missing_cm3};
use super::scrap::scrap_step;
use super::strap::{StrapPlan, StrapsAsked};
use super::taught::{DENSITY, GROOVE, SIDES, Taught};
use super::{Amount, CoolingPlan, HeatPlan, Lock, Stage};
use crate::casting::shape::PartShape;
use crate::field;
use crate::heat::{Body, Cooling, Runs, Wrapping, edge_cooling_s, softening_preheat_c};
use crate::iron::{Belief, Era, Iron, least, strongest};
use crate::job::Round;
use crate::ledger::joint_strength;
use crate::method::{
    ARC_ONLY_KG, Asked, Effect, MethodId, PRACTISED, Piece, Ruling, School, ScorePart, StitchKind, Target,
    Way, apply_rules, hours_points, money_points, pass_of, strength_points, target,
};
use crate::quantity::{Celsius, Unit, WallMillimetres};
use crate::render::said_exactly;
use crate::shop::{SCRAP_COUNTS, Shop};
pub use contender::{Contender, OddsLine, SchoolChoice};
pub(crate) use fill::{FillsKnown, ToFill};
pub use hours::{Moment, Ready};
pub(crate) use odds::of_a_hundred;
pub use price::{Price, PriceLine};
pub use sessions::SessionPlan;
pub use settings::SettingLine;
use words::{doing, why};

/// The choice.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MethodPlan {
    /// Best first; those that are ruled out last, in sight with their reasons.
    pub contenders: Vec<Contender>,
    /// What the plan goes on with: the welder's choice, or the only first choice.
    pub chosen: Option<Way>,
    /// What it goes on with sets pins; nothing is filled.
    pub sets_pins: bool,
    pub overruled: bool,
    pub headline: String,
    /// What to do, in one sentence: "Braze it with the torch, the whole part at 300 °C."
    pub what: String,
    /// Why this and not the others; empty while nothing is chosen.
    pub why: String,
    /// What mending, patching, replacing cost, the least first; empty while it is not known what they cost.
    pub weighed: Vec<PriceLine>,
    /// "Worth it if more than 18 of 100 hold."
    pub weighed_words: String,
    /// When the way that is taken can be done, a session a line; one where it fits into a day.
    pub sessions: Vec<SessionPlan>,
    /// What becomes of the part between two of them; empty where there is one, or nothing is heated.
    pub between_sessions: String,
    /// Minutes from now until it is wanted, by the clock; nothing while no day is said.
    pub wanted_min: Option<f64>,
    pub not_considered: Vec<String>,
    pub not_counted: Vec<String>,
}

impl MethodPlan {
    /// The contender that is taken; nothing while none is.
    #[must_use]
    pub fn taken(&self) -> Option<&Contender> {
        let way = self.chosen?;
        self.contenders.iter().find(|it| it.way == way)
    }
}

/// A rule that fired on a method, and the iron that set it off.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Ruled {
    pub method: MethodId,
    pub effect: Effect,
    pub iron: Option<Iron>,
}

/// What the contenders are judged with.
pub(crate) struct Judged<'a> {
    pub job: Uuid,
    pub round: &'a Round,
    pub shop: &'a Shop,
    pub part: &'a PartFacts,
    pub belief: &'a Belief,
    pub cracks: &'a [CrackPlan],
    /// Metal that is missing and has to be built up.
    pub missing: &'a [MissingPlan],
    /// Where cracks and marks lie on their faces.
    pub laid: &'a Laid<'a>,
    /// The pieces were found to rock.
    pub locked_in: bool,
    /// Of each full break: its tacks.
    pub tacks: Vec<usize>,
    /// The time of day; nothing where that is not known.
    pub moment: Option<Moment>,
    pub along: AlongKnown,
    pub fills: FillsKnown,
    pub sources: Option<&'a Sources>,
    /// The same of the seam and what lies round it; why there is none.
    pub at_the_seam: Result<Option<&'a Sources>, NoZone>,
    /// Steps of the heat that have a source of their own.
    pub steps: &'a StepSources,
    pub runs: &'a Runs,
    /// Of the rounds before: those that failed at a place that is mended now.
    pub failed_here: u32,
}

/// What the locks leave open.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Locked {
    No,
    /// Everything that heats the part.
    Hot,
    All,
}

impl Locked {
    pub fn by(locks: &[Lock]) -> Self {
        if locks.iter().any(|lock| !lock.hot_only) {
            Self::All
        } else if locks.is_empty() {
            Self::No
        } else {
            Self::Hot
        }
    }
}

/// House: a lead of this many points makes a first choice.
const FIRST_CHOICE_LEAD: f64 = 3.0;

impl Judged<'_> {
    pub fn target_of(&self, way: Way) -> Option<Target> {
        target_on(self.part, self.belief, way)
    }

    fn cooling(&self, body: &Body, start_c: f64, wrapping: &Wrapping) -> Option<Arc<Cooling>> {
        Some(self.runs.cool(body, Celsius::new(start_c).ok()?, wrapping))
    }

    /// What heats the part for a way: all of it, or the seam and what lies round it.
    pub fn sources_of(&self, way: Way) -> Option<&Sources> {
        match way.school {
            School::Local => self.at_the_seam.ok().flatten(),
            _ => self.sources,
        }
    }

    fn reach(&self, way: Way) -> Option<Result<(), String>> {
        if way.school == School::ArcOnly {
            return self.warmed_by_the_arc();
        }
        if !way.school.preheats() {
            return None;
        }
        let target = self.target_of(way)?;
        if let Some((shy, limit)) = self.part.coolest()
            && target.least_c > limit
        {
            let what = &shy.what;
            return Some(Err(format!(
                "Needs {}, but {what} must not pass {}.",
                self.part.units.say_least(target.least_c, Unit::Celsius),
                self.part.units.say_most(limit, Unit::Celsius)
            )));
        }
        let sources = match (way.school, self.at_the_seam) {
            (School::Local, Err(NoZone::AllOfIt)) => {
                let why = "It is no larger than what is warmed round a seam: warm all of it.";
                return Some(Err(why.to_owned()));
            }
            _ => self.sources_of(way)?,
        };
        Some(match sources.reach(&target) {
            Some(_) => Ok(()),
            None => Err(sources.why_not(&target, self.shop.units)),
        })
    }

    /// The arc alone warms a small part; nothing while its weight is not known.
    fn warmed_by_the_arc(&self) -> Option<Result<(), String>> {
        let kg = self.part.weight.as_ref()?.kg();
        let say = |kg| self.part.units.say(kg, Unit::Kilograms);
        Some(if kg < ARC_ONLY_KG {
            Ok(())
        } else {
            Err(format!(
                "The arc alone warms a part under {}, and this one weighs {}.",
                say(ARC_ONLY_KG),
                say(kg)
            ))
        })
    }

    pub fn ductile(&self) -> bool {
        self.belief.is_plausible(Iron::Ductile)
    }

    pub fn both_sides(&self) -> bool {
        self.part.both_sides.unwrap_or(false) && SIDES.on(self.round, self.shop) == "both"
    }

    pub fn prep_asked(&self, way: Way) -> PrepAsked<'_> {
        PrepAsked {
            round: self.round,
            groove: ChosenGroove::of(self.round, self.taught(&GROOVE, way)),
            along: &self.along,
            way,
            cracks: self.cracks,
            both_sides: self.both_sides(),
            ductile: self.ductile(),
            fluid_tight: self.part.fluid_tight == Some(true),
            paint_of_unknown_age: self.part.may_be_leaded()
                && self.part.era == Era::Unknown
                && self.round.get(field::part::COATING).is_some_and(|ids| ids.iter().any(|id| id == "paint")),
            missing: self.missing,
            drills_mm: &self.shop.drills_mm,
            bead_mm: self.bead_mm(way),
            anchors: self.taught(&DENSITY, way) == "anchors",
            units: self.shop.units,
        }
    }

    /// What is done on this job where practice differs, and where it matters for this way.
    pub fn taught(&self, matter: &Taught, way: Way) -> &str {
        matter.for_method(way.method, self.round, self.shop)
    }

    /// The cracks that get filler or pins: what is watched, stopped only or sound stands outside the rules.
    fn repaired(&self) -> impl Iterator<Item = &CrackPlan> {
        self.cracks.iter().filter(|crack| crack.repaired())
    }

    /// What became of what broke off, the worst of several breaks.
    fn piece(&self) -> Piece {
        let of = |crack: &CrackPlan| match (crack.full_break, crack.piece.as_str()) {
            (false, _) | (true, "there") => Piece::There,
            (true, "lost") => Piece::Lost,
            (true, "donor") => Piece::Donor,
            (true, _) => Piece::NotSaid,
        };
        self.repaired().map(of).max().unwrap_or(Piece::There)
    }

    /// Whether every seam is a close lap: a crack never is, of a break somebody has to say.
    fn lap(&self) -> Option<bool> {
        let of = |crack: &CrackPlan| match crack.full_break {
            true => self.round.get(field::crack::LAP.of(crack.id)),
            false => Some(false),
        };
        self.repaired().map(of).reduce(|all, one| match (all, one) {
            (Some(false), _) | (_, Some(false)) => Some(false),
            (None, _) | (_, None) => None,
            (Some(true), Some(true)) => Some(true),
        })?
    }

    /// Whether any edge is one of these; nothing while nobody has said it of one.
    fn edges_are(&self, bad: &[&str]) -> Option<bool> {
        let edges: Vec<Option<&str>> =
            self.repaired().map(|crack| self.round.get(field::crack::EDGE.of(crack.id))).collect();
        if edges.iter().flatten().any(|edge| bad.contains(edge)) {
            Some(true)
        } else {
            edges.iter().all(Option::is_some).then_some(false)
        }
    }

    /// Whether burnt iron stays in a joint; nothing while it is burnt and nobody has said.
    fn burnt_stays(&self) -> Option<bool> {
        let burnt = self.cracks.iter().filter(|crack| {
            self.round.get(field::crack::EDGE.of(crack.id)) == Some("burnt") && crack.becomes == "repair"
        });
        let stays = burnt.map(|crack| self.round.get(field::crack::BURNT_OUT.of(crack.id)).map(|out| !out));
        let stays: Vec<Option<bool>> = stays.collect();
        if stays.contains(&Some(true)) { Some(true) } else { (!stays.contains(&None)).then_some(false) }
    }

    fn stitch_kind(&self, method: MethodId) -> StitchKind {
        let loaded = self.round.get(field::part::LOADS).is_none_or(|loads| !loads.is_empty())
            || self.part.fluid_tight != Some(false);
        let draw_in = self.shop.pins.as_deref() == Some("draw_in");
        let service_c = self.round.get(field::part::SERVICE_TEMPERATURE);
        if method == MethodId::StitchLocks {
            return StitchKind::for_locks(self.part.wall_mm, service_c);
        }
        StitchKind::of(self.part.wall_mm, loaded, service_c, draw_in)
    }

    /// Of each way of the arc: how fast its edge cools, in s, and the preheat that would soften it;
    /// the hardest of the irons in question. Empty while the wall is not known.
    fn edges(&self) -> Vec<(Way, f64, f64)> {
        let Some(wall) = self.part.wall_mm.and_then(|mm| WallMillimetres::new(mm).ok()) else {
            return Vec::new();
        };
        ways()
            .filter(|way| way.method.fusion())
            .filter_map(|way| {
                let at = match way.school {
                    School::Cold => self.part.ambient_c,
                    _ => self.target_of(way)?.target_c,
                };
                let pass = pass_of(way, wall, at)?;
                let part = Celsius::new(at).ok()?;
                let cools = |iron: Iron| {
                    edge_cooling_s(&iron.properties(), pass, wall, part).unwrap_or(f64::INFINITY)
                };
                let hardest = least(&self.belief.plausible, cools).iron;
                let softened = softening_preheat_c(&hardest.properties(), pass, wall);
                Some((way, cools(hardest), softened))
            })
            .collect()
    }

    fn say(&self, value: f64, unit: Unit) -> String {
        self.shop.units.say(value, unit)
    }

    fn ruling(&self, edges: &[(Way, f64, f64)]) -> Ruling {
        let reach: Vec<(Way, Result<(), String>)> =
            ways().filter_map(|way| Some((way, self.reach(way)?))).collect();
        let warm = Way { method: MethodId::ArcNickel, school: School::Warm };
        let late = self.late(ways());
        apply_rules(&Asked {
            belief: self.belief,
            service_c: self.round.get(field::part::SERVICE_TEMPERATURE),
            heat_cycling: self.round.get(field::part::HEAT_CYCLING),
            service_min: self.round.get(field::part::SERVICE_TIME),
            life_days: self.part.life_days,
            oil: self.round.get(field::part::OIL),
            fluid_tight: self.part.fluid_tight,
            loads: self.round.get(field::part::LOADS),
            old_filler: self.round.old_filler(),
            old_filler_out: self.round.get(field::part::OLD_FILLER_OUT),
            seen: self.round.get(field::part::SEEN),
            machined: self.round.get(field::part::MACHINED),
            edges,
            wall_mm: self.part.wall_mm,
            closed: self.part.shape.map(PartShape::closed),
            piece: self.piece(),
            warm_reached: reach.iter().find(|(way, _)| *way == warm).map(|(_, r)| r.is_ok()),
            reach: &reach,
            lap: self.lap(),
            hard_edges: self.edges_are(&["flame_cut", "melted"]),
            burnt_stays: self.burnt_stays(),
            missing_cm3: missing_cm3(self.missing),
            patch: self.missing.iter().any(|it| it.patch.is_some()),
            under_pressure: self.round.get(field::part::PRESSURE).map(|bar| bar > 0.0),
            locked_in: self.locked_in,
            late: late.as_deref(),
            units: self.shop.units,
            rods: self.shop.rods.as_deref(),
            sets: self.shop.sets.as_deref(),
            stitch_kit: self.shop.stitch_kit,
        })
    }

    /// Repairs by a method, a piece of scrap as half of one, where the shop has said which ways it has done five times
    /// and more; nothing while it has not.
    fn practised(&self, method: MethodId) -> Option<f64> {
        self.shop.done_often.as_ref()?;
        if self.shop.says_often(method) {
            return Some(PRACTISED);
        }
        let scrap = self.shop.scrap_done(method, self.job) || self.round.ticked.contains(&scrap_step(method));
        let own = if scrap { SCRAP_COUNTS } else { 0.0 };
        Some(self.shop.practice(method, self.job) + own)
    }

    /// A strap for each seam of a way that carries and stands less than whole iron.
    pub(crate) fn straps(&self, way: Way, prep: &PrepPlan) -> Vec<StrapPlan> {
        let (round, part, ratio) = (self.round, self.part, self.strength(way).0);
        let iron = strongest(&self.belief.setting_the_strength()).iron;
        StrapsAsked { round, part, way, prep, ratio, iron }.straps()
    }

    fn strength(&self, way: Way) -> (f64, ScorePart) {
        let governing = strongest(&self.belief.setting_the_strength());
        let iron = governing.iron.properties().tensile_mpa;
        let filler = way.method.filler(self.part.wall_mm.unwrap_or(GUESSED_WALL_MM), self.ductile());
        let efficiency = way.method.entry().efficiency;
        let (ratio, working) = match filler {
            None => (efficiency, format!("{efficiency} of the iron itself")),
            Some(filler) => {
                let one_side = if self.both_sides() { 1.0 } else { 0.8 };
                let ratio = efficiency * one_side * filler.tensile_mpa.0 / iron;
                let side = if one_side < 1.0 { " × 0.8 (one side)" } else { "" };
                (
                    ratio,
                    format!(
                        "{efficiency}{side} × {{{:.0} MPa}} ÷ {{{iron:.0} MPa}}{} = {ratio:.2}",
                        filler.tensile_mpa.0,
                        if governing.forced {
                            format!(" ({})", governing.forced_by())
                        } else {
                            String::new()
                        }
                    ),
                )
            }
        };
        // What this shop's own coupons stood, beside the book.
        let (ratio, working) = match joint_strength(&self.shop.coupons, way.method, governing.iron, ratio) {
            (_, 0) => (ratio, working),
            (here, n) => {
                let pairs = if n == 1 { "1 coupon" } else { &format!("{n} coupons") };
                (here, format!("{working}; with {pairs} broken here {here:.2}"))
            }
        };
        (ratio, ScorePart::new("strength", strength_points(ratio), working))
    }

    /// No first choice is called while too little is known of the part; the welder's own stands.
    pub fn contenders(&self, locked: Locked, part_known: bool) -> (MethodPlan, Vec<Ruled>) {
        let locks = |way: Way| match locked {
            Locked::No => false,
            Locked::Hot => !way.method.without_heat(),
            Locked::All => true,
        };
        let edges = self.edges();
        let ruling = self.ruling(&edges);
        let mut contenders: Vec<Contender> = MethodId::ALL
            .into_iter()
            .map(|method| {
                let (school, schools) = self.school_of(method, &ruling);
                self.contender(Way { method, school }, schools, &ruling, &edges)
            })
            .collect();
        self.score(&mut contenders);
        in_order(&mut contenders, &ruling);
        let here = |contender: &Contender| !ruling.not_here.contains(&contender.way.method);
        let left: Vec<&Contender> = contenders.iter().filter(|c| c.recommended).collect();
        let today: Vec<&Contender> = left.iter().copied().filter(|c| here(c)).collect();
        let left = if today.is_empty() { left } else { today };
        let leads = match left[..] {
            _ if !part_known => None,
            [] => None,
            [only] => Some(only.way),
            [first, second, ..] => (first.score - second.score >= FIRST_CHOICE_LEAD).then_some(first.way),
        };
        let overrule = self
            .round
            .get(field::method::CHOICE)
            .and_then(|method| contenders.iter().find(|c| c.way.method == method));
        let would_be = overrule.map(|c| c.way).or(leads);
        let shut = would_be.map_or(locked == Locked::All, locks);
        let headline = match (shut, overrule) {
            (true, _) if locked == Locked::Hot => "Nothing hot is recommended until it is vented.".to_owned(),
            (true, _) => "Nothing is recommended while the job is locked.".to_owned(),
            (false, Some(own)) => format!("{}: the welder's choice.", own.label),
            (false, None) => headline_of(&left, leads, part_known),
        };
        let ruled = ruling
            .fired
            .iter()
            .filter(|fired| fired.school.is_none())
            .map(|fired| Ruled { method: fired.method, effect: fired.effect, iron: fired.iron })
            .collect();
        // A part that is referred out is taken by nobody.
        let own = overrule.filter(|_| locked != Locked::All).map(|own| own.way);
        let chosen = own.or(leads.filter(|way| !locks(*way)));
        let taken = chosen.and_then(|way| contenders.iter().find(|contender| contender.way == way));
        let (weighed, weighed_words) = taken.map_or_else(Default::default, |taken| self.weighed(taken));
        let plan = MethodPlan {
            chosen,
            sets_pins: chosen.is_some_and(|way| way.method.pins()),
            overruled: overrule.is_some_and(|own| Some(own.way) != leads),
            headline,
            what: taken.map_or_else(String::new, doing),
            why: taken.map_or_else(String::new, |taken| why(taken, &contenders, overrule.is_some())),
            weighed,
            weighed_words,
            sessions: taken.map_or_else(Vec::new, |taken| self.sessions(taken)),
            between_sessions: taken.map_or_else(String::new, |taken| self.between_sessions(taken)),
            wanted_min: self.moment.and_then(|at| Some((at.wanted_min? - at.now_min) as f64)),
            not_considered: ruling.not_considered.into_iter().map(|it| it.what).collect(),
            not_counted: match self.shop.rate {
                None => vec!["price: needs rates".to_owned()],
                Some(_) => Vec::new(),
            },
            contenders,
        };
        (plan, ruled)
    }

    /// Hours and money are points against the quickest and the cheapest; then all of it is added up.
    fn score(&self, contenders: &mut [Contender]) {
        let least = |of: fn(&Contender) -> Option<f64>| {
            contenders.iter().filter(|c| c.recommended).filter_map(of).fold(f64::INFINITY, f64::min)
        };
        let (cheapest, quickest) = (least(|c| c.price.total), least(|c| c.hours));
        for contender in contenders {
            if let Some(hours) = contender.hours {
                let over = if quickest.is_finite() { quickest } else { hours };
                contender.parts.push(ScorePart::new(
                    "hours",
                    hours_points(hours, over),
                    format!("{hours:.1} h against {over:.1} h for the quickest"),
                ));
            }
            if let Some(total) = contender.price.total.filter(|_| cheapest.is_finite() && cheapest > 0.0) {
                let working = format!("{total:.0} against {cheapest:.0} for the cheapest");
                contender.parts.push(ScorePart::new("money", money_points(total, cheapest), working));
            }
            contender.score = contender.parts.iter().map(|part| part.points).sum();
            for part in &mut contender.parts {
                part.working = said_exactly(&part.working, self.part.units);
            }
        }
    }
}

/// The first choice first. What is not here is not named first while another can be begun today, even where it
/// scores more.
fn in_order(contenders: &mut [Contender], ruling: &Ruling) {
    contenders.sort_by(|a, b| {
        (a.excluded.cmp(&b.excluded))
            .then(b.recommended.cmp(&a.recommended))
            .then(b.score.total_cmp(&a.score))
            .then(a.target_c.unwrap_or(0.0).total_cmp(&b.target_c.unwrap_or(0.0)))
    });
    let here = |contender: &Contender| !ruling.not_here.contains(&contender.way.method);
    if let Some(at) = contenders.iter().position(|it| it.recommended && here(it))
        && contenders.first().is_some_and(|first| !here(first))
    {
        contenders[..=at].rotate_right(1);
    }
}

/// What is said of the ways that are left, the best first, where nobody has chosen.
fn headline_of(left: &[&Contender], leads: Option<Way>, part_known: bool) -> String {
    match left.first() {
        Some(first) if !part_known => {
            format!("{} leads so far. Too little is known of the part to choose.", first.label)
        }
        None => "Don't repair: nothing is left. See why below.".to_owned(),
        Some(first) if leads.is_some() => format!("{}: first choice.", first.label),
        Some(first) => {
            let near = left.iter().filter(|c| first.score - c.score < FIRST_CHOICE_LEAD);
            let near: Vec<&str> = near.map(|c| c.label.as_str()).collect();
            format!("Side by side: {}. Choose one.", near.join(" or "))
        }
    }
}

pub(crate) fn stage(
    plan: MethodPlan,
    heat: Option<&HeatPlan>,
    cooling: Option<&CoolingPlan>,
    cracks: Amount,
) -> Stage<MethodPlan> {
    Stage {
        amount: amount(&plan, cracks),
        missing: Vec::new(),
        cautions: Vec::new(),
        figures: figures::figures(&plan, heat, cooling),
        plan,
    }
}

fn ways() -> impl Iterator<Item = Way> {
    MethodId::ALL.into_iter().flat_map(|method| method.schools().map(move |school| Way { method, school }))
}

/// The preheat of a way on this part, given way to what must stay cool.
fn target_on(part: &PartFacts, belief: &Belief, way: Way) -> Option<Target> {
    let found = target(way, &belief.plausible, part.wall_mm, part.closed())?;
    Some(match part.coolest() {
        Some((_, limit)) => found.capped(limit),
        None => found,
    })
}

/// The targets of every way that preheats: what the sources are tried for. None is left out, so that no
/// sentence speaks of one that was not worked out.
pub(crate) fn targets_c(part: &PartFacts, belief: &Belief) -> Vec<f64> {
    let mut targets: Vec<f64> = ways()
        .filter(|way| way.school.preheats())
        .filter_map(|way| target_on(part, belief, way))
        .map(|target| target.target_c)
        .collect();
    targets.sort_by(f64::total_cmp);
    targets.dedup();
    targets
}

fn amount(methods: &MethodPlan, cracks: Amount) -> Amount {
    match (methods.chosen, cracks) {
        (Some(_), Amount::Enough) => Amount::Enough,
        (Some(_), _) => Amount::Something,
        (None, _) => Amount::Nothing,
    }
}
