//! What will happen once it is lit, step by step: gone through beforehand, logged nowhere.

use serde::Serialize;

use super::TorchPlan;
use super::beads::WORTH_SAYING_S;
use crate::job::BeadAt;
use crate::method::PieceOfWork;
use crate::quantity::{Unit, UnitSystem};
use crate::stage::cooling::CoolingPlan;
use crate::stage::heat::HeatPlan;

/// One step of it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RehearsalStep {
    /// "Bring it to 300 °C: 1 h 05."
    pub words: String,
    /// What else is done then, and what is said; empty for nothing.
    pub also: String,
    /// The bead it is; nothing for another step.
    pub bead: Option<BeadAt>,
}

impl RehearsalStep {
    fn new(words: String, also: String) -> Self {
        Self { words, also, bead: None }
    }
}

/// All that is to come, of work that was not begun.
pub(super) fn rehearsal(
    plan: &TorchPlan,
    heat: &HeatPlan,
    cooling: Option<&CoolingPlan>,
    units: UnitSystem,
) -> Vec<RehearsalStep> {
    let say_s = |seconds: f64| units.say(seconds / 60.0, Unit::Minutes);
    let mut steps = Vec::new();
    if !heat.cold {
        let words = format!("Bring it to {}: {}.", units.say_least(plan.aim_c, Unit::Celsius), heat.timing);
        let read = format!("Read {}.", read_at(&heat.read_at));
        let also = [heat.begins.as_str(), read.as_str()].into_iter().filter(|it| !it.is_empty());
        steps.push(RehearsalStep::new(words, also.collect::<Vec<_>>().join(" ")));
    }
    let beads = plan.beads.as_ref().map(|beads| beads.ahead.as_slice()).unwrap_or_default();
    for bead in beads {
        let mut also: Vec<String> = Vec::new();
        also.extend((!bead.before.is_empty()).then(|| bead.before.clone()));
        if bead.reheat_s >= WORTH_SAYING_S {
            also.push(format!("Reheat there for {} first.", say_s(bead.reheat_s)));
        }
        if bead.wait_s >= WORTH_SAYING_S {
            let most = units.say_most(heat.most_c, Unit::Celsius);
            also.push(format!("Wait {} first, until it is under {most} there.", say_s(bead.wait_s)));
        }
        if plan.peen {
            also.push("Peen it at once, while it glows.".to_owned());
        }
        steps.push(RehearsalStep { words: bead.words.clone(), also: also.join(" "), bead: Some(bead.at) });
    }
    if beads.is_empty() && plan.planned > 0 {
        steps.push(pieces(plan));
    }
    if let Some(cooling) = cooling.filter(|cooling| !cooling.cold) {
        let words = format!("Cover it at once: {}.", cooling.packing);
        let also = cooling.unwrap_hours.map_or(String::new(), |hours| {
            format!("Then it is left alone for {}.", units.say(hours * 60.0, Unit::Minutes))
        });
        steps.push(RehearsalStep::new(words, also));
    }
    steps
}

fn read_at(place: &str) -> String {
    if place.is_empty() { "before the first bead".to_owned() } else { format!("at the {place}") }
}

/// What is not laid bead by bead.
fn pieces(plan: &TorchPlan) -> RehearsalStep {
    let count = plan.planned;
    let (words, also) = match (plan.piece, &plan.next_pin) {
        (PieceOfWork::Pin, Some(pin)) => {
            (pin.words.clone(), format!("So it goes on with all {count}: each is said when it is in."))
        }
        (PieceOfWork::Pin, None) => {
            (format!("{count} pins, one after the other."), "Each is said when it is in.".to_owned())
        }
        (PieceOfWork::Strap, _) => {
            ("The strap, bolt by bolt.".to_owned(), "It is said when it is on.".to_owned())
        }
        (PieceOfWork::Fill, _) => {
            ("The filling, in one go.".to_owned(), "It is said when it is in.".to_owned())
        }
        (PieceOfWork::Bead, _) if count == 1 => {
            ("The seam, in one flow.".to_owned(), "It is said when it is filled.".to_owned())
        }
        (PieceOfWork::Bead, _) => (
            format!("{count} pieces of the seam, one flow each."),
            "Each is said when it is filled.".to_owned(),
        ),
    };
    RehearsalStep::new(words, also)
}
