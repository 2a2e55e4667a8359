//! What locks a job: a part that can hurt somebody, a hollow that can burst.

use super::PartFacts;
use crate::base::day::Day;
use crate::casting::said::{Cavity, Contents, Hazard, SafetyClass};
use crate::field;
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

/// A class of parts that is referred out.
struct Class {
    /// Which, and why.
    words: String,
    /// Somebody who may can answer for it.
    opens: bool,
}

impl Class {
    fn new(words: impl Into<String>, opens: bool) -> Option<Self> {
        Some(Self { words: words.into(), opens })
    }
}

/// Who answers for a part that is referred out, as it was said.
struct Referral {
    who: String,
    is: &'static str,
    looked_at: String,
    reference: String,
    day: String,
}

/// Who answers for it; the key of what is not said of that yet.
fn referral(round: &Round) -> Result<Referral, &'static str> {
    use field::part::{AUTHORITY, AUTHORITY_DAY, AUTHORITY_IS, AUTHORITY_LOOKED, AUTHORITY_REFERENCE};
    let said = |field: field::Field<field::Text>| {
        let key = field.key();
        round.get(field).map(str::to_owned).ok_or(key)
    };
    Ok(Referral {
        who: said(AUTHORITY)?,
        is: round.get(AUTHORITY_IS).ok_or(AUTHORITY_IS.key())?.label(),
        looked_at: said(AUTHORITY_LOOKED)?,
        reference: said(AUTHORITY_REFERENCE)?,
        day: Day::say(&said(AUTHORITY_DAY)?),
    })
}

/// What is said first of a part that was referred out and that somebody answers for.
pub fn answered_for(round: &Round, facts: &PartFacts) -> Option<String> {
    let class = safety_class(round, facts).filter(|class| class.opens)?;
    let Referral { who, is, looked_at, reference, day } = referral(round).ok()?;
    Some(format!(
        "Referred: {}. {who} answers for it ({}): {looked_at}, {day}, reference {reference}.",
        class.words,
        is.to_lowercase()
    ))
}

/// The same as it fits on a label.
pub fn answered_for_shortly(round: &Round, facts: &PartFacts) -> Option<String> {
    let class = safety_class(round, facts).filter(|class| class.opens)?;
    let Referral { who, reference, .. } = referral(round).ok()?;
    Some(format!("Referred: {}. {who} answers for it, {reference}.", class.words.to_lowercase()))
}

/// The class of parts it belongs to, and why: as said, or as its contents and its speed say.
fn safety_class(round: &Round, facts: &PartFacts) -> Option<Class> {
    let said = round.get(field::part::SAFETY_CLASS).filter(|class| *class != SafetyClass::None);
    if let Some(class) = said {
        return Class::new(class.label(), !class.never_opens());
    }
    let pressed = round.get(field::part::PRESSURE).filter(|bar| *bar > PRESSURE_BAR);
    match (pressed, facts.holds) {
        (Some(bar), _) if facts.duct() && bar < DUCT_BAR => {}
        (Some(bar), Some(Contents::Gas | Contents::Duct | Contents::Fuel)) => {
            let under = facts.units.say(bar, Unit::Bar);
            return Class::new(format!("It holds gas or fuel under {under}: a pressure vessel"), false);
        }
        (Some(bar), Some(Contents::DrinkingWater)) => {
            let under = facts.units.say(bar, Unit::Bar);
            return Class::new(format!("It holds drinking water under {under}: pressure piping"), false);
        }
        _ => {}
    }
    let rim = rim_speed_m_s(round, facts).filter(|rim| *rim > RIM_M_S)?;
    let runs = number(rim, 0);
    Class::new(
        format!("Its rim runs at {runs} m/s, over {RIM_M_S:.0}: it bursts when a repair lets go"),
        true,
    )
}

/// Rule M20: a part of a safety class is locked until it is said who answers for it, what they are, what they looked
/// at, under which reference and when; some classes for good.
pub fn safety_lock(round: &Round, facts: &PartFacts) -> Option<Lock> {
    let class = safety_class(round, facts)?;
    let (unlock, key) = if class.opens {
        let missing = referral(round).err()?;
        let unlock = "Enter who answers for the repair (owner's engineer, inspector or code), what they looked at, their \
                      reference and the day.";
        (unlock, missing)
    } else {
        ("Nothing that is said here opens it: it goes to a shop that may do it.", "")
    };
    Some(Lock {
        rule: "M20".to_owned(),
        station: Station::Part,
        short: "Referred out".to_owned(),
        sentence: format!("Referred out: {}. No plan is made for it here.", class.words),
        unlock: unlock.to_owned(),
        key: key.to_owned(),
        hot_only: false,
    })
}

/// What makes poison or worse of heat: nothing hot until it is off.
pub fn hazard_lock(round: &Round) -> Option<Lock> {
    let on_it = round.get(field::part::HAZARDS)?;
    let (short, sentence, unlock) = if on_it.contains(&Hazard::Cadmium) {
        (
            "Have it tested",
            "Cadmium may be on it: heated it is a deadly fume. No hot work on it.",
            "Have it tested, or stripped by somebody who is equipped for it, then say that it is off.",
        )
    } else if on_it.contains(&Hazard::Chlorinated) {
        (
            "Let it flash off",
            "Cleaner with chlorine is on it: an arc or a flame makes phosgene of it. No hot work on it.",
            "Let all of it flash off, away from the flame, then say so.",
        )
    } else if on_it.contains(&Hazard::Seals) {
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
    if facts.holds == Some(Contents::Fuel)
        && let Err(missing) = referral(round)
    {
        return lock(
            "Held fuel",
            "It held fuel or solvent: no hot work on it.",
            "Emptied, cleaned, vented and checked by someone who may say so: enter who, what they are, what they looked \
             at, their reference and the day.",
            missing,
        );
    }
    if round.get(field::part::CAVITY) == Some(Cavity::Closed) {
        return lock(
            "Vent it first",
            "A closed hollow bursts when it is heated: no hot work on it.",
            "Drill a vent, drain and dry it, then say that it is vented.",
            field::part::CAVITY.key(),
        );
    }
    None
}
