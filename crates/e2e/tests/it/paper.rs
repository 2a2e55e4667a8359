//! What is put on paper, read back from the printed page.

use rstest::rstest;
use serde_json::Value;
use vanadin_e2e::{Browser, Server, eventually};

/// Width and height in inches.
const A4: (f64, f64) = (8.27, 11.69);
const LETTER: (f64, f64) = (8.5, 11.0);

#[rstest]
#[case::the_card_by_itself("", &["Preheat", "Covered for", "Cautions", "drill"])]
#[case::the_bench_strip("strip", &["beads", "Lit at", "Covered at", "tick"])]
#[case::the_record("record", &["Iron: gray", "As done", "Repaired by", "Taken back by", "Date"])]
#[tokio::test]
async fn each_paper_is_one_page_with_name_and_date(
    #[case] paper: &str,
    #[case] wanted: &[&str],
) -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("Letterpress").await?;
    for station in ["hand-over", "torch"] {
        if paper == "record" && station == "torch" {
            continue;
        }
        browser.go(&server.url(&format!("/jobs/{job}/{station}"))).await?;
        browser.sees("Letterpress side frame").await?;
        // It is asked for in the sheet of the job, which lies over the page.
        browser.press("Job").await?;
        browser.sees("Print the card").await?;
        let mark = format!("document.documentElement.dataset.print = '{paper}'");
        let asked = if paper.is_empty() { "0" } else { mark.as_str() };
        browser.driver.execute(asked, Vec::new()).await?;
        for size in [A4, LETTER] {
            let mut found = (0, String::new());
            eventually("it is all there", async || {
                found = browser.printed(size).await?;
                Ok(wanted.iter().all(|word| found.1.contains(word)))
            })
            .await
            .map_err(|error| error.context(found.1.clone()))?;
            let (pages, words) = found;
            assert_eq!(pages, 1, "{paper} at {station} on {size:?}: {words}");
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
    let (pages, words) = browser.printed(A4).await?;
    assert_eq!(pages, 1, "{words}");
    assert!(words.contains("Referred out") && !words.contains("undefined"), "{words}");
    let (status, _) = browser.fetch("GET", "/api/health", Value::Null).await?;
    assert_eq!(status, 200);
    Ok(())
}
