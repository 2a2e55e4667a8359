//! At the torch, in the heat and on the way down: led bead by bead, what goes wrong, what the readings say.

use anyhow::Context;
use serde_json::{Value, json};
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, Server, eventually, ready_lug, set};

/// Of an element, in px.
async fn text_px(browser: &Browser, test_id: &str) -> anyhow::Result<f64> {
    let script = format!(
        "return parseFloat(getComputedStyle(document.querySelector('[data-testid={test_id}]')).fontSize)"
    );
    browser.run(&script).await?.as_f64().context("no size")
}

pub async fn entries(browser: &Browser, job: &str) -> anyhow::Result<Vec<Value>> {
    browser.sent().await?;
    let (_, history) = browser.fetch("GET", &format!("/api/jobs/{job}/history"), Value::Null).await?;
    let facts = history["facts"].as_array().context("no facts")?.clone();
    Ok(facts.into_iter().map(|fact| fact["change"]["entry"].clone()).filter(|it| !it.is_null()).collect())
}

#[tokio::test]
async fn a_hot_lug_is_led_bead_by_bead_and_a_wrong_press_is_crossed_out() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    browser.sees("Bead 1 of").await?;
    eventually("it soaks and the clock runs", async || {
        Ok(browser.page().await?.contains("then the first bead")
            || browser.text("torch-next").await?.starts_with("Lay"))
    })
    .await?;
    eventually("the first bead may be laid", async || {
        Ok(browser.text("torch-next").await?.starts_with("Lay bead 1"))
    })
    .await?;
    assert!(browser.text("torch-main").await?.contains("irst bead laid"));
    browser.press_test_id("torch-main").await?;
    browser.sees("Bead 2 of").await?;
    eventually("it says where it lies", async || {
        Ok(entries(&browser, &job).await?.iter().any(|it| it["kind"] == "bead" && it["at"]["layer"] == 1))
    })
    .await?;
    browser.press("Peened").await?;
    // Pressed by mistake: one more press of two words, and the bead is to be laid again.
    browser.press_test_id("torch-main").await?;
    browser.sees("Bead 3 of").await?;
    let crossing =
        browser.find(By::XPath("//button[starts-with(@aria-label, 'Cross out bead done')]")).await?;
    browser.click(&crossing).await?;
    browser.press("wrong button").await?;
    browser.sees("Bead 2 of").await?;
    Ok(())
}

#[tokio::test]
async fn what_does_not_go_well_is_named_with_its_cause_and_the_ways_on_lie_side_by_side() -> anyhow::Result<()>
{
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    browser.press("It does not go well").await?;
    browser.sees("Go on, or stop?").await?;
    for way in ["go_on", "heat_first", "pack", "leave"] {
        browser.find(By::Css(&*format!("[data-testid=stop-{way}]"))).await?;
    }
    browser.press("Pinholes").await?;
    browser.sees("Stop, burn it out, grind out, refill.").await?;
    browser.press("That is it").await?;
    eventually("it is in the log", async || {
        Ok(entries(&browser, &job)
            .await?
            .iter()
            .any(|it| it["kind"] == "trouble" && it["seen"] == "pinholes"))
    })
    .await?;
    browser.press("More").await?;
    browser.press("Pinhole refilled").await?;
    browser.sees("pinhole refilled").await?;
    eventually("it is warm", async || Ok(browser.text("torch-place").await? == "In the window")).await?;
    browser.press("Out of the heat").await?;
    eventually("the clock of it runs", async || Ok(browser.page().await?.contains("then reheat"))).await?;
    browser.press("Back in the heat").await?;
    eventually("and stops", async || Ok(!browser.page().await?.contains("then reheat"))).await?;
    Ok(())
}

#[tokio::test]
async fn on_a_phone_a_cold_seam_is_read_at_arms_length() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(390, 844).await?;
    let job = ready_lug(&browser, &server, "cold").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    eventually("it is read", async || Ok(browser.text("torch-place").await? == "In the window")).await?;
    assert!(text_px(&browser, "torch-now").await? >= 120.0);
    assert!(text_px(&browser, "torch-next").await? >= 28.0);
    let wide = browser.run("return document.documentElement.scrollWidth").await?;
    assert!(wide.as_u64() <= Some(390), "nothing scrolls sideways: {wide}");
    // Beads laid one after the other without a wait: it says to wait before the next.
    for _ in 0..2 {
        let (status, view) = browser.fetch("GET", &format!("/api/jobs/{job}"), Value::Null).await?;
        anyhow::ensure!(status == 200, "{view}");
        let at = view["plan"]["torch"]["beads"]["ahead"][0]["at"].clone();
        browser.say(&job, json!({ "kind": "torch", "entry": { "kind": "bead", "at": at } })).await?;
        browser.say(&job, json!({ "kind": "torch", "entry": { "kind": "peened" } })).await?;
    }
    browser.sees("Bead 3 of").await?;
    Ok(())
}

#[tokio::test]
async fn heat_and_cooling_say_what_the_gear_and_the_readings_are_worth() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.at(&server).await?;
    let hot = browser.job("Letterpress").await?;
    browser.go(&server.url(&format!("/jobs/{hot}/cooling"))).await?;
    browser.sees("As it is going it lets through").await?;
    browser.find(By::Css("[data-testid=chart-band]")).await?;
    // Unwrapped while it is hot: what that does, and it is covered again.
    browser.press("Unwrapped").await?;
    browser.sees("Unwrapped").await?;
    browser.press("Covered again").await?;
    browser.find(By::XPath("//button[normalize-space()='Unwrapped']")).await?;
    // Read at arm's length, on a phone too.
    assert!(text_px(&browser, "cooling-now").await? >= 72.0);
    assert!(text_px(&browser, "next").await? >= 28.0);
    browser.resize(390, 844).await?;
    eventually("it is as large on a phone", async || Ok(text_px(&browser, "cooling-now").await? >= 119.0))
        .await?;
    assert!(text_px(&browser, "next").await? >= 28.0);
    let wide = browser.run("return document.documentElement.scrollWidth").await?;
    assert!(wide.as_u64() <= Some(390), "nothing scrolls sideways: {wide}");
    browser.resize(1280, 800).await?;

    let job = ready_lug(&browser, &server, "hot").await?;
    browser.go(&server.url(&format!("/jobs/{job}/heat"))).await?;
    browser.sees("swept carefully").await?;
    browser.sees("Sticks: ").await?;
    let slider = browser.find(By::Css("input[type=range]")).await?;
    let at = slider.attr("aria-valuetext").await?.context("it is said")?;
    slider.send_keys(Key::Home + "").await?;
    eventually("the part is cold at the beginning", async || {
        Ok(slider.attr("aria-valuetext").await?.is_some_and(|now| now != at && now.contains("after 0 min")))
    })
    .await?;
    // Baked, soaked and held each by its own: the gas follows, and taken back it is one source again.
    browser.say(&job, set("part.oil", "soaked")).await?;
    browser.unfold("Step by step").await?;
    browser.pick("Soak it in", "Kiln or heat-treat oven").await?;
    browser.pick("Held while it is filled by", "Oxy-acetylene tip, small").await?;
    browser.pick("Bake it out with", "Kiln or heat-treat oven").await?;
    let held = "return document.querySelector('[data-testid=heat-steps] [data-step=hold]')?.innerText ?? ''";
    let soaked =
        "return document.querySelector('[data-testid=heat-steps] [data-step=soak]')?.innerText ?? ''";
    let says = async |script: &str, word: &str| {
        Ok::<_, anyhow::Error>(browser.run(script).await?.as_str().is_some_and(|words| words.contains(word)))
    };
    eventually("each step has its source", async || {
        Ok(says(soaked, "Kiln").await? && says(held, "of acetylene").await?)
    })
    .await?;
    for (key, typed) in [("heat.hold", ""), ("heat.bake", ""), ("part.oil", "clean")] {
        browser.say(&job, set(key, typed)).await?;
    }
    eventually("nobody holds a flame on it", async || Ok(browser.run(held).await? == "")).await?;
    browser.say(&job, set("cooling.oven", "150")).await?;
    browser.say(&job, set("cooling.oven_for", "1 h")).await?;
    browser.go(&server.url(&format!("/jobs/{job}/cooling"))).await?;
    browser.sees("In the oven at 150").await?;
    Ok(())
}

#[tokio::test]
async fn a_helper_holds_the_flame_on_the_joint_and_the_part_is_kept_warm_over_the_night() -> anyhow::Result<()>
{
    let server = Server::start(true)?;
    let phone = Browser::open(390, 844).await?;
    let job = ready_lug(&phone, &server, "hot").await?;
    for (key, typed) in [("heat.hold", "oxy_acetylene_small"), ("heat.night", "kiln")] {
        phone.say(&job, set(key, typed)).await?;
    }
    phone.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    phone.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    eventually("the first bead may be laid", async || {
        Ok(phone.text("torch-next").await?.starts_with("Lay bead 1"))
    })
    .await?;
    phone.press_test_id("torch-main").await?;
    let clocks = async || {
        let live = phone.view(&job).await?["standing"]["live"].clone();
        let kinds = live["clocks"].as_array().cloned().unwrap_or_default();
        Ok::<_, anyhow::Error>(kinds.iter().map(|it| it["kind"].to_string()).collect::<String>())
    };
    for (word, said) in
        [("Flame held on the joint", "held_at_joint"), ("Held warm over a break", "held_over")]
    {
        phone.press("More").await?;
        phone.press(word).await?;
        eventually(word, async || Ok(entries(&phone, &job).await?.iter().any(|it| it["what"] == said)))
            .await?;
    }
    phone.press("Out of the heat").await?;
    eventually("out of the heat it runs down", async || Ok(clocks().await?.contains("out_of_heat"))).await?;
    phone.press("More").await?;
    phone.press("Flame held on the joint").await?;
    eventually("held again it does not", async || Ok(!clocks().await?.contains("out_of_heat"))).await
}

#[tokio::test]
async fn a_stick_is_rubbed_on_the_alignment_is_read_and_an_oven_is_started_and_stopped() -> anyhow::Result<()>
{
    let server = Server::start_bare()?;
    let browser = Browser::open(390, 844).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    let word =
        json!({ "id": uuid::Uuid::new_v4(), "change": set("shop.sources", "oxy_acetylene_small,kiln") });
    let (status, said) = browser.fetch("POST", "/api/shop", word).await?;
    anyhow::ensure!(status == 200, "{said}");
    browser.say(&job, set("heat.source", "kiln")).await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/heat"))).await?;
    browser.press("Start the oven").await?;
    browser.press("Stop the oven").await?;
    browser.sees("Start the oven").await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    browser.press("Reading").await?;
    browser.choose("Read with", "Temperature stick").await?;
    browser.find(By::Css("[role='dialog'] input")).await?.send_keys("204 C").await?;
    browser.press("Log it").await?;
    browser.sees("say whether it melted").await?;
    browser.choose("Rubbed on the far side", "It melted").await?;
    browser.press("Log it").await?;
    browser.sees("the 204 C stick melted").await?;
    eventually("it is as warm as that", async || Ok(browser.text("torch-now").await? == "204")).await?;
    browser.press("More").await?;
    browser.press("Alignment read").await?;
    browser.find(By::Css("[role='dialog'] input")).await?.send_keys("0.4 mm" + Key::Enter).await?;
    browser.sees("alignment 0.4 mm off").await?;
    // The page says what is still on its way.
    eventually("all of it has arrived", async || {
        let said: Vec<Value> =
            entries(&browser, &job).await?.into_iter().map(|it| it["kind"].clone()).collect();
        Ok(said == ["oven", "oven", "stick", "aligned"])
    })
    .await
}

/// The button whose name begins so.
async fn press_what_begins(browser: &Browser, name: &str) -> anyhow::Result<()> {
    let path = format!("//button[starts-with(@aria-label, '{name}')]");
    eventually(&format!("press {name}"), async || {
        let Ok(button) = browser.find(By::XPath(path.as_str())).await else { return Ok(false) };
        Ok(browser.click(&button).await.is_ok())
    })
    .await
}

#[tokio::test]
async fn a_layer_that_was_laid_without_a_word_is_said_at_once_and_crossed_out_at_once() -> anyhow::Result<()>
{
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let job = ready_lug(&browser, &server, "cold").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    browser.sees("Bead 1 of").await?;
    // What rings comes in above it: where it moved away under the finger, it is pressed again.
    eventually("it is asked what is done", async || {
        if browser.page().await?.contains("What is done?") {
            return Ok(true);
        }
        browser.press("Several are done").await?;
        browser.drawn().await?;
        Ok(false)
    })
    .await?;
    press_what_begins(&browser, "Layer 1").await?;
    browser.sees("beads done, layer 1, each peened").await?;
    // The page says it as soon as it is pressed, the server when it is told.
    let mut beads = Value::Null;
    eventually("the server knows", async || {
        let said = entries(&browser, &job).await?;
        beads = said.into_iter().find(|it| it["kind"] == "beads").unwrap_or_default();
        Ok(!beads.is_null())
    })
    .await?;
    let count = beads["at"].as_array().context("no places")?.len();
    assert!(count > 1 && beads["peened"] == true && beads["over_min"].as_f64() > Some(0.0), "{beads}");
    browser.sees(&format!("Bead {} of", count + 1)).await?;
    press_what_begins(&browser, &format!("Cross out {count} beads done")).await?;
    browser.press("wrong button").await?;
    browser.sees("Bead 1 of").await?;
    Ok(())
}

#[tokio::test]
async fn a_seam_that_a_flame_fills_has_its_beginning_and_its_end() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, set("method.choice", "torch_braze")).await?;
    browser.say(&job, set("method.school", "whole_part")).await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    browser.sees("In one flow").await?;
    assert_eq!(browser.text("torch-main").await?, "Filling begun");
    browser.press_test_id("torch-main").await?;
    browser.sees("begun at").await?;
    eventually("its end comes next", async || Ok(browser.text("torch-main").await? == "Seam filled")).await?;
    browser.press_test_id("torch-main").await?;
    browser.sees("All seams done").await?;
    let kinds: Vec<Value> = entries(&browser, &job).await?.iter().map(|it| it["kind"].clone()).collect();
    assert!(kinds.ends_with(&[json!("did"), json!("bead")]), "{kinds:?}");
    Ok(())
}
