//! An end that was found again, better, is kept in the shop's log by the program, once.

use std::time::Duration;

use crate::common::Server;
use rocket::http::Status;
use rocket::tokio::time::{interval, timeout};
use serde_json::{Value, json};
use uuid::Uuid;

async fn fact(server: &Server, job: Uuid, change: Value) -> String {
    let (status, view) = server.say(job, change.clone()).await;
    assert_eq!(status, Status::Ok, "{change}: {view}");
    view["fact"].as_str().map_or_else(String::new, str::to_owned)
}

fn line(points: &[(f64, f64)]) -> Value {
    let points: Vec<Value> = points.iter().map(|(x, y)| json!({ "x_mm": x, "y_mm": y })).collect();
    json!({ "kind": "line", "points": points })
}

async fn tips(server: &Server) -> Vec<Value> {
    let (_, shop) = server.get("/api/shop").await;
    shop["shop"]["tips"].as_array().unwrap().clone()
}

#[rocket::async_test]
async fn what_dye_showed_of_an_end_seen_by_eye_is_learned_once_and_again_when_it_is_corrected() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let (_, view) = server.say(job, json!({ "kind": "add_crack" })).await;
    let crack = view["job"]["rounds"][0]["cracks"][0]["id"].as_str().unwrap().to_owned();
    let (_, view) = server.say(job, json!({ "kind": "add_face" })).await;
    let face = view["job"]["faces"][0]["id"].as_str().unwrap().to_owned();
    for (key, typed) in [
        (format!("face.{face}.outline"), "rectangle"),
        (format!("face.{face}.across"), "300"),
        (format!("face.{face}.down"), "200"),
        (format!("crack.{crack}.found_by"), "eye"),
        (format!("crack.{crack}.end_a"), "tip"),
        (format!("crack.{crack}.end_b"), "tip"),
    ] {
        let (status, said) = server.set(job, &key, typed).await;
        assert_eq!(status, Status::Ok, "{key}: {said}");
    }
    let draw = |points: &[(f64, f64)]| {
        let drawn = json!([{ "mark": crack, "face": face, "shape": line(points) }]);
        json!({ "kind": "draw", "drawn": drawn })
    };
    fact(&server, job, draw(&[(100.0, 80.0), (160.0, 80.0)])).await;
    server.set(job, &format!("crack.{crack}.found_by"), "dye").await;
    fact(&server, job, draw(&[(97.0, 80.0), (164.0, 80.0)])).await;
    let until = async |mm: [f64; 2]| {
        let mut looks = interval(Duration::from_millis(100));
        let learned = timeout(Duration::from_secs(60), async {
            loop {
                looks.tick().await;
                let found = tips(&server).await;
                let read: Vec<f64> = found.iter().map(|tip| tip["beyond_mm"].as_f64().unwrap()).collect();
                if read.len() == 2 && read.iter().zip(mm).all(|(a, b)| (a - b).abs() < 1e-9) {
                    return found;
                }
            }
        });
        learned.await.expect("it is learned")
    };
    // Hand-worked: 3 and 4 mm further on, and 0.7 that dye leaves beyond
    let found = until([3.7, 4.7]).await;
    assert!(found.iter().all(|tip| tip["found_by"] == "eye"));
    fact(&server, job, draw(&[(97.0, 80.0), (163.0, 80.0)])).await;
    until([3.7, 3.7]).await;
}
