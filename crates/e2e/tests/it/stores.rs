//! The stores, the estimate, and what our own repairs teach.

use anyhow::Context;
use serde_json::{Value, json};
use vanadin_e2e::{Browser, Server, eventually};

/// A setting of the shop, by the page's own requests.
async fn setting(browser: &Browser, key: &str, typed: &str) -> anyhow::Result<()> {
    let change = json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" });
    let (status, answer) = browser.fetch("POST", "/api/shop", json!({ "change": change })).await?;
    anyhow::ensure!(status == 200, "{answer}");
    Ok(())
}

async fn stores(browser: &Browser) -> anyhow::Result<Value> {
    let (status, view) = browser.fetch("GET", "/api/stores", Value::Null).await?;
    anyhow::ensure!(status == 200, "{view}");
    Ok(view["plan"].clone())
}

fn thing<'a>(plan: &'a Value, words: &str) -> Option<&'a Value> {
    let shelves = plan["shelves"].as_array()?.iter();
    shelves.filter_map(|shelf| shelf["things"].as_array()).flatten().find(|thing| thing["words"] == words)
}

#[tokio::test]
async fn empty_shelves_are_filled_as_people_say_it() -> anyhow::Result<()> {
    let server = Server::start(false)?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&server.url("/stores")).await?;
    browser.sees("The shelves are empty.").await?;
    browser.press("Put something on the shelf Rods, wire, flux here").await?;
    browser.press("Nickel stick").await?;
    browser.type_in("Across", "1/8").await?;
    // What cannot be is told at its field, and what was typed stays.
    browser.type_in("How much", "110 bar").await?;
    browser.sees("\"110 bar\" cannot be: it is counted").await?;
    assert_eq!(browser.field("How much").await?.prop("value").await?.as_deref(), Some("110 bar"));
    browser.type_in("How much", "a dozen").await?;
    browser.type_in("Price", "3.10 a rod").await?;
    browser.press("Close").await?;
    browser.sees("12 rods").await?;
    let plan = stores(&browser).await?;
    let nickel = &plan["shelves"][0]["things"][0];
    assert_eq!((nickel["amount"].as_f64(), &nickel["words"]), (Some(12.0), &json!("Nickel stick, 3.2 mm")));
    // Taken back and put back like anything else.
    browser.press("Undo").await?;
    browser.press("Undo").await?;
    browser.sees("how much is not said").await?;
    browser.press("Redo").await?;
    browser.sees("12 rods").await?;

    // A bundle that nobody has named is found out by looking, and then it is one of the others.
    browser.press("Put something on the shelf Rods, wire, flux here").await?;
    browser.press("A bundle without a name").await?;
    browser.sees("Look at it, try a magnet").await?;
    browser.pick("Looks", "Yellow").await?;
    browser.choose("Magnet", "Does not hold").await?;
    browser.sees("It looks like low-fuming bronze: one more test.").await?;
    browser.choose("Under the file", "Soft").await?;
    browser.press("Call it low-fuming bronze").await?;
    eventually(
        "it has its name",
        async || Ok(thing(&stores(&browser).await?, "Low-fuming bronze").is_some()),
    )
    .await?;
    let problems = browser.serious_problems().await?;
    assert!(problems.is_empty(), "{problems:?}");
    Ok(())
}

#[tokio::test]
async fn two_jobs_that_want_the_same_rods_and_gas_are_told_apart() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    let (first, second) = (browser.job("Seed drill").await?, browser.job("Malt").await?);
    let set =
        |key: &str, typed: &str| json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" });
    browser.say(&second, set("method.choice", "arc_nickel_iron")).await?;
    browser.say(&second, set("part.wanted", "2026-05-13")).await?;
    browser.say(&first, set("part.wanted", "2026-05-20")).await?;
    browser.go(&server.url("/stores")).await?;
    // Whoever wants it first takes first; what is then short hangs below the shelf with its day.
    browser.sees("by Wed 20 May: Seed drill lever plate").await?;
    let plan = stores(&browser).await?;
    let gas = thing(&plan, "Propane").context("propane")?;
    let takers = gas["takers"].as_array().context("takers")?;
    assert!(takers.len() >= 2, "{gas}");
    assert!(takers[0]["words"].as_str().is_some_and(|words| words.ends_with("Malt conveyor sprocket arm")));
    // There is little left in the bottle: the second one goes short.
    let propane = gas["id"].as_str().context("an id")?;
    setting(&browser, &format!("store.{propane}.amount"), "0.2 m3").await?;
    eventually("gas is short", async || {
        let plan = stores(&browser).await?;
        let gas = thing(&plan, "Propane").context("propane")?;
        Ok(gas["short"].as_array().is_some_and(|short| !short.is_empty()))
    })
    .await?;
    browser
        .press(&format!(
            "Buying list: {}",
            stores(&browser).await?["buying"].as_array().context("list")?.len()
        ))
        .await?;
    browser.sees("for Seed drill lever plate").await?;
    let (status, list) = browser.fetch_text("/api/stores/buying.csv").await?;
    assert_eq!(status, 200);
    assert!(list.starts_with("what,how much,by,for,price\r\n"), "{list}");
    assert!(list.contains("Propane"), "{list}");
    Ok(())
}

#[tokio::test]
async fn an_estimate_stands_when_the_price_of_the_rods_does_not() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    // It stays asked for: it is printed on two sizes of paper.
    let stays = "window.print = () => {}
         window.addEventListener('afterprint', (event) => event.stopImmediatePropagation())";
    browser.before_every_page(stays).await?;
    browser.at(&server).await?;
    let job = browser.job("Seed drill").await?;
    setting(&browser, "shop.rate", "45").await?;
    browser.go(&server.url(&format!("/jobs/{job}/method"))).await?;
    browser.press("Give an estimate").await?;
    browser.type_in("It stands until", "in 2 weeks").await?;
    browser.press("Give it").await?;
    browser.sees("stands until Mon 23 Mar 2026.").await?;
    let given =
        browser.view(&job).await?["plan"]["offered"]["estimate"]["total"].as_f64().context("given")?;

    let plan = stores(&browser).await?;
    let rods = thing(&plan, "Nickel-iron stick, 4 mm").context("rods")?["id"].clone();
    setting(&browser, &format!("store.{}.price", rods.as_str().context("an id")?), "46 a rod").await?;
    browser.sees("Today it would be").await?;
    let view = browser.view(&job).await?;
    assert_eq!(view["plan"]["offered"]["estimate"]["total"].as_f64(), Some(given), "what was given stands");

    // One page, with its lines and the day until which it stands.
    browser.press("Print the estimate").await?;
    for size in [(8.27, 11.69), (8.5, 11.0)] {
        let (pages, words) = browser.printed(size).await?;
        assert_eq!(pages, 1, "{words}");
        for wanted in ["Estimate", "Hands", "In all", "stands until Mon 23 Mar 2026", "Agreed"] {
            assert!(words.contains(wanted), "{wanted}: {words}");
        }
    }
    // Taken back, nothing was offered.
    browser.press("Undo").await?;
    browser.press("Give an estimate").await
}

#[tokio::test]
async fn what_became_of_an_old_repair_moves_the_odds_of_the_next() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    let (old, present) = (browser.job("points lever").await?, browser.job("Seed drill").await?);
    let method = browser.view(&old).await?["plan"]["methods"]["chosen"]["method"].clone();
    let odds = async || -> anyhow::Result<(f64, u64)> {
        let view = browser.view(&present).await?;
        let ways = view["plan"]["methods"]["contenders"].as_array().context("ways")?;
        let way = ways.iter().find(|way| way["way"]["method"] == method).context("the way")?;
        Ok((way["odds"]["mean"].as_f64().context("odds")?, way["odds"]["jobs"].as_u64().unwrap_or(0)))
    };
    let became = async |typed: &str| {
        let change =
            json!({ "kind": "set", "key": "hand_over.became", "typed": typed, "shown_in": "metric" });
        browser.say(&old, change).await.map(|_| ())
    };
    let before = odds().await?.1;
    became("holds").await?;
    eventually("it counts", async || Ok(odds().await?.1 == before + 1)).await?;
    let held = odds().await?.0;
    // It was looked at again: it had failed.
    became("failed").await?;
    eventually("what was corrected counts", async || Ok(odds().await?.0 < held)).await?;
    assert_eq!(odds().await?.1, before + 1, "it is one repair");
    became("").await?;
    eventually("nothing is known of it", async || Ok(odds().await?.1 == before)).await
}

#[tokio::test]
async fn what_failed_opens_the_next_round_from_the_hand_over_and_the_check_stays() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("points lever").await?;
    browser.go(&server.url(&format!("/jobs/{job}/hand-over"))).await?;
    browser.press("It was asked").await?;
    browser.press("Failed").await?;
    browser.press("Write it down").await?;
    browser.sees("Open round 2").await?;
    // What was found then stays as it was found.
    browser.station("Check").await?;
    browser.sees("It held when it was looked at, and failed since").await?;
    browser.station("Hand-over").await?;
    browser.type_in("What was found", "broke again beside the bronze").await?;
    browser.press_test_id("new-round").await?;
    eventually("round 2 is open", async || {
        let view = browser.view(&job).await?;
        let rounds = view["job"]["rounds"].as_array().context("rounds")?.len();
        Ok(rounds == 2 && view["job"]["rounds"][1]["reason"] == "broke again beside the bronze")
    })
    .await?;
    let (_, rack) = browser.fetch("GET", "/api/rack?find=points", Value::Null).await?;
    assert_eq!(rack["lines"][0]["round"], 2, "it lies on the rack with its map");
    // Nobody had to write the old check anew for it.
    let (_, history) = browser.fetch("GET", &format!("/api/jobs/{job}/history"), Value::Null).await?;
    let said = history["facts"].as_array().context("facts")?;
    let checked = said.iter().filter(|fact| fact["change"]["key"] == "check.clean");
    assert_eq!(checked.map(|fact| &fact["change"]["typed"]).collect::<Vec<_>>(), [&json!("ok")]);
    Ok(())
}

#[tokio::test]
async fn what_is_done_another_way_moves_what_depends_on_it() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("Seed drill").await?;
    browser.go(&server.url(&format!("/jobs/{job}/method"))).await?;
    let beads = async || browser.view(&job).await.map(|view| view["plan"]["prep"]["beads"].clone());
    let usual = beads().await?;
    browser.unfold_details("Shops do this differently").await?;
    browser.press("Bead: As its heat asks, as usual").await?;
    browser.press("Up to 10 mm").await?;
    eventually("there are more of them", async || Ok(beads().await?.as_u64() > usual.as_u64())).await?;
    browser.sees("little heat at a time").await?;
    browser.press("Undo").await?;
    eventually("they are as they were", async || Ok(beads().await? == usual)).await?;
    // What the shop prefers holds for each of its jobs.
    setting(&browser, "shop_taught.bead", "short").await?;
    eventually("the shop's own way", async || Ok(beads().await?.as_u64() > usual.as_u64())).await?;
    browser.sees("Up to 10 mm, as here").await
}

#[tokio::test]
async fn a_step_is_timed_with_one_press_and_ended_with_another() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("Seed drill").await?;
    browser.go(&server.url(&format!("/jobs/{job}/prep"))).await?;
    let timed = async || browser.view(&job).await.map(|view| view["job"]["rounds"][0]["timed"].clone());
    browser.unfold_details("How long it takes here").await?;
    browser.press("Time it: Stop-holes").await?;
    browser.sees("timed since").await?;
    // Two hands do one thing at a time.
    browser.press("Time it: Open the grooves").await?;
    eventually("the one before is ended", async || {
        let timed = timed().await?;
        Ok(timed[0]["to_ms"].is_i64() && timed[1]["step"] == "open" && timed[1]["to_ms"].is_null())
    })
    .await?;
    browser.press("Stop: Open the grooves").await?;
    eventually("it is ended", async || Ok(timed().await?[1]["to_ms"].is_i64())).await
}

#[tokio::test]
async fn in_a_sheet_the_keys_are_in_the_field_that_is_pressed_and_tab_leads_to_the_next() -> anyhow::Result<()>
{
    let server = Server::start(false)?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&server.url("/stores")).await?;
    browser.press("Put something on the shelf Rods, wire, flux here").await?;
    browser.press("Nickel stick").await?;
    let has_the_keys = "const at = document.activeElement;
        return document.querySelector(`label[for='${at.id}'] span`)?.innerText ?? at.outerHTML";
    // The field that is left loses its unit keys just then.
    for label in ["How much", "Across", "Price", "How much"] {
        browser.click(&browser.field(label).await?).await?;
        assert_eq!(browser.run(has_the_keys).await?, json!(label));
    }
    browser.key("a dozen\u{e004}").await?;
    assert_eq!(browser.run(has_the_keys).await?, json!("Across"), "by Tab");
    browser.sees("12 rods").await
}
