//! The first start on a phone, counted in taps.

use std::cell::Cell;

use serde_json::{Value, json};
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, Server, eventually};

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
