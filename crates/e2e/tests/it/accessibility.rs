//! Every place, station, sheet and list, in both themes, on a laptop and on a phone: looked at by axe, measured
//! with a ruler, and read word by word; and what is in sight of it when it is opened.

use anyhow::Context;
use rstest::rstest;
use serde_json::json;
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, Server, eventually};

use crate::eye::Eye;

const STATIONS: [&str; 10] =
    ["part", "iron", "cracks", "method", "prep", "heat", "torch", "cooling", "check", "hand-over"];

/// Opens what a script opens, looks, and shuts it again.
async fn opened(browser: &Browser, eye: &mut Eye<'_>, at: &str, script: &str) -> anyhow::Result<()> {
    open(browser, at, script).await?;
    eye.look(at).await?;
    shut(browser, at).await
}

const ON_TOP: &str = "return document.querySelector('[role=dialog]') !== null";

async fn open(browser: &Browser, at: &str, script: &str) -> anyhow::Result<()> {
    // What opens it may come a moment after the first words of the page.
    let pressed = async || Ok(browser.run(script).await? != json!(false));
    eventually(&format!("what opens {at} is there"), pressed).await?;
    eventually(&format!("{at} opens"), async || Ok(browser.run(ON_TOP).await? == json!(true))).await
}

async fn shut(browser: &Browser, at: &str) -> anyhow::Result<()> {
    browser.key("\u{e00c}").await?;
    eventually(&format!("{at} shuts"), async || Ok(browser.run(ON_TOP).await? == json!(false))).await
}

/// Presses the first thing in sight that has these words or this name.
fn press(name: &str) -> String {
    format!(
        "const all = [...document.querySelectorAll('button, a')].filter((e) => e.getBoundingClientRect().width > 0);
         const it = all.find((e) => e.innerText.trim() === '{name}' || (e.getAttribute('aria-label') ?? '').startsWith('{name}'));
         it?.click();
         return it !== undefined"
    )
}

/// One hot, one planned and cold, one undecided, one refused, two that are on their way: between them every state. Axe
/// looks at all stations of the first, and at what the others have that it has not.
const JOBS: [(&str, &[&str]); 6] = [
    ("Letterpress", &STATIONS),
    ("Bell", &["cracks", "prep", "heat", "torch", "cooling"]),
    ("Malt", &["iron", "method"]),
    ("winch hook", &["part", "method", "torch"]),
    ("Seed drill", &[]),
    ("Biscuit", &[]),
];

/// House: so many words are read at once on a first screen.
const ON_A_LAPTOP: u64 = 150;
const ON_A_PHONE: u64 = 90;

#[rstest]
#[case::on_a_laptop((1280, 800), ON_A_LAPTOP)]
#[case::on_a_phone((390, 844), ON_A_PHONE)]
#[tokio::test]
async fn everything_can_be_read_pressed_and_understood(
    #[case] (width, height): (u32, u32),
    #[case] most: u64,
) -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(width, height).await?;
    let mut eye = Eye::of(&browser).await?;
    browser.go(&server.url("/")).await?;
    for page in ["/", "/?away=", "/stores", "/ledger", "/reckoner?of=cooling", "/shop"] {
        browser.walk_to(page).await?;
        eye.at_rest().await?;
        eye.look(page).await?;
        eye.look_in_daylight(page).await?;
    }
    let mut pages = Vec::new();
    for (words, by_axe) in JOBS {
        let job = browser.job(words).await?;
        pages.extend(STATIONS.map(|station| (format!("/jobs/{job}/{station}"), by_axe.contains(&station))));
    }
    let over = browser.job("Incline").await?;
    pages.extend(["check", "hand-over", "helper"].map(|station| (format!("/jobs/{over}/{station}"), true)));
    for (at, (page, by_axe)) in pages.iter().enumerate() {
        browser.walk_to(page).await?;
        let station =
            browser.find(By::Css("main h2, main button, main input, [data-testid='helper-next']")).await;
        station.with_context(|| format!("nothing on {page}"))?;
        eye.at_rest().await?;
        // The record is a document, read as it is printed: it is not counted.
        if !page.ends_with("hand-over") {
            eye.read_at_once(page, most).await?;
        }
        if *by_axe {
            eye.look(page).await?
        } else {
            eye.measure(page).await?
        }
        // Another colour is seen on one of each.
        let first_of_its_kind = at < STATIONS.len();
        if first_of_its_kind {
            eye.look_in_daylight(page).await?;
        }
        // The formula too is read.
        let why = "const whys = [...document.querySelectorAll('main [data-why], [data-card] [data-why]')]
            .filter((e) => e.getBoundingClientRect().width > 0);
            if (whys.length > 0) { whys[0].click(); } return whys.length > 0";
        let asks = browser.run("return document.querySelector('[data-why]') !== null").await? == json!(true);
        if *by_axe && asks {
            let of = format!("{page}, why");
            open(&browser, &of, why).await?;
            if first_of_its_kind {
                eye.look(&of).await?
            } else {
                eye.measure(&of).await?
            }
            shut(&browser, &of).await?;
        }
    }
    let hot = browser.job("Letterpress").await?;
    browser.walk_to(&format!("/jobs/{hot}/torch")).await?;
    browser.sees("Keep it covered").await?;
    for name in ["Note", "Job", "Reading", "Cross out"] {
        opened(&browser, &mut eye, &format!("the sheet of {name}"), &press(name)).await?;
    }
    browser.key("?").await?;
    opened(&browser, &mut eye, "the keys", "return 0").await?;
    browser.walk_to(&format!("/jobs/{hot}/part")).await?;
    browser.sees("Enough is known").await?;
    for fold in ["What it is", "Could it hurt", "How big", "In service", "How it came in"] {
        browser.unfold(fold).await?;
    }
    eye.look("the whole sheet").await?;
    browser.walk_to(&format!("/jobs/{hot}/cracks")).await?;
    browser.sees("Ends found").await?;
    opened(&browser, &mut eye, "a list", &press("Ends found")).await?;
    if width < 900 {
        opened(&browser, &mut eye, "the stations", &press("Stations")).await?;
    }
    assert!(eye.looks > 15 && eye.words > 1_500, "{} looks, {} words", eye.looks, eye.words);
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
        // What reaches past the right edge cannot be come to.
        let script = "return [...document.querySelectorAll('main *, header *')]
            .filter((e) => e.getBoundingClientRect().right > innerWidth + 1)
            .map((e) => e.textContent.trim().slice(0, 40))";
        let mut past: Vec<String> = Vec::new();
        // A drawing takes its width a few frames after it is there.
        for _ in 0..20 {
            browser.drawn().await?;
            past = serde_json::from_value(browser.run(script).await?)?;
            if past.is_empty() {
                break;
            }
        }
        lost.extend(past.into_iter().map(|what| format!("{page}: {what}")));
    }
    assert!(lost.is_empty(), "{}", lost.join("\n"));
    Ok(())
}
