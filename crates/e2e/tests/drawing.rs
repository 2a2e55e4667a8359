//! What the drawings promise: nothing overlaps, everything can be hit with a glove, one plate a screen.

use rstest::rstest;
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, Server};

const STATIONS: [&str; 10] =
    ["part", "iron", "cracks", "method", "prep", "heat", "torch", "cooling", "check", "hand-over"];
const JOBS: [&str; 5] = ["Letterpress", "Malt", "Bell", "Biscuit", "Incline"];

/// Names of stations on the heat line that lie over each other.
const OVERLAPS: &str = "const words = [...document.querySelectorAll('nav[aria-label=Stations] a span')];
    const boxes = words.map((word) => [word.textContent, word.getBoundingClientRect()]);
    return boxes.flatMap(([name, a], at) => boxes.slice(at + 1)
      .filter(([, b]) => a.left < b.right - 0.5 && b.left < a.right - 0.5)
      .map(([other]) => name + ' and ' + other));";

/// Buttons, links and fields that are too small to hit.
const TOO_SMALL: &str = "const things = [...document.querySelectorAll('button, a, input, [role=radio]')];
    return things.filter((thing) => {
        const box = thing.getBoundingClientRect();
        const hidden = box.width < 2 || getComputedStyle(thing).visibility === 'hidden';
        // The figures' dotted line is small type; the words beside them are not pressed.
        return !hidden && !thing.matches('[data-why], .sr-only, .underline') && box.height < 43.5
          && thing.closest('[data-why]') === null && !thing.matches('[aria-expanded]');
      }).map((thing) => (thing.getAttribute('aria-label') ?? thing.textContent) + ' ' + thing.getBoundingClientRect().height);";

/// Words of drawings that leave their drawing.
const CUT_OFF: &str = "return [...document.querySelectorAll('main svg text')].filter((text) => {
      const [a, b] = [text.getBoundingClientRect(), text.ownerSVGElement.getBoundingClientRect()];
      return a.width > 0 && (a.left < b.left - 1 || a.right > b.right + 1);
    }).map((text) => text.textContent);";

async fn found(browser: &Browser, script: &str) -> anyhow::Result<Vec<String>> {
    Ok(browser.driver.execute(script, vec![]).await?.convert()?)
}

#[rstest]
#[case::metric_on_a_laptop("metric", 1280)]
#[case::imperial_on_a_wide_screen("imperial", 1480)]
#[case::metric_on_a_small_laptop("metric", 1100)]
#[tokio::test]
async fn names_on_the_line_keep_apart_and_nothing_is_cut_off(
    #[case] units: &str,
    #[case] width: u32,
) -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(width, 800).await?;
    browser.go(&server.url("/")).await?;
    let change = serde_json::json!({ "key": "shop.units", "typed": units, "shown_in": "metric" });
    browser.fetch("POST", "/api/shop", change).await?;
    let mut wrong = Vec::new();
    for words in JOBS {
        let job = browser.job(words).await?;
        for station in STATIONS {
            browser.go(&server.url(&format!("/jobs/{job}/{station}"))).await?;
            browser.find(By::Css("main")).await?;
            for (what, script) in [("over each other", OVERLAPS), ("cut off", CUT_OFF)] {
                let found = found(&browser, script).await?;
                wrong.extend(found.into_iter().map(|it| format!("{words}, {station}: {it} {what}")));
            }
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    Ok(())
}

#[rstest]
#[case::on_a_laptop(1280, 800)]
#[case::on_a_phone(390, 844)]
#[tokio::test]
async fn everything_can_be_hit_with_a_glove_and_there_is_one_plate(
    #[case] width: u32,
    #[case] height: u32,
) -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(width, height).await?;
    browser.go(&server.url("/")).await?;
    let mut wrong = Vec::new();
    let mut pages = vec!["/".to_owned(), "/shop".to_owned()];
    for words in ["Letterpress", "Malt", "Bell", "winch"] {
        let job = browser.job(words).await?;
        pages.extend(STATIONS.map(|station| format!("/jobs/{job}/{station}")));
    }
    for page in pages {
        browser.go(&server.url(&page)).await?;
        browser.find(By::Css("main")).await?;
        let small = found(&browser, TOO_SMALL).await?;
        wrong.extend(small.into_iter().map(|it| format!("{page}: {it} px high")));
        let plates = browser.driver.find_all(By::Css(".plate")).await?.len();
        if plates > 1 {
            wrong.push(format!("{page}: {plates} plates"));
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    Ok(())
}
