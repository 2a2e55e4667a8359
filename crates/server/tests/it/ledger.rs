//! The ledger: worked out from what was said of jobs, never typed; one case left out and back.

use std::time::Duration;

use crate::common::Server;
use rocket::http::Status;
use rocket::tokio::time::{interval, timeout};
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
    assert_eq!(before["methods"][0]["drawn"].as_array().unwrap().len(), 12);
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
    assert_eq!(rows.iter().filter(|row| row.last().unwrap() == "no").count(), 1);
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

/// By hand, a lever: 6 x 40 x 9.80665 x 150 / (20 x 12²) = 122.6 MPa; the whole one 163.4 MPa: 75 of 100.
#[rocket::async_test]
async fn coupons_that_were_broken_stand_against_the_whole_iron_and_move_the_joint() {
    let server = Server::empty().await;
    let coupon = |at: u128, joined: Value, load: &str, broke: &str| {
        json!({ "kind": "coupon", "coupon": Uuid::from_u128(at), "name": format!("Bar {at}"), "iron": "gray",
            "joined": joined, "bent": "lever", "broke": broke, "shown_in": "metric",
            "typed": { "width": "20", "thickness": "12 mm", "lever": "150", "load": load, "guess": "30 kg" } })
    };
    let strength = async || {
        let job = Uuid::new_v4();
        server.post("/api/jobs", &json!({ "id": job })).await;
        for (key, typed) in [
            ("part.family", "machine_frame"),
            ("part.era", "before_1949"),
            ("part.mass", "5"),
            ("part.wall", "12"),
            ("part.shape", "solid_block"),
        ] {
            let change = json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" });
            let fact =
                json!({ "id": Uuid::new_v4(), "at_client_ms": crate::common::NOW_MS, "change": change });
            server.post(&format!("/api/jobs/{job}/facts"), &fact).await;
        }
        let (_, way) = server.get(&format!("/api/jobs/{job}/ways/torch_braze")).await;
        way["strength"].as_f64().unwrap()
    };
    let book = strength().await;
    for (field, typed) in [("load", "none"), ("width", "0"), ("lever", "a mile")] {
        let mut bad = coupon(1, json!("torch_braze"), "40 kg", "filler");
        bad["typed"][field] = json!(typed);
        let (status, told) = said(&server, bad).await;
        assert_eq!((status, &told["problems"][0]["field"]), (Status::UnprocessableEntity, &json!(field)));
    }
    let mut stepped = coupon(1, json!("torch_braze"), "20, 30, 40 kg", "filler");
    stepped["school"] = json!("hot");
    assert_eq!(said(&server, stepped).await.0, Status::Ok);
    let (_, wall) = server.get("/api/ledger").await;
    assert!(wall["bench"][0]["words"].as_str().unwrap().starts_with("no whole coupon"), "{wall}");
    assert_eq!(said(&server, coupon(2, Value::Null, "53.333 kg", "casting")).await.0, Status::Ok);
    let (_, wall) = server.get("/api/ledger").await;
    let line = &wall["bench"][0];
    assert!((line["ratio"]["ratio"].as_f64().unwrap() - 0.75).abs() < 1e-4, "{line}");
    assert_eq!(
        line["coupons"][0]["words"],
        "123 MPa, in the filler; stood 30 kg, broke under 40 kg; guessed 30 kg, it took 40 kg"
    );
    let here = strength().await;
    assert!((here - (3.0 * book + 0.75) / 4.0).abs() < 1e-4, "{book} {here}");
    let table = String::from_utf8(server.get_bytes("/api/ledger/coupons.csv").await.2).unwrap();
    assert!(table.contains("gray,torch_braze,hot,122.6,in the filler,30,40,30,yes"), "{table}");
    let out = json!({ "kind": "leave_out", "case": Uuid::from_u128(1), "reason": "it had a pore" });
    assert_eq!(said(&server, out).await.0, Status::Ok);
    assert!((strength().await - book).abs() < 1e-9, "what is left out moves nothing");
}

/// Waits until the ledger says so: the program tells its log what became of a job beside what is asked of it.
async fn until(server: &Server, what: &str, so: impl Fn(&Value) -> bool) -> Value {
    let mut looks = interval(Duration::from_millis(100));
    let seen = timeout(Duration::from_secs(60), async {
        loop {
            looks.tick().await;
            let wall = server.get("/api/ledger").await.1;
            if so(&wall) {
                return wall;
            }
        }
    });
    seen.await.unwrap_or_else(|_| panic!("{what}"))
}

#[rocket::async_test]
async fn what_went_wrong_and_what_moved_is_told_by_the_job_and_taken_back_with_it() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack?find=brewery").await;
    let job: Uuid = rack["lines"][0]["id"].as_str().unwrap().parse().unwrap();
    let wall = server.get("/api/ledger").await.1;
    let faults = wall["faults"].as_array().unwrap().len();
    for (key, typed) in [
        ("method.choice", "torch_braze"),
        ("heat.source", "weed_burner"),
        ("prep.done", "holes,groove,inside,penetrant"),
    ] {
        assert_eq!(server.set(job, key, typed).await.0, Status::Ok);
    }
    let (_, view) = server.say(job, json!({ "kind": "add_mark", "what": "feature" })).await;
    let marks = view["job"]["rounds"][0]["marks"].as_array().unwrap();
    let size = marks.last().unwrap()["id"].as_str().unwrap().to_owned();
    // What has to fit is read before it is lit.
    let (status, refused) = server.say(job, json!({ "kind": "light", "speed": 1 })).await;
    assert_eq!(status, Status::UnprocessableEntity, "{refused}");
    assert!(refused.to_string().contains("Not read before the torch"), "{refused}");
    for (field, typed) in [("kind", "bore"), ("nominal", "25"), ("before", "25.02")] {
        assert_eq!(server.set(job, &format!("mark.{size}.{field}"), typed).await.0, Status::Ok);
    }
    let (status, view) = server.say(job, json!({ "kind": "light", "speed": 1 })).await;
    assert_eq!(status, Status::Ok, "{view}");
    let dirty =
        json!({ "kind": "torch", "entry": { "kind": "trouble", "seen": "no_flow", "cause": "dirty" } });
    let (status, view) = server.say(job, dirty).await;
    assert_eq!(status, Status::Ok, "{view}");
    let log = view["job"]["rounds"][0]["log"].as_array().unwrap();
    let fact = log.last().unwrap()["fact"].as_str().unwrap().to_owned();
    let odds = server.get(&format!("/api/jobs/{job}/odds-moved")).await.1;
    assert_eq!(odds["moved"]["fact"], json!(fact), "{odds}");
    server.set(job, &format!("mark.{size}.cold"), "24.9").await;
    let sizes = |wall: &Value| {
        let lines = wall["learned"].as_array().unwrap();
        let shape = lines.iter().filter(|it| it["name"].to_string().contains("sizes moved"));
        shape.map(|it| it["values"].as_array().unwrap().len()).sum::<usize>()
    };
    let wall = until(&server, "it is told", |wall| {
        sizes(wall) == 3 && wall["faults"].as_array().unwrap().len() > faults
    })
    .await;
    let line = wall["faults"].as_array().unwrap().iter().find(|it| it["seen"] == "no_flow").unwrap();
    assert_eq!(line["causes"][0], json!({ "words": "The surface is dirty", "times": 1 }), "{line}");
    // By hand: 0.12, and of the sample's lever 0.14 and 0.2.
    let shape =
        wall["learned"].as_array().unwrap().iter().find(|it| it["name"].to_string().contains("moved"));
    assert_eq!(shape.unwrap()["words"], "0.15 mm on average, 0.2 mm the most: from 3 sizes");
    // Read back as any other program would.
    let rows = async |table: &str| {
        let text = String::from_utf8(server.get_bytes(&format!("/api/ledger/{table}")).await.2).unwrap();
        let mut table = csv::Reader::from_reader(text.as_bytes());
        table
            .records()
            .map(|row| row.unwrap().iter().map(str::to_owned).collect())
            .collect::<Vec<Vec<String>>>()
    };
    let dirty = ["It balls up and does not wet", "The surface is dirty", "Torch braze", "yes"];
    assert!(rows("faults.csv").await.iter().any(|row| row == &dirty), "{:?}", rows("faults.csv").await);
    let moved: Vec<String> = rows("moved.csv").await.into_iter().map(|row| row[2].clone()).collect();
    assert!(moved.len() == 3 && moved.contains(&"-0.120".to_owned()), "{moved:?}");
    // Struck and emptied it counts no more.
    let strike = json!({ "kind": "strike", "target": fact, "reason": "the flame was out" });
    assert_eq!(server.say(job, strike).await.0, Status::Ok);
    server.set(job, &format!("mark.{size}.cold"), "").await;
    until(&server, "it is taken back", |wall| {
        sizes(wall) == 2 && wall["faults"].as_array().unwrap().len() == faults
    })
    .await;
}

#[rocket::async_test]
async fn scrap_that_was_done_first_is_told_by_the_job_and_taken_back_with_it() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack?find=brewery").await;
    let job: Uuid = rack["lines"][0]["id"].as_str().unwrap().parse().unwrap();
    let (_, view) = server.set(job, "method.choice", "tig_braze_si").await;
    let lay_out = view["plan"]["torch"]["lay_out"].as_array().unwrap();
    let scrap = |it: &&Value| it["words"].as_str().unwrap().starts_with("A piece of scrap done first");
    let step = lay_out.iter().find(scrap).unwrap()["step"].clone();
    let practice = |wall: &Value| {
        let lines = wall["learned"].as_array().unwrap();
        let line = lines.iter().find(|it| it["name"] == "TIG braze, silicon bronze, practice");
        line.map(|line| line["words"].as_str().unwrap().to_owned())
    };
    assert_eq!(practice(&server.get("/api/ledger").await.1), None);
    let tick = |done: bool| json!({ "kind": "tick", "step": step, "done": done });
    assert_eq!(server.say(job, tick(true)).await.0, Status::Ok);
    let wall = until(&server, "it is told", |wall| practice(wall).is_some()).await;
    let words = "0.5 of the 5 repairs that make it practised: from 1 piece of scrap";
    assert_eq!(practice(&wall).unwrap(), words);
    let (_, cases) =
        server.get("/api/ledger/cases?of=learned&line=TIG%20braze,%20silicon%20bronze,%20practice").await;
    assert_eq!(cases["cases"][0]["job"], json!(job), "{cases}");
    // It was steel: left out with its reason it counts no more.
    let out = json!({ "kind": "leave_out", "case": cases["cases"][0]["case"], "reason": "it was steel" });
    assert_eq!(said(&server, out).await.0, Status::Ok);
    let (_, wall) = server.get("/api/ledger").await;
    assert_eq!(practice(&wall), None, "{wall}");
    let left_out = wall["left_out"].as_array().unwrap().last().unwrap();
    assert!(left_out["name"].as_str().unwrap().starts_with("a piece of scrap, "), "{left_out}");
    let back = json!({ "kind": "let_in", "case": cases["cases"][0]["case"] });
    assert_eq!(said(&server, back).await.0, Status::Ok);
    assert_eq!(server.say(job, tick(false)).await.0, Status::Ok);
    until(&server, "it is taken back", |wall| practice(wall).is_none()).await;
}

#[rocket::async_test]
async fn what_was_really_used_is_told_by_the_job_and_taken_back_with_it() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack?find=brewery").await;
    let job: Uuid = rack["lines"][0]["id"].as_str().unwrap().parse().unwrap();
    for (key, typed) in [
        ("method.choice", "torch_braze"),
        ("heat.source", "weed_burner"),
        ("prep.done", "holes,groove,inside,penetrant"),
    ] {
        assert_eq!(server.set(job, key, typed).await.0, Status::Ok);
    }
    let used = |typed: &str| json!({ "kind": "use", "what": "bronze", "size_mm": 3.2, "typed": typed });
    let (status, early) = server.say(job, used("3")).await;
    assert_eq!((status, &early["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("typed")));
    let (status, view) = server.say(job, json!({ "kind": "light", "speed": 1 })).await;
    assert_eq!(status, Status::Ok, "{view}");
    let lines = view["plan"]["hand_over"]["really"]["lines"].as_array().unwrap();
    let rods = lines.iter().find(|it| it["what"] == "bronze").unwrap_or_else(|| panic!("{lines:?}"));
    let planned = rods["planned"].as_f64().unwrap();
    let typed = format!("{}", planned + 3.0);
    let change = json!({ "kind": "use", "what": "bronze", "size_mm": rods["size_mm"], "typed": typed });
    let cases = |wall: &Value| {
        let lines = wall["learned"].as_array().unwrap();
        let of = lines.iter().filter(|it| it["name"] == "Low-fuming bronze, used");
        of.map(|it| it["values"].as_array().unwrap().len()).sum::<usize>()
    };
    let before = cases(&server.get("/api/ledger").await.1);
    let (status, view) = server.say(job, change.clone()).await;
    assert_eq!(status, Status::Ok, "{view}");
    until(&server, "it is told", |wall| cases(wall) == before + 1).await;
    let text = String::from_utf8(server.get_bytes("/api/ledger/used.csv").await.2).unwrap();
    let mut table = csv::Reader::from_reader(text.as_bytes());
    let rows: Vec<csv::StringRecord> = table.records().map(Result::unwrap).collect();
    let of_this = |row: &&csv::StringRecord| {
        let figure = |at: usize| row[at].parse::<f64>().unwrap();
        &row[0] == "bronze" && (figure(2) - planned).abs() < 1e-3 && (figure(3) - planned - 3.0).abs() < 1e-3
    };
    assert_eq!(&rows.iter().find(of_this).unwrap_or_else(|| panic!("{rows:?}"))[4], "yes");
    let last = view["log"].as_array().and_then(|log| log.last().cloned());
    assert!(last.is_none_or(|it| it.to_string().contains("Used")), "it is told in the log");
    let mut empty = change;
    empty["typed"] = json!("");
    assert_eq!(server.say(job, empty).await.0, Status::Ok);
    until(&server, "it is taken back", |wall| cases(wall) == before).await;
}

#[rocket::async_test]
async fn it_is_asked_in_words_and_each_line_opens_on_its_cases() {
    let server = Server::empty().await;
    let told = async |at: u128, became: &str, burdens: &[&str]| {
        let how = json!({ "school": "hot", "place": "carries", "wall_mm": 12.0, "preheat_c": 310.0,
            "rod": "RBCuZn-C bronze", "rod_mm": 3.2, "burdens": burdens, "price": 120.0, "currency": "\u{a3}",
            "hands_hours": 3.0 });
        let change = json!({ "kind": "became", "job": Uuid::from_u128(at), "lit": Uuid::from_u128(at),
            "name": format!("Lever {at}"), "method": "torch_braze", "variant": "usual", "iron": "gray",
            "days": 365.0, "became": became, "shift": 0.0, "given": 0.8, "handed": 0.6, "how": how });
        assert_eq!(said(&server, change).await.0, Status::Ok);
    };
    for at in 1..=8 {
        told(at, "holds", &[]).await;
    }
    for at in 9..=12 {
        told(at, "failed", &["not_peened"]).await;
    }
    let (status, answer) = server.get("/api/ledger/ask?words=does%20peening%20help%20here%3F").await;
    assert_eq!(
        (status, &answer["said"]),
        (Status::Ok, &json!("Peening helps here: 8 of 8 held with it, 0 of 4 without."))
    );
    let of_it = "/api/ledger/cases?of=split&line=Not%20done&words=does%20peening%20help%20here%3F";
    let (_, cases) = server.get(of_it).await;
    let names: Vec<&str> =
        cases["cases"].as_array().unwrap().iter().map(|it| it["name"].as_str().unwrap()).collect();
    assert_eq!(names, ["Lever 9", "Lever 10", "Lever 11", "Lever 12"]);
    let (_, wall) = server.get("/api/ledger").await;
    // 8 of 12 held; given 0.6 when they were handed over.
    assert_eq!(wall["heading"], "12 repairs; what is given 60, holds 67 times");
    let set = &wall["settings"][0];
    let line =
        format!("{}: {}: {}", "Torch braze", set["on"].as_str().unwrap(), set["set"].as_str().unwrap());
    for (of, line) in [("held", "torch_braze"), ("split", "Nothing of it"), ("setting", line.as_str())] {
        let line = line.replace(' ', "%20").replace('°', "%C2%B0");
        let (status, cases) = server.get(&format!("/api/ledger/cases?of={of}&line={line}")).await;
        assert_eq!(status, Status::Ok, "{of} {line}");
        assert!(cases["cases"].as_array().unwrap().len() >= 8, "{of}: {cases}");
    }
    assert_eq!(server.get("/api/ledger/cases?of=held&line=magic").await.0, Status::NotFound);
    let long = "x".repeat(201);
    let (status, told) = server.get(&format!("/api/ledger/ask?words={long}")).await;
    assert_eq!((status, &told["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("words")));
    let table = String::from_utf8(server.get_bytes("/api/ledger/repairs.csv").await.2).unwrap();
    let mut rows = csv::Reader::from_reader(table.as_bytes());
    let head: Vec<String> = rows.headers().unwrap().iter().map(str::to_owned).collect();
    let at = |name: &str| head.iter().position(|known| known == name).unwrap();
    let last = rows.records().last().unwrap().unwrap();
    assert_eq!((&last[at("burdens")], &last[at("wall_mm")], &last[at("hands_h")]), ("not_peened", "12", "3"));
}

#[rocket::async_test]
async fn where_a_coupon_broke_is_kept_as_a_picture() {
    let server = Server::empty().await;
    let coupon = Uuid::from_u128(5);
    let path = format!("/api/ledger/coupons/{coupon}/picture");
    let bytes = std::fs::read("sample/lever-before.jpg").unwrap();
    assert_eq!(server.post_bytes(&path, bytes.clone()).await.0, Status::NotFound, "there is no such coupon");
    let word = json!({ "kind": "coupon", "coupon": coupon, "name": "Bar 5", "iron": "gray", "joined": null,
        "bent": "lever", "broke": "casting", "shown_in": "metric",
        "typed": { "width": "20", "thickness": "12", "lever": "150", "load": "40" } });
    assert_eq!(said(&server, word).await.0, Status::Ok);
    let pictured = async || server.get("/api/ledger").await.1["bench"][0]["coupons"][0]["pictured"].clone();
    assert_eq!(pictured().await, json!(false));
    assert_eq!(server.post_bytes(&path, b"no picture".to_vec()).await.0, Status::UnprocessableEntity);
    assert_eq!(server.post_bytes(&path, bytes).await.0, Status::NoContent);
    assert_eq!(pictured().await, json!(true));
    for end in ["", "/small"] {
        let (status, kind, jpeg) = server.get_bytes(&format!("{path}{end}")).await;
        assert_eq!(status, Status::Ok);
        assert!(format!("{kind:?}").contains("jpeg") && jpeg.starts_with(&[0xff, 0xd8]));
    }
    assert_eq!(server.get(&format!("/api/ledger/coupons/{}/picture", Uuid::nil())).await.0, Status::NotFound);
}
