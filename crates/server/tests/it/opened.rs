//! What a page asks for when it is opened: a way, a figure's working, what will happen.

use crate::common::Server;
use rocket::http::Status;
use serde_json::Value;
use uuid::Uuid;

async fn job(server: &Server, words: &str) -> Uuid {
    let (_, rack) = server.get(&format!("/api/rack?find={words}")).await;
    rack["lines"][0]["id"].as_str().unwrap().parse().unwrap()
}

/// What is opened is asked for: the page that shows it shut does not carry it.
#[rocket::async_test]
async fn a_way_and_a_figure_are_opened_by_themselves_as_they_stand_or_as_if() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let malt = job(&server, "malt").await;
    let (_, view) = server.get(&format!("/api/jobs/{malt}")).await;
    let shut = &view["plan"]["methods"]["contenders"][0];
    assert_eq!((&shut["steps"], &shut["price"]), (&Value::Null, &Value::Null));
    let method = shut["way"]["method"].as_str().unwrap();
    let (status, way) = server.get(&format!("/api/jobs/{malt}/ways/{method}")).await;
    assert_eq!((status, &way["method"]), (Status::Ok, &shut["way"]["method"]));
    assert_eq!(way["price"]["total_words"], shut["price_words"]);
    let minutes = |way: &Value| -> f64 {
        let steps = way["steps"].as_array().unwrap();
        steps
            .iter()
            .map(|step| step["attended_min"].as_f64().unwrap() + step["unattended_min"].as_f64().unwrap())
            .sum()
    };
    assert!((minutes(&way) / 60.0 - shut["hours"].as_f64().unwrap()).abs() < 1e-3);
    // Of steel it is another way: nothing of the iron's heat is left.
    let (_, steel) = server.get(&format!("/api/jobs/{malt}/ways/{method}?iron=steel")).await;
    assert_ne!(steel["steps"], way["steps"]);
    let figure =
        view["plan"]["figures"].as_array().unwrap().iter().find(|it| it["id"] == "iron.sure").unwrap();
    assert_eq!(figure["formula"], Value::Null);
    let (_, whole) = server.get(&format!("/api/jobs/{malt}/figures/iron.sure")).await;
    assert_eq!((&whole["metric"], &whole["name"]), (&figure["shown"], &figure["name"]));
    assert!(!whole["formula"].as_array().unwrap().is_empty());
    for (path, what) in [
        ("ways/taste", "method"),
        ("figures/taste", "figure"),
        (&format!("ways/{method}?iron=bronze"), "iron"),
        ("figures/iron.sure?iron=bronze", "iron"),
    ] {
        let (status, answer) = server.get(&format!("/api/jobs/{malt}/{path}")).await;
        let said = answer["problems"][0]["message"].to_string();
        assert!(status == Status::NotFound && said.contains(what), "{path}: {answer}");
    }
}

/// The steps that are gone through beforehand: as many as the page says, and none of a job that has none.
#[rocket::async_test]
async fn what_will_happen_is_asked_for_step_by_step() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack?most=40").await;
    let mut some = 0;
    for line in rack["lines"].as_array().unwrap() {
        let id = line["id"].as_str().unwrap();
        let (_, view) = server.get(&format!("/api/jobs/{id}")).await;
        let (status, steps) = server.get(&format!("/api/jobs/{id}/rehearsal")).await;
        assert_eq!(status, Status::Ok);
        let says = view["plan"]["torch"]["rehearsal_steps"].as_u64().unwrap_or(0);
        assert_eq!(steps.as_array().unwrap().len() as u64, says, "{}", line["name"]);
        some += usize::from(says > 0);
        // A group that is said at once names beads that are to come.
        let beads = &view["plan"]["torch"]["beads"];
        let ahead = beads["ahead"].as_array().map_or(0, Vec::len) as u64;
        for group in beads["at_once"].as_array().into_iter().flatten() {
            assert!(group["of_ahead"].as_array().unwrap().iter().all(|at| at.as_u64().unwrap() < ahead));
        }
    }
    assert!(some > 1, "{some}");
}
