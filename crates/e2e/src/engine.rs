//! Browsers that run, each with a driver and a profile of its own, lent to one test after the other.
//!
//! Starting one costs more than most tests do. What a test leaves behind is told by origin (each server has
//! a port of its own) and let go of before the next: its tab, cookies, storage, workers. What it fetched stays:
//! an answer of the server may not be kept, and a file of the pages has its content in its name. So does the
//! process that draws: it has what it compiled of the pages, and goes on for some tests.

use std::collections::BTreeMap;
use std::io::{BufRead, BufReader};
use std::mem::ManuallyDrop;
use std::os::unix::process::CommandExt;
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::sync::{Mutex, PoisonError};

use anyhow::{Context, bail};
use serde_json::json;
use thirtyfour::prelude::*;

use crate::port::Lent;

const HEADLESS: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/headless.sh");

const FLAGS: &[&str] = &[
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--disable-dev-shm-usage",
    "--no-first-run",
    "--no-default-browser-check",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-extensions",
    "--disable-default-apps",
    "--disable-domain-reliability",
    "--disable-client-side-phishing-detection",
    "--metrics-recording-only",
    "--no-pings",
    "--password-store=basic",
    "--use-mock-keychain",
    "--force-device-scale-factor=1",
    "--force-color-profile=srgb",
    "--hide-scrollbars",
    // One process draws the pages of every server of the tests, and none is started in case one is wanted.
    "--process-per-site",
    "--disable-features=SpareRendererForSitePerProcess",
    // Who speaks as in the States is asked what is measured in.
    "--accept-lang=en-GB",
    "--lang=en-GB",
    // A page lives for seconds: what would be compiled once more, better, never pays for itself.
    "--js-flags=--no-opt --no-maglev",
    "--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE 127.0.0.1 , EXCLUDE localhost",
];

/// A process that draws is given up after so many tests: what it keeps of them grows, from 200 MB to 650 in two dozen.
const DRAWS_MOST: u32 = 8;

/// Those nobody has at the moment.
static IDLE: Mutex<Vec<Engine>> = Mutex::new(Vec::new());

/// Ends the driver and all it started, and removes the profile, as soon as its input is closed: also when the
/// tests themselves are killed.
const UNTIL_INPUT_CLOSES: &str = "chromedriver --port=0 2>&1 & exec >/dev/null; cat; trap '' TERM; kill 0; \
    sleep 0.2; rm -rf \"$1\"; kill -KILL 0";

/// A browser that runs. Dropping it ends it.
#[derive(Debug)]
pub(crate) struct Engine {
    /// Never dropped: it would ask a driver that is gone to end the session, and wait.
    driver: ManuallyDrop<WebDriver>,
    process: Child,
    /// A blank tab of the process that draws, with nothing in it: that process does not end with the tab of a test.
    blank: Option<WindowHandle>,
    /// So many tests were drawn by that process.
    drew: u32,
    /// What the test before looked at.
    left: Visited,
}

/// Origins that were looked at, and what is lent of the servers there.
pub(crate) type Visited = BTreeMap<String, Option<Lent>>;

impl Engine {
    /// One that is there already, emptied, or a new one.
    pub(crate) async fn ready() -> anyhow::Result<Self> {
        loop {
            let idle = IDLE.lock().unwrap_or_else(PoisonError::into_inner).pop();
            let Some(mut engine) = idle else { return Self::start().await };
            // One that cannot be emptied is let go of.
            if engine.empty().await.is_ok() {
                return Ok(engine);
            }
        }
    }

    pub(crate) fn driver(&self) -> &WebDriver {
        &self.driver
    }

    /// For the next test; not after a panic, when it may be in any state.
    pub(crate) fn give_back(mut self, left: Visited) {
        self.left = left;
        if !std::thread::panicking() {
            IDLE.lock().unwrap_or_else(PoisonError::into_inner).push(self);
        }
    }

    /// A new tab, and nothing of what was there before.
    async fn empty(&mut self) -> anyhow::Result<()> {
        let before = self.driver.windows().await?;
        let tab = self.driver.new_tab().await?;
        // The process ends with the last of its tabs, and the next test has a new one.
        let worn = self.drew + 1 == DRAWS_MOST;
        self.drew = if worn { 0 } else { self.drew + 1 };
        let mut blank = self.blank.take().filter(|_| !worn);
        for window in before {
            if blank.as_ref() == Some(&window) {
                continue;
            }
            self.driver.switch_to_window(window.clone()).await?;
            if worn || blank.is_some() {
                self.driver.close_window().await?;
            } else {
                // Left as a page leaves itself: so it stays in the process of that page.
                self.driver.execute("location.replace('about:blank')", vec![]).await?;
                blank = Some(window);
            }
        }
        self.blank = blank;
        self.driver.switch_to_window(tab).await?;
        let cdp = self.driver.cdp();
        for (origin, lent) in std::mem::take(&mut self.left) {
            let all = json!({ "origin": origin, "storageTypes": "all" });
            cdp.send_raw("Storage.clearDataForOrigin", all).await?;
            drop(lent);
        }
        cdp.send_raw("Network.clearBrowserCookies", json!({})).await?;
        Ok(())
    }

    async fn start() -> anyhow::Result<Self> {
        // Removed by the shell that ends the driver.
        let profile = tempfile::tempdir()?.keep();
        let (process, port) = driver(&profile)?;
        let mut wanted = DesiredCapabilities::chrome();
        for flag in FLAGS {
            wanted.add_arg(flag)?;
        }
        wanted.add_arg(&format!("--user-data-dir={}", profile.display()))?;
        wanted.set_binary(HEADLESS)?;
        // No connection outlives its request: each test has a runtime of its own, and connections end with it.
        let client = reqwest::Client::builder().pool_max_idle_per_host(0).build()?;
        let driver = WebDriver::builder(format!("http://127.0.0.1:{port}"), wanted).client(client).await?;
        Ok(Self { driver: ManuallyDrop::new(driver), process, blank: None, drew: 0, left: Visited::new() })
    }
}

impl Drop for Engine {
    fn drop(&mut self) {
        // Closes its input first.
        let _ = self.process.wait();
    }
}

/// A driver of its own and the port it listens on.
///
/// It draws a free port of one address family and then wants the same of the other: where that is taken it
/// ends without a word of a port, and another draw is made.
fn driver(profile: &Path) -> anyhow::Result<(Child, u16)> {
    let mut ended = String::new();
    for _ in 0..20 {
        let mut process = Command::new("sh")
            .args(["-c", UNTIL_INPUT_CLOSES, "sh"])
            .arg(profile)
            .stdin(Stdio::piped())
            .stdout(Stdio::piped())
            .process_group(0)
            .spawn()
            .context("no shell")?;
        ended.clear();
        for line in BufReader::new(process.stdout.take().context("no output")?).lines() {
            let line = line?;
            if let Some((_, port)) = line.split_once("successfully on port ") {
                return Ok((process, port.trim_end_matches('.').parse()?));
            }
            ended.push_str(&line);
            ended.push('\n');
        }
        process.wait()?;
    }
    bail!(
        "chromedriver named no port in twenty starts (cargo xtask test installs it); the last said:\n{ended}"
    )
}
