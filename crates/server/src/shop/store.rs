//! The shop's settings in the database.

use std::collections::BTreeMap;

use sqlx::{Row, SqliteConnection, SqlitePool};
use vanadin_core::field::{Held, parse_value, shop_field};
use vanadin_core::plan::FETCHED_AT_HOUR;
use vanadin_core::problem::FieldProblem;
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::Shop;

use crate::api_error::ApiError;

/// The settings as typed and understood, by key.
pub async fn values(pool: &SqlitePool) -> Result<BTreeMap<String, Held>, sqlx::Error> {
    let rows = sqlx::query("select key, typed, shown_in, revision from shop_value").fetch_all(pool).await?;
    Ok(rows
        .iter()
        .filter_map(|row| {
            let (key, typed, shown_in): (String, String, String) = (row.get(0), row.get(1), row.get(2));
            let shown_in = if shown_in == "imperial" { UnitSystem::Imperial } else { UnitSystem::Metric };
            let (value, not_understood) = match parse_value(&key, shop_field(&key)?, &typed, shown_in) {
                Ok(value) => (value, String::new()),
                Err(problem) => (None, problem.message),
            };
            let revision = row.get::<i64, _>(3).unsigned_abs();
            Some((key, Held { typed, value, revision, not_understood }))
        })
        .collect())
}

/// When a part that is wanted on `day`, `YYYY-MM-DD`, is fetched: at its hour of that day in the shop's
/// own zone, whatever the zone's clocks do until then. A zone that is not known here is taken as UTC.
pub fn fetched_at_ms(shop: &Shop, day: &str) -> Option<i64> {
    let day: jiff::civil::Date = day.parse().ok()?;
    let zone = jiff::tz::TimeZone::get(&shop.time_zone).unwrap_or(jiff::tz::TimeZone::UTC);
    let fetched = day.at(FETCHED_AT_HOUR, 0, 0, 0).to_zoned(zone).ok()?;
    Some(fetched.timestamp().as_millisecond())
}

/// The revision of all settings together.
pub fn revision_of(values: &BTreeMap<String, Held>) -> u64 {
    values.values().map(|held| held.revision).sum()
}

/// Stores a setting if it can be understood.
pub async fn set(
    on: &mut SqliteConnection,
    key: &str,
    typed: &str,
    shown_in: UnitSystem,
    revision: u64,
) -> Result<(), ApiError> {
    let spec = shop_field(key).ok_or_else(|| vec![FieldProblem::new(key, "there is no such setting", "")])?;
    parse_value(key, spec, typed, shown_in).map_err(|problem| vec![problem])?;
    if key == "shop.time_zone" && !typed.trim().is_empty() && jiff::tz::TimeZone::get(typed.trim()).is_err() {
        let message = format!("\"{typed}\" is not a time zone");
        return Err(vec![FieldProblem::new(key, message, "Europe/London or America/Chicago")].into());
    }
    sqlx::query(
        "insert into shop_value (key, typed, shown_in, revision) values (?, ?, ?, ?) \
         on conflict (key) do update set typed = excluded.typed, shown_in = excluded.shown_in, \
         revision = excluded.revision",
    )
    .bind(key)
    .bind(typed.trim())
    .bind(match shown_in {
        UnitSystem::Metric => "metric",
        UnitSystem::Imperial => "imperial",
    })
    .bind(revision.cast_signed())
    .execute(on)
    .await?;
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    // Hand-worked: 17:00 in London is 17:00 UTC in winter, 16:00 from the last Sunday of March on; in
    // Chicago 23:00, from the second Sunday of March on 22:00
    #[case::winter("Europe/London", "2026-03-28", "2026-03-28T17:00:00Z")]
    #[case::the_day_the_clocks_change("Europe/London", "2026-03-29", "2026-03-29T16:00:00Z")]
    #[case::back_again("Europe/London", "2026-10-25", "2026-10-25T17:00:00Z")]
    #[case::behind("America/Chicago", "2026-03-07", "2026-03-07T23:00:00Z")]
    #[case::behind_in_summer("America/Chicago", "2026-03-08", "2026-03-08T22:00:00Z")]
    #[case::no_such_zone("Moon/Tycho", "2026-03-08", "2026-03-08T17:00:00Z")]
    fn a_part_is_fetched_at_five_of_the_shops_own_day(
        #[case] zone: &str,
        #[case] day: &str,
        #[case] expected: &str,
    ) {
        let shop = Shop { time_zone: zone.to_owned(), ..Shop::of(&BTreeMap::new()) };
        let expected: jiff::Timestamp = expected.parse().unwrap();
        assert_eq!(fetched_at_ms(&shop, day), Some(expected.as_millisecond()));
    }
}
