//! The pictures in docs/screenshots, taken anew from the demo data: `cargo xtask screenshots`.

use std::path::PathBuf;

use serde_json::json;
use vanadin_e2e::{Browser, Server, eventually};

const LAPTOP: (u32, u32) = (1280, 800);
const PHONE: (u32, u32) = (390, 844);

/// Name of the picture, words of the job's name, station.
const STATIONS: &[(&str, &str, &str)] = &[
    ("part", "Malt", "part"),
    ("iron", "Malt", "iron"),
    ("cracks", "Seed drill", "cracks"),
    ("method", "Malt", "method"),
    ("prep", "Seed drill", "prep"),
    ("heat", "Seed", "heat"),
    ("cooling", "Letterpress", "cooling"),
    ("check", "Incline", "check"),
    ("hand-over", "Incline", "hand-over"),
];

/// All that a page shows has come.
async fn drawn(browser: &Browser) -> anyhow::Result<()> {
    // A station is a script of its own: it comes after the page it stands on.
    eventually("the place is drawn", async || {
        let words = "return document.querySelector('main')?.innerText.trim().length ?? 0";
        Ok(browser.run(words).await?.as_u64().unwrap_or(0) > 20)
    })
    .await?;
    eventually("the pictures on it are there", async || {
        let there = "return [...document.querySelectorAll('image:not([href^=\"data:\"])')].every((image) =>
            performance.getEntriesByName(new URL(image.getAttribute('href'), location).href)
                .some((entry) => entry.responseEnd > 0))";
        Ok(browser.run(there).await? == json!(true))
    })
    .await?;
    eventually("nothing is being worked out any more", async || {
        let page = browser.page().await?;
        Ok(!page.contains("is being worked out") && !page.contains("Trying the flame"))
    })
    .await
}

#[tokio::main(flavor = "current_thread")]
async fn main() -> anyhow::Result<()> {
    let folder = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../docs/screenshots");
    std::fs::create_dir_all(&folder)?;
    let server = Server::start(true)?;
    let browser = Browser::open(LAPTOP.0, LAPTOP.1).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Letterpress side frame").await?;
    let take =
        async |name: &str, path: &str, words: &str, (width, height): (u32, u32)| -> anyhow::Result<()> {
            browser.resize(width, height).await?;
            browser.go(&server.url(path)).await?;
            browser.sees(words).await?;
            drawn(&browser).await?;
            browser.picture(&folder.join(format!("{name}.png"))).await
        };
    take("rack", "/", "Letterpress", LAPTOP).await?;
    for (name, words, station) in STATIONS {
        take(name, &format!("/jobs/{}/{station}", browser.job(words).await?), words, LAPTOP).await?;
    }
    take("iron-phone", &format!("/jobs/{}/iron", browser.job("Malt").await?), "Malt", PHONE).await?;
    take(
        "cracks-phone",
        &format!("/jobs/{}/cracks", browser.job("Seed drill").await?),
        "260 mm by 170 mm",
        PHONE,
    )
    .await?;
    take("ledger", "/ledger", "What this shop has learned", LAPTOP).await?;
    take("reckoner", "/reckoner?of=cooling", "may be unwrapped after", LAPTOP).await?;
    take("practice", "/practice", "A made-up part with a secret", LAPTOP).await?;
    take("stores", "/stores", "missing", LAPTOP).await?;

    let drill = browser.job("Seed drill").await?;
    for (key, typed) in [
        ("method.choice", "arc_nickel_iron"),
        ("method.school", "hot"),
        ("prep.done", "holes,groove,inside,penetrant"),
    ] {
        browser
            .say(&drill, json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" }))
            .await?;
    }
    browser.say(&drill, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{drill}/torch"))).await?;
    eventually("it is warm and has soaked", async || {
        Ok(browser.text("torch-next").await?.starts_with("Lay bead 1"))
    })
    .await?;
    for _ in 0..3 {
        let view = browser.view(&drill).await?;
        let at = view["plan"]["torch"]["beads"]["ahead"][0]["at"].clone();
        browser.say(&drill, json!({ "kind": "torch", "entry": { "kind": "bead", "at": at } })).await?;
        browser.say(&drill, json!({ "kind": "torch", "entry": { "kind": "peened" } })).await?;
    }
    take("torch", &format!("/jobs/{drill}/torch"), "Bead 4 of", LAPTOP).await?;
    take("torch-phone", &format!("/jobs/{drill}/torch"), "Bead 4 of", PHONE).await?;

    let daylight = json!({ "change": { "kind": "set", "key": "shop.theme", "typed": "daylight", "shown_in": "metric" } });
    browser.fetch("POST", "/api/shop", daylight).await?;
    take("shop", "/shop", "In the shop", LAPTOP).await?;
    println!("The pictures lie in {}.", folder.display());
    Ok(())
}
