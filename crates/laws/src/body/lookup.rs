//! Which triangles of a mesh may lie at a place: a square grid over it, each square with those that reach into it.

use crate::map::{At, bounds};

/// Triangles by the squares of a grid they reach into, in ascending order.
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
    /// Of triangles by their corners.
    pub fn of(corners: &[[At; 3]]) -> Self {
        let (left, top, right, bottom) = bounds(corners.as_flattened()).unwrap_or_default();
        let (wide, high) = (right - left, bottom - top);
        let square_mm = (wide * high * IN_A_SQUARE / corners.len().max(1) as f64).sqrt().max(1e-6);
        let count = |long: f64| (long / square_mm) as usize + 1;
        let (columns, rows) = (count(wide), count(high));
        let mut lookup =
            Self { left, top, square_mm, columns, rows, squares: vec![Vec::new(); columns * rows] };
        for (triangle, corners) in corners.iter().enumerate() {
            let (left, top, right, bottom) = bounds(corners).unwrap_or_default();
            let (first, last) = (lookup.square(At::new(left, top)), lookup.square(At::new(right, bottom)));
            for row in first.1..=last.1 {
                for column in first.0..=last.0 {
                    lookup.squares[row * columns + column].push(triangle);
                }
            }
        }
        lookup
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
