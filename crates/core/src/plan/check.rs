//! Stage 9: a short list made from this job's risks. Stage 10 hangs on it.

use serde::{Deserialize, Serialize};

use super::Amount;
use super::heat::HeatPlan;
use super::part::{Caution, PartFacts};
use super::station::Station;
use super::torch::TorchPlan;
use crate::job::Round;
use crate::method::{Joins, Way};
use crate::quantity::Unit;

/// One thing to look at.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CheckLine {
    pub key: String,
    pub label: String,
    pub how: String,
    /// "ok", "not_ok", or empty while not looked at.
    pub verdict: String,
}

/// The list for a way. House.
pub(super) fn check_lines(round: &Round, part: &PartFacts, way: Option<Way>) -> Vec<CheckLine> {
    let line = |key: &str, label: &str, how: &str| CheckLine {
        key: key.to_owned(),
        label: label.to_owned(),
        how: how.to_owned(),
        verdict: round.choice(key).unwrap_or_default().to_owned(),
    };
    let mut lines = Vec::new();
    let Some(way) = way else { return lines };
    match way.method.entry().joins {
        Joins::Pins => lines.push(line(
            "check.pins",
            "Every pin tight and filed flush",
            "tap each one: a loose pin rattles",
        )),
        Joins::Arc | Joins::Bronze | Joins::Flame => {
            lines.push(line("check.clean", "Slag, flux glass and fibre off", "wet, masked, wire brush"));
            lines.push(line(
                "check.toes",
                "Toes whole",
                "run a nail and a glass along both edges of the filler",
            ));
        }
    }
    lines.push(line(
        "check.cracks_again",
        "No new crack, none ran on",
        "dye or magnetic particles over the repair and past every stop-hole",
    ));
    if way.method.fusion() {
        lines.push(line(
            "check.file_edge",
            "Edge files",
            "a skating file marks a hard spot: map it before drilling",
        ));
    }
    if part.duct() {
        let most = part.units.say(0.03, Unit::Bar);
        let how = format!("soap or smoke under {most}, flange flat on a plate; never filled");
        lines.push(line("check.leak", "Holds gas", &how));
    } else if part.fluid_tight == Some(true) {
        lines.push(line("check.leak", "Holds water", "full, vented, slowly; never with air"));
    }
    lines.push(line("check.alignment", "Straight", "straight edge, flat plate, pin through the holes"));
    lines
}

pub(super) fn amount(lines: &[CheckLine]) -> Amount {
    let looked_at = lines.iter().filter(|line| !line.verdict.is_empty()).count();
    if looked_at == 0 {
        Amount::Nothing
    } else if lines.iter().all(|line| line.verdict == "ok") {
        Amount::Enough
    } else {
        Amount::Something
    }
}

/// What Check has to know of how the heat ended.
pub(super) fn cautions(round: &Round, torch: Option<&TorchPlan>) -> Vec<Caution> {
    let Some(torch) = torch else { return Vec::new() };
    let mut found = Vec::new();
    if let Some(why) = round.covered_because()
        && torch.done < torch.planned
    {
        let because = if why.is_empty() { "nobody said why".to_owned() } else { why.to_owned() };
        found.push(format!(
            "Covered with {} of {} {}s laid ({because}): the joint is not whole. Look at what is open before anything \
             else.",
            torch.done, torch.planned, torch.piece
        ));
    }
    found.extend(torch.passed.iter().cloned());
    found.into_iter().map(|sentence| Caution { station: Station::Check, sentence }).collect()
}

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
    pub(super) fn of(
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
            Some(_) if round.lit.is_none() => {
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
        if hot_work && round.lit.is_some() && round.covered_minutes().is_none() {
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
        Self { open, owned: round.text("hand_over.owned").unwrap_or_default().to_owned() }
    }
}

pub(super) fn hand_over_amount(round: &Round) -> Amount {
    if round.yes("hand_over.done") == Some(true) {
        Amount::Enough
    } else if round.text("hand_over.follow_up").is_some() || round.text("hand_over.expect").is_some() {
        Amount::Something
    } else {
        Amount::Nothing
    }
}
