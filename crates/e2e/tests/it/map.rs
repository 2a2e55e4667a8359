//! The crack map in the browser: pointer, finger and keys.

use anyhow::ensure;
use serde_json::{Value, json};
use vanadin_e2e::{Browser, Server, eventually};

const PLATE: &str = "Seed drill lever plate";

/// Presses a place of the face.
async fn press(browser: &Browser, x_mm: f64, y_mm: f64) -> anyhow::Result<()> {
    let at = browser.on_the_map(x_mm, y_mm).await?;
    browser.pointer("mouse", &[at]).await
}

async fn drag(browser: &Browser, kind: &str, from: (f64, f64), to: (f64, f64)) -> anyhow::Result<()> {
    let (from, to) = (browser.on_the_map(from.0, from.1).await?, browser.on_the_map(to.0, to.1).await?);
    let middle = ((from.0 + to.0) / 2.0, (from.1 + to.1) / 2.0);
    browser.pointer(kind, &[from, middle, to]).await
}

/// The points of a crack by its letter, on the face of this name.
fn points(view: &Value, face: &str, letter: &str) -> Vec<(f64, f64)> {
    let faces = view["plan"]["map"]["faces"].as_array().cloned().unwrap_or_default();
    let face = faces.into_iter().find(|it| it["name"] == face).unwrap_or_default();
    let lines = face["lines"].as_array().cloned().unwrap_or_default();
    let line = lines.into_iter().find(|line| line["letter"] == letter && line["from_behind"] == false);
    let points = line.and_then(|line| line["points"].as_array().cloned()).unwrap_or_default();
    points.iter().filter_map(|at| Some((at["x_mm"].as_f64()?, at["y_mm"].as_f64()?))).collect()
}

async fn open(server: &Server, browser: &Browser) -> anyhow::Result<String> {
    browser.at(server).await?;
    let id = browser.job(PLATE).await?;
    browser.go(&server.url(&format!("/jobs/{id}/cracks"))).await?;
    eventually("the map is there", async || {
        let drawn = "return document.querySelectorAll('[data-layers] path').length > 4";
        Ok(browser.run(drawn).await? == json!(true))
    })
    .await?;
    Ok(id)
}

#[tokio::test]
async fn a_point_is_dragged_and_what_is_joined_comes_along() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let id = open(&server, &browser).await?;
    // The point where B leaves A is one point of both.
    press(&browser, 128.0, 128.0).await?;
    browser.sees("Crack B, point").await?;
    drag(&browser, "mouse", (150.0, 80.0), (152.0, 86.0)).await?;
    eventually("both are moved", async || {
        let view = browser.view(&id).await?;
        let near = |at: &(f64, f64)| (at.0 - 152.0).hypot(at.1 - 86.0) < 1.5;
        Ok(points(&view, "front", "A").iter().any(near)
            && points(&view, "front", "B").first().is_some_and(near))
    })
    .await?;
    let view = browser.view(&id).await?;
    let kinds: Vec<&str> = view["plan"]["cracks"][1]["ends"]
        .as_array()
        .into_iter()
        .flatten()
        .filter_map(|end| end["kind"].as_str())
        .collect();
    assert_eq!(kinds, ["branch", "tip"]);
    browser.press("Undo").await?;
    eventually("both are back", async || {
        let view = browser.view(&id).await?;
        Ok(points(&view, "front", "A").contains(&(150.0, 80.0)))
    })
    .await
}

#[tokio::test]
async fn a_crack_is_followed_in_the_picture_between_two_presses() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let id = open(&server, &browser).await?;
    browser.press("Crack").await?;
    browser.sees("Press one end of it.").await?;
    press(&browser, 246.0, 94.4).await?;
    press(&browser, 100.0, 68.0).await?;
    eventually("the line between is followed", async || {
        let bends = "return (document.querySelector('[data-layers] > path')?.getAttribute('d') ?? '').split('L').length";
        Ok(browser.run(bends).await?.as_u64() > Some(6))
    })
    .await?;
    browser.press("That is all of it").await?;
    eventually("it is a crack of its own", async || {
        let view = browser.view(&id).await?;
        Ok(points(&view, "front", "D").len() > 6)
    })
    .await?;
    // It wanders as the crack in the picture does, of which A was drawn.
    let view = browser.view(&id).await?;
    let a = points(&view, "front", "A");
    for (x, y) in points(&view, "front", "D") {
        let stretch = a.windows(2).find(|pair| (pair[1].0..=pair[0].0).contains(&x));
        let Some([from, to]) = stretch else { panic!("{x} lies beside A") };
        let there = from.1 + (to.1 - from.1) * (x - from.0) / (to.0 - from.0);
        assert!((y - there).abs() < 2.5, "at {x} it lies at {y}, the crack at {there}");
    }
    Ok(())
}

#[tokio::test]
async fn a_crack_is_drawn_moved_and_typed_by_the_keyboard_alone() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let id = open(&server, &browser).await?;
    browser.press("foot").await?;
    browser.press("Crack").await?;
    browser.run("document.querySelector('[data-map]').focus()").await?;
    const LEFT: &str = "\u{e012}";
    const RIGHT: &str = "\u{e014}";
    const DOWN: &str = "\u{e015}";
    const PAGE_DOWN: &str = "\u{e00f}";
    const ENTER: &str = "\u{e007}";
    // From the middle of what is seen ten to the left, then six down, and once more there.
    for key in [LEFT; 10].into_iter().chain([ENTER]).chain([DOWN; 6]).chain([ENTER, ENTER]) {
        browser.key(key).await?;
    }
    eventually("it is on the map", async || Ok(points(&browser.view(&id).await?, "foot", "D").len() == 2))
        .await?;
    let drawn = points(&browser.view(&id).await?, "foot", "D");
    assert!(((drawn[1].1 - drawn[0].1) - 6.0).abs() < 0.02, "{drawn:?}");
    // The last point of it, a millimetre to the right.
    browser.run("document.querySelector('[data-map]').focus()").await?;
    browser.key(PAGE_DOWN).await?;
    browser.sees("Crack D, point 2 of 2").await?;
    browser.key(RIGHT).await?;
    eventually("it is moved", async || {
        let moved = points(&browser.view(&id).await?, "foot", "D");
        Ok(moved.get(1).is_some_and(|at| (at.0 - drawn[1].0 - 1.0).abs() < 0.02))
    })
    .await?;
    // What cannot be is refused at its field, and stays there to be mended.
    browser.type_in("Wall here", "900").await?;
    browser.sees("would do").await?;
    browser.type_in("Wall here", "16").await?;
    eventually("the wall is known", async || {
        Ok(browser.view(&id).await?["plan"]["cracks"][3]["walls"][0]["wall_mm"].as_f64() == Some(16.0))
    })
    .await
}

/// A rule in inches has a mark each sixteenth.
const MARK_MM: f64 = 25.4 / 16.0;

#[tokio::test]
async fn a_map_is_drawn_by_keys_alone_in_inches() -> anyhow::Result<()> {
    const LEFT: &str = "\u{e012}";
    const RIGHT: &str = "\u{e014}";
    const PAGE_DOWN: &str = "\u{e00f}";
    const ENTER: &str = "\u{e007}";
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.at(&server).await?;
    browser.fetch("POST", "/api/units", json!({ "units": "imperial" })).await?;
    let id = open(&server, &browser).await?;
    browser.press("foot").await?;
    browser.run("document.querySelector('[data-testid=put-crack]').focus()").await?;
    browser.key(ENTER).await?;
    browser.sees("Press one end of it.").await?;
    // The keys are on the map by now, and it says where the cross is.
    for key in [LEFT; 3] {
        browser.key(key).await?;
    }
    eventually("the cross says where it is", async || {
        let place = browser.text("cross").await?;
        Ok(place.contains(" in from the left, ") && place.ends_with(" in from the top"))
    })
    .await?;
    for key in [ENTER].into_iter().chain([RIGHT; 8]).chain([ENTER, ENTER]) {
        browser.key(key).await?;
    }
    eventually("it is on the map", async || Ok(points(&browser.view(&id).await?, "foot", "D").len() == 2))
        .await?;
    let drawn = points(&browser.view(&id).await?, "foot", "D");
    assert!((drawn[1].0 - drawn[0].0 - 8.0 * MARK_MM).abs() < 0.02, "{drawn:?}");
    let on_a_mark = |mm: f64| (mm / MARK_MM - (mm / MARK_MM).round()).abs() < 0.02;
    assert!(drawn.iter().all(|(x, y)| on_a_mark(*x) && on_a_mark(*y)), "{drawn:?}");
    // Still there: a point is moved by one mark, and typed as a rule has it.
    browser.key(PAGE_DOWN).await?;
    browser.sees("Crack D, point 2 of 2").await?;
    browser.key(RIGHT).await?;
    eventually("it is moved by a mark", async || {
        let moved = points(&browser.view(&id).await?, "foot", "D");
        Ok(moved.get(1).is_some_and(|at| (at.0 - drawn[1].0 - MARK_MM).abs() < 0.02))
    })
    .await?;
    browser.type_in("From the left", "2 1/8").await?;
    eventually("it is where it was typed", async || {
        let moved = points(&browser.view(&id).await?, "foot", "D");
        Ok(moved.get(1).is_some_and(|at| (at.0 - 2.125 * 25.4).abs() < 0.02))
    })
    .await?;
    let field = browser.field("From the left").await?;
    assert_eq!(field.prop("value").await?.as_deref(), Some("2 1/8"), "as it was typed");
    browser.type_in("Wall here", "5/8").await?;
    browser.key(ENTER).await?;
    // From the last of its fields the keys are back on the map: a figure leads to no other station.
    eventually("the keys are on the map", async || {
        Ok(browser.run("return document.activeElement.dataset.map !== undefined").await? == json!(true))
    })
    .await?;
    browser.key("1").await?;
    browser.key("\u{e00e}").await?;
    browser.sees("Crack D, point 1 of 2").await?;
    let place = browser.run("return location.pathname").await?;
    ensure!(place.as_str().is_some_and(|path| path.ends_with("/cracks")), "{place}");
    Ok(())
}

#[tokio::test]
async fn a_finger_moves_the_sheet_and_two_come_nearer() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(390, 844).await?;
    let id = open(&server, &browser).await?;
    browser.run("document.querySelector('[data-map]').scrollIntoView({ block: 'center' })").await?;
    let seen = "const { scale, left, top } = document.querySelector('[data-map]').dataset; return [+scale, +left, +top]";
    let before = browser.run(seen).await?;
    drag(&browser, "touch", (200.0, 120.0), (150.0, 120.0)).await?;
    let after = browser.run(seen).await?;
    ensure!(before[0] == after[0] && before[1].as_f64() > after[1].as_f64(), "{before} {after}");
    let revision = browser.view(&id).await?["revision"].clone();
    // What is chosen is taken hold of by a finger beside it.
    let at = browser.on_the_map(128.0, 128.0).await?;
    browser.pointer("touch", &[at]).await?;
    browser.sees("Crack B, point").await?;
    browser.run("document.querySelector('[data-map]').scrollIntoView({ block: 'center' })").await?;
    drag(&browser, "touch", (128.0, 128.0), (120.0, 120.0)).await?;
    eventually("the tip is moved", async || Ok(browser.view(&id).await?["revision"] != revision)).await
}

#[tokio::test]
async fn a_crack_that_ran_on_opens_the_next_round_in_three_presses() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    let id = open(&server, &browser).await?;
    for (key, typed) in [
        ("part.cavity", "none"),
        ("part.machined", "nothing"),
        ("part.marks", "any"),
        ("part.coating", "bare"),
        ("heat.source", "kiln"),
        ("method.choice", "torch_braze"),
        ("prep.done", "holes,groove,inside,penetrant,paint"),
    ] {
        browser.say(&id, json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" })).await?;
    }
    browser.say(&id, json!({ "kind": "light", "speed": 1.0, "owned": "the test" })).await?;
    // At the torch, with a glove: what happened, which one, where its tip is now.
    browser.go(&server.url(&format!("/jobs/{id}/torch"))).await?;
    browser.press("It ran on").await?;
    browser.press("B ran on").await?;
    browser.sees("Press where its tip is now.").await?;
    press(&browser, 120.0, 150.0).await?;
    eventually("it is longer, in the next round", async || {
        let view = browser.view(&id).await?;
        let last = points(&view, "front", "B").last().copied().unwrap_or_default();
        Ok(view["job"]["rounds"].as_array().is_some_and(|rounds| rounds.len() == 2)
            && (last.0 - 120.0).hypot(last.1 - 150.0) < 1.5)
    })
    .await?;
    let view = browser.view(&id).await?;
    let faces = view["plan"]["map"]["faces"].as_array().cloned().unwrap_or_default();
    let lines = faces.iter().flat_map(|face| face["lines"].as_array().cloned().unwrap_or_default());
    let b = lines.into_iter().find(|line| line["letter"] == "B" && line["from_behind"] == false);
    let earlier = b.map(|line| line["earlier"].as_array().map_or(0, Vec::len));
    assert_eq!(earlier, Some(1), "the old line lies under it");
    Ok(())
}

#[tokio::test]
async fn a_face_is_as_large_as_the_part_whatever_units_that_was_typed_in() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    // It was typed as 240 and 60 while the shop spoke in millimetres.
    let id = browser.job("Glasshouse").await?;
    let imperial = json!({ "change": { "kind": "set", "key": "shop.units", "typed": "imperial", "shown_in": "metric" } });
    browser.fetch("POST", "/api/shop", imperial).await?;
    browser.go(&server.url(&format!("/jobs/{id}/cracks"))).await?;
    browser.press("Draw the face it is on").await?;
    eventually("it has the part's size", async || {
        let view = browser.view(&id).await?;
        let corner = &view["plan"]["map"]["faces"][0]["rims"][0][2];
        let near = |mm: &Value, of: f64| mm.as_f64().is_some_and(|mm| (mm - of).abs() < 1.0);
        Ok(near(&corner["x_mm"], 240.0) && near(&corner["y_mm"], 60.0))
    })
    .await
}
