//! Nothing that was acknowledged may be lost; one bad job hides no other.

use crate::common::{NOW_MS, Server, set};
use rocket::http::Status;
use rstest::rstest;
use serde_json::{Value, json};
use sqlx::sqlite::SqliteConnectOptions;
use sqlx::{Connection, SqliteConnection};
use uuid::Uuid;

async fn connection(server: &Server) -> SqliteConnection {
    let file = server.folder.path().join("vanadin.sqlite");
    SqliteConnection::connect_with(&SqliteConnectOptions::new().filename(file)).await.unwrap()
}

#[rstest]
#[case::a_kind_from_the_future(r#"{"kind":"weld_by_laser","watts":900}"#)]
#[case::cut_off(r#"{"kind":"set","key":"part.wa"#)]
#[case::one_flipped(r#"{"kind":"sat","key":"part.wall","typed":"14","shown_in":"metric"}"#)]
#[case::nothing("")]
#[test_attr(rocket::async_test)]
async fn a_fact_that_cannot_be_read_is_shown_and_everything_else_lives(#[case] text: &str) {
    let server = Server::empty().await;
    let (job, other) = (server.new_job().await, server.new_job().await);
    server.set(job, "part.name", "Gate").await;
    server.set(job, "part.wall", "14").await;
    server.set(other, "part.name", "Lever").await;
    let mut database = connection(&server).await;
    sqlx::query("update fact set change = ? where job_id = ? and revision = 2")
        .bind(text)
        .bind(job.to_string())
        .execute(&mut database)
        .await
        .unwrap();
    // A server that starts on it starts.
    let server = server.again().await;
    let (status, view) = server.get(&format!("/api/jobs/{job}")).await;
    assert_eq!(status, Status::Ok, "{view}");
    assert_eq!((&view["name"], &view["job"]["damaged"][0]["revision"]), (&json!("Gate"), &json!(2)));
    let (_, rack) = server.get("/api/rack").await;
    assert_eq!(rack["lines"].as_array().unwrap().len(), 2);
    let line = rack["lines"].as_array().unwrap().iter().find(|line| line["name"] == "Gate").unwrap();
    assert!(line["damaged"].as_str().unwrap().contains("no. 2"), "{line}");
    // It can be gone on with, and lighting says why not.
    let (status, _) = server.set(job, "part.owner", "Mill").await;
    assert_eq!(status, Status::Ok);
    // And it travels: what cannot be read is taken along.
    let (_, file) = server.get(&format!("/api/jobs/{job}/export")).await;
    let (status, imported) = server.post("/api/import", &file).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let again = server.again().await;
    let (status, rack) = again.get("/api/rack").await;
    assert_eq!((status, rack["lines"].as_array().unwrap().len()), (Status::Ok, 3));
}

#[rocket::async_test]
async fn a_typed_text_that_is_no_longer_understood_is_kept_and_shown() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    server.set(job, "part.wall", "14").await;
    let mut database = connection(&server).await;
    let tightened = json!({ "kind": "set", "key": "part.wall", "typed": "900 mm", "shown_in": "metric" });
    // Said before it was kept what was understood.
    sqlx::query("update fact set change = ?, understood = ''")
        .bind(tightened.to_string())
        .execute(&mut database)
        .await
        .unwrap();
    let server = server.again().await;
    let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
    let wall = &view["fields"]["part.wall"];
    assert_eq!((&wall["typed"], &wall["shown"]), (&json!("900 mm"), &Value::Null));
    assert!(wall["not_understood"].as_str().unwrap().contains("outside"), "{wall}");
    server.set(job, "part.wall", "15").await;
    let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
    assert_eq!(view["fields"]["part.wall"]["not_understood"], Value::Null);
}

#[rocket::async_test]
async fn what_waits_for_another_folder_is_not_taken_here() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let (_, health) = server.get("/api/health").await;
    let fact = |folder: &Value| json!({ "id": Uuid::new_v4(), "at_client_ms": NOW_MS, "folder": folder, "change": set("part.wall", "9") });
    let path = format!("/api/jobs/{job}/facts");
    let (status, _) = server.post(&path, &fact(&json!(Uuid::new_v4()))).await;
    assert_eq!(status, Status::MisdirectedRequest);
    let (status, view) = server.post(&path, &fact(&health["folder"])).await;
    assert_eq!((status, &view["folder"]), (Status::Ok, &health["folder"]));
}

#[rstest]
#[case::an_hour_slow(-3_600_000)]
#[case::right(0)]
#[case::a_day_fast(86_400_000)]
#[test_attr(rocket::async_test)]
async fn a_clients_clock_that_is_wrong_moves_nothing(#[case] off_ms: i64) {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let (_, health) = server.get("/api/health").await;
    let now = health["now_ms"].as_i64().unwrap();
    // Said two minutes ago, sent now, by a clock that is off.
    let fact = json!({
        "id": Uuid::new_v4(), "at_client_ms": now + off_ms - 120_000, "sent_at_client_ms": now + off_ms,
        "change": set("part.wall", "9"),
    });
    server.post(&format!("/api/jobs/{job}/facts"), &fact).await;
    let (_, history) = server.get(&format!("/api/jobs/{job}/history")).await;
    let at = history["facts"][0]["at_client_ms"].as_i64().unwrap();
    assert!((at - (now - 120_000)).abs() < 60_000, "{at} against {now}");
}

#[rstest]
#[case::before_2000("at_client_ms", 1)]
#[case::far_off("at_client_ms", 9_000_000_000_000_000)]
#[case::far_off_when_sent("sent_at_client_ms", 9_000_000_000_000_000)]
#[test_attr(rocket::async_test)]
async fn no_clock_shows_such_a_time(#[case] field: &str, #[case] at_ms: i64) {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let mut fact = json!({ "id": Uuid::new_v4(), "at_client_ms": NOW_MS, "change": set("part.wall", "9") });
    fact[field] = json!(at_ms);
    let (status, answer) = server.post(&format!("/api/jobs/{job}/facts"), &fact).await;
    assert_eq!(
        (status, &answer["problems"][0]["field"]),
        (Status::UnprocessableEntity, &json!("at_client_ms"))
    );
}

fn file(facts: &[Value]) -> Value {
    let facts: Vec<Value> = facts
        .iter()
        .enumerate()
        .map(|(at, change)| {
            json!({ "id": Uuid::new_v4(), "revision": at + 1, "at_client_ms": NOW_MS, "at_server_ms": NOW_MS,
                "who": "bench", "change": change })
        })
        .collect();
    json!({ "format": "vanadin-job", "version": 3, "facts": facts, "readings": [], "pictures": [] })
}

#[rstest]
#[case::long_note(json!({ "kind": "torch", "entry": { "kind": "note", "text": "x".repeat(601) } }))]
#[case::impossible_reading(
    json!({ "kind": "torch", "entry": { "kind": "reading", "typed": "999999999 C", "shown_in": "metric" } })
)]
#[case::long_reason(json!({ "kind": "strike", "target": Uuid::nil(), "reason": "x".repeat(601) }))]
#[case::long_spot(json!({ "kind": "add_hard_spot", "spot": "x".repeat(601) }))]
#[case::fast_clock(json!({ "kind": "light", "speed": 61 }))]
#[test_attr(rocket::async_test)]
async fn a_file_keeps_the_limits_of_the_door(#[case] change: Value) {
    let server = Server::empty().await;
    let (status, answer) = server.post("/api/import", &file(&[change])).await;
    assert_eq!(status, Status::UnprocessableEntity, "{answer}");
    assert_eq!(answer["problems"][0]["field"], "facts[0].change", "{answer}");
    let (_, rack) = server.get("/api/rack").await;
    assert_eq!(rack["lines"], json!([]), "nothing is left of it");
}

#[rocket::async_test]
async fn a_file_of_too_many_cracks_or_of_no_time_is_refused_whole() {
    let server = Server::empty().await;
    let (status, _) = server.post("/api/import", &file(&vec![json!({ "kind": "add_crack" }); 500])).await;
    assert_eq!(status, Status::Ok, "just as many as there may be");
    let (status, answer) =
        server.post("/api/import", &file(&vec![json!({ "kind": "add_crack" }); 501])).await;
    assert_eq!(
        (status, &answer["problems"][0]["field"]),
        (Status::UnprocessableEntity, &json!("facts[500].change"))
    );
    let mut timeless = file(&[json!({ "kind": "add_crack" })]);
    timeless["facts"][0]["at_server_ms"] = json!(9_000_000_000_000_000_i64);
    let (status, answer) = server.post("/api/import", &timeless).await;
    assert_eq!(
        (status, &answer["problems"][0]["field"]),
        (Status::UnprocessableEntity, &json!("facts[0].at_server_ms"))
    );
}

#[rocket::async_test]
async fn everybody_takes_back_their_own_word_over_the_wire() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let say = async |sender: &str, change: Value| {
        let fact =
            json!({ "id": Uuid::new_v4(), "at_client_ms": NOW_MS, "sender": sender, "change": change });
        server.post(&format!("/api/jobs/{job}/facts"), &fact).await
    };
    say("phone", set("part.wall", "13")).await;
    let (_, view) = say("laptop", set("part.name", "Lever")).await;
    let of = |view: &Value, sender: &str| {
        let words = view["job"]["own_words"].as_array().unwrap().clone();
        words.into_iter().find(|word| word["sender"] == sender).unwrap()
    };
    let theirs = of(&view, "laptop")["undo"].clone();
    let (status, _) = say("phone", json!({ "kind": "undo", "target": theirs })).await;
    assert_eq!(status, Status::UnprocessableEntity);
    let (_, view) = say("phone", json!({ "kind": "undo", "target": of(&view, "phone")["undo"] })).await;
    assert_eq!((view["fields"].get("part.wall"), &view["name"]), (None, &json!("Lever")));
}

#[rocket::async_test]
async fn a_hot_part_lies_on_the_rack_wherever_it_was_put() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack?find=letterpress").await;
    let job: Uuid = rack["lines"][0]["id"].as_str().unwrap().parse().unwrap();
    let (status, _) = server.say(job, json!({ "kind": "put_away" })).await;
    assert_eq!(status, Status::Ok);
    let (_, rack) = server.get("/api/rack").await;
    let top = &rack["lines"][0];
    assert_eq!((&top["name"], &top["put_away"]), (&json!("Letterpress side frame"), &json!(true)));
    assert!(top["standing"]["hot"].is_object());
    let (_, view) = server.say(job, json!({ "kind": "new_round", "reason": "ran on" })).await;
    assert!(
        view["standing"]["hot"].is_object() && view["standing"]["keep_off"] != "",
        "{}",
        view["standing"]
    );
}

#[rocket::async_test]
async fn a_change_of_the_shop_raises_its_revision() {
    let server = Server::empty().await;
    let change = |typed: &str| json!({ "change": { "kind": "set", "key": "shop.units", "typed": typed, "shown_in": "metric" } });
    let (_, first) = server.post("/api/shop", &change("imperial")).await;
    let (_, second) = server.post("/api/shop", &change("metric")).await;
    assert!(second["revision"].as_u64() > first["revision"].as_u64());
    let (_, rack) = server.get("/api/rack").await;
    assert_eq!(rack["shop_revision"], second["revision"]);
}
