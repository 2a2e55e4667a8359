//! Follows a part as the server has it: what a pad on it would show.

use anyhow::Context;
use reqwest::{Client, Response};
use serde::Deserialize;
use serde::de::DeserializeOwned;
use uuid::Uuid;
use vanadin_core::heat::{Infrared, Runs};
use vanadin_core::job::{Job, Reading};
use vanadin_core::pad::Pad;
use vanadin_core::plan::plan_with;
use vanadin_core::shop::Shop;

use crate::job::oven::OvenSeen;
use crate::job_file::JobFile;

#[derive(Deserialize)]
struct Now {
    revision: u64,
    now_ms: i64,
}

#[derive(Deserialize)]
struct ShopSeen {
    shop: Shop,
}

/// A part, followed.
pub struct Follow {
    at: String,
    job: Uuid,
    client: Client,
    runs: Runs,
    revision: Option<u64>,
    pad: Option<Pad>,
    gun: Option<Infrared>,
}

async fn answer<T: DeserializeOwned>(sent: Response) -> anyhow::Result<T> {
    let (status, text) = (sent.status(), sent.text().await?);
    anyhow::ensure!(status.is_success(), "the server says {status}: {text}");
    serde_json::from_str(&text).context("the server answers something else")
}

impl Follow {
    pub fn new(at: String, job: Uuid) -> Self {
        Self { at, job, client: Client::new(), runs: Runs::default(), revision: None, pad: None, gun: None }
    }

    async fn get<T: DeserializeOwned>(&self, path: &str) -> anyhow::Result<T> {
        answer(self.client.get(format!("{}{path}", self.at)).send().await?).await
    }

    /// Looks at the part once more; gives what a pad on it read since.
    pub async fn look(&mut self) -> anyhow::Result<Vec<Reading>> {
        let now: Now = self.get(&format!("/api/jobs/{}", self.job)).await?;
        if self.revision != Some(now.revision) {
            self.look_anew().await?;
            self.revision = Some(now.revision);
        }
        let Some(pad) = &mut self.pad else { return Ok(Vec::new()) };
        Ok(pad.advance_to(pad.minutes_at(now.now_ms)))
    }

    /// Something was said of the job: the pad goes on from where it is.
    async fn look_anew(&mut self) -> anyhow::Result<()> {
        let file: JobFile = self.get(&format!("/api/jobs/{}/export", self.job)).await?;
        let ShopSeen { shop } = self.get("/api/shop").await?;
        let job = file.job(self.job);
        let plan = plan_with(&job, &shop, &self.runs);
        self.gun = plan
            .heat
            .as_ref()
            .and_then(|heat| heat.infrared.as_ref())
            .and_then(|gun| Infrared::new(gun.emissivity_set, gun.emissivity_true, gun.reflected_c).ok());
        self.pad = lies_on(&job, &plan, &shop, self.pad.take());
        Ok(())
    }

    /// What a gun on this surface shows now, in °C; nothing while the part is not hot.
    pub fn gun_shows_c(&self) -> Option<f64> {
        self.gun?.shown_c(self.pad.as_ref()?.true_c())
    }

    /// Whether the oven's program was started, and what it is.
    pub async fn oven(&self) -> anyhow::Result<OvenSeen> {
        self.get(&format!("/api/jobs/{}/oven", self.job)).await
    }

    /// Posts what was read, as a logger does.
    pub async fn post(&self, key: &str, readings: &[Reading]) -> anyhow::Result<()> {
        let lines: Vec<String> =
            readings.iter().map(|it| format!("{:.4},1,{:.1}", it.minutes, it.celsius)).collect();
        let sent = self
            .client
            .post(format!("{}/api/jobs/{}/readings", self.at, self.job))
            .header("Authorization", format!("Bearer {key}"))
            .header("Content-Type", "text/csv")
            .body(lines.join("\n"))
            .send()
            .await?;
        answer::<serde_json::Value>(sent).await.map(|_| ())
    }
}

fn lies_on(job: &Job, plan: &vanadin_core::plan::Plan, shop: &Shop, before: Option<Pad>) -> Option<Pad> {
    let fresh = Pad::on(job, plan, shop)?;
    Some(match before {
        Some(before) => fresh.going_on_from(before),
        None => fresh,
    })
}
