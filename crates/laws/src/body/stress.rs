//! The face as an elastic body in plane stress: what moves it, and what is in it then.

use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;

use super::element::{Point, Straight, sum6};
use super::mesh::Mesh;
use super::sparse::{Factor, NotHeld, Order};
use super::symmetric::Symmetric;
use crate::iron::IronProperties;
use crate::map::At;

/// Stresses in the plane: along x, along y, and shear, in MPa.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(super) struct Stress {
    pub xx: f64,
    pub yy: f64,
    pub xy: f64,
}

/// Stiffness in MPa: of a strain along x on the stress along x, of one across, of shear.
#[derive(Debug, Clone, Copy)]
pub(super) struct Stiffness {
    along: f64,
    across: f64,
    shear: f64,
}

impl Stiffness {
    /// In plane stress. E is kept as when cold.
    pub fn of(iron: &IronProperties) -> Self {
        let youngs_mpa = iron.youngs_gpa * 1e3;
        let along = youngs_mpa / (1.0 - iron.poisson * iron.poisson);
        Self { along, across: along * iron.poisson, shear: youngs_mpa / (2.0 * (1.0 + iron.poisson)) }
    }

    /// Of strains along x, along y, and the change of angle.
    pub fn stress(&self, xx: f64, yy: f64, angle: f64) -> Stress {
        Stress {
            xx: self.along * xx + self.across * yy,
            yy: self.across * xx + self.along * yy,
            xy: self.shear * angle,
        }
    }
}

/// A body that is held, ready to be loaded again and again.
#[derive(Debug, Clone)]
pub(super) struct Elastic {
    pub mesh: Arc<Mesh>,
    pub stiffness: Stiffness,
    /// Expansion for each K.
    expansion: f64,
    order: Order,
    factor: Factor,
    held: BTreeSet<usize>,
}

/// Two unknowns a node: its way along x, then along y.
pub(super) fn along_x(node: usize) -> usize {
    2 * node
}
pub(super) fn along_y(node: usize) -> usize {
    2 * node + 1
}

impl Elastic {
    /// A body nobody holds: as little is held of each of its parts as keeps it from floating away.
    ///
    /// # Errors
    /// [`NotHeld`] where the mesh has a part without any stiffness.
    pub fn free(mesh: &Arc<Mesh>, iron: &IronProperties) -> Result<Self, NotHeld> {
        Self::held(mesh, iron, floating(mesh))
    }

    /// # Errors
    /// [`NotHeld`] where what is held does not keep it from floating away.
    pub fn held(mesh: &Arc<Mesh>, iron: &IronProperties, held: BTreeSet<usize>) -> Result<Self, NotHeld> {
        let neighbours = mesh.neighbours();
        let order = Order::of(&mesh.nodes, &neighbours, 2);
        let mut matrix = Symmetric::of(&neighbours, 2);
        let stiffness = Stiffness::of(iron);
        for triangle in 0..mesh.triangles.len() {
            let nodes = mesh.triangles[triangle];
            let of = stiffness_of(mesh, triangle, stiffness);
            for one in 0..6 {
                for other in 0..=one {
                    let at = |row: usize, column: usize| of[row.max(column)][row.min(column)];
                    let both = [0, 1].map(|row| [0, 1].map(|column| at(2 * one + row, 2 * other + column)));
                    matrix.add_pair(nodes[one], nodes[other], both);
                }
            }
        }
        matrix.hold(&held);
        let factor = Factor::of(&matrix, &order)?;
        Ok(Self {
            mesh: mesh.clone(),
            stiffness,
            expansion: iron.expansion_1e6_per_k * 1e-6,
            order,
            factor,
            held,
        })
    }

    /// How it moves under forces in N, two for each node.
    pub fn moves(&self, mut forces: Vec<f64>) -> Vec<f64> {
        for held in &self.held {
            forces[*held] = 0.0;
        }
        self.factor.solve(&self.order, &forces)
    }

    /// The same of each of several forces.
    pub fn moves_each(&self, mut forces: Vec<Vec<f64>>) -> Vec<Vec<f64>> {
        for of_one in &mut forces {
            self.held.iter().for_each(|held| of_one[*held] = 0.0);
        }
        self.factor.solve_each(&self.order, &forces)
    }

    /// The forces of iron that wants to grow: warmer by so much at each node.
    pub fn thermal_forces(&self, warmer_k: &[f64]) -> Vec<f64> {
        let mut forces = vec![0.0; 2 * self.mesh.nodes.len()];
        for (triangle, nodes) in self.mesh.triangles.iter().enumerate() {
            let wall = self.mesh.walls_mm[triangle];
            for point in Straight::of(&self.mesh, triangle).six_points() {
                let free = self.expansion * sum6(&point.n, |local| warmer_k[nodes[local]]);
                // Alike along x and y, so that nothing of it shears.
                let pushes = self.stiffness.stress(free, free, 0.0).xx * wall * point.area_mm2;
                for (local, node) in nodes.iter().enumerate() {
                    forces[along_x(*node)] += pushes * point.dn[local][0];
                    forces[along_y(*node)] += pushes * point.dn[local][1];
                }
            }
        }
        forces
    }

    /// Forces that a triangle's nodes feel when they are moved so: two for each of its six nodes.
    pub fn answers(&self, triangle: usize, moved: &[f64; 12]) -> [f64; 12] {
        let of = stiffness_of(&self.mesh, triangle, self.stiffness);
        let mut forces = [0.0; 12];
        for one in 0..12 {
            for (other, moved) in moved.iter().enumerate() {
                forces[one] += of[one.max(other)][one.min(other)] * moved;
            }
        }
        forces
    }

    /// Changes of the ways along x and y, by x and y: [[ux,x ux,y] [uy,x uy,y]].
    pub fn gradients(&self, triangle: usize, point: &Point, moved: &[f64]) -> [[f64; 2]; 2] {
        let nodes = self.mesh.triangles[triangle];
        let sum = |way: usize, by: usize| {
            (0..6).map(|local| point.dn[local][by] * moved[2 * nodes[local] + way]).sum()
        };
        [[sum(0, 0), sum(0, 1)], [sum(1, 0), sum(1, 1)]]
    }

    /// The stress at a place of a triangle, where it is warmer by so much.
    pub fn stress(&self, gradients: &[[f64; 2]; 2], warmer_k: f64) -> Stress {
        let free = self.expansion * warmer_k;
        self.stiffness.stress(
            gradients[0][0] - free,
            gradients[1][1] - free,
            gradients[0][1] + gradients[1][0],
        )
    }

    pub fn expansion(&self) -> f64 {
        self.expansion
    }
}

/// Stiffness of a triangle: its lower half.
fn stiffness_of(mesh: &Mesh, triangle: usize, stiffness: Stiffness) -> [[f64; 12]; 12] {
    let mut of = [[0.0; 12]; 12];
    for point in Straight::of(mesh, triangle).three_points() {
        let by = mesh.walls_mm[triangle] * point.area_mm2;
        let (along, across, shear) = (stiffness.along * by, stiffness.across * by, stiffness.shear * by);
        for one in 0..6 {
            let [ax, ay] = point.dn[one];
            for other in 0..=one {
                let [bx, by] = point.dn[other];
                of[2 * one][2 * other] += along * ax * bx + shear * ay * by;
                of[2 * one + 1][2 * other + 1] += along * ay * by + shear * ax * bx;
                of[2 * one + 1][2 * other] += across * ay * bx + shear * ax * by;
                if other < one {
                    of[2 * one][2 * other + 1] += across * ax * by + shear * ay * bx;
                }
            }
        }
    }
    of
}

/// Three unknowns of each part: one node is held, and another one far from it is kept from turning round it.
fn floating(mesh: &Mesh) -> BTreeSet<usize> {
    let mut parts: BTreeMap<usize, Vec<usize>> = BTreeMap::new();
    for (node, body) in mesh.bodies().iter().copied().enumerate() {
        parts.entry(body).or_default().push(node);
    }
    let mut held = BTreeSet::new();
    for nodes in parts.values() {
        let Some(first) = nodes.first() else { continue };
        let from = mesh.nodes[*first];
        let far = nodes
            .iter()
            .max_by(|a, b| mesh.nodes[**a].distance_mm(from).total_cmp(&mesh.nodes[**b].distance_mm(from)));
        held.extend([along_x(*first), along_y(*first)]);
        if let Some(far) = far {
            let at: At = mesh.nodes[*far];
            let turns_along_y = (at.x_mm - from.x_mm).abs() >= (at.y_mm - from.y_mm).abs();
            held.insert(if turns_along_y { along_y(*far) } else { along_x(*far) });
        }
    }
    held
}
