//! Every place, station, sheet and list, in both themes, on a laptop and on a phone: looked at by axe, measured
//! with a ruler, and read word by word.

use anyhow::Context;
use rstest::rstest;
use serde_json::json;
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, Glossary, Rules, Server, eventually};

const STATIONS: [&str; 10] =
    ["part", "iron", "cracks", "method", "prep", "heat", "torch", "cooling", "check", "hand-over"];

/// What is too small for a glove, or to be read; and every word of the page.
const RULER: &str = r"
const phone = innerWidth < 900, small = new Set(), words = new Set();
for (const e of document.querySelectorAll('body *')) {
  for (const name of ['aria-label', 'placeholder', 'title', 'alt']) {
    if (e.hasAttribute(name)) words.add(e.getAttribute(name));
  }
  const box = e.getBoundingClientRect(), style = getComputedStyle(e);
  if (box.width === 0 || box.height === 0 || style.visibility === 'hidden' || style.opacity === '0') continue;
  if (e.closest('.sr-only') !== null) continue;
  const own = [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim() !== '');
  if (own) {
    const drawn = e.closest('svg') !== null;
    const size = parseFloat(style.fontSize) * (drawn ? Math.abs(e.getScreenCTM().d) : 1);
    const least = drawn ? 12 : phone ? 16 : 14;
    if (size < least - 0.05) small.add(`${size.toFixed(1)} px: ${e.textContent.trim().slice(0, 40)}`);
  }
  if (e.matches('button, a[href], summary, input, textarea')) {
    // A figure is pressed in a field around it.
    const around = getComputedStyle(e, '::before');
    const laid = around.content !== 'none' && around.position === 'absolute';
    const high = Math.max(box.height, laid ? parseFloat(around.height) || 0 : 0);
    const wide = Math.max(box.width, laid ? parseFloat(around.width) || 0 : 0);
    if (high < 43.5 || wide < 43.5) {
      small.add(`${wide.toFixed(0)} x ${high.toFixed(0)}: ${(e.getAttribute('aria-label') ?? e.innerText).slice(0, 40)}`);
    }
  }
}
if (document.documentElement.scrollWidth > innerWidth) small.add('the page scrolls sideways');
document.body.innerText.split('\n').forEach((line) => words.add(line));
return [[...small], [...words].filter((line) => line.trim() !== '')];";

/// Looks at whatever is on the screen, and remembers what it found.
struct Eye<'a> {
    browser: &'a Browser,
    glossary: Glossary,
    found: Vec<String>,
    looks: usize,
}

impl Eye<'_> {
    async fn look(&mut self, at: &str) -> anyhow::Result<()> {
        let problems = self.browser.problems(Rules::All).await?;
        let (small, words): (Vec<String>, Vec<String>) =
            self.browser.driver.execute(RULER, vec![]).await?.convert()?;
        let said = words.iter().filter_map(|line| self.glossary.wrong(line));
        let new: Vec<String> = problems.into_iter().chain(small).chain(said).collect();
        self.found.extend(new.into_iter().map(|what| format!("{at}: {what}")));
        self.looks += 1;
        Ok(())
    }

    /// The same in the other theme: it differs in nothing but colour.
    async fn look_in_daylight(&mut self, at: &str) -> anyhow::Result<()> {
        let theme = |name: &str| format!("document.documentElement.dataset.theme = '{name}'");
        self.browser.run(&theme("daylight")).await?;
        let problems = self.browser.problems(Rules::Contrast).await?;
        self.browser.run(&theme("shop")).await?;
        self.found.extend(problems.into_iter().map(|what| format!("{at} in daylight: {what}")));
        Ok(())
    }

    /// Opens what a script opens, looks, and shuts it again.
    async fn opened(&mut self, at: &str, script: &str) -> anyhow::Result<()> {
        let on_top = "return document.querySelector('[role=dialog]') !== null";
        self.browser.run(script).await?;
        eventually(&format!("{at} opens"), async || Ok(self.browser.run(on_top).await? == json!(true)))
            .await?;
        self.look(at).await?;
        self.browser.key("\u{e00c}").await?;
        eventually(&format!("{at} shuts"), async || Ok(self.browser.run(on_top).await? == json!(false))).await
    }
}

/// Presses the first thing in sight that has these words or this name.
fn press(name: &str) -> String {
    format!(
        "const all = [...document.querySelectorAll('button, a')].filter((e) => e.getBoundingClientRect().width > 0);
         all.find((e) => e.innerText.trim() === '{name}' || (e.getAttribute('aria-label') ?? '').startsWith('{name}')).click()"
    )
}

#[rstest]
#[case::on_a_laptop((1280, 800))]
#[case::on_a_phone((390, 844))]
#[tokio::test]
async fn everything_can_be_read_pressed_and_understood(
    #[case] (width, height): (u32, u32),
) -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(width, height).await?;
    browser.go(&server.url("/")).await?;
    let mut eye = Eye { browser: &browser, glossary: Glossary::read()?, found: Vec::new(), looks: 0 };
    let main = || By::Css("main");
    for page in ["/", "/?away=", "/stores", "/ledger", "/reckoner?of=cooling", "/shop"] {
        browser.go(&server.url(page)).await?;
        browser.find(main()).await?;
        eye.look(page).await?;
        eye.look_in_daylight(page).await?;
    }
    // One hot, one planned and cold, one undecided, one refused, one handed over: between them every state.
    let seen: [(&str, &[&str]); 5] = [
        ("Letterpress", &STATIONS),
        ("Bell", &["cracks", "prep", "heat", "torch", "cooling"]),
        ("Malt", &["iron", "method"]),
        ("winch hook", &["part", "method", "torch"]),
        ("Incline", &["check", "hand-over", "helper"]),
    ];
    let mut pages = Vec::new();
    for (words, stations) in seen {
        let job = browser.job(words).await?;
        pages.extend(stations.iter().map(|station| format!("/jobs/{job}/{station}")));
    }
    for (at, page) in pages.iter().enumerate() {
        browser.walk_to(page).await?;
        let station =
            browser.find(By::Css("main h2, main button, main input, [data-testid='helper-next']")).await;
        station.with_context(|| format!("nothing on {page}"))?;
        eye.look(page).await?;
        // Another colour is seen on one of each.
        if at < STATIONS.len() {
            eye.look_in_daylight(page).await?;
        }
        // The formula too is read.
        let why = "const whys = [...document.querySelectorAll('main [data-why], [data-card] [data-why]')]
            .filter((e) => e.getBoundingClientRect().width > 0);
            if (whys.length > 0) { whys[0].click(); } return whys.length > 0";
        let asks = browser.run("return document.querySelector('[data-why]') !== null").await? == json!(true);
        if asks {
            eye.opened(&format!("{page}, why"), why).await?;
        }
    }
    let hot = browser.job("Letterpress").await?;
    browser.go(&server.url(&format!("/jobs/{hot}/torch"))).await?;
    browser.sees("Keep it covered").await?;
    for name in ["Note", "Job", "Reading", "Cross out"] {
        eye.opened(&format!("the sheet of {name}"), &press(name)).await?;
    }
    browser.key("?").await?;
    eye.opened("the keys", "return 0").await?;
    browser.go(&server.url(&format!("/jobs/{hot}/part"))).await?;
    browser.sees("Enough is known").await?;
    for fold in ["What it is", "Could it hurt", "How big", "In service", "How it came in"] {
        browser.unfold(fold).await?;
    }
    eye.look("the whole sheet").await?;
    browser.go(&server.url(&format!("/jobs/{hot}/cracks"))).await?;
    browser.sees("Ends found").await?;
    eye.opened("a list", &press("Ends found")).await?;
    if width < 900 {
        eye.opened("the stations", &press("Stations")).await?;
    }
    assert!(eye.looks > 15, "{} looks", eye.looks);
    assert!(eye.found.is_empty(), "{} things:\n{}", eye.found.len(), eye.found.join("\n"));
    Ok(())
}

#[tokio::test]
async fn at_twice_the_size_nothing_is_lost() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    // A laptop at 200 % has 640 x 400 of its own pixels left.
    let browser = Browser::open(640, 400).await?;
    browser.go(&server.url("/")).await?;
    let job = browser.job("Letterpress").await?;
    let mut lost = Vec::new();
    let pages = STATIONS.map(|station| format!("/jobs/{job}/{station}"));
    for page in ["/", "/stores", "/ledger", "/reckoner?of=pins-along", "/shop"]
        .map(str::to_owned)
        .into_iter()
        .chain(pages)
    {
        browser.walk_to(&page).await?;
        browser.find(By::Css("main button, main input, main a")).await?;
        // A drawing takes its width with the frame that shows it.
        browser.drawn().await?;
        // What reaches past the right edge cannot be come to.
        let script = "return [...document.querySelectorAll('main *, header *')]
            .filter((e) => e.getBoundingClientRect().right > innerWidth + 1)
            .map((e) => e.textContent.trim().slice(0, 40))";
        let past: Vec<String> = serde_json::from_value(browser.run(script).await?)?;
        lost.extend(past.into_iter().map(|what| format!("{page}: {what}")));
    }
    assert!(lost.is_empty(), "{}", lost.join("\n"));
    Ok(())
}
