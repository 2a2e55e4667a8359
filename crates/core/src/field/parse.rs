//! What is typed into a field, understood within its bounds.

use super::choices::NONE;
use super::{Choice, FieldKind, FieldSpec, FieldValue, shop, store};
use crate::base::day::Day;

use crate::base::problem::FieldProblem;
use crate::quantity::{
    AMOUNTS, Kind, NotUnderstood, PRICES, Rounding, UnitSystem, parse, parse_amount, parse_drills,
    parse_price,
};

/// How a thing is said that is typed into a field.
#[derive(Debug, Clone, Copy)]
pub struct ParseContext {
    /// The units printed on the field.
    pub shown_in: UnitSystem,
    /// The day it is said on, in the shop's zone; nothing where that is not known.
    pub today: Option<Day>,
}

impl From<UnitSystem> for ParseContext {
    fn from(shown_in: UnitSystem) -> Self {
        Self { shown_in, today: None }
    }
}

/// Line ends and other control characters, and those that turn the writing round: they change what is seen beside them.
#[must_use]
pub fn is_no_letter(letter: char) -> bool {
    let turns = ['\u{200e}', '\u{200f}'].contains(&letter)
        || ('\u{202a}'..='\u{202e}').contains(&letter)
        || ('\u{2066}'..='\u{2069}').contains(&letter);
    letter.is_control() || turns
}

/// Words on one line, as typed; of a zone, drills, an amount and a price what it is can be read from them too.
fn text(
    key: &str,
    (spec, most): (&FieldSpec, usize),
    typed: &str,
    shown_in: UnitSystem,
) -> Result<String, FieldProblem> {
    if typed.chars().any(is_no_letter) {
        let message = "there are signs in it that nobody sees";
        return Err(FieldProblem::new(key, message, "letters and figures on one line"));
    }
    let length = typed.chars().count();
    if length > most {
        return Err(FieldProblem::new(
            key,
            format!("{length} letters are too many here"),
            format!("up to {most} letters"),
        ));
    }
    if key == shop::TIME_ZONE.key() && !typed.contains('/') && typed != "UTC" {
        return Err(FieldProblem::new(
            key,
            format!("\"{typed}\" is not the name of a time zone"),
            "Europe/London or America/Chicago",
        ));
    }
    if key == shop::DRILLS.key() {
        parse_drills(key, typed, shown_in)?;
    }
    let refused = |none: NotUnderstood, would_do: &str| FieldProblem::new(key, none.to_string(), would_do);
    if spec.key == store::AMOUNT.field.key() && key.starts_with("store.") {
        parse_amount(typed).map_err(|none| refused(none, AMOUNTS))?;
    }
    if spec.key == store::PRICE.field.key() && key.starts_with("store.") {
        parse_price(typed).map_err(|none| refused(none, PRICES))?;
    }
    Ok(typed.to_owned())
}

/// Understands what was typed into a field; nothing typed is nothing known.
///
/// # Errors
/// The problem, at `key`.
pub fn parse_value(
    key: &str,
    spec: &FieldSpec,
    typed: &str,
    saying: impl Into<ParseContext>,
) -> Result<Option<FieldValue>, FieldProblem> {
    let ParseContext { shown_in, today } = saying.into();
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
        FieldKind::Text { most } => FieldValue::Text(text(key, (spec, most), typed, shown_in)?),
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
        FieldKind::Date => {
            let day = Day::parse(typed, today)
                .map_err(|none| FieldProblem::new(key, none.to_string(), none.would_be_right()))?;
            FieldValue::Text(day.to_string())
        }
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
        within(kind, (low, high), unit, shown_in),
    ))
}

/// Bounds, in the units of the shop.
pub(crate) fn within(kind: Kind, (low, high): (f64, f64), unit: &str, shown_in: UnitSystem) -> String {
    match (shown_in, kind.held_in()) {
        (UnitSystem::Imperial, Some(held)) => {
            let number = shown_in.show(low, held, Rounding::Up).number;
            format!("{number} to {}", shown_in.say_most(high, held))
        }
        _ => format!("{low} to {high} {unit}").trim().to_owned(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::field::{job_field, shop_field};
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
    #[case::no_such_day("hand_over.follow_up", "2027-02-29", "27 Nov, Friday, in 3 weeks or 2027-03-15")]
    #[case::a_range_beyond_its_end("part.wall", "200-600 mm", "1 to 300 mm")]
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
        assert_eq!(typed("part.loads", "none"), Ok(Some(FieldValue::Many(Vec::new()))), "nothing is carried");
        assert!(typed("prep.done", "none").is_err(), "only where it is offered");
    }

    #[test]
    fn nothing_typed_is_nothing_known() {
        assert_eq!(typed("part.wall", "  "), Ok(None));
    }

    #[test]
    fn a_day_may_be_said_as_seen_from_today() {
        let follow_up = job_field("hand_over.follow_up").unwrap();
        let today = Day::new(2026, 11, 26);
        let saying = ParseContext { shown_in: UnitSystem::Metric, today };
        let read = |text| parse_value("hand_over.follow_up", follow_up, text, saying);
        assert_eq!(read("in 3 weeks"), Ok(Some(FieldValue::Text("2026-12-17".into()))));
        assert!(typed("hand_over.follow_up", "Friday").is_err(), "nobody knows from when");
    }

    #[test]
    fn bounds_are_told_in_the_units_of_the_shop() {
        let wall = job_field("part.wall").unwrap();
        let problem = parse_value("part.wall", wall, "40 in", UnitSystem::Imperial).unwrap_err();
        assert!(
            problem.would_be_right.ends_with(" in") && !problem.would_be_right.contains("mm"),
            "{problem:?}"
        );
    }

    #[test]
    fn a_leap_day_is_a_day() {
        assert_eq!(
            typed("hand_over.follow_up", "2028-2-29"),
            Ok(Some(FieldValue::Text("2028-02-29".into())))
        );
    }
}
