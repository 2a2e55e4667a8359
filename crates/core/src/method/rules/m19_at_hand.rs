//! M19: what is not at hand has to be bought or borrowed.

use super::{Asked, Rule, Saying};
use crate::method::MethodId::{ArcNickel, ArcNickelIron, GasIron, Stitch, TorchBraze};

pub(super) const RULE: Rule = Rule { id: "M19", iron: None, judge };

/// A list without anything in it is an answer: nothing is at hand.
fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    if asked.rods.is_none() {
        rule.unknown("which rods are at hand");
    } else {
        for (method, rods, what) in [
            (ArcNickel, &["nickel"][..], "nickel stick"),
            (ArcNickelIron, &["nickel_iron"], "nickel-iron stick"),
            (TorchBraze, &["bronze"], "low-fuming bronze and flux"),
            (GasIron, &["iron_rod", "iron_rod_b"], "cast-iron gas rod and flux"),
        ] {
            if !rods.iter().any(|rod| asked.has_rod(rod)) {
                rule.caution(&[method], format!("Not at hand: buy or borrow {what}."));
            }
        }
    }
    match asked.stitch_kit {
        None => rule.unknown("whether pins, taps and drills are at hand"),
        Some(true) => {}
        Some(false) => rule.caution(&[Stitch], "Not at hand: buy or borrow pins, taps and drills."),
    }
}
