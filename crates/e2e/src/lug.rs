//! A small part that is ready to be lit.

use std::collections::BTreeMap;
use std::sync::{Mutex, PoisonError};

use anyhow::Context;
use serde_json::{Value, json};
use uuid::Uuid;

use crate::{Browser, Server};

/// A lug of half a kilo: it heats and cools in minutes, and the job clock runs sixty times.
const LUG: &[(&str, &str)] = &[
    ("part.name", "Bell clapper lug"),
    ("part.family", "machine_frame"),
    ("part.era", "before_1949"),
    ("part.safety_class", "none"),
    ("part.mass", "0.5 kg"),
    ("part.length", "120"),
    ("part.width", "60"),
    ("part.height", "12"),
    ("part.shape", "solid_block"),
    ("part.wall", "12"),
    ("part.sides", "both"),
    ("part.service_temperature", "20 C"),
    ("part.fluid_tight", "no"),
    ("part.oil", "clean"),
    ("part.old_filler", "none"),
];

/// What is typed into a field.
#[must_use]
pub fn set(key: &str, typed: &str) -> Value {
    json!({ "kind": "set", "key": key, "typed": typed, "shown_in": "metric" })
}

/// A lug that was made ready, as its file, by its school: thirty words, and thirty plans, for each test that wants one.
static READY: Mutex<BTreeMap<String, Value>> = Mutex::new(BTreeMap::new());

/// A lug that is ready to be lit, made without the forms.
///
/// # Errors
/// Something of it is refused.
pub async fn ready_lug(browser: &Browser, server: &Server, school: &str) -> anyhow::Result<String> {
    browser.at(server).await?;
    let made = READY.lock().unwrap_or_else(PoisonError::into_inner).get(school).cloned();
    let Some(file) = made else {
        let job = described(browser, school).await?;
        let (_, file) = browser.fetch("GET", &format!("/api/jobs/{job}/export"), Value::Null).await?;
        READY.lock().unwrap_or_else(PoisonError::into_inner).insert(school.to_owned(), file);
        return Ok(job);
    };
    let (_, opened) = browser.fetch("POST", "/api/import", file).await?;
    Ok(opened["id"].as_str().with_context(|| opened.to_string())?.to_owned())
}

async fn described(browser: &Browser, school: &str) -> anyhow::Result<String> {
    let job = Uuid::new_v4().to_string();
    browser.fetch("POST", "/api/jobs", json!({ "id": job })).await?;
    for (key, typed) in LUG {
        browser.say(&job, set(key, typed)).await?;
    }
    for (test, outcome) in [("punch", "crumbles_no_rim"), ("drill", "powder_and_crumbs")] {
        let seen = json!({ "kind": "observe", "test": test, "outcome": outcome, "confidence": "sure", "spot": "rim" });
        browser.say(&job, seen).await?;
    }
    browser.say(&job, json!({ "kind": "add_crack" })).await?;
    let added = browser.view(&job).await?;
    let crack = added["plan"]["cracks"][0]["id"].as_str().context("no crack")?.to_owned();
    for (field, typed) in [("length", "40"), ("found_by", "dye"), ("end_a", "edge"), ("end_b", "tip")] {
        browser.say(&job, set(&format!("crack.{crack}.{field}"), typed)).await?;
    }
    for (key, typed) in [
        ("method.choice", "arc_nickel"),
        ("method.school", school),
        ("heat.source", "oxy_acetylene_small"),
        ("cooling.packing", "air"),
        ("prep.done", "holes,groove,inside,penetrant"),
    ] {
        browser.say(&job, set(key, typed)).await?;
    }
    Ok(job)
}
