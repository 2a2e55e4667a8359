//! The shop's settings, and what they change in the plans.

use crate::common::Server;
use rocket::http::Status;
use rstest::rstest;
use serde_json::{Value, json};
use vanadin_core::stores::id_of_a_list;

async fn change(server: &Server, key: &str, typed: &str, base: Value) -> (Status, Value) {
    let set = json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" });
    let body = json!({ "change": set, "base": base });
    server.post("/api/shop", &body).await
}

#[rocket::async_test]
async fn gear_that_is_taken_away_changes_what_can_be_done() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack?find=brewery").await;
    let job = rack["lines"][0]["id"].as_str().unwrap().to_owned();
    let score = async |id: &str| -> f64 {
        let (_, way) = server.get(&format!("/api/jobs/{job}/ways/{id}")).await;
        way["score"].as_f64().unwrap()
    };
    let before = score("torch_braze").await;
    // The bundle of bronze is taken off its shelf.
    let bronze = id_of_a_list("bronze");
    let (status, _) = change(&server, &format!("store.{bronze}.what"), "", Value::Null).await;
    assert_eq!(status, Status::Ok);
    // Published: the trade reference, "Scoring": a caution costs 10
    assert!((score("torch_braze").await - (before - 10.0)).abs() < 1e-4);
}

#[rstest]
#[case::no_such_setting("shop.colour", "red")]
#[case::no_such_source("shop.sources", "weed_burner,dragon")]
#[case::no_such_zone("shop.time_zone", "Atlantis/Centre")]
#[case::too_cold("shop.ambient", "-60 C")]
#[test_attr(rocket::async_test)]
async fn a_setting_that_cannot_be_is_told_at_its_field(#[case] key: &str, #[case] typed: &str) {
    let server = Server::empty().await;
    let (_, before) = server.get("/api/shop").await;
    let (status, answer) = change(&server, key, typed, Value::Null).await;
    assert_eq!((status, answer["problems"][0]["field"].as_str()), (Status::UnprocessableEntity, Some(key)));
    assert_eq!(server.get("/api/shop").await.1, before);
}

#[rocket::async_test]
async fn two_tabs_on_one_setting_overwrite_nothing() {
    let server = Server::empty().await;
    change(&server, "shop.ambient", "18 C", json!(0)).await;
    let (status, answer) = change(&server, "shop.ambient", "5 C", json!(0)).await;
    assert_eq!(status, Status::Conflict);
    assert!(answer["problems"][0]["message"].as_str().unwrap().contains("18 C"), "{answer}");
}

#[rocket::async_test]
async fn a_setting_is_taken_back_by_whoever_said_it() {
    let server = Server::empty().await;
    let say = async |sender: &str, change: Value| {
        server.post("/api/shop", &json!({ "sender": sender, "change": change })).await
    };
    let name =
        |typed: &str| json!({ "kind": "set", "key": "shop.name", "typed": typed, "shown_in": "metric" });
    say("laptop", name("Lockside")).await;
    let (_, view) = say("laptop", name("Lockside Iron Mending")).await;
    let target = view["own_words"][0]["undo"].clone();
    let (status, answer) = say("phone", json!({ "kind": "undo", "target": target })).await;
    assert_eq!(
        (status, answer["problems"][0]["field"].as_str()),
        (Status::UnprocessableEntity, Some("shop"))
    );
    let (_, view) = say("laptop", json!({ "kind": "undo", "target": target })).await;
    assert_eq!((&view["shop"]["name"], &view["own_words"][0]["redo"]), (&json!("Lockside"), &target));
    // It is so after a start as well.
    let server = server.again().await;
    assert_eq!(server.get("/api/shop").await.1["shop"]["name"], "Lockside");
}

#[rocket::async_test]
async fn a_word_that_is_sent_twice_is_stored_once() {
    let server = Server::empty().await;
    let set = json!({ "kind": "set", "key": "shop.ambient", "typed": "5 C", "shown_in": "metric" });
    let body = json!({ "id": uuid::Uuid::new_v4(), "change": set });
    let (_, first) = server.post("/api/shop", &body).await;
    let (status, second) = server.post("/api/shop", &body).await;
    assert_eq!((status, &second["revision"]), (Status::Ok, &first["revision"]));
}

#[rocket::async_test]
async fn imperial_sentences_speak_in_inches_and_fahrenheit() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    change(&server, "shop.units", "imperial", Value::Null).await;
    let (_, rack) = server.get("/api/rack?find=brewery").await;
    let job = format!("/api/jobs/{}", rack["lines"][0]["id"].as_str().unwrap());
    let (_, view) = server.get(&job).await;
    let contenders = view["plan"]["methods"]["contenders"].as_array().unwrap();
    let mut opened = Vec::new();
    for contender in contenders {
        let method = contender["way"]["method"].as_str().unwrap();
        opened.push(server.get(&format!("{job}/ways/{method}")).await.1);
    }
    // The working stays in SI; what is said to the welder does not.
    let of_opened =
        opened.iter().flat_map(|way| ["favours", "cautions", "schools"].map(|field| way[field].to_string()));
    let sentences: String = contenders
        .iter()
        .flat_map(|c| ["heat_words", "reasons"].map(|field| c[field].to_string()))
        .chain(of_opened)
        .chain(["sentence", "least_words", "most_words"].map(|field| view["plan"]["heat"][field].to_string()))
        .collect();
    assert!(sentences.contains("°F") && !sentences.contains("°C"), "{sentences}");
    // Hand-worked: 0.31 x 0.085 x 0.06 m x 0.75 x 7150 = 8.48 kg, 18.7 lb
    assert_eq!(rack["lines"][0]["mass"], "about 18.7 lb");
    let iron = &view["plan"]["iron"];
    let part = &view["plan"]["part"];
    let said = [&iron["meaning"], &iron["demands"], &iron["found"], &part["guesses"], &part["cautions"]]
        .map(Value::to_string)
        .join(" ");
    for metric in ["°C", " mm", " kg", "MPa", "m/min"] {
        assert!(!said.contains(metric), "{metric} in {said}");
    }
}

/// What is a number with a unit of one system, in what was typed, worked out in SI, kept from before, or
/// carried in both.
const BOTH: [&str; 10] = [
    "metric",
    "imperial",
    "unit_metric",
    "unit_imperial",
    "between_metric",
    "between_imperial",
    "typed",
    "frozen",
    "text",
    "id",
];

/// Every text of an answer under what may speak either system.
fn texts(value: &Value, place: &str, found: &mut Vec<(String, String)>) {
    match value {
        Value::Object(fields) => {
            for (key, value) in fields.iter().filter(|(key, _)| !BOTH.contains(&key.as_str())) {
                texts(value, &format!("{place}/{key}"), found);
            }
        }
        Value::Array(list) => list.iter().for_each(|value| texts(value, place, found)),
        Value::String(text) => found.push((place.to_owned(), text.clone())),
        Value::Null | Value::Bool(_) | Value::Number(_) => {}
    }
}

/// A number followed by one of these.
fn speaks(text: &str, units: &[&str]) -> bool {
    let words: Vec<&str> = text.split(|c: char| c.is_whitespace() || "(),;:".contains(c)).collect();
    words.windows(2).any(|two| {
        let number = two[0].trim_end_matches('.').ends_with(|c: char| c.is_ascii_digit());
        number && units.contains(&two[1].trim_end_matches(['.', '?', '!']))
    })
}

#[rstest]
#[case::imperial("imperial", &["°C", "mm", "cm", "cm³", "kg", "g", "MPa", "K", "K/h", "bar", "kg/m³", "kW", "kJ"])]
#[case::metric("metric", &["°F", "in", "ft", "lb", "oz", "psi", "F deg/h", "lb/ft³", "in³"])]
#[test_attr(rocket::async_test)]
async fn no_text_speaks_the_other_system(#[case] units: &str, #[case] foreign: &[&str]) {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    assert_eq!(change(&server, "shop.units", units, Value::Null).await.0, Status::Ok);
    let (_, rack) = server.get("/api/rack").await;
    let mut found = Vec::new();
    texts(&rack, "rack", &mut found);
    texts(&server.get("/api/shop").await.1, "shop", &mut found);
    texts(&server.get(&format!("/api/tables/{units}")).await.1, "tables", &mut found);
    for line in rack["lines"].as_array().unwrap() {
        let job = format!("/api/jobs/{}", line["id"].as_str().unwrap());
        texts(&server.get(&job).await.1, "job", &mut found);
        for test in ["spark", "punch", "drill", "ring", "fracture", "file", "magnet"] {
            texts(&server.get(&format!("{job}/answers/{test}")).await.1, test, &mut found);
        }
        for iron in ["gray", "ductile", "malleable", "white", "ni_resist", "steel"] {
            texts(&server.get(&format!("{job}/as-if/{iron}")).await.1, iron, &mut found);
        }
    }
    assert!(found.len() > 10_000, "every text was looked at: {}", found.len());
    // An estimate that was given is what was given.
    let told = found.iter().filter(|(place, _)| !place.contains("/offered/"));
    let mut wrong: Vec<&(String, String)> = told.filter(|(_, text)| speaks(text, foreign)).collect();
    wrong.sort();
    wrong.dedup();
    assert!(wrong.is_empty(), "{wrong:#?}");
    let own: &[&str] = if units == "imperial" { &["°F", "in"] } else { &["°C", "mm"] };
    assert!(found.iter().filter(|(_, text)| speaks(text, own)).count() > 50, "its own it does speak");
}

#[rocket::async_test]
async fn of_two_jobs_on_the_same_hands_the_second_says_when_it_is_booked_and_why() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack?find=brewery").await;
    let first = rack["lines"][0]["id"].as_str().unwrap().to_owned();
    let copy = uuid::Uuid::new_v4();
    let (status, answer) = server.post(&format!("/api/jobs/{first}/copy"), &json!({ "id": copy })).await;
    assert!(status.code < 300, "{answer}");
    server.settled().await;
    let copy = copy.to_string();
    let mut waits = Vec::new();
    for job in [&first, &copy] {
        let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
        let (status, booked) = server.get(&format!("/api/jobs/{job}/booked")).await;
        assert_eq!(status, Status::Ok);
        let sessions = booked["sessions"].as_array().unwrap();
        assert_eq!(sessions.len(), view["plan"]["methods"]["sessions"].as_array().unwrap().len());
        let words = sessions.iter().map(|it| it.as_str().unwrap().to_owned()).find(|it| !it.is_empty());
        assert_eq!(words.is_some(), !booked["ready"].as_str().unwrap().is_empty(), "{booked}");
        waits.extend(words);
    }
    assert!(
        waits.iter().any(|it| it.starts_with("Booked for ") && it.contains(": before it the hands are at ")),
        "{waits:?}"
    );
    let (status, _) = server.get(&format!("/api/jobs/{}/booked", uuid::Uuid::nil())).await;
    assert_eq!(status, Status::NotFound);
}
