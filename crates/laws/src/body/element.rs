//! The triangle of six nodes with straight sides: its shape functions and where they are summed up.

use super::mesh::{Mesh, Side};
use crate::map::At;

/// A place within a triangle at which its shape functions are known.
#[derive(Debug, Clone, Copy)]
pub(super) struct Point {
    pub at: At,
    /// Share of each node.
    pub n: [f64; 6],
    /// Change of each share along x and y, per mm.
    pub dn: [[f64; 2]; 6],
    /// Area that stands for it in mm².
    pub area_mm2: f64,
}

/// Area coordinates and weights that sum up what goes with the fourth power exactly.
///
/// # Source
/// Symmetric quadrature of degree 4 on a triangle, six points.
const SIX: [([f64; 3], f64); 6] = {
    const A: f64 = 0.445_948_490_915_965;
    const B: f64 = 0.091_576_213_509_771;
    const WA: f64 = 0.223_381_589_678_011;
    const WB: f64 = 0.109_951_743_655_322;
    [
        ([1.0 - 2.0 * A, A, A], WA),
        ([A, 1.0 - 2.0 * A, A], WA),
        ([A, A, 1.0 - 2.0 * A], WA),
        ([1.0 - 2.0 * B, B, B], WB),
        ([B, 1.0 - 2.0 * B, B], WB),
        ([B, B, 1.0 - 2.0 * B], WB),
    ]
};

/// Of degree 2: what a gradient times a gradient needs.
const THREE: [([f64; 3], f64); 3] = {
    const A: f64 = 1.0 / 6.0;
    const W: f64 = 1.0 / 3.0;
    [([1.0 - 2.0 * A, A, A], W), ([A, 1.0 - 2.0 * A, A], W), ([A, A, 1.0 - 2.0 * A], W)]
};

/// A triangle with straight sides.
#[derive(Debug, Clone, Copy)]
pub(super) struct Straight {
    corners: [At; 3],
    /// Change of each area coordinate along x and y, per mm.
    gradients: [[f64; 2]; 3],
    area_mm2: f64,
}

impl Straight {
    pub fn of(mesh: &Mesh, triangle: usize) -> Self {
        let nodes = mesh.triangles[triangle];
        let corners = [nodes[0], nodes[1], nodes[2]].map(|node| mesh.nodes[node]);
        let [a, b, c] = corners;
        let twice = (b.x_mm - a.x_mm) * (c.y_mm - a.y_mm) - (c.x_mm - a.x_mm) * (b.y_mm - a.y_mm);
        let gradient = |p: At, q: At| [(p.y_mm - q.y_mm) / twice, (q.x_mm - p.x_mm) / twice];
        Self { corners, gradients: [gradient(b, c), gradient(c, a), gradient(a, b)], area_mm2: twice / 2.0 }
    }

    /// The shape functions at area coordinates.
    pub fn at(&self, shares: [f64; 3], weight: f64) -> Point {
        let [a, b, c] = self.corners;
        let sum = |of: fn(&At) -> f64| of(&a) * shares[0] + of(&b) * shares[1] + of(&c) * shares[2];
        let mut n = [0.0; 6];
        let mut dn = [[0.0; 2]; 6];
        for corner in 0..3 {
            let next = (corner + 1) % 3;
            let (own, other) = (shares[corner], shares[next]);
            n[corner] = own * (2.0 * own - 1.0);
            n[3 + corner] = 4.0 * own * other;
            let ([ox, oy], [ax, ay]) = (self.gradients[corner], self.gradients[next]);
            dn[corner] = [(4.0 * own - 1.0) * ox, (4.0 * own - 1.0) * oy];
            dn[3 + corner] = [4.0 * (own * ax + other * ox), 4.0 * (own * ay + other * oy)];
        }
        Point { at: At::new(sum(|at| at.x_mm), sum(|at| at.y_mm)), n, dn, area_mm2: weight * self.area_mm2 }
    }

    pub fn six_points(&self) -> [Point; 6] {
        SIX.map(|(shares, weight)| self.at(shares, weight))
    }

    pub fn three_points(&self) -> [Point; 3] {
        THREE.map(|(shares, weight)| self.at(shares, weight))
    }
}

/// What is at a place of what is known at a triangle's nodes.
pub(super) fn sum6(n: &[f64; 6], of: impl Fn(usize) -> f64) -> f64 {
    (0..6).map(|local| n[local] * of(local)).sum()
}

/// What a load of so much for each mm along a side is at its nodes: first corner, last, middle.
pub(super) fn along_side(mesh: &Mesh, side: Side, each_mm: f64) -> [(usize, f64); 3] {
    let long = mesh.nodes[side[0]].distance_mm(mesh.nodes[side[1]]);
    [(side[0], long * each_mm / 6.0), (side[1], long * each_mm / 6.0), (side[2], long * each_mm * 4.0 / 6.0)]
}
