//! The lever with a face that is drawn on.

use uuid::Uuid;
use vanadin_core::field::{crack_key, face_key};
use vanadin_core::job::Change;
use vanadin_core::map::{Drawn, MarkKind, Shape, Vertex};
use vanadin_core::plan::{MapPlan, Plan};

use super::Bench;

pub fn line(points: &[(f64, f64)]) -> Shape {
    let vertex = |&(x_mm, y_mm): &(f64, f64)| Vertex { x_mm, y_mm, wall_mm: None };
    Shape::Line { points: points.iter().map(vertex).collect() }
}

pub fn walled(points: &[(f64, f64, f64)]) -> Shape {
    let vertex = |&(x_mm, y_mm, wall): &(f64, f64, f64)| Vertex { x_mm, y_mm, wall_mm: Some(wall) };
    Shape::Line { points: points.iter().map(vertex).collect() }
}

pub fn circle(x_mm: f64, y_mm: f64, across_mm: f64) -> Shape {
    Shape::Circle { x_mm, y_mm, radius_mm: across_mm / 2.0 }
}

/// The lever with one face of 300 x 200 mm on which nothing is drawn yet.
pub struct Mapped {
    pub bench: Bench,
    pub face: Uuid,
}

impl Mapped {
    pub fn new() -> Self {
        let mut bench = Bench::lever("machine_frame", "gray");
        bench.set("method.choice", "arc_nickel_iron");
        let face = plain_face(&mut bench, 300.0, 200.0);
        Self { bench, face }
    }

    pub fn draw(&mut self, mark: Uuid, shape: Shape) -> &mut Self {
        let drawn = vec![Drawn { mark, face: self.face, shape: Some(shape) }];
        self.bench.say(Change::Draw { drawn });
        self
    }

    pub fn mark(&mut self, what: MarkKind, shape: Shape) -> Uuid {
        let mark = self.bench.say(Change::AddMark { what });
        self.draw(mark, shape);
        mark
    }

    /// Another crack, everything said of it but where it lies.
    pub fn crack(&mut self) -> Uuid {
        let crack = self.bench.say(Change::AddCrack);
        for (field, typed) in [("wall", "14"), ("found_by", "dye"), ("end_a", "tip"), ("end_b", "tip")] {
            self.bench.set(&crack_key(crack, field), typed);
        }
        crack
    }

    pub fn first(&self) -> Uuid {
        self.bench.crack()
    }

    pub fn plan(&self) -> Plan {
        self.bench.plan()
    }

    pub fn map(&self) -> MapPlan {
        self.plan().map
    }
}

pub fn plain_face(bench: &mut Bench, across: f64, down: f64) -> Uuid {
    let face = bench.say(Change::AddFace);
    for (field, typed) in
        [("outline", "rectangle".to_owned()), ("across", across.to_string()), ("down", down.to_string())]
    {
        bench.set(&face_key(face, field), &typed);
    }
    face
}
