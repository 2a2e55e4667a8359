//! A whole server on a data folder of its own.

use std::net::IpAddr;
use std::path::Path;

use rocket::http::{ContentType, Header, Status};
use rocket::local::asynchronous::{Client, LocalResponse};
use rocket::tokio::sync::OnceCell;
use serde_json::{Value, json};
use tempfile::TempDir;
use uuid::Uuid;
use vanadin::{Asks, Clock, Config, rocket};

/// 2027-01-15T08:00 in UTC, a Friday.
pub const NOW_MS: i64 = 1_800_000_000_000;

/// What was answered; nothing where that is no JSON. In one go: read byte by byte it takes longer than to work out.
pub async fn json_of(answer: LocalResponse<'_>) -> Option<Value> {
    serde_json::from_slice(&answer.into_bytes().await?).ok()
}

pub struct Server {
    pub client: Client,
    pub folder: TempDir,
}

/// The data file of the sample shop: filling one costs more than most tests do.
static FILLED: OnceCell<Vec<u8>> = OnceCell::const_new();

async fn filled() -> Vec<u8> {
    let folder = tempfile::tempdir().unwrap();
    let server = rocket(config(folder.path(), true)).await.unwrap();
    let copy = folder.path().join("copy.sqlite");
    vanadin::keep::backup(folder.path(), &copy).await.unwrap();
    drop(server);
    std::fs::read(copy).unwrap()
}

/// Puts the sample shop there, as it was filled once.
pub async fn fill(folder: &Path) {
    let filled = FILLED.get_or_init(filled).await;
    std::fs::write(folder.join("vanadin.sqlite"), filled).unwrap();
}

/// A server of this machine alone, on a folder.
pub fn config(folder: &Path, demo: bool) -> Config {
    Config {
        data: folder.to_owned(),
        address: IpAddr::from([127, 0, 0, 1]),
        port: 0,
        demo,
        stand_ins: false,
        clock: Clock::starting(Some(NOW_MS)),
        most_mb: None,
        copies: false,
        asks: Asks::Nobody,
        tls: None,
    }
}

impl Server {
    pub async fn empty() -> Self {
        Self::on(tempfile::tempdir().unwrap(), false).await
    }

    /// On a folder, its clock starting at a moment of its own: nothing depends on the hour of the test.
    /// With the sample shop where it is for a demo: one that was filled once, for all tests that ask for it.
    pub async fn on(folder: TempDir, demo: bool) -> Self {
        if demo {
            fill(folder.path()).await;
        }
        let client = Client::untracked(rocket(config(folder.path(), demo)).await.unwrap()).await.unwrap();
        Self { client, folder }
    }

    /// Starts on a folder that may be refused.
    pub async fn try_on(folder: &Path) -> anyhow::Result<()> {
        rocket(config(folder, false)).await.map(drop)
    }

    /// Starts on a folder another server has just let go of.
    pub async fn after(folder: TempDir) -> Self {
        let config = config(folder.path(), false);
        let mut looks = rocket::tokio::time::interval(std::time::Duration::from_millis(50));
        let started = loop {
            looks.tick().await;
            match rocket(config.clone()).await {
                Err(error) if error.to_string().contains("another server") => {}
                started => break started.unwrap(),
            }
        };
        Self { client: Client::untracked(started).await.unwrap(), folder }
    }

    /// Stops as the program does, its file closed; what it held may still be let go of a moment later.
    pub async fn stopped(self) -> TempDir {
        vanadin::left(&self.client.terminate().await).await;
        self.folder
    }

    /// Stops, and starts again on the same folder.
    pub async fn again(self) -> Self {
        let Self { client, folder } = self;
        drop(client);
        Self::after(folder).await
    }

    pub async fn get(&self, path: &str) -> (Status, Value) {
        let answer = self.client.get(path.to_owned()).dispatch().await;
        let status = answer.status();
        (status, json_of(answer).await.unwrap_or(Value::Null))
    }

    pub async fn post_text(&self, path: &str, body: &str) -> (Status, Value) {
        let answer = self
            .client
            .post(path.to_owned())
            .header(ContentType::JSON)
            .header(Header::new("Host", "localhost:8420"))
            .body(body)
            .dispatch()
            .await;
        let status = answer.status();
        (status, json_of(answer).await.unwrap_or(Value::Null))
    }

    pub async fn post(&self, path: &str, body: &Value) -> (Status, Value) {
        self.post_text(path, &body.to_string()).await
    }

    pub async fn plans_made(&self) -> u64 {
        self.get("/api/health").await.1["plans_made"].as_u64().unwrap()
    }

    /// What the program says of the shop by itself once it is started has been said, and worked in.
    pub async fn settled(&self) {
        let mut looks = rocket::tokio::time::interval(std::time::Duration::from_millis(200));
        let mut known = (0, Value::Null, 0);
        while known.2 < 3 {
            looks.tick().await;
            let revision = self.get("/api/rack").await.1["shop_revision"].clone();
            let made = self.plans_made().await;
            let same = (made, &revision) == (known.0, &known.1);
            known = (made, revision, if same { known.2 + 1 } else { 0 });
        }
    }

    pub async fn new_job(&self) -> Uuid {
        let id = Uuid::new_v4();
        let (status, _) = self.post("/api/jobs", &json!({ "id": id })).await;
        assert_eq!(status, Status::Ok);
        id
    }

    pub async fn say(&self, job: Uuid, change: Value) -> (Status, Value) {
        self.say_on(job, change, Value::Null).await
    }

    pub async fn say_on(&self, job: Uuid, change: Value, base: Value) -> (Status, Value) {
        let fact = json!({
            "id": Uuid::new_v4(), "at_client_ms": 4_000_000_000_000_i64, "who": "test",
            "base": base, "change": change,
        });
        self.post(&format!("/api/jobs/{job}/facts"), &fact).await
    }

    /// Sends a file as a picture of a job.
    pub async fn send_picture(&self, job: Uuid, picture: Uuid, shows: &str, file: &[u8]) -> (Status, Value) {
        let path = format!("/api/jobs/{job}/pictures/{picture}?at_client_ms=4000000000000&shows={shows}");
        self.post_bytes(&path, file.to_vec()).await
    }

    pub async fn post_bytes(&self, path: &str, bytes: Vec<u8>) -> (Status, Value) {
        let request = self.client.post(path.to_owned()).header(ContentType::Binary);
        let answer = request.header(Header::new("Host", "localhost:8420")).body(bytes).dispatch().await;
        let status = answer.status();
        (status, json_of(answer).await.unwrap_or(Value::Null))
    }

    pub async fn get_bytes(&self, path: &str) -> (Status, Option<ContentType>, Vec<u8>) {
        let answer = self.client.get(path.to_owned()).dispatch().await;
        let (status, kind) = (answer.status(), answer.content_type());
        (status, kind, answer.into_bytes().await.unwrap_or_default())
    }

    pub async fn set(&self, job: Uuid, key: &str, typed: &str) -> (Status, Value) {
        self.say(job, set(key, typed)).await
    }
}

pub fn set(key: &str, typed: &str) -> Value {
    json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" })
}

/// What is drawn by chance, and the same each time.
pub struct Chance(pub u64);

impl Chance {
    pub fn under(&mut self, most: u64) -> u64 {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (self.0 >> 33) % most
    }
}
