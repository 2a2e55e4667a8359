//! What the iron's station asks over the wire: answers, as if, measured tests, hard spots.

use crate::common::Server;
use rocket::http::Status;
use serde_json::{Value, json};
use uuid::Uuid;

async fn job(server: &Server, words: &str) -> Uuid {
    let (_, rack) = server.get(&format!("/api/rack?find={words}")).await;
    rack["lines"][0]["id"].as_str().unwrap().parse().unwrap()
}

#[rocket::async_test]
async fn each_answer_says_what_it_would_change_and_nothing_is_stored() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let malt = job(&server, "malt").await;
    let (_, before) = server.get(&format!("/api/jobs/{malt}")).await;
    let (status, answers) = server.get(&format!("/api/jobs/{malt}/answers/fracture")).await;
    assert_eq!(status, Status::Ok);
    let answers = answers["answers"].as_array().unwrap();
    assert_eq!(answers.len(), 5);
    // Not every answer changes the plan, and not every one leaves it.
    let changes = |answer: &&Value| !answer["changes"].as_array().unwrap().is_empty();
    assert!((1..5).contains(&answers.iter().filter(changes).count()), "{answers:?}");
    let (_, after) = server.get(&format!("/api/jobs/{malt}")).await;
    assert_eq!((&before["revision"], &before["plan"]), (&after["revision"], &after["plan"]));
    let (status, _) = server.get(&format!("/api/jobs/{malt}/answers/taste")).await;
    assert_eq!(status, Status::NotFound);
}

#[rocket::async_test]
async fn the_plan_as_if_is_that_of_one_iron_and_the_belief_stays() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let malt = job(&server, "malt").await;
    let (_, view) = server.get(&format!("/api/jobs/{malt}")).await;
    let (status, plan) = server.get(&format!("/api/jobs/{malt}/as-if/steel")).await;
    assert_eq!(status, Status::Ok);
    assert_eq!(plan["iron"]["shares"], view["plan"]["iron"]["shares"]);
    let all_out = |plan: &Value| {
        plan["methods"]["contenders"].as_array().unwrap().iter().all(|c| c["excluded"] == json!(true))
    };
    assert!(all_out(&plan) && !all_out(&view["plan"]));
    let (status, _) = server.get(&format!("/api/jobs/{malt}/as-if/bronze")).await;
    assert_eq!(status, Status::NotFound);
}

#[rocket::async_test]
async fn a_measured_test_is_worked_out_and_a_wrong_one_told_at_its_field() {
    let server = Server::empty().await;
    let lever = server.new_job().await;
    let sound = |shown: &str| {
        json!({ "kind": "measure", "test": "sound", "shown_in": "metric", "confidence": "sure", "spot": "web",
            "typed": { "set_speed": "5920", "caliper": "14", "shown": shown } })
    };
    let (status, answer) = server.say(lever, sound("30")).await;
    assert_eq!((status, &answer["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("shown")));
    let (status, view) = server.say(lever, sound("14.9")).await;
    assert_eq!(status, Status::Ok, "{view}");
    let found = &view["plan"]["iron"]["found"][0];
    assert_eq!(found["words"], "Sound speed: 5562 m/s through 14 mm");
    // Two tabs: what was measured there since is told, not overwritten.
    let (status, answer) = server.say_on(lever, sound("14.8"), json!(0)).await;
    assert_eq!(status, Status::Conflict, "{answer}");
    let (status, _) = server.say_on(lever, sound("14.8"), view["revision"].clone()).await;
    assert_eq!(status, Status::Ok);
}

#[rocket::async_test]
async fn a_hard_spot_goes_on_the_map_and_the_iron_stays() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let malt = job(&server, "malt").await;
    let (_, before) = server.get(&format!("/api/jobs/{malt}")).await;
    let skates = json!({ "kind": "observe", "test": "file", "outcome": "skates", "confidence": "sure", "spot": "rim" });
    let (_, view) = server.say(malt, skates).await;
    let seen = view["plan"]["iron"]["hard_spot"]["fact"].clone();
    assert!(seen.is_string(), "{}", view["plan"]["iron"]["hard_spot"]);
    let hard = json!({ "kind": "add_hard_spot", "spot": "rim", "observed": seen });
    let (status, view) = server.say(malt, hard).await;
    assert_eq!(status, Status::Ok, "{view}");
    let shares = |view: &Value| {
        let shares = view["plan"]["iron"]["shares"].as_array().unwrap();
        shares.iter().map(|share| (share["iron"].clone(), share["share"].clone())).collect::<Vec<_>>()
    };
    assert_eq!(shares(&view), shares(&before));
    assert_eq!(view["job"]["rounds"][0]["hard_spots"][0]["spot"], "rim");
    let strike = json!({ "kind": "strike", "target": view["job"]["rounds"][0]["hard_spots"][0]["id"], "reason": "it bites after all" });
    let (_, view) = server.say(malt, strike).await;
    assert_ne!(shares(&view), shares(&before), "the observation speaks again");
}
