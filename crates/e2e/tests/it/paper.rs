//! What is put on paper, read back from the printed page.

use rstest::rstest;
use serde_json::Value;
use vanadin_e2e::{Browser, Server, eventually};

/// Width and height in inches.
const A4: (f64, f64) = (8.27, 11.69);
const LETTER: (f64, f64) = (8.5, 11.0);

/// What is asked for stays asked for: the words are read once the page is on paper.
const STAYS: &str = "window.print = () => {}
     window.addEventListener('afterprint', (event) => event.stopImmediatePropagation())";
const RECORD_BUTTON: &str = "Print the record";

#[rstest]
#[case::the_card_by_itself(None, &["Preheat", "Covered for", "Cautions", "drill"])]
#[case::the_bench_strip(Some("Print the bench strip"), &["beads", "Lit at", "Covered at", "tick"])]
#[case::the_record(Some(RECORD_BUTTON), &["Iron: gray", "As done", "Repaired by", "Taken back by", "Date"])]
#[tokio::test]
async fn each_paper_is_one_page_with_name_and_date(
    #[case] button: Option<&str>,
    #[case] wanted: &[&str],
) -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    if button.is_some() {
        browser.before_every_page(STAYS).await?;
    }
    browser.at(&server).await?;
    let job = browser.job("Letterpress").await?;
    for station in ["hand-over", "torch"] {
        if button == Some(RECORD_BUTTON) && station == "torch" {
            continue;
        }
        browser.go(&server.url(&format!("/jobs/{job}/{station}"))).await?;
        browser.sees("Letterpress side frame").await?;
        if button == Some(RECORD_BUTTON) {
            browser.press(RECORD_BUTTON).await?;
        }
        // The sheet of the job lies over the page.
        browser.press("Job").await?;
        browser.sees("Print the card").await?;
        if let Some(button) = button.filter(|button| *button != RECORD_BUTTON) {
            browser.press(button).await?;
        }
        for size in [A4, LETTER] {
            let mut found = (0, String::new());
            eventually("it is all there", async || {
                found = browser.printed(size).await?;
                Ok(wanted.iter().all(|word| found.1.contains(word)))
            })
            .await
            .map_err(|error| error.context(found.1.clone()))?;
            let (pages, words) = found;
            assert_eq!(pages, 1, "{button:?} at {station} on {size:?}: {words}");
            assert!(words.contains("Letterpress side frame"), "{words}");
            assert!(words.contains("Printed 9 Mar 2026"), "{words}");
            assert!(
                !words.contains("Undo") && !words.contains("Print the card"),
                "controls are not printed: {words}"
            );
        }
    }
    Ok(())
}

#[tokio::test]
async fn a_job_of_which_little_is_known_prints_too() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("Lock paddle").await?;
    browser.go(&server.url(&format!("/jobs/{job}/part"))).await?;
    browser.sees("Lock paddle winch hook").await?;
    let mut printed = (0, String::new());
    // Its name is there before what is said of it.
    eventually("it is printed that it is referred out", async || {
        printed = browser.printed(A4).await?;
        Ok(printed.1.contains("Referred out"))
    })
    .await?;
    let (pages, words) = printed;
    assert_eq!(pages, 1, "{words}");
    assert!(!words.contains("undefined"), "{words}");
    let (status, _) = browser.fetch("GET", "/api/health", Value::Null).await?;
    assert_eq!(status, 200);
    Ok(())
}

#[rstest]
#[case::the_card(INCLINE, "check", &["Job"], "Print the card", &["Preheat", "Cautions"], A4)]
#[case::the_strip(INCLINE, "part", &["Job"], "Print the bench strip", &["Lit at", "Covered at"], A4)]
#[case::the_record(INCLINE, "hand-over", &[], RECORD_BUTTON, &["As done", "Repaired by"], LETTER)]
#[case::the_label(INCLINE, "hand-over", &[], LABEL_BUTTON, &["Repaired: see record", "Not over 200"], LABEL)]
#[case::the_estimate(FRAME, "method", &[], "Print the estimate", &["In all", "Agreed, name and date"], A4)]
#[tokio::test]
async fn a_paper_is_what_its_button_says_wherever_that_stands(
    #[case] name: &str,
    #[case] station: &str,
    #[case] first: &[&str],
    #[case] button: &str,
    #[case] wanted: &[&str],
    #[case] size: (f64, f64),
) -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.before_every_page(STAYS).await?;
    browser.at(&server).await?;
    let job = browser.job(name).await?;
    browser.go(&server.url(&format!("/jobs/{job}/{station}"))).await?;
    browser.sees(name).await?;
    for press in first {
        browser.press(press).await?;
    }
    browser.press(button).await?;
    let mut found = (0, String::new());
    eventually("it is all there", async || {
        found = browser.printed(size).await?;
        Ok(wanted.iter().all(|word| found.1.contains(word)))
    })
    .await
    .map_err(|error| error.context(found.1.clone()))?;
    let (pages, words) = found;
    assert_eq!(pages, 1, "{words}");
    assert!(words.contains(name), "{words}");
    assert!(!words.contains("Undo") && !words.contains("undefined"), "{words}");
    Ok(())
}

const INCLINE: &str = "Incline railway points lever";
const FRAME: &str = "Letterpress side frame";
const LABEL_BUTTON: &str = "Print the label, 62 x 29 mm";
/// 62 by 29 mm.
const LABEL: (f64, f64) = (62.0 / 25.4, 29.0 / 25.4);

#[tokio::test]
async fn the_code_on_a_label_is_read_by_another_decoder() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.before_every_page("window.print = () => {}").await?;
    browser.at(&server).await?;
    let job = browser.job("Incline").await?;
    browser.go(&server.url(&format!("/jobs/{job}/hand-over"))).await?;
    browser.press(LABEL_BUTTON).await?;
    let code = "document.querySelector('[data-testid=label-code]')";
    eventually("its code is there", async || {
        Ok(browser.run(&format!("return {code}?.complete === true && {code}.naturalWidth > 0")).await?
            == true)
    })
    .await?;
    // As it would come off the printer at 203 dots to the inch: 25 mm are 200 dots.
    let drawn = browser
        .run(&format!(
            "const canvas = document.createElement('canvas')
             canvas.width = canvas.height = 200
             const brush = canvas.getContext('2d')
             brush.drawImage({code}, 0, 0, 200, 200)
             return [...brush.getImageData(0, 0, 200, 200).data].filter((_, at) => at % 4 === 0)"
        ))
        .await?;
    let dots: Vec<u8> = serde_json::from_value(drawn)?;
    let mut decoder = quircs::Quirc::default();
    let code = decoder.identify(200, 200, &dots).next().expect("a code")?;
    let says = String::from_utf8(code.decode()?.payload)?;
    // Only this machine reaches the server: no address, and nothing private.
    assert_eq!(says, format!("Repaired: see record {} at Lockside Iron Mending", &job[..8]));
    Ok(())
}
