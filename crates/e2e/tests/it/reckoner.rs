//! One figure without a job: found by a welder's words, filled in as a sentence, on a laptop and on a phone.

use serde_json::json;
use vanadin_e2e::{Browser, Server, eventually};

async fn says(browser: &Browser, id: &str, words: &str) -> anyhow::Result<()> {
    eventually(&format!("{id} says {words}"), async || {
        Ok(browser.text(&format!("answer.{id}")).await?.contains(words))
    })
    .await
}

#[tokio::test]
async fn a_figure_is_found_by_what_is_said_and_answered_in_its_sentence() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Letterpress").await?;
    // From anywhere: its key, then the words.
    browser.key("c").await?;
    browser.sees("What do you want to know?").await?;
    browser.type_in("What do you want to know?", "how many pins round a hole").await?;
    browser.sees("A round patch").await?;
    browser.type_in("Across", "80 mm").await?;
    browser.type_in("Wall", "10 mm").await?;
    // By hand: pi x 80 / (8 x 0.5) = 62.8
    says(&browser, "count", "63").await?;
    browser.type_in("Wall", "4 mm").await?;
    browser.sees("no thread holds in so thin a wall").await?;
    let text = browser.field("Wall").await?.prop("value").await?;
    assert_eq!(text.as_deref(), Some("4 mm"), "what was typed is kept");
    let figures = "return document.querySelectorAll('[data-testid^=\"answer.\"]').length";
    assert_eq!(browser.run(figures).await?, json!(0), "no figure of before stands beside another wall");
    browser.type_in("Wall", "3/8 in").await?;
    says(&browser, "count", "63").await?;
    // What was asked here stands there when one comes back.
    browser.go(&server.url("/reckoner?of=pins-round")).await?;
    says(&browser, "count", "63").await?;
    assert_eq!(browser.field("Wall").await?.prop("value").await?.as_deref(), Some("3/8 in"));
    Ok(())
}

#[tokio::test]
async fn an_answer_becomes_a_fact_of_a_job_and_is_there_without_the_server() -> anyhow::Result<()> {
    let mut server = Server::start(true)?;
    let phone = Browser::open_with_a_worker(390, 844).await?;
    phone.go(&server.url("/")).await?;
    let job = phone.job("Malt").await?;
    phone.go(&server.url(&format!("/jobs/{job}/cracks"))).await?;
    // Two presses from a job.
    phone.press("Reckon").await?;
    phone.press("Wall by a gauge that is set for steel").await?;
    phone.type_in("Gauge shows", "14.8 mm").await?;
    // By hand: 14.8 x 4600 / 5920 = 11.5
    says(&phone, "wall", "11.5 mm").await?;
    phone.press("Into a job").await?;
    phone.press("Malt conveyor sprocket arm").await?;
    let before = phone.view(&job).await?;
    assert_ne!(before["fields"]["part.wall"]["typed"], json!("11.5 mm"), "choosing alone says nothing");
    phone.press("Say it of Malt conveyor sprocket arm").await?;
    phone.sees("11.5 mm is said of").await?;
    eventually("the job has it", async || {
        Ok(phone.view(&job).await?["fields"]["part.wall"]["typed"] == json!("11.5 mm"))
    })
    .await?;
    server.kill()?;
    phone.press("All calculations").await?;
    phone.press("Wall by a gauge that is set for steel").await?;
    says(&phone, "wall", "11.5 mm").await?;
    phone.type_in("Gauge shows", "20 mm").await?;
    phone.sees("this was not asked here before: nothing is worked out").await?;
    server.start_again()?;
    phone.type_in("Gauge shows", "20.0 mm").await?;
    says(&phone, "wall", "15.5 mm").await
}
