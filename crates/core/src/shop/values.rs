//! What the settings say together.

use std::collections::BTreeMap;

use crate::effort::durations::WorkingWeek;
use crate::field::{FieldState, FieldValue, choices, get, shop, store};
use crate::quantity::{UnitSystem, parse_drills};
use crate::shelf::StoreKind;
use crate::stores::id_of_a_list;

/// The set as it was understood when it was typed: inches mean the units it was typed in then.
pub(super) fn drills_mm(values: &BTreeMap<String, FieldState>) -> Vec<f64> {
    let units = match get(values, shop::UNITS) {
        Some("imperial") => UnitSystem::Imperial,
        _ => UnitSystem::Metric,
    };
    let typed = get(values, shop::DRILLS).unwrap_or_default();
    parse_drills(shop::DRILLS.key(), typed, units).unwrap_or_default()
}

pub(super) fn week(values: &BTreeMap<String, FieldState>) -> WorkingWeek {
    let usual = WorkingWeek::default();
    let mut days = usual.days;
    if let Some(said) = get(values, shop::WORK_DAYS) {
        for (day, (id, _)) in days.iter_mut().zip(choices::DAYS) {
            *day = said.iter().any(|known| known == id);
        }
    }
    let minute = |said: Option<f64>, usual: i64| said.map_or(usual, |minutes| minutes as i64);
    WorkingWeek {
        days,
        from_min: minute(get(values, shop::DAY_FROM), usual.from_min),
        to_min: minute(get(values, shop::DAY_TO), usual.to_min),
    }
    .or_ordinary()
}

/// What is preferred where practice differs.
pub(super) fn taught(values: &BTreeMap<String, FieldState>) -> BTreeMap<String, String> {
    let of = |(key, held): (&String, &FieldState)| match &held.value {
        Some(FieldValue::One(id)) if key.starts_with("shop_taught.") => Some((key.clone(), id.clone())),
        _ => None,
    };
    values.iter().filter_map(of).collect()
}

/// A thing of a list of before was taken off its shelf.
pub(super) fn gone(values: &BTreeMap<String, FieldState>, kind: &str) -> bool {
    let key = store::WHAT.of(id_of_a_list(kind)).key();
    values.get(&key).is_some_and(|held| held.value.is_none())
}

/// What a list named and is not known to be gone, with what lies there beside it.
pub(super) fn still_there(list: Vec<String>, there: &[String]) -> Vec<String> {
    let a_thing = |id: &String| StoreKind::from_id(id).is_some();
    let mut left: Vec<String> = list.into_iter().filter(|id| !a_thing(id) || there.contains(id)).collect();
    left.extend(there.iter().filter(|id| !left.contains(id)).cloned().collect::<Vec<_>>());
    left
}
