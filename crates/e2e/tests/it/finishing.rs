//! What is done to a mended part once it is cold and good, line by line.

use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, Server, eventually, set};

#[tokio::test]
async fn what_is_good_is_finished_line_by_line_and_the_paint_is_waited_for() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(390, 844).await?;
    browser.at(&server).await?;
    let job = browser.job("points lever").await?;
    // It is not out of the house yet after all, and it is to be painted.
    browser.say(&job, set("hand_over.done", "")).await?;
    browser.say(&job, set("finish.coat", "paint")).await?;
    browser.go(&server.url(&format!("/jobs/{job}/check"))).await?;
    let finish = browser.text("finish").await?;
    assert!(finish.contains("to dry"), "{finish}");
    browser.press_what(By::Css("[data-testid=finish] [data-step=primer]")).await?;
    eventually("the next coat waits until it is dry", async || {
        let view = browser.view(&job).await?;
        let next = &view["standing"]["next"];
        Ok(next["verb"] == "Finish: paint" && next["at_ms"].is_i64())
    })
    .await?;
    let finish = browser.text("finish").await?;
    assert!(finish.contains("dry "), "it says when: {finish}");
    // Something that has to fit is asked for other steps.
    let seam = browser.view(&job).await?["plan"]["finish"]["seams"][0].clone();
    let key = format!("crack.{}.finish", seam.as_str().unwrap_or_default());
    browser.say(&job, set(&key, "fits")).await?;
    eventually("it is filed flat", async || Ok(browser.text("finish").await?.contains("Flat"))).await?;
    // A step is taken out by its name, and put in again.
    browser.unfold("What it has to be").await?;
    let flat = || browser.driver.find_all(By::Css("[data-testid=finish] [data-step=flat]"));
    browser.choose("Steps, A, first side", "Flat").await?;
    eventually("it is left out", async || Ok(flat().await?.is_empty())).await?;
    browser.choose("Steps, A, first side", "Flat").await?;
    eventually("it is there again", async || Ok(!flat().await?.is_empty())).await?;
    // What was done stands on the record, what was not as well.
    browser.go(&server.url(&format!("/jobs/{job}/hand-over"))).await?;
    let record = browser.text("record").await?;
    assert!(record.contains("rimer") && record.contains("Not done:"), "{record}");
    // Of another part that is hot nothing of it is offered.
    let hot = browser.job("Letterpress").await?;
    browser.go(&server.url(&format!("/jobs/{hot}/check"))).await?;
    browser.sees("To be looked at when it is cold").await?;
    assert!(browser.driver.find_all(By::Css("[data-testid=finish] [data-step]")).await?.is_empty());
    Ok(())
}
