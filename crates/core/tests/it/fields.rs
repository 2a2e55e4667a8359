//! Every field of a job and of the shop, at its limits and beyond them.

use std::collections::HashSet;

use uuid::Uuid;
use vanadin_core::field::{
    CRACK_FIELDS, FieldKind, FieldSpec, JOB_FIELDS, NEIGHBOUR_FIELDS, PICTURE_FIELDS, SHOP_FIELDS, crack_key,
    job_field, neighbour_key, parse_value, picture_key, shop_field,
};
use vanadin_core::job::{Change, Lighting, could_be_said};
use vanadin_core::quantity::{Kind, UnitSystem};

fn all() -> impl Iterator<Item = &'static FieldSpec> {
    JOB_FIELDS.iter().chain(CRACK_FIELDS).chain(NEIGHBOUR_FIELDS).chain(PICTURE_FIELDS).chain(SHOP_FIELDS)
}

fn accepted(spec: &FieldSpec, typed: &str) -> bool {
    parse_value(spec.key, spec, typed, UnitSystem::Metric).is_ok()
}

#[test]
fn a_quantity_is_taken_at_its_limits_and_refused_beyond_them() {
    let mut looked_at = 0;
    for spec in all() {
        let FieldKind::Quantity { kind, low, high, .. } = spec.kind else { continue };
        // A bare number of these is hours.
        let unit = if kind == Kind::Hours { " min" } else { "" };
        let step = (high - low) * 1e-6;
        for (value, fits) in [(low, true), (high, true), (low - step, false), (high + step, false)] {
            assert_eq!(accepted(spec, &format!("{value}{unit}")), fits, "{}: {value}", spec.key);
        }
        for nonsense in ["NaN", "inf", "-inf", "1e400", "x", "1 2 3", "--4", "."] {
            assert!(!accepted(spec, nonsense), "{}: {nonsense}", spec.key);
        }
        looked_at += 1;
    }
    assert!(looked_at > 15, "{looked_at}");
}

#[test]
fn a_choice_is_taken_by_its_id_alone() {
    for spec in all() {
        if let FieldKind::One(choices) = spec.kind {
            for (id, label) in choices {
                assert!(accepted(spec, id), "{}: {id}", spec.key);
                assert!(!label.is_empty());
            }
            let ids: HashSet<&str> = choices.iter().map(|(id, _)| *id).collect();
            assert_eq!(ids.len(), choices.len(), "{}: an id stands twice", spec.key);
            assert!(!accepted(spec, "none of them"), "{}", spec.key);
        }
    }
}

#[test]
fn a_refusal_says_where_and_what_would_do() {
    for spec in all() {
        let wrong = match spec.kind {
            FieldKind::Text { most } => "x".repeat(most + 1),
            FieldKind::One(_) | FieldKind::Many(_) | FieldKind::Quantity { .. } => "nonsense".to_owned(),
            FieldKind::YesNo => "perhaps".to_owned(),
            FieldKind::Date => "2027-02-30".to_owned(),
        };
        let problem = parse_value(spec.key, spec, &wrong, UnitSystem::Metric).unwrap_err();
        assert_eq!(problem.field, spec.key);
        assert!(!problem.message.is_empty() && !problem.would_be_right.is_empty(), "{problem:?}");
    }
}

#[test]
fn nothing_typed_makes_any_field_unknown() {
    for spec in all() {
        assert_eq!(parse_value(spec.key, spec, " ", UnitSystem::Imperial), Ok(None), "{}", spec.key);
    }
}

#[test]
fn fields_are_found_by_their_key_and_by_no_other() {
    for spec in JOB_FIELDS {
        assert_eq!(job_field(spec.key).map(|found| found.key), Some(spec.key));
        assert!(shop_field(spec.key).is_none());
    }
    for spec in SHOP_FIELDS {
        assert_eq!(shop_field(spec.key).map(|found| found.key), Some(spec.key));
        assert!(job_field(spec.key).is_none());
    }
    for spec in CRACK_FIELDS {
        assert!(job_field(&crack_key(Uuid::max(), spec.key)).is_some());
    }
    for spec in NEIGHBOUR_FIELDS {
        assert!(job_field(&neighbour_key(Uuid::max(), spec.key)).is_some());
    }
    for spec in PICTURE_FIELDS {
        assert!(job_field(&picture_key(Uuid::max(), spec.key)).is_some());
    }
    for key in ["", "part", "part.", "crack.length", "crack.x.length", "crack.", "shop.units.x"] {
        assert!(job_field(key).is_none(), "{key}");
    }
    let keys: HashSet<&str> = all().map(|spec| spec.key).collect();
    assert_eq!(keys.len(), all().count(), "a key stands twice");
}

#[test]
fn imperial_limits_are_those_of_the_quantity_not_of_the_number() {
    let wall = job_field("part.wall").unwrap();
    let typed = |text: &str| parse_value("part.wall", wall, text, UnitSystem::Imperial);
    // Hand-worked: 300 mm are 11.81 in
    assert!(typed("11.8").is_ok() && typed("11.9").is_err());
    assert!(typed("299 mm").is_ok() && typed("12").is_err());
}

#[test]
fn a_file_may_only_say_what_a_person_could() {
    let set = |key: &str, typed: &str| Change::Set {
        key: key.into(),
        typed: typed.into(),
        shown_in: UnitSystem::Metric,
    };
    assert!(could_be_said(&set("part.wall", "3/8")).is_ok());
    assert!(could_be_said(&set("part.wall", "900")).is_err());
    assert!(could_be_said(&set("shop.units", "metric")).is_err(), "the shop is not the job's");
    assert!(
        could_be_said(&Change::Light {
            speed: 61.0,
            frozen: None,
            owned: String::new(),
            what: Lighting::Main,
            without: Vec::new()
        })
        .is_err()
    );
    assert!(
        could_be_said(&Change::Light {
            speed: f64::NAN,
            frozen: None,
            owned: String::new(),
            what: Lighting::Main,
            without: Vec::new()
        })
        .is_err()
    );
    assert!(could_be_said(&Change::NewRound { reason: String::new() }).is_ok());
}
