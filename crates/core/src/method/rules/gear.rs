//! What the heat and the gear at hand allow: M07, M19.

use super::super::{MethodId, School};
use super::{Asked, Effect, Fired, Ruling, STICK};

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

pub(super) fn gear_rule(asked: &Asked<'_>, ruling: &mut Ruling) {
    let Some(rods) = asked.rods else {
        ruling.unknown("M19", "which rods are at hand");
        return;
    };
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
    if asked.stitch_kit != Some(true) {
        ruling.say(
            "M19",
            Effect::Caution,
            &[MethodId::Stitch],
            "Not at hand: buy or borrow pins, taps and drills.",
        );
    }
}
