//! A logger of the shop posts what it reads; bad lines are told at their place, and nothing is made up beside it.

mod common;

use common::Server;
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
    (answer.status(), answer.into_json().await.unwrap_or_default())
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
#[case::a_channel_without_a_place("0.01,2,300.5", "reading[1]")]
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
