//! Every text the server can say of the sample jobs, in both systems, held against the glossary.

use anyhow::Context;
use rstest::rstest;
use serde_json::{Value, json};
use vanadin_e2e::{Glossary, Server};

/// What is an id, a key, or what somebody typed.
const NO_TEXT: [&str; 28] = [
    "id",
    "key",
    "typed",
    "about",
    "fact",
    "kind",
    "unit",
    "method",
    "school",
    "station",
    "sender",
    "test",
    "outcome",
    "source",
    "state",
    "verdict",
    "form",
    "amount",
    "shape",
    "certainty",
    "iron",
    "piece",
    "rule",
    "light",
    "frozen",
    "asks_for",
    "choices_of",
    "time_zone",
];

fn texts(value: &Value, found: &mut Vec<String>) {
    match value {
        Value::Object(fields) => {
            let said = fields.iter().filter(|(key, _)| !NO_TEXT.contains(&key.as_str()));
            said.for_each(|(_, value)| texts(value, found));
        }
        Value::Array(list) => list.iter().for_each(|value| texts(value, found)),
        // One word in small letters is an id.
        Value::String(text) if text.contains(' ') || text.starts_with(char::is_uppercase) => {
            found.push(text.clone());
        }
        Value::String(_) | Value::Null | Value::Bool(_) | Value::Number(_) => {}
    }
}

#[rstest]
#[case::metric("metric")]
#[case::imperial("imperial")]
#[tokio::test]
async fn one_word_for_one_thing(#[case] units: &str) -> anyhow::Result<()> {
    let server = Server::start(true)?;
    let client = reqwest::Client::new();
    let glossary = Glossary::read()?;
    let change =
        json!({ "change": { "kind": "set", "key": "shop.units", "typed": units, "shown_in": "metric" } });
    let said = client
        .post(server.url("/api/shop"))
        .header("Content-Type", "application/json")
        .body(change.to_string())
        .send()
        .await?;
    assert!(said.status().is_success(), "{}", said.status());
    let get = async |path: String| -> anyhow::Result<Value> {
        let text = client.get(server.url(&path)).send().await?.error_for_status()?.text().await?;
        serde_json::from_str(&text).with_context(|| path.clone())
    };
    let mut found = Vec::new();
    texts(&get("/api/shop".to_owned()).await?, &mut found);
    texts(&get(format!("/api/tables/{units}")).await?, &mut found);
    let rack = get("/api/rack".to_owned()).await?;
    texts(&rack, &mut found);
    for line in rack["lines"].as_array().context("no lines")? {
        let job = format!("/api/jobs/{}", line["id"].as_str().context("no id")?);
        texts(&get(job.clone()).await?, &mut found);
        texts(&get(format!("{job}/history")).await?, &mut found);
        for test in ["spark", "punch", "drill", "ring", "fracture", "file", "magnet"] {
            texts(&get(format!("{job}/answers/{test}")).await?, &mut found);
        }
        for iron in ["gray", "ductile", "malleable", "white", "ni_resist", "steel"] {
            texts(&get(format!("{job}/as-if/{iron}")).await?, &mut found);
        }
    }
    assert!(found.len() > 5_000, "every text was looked at: {}", found.len());
    found.sort();
    found.dedup();
    let wrong: Vec<String> = found.iter().filter_map(|text| glossary.wrong(text)).collect();
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    Ok(())
}
