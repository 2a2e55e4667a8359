//! The units of a device: what it is told is told in them, and nobody else is told otherwise.

use std::collections::BTreeMap;

use crate::common::{Server, json_of, set};
use rocket::http::{ContentType, Cookie, Header, Status};
use rstest::rstest;
use serde_json::{Value, json};
use uuid::Uuid;

const COOKIE: &str = "vanadin-units";

async fn get_in(server: &Server, units: &str, path: &str) -> Value {
    let asked = server.client.get(path.to_owned()).cookie(Cookie::new(COOKIE, units.to_owned()));
    let answer = asked.dispatch().await;
    assert_eq!(answer.status(), Status::Ok, "{path}");
    json_of(answer).await.unwrap()
}

async fn shop_has(server: &Server, units: &str) {
    let body = json!({ "id": Uuid::new_v4(), "change": set("shop.units", units) });
    assert_eq!(server.post("/api/shop", &body).await.0, Status::Ok);
}

/// Every text of it and where it stands, but for the clocks, which go on.
fn texts(view: &Value) -> BTreeMap<String, String> {
    fn walk(at: &str, it: &Value, all: &mut BTreeMap<String, String>) {
        match it {
            Value::String(text) => drop(all.insert(at.to_owned(), text.clone())),
            Value::Array(items) => {
                for (no, item) in items.iter().enumerate() {
                    walk(&format!("{at}/{no}"), item, all);
                }
            }
            Value::Object(fields) => {
                for (name, field) in fields.iter().filter(|(name, _)| !name.contains("clock")) {
                    walk(&format!("{at}/{name}"), field, all);
                }
            }
            _ => {}
        }
    }
    let mut all = BTreeMap::new();
    walk("", view, &mut all);
    all
}

/// One system travels: that of the device. By hand: 5/16 x 25.4 = 7.9375.
#[rstest]
#[case::in_millimetres("metric", "7.9", "mm", "kg")]
#[case::in_inches("imperial", "5/16", "in", "lb")]
#[test_attr(rocket::async_test)]
async fn a_field_and_a_figure_are_told_in_one_system(
    #[case] units: &str,
    #[case] wall: &str,
    #[case] length: &str,
    #[case] mass: &str,
) {
    let server = Server::empty().await;
    let job = server.new_job().await;
    server.set(job, "part.wall", "5/16").await;
    server.set(job, "part.mass", "12 kg").await;
    let view = get_in(&server, units, &format!("/api/jobs/{job}")).await;
    let field = &view["fields"]["part.wall"];
    assert_eq!(field["typed"], "5/16");
    assert_eq!(field["shown"], json!({ "number": wall, "unit": length }));
    let figures = view["plan"]["figures"].as_array().unwrap();
    let weight = figures.iter().find(|it| it["id"] == "part.weight").unwrap();
    assert_eq!(weight["shown"]["unit"], mass, "{weight}");
    let other = |it: &Value| it.get("metric").or(it.get("imperial")).is_some();
    assert!(!other(field) && !figures.iter().any(other), "only the units it shows");
}

#[rstest]
#[case::inches_in_a_shop_of_millimetres("metric", "imperial")]
#[case::millimetres_in_a_shop_of_inches("imperial", "metric")]
#[test_attr(rocket::async_test)]
async fn a_device_is_told_what_a_shop_of_its_units_is_told(#[case] shops: &str, #[case] devices: &str) {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    shop_has(&server, shops).await;
    let (_, rack) = server.get("/api/rack").await;
    let ids: Vec<&str> =
        rack["lines"].as_array().unwrap().iter().filter_map(|it| it["id"].as_str()).collect();
    let mut paths: Vec<String> = ["/api/rack", "/api/stores", "/api/blank"].map(str::to_owned).to_vec();
    for id in ids {
        paths.extend(
            ["", "/history", "/answers/spark", "/as-if/ductile"].map(|rest| format!("/api/jobs/{id}{rest}")),
        );
    }
    let mut on_the_device = Vec::new();
    for path in &paths {
        on_the_device.push(texts(&get_in(&server, devices, path).await));
    }
    let mut in_the_shop = Vec::new();
    for path in &paths {
        in_the_shop.push(texts(&server.get(path).await.1));
    }
    shop_has(&server, devices).await;
    let mut told_apart = 0;
    for ((path, on_the_device), in_the_shop) in paths.iter().zip(&on_the_device).zip(&in_the_shop) {
        let of_such_a_shop = texts(&server.get(path).await.1);
        let other: Vec<_> =
            on_the_device.iter().filter(|(at, text)| of_such_a_shop.get(*at) != Some(*text)).collect();
        // What is said of the shop is of its own log.
        let other: Vec<_> = other.into_iter().filter(|(at, _)| !at.contains("revision")).collect();
        assert!(other.is_empty() && on_the_device.len() == of_such_a_shop.len(), "{path}: {other:?}");
        told_apart += usize::from(on_the_device != in_the_shop);
    }
    assert!(told_apart > paths.len() / 2, "{told_apart} of {}", paths.len());
}

#[rocket::async_test]
async fn a_device_keeps_its_units_whatever_the_shop_does() {
    let server = Server::empty().await;
    let chosen = server
        .client
        .post("/api/units")
        .header(ContentType::JSON)
        .header(Header::new("Host", "localhost:8420"))
        .body(r#"{ "units": "imperial" }"#)
        .dispatch()
        .await;
    assert_eq!(chosen.status(), Status::NoContent);
    let cookie = chosen.cookies().get(COOKIE).expect("it is kept on the device").clone();
    assert_eq!((cookie.value(), cookie.path(), cookie.http_only()), ("imperial", Some("/"), Some(true)));
    let units = |view: &Value| (view["shop"]["units"].clone(), view["chose_units"].clone());
    assert_eq!(units(&get_in(&server, "imperial", "/api/shop").await), (json!("imperial"), json!(true)));
    assert_eq!(units(&server.get("/api/shop").await.1), (json!("metric"), json!(false)));
    shop_has(&server, "metric").await;
    assert_eq!(units(&get_in(&server, "imperial", "/api/shop").await), (json!("imperial"), json!(true)));
    // What nobody could have chosen is no choice.
    assert_eq!(units(&get_in(&server, "cubits", "/api/shop").await), (json!("metric"), json!(false)));
}

#[rocket::async_test]
async fn what_is_said_is_answered_in_the_units_of_whoever_says_it() {
    let server = Server::empty().await;
    let id = server.new_job().await;
    let say = async |units: &'static str, key: &str, typed: &str| -> Value {
        let fact = json!({
            "id": Uuid::new_v4(), "at_client_ms": 4_000_000_000_000_i64, "who": "test",
            "change": { "kind": "set", "key": key, "typed": typed, "shown_in": units },
        });
        let answer = server
            .client
            .post(format!("/api/jobs/{id}/facts"))
            .header(ContentType::JSON)
            .header(Header::new("Host", "localhost:8420"))
            .cookie(Cookie::new(COOKIE, units))
            .body(fact.to_string())
            .dispatch()
            .await;
        json_of(answer).await.unwrap()
    };
    let view = say("imperial", "part.mass", "22").await;
    assert_eq!(view["plan"]["part"]["weight_words"], "22 lb");
    let view = say("metric", "part.mass", "10").await;
    assert_eq!(view["plan"]["part"]["weight_words"], "10 kg");
    let view = get_in(&server, "imperial", &format!("/api/jobs/{id}")).await;
    assert_eq!(view["plan"]["part"]["weight_words"], "22 lb");
}

#[rocket::async_test]
async fn asked_again_nothing_is_worked_out_anew() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack?find=brewery").await;
    let path = format!("/api/jobs/{}", rack["lines"][0]["id"].as_str().unwrap());
    server.settled().await;
    get_in(&server, "imperial", &path).await;
    let before = server.plans_made().await;
    get_in(&server, "imperial", &path).await;
    server.get(&path).await;
    assert_eq!(server.plans_made().await, before);
}
