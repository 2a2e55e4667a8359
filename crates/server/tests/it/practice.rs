//! Practice: begun, played and over; its secret kept; told apart from the jobs of the shop everywhere.

use crate::common::Server;
use rocket::http::Status;
use serde_json::{Value, json};
use uuid::Uuid;

async fn say(server: &Server, job: Uuid, change: Value) -> (Status, Value) {
    let fact = json!({ "id": Uuid::new_v4(), "at_client_ms": crate::common::NOW_MS, "sender": "bench", "change": change });
    server.post(&format!("/api/jobs/{job}/facts"), &fact).await
}

async fn set(server: &Server, job: Uuid, key: &str, typed: &str) -> (Status, Value) {
    say(server, job, json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" })).await
}

async fn begin(server: &Server, lesson: &str, seed: u32, level: &str) -> (Uuid, Value) {
    let id = Uuid::new_v4();
    let asked = json!({ "id": id, "lesson": lesson, "seed": seed, "level": level });
    let (status, view) = server.post("/api/practice", &asked).await;
    assert_eq!(status, Status::Ok, "{view}");
    (id, view)
}

/// Lit alone, half an hour gone by, filled and covered: nothing tested, nothing drilled.
async fn fill(server: &Server, job: Uuid) {
    assert_eq!(set(server, job, "method.choice", "torch_braze").await.0, Status::Ok);
    let light = json!({ "kind": "light", "speed": 60, "owned": "me", "what": "main" });
    assert_eq!(say(server, job, light).await.0, Status::Ok);
    let (status, view) = say(server, job, json!({ "kind": "pass", "minutes": 30 })).await;
    assert_eq!(status, Status::Ok);
    for _ in 0..view["plan"]["torch"]["planned"].as_u64().unwrap() {
        let bead = json!({ "kind": "torch", "entry": { "kind": "bead" } });
        assert_eq!(say(server, job, bead).await.0, Status::Ok);
    }
    let covered = json!({ "kind": "torch", "entry": { "kind": "covered", "why": "" } });
    assert_eq!(say(server, job, covered).await.0, Status::Ok);
}

#[rocket::async_test]
async fn a_practice_lies_in_its_own_place_and_in_none_of_the_shops() {
    let server = Server::empty().await;
    let (job, view) = begin(&server, "no_stop", 1, "alone").await;
    assert_eq!(view["practice"]["title"], "Hammer bracket");
    fill(&server, job).await;
    let (_, rack) = server.get("/api/rack").await;
    let (_, found) = server.get("/api/rack?find=hammer").await;
    assert_eq!((&rack["total"], &found["total"]), (&json!(0), &json!(0)));
    let (_, place) = server.get("/api/practice").await;
    assert_eq!(place["cases"][0]["id"], json!(job));
    let (_, stores) = server.get("/api/stores").await;
    assert!(!stores.to_string().contains("Hammer"), "{stores}");
    let (_, calendar, _) = server.get_bytes("/api/calendar.ics").await;
    let calendar = format!("{calendar:?}");
    assert!(!calendar.contains("Hammer"), "{calendar}");
    assert_eq!(say(&server, job, json!({ "kind": "end_practice" })).await.0, Status::Ok);
    let (_, wall) = server.get("/api/ledger").await;
    assert_eq!(wall["methods"], json!([]), "hands learn nothing from it");
    assert_eq!(server.get("/api/rack").await.1["total"], 0);
    // A file makes no practice of a job that was none: nothing hot leaves the rack that way.
    let (_, file) = server.get(&format!("/api/jobs/{job}/export")).await;
    let mut late = file.clone();
    let facts = late["facts"].as_array_mut().unwrap();
    facts.swap(0, 1);
    (facts[0]["revision"], facts[1]["revision"]) = (json!(1), json!(2));
    let (status, told) = server.post("/api/import", &late).await;
    assert_eq!(status, Status::UnprocessableEntity, "{told}");
    assert!(told.to_string().contains("from its first word on"), "{told}");
    // As a file it is one, too, and comes back as one.
    let (_, file) = server.get(&format!("/api/jobs/{job}/export")).await;
    assert_eq!(file["facts"][0]["change"]["kind"], "practise");
    let (status, back) = server.post("/api/import", &file).await;
    assert_eq!(status, Status::Ok, "{back}");
    assert_eq!(server.get("/api/rack").await.1["total"], 0);
}

#[rocket::async_test]
async fn what_it_hides_is_said_by_nobody_until_it_is_over() {
    let server = Server::empty().await;
    let (job, view) = begin(&server, "wrong_filler", 7, "with_the_plan").await;
    assert!(view["practice"].get("truth").is_none() && view["practice"].get("sealed").is_none());
    let (status, told) = server.get(&format!("/api/jobs/{job}/practice")).await;
    assert_eq!(
        (status, &told["problems"][0]["message"]),
        (Status::UnprocessableEntity, &json!("it is not over"))
    );
    assert_eq!(server.get(&format!("/api/jobs/{job}/practice/result")).await.0, Status::UnprocessableEntity);
    assert_eq!(say(&server, job, json!({ "kind": "end_practice" })).await.0, Status::Ok);
    let (_, ended) = server.get(&format!("/api/jobs/{job}/practice")).await;
    assert!(ended["truth"][0].as_str().unwrap().starts_with("Ductile"), "{ended}");
    let (status, told) = set(&server, job, "part.mass", "3").await;
    assert_eq!((status, &told["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("practice")));
}

#[rocket::async_test]
async fn its_pad_reads_by_itself_and_a_thermometer_shows_what_it_is() {
    let server = Server::empty().await;
    let (job, _) = begin(&server, "no_stop", 1, "alone").await;
    fill(&server, job).await;
    let reading =
        json!({ "kind": "torch", "entry": { "kind": "reading", "typed": "20", "shown_in": "metric" } });
    let (status, view) = say(&server, job, reading).await;
    assert_eq!(status, Status::Ok, "{view}");
    let log = view["job"]["rounds"][0]["log"].as_array().unwrap();
    let read = log.iter().find(|entry| entry["entry"]["kind"] == "reading").unwrap();
    assert!(read["celsius"].as_f64().unwrap() > 200.0, "not what was typed: {read}");
    assert!(view["job"]["rounds"][0]["readings"].as_array().unwrap().len() > 50);
}

#[rocket::async_test]
async fn played_again_it_is_the_same_case_and_a_better_choice_is_better() {
    let server = Server::empty().await;
    let (job, _) = begin(&server, "no_stop", 1, "alone").await;
    fill(&server, job).await;
    say(&server, job, json!({ "kind": "end_practice" })).await;
    let (_, first) = server.get(&format!("/api/jobs/{job}/practice")).await;
    let odds = |ended: &Value| ended["odds"].as_f64().unwrap();
    // 8 to 2, two tips without a hole: 4 e^-1 to 1.
    assert!((odds(&first) - 0.595_390).abs() < 1e-4, "{first}");
    assert_eq!(first["holds"], false);
    let again = Uuid::new_v4();
    let asked = json!({ "id": again, "level": "alone" });
    let (status, view) = server.post(&format!("/api/jobs/{job}/practice/again"), &asked).await;
    assert_eq!(status, Status::Ok, "{view}");
    let crack = view["job"]["rounds"][0]["cracks"][0]["id"].as_str().unwrap().to_owned();
    set(&server, again, &format!("crack.{crack}.found_by"), "dye").await;
    set(&server, again, "prep.done", "holes,groove").await;
    fill(&server, again).await;
    say(&server, again, json!({ "kind": "end_practice" })).await;
    let (_, second) = server.get(&format!("/api/jobs/{again}/practice")).await;
    assert!(odds(&second) > odds(&first) && second["holds"] == true, "{second}");
    let (_, place) = server.get("/api/practice").await;
    assert_eq!(place["curve"]["past"].as_array().unwrap().len(), 2);
    assert_eq!((&place["lessons"][7]["played"], &place["lessons"][7]["held"]), (&json!(2), &json!(1)));
}

#[rocket::async_test]
async fn a_teachers_case_goes_out_sealed_and_results_come_back_once() {
    let server = Server::empty().await;
    let part = Uuid::new_v4();
    server.post("/api/jobs", &json!({ "id": part })).await;
    for (key, typed) in
        [("part.name", "Sickle bar foot"), ("part.owner", "Low meadow farm"), ("part.mass", "4 kg")]
    {
        set(&server, part, key, typed).await;
    }
    let asked = json!({ "title": "Week 3", "words": "It fell.", "made_by": "", "iron": "malleable", "beyond": 1.5,
        "oil": true, "locked_in": false, "old_bronze": false, "hidden_mm": 30.0, "left_alone": 0.2 });
    let (status, told) = server.post(&format!("/api/jobs/{part}/practice/case"), &asked).await;
    assert_eq!((status, &told["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("id")));
    let crack = Uuid::new_v4();
    let fact =
        json!({ "id": crack, "at_client_ms": crate::common::NOW_MS, "change": { "kind": "add_crack" } });
    server.post(&format!("/api/jobs/{part}/facts"), &fact).await;
    set(&server, part, &format!("crack.{crack}.length"), "40").await;
    let case = asked;
    let at = format!("/api/jobs/{part}/practice/case");
    let (status, file) = server.post(&at, &case).await;
    assert_eq!(status, Status::Ok, "{file}");
    let text = file.to_string();
    assert!(!text.contains("malleable") && !text.contains("Low meadow"), "{text}");
    for (field, wrong) in
        [("title", json!(" ")), ("beyond", json!(9)), ("left_alone", json!(2)), ("hidden_mm", json!(-3))]
    {
        let mut bad = case.clone();
        bad[field] = wrong;
        assert_eq!(server.post(&at, &bad).await.0, Status::UnprocessableEntity, "{field}");
    }
    let job = Uuid::new_v4();
    let taken = |file: &Value| json!({ "id": job, "file": file, "level": "alone" });
    let mut broken = file.clone();
    broken["of"]["sealed"] = json!(file["of"]["sealed"].as_str().unwrap().replacen('a', "b", 1));
    let (status, told) = server.post("/api/practice/case", &taken(&broken)).await;
    assert_eq!((status, &told["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("of.sealed")));
    let (status, view) = server.post("/api/practice/case", &taken(&file)).await;
    assert_eq!((status, &view["practice"]["title"]), (Status::Ok, &json!("Week 3")), "{view}");
    say(&server, job, json!({ "kind": "end_practice" })).await;
    let (_, result) = server.get(&format!("/api/jobs/{job}/practice/result?who=Third%20bench")).await;
    assert_eq!(
        (&result["who"], &result["format"]),
        (&json!("Third bench"), &json!("vanadin-practice-result-1"))
    );
    for _ in 0..2 {
        let (status, read) = server.post("/api/practice/results", &result).await;
        assert_eq!((status, read["results"].as_array().unwrap().len()), (Status::Ok, 1));
    }
    let mut bad = result.clone();
    bad["odds"] = json!(7);
    let (status, told) = server.post("/api/practice/results", &bad).await;
    assert_eq!((status, &told["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("odds")));
}

#[rocket::async_test]
async fn ones_own_repair_becomes_a_case_and_a_practice_does_not() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack").await;
    let total = rack["total"].clone();
    let real = rack["lines"][0]["id"].as_str().unwrap().to_owned();
    let own = Uuid::new_v4();
    let asked = json!({ "id": own, "level": "with_the_plan" });
    let (status, view) = server.post(&format!("/api/jobs/{real}/practice/own"), &asked).await;
    assert_eq!(status, Status::Ok, "{view}");
    assert!(view["practice"]["words"].as_str().unwrap().contains("drawn anew"));
    assert_eq!(server.get("/api/rack").await.1["total"], total);
    let asked = json!({ "id": Uuid::new_v4(), "level": "alone" });
    assert_eq!(
        server.post(&format!("/api/jobs/{own}/practice/own"), &asked).await.0,
        Status::UnprocessableEntity
    );
    assert_eq!(
        server.post(&format!("/api/jobs/{real}/practice/again"), &asked).await.0,
        Status::UnprocessableEntity
    );
    let lesson = json!({ "id": Uuid::new_v4(), "lesson": "none", "level": "alone" });
    let (status, told) = server.post("/api/practice", &lesson).await;
    assert_eq!((status, &told["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("lesson")));
}

/// A free case that is drawn as a frame with its window.
async fn frame(server: &Server, from: u32) -> (Uuid, Value) {
    for seed in from..from + 60 {
        let id = Uuid::new_v4();
        let asked = json!({ "id": id, "lesson": null, "seed": seed, "level": "alone" });
        let (_, view) = server.post("/api/practice", &asked).await;
        if view["practice"]["title"] == "Furnace door frame" {
            return (id, view);
        }
    }
    panic!("one of nine kinds is a frame");
}

/// Heated from there for half an hour, and one bead laid: whether its crack was seen to have run on.
async fn heated(server: &Server, job: Uuid, flame: Value) -> bool {
    assert_eq!(say(server, job, json!({ "kind": "put_flame", "flame": flame })).await.0, Status::Ok);
    let light = json!({ "kind": "light", "speed": 60, "owned": "me", "what": "main" });
    assert_eq!(say(server, job, light).await.0, Status::Ok);
    assert_eq!(say(server, job, json!({ "kind": "pass", "minutes": 30 })).await.0, Status::Ok);
    let bead = json!({ "kind": "torch", "entry": { "kind": "bead" } });
    let (status, view) = say(server, job, bead).await;
    assert_eq!(status, Status::Ok, "{view}");
    let round = &view["job"]["rounds"][0];
    let read = round["readings"].as_array().unwrap();
    assert!(read.len() > 50, "it is read as it warms: {}", read.len());
    let last = read.last().unwrap()["celsius"].as_f64().unwrap();
    assert!(last > 60.0 && last < 720.0, "{last}");
    round["log"].as_array().unwrap().iter().any(|entry| entry["entry"]["seen"] == "ran_on")
}

#[rocket::async_test]
async fn a_frame_heated_on_the_limb_opposite_runs_on_and_is_gone_on_with_from_before_it_was_lit() {
    let server = Server::empty().await;
    let (mut job, mut view) = frame(&server, 0).await;
    let mut ran_on = false;
    for next in [60, 120, 180] {
        for (key, typed) in
            [("method.choice", "arc_nickel"), ("method.school", "warm"), ("heat.source", "weed_burner")]
        {
            assert_eq!(set(&server, job, key, typed).await.0, Status::Ok);
        }
        let rims = &view["plan"]["map"]["faces"][0]["rims"];
        assert_eq!(rims.as_array().unwrap().len(), 2, "its window is cut out");
        let across = rims[0][2]["x_mm"].as_f64().unwrap();
        let opposite =
            json!({ "face": view["job"]["faces"][0]["id"], "at": { "x_mm": across / 2.0, "y_mm": 45.0 } });
        ran_on = heated(&server, job, opposite).await;
        if ran_on {
            break;
        }
        // Of a tougher iron it may hold.
        (job, view) = frame(&server, next).await;
    }
    assert!(ran_on, "of four frames one is of gray iron");
    assert_eq!(say(&server, job, json!({ "kind": "end_practice" })).await.0, Status::Ok);
    let (_, ended) = server.get(&format!("/api/jobs/{job}/practice")).await;
    assert!(ended["truth"].to_string().contains("ran on after"), "{ended}");
    let again = Uuid::new_v4();
    let asked = json!({ "id": again, "level": "alone", "from": "before_the_heat" });
    let (status, played) = server.post(&format!("/api/jobs/{job}/practice/again"), &asked).await;
    assert_eq!(status, Status::Ok, "{played}");
    let round = &played["job"]["rounds"][0];
    assert!(round["lit"].is_null() && round["log"] == json!([]), "{round}");
    assert_eq!(played["plan"]["heat"]["begins"], "Begin at the top, the flame held there.");
    let at = json!({ "x_mm": 1.0, "y_mm": 1.0 });
    let swept = json!({ "face": played["job"]["faces"][0]["id"], "at": at, "swept": true });
    assert!(!heated(&server, again, swept).await);
    assert_eq!(say(&server, again, json!({ "kind": "end_practice" })).await.0, Status::Ok);
    let (_, better) = server.get(&format!("/api/jobs/{again}/practice")).await;
    assert!(!better["truth"].to_string().contains("ran on"), "{better}");
    assert!(better["odds"].as_f64().unwrap() >= ended["odds"].as_f64().unwrap());
}

#[rocket::async_test]
async fn what_was_never_lit_is_played_again_from_its_beginning_only() {
    let server = Server::empty().await;
    let (job, _) = begin(&server, "no_stop", 1, "alone").await;
    let asked = json!({ "id": Uuid::new_v4(), "level": "alone", "from": "before_the_heat" });
    let (status, told) = server.post(&format!("/api/jobs/{job}/practice/again"), &asked).await;
    assert_eq!((status, &told["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("from")));
    let elsewhere = json!({ "face": Uuid::new_v4(), "at": { "x_mm": 1.0, "y_mm": 1.0 } });
    let (status, told) = say(&server, job, json!({ "kind": "put_flame", "flame": elsewhere })).await;
    assert_eq!((status, &told["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("flame.face")));
}
