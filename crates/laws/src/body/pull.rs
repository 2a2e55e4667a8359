//! What a seam pulls as it shrinks: on itself, and how far it moves other places.

use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;

use super::element::{Straight, sum6};
use super::face::FlatBody;
use super::lines::Fine;
use super::mesh::{Faces, Mesh, Slits};
use super::slit::across;
use super::stress::{Elastic, along_x, along_y};
use super::tips::NotReckoned;
use crate::iron::IronProperties;
use crate::map::{At, length_mm, place_along};

/// A seam that has shrunk.
#[derive(Debug, Clone, PartialEq)]
pub struct Pulled {
    /// Over the whole slit; a pull is positive.
    pub mean_pull_mpa: f64,
    /// The mean, and what the pull rises by to the stronger end of the seam, as a straight line.
    pub most_pull_mpa: f64,
    /// Change of each distance that was asked for; nearer is negative.
    pub moves_mm: Vec<f64>,
}

/// A bead's heat, as it shrinks a wall across the bead.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shrinks {
    /// J for each mm of bead.
    pub joules_a_mm: f64,
    /// In the same cross-section: layers, and beads side by side.
    pub passes: u32,
    pub peened: bool,
}

/// House: specific heat is taken at this temperature, in °C.
const SHRINKS_AT_C: f64 = 400.0;
/// House: what a further pass adds, and one from the fifth on; what a peened one leaves.
const FURTHER: f64 = 0.3;
const FROM_THE_FIFTH: f64 = 0.15;
const PEENED: f64 = 0.5;

/// How much a seam shrinks across itself, in mm: α q / (ρ c t) of the first pass, a share of it of each further one.
///
/// # Source
/// Heat of a bead over the wall (law); the shares are house.
#[must_use]
pub fn shrink_mm(iron: &IronProperties, wall_mm: f64, shrinks: Shrinks) -> f64 {
    let rho_c = iron.density_kg_m3 * iron.specific_heat(SHRINKS_AT_C) / 1e9;
    let once = iron.expansion_1e6_per_k * 1e-6 * shrinks.joules_a_mm / (rho_c * wall_mm);
    let first_four = f64::from(shrinks.passes.clamp(1, 4) - 1) * FURTHER;
    let rest = f64::from(shrinks.passes.saturating_sub(4)) * FROM_THE_FIFTH;
    once * (1.0 + first_four + rest) * if shrinks.peened { PEENED } else { 1.0 }
}

/// House: a flame way shrinks like so much of one pass; what goes in by more than this, in J for each mm of wall and mm of
/// seam, goes into the part as a whole.
const BY_FLAME: f64 = 0.5;
const FLAME_J_MM2: f64 = 1.0;

/// How much a seam that is filled with a flame shrinks across itself, in mm: by its heat along the seam, in J/mm.
///
/// # Source
/// As [`shrink_mm`]; the shares are house.
#[must_use]
pub fn flame_shrink_mm(iron: &IronProperties, wall_mm: f64, joules_a_mm: f64) -> f64 {
    let joules_a_mm = joules_a_mm.min(FLAME_J_MM2 * wall_mm);
    BY_FLAME * shrink_mm(iron, wall_mm, Shrinks { joules_a_mm, passes: 1, peened: false })
}

/// House: the mesh at a tip, and where the shrinking begins to fall.
const FINEST_MM: f64 = 1.0;

/// Which ends of the seam shrink less: those in the iron.
#[derive(Debug, Clone, Copy)]
struct Tapers {
    long_mm: f64,
    over_mm: f64,
    at_first: bool,
    at_last: bool,
}

impl Tapers {
    fn of(piece: &FlatBody, seam: &[At]) -> Self {
        let closed = |at: Option<&At>| at.is_some_and(|at| !piece.is_open_end(0, *at));
        Self {
            long_mm: length_mm(seam),
            over_mm: piece.wall_mm,
            at_first: closed(seam.first()),
            at_last: closed(seam.last()),
        }
    }

    /// Share of the full shrinking at a place along the seam.
    fn share(&self, along_mm: f64) -> f64 {
        let first = if self.at_first { along_mm / self.over_mm } else { 1.0 };
        let last = if self.at_last { (self.long_mm - along_mm) / self.over_mm } else { 1.0 };
        first.min(last).clamp(0.0, 1.0)
    }

    /// Where the mesh has to be fine.
    fn fine(&self, seam: &[At], finest_mm: f64) -> Vec<Fine> {
        let from_first = self.at_first.then_some([0.0, self.over_mm]);
        let from_last = self.at_last.then_some([self.long_mm, self.long_mm - self.over_mm]);
        [from_first, from_last]
            .into_iter()
            .flatten()
            .flatten()
            .filter_map(|along| place_along(seam, along.clamp(0.0, self.long_mm)))
            .map(|at| Fine { at, size_mm: finest_mm })
            .collect()
    }
}

/// The first slit of a face joined, its faces drawn together by `shrink_mm`: elastic, shear passed on.
///
/// # Errors
/// [`NotReckoned`] where it cannot be laid out.
pub fn pulled(piece: &FlatBody, shrink_mm: f64, between: &[(At, At)]) -> Result<Pulled, NotReckoned> {
    drawn_together((piece, FINEST_MM.min(piece.wall_mm / 4.0)), shrink_mm, between)
}

/// How hard the iron round the first slit of a face holds it: σ L / (E δ), the mean pull times the length of the seam
/// over the modulus and what it shrinks; nothing of a seam that parts the face, some 0.1 from an edge, 0.3 and over
/// where it is closed in all round. To a fifth: the mesh is coarse at the tips.
///
/// # Errors
/// [`NotReckoned`] where it cannot be laid out.
pub fn held_in(piece: &FlatBody) -> Result<f64, NotReckoned> {
    let long_mm = length_mm(&piece.cracks[0]);
    let found = drawn_together((piece, (piece.wall_mm / 2.0).min(long_mm / 10.0)), 1.0, &[])?;
    Ok(found.mean_pull_mpa * long_mm / (piece.iron.youngs_gpa * 1000.0))
}

fn drawn_together(
    (piece, finest_mm): (&FlatBody, f64),
    shrink_mm: f64,
    between: &[(At, At)],
) -> Result<Pulled, NotReckoned> {
    let seam = piece.cracks[0].clone();
    let tapers = Tapers::of(piece, &seam);
    let parts = !tapers.at_first && !tapers.at_last && parts_the_face(piece)?;
    let mesh = Arc::new(Mesh::of(piece, &[], tapers.fine(&seam, finest_mm), &Slits::AllBut(0))?);
    let body = Elastic::free(&mesh, &piece.iron)?;
    let faces: Vec<&Faces> = mesh.faces.iter().filter(|faces| faces.crack == 0).collect();
    let jump = jumps(&mesh, &faces, &tapers, shrink_mm, parts.then(|| chord(&seam)).flatten());
    // The iron at the left of the seam is taken nearer by the jump before it is let go.
    let left = left_triangles(&mesh, &faces, &jump);
    let mut forces = vec![0.0; 2 * mesh.nodes.len()];
    for triangle in &left {
        let pushes = body.answers(*triangle, &jump_of(&mesh, *triangle, &jump));
        for (local, push) in pushes.iter().enumerate() {
            forces[2 * mesh.triangles[*triangle][local / 2] + local % 2] -= push;
        }
    }
    let moved = body.moves(forces);
    let ways = |at: At| way_at(&mesh, &left, &jump, &moved, at);
    let moves_mm = between
        .iter()
        .map(|(a, b)| {
            let (from, to) = (ways(*a), ways(*b));
            let now =
                At::new(a.x_mm + from.0, a.y_mm + from.1).distance_mm(At::new(b.x_mm + to.0, b.y_mm + to.1));
            now - a.distance_mm(*b)
        })
        .collect();
    let (mean_pull_mpa, bends_mpa) = pull_along(&mesh, &body, &faces, &left, &jump, &moved);
    Ok(Pulled { mean_pull_mpa, most_pull_mpa: mean_pull_mpa + bends_mpa, moves_mm })
}

/// Whether the first slit parts the face.
fn parts_the_face(piece: &FlatBody) -> Result<bool, NotReckoned> {
    let only = FlatBody { cracks: vec![piece.cracks[0].clone()], ..piece.clone() };
    let mesh = Mesh::of(&only, &[], Vec::new(), &Slits::All)?;
    Ok(mesh.bodies().iter().any(|body| *body != 0))
}

/// Across the straight way from the first point of a seam to its last, to its left.
fn chord(seam: &[At]) -> Option<(f64, f64)> {
    seam.first()?.toward(*seam.last()?).map(|(x, y)| (-y, x))
}

/// How far each node of the seam is drawn towards the right face.
fn jumps(
    mesh: &Mesh,
    faces: &[&Faces],
    tapers: &Tapers,
    shrink_mm: f64,
    one_way: Option<(f64, f64)>,
) -> BTreeMap<usize, (f64, f64)> {
    let mut along_mm = 0.0;
    let mut jumps: BTreeMap<usize, (f64, f64)> = BTreeMap::new();
    for faces in faces {
        let [first, last, middle] = faces.left;
        let long = mesh.nodes[first].distance_mm(mesh.nodes[last]);
        let (x, y) = one_way.unwrap_or_else(|| across(mesh, faces));
        for (node, along) in [(first, along_mm), (middle, along_mm + long / 2.0), (last, along_mm + long)] {
            let by = -shrink_mm * tapers.share(along);
            jumps
                .entry(node)
                // Where the seam bends, half way between its two directions.
                .and_modify(|jump| *jump = (f64::midpoint(jump.0, by * x), f64::midpoint(jump.1, by * y)))
                .or_insert((by * x, by * y));
        }
        along_mm += long;
    }
    jumps
}

/// Triangles at the left of the seam that touch a node of it that is drawn away: from one to the next about such
/// a node, never over the seam. At a tip nothing is drawn, and left goes over into right.
fn left_triangles(mesh: &Mesh, faces: &[&Faces], jump: &BTreeMap<usize, (f64, f64)>) -> BTreeSet<usize> {
    let drawn = |node: usize| jump.get(&node).is_some_and(|(x, y)| *x != 0.0 || *y != 0.0);
    let on_seam: BTreeSet<usize> = faces.iter().map(|faces| faces.left[2]).collect();
    let mut at_side: BTreeMap<usize, Vec<usize>> = BTreeMap::new();
    for (triangle, nodes) in mesh.triangles.iter().enumerate() {
        for side in 0..3 {
            let turns = drawn(nodes[side]) || drawn(nodes[(side + 1) % 3]);
            if turns && !on_seam.contains(&nodes[3 + side]) {
                at_side.entry(nodes[3 + side]).or_default().push(triangle);
            }
        }
    }
    let mut left: BTreeSet<usize> = faces.iter().map(|faces| faces.left_triangle).collect();
    let mut next: Vec<usize> = left.iter().copied().collect();
    while let Some(triangle) = next.pop() {
        let beside = mesh.triangles[triangle][3..].iter().filter_map(|side| at_side.get(side)).flatten();
        for other in beside {
            if left.insert(*other) {
                next.push(*other);
            }
        }
    }
    left
}

fn jump_of(mesh: &Mesh, triangle: usize, jump: &BTreeMap<usize, (f64, f64)>) -> [f64; 12] {
    let mut of = [0.0; 12];
    for (local, node) in mesh.triangles[triangle].iter().enumerate() {
        if let Some((x, y)) = jump.get(node) {
            of[2 * local] = *x;
            of[2 * local + 1] = *y;
        }
    }
    of
}

/// How far a place has moved.
fn way_at(
    mesh: &Mesh,
    left: &BTreeSet<usize>,
    jump: &BTreeMap<usize, (f64, f64)>,
    moved: &[f64],
    at: At,
) -> (f64, f64) {
    let Some((triangle, shares)) = mesh.find(at) else { return (0.0, 0.0) };
    let nodes = mesh.triangles[triangle];
    let n = Straight::of(mesh, triangle).at(shares, 1.0).n;
    let own = if left.contains(&triangle) { jump_of(mesh, triangle, jump) } else { [0.0; 12] };
    (
        sum6(&n, |local| moved[along_x(nodes[local])] + own[2 * local]),
        sum6(&n, |local| moved[along_y(nodes[local])] + own[2 * local + 1]),
    )
}

/// The force across the seam by its length and wall, and how much of it bends: the amount at the ends of a straight
/// line with the same moment about the seam's middle.
fn pull_along(
    mesh: &Mesh,
    body: &Elastic,
    faces: &[&Faces],
    left: &BTreeSet<usize>,
    jump: &BTreeMap<usize, (f64, f64)>,
    moved: &[f64],
) -> (f64, f64) {
    // The forces with which the iron at the left is held at the seam's nodes.
    let mut holds: BTreeMap<usize, (f64, f64)> = jump.keys().map(|node| (*node, (0.0, 0.0))).collect();
    for triangle in left {
        let nodes = mesh.triangles[*triangle];
        let mut ways = jump_of(mesh, *triangle, jump);
        for local in 0..6 {
            ways[2 * local] += moved[along_x(nodes[local])];
            ways[2 * local + 1] += moved[along_y(nodes[local])];
        }
        let forces = body.answers(*triangle, &ways);
        for (local, node) in nodes.iter().enumerate() {
            if let Some(hold) = holds.get_mut(node) {
                hold.0 += forces[2 * local];
                hold.1 += forces[2 * local + 1];
            }
        }
    }
    let mut normals: BTreeMap<usize, (f64, f64)> = BTreeMap::new();
    let (mut section_mm2, mut force_n, mut moment_nmm, mut gone_mm) = (0.0, 0.0, 0.0, 0.0);
    let mut along: BTreeMap<usize, f64> = BTreeMap::new();
    for faces in faces {
        let long = mesh.nodes[faces.left[0]].distance_mm(mesh.nodes[faces.left[1]]);
        section_mm2 += long * mesh.walls_mm[faces.left_triangle];
        along.insert(faces.left[0], gone_mm);
        along.insert(faces.left[2], gone_mm + long / 2.0);
        gone_mm += long;
        along.insert(faces.left[1], gone_mm);
        for node in faces.left {
            let normal = normals.entry(node).or_default();
            let (x, y) = across(mesh, faces);
            *normal = (normal.0 + x, normal.1 + y);
        }
    }
    for (node, (x, y)) in normals {
        let long = (x * x + y * y).sqrt();
        if let (Some(hold), true) = (holds.get(&node), long > 0.0) {
            // What pulls the left iron towards the seam.
            let pull = -(hold.0 * x + hold.1 * y) / long;
            force_n += pull;
            moment_nmm += pull * (along[&node] - gone_mm / 2.0);
        }
    }
    (force_n / section_mm2, 6.0 * moment_nmm.abs() / (section_mm2 * gone_mm))
}
