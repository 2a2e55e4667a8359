//! What is read at first: the words that are in sight when a station is opened, on a laptop and on a phone.

use rstest::rstest;
use vanadin_e2e::{Browser, Server};

/// Each word of the station's own sheet that is in sight: not those of the card, the head, the heat line, of what is
/// said of a hot part on every page, and of what is drawn.
const IN_SIGHT: &str = r"
    const elsewhere = '[data-card], header, nav, svg, .sr-only, [data-testid=hot-now], [data-testid=keep-off], .plate';
    const walker = document.createTreeWalker(document.querySelector('main'), NodeFilter.SHOW_TEXT);
    const range = document.createRange();
    const clips = (node, rect) => {
        for (let e = node.parentElement; e !== null && e !== document.body; e = e.parentElement) {
            const { overflowX, overflowY } = getComputedStyle(e);
            if (!/auto|scroll|hidden/.test(overflowX + overflowY)) continue;
            const box = e.getBoundingClientRect();
            if (rect.top >= box.bottom - 2 || rect.bottom <= box.top || rect.left >= box.right - 2) return true;
        }
        return false;
    };
    let words = 0;
    for (let node = walker.nextNode(); node !== null; node = walker.nextNode()) {
        if (node.parentElement.closest(elsewhere) !== null) continue;
        for (const { index, 0: word } of node.textContent.matchAll(/[\p{L}\p{N}]\S*/gu)) {
            range.setStart(node, index);
            range.setEnd(node, index + word.length);
            const [rect] = range.getClientRects();
            if (rect === undefined || rect.top >= innerHeight || rect.bottom <= 0) continue;
            if (!clips(node, rect)) words += 1;
        }
    }
    return words";

/// The record is a document, read as it is printed: it is not counted.
const STATIONS: [&str; 9] = ["part", "iron", "cracks", "method", "prep", "heat", "torch", "cooling", "check"];

#[rstest]
#[case::on_a_laptop((1280, 800), 150)]
#[case::on_a_phone((390, 844), 90)]
#[tokio::test]
async fn a_first_screen_is_read_at_once(
    #[case] (width, height): (u32, u32),
    #[case] most: u64,
) -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let browser = Browser::open(width, height).await?;
    browser.at(&server).await?;
    let mut long = Vec::new();
    let mut seen = 0;
    for name in ["Letterpress", "Malt conveyor", "Seed drill", "chain wheel", "Bell frame", "points lever"] {
        let job = browser.job(name).await?;
        browser.go(&server.url(&format!("/jobs/{job}/hand-over"))).await?;
        for station in STATIONS {
            browser.walk_to(&format!("/jobs/{job}/{station}")).await?;
            let words = browser.run(IN_SIGHT).await?.as_u64().unwrap_or(u64::MAX);
            seen += words;
            if words > most {
                long.push(format!("{name}, {station}: {words}"));
            }
        }
    }
    assert!(seen > 1_000, "something is read: {seen}");
    assert!(long.is_empty(), "over {most} words: {long:?}");
    Ok(())
}
