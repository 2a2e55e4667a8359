//! A database of before is opened, and a copy is put back.

use std::fs;
use std::path::Path;

use vanadin_e2e::{Browser, Server, eventually};

#[tokio::test]
async fn a_database_of_before_is_opened_and_worked_on() -> anyhow::Result<()> {
    let folder = tempfile::tempdir()?;
    let published =
        Path::new(env!("CARGO_MANIFEST_DIR")).join("../server/tests/it/published/vanadin_3.sqlite");
    fs::copy(published, folder.path().join("vanadin.sqlite"))?;
    let server = Server::start_on(folder)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    browser.go(&server.url("/")).await?;
    for name in ["Bell frame bearing block", "Lock paddle winch hook", "Malt conveyor sprocket arm"] {
        browser.sees(name).await?;
    }
    // What was frozen when it was lit is read as it was written.
    let job = browser.job("Letterpress").await?;
    browser.go(&server.url(&format!("/jobs/{job}/hand-over"))).await?;
    browser.sees("As planned when it was lit").await?;
    browser.go(&server.url(&format!("/jobs/{job}/part"))).await?;
    browser.unfold("How big").await?;
    browser.type_in("Weight", "44 kg").await?;
    eventually("it is stored", async || {
        Ok(browser.view(&job).await?["fields"]["part.mass"]["typed"] == "44 kg")
    })
    .await
}

#[tokio::test]
async fn a_copy_taken_while_it_is_served_is_put_back() -> anyhow::Result<()> {
    let mut server = Server::start(true)?;
    let browser = Browser::open_with_a_worker(1280, 800).await?;
    browser.at(&server).await?;
    let job = browser.job("Malt").await?;
    let weight = async || -> anyhow::Result<String> {
        Ok(browser.view(&job).await?["fields"]["part.mass"]["typed"].as_str().unwrap_or_default().to_owned())
    };
    let before = weight().await?;
    let copies = tempfile::tempdir()?;
    let copy = copies.path().join("monday.sqlite").display().to_string();
    server.command(&["backup", "--to", &copy])?;
    browser.go(&server.url(&format!("/jobs/{job}/part"))).await?;
    browser.unfold("How big").await?;
    browser.type_in("Weight", "77 kg").await?;
    eventually("it is stored", async || Ok(weight().await? == "77 kg")).await?;
    server.stop()?;
    let said = server.command(&["restore", "--from", &copy])?;
    assert!(said.contains("What lay there is now"), "{said}");
    server.start_again()?;
    browser.go(&server.url(&format!("/jobs/{job}/part"))).await?;
    browser.sees("Malt conveyor").await?;
    assert_eq!(weight().await?, before);
    Ok(())
}
