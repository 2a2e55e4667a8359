//! Every place and every station, in both themes, looked at by axe.

use anyhow::Context;
use rstest::rstest;
use serde_json::{Value, json};
use vanadin_e2e::{Browser, Server};

const STATIONS: [&str; 10] =
    ["part", "iron", "cracks", "method", "prep", "heat", "torch", "cooling", "check", "hand-over"];

#[rstest]
#[case::in_the_shop_theme("shop")]
#[case::in_daylight("daylight")]
#[tokio::test]
async fn nothing_serious_anywhere(#[case] theme: &str) -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    let change = json!({ "key": "shop.theme", "typed": theme, "shown_in": "metric" });
    let (status, _) = browser.fetch("POST", "/api/shop", change).await?;
    assert_eq!(status, 200);
    let (_, rack) = browser.fetch("GET", "/api/rack", Value::Null).await?;
    let lines = rack["lines"].as_array().context("no rack")?;
    let id = |words: &str| -> anyhow::Result<&str> {
        lines
            .iter()
            .find(|line| line["name"].as_str().is_some_and(|name| name.contains(words)))
            .and_then(|line| line["id"].as_str())
            .with_context(|| format!("no job {words}"))
    };
    // One hot, one being mapped, one refused: between them every state of a station.
    let mut pages = vec!["/".to_owned(), "/shop".to_owned()];
    for job in [id("Letterpress")?, id("Malt")?] {
        pages.extend(STATIONS.map(|station| format!("/jobs/{job}/{station}")));
    }
    pages.push(format!("/jobs/{}/part", id("winch hook")?));
    pages.push(format!("/jobs/{}/cracks", id("Bell")?));
    let mut found = Vec::new();
    for page in pages {
        browser.go(&server.url(&page)).await?;
        browser.find(thirtyfour::By::Css("main")).await?;
        let problems = browser.serious_problems().await?;
        found.extend(problems.into_iter().map(|problem| format!("{page} {problem}")));
    }
    assert!(found.is_empty(), "{}", found.join("\n"));
    Ok(())
}
