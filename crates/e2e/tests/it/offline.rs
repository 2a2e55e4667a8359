//! A phone goes on while the server is gone, and everything arrives once it is back.

use serde_json::{Value, json};
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, Server, eventually, ready_lug};

/// The pages and what was seen are kept in the browser.
async fn kept(browser: &Browser, path: &str) -> anyhow::Result<()> {
    let script = format!(
        "if (navigator.serviceWorker.controller === null) return false;
         return (await (await caches.open('vanadin-seen')).match('{path}')) !== undefined"
    );
    let asked = format!(
        "const done = arguments[arguments.length - 1]; (async () => {{ {script} }})().then(done, () => done(false))"
    );
    eventually("it is kept", async || Ok(browser.told_later(&asked, &json!([])).await? == Value::Bool(true)))
        .await
}

/// What was kept of it: what the page will show once the server is gone.
async fn as_kept(browser: &Browser, path: &str) -> anyhow::Result<Value> {
    let asked = format!(
        "const done = arguments[arguments.length - 1]; (async () => (await (await caches.open('vanadin-seen'))
         .match('{path}')).json())().then(done, () => done(null))"
    );
    browser.told_later(&asked, &json!([])).await
}

#[tokio::test]
async fn a_phone_goes_on_without_the_server_and_begins_a_job() -> anyhow::Result<()> {
    let mut server = Server::start(true)?;
    let phone = Browser::open_with_a_worker(390, 844).await?;
    phone.go(&server.url("/")).await?;
    phone.sees("Letterpress side frame").await?;
    let job = phone.job("Malt").await?;
    let part = server.url(&format!("/jobs/{job}/part"));
    phone.go(&part).await?;
    phone.sees("Malt conveyor").await?;
    kept(&phone, &format!("/api/jobs/{job}")).await?;
    // Once more through the worker: what a first page asked for came before it.
    phone.go(&server.url("/")).await?;
    phone.sees("Letterpress side frame").await?;
    kept(&phone, "/api/blank").await?;
    server.kill()?;

    // The page itself is opened cold, and says that it is of before.
    phone.go(&server.url("/")).await?;
    phone.sees("Letterpress side frame").await?;
    phone.sees("The server is not reached. What stands here is as it was at").await?;
    phone.go(&part).await?;
    phone.sees("what was hot then may be hot still").await?;
    phone.unfold("How big").await?;
    phone.type_in("Weight", "31 kg").await?;
    phone.sees("Kept in this browser until it answers: Weight: 31 kg.").await?;
    phone.go(&server.url("/?new")).await?;
    phone.type_in("What is it?", "Quoin clamp").await?;
    phone.sees("a new job; What is it: Quoin clamp").await?;
    // It is there again after the page was closed.
    let begun = phone.driver.current_url().await?.to_string();
    phone.go(&server.url("/")).await?;
    phone.sees("begun here, waits for the server").await?;
    phone.go(&begun).await?;
    phone.sees("Quoin clamp").await?;
    phone.choose("What sort of part?", "Machine frame or bed").await?;

    server.start_again()?;
    eventually("everything has arrived", async || Ok(phone.text("saved-phone").await? == "saved")).await?;
    eventually("nothing is said of before", async || {
        Ok(!phone.page().await?.contains("The server is not reached"))
    })
    .await?;
    let new = phone.job("Quoin clamp").await?;
    assert!(begun.contains(&new), "{begun}");
    let (_, history) = phone.fetch("GET", &format!("/api/jobs/{new}/history"), Value::Null).await?;
    let said: Vec<&str> = history["facts"]
        .as_array()
        .into_iter()
        .flatten()
        .filter_map(|fact| fact["change"]["key"].as_str())
        .collect();
    assert_eq!(said, ["part.name", "part.family"], "once, in order");
    assert_eq!(phone.view(&job).await?["fields"]["part.mass"]["typed"], "31 kg");
    Ok(())
}

#[tokio::test]
async fn what_the_very_first_page_shows_is_kept_without_being_opened_again() -> anyhow::Result<()> {
    let mut server = Server::start(true)?;
    let desk = Browser::open_with_a_worker(1280, 800).await?;
    desk.at(&server).await?;
    let job = desk.job("Malt").await?;
    let phone = Browser::open_with_a_worker(390, 844).await?;
    let part = server.url(&format!("/jobs/{job}/part"));
    phone.go(&part).await?;
    phone.sees("Malt conveyor").await?;
    kept(&phone, &format!("/api/jobs/{job}")).await?;
    server.kill()?;
    phone.go(&part).await?;
    phone.sees("Malt conveyor").await?;
    phone.sees("what was hot then may be hot still").await
}

#[tokio::test]
async fn a_seam_goes_on_in_its_order_when_the_page_is_opened_anew_without_the_server() -> anyhow::Result<()> {
    let mut server = Server::start(true)?;
    let phone = Browser::open_with_a_worker(390, 844).await?;
    let job = ready_lug(&phone, &server, "hot").await?;
    phone.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    let torch = server.url(&format!("/jobs/{job}/torch"));
    phone.go(&torch).await?;
    eventually("it is warm enough", async || Ok(phone.text("torch-place").await? == "In the window")).await?;
    phone.press_test_id("torch-main").await?;
    phone.sees("Bead 2 of").await?;
    kept(&phone, &format!("/api/jobs/{job}")).await?;
    // Through the worker once more, so that what is kept is of after the first bead.
    phone.go(&torch).await?;
    phone.sees("Bead 2 of").await?;
    server.kill()?;

    // The job clock runs on: another moment may have another order. It goes on by the one that is kept, once what was
    // answered last is.
    let mut kept_last = Value::Null;
    eventually("what is kept stays", async || {
        let before = std::mem::replace(&mut kept_last, as_kept(&phone, &format!("/api/jobs/{job}")).await?);
        Ok(before == kept_last && !before.is_null())
    })
    .await?;
    let order = kept_last["plan"]["torch"]["beads"]["ahead"].clone();
    phone.go(&torch).await?;
    phone.sees("Bead 2 of").await?;
    phone.press_test_id("torch-main").await?;
    phone.sees("Bead 3 of").await?;
    phone.press_test_id("torch-main").await?;
    phone.sees("2 waiting for the server").await?;
    // Closed and opened once more: what was said is still there, and counts.
    phone.go(&torch).await?;
    phone.sees("2 waiting for the server").await?;
    phone.sees("Bead 4 of").await?;

    server.start_again()?;
    eventually("everything has arrived", async || Ok(phone.text("saved-phone").await? == "saved")).await?;
    let view = phone.view(&job).await?;
    let laid: Vec<Value> = (view["job"]["rounds"][0]["log"].as_array().into_iter().flatten())
        .filter(|entry| entry["entry"]["kind"] == "bead")
        .map(|entry| entry["entry"]["at"].clone())
        .collect();
    assert_eq!(
        laid[1..],
        [order[0]["at"].clone(), order[1]["at"].clone()],
        "as the order had them, each once"
    );
    Ok(())
}

#[tokio::test]
async fn a_server_that_says_nothing_is_as_one_that_is_gone() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Letterpress side frame").await?;
    let job = browser.job("Malt").await?;
    let part = server.url(&format!("/jobs/{job}/part"));
    browser.go(&part).await?;
    browser.sees("Malt conveyor").await?;
    kept(&browser, &format!("/api/jobs/{job}")).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Letterpress side frame").await?;
    kept(&browser, "/api/blank").await?;
    server.fall_silent()?;

    browser.go(&server.url("/")).await?;
    browser.sees("The server is not reached. What stands here is as it was at").await?;
    browser.sees("Letterpress side frame").await?;
    browser.go(&part).await?;
    browser.unfold("How big").await?;
    browser.type_in("Weight", "31 kg").await?;
    browser.sees("Kept in this browser until it answers: Weight: 31 kg.").await?;

    server.speak_again()?;
    eventually("it has arrived", async || Ok(browser.text("saved").await? == "saved")).await?;
    eventually("nothing is said of before", async || {
        Ok(!browser.page().await?.contains("The server is not reached"))
    })
    .await?;
    let (_, history) = browser.fetch("GET", &format!("/api/jobs/{job}/history"), Value::Null).await?;
    let said = history["facts"].as_array().into_iter().flatten();
    let said = said.filter(|fact| fact["change"]["typed"] == "31 kg").count();
    assert_eq!(said, 1, "it was said once");
    Ok(())
}

#[tokio::test]
async fn what_was_half_typed_stands_in_its_field_again() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    // Tabs are ended without a word, as a phone does it.
    let unheard = "addEventListener('pagehide', (event) => event.stopImmediatePropagation())";
    browser.before_every_page(unheard).await?;
    browser.at(&server).await?;
    let job = browser.job("Malt").await?;
    let part = server.url(&format!("/jobs/{job}/part"));
    browser.go(&part).await?;
    browser.unfold("What it is").await?;
    browser.field("Whose is it?").await?.send_keys(" and s").await?;
    browser.go(&part).await?;
    browser.unfold("What it is").await?;
    let field = browser.field("Whose is it?").await?;
    let before = field.prop("value").await?.unwrap_or_default();
    assert!(before.ends_with(" and s"), "{before}");
    browser.sees("half typed: Enter says it").await?;
    field.send_keys("on").await?;
    field.send_keys(Key::Enter).await?;
    eventually("it is said", async || {
        let view = browser.view(&job).await?;
        Ok(view["fields"]["part.owner"]["typed"].as_str().is_some_and(|owner| owner.ends_with(" and son")))
    })
    .await?;
    browser.go(&part).await?;
    browser.sees("Malt conveyor").await?;
    assert!(!browser.page().await?.contains("half typed"), "it is said, and nothing is left of it");
    Ok(())
}
