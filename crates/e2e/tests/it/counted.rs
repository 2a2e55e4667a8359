//! A typical small part, from the door to "which rod, how hot, when may I touch it", counted.

use vanadin_e2e::{Browser, ENTER, Hand, Keys, Server, eventually};

/// What the question was: the card says the rods, the window and the time.
async fn the_card_answers(browser: &Browser) -> anyhow::Result<()> {
    eventually("rod, heat and time", async || {
        let card = "return document.querySelector('[data-card]')?.innerText ?? ''";
        let card = browser.run(card).await?;
        let card = card.as_str().unwrap_or_default();
        Ok(card.contains("RBCuZn-C low-fuming bronze rod")
            && card.contains("300 to 450 °C")
            && card.contains("touch from "))
    })
    .await
}

#[tokio::test]
async fn on_a_phone_in_twenty_taps() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(390, 844).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Letterpress").await?;
    let mut hand = Hand::new(&browser);
    let keys = Keys::new(&browser);
    // The phone's own keys are not the page's: what they end leads on to the next of a row.
    let type_on = async |field: &str, text: &str| {
        keys.has_the_keys(field).await?;
        browser.key(text).await?;
        browser.key(ENTER).await
    };
    hand.press("New job").await?;
    type_on("part-name", "Gate hinge strap").await?;
    hand.choose("What sort of part?", "Machine frame or bed").await?;
    hand.choose("Could it hurt somebody?", "None of these").await?;
    hand.plate("Measure the wall").await?;
    type_on("part-wall", "12").await?;
    type_on("part-mass", "1.2 kg").await?;
    hand.choose("Shape", "Solid block").await?;
    hand.plate("Measure the length").await?;
    type_on("part-length", "220").await?;
    type_on("part-width", "60").await?;
    type_on("part-height", "16").await?;
    hand.plate("Ask how hot it gets").await?;
    type_on("part-service_temperature", "30 C").await?;
    hand.choose("What does it hold?", "Nothing").await?;
    hand.choose("Oil", "Clean").await?;
    hand.plate("Look at the break").await?;
    hand.press("Break: dark, sooty").await?;
    hand.plate("Map the crack").await?;
    type_on("length", "40").await?;
    the_card_answers(&browser).await?;
    assert!(hand.taps <= 20, "{} taps", hand.taps);
    Ok(())
}

#[tokio::test]
async fn on_a_laptop_in_a_hundred_and_twenty_keys_and_no_mouse() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Letterpress").await?;
    let mut keys = Keys::new(&browser);
    keys.send("n").await?;
    keys.has_the_keys("part-name").await?;
    keys.say("Gate hinge strap").await?;
    keys.first_answer("Say what sort of part", "part-family").await?;
    keys.first_answer("Say whether it could hurt", "part-safety_class").await?;
    keys.plate("Measure the wall", "part-wall").await?;
    keys.say("12").await?;
    keys.has_the_keys("part-mass").await?;
    keys.say("1.2").await?;
    keys.first_answer("Say its shape", "part-shape").await?;
    keys.plate("Measure the length", "part-length").await?;
    keys.say("220").await?;
    keys.has_the_keys("part-width").await?;
    keys.say("60").await?;
    keys.has_the_keys("part-height").await?;
    keys.say("16").await?;
    keys.plate("Ask how hot it gets", "part-service_temperature").await?;
    keys.say("30").await?;
    keys.first_answer("Ask what it holds", "part-holds").await?;
    keys.first_answer("Look for oil", "part-oil").await?;
    // A test is a question as well: the plate leads to it, and its pictures are its answers.
    browser.plate_says("Look at the break").await?;
    keys.enter().await?;
    let is_at = async |what: &str, script: &str| {
        eventually(what, async || Ok(browser.run(script).await? == serde_json::Value::Bool(true))).await
    };
    is_at("the keys stand before the break", "return document.activeElement.matches('[data-question]')")
        .await?;
    keys.send("\u{e004}").await?;
    is_at(
        "the keys are on the first outcome",
        "return (document.activeElement.innerText ?? '').includes('ark, sooty')",
    )
    .await?;
    keys.enter().await?;
    keys.plate("Map the crack", "length").await?;
    keys.say("40").await?;
    the_card_answers(&browser).await?;
    assert!(keys.count <= 120, "{} keys", keys.count);
    Ok(())
}
