//! Whole journeys through the real interface, with real clicks and keys.

use anyhow::Context;
use serde_json::{Value, json};
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, ENTER, Server, eventually, ready_lug, set};

#[tokio::test]
async fn a_cracked_lug_goes_from_the_door_to_the_hand_over() -> anyhow::Result<()> {
    let mut server = Server::start_with_a_shop_and_no_pads()?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Letterpress side frame").await?;
    browser.key("n").await?;

    // Part
    browser.type_in("What is it?", "Bell clapper lug").await?;
    browser.choose("What sort of part?", "Machine frame or bed").await?;
    browser.choose("When was it cast?", "Before 1949").await?;
    browser.choose("Could it hurt somebody?", "None of these").await?;
    browser.type_in("Length", "4 3/4 in").await?;
    browser.type_in("Width", "60").await?;
    browser.type_in("Height", "1.2 cm").await?;
    browser.type_in("Weight", "0.5 kg").await?;
    browser.type_in("Wall at the break", "12").await?;
    browser.choose("Shape", "Solid block").await?;
    browser.type_in("Hottest in service", "68F").await?;
    browser.choose("What does it hold?", "Nothing").await?;
    browser.choose("Oil", "Clean").await?;
    browser.choose("Can be reached from", "Both sides").await?;
    browser.unfold("How it came in").await?;
    browser.choose("Repaired before, with", "Never repaired").await?;
    browser.sees("Enough is known of the part.").await?;

    // Iron, by the key of its station
    browser.key("2").await?;
    browser.press("Punch 2 min").await?;
    browser.press("Punch: crumbles, no rim").await?;
    browser.press("Drill 5 min").await?;
    browser.press("Drill: powder and crumbs").await?;
    browser.sees("Gray: enough, go on").await?;

    // Cracks
    browser.press("Cracks, nothing yet").await?;
    browser.press("Map the crack").await?;
    browser.type_in("Length", "40 mm").await?;
    browser.pick("Ends found", "Dye penetrant").await?;
    browser.pick("Left end", "Runs out at an edge").await?;
    browser.pick("Right end", "Stops in the metal").await?;
    // Hand-worked: half of 12 is 6, next drill 6.4; 1000 x 25 / (pi x 6.4) = 1243, shown as 1250
    eventually("the drill is worked out", async || {
        Ok(browser.figure(".right.drill").await?.starts_with("6.4"))
    })
    .await?;
    assert!(browser.figure(".right.rpm").await?.starts_with("1250"));

    // Method
    browser.press("Cracks, done").await?;
    browser.key("4").await?;
    browser.sees("Braze it with the torch, the whole part at 300 °C.").await?;
    browser.way("Nickel stick, hot").await?;
    browser.press("Take it: Nickel stick, hot").await?;
    browser.sees("Weld it with nickel stick, the whole part at 300 °C.").await?;
    browser.sees("The welder's choice.").await?;

    // Prep, and a figure asked why
    browser.key("5").await?;
    browser.sees("In this order").await?;
    browser.press_what(By::Css("[data-testid='figure.prep.volume']")).await?;
    browser.sees("why?").await?;
    browser.key("\u{e00c}").await?;
    for done in ["Stop-holes drilled", "Groove ground", "Inside cleaned too", "Dye, chalk and oil out again"]
    {
        browser.choose("Done before the heat", done).await?;
    }

    // Heat and cooling, with gear that suits a small part
    browser.key("6").await?;
    browser.pick("Heat with", "Oxy-acetylene tip, small").await?;
    browser.sees("Sweep it").await?;
    // A list that has the focus takes the keys: by the line.
    browser.station("Cooling").await?;
    browser.pick("Packed in", "Still air").await?;

    // Torch
    browser.station("Torch").await?;
    browser.press_test_id("light").await?;
    let read = async |typed: &str| -> anyhow::Result<()> {
        browser.key("l").await?;
        let by_hand = browser.find(By::Css("[role='dialog'] input")).await?;
        // Enter on what is chosen in a sheet presses nothing of the page behind it.
        browser.run("document.querySelector('[role=dialog] [data-state=on]').focus()").await?;
        browser.key(ENTER).await?;
        by_hand.send_keys(typed).await?;
        by_hand.send_keys(Key::Enter + "").await?;
        browser.sees(&format!("reading {typed}")).await
    };
    browser.sees("Take a reading").await?;
    read("610 F").await?;
    eventually("it is warm enough", async || Ok(browser.text("torch-place").await? == "In the window"))
        .await?;
    browser.press_test_id("torch-main").await?;
    browser.press("Peened").await?;
    browser.key("b").await?;
    browser.sees("2 of").await?;
    read("640 F").await?;
    browser.sees("2 of").await?;
    browser.press("It must stop").await?;
    browser.sees("beads are not laid").await?;
    browser.press("it does not go well").await?;
    browser.sees("covered: it does not go well").await?;

    // Cooling: marked hot until it is read, and can have become, cold
    browser.station("Cooling").await?;
    browser.sees("HOT").await?;
    server.hours_later(3)?;
    browser.press("Log a reading").await?;
    browser.find(By::Css("[role='dialog'] input")).await?.send_keys("30 C").await?;
    browser.press("Log it").await?;
    eventually("it is cold enough to look", async || {
        let page = browser.page().await?;
        Ok(["Unwrap and look", "Check: slag", "Go on: light it again"].iter().any(|next| page.contains(next)))
    })
    .await?;

    // Check
    browser.key("9").await?;
    for line in [
        "Slag, flux glass and fibre off",
        "Toes whole",
        "No new crack, none ran on",
        "Edge files",
        "Straight",
    ] {
        browser.choose(line, "Good").await?;
    }
    browser.sees("It holds").await?;

    // Hand-over
    browser.key("0").await?;
    browser.type_in("Ask again on", "1 June 2027").await?;
    browser.sees("beads are not done.").await?;
    browser.type_in("Why it goes out as it is, and who says so", "Bellhanger finishes it in place").await?;
    browser.sees("Goes out as it is: Bellhanger finishes it in place").await?;
    browser.press("Handed over").await?;
    // Once it is handed over, and not a moment before: as was said, and after two years.
    browser.sees("We ask how it is holding on Tue 1 Jun 2027, Wed 8 Mar 2028.").await?;
    let folder = browser.downloads().to_owned();
    browser.press("Export to a file").await?;
    let file = folder.join("bell-clapper-lug.vanadin.json");
    let mut exported = Value::Null;
    // Its name is there before what is in it.
    eventually("the whole file is there", async || {
        exported = serde_json::from_slice(&std::fs::read(&file)?)?;
        Ok(true)
    })
    .await?;
    assert_eq!((exported["format"].as_str(), exported["version"].as_u64()), (Some("vanadin-job"), Some(19)));
    let beads = exported["facts"].as_array().context("no facts")?.iter();
    assert_eq!(beads.filter(|fact| fact["change"]["entry"]["kind"] == "bead").count(), 2);

    // And it lies on the rack, finished.
    browser.key("r").await?;
    // Nickel is looked at once more the day after: that comes before the day it is asked for.
    browser.sees("Look for cracks again").await?;
    Ok(())
}

#[tokio::test]
async fn at_the_torch_on_a_phone_the_server_may_go_away() -> anyhow::Result<()> {
    let mut server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(390, 844).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    eventually("it is warm enough", async || Ok(browser.text("torch-place").await? == "In the window"))
        .await?;
    eventually("a bead may be laid", async || {
        Ok(browser.text("torch-main").await?.contains("irst bead laid"))
    })
    .await?;
    browser.press_test_id("torch-main").await?;
    eventually("the first bead is stored", async || {
        let view = browser.view(&job).await?;
        let log = view["job"]["rounds"][0]["log"].as_array().context("no log")?;
        Ok(log.iter().any(|entry| entry["entry"]["kind"] == "bead"))
    })
    .await?;

    server.kill()?;
    browser.press_test_id("torch-main").await?;
    browser.press("Peened").await?;
    browser.press_test_id("torch-main").await?;
    browser.sees("3 waiting").await?;
    browser.sees("2 waiting for the server").await?;
    assert!(browser.page().await?.contains("3 of"), "what is waiting counts on the page");

    server.start_again()?;
    eventually("everything is sent", async || Ok(browser.text("saved-phone").await? == "saved")).await?;
    let (_, history) = browser.fetch("GET", &format!("/api/jobs/{job}/history"), Value::Null).await?;
    let entries: Vec<&str> = history["facts"]
        .as_array()
        .context("no facts")?
        .iter()
        .filter_map(|fact| fact["change"]["entry"]["kind"].as_str())
        .collect();
    assert_eq!(entries, ["bead", "bead", "peened", "bead"], "in order, each once");
    eventually("the pad goes on", async || Ok(browser.text("torch-now").await?.parse::<f64>()? > 100.0))
        .await?;
    let wide =
        browser.run("return document.documentElement.scrollWidth").await?.as_u64().context("no width")?;
    assert!(wide <= 390, "nothing scrolls sideways");
    assert_eq!(browser.serious_problems().await?, Vec::<String>::new());
    Ok(())
}

#[tokio::test]
async fn two_tabs_on_one_job_see_each_other_and_overwrite_nothing() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.go(&server.url(&format!("/jobs/{job}/part"))).await?;
    browser.sees("Enough is known of the part.").await?;
    browser.unfold("How big").await?;
    browser.unfold("What it is").await?;
    let wall = browser.field("Wall at the break").await?;
    browser.click(&wall).await?;
    wall.send_keys(Key::Control + "a").await?;
    wall.send_keys("15").await?;
    // While it is being typed here, somebody says something else there.
    browser.say(&job, set("part.wall", "13")).await?;
    browser.say(&job, set("part.owner", "The other tab")).await?;
    eventually("the other tab's owner shows up here", async || {
        Ok(browser.field("Whose is it?").await?.prop("value").await?.as_deref() == Some("The other tab"))
    })
    .await?;
    wall.send_keys(Key::Enter + "").await?;
    browser.sees("Changed meanwhile: it now says \"13\", you said \"15\".").await?;
    assert_eq!(wall.prop("value").await?.as_deref(), Some("15"), "what was typed is kept");
    // Having seen both, saying it again counts.
    browser.type_in("Wall at the break", "15.0").await?;
    eventually("it is stored", async || {
        let view = browser.view(&job).await?;
        Ok(view["fields"]["part.wall"]["typed"] == "15.0")
    })
    .await?;

    // A second tab for real: what is said and undone there shows up here.
    let here = browser.driver.window().await?;
    let there = browser.driver.new_tab().await?;
    browser.driver.switch_to_window(there).await?;
    browser.go(&server.url(&format!("/jobs/{job}/part"))).await?;
    browser.unfold("What it is").await?;
    browser.type_in("Whose is it?", "The second tab").await?;
    browser.driver.switch_to_window(here.clone()).await?;
    let owner_here = async |owner: &str| -> anyhow::Result<bool> {
        Ok(browser.field("Whose is it?").await?.prop("value").await?.as_deref() == Some(owner))
    };
    eventually("it shows up here", async || owner_here("The second tab").await).await?;
    browser.press("Undo").await?;
    eventually("it is taken back here", async || owner_here("The other tab").await).await?;
    Ok(())
}

#[tokio::test]
async fn what_does_not_hold_opens_the_next_round_with_the_map_carried_over() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    for kind in ["bead", "covered"] {
        browser.say(&job, json!({ "kind": "torch", "entry": { "kind": kind } })).await?;
    }
    browser.go(&server.url(&format!("/jobs/{job}/check"))).await?;
    browser.choose("No new crack, none ran on", "Not good").await?;
    browser.press("Open round 2").await?;
    // The map is there, can be changed, and the round before keeps its own.
    browser.sees("round 2").await?;
    browser.sees("40 mm, wall 12 mm").await?;
    browser.type_in("Length", "55").await?;
    browser.press("Another crack").await?;
    browser.sees("length not known").await?;
    eventually("both rounds have their own map", async || {
        let view = browser.view(&job).await?;
        let rounds = view["job"]["rounds"].as_array().context("no rounds")?;
        let cracks = |round: &Value| round["cracks"].as_array().map(Vec::len);
        Ok(rounds.len() == 2 && (cracks(&rounds[0]), cracks(&rounds[1])) == (Some(1), Some(2)))
    })
    .await?;
    browser.press("Cross out crack B").await?;
    browser.press("wrong button").await?;
    eventually("it is off the map", async || Ok(!browser.page().await?.contains("length not known"))).await?;
    // A letter is given once: it is chalked on the part and stands in the record.
    browser.press("Another crack").await?;
    browser.sees("Cross out crack C").await?;
    Ok(())
}

#[tokio::test]
async fn a_job_is_found_put_away_opened_from_a_file_and_a_damaged_file_is_refused() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Glasshouse vent quadrant").await?;
    browser.key("/").await?;
    let find = browser.find(By::Css("input[type='search']")).await?;
    find.send_keys("slate").await?;
    eventually("only that one is left", async || {
        let page = browser.page().await?;
        Ok(page.contains("Incline railway points lever") && !page.contains("Glasshouse"))
    })
    .await?;
    // Enter opens the only one that was found.
    find.send_keys("" + Key::Enter).await?;
    browser.press("Job").await?;
    browser.sees("History").await?;
    browser.press("Put away").await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Glasshouse").await?;
    assert!(!browser.page().await?.contains("Incline railway"));
    browser.press("Put away").await?;
    browser.sees("Incline railway points lever").await?;

    let (_, away) = browser.fetch("GET", "/api/rack?away=true", Value::Null).await?;
    let id = away["lines"][0]["id"].as_str().context("nothing is put away")?.to_owned();
    let (_, file) = browser.fetch("GET", &format!("/api/jobs/{id}/export"), Value::Null).await?;
    let folder = browser.downloads().to_owned();
    let (good, damaged) = (folder.join("good.json"), folder.join("damaged.json"));
    let text = file.to_string();
    std::fs::write(&good, &text)?;
    std::fs::write(&damaged, &text[..text.len() / 2])?;
    browser.go(&server.url("/")).await?;
    browser.find(By::Css("main")).await?;
    let open = browser.driver.find(By::Css("input[type='file']")).await?;
    open.send_keys(damaged.to_string_lossy().into_owned()).await?;
    browser.sees("damaged.json: this is no job's file.").await?;
    open.send_keys(good.to_string_lossy().into_owned()).await?;
    browser.sees("Enough is known of the part.").await?;
    Ok(())
}

#[tokio::test]
async fn bad_input_is_told_at_its_field_and_kept() -> anyhow::Result<()> {
    let server = Server::start(false)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    browser.go(&server.url("/?new")).await?;
    browser.unfold("How big").await?;
    browser.unfold("In service").await?;
    for (label, typed, told) in [
        ("Wall at the break", "900", "1 to 300 mm"),
        ("Weight", "-4 kg", "0.01 to 20000 kg"),
        ("Hottest in service", "500Q", "260 C or 500 F"),
        ("Hottest in service", "28o C", "A letter o stands where a zero should be"),
    ] {
        browser.type_in(label, typed).await?;
        browser.sees(told).await?;
        assert_eq!(browser.field(label).await?.prop("value").await?.as_deref(), Some(typed));
    }
    browser.type_in("Wall at the break", "3/8").await?;
    eventually("the problem goes", async || Ok(!browser.page().await?.contains("1 to 300 mm"))).await?;
    browser.sees("9.5 mm").await?;
    // From a field that was wrong the keys go on to the next one too.
    assert_eq!(browser.run("return document.activeElement.id").await?, json!("field-part-mass"));
    Ok(())
}

#[tokio::test]
async fn a_killed_server_loses_nothing_it_acknowledged() -> anyhow::Result<()> {
    let mut server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 60 })).await?;
    let log = "window.acknowledged = [];
        (async () => { for (let n = 0; n < 5000; n++) {
          const id = crypto.randomUUID();
          const body = JSON.stringify({ id, at_client_ms: 4e12, change: { kind: 'torch', entry: { kind: 'note', text: 'n' + n } } });
          const answer = await fetch(`/api/jobs/${arguments[0]}/facts`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body });
          if (answer.ok) window.acknowledged.push(id);
        } })().catch(() => {});";
    browser.told(log, &json!([job])).await?;
    let acknowledged = async || -> anyhow::Result<Vec<String>> {
        Ok(serde_json::from_value(browser.run("return window.acknowledged").await?)?)
    };
    eventually("some are logged", async || Ok(acknowledged().await?.len() >= 12)).await?;
    server.kill()?;
    let sure = acknowledged().await?;
    server.start_again()?;
    browser.go(&server.url("/")).await?;
    let (status, history) = browser.fetch("GET", &format!("/api/jobs/{job}/history"), Value::Null).await?;
    assert_eq!(status, 200);
    let stored: Vec<&str> = history["facts"]
        .as_array()
        .context("no facts")?
        .iter()
        .filter_map(|fact| fact["id"].as_str())
        .collect();
    for id in &sure {
        assert!(stored.contains(&id.as_str()), "{id} was acknowledged and is gone");
    }
    Ok(())
}
