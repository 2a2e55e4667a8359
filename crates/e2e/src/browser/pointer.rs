//! Fingers, mouse and keys as the machine gives them.

use std::time::{SystemTime, UNIX_EPOCH};

use anyhow::Context;
use serde_json::json;

use super::Browser;

/// So long after the first a fast second press comes, in s.
const APART_S: f64 = 0.1;

impl Browser {
    /// Enter, held down until it has repeated itself so often.
    pub async fn hold_enter(&self, times: u32) -> anyhow::Result<()> {
        let event = |kind: &str, again: bool| {
            json!({ "type": kind, "key": "Enter", "code": "Enter", "windowsVirtualKeyCode": 13,
                    "text": "\r", "autoRepeat": again })
        };
        for at in 0..=times {
            self.cdp("Input.dispatchKeyEvent", event("keyDown", at > 0)).await?;
        }
        self.cdp("Input.dispatchKeyEvent", json!({ "type": "keyUp", "key": "Enter", "code": "Enter" }))
            .await?;
        Ok(())
    }

    /// Two fast presses at one place of the window, as of a hand that is not sure of the first.
    pub async fn press_twice(&self, x: f64, y: f64) -> anyhow::Result<()> {
        // As fast as a hand is, however long the page takes to be drawn in between: the events carry their own time.
        let first_s = SystemTime::now().duration_since(UNIX_EPOCH)?.as_secs_f64();
        for count in 1..=2 {
            let at_s = first_s + APART_S * f64::from(count - 1);
            for kind in ["mousePressed", "mouseReleased"] {
                let event = json!({
                    "type": kind, "x": x, "y": y, "button": "left", "clickCount": count, "timestamp": at_s
                });
                self.cdp("Input.dispatchMouseEvent", event).await?;
            }
            self.drawn().await?;
        }
        Ok(())
    }

    /// A place of the face that is on the map, in pixels of the window.
    pub async fn on_the_map(&self, x_mm: f64, y_mm: f64) -> anyhow::Result<(f64, f64)> {
        let script = format!(
            "const map = document.querySelector('[data-map]')
             const box = map.getBoundingClientRect()
             const {{ scale, left, top }} = map.dataset
             return [box.left + +left + {x_mm} * scale, box.top + +top + {y_mm} * scale]"
        );
        let at = self.run(&script).await?;
        Ok((at[0].as_f64().context("x")?, at[1].as_f64().context("y")?))
    }

    /// Pen, finger or mouse: down at the first of these places, over the others, up at the last. In pixels
    /// of the window; `kind` is mouse or touch.
    pub async fn pointer(&self, kind: &str, places: &[(f64, f64)]) -> anyhow::Result<()> {
        let Some((first, last)) = places.first().zip(places.last()) else { return Ok(()) };
        let touch = kind == "touch";
        let event = if touch { "Input.dispatchTouchEvent" } else { "Input.dispatchMouseEvent" };
        let at = |what: [&str; 2], (x, y): (f64, f64), held: bool| {
            if touch {
                let points = if held { json!([{ "x": x, "y": y }]) } else { json!([]) };
                json!({ "type": what[1], "touchPoints": points })
            } else {
                let button = if what[0] == "mouseMoved" && !held { "none" } else { "left" };
                json!({ "type": what[0], "x": x, "y": y, "button": button, "buttons": u8::from(held), "clickCount": 1 })
            }
        };
        if !touch {
            self.cdp(event, at(["mouseMoved", ""], *first, false)).await?;
        }
        self.cdp(event, at(["mousePressed", "touchStart"], *first, true)).await?;
        for place in &places[1..] {
            self.cdp(event, at(["mouseMoved", "touchMove"], *place, true)).await?;
        }
        self.cdp(event, at(["mouseReleased", "touchEnd"], *last, false)).await?;
        Ok(())
    }
}
