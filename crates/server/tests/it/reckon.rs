//! The reckoner's endpoints against the published examples, and with bad input.

use crate::common::Server;
use rocket::http::Status;
use rstest::rstest;
use serde_json::{Value, json};

/// How far each number of an answer may be from the example's.
fn tolerance(case: &Value, name: &str, expected: f64) -> f64 {
    if let Some(relative) = case["rel"].as_f64() {
        return (relative * expected.abs()).max(does_not_count(name));
    }
    case["abs"].as_f64().or_else(|| case["tol"][name].as_f64()).expect("each case has a tolerance")
}

/// Published: differences of a drawn body that do not count, in MPa, MPa √m and mm.
fn does_not_count(name: &str) -> f64 {
    match name {
        "mean_mpa" | "bend_mpa" | "most_mpa" | "mean_pull_mpa" | "k_mpa_sqrt_m" => 0.1,
        "moves_mm" => 0.003,
        _ => 0.0,
    }
}

fn compare(case: &Value, name: &str, expected: &Value, got: &Value, wrong: &mut Vec<String>) {
    match expected {
        Value::Object(fields) => {
            assert_eq!(got.as_object().map(serde_json::Map::len), Some(fields.len()), "{name}: {got}");
            for (inner, expected) in fields {
                compare(case, inner, expected, &got[inner], wrong);
            }
        }
        Value::Array(list) => {
            assert_eq!(got.as_array().map(Vec::len), Some(list.len()), "{name}: {got}");
            for (at, expected) in list.iter().enumerate() {
                compare(case, name, expected, &got[at], wrong);
            }
        }
        Value::Number(expected) => {
            let expected = expected.as_f64().unwrap();
            let off = (got.as_f64().unwrap_or(f64::NAN) - expected).abs();
            // Also catches what is not a number.
            if !matches!(
                off.partial_cmp(&tolerance(case, name, expected)),
                Some(std::cmp::Ordering::Less | std::cmp::Ordering::Equal)
            ) {
                wrong.push(format!(
                    "{} {name}: expected {expected}, got {got} for {}",
                    case["reckon"], case["in"]
                ));
            }
        }
        other => {
            if other != got {
                wrong.push(format!("{name}: expected {other}, got {got}"));
            }
        }
    }
}

#[rstest]
// Published: the trade reference, the examples of the reckonings of this program.
#[case::of_every_reckoning(include_str!("published/examples.json"))]
#[case::of_a_drawn_body(include_str!("published/body.json"))]
#[test_attr(rocket::async_test)]
async fn every_published_example_is_met(#[case] published: &str) {
    let cases: Vec<Value> = serde_json::from_str(published).unwrap();
    assert!(cases.len() >= 14);
    let server = Server::empty().await;
    let mut wrong = Vec::new();
    for case in &cases {
        let path = format!("/api/reckon/{}", case["reckon"].as_str().unwrap());
        let (status, answer) = server.post(&path, &case["in"]).await;
        assert_eq!(status, Status::Ok, "{path}: {answer}");
        for (name, expected) in case["out"].as_object().unwrap() {
            compare(case, name, expected, &answer[name], &mut wrong);
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

fn heating(change: impl FnOnce(&mut Value)) -> Value {
    let mut body = json!({
        "iron": "gray", "mass_kg": 22, "length_m": 0.42, "width_m": 0.3, "height_m": 0.22, "shape_factor": 1.0,
        "ambient_c": 20, "even_w": 4000, "local_w": 4050, "station": 0.25, "for_s": 1200,
    });
    change(&mut body);
    body
}

fn body(change: impl FnOnce(&mut Value)) -> Value {
    let mut body = json!({
        "iron": "gray", "outline_mm": [[0, 0], [300, 0], [300, 160], [0, 160]], "wall_mm": 12, "ambient_c": 20,
        "minutes": 5, "flames": [{"x": 150, "y": 80, "power_w": 1200}],
    });
    change(&mut body);
    body
}

#[rstest]
#[case::a_time_of_a_trillion("heating", heating(|b| b["for_s"] = json!(1e12)), "for_s")]
#[case::just_over_72_hours("heating", heating(|b| b["for_s"] = json!(259_200.1)), "for_s")]
#[case::no_mass("heating", heating(|b| b["mass_kg"] = json!(0)), "mass_kg")]
#[case::unknown_iron("heating", heating(|b| b["iron"] = json!("bronze")), "iron")]
#[case::words_for_a_number("heating", heating(|b| b["mass_kg"] = json!("heavy")), "mass_kg")]
#[case::flame_and_oven("heating", heating(|b| b["surroundings_c"] = json!(300)), "surroundings_c")]
#[case::wall_too_thick("stop-hole", json!({"wall_mm": 300.1, "found_by": "dye"}), "wall_mm")]
#[case::missing_field("stop-hole", json!({"wall_mm": 10}), "found_by")]
#[case::negative_wall("stop-hole", json!({"wall_mm": -3, "found_by": "dye"}), "wall_mm")]
#[case::sound_too_fast(
    "iron",
    json!({"family": "unknown", "era": "unknown", "open_crack": true,
        "evidence": [{"test": "sound", "value": 6301, "wall_mm": 14, "confidence": "sure"}]}),
    "evidence[0].value"
)]
#[case::no_such_outcome(
    "iron",
    json!({"family": "unknown", "era": "unknown", "open_crack": true,
        "evidence": [{"test": "punch", "outcome": "sings", "confidence": "sure"}]}),
    "evidence[0].outcome"
)]
#[case::a_way_of_finding_that_is_none("tip-learned", json!({"found_by": "luck", "beyond_mm": [1]}), "found_by")]
#[case::a_tip_on_another_part("tip-learned", json!({"found_by": "eye", "beyond_mm": [1, 41]}), "beyond_mm[1]")]
#[case::no_overlap_left("stitch", json!({"outline": "straight", "length_mm": 100, "pin_mm": 8, "overlap": 1}), "overlap")]
#[case::flat_groove("groove", json!({"form": "V", "depth_mm": 7, "angle_deg": 180}), "angle_deg")]
#[case::not_an_object("energy", json!([1, 2]), "")]
#[case::an_outline_that_crosses_itself("body-heat", body(|b| b["outline_mm"] = json!([[0, 0], [300, 160], [300, 0], [0, 160]])), "outline_mm")]
#[case::forty_metres("body-heat", body(|b| b["outline_mm"] = json!([[0, 0], [40_000, 0], [40_000, 160], [0, 160]])), "outline_mm")]
#[case::no_wall("body-heat", body(|b| b["wall_mm"] = json!(0)), "wall_mm")]
#[case::asked_in_a_hole("body-heat", body(|b| {
    b["holes_mm"] = json!([{"x": 150, "y": 80, "d": 40}]);
    b["at_mm"] = json!([[20, 20], [150, 80]]);
}), "at_mm[1]")]
#[case::a_thick_place_without_a_wall("body-heat", body(|b| b["thick_mm"] = json!([{"x": 150, "y": 80, "d": 40}])), "thick_mm[0].wall_mm")]
#[case::a_thick_place_off_the_face("body-heat", body(|b| b["thick_mm"] = json!([{"x": 400, "y": 80, "d": 40, "wall_mm": 30}])), "thick_mm[0]")]
#[case::a_flame_of_a_megawatt("body-tips", body(|b| b["flames"][0]["power_w"] = json!(1e6)), "flames[0].power_w")]
#[case::a_day_under_the_flame("body-tips", body(|b| b["minutes"] = json!(1440)), "minutes")]
#[case::a_crack_outside("body-tips", body(|b| b["cracks_mm"] = json!([[[150, 0], [150, 200]]])), "cracks_mm[0]")]
#[case::no_seam("body-pull", body(|b| b["shrink_mm"] = json!(0.1)), "cracks_mm")]
#[case::held_in_the_air("body-load", body(|b| {
    b["held"] = json!([{"edge_mm": [[0, 10], [300, 10]]}]);
    b["forces"] = json!([]);
    b["seam_mm"] = json!([[110, 0], [110, 160]]);
}), "held[0]")]
#[case::a_hole_that_is_not_there("body-load", body(|b| {
    b["held"] = json!([{"hole": 0}]);
    b["forces"] = json!([]);
    b["seam_mm"] = json!([[110, 0], [110, 160]]);
}), "held[0]")]
#[case::a_seam_beside_the_face("body-load", body(|b| {
    b["held"] = json!([{"edge_mm": [[0, 0], [0, 160]]}]);
    b["forces"] = json!([]);
    b["seam_mm"] = json!([[110, 200], [110, 260]]);
}), "seam_mm")]
#[case::a_tube_without_a_bore("strength", json!({"iron": "gray", "section": {"kind": "tube", "d_mm": 40, "wall_mm": 20}, "ratio": 0.8}), "section.wall_mm")]
#[case::a_shock_that_is_none("strength", json!({"iron": "gray", "section": {"kind": "round", "d_mm": 40}, "ratio": 0.8, "shock": "hard"}), "shock")]
#[test_attr(rocket::async_test)]
async fn what_cannot_be_is_told_at_its_field(#[case] path: &str, #[case] body: Value, #[case] field: &str) {
    let server = Server::empty().await;
    let (status, answer) = server.post(&format!("/api/reckon/{path}"), &body).await;
    assert_eq!(status, Status::UnprocessableEntity, "{answer}");
    let fields: Vec<&str> =
        answer["problems"].as_array().unwrap().iter().map(|p| p["field"].as_str().unwrap()).collect();
    assert!(fields.contains(&field), "{answer}");
    assert!(answer["problems"][0]["message"].as_str().is_some_and(|m| !m.is_empty()));
}

#[rocket::async_test]
async fn every_broken_field_is_told_at_once() {
    let server = Server::empty().await;
    let body = heating(|b| {
        b["mass_kg"] = json!(-1);
        b["for_s"] = json!(-1);
        b["ambient_c"] = json!(5000);
    });
    let (_, answer) = server.post("/api/reckon/heating", &body).await;
    assert_eq!(answer["problems"].as_array().unwrap().len(), 3, "{answer}");
}

#[rocket::async_test]
async fn a_cooling_that_takes_too_long_has_no_hours() {
    let server = Server::empty().await;
    let body = json!({
        "iron": "gray", "mass_kg": 20_000, "length_m": 3, "width_m": 1, "height_m": 1, "shape_factor": 1.0,
        "ambient_c": 20, "start_c": 600, "packing": "vermiculite", "thickness_m": 0.3,
    });
    let (status, answer) = server.post("/api/reckon/cooling", &body).await;
    assert_eq!(status, Status::Ok);
    assert_eq!(answer["hours_to_65c"], Value::Null);
}

#[rstest]
#[case::no_json("{\"wall_mm\": ", Status::BadRequest)]
#[case::empty("", Status::BadRequest)]
#[case::no_number("{\"wall_mm\": NaN, \"found_by\": \"dye\"}", Status::BadRequest)]
#[test_attr(rocket::async_test)]
async fn what_is_no_json_is_unreadable(#[case] body: &str, #[case] expected: Status) {
    let server = Server::empty().await;
    let (status, answer) = server.post_text("/api/reckon/stop-hole", body).await;
    assert_eq!(status, expected);
    assert!(answer["problems"][0]["would_be_right"].is_string());
}
