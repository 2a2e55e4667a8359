//! Stage 4: the contenders side by side, with the reasons for and against.

mod burns;
mod contender;
mod figures;
mod fill;
mod hours;
mod odds;
mod opened;
mod price;
mod ranked;
mod ready;
mod ruled;
mod schools;
mod sessions;
mod settings;
mod takes;
mod words;

use std::sync::Arc;

use serde::Serialize;
use uuid::Uuid;

use super::cracks::{CrackPlan, FaceGeometry};
use super::heat::{NoZone, Sources, StepSources};
use super::part::{GUESSED_WALL_MM, PartFacts};
use super::prep::{AlongKnown, ChosenGroove, MissingPlan, PrepInputs, PrepPlan};
use super::scrap::scrap_step;
use super::strap::{StrapPlan, StrapsInputs};
use super::taught::{DENSITY, GROOVE, Matter, SIDES};
use super::{Amount, CoolingPlan, HeatPlan, Lock, Stage};
use crate::casting::said::Coating;
use crate::field::{self, Chosen};
use crate::heat::{Cooling, SimCache, ThermalBody, Wrapping};
use crate::iron::{Belief, Era, Iron, strongest};
use crate::job::Round;
use crate::ledger::joint_strength;
use crate::method::customs::{PinDensity, Sides};
use crate::method::{
    ARC_ONLY_KG, Effect, MethodId, PRACTISED, School, ScorePart, Target, Way, strength_points, target,
};
use crate::quantity::{Celsius, Unit};
use crate::shop::{SCRAP_COUNTS, Shop};
pub use contender::{Contender, OddsLine, SchoolChoice};
pub(crate) use fill::{FillsKnown, ToFill};
pub(crate) use odds::of_a_hundred;
pub use opened::{StepOpened, WayOpened};
pub(crate) use price::currency;
pub use price::{Price, PriceLine};
pub(crate) use ready::of_minutes;
pub use ready::{Moment, Ready};
pub use sessions::SessionPlan;
pub use settings::SettingLine;

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
    /// How the source is set for it: read at the torch, also where the server is not reached.
    pub settings: Vec<SettingLine>,
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
    /// Nobody chooses for whoever practises alone.
    pub(crate) fn leave_unchosen(&mut self) {
        self.chosen = None;
        self.settings.clear();
    }

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

/// Context of the method stage: everything the contenders are judged with.
pub(crate) struct MethodContext<'a> {
    pub job: Uuid,
    pub round: &'a Round,
    pub shop: &'a Shop,
    pub part: &'a PartFacts,
    pub belief: &'a Belief,
    pub cracks: &'a [CrackPlan],
    /// Metal that is missing and has to be built up.
    pub missing: &'a [MissingPlan],
    /// Where cracks and marks lie on their faces.
    pub laid: &'a FaceGeometry<'a>,
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
    pub sims: &'a SimCache,
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

impl MethodContext<'_> {
    pub fn target_of(&self, way: Way) -> Option<Target> {
        target_on(self.part, self.belief, way)
    }

    fn cooling(&self, body: &ThermalBody, start_c: f64, wrapping: &Wrapping) -> Option<Arc<Cooling>> {
        Some(self.sims.cool(body, Celsius::new(start_c).ok()?, wrapping))
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
            None => {
                let why = sources.why_not(&target, self.shop.units);
                let local = way.school != School::Local && self.seam_reached(way.method);
                Err(if local { format!("{why} Its seam can be warmed: choose local.") } else { why })
            }
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
        self.part.both_sides.unwrap_or(false) && SIDES.on(self.round, self.shop) == Sides::Both
    }

    pub fn prep_inputs(&self, way: Way) -> PrepInputs<'_> {
        PrepInputs {
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
                && self.round.get(field::part::COATING).is_some_and(|on_it| on_it.contains(&Coating::Paint)),
            missing: self.missing,
            drills_mm: &self.shop.drills_mm,
            bead_mm: self.bead_mm(way),
            anchors: self.taught(&DENSITY, way) == PinDensity::Anchors,
            units: self.shop.units,
        }
    }

    /// What is done on this job where practice differs, and where it matters for this way.
    pub fn taught<T: Chosen + Copy>(&self, matter: &Matter<T>, way: Way) -> T {
        matter.for_method(way.method, self.round, self.shop)
    }

    /// The cracks that get filler or pins: what is watched, stopped only or sound stands outside the rules.
    fn repaired(&self) -> impl Iterator<Item = &CrackPlan> {
        self.cracks.iter().filter(|crack| crack.repaired())
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
        StrapsInputs { round, part, way, prep, ratio, iron }.straps()
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
    let found = target(way, &belief.plausible, part.wall_mm, part.restraint())?;
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
