//! The log of a job over the wire: what is stored, what is refused, what a second tab sees.

use crate::common::{NOW_MS, Server, set};
use rocket::http::{ContentType, Header, Status};
use rstest::rstest;
use serde_json::{Value, json};
use sqlx::sqlite::SqliteConnectOptions;
use sqlx::{Connection, SqliteConnection};
use uuid::Uuid;

#[rocket::async_test]
async fn a_fact_sent_twice_is_stored_once() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let fact = json!({ "id": Uuid::new_v4(), "at_client_ms": NOW_MS, "change": set("part.wall", "3/8") });
    for _ in 0..2 {
        let (status, view) = server.post(&format!("/api/jobs/{job}/facts"), &fact).await;
        assert_eq!((status, view["revision"].as_u64()), (Status::Ok, Some(1)));
    }
    let (_, history) = server.get(&format!("/api/jobs/{job}/history")).await;
    assert_eq!(history["facts"].as_array().unwrap().len(), 1);
}

#[rocket::async_test]
async fn a_job_made_twice_is_made_once_and_keeps_its_log() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    server.set(job, "part.name", "Gate").await;
    let (status, view) = server.post("/api/jobs", &json!({ "id": job })).await;
    assert_eq!((status, view["name"].as_str()), (Status::Ok, Some("Gate")));
}

#[rocket::async_test]
async fn what_was_typed_stays_beside_how_it_was_understood() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let (_, view) = server.set(job, "part.wall", "5/16").await;
    let wall = &view["fields"]["part.wall"];
    assert_eq!(wall["typed"], "5/16");
    // Hand-worked: 5/16 x 25.4 = 7.9375
    assert_eq!(wall["shown"], json!({ "number": "7.9", "unit": "mm" }));
}

#[rocket::async_test]
async fn a_write_on_an_old_revision_of_the_same_fact_is_refused_with_both_values() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    server.set(job, "part.wall", "12").await;
    server.set(job, "part.wall", "13").await;
    let (status, answer) = server.say_on(job, set("part.wall", "15"), json!(1)).await;
    assert_eq!(status, Status::Conflict);
    let problem = &answer["problems"][0];
    assert_eq!(problem["field"], "part.wall");
    let message = problem["message"].as_str().unwrap();
    assert!(message.contains("\"13\"") && message.contains("\"15\""), "{message}");
    // Another fact of the same job is nobody's business.
    let (status, _) = server.say_on(job, set("part.sides", "both"), json!(1)).await;
    assert_eq!(status, Status::Ok);
    let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
    assert_eq!(view["fields"]["part.wall"]["typed"], "13");
}

#[rstest]
#[case::an_impossible_wall("part.wall", "900", "1 to 300 mm")]
#[case::a_negative_weight("part.mass", "-4 kg", "0.01 to 20000 kg")]
#[case::no_such_unit("part.service_temperature", "500Q", "260 C or 500 F")]
#[case::no_such_field("part.colour", "red", "")]
#[case::a_crack_that_is_not_mapped("crack.00000000-0000-0000-0000-000000000000.length", "40", "")]
#[test_attr(rocket::async_test)]
async fn bad_input_is_told_at_its_field_and_changes_nothing(
    #[case] key: &str,
    #[case] typed: &str,
    #[case] would_do: &str,
) {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let (status, answer) = server.set(job, key, typed).await;
    assert_eq!(status, Status::UnprocessableEntity, "{answer}");
    assert_eq!(
        (&answer["problems"][0]["field"], &answer["problems"][0]["would_be_right"]),
        (&json!(key), &json!(would_do))
    );
    let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
    assert_eq!(view["revision"], 0);
}

#[rocket::async_test]
async fn an_unknown_job_is_not_found_everywhere() {
    let server = Server::empty().await;
    let job = Uuid::new_v4();
    for path in ["", "/history", "/export", "/stream"] {
        let (status, answer) = server.get(&format!("/api/jobs/{job}{path}")).await;
        assert_eq!(status, Status::NotFound, "{path}");
        assert!(answer["problems"][0]["message"].is_string(), "{path}: {answer}");
    }
    let (status, _) = server.set(job, "part.wall", "12").await;
    assert_eq!(status, Status::NotFound);
    let (status, _) = server.post(&format!("/api/jobs/{job}/copy"), &json!({ "id": Uuid::new_v4() })).await;
    assert_eq!(status, Status::NotFound);
    let (status, _) = server.get("/api/jobs/not-an-id").await;
    assert_eq!(status, Status::NotFound);
}

#[rocket::async_test]
async fn a_body_of_nine_megabytes_is_too_large() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let note = "x".repeat(9 * 1024 * 1024);
    let change = json!({ "kind": "torch", "entry": { "kind": "note", "text": note } });
    let (status, answer) = server.say(job, change).await;
    assert_eq!(status, Status::PayloadTooLarge);
    assert!(answer["problems"][0]["message"].as_str().unwrap().contains("8 MB"), "{answer}");
}

#[rstest]
#[case::no_json("{\"id\":", Status::BadRequest, "")]
#[case::a_list("[]", Status::UnprocessableEntity, "")]
#[case::no_change(
    "{\"id\":\"5b0f9e62-0f3c-4a3b-9a1c-0d9d3a1c2b11\",\"at_client_ms\":1}",
    Status::UnprocessableEntity,
    "change"
)]
#[case::an_unknown_kind(
    "{\"id\":\"5b0f9e62-0f3c-4a3b-9a1c-0d9d3a1c2b11\",\"at_client_ms\":1,\"change\":{\"kind\":\"melt\"}}",
    Status::UnprocessableEntity,
    "change.kind"
)]
#[test_attr(rocket::async_test)]
async fn what_is_no_fact_is_refused_at_its_field(
    #[case] body: &str,
    #[case] expected: Status,
    #[case] field: &str,
) {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let (status, answer) = server.post_text(&format!("/api/jobs/{job}/facts"), body).await;
    assert_eq!(status, expected, "{answer}");
    assert_eq!(answer["problems"][0]["field"], field);
}

#[rocket::async_test]
async fn a_change_tells_which_figures_moved() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let (_, view) = server.say(job, json!({ "kind": "add_crack" })).await;
    let crack = view["plan"]["cracks"][0]["id"].as_str().unwrap().to_owned();
    for (field, typed) in
        [("length", "60"), ("wall", "9"), ("found_by", "dye"), ("end_a", "tip"), ("end_b", "edge")]
    {
        server.set(job, &format!("crack.{crack}.{field}"), typed).await;
    }
    // Hand-worked: half of 9 is 4.5, next drill 4.8; half of 14 is 7, next 8
    let (_, view) = server.set(job, &format!("crack.{crack}.wall"), "14").await;
    let moved = view["moved"].as_array().unwrap();
    let drill = moved
        .iter()
        .find(|m| m["id"].as_str().is_some_and(|id| id.starts_with("cracks.") && id.ends_with(".left.drill")))
        .expect("the drill moved");
    assert_eq!((drill["was_metric"].as_str(), drill["now_metric"].as_str()), (Some("4.8 mm"), Some("8 mm")));
}

#[rocket::async_test]
async fn the_torch_is_not_lit_while_anything_is_missing() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let (status, answer) = server.say(job, json!({ "kind": "light", "speed": 1 })).await;
    assert_eq!(
        (status, answer["problems"][0]["field"].as_str()),
        (Status::UnprocessableEntity, Some("light"))
    );
}

#[rocket::async_test]
async fn a_copy_has_the_part_and_the_map_and_none_of_the_heat() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack").await;
    let hot =
        rack["lines"].as_array().unwrap().iter().find(|line| line["standing"]["hot"].is_object()).unwrap();
    let id = Uuid::new_v4();
    let path = format!("/api/jobs/{}/copy", hot["id"].as_str().unwrap());
    let (status, copy) = server.post(&path, &json!({ "id": id })).await;
    assert_eq!(status, Status::Ok);
    let round = &copy["job"]["rounds"][0];
    assert_eq!(
        (copy["name"].as_str().unwrap(), copy["plan"]["cracks"].as_array().unwrap().len()),
        (format!("{} (2)", hot["name"].as_str().unwrap()).as_str(), 2)
    );
    assert!(round["lit"].is_null() && round["readings"].as_array().unwrap().is_empty());
    assert_eq!(copy["plan"]["cracks"][0]["length_mm"], 118.0);
}

#[rocket::async_test]
async fn a_job_is_found_put_away_and_brought_back() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let names = |rack: &Value| -> Vec<String> {
        rack["lines"].as_array().unwrap().iter().map(|l| l["name"].as_str().unwrap().to_owned()).collect()
    };
    let (_, found) = server.get("/api/rack?find=brewery").await;
    assert_eq!(names(&found), ["Malt conveyor sprocket arm"]);
    let job: Uuid = found["lines"][0]["id"].as_str().unwrap().parse().unwrap();
    server.say(job, json!({ "kind": "put_away" })).await;
    assert!(!names(&server.get("/api/rack").await.1).contains(&"Malt conveyor sprocket arm".to_owned()));
    let away = names(&server.get("/api/rack?away=true").await.1);
    assert_eq!(away.iter().filter(|name| *name == "Malt conveyor sprocket arm").count(), 1, "{away:?}");
    server.say(job, json!({ "kind": "bring_back" })).await;
    assert!(names(&server.get("/api/rack").await.1).contains(&"Malt conveyor sprocket arm".to_owned()));
}

#[rocket::async_test]
async fn finding_looks_at_iron_and_sort_of_part_and_at_what_was_put_away() {
    let server = Server::empty().await;
    let (on_the_rack, away) = (server.new_job().await, server.new_job().await);
    for (job, name) in [(on_the_rack, "Mill gear"), (away, "Mill lever")] {
        server.set(job, "part.name", name).await;
        server.set(job, "part.family", "machine_frame").await;
    }
    server.say(away, json!({ "kind": "put_away" })).await;
    let names = |rack: &Value| -> Vec<String> {
        let lines = rack["lines"].as_array().unwrap().iter();
        lines.map(|line| format!("{} {}", line["name"].as_str().unwrap(), line["put_away"])).collect()
    };
    let (_, rack) = server.get("/api/rack").await;
    assert_eq!(names(&rack), ["Mill gear false"], "unasked, only what lies on the rack");
    for words in ["mill", "machine%20frame", "not%20tested"] {
        let (_, found) = server.get(&format!("/api/rack?find={words}")).await;
        assert_eq!(names(&found), ["Mill gear false", "Mill lever true"], "{words}");
    }
}

#[rocket::async_test]
async fn the_history_tells_values_with_units_and_a_day_as_it_was_meant() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    server.set(job, "part.mass", "about 14").await;
    let (status, view) = server.set(job, "part.wanted", "in 3 weeks").await;
    assert_eq!(status, Status::Ok);
    let (_, history) = server.get(&format!("/api/jobs/{job}/history")).await;
    let told = history["told"].as_array().unwrap();
    assert_eq!(told[0], "Weight: about 14 kg");
    let day = view["fields"]["part.wanted"]["typed"].as_str().unwrap();
    assert_eq!(told[1].as_str().unwrap(), format!("Wanted on: {day}"));
    assert_eq!(view["told"], told[1]);
    assert!(!day.contains("weeks") && day.split(' ').count() == 4, "{day}");
}

#[rocket::async_test]
async fn a_job_that_was_put_away_is_let_go_by_its_name_with_all_that_hangs_on_it() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack").await;
    let of = |name: &str| {
        let line = rack["lines"].as_array().unwrap().iter().find(|line| line["name"] == name).unwrap();
        (line["id"].as_str().unwrap().parse::<Uuid>().unwrap(), line["face"].clone())
    };
    let (job, face) = of("Malt conveyor sprocket arm");
    let path = format!("/api/jobs/{job}/let-go");
    let name = json!({ "name": "Malt conveyor sprocket arm" });
    let (status, body) = server.post(&path, &name).await;
    assert_eq!(
        (status, &body["problems"][0]["message"]),
        (Status::UnprocessableEntity, &json!("it lies on the rack"))
    );
    server.say(job, json!({ "kind": "put_away" })).await;
    let (status, body) = server.post(&path, &json!({ "name": "Malt" })).await;
    assert_eq!((status, &body["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("name")));
    let pages = async || {
        let file = SqliteConnectOptions::new().filename(server.folder.path().join("vanadin.sqlite"));
        let mut beside = SqliteConnection::connect_with(&file).await.unwrap();
        sqlx::query_scalar::<_, i64>("pragma page_count").fetch_one(&mut beside).await.unwrap()
    };
    let before = pages().await;
    assert_eq!(server.post(&path, &name).await.0, Status::NoContent);
    assert_eq!(server.get(&format!("/api/jobs/{job}")).await.0, Status::NotFound);
    let picture = format!("/api/jobs/{job}/pictures/{}", face.as_str().unwrap());
    assert_eq!(server.get(&picture).await.0, Status::NotFound);
    assert_eq!(server.get("/api/rack?away=true").await.1["total"], 8, "those of before are as they were");
    assert_eq!(server.get("/api/rack").await.1["total"], 7, "the others are as they were");
    assert!(pages().await < before, "the file is smaller by it");
    assert_eq!(server.post(&path, &name).await.0, Status::NotFound);
    // What is hot is not let go, wherever it was put.
    let (hot, _) = of("Letterpress side frame");
    server.say(hot, json!({ "kind": "put_away" })).await;
    let path = format!("/api/jobs/{hot}/let-go");
    let (status, body) = server.post(&path, &json!({ "name": "Letterpress side frame" })).await;
    assert_eq!((status, &body["problems"][0]["message"]), (Status::UnprocessableEntity, &json!("it is hot")));
    let again = server.again().await;
    assert_eq!(again.get("/api/rack").await.1["total"], 7);
}

#[rstest]
#[case::a_foreign_page("localhost:8420", Some("http://elsewhere.example"))]
#[case::a_name_made_to_point_here("elsewhere.example:8420", None)]
#[case::a_sandboxed_page("localhost:8420", Some("null"))]
#[test_attr(rocket::async_test)]
async fn foreign_requests_cannot_write(#[case] host: &str, #[case] origin: Option<&str>) {
    let server = Server::empty().await;
    let id = Uuid::new_v4();
    let mut request = server
        .client
        .post("/api/jobs")
        .header(ContentType::JSON)
        .header(Header::new("Host", host.to_owned()))
        .body(json!({ "id": id }).to_string());
    if let Some(origin) = origin {
        request = request.header(Header::new("Origin", origin.to_owned()));
    }
    let answer = request.dispatch().await;
    assert_eq!(answer.status(), Status::Forbidden);
    let (status, _) = server.get(&format!("/api/jobs/{id}")).await;
    assert_eq!(status, Status::NotFound);
}

#[rstest]
#[case::text(Some(ContentType::Plain))]
#[case::a_form(Some(ContentType::Form))]
#[case::nothing(None)]
#[test_attr(rocket::async_test)]
async fn what_any_page_may_send_anywhere_is_not_taken_for_json(#[case] kind: Option<ContentType>) {
    let server = Server::empty().await;
    let id = Uuid::new_v4();
    let mut request = server.client.post("/api/jobs").header(Header::new("Host", "localhost:8420"));
    if let Some(kind) = kind {
        request = request.header(kind);
    }
    let answer = request.body(json!({ "id": id }).to_string()).dispatch().await;
    assert_eq!(answer.status(), Status::UnsupportedMediaType);
    assert_eq!(server.get(&format!("/api/jobs/{id}")).await.0, Status::NotFound);
}

#[rocket::async_test]
async fn the_page_served_by_the_server_itself_may_write() {
    let server = Server::empty().await;
    let answer = server
        .client
        .post("/api/jobs")
        .header(ContentType::JSON)
        .header(Header::new("Host", "192.168.1.20:8420"))
        .header(Header::new("Origin", "http://192.168.1.20:8420"))
        .body(json!({ "id": Uuid::new_v4() }).to_string())
        .dispatch()
        .await;
    assert_eq!(answer.status(), Status::Ok);
}

#[rocket::async_test]
async fn what_rocket_refuses_by_itself_is_answered_in_the_same_shape() {
    let server = Server::empty().await;
    for (status, answer) in
        [server.get("/api/nothing/here").await, server.post("/api/rack", &json!({})).await]
    {
        assert_eq!(status, Status::NotFound);
        assert!(answer["problems"][0]["message"].is_string(), "{answer}");
    }
}
