//! The shop's log in the database.

use sqlx::sqlite::SqliteRow;
use sqlx::{Row, SqliteConnection, SqlitePool};
use uuid::Uuid;
use vanadin_core::base::day::Day;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::field;
use vanadin_core::job::Job;
use vanadin_core::plan::{FETCHED_AT_HOUR, Moment};
use vanadin_core::shop::{Shop, ShopFact, ShopWord};

use crate::api_error::ApiError;

/// Everything that was said of the shop, the first first.
pub async fn facts(pool: &SqlitePool) -> Result<Vec<ShopFact>, sqlx::Error> {
    let rows = sqlx::query(
        "select id, revision, at_client_ms, at_server_ms, who, sender, change, understood from shop_fact \
         order by revision",
    )
    .fetch_all(pool)
    .await?;
    Ok(rows.iter().enumerate().map(|(at, row)| fact(at, row)).collect())
}

/// A word that cannot be read changes nothing, and is kept as it is stored.
fn fact(at: usize, row: &SqliteRow) -> ShopFact {
    let words = |at: usize| row.try_get::<String, _>(at);
    let bytes = |at: usize| row.try_get_unchecked::<Vec<u8>, _>(at).unwrap_or_default();
    let number = |at: usize| row.try_get::<i64, _>(at).unwrap_or(0);
    let revision = row.try_get::<i64, _>(1).map_or(at as u64 + 1, i64::unsigned_abs);
    let id = words(0).ok().and_then(|id| id.parse().ok());
    let change = words(6).ok().and_then(|text| serde_json::from_str(&text).ok());
    // What was understood and cannot be read is understood anew.
    let understood = words(7).ok().and_then(|text| serde_json::from_str(&text).ok());
    let unreadable =
        || ShopWord::Unreadable { text: String::from_utf8_lossy(&bytes(6)).chars().take(2_000).collect() };
    ShopFact {
        revision,
        at_client_ms: number(2),
        at_server_ms: number(3),
        who: words(4).unwrap_or_default(),
        sender: words(5).unwrap_or_default(),
        change: match (id, change) {
            (Some(_), Some(change)) => change,
            _ => unreadable(),
        },
        // Its place in the log names it where its own name cannot be read.
        id: id.unwrap_or_else(|| Uuid::from_u128(u128::from(revision))),
        understood,
    }
}

/// When a part that is wanted on `day`, `YYYY-MM-DD`, is fetched: at its hour of that day in the shop's
/// own zone, whatever the zone's clocks do until then. A zone that is not known here is taken as UTC.
pub fn fetched_at_ms(shop: &Shop, day: &str) -> Option<i64> {
    let day: jiff::civil::Date = day.parse().ok()?;
    let zone = jiff::tz::TimeZone::get(&shop.time_zone).unwrap_or(jiff::tz::TimeZone::UTC);
    let fetched = day.at(FETCHED_AT_HOUR, 0, 0, 0).to_zoned(zone).ok()?;
    Some(fetched.timestamp().as_millisecond())
}

/// A moment, in ms since 1970, as the shop's clock on the wall: minutes since 1970 in its own zone.
fn on_the_wall_min(shop: &Shop, at_ms: i64) -> Option<i64> {
    let zone = jiff::tz::TimeZone::get(&shop.time_zone).unwrap_or(jiff::tz::TimeZone::UTC);
    let at = jiff::Timestamp::from_millisecond(at_ms).ok()?;
    Some((at.as_second() + i64::from(zone.to_offset(at).seconds())).div_euclid(60))
}

/// What a plan has to know of the time: the hour that has begun, and when the part is fetched.
pub fn moment(shop: &Shop, job: &Job, now_ms: i64) -> Option<Moment> {
    let fetched = job.round().get(field::part::WANTED).and_then(|day| fetched_at_ms(shop, day));
    Some(Moment {
        now_min: on_the_wall_min(shop, began_ms(now_ms))?,
        wanted_min: fetched.and_then(|fetched_ms| on_the_wall_min(shop, fetched_ms)),
    })
}

/// So long a plan stands.
pub const STANDS_MS: i64 = 15 * 60_000;

/// The moment that a plan is made for: it stands for a quarter of an hour, so that it is not worked out at each look.
pub fn began_ms(now_ms: i64) -> i64 {
    now_ms.div_euclid(STANDS_MS) * STANDS_MS
}

/// The day it is in the shop at a moment, in ms since 1970. A zone that is not known here is taken as UTC.
pub fn today_in(shop: &Shop, at_ms: i64) -> Option<Day> {
    let zone = jiff::tz::TimeZone::get(&shop.time_zone).unwrap_or(jiff::tz::TimeZone::UTC);
    let day = jiff::Timestamp::from_millisecond(at_ms).ok()?.to_zoned(zone).date();
    Day::new(day.year().into(), u32::try_from(day.month()).ok()?, u32::try_from(day.day()).ok()?)
}

/// A time zone that the computer does not know is none.
pub fn known_zone(word: &ShopWord) -> Result<(), ApiError> {
    match word {
        ShopWord::Set { key, typed, .. }
            if key == field::shop::TIME_ZONE.key()
                && !typed.trim().is_empty()
                && jiff::tz::TimeZone::get(typed.trim()).is_err() =>
        {
            let message = format!("\"{typed}\" is not a time zone");
            Err(vec![FieldProblem::new(key, message, "Europe/London or America/Chicago")].into())
        }
        _ => Ok(()),
    }
}

/// Stores a word.
pub async fn add(on: &mut SqliteConnection, fact: &ShopFact) -> Result<(), ApiError> {
    let json = |error: serde_json::Error| anyhow::Error::from(error);
    let understood = fact.understood.as_ref().map(serde_json::to_string).transpose().map_err(json)?;
    sqlx::query(
        "insert into shop_fact (id, revision, at_client_ms, at_server_ms, who, sender, change, understood) \
         values (?, ?, ?, ?, ?, ?, ?, ?)",
    )
    .bind(fact.id.to_string())
    .bind(fact.revision.cast_signed())
    .bind(fact.at_client_ms)
    .bind(fact.at_server_ms)
    .bind(&fact.who)
    .bind(&fact.sender)
    .bind(serde_json::to_string(&fact.change).map_err(json)?)
    .bind(understood)
    .execute(on)
    .await?;
    Ok(())
}

#[cfg(test)]
mod tests {
    use std::collections::BTreeMap;

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
