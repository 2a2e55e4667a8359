//! What is read at first: the words that are in sight when a station is opened, on a laptop and on a phone.

use std::cell::Cell;

use rstest::rstest;
use serde_json::{Value, json};
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, Server, eventually};

/// Each word of the station's own sheet that is in sight: not those of the card, the head, the heat line, of what is
/// said of a hot part on every page, and of what is drawn.
const IN_SIGHT: &str = r"
    const elsewhere = '[data-card], header, nav, svg, .sr-only, [aria-hidden=true], [data-testid=hot-now], [data-testid=keep-off], .plate';
    const walker = document.createTreeWalker(document.querySelector('main'), NodeFilter.SHOW_TEXT);
    const range = document.createRange();
    // What cuts the text of an element off, looked for once.
    const known = new Map();
    const cut = (e) => {
        if (e === null || e === document.body) return [];
        if (!known.has(e)) {
            const { overflowX, overflowY } = getComputedStyle(e);
            const own = /auto|scroll|hidden/.test(overflowX + overflowY) ? [e.getBoundingClientRect()] : [];
            known.set(e, [...own, ...cut(e.parentElement)]);
        }
        return known.get(e);
    };
    const outside = (rect) => (box) =>
        rect.top >= box.bottom - 2 || rect.bottom <= box.top || rect.left >= box.right - 2;
    // What lies under the plate is not in sight.
    const plates = [...document.querySelectorAll('.plate')].map((plate) => plate.getBoundingClientRect());
    const under = (rect) => (plate) =>
        rect.top >= plate.top && rect.left < plate.right && rect.right > plate.left;
    let words = 0;
    for (let node = walker.nextNode(); node !== null; node = walker.nextNode()) {
        // What lies folded in has a place too.
        if (node.parentElement.closest(elsewhere) !== null || !node.parentElement.checkVisibility()) continue;
        for (const { index, 0: word } of node.textContent.matchAll(/[\p{L}\p{N}]\S*/gu)) {
            range.setStart(node, index);
            range.setEnd(node, index + word.length);
            const [rect] = range.getClientRects();
            if (rect === undefined || rect.top >= innerHeight || rect.bottom <= 0) continue;
            if (plates.some(under(rect))) continue;
            if (!cut(node.parentElement).some(outside(rect))) words += 1;
        }
    }
    return words";

/// Counts what a page asks for and has no answer to yet.
const COUNTED: &str = "const asks = window.fetch;
    window.asked = 0;
    window.fetch = (...what) => {
        window.asked += 1;
        return asks(...what).finally(() => { window.asked -= 1; });
    };";

/// What is worked out is there: nothing was asked for in these frames.
const AT_REST: &str = "const done = arguments[0];
    let still = 0;
    const look = () => {
        still = window.asked === 0 ? still + 1 : 0;
        if (still === 6) done(true); else requestAnimationFrame(look);
    };
    look();";

/// The record is a document, read as it is printed: it is not counted.
const STATIONS: [&str; 9] = ["part", "iron", "cracks", "method", "prep", "heat", "torch", "cooling", "check"];

#[rstest]
#[case::on_a_laptop((1280, 800), 150)]
#[case::on_a_phone((390, 844), 90)]
#[tokio::test]
async fn a_first_screen_is_read_at_once(
    #[case] (width, height): (u32, u32),
    #[case] most: u64,
) -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(width, height).await?;
    browser.before_every_page(COUNTED).await?;
    browser.at(&server).await?;
    let mut long = Vec::new();
    let mut seen = 0;
    for name in ["Letterpress", "Malt conveyor", "Seed drill", "chain wheel"] {
        let job = browser.job(name).await?;
        browser.go(&server.url(&format!("/jobs/{job}/hand-over"))).await?;
        for station in STATIONS {
            browser.walk_to(&format!("/jobs/{job}/{station}")).await?;
            browser.driver.execute_async(AT_REST, vec![]).await?;
            let words = browser.run(IN_SIGHT).await?.as_u64().unwrap_or(u64::MAX);
            seen += words;
            if words > most {
                long.push(format!("{name}, {station}: {words}"));
            }
        }
    }
    assert!(seen > 1_000, "something is read: {seen}");
    assert!(long.is_empty(), "over {most} words: {long:?}");
    Ok(())
}

/// Somebody at a phone: every tap and every letter counts.
struct Hand<'a> {
    browser: &'a Browser,
    taps: Cell<usize>,
    letters: Cell<usize>,
}

impl Hand<'_> {
    async fn tap(&self, name: &str) -> anyhow::Result<()> {
        self.taps.set(self.taps.get() + 1);
        self.browser.press(name).await
    }

    async fn choose(&self, question: &str, answer: &str) -> anyhow::Result<()> {
        self.taps.set(self.taps.get() + 1);
        self.browser.choose(question, answer).await
    }

    /// Into the field, and what is typed there: leaving it says it.
    async fn write(&self, field: &str, text: &str) -> anyhow::Result<()> {
        self.taps.set(self.taps.get() + 1);
        self.letters.set(self.letters.get() + text.chars().count());
        self.browser.type_in(field, text).await
    }

    async fn way(&self, name: &str) -> anyhow::Result<()> {
        self.taps.set(self.taps.get() + 1);
        self.browser.way(name).await
    }

    async fn unfold(&self, title: &str) -> anyhow::Result<()> {
        self.taps.set(self.taps.get() + 1);
        self.browser.unfold(title).await
    }

    async fn station(&self, from: &str, to: &str) -> anyhow::Result<()> {
        self.tap(&format!("Stations: {from}")).await?;
        self.taps.set(self.taps.get() + 1);
        let row = format!("//*[@role='dialog']//a[starts-with(., '{to}')]");
        self.browser.press_what(By::XPath(row)).await?;
        Ok(())
    }
}

/// House: from the first start to rod, heat and touching, of a small part whose heat is known.
const TAPS: usize = 25;
const LETTERS: usize = 40;

#[tokio::test]
async fn a_first_start_on_a_phone_in_the_states_comes_to_its_figures_in_few_taps() -> anyhow::Result<()> {
    let server = Server::start_bare()?;
    let browser = Browser::open(390, 844).await?;
    browser.at(&server).await?;
    let torch = json!({ "kind": "set", "key": "shop.sources", "typed": "oxy_propane", "shown_in": "metric" });
    browser.fetch("POST", "/api/shop", json!({ "change": torch })).await?;
    browser.before_every_page("Object.defineProperty(navigator, 'language', { get: () => 'en-US' })").await?;
    browser.go(&server.url("/")).await?;
    let hand = Hand { browser: &browser, taps: Cell::new(0), letters: Cell::new(0) };
    hand.tap("Inches, pounds, °F").await?;
    hand.tap("New job").await?;
    hand.unfold("Could it hurt").await?;
    hand.choose("Could it hurt somebody?", "None of these").await?;
    hand.unfold("How big").await?;
    for (field, text) in [("Length", "6"), ("Width", "2"), ("Height", "1"), ("Wall at the break", "1/2")] {
        hand.write(field, text).await?;
    }
    hand.choose("Shape", "Solid block").await?;
    hand.station("Part", "Cracks").await?;
    hand.tap("Map the crack").await?;
    hand.write("Length", "2").await?;
    hand.station("Cracks", "Method").await?;
    hand.way("Torch braze").await?;
    hand.tap("Take it: Torch braze").await?;
    let figures = async || -> anyhow::Result<Vec<String>> {
        let (_, rack) = browser.fetch("GET", "/api/rack", Value::Null).await?;
        let view = browser.view(rack["lines"][0]["id"].as_str().unwrap_or_default()).await?;
        let all = view["plan"]["figures"].as_array().cloned().unwrap_or_default();
        Ok(all.iter().filter_map(|figure| Some(figure["id"].as_str()?.to_owned())).collect())
    };
    eventually("rod, heat and touching are known", async || {
        let known = figures().await?;
        Ok(["prep.rods", "heat.target", "cooling.touch"].iter().all(|id| known.iter().any(|it| it == id)))
    })
    .await?;
    hand.station("Method", "Cooling").await?;
    browser.sees("Until it may be touched").await?;
    let (taps, letters) = (hand.taps.get(), hand.letters.get());
    assert!(taps <= TAPS && letters <= LETTERS, "{taps} taps and {letters} letters");
    Ok(())
}
