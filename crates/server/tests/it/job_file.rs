//! The job as one file: out, in again, and what a damaged one does.

use crate::common::{Chance, Server, set};
use rocket::http::Status;
use rstest::rstest;
use serde_json::{Value, json};

/// The job of the sample shop that has these words, exported.
async fn exported(server: &Server, words: &str) -> (String, Value) {
    let (_, rack) = server.get(&format!("/api/rack?find={words}")).await;
    let id = rack["lines"][0]["id"].as_str().expect("a job has these words").to_owned();
    let (status, file) = server.get(&format!("/api/jobs/{id}/export")).await;
    assert_eq!(status, Status::Ok);
    (id, file)
}

/// Where two documents differ first, and how.
fn first_difference(one: &Value, other: &Value, path: &str) -> Option<String> {
    match (one, other) {
        (Value::Object(a), Value::Object(b)) if a.len() == b.len() => {
            a.iter().find_map(|(key, value)| first_difference(value, &b[key], &format!("{path}.{key}")))
        }
        (Value::Array(a), Value::Array(b)) if a.len() == b.len() => a
            .iter()
            .zip(b)
            .enumerate()
            .find_map(|(at, (a, b))| first_difference(a, b, &format!("{path}[{at}]"))),
        (a, b) if a == b => None,
        (a, b) => Some(format!("{path}: {:.200} is not {:.200}", a.to_string(), b.to_string())),
    }
}

#[rstest]
#[case::finished("incline")]
#[case::with_two_rounds_and_a_picture("biscuit")]
#[case::with_a_mark_and_a_picture("glasshouse")]
#[case::with_a_neighbour("bell")]
#[case::refused("winch")]
#[test_attr(rocket::async_test)]
async fn a_job_comes_back_equal_in_everything_but_its_id(#[case] words: &str) {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (id, file) = exported(&server, words).await;
    assert_eq!((&file["format"], &file["version"]), (&json!("vanadin-job"), &json!(19)));
    let elsewhere = Server::empty().await;
    let (status, imported) = elsewhere.post("/api/import", &file).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let new_id = imported["id"].as_str().unwrap();
    assert_ne!(new_id, id);
    let (_, mut before) = server.get(&format!("/api/jobs/{id}")).await;
    let (_, mut after) = elsewhere.get(&format!("/api/jobs/{new_id}")).await;
    for view in [&mut before, &mut after] {
        view["job"]["id"] = Value::Null;
    }
    assert_eq!(first_difference(&before["job"], &after["job"], "job"), None);
    // And the file of the copy is the file.
    let (_, again) = elsewhere.get(&format!("/api/jobs/{new_id}/export")).await;
    assert_eq!(first_difference(&file, &again, "file"), None);
}

#[rocket::async_test]
async fn importing_never_replaces_a_job() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, file) = exported(&server, "incline").await;
    let (_, first) = server.post("/api/import", &file).await;
    let (_, second) = server.post("/api/import", &file).await;
    assert_ne!(first["id"], second["id"]);
    let (_, rack) = server.get("/api/rack?find=incline").await;
    assert_eq!(rack["lines"].as_array().unwrap().len(), 3);
}

#[rocket::async_test]
async fn a_file_to_look_at_has_no_pictures_and_is_no_job_to_open() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (job, whole) = exported(&server, "glasshouse").await;
    assert!(!whole["pictures"].as_array().unwrap().is_empty());
    let (status, file) = server.get(&format!("/api/jobs/{job}/export?pictures=no")).await;
    assert_eq!((status, &file["pictures"]), (Status::Ok, &json!([])));
    assert_eq!(file["facts"], whole["facts"]);
    let (status, answer) = server.post("/api/import", &file).await;
    assert_eq!((status, &answer["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("pictures")));
}

fn damaged(mut file: Value, damage: impl FnOnce(&mut Value)) -> Value {
    damage(&mut file);
    file
}

#[rocket::async_test]
async fn a_damaged_file_is_refused_at_its_field_and_nothing_is_stored() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, file) = exported(&server, "incline").await;
    let (_, before) = server.get("/api/rack").await;
    for (file, field) in [
        (damaged(file.clone(), |f| f["format"] = json!("recipe")), "format"),
        (damaged(file.clone(), |f| f["version"] = json!(20)), "version"),
        (damaged(file.clone(), |f| f["facts"][3]["revision"] = json!(9)), "facts[3].revision"),
        (damaged(file.clone(), |f| f["facts"][3]["id"] = f["facts"][2]["id"].clone()), "facts[3].id"),
        (damaged(file.clone(), |f| f["facts"][3]["change"]["typed"] = json!("a lot")), "facts[3].change"),
        (damaged(file.clone(), |f| f["facts"][3]["change"]["kind"] = json!("melt")), "facts[3].change.kind"),
        (
            damaged(file.clone(), |f| f["readings"][0]["readings"][5]["celsius"] = json!(9000)),
            "readings[0].readings[5]",
        ),
        (
            damaged(file.clone(), |f| {
                let readings = f["readings"][0].clone();
                f["readings"].as_array_mut().unwrap().push(readings);
            }),
            "readings",
        ),
        (damaged(file.clone(), |f| f["facts"] = json!("gone")), "facts"),
        (json!({ "format": "vanadin-job", "version": 1 }), "facts"),
    ] {
        let (status, answer) = server.post("/api/import", &file).await;
        assert_eq!(status, Status::UnprocessableEntity, "{field}: {answer}");
        assert_eq!(answer["problems"][0]["field"], field, "{answer}");
    }
    let (_, file) = exported(&server, "glasshouse").await;
    for (file, field) in [
        (damaged(file.clone(), |f| f["pictures"] = json!([])), "pictures"),
        (
            damaged(file.clone(), |f| {
                let picture = f["pictures"][0].clone();
                f["pictures"].as_array_mut().unwrap().push(picture);
            }),
            "pictures",
        ),
        (
            damaged(file.clone(), |f| f["pictures"][0]["jpeg_base64"] = json!("no picture!")),
            "pictures[0].jpeg_base64",
        ),
        (
            damaged(file.clone(), |f| f["pictures"][0]["jpeg_base64"] = json!("RGVhciBvd25lcg==")),
            "pictures[0].jpeg_base64",
        ),
    ] {
        let (status, answer) = server.post("/api/import", &file).await;
        assert_eq!(status, Status::UnprocessableEntity, "{field}: {answer}");
        assert_eq!(answer["problems"][0]["field"], field, "{answer}");
    }
    let (status, _) = server.post_text("/api/import", "{\"format\": \"vanadin-job\", \"facts\": [").await;
    assert_eq!(status, Status::BadRequest);
    let (_, after) = server.get("/api/rack").await;
    assert_eq!(before["lines"].as_array().unwrap().len(), after["lines"].as_array().unwrap().len());
}

#[rocket::async_test]
async fn a_lit_job_that_is_imported_goes_on_where_it_was() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, file) = exported(&server, "letterpress").await;
    let elsewhere = Server::empty().await;
    let (_, imported) = elsewhere.post("/api/import", &file).await;
    let (_, view) = elsewhere.get(&format!("/api/jobs/{}", imported["id"].as_str().unwrap())).await;
    assert!(view["standing"]["hot"].is_object(), "{}", view["standing"]);
    assert!(view["job"]["rounds"][0]["lit"]["frozen"]["figures"].as_array().unwrap().len() > 15);
}

#[rocket::async_test]
async fn a_file_of_a_job_that_is_there_lies_beside_it_and_says_so() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (id, file) = exported(&server, "incline").await;
    let (_, again) = server.post("/api/import", &file).await;
    assert_eq!((&again["beside_another"], &again["name"]), (&json!(true), &file["name"]));
    assert_ne!(again["id"], json!(id));
    let (_, rack) = server.get("/api/rack?find=incline").await;
    assert_eq!(rack["lines"].as_array().unwrap().len(), 2, "both are there");
    let (_, first) = Server::empty().await.post("/api/import", &file).await;
    assert_eq!(first["beside_another"], json!(false));
}

/// Something that may be said of a field: one of its choices, its example, a number, or nothing.
fn said_of(field: &Value, chance: &mut Chance) -> String {
    let choices = field["choices"].as_array().map_or(&[][..], Vec::as_slice);
    let example = field["example"].as_str().unwrap_or_default().to_owned();
    match chance.under(8) {
        0 => String::new(),
        1 => (1 + chance.under(400)).to_string(),
        _ if choices.is_empty() => example,
        at => choices[(at as usize + chance.under(20) as usize) % choices.len()]["id"]
            .as_str()
            .unwrap()
            .to_owned(),
    }
}

#[rstest]
#[case::one(11)]
#[case::two(12)]
#[case::three(13)]
#[case::four(14)]
#[test_attr(rocket::async_test)]
async fn a_job_of_any_words_comes_back_equal_down_to_its_plan(#[case] seed: u64) {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, tables) = server.get("/api/tables/metric").await;
    let of = |name: &str| -> Vec<(String, Value)> {
        tables[name].as_object().unwrap().iter().map(|(key, field)| (key.clone(), field.clone())).collect()
    };
    let (fields, of_crack) = (of("fields"), of("of_crack"));
    let job = server.new_job().await;
    let mut chance = Chance(seed);
    let (mut cracks, mut taken) = (Vec::new(), 0);
    for _ in 0..90 {
        let change = match chance.under(10) {
            0 => json!({ "kind": "add_crack" }),
            1 => {
                json!({ "kind": "observe", "test": "punch", "outcome": "crumbles_no_rim", "confidence": "fair",
                "spot": format!("spot {}", chance.under(3)) })
            }
            2..=4 if !cracks.is_empty() => {
                let crack: &String = &cracks[chance.under(cracks.len() as u64) as usize];
                let (key, field) = &of_crack[chance.under(of_crack.len() as u64) as usize];
                set(&format!("crack.{crack}.{key}"), &said_of(field, &mut chance))
            }
            _ => {
                let (key, field) = &fields[chance.under(fields.len() as u64) as usize];
                set(key, &said_of(field, &mut chance))
            }
        };
        let is_crack = change["kind"] == "add_crack";
        let (status, view) = server.say(job, change).await;
        // What cannot be said is refused, and says nothing.
        if status != Status::Ok {
            assert_eq!(status, Status::UnprocessableEntity, "{view}");
            continue;
        }
        taken += 1;
        if is_crack {
            let found = view["job"]["rounds"][0]["cracks"].as_array().unwrap();
            cracks = found.iter().map(|crack| crack["id"].as_str().unwrap().to_owned()).collect();
        }
    }
    assert!(taken > 30, "{taken} words");
    let (_, file) = server.get(&format!("/api/jobs/{job}/export")).await;
    let (status, imported) = server.post("/api/import", &file).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let (_, before) = server.get(&format!("/api/jobs/{job}")).await;
    let (_, after) = server.get(&format!("/api/jobs/{}", imported["id"].as_str().unwrap())).await;
    for part in ["plan", "fields", "available"] {
        assert_eq!(first_difference(&before[part], &after[part], part), None);
    }
    let (_, again) = server.get(&format!("/api/jobs/{}/export", imported["id"].as_str().unwrap())).await;
    assert_eq!(first_difference(&file, &again, "file"), None);
}
