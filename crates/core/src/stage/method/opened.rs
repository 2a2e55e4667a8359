//! What is shown of a way once it is opened: asked for by itself.

use serde::Serialize;

use super::{Contender, OddsLine, Price, SchoolChoice, SettingLine};
use crate::effort::durations::Step;
use crate::method::{MethodId, ScorePart};
use crate::quantity::{Unit, UnitSystem};

/// What is shown of a way once it is opened.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WayOpened {
    pub method: MethodId,
    pub score: f64,
    /// How it is made up.
    pub parts: Vec<ScorePart>,
    /// What speaks for it, and against it.
    pub favours: Vec<String>,
    pub cautions: Vec<String>,
    /// What moves its odds on this job, the largest first.
    pub odds_parts: Vec<OddsLine>,
    /// What would raise them, each a sentence with what they would be then.
    pub raised_by: Vec<String>,
    /// How its source is set.
    pub settings: Vec<SettingLine>,
    pub steps: Vec<StepOpened>,
    pub price: Price,
    /// Of the joint against the iron, 1 for as strong.
    pub strength: f64,
    /// The joint in words: its strength, and what of it is seen afterwards.
    pub joint_words: String,
    /// Schools that were considered and why the others were not taken.
    pub schools: Vec<String>,
    /// The schools of this method that can be chosen, by id; empty where there is one.
    pub schools_to_choose: Vec<SchoolChoice>,
}

/// One step of it, as it is shown.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StepOpened {
    #[serde(flatten)]
    pub step: Step,
    /// "6 min"; empty where no hand is wanted.
    pub hands_words: String,
    /// "13 h 00"; empty where it takes no time of its own.
    pub clock_words: String,
}

impl From<Step> for StepOpened {
    fn from(step: Step) -> Self {
        let said = |minutes: f64| match minutes {
            none if none <= 0.0 => String::new(),
            some => UnitSystem::Metric.say_exactly(some.max(1.0), Unit::Minutes),
        };
        Self { hands_words: said(step.attended_min), clock_words: said(step.unattended_min), step }
    }
}

impl From<Contender> for WayOpened {
    fn from(way: Contender) -> Self {
        Self {
            method: way.way.method,
            score: way.score,
            parts: way.parts,
            favours: way.favours,
            cautions: way.cautions,
            odds_parts: way.odds_parts,
            raised_by: way.raised_by,
            settings: way.settings,
            steps: way.steps.into_iter().map(StepOpened::from).collect(),
            price: way.price,
            strength: way.strength,
            joint_words: way.joint_words,
            schools: way.schools,
            schools_to_choose: way.schools_to_choose,
        }
    }
}
