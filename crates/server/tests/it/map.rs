//! The crack map over the wire: straightened pictures, tracing, faces at 1:1, the job's file.

use std::io::Cursor;
use std::path::Path;
use std::process::Command;

use crate::common::{Server, set};
use image::{ImageFormat, Rgb, RgbImage};
use rocket::http::{ContentType, Status};
use serde_json::{Value, json};
use uuid::Uuid;
use vanadin_core::map::{At, Straightened, nearest};

/// A plate of 200 by 140 mm seen at a slant, with a dark crack that winds from left to right.
const CORNERS: [[f64; 2]; 4] = [[110.0, 90.0], [710.0, 140.0], [660.0, 520.0], [90.0, 440.0]];

fn crack_y(x_mm: f64) -> f64 {
    70.0 + 14.0 * (x_mm / 24.0).sin()
}

fn crack() -> Vec<At> {
    (20..=180).map(|x| At::new(f64::from(x), crack_y(f64::from(x)))).collect()
}

fn plate() -> Vec<u8> {
    let map = Straightened::by_corners(CORNERS, 200.0, 140.0).unwrap();
    let line = crack();
    let picture = RgbImage::from_fn(800, 600, |x, y| {
        let ground = 12.0 * ((f64::from(x) * 0.5 + f64::from(y) * 0.8) * 0.7).sin();
        let value = match map.mm([f64::from(x) + 0.5, f64::from(y) + 0.5]) {
            Some(at) if (0.0..200.0).contains(&at.x_mm) && (0.0..140.0).contains(&at.y_mm) => {
                let off = nearest(&line, at).unwrap().distance_mm;
                150.0 + ground - 90.0 * (-off * off / 0.5).exp()
            }
            _ => 70.0,
        };
        Rgb([value as u8; 3])
    });
    let mut bytes = Cursor::new(Vec::new());
    picture.write_to(&mut bytes, ImageFormat::Png).unwrap();
    bytes.into_inner()
}

struct Mapped {
    server: Server,
    job: Uuid,
    face: Uuid,
}

impl Mapped {
    async fn new() -> Self {
        let server = Server::empty().await;
        let job = server.new_job().await;
        let face = said(&server, job, json!({ "kind": "add_face" })).await;
        for (field, typed) in
            [("name", "front"), ("outline", "rectangle"), ("across", "200"), ("down", "140")]
        {
            let (status, view) = server.say(job, set(&format!("face.{face}.{field}"), typed)).await;
            assert_eq!(status, Status::Ok, "{view}");
        }
        Self { server, job, face }
    }

    async fn laid(&self) -> Value {
        let picture = Uuid::new_v4();
        let (status, view) = self.server.send_picture(self.job, picture, "overall", &plate()).await;
        assert_eq!(status, Status::Ok, "{view}");
        let (status, view) = self
            .server
            .say(
                self.job,
                json!({
                    "kind": "straighten", "face": self.face, "picture": picture, "points_px": CORNERS,
                    "size_px": [800, 600], "typed": { "across": "200 mm", "down": "140" }, "shown_in": "metric",
                }),
            )
            .await;
        assert_eq!(status, Status::Ok, "{view}");
        view["plan"]["map"]["faces"][0]["seen"].clone()
    }

    async fn drawn(&self, points: &[At]) -> Uuid {
        let crack = said(&self.server, self.job, json!({ "kind": "add_crack" })).await;
        for (field, typed) in [("wall", "14"), ("found_by", "dye"), ("end_a", "tip"), ("end_b", "tip")] {
            self.server.say(self.job, set(&format!("crack.{crack}.{field}"), typed)).await;
        }
        let points: Vec<Value> =
            points.iter().map(|at| json!({ "x_mm": at.x_mm, "y_mm": at.y_mm })).collect();
        let shape = json!({ "kind": "line", "points": points });
        let drawn = json!([{ "mark": crack, "face": self.face, "shape": shape }]);
        said(&self.server, self.job, json!({ "kind": "draw", "drawn": drawn })).await;
        crack
    }

    fn path(&self, end: &str) -> String {
        format!("/api/jobs/{}/map/{}{end}", self.job, self.face)
    }
}

/// Says it, and gives the id of what was said.
async fn said(server: &Server, job: Uuid, change: Value) -> Uuid {
    let (status, view) = server.say(job, change).await;
    assert_eq!(status, Status::Ok, "{view}");
    let (_, history) = server.get(&format!("/api/jobs/{job}/history")).await;
    history["facts"].as_array().unwrap().last().unwrap()["id"].as_str().unwrap().parse().unwrap()
}

#[rocket::async_test]
async fn a_slanted_picture_lies_flat_and_is_kept() {
    let mapped = Mapped::new().await;
    let (status, ..) = mapped.server.get_bytes(&mapped.path("/picture/1")).await;
    assert_eq!(status, Status::NotFound, "none is laid yet");
    let seen = mapped.laid().await;
    let path = mapped.path(&format!("/picture/{}", seen["revision"]));
    let (status, kind, first) = mapped.server.get_bytes(&path).await;
    assert_eq!((status, kind), (Status::Ok, Some(ContentType::JPEG)));
    let (_, _, again) = mapped.server.get_bytes(&path).await;
    assert_eq!(first, again, "made once");
    let flat = image::load_from_memory(&first).unwrap().into_luma8();
    let frame = |side: &str| seen["frame"][side].as_f64().unwrap();
    let per_mm = f64::from(flat.width()) / (frame("right_mm") - frame("left_mm"));
    let value = |x_mm: f64, y_mm: f64| {
        let (x, y) = ((x_mm - frame("left_mm")) * per_mm, (y_mm - frame("top_mm")) * per_mm);
        flat.get_pixel(x as u32, y as u32).0[0]
    };
    // The crack is dark where it is drawn, its neighbourhood is not, and the bench beside the plate is darker.
    for x in [40.0, 90.0, 150.0] {
        assert!(value(x, crack_y(x)) + 40 < value(x, crack_y(x) + 12.0), "{x}");
    }
    assert!(value(-8.0, 70.0) < 100);
    let stale = mapped.server.get_bytes(&mapped.path("/picture/2")).await.0;
    assert_eq!(stale, Status::NotFound, "what was laid another way is gone");
}

#[rocket::async_test]
async fn a_crack_is_followed_on_the_straightened_picture() {
    let mapped = Mapped::new().await;
    mapped.laid().await;
    let ends = json!({
        "from": { "x_mm": 20.0, "y_mm": crack_y(20.0) }, "to": { "x_mm": 180.0, "y_mm": crack_y(180.0) },
        "shows": "dark",
    });
    let (status, answer) = mapped.server.post(&mapped.path("/trace"), &ends).await;
    assert_eq!(status, Status::Ok, "{answer}");
    let points: Vec<At> = serde_json::from_value(answer["points"].clone()).unwrap();
    let line = crack();
    let off: f64 = points.iter().map(|at| nearest(&line, *at).unwrap().distance_mm).sum();
    assert!(points.len() > 8 && off / (points.len() as f64) < 0.6, "{} points, {off} mm", points.len());
    let outside = json!({ "from": { "x_mm": -900.0, "y_mm": 0.0 }, "to": { "x_mm": 50.0, "y_mm": 50.0 }, "shows": "dark" });
    let (status, answer) = mapped.server.post(&mapped.path("/trace"), &outside).await;
    assert_eq!((status, &answer["problems"][0]["field"]), (Status::UnprocessableEntity, &json!("from")));
}

#[rocket::async_test]
async fn a_dxf_is_opened_by_an_independent_reader_at_one_to_one() {
    let mapped = Mapped::new().await;
    mapped.drawn(&[At::new(40.0, 50.0), At::new(100.0, 50.0), At::new(130.0, 90.0)]).await;
    let (status, _, bytes) = mapped.server.get_bytes(&mapped.path(".dxf")).await;
    assert_eq!(status, Status::Ok);
    let file = tempfile::NamedTempFile::new().unwrap();
    std::fs::write(file.path(), bytes).unwrap();
    let read = read_elsewhere(file.path());
    let layers = read["layers"].as_array().unwrap();
    for layer in ["OUTLINE", "CRACKS", "WITNESS", "STOP_HOLES", "CHECK_RULER", "WORDS"] {
        assert!(layers.contains(&json!(layer)), "{layer}: {layers:?}");
    }
    assert_eq!(read["units"], 4, "millimetres");
    assert_eq!(read["faults"], json!([]));
    // y up.
    assert_eq!(read["cracks"], json!([[[40.0, -50.0], [100.0, -50.0], [130.0, -90.0]]]));
    assert_eq!(read["holes"], json!([4.0, 4.0]), "two tips, drill 8");
}

/// What a reader that is not ours finds in a drawing.
fn read_elsewhere(file: &Path) -> Value {
    const READ: &str = "
import json, sys, ezdxf
drawing = ezdxf.readfile(sys.argv[1])
space = drawing.modelspace()
lines = [[[v.dxf.location.x, v.dxf.location.y] for v in line.vertices]
         for line in space.query('POLYLINE[layer==\"CRACKS\"]')]
print(json.dumps({
    'layers': [layer.dxf.name for layer in drawing.layers],
    'units': drawing.header.get('$INSUNITS', 0),
    'faults': [str(fault.message) for fault in drawing.audit().errors],
    'cracks': lines,
    'holes': [circle.dxf.radius for circle in space.query('CIRCLE[layer==\"STOP_HOLES\"]')],
}))";
    // Debian's own: others do not see its packages.
    let read = Command::new("/usr/bin/python3").args(["-c", READ]).arg(file).output();
    let read = read.expect("python3 is not here: cargo xtask test installs it");
    let why = String::from_utf8_lossy(&read.stderr);
    serde_json::from_slice(&read.stdout)
        .unwrap_or_else(|_| panic!("ezdxf: cargo xtask test installs it\n{why}"))
}

#[rocket::async_test]
async fn an_svg_is_printed_at_one_to_one() {
    let mapped = Mapped::new().await;
    mapped.server.say(mapped.job, set(&format!("face.{}.name", mapped.face), "front <&> \"left\"")).await;
    mapped.drawn(&[At::new(40.0, 50.0), At::new(100.0, 50.0)]).await;
    let (status, kind, bytes) = mapped.server.get_bytes(&mapped.path(".svg")).await;
    assert_eq!((status, kind), (Status::Ok, Some(ContentType::SVG)));
    let svg = String::from_utf8(bytes).unwrap();
    // 200 by 140 mm, 20 mm more for the ruler below, and 10 mm of room on each side.
    assert!(svg.contains("width=\"220.000mm\" height=\"180.000mm\""), "{}", &svg[..300]);
    assert!(svg.contains("M0.000 154.000L100.000 154.000"), "a ruler proves the scale");
    assert!(svg.contains("M40.000 50.000L100.000 50.000"));
    assert!(svg.contains("front &lt;&amp;&gt; &quot;left&quot;"));
    for nothing in ["/no", ".pdf", ""] {
        assert_eq!(mapped.server.get_bytes(&mapped.path(nothing)).await.0, Status::NotFound, "{nothing}");
    }
    let other = format!("/api/jobs/{}/map/{}.svg", mapped.job, Uuid::new_v4());
    assert_eq!(mapped.server.get_bytes(&other).await.0, Status::NotFound);
}

#[rocket::async_test]
async fn a_map_travels_in_the_jobs_file() {
    let mapped = Mapped::new().await;
    mapped.laid().await;
    mapped.drawn(&[At::new(40.0, 50.0), At::new(100.0, 50.0)]).await;
    let (_, file) = mapped.server.get(&format!("/api/jobs/{}/export", mapped.job)).await;
    let (status, imported) = mapped.server.post("/api/import", &file).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let id = imported["id"].as_str().unwrap();
    let (_, before) = mapped.server.get(&format!("/api/jobs/{}", mapped.job)).await;
    let (_, after) = mapped.server.get(&format!("/api/jobs/{id}")).await;
    assert_eq!(after["plan"]["map"], before["plan"]["map"]);
    let revision = &after["plan"]["map"]["faces"][0]["seen"]["revision"];
    let picture = format!("/api/jobs/{id}/map/{}/picture/{revision}", mapped.face);
    assert_eq!(mapped.server.get_bytes(&picture).await.0, Status::Ok, "it is made anew");
    // A file that draws what cannot be is refused at its place.
    let mut wrong = file.clone();
    for fact in wrong["facts"].as_array_mut().unwrap() {
        if fact["change"]["kind"] == "draw" {
            fact["change"]["drawn"][0]["shape"]["points"][1] = json!({ "x_mm": 40.0, "y_mm": 50.0 });
        }
    }
    let (status, answer) = mapped.server.post("/api/import", &wrong).await;
    assert_eq!(status, Status::UnprocessableEntity, "{answer}");
    assert!(answer["problems"][0]["message"].as_str().unwrap().contains("no length"), "{answer}");
}

#[rocket::async_test]
async fn a_large_face_is_printed_over_several_pages() {
    let mapped = Mapped::new().await;
    mapped.drawn(&[At::new(40.0, 50.0), At::new(100.0, 50.0)]).await;
    let pages = async || {
        let (status, kind, bytes) = mapped.server.get_bytes(&mapped.path("/pages")).await;
        (status, kind, String::from_utf8(bytes).unwrap())
    };
    let (status, kind, html) = pages().await;
    assert_eq!((status, kind), (Status::Ok, Some(ContentType::HTML)));
    // 220 by 180 mm with its room: two pages of 186 mm beside each other.
    assert_eq!(html.matches("<section>").count(), 2);
    assert_eq!(
        html.matches("100 mm: measure it").count(),
        2 + 1,
        "each page has a ruler; the drawing, with its own, is there once"
    );
    for (field, typed) in [("across", "19500"), ("down", "19500")] {
        mapped.server.say(mapped.job, set(&format!("face.{}.{field}", mapped.face), typed)).await;
    }
    let (status, _, answer) = pages().await;
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(answer.contains("more pages than can be glued"), "{answer}");
}

#[rocket::async_test]
async fn what_was_measured_at_a_seam_travels_in_the_jobs_file() {
    let mapped = Mapped::new().await;
    let crack = mapped.drawn(&[At::new(40.0, 50.0), At::new(100.0, 50.0)]).await;
    let depth = json!({
        "kind": "measure_seam", "crack": crack, "what": "depth",
        "typed": { "at": "20", "depth": "9.5" }, "shown_in": "metric",
    });
    let tick = json!({ "kind": "tick", "step": { "what": "punch", "at": crack, "number": 2 }, "done": true });
    for change in [depth.clone(), tick] {
        let (status, view) = mapped.server.say(mapped.job, change).await;
        assert_eq!(status, Status::Ok, "{view}");
    }
    let (_, file) = mapped.server.get(&format!("/api/jobs/{}/export", mapped.job)).await;
    let (status, imported) = mapped.server.post("/api/import", &file).await;
    assert_eq!(status, Status::Ok, "{imported}");
    let again = format!("/api/jobs/{}/export", imported["id"].as_str().unwrap());
    let (_, again) = mapped.server.get(&again).await;
    assert_eq!(again["facts"], file["facts"]);
    // It is told in the history, in words.
    let (_, history) = mapped.server.get(&format!("/api/jobs/{}/history", mapped.job)).await;
    let told: Vec<&str> =
        history["told"].as_array().unwrap().iter().filter_map(|told| told.as_str()).collect();
    assert!(told.contains(&"Crack A, groove: 20 mm along, 9.5 mm deep"), "{told:?}");
    assert!(told.contains(&"Punch, crack A: done"), "{told:?}");
    // A depth of nothing that can be measured is refused at its field, in a word and in a file.
    let mut wrong = depth;
    wrong["typed"]["depth"] = json!("deep");
    let (status, answer) = mapped.server.say(mapped.job, wrong.clone()).await;
    assert_eq!(
        (status, answer["problems"][0]["field"].as_str()),
        (Status::UnprocessableEntity, Some("depth"))
    );
    let mut file = file;
    let facts = file["facts"].as_array_mut().unwrap();
    let said = facts.iter_mut().find(|fact| fact["change"]["kind"] == "measure_seam").unwrap();
    said["change"] = wrong;
    let (status, answer) = mapped.server.post("/api/import", &file).await;
    assert_eq!(status, Status::UnprocessableEntity, "{answer}");
}
