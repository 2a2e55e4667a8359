//! What is not known of the part, and what that costs.

use super::facts::{GUESSED_WALL_MM, PartFacts, Weight};
use crate::field;
use crate::job::Round;
use crate::quantity::Unit;
use crate::stage::{Amount, Missing, Station};

/// A fact of the part: its field, what to do about it, what it is, what not knowing it costs.
struct Need {
    key: &'static str,
    verb: &'static str,
    what: &'static str,
    why: &'static str,
    /// The plan can be made without it.
    can_wait: bool,
}

const fn need(key: &'static str, verb: &'static str, what: &'static str, why: &'static str) -> Need {
    Need { key, verb, what, why, can_wait: false }
}
const fn later(key: &'static str, verb: &'static str, what: &'static str, why: &'static str) -> Need {
    Need { key, verb, what, why, can_wait: true }
}

const MASS: &str = field::part::MASS.key();

/// The one that matters most first.
const NEEDED: &[Need] = &[
    need(
        field::part::NAME.key(),
        "Say what it is",
        "What it is",
        "without a name nobody finds it on the rack",
    ),
    need(
        field::part::FAMILY.key(),
        "Say what sort of part",
        "What sort of part",
        "any iron is as good a guess as the next",
    ),
    need(
        field::part::SAFETY_CLASS.key(),
        "Say whether it could hurt",
        "Could it hurt somebody",
        "some parts are referred out, and nobody has said this is none of them",
    ),
    need(
        field::part::WALL.key(),
        "Measure the wall",
        "Wall",
        "stop-holes, groove, pins and preheat hang on it",
    ),
    need(field::part::SHAPE.key(), "Say its shape", "Shape", "how long it heats and cools hangs on it"),
    need(
        field::part::LENGTH.key(),
        "Measure the length",
        "Length",
        "how long it heats and cools hangs on it",
    ),
    need(field::part::WIDTH.key(), "Measure the width", "Width", "how long it heats and cools hangs on it"),
    need(
        field::part::HEIGHT.key(),
        "Measure the height",
        "Height",
        "how long it heats and cools hangs on it",
    ),
    need(field::part::MASS.key(), "Weigh it", "Weight", "how long it heats and cools hangs on it"),
    need(
        field::part::SERVICE_TEMPERATURE.key(),
        "Ask how hot it gets",
        "Hottest in service",
        "whether the joint stands it is not looked at",
    ),
    need(
        field::part::HOLDS.key(),
        "Ask what it holds",
        "What it holds",
        "whether it must be tight is not looked at",
    ),
    need(field::part::OIL.key(), "Look for oil", "Oil", "oil keeps filler from taking"),
    later(
        field::part::SIDES.key(),
        "Say which sides are reached",
        "Can be reached from",
        "reckoned as reached from one side only",
    ),
    later(
        field::part::BREAK_STATION.key(),
        "Say where the break lies",
        "Where the break lies",
        "heated as if it were in the middle",
    ),
    later(
        field::part::ERA.key(),
        "Say when it was cast",
        "When it was cast",
        "ductile is not weighed by its age",
    ),
    later(
        field::part::LOADS.key(),
        "Say what it carries",
        "What it carries",
        "bending and shock are not looked at",
    ),
    later(
        field::part::LIFE.key(),
        "Ask how long it must last",
        "How long it must last",
        "a patch is not thought of",
    ),
    later(
        field::part::OLD_FILLER.key(),
        "Look for an old repair",
        "Old filler",
        "old bronze spoils a weld, and nobody has looked",
    ),
    later(
        field::part::CAVITY.key(),
        "Look for a closed hollow",
        "A closed hollow",
        "a closed hollow bursts when heated",
    ),
    later(
        field::part::MACHINED.key(),
        "Ask what is machined",
        "What is machined after",
        "a hard edge may stop a drill",
    ),
    later(
        field::part::CAUSE.key(),
        "Ask how it broke",
        "How it broke",
        "the repair mends the break, not the cause",
    ),
    later(
        field::part::MARKS.key(),
        "Ask where marks may be",
        "Where test marks may be",
        "a punch, file, drill or wheel leaves one",
    ),
];

fn known(round: &Round, facts: &PartFacts, key: &str) -> bool {
    if key == field::part::HOLDS.key() {
        facts.fluid_tight.is_some()
    } else if key == field::part::LIFE.key() {
        facts.life_days.is_some() || round.get(field::part::LIFE).is_some()
    } else {
        // What lies on the map was looked at.
        let seen_on_the_map = key == field::part::OLD_FILLER.key() && round.old_filler().is_some();
        seen_on_the_map || round.values.get(key).is_some_and(|held| held.value.is_some())
    }
}

pub fn missing(round: &Round, facts: &PartFacts) -> Vec<Missing> {
    let units = facts.units;
    // What can wait is asked after everything that cannot.
    let (cannot, mut can): (Vec<&Need>, Vec<&Need>) =
        NEEDED.iter().partition(|need| !can_wait(need.key, facts));
    // An estimated weight is known in its way already: last of all.
    can.sort_by_key(|need| need.key == MASS);
    cannot
        .into_iter()
        .chain(can)
        .filter(|need| !known(round, facts, need.key))
        .map(|need| {
            let why = match &facts.weight {
                Some(Weight::Estimated(weight)) if need.key == MASS => format!(
                    "about {} ({} to {}), and every time with it",
                    units.say(weight.kg, Unit::Kilograms),
                    units.say(weight.low_kg, Unit::Kilograms),
                    units.say(weight.high_kg, Unit::Kilograms)
                ),
                _ if need.key == field::part::WALL.key() => format!(
                    "stop-holes, groove and preheat are for {}, a guess",
                    units.say(GUESSED_WALL_MM, Unit::Millimetres)
                ),
                _ => need.why.to_owned(),
            };
            Missing {
                key: need.key.to_owned(),
                station: Station::Part,
                verb: need.verb.to_owned(),
                what: need.what.to_owned(),
                why,
            }
        })
        .collect()
}

/// The plan can be made without it: an estimated weight need not be weighed.
fn can_wait(key: &str, facts: &PartFacts) -> bool {
    (key == MASS && facts.weight.is_some()) || NEEDED.iter().any(|need| need.key == key && need.can_wait)
}

/// What the plan goes on although it is not known: "Wall not known: ...".
pub fn guesses(missing: &[Missing], facts: &PartFacts) -> Vec<String> {
    let taken = [field::part::WALL.key(), MASS, field::part::SIDES.key(), field::part::BREAK_STATION.key()];
    missing
        .iter()
        .filter(|missing| taken.contains(&missing.key.as_str()))
        .filter(|missing| missing.key != MASS || facts.weight.is_some())
        .map(|missing| {
            let not_known = match missing.key.as_str() {
                MASS => "Not weighed",
                key if key == field::part::SIDES.key() => "Nobody has said from where it can be reached",
                key if key == field::part::BREAK_STATION.key() => "Where the break lies is not known",
                _ => "Wall not known",
            };
            format!("{not_known}: {}.", missing.why)
        })
        .collect()
}

/// Part is enough when everything the heat and the rules stand on is known, or estimated.
pub fn amount(missing: &[Missing], facts: &PartFacts) -> Amount {
    let open = missing.iter().filter(|missing| !can_wait(&missing.key, facts)).count();
    if open == 0 {
        Amount::Enough
    } else if missing.len() < NEEDED.len() {
        Amount::Something
    } else {
        Amount::Nothing
    }
}
