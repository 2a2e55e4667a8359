//! The thermocouple over the wire: readings as they come, stored, judged by the core.

use std::time::Duration;

use crate::common::{Server, set};
use rocket::http::{Header, Status};
use rocket::local::asynchronous::LocalResponse;
use rocket::tokio::io::{AsyncBufReadExt, BufReader, Lines};
use rocket::tokio::time::timeout;
use serde_json::{Value, json};
use uuid::Uuid;

/// How long something may take on a busy machine.
const PATIENCE: Duration = Duration::from_secs(20);

/// A job's stream as it is opened: from then on nothing is missed.
async fn listen<'c>(server: &'c Server, job: &str) -> Lines<BufReader<LocalResponse<'c>>> {
    let answer = server.client.get(format!("/api/jobs/{job}/stream")).dispatch().await;
    assert_eq!(answer.status(), Status::Ok);
    BufReader::new(answer).lines()
}

/// The next event of this name.
async fn event(lines: &mut Lines<BufReader<LocalResponse<'_>>>, name: &str) -> String {
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
    let key = json!({ "id": Uuid::new_v4(), "change": set("shop.logger", "a-key-of-the-logger") });
    assert_eq!(server.post("/api/shop", &key).await.0, Status::Ok);
    let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
    let now_min = view["standing"]["minutes"].as_f64().unwrap();
    let mut lines = listen(&server, &job).await;
    let posted = server
        .client
        .post(format!("/api/jobs/{job}/readings"))
        .header(Header::new("Host", "localhost:8420"))
        .header(Header::new("Authorization", "Bearer a-key-of-the-logger"))
        .body(format!("{now_min},1,151.3"))
        .dispatch()
        .await;
    assert_eq!(posted.status(), Status::Ok);
    let live: Value = serde_json::from_str(&event(&mut lines, "reading").await).unwrap();
    let celsius = live["celsius"].as_f64().unwrap();
    assert_eq!(celsius, 151.3);
    assert_eq!(live["metric"]["unit"], "°C");
    let fahrenheit: f64 = live["imperial"]["number"].as_str().unwrap().parse().unwrap();
    assert!((fahrenheit - (celsius * 1.8 + 32.0)).abs() <= 0.51, "{live}");
    assert_eq!(live["place"], "no_window", "it is covered");
    // Which way it goes is tested elsewhere. Both systems say the same.
    let way = |trend: &str| live[trend].as_str().unwrap().split(' ').next().unwrap().to_owned();
    assert!(["falling", "steady", "rising"].contains(&way("trend_metric").as_str()), "{live}");
    assert_eq!(way("trend_metric"), way("trend_imperial"));
}

#[rocket::async_test]
async fn a_stream_says_hello_so_that_a_page_asks_for_what_it_missed() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    server.set(job, "part.name", "Gate").await;
    let hello: Value =
        serde_json::from_str(&event(&mut listen(&server, &job.to_string()).await, "hello").await).unwrap();
    assert_eq!(hello, json!({ "revision": 1, "shop": 0, "readings": 0 }));
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
