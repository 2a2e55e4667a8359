//! Looks at a page as it stands: by axe, with a ruler, word by word.

use anyhow::Context;
use serde_json::json;
use vanadin_e2e::{Browser, Glossary, Rules};

/// What is too small for a glove, or to be read, or there twice; and every word of the page.
const RULER: &str = r"
const phone = innerWidth < 900, small = new Set(), words = new Set();
for (const e of document.querySelectorAll('body *')) {
  for (const name of ['aria-label', 'placeholder', 'title', 'alt']) {
    if (e.hasAttribute(name)) words.add(e.getAttribute(name));
  }
  const box = e.getBoundingClientRect(), style = getComputedStyle(e);
  if (box.width === 0 || box.height === 0 || style.visibility === 'hidden' || style.opacity === '0') continue;
  if (e.closest('.sr-only') !== null) continue;
  const own = [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim() !== '');
  if (own) {
    const drawn = e.closest('svg') !== null;
    const size = parseFloat(style.fontSize) * (drawn ? Math.abs(e.getScreenCTM().d) : 1);
    const least = drawn ? 12 : phone ? 16 : 14;
    if (size < least - 0.05) small.add(`${size.toFixed(1)} px: ${e.textContent.trim().slice(0, 40)}`);
  }
  if (e.matches('button, a[href], summary, input, textarea')) {
    // A figure is pressed in a field around it.
    const around = getComputedStyle(e, '::before');
    const laid = around.content !== 'none' && around.position === 'absolute';
    const high = Math.max(box.height, laid ? parseFloat(around.height) || 0 : 0);
    const wide = Math.max(box.width, laid ? parseFloat(around.width) || 0 : 0);
    if (high < 43.5 || wide < 43.5) {
      small.add(`${wide.toFixed(0)} x ${high.toFixed(0)}: ${(e.getAttribute('aria-label') ?? e.innerText).slice(0, 40)}`);
    }
  }
}
if (document.documentElement.scrollWidth > innerWidth) small.add('the page scrolls sideways');
const plates = document.querySelectorAll('.plate').length;
if (plates > 1) small.add(`${plates} plates`);
document.body.innerText.split('\n').forEach((line) => words.add(line));
return [[...small], [...words].filter((line) => line.trim() !== '')];";

/// Each word of the station's own sheet that is in sight: not those of the card, the head, the heat line, of what is
/// said of a hot part on every page, and of what is drawn.
const IN_SIGHT: &str = r"
    const elsewhere = '[data-card], header, nav, svg, .sr-only, [aria-hidden=true], [data-testid=hot-now], [data-testid=keep-off], .plate';
    const walker = document.createTreeWalker(document.querySelector('main'), NodeFilter.SHOW_TEXT);
    const range = document.createRange();
    // What cuts the text of an element off, looked for once.
    const known = new Map();
    const cut = (e) => {
        if (e === null || e === document.body) return [];
        if (!known.has(e)) {
            const { overflowX, overflowY } = getComputedStyle(e);
            const own = /auto|scroll|hidden/.test(overflowX + overflowY) ? [e.getBoundingClientRect()] : [];
            known.set(e, [...own, ...cut(e.parentElement)]);
        }
        return known.get(e);
    };
    const outside = (rect) => (box) =>
        rect.top >= box.bottom - 2 || rect.bottom <= box.top || rect.left >= box.right - 2;
    // What lies under the plate is not in sight.
    const plates = [...document.querySelectorAll('.plate')].map((plate) => plate.getBoundingClientRect());
    const under = (rect) => (plate) =>
        rect.top >= plate.top && rect.left < plate.right && rect.right > plate.left;
    let words = 0;
    for (let node = walker.nextNode(); node !== null; node = walker.nextNode()) {
        // What lies folded in has a place too.
        if (node.parentElement.closest(elsewhere) !== null || !node.parentElement.checkVisibility()) continue;
        for (const { index, 0: word } of node.textContent.matchAll(/[\p{L}\p{N}]\S*/gu)) {
            range.setStart(node, index);
            range.setEnd(node, index + word.length);
            const [rect] = range.getClientRects();
            if (rect === undefined || rect.top >= innerHeight || rect.bottom <= 0) continue;
            if (plates.some(under(rect))) continue;
            if (!cut(node.parentElement).some(outside(rect))) words += 1;
        }
    }
    return words";

/// Counts what a page asks for and has no answer to yet.
const COUNTED: &str = "const asks = window.fetch;
    window.asked = 0;
    window.fetch = (...what) => {
        window.asked += 1;
        return asks(...what).finally(() => { window.asked -= 1; });
    };";

/// What is worked out is there: nothing was asked for in these frames.
const AT_REST: &str = "const done = arguments[0];
    let still = 0;
    const look = () => {
        still = window.asked === 0 ? still + 1 : 0;
        if (still === 6) done(true); else requestAnimationFrame(look);
    };
    look();";

/// What was looked at, and what was found.
pub struct Eye<'a> {
    browser: &'a Browser,
    glossary: Glossary,
    pub found: Vec<String>,
    pub looks: usize,
    /// Words that were in sight when a page was opened.
    pub words: u64,
}

impl<'a> Eye<'a> {
    pub async fn of(browser: &'a Browser) -> anyhow::Result<Self> {
        browser.before_every_page(COUNTED).await?;
        Ok(Self { browser, glossary: Glossary::read()?, found: Vec::new(), looks: 0, words: 0 })
    }

    /// Once all that the page asked for is there.
    pub async fn at_rest(&self) -> anyhow::Result<()> {
        self.browser.told_later(AT_REST, &json!([])).await?;
        Ok(())
    }

    /// Measured and read, and looked at by axe.
    pub async fn look(&mut self, at: &str) -> anyhow::Result<()> {
        let problems = self.browser.problems(Rules::All).await?;
        self.found.extend(problems.into_iter().map(|what| format!("{at}: {what}")));
        self.looks += 1;
        self.measure(at).await
    }

    /// Measured and read.
    pub async fn measure(&mut self, at: &str) -> anyhow::Result<()> {
        let measured = self.browser.run(RULER).await?;
        let (small, words): (Vec<String>, Vec<String>) = serde_json::from_value(measured)?;
        let said = words.iter().filter_map(|line| self.glossary.wrong(line));
        let new: Vec<String> = small.into_iter().chain(said).collect();
        self.found.extend(new.into_iter().map(|what| format!("{at}: {what}")));
        Ok(())
    }

    /// So many words are read at most when it is opened.
    pub async fn read_at_once(&mut self, at: &str, most: u64) -> anyhow::Result<()> {
        let words = self.browser.run(IN_SIGHT).await?.as_u64().context("no number")?;
        if words > most {
            self.found.push(format!("{at}: {words} words in sight, {most} may be"));
        }
        self.words += words;
        Ok(())
    }

    /// The same in the other theme: it differs in nothing but colour.
    pub async fn look_in_daylight(&mut self, at: &str) -> anyhow::Result<()> {
        let theme = |name: &str| format!("document.documentElement.dataset.theme = '{name}'");
        self.browser.run(&theme("daylight")).await?;
        let problems = self.browser.problems(Rules::Contrast).await?;
        self.browser.run(&theme("shop")).await?;
        self.found.extend(problems.into_iter().map(|what| format!("{at} in daylight: {what}")));
        Ok(())
    }
}
