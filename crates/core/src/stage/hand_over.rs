//! Stage 10: what is open when it goes out, and who says so.

use serde::Serialize;

use super::heat::HeatPlan;
use super::torch::TorchPlan;
use super::{Amount, CheckLine, Stage};
use crate::field;
use crate::job::{HeatRef, Job, Lighting, Round, TorchEntry};
use crate::quantity::{Unit, UnitSystem};
use crate::shop::{Shop, UsedOn};
use crate::stores::amount_words;

/// The job as it leaves the shop.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HandOverPlan {
    /// What was planned and is not done, in sentences: it can be handed over by somebody who says why.
    pub open: Vec<String>,
    /// Why it goes out as it is; empty while nobody has said.
    pub owned: String,
    /// What it took from the stores, with the box it came from: "Nickel stick, 3.2 mm: 4 rods, box 77-B".
    pub used: Vec<String>,
    /// What is to be said of its lightings, the first first: what they were for, what was not laid out, what did not go
    /// well, why one was stopped.
    pub lightings: Vec<String>,
}

/// What the job took from the stores, in the order it was taken.
fn used(job: &Job, shop: &Shop) -> Vec<String> {
    let one = |taken: &UsedOn| {
        let item = shop.stores.iter().find(|item| item.id == taken.item)?;
        let amount = amount_words(item.kind(), taken.amount, shop.units);
        let lot = if item.lot.is_empty() { String::new() } else { format!(", box {}", item.lot) };
        Some(format!("{}: {amount}{lot}", item.words(shop.units)))
    };
    shop.used.iter().filter(|taken| taken.job == job.id).filter_map(one).collect()
}

/// What is worth a line of the record of each lighting: of a repair that went as it should nothing is.
fn lightings(job: &Job, units: UnitSystem) -> Vec<String> {
    let mut heats: Vec<HeatRef<'_>> = job.heats().collect();
    heats.reverse();
    let one = |heat: &HeatRef<'_>| {
        let standing = || heat.log.iter().filter(|entry| entry.stands());
        let mut said = Vec::new();
        if heat.lit.what != Lighting::Main {
            let read = heat.recorded().iter().map(|read| read.celsius).fold(f64::NEG_INFINITY, f64::max);
            let by_hand = standing().filter_map(|entry| entry.celsius).fold(read, f64::max);
            if by_hand.is_finite() {
                said.push(format!("Read {} at most", units.say_exactly(by_hand, Unit::Celsius)));
            }
        }
        if !heat.lit.without.is_empty() {
            said.push(format!("Not laid out before it: {}", heat.lit.without.join("; ")));
        }
        let faults: Vec<String> = standing()
            .filter_map(|entry| match &entry.entry {
                TorchEntry::Trouble { seen, cause } => Some(match seen.cause(cause) {
                    Some(cause) => format!("{} ({})", seen.words(), cause.words),
                    None => seen.words().to_owned(),
                }),
                _ => None,
            })
            .collect();
        if !faults.is_empty() {
            said.push(format!("It did not go well: {}", faults.join("; ")));
        }
        let why = standing().find_map(|entry| match &entry.entry {
            TorchEntry::Covered { why } if !why.is_empty() => Some(why),
            _ => None,
        });
        said.extend(why.map(|why| format!("Stopped: {why}")));
        let worth = heat.lit.what != Lighting::Main || !said.is_empty();
        let round = if job.rounds.len() > 1 { format!(", round {}", heat.round + 1) } else { String::new() };
        let words = if said.is_empty() { String::new() } else { format!(". {}", said.join(". ")) };
        worth.then(|| format!("{}{round}{words}.", heat.lit.what.word()))
    };
    heats.iter().filter_map(one).collect()
}

impl HandOverPlan {
    fn of(
        (job, shop): (&Job, &Shop),
        check: &[CheckLine],
        torch: Option<&TorchPlan>,
        heat: Option<&HeatPlan>,
        hot: bool,
    ) -> Self {
        let round = job.round();
        let mut open = Vec::new();
        let hot_work = heat.is_some_and(|heat| !heat.cold);
        match torch {
            None => open.push("No method is chosen and nothing was done.".to_owned()),
            Some(_) if !round.repaired() => {
                open.push(
                    if hot_work { "It was never lit." } else { "The work was never begun." }.to_owned(),
                );
            }
            Some(torch) if torch.done < torch.planned => open.push(format!(
                "{} of {} {}s are not done.",
                torch.planned - torch.done,
                torch.planned,
                torch.piece
            )),
            Some(_) => {}
        }
        if hot_work && round.repaired() && round.covered_minutes().is_none() {
            open.push("It was never covered.".to_owned());
        }
        if hot {
            open.push("No reading says that it is cold.".to_owned());
        }
        let unseen = check.iter().filter(|line| line.verdict.is_empty()).count();
        if unseen > 0 || check.is_empty() {
            open.push(if check.is_empty() || unseen == check.len() {
                "Nothing was checked.".to_owned()
            } else {
                format!("{unseen} of {} checks are open.", check.len())
            });
        }
        open.extend(
            check
                .iter()
                .filter(|line| line.verdict == "not_ok")
                .map(|line| format!("Does not hold: {}.", line.label)),
        );
        Self {
            open,
            owned: round.get(field::hand_over::OWNED).unwrap_or_default().to_owned(),
            used: used(job, shop),
            lightings: lightings(job, shop.units),
        }
    }
}

pub(crate) fn stage(
    (job, shop): (&Job, &Shop),
    check: &[CheckLine],
    torch: Option<&TorchPlan>,
    heat: Option<&HeatPlan>,
    hot: bool,
) -> Stage<HandOverPlan> {
    Stage {
        plan: HandOverPlan::of((job, shop), check, torch, heat, hot),
        amount: amount(job.round()),
        missing: Vec::new(),
        cautions: Vec::new(),
        figures: Vec::new(),
    }
}

fn amount(round: &Round) -> Amount {
    if round.get(field::hand_over::DONE) == Some(true) {
        Amount::Enough
    } else if round.get(field::hand_over::FOLLOW_UP).is_some()
        || round.get(field::hand_over::EXPECT).is_some()
    {
        Amount::Something
    } else {
        Amount::Nothing
    }
}
