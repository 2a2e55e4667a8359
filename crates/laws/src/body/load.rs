//! What a face carries: held somewhere, loaded somewhere else, the stress across a line.

use std::collections::BTreeSet;
use std::sync::Arc;

use super::element::{Straight, along_side, sum6};
use super::face::{Edge, FlatBody, ONE_PLACE_MM};
use super::lines::Fine;
use super::mesh::{Mesh, Side, Slits};
use super::stress::{Elastic, along_x, along_y};
use super::tips::NotReckoned;
use crate::base::choice::choice;
use crate::map::{At, closed, length_mm, nearest, place_along};

/// Where a face is held or loaded: all round a hole, or along a stretch of a rim.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Boundary {
    /// Counted from 0.
    Hole(usize),
    Along(Edge),
}

choice! {
    /// Which way a force pulls on a face as it is drawn.
    pub enum Towards {
        Down = "down", "down";
        Up = "up", "up";
        Left = "left", "to the left";
        Right = "right", "to the right";
    }
}

impl Towards {
    /// Along x and y of the face, whose y runs down.
    #[must_use]
    pub fn way(self) -> (f64, f64) {
        match self {
            Self::Down => (0.0, 1.0),
            Self::Up => (0.0, -1.0),
            Self::Left => (-1.0, 0.0),
            Self::Right => (1.0, 0.0),
        }
    }
}

/// A force spread evenly.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Force {
    pub at: Boundary,
    pub x_n: f64,
    pub y_n: f64,
}

/// How a face is loaded. Cracks are filled.
#[derive(Debug, Clone, PartialEq)]
pub struct Loading {
    pub held: Vec<Boundary>,
    pub forces: Vec<Force>,
}

/// The stress across a line.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Carried {
    pub mean_mpa: f64,
    /// How far it rises and falls to both ends of the line about the mean: of the straight line that fits it best.
    pub bend_mpa: f64,
    pub most_mpa: f64,
}

/// House: places along a line at which it is looked at.
const LOOKS: u32 = 240;
/// House: triangles along a line.
const ALONG_THE_LINE: f64 = 14.0;
/// House: off the line to either side, in mm.
const BESIDE_MM: f64 = 0.02;

/// The stress across each of these lines of a face that is held and loaded; nothing of one that lies in no iron.
///
/// # Errors
/// [`NotReckoned`] where it cannot be laid out, or is not held.
pub fn carried(
    piece: &FlatBody,
    loading: &Loading,
    lines: &[Vec<At>],
) -> Result<Vec<Option<Carried>>, NotReckoned> {
    let whole = FlatBody { cracks: Vec::new(), ..piece.clone() };
    let places = loading.held.iter().copied().chain(loading.forces.iter().map(|force| force.at));
    let edges: Vec<Vec<At>> = places
        .filter_map(|place| match place {
            Boundary::Along((from, to)) => Some(vec![from, to]),
            Boundary::Hole(_) => None,
        })
        .collect();
    let fine = lines.iter().flat_map(|line| fine(line)).collect();
    let mesh = Arc::new(Mesh::of(&whole, &edges, fine, &Slits::None)?);
    let held: BTreeSet<usize> = loading
        .held
        .iter()
        .flat_map(|place| sides(piece, &mesh, *place))
        .flatten()
        .flat_map(|node| [along_x(node), along_y(node)])
        .collect();
    let body = Elastic::held(&mesh, &piece.iron, held)?;
    let mut forces = vec![0.0; 2 * mesh.nodes.len()];
    for force in &loading.forces {
        let along = sides(piece, &mesh, force.at);
        let long: f64 = along.iter().map(|side| mesh.nodes[side[0]].distance_mm(mesh.nodes[side[1]])).sum();
        for (node, share) in along.iter().flat_map(|side| along_side(&mesh, *side, 1.0 / long)) {
            forces[along_x(node)] += share * force.x_n;
            forces[along_y(node)] += share * force.y_n;
        }
    }
    let moved = body.moves(forces);
    Ok(lines.iter().map(|line| across(piece, (&body, &moved, None), line)).collect())
}

/// Fine along a line, finer still where it ends.
fn fine(line: &[At]) -> Vec<Fine> {
    let long = length_mm(line);
    let each = long / ALONG_THE_LINE;
    let along = (0..=ALONG_THE_LINE as u32).filter_map(|at| place_along(line, f64::from(at) * each));
    let ends = [line.first(), line.last()].into_iter().flatten();
    let ends: Vec<Fine> = ends.map(|at| Fine { at: *at, size_mm: each / 3.0 }).collect();
    along.map(|at| Fine { at, size_mm: each }).chain(ends).collect()
}

/// Sides of triangles that lie there.
fn sides(piece: &FlatBody, mesh: &Mesh, place: Boundary) -> Vec<Side> {
    let line = match place {
        Boundary::Hole(at) => closed(&piece.holes[at].rim()),
        Boundary::Along((from, to)) => vec![from, to],
    };
    let on = |node: usize| {
        nearest(&line, mesh.nodes[node]).is_some_and(|near| near.distance_mm <= 4.0 * ONE_PLACE_MM)
    };
    mesh.rim.iter().map(|(side, _)| *side).filter(|side| side.iter().all(|node| on(*node))).collect()
}

/// A body as it moved, and by how much it is warmer at each node where that is what moved it.
pub(super) type Moved<'a> = (&'a Elastic, &'a [f64], Option<&'a [f64]>);

/// Mean and straight part of the stress across a line, over equal lengths of iron; nothing where there is none.
pub(super) fn across(piece: &FlatBody, of: Moved<'_>, line: &[At]) -> Option<Carried> {
    let long = length_mm(line);
    let mut looks: Vec<(f64, f64)> = Vec::new();
    for look in 0..LOOKS {
        let along = (f64::from(look) + 0.5) / f64::from(LOOKS) * long;
        let at = place_along(line, along)?;
        let ahead = place_along(line, (along - 1e-3 * long).max(0.0))?
            .toward(place_along(line, along + 1e-3 * long)?)?;
        let normal = (-ahead.1, ahead.0);
        if !piece.has_iron_at(at) {
            continue;
        }
        let both: Vec<f64> = [BESIDE_MM, -BESIDE_MM]
            .iter()
            .filter_map(|off| stress_across(of, at.along(normal, *off), normal))
            .collect();
        if !both.is_empty() {
            looks.push((along, both.iter().sum::<f64>() / both.len() as f64));
        }
    }
    let count = looks.len() as f64;
    let (first, last) = (looks.first()?.0, looks.last()?.0);
    let mean = |of: &dyn Fn(&(f64, f64)) -> f64| looks.iter().map(of).sum::<f64>() / count;
    let (mean_mpa, middle) = (mean(&|look| look.1), mean(&|look| look.0));
    let spread = mean(&|look| (look.0 - middle).powi(2));
    let slope =
        if spread > 0.0 { mean(&|look| (look.0 - middle) * (look.1 - mean_mpa)) / spread } else { 0.0 };
    // From the middle of the iron to its further end.
    let half = (last - first) / 2.0 + long / f64::from(LOOKS) / 2.0;
    let bend_mpa = (slope * half).abs();
    Some(Carried { mean_mpa, bend_mpa, most_mpa: mean_mpa + bend_mpa })
}

fn stress_across((body, moved, warmer_k): Moved<'_>, at: At, (x, y): (f64, f64)) -> Option<f64> {
    let (triangle, shares) = body.mesh.find(at)?;
    let point = Straight::of(&body.mesh, triangle).at(shares, 1.0);
    let nodes = &body.mesh.triangles[triangle];
    let warmer_k = warmer_k.map_or(0.0, |warmer_k| sum6(&point.n, |local| warmer_k[nodes[local]]));
    let stress = body.stress(&body.gradients(triangle, &point, moved), warmer_k);
    Some(stress.xx * x * x + 2.0 * stress.xy * x * y + stress.yy * y * y)
}
