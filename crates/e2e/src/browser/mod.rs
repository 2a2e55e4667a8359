//! A tab of a headless Chromium, and what a person does in it.

mod asked;
mod axe;
mod pointer;
mod press;
mod script;

pub use axe::Rules;

use std::cell::RefCell;
use std::fmt::Write as _;
use std::path::Path;
use std::sync::{Mutex, PoisonError};
use std::time::Duration;

use anyhow::{Context, bail};
use serde_json::{Value, json};
use tempfile::TempDir;
use thirtyfour::common::command::Selector;
use thirtyfour::prelude::*;

use crate::Server;
use crate::engine::{Engine, Visited};
use crate::port;

/// How long something may take to show up on a busy machine: a part has to cool in it.
pub const PATIENCE: Duration = Duration::from_secs(90);
const LOOK_EVERY: Duration = Duration::from_millis(90);
/// What lets itself be waited for is looked at more and more seldom: looking takes the machine's time too.
const LOOK_AT_LEAST_EVERY: Duration = Duration::from_millis(300);
const PRESS_AGAIN_AFTER: Duration = Duration::from_secs(3);

/// Leads to a page of the application, and waits in one go until it is there and drawn: also where it was led to already,
/// for one that was just loaded may have none of its parts yet. Tells whether it ever was.
const WALK: &str = "const [path, patience, done] = arguments;
    const begun = performance.now(), before = document.title, there = location.pathname + location.search === path;
    if (!there) {
      history.pushState(null, '', path);
      dispatchEvent(new PopStateEvent('popstate'));
    }
    const look = () => {
      const other = there || document.title !== before;
      if (other && document.querySelector('main :is(h2, button, input, a, section, b)') !== null) {
        document.fonts.ready.then(() => requestAnimationFrame(() => requestAnimationFrame(() => done(true))));
      } else if (performance.now() - begun > patience) {
        done(false);
      } else {
        requestAnimationFrame(look);
      }
    };
    look();";

/// The first element that is found so, where one is shown.
const FIRST_SHOWN: &str = "const there = (how, what) => {
      if (how === 'css selector') return [...document.querySelectorAll(what)];
      if (how === 'link text') return [...document.links].filter((it) => it.innerText.trim() === what);
      if (how !== 'xpath') throw new Error(`nothing is looked for by ${how}`);
      const all = document.evaluate(what, document, null, XPathResult.ORDERED_NODE_SNAPSHOT_TYPE, null);
      return Array.from({ length: all.snapshotLength }, (_, at) => all.snapshotItem(at));
    };
    const first = (how, what) => {
      const shown = (it) => it.getClientRects().length > 0
        && it.checkVisibility({ opacityProperty: true, visibilityProperty: true });
      // What can be chosen of a list that is shut is where the list is.
      return there(how, what).find((it) => shown(it.closest('select') ?? it)) ?? null;
    };";

/// A browser as one test has it: a tab of its own, that knows of nothing from before. Dropping it hands its
/// engine to the next one.
pub struct Browser {
    pub driver: WebDriver,
    /// Its place among those of its test.
    number: usize,
    engine: Option<Engine>,
    downloads: TempDir,
    visited: Mutex<Visited>,
}

thread_local! {
    /// The browsers of this test: it runs on a thread of its own.
    static OPEN: RefCell<Vec<Option<WebDriver>>> = const { RefCell::new(Vec::new()) };
}

/// What stands in the browsers of this test: a journey that got stuck tells where.
async fn stands() -> String {
    let open: Vec<WebDriver> = OPEN.with_borrow(|open| open.iter().flatten().cloned().collect());
    let mut said = String::new();
    for driver in open {
        let at = driver.current_url().await.map_or_else(|error| error.to_string(), |url| url.to_string());
        let words = driver.execute("return document.body.innerText", vec![]).await;
        let words = words.map_or_else(|error| error.to_string(), |words| words.json().to_string());
        let _ = write!(said, "\n{at} says {words}");
    }
    said
}

impl Browser {
    /// A window of this size in CSS pixels, as over plain http by address: no worker keeps the pages. That is how most
    /// devices of a shop have them, and each page is loaded in half the work.
    pub async fn open(width: u32, height: u32) -> anyhow::Result<Self> {
        let browser = Self::open_with_a_worker(width, height).await?;
        browser.before_every_page("delete Navigator.prototype.serviceWorker").await?;
        Ok(browser)
    }

    /// The same where a worker keeps the pages and what was seen: on the shop's own machine, and over TLS.
    pub async fn open_with_a_worker(width: u32, height: u32) -> anyhow::Result<Self> {
        let engine = Engine::ready().await?;
        let driver = engine.driver().clone();
        let number = OPEN.with_borrow_mut(|open| {
            open.push(Some(driver.clone()));
            open.len() - 1
        });
        let browser = Self {
            driver,
            number,
            engine: Some(engine),
            downloads: tempfile::tempdir()?,
            visited: Mutex::default(),
        };
        // It is the tab that is looked at: a page nobody sees lets go of its stream.
        browser.cdp("Page.bringToFront", json!({})).await?;
        browser.cdp("Emulation.setFocusEmulationEnabled", json!({ "enabled": true })).await?;
        browser.resize(width, height).await?;
        // Whatever is pressed at random: nothing lands where the test was started.
        let folder = browser.downloads.path();
        let into = json!({ "behavior": "allow", "downloadPath": folder });
        browser.cdp("Browser.setDownloadBehavior", into).await?;
        Ok(browser)
    }

    /// Another size, as if the window or the device were another.
    pub async fn resize(&self, width: u32, height: u32) -> anyhow::Result<()> {
        let size = json!({ "width": width, "height": height, "deviceScaleFactor": 1, "mobile": width < 600 });
        self.cdp("Emulation.setDeviceMetricsOverride", size).await?;
        Ok(())
    }

    /// What is in sight, as a PNG, once its fonts are there.
    pub async fn picture(&self, file: &Path) -> anyhow::Result<()> {
        self.drawn().await?;
        Ok(self.driver.screenshot(file).await?)
    }

    /// Waits until the fonts are there and what changed is drawn.
    pub async fn drawn(&self) -> anyhow::Result<()> {
        let drawn = "const done = arguments[0];
            document.fonts.ready.then(() => requestAnimationFrame(() => requestAnimationFrame(() => done(true))));";
        self.told_later(drawn, &json!([])).await?;
        Ok(())
    }

    async fn cdp(&self, command: &str, parameters: Value) -> anyhow::Result<Value> {
        Ok(self.driver.cdp().send_raw(command, parameters).await?)
    }

    pub async fn go(&self, url: &str) -> anyhow::Result<()> {
        self.goes_to(url);
        Ok(self.driver.goto(url).await?)
    }

    fn goes_to(&self, url: &str) {
        let origin = url.splitn(4, '/').take(3).collect::<Vec<_>>().join("/");
        let lent = port::of(&origin);
        let mut visited = self.visited.lock().unwrap_or_else(PoisonError::into_inner);
        let known = visited.entry(origin).or_default();
        *known = lent.or(known.take());
    }

    /// To a server, and none of its pages: to ask it, and say to it, what no page is needed for.
    pub async fn at(&self, server: &Server) -> anyhow::Result<()> {
        self.go(&server.url("/api/health")).await
    }

    /// To another page of the application as a link leads there: nothing is fetched that is there already.
    pub async fn walk_to(&self, path: &str) -> anyhow::Result<()> {
        let walked = self.told_later(WALK, &json!([path, PATIENCE.as_millis()])).await?;
        anyhow::ensure!(walked == json!(true), "{path} was never there{}", stands().await);
        Ok(())
    }

    /// The first element, once it is there and shown. It is looked for in the page, in one go: the driver's own look at
    /// whether one is shown costs more than most pages do.
    pub async fn find(&self, by: By) -> anyhow::Result<WebElement> {
        let what = format!("{by:?}");
        let selector = Selector::from(by);
        let asked = vec![json!(selector.name), json!(selector.query)];
        let first = format!("{FIRST_SHOWN} return first(...arguments);");
        let mut found = None;
        let seen = eventually(&what, async || {
            let first = self.driver.execute(&first, asked.clone()).await?;
            if first.json().is_null() {
                return Ok(false);
            }
            found = Some(first.element()?);
            Ok(true)
        });
        seen.await.with_context(|| format!("never seen: {what}"))?;
        found.with_context(|| format!("never seen: {what}"))
    }

    /// The pages of what would be printed on paper of this width and height in inches, and its words.
    pub async fn printed(&self, (width, height): (f64, f64)) -> anyhow::Result<(usize, String)> {
        use base64::Engine;
        let paper = json!({ "paperWidth": width, "paperHeight": height });
        let answer = self.cdp("Page.printToPDF", paper).await?;
        let pdf = answer["data"].as_str().context("nothing was printed")?;
        let pdf = base64::engine::general_purpose::STANDARD.decode(pdf)?;
        let pages = String::from_utf8_lossy(&pdf).matches("/Type /Page\n").count();
        // The words as they stand while it is printed.
        self.cdp("Emulation.setEmulatedMedia", json!({ "media": "print" })).await?;
        // A page is told of it with the next frame, before what waits for that frame.
        self.told_later("requestAnimationFrame(arguments[0])", &json!([])).await?;
        let words = self.page().await?;
        self.cdp("Emulation.setEmulatedMedia", json!({ "media": "" })).await?;
        Ok((pages, words))
    }

    pub async fn text(&self, test_id: &str) -> anyhow::Result<String> {
        self.words_of(By::Css(format!("[data-testid='{test_id}']"))).await
    }

    /// The words of the first element that is found so, once it is there and shown.
    async fn words_of(&self, by: By) -> anyhow::Result<String> {
        let found = Selector::from(by);
        let asked = json!([found.name, found.query]);
        let words = format!("{FIRST_SHOWN} return first(...arguments)?.innerText.trim() ?? null;");
        let mut read = None;
        eventually(&format!("words of {}", found.query), async || {
            read = self.told(&words, &asked).await?.as_str().map(str::to_owned);
            Ok(read.is_some())
        })
        .await?;
        read.context("no words")
    }

    /// What a figure of the plan shows; of a crack's by the end of its name.
    pub async fn figure(&self, ending: &str) -> anyhow::Result<String> {
        self.words_of(By::Css(format!("[data-testid^='figure.'][data-testid$='{ending}']"))).await
    }

    /// A page as it is on a phone over plain http, by address: without what needs a secure origin.
    pub async fn without_a_secure_origin(&self) -> anyhow::Result<()> {
        let source = "delete Crypto.prototype.randomUUID; delete Crypto.prototype.subtle;
            delete Navigator.prototype.serviceWorker; delete Navigator.prototype.clipboard;
            Object.defineProperty(window, 'isSecureContext', { value: false });";
        self.before_every_page(source).await
    }

    /// Runs a script before anything of a page does.
    pub async fn before_every_page(&self, script: &str) -> anyhow::Result<()> {
        self.cdp("Page.addScriptToEvaluateOnNewDocument", json!({ "source": script })).await?;
        Ok(())
    }

    /// The words of the whole page.
    pub async fn page(&self) -> anyhow::Result<String> {
        // The browser's own reading: the driver's walks through every element. A first letter is as it was written.
        let script = "if (document.getElementById('as-written') === null) {
              const style = document.createElement('style');
              style.id = 'as-written';
              style.textContent = '*::first-letter { text-transform: none !important }';
              document.head.append(style);
            }
            return document.body.innerText";
        Ok(self.run(script).await?.as_str().unwrap_or_default().to_owned())
    }

    pub async fn sees(&self, words: &str) -> anyhow::Result<()> {
        let seen =
            eventually(&format!("see {words:?}"), async || Ok(self.page().await?.contains(words))).await;
        if let Err(error) = seen {
            let page = self.page().await.unwrap_or_else(|error| error.to_string());
            return Err(error.context(format!("instead: {page}")));
        }
        Ok(())
    }

    /// Where downloads land: a folder of this test.
    #[must_use]
    pub fn downloads(&self) -> &Path {
        self.downloads.path()
    }
}

impl Drop for Browser {
    fn drop(&mut self) {
        OPEN.with_borrow_mut(|open| open[self.number] = None);
        let visited = std::mem::take(self.visited.get_mut().unwrap_or_else(PoisonError::into_inner));
        if let Some(engine) = self.engine.take() {
            engine.give_back(visited);
        }
    }
}

fn quoted(words: &str) -> String {
    if words.contains('\'') { format!("\"{words}\"") } else { format!("'{words}'") }
}

/// Looks again and again until it holds; fails when it never does.
pub async fn eventually(
    what: &str,
    mut holds: impl AsyncFnMut() -> anyhow::Result<bool>,
) -> anyhow::Result<()> {
    let patience = tokio::time::Instant::now() + PATIENCE;
    let mut pause = LOOK_EVERY;
    let mut last = String::new();
    loop {
        // An element that went away between two looks is no failure yet.
        match holds().await {
            Ok(true) => return Ok(()),
            Ok(false) => last.clear(),
            Err(error) => last = format!(" ({error:#})"),
        }
        if tokio::time::Instant::now() >= patience {
            break;
        }
        tokio::time::sleep(pause).await;
        pause = (pause * 5 / 4).min(LOOK_AT_LEAST_EVERY);
    }
    bail!("it never came about: {what}{last}{}", stands().await)
}
