//! The stand-ins of a demo: programs of their own that post as a real logger does, and end with the server.

use std::collections::HashSet;
use std::fs;
use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};

use reqwest::{Client, RequestBuilder, StatusCode};
use serde_json::{Value, json};
use tempfile::TempDir;
use uuid::Uuid;

use crate::common::fill;

/// How long something may take on a busy machine.
const PATIENCE: Duration = Duration::from_secs(60);
const KEY: &str = "the-key-of-the-bench-logger";

/// The server as it is started by hand.
struct Running {
    child: Child,
    at: String,
    passphrase: Option<String>,
    cookie: Option<String>,
    client: Client,
}

impl Drop for Running {
    fn drop(&mut self) {
        self.kill();
    }
}

impl Running {
    fn start(folder: &Path, now: &str, more: &[&str]) -> Self {
        let mut child = Command::new(env!("CARGO_BIN_EXE_vanadin"))
            .args(["serve", "--port", "0", "--now", now, "--data"])
            .arg(folder)
            .args(more)
            .stdout(Stdio::piped())
            .spawn()
            .unwrap();
        let mut said = BufReader::new(child.stdout.take().unwrap()).lines();
        let mut after = |words: &str| {
            let line = said.next().unwrap().unwrap();
            line.strip_prefix(words).unwrap_or_else(|| panic!("it said {line}")).to_owned()
        };
        let at = after("Vanadin is on ").trim_end_matches('/').to_owned();
        let passphrase = more.contains(&"--closed").then(|| after("The shop's passphrase is "));
        let passphrase = passphrase.and_then(|it| it.split(':').next().map(str::to_owned));
        Self { child, at, passphrase, cookie: None, client: Client::new() }
    }

    /// Nothing is tidied up.
    fn kill(&mut self) {
        // It may have ended by itself.
        let _ = self.child.kill();
        let _ = self.child.wait();
    }

    /// The stand-ins that this server has started and that run.
    fn stand_ins(&self) -> HashSet<u32> {
        running().into_iter().filter(|(_, parent)| *parent == self.child.id()).map(|(id, _)| id).collect()
    }

    fn asks(&self, request: RequestBuilder) -> RequestBuilder {
        match &self.cookie {
            Some(cookie) => request.header("Cookie", cookie),
            None => request,
        }
    }

    async fn get(&self, path: &str) -> Value {
        let sent = self.asks(self.client.get(format!("{}{path}", self.at))).send().await.unwrap();
        serde_json::from_slice(&sent.bytes().await.unwrap()).unwrap()
    }

    async fn post(&self, path: &str, body: &Value) -> StatusCode {
        let request =
            self.client.post(format!("{}{path}", self.at)).header("Content-Type", "application/json");
        self.asks(request).body(body.to_string()).send().await.unwrap().status()
    }

    /// A device says the passphrase, and is known from then on.
    async fn come_in(&mut self) {
        let said = json!({ "passphrase": self.passphrase, "name": "bench" });
        let request =
            self.client.post(format!("{}/api/door", self.at)).header("Content-Type", "application/json");
        let sent = request.body(said.to_string()).send().await.unwrap();
        let cookie = sent.headers()["set-cookie"].to_str().unwrap();
        self.cookie = cookie.split(';').next().map(str::to_owned);
    }

    async fn job(&self, words: &str) -> String {
        let rack = self.get(&format!("/api/rack?find={words}")).await;
        rack["lines"][0]["id"].as_str().expect("a job has these words").to_owned()
    }

    async fn say(&self, job: &str, change: Value) {
        let fact = json!({ "id": Uuid::new_v4(), "at_client_ms": 4_000_000_000_000_i64, "who": "test", "base": null, "change": change });
        let status = self.post(&format!("/api/jobs/{job}/facts"), &fact).await;
        assert_eq!(status, StatusCode::OK, "{fact}");
    }

    /// The minutes at which the part was read, and what.
    async fn readings(&self, job: &str) -> Vec<(f64, f64)> {
        // The page gets as many as are drawn, the file all of them.
        let file = self.get(&format!("/api/jobs/{job}/export?pictures=no")).await;
        let readings = file["readings"][0]["readings"].as_array().unwrap();
        let of = |reading: &Value, key: &str| reading[key].as_f64().unwrap();
        readings.iter().map(|reading| (of(reading, "minutes"), of(reading, "celsius"))).collect()
    }

    /// A lug whose braze is lit, its job clock sixty times as fast.
    async fn light(&self) -> String {
        let job = self.job("brewery").await;
        for (key, typed) in [
            ("method.choice", "torch_braze"),
            ("heat.source", "weed_burner"),
            ("prep.done", "holes,groove,inside,penetrant"),
        ] {
            self.say(&job, json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" })).await;
        }
        self.say(&job, json!({ "kind": "light", "speed": 60 })).await;
        job
    }
}

/// Each process that runs, and who started it.
fn running() -> Vec<(u32, u32)> {
    let mut all = Vec::new();
    for entry in fs::read_dir("/proc").unwrap().flatten() {
        // One that ends meanwhile is none.
        let Ok(told) = fs::read_to_string(entry.path().join("stat")) else { continue };
        let Some((before, after)) = told.rsplit_once(") ") else { continue };
        let mut after = after.split(' ');
        let (state, parent) = (after.next().unwrap(), after.next().unwrap());
        if state != "Z" {
            all.push((before.split(' ').next().unwrap().parse().unwrap(), parent.parse().unwrap()));
        }
    }
    all
}

async fn eventually<T>(what: &str, mut look: impl AsyncFnMut() -> Option<T>) -> T {
    let until = Instant::now() + PATIENCE;
    let mut looks = tokio::time::interval(Duration::from_millis(100));
    while Instant::now() < until {
        looks.tick().await;
        if let Some(seen) = look().await {
            return seen;
        }
    }
    panic!("{what} does not come");
}

fn folder() -> TempDir {
    tempfile::tempdir().unwrap()
}

/// With the sample shop of that morning in it.
async fn filled() -> TempDir {
    let folder = folder();
    fill(folder.path()).await;
    folder
}

/// When the sample shop is filled.
const MORNING: &str = "2027-01-15T08:00";

#[tokio::test]
async fn a_part_that_is_lit_warms_as_its_stand_in_reads_each_ten_seconds_of_the_job_clock() {
    let folder = folder();
    let server = Running::start(folder.path(), MORNING, &["--demo"]);
    let job = server.light().await;
    let readings = eventually("warmth", async || {
        let readings = server.readings(&job).await;
        (readings.last()?.1 > 60.0).then_some(readings)
    })
    .await;
    assert_eq!(readings[0].0, 0.0, "it shows something as soon as it is lit");
    let steps: Vec<f64> = readings.windows(2).map(|two| two[1].0 - two[0].0).collect();
    assert!(steps.iter().all(|step| (step - 1.0 / 6.0).abs() < 0.002), "{steps:?}");
    // Lit again it starts cold: what was recorded of the cancelled lighting is no part of it.
    server.say(&job, json!({ "kind": "cancel_light" })).await;
    server.say(&job, json!({ "kind": "light", "speed": 60 })).await;
    let first = eventually("a first reading", async || server.readings(&job).await.first().copied()).await;
    assert_eq!(first.0, 0.0);
}

#[tokio::test]
async fn where_a_logger_reads_the_stand_in_is_ended_and_nothing_is_made_up_beside_it() {
    let folder = filled().await;
    let server = Running::start(folder.path(), MORNING, &["--stand-ins"]);
    let hot = eventually("a stand-in", async || server.stand_ins().iter().next().copied()).await;
    let key = json!({ "id": Uuid::new_v4(), "change": { "kind": "set", "key": "shop.logger", "typed": KEY,
        "shown_in": "metric" } });
    assert_eq!(server.post("/api/shop", &key).await, StatusCode::OK);
    let job = server.job("letterpress").await;
    let posts = async |key: &str| {
        let request = server.client.post(format!("{}/api/jobs/{job}/readings", server.at));
        request.bearer_auth(key).body("0.01,1,21.5").send().await.unwrap().status()
    };
    assert_eq!(posts("another").await, StatusCode::UNAUTHORIZED);
    assert!(server.stand_ins().contains(&hot), "who has no key ends nothing");
    assert_eq!(posts(KEY).await, StatusCode::OK);
    eventually("its end", async || server.stand_ins().is_empty().then_some(())).await;
    let read = server.readings(&job).await;
    // Something is said of the job: no other is started.
    let weighed = json!({ "kind": "set", "key": "part.mass", "typed": "25 kg", "shown_in": "metric" });
    server.say(&job, weighed).await;
    assert!(server.stand_ins().is_empty());
    assert_eq!(server.readings(&job).await, read);
}

#[tokio::test]
async fn it_ends_with_the_server_however_that_goes_and_the_next_one_goes_on_without_a_gap() {
    let folder = filled().await;
    let mut server = Running::start(folder.path(), MORNING, &["--stand-ins"]);
    let job = server.light().await;
    let before = eventually("readings", async || {
        let readings = server.readings(&job).await;
        (readings.len() > 20).then_some(readings)
    })
    .await;
    let stand_ins = server.stand_ins();
    assert!(!stand_ins.is_empty());
    server.kill();
    eventually("their end", async || {
        let left = running().into_iter().any(|(id, _)| stand_ins.contains(&id));
        (!left).then_some(())
    })
    .await;
    // Five minutes later by the clock, longer than the first one ran: five hours on that of the job.
    let server = Running::start(folder.path(), "2027-01-15T08:05", &["--stand-ins"]);
    let after = eventually("readings after it", async || {
        let readings = server.readings(&job).await;
        (readings.len() > before.len() + 20).then_some(readings)
    })
    .await;
    assert_eq!(after[..before.len()], before, "a reading never changes what was read before");
    let longest = after.windows(2).map(|two| two[1].0 - two[0].0).fold(0.0, f64::max);
    assert!(longest < 0.2, "{longest} min without a reading");
}

#[tokio::test]
async fn where_everybody_is_asked_it_comes_in_by_a_key_of_its_own_and_its_words_show_none() {
    let folder = filled().await;
    let mut server = Running::start(folder.path(), MORNING, &["--stand-ins", "--closed"]);
    let stand_in = eventually("a stand-in", async || server.stand_ins().iter().next().copied()).await;
    let words = fs::read_to_string(format!("/proc/{stand_in}/cmdline")).unwrap();
    assert!(words.contains("stand-in") && !words.contains("--key"), "{words}");
    let shut = server.client.get(format!("{}/api/rack", server.at)).send().await.unwrap();
    assert_eq!(shut.status(), StatusCode::UNAUTHORIZED);
    server.come_in().await;
    let job = server.job("letterpress").await;
    let first = server.readings(&job).await.last().copied();
    eventually("a reading", async || (server.readings(&job).await.last().copied() != first).then_some(()))
        .await;
}
