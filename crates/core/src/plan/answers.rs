//! What each possible answer of a test would change in the plan.

use std::collections::HashMap;
use std::rc::Rc;

use serde::Serialize;
use uuid::Uuid;

use super::{Contender, Plan, PlanLine, plan_with};
use crate::heat::SimCache;
use crate::iron::{Confidence, Evidence, Finding, Iron, LookTest, TypedValues, WhiteStanding, confirm};
use crate::job::{Job, Observed};
use crate::quantity::{Shown, Unit, UnitSystem, both};
use crate::render::all_of;
use crate::shop::Shop;
use crate::stage::iron::OPEN_CRACK;
use crate::stage::part::PartFacts;

/// One possible answer, and what would follow.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Answer {
    pub outcome: String,
    pub looks: String,
    /// How likely it is, in percent.
    pub chance: Shown,
    /// Who would lead then, and by how much.
    pub leading: Iron,
    pub leading_label: String,
    pub leading_share: Shown,
    pub enough: bool,
    /// What the plan would say differently; empty where it stays as it is.
    pub changes: Vec<String>,
    /// The plan's line then; nothing while no way is chosen.
    pub line: Option<PlanLine>,
}

/// What decides a plan about the iron: the irons in question, the leading one, and white's standing.
type IronVerdict = (Vec<Iron>, Iron, WhiteStanding);

/// Each answer a test can give, in the order of the pictures. As sure as the test can be made: a ring
/// on a cracked part stays unsure.
#[must_use]
pub fn answers(job: &Job, shop: &Shop, test: LookTest, sims: &SimCache) -> Vec<Answer> {
    let now = plan_with(job, shop, sims);
    let part = PartFacts::read(job, job.round(), shop);
    let evidence: Vec<Evidence> = job.evidence.iter().filter_map(Observed::evidence).collect();
    let before = confirm(part.family, part.era, OPEN_CRACK, &evidence);
    let mut plans: HashMap<IronVerdict, Rc<Plan>> = HashMap::new();
    test.outcomes()
        .iter()
        .map(|outcome| {
            let finding = Finding::Look { test, outcome };
            let observed =
                Evidence { finding, confidence: Confidence::Sure, spot: Evidence::FIRST_SPOT.to_owned() };
            let chance = before.chance_of(&observed, OPEN_CRACK);
            let after =
                confirm(part.family, part.era, OPEN_CRACK, &[evidence.clone(), vec![observed]].concat());
            let mut in_question = after.plausible.clone();
            in_question.sort_unstable();
            // Two answers that leave the same irons in question make the same plan.
            let then = plans
                .entry((in_question, after.leading, after.white))
                .or_insert_with(|| Rc::new(plan_with(&with(job, test, outcome.id), shop, sims)))
                .clone();
            Answer {
                outcome: outcome.id.to_owned(),
                looks: outcome.looks.to_owned(),
                chance: both(chance * 100.0, Unit::Percent).0,
                leading: after.leading,
                leading_label: after.leading.label().to_owned(),
                leading_share: both(after.of(after.leading) * 100.0, Unit::Percent).0,
                enough: after.enough(),
                changes: changes(&now, &then, shop.units),
                line: then.lines.first().cloned(),
            }
        })
        .collect()
}

/// The job as it would stand after one more observation.
fn with(job: &Job, test: LookTest, outcome: &str) -> Job {
    let mut job = job.clone();
    job.evidence.push(Observed {
        fact: Uuid::nil(),
        revision: job.revision,
        test: test.id().to_owned(),
        outcome: outcome.to_owned(),
        confidence: Confidence::Sure,
        spot: Evidence::FIRST_SPOT.to_owned(),
        typed: TypedValues::new(),
        shown_in: UnitSystem::Metric,
        hard_spot: None,
        struck: None,
    });
    job
}

fn first(plan: &Plan) -> Option<&Contender> {
    match plan.methods.chosen {
        Some(way) => plan.methods.contenders.iter().find(|contender| contender.way == way),
        None => plan.methods.contenders.iter().find(|contender| !contender.excluded),
    }
}

/// A label within a sentence: "TIG braze", "torch braze".
fn within(label: &str) -> String {
    let word = |word: &str| {
        let short_for_others = word.len() > 1 && word.chars().all(|c| c.is_ascii_uppercase());
        if short_for_others { word.to_owned() } else { word.to_lowercase() }
    };
    label.split(' ').map(word).collect::<Vec<_>>().join(" ")
}

/// What differs between two plans, in sentences: locks, method, preheat, hours, what is out and in, and
/// which irons it has to suit.
fn changes(now: &Plan, then: &Plan, units: UnitSystem) -> Vec<String> {
    let mut said = Vec::new();
    for lock in then.locks.iter().filter(|lock| !now.locks.contains(lock)) {
        said.push(lock.short.to_lowercase());
    }
    for lock in now.locks.iter().filter(|lock| then.locks.iter().all(|other| other.rule != lock.rule)) {
        said.push(format!("no longer locked: {}", lock.short.to_lowercase()));
    }
    let (was, is) = (first(now), first(then));
    match (was, is) {
        (_, None) => {
            if was.is_some() {
                said.push("don't repair: nothing is left".to_owned());
            }
        }
        (None, Some(is)) => said.push(format!("{} becomes possible", within(&is.label))),
        (Some(was), Some(is)) => {
            if was.way.method != is.way.method {
                said.push(format!("{} instead of {}", within(&is.label), within(&was.label)));
            }
            match (was.target_c, is.target_c) {
                (Some(from), Some(to)) if (from - to).abs() > 0.5 => {
                    let (from, to) = (both(from, Unit::Celsius), units.say(to, Unit::Celsius));
                    let from = match units {
                        UnitSystem::Metric => from.0.number,
                        UnitSystem::Imperial => from.1.number,
                    };
                    said.push(format!("preheat goes from {from} to {to}"));
                }
                (None, Some(to)) => said.push(format!("preheat {}", units.say(to, Unit::Celsius))),
                (Some(_), None) => said.push("no preheat".to_owned()),
                _ => {}
            }
            if let (Some(from), Some(to)) = (was.hours, is.hours)
                && (from - to).abs() > 0.1 * from.max(to)
            {
                said.push(format!("{} from start to finish", units.say(to * 60.0, Unit::Minutes)));
            }
        }
    }
    if is.is_some() {
        let out = |plan: &Plan, label: &str| {
            plan.methods.contenders.iter().any(|c| c.way.method.label() == label && c.excluded)
        };
        for contender in &then.methods.contenders {
            let label = contender.way.method.label();
            let short = within(label.split(',').next().unwrap_or(label));
            match (out(now, label), contender.excluded) {
                (false, true) => said.push(format!("{short} is out")),
                (true, false) => said.push(format!("{short} comes in")),
                _ => {}
            }
        }
    }
    if now.methods.chosen.is_none() && then.methods.chosen.is_some() {
        said.push("it becomes the first choice".to_owned());
    }
    let only_in = |one: &Plan, other: &Plan| -> Vec<String> {
        let irons = one.iron.plausible.iter().filter(|iron| !other.iron.plausible.contains(iron));
        irons.map(|iron| iron.label().to_lowercase()).collect()
    };
    if is.is_some() {
        let (gone, come) = (only_in(now, then), only_in(then, now));
        if !gone.is_empty() {
            said.push(format!("it need not suit {} any more", gone.join(" or ")));
        }
        if !come.is_empty() {
            said.push(format!("it has to suit {} too", all_of(&come)));
        }
    }
    said
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_label_within_a_sentence_keeps_what_is_short_for_other_words() {
        assert_eq!(within("TIG braze"), "TIG braze");
        assert_eq!(within("Nickel-iron stick, hot"), "nickel-iron stick, hot");
    }
}
