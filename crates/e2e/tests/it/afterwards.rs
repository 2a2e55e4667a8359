//! What becomes of a repair once it is out of the house: asked from the rack, again and again.

use anyhow::Context;
use serde_json::json;
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, Server, eventually};

#[tokio::test]
async fn how_it_holds_is_answered_on_a_phone_and_a_failure_two_years_on_says_where_it_went()
-> anyhow::Result<()> {
    let mut server = Server::start(true)?;
    let browser = Browser::open(390, 844).await?;
    browser.at(&server).await?;
    let job = browser.job("points lever").await?;
    // A good year later its day has come: it stands on the rack with its answers.
    server.hours_later(401 * 24)?;
    browser.go(&server.url("/")).await?;
    browser.sees("Ask how it holds").await?;
    browser.press("Holds").await?;
    browser.sees("Ask again on Sat 29 Jan 2028").await?;
    server.hours_later(300 * 24)?;
    browser.go(&server.url("/")).await?;
    browser.sees("Ask how it holds").await?;
    // What does not hold is not said by one press: more is asked of it.
    browser.press("Failed").await?;
    browser.sees("How does it hold?").await?;
    let answers = async || -> anyhow::Result<usize> {
        let view = browser.view(&job).await?;
        Ok(view["plan"]["hand_over"]["afterwards"]["answers"].as_array().context("answers")?.len())
    };
    assert_eq!(answers().await?, 1, "nothing is said before it is written down");
    browser.choose("Where", "Along the toe").await?;
    browser.field("How long at work by then").await?.send_keys("two seasons").await?;
    browser.field("What happened").await?.send_keys("a wagon ran into the points").await?;
    let broken =
        std::fs::canonicalize(concat!(env!("CARGO_MANIFEST_DIR"), "/../server/sample/lever-before.jpg"))?;
    let input = By::Css("[role=dialog] input[type=file]");
    browser.driver.find(input).await?.send_keys(broken.to_string_lossy()).await?;
    browser.sees("1 picture with it").await?;
    browser.press("Write it down").await?;
    browser.sees("Failed, along the toe, after two seasons").await?;
    browser.find(By::Css("[data-testid=afterwards] [data-proofs] img")).await?;
    browser.sees("a wagon ran into the points").await?;
    // Both answers stand on the record, and the next round is offered.
    let record = browser.text("record").await?;
    assert!(record.contains(": Holds.") && record.contains("Failed, along the toe"), "{record}");
    assert!(!record.contains("We ask how it is holding"), "what failed is not asked about: {record}");
    browser.sees("Open round 2").await?;
    // What came back is cut across its seam and broken on the bench, which knows what it is.
    browser.press("Cut a strip across it: onto the break bench").await?;
    browser.sees("Load in small steps").await?;
    let is = async |label: &str| anyhow::Ok(browser.field(label).await?.prop("value").await?);
    assert_eq!(is("Which is it?").await?.as_deref(), Some("Incline railway points lever, A"));
    assert_eq!(is("Thick, the way it is bent").await?.as_deref(), Some("12 mm"));
    for (label, typed) in [
        ("Wide", "20 mm"),
        ("From the vise to the load", "150 mm"),
        ("The load, step by step, until it broke", "42 kg"),
    ] {
        browser.field(label).await?.send_keys(typed).await?;
    }
    browser.press("Onto the wall").await?;
    eventually("it lies on the bench", async || {
        let (_, wall) = browser.fetch("GET", "/api/ledger", json!(null)).await?;
        Ok(wall["bench"].to_string().contains("Incline railway points lever, A"))
    })
    .await?;
    browser.go(&server.url(&format!("/jobs/{job}/hand-over"))).await?;
    browser.sees("Open round 2").await?;
    // It was another lever, and the laptop is at hand: taken back, it is to be asked again.
    browser.resize(1280, 800).await?;
    let pictured = "return document.querySelectorAll('[data-testid=afterwards] [data-proofs] img').length";
    browser.press("Undo").await?;
    eventually("its picture is taken back first", async || Ok(browser.run(pictured).await? == 0)).await?;
    browser.press("Undo").await?;
    eventually("it is taken back", async || Ok(answers().await? == 1)).await?;
    browser.find(By::Css("[data-testid=asked]")).await?;
    Ok(())
}
