//! Moving never answers, and what cannot be is asked back: by key, at the plate, on the page of a hot part.

use anyhow::Context;
use serde_json::{Value, json};
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, ENTER, Server, eventually, ready_lug};

/// What was said of a job, in the order it was said: the kind of each change, and the key of what was set.
async fn said(browser: &Browser, job: &str) -> anyhow::Result<Vec<String>> {
    let (_, history) = browser.fetch("GET", &format!("/api/jobs/{job}/history"), Value::Null).await?;
    let facts = history["facts"].as_array().context("no facts")?;
    let of = |fact: &Value| {
        let change = &fact["change"];
        let word = |name: &str| change[name].as_str().unwrap_or_default().to_owned();
        if word("kind") == "set" { word("key") } else { word("kind") }
    };
    Ok(facts.iter().map(of).collect())
}

#[tokio::test]
async fn an_enter_that_leads_to_a_question_answers_none() -> anyhow::Result<()> {
    let server = Server::start_bare()?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("The rack is empty").await?;
    browser.key("n").await?;
    browser.sees("Next: what it is.").await?;
    browser.find(By::Css("input:focus")).await?;
    browser.key("Cistern lid").await?;
    for _ in 0..12 {
        browser.key(ENTER).await?;
    }
    browser.sees("What sort of part?").await?;
    let address = browser.driver.current_url().await?;
    let job =
        address.path_segments().and_then(|mut parts| parts.nth(1).map(str::to_owned)).context("no job")?;
    eventually("the name is kept", async || Ok(said(&browser, &job).await?.len() == 1)).await?;
    // Held down it is one press as well, wherever it leads.
    browser.hold_enter(20).await?;
    browser.drawn().await?;
    assert_eq!(said(&browser, &job).await?, ["part.name"]);
    // The keys stand before the question: the first Tab is on its first answer, and the space bar says that.
    eventually("the keys stand before a question", async || {
        Ok(browser.run("return document.activeElement?.matches('[data-question]') ?? false").await? == true)
    })
    .await?;
    browser.key("\u{e004}").await?;
    browser.key(" ").await?;
    eventually("it is answered by a press on the answer", async || Ok(said(&browser, &job).await?.len() == 2))
        .await
}

#[tokio::test]
async fn a_mistyped_cold_reading_leaves_the_part_hot_until_it_is_said_again() -> anyhow::Result<()> {
    let server = Server::start_bare()?;
    let browser = Browser::open(390, 844).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 1 })).await?;
    let read = json!({ "kind": "reading", "typed": "343 C", "shown_in": "metric" });
    for entry in [read, json!({ "kind": "covered", "why": "it is only warmed" })] {
        browser.say(&job, json!({ "kind": "torch", "entry": entry })).await?;
    }
    browser.go(&server.url(&format!("/jobs/{job}/cooling"))).await?;
    browser.sees("HOT").await?;
    browser.press("Log a reading").await?;
    browser.find(By::Css("[role='dialog'] input")).await?.send_keys("21 C").await?;
    browser.press("Log it").await?;
    browser.sees("It cannot have cooled so far by then").await?;
    let view = browser.view(&job).await?;
    assert_eq!(view["standing"]["hot"]["celsius"], 343.0, "{}", view["standing"]);
    assert!(browser.page().await?.contains("HOT, 343"), "it says so");
    browser.press("Read again: it is so").await?;
    eventually("what is said twice is believed", async || {
        Ok(browser.view(&job).await?["standing"]["hot"].is_null())
    })
    .await
}

/// What has the keys when one is pressed, and what the page then says to the server: both in the order it happened.
const WATCH: &str = r#"
window.__walk = [];
window.print = () => undefined;
addEventListener('pointerdown', (event) => {
  // The second of two fast presses is meant for what the first one was.
  if (!window.__first) held(event.target.closest('button, a, label, input, [role]'));
  window.__first = true;
}, true);
addEventListener('keydown', () => held(document.activeElement), true);
function held(at) {
  const list = at?.closest('[data-of]')?.dataset.of;
  window.__at = { field: list ?? at?.closest('[id^=field-]')?.id ?? '', answers: at?.matches('button, input, textarea, [role]') ?? false,
    words: (at?.getAttribute('aria-label') ?? at?.innerText ?? '').slice(0, 60) };
}
// What is said is kept here before it is sent, however long that waits for what was said before.
const keptAt = {};
const keep = Storage.prototype.setItem;
Storage.prototype.setItem = function (key, text) {
  for (const [, id] of text.matchAll(/"id":"([0-9a-f-]{36})"/g)) keptAt[id] ??= window.__at;
  return keep.call(this, key, text);
};
const plain = window.fetch;
window.fetch = (asked, ...more) => {
  const request = asked instanceof Request ? asked : new Request(asked, ...more);
  if (request.method === 'POST' && request.url.endsWith('/facts')) {
    const now = window.__at;
    void request.clone().json().then(({ id, change }) => window.__walk.push({ change, at: keptAt[id] ?? now }));
  }
  return plain(asked, ...more);
};"#;

/// Something was set that is not of what was pressed. A press that draws a face, or chooses its picture, sets what its
/// own words say.
fn of_another_field(said: &Value) -> bool {
    let (change, at) = (&said["change"], &said["at"]);
    let key = change["key"].as_str().unwrap_or_default();
    let field = at["field"].as_str().unwrap_or_default();
    let by_its_words = key.starts_with("face.") || key == "part.face";
    change["kind"] == "set" && !by_its_words && !field.contains(&key.replace('.', "-"))
}

/// A press of one of three keys: as often as a hand at the bench would, and always the same.
struct Chance(u64);

impl Chance {
    fn next(&mut self) -> u64 {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        self.0 >> 33
    }

    fn key(&mut self) -> &'static str {
        match self.next() % 10 {
            0..=4 => "\u{e004}",
            5..=7 => ENTER,
            _ => " ",
        }
    }
}

#[tokio::test]
async fn whatever_keys_are_pressed_nothing_is_said_but_by_what_had_them() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.before_every_page(WATCH).await?;
    browser.at(&server).await?;
    let job = browser.job("Malt").await?;
    let mut chance = Chance(27);
    let mut said = Vec::new();
    for station in
        ["part", "iron", "cracks", "method", "prep", "heat", "torch", "cooling", "check", "hand-over"]
    {
        browser.go(&server.url(&format!("/jobs/{job}/{station}"))).await?;
        browser.find(By::Css("main h2, main button, main input")).await?;
        for _ in 0..30 {
            browser.key(chance.key()).await?;
            // What was said by it has been said before the next one comes.
            browser.drawn().await?;
        }
        let walked = browser.run("return window.__walk").await?;
        said.extend(walked.as_array().into_iter().flatten().cloned());
    }
    let wrong: Vec<String> = said
        .iter()
        .filter(|said| said["at"]["answers"] != json!(true) || of_another_field(said))
        .map(ToString::to_string)
        .collect();
    assert!(said.len() > 3, "{} words in three hundred presses", said.len());
    assert!(wrong.is_empty(), "{} of {}:\n{}", wrong.len(), said.len(), wrong.join("\n"));
    Ok(())
}

/// Where a button or a link of the page lies that a thumb can reach: one of them all, in pixels.
const REACHED: &str = r"
window.__first = false;
const all = [...document.querySelectorAll('button, a, label')].map((it) => [it, it.getBoundingClientRect()])
  .filter(([it, box]) => {
    const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
    return box.width > 20 && x > 0 && x < innerWidth && y > 0 && y < innerHeight && it.contains(document.elementFromPoint(x, y));
  });
if (all.length === 0) return null;
const [, box] = all[arguments[0] % all.length];
return [box.left + box.width / 2, box.top + box.height / 2];";

#[tokio::test]
async fn a_second_fast_press_on_a_phone_says_nothing_that_came_up_under_the_thumb() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(390, 844).await?;
    browser.before_every_page(WATCH).await?;
    browser.at(&server).await?;
    let job = browser.job("Malt").await?;
    let mut chance = Chance(39);
    let (mut said, mut presses) = (Vec::new(), 0);
    for station in ["part", "iron", "cracks", "method", "heat", "torch", "check", "hand-over"] {
        browser.go(&server.url(&format!("/jobs/{job}/{station}"))).await?;
        browser.find(By::Css("main h2, main button, main input")).await?;
        for _ in 0..9 {
            let at =
                browser.run(&REACHED.replace("arguments[0]", &(chance.next() % 1000).to_string())).await?;
            let (Some(x), Some(y)) = (at[0].as_f64(), at[1].as_f64()) else { continue };
            browser.press_twice(x, y).await?;
            presses += 1;
        }
        let walked = browser.run("return window.__walk").await?;
        said.extend(walked.as_array().into_iter().flatten().cloned());
    }
    let wrong: Vec<String> =
        said.iter().filter(|said| of_another_field(said)).map(ToString::to_string).collect();
    assert!(presses > 40, "{presses} double presses");
    assert!(wrong.is_empty(), "{} of {}:\n{}", wrong.len(), said.len(), wrong.join("\n"));
    Ok(())
}

/// The tiles of the sheet: where each lies, and whether an answer comes up under the thumb once it is pressed.
const TILES: &str = r"
const drawn = () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
const dialog = () => document.querySelector('[role=dialog]');
const tiles = () => [...dialog().querySelectorAll('button')].filter((it) => it.querySelector('svg'));
return (async () => {
  for (let at = 0; at < tiles().length; at += 1) {
    const box = tiles()[at].getBoundingClientRect();
    const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
    tiles()[at].click();
    await drawn();
    const under = document.elementFromPoint(x, y)?.closest('button')?.innerText ?? '';
    [...dialog().querySelectorAll('button')].find((it) => it.innerText === 'Something else').click();
    await drawn();
    if (y < innerHeight && under === 'That is it') return [x, y];
  }
  return null;
})();";

#[tokio::test]
async fn a_fault_that_is_pressed_twice_has_no_cause_by_that() -> anyhow::Result<()> {
    let server = Server::start_bare()?;
    let browser = Browser::open(390, 844).await?;
    let job = ready_lug(&browser, &server, "hot").await?;
    browser.say(&job, json!({ "kind": "light", "speed": 1 })).await?;
    browser.go(&server.url(&format!("/jobs/{job}/torch"))).await?;
    browser.press("It does not go well").await?;
    browser.sees("What do you see?").await?;
    let at = browser.run(TILES).await?;
    let (x, y) = (at[0].as_f64().context("no answer comes up under any tile")?, at[1].as_f64().context("y")?);
    let before = said(&browser, &job).await?;
    browser.press_twice(x, y).await?;
    browser.sees("That is it").await?;
    assert_eq!(said(&browser, &job).await?, before, "the second press was for the tile");
    // A press that is meant says it.
    browser.press("That is it").await?;
    eventually("it is said", async || Ok(said(&browser, &job).await?.len() == before.len() + 1)).await
}
