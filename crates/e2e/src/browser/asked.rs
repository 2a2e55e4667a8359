//! What the page itself asks the server, and says to it.

use anyhow::{Context, bail};
use serde_json::{Value, json};
use uuid::Uuid;

use super::Browser;

impl Browser {
    /// The answer of a request made by the page: status and JSON; nothing where it has no words.
    pub async fn fetch(&self, method: &str, path: &str, body: Value) -> anyhow::Result<(u16, Value)> {
        let script = "const [method, path, body, done] = arguments;
            const init = { method, headers: { 'Content-Type': 'application/json' } };
            if (body !== null) init.body = JSON.stringify(body);
            fetch(path, init).then(async (answer) => done([answer.status, await answer.text()]))
              .catch((error) => done([0, JSON.stringify(String(error))]));";
        let answer = self.told_later(script, &json!([method, path, body])).await?;
        let (status, text): (u16, String) = serde_json::from_value(answer)?;
        if text.is_empty() {
            return Ok((status, Value::Null));
        }
        Ok((status, serde_json::from_str(&text).with_context(|| format!("no JSON: {text}"))?))
    }

    /// What stands at an address, as text.
    pub async fn fetch_text(&self, path: &str) -> anyhow::Result<(u16, String)> {
        let script = "const [path, done] = arguments;
            fetch(path).then(async (answer) => done([answer.status, await answer.text()]))
              .catch((error) => done([0, String(error)]));";
        Ok(serde_json::from_value(self.told_later(script, &json!([path])).await?)?)
    }

    /// The id of the job on the rack that has these words in its name.
    pub async fn job(&self, words: &str) -> anyhow::Result<String> {
        let (_, rack) = self.fetch("GET", "/api/rack", Value::Null).await?;
        let lines = rack["lines"].as_array().context("no rack")?;
        let found = lines.iter().find(|line| line["name"].as_str().is_some_and(|name| name.contains(words)));
        Ok(found.and_then(|line| line["id"].as_str()).with_context(|| format!("no job {words}"))?.to_owned())
    }

    /// Says something of a job by the page's own requests.
    pub async fn say(&self, job: &str, change: Value) -> anyhow::Result<()> {
        let fact = json!({ "id": Uuid::new_v4(), "at_client_ms": 4_000_000_000_000_i64, "change": change });
        // What is answered is the whole job: only what was wrong with it is handed on.
        let script = "const [path, fact, done] = arguments;
            fetch(path, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(fact) })
              .then(async (answer) => done(answer.ok ? '' : await answer.text())).catch((error) => done(String(error)));";
        let wrong = self.told_later(script, &json!([format!("/api/jobs/{job}/facts"), fact])).await?;
        let wrong = wrong.as_str().context("no answer")?;
        if !wrong.is_empty() {
            bail!("{wrong}");
        }
        Ok(())
    }

    /// Waits until the server was told what was said on the page, which says it as soon as it is pressed. What it cannot
    /// be told now is left.
    pub async fn sent(&self) -> anyhow::Result<()> {
        const SENT: &str = "const [most_ms, done] = arguments;
            const until = performance.now() + most_ms;
            const waits = () => [...document.querySelectorAll('[data-testid^=saved]')].some((it) => /waiting/.test(it.textContent));
            const look = () => { if (!waits() || performance.now() > until) done(true); else requestAnimationFrame(look); };
            look();";
        const MOST_MS: u32 = 5_000;
        self.told_later(SENT, &json!([MOST_MS])).await?;
        Ok(())
    }

    /// The job as it stands on the server.
    pub async fn view(&self, job: &str) -> anyhow::Result<Value> {
        self.sent().await?;
        let (status, view) = self.fetch("GET", &format!("/api/jobs/{job}"), Value::Null).await?;
        if status != 200 {
            bail!("{view}");
        }
        Ok(view)
    }
}
