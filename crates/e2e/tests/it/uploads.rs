//! What is sent slowly holds nobody up.

use std::io::{ErrorKind, Read, Write};
use std::net::TcpStream;
use std::time::Duration;

use anyhow::Context;
use serde_json::json;
use uuid::Uuid;
use vanadin_e2e::Server;

/// A picture of which a little comes, and then nothing, for as long as this is held.
fn drips(server: &Server, path: &str) -> anyhow::Result<TcpStream> {
    let mut stream = TcpStream::connect(("127.0.0.1", server.port()))?;
    let host = format!("127.0.0.1:{}", server.port());
    write!(
        stream,
        "POST {path} HTTP/1.1\r\nHost: {host}\r\nContent-Type: application/octet-stream\r\nContent-Length: 1000000\r\n\r\n"
    )?;
    stream.write_all(&[0xff; 1_000])?;
    Ok(stream)
}

#[tokio::test]
async fn pictures_that_drip_hold_up_no_other() -> anyhow::Result<()> {
    let server = Server::start_bare()?;
    let client = reqwest::Client::builder().timeout(Duration::from_secs(30)).build()?;
    let job = Uuid::new_v4();
    let made = client
        .post(server.url("/api/jobs"))
        .header("content-type", "application/json")
        .body(json!({ "id": job }).to_string())
        .send()
        .await?;
    anyhow::ensure!(made.status().is_success(), "{}", made.status());
    let path = || format!("/api/jobs/{job}/pictures/{}?at_client_ms=1773042000000", Uuid::new_v4());
    let held: Vec<TcpStream> = (0..6).map(|_| drips(&server, &path())).collect::<anyhow::Result<_>>()?;
    let mut jpeg = Vec::new();
    let points = [90_u8; 64 * 64];
    image::codecs::jpeg::JpegEncoder::new(&mut jpeg)
        .encode(&points, 64, 64, image::ExtendedColorType::L8)
        .context("a small picture")?;
    let answer = client
        .post(server.url(&path()))
        .header("content-type", "application/octet-stream")
        .body(jpeg)
        .send()
        .await?;
    assert!(answer.status().is_success(), "{}", answer.status());
    // It was answered while the others were still listened to: none of them has been told anything.
    for mut drip in held {
        drip.set_nonblocking(true)?;
        let told = drip.read(&mut [0; 16]).map_err(|error| error.kind());
        assert_eq!(told, Err(ErrorKind::WouldBlock), "it waited for those that drip");
    }
    Ok(())
}
