//! Stage 10: what is open when it goes out, and who says so.

use serde::{Deserialize, Serialize};

use super::heat::HeatPlan;
use super::torch::TorchPlan;
use super::{Amount, CheckLine, Stage};
use crate::field;
use crate::job::Round;

/// The job as it leaves the shop.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HandOverPlan {
    /// What was planned and is not done, in sentences: it can be handed over by somebody who says why.
    pub open: Vec<String>,
    /// Why it goes out as it is; empty while nobody has said.
    pub owned: String,
}

impl HandOverPlan {
    fn of(
        round: &Round,
        check: &[CheckLine],
        torch: Option<&TorchPlan>,
        heat: Option<&HeatPlan>,
        hot: bool,
    ) -> Self {
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
        Self { open, owned: round.get(field::hand_over::OWNED).unwrap_or_default().to_owned() }
    }
}

pub(crate) fn stage(
    round: &Round,
    check: &[CheckLine],
    torch: Option<&TorchPlan>,
    heat: Option<&HeatPlan>,
    hot: bool,
) -> Stage<HandOverPlan> {
    Stage {
        plan: HandOverPlan::of(round, check, torch, heat, hot),
        amount: amount(round),
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
