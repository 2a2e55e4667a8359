//! Stage 9: a short list made from this job's risks.

use serde::Serialize;

use super::part::PartFacts;
use super::taught::PORES;
use super::torch::TorchPlan;
use super::{Amount, Caution, Stage, Station};
use crate::field::{self, Field, OneOf};
use crate::job::Round;
use crate::method::{Joins, Way};
use crate::quantity::Unit;
use crate::shop::Shop;

/// One thing to look at.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CheckLine {
    pub key: String,
    pub label: String,
    pub how: String,
    /// "ok", "not_ok", or empty while not looked at.
    pub verdict: String,
}

pub(crate) fn stage(
    shop: &Shop,
    round: &Round,
    part: &PartFacts,
    way: Option<Way>,
    torch: Option<&TorchPlan>,
) -> Stage<Vec<CheckLine>> {
    let plan = check_lines(round, part, way);
    Stage {
        amount: amount(&plan),
        missing: Vec::new(),
        cautions: cautions(round, torch)
            .into_iter()
            .chain(way.filter(|way| PORES.for_method(way.method, round, shop) == "all").map(|_| {
                Caution::new(
                    Station::Check,
                    "Every pore is refilled, also where it neither weeps nor carries.",
                )
            }))
            .collect(),
        figures: Vec::new(),
        plan,
    }
}

/// What may be looked at, as it is called.
const LINES: [(Field<OneOf>, &str); 7] = [
    (field::check::PINS, "Every pin tight and filed flush"),
    (field::check::CLEAN, "Slag, flux glass and fibre off"),
    (field::check::TOES, "Toes whole"),
    (field::check::CRACKS_AGAIN, "No new crack, none ran on"),
    (field::check::FILE_EDGE, "Edge files"),
    (field::check::LEAK, "Tight"),
    (field::check::ALIGNMENT, "Straight"),
];

fn line(round: &Round, looked_at: Field<OneOf>, how: &str) -> CheckLine {
    let label = LINES.iter().find(|(field, _)| field.key() == looked_at.key()).map_or("", |(_, label)| label);
    CheckLine {
        key: looked_at.key().to_owned(),
        label: label.to_owned(),
        how: how.to_owned(),
        verdict: round.get(looked_at).unwrap_or_default().to_owned(),
    }
}

/// What was looked at in a round, whatever it was mended by.
#[must_use]
pub fn looked_at(round: &Round) -> Vec<CheckLine> {
    LINES
        .into_iter()
        .map(|(field, _)| line(round, field, ""))
        .filter(|line| !line.verdict.is_empty())
        .collect()
}

/// The list for a way. House.
fn check_lines(round: &Round, part: &PartFacts, way: Option<Way>) -> Vec<CheckLine> {
    let line = |looked_at: Field<OneOf>, how: &str| line(round, looked_at, how);
    let mut lines = Vec::new();
    let Some(way) = way else { return lines };
    match way.method.entry().joins {
        Joins::Pins | Joins::PinsAndLocks => {
            lines.push(line(field::check::PINS, "tap each one: a loose pin rattles"))
        }
        Joins::Strap | Joins::Epoxy => {}
        Joins::Arc | Joins::ArcBronze | Joins::Bronze | Joins::Silver | Joins::Flame => {
            lines.push(line(field::check::CLEAN, "wet, masked, wire brush"));
            lines.push(line(field::check::TOES, "run a nail and a glass along both edges of the filler"));
        }
    }
    lines.push(line(
        field::check::CRACKS_AGAIN,
        "dye or magnetic particles over the repair and past every stop-hole",
    ));
    if way.method.fusion() {
        lines.push(line(field::check::FILE_EDGE, "a skating file marks a hard spot: map it before drilling"));
    }
    if part.duct() {
        let most = part.units.say(0.03, Unit::Bar);
        let how = format!("gas: soap or smoke under {most}, flange flat on a plate; never filled");
        lines.push(line(field::check::LEAK, &how));
    } else if part.fluid_tight == Some(true) {
        lines.push(line(field::check::LEAK, "water: full, vented, slowly; never with air"));
    }
    lines.push(line(field::check::ALIGNMENT, "straight edge, flat plate, pin through the holes"));
    lines
}

fn amount(lines: &[CheckLine]) -> Amount {
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
fn cautions(round: &Round, torch: Option<&TorchPlan>) -> Vec<Caution> {
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
    found.into_iter().map(|sentence| Caution::new(Station::Check, sentence)).collect()
}
