//! The reckoner with any numbers: an answer or a problem at its field, never a broken server.

use crate::common::Server;
use rocket::http::Status;
use serde_json::{Value, json};

/// Values that have broken programs before.
const ODD: &[f64] = &[
    -1e308, -1.0, -0.0, 0.0, 1e-308, 1e-9, 0.009, 0.01, 0.3333, 0.5, 0.999, 1.0, 1.3, 2.0, 5.0, 14.0, 65.0,
    170.0, 171.0, 300.0, 1400.0, 1400.1, 20_000.0, 259_200.0, 1e12, 1e308,
];

fn bodies() -> Vec<(&'static str, Value)> {
    vec![
        ("stop-hole", json!({ "wall_mm": 9, "found_by": "dye" })),
        ("drill-speed", json!({ "iron": "gray", "drill_mm": 6.4, "tool": "hss" })),
        ("groove", json!({ "form": "V", "depth_mm": 7, "angle_deg": 70, "root_gap_mm": 1, "cap_mm": 1 })),
        ("groove", json!({ "form": "U", "depth_mm": 10, "angle_deg": 30, "root_radius_mm": 3 })),
        ("stitch", json!({ "outline": "straight", "length_mm": 140, "pin_mm": 8, "overlap": 0.3333 })),
        ("stitch", json!({ "outline": "closed", "length_mm": 260, "pin_mm": 6, "overlap": 0.05 })),
        ("energy", json!({ "iron": "gray", "mass_kg": 18, "from_c": 20, "to_c": 280 })),
        (
            "heating",
            json!({ "iron": "gray", "mass_kg": 22, "length_m": 0.42, "width_m": 0.3, "height_m": 0.22,
                "shape_factor": 1.0, "ambient_c": 20, "even_w": 4000, "local_w": 4050, "station": 0.25, "for_s": 600 }),
        ),
        (
            "heating",
            json!({ "iron": "gray", "mass_kg": 22, "length_m": 0.42, "width_m": 0.3, "height_m": 0.22,
                "shape_factor": 1.3, "ambient_c": 20, "surroundings_c": 280, "for_s": 600 }),
        ),
        (
            "cooling",
            json!({ "iron": "gray", "mass_kg": 4, "length_m": 0.2, "width_m": 0.14, "height_m": 0.08,
                "shape_factor": 1.0, "ambient_c": 20, "start_c": 220, "packing": "blanket", "thickness_m": 0.025 }),
        ),
        (
            "iron",
            json!({ "family": "unknown", "era": "unknown", "open_crack": true,
                "evidence": [{ "test": "sound", "value": 5590, "wall_mm": 14, "confidence": "sure" }] }),
        ),
    ]
}

/// Every number of an answer is one: JSON has no NaN, so a broken figure would be null.
fn numbers_are_finite(answer: &Value, path: &str) {
    match answer {
        Value::Object(fields) => fields.iter().for_each(|(key, value)| {
            // Only what is said to be missing may be.
            let may_be_missing = key.starts_with("hours_to")
                || key.starts_with("after_")
                || ["pilot_mm", "well_past_mm"].contains(&key.as_str());
            assert!(may_be_missing || !value.is_null(), "{path}.{key} is null");
            numbers_are_finite(value, &format!("{path}.{key}"));
        }),
        Value::Array(items) => items.iter().for_each(|item| numbers_are_finite(item, path)),
        _ => {}
    }
}

#[rocket::async_test]
async fn odd_numbers_are_answered_or_refused_at_their_field() {
    let server = Server::empty().await;
    let (mut answered, mut refused) = (0, 0);
    for (reckon, body) in bodies() {
        let numbers: Vec<String> = body
            .as_object()
            .unwrap()
            .iter()
            .filter(|(_, value)| value.is_number())
            .map(|(key, _)| key.clone())
            .collect();
        for field in numbers {
            for &odd in ODD {
                let mut body = body.clone();
                body[&field] = json!(odd);
                let (status, answer) = server.post(&format!("/api/reckon/{reckon}"), &body).await;
                match status.code {
                    200 => {
                        numbers_are_finite(&answer, reckon);
                        answered += 1;
                    }
                    422 => {
                        let problem = &answer["problems"][0];
                        assert_eq!(problem["field"], field, "{reckon} {odd}: {answer}");
                        assert!(!problem["would_be_right"].as_str().unwrap().is_empty(), "{answer}");
                        refused += 1;
                    }
                    other => panic!("{reckon} with {field} {odd}: {other} {answer}"),
                }
            }
        }
    }
    assert!(answered > 200 && refused > 200, "{answered} answered, {refused} refused");
}

#[rocket::async_test]
async fn a_field_of_another_kind_is_refused_at_its_field() {
    let server = Server::empty().await;
    for (reckon, body) in bodies() {
        for field in body.as_object().unwrap().keys() {
            for wrong in [json!("a lot"), json!({}), json!([1]), json!(true)] {
                if wrong == json!(true) && field == "open_crack" || wrong == json!([1]) && field == "evidence"
                {
                    continue;
                }
                let mut body = body.clone();
                body[field] = wrong;
                let (status, answer) = server.post(&format!("/api/reckon/{reckon}"), &body).await;
                assert_eq!(status, Status::UnprocessableEntity, "{reckon} {field}: {answer}");
                let at = answer["problems"][0]["field"].as_str().unwrap();
                assert!(at.starts_with(field.as_str()), "{reckon} {field}: {answer}");
            }
        }
    }
}

#[rocket::async_test]
async fn too_much_evidence_is_refused() {
    let server = Server::empty().await;
    let look = json!({ "test": "punch", "outcome": "raises_rim", "confidence": "sure" });
    for (count, expected) in [(500, Status::Ok), (501, Status::UnprocessableEntity)] {
        let evidence = vec![look.clone(); count];
        let body = json!({ "family": "unknown", "era": "unknown", "open_crack": true, "evidence": evidence });
        assert_eq!(server.post("/api/reckon/iron", &body).await.0, expected, "{count}");
    }
}

#[rocket::async_test]
async fn the_document_describes_every_answer_in_the_one_shape_for_errors() {
    let server = Server::empty().await;
    let (status, document) = server.get("/api/openapi.json").await;
    assert_eq!(status, Status::Ok);
    let paths = document["paths"].as_object().unwrap();
    for reckon in ["iron", "stop-hole", "drill-speed", "groove", "stitch", "energy", "heating", "cooling"] {
        let answers = &paths[&format!("/api/reckon/{reckon}")]["post"]["responses"];
        assert!(answers["200"]["description"].as_str().is_some_and(|words| !words.is_empty()), "{reckon}");
        let shape = &answers["422"]["content"]["application/json"]["schema"]["$ref"];
        assert_eq!(shape, "#/components/schemas/ProblemsBody", "{reckon}");
    }
    let problem = &document["components"]["schemas"]["FieldProblem"]["required"];
    for field in ["field", "message", "would_be_right"] {
        assert!(problem.as_array().unwrap().contains(&json!(field)), "{problem}");
    }
}
