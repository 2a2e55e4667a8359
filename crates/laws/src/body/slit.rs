//! The two faces of a slit: how far they stand apart, and that they do not pass through each other.

use std::sync::OnceLock;

use super::mesh::{Faces, Mesh};
use super::stress::{Elastic, along_x, along_y};

/// Two nodes that face each other over a slit.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Pair {
    left: usize,
    right: usize,
    /// From the right face to the left one, of length 1.
    across: (f64, f64),
}

/// How a body answers pushes at its slits.
#[derive(Debug, Clone)]
struct Answers {
    moved: Vec<Vec<f64>>,
    gives: Vec<Vec<f64>>,
}

/// The slits of a body, and how they answer a push.
#[derive(Debug, Clone)]
pub(super) struct Contact {
    pairs: Vec<Pair>,
    /// How the body moves when a pair is pushed apart by 1 N, once it is needed; and how far each pair opens by it.
    answers: OnceLock<Answers>,
}

/// House: rounds in which the pushes are found.
const ROUNDS: usize = 400;
/// House: faces that are nearer than this touch, in mm.
const TOUCH_MM: f64 = 1e-9;

impl Contact {
    pub fn of(mesh: &Mesh) -> Self {
        let bodies = mesh.bodies();
        let mut pairs: Vec<Pair> = Vec::new();
        for faces in &mesh.faces {
            let across = across(mesh, faces);
            for (left, right) in faces.left.into_iter().zip(faces.right) {
                // What hangs together nowhere can lie anywhere.
                if left == right || bodies[left] != bodies[right] {
                    continue;
                }
                match pairs.iter_mut().find(|pair| pair.left == left && pair.right == right) {
                    Some(pair) => {
                        let (x, y) = (pair.across.0 + across.0, pair.across.1 + across.1);
                        let long = (x * x + y * y).sqrt();
                        pair.across = (x / long, y / long);
                    }
                    None => pairs.push(Pair { left, right, across }),
                }
            }
        }
        Self { pairs, answers: OnceLock::new() }
    }

    /// The ways, with the slits held where their faces would pass through each other.
    pub fn kept_apart(&self, body: &Elastic, mut moved: Vec<f64>) -> Vec<f64> {
        let gaps: Vec<f64> = self.pairs.iter().map(|pair| pair.gap(&moved)).collect();
        if gaps.iter().all(|gap| *gap >= -TOUCH_MM) {
            return moved;
        }
        let answers = self.answers.get_or_init(|| {
            let moved = body.moves_each(self.pairs.iter().map(|pair| pair.push(&body.mesh)).collect());
            let gives = |pair: &Pair| moved.iter().map(|moved| pair.gap(moved)).collect();
            Answers { gives: self.pairs.iter().map(gives).collect(), moved }
        });
        let pushes = pushes(&answers.gives, &gaps);
        for (push, answer) in pushes.iter().zip(&answers.moved) {
            if *push > 0.0 {
                moved.iter_mut().zip(answer).for_each(|(way, answer)| *way += push * answer);
            }
        }
        moved
    }
}

impl Pair {
    /// How far the left face stands off the right one.
    fn gap(&self, moved: &[f64]) -> f64 {
        let (x, y) = self.across;
        (moved[along_x(self.left)] - moved[along_x(self.right)]) * x
            + (moved[along_y(self.left)] - moved[along_y(self.right)]) * y
    }

    fn push(&self, mesh: &Mesh) -> Vec<f64> {
        let mut forces = vec![0.0; 2 * mesh.nodes.len()];
        for (node, sign) in [(self.left, 1.0), (self.right, -1.0)] {
            forces[along_x(node)] += sign * self.across.0;
            forces[along_y(node)] += sign * self.across.1;
        }
        forces
    }
}

/// How far a slit has opened half way along it, in mm; less than nothing where it shut further. Nothing where it
/// parts the body: its parts lie where they are put.
pub(super) fn opened_mm(mesh: &Mesh, crack: usize, moved: &[f64]) -> Option<f64> {
    let bodies = mesh.bodies();
    let faces: Vec<&Faces> = mesh.faces.iter().filter(|faces| faces.crack == crack).collect();
    let long = |faces: &&Faces| mesh.nodes[faces.left[0]].distance_mm(mesh.nodes[faces.left[1]]);
    let half = faces.iter().map(long).sum::<f64>() / 2.0;
    let mut gone = 0.0;
    let middle = faces.iter().find(|faces| {
        gone += long(faces);
        gone >= half
    })?;
    let pair = Pair { left: middle.left[2], right: middle.right[2], across: across(mesh, middle) };
    (bodies[pair.left] == bodies[pair.right]).then(|| pair.gap(moved))
}

/// Across a stretch of a slit, from its right face to its left one.
pub(super) fn across(mesh: &Mesh, faces: &Faces) -> (f64, f64) {
    let (from, to) = (mesh.nodes[faces.left[0]], mesh.nodes[faces.left[1]]);
    // Walked with the left face's iron at the left.
    from.toward(to).map_or((0.0, 0.0), |(x, y)| (-y, x))
}

/// Pushes that leave no gap below nothing, and push only where the faces touch (projected Gauss-Seidel).
fn pushes(gives: &[Vec<f64>], gaps: &[f64]) -> Vec<f64> {
    let mut pushes = vec![0.0; gaps.len()];
    for _ in 0..ROUNDS {
        let mut moved: f64 = 0.0;
        for (at, gap) in gaps.iter().enumerate() {
            let now: f64 = gap + gives[at].iter().zip(&pushes).map(|(give, push)| give * push).sum::<f64>();
            let push = (pushes[at] - now / gives[at][at]).max(0.0);
            moved = moved.max((push - pushes[at]).abs() * gives[at][at]);
            pushes[at] = push;
        }
        if moved < TOUCH_MM {
            break;
        }
    }
    pushes
}
