//! The reckoner as a page asks it: sentences in the units of a device, what is typed as people say it.

use crate::common::{Server, json_of, set};
use rocket::http::{ContentType, Cookie, Header, Status};
use serde_json::{Value, json};
use uuid::Uuid;

async fn asked(server: &Server, units: &str, id: &str, blanks: Value) -> (Status, Value) {
    let body = json!({ "blanks": blanks }).to_string();
    let request = server
        .client
        .post(format!("/api/reckoner/{id}"))
        .header(ContentType::JSON)
        .header(Header::new("Host", "localhost:8420"))
        .body(body);
    let answer = request.cookie(Cookie::new("vanadin-units", units.to_owned())).dispatch().await;
    (answer.status(), json_of(answer).await.unwrap())
}

#[rocket::async_test]
async fn a_sentence_is_asked_and_answered_in_the_units_of_the_device() {
    let server = Server::empty().await;
    let (_, all) = server.get("/api/reckoner/imperial").await;
    let sentences = all["calculations"].as_array().unwrap();
    assert!(sentences.len() > 20, "{}", sentences.len());
    let out = sentences.iter().find(|it| it["id"] == "out-of-heat").unwrap();
    let from = out["blanks"].as_array().unwrap().iter().find(|it| it["key"] == "from").unwrap();
    assert_eq!((&from["usual"], &from["unit"]), (&json!("500 \u{b0}F"), &json!("\u{b0}F")));
    let blanks = json!({ "mass": "26 lb 7 oz", "from": "500", "to": "350" });
    let (status, found) = asked(&server, "imperial", "out-of-heat", blanks).await;
    assert_eq!(status, Status::Ok, "{found}");
    assert_eq!(found["figures"][0]["unit"], "minutes");
    assert_eq!(found["understood"]["mass"]["metric"]["number"], "12");
    let page = found.to_string();
    assert!(!found["notes"].to_string().contains("\u{b0}C"), "{page}");
}

#[rocket::async_test]
async fn what_the_shop_has_goes_into_it() {
    let server = Server::empty().await;
    let asked_of = json!({ "wall": "9 mm", "found": "dye" });
    let (_, before) = asked(&server, "metric", "stop-hole", asked_of.clone()).await;
    assert_eq!(before["figures"][0]["metric"]["number"], "4.8");
    let body = json!({ "id": Uuid::new_v4(), "change": set("shop.drills", "3, 6, 8") });
    assert_eq!(server.post("/api/shop", &body).await.0, Status::Ok);
    let (_, after) = asked(&server, "metric", "stop-hole", asked_of).await;
    assert_eq!(after["figures"][0]["metric"]["number"], "6");
}

#[rocket::async_test]
async fn bad_input_is_told_at_its_blank_and_what_is_not_there_is_not_found() {
    let server = Server::empty().await;
    let (status, told) = asked(&server, "metric", "cooling", json!({ "mass": "none", "thick": "5 m" })).await;
    assert_eq!(status, Status::UnprocessableEntity, "{told}");
    let at: Vec<&Value> = told["problems"].as_array().unwrap().iter().map(|it| &it["field"]).collect();
    assert_eq!(at, ["mass", "thick"], "{told}");
    let (status, told) = asked(&server, "metric", "cooling", json!({ "weight": "3" })).await;
    assert_eq!((status, &told["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("weight")));
    let long = "9".repeat(300);
    let (status, _) = asked(&server, "metric", "cooling", json!({ "mass": long })).await;
    assert_eq!(status, Status::UnprocessableEntity);
    assert_eq!(asked(&server, "metric", "perpetual-motion", json!({})).await.0, Status::NotFound);
    assert_eq!(server.get("/api/reckoner/cubits").await.0, Status::NotFound);
}
