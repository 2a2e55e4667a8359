//! The rules that choose among the methods.

mod gear;
mod iron;
mod joint;
mod service;

use serde::{Deserialize, Serialize};

use super::{MethodId, School, Way};
use crate::iron::{Belief, Iron};
use crate::quantity::UnitSystem;

/// What a rule does to a method.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Effect {
    Exclude,
    Caution,
    Favour,
}

/// One rule that fired.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
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

/// Whether what broke off is there. Of several breaks the worst counts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Piece {
    /// Nothing is broken off, or it fits.
    There,
    NotSaid,
    /// Lost, and a patch of like iron is at hand.
    Donor,
    Lost,
}

/// What the rules are asked with. `None` is not known: the rule then does not fire.
#[derive(Debug, Clone)]
pub struct Asked<'a> {
    pub belief: &'a Belief,
    pub service_c: Option<f64>,
    pub heat_cycling: Option<bool>,
    pub life_days: Option<f64>,
    pub oil: Option<&'a str>,
    pub fluid_tight: Option<bool>,
    pub wall_mm: Option<f64>,
    /// It cannot expand freely; nothing while its shape is not known.
    pub closed: Option<bool>,
    pub piece: Piece,
    /// Of each way that preheats: can it be reached, or why not; not in it while not known.
    pub reach: &'a [(Way, Result<(), String>)],
    /// The warm school's 150 degC can be reached; nothing while not known.
    pub warm_reached: Option<bool>,
    /// Minutes it stands the service temperature at a time.
    pub service_min: Option<f64>,
    pub loads: Option<&'a [String]>,
    /// What it was repaired with before, and whether all of that can come out.
    pub old_filler: Option<&'a str>,
    pub old_filler_out: Option<bool>,
    /// hidden, painted or bare.
    pub seen: Option<&'a str>,
    /// nothing, elsewhere or across.
    pub machined: Option<&'a str>,
    /// Of each way that melts the edge: its cooling time in s, and the preheat that would soften it.
    pub edges: &'a [(Way, f64, f64)],
    pub rods: Option<&'a [String]>,
    pub stitch_kit: Option<bool>,
    /// The system the sentences speak in.
    pub units: UnitSystem,
}

/// The rules' answer.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Ruling {
    pub fired: Vec<Fired>,
    /// "(rule): not considered, because ... is not known".
    pub not_considered: Vec<String>,
}

impl Ruling {
    fn say(&mut self, rule: &str, effect: Effect, methods: &[MethodId], sentence: impl Into<String>) {
        let sentence = sentence.into();
        for &method in methods {
            // However often it is set off, a rule counts once for a method.
            let told = self
                .fired
                .iter_mut()
                .find(|f| f.rule == rule && f.method == method && f.effect == effect && f.school.is_none());
            if let Some(told) = told {
                if !told.sentence.contains(&sentence) {
                    told.sentence = format!("{} {sentence}", told.sentence);
                }
            } else {
                self.fired.push(Fired {
                    rule: rule.to_owned(),
                    effect,
                    method,
                    school: None,
                    iron: iron_of(rule),
                    sentence: sentence.clone(),
                });
            }
        }
    }

    fn unknown(&mut self, rule: &str, what: &str) {
        self.not_considered.push(format!("{what} ({rule})"));
    }
}

/// The iron a rule is about.
fn iron_of(rule: &str) -> Option<Iron> {
    match rule {
        "M01" => Some(Iron::White),
        "M02" => Some(Iron::Steel),
        "M03" => Some(Iron::Malleable),
        "M04" => Some(Iron::Ductile),
        "M23" => Some(Iron::NiResist),
        _ => None,
    }
}

const ALL: &[MethodId] = &MethodId::ALL;
const STICK: &[MethodId] = &[MethodId::ArcNickel, MethodId::ArcNickelIron];

/// Applies rules M01 to M14, M17, M19, M21 and M23. Locks (M01 on little evidence, M20, M22) are the
/// plan's.
///
/// # Source
/// House.
#[must_use]
pub fn apply_rules(asked: &Asked<'_>) -> Ruling {
    let mut ruling = Ruling::default();
    iron::iron_rules(asked, &mut ruling);
    service::service_rules(asked, &mut ruling);
    joint::look_rules(asked, &mut ruling);
    joint::old_filler_rules(asked, &mut ruling);
    joint::piece_rule(asked, &mut ruling);
    joint::load_rule(asked, &mut ruling);
    gear::reach_rule(asked, &mut ruling);
    gear::modest_rule(asked, &mut ruling);
    gear::gear_rule(asked, &mut ruling);
    ruling
}
