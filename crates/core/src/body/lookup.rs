//! Which triangles of a mesh may lie at a place: a square grid over it, each square with those that reach into it.

use super::mesh::Nodes;
use crate::map::{At, bounds};

/// Triangles by the square of a grid they reach into, in ascending order.
#[derive(Debug, Clone)]
pub(super) struct Lookup {
    left: f64,
    top: f64,
    square_mm: f64,
    columns: usize,
    rows: usize,
    squares: Vec<Vec<usize>>,
}

/// Ours: triangles in a square, about.
const IN_A_SQUARE: f64 = 2.0;

impl Lookup {
    pub fn of(nodes: &[At], triangles: &[Nodes]) -> Self {
        let (left, top, right, bottom) = bounds(nodes).unwrap_or_default();
        let (wide, high) = (right - left, bottom - top);
        let square_mm = (wide * high * IN_A_SQUARE / triangles.len().max(1) as f64).sqrt().max(1e-6);
        let count = |long: f64| (long / square_mm) as usize + 1;
        let (columns, rows) = (count(wide), count(high));
        let empty = Self { left, top, square_mm, columns, rows, squares: vec![Vec::new(); columns * rows] };
        triangles.iter().enumerate().fold(empty, |mut lookup, (triangle, of)| {
            let corners = [of[0], of[1], of[2]].map(|node| nodes[node]);
            let low = corners
                .iter()
                .fold(corners[0], |low, at| At::new(low.x_mm.min(at.x_mm), low.y_mm.min(at.y_mm)));
            let high =
                corners.iter().fold(low, |high, at| At::new(high.x_mm.max(at.x_mm), high.y_mm.max(at.y_mm)));
            let ((from_column, from_row), (to_column, to_row)) = (lookup.square(low), lookup.square(high));
            for row in from_row..=to_row {
                for column in from_column..=to_column {
                    lookup.squares[row * lookup.columns + column].push(triangle);
                }
            }
            lookup
        })
    }

    /// Column and row of the square a place lies in; of the nearest one where it lies beside the grid.
    fn square(&self, at: At) -> (usize, usize) {
        let along = |mm: f64, count: usize| ((mm / self.square_mm).max(0.0) as usize).min(count - 1);
        (along(at.x_mm - self.left, self.columns), along(at.y_mm - self.top, self.rows))
    }

    /// Each triangle that a place can lie in.
    pub fn near(&self, at: At) -> &[usize] {
        let (column, row) = self.square(at);
        &self.squares[row * self.columns + column]
    }
}

#[cfg(test)]
mod tests {
    use crate::body::element::Straight;
    use crate::body::mesh::{Mesh, Slits, twice_area};
    use crate::body::{FlatBody, Hole};
    use crate::iron::Iron;
    use crate::map::At;

    /// A skewed plate with a round hole and a crack.
    fn plate() -> FlatBody {
        let at = |(x, y): (f64, f64)| At::new(x, y);
        FlatBody {
            iron: Iron::Gray.properties(),
            outline: [(-40.0, 10.0), (230.0, 0.0), (200.0, 140.0), (0.0, 160.0)].map(at).to_vec(),
            holes: vec![Hole::Round { middle: at((120.0, 60.0)), across_mm: 40.0 }],
            wall_mm: 12.0,
            thick: Vec::new(),
            cracks: vec![[(40.0, 60.0), (75.0, 100.0)].map(at).to_vec()],
        }
    }

    #[test]
    fn a_place_is_found_as_all_triangles_together_find_it() {
        let piece = plate();
        let mesh = Mesh::of(&piece, &[], Vec::new(), &Slits::All).unwrap();
        let least = |triangle: usize, at: At| {
            let [a, b, c] = [0, 1, 2].map(|local| mesh.nodes[mesh.triangles[triangle][local]]);
            let shares = [twice_area(at, b, c), twice_area(a, at, c), twice_area(a, b, at)];
            shares.into_iter().fold(f64::INFINITY, f64::min) / twice_area(a, b, c)
        };
        let places = (0..60).flat_map(|row| (0..60).map(move |column| (column, row)));
        let mut beside = 0;
        for (column, row) in places {
            let at = At::new(-60.0 + 5.1 * f64::from(column), -12.0 + 3.1 * f64::from(row));
            let best = (0..mesh.triangles.len()).map(|triangle| least(triangle, at)).fold(f64::MIN, f64::max);
            match mesh.find(at) {
                Some((triangle, shares)) => {
                    assert!((least(triangle, at) - best).abs() < 1e-9, "at {at:?}");
                    let there = Straight::of(&mesh, triangle).at(shares, 1.0).at;
                    assert!(there.distance_mm(at) < 1e-6, "{there:?} for {at:?}");
                }
                None => {
                    beside += 1;
                    assert!(best <= -0.5, "at {at:?}");
                }
            }
        }
        assert!((200..2000).contains(&beside), "{beside} places lie beside it");
    }
}
