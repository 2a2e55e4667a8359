//! Lit to bake, stopped and gone on with, read by a logger that falls silent or wrote a file.

use std::io::Write;

use anyhow::Context;
use serde_json::{Value, json};
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, Server, eventually, ready_lug, set};

#[tokio::test]
async fn an_oily_lug_is_baked_with_what_is_not_ticked_named_and_stays_hot() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, set("part.oil", "soaked")).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    browser.choose("What it is lit for", "Bake the oil out").await?;
    browser.sees("neither smokes nor weeps").await?;
    let line =
        browser.find(By::XPath("//button[@role='checkbox' and contains(., 'Solvent flashed off')]")).await?;
    browser.click(&line).await?;
    eventually("it is ticked", async || Ok(line.attr("aria-checked").await?.as_deref() == Some("true")))
        .await?;
    browser.choose("Speed of the job clock", "60 times").await?;
    browser.press_test_id("light").await?;
    browser.sees("Lit with these not ticked").await?;
    let said = browser.page().await?;
    let open = said.split("Lit with these not ticked").nth(1).context("it is told")?;
    assert!(!open.contains("Solvent flashed off") && open.contains("Extinguisher"), "{open}");
    eventually("it is held", async || Ok(browser.text("torch-next").await?.starts_with("Hold it"))).await?;
    // Ended early: the flame is off, the part is hot, and nothing cold is proposed.
    browser.press_test_id("torch-main").await?;
    browser.sees("HOT").await?;
    let view = browser.view(&job).await?;
    assert_eq!(view["job"]["rounds"][0]["lit"], Value::Null, "the repair is not begun");
    assert!(
        view["standing"]["keep_off"].as_str().is_some_and(|it| it.contains("no solvent")),
        "{}",
        view["standing"]
    );
    Ok(())
}

#[tokio::test]
async fn what_must_stop_says_what_to_do_first_and_is_gone_on_with_on_a_larger_torch() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(390, 844).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    eventually("the first bead may be laid", async || {
        Ok(browser.text("torch-next").await?.starts_with("Lay bead 1"))
    })
    .await?;
    browser.press_test_id("torch-main").await?;
    browser.sees("Bead 2 of").await?;
    browser.press("It must stop").await?;
    assert!(browser.text("stop-hurt").await?.contains("Machine off"));
    browser.press("gas is out").await?;
    browser.sees("Stopped: gas is out").await?;
    let needs = browser.text("go-on").await?;
    assert!(needs.contains("are left"), "{needs}");
    // Next day, on a larger torch: the same round, and the bead is where it was.
    browser.say(&job, set("heat.source", "oxy_acetylene_medium")).await?;
    eventually("it is planned with", async || Ok(browser.text("go-on").await?.contains("medium"))).await?;
    let before = browser.view(&job).await?;
    browser.choose("Speed of the job clock", "60 times").await?;
    browser.press_test_id("light").await?;
    eventually("it burns again", async || {
        let view = browser.view(&job).await?;
        let rounds = view["job"]["rounds"].as_array().context("rounds")?.clone();
        Ok(rounds.len() == 1
            && rounds[0]["cancelled"].as_array().is_some_and(|it| it.len() == 1)
            && view["plan"]["torch"]["done"] == json!(1)
            && view["plan"]["torch"]["planned"] == before["plan"]["torch"]["planned"])
    })
    .await?;
    browser.sees("Bead 2 of").await?;
    browser.sees("Heat before, round 1").await?;
    // What was read of both lies on one curve.
    browser.find(By::Css("[data-testid=one-curve] svg")).await?;
    Ok(())
}

#[tokio::test]
async fn a_logger_is_read_and_when_it_falls_silent_that_is_said() -> anyhow::Result<()> {
    const KEY: &str = "the-key-of-the-bench-logger";
    // No simulated pads here: what is read is read by the logger.
    let server = Server::start_bare()?;
    let browser = Browser::open(1280, 800).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    let word = json!({ "id": uuid::Uuid::new_v4(), "change": set("shop.logger", KEY) });
    let (status, said) = browser.fetch("POST", "/api/shop", word).await?;
    anyhow::ensure!(status == 200, "{said}");
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    browser.sees("No reading yet").await?;
    let logger = server.stand_in(&["thermocouple", "--job", &job, "--key", KEY, "--every-ms", "100"])?;
    eventually("it is read", async || Ok(browser.text("torch-place").await? == "In the window")).await?;
    drop(logger);
    eventually("its silence is said", async || {
        Ok(!browser.driver.find_all(By::Css("[data-testid=silent]")).await?.is_empty())
    })
    .await?;
    Ok(())
}

#[tokio::test]
async fn a_file_that_a_logger_wrote_is_laid_on_the_job_clock_and_can_be_taken_out_again() -> anyhow::Result<()>
{
    let server = Server::start_bare()?;
    let browser = Browser::open(1280, 800).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    browser.sees("Bring in a logger's file").await?;
    let mut file = tempfile::Builder::new().suffix(".csv").tempfile()?;
    writeln!(file, "Bench logger\nmin;probe\n0;20,5\n0,01;61\n0,02;99,5")?;
    file.flush()?;
    let input = browser.driver.find(By::Css("input[type=file]")).await?;
    input.send_keys(file.path().to_str().context("a path")?).await?;
    browser.sees("3 rows over").await?;
    browser.press_test_id("file-keep").await?;
    browser.sees("its head says no unit").await?;
    browser.choose("In", "°C").await?;
    browser.press_test_id("file-keep").await?;
    browser.sees("3 readings kept").await?;
    let readings = async || {
        let view = browser.view(&job).await?;
        anyhow::Ok(view["job"]["rounds"][0]["readings"].as_array().map_or(0, Vec::len))
    };
    eventually("they are with the job", async || Ok(readings().await? == 3)).await?;
    browser.press("Take them out again").await?;
    eventually("they are gone", async || Ok(readings().await? == 0)).await?;
    Ok(())
}

#[tokio::test]
async fn a_helper_sees_on_a_second_phone_how_hot_what_next_and_what_to_hold() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(390, 844).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    browser.press("More").await?;
    browser.press("For a helper's phone").await?;
    // No other device reaches this server, and that is said in the place of a code.
    browser.sees("Only this machine reaches the server").await?;
    browser.press_what(By::LinkText("Show it on this device")).await?;
    browser.sees("Signal").await?;
    eventually("it is read", async || Ok(browser.text("torch-place").await? == "In the window")).await?;
    let next = browser.text("helper-next").await?;
    assert!(!next.is_empty());
    assert!(
        browser.driver.find_all(By::Css("[data-testid=torch-main]")).await?.is_empty(),
        "nothing is said here"
    );
    Ok(())
}

#[tokio::test]
async fn a_hot_lug_goes_from_lighting_to_unwrapping_with_all_that_goes_wrong_on_the_way() -> anyhow::Result<()>
{
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    // A bead before it is soaked: it goes into the log, and the odds know it.
    browser.press_test_id("torch-main").await?;
    browser.sees("Bead 2 of").await?;
    browser.press("It does not go well").await?;
    browser.press("It blew through").await?;
    browser.press("That is it").await?;
    browser.sees("It blew through: ").await?;
    browser.press("More").await?;
    browser.press("Pinhole refilled").await?;
    browser.sees("pinhole refilled").await?;
    // The one at the top of the page is a note on the job.
    browser.press_what(By::XPath("//main//button[normalize-space()='Note']")).await?;
    browser.find(By::Css("[role='dialog'] input")).await?.send_keys("wrong one" + Key::Enter).await?;
    browser.sees("wrong one").await?;
    let crossing =
        browser.find(By::XPath("//button[starts-with(@aria-label, 'Cross out wrong one')]")).await?;
    browser.click(&crossing).await?;
    browser.press("wrong button").await?;
    // The rest of the beads, one press each.
    let planned = browser.view(&job).await?["plan"]["torch"]["planned"].as_u64().context("beads")?;
    for number in 2..=planned {
        browser.sees(&format!("Bead {number} done")).await?;
        browser.press_test_id("torch-main").await?;
    }
    eventually("it is covered next", async || Ok(browser.text("torch-main").await?.contains("Covered")))
        .await?;
    browser.press_test_id("torch-main").await?;
    browser.station("Cooling").await?;
    browser.sees("HOT").await?;
    // Too early, and said so: what that does is told.
    browser.press("Unwrapped").await?;
    browser.sees("in still air it falls").await?;
    eventually("it is unwrapped", async || {
        let view = browser.view(&job).await?;
        let log = view["job"]["rounds"][0]["log"].as_array().context("a log")?.clone();
        Ok(log.iter().any(|entry| entry["entry"]["kind"] == "unwrapped"))
    })
    .await?;
    Ok(())
}

#[tokio::test]
async fn a_reading_that_is_none_stays_in_its_field_and_a_gun_shows_what_it_is_turned_into()
-> anyhow::Result<()> {
    let server = Server::start(false)?;
    let browser = Browser::open(1280, 800).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 1 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    browser.press("Reading").await?;
    browser.choose("Read with", "Infrared gun").await?;
    let field = browser.find(By::Css("[role='dialog'] input")).await?;
    field.send_keys("warmish" + Key::Enter).await?;
    browser.sees("would do.").await?;
    assert_eq!(field.prop("value").await?.as_deref(), Some("warmish"), "what was typed is kept");
    field.send_keys(Key::Control + "a").await?;
    field.send_keys("245 C" + Key::Enter).await?;
    browser.sees("reading 245 C by gun").await?;
    let view = browser.view(&job).await?;
    let iron = view["job"]["rounds"][0]["log"][0]["celsius"].as_f64().context("it is read")?;
    assert!((iron - 300.0).abs() < 5.0, "on cast skin a gun set to 0.95 shows less than the iron is: {iron}");
    Ok(())
}

#[tokio::test]
async fn gas_that_runs_out_is_said_before_and_rings_at_the_torch() -> anyhow::Result<()> {
    let server = Server::start(false)?;
    let browser = Browser::open(1280, 800).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    for (gas, amount) in [("acetylene", "0.3 m3"), ("oxygen", "5 m3")] {
        let item = uuid::Uuid::new_v4();
        for (field, typed) in [("what", gas), ("amount", amount)] {
            let change = set(&format!("store.{item}.{field}"), typed);
            let word = json!({ "id": uuid::Uuid::new_v4(), "change": change });
            let (status, said) = browser.fetch("POST", "/api/shop", word).await?;
            anyhow::ensure!(status == 200, "{said}");
        }
    }
    browser.go(&server.url(&format!("/jobs/{job}/heat"))).await?;
    eventually("the gas is reckoned", async || Ok(browser.text("heat-gas").await?.contains("here"))).await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    eventually("it rings for a cylinder", async || {
        let page = browser.page().await?;
        Ok(page.contains("another cylinder") && page.contains("Heard"))
    })
    .await?;
    Ok(())
}

#[tokio::test]
async fn what_a_pad_read_of_a_cancelled_lighting_is_not_shown_of_the_next() -> anyhow::Result<()> {
    let mut server = Server::start(false)?;
    let browser = Browser::open(390, 844).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    let light = json!({ "kind": "light", "speed": 60 });
    browser.say(&job, light.clone()).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    eventually("the pad is heard", async || Ok(browser.text("torch-now").await?.parse::<f64>()? > 60.0))
        .await?;
    // The pad is dead: nothing is heard of the next lighting.
    server.kill()?;
    server.start_again()?;
    let said = async |change: Value| {
        eventually("it is taken", async || Ok(browser.say(&job, change.clone()).await.is_ok())).await
    };
    said(json!({ "kind": "cancel_light" })).await?;
    said(light).await?;
    browser.sees("No reading yet").await
}
