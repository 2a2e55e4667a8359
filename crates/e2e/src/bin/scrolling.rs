//! How evenly a long rack scrolls: from its top to its end, frames counted. `scrolling URL`

use anyhow::Context;
use serde_json::Value;
use vanadin_e2e::Browser;

/// Goes down through the whole page in so many ms; gives frames a second, the longest gap in ms, and how
/// high the page is.
const SCROLL: &str = "
    const done = arguments[arguments.length - 1]
    const whole = 6000
    const end = () => document.documentElement.scrollHeight - innerHeight
    let began = null, last = null, frames = 0, longest = 0
    const step = (now) => {
      began ??= now
      if (last !== null) longest = Math.max(longest, now - last)
      last = now
      frames += 1
      const part = (now - began) / whole
      scrollTo(0, end() * Math.min(1, part))
      if (part < 1) requestAnimationFrame(step)
      else done([frames / ((now - began) / 1000), longest, end()])
    }
    requestAnimationFrame(step)";

#[tokio::main(flavor = "current_thread")]
async fn main() -> anyhow::Result<()> {
    let url = std::env::args().nth(1).context("scrolling URL")?;
    let browser = Browser::open(1280, 800).await?;
    browser.go(&url).await?;
    browser.sees("Rack").await?;
    // Once without looking: what is loaded later is there.
    browser.driver.execute_async(SCROLL, Vec::new()).await?;
    let counted = browser.driver.execute_async(SCROLL, Vec::new()).await?;
    let [a_second, longest_ms, height] =
        counted.convert::<[Value; 3]>()?.map(|it| it.as_f64().unwrap_or(f64::NAN));
    println!(
        "scrolling through all, {:.0} screens in 6 s: {a_second:.0} frames a second, longest gap {longest_ms:.0} ms (aim 60)",
        height / 800.0
    );
    Ok(())
}
