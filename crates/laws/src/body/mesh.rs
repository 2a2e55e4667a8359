//! Triangles over a face, with a node at each corner and in the middle of each side. Cracks are slits: their two faces
//! have nodes of their own.

use std::sync::OnceLock;

use super::lines::Line;
use super::lookup::Lookup;
use crate::map::At;

/// A triangle: its corners 0 to 2, then the middles of its sides 01, 12, 20.
pub(super) type Nodes = [usize; 6];
/// A side of a triangle: its first corner, its last, its middle.
pub(super) type Side = [usize; 3];

/// A stretch of a slit between two triangles: the nodes of its left face and of its right one, as it is walked
/// from the crack's first point; at a tip they are the same.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Faces {
    pub crack: usize,
    pub left: Side,
    pub right: Side,
    /// The triangle at the left.
    pub left_triangle: usize,
}

/// The mesh of a face.
#[derive(Debug, Clone)]
pub(super) struct Mesh {
    pub nodes: Vec<At>,
    pub triangles: Vec<Nodes>,
    /// One for each triangle, in mm.
    pub walls_mm: Vec<f64>,
    /// Sides on the outline or a hole, with their triangle.
    pub rim: Vec<(Side, usize)>,
    pub faces: Vec<Faces>,
    /// Once it is needed.
    pub lookup: OnceLock<Lookup>,
    /// A number for each node, one for each body the slits leave: once they are needed.
    pub bodies: OnceLock<Vec<usize>>,
}

/// Which cracks are slits: others are iron.
pub(super) enum Slits {
    All,
    None,
    /// All but this one, whose faces are told all the same.
    AllBut(usize),
}

impl Slits {
    pub fn is_slit(&self, line: Line) -> bool {
        match (self, line) {
            (_, Line::Rim | Line::Followed) | (Self::None, _) => false,
            (Self::All, Line::Crack(_)) => true,
            (Self::AllBut(filled), Line::Crack(crack)) => *filled != crack,
        }
    }
}

impl Mesh {
    /// The triangle a place lies in, and where in it: its three area coordinates. The nearest one where it lies
    /// outside by no more than a rim is laid out less round than it is.
    pub fn find(&self, at: At) -> Option<(usize, [f64; 3])> {
        let shares = |triangle: &Nodes| {
            let [a, b, c] = [triangle[0], triangle[1], triangle[2]].map(|node| self.nodes[node]);
            let whole = twice_area(a, b, c);
            [twice_area(at, b, c) / whole, twice_area(a, at, c) / whole, twice_area(a, b, at) / whole]
        };
        let least = |shares: &[f64; 3]| shares.iter().copied().fold(f64::INFINITY, f64::min);
        let nearest = |triangles: &mut dyn Iterator<Item = usize>| {
            triangles
                .map(|triangle| (triangle, shares(&self.triangles[triangle])))
                .max_by(|(_, one), (_, other)| least(one).total_cmp(&least(other)))
        };
        let lookup = self.lookup.get_or_init(|| {
            let corners = |of: &Nodes| [of[0], of[1], of[2]].map(|node| self.nodes[node]);
            Lookup::of(&self.triangles.iter().map(corners).collect::<Vec<_>>())
        });
        nearest(&mut lookup.near(at).iter().copied())
            .filter(|(_, shares)| least(shares) >= 0.0)
            .or_else(|| nearest(&mut (0..self.triangles.len())))
            .filter(|(_, shares)| least(shares) > -0.5)
    }

    /// Nodes that hang together: a number for each, one for each body the slits leave.
    pub fn bodies(&self) -> &[usize] {
        self.bodies.get_or_init(|| {
            let mut of = Groups::new(self.nodes.len());
            for triangle in &self.triangles {
                for node in &triangle[1..] {
                    of.unite(triangle[0], *node);
                }
            }
            (0..self.nodes.len()).map(|node| of.root(node)).collect()
        })
    }

    /// Nodes beside each node in ascending order, itself not among them.
    pub fn neighbours(&self) -> Vec<Vec<usize>> {
        let mut beside = vec![Vec::new(); self.nodes.len()];
        for triangle in &self.triangles {
            for one in triangle {
                beside[*one].extend(triangle.iter().copied().filter(|other| other != one));
            }
        }
        for of_node in &mut beside {
            of_node.sort_unstable();
            of_node.dedup();
        }
        beside
    }
}

/// Twice the area of a triangle, in mm²; less than nothing where it is walked clockwise.
pub(super) fn twice_area(a: At, b: At, c: At) -> f64 {
    (b.x_mm - a.x_mm) * (c.y_mm - a.y_mm) - (c.x_mm - a.x_mm) * (b.y_mm - a.y_mm)
}

/// Numbers that are one once they are united.
pub(super) struct Groups(Vec<usize>);

impl Groups {
    pub fn new(count: usize) -> Self {
        Self((0..count).collect())
    }

    pub fn root(&mut self, mut of: usize) -> usize {
        while self.0[of] != of {
            self.0[of] = self.0[self.0[of]];
            of = self.0[of];
        }
        of
    }

    pub fn unite(&mut self, one: usize, other: usize) {
        let (one, other) = (self.root(one), self.root(other));
        // The lower number stands for both.
        self.0[one.max(other)] = one.min(other);
    }
}
