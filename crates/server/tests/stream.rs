//! The thermocouple over the wire: readings as they come, stored, judged by the core.

mod common;

use std::time::Duration;

use common::Server;
use rocket::http::Status;
use rocket::tokio::io::{AsyncBufReadExt, BufReader};
use rocket::tokio::time::timeout;
use serde_json::{Value, json};
use uuid::Uuid;

/// How long something may take on a busy machine.
const PATIENCE: Duration = Duration::from_secs(20);

/// The first event of this name in a job's stream.
async fn event(server: &Server, job: &str, name: &str) -> String {
    let answer = server.client.get(format!("/api/jobs/{job}/stream")).dispatch().await;
    assert_eq!(answer.status(), Status::Ok);
    let mut lines = BufReader::new(answer).lines();
    let wanted = format!("event:{name}");
    timeout(PATIENCE, async {
        let mut found = false;
        while let Some(line) = lines.next_line().await.unwrap() {
            if let (true, Some(data)) = (found, line.strip_prefix("data:")) {
                return data.to_owned();
            }
            found |= line == wanted;
        }
        panic!("the stream ended before {name}");
    })
    .await
    .unwrap_or_else(|_| panic!("no {name} in time"))
}

async fn id_of(server: &Server, words: &str) -> String {
    let (_, rack) = server.get(&format!("/api/rack?find={words}")).await;
    rack["lines"][0]["id"].as_str().expect("a job has these words").to_owned()
}

#[rocket::async_test]
async fn a_hot_part_tells_its_temperature_judged_and_in_both_units() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let job = id_of(&server, "letterpress").await;
    let live: Value = serde_json::from_str(&event(&server, &job, "reading").await).unwrap();
    let celsius = live["celsius"].as_f64().unwrap();
    assert!((45.0..400.0).contains(&celsius), "{live}");
    assert_eq!(live["metric"]["unit"], "°C");
    let fahrenheit: f64 = live["imperial"]["number"].as_str().unwrap().parse().unwrap();
    assert!((fahrenheit - (celsius * 1.8 + 32.0)).abs() <= 0.51, "{live}");
    assert_eq!(live["place"], "no_window", "it is covered");
    // The pad's noise may hide which way it goes: that is tested without noise. Both systems say the same.
    let way = |trend: &str| live[trend].as_str().unwrap().split(' ').next().unwrap().to_owned();
    assert!(["falling", "steady", "rising"].contains(&way("trend_metric").as_str()), "{live}");
    assert_eq!(way("trend_metric"), way("trend_imperial"));
}

#[rocket::async_test]
async fn a_stream_says_hello_so_that_a_page_asks_for_what_it_missed() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    assert_eq!(event(&server, &job.to_string(), "hello").await, "");
}

#[rocket::async_test]
async fn a_lit_part_warms_on_the_job_clock_and_its_readings_are_stored() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let job: Uuid = id_of(&server, "brewery").await.parse().unwrap();
    for (key, typed) in [
        ("method.choice", "torch_braze"),
        ("heat.source", "weed_burner"),
        ("prep.done", "holes,groove,inside,penetrant"),
    ] {
        server.set(job, key, typed).await;
    }
    let (status, view) = server.say(job, json!({ "kind": "light", "speed": 60 })).await;
    assert_eq!(status, Status::Ok, "{view}");
    assert_eq!(view["standing"]["next"]["verb"], "Take a reading");
    let mut looks = rocket::tokio::time::interval(Duration::from_millis(100));
    let warmed = timeout(PATIENCE, async {
        loop {
            looks.tick().await;
            let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
            let readings = view["job"]["rounds"][0]["readings"].as_array().unwrap().clone();
            if readings.last().is_some_and(|reading| reading["celsius"].as_f64() > Some(60.0)) {
                return (view, readings);
            }
        }
    });
    let (view, readings) = warmed.await.expect("it warms in time");
    // Each 10 s of the job clock.
    let minutes: Vec<f64> = readings.iter().map(|reading| reading["minutes"].as_f64().unwrap()).collect();
    assert!(minutes.windows(2).all(|two| (two[1] - two[0] - 1.0 / 6.0).abs() < 0.002), "{minutes:?}");
    assert_eq!(view["job"]["rounds"][0]["lit"]["speed"], 60.0);
    assert!(view["standing"]["minutes"].as_f64() >= readings.last().unwrap()["minutes"].as_f64());
    let (status, view) = server.say(job, json!({ "kind": "cancel_light" })).await;
    assert_eq!((status, &view["job"]["rounds"][0]["lit"]), (Status::Ok, &Value::Null));
    // Lit again it starts cold: what was recorded of the cancelled lighting is no part of it.
    let (_, view) = server.say(job, json!({ "kind": "light", "speed": 60 })).await;
    assert_eq!(view["job"]["rounds"][0]["readings"], json!([]));
    let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
    let first = &view["job"]["rounds"][0]["readings"][0];
    assert!(first.is_null() || first["minutes"].as_f64() < Some(0.2), "{first}");
}

#[rocket::async_test]
async fn a_reading_by_hand_that_cannot_be_read_is_refused_and_the_log_goes_on() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let job: Uuid = id_of(&server, "letterpress").await.parse().unwrap();
    let reading = |typed: &str| json!({ "kind": "torch", "entry": { "kind": "reading", "typed": typed, "shown_in": "metric" } });
    for (typed, would_do) in [("500Q", "260 C or 500 F"), ("", "260 C or 500 F"), ("9000", "-40 to 1400 °C")]
    {
        let (status, answer) = server.say(job, reading(typed)).await;
        assert_eq!(status, Status::UnprocessableEntity);
        assert_eq!(answer["problems"][0]["field"], "typed");
        assert_eq!(answer["problems"][0]["would_be_right"], would_do, "{typed}");
    }
    let (status, view) = server.say(job, reading("142 C")).await;
    assert_eq!(status, Status::Ok);
    let log = view["job"]["rounds"][0]["log"].as_array().unwrap();
    assert!(log.iter().any(|entry| entry["celsius"] == 142.0));
    // It is covered: no bead can be laid any more.
    let (status, answer) = server.say(job, json!({ "kind": "torch", "entry": { "kind": "bead" } })).await;
    assert_eq!(status, Status::UnprocessableEntity, "{answer}");
}
