//! The server as it ships on a disk that is full: refused is refused, acknowledged is kept.

use rstest::rstest;
use serde_json::{Value, json};
use sqlx::sqlite::SqliteConnectOptions;
use sqlx::{Connection, SqliteConnection};
use uuid::Uuid;
use vanadin_e2e::Server;

const MOST_MB: u32 = 2;

async fn say(server: &Server, job: Uuid, text: &str) -> anyhow::Result<(u16, Uuid)> {
    let id = Uuid::new_v4();
    let change = json!({ "kind": "set", "key": "hand_over.expect", "typed": text, "shown_in": "metric" });
    let fact = json!({ "id": id, "at_client_ms": 1_773_042_000_000_i64, "change": change });
    let status = post(server, &format!("/api/jobs/{job}/facts"), &fact).await?;
    Ok((status, id))
}

async fn post(server: &Server, path: &str, body: &Value) -> anyhow::Result<u16> {
    let request = reqwest::Client::new()
        .post(server.url(path))
        .header("content-type", "application/json")
        .body(body.to_string());
    Ok(request.send().await?.status().as_u16())
}

async fn kept(server: &Server, job: Uuid) -> anyhow::Result<Vec<Uuid>> {
    let answer = reqwest::get(server.url(&format!("/api/jobs/{job}/history"))).await?.bytes().await?;
    let history: Value = serde_json::from_slice(&answer)?;
    let facts = history["facts"].as_array().map(Vec::as_slice).unwrap_or_default();
    Ok(facts.iter().filter_map(|fact| fact["id"].as_str()?.parse().ok()).collect())
}

#[rstest]
#[case::after_a_power_cut(Server::kill)]
#[case::after_a_stop(Server::stop)]
#[tokio::test]
async fn what_was_acknowledged_before_during_and_after_a_full_disk_is_there_again(
    #[case] end: fn(&mut Server) -> anyhow::Result<()>,
) -> anyhow::Result<()> {
    let mut server = Server::start_within(MOST_MB)?;
    let job = Uuid::new_v4();
    assert_eq!(post(&server, "/api/jobs", &json!({ "id": job })).await?, 200);
    // Something else takes nearly all the room there is.
    let file = SqliteConnectOptions::new().filename(server.folder().join("vanadin.sqlite"));
    let mut beside = SqliteConnection::connect_with(&file).await?;
    sqlx::query("create table ballast (bytes blob)").execute(&mut beside).await?;
    sqlx::query("insert into ballast values (zeroblob(1800000))").execute(&mut beside).await?;
    let (mut acknowledged, mut refused) = (Vec::new(), Vec::new());
    while refused.len() < 40 {
        match say(&server, job, &"x".repeat(400)).await? {
            (200, id) => acknowledged.push(id),
            (status, id) => {
                assert_eq!(status, 507, "for what it is");
                refused.push(id);
            }
        }
    }
    assert!(!acknowledged.is_empty(), "there was some room first");
    let rack = reqwest::get(server.url("/api/rack")).await?;
    assert_eq!(rack.status().as_u16(), 200, "the rack is seen all the same");
    // Room is made: by whichever connection, everything goes on.
    sqlx::query("drop table ballast").execute(&mut beside).await?;
    for _ in 0..8 {
        let (status, id) = say(&server, job, "x").await?;
        assert_eq!(status, 200);
        acknowledged.push(id);
    }
    beside.close().await?;
    end(&mut server)?;
    server.start_again()?;
    let kept = kept(&server, job).await?;
    assert_eq!(kept.iter().filter(|id| acknowledged.contains(id)).count(), acknowledged.len());
    assert_eq!(kept.iter().filter(|id| refused.contains(id)).count(), 0, "refused and kept");
    Ok(())
}
