//! Many jobs on the rack: scrolled, found, and one let go for good.

use serde_json::{Value, json};
use uuid::Uuid;
use vanadin_e2e::{Browser, Server, eventually};

const JOBS: usize = 150;

async fn drawn(browser: &Browser) -> anyhow::Result<u64> {
    let count = "return document.querySelectorAll('[data-testid=rack-line]').length";
    Ok(browser.run(count).await?.as_u64().unwrap_or(0))
}

#[tokio::test]
async fn a_long_rack_is_scrolled_to_its_end_and_one_job_found_and_let_go() -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Letterpress side frame").await?;
    let from = browser.job("Glasshouse").await?;
    let mut last = Uuid::nil();
    for _ in 0..JOBS {
        last = Uuid::new_v4();
        let (status, _) =
            browser.fetch("POST", &format!("/api/jobs/{from}/copy"), json!({ "id": last })).await?;
        assert_eq!(status, 200);
    }
    let name = json!({ "kind": "set", "key": "part.name", "typed": "Quoin clamp", "shown_in": "metric" });
    browser.say(&last.to_string(), name).await?;
    browser.go(&server.url("/")).await?;
    browser.sees("Letterpress side frame").await?;
    let at_the_top = drawn(&browser).await?;
    assert!(at_the_top < 40, "what nobody sees is not drawn: {at_the_top}");
    // The one that was handed over lies at the end, past all the others.
    eventually("the end of the rack", async || {
        browser.run("window.scrollTo(0, document.body.scrollHeight)").await?;
        Ok(browser.page().await?.contains("Incline railway points lever"))
    })
    .await?;
    let (_, rack) = browser.fetch("GET", "/api/rack", Value::Null).await?;
    assert_eq!(rack["total"], JOBS + 8);
    assert!(drawn(&browser).await? < 40);

    browser.go(&server.url("/?find=quoin")).await?;
    eventually("one is found", async || Ok(drawn(&browser).await? == 1)).await?;
    browser.go(&server.url(&format!("/jobs/{last}/part"))).await?;
    browser.press("Job").await?;
    browser.press("Put away").await?;
    eventually("it is put away", async || {
        Ok(browser.view(&last.to_string()).await?["job"]["put_away"] == true)
    })
    .await?;
    browser.press("Job").await?;
    browser.sees("Let it go for good").await?;
    browser
        .run("[...document.querySelectorAll('a')].find((a) => a.textContent === 'Take its file').click()")
        .await?;
    browser.type_in("Type its name to let it go", "Quoin").await?;
    browser.press("Delete this job").await?;
    browser.sees("that is not its name").await?;
    browser.type_in("Type its name to let it go", "Quoin clamp").await?;
    browser.press("Delete this job").await?;
    eventually("it is gone from what was put away", async || {
        let page = browser.page().await?;
        Ok(page.contains("Stone saw slide end") && !page.contains("Quoin clamp"))
    })
    .await?;
    let (status, _) = browser.fetch("GET", &format!("/api/jobs/{last}"), Value::Null).await?;
    assert_eq!(status, 404);
    Ok(())
}
