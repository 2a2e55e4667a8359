//! A copy of everything, a look at whether it is whole, a copy put back; and databases of before.

use std::fs;
use std::path::Path;

use crate::common::{NOW_MS, Server};
use rocket::http::Status;
use rstest::rstest;
use serde_json::{Value, json};
use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode};
use sqlx::{Connection, SqliteConnection};
use tempfile::TempDir;
use vanadin::keep::{backup, check, keep_daily, restore};

const DAY_MS: i64 = 86_400_000;

fn folder_with(file: &Path) -> TempDir {
    let folder = tempfile::tempdir().unwrap();
    fs::copy(file, folder.path().join("vanadin.sqlite")).unwrap();
    folder
}

async fn names(server: &Server) -> Vec<String> {
    let (_, rack) = server.get("/api/rack").await;
    let name = |line: &Value| line["name"].as_str().unwrap().to_owned();
    let mut names: Vec<String> = rack["lines"].as_array().unwrap().iter().map(name).collect();
    names.sort();
    names
}

async fn write_to(file: &Path, what: &'static str) {
    let options = SqliteConnectOptions::new().filename(file);
    let mut database = SqliteConnection::connect_with(&options).await.unwrap();
    sqlx::query(what).execute(&mut database).await.unwrap();
    database.close().await.unwrap();
}

#[rocket::async_test]
async fn a_copy_taken_while_everybody_writes_holds_what_was_acknowledged_before_it() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let job = server.new_job().await;
    server.set(job, "part.name", "Chute lip").await;
    let copies = tempfile::tempdir().unwrap();
    let to = copies.path().join("copy.sqlite");
    let writing = async {
        for wall in 5..25 {
            let (status, _) = server.set(job, "part.wall", &wall.to_string()).await;
            assert_eq!(status, Status::Ok, "a copy keeps nobody waiting for good");
        }
    };
    let (_, copied) = rocket::tokio::join!(writing, backup(server.folder.path(), &to));
    copied.unwrap();
    let restored = Server::on(folder_with(&to), false).await;
    assert_eq!(names(&restored).await, names(&server).await);
    let again = backup(server.folder.path(), &to).await.expect_err("it wrote over a copy");
    assert!(again.to_string().contains("there already"), "{again}");
}

#[rocket::async_test]
async fn a_copy_is_put_back_and_what_lay_there_is_kept() {
    let server = Server::empty().await;
    server.set(server.new_job().await, "part.name", "Before").await;
    let copies = tempfile::tempdir().unwrap();
    let copy = copies.path().join("copy.sqlite");
    backup(server.folder.path(), &copy).await.unwrap();
    server.set(server.new_job().await, "part.name", "After").await;
    let in_use = restore(server.folder.path(), &copy).await.expect_err("a folder in use was changed");
    assert!(in_use.to_string().contains("another server"), "{in_use}");
    // Stopped for good, as the program does: what only is dropped closes its files in its own time, and
    // may take one away that is being moved aside.
    let again = Server::after(server.stopped().await).await;
    assert_eq!(names(&again).await, ["After", "Before"]);
    let folder = again.stopped().await;
    let mut looks = rocket::tokio::time::interval(std::time::Duration::from_millis(50));
    let aside = loop {
        looks.tick().await;
        match restore(folder.path(), &copy).await {
            Err(error) if error.to_string().contains("another server") => {}
            put_back => break put_back.unwrap().expect("something lay there"),
        }
    };
    let kept = Server::on(folder_with(&aside), false).await;
    assert_eq!(names(&kept).await, ["After", "Before"]);
    let restored = Server::after(folder).await;
    assert_eq!(names(&restored).await, ["Before"]);
}

#[rocket::async_test]
async fn what_is_no_data_file_or_a_damaged_one_is_not_put_back() {
    let folder = folder_with(Path::new("tests/it/published/vanadin_3.sqlite"));
    let before = fs::read(folder.path().join("vanadin.sqlite")).unwrap();
    let elsewhere = tempfile::tempdir().unwrap();
    let (text, torn) = (elsewhere.path().join("notes.txt"), elsewhere.path().join("torn.sqlite"));
    fs::write(&text, "twelve bags of vermiculite").unwrap();
    // The middle of it is gone: its header and its length are as they were.
    let mut bytes = before.clone();
    let (from, to) = (bytes.len() / 3, bytes.len() * 2 / 3);
    bytes[from..to].fill(0);
    fs::write(&torn, bytes).unwrap();
    for file in [&text, &torn, &elsewhere.path().join("none.sqlite")] {
        assert!(restore(folder.path(), file).await.is_err(), "{}", file.display());
        assert_eq!(fs::read(folder.path().join("vanadin.sqlite")).unwrap(), before, "nothing was changed");
    }
}

/// A data file that was killed, with its last word beside it.
async fn killed(last: Option<&'static str>) -> TempDir {
    let folder = folder_with(Path::new("tests/it/published/vanadin_3.sqlite"));
    let file = folder.path().join("vanadin.sqlite");
    let options = SqliteConnectOptions::new().filename(&file).journal_mode(SqliteJournalMode::Wal);
    let mut database = SqliteConnection::connect_with(&options).await.unwrap();
    sqlx::query("pragma wal_checkpoint(truncate)").execute(&mut database).await.unwrap();
    let copy = tempfile::tempdir().unwrap();
    if let Some(last) = last {
        sqlx::query(last).execute(&mut database).await.unwrap();
        fs::copy(folder.path().join("vanadin.sqlite-wal"), copy.path().join("vanadin.sqlite-wal")).unwrap();
    }
    fs::copy(&file, copy.path().join("vanadin.sqlite")).unwrap();
    copy
}

#[rocket::async_test]
async fn a_copy_on_a_disk_that_cannot_be_written_is_looked_at_and_put_back() {
    let elsewhere = killed(None).await;
    let file = elsewhere.path().join("vanadin.sqlite");
    // What SQLite would write there to read it cannot be written: by nobody, whoever runs this.
    fs::create_dir(elsewhere.path().join("vanadin.sqlite-wal")).unwrap();
    let found = check(elsewhere.path()).await.unwrap();
    assert!(found.whole() && found.jobs == 7, "{found}");
    let folder = tempfile::tempdir().unwrap();
    restore(folder.path(), &file).await.unwrap();
    backup(elsewhere.path(), &folder.path().join("copy.sqlite")).await.unwrap();
    assert_eq!(check(folder.path()).await.unwrap().facts, found.facts);
}

#[rocket::async_test]
async fn what_was_written_last_is_put_back_with_the_file_it_lies_beside() {
    let killed = killed(Some("delete from fact where revision = 3")).await;
    let folder = tempfile::tempdir().unwrap();
    restore(folder.path(), &killed.path().join("vanadin.sqlite")).await.unwrap();
    let facts = check(folder.path()).await.unwrap().facts;
    // Hand-counted: each of the seven jobs has a third entry.
    assert_eq!(facts, 318 - 7);
}

#[rocket::async_test]
async fn a_look_finds_what_cannot_be_read_by_job_and_place() {
    let folder = folder_with(Path::new("tests/it/published/vanadin_3.sqlite"));
    let found = check(folder.path()).await.unwrap();
    assert!(found.whole(), "{found}");
    assert_eq!((found.jobs, found.facts, found.pictures), (7, 318, 5));
    write_to(
        &folder.path().join("vanadin.sqlite"),
        "update fact set change = '{' where rowid = (select max(rowid) from fact where revision = 3)",
    )
    .await;
    let found = check(folder.path()).await.unwrap();
    assert!(!found.whole());
    let [(job, 3)] = &found.unreadable[..] else { panic!("{found}") };
    assert!(found.to_string().contains(&format!("job {job}: entry no. 3 cannot be read")), "{found}");
    assert!(check(tempfile::tempdir().unwrap().path()).await.is_err(), "there is nothing to look at");
}

#[rocket::async_test]
async fn a_copy_a_day_is_kept_for_a_week() {
    let folder = folder_with(Path::new("tests/it/published/vanadin_3.sqlite"));
    for day in 0..9 {
        let now_ms = NOW_MS + day * DAY_MS;
        assert!(keep_daily(folder.path(), now_ms).await.unwrap(), "day {day}");
        assert!(!keep_daily(folder.path(), now_ms + 3_600_000).await.unwrap(), "one a day");
    }
    let mut kept: Vec<String> = fs::read_dir(folder.path().join("copies"))
        .unwrap()
        .map(|entry| entry.unwrap().file_name().into_string().unwrap())
        .collect();
    kept.sort();
    // Hand-worked: the clock begins on 2027-01-15; of nine days the first two are gone.
    assert_eq!((kept.len(), kept[0].as_str()), (7, "vanadin-2027-01-17.sqlite"));
    assert_eq!(kept[6], "vanadin-2027-01-23.sqlite");
}

#[rstest]
#[case::of_the_third_step("vanadin_3", None)]
#[case::of_the_ninth("vanadin_9", Some("Seed drill lever plate"))]
#[test_attr(rocket::async_test)]
async fn a_database_of_before_opens_with_the_same_jobs(
    #[case] file: &str,
    #[case] more: Option<&'static str>,
) {
    let folder = folder_with(&Path::new("tests/it/published").join(file).with_extension("sqlite"));
    let server = Server::on(folder, false).await;
    let mut expected = vec![
        "Bell frame bearing block",
        "Biscuit oven chain wheel",
        "Glasshouse vent quadrant",
        "Incline railway points lever",
        "Letterpress side frame",
        "Lock paddle winch hook",
        "Malt conveyor sprocket arm",
    ];
    expected.extend(more);
    assert_eq!(names(&server).await, expected);
    // The shop is what it was; its settings are the first words of its log.
    let (_, shop) = server.get("/api/shop").await;
    assert_eq!(shop["shop"]["name"], "Lockside Iron Mending");
    assert!(shop["revision"].as_u64() >= Some(9), "{shop}");
    // What was said is still said, word for word, and is understood as it was.
    let (_, rack) = server.get("/api/rack").await;
    for line in rack["lines"].as_array().unwrap() {
        let (status, view) = server.get(&format!("/api/jobs/{}", line["id"].as_str().unwrap())).await;
        assert_eq!(status, Status::Ok);
        assert_eq!(view["job"]["damaged"], json!([]), "{}", line["name"]);
        let fields = view["fields"].as_object().unwrap();
        assert!(fields.len() > 5, "{}: {}", line["name"], fields.len());
        for (key, held) in fields {
            assert_eq!(held["not_understood"], Value::Null, "{key}");
            assert_ne!(held["typed"], "", "{key}");
        }
    }
}

#[rocket::async_test]
async fn readings_pictures_and_lines_of_before_are_there() {
    let folder = folder_with(Path::new("tests/it/published/vanadin_9.sqlite"));
    let server = Server::on(folder, false).await;
    let file = SqliteConnectOptions::new().filename(server.folder.path().join("vanadin.sqlite"));
    let mut database = SqliteConnection::connect_with(&file).await.unwrap();
    // As they were counted in the file when it was put here.
    let counted = "select (select count(*) from fact), (select count(*) from reading),
        (select count(*) from picture), (select count(*) from rack_line)";
    let found: (i64, i64, i64, i64) = sqlx::query_as(counted).fetch_one(&mut database).await.unwrap();
    assert_eq!(found, (399, 9_310, 6, 8));
    let (_, rack) = server.get("/api/rack").await;
    let lines = rack["lines"].as_array().unwrap();
    let hot = lines.iter().find(|line| line["name"] == "Letterpress side frame").unwrap();
    let (_, view) = server.get(&format!("/api/jobs/{}", hot["id"].as_str().unwrap())).await;
    assert!(view["readings"].as_u64() > Some(1_000), "{}", view["readings"]);
    let mut shown = 0;
    for line in lines {
        let job = line["id"].as_str().unwrap();
        let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
        for picture in view["job"]["pictures"].as_array().into_iter().flatten() {
            let path = format!("/api/jobs/{job}/pictures/{}", picture["id"].as_str().unwrap());
            let (status, _, jpeg) = server.get_bytes(&path).await;
            assert_eq!((status, jpeg.starts_with(&[0xff, 0xd8])), (Status::Ok, true), "{path}");
            shown += 1;
        }
    }
    assert_eq!(shown, 6);
}

#[rstest]
#[case::a_bound("update fact set change = replace(change, '\"typed\":\"14', '\"typed\":\"914')")]
#[test_attr(rocket::async_test)]
async fn what_was_understood_once_is_not_read_again(#[case] change: &'static str) {
    let server = Server::empty().await;
    let job = server.new_job().await;
    server.set(job, "part.wall", "14").await;
    // As if the bounds had been drawn tighter since: what was typed would no longer be taken.
    write_to(&server.folder.path().join("vanadin.sqlite"), change).await;
    let server = server.again().await;
    let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
    let wall = &view["fields"]["part.wall"];
    assert_eq!((&wall["typed"], &wall["shown"]["number"]), (&json!("914"), &json!("14")));
    assert_eq!(wall["not_understood"], Value::Null);
}

#[rstest]
#[case::a_gap(
    "delete from fact where revision = 4 and rowid = (select max(rowid) from fact where revision = 4)",
    "an entry is missing in its log"
)]
#[case::no_temperature("update reading set celsius = 9e999", "says no temperature of a part")]
#[case::no_name(
    "pragma foreign_keys = off; update job set id = 'x' where rowid = (select max(rowid) from job)",
    "has no name that can be read"
)]
#[case::the_shop(
    "update shop_fact set change = '{' where revision = 2",
    "the shop: what was said as no. 2 cannot be read"
)]
#[case::lost_of_the_shop("delete from shop_fact where revision = 2", "is missing in its log")]
#[test_attr(rocket::async_test)]
async fn a_look_names_what_can_be_read_and_cannot_be(#[case] what: &'static str, #[case] found: &str) {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let file = server.folder.path().join("vanadin.sqlite");
    assert!(check(server.folder.path()).await.unwrap().whole());
    write_to(&file, what).await;
    let looked = check(server.folder.path()).await.unwrap();
    assert!(!looked.whole() && looked.to_string().contains(found), "{looked}");
}
