//! What the drawings promise: no word lies on another, or leaves its drawing.

use anyhow::Context;
use rstest::rstest;
use serde_json::Value;
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, Server, eventually};

/// Words of a drawing that lie on each other or leave it: of the heat lines and of every drawing.
/// The ink of a word, not its line: a fifth off above and below.
const WORDS: &str = "const lines = [...document.querySelectorAll('nav[aria-label=Stations]')].map((nav) => nav.parentElement);
    const frames = [...lines, ...document.querySelectorAll('[data-testid=rack-line], main svg')];
    const wrong = [];
    for (const frame of frames) {
      const edge = frame.getBoundingClientRect();
      if (edge.width === 0) continue;
      const words = [];
      const walk = document.createTreeWalker(frame, NodeFilter.SHOW_TEXT);
      for (let node; (node = walk.nextNode()) !== null;) {
        const parent = node.parentElement;
        if (node.data.trim() === '' || parent.closest('.sr-only, title, style') !== null) continue;
        if (getComputedStyle(parent).visibility === 'hidden') continue;
        const range = document.createRange();
        range.selectNodeContents(node);
        for (const rect of range.getClientRects()) {
          const thin = rect.height * 0.2;
          const box = { node, word: node.data.trim(), l: rect.left + 1, r: rect.right - 1, t: rect.top + thin, b: rect.bottom - thin };
          // What is cut short on purpose, with dots, ends where it is cut.
          for (let up = parent; up !== frame; up = up.parentElement) {
            if (getComputedStyle(up).textOverflow === 'ellipsis') box.r = Math.min(box.r, up.getBoundingClientRect().right);
          }
          if (box.r > box.l) words.push(box);
        }
      }
      for (const [at, a] of words.entries()) {
        if (a.l < edge.left - 1 || a.r > edge.right + 1 || a.t < edge.top - 1 || a.b > edge.bottom + 1) {
          wrong.push(a.word + ' leaves its drawing');
        }
        for (const b of words.slice(at + 1)) {
          if (a.node !== b.node && a.l < b.r && b.l < a.r && a.t < b.b && b.t < a.b) wrong.push(a.word + ' lies on ' + b.word);
        }
      }
    }
    return wrong;";

async fn found(browser: &Browser, script: &str) -> anyhow::Result<Vec<String>> {
    Ok(serde_json::from_value(browser.run(script).await?)?)
}

/// Laptop, small laptop, tablet, phone, a wide screen.
const WIDTHS: [u32; 8] = [1280, 1100, 1024, 768, 390, 360, 1440, 1600];

/// Where a drawing is: every heat line, the heat and the cooling chart, the map.
const DRAWN: [(&str, &str); 8] = [
    ("Letterpress", "cooling"),
    ("Letterpress", "torch"),
    ("Malt", "heat"),
    ("Bell", "heat"),
    ("Bell", "cracks"),
    ("Biscuit", "cooling"),
    ("Incline", "hand-over"),
    ("winch", "part"),
];

/// A setting of the shop.
async fn set(browser: &Browser, key: &str, typed: &str) -> anyhow::Result<()> {
    let change =
        serde_json::json!({ "change": { "kind": "set", "key": key, "typed": typed, "shown_in": "metric" } });
    let (status, said) = browser.fetch("POST", "/api/shop", change).await?;
    anyhow::ensure!(status == 200, "{key}: {said}");
    Ok(())
}

/// What the words do once the drawing has taken its new width.
async fn words_in_the_way(browser: &Browser) -> anyhow::Result<Vec<String>> {
    let mut last = Vec::new();
    for _ in 0..20 {
        browser.drawn().await?;
        last = found(browser, WORDS).await?;
        if last.is_empty() {
            break;
        }
    }
    Ok(last)
}

#[rstest]
#[case::in_the_morning("2026-03-09T07:40", "Europe/London", "metric", &DRAWN)]
#[case::at_the_widest_hour_imperial("2026-10-25T00:59", "Europe/London", "imperial", &DRAWN)]
// Another day is seen where a clock stands: twenty minutes before midnight, there.
#[case::before_midnight("2026-03-09T07:40", "Pacific/Pitcairn", "metric", &DRAWN[..2])]
#[case::over_the_change_to_summer_time("2026-03-29T00:30", "Europe/London", "imperial", &DRAWN[..2])]
#[case::on_the_last_day_of_a_year("2026-12-31T22:50", "Europe/London", "metric", &DRAWN[..2])]
#[tokio::test]
async fn no_word_leaves_its_drawing_or_lies_on_another(
    #[case] now: &str,
    #[case] zone: &str,
    #[case] units: &str,
    #[case] drawn: &[(&str, &str)],
) -> anyhow::Result<()> {
    let server = Server::start_at(now)?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    for (key, typed) in [("shop.units", units), ("shop.time_zone", zone)] {
        set(&browser, key, typed).await?;
    }
    if units == "imperial" {
        // Hot, and a further round is open: two words more on its line.
        let hot = browser.job("Letterpress").await?;
        browser.say(&hot, serde_json::json!({ "kind": "new_round", "reason": "it ran on" })).await?;
    }
    let mut pages = vec!["/".to_owned()];
    for (words, station) in drawn {
        pages.push(format!("/jobs/{}/{station}", browser.job(words).await?));
    }
    let mut wrong = Vec::new();
    for page in pages {
        browser.walk_to(&page).await?;
        browser.find(By::Css("main")).await?;
        for width in WIDTHS {
            browser.resize(width, 800).await?;
            let found = words_in_the_way(&browser).await?;
            wrong.extend(found.into_iter().map(|it| format!("{page} at {width}: {it}")));
        }
        browser.resize(1280, 800).await?;
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    Ok(())
}

/// The hour of the first time of day that a drawing shows.
const FIRST_HOUR: &str =
    "const words = [...document.querySelectorAll('main svg text')].map((e) => e.textContent);
    return words.map((it) => /(\\d\\d):\\d\\d/.exec(it)?.[1]).find((it) => it !== undefined) ?? null";

/// The clock times on the line and under the chart are other words at each hour: of one moment by the zone of the shop.
#[tokio::test]
async fn no_word_is_in_the_way_at_any_hour_of_a_day() -> anyhow::Result<()> {
    let browser = Browser::open(1100, 800).await?;
    let full = Server::start(true)?;
    browser.at(&full).await?;
    let hot = browser.job("Letterpress").await?;
    let (_, file) = browser.fetch("GET", &format!("/api/jobs/{hot}/export"), Value::Null).await?;
    drop(full);
    // Alone in its shop: each zone makes the plans of all that are there anew.
    let server = Server::start_bare()?;
    browser.at(&server).await?;
    let (_, opened) = browser.fetch("POST", "/api/import", file).await?;
    let job = opened["id"].as_str().context("it was not opened")?.to_owned();
    let mut wrong = Vec::new();
    let mut hours = std::collections::BTreeSet::new();
    browser.go(&server.url(&format!("/jobs/{job}/cooling"))).await?;
    browser.find(By::Css("main svg")).await?;
    for west in -11..=12 {
        let zone = format!("Etc/GMT{west:+}");
        let before = browser.run(FIRST_HOUR).await?;
        set(&browser, "shop.time_zone", &zone).await?;
        eventually(&format!("the hours of {zone}"), async || {
            let now = browser.run(FIRST_HOUR).await?;
            Ok(!now.is_null() && now != before)
        })
        .await?;
        let script = format!(
            "return new Intl.DateTimeFormat('en-GB', {{ timeZone: '{zone}', hour: 'numeric' }}).format({})",
            1_773_040_800_000_i64
        );
        hours.insert(browser.run(&script).await?.to_string());
        for width in [1100, 360] {
            browser.resize(width, 800).await?;
            let found = words_in_the_way(&browser).await?;
            wrong.extend(found.into_iter().map(|it| format!("{zone} at {width}: {it}")));
        }
    }
    assert_eq!(hours.len(), 24, "every hour of a day");
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    Ok(())
}
