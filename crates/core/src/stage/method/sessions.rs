//! The sessions of the way that is taken: when, and which beads in each.

use serde::{Deserialize, Serialize};

use super::hours::of_minutes;
use super::{Contender, Judged};
use crate::hours::{Step, ready_min};
use crate::quantity::Unit;
use crate::stage::prep::prep_plan;

/// One session.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SessionPlan {
    /// Beads, or pins, from 1; 0 where nothing is laid one by one.
    pub from: u32,
    pub to: u32,
    /// Wall-clock minutes since 1970 of the shop's own zone; nothing where the time of day is not known.
    pub begins_min: Option<i64>,
    pub ends_min: Option<i64>,
    /// "Mon 9 Mar, 8:00: beads 1 to 41, 3 h 20".
    pub words: String,
    /// It is more than a day under the hood, and cannot be parted.
    pub too_long: bool,
}

/// What goes before the heat, what is one unbroken block, and what lies between two of them.
const BEFORE_THE_BLOCK: &[&str] = &["clean", "bake", "find", "strip", "drill", "open", "fit"];

impl Judged<'_> {
    /// When each session can be begun; empty once it is lit, and while its steps are not known.
    pub(super) fn sessions(&self, taken: &Contender) -> Vec<SessionPlan> {
        if self.round.repaired() || taken.steps.is_empty() {
            return Vec::new();
        }
        let prep = prep_plan(&self.prep_asked(taken.way));
        let Some((steps, parts)) = prep.as_ref().and_then(|prep| self.steps(taken.way, prep)) else {
            return Vec::new();
        };
        let minutes = |id: &str| {
            steps.iter().filter(|step| step.id == id).fold((0.0, 0.0), |(hands, clock), step| {
                (hands + step.attended_min, clock + step.unattended_min)
            })
        };
        let heat = minutes("heat");
        let count = parts.len() as f64;
        let (_, cools) = minutes("cool");
        let around = minutes("lay_out").0 + (heat.1 + minutes("pack").0) / count;
        let piece = format!("{}s", taken.way.method.piece());
        let before: Vec<Step> =
            steps.iter().filter(|step| BEFORE_THE_BLOCK.contains(&step.id.as_str())).cloned().collect();
        let mut at = self.moment.map(|moment| ready_min(moment.now_min, &before, &self.shop.week));
        let units = self.shop.units;
        let mut planned = Vec::with_capacity(parts.len());
        for part in &parts {
            let block = around + part.minutes;
            let begins = at.map(|at| self.shop.week.unbroken(at, block));
            let ends = begins.map(|begins| begins + block.ceil() as i64);
            let what = match (part.from, part.to) {
                (0, _) => String::new(),
                (from, to) if from == to => format!("{} {from}, ", taken.way.method.piece()),
                (from, to) => format!("{piece} {from} to {to}, "),
            };
            let takes = units.say(block, Unit::Minutes);
            let when = begins.map_or(String::new(), |begins| format!("{}: ", of_minutes(begins)));
            planned.push(SessionPlan {
                from: part.from,
                to: part.to,
                begins_min: begins,
                ends_min: ends,
                words: format!("{when}{what}{takes}"),
                too_long: part.minutes > self.shop.hood_min,
            });
            at = ends.map(|ends| ends + (cools / count).ceil() as i64);
        }
        planned
    }
}
