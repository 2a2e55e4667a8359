//! What locks a job: a part that can hurt somebody, a hollow that can burst.

use super::PartFacts;
use crate::field::{self, SAFETY_CLASSES};
use crate::job::Round;
use crate::quantity::{Unit, number};
use crate::stage::{Lock, Station};

/// Ours: a gauge that shows less than this is an open vent.
const PRESSURE_BAR: f64 = 0.5;
/// House, from the trade's usual cautions: gas on its way through a manifold under less than this makes no
/// pressure vessel of it.
const DUCT_BAR: f64 = 3.0;
/// House, from the trade's usual cautions: a wheel that turns faster bursts when a repair lets go.
const RIM_M_S: f64 = 10.0;

/// Rim speed in m/s of a part that turns: pi x its longest side x turns a minute / 60.
fn rim_speed_m_s(round: &Round, facts: &PartFacts) -> Option<f64> {
    let (l, w, h) = facts.size_mm?;
    let across_m = l.max(w).max(h) / 1000.0;
    Some(std::f64::consts::PI * across_m * round.get(field::part::RPM)? / 60.0)
}

/// The class of parts it belongs to, and why: as said, or as its contents and its speed say.
fn safety_class(round: &Round, facts: &PartFacts) -> Option<String> {
    let said = round.get(field::part::SAFETY_CLASS).filter(|class| *class != "none");
    if let Some(class) = said {
        let label = SAFETY_CLASSES.iter().find(|(id, _)| *id == class);
        return Some(label.map_or("a part that can hurt somebody", |(_, label)| label).to_owned());
    }
    let pressed = round.get(field::part::PRESSURE).filter(|bar| *bar > PRESSURE_BAR);
    match (pressed, facts.holds.as_deref()) {
        (Some(bar), _) if facts.duct() && bar < DUCT_BAR => {}
        (Some(bar), Some("gas" | "duct" | "fuel")) => {
            return Some(format!(
                "It holds gas or fuel under {}: a pressure vessel",
                facts.units.say(bar, Unit::Bar)
            ));
        }
        (Some(bar), Some("drinking_water")) => {
            return Some(format!(
                "It holds drinking water under {}: pressure piping",
                facts.units.say(bar, Unit::Bar)
            ));
        }
        _ => {}
    }
    let rim = rim_speed_m_s(round, facts).filter(|rim| *rim > RIM_M_S)?;
    Some(format!(
        "Its rim runs at {} m/s, over {RIM_M_S:.0}: it bursts when a repair lets go",
        number(rim, 0)
    ))
}

/// Rule M20: a part of a safety class is locked until a named authority and its reference stand.
pub fn safety_lock(round: &Round, facts: &PartFacts) -> Option<Lock> {
    let class = safety_class(round, facts)?;
    let named = round.get(field::part::AUTHORITY).is_some();
    if named && round.get(field::part::AUTHORITY_REFERENCE).is_some() {
        return None;
    }
    Some(Lock {
        rule: "M20".to_owned(),
        station: Station::Part,
        short: "Referred out".to_owned(),
        sentence: format!("Referred out: {class}. No plan is made for it here."),
        unlock: "Enter who answers for the repair (owner's engineer, inspector or code) and their \
                 reference."
            .to_owned(),
        key: if named { field::part::AUTHORITY_REFERENCE.key() } else { field::part::AUTHORITY.key() }
            .to_owned(),
        hot_only: false,
    })
}

/// What makes poison or worse of heat: nothing hot until it is off.
pub fn hazard_lock(round: &Round) -> Option<Lock> {
    let on_it = round.get(field::part::HAZARDS)?;
    let is = |id: &str| on_it.iter().any(|it| it == id);
    let (short, sentence, unlock) = if is("cadmium") {
        (
            "Have it tested",
            "Cadmium may be on it: heated it is a deadly fume. No hot work on it.",
            "Have it tested, or stripped by somebody who is equipped for it, then say that it is off.",
        )
    } else if is("chlorinated") {
        (
            "Let it flash off",
            "Cleaner with chlorine is on it: an arc or a flame makes phosgene of it. No hot work on it.",
            "Let all of it flash off, away from the flame, then say so.",
        )
    } else if is("seals") {
        (
            "Strip the seals",
            "Seals of fluoroelastomer or PTFE are on it: burnt they leave hydrofluoric acid and toxic fume. No hot work \
             on it.",
            "Strip all seals and gaskets; touch none that is charred. Then say so.",
        )
    } else {
        return None;
    };
    Some(Lock {
        rule: "hazard".to_owned(),
        station: Station::Part,
        short: short.to_owned(),
        sentence: sentence.to_owned(),
        unlock: unlock.to_owned(),
        key: field::part::HAZARDS.key().to_owned(),
        hot_only: true,
    })
}

/// Rule M22, and what held fuel: nothing hot until it is vented, or cleared by somebody who may.
pub fn cavity_lock(round: &Round, facts: &PartFacts) -> Option<Lock> {
    let lock = |short: &str, sentence: &str, unlock: &str, key: &str| {
        Some(Lock {
            rule: "M22".to_owned(),
            station: Station::Part,
            short: short.to_owned(),
            sentence: sentence.to_owned(),
            unlock: unlock.to_owned(),
            key: key.to_owned(),
            hot_only: true,
        })
    };
    let fuel_cleared =
        round.get(field::part::AUTHORITY).is_some() && round.get(field::part::AUTHORITY_REFERENCE).is_some();
    if facts.holds.as_deref() == Some("fuel") && !fuel_cleared {
        return lock(
            "Held fuel",
            "It held fuel or solvent: no hot work on it.",
            "Emptied, cleaned, vented and checked by someone who may say so: enter who, and their reference.",
            field::part::AUTHORITY.key(),
        );
    }
    if round.get(field::part::CAVITY) == Some("closed") {
        return lock(
            "Vent it first",
            "A closed hollow bursts when it is heated: no hot work on it.",
            "Drill a vent, drain and dry it, then say that it is vented.",
            field::part::CAVITY.key(),
        );
    }
    None
}
