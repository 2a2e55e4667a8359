//! How evenly a large map is panned and a point of it dragged, frames counted. `panning URL`

use anyhow::Context;
use serde_json::{Value, json};
use uuid::Uuid;
use vanadin_e2e::{Browser, eventually};

const CRACKS: usize = 300;
const POINTS: usize = 5_000;
/// Steps of the pointer.
const STEPS: usize = 360;

/// Counts frames from now on: how long from one to the next, and how long the page works at each.
const COUNT: &str = "
    const counted = (window.counted = { gaps: [], work: [], on: true })
    const channel = new MessageChannel()
    let last = null, began = 0
    channel.port1.onmessage = () => counted.work.push(performance.now() - began)
    const step = (now) => {
      if (last !== null) counted.gaps.push(now - last)
      last = now
      began = performance.now()
      channel.port2.postMessage(0)
      if (counted.on) requestAnimationFrame(step)
    }
    requestAnimationFrame(step)";

const COUNTED: &str = "
    const { gaps, work } = window.counted
    window.counted.on = false
    const at = (list, share) => list.toSorted((a, b) => a - b)[Math.floor(share * (list.length - 1))] ?? 0
    return [gaps.length, at(gaps, 0.95), Math.max(...gaps), at(work, 0.95)]";

#[tokio::main(flavor = "current_thread")]
async fn main() -> anyhow::Result<()> {
    let url = std::env::args().nth(1).context("panning URL")?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&url).await?;
    let job = Uuid::new_v4().to_string();
    browser.fetch("POST", "/api/jobs", json!({ "id": job })).await?;
    let crack = drawn(&browser, &job).await?;
    browser.go(&format!("{url}jobs/{job}/cracks")).await?;
    eventually("the map is drawn", async || {
        let drawn = "return document.querySelectorAll('[data-layers] path').length > 600";
        Ok(browser.run(drawn).await? == json!(true))
    })
    .await?;

    let swing = |at: usize, far: f64| (at as f64 / STEPS as f64 * 12.0 * std::f64::consts::PI).sin() * far;
    // In the iron between two cracks.
    let iron = browser.on_the_map(1_000.0, 4.0).await?;
    let panned = (0..STEPS).map(|at| (iron.0 + swing(at, 160.0), iron.1 + swing(at, 60.0).abs()));
    counted(&browser, "panning", &panned.collect::<Vec<_>>()).await?;

    let first = browser.on_the_map(crack.0, crack.1).await?;
    browser.pointer("mouse", &[first]).await?;
    let first = browser.on_the_map(crack.0, crack.1).await?;
    let dragged = (0..STEPS).map(|at| (first.0 + swing(at, 40.0), first.1 + swing(at, 25.0)));
    counted(&browser, "dragging a point", &dragged.collect::<Vec<_>>()).await
}

/// A face of 2 m with short cracks in rows; gives where the first of them begins.
async fn drawn(browser: &Browser, job: &str) -> anyhow::Result<(f64, f64)> {
    let said = async |change: Value| -> anyhow::Result<String> {
        let id = Uuid::new_v4().to_string();
        let fact = json!({ "id": id, "at_client_ms": 4_000_000_000_000_i64, "change": change });
        browser.fetch("POST", &format!("/api/jobs/{job}/facts"), fact).await?;
        Ok(id)
    };
    let face = said(json!({ "kind": "add_face" })).await?;
    for (field, typed) in [("outline", "rectangle"), ("across", "2000"), ("down", "1500")] {
        let key = format!("face.{face}.{field}");
        said(json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" })).await?;
    }
    let each = POINTS / CRACKS;
    let mut drawn = Vec::new();
    let begins = |at: usize| (20.0 + 98.0 * (at % 20) as f64, 20.0 + 97.0 * (at / 20) as f64);
    for at in 0..CRACKS {
        let crack = said(json!({ "kind": "add_crack" })).await?;
        let (x, y) = begins(at);
        let points: Vec<Value> = (0..each)
            .map(|point| json!({ "x_mm": x + 5.0 * point as f64, "y_mm": y + 6.0 * (point % 3) as f64 }))
            .collect();
        drawn.push(json!({ "mark": crack, "face": face, "shape": { "kind": "line", "points": points } }));
    }
    said(json!({ "kind": "draw", "drawn": drawn })).await?;
    Ok(begins(0))
}

async fn counted(browser: &Browser, what: &str, places: &[(f64, f64)]) -> anyhow::Result<()> {
    browser.run(COUNT).await?;
    browser.pointer("mouse", places).await?;
    let counted = browser.run(COUNTED).await?;
    let [frames, gap, longest, work] = [0, 1, 2, 3].map(|at| counted[at].as_f64().unwrap_or(f64::NAN));
    println!(
        "{what}, {CRACKS} cracks with {POINTS} points: {frames:.0} frames, 95 % of them within {gap:.1} ms of the one \
         before (longest {longest:.0} ms), the page at work {work:.1} ms at most in 95 % (aim 16)"
    );
    Ok(())
}
