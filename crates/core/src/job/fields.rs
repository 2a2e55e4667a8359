//! Every field a person can type into: its name, its kind, its bounds, its choices. The forms are
//! made from this, and checked by it.

use serde::{Deserialize, Serialize};

use super::choices::{
    BEHIND, CAUSES, CHECKED, COATINGS, CONTENTS, END_KINDS, GROOVE_FORMS, LOADS, NONE, OLD_FILLERS, PIECES,
    PINS, PREP_DONE, ROD_CHOICES, SAFETY_CLASSES, TIP_WAYS,
};

use crate::heat::{HeatSource, Packing, PartShape};
use crate::iron::{Era, Family};
use crate::method::{MethodId, School};
use crate::problem::FieldProblem;
use crate::quantity::{Kind, NotUnderstood, UnitSystem, parse};
use crate::stop_hole::FoundBy;

/// `(id, label)`: the label is a template, said in the units of the shop
pub type Choice = (&'static str, &'static str);

/// What a field holds.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum FieldKind {
    Text {
        most: usize,
    },
    /// A quantity within bounds, both in the unit the core works in.
    Quantity {
        kind: Kind,
        low: f64,
        high: f64,
        unit: &'static str,
    },
    One(&'static [Choice]),
    /// Any number of choices, their ids separated by commas.
    Many(&'static [Choice]),
    YesNo,
    /// A calendar day, `YYYY-MM-DD`.
    Date,
}

/// One field.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FieldSpec {
    pub key: &'static str,
    pub label: &'static str,
    pub kind: FieldKind,
    /// What might stand in it, as a template; empty for nothing.
    pub example: &'static str,
}

impl FieldSpec {
    const fn like(self, example: &'static str) -> Self {
        Self { example, ..self }
    }
}

/// What a field holds once typed and understood.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", content = "value", rename_all = "snake_case")]
pub enum FieldValue {
    Text(String),
    Number(f64),
    One(String),
    Many(Vec<String>),
    YesNo(bool),
}

const fn text(key: &'static str, label: &'static str, most: usize) -> FieldSpec {
    FieldSpec { key, label, kind: FieldKind::Text { most }, example: "" }
}
const fn one(key: &'static str, label: &'static str, choices: &'static [Choice]) -> FieldSpec {
    FieldSpec { key, label, kind: FieldKind::One(choices), example: "" }
}
const fn many(key: &'static str, label: &'static str, choices: &'static [Choice]) -> FieldSpec {
    FieldSpec { key, label, kind: FieldKind::Many(choices), example: "" }
}
const fn yes_no(key: &'static str, label: &'static str) -> FieldSpec {
    FieldSpec { key, label, kind: FieldKind::YesNo, example: "" }
}
const fn quantity(
    key: &'static str,
    label: &'static str,
    kind: Kind,
    (low, high): (f64, f64),
    unit: &'static str,
) -> FieldSpec {
    FieldSpec { key, label, kind: FieldKind::Quantity { kind, low, high, unit }, example: "" }
}
/// Sources and packings with an answer for a shop that has none.
const fn or_none<const N: usize, const M: usize>(known: [Choice; N]) -> [Choice; M] {
    let mut choices = [(NONE, "None"); M];
    let mut at = 0;
    while at < N {
        choices[at] = known[at];
        at += 1;
    }
    choices
}

const SOURCES_OR_NONE: [Choice; SOURCE_CHOICES.len() + 1] = or_none(SOURCE_CHOICES);

const fn length(key: &'static str, label: &'static str, low: f64, high: f64) -> FieldSpec {
    quantity(key, label, Kind::Length, (low, high), "mm")
}

const SOURCE_CHOICES: [Choice; HeatSource::ALL.len()] = {
    let mut choices = [("", ""); HeatSource::ALL.len()];
    let mut at = 0;
    while at < choices.len() {
        choices[at] = (HeatSource::ALL[at].id, HeatSource::ALL[at].label);
        at += 1;
    }
    choices
};

const PERCENT: (f64, f64) = (0.0, 100.0);
const TEMPERATURE: (f64, f64) = (-40.0, 1400.0);

/// Every field of a job but those of its cracks.
pub const JOB_FIELDS: &[FieldSpec] = &[
    text("part.name", "What is it?", 80),
    text("part.owner", "Whose is it?", 80),
    one("part.family", "What sort of part?", Family::CHOICES),
    one("part.era", "When was it cast?", Era::CHOICES),
    quantity("part.mass", "Weight", Kind::Mass, (0.01, 20_000.0), "kg").like("{12 kg}"),
    length("part.length", "Length", 1.0, 20_000.0),
    length("part.width", "Width", 1.0, 20_000.0),
    length("part.height", "Height", 1.0, 20_000.0),
    one("part.shape", "Shape", PartShape::CHOICES),
    length("part.wall", "Wall at the break", 1.0, 300.0).like("{12 mm}"),
    quantity("part.break_station", "Break lies at, % of the longest side", Kind::Plain, PERCENT, "%"),
    quantity("part.service_temperature", "Hottest in service", Kind::Temperature, TEMPERATURE, "°C")
        .like("{80 degC}"),
    yes_no("part.heat_cycling", "Heats and cools in service?"),
    quantity("part.service_time", "Each time for", Kind::Duration, (1.0, 525_600.0), "min"),
    // Asked until `part.holds` was: job files have it.
    yes_no("part.fluid_tight", "Must hold fluid?"),
    one("part.holds", "What does it hold?", CONTENTS),
    quantity("part.pressure", "Under pressure of", Kind::GaugePressure, (0.0, 1000.0), "bar").like("{6 bar}"),
    one("part.cause", "How did it break?", CAUSES),
    many("part.loads", "What it carries", LOADS),
    quantity("part.rpm", "Turns, a minute", Kind::Plain, (0.0, 60_000.0), "rpm"),
    text("part.hurt", "Who could be hurt, and how?", 120),
    one("part.old_filler", "Repaired before, with", OLD_FILLERS),
    yes_no("part.old_filler_out", "Can all of that come out?"),
    many("part.coating", "On its faces", COATINGS),
    one(
        "part.cavity",
        "A closed hollow?",
        &[("none", "None"), ("vented", "Vented"), ("closed", "Closed, no vent")],
    ),
    one("part.place", "Where it is mended", &[("bench", "On the bench"), ("in_place", "In place")]),
    one(
        "part.seen",
        "The repaired face",
        &[("hidden", "Hidden"), ("painted", "Seen, painted"), ("bare", "Seen bare")],
    ),
    text("part.keep_off", "Faces not to be touched", 120),
    one(
        "part.marks",
        "Test marks",
        &[("any", "Anywhere"), ("hidden", "Where hidden"), ("none", "None at all")],
    ),
    one(
        "part.machined",
        "Machined afterwards",
        &[("nothing", "Nothing"), ("elsewhere", "Elsewhere"), ("across", "Across the joint")],
    ),
    text("part.machined_what", "What is machined", 120),
    FieldSpec { key: "part.wanted", label: "Wanted on", kind: FieldKind::Date, example: "" },
    quantity("part.replacement_price", "A new one costs", Kind::Plain, (0.0, 1e7), ""),
    quantity("part.replacement_wait", "And comes in", Kind::Days, (0.0, 3_650.0), "days"),
    quantity("part.downtime", "A day of standing costs", Kind::Plain, (0.0, 1e7), ""),
    one(
        "part.life",
        "Has to last",
        &[("until_new", "Till the new one"), ("season", "A season"), ("good", "For good")],
    ),
    quantity("part.life_wanted", "Or exactly", Kind::Days, (1.0, 36_500.0), "days"),
    text("part.face", "Picture on the rack", 36),
    one(
        "part.oil",
        "Oil",
        &[("clean", "Clean"), ("soaked", "Oil-soaked"), ("baked_clean", "Soaked, now baked clean")],
    ),
    one("part.sides", "Sides reached", &[("one", "One side"), ("both", "Both sides")]),
    text("part.heat_shy", "What must stay cool?", 80),
    quantity("part.heat_shy_limit", "It must not pass", Kind::Temperature, TEMPERATURE, "°C"),
    one("part.safety_class", "Could it hurt somebody?", SAFETY_CLASSES),
    text("part.authority", "Who answers for the repair?", 80),
    text("part.authority_reference", "Their reference", 80),
    one("method.choice", "Method", MethodId::CHOICES),
    one("method.school", "School", School::CHOICES),
    text("method.reason", "Why", 200),
    one("prep.form", "Groove", GROOVE_FORMS),
    length("prep.depth", "Depth", 1.0, 300.0),
    quantity("prep.angle", "Angle", Kind::Plain, (1.0, 170.0), "°"),
    length("prep.gap", "Root gap", 0.0, 50.0),
    length("prep.cap", "Crown", 0.0, 50.0),
    many("prep.done", "Done, and not to be done hot", PREP_DONE),
    one("heat.source", "Heat with", &SOURCE_CHOICES),
    one("cooling.packing", "Pack in", Packing::CHOICES),
    length("cooling.thickness", "Packed how thick", 1.0, 2_000.0),
    one("check.toes", "Toes", CHECKED),
    one("check.cracks_again", "Cracks again", CHECKED),
    one("check.file_edge", "Edge", CHECKED),
    one("check.leak", "Leak", CHECKED),
    one("check.clean", "Clean", CHECKED),
    one("check.alignment", "Alignment", CHECKED),
    one("check.pins", "Pins", CHECKED),
    text("hand_over.expect", "What to expect, what not to do", 600),
    FieldSpec { key: "hand_over.follow_up", label: "Ask again on", kind: FieldKind::Date, example: "" },
    text("hand_over.owned", "Why it goes out as it is, and who says so", 200),
    yes_no("hand_over.done", "Handed over"),
];

/// The fields of one crack, under `crack.<id>.`
pub const CRACK_FIELDS: &[FieldSpec] = &[
    length("length", "Length", 1.0, 20_000.0).like("{60 mm}"),
    length("wall", "Wall along it", 1.0, 300.0).like("{12 mm}"),
    one("found_by", "Ends found", FoundBy::CHOICES),
    one("end_a", "Left end", END_KINDS),
    one("end_b", "Right end", END_KINDS),
    one("piece", "The broken-off piece", PIECES),
    one("behind", "Behind it, where a hole comes out", BEHIND),
    one("tip_way", "A tip no drill catches", TIP_WAYS),
    length("drilled_a", "Drilled, left", 1.0, 50.0),
    length("past_a", "Past the left tip", 0.0, 100.0),
    length("drilled_b", "Drilled, right", 1.0, 50.0),
    length("past_b", "Past the right tip", 0.0, 100.0),
    length("ground_depth", "Ground deep", 1.0, 300.0),
    length("ground_width", "Ground wide at the face", 0.5, 300.0),
];

/// The fields of one thing beside the joint, under `neighbour.<id>.`
pub const NEIGHBOUR_FIELDS: &[FieldSpec] = &[
    text("what", "Must stay cool", 80),
    quantity("limit", "Not over", Kind::Temperature, TEMPERATURE, "°C").like("{120 degC}"),
];

/// The fields of one picture, under `picture.<id>.`
pub const PICTURE_FIELDS: &[FieldSpec] = &[
    one(
        "shows",
        "Shows",
        &[
            ("overall", "All of it"),
            ("break", "The break"),
            ("mark", "A mark"),
            ("before", "Before"),
            ("after", "After"),
        ],
    ),
    text("caption", "In words", 120),
];

/// The shop's settings.
pub const SHOP_FIELDS: &[FieldSpec] = &[
    text("shop.name", "Name of the shop", 80),
    one("shop.units", "Units", &[("metric", "mm, °C, kg"), ("imperial", "in, °F, lb")]),
    one("shop.theme", "Theme", &[("shop", "Shop (dark)"), ("daylight", "Daylight")]),
    text("shop.time_zone", "Time zone", 60),
    quantity("shop.ambient", "Temperature in the shop", Kind::Temperature, (-40.0, 60.0), "°C"),
    many("shop.sources", "Heat at hand", &SOURCES_OR_NONE),
    many("shop.packings", "Packings at hand", Packing::CHOICES),
    many("shop.rods", "Rods at hand", ROD_CHOICES),
    yes_no("shop.stitch_kit", "Stitching pins, taps and drills at hand"),
    one("shop.pins", "Which pins", PINS),
];

/// The key of a field of one crack.
#[must_use]
pub fn crack_key(crack: uuid::Uuid, field: &str) -> String {
    format!("crack.{crack}.{field}")
}

/// The key of a field of one thing beside the joint.
#[must_use]
pub fn neighbour_key(neighbour: uuid::Uuid, field: &str) -> String {
    format!("neighbour.{neighbour}.{field}")
}

/// The key of a field of one picture.
#[must_use]
pub fn picture_key(picture: uuid::Uuid, field: &str) -> String {
    format!("picture.{picture}.{field}")
}

/// What a job has several of, each with fields of its own: prefix of their keys, and the fields.
const SEVERAL: &[(&str, &[FieldSpec])] =
    &[("crack.", CRACK_FIELDS), ("neighbour.", NEIGHBOUR_FIELDS), ("picture.", PICTURE_FIELDS)];

/// The id in the key of a field of one crack, neighbour or picture; nothing in any other.
#[must_use]
pub fn id_in(key: &str) -> Option<uuid::Uuid> {
    let (prefix, rest) = key.split_once('.')?;
    let several = SEVERAL.iter().any(|(known, _)| known.trim_end_matches('.') == prefix);
    several.then(|| rest.split('.').next()?.parse().ok())?
}

/// The field of a job under this key.
#[must_use]
pub fn job_field(key: &str) -> Option<&'static FieldSpec> {
    for (prefix, fields) in SEVERAL {
        if let Some(rest) = key.strip_prefix(prefix) {
            let (id, field) = rest.split_once('.')?;
            id.parse::<uuid::Uuid>().ok()?;
            return fields.iter().find(|spec| spec.key == field);
        }
    }
    JOB_FIELDS.iter().find(|spec| spec.key == key)
}

/// The shop's field under this key.
#[must_use]
pub fn shop_field(key: &str) -> Option<&'static FieldSpec> {
    SHOP_FIELDS.iter().find(|spec| spec.key == key)
}

/// Understands what was typed into a field; nothing typed is nothing known.
///
/// # Errors
/// The problem, at `key`.
pub fn parse_value(
    key: &str,
    spec: &FieldSpec,
    typed: &str,
    shown_in: UnitSystem,
) -> Result<Option<FieldValue>, FieldProblem> {
    let typed = typed.trim();
    if typed.is_empty() {
        return Ok(None);
    }
    let among = |choices: &[Choice], id: &str| {
        if choices.iter().any(|(known, _)| *known == id) {
            Ok(id.to_owned())
        } else {
            let known: Vec<&str> = choices.iter().map(|(known, _)| *known).collect();
            Err(FieldProblem::new(key, format!("\"{id}\" is not one of the choices"), known.join(", ")))
        }
    };
    let value = match spec.kind {
        FieldKind::Text { most } => {
            let length = typed.chars().count();
            if length > most {
                return Err(FieldProblem::new(
                    key,
                    format!("{length} letters are too many here"),
                    format!("up to {most} letters"),
                ));
            }
            if key == "shop.time_zone" && !typed.contains('/') && typed != "UTC" {
                return Err(FieldProblem::new(
                    key,
                    format!("\"{typed}\" is not the name of a time zone"),
                    "Europe/London or America/Chicago",
                ));
            }
            FieldValue::Text(typed.to_owned())
        }
        FieldKind::Quantity { kind, low, high, unit } => {
            FieldValue::Number(bounded(key, typed, kind, (low, high), unit, shown_in)?)
        }
        FieldKind::One(choices) => FieldValue::One(among(choices, typed)?),
        FieldKind::Many(choices) => {
            let ids = typed.split(',').map(str::trim).filter(|id| !id.is_empty());
            let known = ids.map(|id| among(choices, id)).collect::<Result<Vec<_>, _>>()?;
            // "None" is the answer that nothing is: what stands beside it wins.
            FieldValue::Many(known.into_iter().filter(|id| id != NONE).collect())
        }
        FieldKind::YesNo => match typed {
            "yes" => FieldValue::YesNo(true),
            "no" => FieldValue::YesNo(false),
            other => {
                return Err(FieldProblem::new(
                    key,
                    format!("\"{other}\" is neither yes nor no"),
                    "yes or no",
                ));
            }
        },
        FieldKind::Date => FieldValue::Text(calendar_day(key, typed)?),
    };
    Ok(Some(value))
}

fn bounded(
    key: &str,
    typed: &str,
    kind: Kind,
    (low, high): (f64, f64),
    unit: &'static str,
    shown_in: UnitSystem,
) -> Result<f64, FieldProblem> {
    let understood = parse(typed, kind, shown_in).map_err(|error| {
        let message = match &error {
            NotUnderstood::LetterO(_) => "A letter o stands where a zero should be".to_owned(),
            other => other.to_string(),
        };
        FieldProblem::new(key, message, NotUnderstood::would_be_right(kind))
    })?;
    if understood.value.is_finite() && (low..=high).contains(&understood.value) {
        return Ok(understood.value);
    }
    Err(FieldProblem::new(
        key,
        format!("{typed} is outside what can be here"),
        format!("{low} to {high} {unit}"),
    ))
}

fn calendar_day(key: &str, typed: &str) -> Result<String, FieldProblem> {
    let wrong = || FieldProblem::new(key, format!("\"{typed}\" is not a day of the calendar"), "2027-03-15");
    let parts: Vec<&str> = typed.split('-').collect();
    let [year, month, day] = parts[..] else { return Err(wrong()) };
    let number = |text: &str| text.parse::<u32>().map_err(|_| wrong());
    let (year, month, day) = (number(year)?, number(month)?, number(day)?);
    let leap = year.is_multiple_of(4) && (!year.is_multiple_of(100) || year.is_multiple_of(400));
    let days = match month {
        1 | 3 | 5 | 7 | 8 | 10 | 12 => 31,
        4 | 6 | 9 | 11 => 30,
        2 => 28 + u32::from(leap),
        _ => return Err(wrong()),
    };
    if !(1900..=2200).contains(&year) || day == 0 || day > days {
        return Err(wrong());
    }
    Ok(format!("{year:04}-{month:02}-{day:02}"))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn typed(key: &str, text: &str) -> Result<Option<FieldValue>, FieldProblem> {
        parse_value(key, job_field(key).unwrap(), text, UnitSystem::Metric)
    }

    #[rstest]
    #[case::impossible_wall("part.wall", "900", "1 to 300 mm")]
    #[case::negative_weight("part.mass", "-4 kg", "0.01 to 20000 kg")]
    #[case::no_such_unit("part.service_temperature", "500Q", "260 C or 500 F")]
    #[case::letter_for_zero("part.service_temperature", "28o", "260 C or 500 F")]
    #[case::no_such_choice("part.sides", "three", "one, both")]
    #[case::no_such_day("hand_over.follow_up", "2027-02-29", "2027-03-15")]
    fn what_cannot_be_is_refused_at_its_field(#[case] key: &str, #[case] text: &str, #[case] would_do: &str) {
        let problem = typed(key, text).unwrap_err();
        assert_eq!((problem.field.as_str(), problem.would_be_right.as_str()), (key, would_do));
    }

    #[test]
    fn a_shop_that_has_none_says_so() {
        let rods =
            |text| parse_value("shop.rods", shop_field("shop.rods").unwrap(), text, UnitSystem::Metric);
        assert_eq!(rods(""), Ok(None), "nobody has said");
        assert_eq!(rods("none"), Ok(Some(FieldValue::Many(Vec::new()))));
        assert_eq!(rods("none,bronze"), Ok(Some(FieldValue::Many(vec!["bronze".into()]))));
        assert!(typed("part.loads", "none").is_err(), "only where it is offered");
    }

    #[test]
    fn nothing_typed_is_nothing_known() {
        assert_eq!(typed("part.wall", "  "), Ok(None));
    }

    #[test]
    fn a_leap_day_is_a_day() {
        assert_eq!(
            typed("hand_over.follow_up", "2028-2-29"),
            Ok(Some(FieldValue::Text("2028-02-29".into())))
        );
    }
}
