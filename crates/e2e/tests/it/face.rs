//! A drawn face as it is heated: the flame put by finger and keys, where to begin, scrubbed through time.

use anyhow::Context;
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
    phone.sees("°F, joint ").await?;
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

#[tokio::test]
async fn the_flame_is_swept_along_a_line_by_keys_and_lit_it_is_seen_by_its_log() -> anyhow::Result<()> {
    let server = Server::start(false)?;
    let browser = Browser::open(1280, 800).await?;
    let job = frame(&browser, &server).await?;
    browser.go(&server.url(&format!("/jobs/{job}/heat"))).await?;
    browser.sees("Here it can begin").await?;
    browser.press("Swept along a line").await?;
    browser.run("document.querySelector('[aria-label^=\"Flame,\"]').focus()").await?;
    // Enter puts a further place, the arrows take it along.
    browser.key("\u{e007}").await?;
    for _ in 0..5 {
        browser.key("\u{e014}").await?;
    }
    browser.sees("swept along there").await?;
    let page = browser.page().await?;
    assert!(!page.contains("Begin here"), "a line is tried, and not said");
    browser.press("Held in one place").await?;
    browser.sees(", held here.").await?;
    // Lit: what was said and read is shown, and what would be is a press away.
    let light =
        json!({ "kind": "light", "speed": 60, "frozen": null, "owned": "", "what": "main", "without": [] });
    for (key, typed) in [
        ("part.family", "machine_frame"),
        ("part.era", "before_1949"),
        ("part.sides", "both"),
        ("part.service_temperature", "20 C"),
        ("part.fluid_tight", "no"),
        ("part.old_filler", "none"),
        ("part.life_wanted", "10 years"),
        ("part.cavity", "none"),
    ] {
        browser.say(&job, set(key, typed)).await?;
    }
    let view = browser.view(&job).await?;
    let crack = view["plan"]["cracks"][0]["id"].as_str().unwrap_or_default().to_owned();
    for (field, typed) in [("end_b", "tip"), ("wall", "20"), ("edge", "clean")] {
        browser.say(&job, set(&format!("crack.{crack}.{field}"), typed)).await?;
    }
    for spot in ["rim", "foot"] {
        let mark = json!({ "kind": "observe", "test": "mark", "outcome": "gray", "confidence": "sure", "spot": spot });
        browser.say(&job, mark).await?;
    }
    // Once everything is known of it: what was found later was not done.
    browser.say(&job, set("prep.done", "holes,groove,inside,penetrant,paint")).await?;
    browser.say(&job, light).await?;
    browser.go(&server.url(&format!("/jobs/{job}/heat"))).await?;
    browser.sees("By the log each tip stayed under").await?;
    browser.sees("by the log its coldest place is reckoned at").await?;
    assert_eq!(browser.serious_problems().await?, Vec::<String>::new());
    browser.press("As it would go from cold").await?;
    browser.sees("Begin beside the break.").await?;
    // On its way down from there; it is asked for once it is opened.
    browser.go(&server.url(&format!("/jobs/{job}/cooling"))).await?;
    browser.unfold("The face as it cools").await?;
    browser.sees("Covered as it is by its log").await?;
    browser.sees("When it is covered").await?;
    assert_eq!(browser.serious_problems().await?, Vec::<String>::new());
    Ok(())
}

#[tokio::test]
async fn a_load_at_a_hole_and_a_distance_that_is_kept_are_told_by_the_face() -> anyhow::Result<()> {
    let server = Server::start(false)?;
    let browser = Browser::open(1280, 800).await?;
    let job = frame(&browser, &server).await?;
    let view = browser.view(&job).await?;
    let face = view["plan"]["map"]["faces"][0]["id"].clone();
    for x in [120.0, 280.0] {
        let hole = say(&browser, &job, json!({ "kind": "add_mark", "what": "bolt_hole" })).await?;
        let circle = json!({ "kind": "circle", "x_mm": x, "y_mm": 25.0, "radius_mm": 6.0 });
        say(
            &browser,
            &job,
            json!({ "kind": "draw", "drawn": [{ "mark": hole, "face": face, "shape": circle }] }),
        )
        .await?;
    }
    browser.go(&server.url(&format!("/jobs/{job}/method"))).await?;
    browser.unfold("What it carries, as drawn").await?;
    browser.type_in("Hung or pulled there", "200 kg").await?;
    browser.sees("Say at which hole it hangs").await?;
    browser.press("bolt hole 2").await?;
    browser.sees("Say at which hole it is held").await?;
    browser.press("bolt hole 1").await?;
    browser.pick("As drawn it pulls", "to the right").await?;
    browser.sees("Crack A: whole it breaks under about").await?;
    browser.sees("By what it carries mending alone leaves half or more").await?;
    browser.sees("somebody who answers for it").await?;
    // A fall is asked what it falls on.
    browser.type_in("Or falls from", "20 mm").await?;
    browser.sees("Say by how much the part gives").await?;
    browser.type_in("And the part gives under its weight", "10 mm").await?;
    browser.sees("200 kg, falling 20 mm on what gives 10 mm").await?;
    // What has to be kept is said on Prep, and foreseen at once.
    let size = say(&browser, &job, json!({ "kind": "add_mark", "what": "feature" })).await?;
    say(&browser, &job, set(&format!("mark.{size}.kind"), "distance")).await?;
    browser.go(&server.url(&format!("/jobs/{job}/prep"))).await?;
    browser.sees("once it is said which two holes").await?;
    browser.press("bolt hole 1 and bolt hole 2").await?;
    browser.sees("By the seams").await
}

#[tokio::test]
async fn the_order_in_which_seams_pull_least_is_one_press_and_leads_the_beads() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("Seed drill").await?;
    let ahead = async || {
        let view = browser.view(&job).await?;
        let beads = view["plan"]["torch"]["beads"].clone();
        let of = |crack: &Value| {
            let strips = beads["seams"].as_array().into_iter().flatten();
            let mut strips = strips.filter(|strip| strip["crack"] == *crack);
            strips.find_map(|strip| strip["letter"].as_str()).unwrap_or_default().to_owned()
        };
        let beads = beads["ahead"].as_array().context("no beads")?;
        let mut letters: Vec<String> = beads.iter().map(|bead| of(&bead["at"]["crack"])).collect();
        letters.dedup();
        anyhow::Ok(letters.join(", "))
    };
    let beside = ahead().await?;
    browser.go(&server.url(&format!("/jobs/{job}/method"))).await?;
    browser.press("Fill B, then A").await?;
    browser.sees("Filled B, then A, as said, no seam pulls more than about").await?;
    assert!(ahead().await?.starts_with("B, A"), "{}", ahead().await?);
    // Where it is ground it stands too, and what is not there is refused where it is typed.
    browser.walk_to(&format!("/jobs/{job}/prep")).await?;
    browser.type_in("Seams one after the other", "B, X").await?;
    browser.sees("there is no crack X").await?;
    browser.walk_to(&format!("/jobs/{job}/method")).await?;
    browser.press("Fill them side by side").await?;
    browser.sees("Fill B, then A: so no seam pulls more than about").await?;
    assert_eq!(ahead().await?, beside);
    Ok(())
}
