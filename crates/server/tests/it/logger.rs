//! A logger of the shop posts what it reads; bad lines are told at their place, and nothing is made up beside it.

use crate::common::{Server, json_of};
use rocket::http::{ContentType, Header, Status};
use rstest::rstest;
use serde_json::{Value, json};
use uuid::Uuid;

const TOKEN: &str = "a-token-of-twenty-letters";

async fn post(server: &Server, job: &str, token: &str, lines: &str) -> (Status, Value) {
    let answer = server
        .client
        .post(format!("/api/jobs/{job}/readings"))
        .header(ContentType::new("text", "csv"))
        .header(Header::new("Host", "localhost:8420"))
        .header(Header::new("Authorization", format!("Bearer {token}")))
        .body(lines)
        .dispatch()
        .await;
    (answer.status(), json_of(answer).await.unwrap_or_default())
}

async fn lit_job(server: &Server) -> String {
    let (_, rack) = server.get("/api/rack?find=letterpress").await;
    rack["lines"][0]["id"].as_str().expect("the sample shop has it").to_owned()
}

/// A shop with its token, and a job that is lit.
async fn lit(server: &Server) -> String {
    let set = json!({ "id": Uuid::new_v4(), "change": { "kind": "set", "key": "shop.logger", "typed": TOKEN,
        "shown_in": "metric" } });
    let (status, said) = server.post("/api/shop", &set).await;
    assert_eq!(status, Status::Ok, "{said}");
    lit_job(server).await
}

#[rocket::async_test]
async fn what_a_logger_reads_is_kept_with_the_job_and_shown() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let job = lit(&server).await;
    let (status, kept) =
        post(&server, &job, TOKEN, "minutes,channel,celsius\n0.01,1,21.5\n0.02,1,24\n").await;
    assert_eq!((status, &kept["kept"]), (Status::Ok, &json!(2)), "{kept}");
    // The last of them is what is shown, and nothing is made up beside it any more.
    let now = kept["job_min"].as_f64().unwrap();
    let (status, _) = post(&server, &job, TOKEN, &format!("{now},1,151.3")).await;
    assert_eq!(status, Status::Ok);
    let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
    assert_eq!(view["standing"]["live"]["celsius"], json!(151.3), "{}", view["standing"]["live"]);
    // The same line once more: kept once.
    let (status, _) = post(&server, &job, TOKEN, "0.01,1,21.5").await;
    assert_eq!(status, Status::Ok);
}

#[rstest]
#[case::no_token("", Status::Unauthorized)]
#[case::half_of_it("a-token-of", Status::Unauthorized)]
#[case::another("a-token-of-twenty-letterz", Status::Unauthorized)]
#[test_attr(rocket::async_test)]
async fn without_the_shops_token_nothing_is_taken(#[case] token: &str, #[case] expected: Status) {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let job = lit(&server).await;
    assert_eq!(post(&server, &job, token, "0.0,1,21.5").await.0, expected);
}

#[rstest]
#[case::a_time_to_come("500000,1,300.5", "reading[1]")]
#[case::a_fifth_channel("0.01,5,300.5", "line[1]")]
#[case::no_temperature("0.01,1,300.5\n0.1,1,hot", "line[2]")]
#[test_attr(rocket::async_test)]
async fn what_cannot_be_is_told_at_its_line_and_nothing_of_it_is_kept(
    #[case] lines: &str,
    #[case] field: &str,
) {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let job = lit(&server).await;
    let (status, answer) = post(&server, &job, TOKEN, lines).await;
    assert_eq!(status, Status::UnprocessableEntity, "{answer}");
    assert_eq!(answer["problems"][0]["field"], field, "{answer}");
    let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
    let round = view["job"]["rounds"].as_array().unwrap().last().unwrap();
    assert!(round["readings"].as_array().unwrap().iter().all(|it| it["celsius"] != json!(300.5)));
}

#[rocket::async_test]
async fn a_shop_without_a_token_takes_nothing_and_a_job_that_is_not_lit_has_no_clock() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let job = lit_job(&server).await;
    assert_eq!(post(&server, &job, "", "0,1,20").await.0, Status::Unauthorized);
    lit(&server).await;
    let cold = server.new_job().await.to_string();
    let (status, answer) = post(&server, &cold, TOKEN, "0,1,20").await;
    assert_eq!((status, &answer["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("job")));
}

/// What is asked of a logger's file.
fn file(text: &str, done: &str) -> Value {
    json!({ "text": text, "done": done, "column": null, "unit": null, "first_min": 0.0 })
}

async fn bring(server: &Server, job: &str, body: &Value) -> (Status, Value) {
    server.post(&format!("/api/jobs/{job}/readings/file"), body).await
}

async fn read_of(server: &Server, job: &str) -> Vec<(f64, f64)> {
    // The file of the job has every one of them; a page thins them out.
    let (_, file) = server.get(&format!("/api/jobs/{job}/export")).await;
    let readings = file["readings"][0]["readings"].as_array().unwrap().clone();
    readings.iter().map(|it| (it["minutes"].as_f64().unwrap(), it["celsius"].as_f64().unwrap())).collect()
}

#[rocket::async_test]
async fn a_loggers_file_is_looked_at_kept_once_and_taken_out_again() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let job = lit_job(&server).await;
    let text = "time (s),T [C]\n0,21.25\n1,22.25\n2,23.25\n";
    let (status, seen) = bring(&server, &job, &file(text, "looked_at")).await;
    assert_eq!((status, &seen["rows"], &seen["changed"]), (Status::Ok, &json!(3), &json!(0)), "{seen}");
    // A pad of the sample shop may read on meanwhile; of the file nothing is there.
    let of_the_file = async || read_of(&server, &job).await.iter().filter(|(_, c)| *c == 22.25).count();
    assert_eq!(of_the_file().await, 0, "looking changes nothing");
    let (_, kept) = bring(&server, &job, &file(text, "kept")).await;
    let new = kept["changed"].as_u64().unwrap();
    assert!(new >= 2, "{kept}");
    let (_, again) = bring(&server, &job, &file(text, "kept")).await;
    assert_eq!(again["changed"], json!(0), "the same file once more keeps nothing twice");
    assert_eq!(of_the_file().await, 1);
    let (_, out) = bring(&server, &job, &file(text, "taken_out")).await;
    assert_eq!(out["changed"], json!(new));
    assert_eq!(of_the_file().await, 0);
}

#[rstest]
#[case::no_table("dear diary", "text")]
#[case::no_unit("min,part\n0,21\n1,22\n", "unit")]
#[case::all_before_it_was_lit("min,T [C]\n0,21\n1,22\n", "first_min")]
#[test_attr(rocket::async_test)]
async fn a_file_that_cannot_be_kept_is_told_at_its_field(#[case] text: &str, #[case] field: &str) {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let job = lit_job(&server).await;
    let mut body = file(text, "kept");
    if field == "first_min" {
        body["first_min"] = json!(-500);
    }
    let (status, answer) = bring(&server, &job, &body).await;
    assert_eq!(
        (status, &answer["problems"][0]["field"]),
        (Status::UnprocessableEntity, &json!(field)),
        "{answer}"
    );
}

#[rocket::async_test]
async fn a_job_that_was_never_lit_has_no_clock_to_lay_a_file_on() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack?find=glasshouse").await;
    let job = rack["lines"][0]["id"].as_str().unwrap();
    let (status, answer) = bring(&server, job, &file("min,T [C]\n0,21\n1,22\n", "looked_at")).await;
    assert_eq!((status, &answer["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("job")));
}

#[rocket::async_test]
async fn an_ovens_program_is_a_file_and_a_flame_has_none() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack?find=seed").await;
    let job = rack["lines"][0]["id"].as_str().unwrap();
    let program = format!("/api/jobs/{job}/oven.csv");
    let (status, answer) = server.get(&program).await;
    assert_eq!(
        (status, &answer["problems"][0]["field"]),
        (Status::UnprocessableEntity, &json!("heat.source"))
    );
    let set = json!({ "id": Uuid::new_v4(), "at_client_ms": 1_773_042_000_000_i64, "who": "", "change": { "kind": "set",
        "key": "heat.source", "typed": "kiln", "shown_in": "metric" } });
    let (status, said) = server.post(&format!("/api/jobs/{job}/facts"), &set).await;
    assert_eq!(status, Status::Ok, "{said}");
    let answer = server.client.get(&program).header(Header::new("Host", "localhost:8420")).dispatch().await;
    let text = answer.into_string().await.unwrap();
    let lines: Vec<&str> = text.lines().collect();
    assert_eq!(lines[0], "segment,to_celsius,kelvins_per_hour,hold_minutes,what");
    // The target and 50 K over it, no faster than 300 K/h on an open part; then the target, and the soak of a wall of 13 mm.
    // 300 of the hot school and 25 K, since the plate holds the seams in.
    assert!(lines[1].starts_with("1,375,300,"), "{text}");
    assert!(lines[2].starts_with("2,325,,13,"), "{text}");
}

#[rocket::async_test]
async fn four_channels_are_kept_apart_and_leave_with_the_jobs_file() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let job = lit(&server).await;
    let (status, kept) =
        post(&server, &job, TOKEN, "0.01,1,151.5\n0.01,2,300.5\n0.01,4,19.5\n0.01,2,300.5\n").await;
    assert_eq!((status, &kept["kept"]), (Status::Ok, &json!(4)), "{kept}");
    let (_, file) = server.get(&format!("/api/jobs/{job}/export")).await;
    let all = file["readings"][0]["readings"].as_array().unwrap().clone();
    let of = |channel: u64| -> Vec<f64> {
        let mine = all.iter().filter(|it| it["channel"].as_u64().unwrap_or(1) == channel);
        mine.map(|it| it["celsius"].as_f64().unwrap()).collect()
    };
    assert_eq!((of(2), of(3), of(4)), (vec![300.5], vec![], vec![19.5]));
    assert!(of(1).contains(&151.5));
    // Opened again, each is where it was.
    let (status, opened) = server.post("/api/import", &file).await;
    assert_eq!(status, Status::Ok, "{opened}");
    let id = opened["id"].as_str().unwrap();
    let (_, again) = server.get(&format!("/api/jobs/{id}/export")).await;
    assert_eq!(again["readings"], file["readings"]);
    // A channel that no logger has is none of a file either.
    let mut wrong = file.clone();
    wrong["readings"][0]["readings"][0]["channel"] = json!(5);
    let (status, said) = server.post("/api/import", &wrong).await;
    assert_eq!(
        (status, &said["problems"][0]["field"]),
        (Status::UnprocessableEntity, &json!("readings[0].readings[0]"))
    );
}

#[rocket::async_test]
async fn a_loggers_file_is_of_the_channel_that_is_said() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let job = lit_job(&server).await;
    let mut body = file("time (s),T [C]\n0,21.25\n1,22.25\n", "kept");
    body["channel"] = json!(3);
    let (status, seen) = bring(&server, &job, &body).await;
    assert_eq!((status, &seen["changed"]), (Status::Ok, &json!(2)), "{seen}");
    let (_, kept) = server.get(&format!("/api/jobs/{job}/export")).await;
    let all = kept["readings"][0]["readings"].as_array().unwrap().clone();
    assert_eq!(all.iter().filter(|it| it["channel"] == json!(3)).count(), 2);
    body["done"] = json!("taken_out");
    let (_, seen) = bring(&server, &job, &body).await;
    assert_eq!(seen["changed"], json!(2));
    body["channel"] = json!(5);
    let (status, said) = bring(&server, &job, &body).await;
    assert_eq!((status, &said["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("channel")));
}

#[rocket::async_test]
async fn an_oven_controller_sees_its_program_and_whether_it_runs() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let job = lit_job(&server).await;
    let (status, oven) = server.get(&format!("/api/jobs/{job}/oven")).await;
    assert_eq!(status, Status::Ok, "{oven}");
    assert!(oven["job_min"].as_f64().is_some_and(|now| now > 0.0), "{oven}");
    assert_eq!((&oven["runs_from_min"], oven["segments"].is_array()), (&Value::Null, true), "{oven}");
    assert_eq!(server.get(&format!("/api/jobs/{}/oven", Uuid::new_v4())).await.0, Status::NotFound);
}
