//! Symmetric positive systems of a mesh: parted along the plane again and again, each part eliminated as a small
//! dense block (multifrontal Cholesky factorisation by nested dissection).
//!
//! Own, because nothing else is needed of a sparse library, and those there are would make the build half as long
//! again.

use std::collections::BTreeSet;

use crate::map::At;

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
}

/// One block of unknowns that are eliminated together, and those after it that hang on them.
#[derive(Debug, Clone)]
struct Front {
    own: Vec<usize>,
    after: Vec<usize>,
    children: Vec<usize>,
}

/// In which order unknowns are eliminated; it stands while the mesh stands.
#[derive(Debug, Clone)]
pub(super) struct Order {
    fronts: Vec<Front>,
    /// At which place of the order an unknown stands.
    place: Vec<usize>,
}

/// Nodes of a part that is not parted further.
const SMALL: usize = 24;

impl Order {
    /// The order for a mesh: `each` unknowns at each node.
    pub fn of(nodes: &[At], neighbours: &[Vec<usize>], each: usize) -> Self {
        let mut parts =
            Parts { nodes, neighbours, fronts: Vec::new(), part: vec![usize::MAX; nodes.len()], parts: 0 };
        parts.dissect((0..nodes.len()).collect());
        let mut place_of_node = vec![0; nodes.len()];
        for (place, node) in parts.fronts.iter().flat_map(|front| &front.own).enumerate() {
            place_of_node[*node] = place;
        }
        let mut fronts = parts.fronts;
        // Who comes after: beside its own ones, and what its children left, later in the order.
        let mut done = 0;
        let mut seen_by = vec![usize::MAX; nodes.len()];
        for at in 0..fronts.len() {
            done += fronts[at].own.len();
            let beside = fronts[at].own.iter().flat_map(|node| &neighbours[*node]);
            let left = fronts[at].children.iter().flat_map(|child| &fronts[*child].after);
            let mut after: Vec<usize> = beside
                .chain(left)
                .copied()
                .filter(|node| {
                    place_of_node[*node] >= done && std::mem::replace(&mut seen_by[*node], at) != at
                })
                .collect();
            after.sort_unstable_by_key(|node| place_of_node[*node]);
            fronts[at].after = after;
        }
        let unknowns =
            |of: &[usize]| of.iter().flat_map(|node| (0..each).map(move |way| node * each + way)).collect();
        let mut place = vec![0; nodes.len() * each];
        for (node, at) in place_of_node.iter().enumerate() {
            for way in 0..each {
                place[node * each + way] = at * each + way;
            }
        }
        let fronts = fronts
            .into_iter()
            .map(|front| Front {
                own: unknowns(&front.own),
                after: unknowns(&front.after),
                children: front.children,
            })
            .collect();
        Self { fronts, place }
    }
}

struct Parts<'a> {
    nodes: &'a [At],
    neighbours: &'a [Vec<usize>],
    fronts: Vec<Front>,
    part: Vec<usize>,
    parts: usize,
}

impl Parts<'_> {
    /// Parts nodes into two that do not touch and what lies between; gives the front that comes last.
    fn dissect(&mut self, mut of: Vec<usize>) -> usize {
        let mut children = Vec::new();
        if of.len() > SMALL {
            let extent = |way: fn(&At) -> f64| {
                let (low, high) = of
                    .iter()
                    .map(|node| way(&self.nodes[*node]))
                    .fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), x| (low.min(x), high.max(x)));
                high - low
            };
            let along: fn(&At) -> f64 =
                if extent(|at| at.x_mm) >= extent(|at| at.y_mm) { |at| at.x_mm } else { |at| at.y_mm };
            of.sort_by(|one, other| {
                along(&self.nodes[*one]).total_cmp(&along(&self.nodes[*other])).then(one.cmp(other))
            });
            let upper = of.split_off(of.len() / 2);
            self.parts += 1;
            for node in &upper {
                self.part[*node] = self.parts;
            }
            // No other part has this number.
            let own = self.parts;
            let (between, lower): (Vec<usize>, Vec<usize>) = of
                .into_iter()
                .partition(|node| self.neighbours[*node].iter().any(|other| self.part[*other] == own));
            for half in [lower, upper] {
                if !half.is_empty() {
                    children.push(self.dissect(half));
                }
            }
            of = between;
        }
        self.fronts.push(Front { own: of, after: Vec::new(), children });
        self.fronts.len() - 1
    }
}

/// A factorised matrix.
#[derive(Debug, Clone)]
pub(super) struct Factor {
    /// One for each front: its dense columns, `own` of them, each as long as `own` and `after` together.
    blocks: Vec<Vec<f64>>,
}

/// The matrix is not positive: something is not held.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("something of this face is not held")]
pub struct NotHeld;

impl Factor {
    /// # Errors
    /// A matrix that is not positive.
    pub fn of(matrix: &Symmetric, order: &Order) -> Result<Self, NotHeld> {
        let mut blocks: Vec<Vec<f64>> = Vec::with_capacity(order.fronts.len());
        let mut local = vec![usize::MAX; matrix.rows()];
        // What stands in a column below: of each unknown the rows that hold it.
        let below = matrix.below();
        for front in &order.fronts {
            let (own, long) = (front.own.len(), front.own.len() + front.after.len());
            for (place, unknown) in front.own.iter().chain(&front.after).enumerate() {
                local[*unknown] = place;
            }
            let mut dense = vec![0.0; long * long];
            for (column, unknown) in front.own.iter().enumerate() {
                let row = matrix.starts[*unknown]..matrix.starts[*unknown + 1];
                let here = row.map(|entry| (matrix.columns[entry], matrix.values[entry]));
                let there = below.of(*unknown).iter().map(|(row, entry)| (*row, matrix.values[*entry]));
                for (other, value) in here.chain(there) {
                    // Others before it in the order have taken it along already.
                    if order.place[other] >= order.place[*unknown] {
                        dense[column * long + local[other]] += value;
                    }
                }
            }
            for child in &front.children {
                let Front { own: gone, after, .. } = &order.fronts[*child];
                let (gone, of_child) = (gone.len(), gone.len() + after.len());
                // Both stand in the order: what comes later in the child comes later here.
                let here: Vec<usize> = after.iter().map(|unknown| local[*unknown]).collect();
                for (one, column) in here.iter().enumerate() {
                    let into = &mut dense[column * long..(column + 1) * long];
                    let update = (gone + one) * (of_child + 1);
                    let update = &blocks[*child][update..update + here.len() - one];
                    here[one..].iter().zip(update).for_each(|(row, value)| into[*row] += value);
                }
                // What it left is taken along: its own columns are kept.
                blocks[*child].truncate(gone * of_child);
                blocks[*child].shrink_to_fit();
            }
            eliminate(&mut dense, own, long)?;
            blocks.push(dense);
        }
        Ok(Self { blocks })
    }

    /// What solves the system.
    pub fn solve(&self, order: &Order, of: &[f64]) -> Vec<f64> {
        let mut x = of.to_vec();
        let mut here: Vec<f64> = Vec::new();
        for (front, block) in order.fronts.iter().zip(&self.blocks) {
            let long = front.take(&x, &mut here);
            for (column, of_column) in block.chunks_exact(long.max(1)).enumerate() {
                let value = here[column] / of_column[column];
                here[column] = value;
                let rest = here[column + 1..].iter_mut().zip(&of_column[column + 1..]);
                rest.for_each(|(other, entry)| *other -= entry * value);
            }
            front.give(&here, &mut x);
        }
        for (front, block) in order.fronts.iter().zip(&self.blocks).rev() {
            let long = front.take(&x, &mut here);
            for (column, of_column) in block.chunks_exact(long.max(1)).enumerate().rev() {
                let rest: f64 =
                    here[column + 1..].iter().zip(&of_column[column + 1..]).map(|(a, b)| a * b).sum();
                here[column] = (here[column] - rest) / of_column[column];
            }
            front.give(&here, &mut x);
        }
        x
    }
}

impl Front {
    /// Its unknowns side by side; how many they are.
    fn take(&self, x: &[f64], here: &mut Vec<f64>) -> usize {
        here.clear();
        here.extend(self.own.iter().chain(&self.after).map(|unknown| x[*unknown]));
        here.len()
    }

    fn give(&self, here: &[f64], x: &mut [f64]) {
        for (unknown, value) in self.own.iter().chain(&self.after).zip(here) {
            x[*unknown] = *value;
        }
    }
}

/// Of each column the rows below it, and where their values stand.
struct Below {
    starts: Vec<usize>,
    entries: Vec<(usize, usize)>,
}

impl Below {
    fn of(&self, column: usize) -> &[(usize, usize)] {
        &self.entries[self.starts[column]..self.starts[column + 1]]
    }
}

impl Symmetric {
    fn below(&self) -> Below {
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

    /// What solves the system, from a guess, with the factor of a matrix like it (conjugate gradients).
    pub fn solve_from(
        &self,
        of: &[f64],
        guess: Vec<f64>,
        factor: &Factor,
        order: &Order,
    ) -> Option<Vec<f64>> {
        let dot = |a: &[f64], b: &[f64]| a.iter().zip(b).map(|(a, b)| a * b).sum::<f64>();
        let mut x = guess;
        let mut rest: Vec<f64> = of.iter().zip(self.times(&x)).map(|(b, ax)| b - ax).collect();
        let enough = CLOSE * dot(of, of).sqrt();
        let mut near = factor.solve(order, &rest);
        let mut way = near.clone();
        let mut along = dot(&rest, &near);
        for _ in 0..MOST_ROUNDS {
            if dot(&rest, &rest).sqrt() <= enough {
                return Some(x);
            }
            let turned = self.times(&way);
            let step = along / dot(&way, &turned);
            for at in 0..x.len() {
                x[at] += step * way[at];
                rest[at] -= step * turned[at];
            }
            near = factor.solve(order, &rest);
            let next = dot(&rest, &near);
            for (way, near) in way.iter_mut().zip(&near) {
                *way = near + next / along * *way;
            }
            along = next;
        }
        None
    }
}

/// A solution is close enough when what is left is so small a share.
const CLOSE: f64 = 1e-9;
const MOST_ROUNDS: usize = 12;

/// Ours: so many columns are taken off the rest at once, while each of its values is at hand.
const AT_ONCE: usize = 4;

/// The first `own` columns of a dense symmetric block (its lower half, a column after the other) factorised, the
/// rest brought up to date.
fn eliminate(dense: &mut [f64], own: usize, long: usize) -> Result<(), NotHeld> {
    let mut first = 0;
    while first < own {
        let after = (first + AT_ONCE).min(own);
        for column in first..after {
            let (done, rest) = dense.split_at_mut((column + 1) * long);
            let of_column = &mut done[column * long..];
            let pivot = of_column[column];
            if !(pivot > 0.0 && pivot.is_finite()) {
                return Err(NotHeld);
            }
            let root = pivot.sqrt();
            of_column[column..].iter_mut().for_each(|value| *value /= root);
            for other in column + 1..after {
                let factor = of_column[other];
                let from = (other - column - 1) * long;
                let values = rest[from + other..from + long].iter_mut();
                values.zip(&of_column[other..long]).for_each(|(value, above)| *value -= factor * above);
            }
        }
        let (done, rest) = dense.split_at_mut(after * long);
        let columns = &done[first * long..];
        for other in after..long {
            let from = (other - after) * long;
            take_off(&mut rest[from + other..from + long], columns, (other, long));
        }
        first = after;
    }
    Ok(())
}

/// Takes what each of some columns has beside a value off it: from row `other` on.
fn take_off(values: &mut [f64], columns: &[f64], (other, long): (usize, usize)) {
    let below = |at: usize| &columns[at * long + other..(at + 1) * long];
    if columns.len() == AT_ONCE * long {
        let [a, b, c, d] = [below(0), below(1), below(2), below(3)];
        let (of_a, of_b, of_c, of_d) = (a[0], b[0], c[0], d[0]);
        let beside = a.iter().zip(b).zip(c).zip(d);
        for (value, (((a, b), c), d)) in values.iter_mut().zip(beside) {
            *value -= (of_a * a + of_b * b) + (of_c * c + of_d * d);
        }
        return;
    }
    for column in 0..columns.len() / long {
        let column = below(column);
        let factor = column[0];
        values.iter_mut().zip(column).for_each(|(value, above)| *value -= factor * above);
    }
}
