//! Station by station: what a welder says, and what the plan makes of it on the page.

use anyhow::Context;
use serde_json::{Value, json};
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, Server, eventually};

async fn open(server: &Server, words: &str, station: &str) -> anyhow::Result<(Browser, String)> {
    let browser = Browser::open(1280, 800).await?;
    browser.at(server).await?;
    let job = browser.job(words).await?;
    browser.go(&server.url(&format!("/jobs/{job}/{station}"))).await?;
    browser.find(By::Css("main")).await?;
    Ok((browser, job))
}

fn set(key: &str, typed: &str) -> Value {
    json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" })
}

/// What the sprocket arm still needs before it may be lit.
const READY: &[(&str, &str)] = &[
    ("method.choice", "torch_braze"),
    ("part.old_filler", "none"),
    ("heat.source", "oxy_acetylene_large"),
    ("prep.done", "holes,groove,inside,penetrant"),
];

#[tokio::test]
async fn a_figure_that_moved_says_was_and_now_until_it_is_seen() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let (browser, _) = open(&server, "Malt", "cracks").await?;
    // Hand-worked: half of 16 is 8; half of 11 is 5.5
    eventually("the drill for 16 mm", async || Ok(browser.figure(".right.drill").await?.starts_with("8 mm")))
        .await?;
    browser.type_in("Wall", "11").await?;
    browser.sees("figures moved").await?;
    browser.sees("Stop-hole, A right: was 8 mm, now 5.5 mm").await?;
    browser.press("Noted").await?;
    eventually("the foot of the card is clear", async || {
        Ok(!browser.page().await?.contains("figures moved"))
    })
    .await?;
    Ok(())
}

#[tokio::test]
async fn a_choice_against_the_plan_is_kept_with_its_reason_and_can_be_left_to_the_plan() -> anyhow::Result<()>
{
    let server = Server::start(true)?;
    let (browser, job) = open(&server, "Malt", "method").await?;
    browser.sees("Set pins along it and locks across it, cold.").await?;
    // What is ruled out stays in sight with its reason; pressed, it says what would bring it back.
    browser.sees("Ruled out").await?;
    browser.sees("Steel is still possible: an iron rod does not suit it.").await?;
    browser.way("Gas fusion, iron rod").await?;
    browser.sees("No one change here, and no two together, would make it the first choice.").await?;
    browser.way("Stitching").await?;
    browser.press("Take it: Stitching").await?;
    browser.sees("Set pins along it, cold.").await?;
    browser.sees("The welder's choice.").await?;
    browser.type_in("Why this one, for the record", "no heat near the brewery's seals").await?;
    eventually("the reason is a fact", async || {
        let view = browser.view(&job).await?;
        Ok(view["plan"]["methods"]["overruled"] == true
            && view["fields"]["method.reason"]["typed"] == "no heat near the brewery's seals")
    })
    .await?;
    // Cold: the hot stations are full at once.
    for station in ["Heat, done", "Cooling, done"] {
        browser.button(station).await?;
    }
    // Locks are not on the shelf: left to it, the plan takes what can be begun today.
    browser.press("Leave it to the plan").await?;
    browser.sees("Braze it with the torch, the whole part at 300 °C.").await?;
    Ok(())
}

#[tokio::test]
async fn pins_are_set_one_by_one_without_any_heat() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let (browser, job) = open(&server, "Malt", "method").await?;
    browser.way("Stitching").await?;
    browser.press("Take it: Stitching").await?;
    browser.sees("Set pins along it, cold.").await?;
    browser.key("7").await?;
    browser.press_test_id("light").await?;
    browser.sees("No heat").await?;
    browser.press("Pin set").await?;
    browser.key("b").await?;
    browser.sees("2 of").await?;
    // Any entry can be crossed out: the first one here.
    let first = "(//button[starts-with(@aria-label, 'Cross out pin')])[last()]";
    browser.press_what(By::XPath(first)).await?;
    browser.press("wrong button").await?;
    browser.sees("1 of").await?;
    let view = browser.view(&job).await?;
    let log = view["job"]["rounds"][0]["log"].as_array().context("no log")?;
    let struck: Vec<bool> = log.iter().map(|entry| entry["struck"].is_string()).collect();
    assert_eq!(struck, [true, false], "crossed out, not erased");
    assert!(view["standing"]["hot"].is_null(), "nothing is hot");
    Ok(())
}

#[tokio::test]
async fn evidence_is_replaced_at_one_spot_added_at_another_and_struck_with_a_reason() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let (browser, job) = open(&server, "winch", "iron").await?;
    browser.press("Punch 2 min").await?;
    browser.press("Punch: crumbles, no rim").await?;
    browser.sees("Punch: crumbles, no rim first spot, sure").await?;
    browser.press("Punch done Punch: crumbles, no rim").await?;
    browser.press("Punch: raises a rim").await?;
    browser.sees("Punch: raises a rim first spot, sure").await?;
    browser.sees("done again there since").await?;
    let spot = browser.find(By::Css("input[value='first spot']")).await?;
    browser.click(&spot).await?;
    spot.send_keys(Key::Control + "a").await?;
    spot.send_keys("hub").await?;
    browser.choose("How sure of what was seen", "Unsure").await?;
    browser.press("Punch done Punch: raises a rim").await?;
    browser.press("Punch: raises a rim").await?;
    browser.sees("Punch: raises a rim hub, unsure").await?;
    let strike = "(//button[@aria-label='Cross out Punch: raises a rim'])[2]";
    browser.press_what(By::XPath(strike)).await?;
    browser.press("misread").await?;
    browser.sees("crossed out: misread").await?;
    let view = browser.view(&job).await?;
    assert_eq!(view["plan"]["iron"]["steps"].as_array().context("no steps")?.len(), 1, "one counts");
    assert_eq!(view["job"]["evidence"].as_array().context("no evidence")?.len(), 3, "none is lost");
    Ok(())
}

#[tokio::test]
async fn what_is_taken_off_its_shelf_changes_every_plan_on_the_rack() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let (browser, job) = open(&server, "Malt", "cooling").await?;
    browser.say(&job, set("method.choice", "torch_braze")).await?;
    browser.sees("Vermiculite, and leave it alone.").await?;
    browser.go(&server.url("/stores")).await?;
    browser.thing("Vermiculite").await?;
    browser.press("Take it off the shelf for good").await?;
    eventually("it is stored", async || {
        let (_, shop) = browser.fetch("GET", "/api/shop", serde_json::Value::Null).await?;
        Ok(shop["shop"]["packings"] == json!(["air", "blanket", "dry_sand"]))
    })
    .await?;
    browser.go(&server.url(&format!("/jobs/{job}/cooling"))).await?;
    browser.sees("Ceramic blanket").await?;
    // A setting that cannot be is told at its field and kept.
    browser.go(&server.url("/shop")).await?;
    browser.type_in("Time zone", "Atlantis/Centre").await?;
    browser.sees("is not a time zone").await?;
    assert_eq!(browser.field("Time zone").await?.prop("value").await?.as_deref(), Some("Atlantis/Centre"));
    browser.choose("Theme", "Daylight").await?;
    eventually("the page turns to daylight", async || {
        Ok(browser.run("return document.documentElement.dataset.theme").await? == json!("daylight"))
    })
    .await?;
    Ok(())
}

#[tokio::test]
async fn a_job_is_duplicated_and_the_copy_is_cold() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let (browser, job) = open(&server, "Letterpress", "part").await?;
    browser.press("Job").await?;
    browser.press("Duplicate").await?;
    eventually("the copy is open", async || Ok(!browser.driver.current_url().await?.as_str().contains(&job)))
        .await?;
    browser.sees("Letterpress side frame").await?;
    // What was done to the part was done to that one: this one's holes are not drilled yet.
    browser.sees("Finish the prep").await?;
    let copy =
        browser.driver.current_url().await?.path_segments().and_then(|mut s| s.nth(1).map(str::to_owned));
    let view = browser.view(&copy.context("no job in the address")?).await?;
    assert!(view["job"]["rounds"][0]["lit"].is_null());
    assert_eq!(view["plan"]["cracks"].as_array().context("no cracks")?.len(), 2);
    Ok(())
}

#[tokio::test]
async fn out_of_the_window_is_said_in_words_and_by_shape() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let (browser, job) = open(&server, "Malt", "torch").await?;
    for (key, typed) in READY {
        browser.say(&job, set(key, typed)).await?;
    }
    // Slow enough to be seen cold on a busy machine. It can be cancelled until the first bead.
    browser.say(&job, json!({ "kind": "light", "speed": 1 })).await?;
    browser.sees("Too cold").await?;
    browser.sees("Heat to 300 °C").await?;
    browser.press("Cancel the lighting").await?;
    eventually("it is not lit", async || Ok(browser.view(&job).await?["job"]["rounds"][0]["lit"].is_null()))
        .await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    eventually(
        "then it is in the window",
        async || Ok(browser.text("torch-place").await? == "In the window"),
    )
    .await?;
    // It is brazed with the torch: a seam in one flow.
    browser.sees("Fill seam 1 in one flow").await
}

#[tokio::test]
async fn a_browser_that_speaks_as_in_the_states_is_asked_once_what_is_measured_in() -> anyhow::Result<()> {
    let server = Server::start_bare()?;
    let browser = Browser::open(390, 844).await?;
    browser.before_every_page("Object.defineProperty(navigator, 'language', { get: () => 'en-US' })").await?;
    browser.go(&server.url("/")).await?;
    browser.sees("What do you measure in?").await?;
    browser.press("Inches, pounds, °F").await?;
    eventually("it is asked no more", async || {
        Ok(!browser.page().await?.contains("What do you measure in?"))
    })
    .await?;
    let (_, shop) = browser.fetch("GET", "/api/shop", serde_json::Value::Null).await?;
    assert_eq!(shop["shop"]["units"], "imperial");
    browser.go(&server.url("/")).await?;
    browser.sees("The rack is empty").await?;
    assert!(!browser.page().await?.contains("What do you measure in?"));
    // The next one is of a shop that works in inches by now: it has nothing to ask.
    let another = Browser::open(390, 844).await?;
    another.before_every_page("Object.defineProperty(navigator, 'language', { get: () => 'en-US' })").await?;
    another.go(&server.url("/")).await?;
    another.sees("The rack is empty").await?;
    assert!(!another.page().await?.contains("What do you measure in?"));
    // In a shop of millimetres it is asked for itself alone.
    let metric =
        json!({ "change": { "kind": "set", "key": "shop.units", "typed": "metric", "shown_in": "metric" } });
    another.fetch("POST", "/api/shop", metric).await?;
    another.go(&server.url("/")).await?;
    another.press("Inches, pounds, °F").await?;
    eventually("it is asked no more", async || {
        Ok(!another.page().await?.contains("What do you measure in?"))
    })
    .await?;
    let units = async |on: &Browser| -> anyhow::Result<Value> {
        let (_, shop) = on.fetch("GET", "/api/shop", Value::Null).await?;
        Ok(json!([shop["shop"]["units"], shop["fields"]["shop.units"]["typed"]]))
    };
    assert_eq!(units(&another).await?, json!(["imperial", "metric"]));
    Ok(())
}
