//! What axe finds wrong with a page.

use std::path::Path;

use anyhow::{Context, bail};
use serde_json::json;

use super::Browser;

impl Browser {
    /// What axe finds serious or critical.
    pub async fn serious_problems(&self) -> anyhow::Result<Vec<String>> {
        let found = self.problems(Rules::All).await?;
        Ok(found.into_iter().filter(|it| it.starts_with("serious") || it.starts_with("critical")).collect())
    }

    /// What axe finds, of any weight, on the page or on what lies on it. Fails when no rule passed: then it did not look.
    pub async fn problems(&self, rules: Rules) -> anyhow::Result<Vec<String>> {
        // It stays on the page for as long as that is not loaded anew.
        if self.run("return typeof axe").await? == json!("undefined") {
            let axe =
                Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web/node_modules/axe-core/axe.min.js");
            let source =
                std::fs::read_to_string(&axe).with_context(|| format!("{} is not there", axe.display()))?;
            self.run(&source).await?;
        }
        // Told of what is wrong alone, and not where it stands: naming each place costs more than looking.
        let script = "const done = arguments[1], only = arguments[0] === null ? {} : { runOnly: [arguments[0]] };
            const quick = { resultTypes: ['violations'], preload: false, selectors: false };
            axe.run(document.querySelector('[role=dialog]') ?? document, { ...quick, ...only }).then((found) => done([
            found.passes.length,
            found.violations.map((v) => v.impact + ' ' + v.id + ': ' + v.nodes.slice(0, 3).map((n) => n.html).join(' | ')) ]));";
        let told = self.told_later(script, &json!([rules.only()])).await?;
        let (passed, found): (u32, Vec<String>) = serde_json::from_value(told)?;
        if passed == 0 {
            bail!("axe looked at nothing");
        }
        Ok(found)
    }
}

/// What axe goes by.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Rules {
    All,
    Contrast,
}

impl Rules {
    fn only(self) -> Option<&'static str> {
        match self {
            Self::All => None,
            Self::Contrast => Some("color-contrast"),
        }
    }
}
