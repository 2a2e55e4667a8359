//! Every figure of every sample job, in both systems: what a person can set, buy or know, with its unit.

use crate::common::{Server, json_of};
use rocket::http::{Cookie, Status};
use rstest::rstest;
use serde_json::{Value, json};

/// Every figure of an answer as it is shown, frozen ones apart: those are as they were said then.
fn figures<'a>(value: &'a Value, found: &mut Vec<&'a Value>) {
    match value {
        Value::Object(fields) => {
            if fields.contains_key("certainty") && fields.contains_key("shown") {
                found.push(value);
            }
            fields.iter().filter(|(key, _)| *key != "frozen").for_each(|(_, value)| figures(value, found));
        }
        Value::Array(list) => list.iter().for_each(|value| figures(value, found)),
        Value::Null | Value::Bool(_) | Value::Number(_) | Value::String(_) => {}
    }
}

/// "3", "3/8", "1 3/8": a line of a rule or a tape.
fn on_a_rule(inches: &str) -> bool {
    let (whole, fraction) =
        inches.split_once(' ').unwrap_or(if inches.contains('/') { ("0", inches) } else { (inches, "0/1") });
    let Some((top, bottom)) = fraction.split_once('/') else { return false };
    let (top, bottom) = (top.parse::<u32>(), bottom.parse::<u32>());
    whole.parse::<u32>().is_ok()
        && matches!((top, bottom), (Ok(t), Ok(b)) if t < b && b <= 64 && b.is_power_of_two())
}

fn is_multiple(number: f64, of: f64) -> bool {
    (number / of - (number / of).round()).abs() < 1e-6
}

/// What is wrong with a number of this unit; nothing where it can be set, bought or known.
fn wrong(unit: &str, imperial: bool, number: &str, shown_unit: &str, exact: bool) -> Option<&'static str> {
    let number = number.strip_prefix("about ").unwrap_or(number);
    if ["over 99", "under 1"].contains(&number) {
        return None;
    }
    if let Some((low, high)) = number.split_once(" to ") {
        let narrow = high.parse::<f64>().ok()? - low.parse::<f64>().ok()? < 10.0;
        let one = |number| wrong(unit, imperial, number, shown_unit, exact || narrow);
        return one(low).or_else(|| one(high));
    }
    if shown_unit.is_empty() && !["count", "minutes"].contains(&unit) {
        return Some("it has no unit");
    }
    let value = number.parse::<f64>();
    match (unit, imperial) {
        ("millimetres" | "drill", true) => match value {
            _ if on_a_rule(number) => None,
            // A thousandth is for what no rule shows, or no drill of the index is.
            Ok(inches) if inches < 1.0 / 64.0 || unit == "drill" => None,
            _ => Some("no rule shows it"),
        },
        ("millimetres", false) => {
            let mm = value.ok()?;
            let step = if mm < 10.0 {
                0.1
            } else if mm < 100.0 {
                0.5
            } else {
                1.0
            };
            (mm >= 1.0 && !is_multiple(mm, step)).then_some("no rule shows it")
        }
        ("drill", false) => {
            let bought = [3.2, 4.0, 4.8, 5.0, 5.5, 6.0, 6.4, 6.8, 8.0, 8.5, 9.5, 10.0, 10.2, 12.0];
            (!bought.contains(&value.ok()?)).then_some("no such drill is bought")
        }
        ("celsius", _) if exact => None,
        ("celsius", _) => {
            (!is_multiple(value.ok()?, if imperial { 10.0 } else { 5.0 })).then_some("nobody can set it")
        }
        ("percent" | "count" | "points" | "rpm", _) => {
            (!is_multiple(value.ok()?, 1.0)).then_some("it is no whole number")
        }
        ("minutes", _) => {
            let minutes = match number.split_once(" h ") {
                Some((hours, minutes)) => hours.parse::<f64>().ok()? * 60.0 + minutes.parse::<f64>().ok()?,
                None => value.ok()?,
            };
            let step = if minutes < 20.0 {
                1.0
            } else if minutes < 180.0 {
                5.0
            } else {
                15.0
            };
            (!is_multiple(minutes, step)).then_some("finer than anybody knows")
        }
        _ => None,
    }
}

#[rstest]
#[case::a_tape("9 7/16", true)]
#[case::an_inch("3", true)]
#[case::a_fraction("3/8", true)]
#[case::decimals("3.94", false)]
#[case::no_power_of_two("1/3", false)]
#[case::more_than_one("9/8", false)]
fn a_rule_is_read_in_fractions(#[case] inches: &str, #[case] reads: bool) {
    assert_eq!(on_a_rule(inches), reads);
}

#[rstest]
#[case::a_pilot_nobody_has("drill", false, "7.12", "mm", true)]
#[case::a_pilot("drill", false, "6.4", "mm", false)]
#[case::too_fine("celsius", false, "312", "°C", true)]
#[case::a_window("celsius", true, "620 to 840", "°F", false)]
#[case::a_narrow_window("celsius", true, "347 to 356", "°F", false)]
#[case::to_the_minute("minutes", false, "13 h 57", "", true)]
#[case::without_a_unit("money", false, "5995", "", true)]
fn the_ruler_finds_what_nobody_can_set(
    #[case] unit: &str,
    #[case] imperial: bool,
    #[case] number: &str,
    #[case] shown: &str,
    #[case] finds: bool,
) {
    assert_eq!(wrong(unit, imperial, number, shown, false).is_some(), finds);
}

/// A view in the units of a device.
async fn view_in(server: &Server, units: &'static str, path: String) -> Value {
    let asked = server.client.get(path).cookie(Cookie::new("vanadin-units", units));
    json_of(asked.dispatch().await).await.unwrap()
}

#[rocket::async_test]
async fn every_figure_can_be_set_bought_or_known() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack").await;
    let mut count = 0;
    let mut bad = Vec::new();
    for line in rack["lines"].as_array().unwrap() {
        let job = format!("/api/jobs/{}", line["id"].as_str().unwrap());
        let as_if = ["gray", "ductile", "malleable", "steel"].map(|iron| format!("{job}/as-if/{iron}"));
        for path in as_if.into_iter().chain([job]) {
            for (units, imperial) in [("metric", false), ("imperial", true)] {
                let view = view_in(&server, units, path.clone()).await;
                let mut found = Vec::new();
                figures(&view, &mut found);
                count += found.len();
                for figure in found {
                    let [number, shown] = ["number", "unit"].map(|it| figure["shown"][it].as_str().unwrap());
                    // As it was read, and what was weighed, stay as they are.
                    let exact = figure["certainty"] == json!("measured");
                    let unit = figure["unit"].as_str().unwrap();
                    if let Some(why) = wrong(unit, imperial, number, shown, exact) {
                        bad.push(format!("{} {number} {shown}: {why}", figure["name"]));
                    }
                }
            }
        }
    }
    assert!(count > 1_000, "{count} figures");
    bad.sort();
    bad.dedup();
    assert!(bad.is_empty(), "{}", bad.join("\n"));
}

#[rocket::async_test]
async fn a_wide_spread_is_told() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack").await;
    let (mut wide, mut bad) = (0, Vec::new());
    for line in rack["lines"].as_array().unwrap() {
        let job = format!("/api/jobs/{}", line["id"].as_str().unwrap());
        let (_, view) = server.get(&job).await;
        for seen in view["plan"]["figures"].as_array().unwrap() {
            let id = seen["id"].as_str().unwrap();
            let (status, figure) = server.get(&format!("{job}/figures/{id}")).await;
            assert_eq!(status, Status::Ok, "{id}");
            let number = figure["metric"]["number"].as_str().unwrap();
            let [low, high, value] = ["low", "high", "value"].map(|it| figure[it].as_f64());
            if let (Some(low), Some(high), Some(value)) = (low, high, value)
                && !number.contains(" to ")
                && high - low > 0.25 * value.abs()
            {
                wide += 1;
                if number.starts_with(|c: char| c.is_ascii_digit()) {
                    bad.push(format!("{} {number} is not said to be about", figure["name"]));
                }
            }
        }
    }
    assert!(wide > 10, "{wide} wide spreads");
    assert!(bad.is_empty(), "{}", bad.join("\n"));
}
