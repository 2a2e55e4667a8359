//! Every place and every station, in both themes, looked at by axe.

use rstest::rstest;
use serde_json::json;
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
    let change =
        json!({ "change": { "kind": "set", "key": "shop.theme", "typed": theme, "shown_in": "metric" } });
    let (status, _) = browser.fetch("POST", "/api/shop", change).await?;
    assert_eq!(status, 200);
    // One hot, one being mapped, one refused: between them every state of a station.
    let mut pages = vec!["/".to_owned(), "/shop".to_owned()];
    for words in ["Letterpress", "Malt"] {
        let job = browser.job(words).await?;
        pages.extend(STATIONS.map(|station| format!("/jobs/{job}/{station}")));
    }
    pages.push(format!("/jobs/{}/part", browser.job("winch hook").await?));
    pages.push(format!("/jobs/{}/cracks", browser.job("Bell").await?));
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
