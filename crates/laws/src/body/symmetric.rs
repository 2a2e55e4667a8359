//! A symmetric matrix with the pattern of a mesh.

use std::collections::BTreeSet;

/// A symmetric matrix: of each row, its columns up to itself.
#[derive(Debug, Clone)]
pub(super) struct Symmetric {
    /// Starts of the rows in `columns`, one more than there are rows.
    starts: Vec<usize>,
    columns: Vec<usize>,
    pub values: Vec<f64>,
}

impl Symmetric {
    /// The pattern of a mesh with so many unknowns at each node; neighbours ascend.
    pub fn of(neighbours: &[Vec<usize>], each: usize) -> Self {
        let mut starts = vec![0];
        let mut columns = Vec::new();
        for (node, beside) in neighbours.iter().enumerate() {
            for own in 0..each {
                for other in beside.iter().take_while(|other| **other < node) {
                    columns.extend((0..each).map(|way| other * each + way));
                }
                columns.extend((0..=own).map(|way| node * each + way));
                starts.push(columns.len());
            }
        }
        let values = vec![0.0; columns.len()];
        Self { starts, columns, values }
    }

    pub fn rows(&self) -> usize {
        self.starts.len() - 1
    }

    /// The columns of a row up to its own, each with its value.
    pub fn row(&self, row: usize) -> impl Iterator<Item = (usize, f64)> + '_ {
        let entries = self.starts[row]..self.starts[row + 1];
        entries.map(|entry| (self.columns[entry], self.values[entry]))
    }

    pub fn clear(&mut self) {
        self.values.fill(0.0);
    }

    /// Where a place of it stands among its values. It is one of the pattern.
    pub fn slot(&self, row: usize, column: usize) -> usize {
        let (row, column) = (row.max(column), row.min(column));
        let of = &self.columns[self.starts[row]..self.starts[row + 1]];
        self.starts[row] + of.binary_search(&column).unwrap_or_else(|after| after.min(of.len() - 1))
    }

    /// Adds to a place of it, said once for both triangles of the matrix.
    pub fn add(&mut self, row: usize, column: usize, value: f64) {
        let slot = self.slot(row, column);
        self.values[slot] += value;
    }

    /// Adds what two nodes of two unknowns each have to do with one another.
    pub fn add_pair(&mut self, one: usize, other: usize, [of_x, of_y]: [[f64; 2]; 2]) {
        let (one, other, rows) = if one < other {
            (other, one, [[of_x[0], of_y[0]], [of_x[1], of_y[1]]])
        } else {
            (one, other, [of_x, of_y])
        };
        // Both rows of a node have the same columns before its own.
        let first = self.slot(2 * one, 2 * other);
        let second = self.starts[2 * one + 1] + (first - self.starts[2 * one]);
        self.values[first] += rows[0][0];
        if one != other {
            self.values[first + 1] += rows[0][1];
        }
        self.values[second] += rows[1][0];
        self.values[second + 1] += rows[1][1];
    }

    /// An unknown that is held: its row says that it is nothing.
    pub fn hold(&mut self, held: &BTreeSet<usize>) {
        for row in 0..self.rows() {
            for at in self.starts[row]..self.starts[row + 1] {
                let column = self.columns[at];
                if held.contains(&row) || held.contains(&column) {
                    self.values[at] = f64::from(u8::from(row == column));
                }
            }
        }
    }

    pub fn times(&self, x: &[f64]) -> Vec<f64> {
        let mut out = vec![0.0; x.len()];
        for row in 0..self.rows() {
            let (mut sum, of_row) = (0.0, x[row]);
            for at in self.starts[row]..self.starts[row + 1] {
                let (column, value) = (self.columns[at], self.values[at]);
                sum += value * x[column];
                if column != row {
                    out[column] += value * of_row;
                }
            }
            out[row] += sum;
        }
        out
    }

    /// Of each column the rows below it.
    pub fn below(&self) -> Below {
        // A row ends with its own column.
        let beside = |row: usize| self.starts[row]..self.starts[row + 1] - 1;
        let mut starts = vec![0; self.rows() + 1];
        for row in 0..self.rows() {
            beside(row).for_each(|at| starts[self.columns[at] + 1] += 1);
        }
        for column in 0..self.rows() {
            starts[column + 1] += starts[column];
        }
        let mut next = starts.clone();
        let mut entries = vec![(0, 0); starts[self.rows()]];
        for row in 0..self.rows() {
            for at in beside(row) {
                let place = &mut next[self.columns[at]];
                entries[*place] = (row, at);
                *place += 1;
            }
        }
        Below { starts, entries }
    }
}

/// Of each column the rows below it, and where their values stand.
pub(super) struct Below {
    starts: Vec<usize>,
    entries: Vec<(usize, usize)>,
}

impl Below {
    pub fn of(&self, column: usize) -> &[(usize, usize)] {
        &self.entries[self.starts[column]..self.starts[column + 1]]
    }
}
