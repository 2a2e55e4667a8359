//! The cautions a part earns by what is known of it.

use super::PartFacts;
use crate::field;
use crate::iron::{Era, Family};
use crate::job::Round;
use crate::quantity::Unit;
use crate::stage::{Caution, Station};

/// House: a manifold that never gets hotter carries no exhaust, in degC.
const INTAKE_MOST_C: f64 = 150.0;

/// The cautions this part earns.
///
/// # Source
/// House, from the trade's usual cautions; local codes and licensed practice come first.
pub fn cautions(round: &Round, facts: &PartFacts) -> Vec<Caution> {
    let mut found = Vec::new();
    let mut say = |station, sentence: String| found.push(Caution { station, sentence });
    let units = facts.units;
    let c = |celsius: f64| units.say(celsius, Unit::Celsius);
    let coated =
        |what: &str| round.get(field::part::COATING).is_some_and(|ids| ids.iter().any(|id| id == what));
    let coating_known = round.get(field::part::COATING).is_some();
    let old = matches!(facts.era, Era::Before1949 | Era::From1949To1969);

    if facts.may_be_leaded() && (coated("paint") || coated("enamel") || (old && !coating_known)) {
        let age = if old { "that age" } else { "an age not known" };
        say(
            Station::Part,
            format!("Paint of {age} may hold lead: test it, work wet, P100 or P3 mask, no dry grinding."),
        );
    } else if coated("paint") || coated("enamel") {
        let strip = units.say(50.0, Unit::Millimetres);
        say(
            Station::Part,
            format!("Paint and enamel fume when heated: strip back {strip} from the heat, mask on."),
        );
    }
    if old && matches!(facts.family, Family::HotExhaust | Family::EngineBlock | Family::PumpValve) {
        say(
            Station::Part,
            "Old gaskets and lagging can be asbestos: have them tested, wet them, no dry scraping."
                .to_owned(),
        );
    }
    if coated("galvanised") {
        say(Station::Prep, "Zinc: white smoke gives fume fever. Strip it off, extraction, mask.".to_owned());
    }
    if coated("plated") {
        say(
            Station::Prep,
            "Plating can be cadmium or chromium: no heat until it is known or off.".to_owned(),
        );
    }
    match round.get(field::part::OIL) {
        Some("soaked") => say(
            Station::Cracks,
            "Oil weeps when heated. No chlorinated cleaner near arc or flame: phosgene.".to_owned(),
        ),
        Some("baked_clean") => {
            say(
                Station::Cracks,
                "Look for oil again after the first heat: it creeps out of the pores.".to_owned(),
            );
        }
        _ => {}
    }
    match round.old_filler() {
        Some("bronze") => say(
            Station::Prep,
            "Old bronze can hold zinc or cadmium: fume. All of it out before any weld.".to_owned(),
        ),
        Some("other") => {
            say(
                Station::Prep,
                "Old filler of a kind not known: file it, look at its colour, before any heat.".to_owned(),
            );
        }
        Some("nickel" | "steel") => {
            say(Station::Prep, "The old weld's edges are hard: cut back to clean casting.".to_owned());
        }
        _ => {}
    }
    let cavity = round.get(field::part::CAVITY);
    if cavity == Some("vented") || (facts.closed() && cavity.is_none()) {
        say(
            Station::Heat,
            format!(
                "Closed hollow? Trapped water or oil bursts when heated: vent, drain, dry at {} first.",
                c(120.0)
            ),
        );
    }
    match facts.holds.as_deref() {
        Some("drinking_water") => {
            say(Station::HandOver, "No contact with drinking water after a repair.".to_owned());
        }
        Some("fuel") => say(
            Station::Part,
            "It held fuel or solvent: emptied, cleaned, vented and checked before any hot work.".to_owned(),
        ),
        Some("fumes") => {
            say(Station::Part, "It carried fumes: degreased, dry and open before any hot work.".to_owned())
        }
        Some("oil") => say(Station::Cracks, "It held oil: bake it until it stops weeping.".to_owned()),
        _ => {}
    }
    if facts.duct() {
        let most = units.say(0.03, Unit::Bar);
        say(
            Station::Check,
            format!("A duct is not filled: soap or smoke under {most}, flange flat on a plate."),
        );
        // What is drawn in is no smoke: it stays cooler than any exhaust.
        let exhaust =
            round.get(field::part::SERVICE_TEMPERATURE).is_none_or(|celsius| celsius > INTAKE_MOST_C);
        if exhaust {
            say(
                Station::HandOver,
                "A leak here gives carbon monoxide: alarm, air, a leak test before use.".to_owned(),
            );
        }
    } else if facts.fluid_tight == Some(true) {
        say(Station::Check, "Test with water, never with air or gas: brittle iron bursts.".to_owned());
        if let Some(bar) = round.get(field::part::PRESSURE).filter(|bar| *bar > 0.0) {
            say(
                Station::Check,
                format!(
                    "Proof with water, vented, slowly, people clear, to {} at most.",
                    units.say(bar * 1.5, Unit::Bar)
                ),
            );
        }
    }
    if facts.family == Family::Cookware {
        say(Station::HandOver, "No contact with food after a repair.".to_owned());
    }
    if facts.family == Family::HotExhaust {
        say(
            Station::Check,
            "A repaired fire part can leak carbon monoxide: ventilate, alarm, leak test.".to_owned(),
        );
    }
    if round.get(field::part::RPM).is_some_and(|rpm| rpm > 0.0) {
        say(Station::HandOver, "It turns: nobody in its plane when it first runs again.".to_owned());
    }
    if round.get(field::part::PLACE) == Some("in_place") {
        say(
            Station::Heat,
            "In place: battery and electronics off, earth clamp beside the joint, not through bearings."
                .to_owned(),
        );
        say(
            Station::Heat,
            "In place: look behind it and under it for what burns, before any flame.".to_owned(),
        );
    }
    for shy in &facts.heat_shy {
        let limit = shy
            .limit_c
            .map_or(String::new(), |limit| format!(", under {}", facts.units.say_most(limit, Unit::Celsius)));
        say(Station::Heat, format!("Keep cool: {}{limit}.", shy.what));
    }
    if facts.heat_shy.iter().any(|shy| {
        let what = shy.what.to_lowercase();
        ["seal", "gasket", "o-ring"].iter().any(|word| what.contains(word))
    }) {
        say(
            Station::Heat,
            "Strip all seals and gaskets first. Charred ones are not touched: hydrofluoric acid.".to_owned(),
        );
    }
    if let Some(faces) = round.get(field::part::KEEP_OFF) {
        say(Station::Prep, format!("Not to be touched: {faces}."));
    }
    if let Some(who) = round.get(field::part::HURT) {
        say(Station::HandOver, format!("Could be hurt: {who}. Say it at the hand-over."));
    }
    if facts.weight.as_ref().is_some_and(|weight| weight.range_kg().1 > 25.0) {
        say(Station::Part, "A broken casting shifts: sling it on sound metal.".to_owned());
    }
    found
}
