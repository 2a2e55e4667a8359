//! A drawn face as it is heated: the flame put by finger and keys, where to begin, scrubbed through time.

use serde_json::{Value, json};
use uuid::Uuid;
use vanadin_e2e::{Browser, Server, eventually, set};

/// Says something with an id of its own, which it gives.
async fn say(browser: &Browser, job: &str, change: Value) -> anyhow::Result<String> {
    let id = Uuid::new_v4().to_string();
    let fact = json!({ "id": id, "at_client_ms": 4_000_000_000_000_i64, "change": change });
    let (status, answer) = browser.fetch("POST", &format!("/api/jobs/{job}/facts"), fact).await?;
    anyhow::ensure!(status == 200, "{answer}");
    Ok(id)
}

/// A frame with limbs of 50 mm and a crack half through the upper one, from inside.
async fn frame(browser: &Browser, server: &Server) -> anyhow::Result<String> {
    browser.at(server).await?;
    let job = Uuid::new_v4().to_string();
    browser.fetch("POST", "/api/jobs", json!({ "id": job })).await?;
    for (key, typed) in [
        ("part.name", "Sluice rack frame"),
        ("part.family", "machine_frame"),
        ("part.mass", "9.2 kg"),
        ("part.length", "400"),
        ("part.width", "300"),
        ("part.height", "20"),
        ("part.shape", "closed_frame"),
        ("part.wall", "20"),
        ("part.oil", "clean"),
        ("part.safety_class", "none"),
        ("method.choice", "arc_nickel_iron"),
        ("method.school", "warm"),
        ("heat.source", "oxy_acetylene_medium"),
    ] {
        say(browser, &job, set(key, typed)).await?;
    }
    let face = say(browser, &job, json!({ "kind": "add_face" })).await?;
    for (field, typed) in [("name", "front"), ("outline", "rectangle"), ("across", "400"), ("down", "300")] {
        say(browser, &job, set(&format!("face.{face}.{field}"), typed)).await?;
    }
    let window = say(browser, &job, json!({ "kind": "add_mark", "what": "opening" })).await?;
    let at = |x: f64, y: f64| json!({ "x_mm": x, "y_mm": y });
    let corners = [at(50.0, 50.0), at(350.0, 50.0), at(350.0, 250.0), at(50.0, 250.0)];
    let crack = say(browser, &job, json!({ "kind": "add_crack" })).await?;
    let drawn = json!({ "kind": "draw", "drawn": [
        { "mark": window, "face": face, "shape": { "kind": "outline", "points": corners } },
        { "mark": crack, "face": face, "shape": { "kind": "line", "points": [at(200.0, 50.0), at(200.0, 25.0)] } },
    ] });
    say(browser, &job, drawn).await?;
    say(browser, &job, set(&format!("crack.{crack}.found_by"), "dye")).await?;
    Ok(job)
}

#[tokio::test]
async fn the_flame_is_put_opposite_by_finger_and_back_by_the_keys() -> anyhow::Result<()> {
    let server = Server::start(false)?;
    let browser = Browser::open(1280, 800).await?;
    let job = frame(&browser, &server).await?;
    browser.go(&server.url(&format!("/jobs/{job}/heat"))).await?;
    browser.sees("Here it can begin").await?;
    browser.sees("Begin beside the break.").await?;
    assert_eq!(browser.serious_problems().await?, Vec::<String>::new());
    // On the lower limb: the crack opens, and it is told not to begin there.
    let press = "const box = document.querySelector('[aria-label^=\"Flame,\"]').parentElement.getBoundingClientRect();
        return [box.left + box.width / 2, box.top + box.height * 0.88]";
    let place = browser.run(press).await?;
    let (x, y) = (place[0].as_f64().unwrap_or_default(), place[1].as_f64().unwrap_or_default());
    browser.pointer("touch", &[(x, y)]).await?;
    browser.sees("Not here").await?;
    browser.sees("likely to run on after about").await?;
    // Scrubbed to its beginning it is cold again.
    browser.run("document.querySelector('section input[type=range]').focus()").await?;
    browser.key("\u{e011}").await?;
    eventually("it is seen as it begins", async || {
        Ok(browser.text("face-told").await?.contains("open, 0.1")
            || browser.text("face-told").await?.contains("shut"))
    })
    .await?;
    // Up by the keys, a step at a time, through the window and to the upper limb.
    browser.run("document.querySelector('[aria-label^=\"Flame,\"]').focus()").await?;
    for _ in 0..13 {
        browser.key("\u{e013}").await?;
    }
    browser.sees("Here it can begin").await
}

#[tokio::test]
async fn on_a_phone_in_inches_it_is_pressed_where_to_begin() -> anyhow::Result<()> {
    let server = Server::start(false)?;
    let phone = Browser::open(390, 844).await?;
    let job = frame(&phone, &server).await?;
    phone.go(&server.url(&format!("/jobs/{job}/heat"))).await?;
    phone.sees("Begin beside the break.").await?;
    phone.fetch("POST", "/api/units", json!({ "units": "imperial" })).await?;
    phone.go(&server.url(&format!("/jobs/{job}/heat"))).await?;
    phone.sees("°F at the flame").await?;
    phone.sees("Begin beside the break.").await?;
    let worst = "const places = document.querySelectorAll('[aria-label=\"Where to begin\"] button');
        places[places.length - 1].click(); return true";
    phone.run(worst).await?;
    phone.sees("Not here").await?;
    let best = "document.querySelector('[aria-label=\"Where to begin\"] button').click(); return true";
    phone.run(best).await?;
    phone.sees("Here it can begin").await?;
    phone.press("Begin here").await?;
    phone.sees("Here it begins.").await?;
    let page = phone.page().await?;
    assert!(!page.contains("°C"), "{page}");
    assert_eq!(phone.run("return document.documentElement.scrollWidth <= innerWidth").await?, json!(true));
    Ok(())
}

#[tokio::test]
async fn a_part_that_is_not_the_face_keeps_its_bar_and_says_why() -> anyhow::Result<()> {
    let server = Server::start(false)?;
    let browser = Browser::open(1280, 800).await?;
    let job = frame(&browser, &server).await?;
    say(&browser, &job, set("part.mass", "30 kg")).await?;
    browser.go(&server.url(&format!("/jobs/{job}/heat"))).await?;
    browser.sees("The face is not reckoned as a body").await?;
    browser.sees("After").await
}
