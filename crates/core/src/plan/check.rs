//! Stage 9: a short list made from this job's risks. Stage 10 hangs on it.

use serde::{Deserialize, Serialize};

use super::Amount;
use crate::job::Round;
use crate::method::{MethodId, Way};

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
pub(super) fn check_lines(round: &Round, fluid_tight: bool, way: Option<Way>) -> Vec<CheckLine> {
    let line = |key: &str, label: &str, how: &str| CheckLine {
        key: key.to_owned(),
        label: label.to_owned(),
        how: how.to_owned(),
        verdict: round.choice(key).unwrap_or_default().to_owned(),
    };
    let mut lines = Vec::new();
    let Some(way) = way else { return lines };
    match way.method {
        MethodId::Stitch => lines.push(line(
            "check.pins",
            "Every pin tight and filed flush",
            "tap each one: a loose pin rattles",
        )),
        MethodId::ArcNickel | MethodId::ArcNickelIron | MethodId::TorchBraze | MethodId::GasIron => {
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
    if fluid_tight {
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

pub(super) fn hand_over_amount(round: &Round) -> Amount {
    if round.yes("hand_over.done") == Some(true) {
        Amount::Enough
    } else if round.text("hand_over.follow_up").is_some() || round.text("hand_over.expect").is_some() {
        Amount::Something
    } else {
        Amount::Nothing
    }
}
