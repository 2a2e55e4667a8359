//! Prep on the bench: the list ticked, the groove read by the gauge, a break fitted and tacked, a face on paper.

use anyhow::ensure;
use serde_json::{Value, json};
use thirtyfour::By;
use vanadin_e2e::{Browser, Server, eventually};

const PLATE: &str = "Seed drill lever plate";

async fn open(server: &Server, browser: &Browser, station: &str) -> anyhow::Result<String> {
    browser.at(server).await?;
    let id = browser.job(PLATE).await?;
    browser.go(&server.url(&format!("/jobs/{id}/{station}"))).await?;
    Ok(id)
}

/// The middle of the first element of this kind, in pixels of the window.
async fn middle(browser: &Browser, css: &str) -> anyhow::Result<(f64, f64)> {
    let script = format!(
        "const element = document.querySelector(`{css}`)
         element.scrollIntoView({{ block: 'center' }})
         const box = element.getBoundingClientRect()
         return [box.left + box.width / 2, box.top + box.height / 2]"
    );
    let at = browser.run(&script).await?;
    Ok((at[0].as_f64().unwrap_or(f64::NAN), at[1].as_f64().unwrap_or(f64::NAN)))
}

async fn punched(browser: &Browser, id: &str) -> anyhow::Result<bool> {
    let view = browser.view(id).await?;
    let work = view["plan"]["prep"]["work"].as_array().cloned().unwrap_or_default();
    Ok(work.iter().any(|line| line["step"]["what"] == "punch" && line["done"] == true))
}

#[tokio::test]
async fn a_line_of_the_list_is_ticked_with_a_finger_and_taken_back() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(400, 860).await?;
    let id = open(&server, &browser, "prep").await?;
    browser.sees("In this order").await?;
    ensure!(!punched(&browser, &id).await?);
    let punch = "button[data-step=punch]";
    let at = middle(&browser, punch).await?;
    browser.pointer("touch", &[at]).await?;
    let ticked = format!("return document.querySelector(`{punch}`).getAttribute('aria-checked')");
    eventually("it shows as ticked", async || Ok(browser.run(&ticked).await? == "true")).await?;
    eventually("the server has it", async || punched(&browser, &id).await).await?;
    // A page opened anew shows it; pressed again it is open.
    browser.go(&server.url(&format!("/jobs/{id}/prep"))).await?;
    eventually("it is still ticked", async || Ok(browser.run(&ticked).await? == "true")).await?;
    let at = middle(&browser, punch).await?;
    browser.pointer("touch", &[at]).await?;
    eventually("it is open again", async || Ok(!punched(&browser, &id).await?)).await
}

#[tokio::test]
async fn a_depth_read_along_the_seam_says_when_to_stop() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let id = open(&server, &browser, "prep").await?;
    browser.sees("In this order").await?;
    // Where it is read is pressed on the seam: its section is shown, and the place stands in the form.
    let at = middle(&browser, "[data-seam-length]").await?;
    browser.pointer("mouse", &[at]).await?;
    let along = "return document.querySelector('[id^=read-depth][id$=-at]').value";
    eventually("the place stands in the form", async || {
        Ok(browser.run(along).await?.as_str().is_some_and(|text| text.ends_with(" mm")))
    })
    .await?;
    // What cannot be read is refused at its field, and what was typed is kept.
    browser.type_in("Reads deep", "deep").await?;
    browser.press("Write the depth down").await?;
    browser.sees("would do").await?;
    let typed = "return document.querySelector('[id^=read-depth][id$=-depth]').value";
    ensure!(browser.run(typed).await? == "deep", "what was typed is kept");
    browser.type_in("Reads deep", "40").await?;
    browser.press("Write the depth down").await?;
    browser.sees("Cut through").await?;
    let read = async || -> anyhow::Result<Vec<Value>> {
        let view = browser.view(&id).await?;
        Ok(view["plan"]["prep"]["seams"][0]["read"].as_array().cloned().unwrap_or_default())
    };
    ensure!(read().await?.iter().any(|it| it["says"] == "through"), "{:?}", read().await?);
    // The gauge had slipped: it is crossed out, and undone once more.
    let words = read().await?.iter().find(|it| it["says"] == "through").map(|it| it["words"].clone());
    browser.press(&format!("Cross out: {}", words.unwrap_or_default().as_str().unwrap_or_default())).await?;
    browser.press("misread").await?;
    eventually("it is gone", async || Ok(read().await?.iter().all(|it| it["says"] != "through"))).await?;
    browser.press("Undo").await?;
    eventually("it is there again", async || Ok(read().await?.iter().any(|it| it["says"] == "through"))).await
}

#[tokio::test]
async fn a_break_is_fitted_tacked_and_checked() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let id = open(&server, &browser, "prep").await?;
    browser.sees("The pieces of C").await?;
    // Under half a millimetre in 300 it says nothing; over it, it is said aloud.
    browser.type_in("Rocks", "0.5").await?;
    browser.type_in("Over a length of", "200").await?;
    browser.press("Write the rock down").await?;
    browser.sees("the casting holds locked-in stress").await?;
    // The second tack moves: how far is asked, and what to do is said.
    let second = browser.find(By::Css("[data-tack='2']")).await?;
    second.find(By::XPath(".//button[.='It moved']")).await?.click().await?;
    browser.type_in("By", "0.4").await?;
    browser.press("Write it down").await?;
    browser.sees("It moved at a tack: stop").await?;
    let tacks = async || -> anyhow::Result<Value> {
        Ok(browser.view(&id).await?["plan"]["bench"]["breaks"][0]["tacks"].clone())
    };
    ensure!(tacks().await?[1]["moved"] == true);
    let second = browser.find(By::Css("[data-tack='2']")).await?;
    second.find(By::XPath(".//button[.='In line']")).await?.click().await?;
    eventually("it is in line", async || {
        let tack = tacks().await?[1].clone();
        Ok(tack["moved"] == false && tack["checked"]["words"] == "in line")
    })
    .await
}

#[tokio::test]
async fn a_size_to_keep_is_read_before_the_torch_and_after_the_tacks_and_judged() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let id = open(&server, &browser, "prep").await?;
    browser.sees("To be as it was").await?;
    browser.type_in("After the tacks", "22.3").await?;
    browser.sees("out of its tolerance").await?;
    let size = async || anyhow::Ok(browser.view(&id).await?["plan"]["bench"]["features"][0].clone());
    ensure!(size().await?["within"] == false);
    ensure!(size().await?["readings"][1]["moved"] == "0.25 mm more", "{}", size().await?);
    // A size is no temperature.
    browser.type_in("After the tacks", "warm").await?;
    browser.sees("warm").await?;
    ensure!(size().await?["readings"][1]["mm"] == 22.3, "what stood stands");
    Ok(())
}

#[tokio::test]
async fn each_outline_is_drawn_as_it_is_measured() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.at(&server).await?;
    let id = browser.job("Glasshouse").await?;
    browser.go(&server.url(&format!("/jobs/{id}/cracks"))).await?;
    browser.press("Draw the face it is on").await?;
    let rims = async || -> anyhow::Result<Value> {
        Ok(browser.view(&id).await?["plan"]["map"]["faces"][0]["rims"].clone())
    };
    let wide = |rim: &Value| {
        let xs = rim.as_array().into_iter().flatten().filter_map(|at| at["x_mm"].as_f64());
        xs.fold(0.0_f64, f64::max)
    };
    browser.choose("Its outline", "Ring").await?;
    browser.type_in("Across", "120").await?;
    browser.type_in("Opening", "40").await?;
    browser.key("\u{e007}").await?;
    eventually("a ring has two rims", async || {
        let rims = rims().await?;
        Ok(rims.as_array().map_or(0, Vec::len) == 2 && (wide(&rims[0]) - 120.0).abs() < 0.1)
    })
    .await?;
    browser.choose("Its outline", "L").await?;
    for (label, typed) in [("Across", "120"), ("Down", "90"), ("Leg wide", "30"), ("Foot high", "25")] {
        browser.type_in(label, typed).await?;
        browser.key("\u{e007}").await?;
    }
    eventually("an L has six corners", async || Ok(rims().await?[0].as_array().map_or(0, Vec::len) == 6))
        .await?;
    browser.choose("Its outline", "A round, laid flat").await?;
    browser.type_in("Round of, across", "100").await?;
    browser.key("\u{e007}").await?;
    // Hand-worked: the way round 100 mm is 314.2 mm
    eventually("a round is laid flat", async || Ok((wide(&rims().await?[0]) - 314.16).abs() < 0.1)).await?;
    // It lies on paper at full size: more than one page is wide.
    browser.press("Done").await?;
    let face =
        browser.view(&id).await?["plan"]["map"]["faces"][0]["id"].as_str().unwrap_or_default().to_owned();
    browser.go(&server.url(&format!("/api/jobs/{id}/map/{face}/pages"))).await?;
    for paper in [(8.27, 11.69), (8.5, 11.0)] {
        let (pages, words) = browser.printed(paper).await?;
        ensure!(pages == 2, "{pages} pages");
        ensure!(words.contains("row 1 of 1, page 2 of 2"), "{words}");
    }
    Ok(())
}

#[tokio::test]
async fn a_hole_is_dragged_on_the_map_and_crossed_out() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let id = open(&server, &browser, "cracks").await?;
    eventually("the map is there", async || {
        let drawn = "return document.querySelectorAll('[data-layers] path').length > 4";
        Ok(browser.run(drawn).await? == json!(true))
    })
    .await?;
    let hole = async || -> anyhow::Result<Value> {
        let view = browser.view(&id).await?;
        let marks = view["plan"]["map"]["faces"][0]["marks"].as_array().cloned().unwrap_or_default();
        Ok(marks.into_iter().find(|mark| mark["name"] == "bolt hole 2").unwrap_or_default())
    };
    // Pressed, it is chosen; then it is taken along.
    let middle = browser.on_the_map(205.0, 140.0).await?;
    browser.pointer("mouse", &[middle]).await?;
    browser.find(By::Css("[data-point-form]")).await?;
    let (from, to) = (browser.on_the_map(205.0, 140.0).await?, browser.on_the_map(190.0, 120.0).await?);
    browser.pointer("mouse", &[from, ((from.0 + to.0) / 2.0, from.1), to]).await?;
    eventually("it lies there", async || {
        let shape = hole().await?["shape"].clone();
        let near = |key: &str, mm: f64| shape[key].as_f64().is_some_and(|at| (at - mm).abs() < 1.5);
        Ok(near("x_mm", 190.0) && near("y_mm", 120.0))
    })
    .await?;
    browser.press("Cross out bolt hole 2").await?;
    browser.press("wrong button").await?;
    eventually("it is gone", async || Ok(hole().await?.is_null())).await
}

#[tokio::test]
async fn a_patch_is_measured_pinned_all_round_and_led_at_the_torch() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let id = open(&server, &browser, "prep").await?;
    let set =
        |key: String, typed: &str| json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" });
    let view = browser.view(&id).await?;
    let face = view["plan"]["map"]["faces"][1]["id"].clone();
    browser.say(&id, json!({ "kind": "add_mark", "what": "missing_piece" })).await?;
    let view = browser.view(&id).await?;
    let marks = view["job"]["rounds"][0]["marks"].as_array().cloned().unwrap_or_default();
    let mark = marks.last().map_or(Value::Null, |mark| mark["id"].clone());
    let at = |x: f64, y: f64| json!({ "x_mm": x, "y_mm": y });
    let outline = json!({ "kind": "outline", "points": [at(90.0, 60.0), at(150.0, 60.0), at(150.0, 120.0), at(90.0, 120.0)] });
    let drawn = json!([{ "mark": mark, "face": face, "shape": outline }]);
    browser.say(&id, json!({ "kind": "draw", "drawn": drawn })).await?;
    let key = |field: &str| format!("mark.{}.{field}", mark.as_str().unwrap_or_default());
    for (field, typed) in [("thickness", "12 mm"), ("closed_by", "like_iron")] {
        browser.say(&id, set(key(field), typed)).await?;
    }
    browser.say(&id, set("method.choice".to_owned(), "stitch")).await?;
    browser.go(&server.url(&format!("/jobs/{id}/prep"))).await?;
    // A gap of forty is refused at its field, and what was typed stays there.
    browser.type_in("Widest gap round it", "40 mm").await?;
    browser.sees("0 to 20 mm").await?;
    browser.type_in("Widest gap round it", "0.8 mm").await?;
    browser.sees("A gap of 0.8 mm, 0.5 mm is the most").await?;
    browser.press("missing piece 2").await?;
    browser.find(By::Css("svg[aria-label='Pins round missing piece 2']")).await?;
    browser.sees("Plain pins: their thread pushes outwards").await?;
    // Hand-worked: 240 mm round, a wall of 12: pins of 8 mm, 240 / (8 x 2/3) = 45
    let circles = "return document.querySelectorAll(`svg[aria-label^='Pins round'] circle`).length";
    eventually("45 pins stand round it", async || Ok(browser.run(circles).await? == 45)).await?;
    // Nothing but the patch: the torch leads round it, quarter by quarter.
    let view = browser.view(&id).await?;
    for crack in view["plan"]["cracks"].as_array().cloned().unwrap_or_default() {
        let becomes = format!("crack.{}.becomes", crack["id"].as_str().unwrap_or_default());
        browser.say(&id, set(becomes, "leave")).await?;
    }
    browser.say(&id, json!({ "kind": "light", "speed": 60 })).await?;
    browser.go(&server.url(&format!("/jobs/{id}/torch"))).await?;
    browser.sees("Pin 1 of missing piece 2, the 1st of 45 to go in").await?;
    browser.press_test_id("torch-main").await?;
    browser.sees("Pin 12 of missing piece 2, the 2nd of 45 to go in").await
}

#[tokio::test]
async fn the_chip_of_the_first_hole_tells_the_iron_on_prep() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.at(&server).await?;
    let id = "00000000-0000-4000-8000-00000000c41b".to_owned();
    browser.fetch("POST", "/api/jobs", json!({ "id": id })).await?;
    let set =
        |key: &str, typed: &str| json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" });
    for (key, typed) in [("part.name", "Gate latch"), ("part.wall", "12"), ("part.mass", "4")] {
        browser.say(&id, set(key, typed)).await?;
    }
    browser.say(&id, json!({ "kind": "add_crack" })).await?;
    let crack = browser.view(&id).await?["job"]["rounds"][0]["cracks"][0]["id"]
        .as_str()
        .unwrap_or_default()
        .to_owned();
    for (field, typed) in
        [("length", "60"), ("found_by", "dye"), ("end_a", "tip"), ("end_b", "tip"), ("becomes", "repair")]
    {
        browser.say(&id, set(&format!("crack.{crack}.{field}"), typed)).await?;
    }
    browser.say(&id, set("method.choice", "arc_nickel_iron")).await?;
    browser.go(&server.url(&format!("/jobs/{id}/prep"))).await?;
    browser.press("Its chip tells the iron").await?;
    browser.press("Drill: powder and crumbs").await?;
    eventually("it counts at Iron", async || {
        let evidence = browser.view(&id).await?["job"]["evidence"].clone();
        Ok(evidence[0]["test"] == "drill" && evidence[0]["outcome"] == "powder_and_crumbs")
    })
    .await?;
    eventually("it is not offered again", async || {
        Ok(browser.run("return document.querySelector('[data-testid=\"tells.drill\"]') === null").await?
            == true)
    })
    .await
}
