//! What is pressed, typed and chosen by name.

use anyhow::{Context, bail};
use serde_json::json;
use thirtyfour::common::command::Selector;
use thirtyfour::prelude::*;

use super::{Browser, FIRST_SHOWN, PRESS_AGAIN_AFTER, eventually, quoted};

/// A page that is drawn anew moves what is to be pressed from under the finger: so often it is pressed again.
const PRESSES_MOST: u32 = 10;

/// Where an element is pressed; nothing where it cannot be. Until `letGo` nothing but it hears of a press: a hand that
/// presses as soon as it sees is quicker than any person, and would press what comes up there instead.
const AIM: &str = "const aim = (it) => {
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
      return [x, y];
    };";

/// A button or link by its accessible name or its words.
fn named(name: &str) -> By {
    By::XPath(format!(
        "//*[self::button or self::a or @role='button' or @role='radio'][@aria-label={0} or normalize-space(.)={0}]",
        quoted(name)
    ))
}

/// A field by its label.
fn field_of(label: &str) -> String {
    format!("id(//label[span[normalize-space(.)={}]]/@for)", quoted(label))
}

impl Browser {
    /// Presses it where a person would have scrolled it to: not under what lies on the page. With the mouse, as the
    /// machine gives it: the driver's own press takes half as much again of the machine's time.
    pub async fn click(&self, element: &WebElement) -> anyhow::Result<()> {
        let aim = format!("{AIM} return aim(arguments[0]);");
        for _ in 0..PRESSES_MOST {
            let at = self.driver.execute(&aim, vec![element.to_json()?]).await?;
            if self.pressed(at.convert()?).await? {
                return Ok(());
            }
        }
        bail!("it was never where it was pressed")
    }

    /// Whether what was aimed at heard the press.
    async fn pressed(&self, at: Option<(f64, f64)>) -> anyhow::Result<bool> {
        self.pointer("mouse", &[at.context("it is not there, or lies under something, or out of sight")?])
            .await?;
        // Nothing is known of it on another page: the press led there.
        Ok(self.run("return window.letGo === undefined || window.letGo()").await? == json!(true))
    }

    /// Presses what is found so, once it is there and shown; what is drawn anew between finding and pressing is found
    /// again.
    async fn press_found(&self, what: &str, by: By) -> anyhow::Result<()> {
        eventually(what, async || self.press_now(by.clone()).await)
            .await
            .with_context(|| format!("never pressed: {by:?}"))
    }

    /// Presses what is found so as it is now; whether it heard it.
    async fn press_now(&self, by: By) -> anyhow::Result<bool> {
        let found = Selector::from(by);
        let aim = format!(
            "{FIRST_SHOWN} {AIM} const it = first(...arguments); return it === null ? null : aim(it);"
        );
        let at = serde_json::from_value(self.told(&aim, &json!([found.name, found.query])).await?)?;
        self.pressed(at).await
    }

    /// Whether anything is found so at this moment, shown or not.
    async fn has(&self, by: By) -> anyhow::Result<bool> {
        let found = Selector::from(by);
        let any = format!("{FIRST_SHOWN} return there(...arguments).length > 0;");
        Ok(self.told(&any, &json!([found.name, found.query])).await? == json!(true))
    }

    /// A button or link by its accessible name or its words.
    pub async fn button(&self, name: &str) -> anyhow::Result<WebElement> {
        self.find(named(name)).await
    }

    pub async fn press(&self, name: &str) -> anyhow::Result<()> {
        self.press_found(&format!("press {name}"), named(name)).await
    }

    /// Opens a way at the station Method, one that is ruled out likewise.
    pub async fn way(&self, name: &str) -> anyhow::Result<()> {
        let path = format!(
            "//button[@aria-expanded][descendant::*[self::span or self::b][normalize-space(.)={}]]",
            quoted(name)
        );
        // Those further back are unfolded first.
        let unfold = "[...document.querySelectorAll('button')].find((b) => /further back$/.test(b.textContent))?.click()";
        eventually(&format!("see {name}"), async || {
            if !self.has(By::XPath(path.as_str())).await? {
                self.run(unfold).await?;
                return Ok(false);
            }
            Ok(true)
        })
        .await?;
        self.press_found(&format!("open {name}"), By::XPath(path)).await
    }

    /// Opens a thing in the stores.
    pub async fn thing(&self, name: &str) -> anyhow::Result<()> {
        let path =
            format!("//button[@data-testid='thing'][descendant::span[normalize-space(.)={}]]", quoted(name));
        self.press_found(&format!("open {name}"), By::XPath(path)).await
    }

    /// To a station by its name on the heat line.
    pub async fn station(&self, word: &str) -> anyhow::Result<()> {
        let path = format!("//nav[@aria-label='Stations']//a[normalize-space(.)={}]", quoted(word));
        self.press_found(&format!("to {word}"), By::XPath(path)).await
    }

    /// Presses what is found so.
    pub async fn press_what(&self, by: By) -> anyhow::Result<()> {
        self.press_found(&format!("press {by:?}"), by).await
    }

    pub async fn press_test_id(&self, id: &str) -> anyhow::Result<()> {
        self.press_what(By::Css(format!("[data-testid='{id}']"))).await
    }

    /// The field with this label.
    pub async fn field(&self, label: &str) -> anyhow::Result<WebElement> {
        self.find(By::XPath(field_of(label))).await
    }

    /// Types into the field with this label and presses Enter.
    pub async fn type_in(&self, label: &str, text: &str) -> anyhow::Result<()> {
        // What has the keys stays, also where the page is drawn anew.
        self.press_found(&format!("into {label}"), By::XPath(field_of(label))).await?;
        let all = self.driver.action_chain().key_down(Key::Control).send_keys("a").key_up(Key::Control);
        let typed = if text.is_empty() { Key::Backspace + "" } else { text.into() };
        all.send_keys(typed).send_keys(Key::Enter + "").perform().await?;
        Ok(())
    }

    /// Chooses from the list that the field with this label opens.
    pub async fn pick(&self, label: &str, choice: &str) -> anyhow::Result<()> {
        let option = format!("//*[@data-list]//button[normalize-space(.)={}]", quoted(choice));
        let mut pressed = tokio::time::Instant::now() - PRESS_AGAIN_AFTER;
        // The page may be drawn anew under the finger: a person presses again.
        eventually(&format!("choose {choice} of {label}"), async || {
            if self.has(By::XPath(option.as_str())).await? {
                return self.press_now(By::XPath(option.as_str())).await;
            }
            if pressed.elapsed() >= PRESS_AGAIN_AFTER {
                pressed = tokio::time::Instant::now();
                self.press_now(By::XPath(field_of(label))).await?;
            }
            Ok(false)
        })
        .await?;
        eventually("the list closes", async || Ok(!self.has(By::Css("[data-list]")).await?)).await
    }

    /// Chooses among the choices side by side under this name.
    pub async fn choose(&self, group: &str, choice: &str) -> anyhow::Result<()> {
        let path = format!(
            "//*[@role='group' or @role='radiogroup' or @role='toolbar'][@aria-label={0} or @aria-labelledby=//*[span[normalize-space(.)={0}]]/@id]//button[normalize-space(.)={1}]",
            quoted(group),
            quoted(choice)
        );
        self.press_found(&format!("choose {choice} of {group}"), By::XPath(path)).await
    }

    /// Opens a part of a sheet that lies folded.
    pub async fn unfold(&self, title: &str) -> anyhow::Result<()> {
        let path = format!("//section[@aria-label={}]/button[@aria-expanded]", quoted(title));
        eventually(&format!("unfold {title}"), async || {
            if self.has(By::XPath(format!("{path}[@aria-expanded='true']"))).await? {
                return Ok(true);
            }
            self.press_now(By::XPath(path.as_str())).await?;
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
        self.press_found(&format!("unfold {begins}"), By::XPath(path)).await
    }
}
