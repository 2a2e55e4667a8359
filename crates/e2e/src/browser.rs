//! A tab of a headless Chromium, and what a person does in it.

use std::cell::RefCell;
use std::collections::BTreeSet;
use std::fmt::Write as _;
use std::path::Path;
use std::sync::{Mutex, PoisonError};
use std::time::{Duration, SystemTime, UNIX_EPOCH};

use anyhow::{Context, bail};
use serde_json::{Value, json};
use tempfile::TempDir;
use thirtyfour::prelude::*;
use uuid::Uuid;

use crate::Server;
use crate::engine::Engine;

/// So long after the first a fast second press comes, in s.
const APART_S: f64 = 0.1;
/// How long something may take to show up on a busy machine: a part has to cool in it.
pub const PATIENCE: Duration = Duration::from_secs(90);
const LOOK_EVERY: Duration = Duration::from_millis(40);
/// What lets itself be waited for is looked at more and more seldom: looking takes the machine's time too.
const LOOK_AT_LEAST_EVERY: Duration = Duration::from_millis(300);
const PRESS_AGAIN_AFTER: Duration = Duration::from_secs(3);

/// A browser as one test has it: a tab of its own, that knows of nothing from before. Dropping it hands its
/// engine to the next one.
pub struct Browser {
    pub driver: WebDriver,
    /// Its place among those of its test.
    number: usize,
    engine: Option<Engine>,
    downloads: TempDir,
    visited: Mutex<BTreeSet<String>>,
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
    /// A window of this size in CSS pixels.
    pub async fn open(width: u32, height: u32) -> anyhow::Result<Self> {
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
        self.driver.execute_async(drawn, vec![]).await?;
        Ok(())
    }

    async fn cdp(&self, command: &str, parameters: Value) -> anyhow::Result<Value> {
        Ok(self.driver.cdp().send_raw(command, parameters).await?)
    }

    pub async fn go(&self, url: &str) -> anyhow::Result<()> {
        let origin = url.splitn(4, '/').take(3).collect::<Vec<_>>().join("/");
        self.visited.lock().unwrap_or_else(PoisonError::into_inner).insert(origin);
        Ok(self.driver.goto(url).await?)
    }

    /// To a server, and none of its pages: to ask it, and say to it, what no page is needed for.
    pub async fn at(&self, server: &Server) -> anyhow::Result<()> {
        self.go(&server.url("/api/health")).await
    }

    /// To another page of the application as a link leads there: nothing is fetched that is there already.
    pub async fn walk_to(&self, path: &str) -> anyhow::Result<()> {
        let script = format!(
            "history.pushState(null, '', {}); dispatchEvent(new PopStateEvent('popstate'))",
            json!(path)
        );
        if self.run("return location.pathname + location.search").await? == json!(path) {
            return self.drawn().await;
        }
        let before = self.run("return document.title").await?;
        self.run(&script).await?;
        let there = "const main = document.querySelector('main');
            return main !== null && main.querySelector('h2, button, input, a, section, b') !== null";
        eventually(&format!("{path} is there"), async || {
            let other = self.run("return document.title").await? != before;
            Ok(other && self.run(there).await? == json!(true))
        })
        .await?;
        self.drawn().await
    }

    /// The first element, once it is there and shown.
    pub async fn find(&self, by: By) -> anyhow::Result<WebElement> {
        let what = format!("{by:?}");
        let mut found = None;
        let seen = eventually(&what, async || {
            for element in self.driver.find_all(by.clone()).await? {
                if element.is_displayed().await? {
                    found = Some(element);
                    return Ok(true);
                }
            }
            Ok(false)
        });
        seen.await.with_context(|| format!("never seen: {what}"))?;
        found.with_context(|| format!("never seen: {what}"))
    }

    /// Presses it where a person would have scrolled it to: not under what lies on the page.
    async fn click(&self, element: &WebElement) -> anyhow::Result<()> {
        let scroll = "arguments[0].scrollIntoView({ block: 'nearest' })";
        self.driver.execute(scroll, vec![element.to_json()?]).await?;
        Ok(element.click().await?)
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
        let words = self.page().await?;
        self.cdp("Emulation.setEmulatedMedia", json!({ "media": "" })).await?;
        Ok((pages, words))
    }

    /// A button or link by its accessible name or its words.
    pub async fn button(&self, name: &str) -> anyhow::Result<WebElement> {
        let path = format!(
            "//*[self::button or self::a or @role='button' or @role='radio'][@aria-label={0} or normalize-space(.)={0}]",
            quoted(name)
        );
        self.find(By::XPath(path)).await
    }

    pub async fn press(&self, name: &str) -> anyhow::Result<()> {
        // A page may be drawn anew between finding and pressing.
        eventually(&format!("press {name}"), async || Ok(self.click(&self.button(name).await?).await.is_ok()))
            .await
    }

    /// Opens a way at the station Method, one that is ruled out likewise.
    pub async fn way(&self, name: &str) -> anyhow::Result<()> {
        let path = format!(
            "//button[@aria-expanded][descendant::*[self::span or self::b][normalize-space(.)={}]]",
            quoted(name)
        );
        // Those further back are unfolded first.
        let unfold = "[...document.querySelectorAll('button')].find((b) => /further back$/.test(b.textContent))?.click()";
        eventually(&format!("open {name}"), async || {
            let there = self.driver.find_all(By::XPath(path.as_str())).await?;
            let Some(way) = there.first() else {
                self.run(unfold).await?;
                return Ok(false);
            };
            Ok(self.click(way).await.is_ok())
        })
        .await
    }

    /// Opens a thing in the stores.
    pub async fn thing(&self, name: &str) -> anyhow::Result<()> {
        let path =
            format!("//button[@data-testid='thing'][descendant::span[normalize-space(.)={}]]", quoted(name));
        eventually(&format!("open {name}"), async || {
            Ok(self.click(&self.find(By::XPath(path.as_str())).await?).await.is_ok())
        })
        .await
    }

    /// To a station by its name on the heat line.
    pub async fn station(&self, word: &str) -> anyhow::Result<()> {
        let path = format!("//nav[@aria-label='Stations']//a[normalize-space(.)={}]", quoted(word));
        eventually(&format!("to {word}"), async || {
            Ok(self.find(By::XPath(path.as_str())).await?.click().await.is_ok())
        })
        .await
    }

    /// Presses what is found so.
    pub async fn press_what(&self, by: By) -> anyhow::Result<()> {
        eventually(&format!("press {by:?}"), async || {
            Ok(self.click(&self.find(by.clone()).await?).await.is_ok())
        })
        .await
    }

    pub async fn press_test_id(&self, id: &str) -> anyhow::Result<()> {
        let by = || By::Css(format!("[data-testid='{id}']"));
        eventually(&format!("press {id}"), async || Ok(self.find(by()).await?.click().await.is_ok())).await
    }

    /// The field with this label.
    pub async fn field(&self, label: &str) -> anyhow::Result<WebElement> {
        let path = format!("//label[span[normalize-space(.)={}]]", quoted(label));
        let id = self.find(By::XPath(path)).await?.attr("for").await?.context("a label for nothing")?;
        self.find(By::Id(id)).await
    }

    /// Types into the field with this label and presses Enter.
    pub async fn type_in(&self, label: &str, text: &str) -> anyhow::Result<()> {
        let mut found = None;
        // A page may be drawn anew between finding and pressing; what has the keys stays.
        eventually(&format!("into {label}"), async || {
            let field = self.field(label).await?;
            self.click(&field).await?;
            found = Some(field);
            Ok(true)
        })
        .await?;
        let field = found.with_context(|| format!("no field {label}"))?;
        field.send_keys(Key::Control + "a").await?;
        if text.is_empty() {
            field.send_keys(Key::Backspace + "").await?;
        } else {
            field.send_keys(text).await?;
        }
        field.send_keys(Key::Enter + "").await?;
        Ok(())
    }

    /// Chooses from the list that the field with this label opens.
    pub async fn pick(&self, label: &str, choice: &str) -> anyhow::Result<()> {
        let option = format!("//*[@data-list]//button[normalize-space(.)={}]", quoted(choice));
        let mut pressed = tokio::time::Instant::now() - PRESS_AGAIN_AFTER;
        // The page may be drawn anew under the finger: a person presses again.
        eventually(&format!("choose {choice} of {label}"), async || {
            if let Ok(option) = self.driver.find(By::XPath(option.as_str())).await {
                option.click().await?;
                return Ok(true);
            }
            if pressed.elapsed() >= PRESS_AGAIN_AFTER {
                pressed = tokio::time::Instant::now();
                self.click(&self.field(label).await?).await?;
            }
            Ok(false)
        })
        .await?;
        let gone = || By::Css("[data-list]");
        eventually("the list closes", async || Ok(self.driver.find(gone()).await.is_err())).await
    }

    /// Chooses among the choices side by side under this name.
    pub async fn choose(&self, group: &str, choice: &str) -> anyhow::Result<()> {
        let path = format!(
            "//*[@role='group' or @role='radiogroup' or @role='toolbar'][@aria-label={}]//button[normalize-space(.)={}]",
            quoted(group),
            quoted(choice)
        );
        eventually(&format!("choose {choice} of {group}"), async || {
            Ok(self.click(&self.find(By::XPath(path.as_str())).await?).await.is_ok())
        })
        .await
    }

    /// Opens a part of a sheet that lies folded.
    pub async fn unfold(&self, title: &str) -> anyhow::Result<()> {
        let path = format!("//section[@aria-label={}]/button[@aria-expanded]", quoted(title));
        eventually(&format!("unfold {title}"), async || {
            let fold = self.driver.find(By::XPath(path.as_str())).await?;
            if fold.attr("aria-expanded").await?.as_deref() == Some("true") {
                return Ok(true);
            }
            self.click(&fold).await?;
            Ok(false)
        })
        .await
    }

    /// A key pressed on the page itself.
    pub async fn key(&self, key: &str) -> anyhow::Result<()> {
        self.driver.action_chain().send_keys(key).perform().await?;
        Ok(())
    }

    /// Enter, held down until it has repeated itself so often.
    pub async fn hold_enter(&self, times: u32) -> anyhow::Result<()> {
        let event = |kind: &str, again: bool| {
            json!({ "type": kind, "key": "Enter", "code": "Enter", "windowsVirtualKeyCode": 13,
                    "text": "\r", "autoRepeat": again })
        };
        for at in 0..=times {
            self.cdp("Input.dispatchKeyEvent", event("keyDown", at > 0)).await?;
        }
        self.cdp("Input.dispatchKeyEvent", json!({ "type": "keyUp", "key": "Enter", "code": "Enter" }))
            .await?;
        Ok(())
    }

    /// Two fast presses at one place of the window, as of a hand that is not sure of the first.
    pub async fn press_twice(&self, x: f64, y: f64) -> anyhow::Result<()> {
        // As fast as a hand is, however long the page takes to be drawn in between: the events carry their own time.
        let first_s = SystemTime::now().duration_since(UNIX_EPOCH)?.as_secs_f64();
        for count in 1..=2 {
            let at_s = first_s + APART_S * f64::from(count - 1);
            for kind in ["mousePressed", "mouseReleased"] {
                let event = json!({
                    "type": kind, "x": x, "y": y, "button": "left", "clickCount": count, "timestamp": at_s
                });
                self.cdp("Input.dispatchMouseEvent", event).await?;
            }
            self.drawn().await?;
        }
        Ok(())
    }

    /// A place of the face that is on the map, in pixels of the window.
    pub async fn on_the_map(&self, x_mm: f64, y_mm: f64) -> anyhow::Result<(f64, f64)> {
        let script = format!(
            "const map = document.querySelector('[data-map]')
             const box = map.getBoundingClientRect()
             const {{ scale, left, top }} = map.dataset
             return [box.left + +left + {x_mm} * scale, box.top + +top + {y_mm} * scale]"
        );
        let at = self.run(&script).await?;
        Ok((at[0].as_f64().context("x")?, at[1].as_f64().context("y")?))
    }

    /// Pen, finger or mouse: down at the first of these places, over the others, up at the last. In pixels
    /// of the window; `kind` is mouse or touch.
    pub async fn pointer(&self, kind: &str, places: &[(f64, f64)]) -> anyhow::Result<()> {
        let Some((first, last)) = places.first().zip(places.last()) else { return Ok(()) };
        let touch = kind == "touch";
        let event = if touch { "Input.dispatchTouchEvent" } else { "Input.dispatchMouseEvent" };
        let at = |what: [&str; 2], (x, y): (f64, f64), held: bool| {
            if touch {
                let points = if held { json!([{ "x": x, "y": y }]) } else { json!([]) };
                json!({ "type": what[1], "touchPoints": points })
            } else {
                let button = if what[0] == "mouseMoved" && !held { "none" } else { "left" };
                json!({ "type": what[0], "x": x, "y": y, "button": button, "buttons": u8::from(held), "clickCount": 1 })
            }
        };
        if !touch {
            self.cdp(event, at(["mouseMoved", ""], *first, false)).await?;
        }
        self.cdp(event, at(["mousePressed", "touchStart"], *first, true)).await?;
        for place in &places[1..] {
            self.cdp(event, at(["mouseMoved", "touchMove"], *place, true)).await?;
        }
        self.cdp(event, at(["mouseReleased", "touchEnd"], *last, false)).await?;
        Ok(())
    }

    pub async fn text(&self, test_id: &str) -> anyhow::Result<String> {
        Ok(self.find(By::Css(format!("[data-testid='{test_id}']"))).await?.text().await?)
    }

    /// What a figure of the plan shows; of a crack's by the end of its name.
    pub async fn figure(&self, ending: &str) -> anyhow::Result<String> {
        Ok(self
            .find(By::Css(format!("[data-testid^='figure.'][data-testid$='{ending}']")))
            .await?
            .text()
            .await?)
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

    /// Runs a script on the page.
    pub async fn run(&self, script: &str) -> anyhow::Result<Value> {
        Ok(self.driver.execute(script, vec![]).await?.json().clone())
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

    /// The answer of a request made by the page: status and JSON.
    pub async fn fetch(&self, method: &str, path: &str, body: Value) -> anyhow::Result<(u16, Value)> {
        let script = "const [method, path, body, done] = arguments;
            const init = { method, headers: { 'Content-Type': 'application/json' } };
            if (body !== null) init.body = JSON.stringify(body);
            fetch(path, init).then(async (answer) => done([answer.status, await answer.json()]))
              .catch((error) => done([0, String(error)]));";
        let answer = self.driver.execute_async(script, vec![json!(method), json!(path), body]).await?;
        let (status, json): (u16, Value) = answer.convert()?;
        Ok((status, json))
    }

    /// What stands at an address, as text.
    pub async fn fetch_text(&self, path: &str) -> anyhow::Result<(u16, String)> {
        let script = "const [path, done] = arguments;
            fetch(path).then(async (answer) => done([answer.status, await answer.text()]))
              .catch((error) => done([0, String(error)]));";
        Ok(self.driver.execute_async(script, vec![json!(path)]).await?.convert()?)
    }

    /// Opens what lies folded under a line that begins like this.
    pub async fn unfold_details(&self, begins: &str) -> anyhow::Result<()> {
        let path = format!("//summary[starts-with(normalize-space(.),{})]", quoted(begins));
        eventually(&format!("unfold {begins}"), async || {
            Ok(self.click(&self.find(By::XPath(path.as_str())).await?).await.is_ok())
        })
        .await
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
        let arguments = vec![json!(format!("/api/jobs/{job}/facts")), fact];
        let wrong: String = self.driver.execute_async(script, arguments).await?.convert()?;
        if !wrong.is_empty() {
            bail!("{wrong}");
        }
        Ok(())
    }

    /// The job as it stands on the server.
    pub async fn view(&self, job: &str) -> anyhow::Result<Value> {
        let (status, view) = self.fetch("GET", &format!("/api/jobs/{job}"), Value::Null).await?;
        if status != 200 {
            bail!("{view}");
        }
        Ok(view)
    }

    /// Where downloads land: a folder of this test.
    #[must_use]
    pub fn downloads(&self) -> &Path {
        self.downloads.path()
    }

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
            self.driver.execute(&source, vec![]).await?;
        }
        // Told of what is wrong alone, and not where it stands: naming each place costs more than looking.
        let script = "const done = arguments[1], only = arguments[0] === null ? {} : { runOnly: [arguments[0]] };
            const quick = { resultTypes: ['violations'], preload: false, selectors: false };
            axe.run(document.querySelector('[role=dialog]') ?? document, { ...quick, ...only }).then((found) => done([
            found.passes.length,
            found.violations.map((v) => v.impact + ' ' + v.id + ': ' + v.nodes.slice(0, 3).map((n) => n.html).join(' | ')) ]));";
        let (passed, found): (u32, Vec<String>) =
            self.driver.execute_async(script, vec![json!(rules.only())]).await?.convert()?;
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
