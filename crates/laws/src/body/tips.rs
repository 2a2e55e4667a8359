//! The tips of a face's cracks, and the stress intensity at each.

use super::element::{Straight, sum6};
use super::face::FlatBody;
use super::laid_out::NoMesh;
use super::lines::Fine;
use super::stress::Elastic;
use crate::iron::IronProperties;
use crate::map::{At, nearest};

/// Why nothing is said.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum NotReckoned {
    #[error(transparent)]
    Mesh(#[from] NoMesh),
    #[error(transparent)]
    NotHeld(#[from] super::sparse::NotHeld),
}

/// A tip within a face, and the round of iron about it in which nothing else lies.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Tip {
    pub crack: usize,
    pub at_last_point: bool,
    pub at: At,
    /// The way in which the crack would go on, of length 1.
    pub ahead: (f64, f64),
    pub clear_mm: f64,
}

/// House: share of the clear round that is summed up.
const ROUND_SHARE: f64 = 0.8;
/// House: elements across that round.
const ACROSS_THE_ROUND: f64 = 16.0;

/// The tips of a face, the first point of each crack before its last.
pub(super) fn tips(piece: &FlatBody) -> Vec<Tip> {
    let mut tips = Vec::new();
    for (crack, line) in piece.cracks.iter().enumerate() {
        let ends = [(false, line.first(), line.get(1)), (true, line.last(), line.iter().rev().nth(1))];
        for (at_last_point, at, before) in ends {
            let (Some(at), Some(before)) = (at, before) else { continue };
            let Some(ahead) = before.toward(*at).filter(|_| !piece.is_open_end(crack, *at)) else { continue };
            let clear_mm = clear_mm(piece, crack, *at, *before);
            tips.push(Tip { crack, at_last_point, at: *at, ahead, clear_mm });
        }
    }
    tips
}

fn clear_mm(piece: &FlatBody, crack: usize, tip: At, before: At) -> f64 {
    let others =
        piece.cracks.iter().enumerate().filter(|(other, _)| *other != crack).map(|(_, line)| line.clone());
    // Its own line further back, which may come near it again.
    let own =
        piece.cracks[crack].iter().copied().filter(|at| *at != tip && *at != before).collect::<Vec<_>>();
    let steps = piece.thick.iter().map(|place| crate::map::closed(&place.place.rim()));
    let lines = others.chain([own]).chain(steps);
    lines
        .filter_map(|line| nearest(&line, tip))
        .map(|near| near.distance_mm)
        .fold(tip.distance_mm(before).min(piece.off_the_rims_mm(tip)), f64::min)
        .max(0.5)
}

impl Tip {
    /// Where the mesh is fine about it.
    pub(super) fn fine(&self) -> Fine {
        Fine { at: self.at, size_mm: (ROUND_SHARE * self.clear_mm / ACROSS_THE_ROUND).min(FINEST_NEEDED_MM) }
    }

    /// Stress intensities of opening and of sliding in MPa √m.
    ///
    /// # Source
    /// Interaction integral over a round about the tip, with the term of a temperature that changes across it.
    pub(super) fn intensity(
        &self,
        body: &Elastic,
        iron: &IronProperties,
        moved: &[f64],
        warmer_k: &[f64],
    ) -> (f64, f64) {
        let outer = ROUND_SHARE * self.clear_mm;
        let inner = 0.4 * outer;
        let weight = |at: At| ((outer - at.distance_mm(self.at)) / (outer - inner)).clamp(0.0, 1.0);
        let mut sums = [0.0; 2];
        for (triangle, nodes) in body.mesh.triangles.iter().enumerate() {
            if !nodes.iter().any(|node| body.mesh.nodes[*node].distance_mm(self.at) < outer) {
                continue;
            }
            let q = nodes.map(|node| weight(body.mesh.nodes[node]));
            for point in Straight::of(&body.mesh, triangle).six_points() {
                let gradients = body.gradients(triangle, &point, moved);
                let warmer = sum6(&point.n, |local| warmer_k[nodes[local]]);
                let stress = body.stress(&gradients, warmer);
                let along = |of: &dyn Fn(usize) -> f64, by: usize| {
                    (0..6).map(|local| point.dn[local][by] * of(local)).sum::<f64>()
                };
                let rate = |by: usize| along(&|local| q[local], by);
                let warming = |by: usize| along(&|local| warmer_k[nodes[local]], by);
                let here = Here {
                    gradients: self.turned(gradients),
                    stress: self.turned([[stress.xx, stress.xy], [stress.xy, stress.yy]]),
                    q: sum6(&point.n, |local| q[local]),
                    dq: self.turned_way([rate(0), rate(1)]),
                    warming: self.turned_way([warming(0), warming(1)])[0],
                };
                for (mode, sum) in sums.iter_mut().enumerate() {
                    let own = Own::of(mode, iron, self.local(point.at));
                    *sum += point.area_mm2 * here.with(&own, body.expansion());
                }
            }
        }
        let by = iron.youngs_gpa * 1e3 / 2.0 / 1000.0_f64.sqrt();
        (sums[0] * by, sums[1] * by)
    }

    /// A way in the directions ahead of the tip and at its left.
    fn turned_way(&self, [x, y]: [f64; 2]) -> [f64; 2] {
        let (c, s) = self.ahead;
        [c * x + s * y, -s * x + c * y]
    }

    fn turned(&self, of: [[f64; 2]; 2]) -> [[f64; 2]; 2] {
        let rows = of.map(|row| self.turned_way(row));
        let columns = [0, 1].map(|column| self.turned_way([rows[0][column], rows[1][column]]));
        [[columns[0][0], columns[1][0]], [columns[0][1], columns[1][1]]]
    }

    fn local(&self, at: At) -> [f64; 2] {
        self.turned_way([at.x_mm - self.at.x_mm, at.y_mm - self.at.y_mm])
    }
}

/// House: no tip is asked for less.
const FINEST_NEEDED_MM: f64 = 2.0;

/// What is at a place, in the directions of a tip.
struct Here {
    gradients: [[f64; 2]; 2],
    stress: [[f64; 2]; 2],
    /// Weight of the integral, and its change.
    q: f64,
    dq: [f64; 2],
    /// Change of temperature ahead, in K/mm.
    warming: f64,
}

impl Here {
    /// What a place adds to the interaction integral with a field of the tip's own.
    fn with(&self, own: &Own, expansion: f64) -> f64 {
        let mut both = 0.0;
        for i in 0..2 {
            for j in 0..2 {
                both += self.stress[i][j] * own.gradients[i][j];
            }
        }
        let mut sum =
            -both * self.dq[0] + expansion * (own.stress[0][0] + own.stress[1][1]) * self.warming * self.q;
        for j in 0..2 {
            for i in 0..2 {
                let moved = self.stress[i][j] * own.gradients[i][0] + own.stress[i][j] * self.gradients[i][0];
                sum += moved * self.dq[j];
            }
        }
        sum
    }
}

/// The field about a tip of an intensity of 1 MPa √mm, opening (0) or sliding (1).
struct Own {
    gradients: [[f64; 2]; 2],
    stress: [[f64; 2]; 2],
}

impl Own {
    /// # Source
    /// Williams' first term, plane stress.
    fn of(mode: usize, iron: &IronProperties, [x, y]: [f64; 2]) -> Self {
        let r = (x * x + y * y).sqrt();
        let turn = libm::atan2(y, x);
        let (s, c) = libm::sincos(turn / 2.0);
        let (s3, c3) = libm::sincos(1.5 * turn);
        let (s2, c2) = libm::sincos(turn);
        let by = 1.0 / (2.0 * std::f64::consts::PI * r).sqrt();
        let stress = match mode {
            0 => [[by * c * (1.0 - s * s3), by * s * c * c3], [by * s * c * c3, by * c * (1.0 + s * s3)]],
            _ => [
                [-by * s * (2.0 + c * c3), by * c * (1.0 - s * s3)],
                [by * c * (1.0 - s * s3), by * s * c * c3],
            ],
        };
        let (youngs, nu) = (iron.youngs_gpa * 1e3, iron.poisson);
        let strain = |own: f64, other: f64| (own - nu * other) / youngs;
        let (xx, yy) = (strain(stress[0][0], stress[1][1]), strain(stress[1][1], stress[0][0]));
        let angle = stress[0][1] * 2.0 * (1.0 + nu) / youngs;
        // The way across is f(turn) √r: its change ahead by turn and r.
        let kappa = (3.0 - nu) / (1.0 + nu);
        let scale = (1.0 + nu) / youngs / (2.0 * std::f64::consts::PI).sqrt();
        let (f, df) = match mode {
            0 => {
                // s (kappa + 1 - 2 c²)
                let inner = kappa + 1.0 - 2.0 * c * c;
                (s * inner, 0.5 * c * inner + 2.0 * s * s * c)
            }
            _ => {
                // -c (kappa - 1 - 2 s²)
                let inner = kappa - 1.0 - 2.0 * s * s;
                (-c * inner, 0.5 * s * inner + 2.0 * s * c * c)
            }
        };
        let across_ahead = scale / r.sqrt() * (0.5 * c2 * f - s2 * df);
        Self { gradients: [[xx, angle - across_ahead], [across_ahead, yy]], stress }
    }
}
