//! What is typed into a field, understood within its bounds.

use super::choices::NONE;
use super::{Choice, FieldKind, FieldSpec, FieldValue, shop};
use crate::problem::FieldProblem;
use crate::quantity::{Kind, NotUnderstood, UnitSystem, parse};

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
            if key == shop::TIME_ZONE.key() && !typed.contains('/') && typed != "UTC" {
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
