//! Nothing that was said is lost, and nothing is sent where it does not belong.

use anyhow::Context;
use rstest::rstest;
use serde_json::{Value, json};
use thirtyfour::prelude::*;
use uuid::Uuid;
use vanadin_e2e::{Browser, Server, eventually, ready_lug};

async fn saved(browser: &Browser, test_id: &str) -> anyhow::Result<()> {
    eventually("everything is sent", async || Ok(browser.text(test_id).await? == "saved")).await
}

/// Puts an entry into the browser's store, as if it had been said and the page closed before it was sent.
async fn left_waiting(browser: &Browser, key: &str, text: &str) -> anyhow::Result<()> {
    let script = "localStorage.setItem(arguments[0], arguments[1])";
    browser.told(script, &json!([key, text])).await?;
    Ok(())
}

#[tokio::test]
async fn on_a_phone_by_address_over_plain_http_everything_can_be_said() -> anyhow::Result<()> {
    let server = Server::start(false)?;
    let browser = Browser::open_with_a_worker(390, 844).await?;
    browser.without_a_secure_origin().await?;
    browser.go(&server.url("/?new")).await?;
    assert_eq!(browser.run("return typeof crypto.randomUUID").await?, "undefined");
    assert_eq!(browser.run("return window.isSecureContext").await?, false);
    browser.type_in("What is it?", "Lock gate rack").await?;
    browser.choose("What sort of part?", "Machine frame or bed").await?;
    saved(&browser, "saved-phone").await?;
    let job = browser.job("Lock gate rack").await?;
    browser.go(&server.url(&format!("/jobs/{job}/iron"))).await?;
    browser.press("Break: light gray, silky").await?;
    browser.go(&server.url(&format!("/jobs/{job}/cracks"))).await?;
    browser.press("Map the crack").await?;
    browser.type_in("Length", "80").await?;
    eventually("it is stored", async || {
        let view = browser.view(&job).await?;
        let crack = view["plan"]["cracks"][0]["id"].as_str().unwrap_or_default().to_owned();
        Ok(view["fields"][format!("crack.{crack}.length")]["typed"] == "80"
            && view["job"]["evidence"].as_array().is_some_and(|seen| seen.len() == 1))
    })
    .await
}

#[tokio::test]
async fn what_was_not_taken_lies_in_the_tray_until_it_is_said_again_or_let_go() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("Malt").await?;
    let said = |id: Uuid, change: Value| {
        json!({ "job": job, "id": id, "at_client_ms": 1_773_000_000_000_i64, "who": "bench", "base": null,
            "change": change, "folder": null })
        .to_string()
    };
    // Hot work that is not prepared: it may not be lit yet.
    let braze =
        json!({ "kind": "set", "key": "method.choice", "typed": "torch_braze", "shown_in": "metric" });
    browser.say(&job, braze).await?;
    let (light, round) = (Uuid::new_v4(), Uuid::new_v4());
    let lighting = said(light, json!({ "kind": "light", "speed": 60, "owned": "" }));
    left_waiting(&browser, &format!("vanadin.waiting.1773000000000.{light}"), &lighting).await?;
    let rounds = said(round, json!({ "kind": "new_round", "reason": "dye shows more" }));
    left_waiting(&browser, &format!("vanadin.waiting.1773000000000.{round}"), &rounds).await?;
    // A torn entry is no white page: it is set aside.
    left_waiting(&browser, "vanadin.waiting.1.torn", "{\"job\": \"4").await?;
    browser.go(&server.url(&format!("/jobs/{job}/method"))).await?;
    browser.sees("Not taken").await?;
    browser.sees("Not to be done once it is hot, and nobody has said that it is done").await?;
    browser.sees("ew round: dye shows more.").await?;
    let aside = browser.run("return localStorage.getItem('vanadin.damaged.vanadin.waiting.1.torn')").await?;
    assert_eq!(aside, "{\"job\": \"4");

    // It is still there when the page is opened again, also beside another job.
    let other = browser.job("Glasshouse").await?;
    browser.go(&server.url(&format!("/jobs/{other}/part"))).await?;
    browser.sees("ew round: dye shows more.").await?;
    browser.sees("its job").await?;
    browser.go(&server.url(&format!("/jobs/{job}/method"))).await?;

    for (key, typed) in
        [("heat.source", "oxy_acetylene_large"), ("prep.done", "holes,groove,inside,penetrant")]
    {
        browser.say(&job, json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" })).await?;
    }
    let in_tray = |words: &str, button: &str| {
        By::XPath(format!("//*[@data-testid='tray']//li[contains(., '{words}')]//button[.='{button}']"))
    };
    browser.click(&browser.find(in_tray("ew round", "Let it go")).await?).await?;
    eventually("it is let go", async || Ok(!browser.page().await?.contains("dye shows more"))).await?;
    browser.click(&browser.find(in_tray("ight up", "Say it again")).await?).await?;
    eventually("it is lit after all", async || {
        Ok(!browser.view(&job).await?["job"]["rounds"][0]["lit"].is_null())
    })
    .await?;
    eventually("the tray is empty", async || Ok(!browser.page().await?.contains("Not taken"))).await
}

/// Says whose the glasshouse bracket is after the server went away; gives the job.
async fn owner_said_to_nobody(server: &mut Server, browser: &Browser, owner: &str) -> anyhow::Result<String> {
    browser.at(server).await?;
    let job = browser.job("Glasshouse").await?;
    browser.go(&server.url(&format!("/jobs/{job}/part"))).await?;
    browser.unfold("What it is").await?;
    server.kill()?;
    browser.type_in("Whose is it?", owner).await?;
    browser.sees("1 waiting for the server").await?;
    Ok(job)
}

#[tokio::test]
async fn what_waits_for_one_shop_is_never_sent_to_another() -> anyhow::Result<()> {
    let mut server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    let job = owner_said_to_nobody(&mut server, &browser, "Walled garden trust, gate 2").await?;
    // Another shop's folder answers at this address.
    let ours = server.change_folder(tempfile::tempdir()?)?;
    browser.sees("1 of your entries wait in this browser").await?;
    let _theirs = server.change_folder(ours)?;
    eventually("its own shop has it", async || {
        Ok(browser.view(&job).await?["fields"]["part.owner"]["typed"] == "Walled garden trust, gate 2")
    })
    .await?;
    eventually("the notice goes", async || Ok(!browser.page().await?.contains("of your entries wait"))).await
}

#[tokio::test]
async fn what_waits_can_be_taken_back_before_anybody_heard_it() -> anyhow::Result<()> {
    let mut server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    let job = owner_said_to_nobody(&mut server, &browser, "Somebody else").await?;
    browser.press("Undo").await?;
    eventually("the field is as it was", async || {
        let typed = browser.field("Whose is it?").await?.prop("value").await?;
        Ok(typed.as_deref() == Some("Walled garden trust"))
    })
    .await?;
    server.start_again()?;
    saved(&browser, "saved").await?;
    let (_, history) = browser.fetch("GET", &format!("/api/jobs/{job}/history"), Value::Null).await?;
    assert!(!history.to_string().contains("Somebody else"), "nobody heard it");
    Ok(())
}

#[tokio::test]
async fn the_one_file_alone_is_the_whole_shop_after_a_stop() -> anyhow::Result<()> {
    let mut server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("Glasshouse").await?;
    browser
        .say(&job, json!({ "kind": "set", "key": "part.owner", "typed": "Gate 2", "shown_in": "metric" }))
        .await?;
    server.stop()?;
    let copy = tempfile::tempdir()?;
    std::fs::copy(server.folder().join("vanadin.sqlite"), copy.path().join("vanadin.sqlite"))?;
    server.start_again()?;
    let _before = server.change_folder(copy)?;
    browser.go(&server.url(&format!("/jobs/{job}/part"))).await?;
    browser.sees("Gate 2").await
}

#[tokio::test]
async fn a_key_is_not_the_page_s_while_a_list_or_a_sheet_has_it() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("Bell").await?;
    let page = server.url(&format!("/jobs/{job}/cracks"));
    browser.go(&page).await?;
    let list = browser.field("Ends found").await?;
    let id = list.attr("id").await?;
    browser.told("document.getElementById(arguments[0]).focus()", &json!([id])).await?;
    // On a list that is closed, on one that is open, and in a sheet.
    for key in ["n", "r", "4"] {
        browser.key(key).await?;
    }
    browser.click(&list).await?;
    browser.find(By::Css("[data-list]")).await?;
    for key in ["n", "r", "4"] {
        browser.key(key).await?;
    }
    browser.key("\u{e00c}").await?;
    browser.press("Job").await?;
    browser.find(By::Css("[role='dialog']")).await?;
    for key in ["n", "r", "4"] {
        browser.key(key).await?;
    }
    assert_eq!(browser.driver.current_url().await?.as_str(), page);
    browser.key("\u{e00c}").await?;
    eventually("the sheet is closed", async || {
        Ok(browser.driver.find(By::Css("[role='dialog']")).await.is_err())
    })
    .await?;
    browser.key("r").await?;
    browser.sees("Glasshouse").await
}

#[tokio::test]
async fn a_part_stays_hot_on_every_page_when_the_next_round_is_opened() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("Letterpress").await?;
    browser.say(&job, json!({ "kind": "new_round", "reason": "it ran on under the packing" })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    browser.sees("HOT").await?;
    browser.sees("Round 2 is not lit.").await?;
    let shown: f64 = browser.text("torch-now").await?.split(' ').next().context("no number")?.parse()?;
    assert!(shown > 60.0, "{shown}");
    for width in [1280, 390] {
        browser.resize(width, 800).await?;
        for station in ["part", "iron", "cracks", "method", "prep", "heat", "check", "hand-over"] {
            browser.walk_to(&format!("/jobs/{job}/{station}")).await?;
            let said = browser.text("hot-now").await?;
            assert!(
                said.starts_with("HOT, ") && said.contains("No bare hand"),
                "{station} at {width}: {said}"
            );
            if width == 1280 {
                browser.find(By::Css("[data-testid='line-now']")).await?;
            }
        }
        browser.press("Note").await?;
        let sheet = browser.find(By::Css("[role='dialog']")).await?.text().await?;
        assert!(sheet.contains("HOT, "), "a sheet lies over the page: {sheet}");
        browser.key("\u{e00c}").await?;
    }
    browser.resize(1280, 800).await?;
    browser.go(&server.url(&format!("/jobs/{job}/cracks"))).await?;
    assert!(!browser.text("keep-off").await?.is_empty(), "what not to do to it while it is hot");
    // Taken out of its packing it cools faster, and is no colder for that.
    browser.go(&server.url(&format!("/jobs/{job}/cooling"))).await?;
    browser.press("Unwrapped").await?;
    eventually("it is said", async || Ok(browser.view(&job).await?["standing"]["hot"]["unwrapped"] == true))
        .await?;
    browser.sees("HOT").await?;
    browser.go(&server.url("/")).await?;
    browser.sees("HOT").await
}

#[tokio::test]
async fn what_cannot_be_drawn_hides_nothing_else() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    // An answer that no server of ours gives.
    let torn = "const real = window.fetch;
        window.fetch = async (...asked) => {
          const url = asked[0] instanceof Request ? asked[0].url : String(asked[0]);
          if (!url.includes('/api/rack')) return real(...asked);
          return new Response(JSON.stringify({ lines: [{}], total: 1, damaged: [] }), { headers: { 'Content-Type': 'application/json' } });
        };";
    browser.before_every_page(torn).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("cannot be drawn").await?;
    browser.sees("Nothing that was said is lost").await?;
    browser.go(&server.url("/shop")).await?;
    browser.sees("In the shop").await
}

#[rstest]
#[case::on_a_small_phone(360, 640)]
#[case::on_a_phone(390, 844)]
#[case::on_a_laptop(1280, 800)]
#[tokio::test]
async fn what_stops_lies_under_nothing_with_the_tray_open_too(
    #[case] width: u32,
    #[case] height: u32,
) -> anyhow::Result<()> {
    const COVERED: &str = "return ['It must stop', 'It does not go well', 'Let it go'].filter((name) => {
        const named = [...document.querySelectorAll('button')].filter((e) => e.innerText.trim() === name);
        const shown = named.map((e) => [e, e.getBoundingClientRect()]).filter(([, box]) => box.width > 0);
        return !shown.some(([e, box]) => {
          const hit = document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2);
          return hit !== null && e.contains(hit);
        });
      })";
    let server = Server::start_bare()?;
    let browser = Browser::open_with_a_worker(width, height).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 1 })).await?;
    let read = json!({ "kind": "reading", "typed": "343 C", "shown_in": "metric" });
    browser.say(&job, json!({ "kind": "torch", "entry": read })).await?;
    // Of another job, and refused: it lies in the tray on every page.
    let other = Uuid::new_v4().to_string();
    browser.fetch("POST", "/api/jobs", json!({ "id": other })).await?;
    let fact = Uuid::new_v4();
    let wrong = json!({
        "job": other, "id": fact, "at_client_ms": 1_773_000_000_000_i64, "who": "bench", "base": null,
        "change": { "kind": "light", "speed": 60, "owned": "" }, "folder": null,
    });
    left_waiting(&browser, &format!("vanadin.waiting.1773000000000.{fact}"), &wrong.to_string()).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    browser.sees("Not taken").await?;
    browser.sees("Bead 1 of").await?;
    eventually("nothing that stops is covered", async || Ok(browser.run(COVERED).await? == json!([])))
        .await?;
    // Nor under a sheet: it has it at its head, and shuts for it.
    for opens in ["Reading", "Note", "More", "It ran on"] {
        browser.press(opens).await?;
        eventually("a sheet lies over it", async || {
            let there = "return document.querySelector('[role=dialog]') !== null";
            Ok(browser.run(there).await? == json!(true))
        })
        .await?;
        eventually("it can be stopped from there", async || {
            let hit = "const button = [...document.querySelectorAll('[role=dialog] button')]
                  .find((e) => e.innerText.trim() === 'It must stop');
                if (button === undefined) return false;
                const box = button.getBoundingClientRect();
                const hit = document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2);
                return hit !== null && button.contains(hit)";
            Ok(browser.run(hit).await? == json!(true))
        })
        .await
        .with_context(|| opens)?;
        browser.key("\u{e00c}").await?;
        eventually("it is shut again", async || {
            let gone = "return document.querySelector('[role=dialog]') === null";
            Ok(browser.run(gone).await? == json!(true))
        })
        .await?;
    }
    browser.press("Reading").await?;
    browser.sees("unless you say").await?;
    let from_the_sheet = By::XPath("//*[@role='dialog']//button[normalize-space()='It must stop']");
    browser.click(&browser.find(from_the_sheet).await?).await?;
    browser.sees("Machine off").await
}
