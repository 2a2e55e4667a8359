//! What is known of the part, as the later stages need it.

use serde::{Deserialize, Serialize};

use super::{Amount, Station};
use crate::heat::{Body, PartShape};
use crate::iron::{Era, Family, IronProperties};
use crate::job::{Round, SAFETY_CLASSES};
use crate::quantity::{Celsius, Kilograms, Millimetres, Unit, UnitSystem, both};
use crate::shop::Shop;

/// A caution, shown at the station where it matters.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Caution {
    pub station: Station,
    pub sentence: String,
}

/// Everything is computed and shown, no method is recommended, lighting up is refused.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Lock {
    pub rule: String,
    /// The station at which the job stops.
    pub station: Station,
    pub short: String,
    pub sentence: String,
    pub unlock: String,
}

/// A fact that is not known, and what that costs.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Missing {
    pub key: String,
    pub station: Station,
    /// What to do about it.
    pub verb: String,
    pub what: String,
    pub why: String,
}

/// The part's facts, read once.
#[derive(Debug, Clone)]
pub(super) struct PartFacts {
    pub family: Family,
    pub era: Era,
    pub mass_kg: Option<f64>,
    pub size_mm: Option<(f64, f64, f64)>,
    pub shape: Option<PartShape>,
    pub wall_mm: Option<f64>,
    /// Where along the longest side the break lies, 0 to 1; the middle while nobody has said.
    pub station: f64,
    pub station_known: bool,
    pub both_sides: Option<bool>,
    pub ambient_c: f64,
    /// The system sentences speak in.
    pub units: UnitSystem,
}

impl PartFacts {
    pub fn read(round: &Round, shop: &Shop) -> Self {
        let size = ["part.length", "part.width", "part.height"].map(|key| round.number(key));
        let along = round.number("part.break_station").map(|percent| percent / 100.0);
        Self {
            family: round.choice("part.family").and_then(Family::from_id).unwrap_or(Family::Unknown),
            era: round.choice("part.era").and_then(Era::from_id).unwrap_or(Era::Unknown),
            mass_kg: round.number("part.mass"),
            size_mm: match size {
                [Some(l), Some(w), Some(h)] => Some((l, w, h)),
                _ => None,
            },
            shape: round.choice("part.shape").and_then(PartShape::from_id),
            wall_mm: round.number("part.wall"),
            station: along.unwrap_or(0.5),
            station_known: along.is_some(),
            both_sides: round.choice("part.sides").map(|sides| sides == "both"),
            ambient_c: shop.ambient_c,
            units: shop.units,
        }
    }

    pub fn closed(&self) -> bool {
        self.shape.is_some_and(PartShape::closed)
    }

    /// The casting for the heat model; nothing while weight, size or shape is not known.
    pub fn body(&self, iron: IronProperties) -> Option<Body> {
        let (l, w, h) = self.size_mm?;
        let mm = |value| Millimetres::new(value).ok();
        Body::new(
            iron,
            Kilograms::new(self.mass_kg?).ok()?,
            (mm(l)?, mm(w)?, mm(h)?),
            self.shape?.surface_factor(),
            Celsius::new(self.ambient_c).ok()?,
        )
        .ok()
    }

    /// "22 kg, 420 x 300 x 220 mm".
    pub fn size_words(&self) -> String {
        let units = self.units;
        let number = |mm: f64| match units {
            UnitSystem::Metric => both(mm, Unit::Millimetres).0.number,
            UnitSystem::Imperial => both(mm, Unit::Millimetres).1.number,
        };
        match (self.mass_kg, self.size_mm) {
            (Some(mass), Some((l, w, h))) => format!(
                "{}, {} x {} x {}",
                units.say(mass, Unit::Kilograms),
                number(l),
                number(w),
                units.say(h, Unit::Millimetres)
            ),
            _ => "not known".to_owned(),
        }
    }
}

/// A fact of the part: its field, what to do about it, what it is, and what it is needed for.
struct Need {
    key: &'static str,
    verb: &'static str,
    what: &'static str,
    why: &'static str,
}

const fn need(key: &'static str, verb: &'static str, what: &'static str, why: &'static str) -> Need {
    Need { key, verb, what, why }
}

/// The one that matters most first.
const NEEDED: &[Need] = &[
    need("part.name", "Say what it is", "What it is", "so that it can be found again"),
    need("part.family", "Say what sort of part", "What sort of part", "it says which iron to expect"),
    need(
        "part.safety_class",
        "Say whether it could hurt",
        "Could it hurt somebody",
        "some parts are referred out",
    ),
    need(
        "part.wall",
        "Measure the wall",
        "Wall at the break",
        "stop-holes, groove, pins and preheat follow from it",
    ),
    need("part.mass", "Weigh it", "Weight", "no heating or cooling time without it"),
    need("part.length", "Measure the length", "Length", "no heating or cooling time without it"),
    need("part.width", "Measure the width", "Width", "no heating or cooling time without it"),
    need("part.height", "Measure the height", "Height", "no heating or cooling time without it"),
    need("part.shape", "Say its shape", "Shape", "a closed shape must be heated more evenly"),
    need(
        "part.break_station",
        "Say where the break lies",
        "Where the break lies",
        "taken as the middle until then",
    ),
    need(
        "part.sides",
        "Say which sides are reached",
        "Sides reached",
        "taken as one side until then, and derated",
    ),
    need(
        "part.service_temperature",
        "Ask how hot it gets",
        "Hottest in service",
        "a braze may be too weak for it",
    ),
    need("part.oil", "Look for oil", "Oil", "oil keeps filler from taking"),
    need("part.fluid_tight", "Ask whether it holds fluid", "Must it hold fluid", "beads can be porous"),
    need("part.era", "Say when it was cast", "When it was cast", "before 1949 there was hardly any ductile"),
    need(
        "part.life_wanted",
        "Ask how long it must last",
        "How long it must last",
        "a patch may do where a repair will not",
    ),
];

pub(super) fn missing(round: &Round) -> Vec<Missing> {
    NEEDED
        .iter()
        .filter(|need| round.values.get(need.key).is_none_or(|held| held.value.is_none()))
        .map(|need| Missing {
            key: need.key.to_owned(),
            station: Station::Part,
            verb: need.verb.to_owned(),
            what: need.what.to_owned(),
            why: need.why.to_owned(),
        })
        .collect()
}

/// Part is enough when everything the heat and the rules stand on is known.
pub(super) fn amount(missing: &[Missing]) -> Amount {
    const CAN_WAIT: &[&str] = &["part.break_station", "part.era", "part.life_wanted", "part.sides"];
    let open = missing.iter().filter(|m| !CAN_WAIT.contains(&m.key.as_str())).count();
    if open == 0 {
        Amount::Enough
    } else if missing.len() < NEEDED.len() {
        Amount::Something
    } else {
        Amount::Nothing
    }
}

/// Rule M20: a part of a safety class is locked until a named authority and its reference stand.
pub(super) fn safety_lock(round: &Round) -> Option<Lock> {
    let class = round.choice("part.safety_class").filter(|class| *class != "none")?;
    let answered = round.text("part.authority").is_some() && round.text("part.authority_reference").is_some();
    if answered {
        return None;
    }
    let label = SAFETY_CLASSES
        .iter()
        .find(|(id, _)| *id == class)
        .map_or("a part that can hurt somebody", |(_, label)| label);
    Some(Lock {
        rule: "M20".to_owned(),
        station: Station::Part,
        short: "Referred out".to_owned(),
        sentence: format!("Referred out: {label}. No plan is made for it here."),
        unlock: "Enter who answers for the repair (owner's engineer, inspector or code) and their \
                 reference."
            .to_owned(),
    })
}

/// The cautions this part earns.
///
/// # Source
/// House, from the trade's usual cautions; local codes and licensed practice come first.
pub(super) fn cautions(round: &Round, facts: &PartFacts) -> Vec<Caution> {
    let units = facts.units;
    let mut found = Vec::new();
    let mut say = |station, sentence: &str| {
        found.push(Caution { station, sentence: sentence.to_owned() });
    };
    if facts.era == Era::Before1949 || facts.era == Era::From1949To1969 {
        say(Station::Part, "Paint of that age may hold lead: test it, work wet, no dry grinding.");
    }
    if round.choice("part.oil") == Some("soaked") {
        say(Station::Cracks, "Oil weeps when heated. No chlorinated cleaner near arc or flame: phosgene.");
    }
    if facts.closed() {
        say(
            Station::Heat,
            &format!(
                "Closed hollow? Trapped water or oil bursts when heated: vent, drain, dry at {} first.",
                units.say(120.0, Unit::Celsius)
            ),
        );
    }
    if facts.family == Family::Cookware {
        say(Station::HandOver, "No contact with food after a repair.");
    }
    if facts.family == Family::HotExhaust {
        say(Station::Check, "A repaired fire part can leak carbon monoxide: ventilate, alarm, leak test.");
    }
    if round.yes("part.fluid_tight") == Some(true) {
        say(Station::Check, "Test with water, never with air or gas: brittle iron bursts.");
    }
    if let Some(what) = round.text("part.heat_shy") {
        let limit = round
            .number("part.heat_shy_limit")
            .map_or(String::new(), |limit| format!(", under {}", units.say(limit, Unit::Celsius)));
        say(Station::Heat, &format!("Keep cool: {what}{limit}."));
    }
    if facts.mass_kg.is_some_and(|mass| mass > 25.0) {
        say(Station::Part, "A broken casting shifts: sling it on sound metal.");
    }
    found
}
