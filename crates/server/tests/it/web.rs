//! The front end as the server ships it, and the rack as it is asked for.

use crate::common::Server;
use rocket::http::{ContentType, Header, Status};
use rstest::rstest;
use serde_json::{Value, json};

#[rstest]
#[case::the_rack("/")]
#[case::a_station("/jobs/5b0f9e62-0f3c-4a3b-9a1c-0d9d3a1c2b11/torch")]
#[case::the_shop("/shop")]
#[test_attr(rocket::async_test)]
async fn every_place_is_the_same_page_and_asked_for_each_time(#[case] path: &str) {
    let server = Server::empty().await;
    let answer = server.client.get(path.to_owned()).dispatch().await;
    assert_eq!(answer.status(), Status::Ok);
    assert_eq!(answer.content_type(), Some(ContentType::HTML));
    assert_eq!(answer.headers().get_one("Cache-Control"), Some("no-cache"));
    let page = answer.into_string().await.unwrap();
    assert!(page.contains("id=\"root\""), "{page}");
    // Nothing is fetched from anywhere else.
    assert!(!page.contains("https://") && !page.contains("//cdn"), "{page}");
}

#[rstest]
#[case::a_word("/api/rack?most=many", "most")]
#[case::too_many("/api/rack?from=99999999999", "from")]
#[case::neither("/api/rack?away=perhaps", "away")]
#[test_attr(rocket::async_test)]
async fn what_is_asked_for_and_cannot_be_read_is_told(#[case] path: &str, #[case] field: &str) {
    let server = Server::empty().await;
    let (status, answer) = server.get(path).await;
    assert_eq!((status, &answer["problems"][0]["field"]), (Status::UnprocessableEntity, &json!(field)));
}

#[rocket::async_test]
async fn scripts_and_fonts_ship_with_it_and_are_kept() {
    let server = Server::empty().await;
    let page = server.client.get("/").dispatch().await.into_string().await.unwrap();
    let assets: Vec<&str> = page.split('"').filter(|part| part.starts_with("/assets/")).collect();
    assert!(
        assets.iter().any(|a| a.ends_with(".js")) && assets.iter().any(|a| a.ends_with(".css")),
        "{page}"
    );
    for asset in assets {
        let answer = server.client.get(asset.to_owned()).dispatch().await;
        assert_eq!(answer.status(), Status::Ok, "{asset}");
        assert!(answer.headers().get_one("Cache-Control").unwrap().contains("immutable"));
        let text = answer.into_string().await.unwrap();
        // Fonts are named by the styles.
        let styles = if asset.ends_with(".css") { text.as_str() } else { "" };
        for font in styles.split("url(").skip(1).filter_map(|rest| rest.split(')').next()) {
            let font = font.trim_matches(['"', '\'']);
            if font.starts_with("data:") {
                continue;
            }
            let path = if font.starts_with('/') { font.to_owned() } else { format!("/assets/{font}") };
            assert_eq!(server.client.get(path.clone()).dispatch().await.status(), Status::Ok, "{path}");
        }
    }
}

#[rstest]
#[case::small("gzip, deflate", "gzip")]
#[case::small_among_others("br;q=1.0, gzip;q=0.8", "gzip")]
#[case::as_it_is("identity", "identity")]
#[case::not_that_one("gzip;q=0", "identity")]
#[test_attr(rocket::async_test)]
async fn scripts_come_packed_to_whoever_can_unpack_them(#[case] accepts: &str, #[case] packed: &str) {
    let server = Server::empty().await;
    let (_, _, page) = server.get_bytes("/").await;
    let page = String::from_utf8(page).unwrap();
    let script =
        page.split('"').find(|part| part.ends_with(".js")).expect("the page has a script").to_owned();
    let asked = server.client.get(script.clone()).header(Header::new("Accept-Encoding", accepts.to_owned()));
    let answer = asked.dispatch().await;
    assert_eq!(answer.headers().get_one("Content-Encoding"), Some(packed));
    let bytes = answer.into_bytes().await.unwrap();
    let plain = server.get_bytes(&script).await.2;
    if packed == "gzip" {
        assert!(bytes.len() * 2 < plain.len(), "{} of {}", bytes.len(), plain.len());
        let file = server.folder.path().join("script.js.gz");
        std::fs::write(&file, &bytes).unwrap();
        let unpacked = std::process::Command::new("gzip").arg("-dc").arg(file).output().unwrap();
        assert!(unpacked.stdout == plain, "the same script, packed or not");
    } else {
        assert!(bytes == plain);
    }
}

#[rstest]
#[case::a_missing_script("/assets/gone.js")]
#[case::out_of_the_folder("/../Cargo.toml")]
#[case::out_of_the_folder_in_disguise("/%2e%2e/%2e%2e/Cargo.toml")]
#[case::a_database("/vanadin.sqlite")]
#[test_attr(rocket::async_test)]
async fn what_is_not_shipped_is_not_found(#[case] path: &str) {
    let server = Server::empty().await;
    let answer = server.client.get(path.to_owned()).dispatch().await;
    assert!(matches!(answer.status().code, 404 | 422), "{}", answer.status());
    let body = answer.into_string().await.unwrap_or_default();
    assert!(!body.contains("[workspace]"), "{body}");
}

#[rocket::async_test]
async fn a_rack_line_has_everything_that_is_drawn_of_it() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get("/api/rack").await;
    for line in rack["lines"].as_array().unwrap() {
        assert_eq!(line["stations"].as_array().unwrap().len(), 10, "{}", line["name"]);
        assert!(!line["standing"]["next"]["verb"].as_str().unwrap().is_empty());
        assert!(line["record"].as_array().unwrap().len() <= 121, "thinned for the rack");
        assert_eq!(line["earlier"].as_array().unwrap().len() as u64, line["round"].as_u64().unwrap() - 1);
        for plan in line["lines"].as_array().unwrap() {
            let curve = plan["curve"].as_array().unwrap();
            let minutes: Vec<f64> = curve.iter().map(|point| point[0].as_f64().unwrap()).collect();
            assert!(minutes.windows(2).all(|two| two[1] >= two[0]), "{}: time runs back", line["name"]);
        }
    }
    let ranks: Vec<u64> =
        rack["lines"].as_array().unwrap().iter().map(|l| l["standing"]["rank"].as_u64().unwrap()).collect();
    assert!(ranks.windows(2).all(|two| two[0] <= two[1]), "{ranks:?}");
}

#[rstest]
#[case::by_name("glasshouse", 1)]
#[case::by_owner("slate tramway", 1)]
#[case::words_in_any_order("frame press", 1)]
#[case::capitals("MALT", 1)]
#[case::nothing_fits("zeppelin", 0)]
#[case::everything("", 8)]
#[test_attr(rocket::async_test)]
async fn jobs_are_found_by_words(#[case] words: &str, #[case] count: usize) {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    let (_, rack) = server.get(&format!("/api/rack?find={}", words.replace(' ', "%20"))).await;
    assert_eq!(rack["lines"].as_array().unwrap().len(), count);
}

#[rocket::async_test]
async fn a_job_file_of_the_first_version_still_opens() {
    let server = Server::empty().await;
    let file = include_str!("published/job_file_1.json");
    let (status, imported) = server.post_text("/api/import", file).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let (_, view) = server.get(&format!("/api/jobs/{}", imported["id"].as_str().unwrap())).await;
    let stored: Value = serde_json::from_str(file).unwrap();
    assert_eq!(view["name"], stored["name"]);
    assert_eq!(view["revision"].as_u64().unwrap() as usize, stored["facts"].as_array().unwrap().len());
    assert_eq!(view["job"]["rounds"].as_array().unwrap().len(), 2);
    assert!(view["job"]["rounds"][0]["lit"]["frozen"]["label"].is_string());
    // Its last reading was a warm one, long ago.
    assert_eq!(view["standing"]["next"]["verb"], "Try with a stick: not measured");
}

#[rocket::async_test]
async fn a_job_file_of_the_second_version_opens() {
    let server = Server::empty().await;
    let (status, imported) = server.post_text("/api/import", include_str!("published/job_file_2.json")).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let (_, view) = server.get(&format!("/api/jobs/{}", imported["id"].as_str().unwrap())).await;
    assert_eq!(view["name"], "Peat press yoke");
    let round = &view["job"]["rounds"][0];
    assert_eq!(round["hard_spots"][0]["spot"], "cut end");
    assert_eq!(round["neighbours"].as_array().unwrap().len(), 1);
    let found: Vec<&str> = view["plan"]["iron"]["found"]
        .as_array()
        .unwrap()
        .iter()
        .map(|line| line["state"].as_str().unwrap())
        .collect();
    assert_eq!(found, ["counts", "counts", "hard_spot"]);
    let picture =
        format!("/api/jobs/{}/pictures/{}", imported["id"].as_str().unwrap(), view["face"].as_str().unwrap());
    let (status, _, bytes) = server.get_bytes(&picture).await;
    assert_eq!((status, bytes.starts_with(&[0xff, 0xd8])), (Status::Ok, true));
}

#[rocket::async_test]
async fn a_job_file_of_the_fourth_version_opens_with_its_straight_cracks() {
    let server = Server::empty().await;
    let (status, imported) = server.post_text("/api/import", include_str!("published/job_file_4.json")).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let (_, view) = server.get(&format!("/api/jobs/{}", imported["id"].as_str().unwrap())).await;
    assert_eq!(view["job"]["damaged"], json!([]));
    let crack = &view["plan"]["cracks"][0];
    assert_eq!((&crack["on_map"], &crack["length_mm"]), (&json!(false), &json!(52)));
    // It lies on a face that is not drawn yet.
    assert_eq!(view["plan"]["map"]["faces"], json!([]));
    assert_eq!(view["plan"]["map"]["unplaced"][0]["words"], "crack A");
}

#[rocket::async_test]
async fn a_job_file_of_the_fifth_version_opens_with_its_map() {
    let server = Server::empty().await;
    let (status, imported) = server.post_text("/api/import", include_str!("published/job_file_5.json")).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let (_, view) = server.get(&format!("/api/jobs/{}", imported["id"].as_str().unwrap())).await;
    assert_eq!(view["job"]["damaged"], json!([]));
    let face = &view["plan"]["map"]["faces"][0];
    assert_eq!((&face["name"], &face["size_words"]), (&json!("front"), &json!("200 mm by 120 mm")));
    assert_eq!(face["lines"][0]["walls"], json!([12, null, 9]));
    assert_eq!(face["marks"][0]["name"], "bolt hole 1");
    // Moved by what was typed.
    assert_eq!(face["lines"][0]["points"][2], json!({ "x_mm": 150, "y_mm": 62 }));
}

#[rocket::async_test]
async fn a_job_file_of_the_seventh_version_opens_with_its_heat_and_its_record() {
    let server = Server::empty().await;
    let (status, imported) = server.post_text("/api/import", include_str!("published/job_file_7.json")).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let (_, view) = server.get(&format!("/api/jobs/{}", imported["id"].as_str().unwrap())).await;
    assert_eq!(view["job"]["damaged"], json!([]));
    assert_eq!(view["plan"]["offered"], Value::Null, "none was given yet");
    assert_eq!(view["plan"]["methods"]["chosen"]["method"], json!("torch_braze"));
    assert!(view["job"]["rounds"][0]["readings"].as_array().unwrap().len() > 10);
}

#[rocket::async_test]
async fn a_job_file_of_the_eighth_version_opens_with_its_practice_and_what_was_timed() {
    let server = Server::empty().await;
    let (status, imported) = server.post_text("/api/import", include_str!("published/job_file_8.json")).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let (_, view) = server.get(&format!("/api/jobs/{}", imported["id"].as_str().unwrap())).await;
    assert_eq!(view["job"]["damaged"], json!([]));
    assert_eq!(view["fields"]["taught.peening"]["typed"], json!("each"));
    assert_eq!(view["job"]["rounds"][0]["timed"][0]["step"], json!("clean"));
    assert_eq!(view["plan"]["methods"]["chosen"], json!({ "method": "arc_nickel_iron", "school": "hot" }));
}

#[rocket::async_test]
async fn a_job_file_of_the_ninth_version_opens_with_its_beads_in_place_and_can_be_gone_on_with() {
    let server = Server::empty().await;
    let (status, imported) = server.post_text("/api/import", include_str!("published/job_file_9.json")).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let (_, view) = server.get(&format!("/api/jobs/{}", imported["id"].as_str().unwrap())).await;
    assert_eq!(view["job"]["damaged"], json!([]));
    let round = &view["job"]["rounds"][0];
    assert_eq!(round["lit"]["what"], json!("main"), "there was nothing else it could be lit for");
    assert!(round["log"][0]["entry"]["at"]["along"].is_u64());
    assert_eq!(view["plan"]["torch"]["go_on"]["because"], json!("night"));
}

#[rocket::async_test]
async fn a_job_file_of_the_sixth_version_opens_with_what_was_measured_and_ticked() {
    let server = Server::empty().await;
    let (status, imported) = server.post_text("/api/import", include_str!("published/job_file_6.json")).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let (_, view) = server.get(&format!("/api/jobs/{}", imported["id"].as_str().unwrap())).await;
    assert_eq!(view["job"]["damaged"], json!([]));
    let prep = &view["plan"]["prep"];
    assert_eq!((&prep["work"][0]["word"], &prep["work"][0]["done"]), (&json!("Clean"), &json!(true)));
    assert_eq!(prep["seams"][0]["read"][0]["depth_mm"], json!(4));
    assert_eq!(view["plan"]["map"]["faces"][0]["marks"], json!([]), "the bore was never laid on it");
    assert_eq!(view["plan"]["methods"]["chosen"]["method"], json!("arc_nickel"));
}

#[rocket::async_test]
async fn a_job_file_of_the_third_version_opens() {
    let server = Server::empty().await;
    let file: Value = serde_json::from_str(include_str!("published/job_file_3.json")).unwrap();
    let (status, imported) = server.post("/api/import", &file).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let (_, view) = server.get(&format!("/api/jobs/{}", imported["id"].as_str().unwrap())).await;
    assert_eq!(
        (&view["name"], &view["fields"]["part.wall"]["not_understood"]),
        (&file["name"], &Value::Null)
    );
    let round = &view["job"]["rounds"][0];
    let read = |it: &Value| -> Vec<(Option<f64>, Option<f64>)> {
        let all = it.as_array().into_iter().flatten();
        all.map(|it| (it["minutes"].as_f64(), it["celsius"].as_f64())).collect()
    };
    let kept = read(&file["readings"][0]["readings"]);
    assert!(kept.len() > 100, "{} readings", kept.len());
    assert_eq!(read(&round["readings"]), kept, "few enough to be drawn as they are");
    let (_, out) = server.get(&format!("/api/jobs/{}/export", imported["id"].as_str().unwrap())).await;
    let said = |file: &Value| -> Vec<Value> {
        file["facts"].as_array().unwrap().iter().map(|fact| fact["change"].clone()).collect()
    };
    assert_eq!(said(&out), said(&file), "word for word");
}

#[rocket::async_test]
async fn the_history_has_both_clocks_and_who_said_it() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    server.set(job, "part.wall", "12").await;
    let (_, history) = server.get(&format!("/api/jobs/{job}/history")).await;
    let fact = &history["facts"][0];
    assert_eq!(
        (fact["who"].as_str(), fact["at_client_ms"].as_i64()),
        (Some("test"), Some(4_000_000_000_000))
    );
    assert!(fact["at_server_ms"].as_i64().unwrap() > 1_700_000_000_000);
}

#[rocket::async_test]
async fn a_name_that_was_made_to_point_here_reads_nothing() {
    let server = Server::on(tempfile::tempdir().unwrap(), true).await;
    for path in ["/api/rack", "/api/shop", "/", "/assets/none.js"] {
        let answer =
            server.client.get(path).header(Header::new("Host", "elsewhere.example")).dispatch().await;
        assert_eq!(answer.status(), Status::Forbidden, "{path}");
        let body = answer.into_string().await.unwrap();
        assert!(body.contains("by the address the server printed") && !body.contains("lines"), "{body}");
    }
}

#[rstest]
#[case::a_page("/", "no-cache")]
#[case::an_answer("/api/rack", "no-store")]
#[case::what_is_not_there("/api/nothing", "no-store")]
#[test_attr(rocket::async_test)]
async fn every_answer_says_what_a_browser_may_do_with_it(#[case] path: &str, #[case] kept: &str) {
    let server = Server::empty().await;
    let answer = server.client.get(path).dispatch().await;
    let said = |name: &str| answer.headers().get_one(name).unwrap_or_default().to_owned();
    assert_eq!(said("Cache-Control"), kept);
    let policy = said("Content-Security-Policy");
    assert!(policy.contains("frame-ancestors 'none'") && policy.contains("default-src 'self'"), "{policy}");
    assert!(!policy.contains("script-src"), "scripts come from here alone: {policy}");
    assert_eq!(
        [said("Referrer-Policy"), said("Cross-Origin-Resource-Policy"), said("X-Content-Type-Options")],
        ["no-referrer", "same-origin", "nosniff"]
    );
}

#[rstest]
#[case::the_rack("/")]
#[case::a_place("/shop")]
#[case::an_answer("/api/health")]
#[test_attr(rocket::async_test)]
async fn the_head_alone_can_be_asked_for(#[case] path: &str) {
    let server = Server::empty().await;
    let full = server.client.get(path).dispatch().await.status();
    let head = server.client.head(path).dispatch().await;
    assert_eq!(head.status(), full, "{path}");
    assert!(head.into_bytes().await.unwrap_or_default().is_empty());
}

#[test]
fn every_operation_says_which_answers_may_come() {
    let document: Value = serde_json::from_str(&vanadin::openapi_document()).unwrap();
    let mut operations = 0;
    for (path, item) in document["paths"].as_object().unwrap() {
        for (method, operation) in item.as_object().unwrap() {
            operations += 1;
            let says = |status: &str| !operation["responses"][status].is_null();
            for status in ["401", "403", "500"] {
                assert!(says(status), "{method} {path}: {status}");
            }
            let body = !operation["requestBody"]["content"]["application/json"].is_null();
            for status in ["400", "415"] {
                assert_eq!(says(status), body, "{method} {path}: {status}");
            }
            // A picture is no JSON, and can stall or be too large all the same.
            for status in ["408", "413"] {
                assert_eq!(says(status), !operation["requestBody"].is_null(), "{method} {path}: {status}");
            }
            for (status, response) in operation["responses"].as_object().unwrap() {
                assert!(!response["description"].as_str().unwrap().is_empty(), "{method} {path}: {status}");
            }
        }
    }
    assert!(operations > 25, "{operations}");
    assert!(!document["paths"]["/api/jobs/{id}/facts"]["post"]["responses"]["421"].is_null());
}
