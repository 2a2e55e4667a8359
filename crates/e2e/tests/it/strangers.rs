//! Two phones and a laptop with the shop's passphrase, and a stranger without it.

use anyhow::Context;
use thirtyfour::By;
use vanadin_e2e::{Browser, Server, eventually};

async fn come_in(browser: &Browser, passphrase: &str, name: &str) -> anyhow::Result<()> {
    browser.sees("Who is there?").await?;
    browser.type_in("What this device is called", name).await?;
    // Enter says it.
    browser.type_in("The shop's passphrase", passphrase).await
}

#[tokio::test]
async fn whoever_knows_the_passphrase_works_with_the_others_and_a_stranger_sees_nothing() -> anyhow::Result<()>
{
    let mut server = Server::start_closed()?;
    let passphrase = server.passphrase.clone().context("none was made")?;
    let (laptop, phone, other, stranger) = tokio::join!(
        Browser::open_with_a_worker(1280, 800),
        Browser::open_with_a_worker(390, 844),
        Browser::open_with_a_worker(390, 844),
        Browser::open_with_a_worker(390, 844)
    );
    let (laptop, phone, other, stranger) = (laptop?, phone?, other?, stranger?);

    stranger.go(&server.url("/")).await?;
    come_in(&stranger, "let me in please", "").await?;
    stranger.sees("that is not the passphrase").await?;
    let page = stranger.page().await?;
    assert!(!page.contains("Letterpress"), "{page}");

    laptop.go(&server.url("/")).await?;
    come_in(&laptop, &passphrase, "Laptop in the office").await?;
    laptop.sees("Letterpress side frame").await?;
    let job = laptop.job("Malt").await?;
    phone.go(&server.url(&format!("/jobs/{job}/part"))).await?;
    come_in(&phone, &passphrase, "Phone at the forge").await?;
    phone.unfold("How big").await?;
    phone.type_in("Weight", "31 kg").await?;
    eventually("the laptop is told", async || {
        Ok(laptop.view(&job).await?["fields"]["part.mass"]["typed"] == "31 kg")
    })
    .await?;
    let (_, history) =
        laptop.fetch("GET", &format!("/api/jobs/{job}/history"), serde_json::Value::Null).await?;
    let facts = history["facts"].as_array().context("no facts")?;
    assert_eq!(facts.last().context("nothing said")?["who"], "Phone at the forge");

    // A second phone goes on while the server is gone; its word arrives under its name.
    other.go(&server.url(&format!("/jobs/{job}/part"))).await?;
    come_in(&other, &passphrase, "Phone in the yard").await?;
    other.unfold("How big").await?;
    server.kill()?;
    other.type_in("Wall at the break", "11").await?;
    other.sees("Kept in this browser until it answers: Wall at the break: 11").await?;
    server.start_again()?;
    eventually("it has arrived", async || {
        let (_, history) =
            laptop.fetch("GET", &format!("/api/jobs/{job}/history"), serde_json::Value::Null).await?;
        let last = history["facts"].as_array().and_then(|facts| facts.last()).cloned().unwrap_or_default();
        Ok(last["change"]["typed"] == "11" && last["who"] == "Phone in the yard")
    })
    .await?;

    // Turned out, the phone has to say it again.
    laptop.go(&server.url("/shop")).await?;
    laptop.sees("Phone at the forge").await?;
    laptop
        .run(
            "const row = [...document.querySelectorAll('li')].find((row) => row.textContent.includes('Phone at the forge'));
             row.querySelector('button').click(); return true",
        )
        .await?;
    // What that deletes is said first.
    laptop.sees("entries that were not sent. Those are lost.").await?;
    laptop.press("Turn it out").await?;
    eventually("it is out", async || Ok(!laptop.page().await?.contains("Phone at the forge"))).await?;
    phone.sees("Who is there?").await?;
    let kept = "return (async () => [Object.keys(localStorage).filter((key) => key !== 'vanadin.sender'),
        (await caches.keys()).filter((name) => !name.startsWith('vanadin-pages-'))].flat())()";
    eventually("nothing of the shop is left on it", async || {
        Ok(phone.run(kept).await? == serde_json::json!([]))
    })
    .await?;
    come_in(&phone, &passphrase, "Phone at the forge").await?;
    phone.sees("Malt conveyor").await?;

    // Who is to help at the torch is shown a code, and comes in by it to that one job.
    let hot = laptop.job("Letterpress").await?;
    let (_, shown) = laptop.fetch("POST", "/api/door/helper", serde_json::json!({ "job": hot })).await?;
    let url = shown["url"].as_str().context("nothing to be shown")?.to_owned();
    stranger.go(&url).await?;
    stranger.sees("Keep it covered").await?;
    assert!(!stranger.run("return location.href").await?.to_string().contains('#'), "the code is used up");
    stranger.go(&server.url("/")).await?;
    stranger.sees("To the torch").await?;
    stranger.press_what(By::LinkText("To the torch")).await?;
    stranger.press("Reading").await?;
    let field = stranger.find(By::Css("[role='dialog'] input")).await?;
    field.send_keys("371 C" + thirtyfour::Key::Enter).await?;
    eventually("the helper's reading is there", async || {
        let (_, history) =
            laptop.fetch("GET", &format!("/api/jobs/{hot}/history"), serde_json::Value::Null).await?;
        let told = history["told"].as_array().and_then(|told| told.last()).cloned().unwrap_or_default();
        Ok(told.to_string().contains("371"))
    })
    .await?;
    let (status, _) = stranger.fetch("GET", "/api/rack", serde_json::Value::Null).await?;
    assert_eq!(status, 403);
    other.go(&url).await?;
    other.sees("Keep it covered").await
}
