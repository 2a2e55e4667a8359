//! The rules that choose among the methods, one file each: what it asks, what it says, and of what.
//! A new rule is one file and one line here.

mod m01_white;
mod m02_steel;
mod m03_malleable;
mod m04_ductile;
mod m05_service_heat;
mod m06_oil;
mod m07_reach;
mod m08_seen;
mod m09_machined;
mod m10_fluid_tight;
mod m11_thick_wall;
mod m12_thin_wall;
mod m13_old_bronze;
mod m14_old_weld;
mod m15_hard_edges;
mod m16_burnt;
mod m17_lost_piece;
mod m18_in_time;
mod m19_at_hand;
mod m21_bending_and_shock;
mod m23_ni_resist;
mod m24_only_helps;
mod m25_locked_in;

use crate::casting::said::Load;
use crate::casting::said::SeenAs;
use crate::casting::said::{Machined, Oil};
use crate::casting::shape::Restraint;
pub use m19_at_hand::at_hand;
pub(in crate::method) use m19_at_hand::laid_with;
use serde::Serialize;

use super::{MethodId, School, Way};
use crate::casting::old_filler::OldFiller;
use crate::iron::{Belief, Iron};
use crate::quantity::UnitSystem;

/// What a rule does to a method.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Effect {
    Exclude,
    Caution,
    Favour,
}

/// One rule that fired.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Fired {
    pub rule: String,
    pub effect: Effect,
    pub method: MethodId,
    /// Only this school; nothing for the whole method.
    pub school: Option<School>,
    /// The iron that set it off; nothing for any other fact.
    pub iron: Option<Iron>,
    pub sentence: String,
}

/// Fit of the broken-off piece: whether it is there. Of several breaks the worst counts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum PieceFit {
    /// Nothing is broken off, or it fits.
    There,
    NotSaid,
    /// Lost, and a patch of like iron is at hand.
    Donor,
    Lost,
}

/// Facts the rules judge by. `None` is not known: the rule then does not fire.
#[derive(Debug, Clone)]
pub struct RuleFacts<'a> {
    pub belief: &'a Belief,
    pub service_c: Option<f64>,
    pub heat_cycling: Option<bool>,
    pub life_days: Option<f64>,
    pub oil: Option<Oil>,
    pub fluid_tight: Option<bool>,
    pub wall_mm: Option<f64>,
    /// What keeps it from expanding; nothing while its shape is not known.
    pub restraint: Option<Restraint>,
    pub piece: PieceFit,
    /// Of each way that gets the part hot: can it be reached, or why not; not in it while not known.
    pub reach: &'a [(Way, Result<(), String>)],
    /// The warm school's 150 degC can be reached; nothing while not known.
    pub warm_reached: Option<bool>,
    /// Minutes it stands the service temperature at a time.
    pub service_min: Option<f64>,
    pub loads: Option<Vec<Load>>,
    /// What it was repaired with before, and whether all of that can come out.
    pub old_filler: Option<OldFiller>,
    pub old_filler_out: Option<bool>,
    /// hidden, painted or bare.
    pub seen: Option<SeenAs>,
    /// nothing, elsewhere or across.
    pub machined: Option<Machined>,
    /// Of each way that melts the edge: its cooling time in s, and the preheat that would soften it.
    pub edges: &'a [(Way, f64, f64)],
    /// Its faces lap closely, as in a sleeve; no for a crack, nothing while nobody has said it of a break.
    pub lap: Option<bool>,
    /// An edge is flame-cut or was melted; nothing while nobody has said.
    pub hard_edges: Option<bool>,
    /// Burnt iron cannot be cut back; no where nothing is burnt.
    pub burnt_stays: Option<bool>,
    /// Metal that has to be built up, in cm³.
    pub missing_cm3: f64,
    /// A patch is to be set in where a piece is missing.
    pub patch: bool,
    pub under_pressure: Option<bool>,
    /// The pieces were found to rock: stress is locked in.
    pub locked_in: bool,
    /// The ways that are not ready by the day it is wanted, and why; nothing while no day is said.
    pub late: Option<&'a [(Way, String)]>,
    pub rods: Option<&'a [String]>,
    /// Welding sets at hand.
    pub sets: Option<&'a [String]>,
    pub stitch_kit: Option<bool>,
    /// The system the sentences speak in.
    pub units: UnitSystem,
}

impl RuleFacts<'_> {
    /// This rod is at hand, as far as anybody has said.
    fn has_rod(&self, rod: &str) -> bool {
        self.rods.is_some_and(|rods| rods.iter().any(|at_hand| at_hand == rod))
    }
}

/// A rule that cannot judge, and what would have to be known for it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct NotConsidered {
    pub rule: &'static str,
    pub what: String,
}

/// The rules' answer.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Ruling {
    pub fired: Vec<Fired>,
    /// What these are done with is not here: none of them is named first while another can be begun today.
    pub not_here: Vec<MethodId>,
    /// "(rule): not considered, because ... is not known".
    pub not_considered: Vec<NotConsidered>,
}

/// A rule: what it is called, and how it judges.
pub(super) struct Rule {
    pub id: &'static str,
    /// The iron it is about; nothing for any other fact.
    pub iron: Option<Iron>,
    /// What is not known does not fire: it says which fact it would have asked for.
    pub judge: fn(&RuleFacts<'_>, &mut RuleOutput<'_>),
}

/// In the order in which they are told.
const RULES: [&Rule; 23] = [
    &m01_white::RULE,
    &m02_steel::RULE,
    &m03_malleable::RULE,
    &m04_ductile::RULE,
    &m23_ni_resist::RULE,
    &m05_service_heat::RULE,
    &m06_oil::RULE,
    &m10_fluid_tight::RULE,
    &m11_thick_wall::RULE,
    &m12_thin_wall::RULE,
    &m08_seen::RULE,
    &m09_machined::RULE,
    &m13_old_bronze::RULE,
    &m14_old_weld::RULE,
    &m15_hard_edges::RULE,
    &m16_burnt::RULE,
    &m17_lost_piece::RULE,
    &m21_bending_and_shock::RULE,
    &m24_only_helps::RULE,
    &m25_locked_in::RULE,
    &m07_reach::RULE,
    &m18_in_time::RULE,
    &m19_at_hand::RULE,
];

/// Output of one rule.
pub(super) struct RuleOutput<'a> {
    rule: &'static Rule,
    ruling: &'a mut Ruling,
}

impl RuleOutput<'_> {
    pub fn exclude(&mut self, methods: &[MethodId], sentence: impl Into<String>) {
        self.say(Effect::Exclude, methods, sentence.into());
    }

    pub fn caution(&mut self, methods: &[MethodId], sentence: impl Into<String>) {
        self.say(Effect::Caution, methods, sentence.into());
    }

    /// What it is done with is not here: it cannot be begun today.
    pub fn not_here(&mut self, method: MethodId) {
        if !self.ruling.not_here.contains(&method) {
            self.ruling.not_here.push(method);
        }
    }

    pub fn favour(&mut self, methods: &[MethodId], sentence: impl Into<String>) {
        self.say(Effect::Favour, methods, sentence.into());
    }

    fn say(&mut self, effect: Effect, methods: &[MethodId], sentence: String) {
        let (rule, fired) = (self.rule, &mut self.ruling.fired);
        for &method in methods {
            // However often it is set off, a rule counts once for a method.
            let told = fired.iter_mut().find(|f| {
                f.rule == rule.id && f.method == method && f.effect == effect && f.school.is_none()
            });
            if let Some(told) = told {
                if !told.sentence.contains(&sentence) {
                    told.sentence = format!("{} {sentence}", told.sentence);
                }
            } else {
                let (rule, iron, sentence) = (rule.id.to_owned(), rule.iron, sentence.clone());
                fired.push(Fired { rule, effect, method, school: None, iron, sentence });
            }
        }
    }

    /// Of one school of a method alone.
    pub fn of_a_way(&mut self, effect: Effect, way: Way, sentence: impl Into<String>) {
        self.ruling.fired.push(Fired {
            rule: self.rule.id.to_owned(),
            effect,
            method: way.method,
            school: Some(way.school),
            iron: self.rule.iron,
            sentence: sentence.into(),
        });
    }

    /// It cannot judge while this is not known.
    pub fn unknown(&mut self, what: &str) {
        // What several rules ask for is said once.
        if self.ruling.not_considered.iter().any(|it| it.what == what) {
            return;
        }
        self.ruling.not_considered.push(NotConsidered { rule: self.rule.id, what: what.to_owned() });
    }
}

const ALL: &[MethodId] = &MethodId::ALL;
const STICK: &[MethodId] = &[MethodId::ArcNickel, MethodId::ArcNickelIron];
/// What is done cold as well.
const COLD_SCHOOL: &[MethodId] = &[MethodId::ArcNickel, MethodId::ArcNickelIron, MethodId::ButterBuild];
const NICKEL: &[MethodId] =
    &[MethodId::ArcNickel, MethodId::ArcNickelIron, MethodId::TigNickel, MethodId::ButterBuild];
const FUSION: &[MethodId] = &[
    MethodId::ArcNickel,
    MethodId::ArcNickelIron,
    MethodId::GasIron,
    MethodId::TigNickel,
    MethodId::ButterBuild,
    MethodId::LastResort,
];
const BRONZE: &[MethodId] =
    &[MethodId::TorchBraze, MethodId::TigBrazeSi, MethodId::TigBrazeAl, MethodId::MigBrazeSi];
const PINS: &[MethodId] = &[MethodId::Stitch, MethodId::StitchLocks];

/// Applies every rule. Locks (M01 on little evidence, M20, M22) are the plan's.
///
/// # Source
/// House.
#[must_use]
pub fn apply_rules(facts: &RuleFacts<'_>) -> Ruling {
    let mut ruling = Ruling::default();
    for rule in RULES {
        (rule.judge)(facts, &mut RuleOutput { rule, ruling: &mut ruling });
    }
    ruling
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_rule_has_a_name_of_its_own() {
        let mut ids: Vec<&str> = RULES.iter().map(|rule| rule.id).collect();
        ids.sort_unstable();
        ids.dedup();
        assert_eq!(ids.len(), RULES.len());
    }
}
