//! Pictures of a job: taken in, kept, shown, refused.

use std::io::Cursor;

use crate::common::{Server, set};
use image::{ImageFormat, Rgb, RgbImage};
use rocket::http::{ContentType, Status};
use rstest::rstest;
use serde_json::{Value, json};
use uuid::Uuid;

fn file(width: u32, height: u32, format: ImageFormat) -> Vec<u8> {
    let picture = RgbImage::from_fn(width, height, |x, y| Rgb([(x % 251) as u8, (y % 241) as u8, 90]));
    let mut bytes = Cursor::new(Vec::new());
    picture.write_to(&mut bytes, format).unwrap();
    bytes.into_inner()
}

/// A JPEG filled up behind its end.
fn of_size(bytes: usize) -> Vec<u8> {
    let mut jpeg = file(64, 48, ImageFormat::Jpeg);
    jpeg.resize(bytes, 0);
    jpeg
}

fn shows(view: &Value, picture: Uuid) -> &Value {
    &view["fields"][format!("picture.{picture}.shows")]["typed"]
}

#[rocket::async_test]
async fn a_picture_is_kept_shown_and_said_once() {
    let server = Server::empty().await;
    let (job, picture) = (server.new_job().await, Uuid::new_v4());
    let sent = file(2400, 1200, ImageFormat::Png);
    let (status, view) = server.send_picture(job, picture, "break", &sent).await;
    assert_eq!(status, Status::Ok, "{view}");
    assert_eq!(view["job"]["pictures"][0]["id"], json!(picture));
    assert_eq!((shows(&view, picture), &view["face"]), (&json!("break"), &json!(picture)));
    // Sent again, as after a dropped connection: still one.
    let (status, again) = server.send_picture(job, picture, "break", &sent).await;
    assert_eq!((status, &again["revision"]), (Status::Ok, &view["revision"]));
    assert_eq!(again["job"]["pictures"].as_array().unwrap().len(), 1);
    for (path, longest) in [("", 2000), ("/small", 320)] {
        let (status, kind, bytes) =
            server.get_bytes(&format!("/api/jobs/{job}/pictures/{picture}{path}")).await;
        assert_eq!((status, kind), (Status::Ok, Some(ContentType::JPEG)));
        let shown = image::load_from_memory(&bytes).unwrap();
        assert_eq!((shown.width(), shown.height()), (longest, longest / 2));
    }
    let (_, rack) = server.get("/api/rack").await;
    assert_eq!(rack["lines"][0]["face"], json!(picture));
}

#[rstest]
#[case::a_renamed_text(b"Dear owner, the lever is broken.".to_vec(), Status::UnprocessableEntity, "no picture")]
#[case::nothing(Vec::new(), Status::UnprocessableEntity, "no picture")]
#[case::torn(file(400, 300, ImageFormat::Jpeg)[..900].to_vec(), Status::UnprocessableEntity, "damaged")]
#[case::a_byte_over_20_mb(of_size(20 * 1024 * 1024 + 1), Status::PayloadTooLarge, "20 MB")]
#[case::far_over(of_size(45 * 1024 * 1024), Status::PayloadTooLarge, "20 MB")]
#[test_attr(rocket::async_test)]
async fn what_is_no_picture_or_too_large_is_refused_with_a_clear_word(
    #[case] sent: Vec<u8>,
    #[case] expected: Status,
    #[case] words: &str,
) {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let picture = Uuid::new_v4();
    let (status, answer) = server.send_picture(job, picture, "overall", &sent).await;
    assert_eq!(status, expected, "{answer}");
    let problem = &answer["problems"][0];
    assert!(problem["message"].as_str().unwrap().contains(words), "{answer}");
    assert!(!problem["would_be_right"].as_str().unwrap().is_empty());
    let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
    assert_eq!((&view["job"]["pictures"], &view["revision"]), (&json!([]), &json!(0)));
    let (status, ..) = server.get_bytes(&format!("/api/jobs/{job}/pictures/{picture}")).await;
    assert_eq!(status, Status::NotFound);
}

#[rocket::async_test]
async fn exactly_20_mb_are_taken() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let (status, answer) =
        server.send_picture(job, Uuid::new_v4(), "overall", &of_size(20 * 1024 * 1024)).await;
    assert_eq!(status, Status::Ok, "{answer}");
}

#[rocket::async_test]
async fn what_it_shows_its_words_and_the_face_can_be_said_and_taken_back() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let (first, second) = (Uuid::new_v4(), Uuid::new_v4());
    let jpeg = file(60, 40, ImageFormat::Jpeg);
    server.send_picture(job, first, "break", &jpeg).await;
    let (_, view) = server.send_picture(job, second, "overall", &jpeg).await;
    assert_eq!(view["face"], json!(second), "all of it stands for it before the break does");
    server.set(job, "part.face", &first.to_string()).await;
    let (_, view) = server.set(job, &format!("picture.{first}.caption"), "from below").await;
    assert_eq!(view["face"], json!(first));
    assert_eq!(view["fields"][format!("picture.{first}.caption")]["typed"], "from below");
    let strike = json!({ "kind": "strike", "target": first, "reason": "blurred" });
    let (_, view) = server.say(job, strike).await;
    assert_eq!((view["job"]["pictures"].as_array().unwrap().len(), &view["face"]), (1, &json!(second)));
    let (status, _) = server.set(job, &format!("picture.{first}.caption"), "again").await;
    assert_eq!(status, Status::UnprocessableEntity, "it is no longer there");
    let undo = json!({ "kind": "undo", "target": view["job"]["own_words"][0]["undo"] });
    let (_, view) = server.say(job, undo).await;
    assert_eq!(view["face"], json!(first), "put back, with what was said of it");
}

#[rocket::async_test]
async fn a_picture_is_said_only_with_the_picture_itself() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let (status, answer) = server.say(job, json!({ "kind": "add_picture" })).await;
    assert_eq!((status, &answer["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("picture")));
    let jpeg = file(60, 40, ImageFormat::Jpeg);
    let (status, _) = server.send_picture(Uuid::new_v4(), Uuid::new_v4(), "overall", &jpeg).await;
    assert_eq!(status, Status::NotFound);
    let (status, answer) = server.send_picture(job, Uuid::new_v4(), "nonsense", &jpeg).await;
    assert_eq!(status, Status::UnprocessableEntity, "{answer}");
    let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
    assert_eq!(view["job"]["pictures"], json!([]));
}

#[rocket::async_test]
async fn a_picture_says_what_it_proves_also_before_that_has_come() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let (picture, crack) = (Uuid::new_v4(), Uuid::new_v4());
    let jpeg = file(60, 40, ImageFormat::Jpeg);
    let (status, answer) = server.send_picture(job, picture, "&of=crack", &jpeg).await;
    assert_eq!((status, &answer["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("of")));
    let (status, view) = server.send_picture(job, picture, &format!("&of={crack}"), &jpeg).await;
    assert_eq!((status, &view["job"]["pictures"][0]["of"]), (Status::Ok, &json!(crack)));
    let words = |view: &Value| view["plan"]["hand_over"]["pictures"][0]["words"].clone();
    assert_eq!(words(&view), "A picture");
    // What it proves waited longer than the picture did.
    let fact =
        json!({ "id": crack, "at_client_ms": 4_000_000_000_000_i64, "change": { "kind": "add_crack" } });
    let (status, view) = server.post(&format!("/api/jobs/{job}/facts"), &fact).await;
    assert_eq!((status, words(&view)), (Status::Ok, json!("Crack A")));
    // It goes through a file.
    let (_, exported) = server.get(&format!("/api/jobs/{job}/export")).await;
    let (_, copy) = server.post("/api/import", &exported).await;
    let (status, other) = server.get(&format!("/api/jobs/{}", copy["id"].as_str().unwrap())).await;
    assert_eq!((status, words(&other)), (Status::Ok, json!("Crack A")), "{other}");
}

#[rocket::async_test]
async fn a_copy_of_the_job_has_the_part_and_not_its_pictures() {
    let server = Server::empty().await;
    let (job, copy) = (server.new_job().await, Uuid::new_v4());
    server.set(job, "part.name", "Lever").await;
    server.send_picture(job, Uuid::new_v4(), "overall", &file(60, 40, ImageFormat::Jpeg)).await;
    let neighbour = Uuid::new_v4();
    let fact = json!({ "id": neighbour, "at_client_ms": crate::common::NOW_MS, "change": { "kind": "add_neighbour" } });
    server.post(&format!("/api/jobs/{job}/facts"), &fact).await;
    server.say(job, set(&format!("neighbour.{neighbour}.what"), "seal")).await;
    let (status, view) = server.post(&format!("/api/jobs/{job}/copy"), &json!({ "id": copy })).await;
    assert_eq!((status, &view["name"]), (Status::Ok, &json!("Lever (2)")));
    assert_eq!(view["job"]["pictures"], json!([]));
    let other = view["job"]["rounds"][0]["neighbours"][0]["id"].as_str().unwrap();
    assert_eq!(view["fields"][format!("neighbour.{other}.what")]["typed"], "seal");
}

#[rocket::async_test]
async fn many_at_once_are_all_kept() {
    let server = Server::empty().await;
    let job = server.new_job().await;
    let jpeg = file(900, 700, ImageFormat::Jpeg);
    let all = (0..8).map(|_| server.send_picture(job, Uuid::new_v4(), "before", &jpeg));
    for (status, answer) in rocket::futures::future::join_all(all).await {
        assert_eq!(status, Status::Ok, "{answer}");
    }
    let (_, view) = server.get(&format!("/api/jobs/{job}")).await;
    assert_eq!(view["job"]["pictures"].as_array().unwrap().len(), 8);
    assert_eq!(view["revision"], 16);
}
