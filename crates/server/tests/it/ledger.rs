//! The ledger: worked out from what was said of jobs, never typed; one case left out and back.

use crate::common::Server;
use rocket::http::Status;
use serde_json::{Value, json};
use uuid::Uuid;

async fn became(server: &Server, at: u128, became: &str, given: f64) -> Status {
    let change = json!({ "kind": "became", "job": Uuid::from_u128(at), "lit": Uuid::from_u128(at),
        "name": format!("Lever {at}"), "method": "torch_braze", "variant": "usual", "iron": "gray",
        "days": 365.0, "became": became, "shift": 0.0, "given": given });
    server.post("/api/shop", &json!({ "id": Uuid::new_v4(), "change": change })).await.0
}

async fn said(server: &Server, change: Value) -> (Status, Value) {
    server.post("/api/shop", &json!({ "id": Uuid::new_v4(), "change": change })).await
}

#[rocket::async_test]
async fn repairs_are_marks_on_their_line_and_one_left_out_comes_back_the_same() {
    let server = Server::empty().await;
    let (_, empty) = server.get("/api/ledger").await;
    assert_eq!(
        (&empty["heading"], &empty["methods"]),
        (&json!("No repair has been lit here yet"), &json!([]))
    );
    for at in 1..=12 {
        let outcome = if at % 4 == 0 { "failed" } else { "holds" };
        assert_eq!(became(&server, at, outcome, 0.8).await, Status::Ok);
    }
    let (_, before) = server.get("/api/ledger").await;
    assert_eq!(before["heading"], "12 repairs; what is given 80, holds 75 times");
    assert_eq!(before["methods"][0]["marks"].as_array().unwrap().len(), 12);
    let case = Uuid::from_u128(4);
    let (status, told) = said(&server, json!({ "kind": "leave_out", "case": case, "reason": " " })).await;
    assert_eq!((status, &told["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("reason")));
    let (status, told) =
        said(&server, json!({ "kind": "leave_out", "case": Uuid::from_u128(99), "reason": "x" })).await;
    assert_eq!((status, &told["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("case")));
    let reason = json!({ "kind": "leave_out", "case": case, "reason": "a lorry backed into it" });
    assert_eq!(said(&server, reason).await.0, Status::Ok);
    let (_, without) = server.get("/api/ledger").await;
    assert_eq!(without["methods"][0]["asked"], 11);
    assert_eq!(without["left_out"][0]["reason"], "a lorry backed into it");
    let (_, table) = (0, server.get_bytes("/api/ledger/repairs.csv").await.2);
    let table = String::from_utf8(table).unwrap();
    let rows: Vec<Vec<String>> = csv::Reader::from_reader(table.as_bytes())
        .records()
        .map(|row| row.unwrap().iter().map(str::to_owned).collect())
        .collect();
    assert_eq!(rows.len(), 12);
    assert_eq!(rows.iter().filter(|row| row[7] == "no").count(), 1);
    assert!(!table.contains("Lever"), "no names: {table}");
    assert_eq!(said(&server, json!({ "kind": "let_in", "case": case })).await.0, Status::Ok);
    assert_eq!(server.get("/api/ledger").await.1, before);
    assert_eq!(server.get("/api/ledger/secrets.csv").await.0, Status::NotFound);
}

#[rocket::async_test]
async fn what_was_left_out_moves_no_odds_of_a_new_job() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    server.set(job, "method.override", "torch_braze").await;
    let odds = async || {
        let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
        let ways = view["plan"]["methods"]["contenders"].as_array().unwrap().clone();
        ways.into_iter().find(|it| it["way"]["method"] == "torch_braze").unwrap()["odds"]["mean"].clone()
    };
    let start = odds().await;
    assert_eq!(became(&server, 1, "failed", 0.8).await, Status::Ok);
    let after = odds().await;
    assert!(after.as_f64() < start.as_f64(), "{start} {after}");
    let out = json!({ "kind": "leave_out", "case": Uuid::from_u128(1), "reason": "dropped" });
    assert_eq!(said(&server, out).await.0, Status::Ok);
    assert_eq!(odds().await, start);
}
