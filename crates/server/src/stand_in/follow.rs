//! Follows a part as the server has it: what a pad on it would show.

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

use anyhow::Context;
use reqwest::{Client, RequestBuilder, Response};
use serde::Deserialize;
use serde::de::DeserializeOwned;
use tokio::task::JoinHandle;
use uuid::Uuid;
use vanadin_core::heat::{Infrared, SimCache};
use vanadin_core::job::Reading;
use vanadin_core::plan::plan_with;
use vanadin_core::shop::Shop;
use vanadin_core::simulated_thermocouple::Pad;

use crate::clock::Clock;
use crate::job::oven::OvenSeen;
use crate::job_file::JobFile;

#[derive(Deserialize)]
struct Now {
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
    key: String,
    client: Client,
    sims: SimCache,
    /// Something was said of the job since it was looked at.
    said: Arc<AtomicBool>,
    listening: JoinHandle<()>,
    /// The server's clock, as it was when the job was last looked at, and from there what has gone by.
    clock: Option<Clock>,
    pad: Option<Pad>,
    gun: Option<Infrared>,
}

impl Drop for Follow {
    fn drop(&mut self) {
        self.listening.abort();
    }
}

/// What became of what was posted.
#[derive(Debug)]
pub enum Posted {
    Kept,
    /// It will never be taken, and why.
    Refused(String),
}

/// How long it is until a stream that ended is asked for again.
const AGAIN: Duration = Duration::from_secs(1);
/// An answer that has not come by then is none: it is asked again.
const ANSWERED_WITHIN: Duration = Duration::from_secs(15);
/// A stream says that it is there every half minute: one that said nothing for so long is dead.
const SILENT_FOR: Duration = Duration::from_secs(75);

async fn answer<T: DeserializeOwned>(sent: Response) -> anyhow::Result<T> {
    let (status, text) = (sent.status(), sent.text().await?);
    anyhow::ensure!(status.is_success(), "the server says {status}: {text}");
    serde_json::from_str(&text).context("the server answers something else")
}

/// An event after which the job has to be looked at: it was changed, its shop was, or some may have been missed.
fn is_news(line: &[u8]) -> bool {
    let event = line.strip_prefix(b"event:").map(<[u8]>::trim_ascii);
    matches!(event, Some(b"hello" | b"changed" | b"shop"))
}

/// Listens to the job's stream, again and again, and notes when something was said.
async fn listen(stream: RequestBuilder, said: Arc<AtomicBool>) {
    loop {
        if let Some(asked) = stream.try_clone()
            && let Ok(mut sent) = asked.send().await
            && sent.status().is_success()
        {
            let mut line = Vec::new();
            while let Ok(Some(piece)) = sent.chunk().await {
                for byte in piece {
                    if byte != b'\n' {
                        line.push(byte);
                        continue;
                    }
                    if is_news(&line) {
                        said.store(true, Ordering::Relaxed);
                    }
                    line.clear();
                }
            }
        }
        tokio::time::sleep(AGAIN).await;
    }
}

impl Follow {
    /// # Errors
    /// This machine has no way to ask anybody.
    pub fn new(at: String, job: Uuid, key: String) -> anyhow::Result<Self> {
        let client = Client::builder().read_timeout(SILENT_FOR).build()?;
        let said = Arc::new(AtomicBool::new(true));
        let stream = client.get(format!("{at}/api/jobs/{job}/stream")).bearer_auth(&key);
        let listening = tokio::spawn(listen(stream, said.clone()));
        let sims = SimCache::default();
        Ok(Self { at, job, key, client, sims, said, listening, clock: None, pad: None, gun: None })
    }

    async fn get<T: DeserializeOwned>(&self, path: &str) -> anyhow::Result<T> {
        let asked = self.client.get(format!("{}{path}", self.at)).timeout(ANSWERED_WITHIN);
        answer(asked.bearer_auth(&self.key).send().await?).await
    }

    /// Looks at the part once more; gives what a pad on it read since.
    pub async fn look(&mut self) -> anyhow::Result<Vec<Reading>> {
        let mut read = Vec::new();
        if self.said.swap(false, Ordering::Relaxed) {
            let before = self.lit();
            if let Err(error) = self.look_anew().await {
                self.said.store(true, Ordering::Relaxed);
                return Err(error);
            }
            // Laid on a part that was just lit it shows something at once.
            let fresh = self.pad.as_ref().filter(|_| self.lit() != before);
            read.extend(fresh.and_then(Pad::first));
        }
        if let (Some(pad), Some(clock)) = (&mut self.pad, &self.clock) {
            read.extend(pad.advance_to(pad.minutes_at(clock.now_ms())));
        }
        Ok(read)
    }

    /// Something was said of the job: the pad goes on from where it is.
    async fn look_anew(&mut self) -> anyhow::Result<()> {
        let file: JobFile = self.get(&format!("/api/jobs/{}/export?pictures=no", self.job)).await?;
        let ShopSeen { shop } = self.get("/api/shop").await?;
        let Now { now_ms } = self.get(&format!("/api/jobs/{}", self.job)).await?;
        self.clock = Some(Clock::starting(Some(now_ms)));
        let job = file.job(self.job);
        let plan = plan_with(&job, &shop, &self.sims);
        self.gun = plan
            .heat
            .as_ref()
            .and_then(|heat| heat.infrared.as_ref())
            .and_then(|gun| Infrared::new(gun.emissivity_set, gun.emissivity_true, gun.reflected_c).ok());
        let fresh = Pad::on(&job, &plan, &shop);
        self.pad = match (fresh, self.pad.take()) {
            (Some(fresh), Some(before)) => Some(fresh.going_on_from(before)),
            (fresh, _) => fresh,
        };
        Ok(())
    }

    /// The lighting whose pad is read.
    pub fn lit(&self) -> Option<Uuid> {
        self.pad.as_ref().map(Pad::lit)
    }

    /// What a gun on this surface shows now, in °C; nothing while the part is not hot.
    pub fn gun_shows_c(&self) -> Option<f64> {
        self.gun?.shown_c(self.pad.as_ref()?.true_c())
    }

    /// Whether the oven's program was started, and what it is.
    pub async fn oven(&self) -> anyhow::Result<OvenSeen> {
        self.get(&format!("/api/jobs/{}/oven", self.job)).await
    }

    /// Posts what was read of a lighting, as a logger does.
    pub async fn post(&self, lit: Uuid, readings: &[Reading]) -> anyhow::Result<Posted> {
        let lines: Vec<String> =
            readings.iter().map(|it| format!("{:.4},1,{:.1}", it.minutes, it.celsius)).collect();
        let sent = self
            .client
            .post(format!("{}/api/jobs/{}/readings?lit={lit}", self.at, self.job))
            .timeout(ANSWERED_WITHIN)
            .bearer_auth(&self.key)
            .header("Content-Type", "text/csv")
            .body(lines.join("\n"))
            .send()
            .await?;
        // What a key lacks, or a server has no time for, may be mended: that is kept.
        if matches!(sent.status().as_u16(), 400 | 404 | 409 | 422) {
            return Ok(Posted::Refused(sent.text().await?));
        }
        answer::<serde_json::Value>(sent).await.map(|_| Posted::Kept)
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::is_news;

    #[rstest]
    #[case::said("event:changed", true)]
    #[case::with_a_space("event: hello\r", true)]
    #[case::of_the_shop("event:shop", true)]
    #[case::its_own_readings("event:reading", false)]
    #[case::what_stands_in_it("data:event:changed", false)]
    #[case::nothing("", false)]
    fn what_is_said_of_the_job_is_told_from_what_it_reads_itself(#[case] line: &str, #[case] news: bool) {
        assert_eq!(is_news(line.as_bytes()), news);
    }
}
