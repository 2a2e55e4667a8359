//! What the heat and the gear at hand allow: M07, M19.

use super::super::{MODEST_WALL_MM, MethodId, School};
use super::{Asked, Effect, Fired, Ruling, STICK};
use crate::quantity::Unit;

pub(super) fn reach_rule(asked: &Asked<'_>, ruling: &mut Ruling) {
    if asked.reach.is_empty() {
        ruling.unknown("M07", "weight, size, shape or the heat at hand");
        return;
    }
    for (way, reached) in asked.reach {
        if let Err(why) = reached {
            ruling.fired.push(Fired {
                rule: "M07".to_owned(),
                effect: Effect::Exclude,
                method: way.method,
                school: Some(way.school),
                iron: None,
                sentence: why.clone(),
            });
        }
    }
    if asked.warm_reached == Some(false) {
        let why = "The part cannot even be warmed: a cold way suits it.";
        ruling.say("M07", Effect::Favour, &[MethodId::Stitch], why);
        for &method in STICK {
            ruling.fired.push(Fired {
                rule: "M07".to_owned(),
                effect: Effect::Favour,
                method,
                school: Some(School::Cold),
                iron: None,
                sentence: why.to_owned(),
            });
        }
    }
}

/// A list without anything in it is an answer: nothing is at hand.
pub(super) fn gear_rule(asked: &Asked<'_>, ruling: &mut Ruling) {
    match asked.rods {
        None => ruling.unknown("M19", "which rods are at hand"),
        Some(rods) => rods_at_hand(rods, ruling),
    }
    match asked.stitch_kit {
        None => ruling.unknown("M19", "whether pins, taps and drills are at hand"),
        Some(true) => {}
        Some(false) => ruling.say(
            "M19",
            Effect::Caution,
            &[MethodId::Stitch],
            "Not at hand: buy or borrow pins, taps and drills.",
        ),
    }
}

fn rods_at_hand(rods: &[String], ruling: &mut Ruling) {
    let has = |id: &str| rods.iter().any(|rod| rod == id);
    for (method, rod, what) in [
        (MethodId::ArcNickel, "nickel", "nickel stick"),
        (MethodId::ArcNickelIron, "nickel_iron", "nickel-iron stick"),
        (MethodId::TorchBraze, "bronze", "low-fuming bronze and flux"),
    ] {
        if !has(rod) {
            ruling.say("M19", Effect::Caution, &[method], format!("Not at hand: buy or borrow {what}."));
        }
    }
    if !has("iron_rod") && !has("iron_rod_b") {
        ruling.say(
            "M19",
            Effect::Caution,
            &[MethodId::GasIron],
            "Not at hand: buy or borrow cast-iron gas rod and flux.",
        );
    }
}

/// The modest school of gas fusion: walls up to 12 mm and shapes that can expand.
pub(super) fn modest_rule(asked: &Asked<'_>, ruling: &mut Ruling) {
    let upto = asked.units.say(MODEST_WALL_MM, Unit::Millimetres);
    let why = match (asked.wall_mm, asked.closed) {
        (Some(wall), _) if wall > MODEST_WALL_MM => format!("Melted at the joint alone: walls up to {upto}."),
        (_, Some(true)) => "Melted at the joint alone: a closed shape cannot expand.".to_owned(),
        (Some(_), Some(false)) => return,
        (None, _) | (_, None) => {
            format!("Melted at the joint alone: open shapes and walls up to {upto}, and nobody has said.")
        }
    };
    ruling.fired.push(Fired {
        rule: "M07".to_owned(),
        effect: Effect::Exclude,
        method: MethodId::GasIron,
        school: Some(School::Modest),
        iron: None,
        sentence: why,
    });
}
