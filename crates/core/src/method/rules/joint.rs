//! What the joint is and carries: M08, M09, M13, M14, M21.

use super::super::MethodId;
use super::{Asked, Effect, Fired, Piece, Ruling, STICK};
use crate::quantity::Unit;

const FUSION: &[MethodId] = &[MethodId::ArcNickel, MethodId::ArcNickelIron, MethodId::GasIron];

/// M08 and M09: how it looks, and what is machined across the joint.
pub(super) fn look_rules(asked: &Asked<'_>, ruling: &mut Ruling) {
    use Effect::{Caution, Exclude, Favour};
    use MethodId::{GasIron, Stitch, TorchBraze};
    match asked.seen {
        None => ruling.unknown("M08", "whether the face is seen"),
        Some("bare") => {
            ruling.say("M08", Favour, &[GasIron], "Seen bare: iron rod matches in colour.");
            ruling.say("M08", Favour, &[Stitch], "Seen bare: pins of like iron match in colour.");
            ruling.say("M08", Caution, STICK, "Seen bare: nickel stays a little bright.");
            ruling.say("M08", Exclude, &[TorchBraze], "Seen bare: bronze shows unless it is painted.");
        }
        Some(_) => {}
    }
    match asked.machined {
        None => ruling.unknown("M09", "what is machined afterwards"),
        Some("across") => {
            ruling.say("M09", Favour, &[GasIron, TorchBraze], "Drills and taps with ordinary tools.");
            if asked.edges.is_empty() {
                ruling.unknown("M09", "how hard the edge gets, since the wall");
            }
            for (way, seconds, preheat_c) in asked.edges {
                if *seconds < crate::heat::HARD_EDGE_S {
                    ruling.fired.push(Fired {
                        rule: "M09".to_owned(),
                        effect: Caution,
                        method: way.method,
                        school: Some(way.school),
                        iron: None,
                        sentence: format!(
                            "Machined across: the edge cools in {seconds:.0} s and goes hard. From {} on it softens.",
                            asked.units.say(*preheat_c, Unit::Celsius)
                        ),
                    });
                }
            }
        }
        Some(_) => {}
    }
}

/// M13 and M14: what an earlier repair left in the joint.
pub(super) fn old_filler_rules(asked: &Asked<'_>, ruling: &mut Ruling) {
    use Effect::{Caution, Exclude};
    match (asked.old_filler, asked.old_filler_out) {
        (None, _) => ruling.unknown("M13", "what it was repaired with before"),
        (Some("bronze"), Some(false)) => {
            ruling.say("M13", Exclude, FUSION, "Old bronze stays in the joint: a weld over it cracks.");
        }
        (Some("bronze"), None) => ruling.unknown("M13", "whether all of the old bronze can come out"),
        (Some("other"), Some(false)) => {
            let why =
                "Old filler of unknown kind stays in the joint: if it is bronze, a weld over it cracks.";
            ruling.say("M13", Exclude, FUSION, why);
        }
        (Some("other"), None) => {
            ruling.unknown("M13", "what the old filler is, or whether all of it can come out")
        }
        (Some("nickel" | "steel"), _) => {
            let welds =
                [MethodId::ArcNickel, MethodId::ArcNickelIron, MethodId::GasIron, MethodId::TorchBraze];
            ruling.say("M14", Caution, &welds, "Old weld in it: cut it out to clean casting.");
            let away = asked.units.say(6.0, Unit::Millimetres);
            ruling.say(
                "M14",
                Caution,
                &[MethodId::Stitch],
                format!("Old weld in it: start {away} outside it."),
            );
        }
        (Some(_), _) => {}
    }
}

/// M17: a piece that is lost leaves nothing to join to.
pub(super) fn piece_rule(asked: &Asked<'_>, ruling: &mut Ruling) {
    use Effect::{Exclude, Favour};
    use MethodId::{ArcNickel, ArcNickelIron, GasIron, Stitch, TorchBraze};
    match asked.piece {
        Piece::There => {}
        Piece::NotSaid => ruling.unknown("M17", "whether the broken-off piece is there"),
        Piece::Lost => {
            let why = "The piece is lost: there is nothing to join to.";
            ruling.say("M17", Exclude, &[Stitch, ArcNickel, ArcNickelIron, TorchBraze], why);
            ruling.say(
                "M17",
                Favour,
                &[GasIron],
                "The piece is lost: an iron rod builds it up in like iron.",
            );
        }
        Piece::Donor => {
            let why = "The piece is lost: there is nothing to join to but a donor patch, set in with pins.";
            ruling.say("M17", Exclude, &[ArcNickel, ArcNickelIron, TorchBraze], why);
            ruling.say(
                "M17",
                Favour,
                &[GasIron],
                "The piece is lost: an iron rod builds it up in like iron.",
            );
            ruling.say("M17", Favour, &[Stitch], "A donor patch is set in with pins.");
        }
    }
}

/// M21: bending or shock in service.
pub(super) fn load_rule(asked: &Asked<'_>, ruling: &mut Ruling) {
    use Effect::{Caution, Favour};
    let Some(loads) = asked.loads else {
        ruling.unknown("M21", "what it carries");
        return;
    };
    if !loads.iter().any(|load| load == "bending" || load == "shock") {
        return;
    }
    ruling.say(
        "M21",
        Favour,
        &[MethodId::TorchBraze, MethodId::ArcNickelIron],
        "Gives a little under bending and shock.",
    );
    let rci_b = asked.rods.is_some_and(|rods| rods.iter().any(|rod| rod == "iron_rod_b"));
    if !rci_b {
        ruling.say("M21", Caution, &[MethodId::GasIron], "Bends or takes shock: iron rod is brittle.");
    }
    ruling.say("M21", Caution, &[MethodId::Stitch], "Bends or takes shock: plain pins work loose.");
}
