//! What is shown of a way once it is opened: asked for by itself.

use serde::Serialize;

use super::{Contender, OddsLine, Price, SchoolChoice, SettingLine};
use crate::effort::durations::Step;
use crate::method::{MethodId, ScorePart};

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
    pub steps: Vec<Step>,
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
            steps: way.steps,
            price: way.price,
            strength: way.strength,
            joint_words: way.joint_words,
            schools: way.schools,
            schools_to_choose: way.schools_to_choose,
        }
    }
}
