//! What is stored and what is shown do not part ways: lines of another version, words that cannot be read, readings that
//! come late, a data file that goes.

use std::fs;
use std::os::unix::fs::PermissionsExt;

use rocket::http::{ContentType, Header, Status};
use rstest::rstest;
use serde_json::{Value, json};
use sqlx::sqlite::SqliteConnectOptions;
use sqlx::{Connection, SqliteConnection};
use uuid::Uuid;
use vanadin::keep::restore;

use crate::common::{Chance, Server, set};

async fn write_to(server: &Server, what: &'static str) {
    let file = server.folder.path().join("vanadin.sqlite");
    let mut on = SqliteConnection::connect_with(&SqliteConnectOptions::new().filename(file)).await.unwrap();
    sqlx::query(what).execute(&mut on).await.unwrap();
    on.close().await.unwrap();
}

async fn say_of_the_shop(server: &Server, key: &str, typed: &str) -> (Status, Value) {
    server.post("/api/shop", &json!({ "change": set(key, typed) })).await
}

async fn lines(server: &Server) -> Vec<String> {
    let (status, rack) = server.get("/api/rack").await;
    assert_eq!(status, Status::Ok, "{rack}");
    let mut names: Vec<String> = rack["lines"]
        .as_array()
        .unwrap()
        .iter()
        .map(|line| line["name"].as_str().unwrap().to_owned())
        .collect();
    names.sort();
    names
}

#[rstest]
#[case::a_line(
    "update rack_line set line = '{\"id\":1}' where rowid in (select rowid from rack_line limit 2)"
)]
#[case::no_text("update rack_line set line = ''")]
#[case::how_it_stands("update rack_line set standings = '{}'")]
#[case::its_turn("update rack_line set standings = '[]', turns_ms = 1")]
#[case::what_it_asks("update rack_line set asks = '{\"name\":3}', build = ''")]
#[test_attr(rocket::async_test)]
async fn a_line_of_another_version_is_made_anew_and_hides_no_other(#[case] what: &'static str) {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let before = lines(&server).await;
    assert_eq!(before.len(), 8);
    write_to(&server, what).await;
    assert_eq!(lines(&server).await, before, "at once");
    assert_eq!(server.get("/api/stores").await.0, Status::Ok);
    write_to(&server, what).await;
    let server = server.again().await;
    assert_eq!(lines(&server).await, before, "and after a start");
}

#[rstest]
#[case::a_word_from_the_future("update shop_fact set change = '{\"kind\":\"lent\"}' where revision = 2")]
#[case::the_last_one(
    "update shop_fact set change = '{' where revision = (select max(revision) from shop_fact)"
)]
#[case::its_name("update shop_fact set id = '?' where revision = (select max(revision) from shop_fact)")]
#[case::no_time("update shop_fact set understood = '{' where revision = 2")]
#[test_attr(rocket::async_test)]
async fn what_cannot_be_read_of_the_shop_is_shown_and_the_next_word_is_taken(#[case] what: &'static str) {
    let server = Server::empty().await;
    for (key, typed) in [("shop.name", "Weir"), ("shop.ambient", "12 C"), ("shop.currency", "kr")] {
        assert_eq!(say_of_the_shop(&server, key, typed).await.0, Status::Ok);
    }
    write_to(&server, what).await;
    let server = server.again().await;
    let (status, shop) = server.get("/api/shop").await;
    assert_eq!((status, &shop["shop"]["name"]), (Status::Ok, &json!("Weir")), "{shop}");
    let readable = what.contains("understood");
    assert_eq!(shop["damaged"].as_array().unwrap().len(), usize::from(!readable), "{}", shop["damaged"]);
    let (status, said) = say_of_the_shop(&server, "shop.rate", "45").await;
    assert_eq!((status, &said["revision"]), (Status::Ok, &json!(4)), "{said}");
    let server = server.again().await;
    assert_eq!(server.get("/api/shop").await.1["shop"]["rate"], 45.0);
}

const KEY: &str = "a-key-of-twenty-letters";

async fn log(server: &Server, job: &str, lines: &str) -> Status {
    let request = server
        .client
        .post(format!("/api/jobs/{job}/readings"))
        .header(ContentType::new("text", "csv"))
        .header(Header::new("Host", "localhost:8420"))
        .header(Header::new("Authorization", format!("Bearer {KEY}")));
    request.body(lines).dispatch().await.status()
}

#[rstest]
#[case::one(1)]
#[case::two(2)]
#[case::three(3)]
#[test_attr(rocket::async_test)]
async fn readings_that_come_late_again_or_unsorted_are_shown_as_they_are_stored(#[case] seed: u64) {
    let mut server = Server::on(tempfile::tempdir().unwrap(), true).await;
    assert_eq!(say_of_the_shop(&server, "shop.logger", KEY).await.0, Status::Ok);
    let (_, rack) = server.get("/api/rack?find=letterpress").await;
    let job = rack["lines"][0]["id"].as_str().unwrap().to_owned();
    let shown = async |server: &Server| {
        let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
        let round = &view["job"]["rounds"][0];
        (round["readings"].clone(), round["others"].clone(), view["plan"]["cooling"].clone())
    };
    let mut chance = Chance(seed);
    for post in 0..8 {
        let lines: Vec<String> = (0..1 + chance.under(6))
            .map(|_| {
                // A tenth of a minute apart: many fall on the same moment, of the same pad or of another.
                let (minutes, channel) = (chance.under(400) as f64 / 10.0, 1 + chance.under(4));
                format!("{minutes},{channel},{}", 100 + chance.under(300))
            })
            .collect();
        assert_eq!(log(&server, &job, &lines.join("\n")).await, Status::Ok);
        let kept = shown(&server).await;
        if post % 2 == 1 {
            server = server.again().await;
            assert_eq!(shown(&server).await, kept, "after {} posts", post + 1);
        }
    }
}

#[rstest]
#[case::the_theme("shop.theme", "daylight")]
#[case::the_name("shop.name", "Weir Lane")]
#[case::a_key_for_the_logger("shop.logger", KEY)]
#[test_attr(rocket::async_test)]
async fn what_no_plan_reads_plans_nothing_anew(#[case] key: &str, #[case] typed: &str) {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack").await;
    for line in rack["lines"].as_array().unwrap() {
        server.get(&format!("/api/jobs/{}", line["id"].as_str().unwrap())).await;
    }
    server.settled().await;
    let before = server.plans_made().await;
    assert_eq!(say_of_the_shop(&server, key, typed).await.0, Status::Ok);
    assert_eq!(lines(&server).await.len(), 8);
    for line in rack["lines"].as_array().unwrap() {
        server.get(&format!("/api/jobs/{}", line["id"].as_str().unwrap())).await;
    }
    assert_eq!(server.plans_made().await, before);
    // What plans do read is read.
    assert_eq!(say_of_the_shop(&server, "shop.ambient", "3 C").await.0, Status::Ok);
    assert_eq!(lines(&server).await.len(), 8);
    assert!(server.plans_made().await >= before + 8);
}

#[rocket::async_test]
async fn a_stick_taken_from_its_shelf_plans_nothing_anew_and_the_last_one_does() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, stores) = server.get("/api/shop").await;
    let items = stores["shop"]["stores"].as_array().unwrap();
    let sticks = items.iter().find(|item| item["kind"] == "stick" && item["amount"] == 2.0).unwrap();
    let amount = format!("store.{}.amount", sticks["id"].as_str().unwrap());
    server.settled().await;
    let before = server.plans_made().await;
    assert_eq!(say_of_the_shop(&server, &amount, "1").await.0, Status::Ok);
    assert_eq!(lines(&server).await.len(), 8);
    assert_eq!(server.plans_made().await, before);
    assert_eq!(say_of_the_shop(&server, &amount, "0").await.0, Status::Ok);
    assert_eq!(lines(&server).await.len(), 8);
    assert!(server.plans_made().await > before, "there is none any more");
}

#[rocket::async_test]
async fn the_key_of_the_logger_is_shown_and_kept_nowhere() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (status, said) = say_of_the_shop(&server, "shop.logger", "short").await;
    assert_eq!((status, &said["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("shop.logger")));
    let (_, said) = say_of_the_shop(&server, "shop.logger", KEY).await;
    assert_eq!(said["logger"], true);
    assert!(!said.to_string().contains(KEY) && !said.to_string().contains("sha256"), "not even its digest");
    // One that was kept as it is, from before.
    write_to(
        &server,
        "update shop_fact set change = '{\"kind\":\"set\",\"key\":\"shop.logger\",\"typed\":\"a-key-of-twenty-letters\",\"shown_in\":\"metric\"}',          understood = '{\"text\":\"a-key-of-twenty-letters\"}' where revision = (select max(revision) from shop_fact)",
    )
    .await;
    let server = server.again().await;
    let (_, rack) = server.get("/api/rack?find=letterpress").await;
    let job = rack["lines"][0]["id"].as_str().unwrap().to_owned();
    assert_eq!(log(&server, &job, "0.1,1,30").await, Status::Ok, "it is the same key");
    let folder = server.folder.path().to_owned();
    let mut on = SqliteConnection::connect_with(
        &SqliteConnectOptions::new().filename(folder.join("vanadin.sqlite")).read_only(true),
    )
    .await
    .unwrap();
    let kept: i64 =
        sqlx::query_scalar("select count(*) from shop_fact where instr(change || understood, ?) > 0")
            .bind(KEY)
            .fetch_one(&mut on)
            .await
            .unwrap();
    assert_eq!(kept, 0);
}

#[rocket::async_test]
async fn a_key_is_guessed_at_five_times_and_then_waits() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack?find=letterpress").await;
    let job = rack["lines"][0]["id"].as_str().unwrap().to_owned();
    for _ in 0..5 {
        assert_eq!(log(&server, &job, "0.1,1,30").await, Status::Unauthorized);
    }
    assert_eq!(log(&server, &job, "0.1,1,30").await, Status::TooManyRequests);
}

#[rocket::async_test]
async fn what_is_kept_is_its_owners_alone() {
    let folder = tempfile::tempdir().unwrap();
    fs::set_permissions(folder.path(), fs::Permissions::from_mode(0o755)).unwrap();
    let server = Server::on(folder, true).await;
    vanadin::keep::keep_daily(server.folder.path(), crate::common::NOW_MS).await.unwrap();
    let mode = |path: &std::path::Path| fs::metadata(path).unwrap().permissions().mode() & 0o777;
    assert_eq!(mode(server.folder.path()), 0o700);
    let copies = server.folder.path().join("copies");
    assert_eq!(mode(&copies), 0o700);
    let all = [server.folder.path(), &copies].into_iter().flat_map(|folder| fs::read_dir(folder).unwrap());
    let files: Vec<_> = all.map(|entry| entry.unwrap().path()).filter(|path| path.is_file()).collect();
    assert!(files.len() >= 4, "{files:?}");
    for file in files {
        assert_eq!(mode(&file), 0o600, "{}", file.display());
    }
}

#[rocket::async_test]
async fn a_copy_that_is_put_back_beside_what_was_written_last_is_the_copy() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    server.set(job, "part.name", "Of the copy").await;
    let copies = tempfile::tempdir().unwrap();
    let copy = copies.path().join("copy.sqlite");
    vanadin::keep::backup(server.folder.path(), &copy).await.unwrap();
    server.set(job, "part.name", "Of later").await;
    // As after a kill: what was written last still lies beside the file. Then the file itself is gone.
    let torn = tempfile::tempdir().unwrap();
    let wal = "vanadin.sqlite-wal";
    fs::copy(server.folder.path().join(wal), torn.path().join(wal)).unwrap();
    assert!(fs::metadata(torn.path().join(wal)).unwrap().len() > 0);
    let aside = restore(torn.path(), &copy).await.unwrap().expect("what was written last is moved aside");
    assert!(aside.with_file_name(format!("{}-wal", aside.file_name().unwrap().display())).exists());
    let back = Server::on(torn, false).await;
    assert_eq!(lines(&back).await, ["Of the copy"]);
}

#[rstest]
#[case::a_copy("copies/vanadin-2026-11-01.sqlite")]
#[case::what_was_moved_aside("vanadin.sqlite.before-1")]
#[case::what_was_not_yet_put_back("vanadin.sqlite.restored")]
#[case::what_was_written_last("vanadin.sqlite-wal")]
#[test_attr(rocket::async_test)]
async fn a_folder_that_was_a_shop_is_no_new_one(#[case] left: &str) {
    let folder = tempfile::tempdir().unwrap();
    fs::create_dir_all(folder.path().join("copies")).unwrap();
    fs::write(folder.path().join(left), "left").unwrap();
    let refused = Server::try_on(folder.path()).await.expect_err("it was taken for a new shop").to_string();
    assert!(refused.contains("vanadin restore"), "{refused}");
}

#[rstest]
#[case::the_file(false)]
#[case::another_in_its_place(true)]
#[test_attr(rocket::async_test)]
async fn into_a_file_that_is_gone_nothing_is_said(#[case] replaced: bool) {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let file = server.folder.path().join("vanadin.sqlite");
    let copy = server.folder.path().join("elsewhere.sqlite");
    fs::copy(&file, &copy).unwrap();
    fs::remove_file(&file).unwrap();
    if replaced {
        fs::rename(&copy, &file).unwrap();
    }
    let (status, said) = server.set(job, "part.name", "Lost").await;
    assert_eq!(status, Status::ServiceUnavailable, "{said}");
    assert!(said["problems"][0]["would_be_right"].as_str().unwrap().contains("restore"), "{said}");
}

#[rocket::async_test]
async fn copies_of_days_to_come_leave_those_that_were_made_since() {
    let server = Server::empty().await;
    let folder = server.folder.path();
    let day = 86_400_000;
    for ahead in 100..107 {
        assert!(vanadin::keep::keep_daily(folder, crate::common::NOW_MS + ahead * day).await.unwrap());
    }
    for since in 0..3 {
        assert!(vanadin::keep::keep_daily(folder, crate::common::NOW_MS + since * day).await.unwrap());
    }
    let mut names: Vec<String> = fs::read_dir(folder.join("copies"))
        .unwrap()
        .map(|entry| entry.unwrap().file_name().into_string().unwrap())
        .collect();
    names.sort();
    assert_eq!(names.iter().filter(|name| name.starts_with("ahead-")).count(), 7, "{names:?}");
    // Hand-worked: the clock begins on 2027-01-15.
    let own: Vec<&String> = names.iter().filter(|name| name.starts_with("vanadin-")).collect();
    assert_eq!(own, ["vanadin-2027-01-15.sqlite", "vanadin-2027-01-16.sqlite", "vanadin-2027-01-17.sqlite"]);
}

#[rocket::async_test]
async fn a_picture_of_which_nothing_may_be_said_is_not_kept() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let picture = Uuid::new_v4();
    let path =
        format!("/api/jobs/{job}/pictures/{picture}?at_client_ms=4000000000000&who={}", "x".repeat(200));
    let jpeg = include_bytes!("../../sample/frame-small.jpg");
    let request =
        server.client.post(path).header(ContentType::Binary).header(Header::new("Host", "localhost:8420"));
    assert_eq!(request.body(&jpeg[..]).dispatch().await.status(), Status::UnprocessableEntity);
    let (status, ..) = server.get_bytes(&format!("/api/jobs/{job}/pictures/{picture}")).await;
    assert_eq!(status, Status::NotFound);
}

#[rocket::async_test]
async fn a_clock_that_is_wrong_and_known_is_put_right_before_it_is_judged() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let say = async |at_ms: i64, sent_ms: Value| {
        let fact = json!({ "id": Uuid::new_v4(), "at_client_ms": at_ms, "sent_at_client_ms": sent_ms,
            "change": set("part.name", &format!("at {at_ms}")) });
        server.post(&format!("/api/jobs/{job}/facts"), &fact).await.0
    };
    // A phone that has forgotten the year, and says so.
    assert_eq!(say(1_000, json!(61_000)).await, Status::Ok);
    assert_eq!(say(1_000, Value::Null).await, Status::UnprocessableEntity, "nobody knows when that was");
    // Far ahead, put right by itself; what is put right into no century is refused.
    assert_eq!(say(9_000_000_000_000, json!(9_000_000_000_000_i64)).await, Status::Ok);
    assert_eq!(say(7_000_000_000_000, json!(1_000)).await, Status::UnprocessableEntity);
    let (_, file) = server.get(&format!("/api/jobs/{job}/export")).await;
    assert_eq!(server.post("/api/import", &file).await.0, Status::Ok, "its own file is taken");
}
