//! Somebody at the bench, counted: every press of a finger, every key.

use thirtyfour::prelude::*;

use crate::{Browser, eventually};

/// A thumb on a phone: what it touches of the page is counted, what is typed on the phone's own keys is not.
pub struct Hand<'a> {
    browser: &'a Browser,
    pub taps: u32,
}

impl<'a> Hand<'a> {
    #[must_use]
    pub fn new(browser: &'a Browser) -> Self {
        Self { browser, taps: 0 }
    }

    /// # Errors
    /// There is no such button.
    pub async fn press(&mut self, name: &str) -> anyhow::Result<()> {
        self.taps += 1;
        self.browser.press(name).await
    }

    /// # Errors
    /// There is no such choice.
    pub async fn choose(&mut self, group: &str, choice: &str) -> anyhow::Result<()> {
        self.taps += 1;
        self.browser.choose(group, choice).await
    }

    /// # Errors
    /// There is no such field.
    pub async fn type_in(&mut self, label: &str, text: &str) -> anyhow::Result<()> {
        self.taps += 1;
        self.browser.type_in(label, text).await
    }

    /// Opens a test of the roll.
    ///
    /// # Errors
    /// There is no such test.
    pub async fn open_pocket(&mut self, test: &str) -> anyhow::Result<()> {
        self.taps += 1;
        self.browser.press_what(By::Id(format!("roll-{test}"))).await?;
        Ok(())
    }

    /// The plate, once it says this.
    ///
    /// # Errors
    /// It never does.
    pub async fn plate(&mut self, words: &str) -> anyhow::Result<()> {
        self.browser.plate_says(words).await?;
        self.taps += 1;
        self.browser.press_what(By::Css(PLATE)).await?;
        Ok(())
    }

    /// From the station in hand to another: the line, then its name.
    ///
    /// # Errors
    /// There is no such station.
    pub async fn go(&mut self, from: &str, to: &str) -> anyhow::Result<()> {
        self.press(&format!("Stations: {from}")).await?;
        self.taps += 1;
        let row = By::XPath(format!("//*[@role='dialog']//a[starts-with(., '{to}')]"));
        self.browser.press_what(row).await?;
        Ok(())
    }
}

/// Somebody at the keys alone: each character and each key is one.
pub struct Keys<'a> {
    browser: &'a Browser,
    pub count: usize,
}

impl<'a> Keys<'a> {
    #[must_use]
    pub fn new(browser: &'a Browser) -> Self {
        Self { browser, count: 0 }
    }

    /// Types into whatever has the keys.
    ///
    /// # Errors
    /// The browser is gone.
    pub async fn send(&mut self, keys: &str) -> anyhow::Result<()> {
        self.count += keys.chars().count();
        self.browser.driver.action_chain().send_keys(keys).perform().await?;
        Ok(())
    }

    /// # Errors
    /// The browser is gone.
    pub async fn enter(&mut self) -> anyhow::Result<()> {
        self.send(ENTER).await
    }

    /// What is typed, and Enter.
    ///
    /// # Errors
    /// The browser is gone.
    pub async fn say(&mut self, text: &str) -> anyhow::Result<()> {
        self.send(text).await?;
        self.enter().await
    }

    /// Enter does what the plate says, once it says this; then the keys are in that field.
    ///
    /// # Errors
    /// It never does.
    pub async fn plate(&mut self, words: &str, field: &str) -> anyhow::Result<()> {
        self.browser.plate_says(words).await?;
        self.enter().await?;
        self.has_the_keys(field).await
    }

    /// Enter leads to a question and answers nothing: the first of its answers is a Tab further, and is said by the
    /// space bar.
    ///
    /// # Errors
    /// It never does.
    pub async fn first_answer(&mut self, words: &str, field: &str) -> anyhow::Result<()> {
        self.browser.plate_says(words).await?;
        self.enter().await?;
        let before = format!(
            "const at = document.activeElement;
             return at.matches('[data-question]') && at.querySelector('[id=\"field-{field}\"], [id=\"{field}\"]') !== null"
        );
        self.holds(&format!("the keys stand before {field}"), &before).await?;
        self.send(TAB).await?;
        self.holds("the keys are on its first answer", "return document.activeElement.matches('button')")
            .await?;
        self.send(" ").await
    }

    async fn holds(&self, what: &str, script: &str) -> anyhow::Result<()> {
        eventually(what, async || Ok(self.browser.run(script).await? == serde_json::Value::Bool(true))).await
    }

    /// Waits until the keys are in a field.
    ///
    /// # Errors
    /// They never are.
    pub async fn has_the_keys(&self, field: &str) -> anyhow::Result<()> {
        let script = format!(
            "return document.activeElement.closest('[id=\"field-{field}\"], [id^=\"field-crack\"][id$=\"-{field}\"]') !== null"
        );
        self.holds(&format!("the keys are in {field}"), &script).await
    }
}

const TAB: &str = "\u{e004}";

/// Enter, as the driver types it.
pub const ENTER: &str = "\u{e007}";

const PLATE: &str = ".plate > button";

impl Browser {
    /// Waits until the plate says so.
    ///
    /// # Errors
    /// It never does.
    pub async fn plate_says(&self, words: &str) -> anyhow::Result<()> {
        eventually(&format!("the plate says {words}"), async || {
            let script = format!("return document.querySelector('{PLATE}')?.innerText ?? ''");
            let said = self.run(&script).await?;
            Ok(said.as_str().is_some_and(|said| said.starts_with(words)))
        })
        .await
    }
}
