//! The folder of the one database file.

use std::net::IpAddr;

use crate::common::Server;
use rocket::http::Status;
use sqlx::sqlite::SqliteConnectOptions;
use sqlx::{Connection, Row, SqliteConnection};
use tempfile::TempDir;
use vanadin::{Asks, Clock, Config, rocket};

fn config(folder: &TempDir) -> Config {
    Config {
        data: folder.path().to_owned(),
        address: IpAddr::from([127, 0, 0, 1]),
        port: 0,
        demo: false,
        stand_ins: false,
        clock: Clock::starting(None),
        most_mb: None,
        copies: false,
        asks: Asks::Nobody,
        tls: None,
    }
}

async fn connection(folder: &TempDir) -> SqliteConnection {
    let options = SqliteConnectOptions::new().filename(folder.path().join("vanadin.sqlite"));
    SqliteConnection::connect_with(&options).await.unwrap()
}

#[rocket::async_test]
async fn a_second_server_on_the_same_folder_is_refused() {
    let server = Server::empty().await;
    let refused = rocket(config(&server.folder)).await.expect_err("two servers on one folder");
    assert!(refused.to_string().contains("another server"), "{refused}");
    assert_eq!(server.get("/api/health").await.0, Status::Ok);
}

#[rocket::async_test]
async fn a_folder_written_by_a_newer_version_is_refused_and_left_alone() {
    let folder = tempfile::tempdir().unwrap();
    {
        let made = rocket(config(&folder)).await.unwrap();
        drop(made);
    }
    let mut database = connection(&folder).await;
    let steps = "select count(*) from _sqlx_migrations";
    let before: i64 = sqlx::query_scalar(steps).fetch_one(&mut database).await.unwrap();
    sqlx::query(
        "insert into _sqlx_migrations (version, description, success, checksum, execution_time) \
         values (9999, 'from the future', true, x'00', 0)",
    )
    .execute(&mut database)
    .await
    .unwrap();
    // The first server lets go of its folder when its last task has ended.
    let mut looks = rocket::tokio::time::interval(std::time::Duration::from_millis(50));
    let refused = loop {
        looks.tick().await;
        let refused = rocket(config(&folder)).await.expect_err("a newer folder was opened").to_string();
        if !refused.contains("another server") {
            break refused;
        }
    };
    assert!(refused.contains("newer Vanadin"), "{refused}");
    let after: i64 = sqlx::query_scalar(steps).fetch_one(&mut database).await.unwrap();
    assert_eq!(after, before + 1, "left alone");
}

#[rocket::async_test]
async fn what_is_acknowledged_is_written_through() {
    let server = Server::empty().await;
    let mut database = connection(&server.folder).await;
    let mode = sqlx::query("pragma journal_mode").fetch_one(&mut database).await.unwrap();
    assert_eq!(mode.get::<String, _>(0), "wal");
    let job = server.new_job().await;
    server.set(job, "part.wall", "12").await;
    // Another connection sees it at once: it is in the file, not in the server.
    let row = sqlx::query("select change from fact where job_id = ?").bind(job.to_string());
    let change: String = row.fetch_one(&mut database).await.unwrap().get(0);
    assert!(change.contains("part.wall"), "{change}");
}

#[rocket::async_test]
async fn the_sample_shop_fills_an_empty_folder_only() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack").await;
    let lines = rack["lines"].as_array().unwrap();
    assert!(lines.len() >= 6);
    let standing = |has: &dyn Fn(&serde_json::Value) -> bool| lines.iter().any(|line| has(&line["standing"]));
    assert!(standing(&|s| s["hot"]["unwrap_at_ms"].is_i64()), "one is hot and cooling");
    assert!(standing(&|s| s["stopped"] == "Referred out"), "one is refused for safety");
    assert!(lines.iter().any(|line| line["round"] == 2), "one has two rounds");
    assert!(lines.iter().any(|l| l["stations"][9]["amount"] == "enough"), "one is finished");
    for iron in ["gray", "ductile", "malleable"] {
        assert!(lines.iter().any(|line| line["iron"].as_str().unwrap().starts_with(iron)), "{iron}");
    }
    assert_eq!(lines[0]["standing"]["rank"], 1, "what is hot lies on top");
}
