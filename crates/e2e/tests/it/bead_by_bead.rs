//! A seam laid to its last bead, each waited for. It takes longer than any other journey, and tests go by the alphabet:
//! it is among the first, so that none of them is left alone at the end.

use anyhow::Context;
use serde_json::json;
use vanadin_e2e::{Browser, Server, eventually, ready_lug, set};

use crate::torch::entries;

#[tokio::test]
async fn a_cold_seam_of_twenty_beads_is_led_with_its_waits() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let job = ready_lug(&browser, &server, "cold").await?;
    for (key, typed) in [
        ("part.mass", "30 kg"),
        ("part.length", "400"),
        ("part.width", "200"),
        ("part.height", "60"),
        ("part.wall", "6"),
    ] {
        browser.say(&job, set(key, typed)).await?;
    }
    let view = browser.view(&job).await?;
    let crack = view["plan"]["cracks"][0]["id"].as_str().context("no crack")?.to_owned();
    browser.say(&job, set(&format!("crack.{crack}.length"), "120")).await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    let planned = browser.view(&job).await?["plan"]["torch"]["planned"].as_u64().context("beads")?;
    assert!(planned >= 20, "{planned} beads");
    // How often it is seen to wait hangs on the machine: that it has to is told beforehand, anew with each reading.
    eventually("its waits are told beforehand", async || {
        let torch = browser.view(&job).await?["plan"]["torch"].clone();
        let waits = torch["beads"]["waits_words"].as_str().context("waits")?;
        anyhow::ensure!(waits.contains("of waiting"), "{torch}");
        let page = browser.run("return document.body.innerText").await?;
        Ok(page.as_str().is_some_and(|page| page.contains(waits)))
    })
    .await?;
    for number in 1..=planned {
        eventually(&format!("bead {number} may be laid"), async || {
            let next = browser.text("torch-next").await?;
            Ok(next.starts_with(&format!("Lay bead {number}.")))
        })
        .await?;
        browser.press_test_id("torch-main").await?;
        eventually("it is peened while it glows", async || {
            Ok(browser.text("torch-next").await?.starts_with(&format!("Peen bead {number}")))
        })
        .await?;
        browser.press("Peened").await?;
    }
    eventually("all are in", async || Ok(browser.text("torch-next").await?.starts_with("Cover it"))).await?;
    let mut places: Vec<String> = entries(&browser, &job)
        .await?
        .iter()
        .filter(|entry| entry["kind"] == "bead")
        .map(|entry| entry["at"].to_string())
        .collect();
    places.sort();
    places.dedup();
    assert_eq!(places.len() as u64, planned, "each at a place of its own");
    Ok(())
}
