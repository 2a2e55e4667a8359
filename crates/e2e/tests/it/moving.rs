//! Moving never answers, and what cannot be is asked back: by key, at the plate, on the page of a hot part.

use anyhow::Context;
use serde_json::{Value, json};
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, ENTER, Server, eventually, ready_lug};

/// What was said of a job, in the order it was said: the kind of each change, and the key of what was set.
async fn said(browser: &Browser, job: &str) -> anyhow::Result<Vec<String>> {
    let (_, history) = browser.fetch("GET", &format!("/api/jobs/{job}/history"), Value::Null).await?;
    let facts = history["facts"].as_array().context("no facts")?;
    let of = |fact: &Value| {
        let change = &fact["change"];
        let word = |name: &str| change[name].as_str().unwrap_or_default().to_owned();
        if word("kind") == "set" { word("key") } else { word("kind") }
    };
    Ok(facts.iter().map(of).collect())
}

#[tokio::test]
async fn an_enter_that_leads_to_a_question_answers_none() -> anyhow::Result<()> {
    let server = Server::start_bare()?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("The rack is empty").await?;
    browser.key("n").await?;
    browser.sees("Next: what it is.").await?;
    browser.find(By::Css("input:focus")).await?;
    browser.key("Cistern lid").await?;
    for _ in 0..12 {
        browser.key(ENTER).await?;
    }
    browser.sees("What sort of part?").await?;
    let address = browser.driver.current_url().await?;
    let job =
        address.path_segments().and_then(|mut parts| parts.nth(1).map(str::to_owned)).context("no job")?;
    eventually("the name is kept", async || Ok(said(&browser, &job).await?.len() == 1)).await?;
    // Held down it is one press as well, wherever it leads.
    browser.hold_enter(20).await?;
    browser.drawn().await?;
    assert_eq!(said(&browser, &job).await?, ["part.name"]);
    // The keys stand before the question: the first Tab is on its first answer, and the space bar says that.
    eventually("the keys stand before a question", async || {
        Ok(browser.run("return document.activeElement?.matches('[data-question]') ?? false").await? == true)
    })
    .await?;
    browser.key("\u{e004}").await?;
    browser.key(" ").await?;
    eventually("it is answered by a press on the answer", async || Ok(said(&browser, &job).await?.len() == 2))
        .await
}

#[tokio::test]
async fn a_mistyped_cold_reading_leaves_the_part_hot_until_it_is_said_again() -> anyhow::Result<()> {
    let server = Server::start_bare()?;
    let browser = Browser::open(390, 844).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 1 })).await?;
    let read = json!({ "kind": "reading", "typed": "343 C", "shown_in": "metric" });
    for entry in [read, json!({ "kind": "covered", "why": "it is only warmed" })] {
        browser.say(&job, json!({ "kind": "torch", "entry": entry })).await?;
    }
    browser.go(&server.url(&format!("/jobs/{job}/cooling"))).await?;
    browser.sees("HOT").await?;
    browser.press("Log a reading").await?;
    browser.find(By::Css("[role='dialog'] input")).await?.send_keys("21 C").await?;
    browser.press("Log it").await?;
    browser.sees("It cannot have cooled so far by then").await?;
    let view = browser.view(&job).await?;
    assert_eq!(view["standing"]["hot"]["celsius"], 343.0, "{}", view["standing"]);
    assert!(browser.page().await?.contains("HOT, 343"), "it says so");
    browser.press("Read again: it is so").await?;
    eventually("what is said twice is believed", async || {
        Ok(browser.view(&job).await?["standing"]["hot"].is_null())
    })
    .await
}
