//! Calendars: of one job, and of the whole shop.
//!
//! iCalendar, RFC 5545: times in UTC, the shop's zone named.

use std::borrow::Cow;

use ics::properties::{Description, DtEnd, DtStart, Summary};
use ics::{ICalendar, escape_text};
use jiff::Timestamp;
use jiff::civil::{Date, DateTime};
use jiff::tz::TimeZone;
use rocket::http::ContentType;
use rocket::serde::json::Json;
use rocket::{State, get};
use uuid::Uuid;
use vanadin_core::effort::booking::{AsksForHands, Booked, booked};
use vanadin_core::plan::{Event, FETCHED_AT_HOUR, HandsBooked, When, events, hands_booked};
use vanadin_core::shop::Shop;

use crate::api_error::{ApiError, ProblemsBody};
use crate::job::route::known;
use crate::job_service::JobService;
use crate::shop::device_units::DeviceUnits;
use crate::stores::asks;

const PRODID: &str = "-//Vanadin//EN";
const MINUTE_MS: i64 = 60_000;

/// `20260312T093000Z`
fn utc(at_ms: i64) -> Option<String> {
    let at = Timestamp::from_millisecond(at_ms).ok()?;
    Some(at.strftime("%Y%m%dT%H%M%SZ").to_string())
}

/// A minute of the wall clock of a zone, in ms since 1970.
fn of_the_wall(zone: &TimeZone, minute: i64) -> Option<i64> {
    let wall: DateTime = Timestamp::from_second(minute * 60).ok()?.to_zoned(TimeZone::UTC).datetime();
    Some(wall.to_zoned(zone.clone()).ok()?.timestamp().as_millisecond())
}

fn day(number: i64) -> Option<Date> {
    Some(Timestamp::from_second(number * 24 * 3600).ok()?.to_zoned(TimeZone::UTC).date())
}

/// Begin and end, as they are written; and whether they are days.
fn from_to(when: When, zone: &TimeZone) -> Option<(String, String, bool)> {
    const SHORT_MS: i64 = 15 * MINUTE_MS;
    let moment = |at_ms: i64, ends_ms: i64| Some((utc(at_ms)?, utc(ends_ms)?, false));
    match when {
        When::Wall(begins, ends) => moment(of_the_wall(zone, begins)?, of_the_wall(zone, ends)?),
        When::At(at_ms) => moment(at_ms, at_ms + SHORT_MS),
        When::Fetched(number) => {
            let at = day(number)?.at(FETCHED_AT_HOUR, 0, 0, 0).to_zoned(zone.clone()).ok()?;
            let at_ms = at.timestamp().as_millisecond();
            moment(at_ms, at_ms + SHORT_MS)
        }
        When::Day(number) => {
            let written = |number: i64| Some(day(number)?.strftime("%Y%m%d").to_string());
            Some((written(number)?, written(number + 1)?, true))
        }
    }
}

/// A moment by the wall clock of a zone, in min since 1970.
fn on_the_wall(zone: &TimeZone, at_ms: i64) -> Option<i64> {
    let wall = Timestamp::from_millisecond(at_ms).ok()?.to_zoned(zone.clone()).datetime();
    Some(wall.to_zoned(TimeZone::UTC).ok()?.timestamp().as_second() / 60)
}

/// When a job's events ask for hands.
fn asks_for_hands((_, events): &(Uuid, Vec<Event>)) -> AsksForHands {
    let mut asks = AsksForHands::default();
    for event in events {
        match event.when {
            When::Wall(begins, ends) => asks.sessions.push((begins, ends)),
            When::Fetched(day) => asks.wanted = Some(day),
            When::At(_) | When::Day(_) => {}
        }
    }
    asks
}

/// The name of a job: it stands before the colon of what each of its events is.
fn name_of((_, events): &(Uuid, Vec<Event>)) -> String {
    let summary = events.first().map_or("", |event| event.summary.as_str());
    summary.split_once(": ").map_or(summary, |(name, _)| name).to_owned()
}

/// The events of jobs as one pair of hands can keep them: no session while another lasts, nothing unwrapped while
/// nobody is there.
fn on_one_pair_of_hands(jobs: Vec<(Uuid, Vec<Event>)>, shop: &Shop, now_ms: i64) -> Vec<(Uuid, Vec<Event>)> {
    let zone = TimeZone::get(&shop.time_zone).unwrap_or(TimeZone::UTC);
    let week = shop.week.or_ordinary();
    let Some(now_min) = on_the_wall(&zone, now_ms) else { return jobs };
    let sessions = booked(&jobs.iter().map(asks_for_hands).collect::<Vec<_>>(), now_min, &week);
    let names: Vec<String> = jobs.iter().map(name_of).collect();
    let kept = |((job, events), sessions): ((Uuid, Vec<Event>), Vec<Booked>)| {
        let mut sessions = sessions.into_iter();
        let each = |event: Event| match event.when {
            When::Wall(begins, _) => {
                let Some(session) = sessions.next() else { return event };
                let why = match session.after {
                    Some(other) => format!(". The hands are at {} before.", names[other]),
                    None => String::new(),
                };
                // What it says of its time is no longer so.
                let said = match event.description.split_once(": ") {
                    Some((_, what)) if session.begins != begins => what.to_owned(),
                    _ => event.description,
                };
                let when = When::Wall(session.begins, session.ends);
                Event { when, description: format!("{said}{why}"), ..event }
            }
            When::At(at_ms) => there(event, at_ms, (&zone, shop)),
            When::Fetched(_) | When::Day(_) => event,
        };
        (job, events.into_iter().map(each).collect())
    };
    jobs.into_iter().zip(sessions).map(kept).collect()
}

/// What may be done from a moment on, at the next minute at which somebody is there to do it.
fn there(event: Event, at_ms: i64, (zone, shop): (&TimeZone, &Shop)) -> Event {
    let moved = || {
        let at_min = on_the_wall(zone, at_ms)?;
        let there_min = shop.week.or_ordinary().next_there(at_min);
        (there_min > at_min).then_some(of_the_wall(zone, there_min)?)
    };
    match moved() {
        Some(there_ms) => {
            let from = Timestamp::from_millisecond(at_ms).map(|at| at.to_zoned(zone.clone()));
            let since = from.map_or(String::new(), |from| from.strftime("%a %H:%M").to_string());
            let description = format!("From {since} on, while nobody is there. {}", event.description);
            Event { when: When::At(there_ms), description, ..event }
        }
        None => event,
    }
}

/// The calendar of these events, written at a moment.
fn calendar<'a>(events: impl IntoIterator<Item = &'a Event>, shop: &Shop, now_ms: i64) -> Option<String> {
    let zone = TimeZone::get(&shop.time_zone).unwrap_or(TimeZone::UTC);
    let stamp = utc(now_ms)?;
    let mut calendar = ICalendar::new("2.0", PRODID);
    calendar.push(ics::components::Property::new("X-WR-TIMEZONE", shop.time_zone.clone()));
    calendar.push(ics::components::Property::new("X-WR-CALNAME", written(&shop.name)));
    for event in events {
        // A moment that no calendar has is in none.
        let Some((from, to, days)) = from_to(event.when, &zone) else { continue };
        let mut entry = ics::Event::new(event.uid.clone(), stamp.clone());
        let (mut begins, mut ends) = (DtStart::new(from), DtEnd::new(to));
        if days {
            begins.add(ics::parameters::Value::DATE);
            ends.add(ics::parameters::Value::DATE);
        }
        entry.push(begins);
        entry.push(ends);
        entry.push(Summary::new(written(&event.summary)));
        if !event.description.is_empty() {
            entry.push(Description::new(written(&event.description)));
        }
        calendar.add_event(entry);
    }
    Some(calendar.to_string())
}

fn written(text: &str) -> Cow<'static, str> {
    escape_text(text.replace('\r', "")).to_string().into()
}

fn sent(text: Option<String>) -> Result<(ContentType, String), ApiError> {
    let calendar = ContentType::new("text", "calendar").with_params(("charset", "utf-8"));
    text.map(|text| (calendar, text)).ok_or(ApiError::Unknown("such a day"))
}

/// The calendar of a job: sessions, when it may be unwrapped and touched, when it is fetched, asked about, looked at.
#[utoipa::path(get, path = "/api/jobs/{id}/calendar.ics", operation_id = "job_calendar",
    params(("id" = Uuid, Path, description = "The job")), responses(
    (status = 200, description = "iCalendar (RFC 5545)", content_type = "text/calendar", body = String),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/calendar.ics")]
pub async fn of_a_job(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
) -> Result<(ContentType, String), ApiError> {
    let id = known(id)?;
    let seen = jobs.load_in(id, units).await?;
    let (shop, now_ms) = (&seen.shop.shop, jobs.now_ms());
    // Its sessions stand where the shop's calendar has them.
    let jobs = beside_the_others(jobs, id, events(&seen.job, &seen.plan)).await?;
    let kept = on_one_pair_of_hands(jobs, shop, now_ms);
    let own = kept.iter().filter(|it| it.0 == id).flat_map(|it| &it.1);
    sent(calendar(own, shop, now_ms))
}

/// A job's sessions beside what every other job asks of the same hands.
#[utoipa::path(get, path = "/api/jobs/{id}/booked", operation_id = "hands_booked",
    params(("id" = Uuid, Path, description = "The job")), responses(
    (status = 200, description = "When each session of the plan is booked", body = HandsBooked),
    (status = 404, description = "No such job", body = ProblemsBody)))]
#[get("/<id>/booked")]
pub async fn hands_of_a_job(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
) -> Result<Json<HandsBooked>, ApiError> {
    let id = known(id)?;
    let seen = jobs.load_in(id, units).await?;
    let shop = &seen.shop.shop;
    let zone = TimeZone::get(&shop.time_zone).unwrap_or(TimeZone::UTC);
    let Some(now_min) = on_the_wall(&zone, jobs.now_ms()) else { return Ok(Json(HandsBooked::default())) };
    let jobs = beside_the_others(jobs, id, events(&seen.job, &seen.plan)).await?;
    let all = booked(&jobs.iter().map(asks_for_hands).collect::<Vec<_>>(), now_min, &shop.week.or_ordinary());
    let own = all.last().map_or(&[][..], Vec::as_slice);
    Ok(Json(hands_booked((&seen.plan, shop), own, |at| name_of(&jobs[at]), now_min)))
}

/// What the other jobs ask for, as it was worked out last, and after them this one, as it stands.
async fn beside_the_others(
    jobs: &JobService,
    id: Uuid,
    own: Vec<Event>,
) -> Result<Vec<(Uuid, Vec<Event>)>, ApiError> {
    let mut jobs = asked_for(jobs).await?;
    jobs.retain(|it| it.0 != id);
    jobs.push((id, own));
    Ok(jobs)
}

/// What every job asks for, as it was worked out last.
async fn asked_for(jobs: &JobService) -> Result<Vec<(Uuid, Vec<Event>)>, ApiError> {
    let asks = asks(&jobs.database.pool).await?;
    Ok(asks.into_iter().map(|(job, asks)| (job, asks.events)).collect())
}

/// The calendar of the shop: every job's, as each was worked out last, on one pair of hands.
#[utoipa::path(get, path = "/api/calendar.ics", operation_id = "shop_calendar", responses(
    (status = 200, description = "iCalendar (RFC 5545)", content_type = "text/calendar", body = String)))]
#[get("/calendar.ics")]
pub async fn of_the_shop(jobs: &State<JobService>) -> Result<(ContentType, String), ApiError> {
    let shop = jobs.shop().await?;
    let now_ms = jobs.now_ms();
    let kept = on_one_pair_of_hands(asked_for(jobs).await?, &shop.shop, now_ms);
    sent(calendar(kept.iter().flat_map(|it| &it.1), &shop.shop, now_ms))
}

#[cfg(test)]
mod tests {
    use std::collections::BTreeMap;

    use rstest::rstest;

    use super::*;

    fn shop(zone: &str) -> Shop {
        Shop { time_zone: zone.to_owned(), ..Shop::of(&BTreeMap::new()) }
    }

    fn event(when: When) -> Event {
        Event {
            uid: "7-session-1@vanadin".to_owned(),
            when,
            summary: "Pump, cracked; again".to_owned(),
            description: String::new(),
        }
    }

    #[rstest]
    // Hand-worked: 2026-07-06 8:00 of the wall is minute 29721600 / ... counted from 1970: 20640 days x 1440 + 480
    #[case::summer("Europe/London", When::Wall(20_640 * 1440 + 480, 20_640 * 1440 + 600), "20260706T070000Z", "20260706T090000Z")]
    #[case::winter("Europe/London", When::Wall(20_521 * 1440 + 480, 20_521 * 1440 + 600), "20260309T080000Z", "20260309T100000Z")]
    #[case::behind("America/Chicago", When::Fetched(20_521), "20260309T220000Z", "20260309T221500Z")]
    #[case::a_moment("Europe/London", When::At(0), "19700101T000000Z", "19700101T001500Z")]
    #[case::no_such_zone("Moon/Tycho", When::Fetched(20_521), "20260309T170000Z", "20260309T171500Z")]
    fn a_time_is_written_in_utc(
        #[case] zone: &str,
        #[case] when: When,
        #[case] from: &str,
        #[case] to: &str,
    ) {
        let text = calendar(&[event(when)], &shop(zone), 0).unwrap();
        assert!(text.contains(&format!("DTSTART:{from}\r\n")), "{text}");
        assert!(text.contains(&format!("DTEND:{to}\r\n")), "{text}");
        assert!(text.contains(&format!("X-WR-TIMEZONE:{zone}")), "{text}");
    }

    #[test]
    fn two_jobs_have_one_pair_of_hands_and_nothing_is_unwrapped_at_night() {
        // Monday the 9th of March 2026 by the wall; nobody is there on it before eight.
        let monday = 20_521 * 1440;
        let session = |name: &str| Event {
            summary: format!("{name}: nickel stick, cold"),
            description: "Mon 9 Mar, 8:00: beads 1 to 9, 3 h".to_owned(),
            ..event(When::Wall(monday + 480, monday + 660))
        };
        let unwrap = Event {
            summary: "Pump: may be unwrapped".to_owned(),
            description: "By the model.".to_owned(),
            // 3:00 of the same night in London.
            ..event(When::At((monday + 180) * MINUTE_MS))
        };
        let jobs = vec![
            (Uuid::from_u128(1), vec![session("Gate")]),
            (Uuid::from_u128(2), vec![session("Lever"), unwrap]),
        ];
        let kept = on_one_pair_of_hands(jobs, &shop("Europe/London"), monday * MINUTE_MS);
        let (gate, lever, unwrap) = (&kept[0].1[0], &kept[1].1[0], &kept[1].1[1]);
        assert_eq!(
            (gate.when, gate.description.as_str()),
            (When::Wall(monday + 480, monday + 660), "Mon 9 Mar, 8:00: beads 1 to 9, 3 h")
        );
        // Three hours from eleven on, as this shop has it to five.
        assert_eq!(lever.when, When::Wall(monday + 660, monday + 840));
        assert_eq!(lever.description, "beads 1 to 9, 3 h. The hands are at Gate before.");
        assert_eq!(unwrap.when, When::At((monday + 480) * MINUTE_MS));
        assert_eq!(unwrap.description, "From Mon 03:00 on, while nobody is there. By the model.");
    }

    #[test]
    fn a_day_is_a_day_and_text_is_escaped() {
        let text = calendar(&[event(When::Day(20_521))], &shop("Europe/London"), 0).unwrap();
        assert!(text.contains("DTSTART;VALUE=DATE:20260309\r\n"), "{text}");
        assert!(text.contains("DTEND;VALUE=DATE:20260310\r\n"), "{text}");
        assert!(text.contains("SUMMARY:Pump\\, cracked\\; again\r\n"), "{text}");
        assert!(text.contains("UID:7-session-1@vanadin\r\n"), "{text}");
        assert!(text.starts_with("BEGIN:VCALENDAR\r\n") && text.ends_with("END:VCALENDAR\r\n"), "{text}");
    }
}
