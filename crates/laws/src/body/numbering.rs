//! Nodes of triangles: one at each corner as far as no slit parts it, one in the middle of each side.

use std::collections::BTreeMap;
use std::sync::OnceLock;

use super::lines::{Line, Pieces};
use super::mesh::{Faces, Groups, Mesh, Nodes, Side, Slits};
use crate::map::{At, nearest};

/// A side of a triangle, by its place among the triangles and its number in it.
type OfTriangle = (usize, usize);

/// Triangles by their corners' places, and which sides they share.
pub(super) struct Numbering<'a> {
    corners: &'a [[usize; 3]],
    places: &'a [At],
    /// Each side from its lower corner to its higher, with the triangle it belongs to, and the one behind it.
    sides: Vec<((usize, usize), OfTriangle, Option<OfTriangle>)>,
    lines: BTreeMap<(usize, usize), Line>,
    slits: &'a Slits,
}

fn key(one: usize, other: usize) -> (usize, usize) {
    (one.min(other), one.max(other))
}

impl<'a> Numbering<'a> {
    pub fn new(corners: &'a [[usize; 3]], places: &'a [At], pieces: &Pieces, slits: &'a Slits) -> Self {
        let mut each: Vec<((usize, usize), OfTriangle)> = Vec::with_capacity(3 * corners.len());
        for (triangle, of) in corners.iter().enumerate() {
            each.extend((0..3).map(|side| (key(of[side], of[(side + 1) % 3]), (triangle, side))));
        }
        each.sort_unstable();
        let sides = each
            .chunk_by(|one, other| one.0 == other.0)
            .map(|same| (same[0].0, same[0].1, same.get(1).map(|(_, other)| *other)))
            .collect();
        // A place keeps its number in the triangulation: it was put there first.
        let lines = pieces.pieces.iter().map(|((from, to), line)| (key(*from, *to), *line)).collect();
        Self { corners, places, sides, lines, slits }
    }

    fn is_slit(&self, side: (usize, usize)) -> bool {
        self.lines.get(&side).is_some_and(|line| self.slits.is_slit(*line))
    }

    /// A node for each corner as far as it is not parted by a slit, and one in the middle of each side.
    pub fn mesh(&self, cracks: &[Vec<At>], walls_mm: Vec<f64>) -> Mesh {
        // Six local numbers a triangle: three corners, three middles.
        let mut same = Groups::new(6 * self.corners.len());
        for (side, (one, first), behind) in &self.sides {
            let Some((other, second)) = behind.filter(|_| !self.is_slit(*side)) else { continue };
            same.unite(6 * one + 3 + first, 6 * other + 3 + second);
            let (next, last) = ((first + 1) % 3, (second + 1) % 3);
            same.unite(6 * one + first, 6 * other + last);
            same.unite(6 * one + next, 6 * other + second);
        }
        let mut numbers: Vec<Option<usize>> = vec![None; 6 * self.corners.len()];
        let mut nodes = Vec::new();
        let mut triangles = Vec::with_capacity(self.corners.len());
        for (triangle, corners) in self.corners.iter().enumerate() {
            let at = corners.map(|corner| self.places[corner]);
            let mut of = [0; 6];
            for (local, node) in of.iter_mut().enumerate() {
                *node = *numbers[same.root(6 * triangle + local)].get_or_insert_with(|| {
                    let side = local.saturating_sub(3);
                    nodes.push(if local < 3 { at[local] } else { at[side].between(at[(side + 1) % 3], 0.5) });
                    nodes.len() - 1
                });
            }
            triangles.push(of);
        }
        let rim = self
            .sides
            .iter()
            .filter(|(_, _, behind)| behind.is_none())
            .map(|(_, (triangle, side), _)| (side_of(&triangles[*triangle], *side), *triangle))
            .collect();
        let faces = self.faces(cracks, &triangles, &nodes);
        Mesh { nodes, triangles, walls_mm, rim, faces, lookup: OnceLock::new(), bodies: OnceLock::new() }
    }

    /// The two faces of each crack, also of one that is filled.
    fn faces(&self, cracks: &[Vec<At>], triangles: &[Nodes], nodes: &[At]) -> Vec<Faces> {
        let mut faces: Vec<(usize, f64, Faces)> = Vec::new();
        for (side, (one, first), behind) in &self.sides {
            let (Some(Line::Crack(crack)), Some((other, second))) = (self.lines.get(side), behind) else {
                continue;
            };
            let line = &cracks[*crack];
            let along = |node: usize| nearest(line, nodes[node]).map_or(0.0, |near| near.along_mm);
            let mine = side_of(&triangles[*one], *first);
            // A triangle is walked with its iron at the left.
            let forward = along(mine[0]) < along(mine[1]);
            let theirs = side_of(&triangles[*other], *second);
            let turned = |[from, to, middle]: Side| [to, from, middle];
            let found = if forward {
                Faces { crack: *crack, left: mine, right: turned(theirs), left_triangle: *one }
            } else {
                Faces { crack: *crack, left: theirs, right: turned(mine), left_triangle: *other }
            };
            faces.push((*crack, along(found.left[2]), found));
        }
        faces.sort_by(|one, other| one.0.cmp(&other.0).then(one.1.total_cmp(&other.1)));
        faces.into_iter().map(|(_, _, faces)| faces).collect()
    }
}

fn side_of(triangle: &Nodes, side: usize) -> Side {
    [triangle[side], triangle[(side + 1) % 3], triangle[3 + side]]
}
