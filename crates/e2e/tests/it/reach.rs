//! By phone, by keyboard alone, and with the server gone: everything stays in reach.

use anyhow::Context;
use serde_json::{Value, json};
use thirtyfour::prelude::*;
use vanadin_e2e::{Browser, Server, eventually, set};

#[tokio::test]
async fn on_a_phone_the_whole_line_opens_the_ten_stations() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(390, 844).await?;
    browser.at(&server).await?;
    let id = browser.job("Letterpress").await?;
    browser.go(&server.url(&format!("/jobs/{id}/part"))).await?;
    browser.press("Stations: Part").await?;
    for word in ["Part", "Iron", "Cracks", "Method", "Prep", "Heat", "Torch", "Cooling", "Check", "Hand-over"]
    {
        browser.find(By::XPath(format!("//*[@role='dialog']//a[starts-with(., '{word}')]"))).await?;
    }
    let row = browser.find(By::XPath("//*[@role='dialog']//a[starts-with(., 'Cooling')]")).await?;
    assert!(row.rect().await?.height >= 64.0, "too small for a glove");
    browser.click(&row).await?;
    browser.sees("HOT").await?;
    // A reading by hand, from here.
    browser.press("Log a reading").await?;
    let by_hand = browser.find(By::Css("[role='dialog'] input")).await?;
    by_hand.send_keys("139 C").await?;
    browser.press("Log it").await?;
    eventually("it is stored", async || {
        let view = browser.view(&id).await?;
        let log = view["job"]["rounds"][0]["log"].as_array().context("no log")?;
        Ok(log.iter().any(|entry| entry["celsius"] == 139.0))
    })
    .await
}

/// The accessible name of what has the focus, and whether that shows.
async fn focused(browser: &Browser) -> anyhow::Result<(String, bool)> {
    let script = "const at = document.activeElement;
        if (at === null || at === document.body) return ['', false];
        const label = at.id === '' ? null : document.querySelector(`label[for='${at.id}'] span`);
        const name = at.getAttribute('aria-label') ?? label?.textContent ?? at.textContent;
        const ring = (element) => element !== null && getComputedStyle(element).outlineStyle !== 'none';
        return [name.trim().replace(/\\s+/g, ' '), ring(at) || ring(at.parentElement)];";
    Ok(serde_json::from_value(browser.run(script).await?)?)
}

/// Presses Tab until the thing with this accessible name has the focus, and it shows.
async fn tab_to(browser: &Browser, name: &str) -> anyhow::Result<()> {
    for _ in 0..90 {
        let (found, shows) = focused(browser).await?;
        if found == name {
            anyhow::ensure!(shows, "{name} has the focus and does not show it");
            return Ok(());
        }
        browser.key("\u{e004}").await?;
    }
    anyhow::bail!("no Tab leads to {name}")
}

const ENTER: &str = "\u{e007}";

#[tokio::test]
async fn a_part_is_described_and_tested_by_keyboard_alone() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Letterpress").await?;
    browser.key("n").await?;
    browser.sees("Next: what it is.").await?;
    // The plate leads to the field.
    tab_to(&browser, "Say what it is").await?;
    browser.key(ENTER).await?;
    browser.key("Ferry ramp hinge").await?;
    browser.key(ENTER).await?;
    browser.sees("Ferry ramp hinge").await?;
    // One of several: the arrows go along them.
    tab_to(&browser, "Machine frame or bed").await?;
    for name in [
        "Engine block or housing",
        "Hot gas part",
        "Pump or valve body",
        "Moving, under load",
        "Small hardware",
    ] {
        browser.key("\u{e014}").await?;
        // The focus follows the key a moment later.
        eventually(&format!("{name} has the focus"), async || Ok(focused(&browser).await?.0 == name)).await?;
    }
    browser.key(ENTER).await?;
    browser.sees("Could it hurt somebody?").await?;
    tab_to(&browser, "How big not asked yet").await?;
    browser.key(ENTER).await?;
    tab_to(&browser, "Wall at the break").await?;
    browser.key("3/8").await?;
    browser.key("\u{e004}").await?;
    browser.sees("9.5 mm").await?;
    browser.key("\u{e004}").await?;
    // Keys of the page work again outside a text field.
    tab_to(&browser, "Job").await?;
    browser.key("2").await?;
    browser.sees("Most likely malleable.").await?;
    tab_to(&browser, "Punch 2 min").await?;
    browser.key(ENTER).await?;
    tab_to(&browser, "Punch: raises a rim").await?;
    browser.key(ENTER).await?;
    browser.sees("Punch: raises a rim first spot, sure").await?;
    browser.key("z").await?;
    eventually("it is taken back", async || Ok(!browser.page().await?.contains("Found so far"))).await?;
    browser.key("y").await?;
    browser.sees("Punch: raises a rim first spot, sure").await?;
    browser.key("w").await?;
    browser.sees("why?").await?;
    browser.key("\u{e00c}").await?;
    browser.key("u").await?;
    browser.sees("in, °F").await?;
    browser.key("?").await?;
    browser.sees("Log a reading").await?;
    Ok(())
}

#[tokio::test]
async fn what_is_typed_while_the_server_is_gone_waits_and_is_sent_in_order() -> anyhow::Result<()> {
    let mut server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    browser.at(&server).await?;
    let id = browser.job("Glasshouse").await?;
    browser.go(&server.url(&format!("/jobs/{id}/part"))).await?;
    browser.sees("Enough is known of the part.").await?;
    browser.unfold("How big").await?;
    browser.unfold("What it is").await?;
    server.kill()?;
    browser.type_in("Wall at the break", "8 mm").await?;
    browser.type_in("Wall at the break", "8.5 mm").await?;
    browser.type_in("Whose is it?", "Walled garden trust, gate 2").await?;
    browser.sees("3 waiting for the server").await?;
    assert_eq!(browser.field("Wall at the break").await?.prop("value").await?.as_deref(), Some("8.5 mm"));
    server.start_again()?;
    eventually("everything is sent", async || Ok(browser.text("saved").await? == "saved")).await?;
    let (_, history) = browser.fetch("GET", &format!("/api/jobs/{id}/history"), Value::Null).await?;
    let typed: Vec<&Value> = history["facts"]
        .as_array()
        .context("no facts")?
        .iter()
        .rev()
        .take(3)
        .map(|fact| &fact["change"]["typed"])
        .collect();
    let expected = [json!("Walled garden trust, gate 2"), json!("8.5 mm"), json!("8 mm")];
    assert_eq!(typed, expected.iter().collect::<Vec<_>>());
    Ok(())
}

#[tokio::test]
async fn a_referred_hook_stays_closed_and_a_press_frame_is_opened_by_who_looked_at_it() -> anyhow::Result<()>
{
    let server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    browser.at(&server).await?;
    let id = browser.job("winch hook").await?;
    // Two words opened it once.
    for (key, typed) in [("part.authority", "the owner"), ("part.authority_reference", "phone call")] {
        browser.say(&id, set(key, typed)).await?;
    }
    browser.go(&server.url(&format!("/jobs/{id}/part"))).await?;
    browser.sees("Referred out: Lifting").await?;
    browser.sees("Nothing that is said here opens it").await?;
    browser.say(&id, set("part.safety_class", "press_frame_or_guard")).await?;
    browser.say(&id, set("part.authority", "")).await?;
    browser.sees("Referred out: Press frame").await?;
    browser.press("Enter who answers for it").await?;
    browser.key("Insp. Aldous Wray").await?;
    browser.key(ENTER).await?;
    browser.press("Say what they are").await?;
    browser.choose("What are they?", "Inspector").await?;
    browser.type_in("What did they look at?", "the frame after penetrant").await?;
    browser.type_in("Their reference", "LR-2026-118").await?;
    assert!(browser.page().await?.contains("Referred out"), "nobody knows yet when that was");
    browser.type_in("Looked at on", "2 March 2026").await?;
    eventually("it is unlocked", async || Ok(!browser.page().await?.contains("Referred out"))).await?;
    // It stands first among the cautions, at every station.
    for station in ["torch", "check"] {
        browser.go(&server.url(&format!("/jobs/{id}/{station}"))).await?;
        let first = browser.text("answered-for").await?;
        assert!(first.contains("Insp. Aldous Wray answers for it (inspector)"), "{first}");
    }
    Ok(())
}

#[tokio::test]
async fn each_device_is_told_in_its_own_units() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let at_the_torch = Browser::open_with_a_worker(390, 844).await?;
    at_the_torch.at(&server).await?;
    let id = at_the_torch.job("Letterpress").await?;
    at_the_torch.go(&server.url(&format!("/jobs/{id}/cooling"))).await?;
    at_the_torch.sees("°C").await?;
    let in_the_office = Browser::open_with_a_worker(1280, 800).await?;
    in_the_office.go(&server.url(&format!("/jobs/{id}/cooling"))).await?;
    in_the_office.sees("°C").await?;
    in_the_office.key("u").await?;
    in_the_office.sees("in, °F").await?;
    eventually("it is told in °F", async || {
        let page = in_the_office.page().await?;
        Ok(page.contains("°F") && !page.contains("°C"))
    })
    .await?;
    // So are the rack and the card there, and what is asked for later.
    in_the_office.key("r").await?;
    in_the_office.sees("53 lb").await?;
    // Nothing of it came to the other: neither by the stream nor when it is opened anew.
    let page = at_the_torch.page().await?;
    assert!(!page.contains("°F"), "{page}");
    at_the_torch.go(&server.url("/")).await?;
    at_the_torch.sees("24 kg").await?;
    assert!(!at_the_torch.page().await?.contains("°F"));
    // In the shop the two are apart: this device, and one that is new here.
    in_the_office.key("s").await?;
    in_the_office.sees("A new device begins with").await?;
    in_the_office.choose("Shown and read on this device", "mm, °C, kg").await?;
    in_the_office.go(&server.url("/")).await?;
    in_the_office.sees("24 kg").await?;
    Ok(())
}
