//! What is pressed, typed and chosen by name.

use anyhow::{Context, bail};
use serde_json::json;
use thirtyfour::prelude::*;

use super::{Browser, PRESS_AGAIN_AFTER, eventually, quoted};

/// A page that is drawn anew moves what is to be pressed from under the finger: so often it is pressed again.
const PRESSES_MOST: u32 = 10;

/// Where an element is pressed; nothing where it cannot be. Until `letGo` nothing but it hears of a press: a hand that
/// presses as soon as it sees is quicker than any person, and would press what comes up there instead.
const AIM: &str = "const [it] = arguments;
    window.letGo?.();
    it.scrollIntoView({ block: 'nearest', behavior: 'instant' });
    const box = it.getClientRects()[0];
    if (box === undefined) return null;
    const x = (Math.max(box.left, 0) + Math.min(box.right, innerWidth)) / 2;
    const y = (Math.max(box.top, 0) + Math.min(box.bottom, innerHeight)) / 2;
    const isIt = (on) => on instanceof Element && (it.contains(on) || on.closest('label')?.control === it);
    if (!isIt(document.elementFromPoint(x, y))) return null;
    // What is shut off hears nothing.
    let heard = it.matches(':disabled');
    const guard = (event) => {
      if (!isIt(event.target)) {
        event.preventDefault();
        event.stopImmediatePropagation();
      } else if (event.type === 'click') heard = true;
    };
    const kinds = ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click'];
    for (const kind of kinds) window.addEventListener(kind, guard, true);
    window.letGo = () => {
      for (const kind of kinds) window.removeEventListener(kind, guard, true);
      return heard;
    };
    return [x, y];";

impl Browser {
    /// Presses it where a person would have scrolled it to: not under what lies on the page. With the mouse, as the
    /// machine gives it: the driver's own press takes half as much again of the machine's time.
    pub async fn click(&self, element: &WebElement) -> anyhow::Result<()> {
        for _ in 0..PRESSES_MOST {
            let at = self.driver.execute(AIM, vec![element.to_json()?]).await?;
            let at: Option<(f64, f64)> = at.convert()?;
            self.pointer("mouse", &[at.context("it lies under something, or out of sight")?]).await?;
            // Nothing is known of it on another page: the press led there.
            if self.run("return window.letGo === undefined || window.letGo()").await? == json!(true) {
                return Ok(());
            }
        }
        bail!("it was never where it was pressed")
    }

    /// A button or link by its accessible name or its words.
    pub async fn button(&self, name: &str) -> anyhow::Result<WebElement> {
        let path = format!(
            "//*[self::button or self::a or @role='button' or @role='radio'][@aria-label={0} or normalize-space(.)={0}]",
            quoted(name)
        );
        self.find(By::XPath(path)).await
    }

    pub async fn press(&self, name: &str) -> anyhow::Result<()> {
        // A page may be drawn anew between finding and pressing.
        eventually(&format!("press {name}"), async || Ok(self.click(&self.button(name).await?).await.is_ok()))
            .await
    }

    /// Opens a way at the station Method, one that is ruled out likewise.
    pub async fn way(&self, name: &str) -> anyhow::Result<()> {
        let path = format!(
            "//button[@aria-expanded][descendant::*[self::span or self::b][normalize-space(.)={}]]",
            quoted(name)
        );
        // Those further back are unfolded first.
        let unfold = "[...document.querySelectorAll('button')].find((b) => /further back$/.test(b.textContent))?.click()";
        eventually(&format!("open {name}"), async || {
            let there = self.driver.find_all(By::XPath(path.as_str())).await?;
            let Some(way) = there.first() else {
                self.run(unfold).await?;
                return Ok(false);
            };
            Ok(self.click(way).await.is_ok())
        })
        .await
    }

    /// Opens a thing in the stores.
    pub async fn thing(&self, name: &str) -> anyhow::Result<()> {
        let path =
            format!("//button[@data-testid='thing'][descendant::span[normalize-space(.)={}]]", quoted(name));
        eventually(&format!("open {name}"), async || {
            Ok(self.click(&self.find(By::XPath(path.as_str())).await?).await.is_ok())
        })
        .await
    }

    /// To a station by its name on the heat line.
    pub async fn station(&self, word: &str) -> anyhow::Result<()> {
        let path = format!("//nav[@aria-label='Stations']//a[normalize-space(.)={}]", quoted(word));
        eventually(&format!("to {word}"), async || {
            Ok(self.click(&self.find(By::XPath(path.as_str())).await?).await.is_ok())
        })
        .await
    }

    /// Presses what is found so.
    pub async fn press_what(&self, by: By) -> anyhow::Result<()> {
        eventually(&format!("press {by:?}"), async || {
            Ok(self.click(&self.find(by.clone()).await?).await.is_ok())
        })
        .await
    }

    pub async fn press_test_id(&self, id: &str) -> anyhow::Result<()> {
        let by = || By::Css(format!("[data-testid='{id}']"));
        eventually(&format!("press {id}"), async || Ok(self.click(&self.find(by()).await?).await.is_ok()))
            .await
    }

    /// The field with this label.
    pub async fn field(&self, label: &str) -> anyhow::Result<WebElement> {
        let path = format!("//label[span[normalize-space(.)={}]]", quoted(label));
        let id = self.find(By::XPath(path)).await?.attr("for").await?.context("a label for nothing")?;
        self.find(By::Id(id)).await
    }

    /// Types into the field with this label and presses Enter.
    pub async fn type_in(&self, label: &str, text: &str) -> anyhow::Result<()> {
        let mut found = None;
        // A page may be drawn anew between finding and pressing; what has the keys stays.
        eventually(&format!("into {label}"), async || {
            let field = self.field(label).await?;
            self.click(&field).await?;
            found = Some(field);
            Ok(true)
        })
        .await?;
        let field = found.with_context(|| format!("no field {label}"))?;
        field.send_keys(Key::Control + "a").await?;
        if text.is_empty() {
            field.send_keys(Key::Backspace + "").await?;
        } else {
            field.send_keys(text).await?;
        }
        field.send_keys(Key::Enter + "").await?;
        Ok(())
    }

    /// Chooses from the list that the field with this label opens.
    pub async fn pick(&self, label: &str, choice: &str) -> anyhow::Result<()> {
        let option = format!("//*[@data-list]//button[normalize-space(.)={}]", quoted(choice));
        let mut pressed = tokio::time::Instant::now() - PRESS_AGAIN_AFTER;
        // The page may be drawn anew under the finger: a person presses again.
        eventually(&format!("choose {choice} of {label}"), async || {
            if let Ok(option) = self.driver.find(By::XPath(option.as_str())).await {
                self.click(&option).await?;
                return Ok(true);
            }
            if pressed.elapsed() >= PRESS_AGAIN_AFTER {
                pressed = tokio::time::Instant::now();
                self.click(&self.field(label).await?).await?;
            }
            Ok(false)
        })
        .await?;
        let gone = || By::Css("[data-list]");
        eventually("the list closes", async || Ok(self.driver.find(gone()).await.is_err())).await
    }

    /// Chooses among the choices side by side under this name.
    pub async fn choose(&self, group: &str, choice: &str) -> anyhow::Result<()> {
        let path = format!(
            "//*[@role='group' or @role='radiogroup' or @role='toolbar'][@aria-label={0} or @aria-labelledby=//*[span[normalize-space(.)={0}]]/@id]//button[normalize-space(.)={1}]",
            quoted(group),
            quoted(choice)
        );
        eventually(&format!("choose {choice} of {group}"), async || {
            Ok(self.click(&self.find(By::XPath(path.as_str())).await?).await.is_ok())
        })
        .await
    }

    /// Opens a part of a sheet that lies folded.
    pub async fn unfold(&self, title: &str) -> anyhow::Result<()> {
        let path = format!("//section[@aria-label={}]/button[@aria-expanded]", quoted(title));
        eventually(&format!("unfold {title}"), async || {
            let fold = self.driver.find(By::XPath(path.as_str())).await?;
            if fold.attr("aria-expanded").await?.as_deref() == Some("true") {
                return Ok(true);
            }
            self.click(&fold).await?;
            Ok(false)
        })
        .await
    }

    /// A key pressed on the page itself.
    pub async fn key(&self, key: &str) -> anyhow::Result<()> {
        self.driver.action_chain().send_keys(key).perform().await?;
        Ok(())
    }

    /// Opens what lies folded under a line that begins like this.
    pub async fn unfold_details(&self, begins: &str) -> anyhow::Result<()> {
        let path = format!("//summary[starts-with(normalize-space(.),{})]", quoted(begins));
        eventually(&format!("unfold {begins}"), async || {
            Ok(self.click(&self.find(By::XPath(path.as_str())).await?).await.is_ok())
        })
        .await
    }
}
