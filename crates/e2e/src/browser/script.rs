//! What is asked of the page itself, in its own words.

use anyhow::{Context, bail};
use serde_json::{Value, json};

use super::Browser;

impl Browser {
    /// Runs a script on the page.
    pub async fn run(&self, script: &str) -> anyhow::Result<Value> {
        self.told(script, &json!([])).await
    }

    /// What a script gives that is handed these arguments: no element is among either. The engine is asked directly: the
    /// driver would walk through every part of the answer.
    pub async fn told(&self, script: &str, arguments: &Value) -> anyhow::Result<Value> {
        self.evaluated(&format!("(function () {{ {script}\n }}).apply(null, {arguments})")).await
    }

    /// What a script hands to the last of its arguments, once it does.
    pub async fn told_later(&self, script: &str, arguments: &Value) -> anyhow::Result<Value> {
        let later = format!(
            "new Promise((done) => (function () {{ {script}\n }}).apply(null, [...{arguments}, done]))"
        );
        self.evaluated(&later).await
    }

    /// What is promised is waited for.
    async fn evaluated(&self, expression: &str) -> anyhow::Result<Value> {
        let asked = json!({
            "expression": expression, "returnByValue": true, "awaitPromise": true, "userGesture": true
        });
        let mut answer = self.cdp("Runtime.evaluate", asked).await?;
        if let Some(thrown) = answer.get("exceptionDetails") {
            let said = &thrown["exception"]["description"];
            bail!("{} of {expression}", said.as_str().context("it threw something")?);
        }
        Ok(answer["result"]["value"].take())
    }
}
