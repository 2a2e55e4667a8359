//! Symmetric positive systems of a mesh: parted along the plane again and again, each part eliminated as a small
//! dense block (multifrontal Cholesky factorisation by nested dissection).
//!
//! Own, because nothing else is needed of a sparse library, and those there are would make the build half as long
//! again.

use super::symmetric::Symmetric;
use crate::map::At;

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

/// House: nodes of a part that is not parted further.
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
                let here = matrix.row(*unknown);
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
                let rest = dot(&here[column + 1..], &of_column[column + 1..]);
                here[column] = (here[column] - rest) / of_column[column];
            }
            front.give(&here, &mut x);
        }
        x
    }
}

/// Ours: so many right sides are solved while each value of the factor is at hand.
pub(super) const SIDES: usize = 4;

impl Factor {
    /// What solves the system for each of several right sides.
    pub fn solve_each(&self, order: &Order, of: &[Vec<f64>]) -> Vec<Vec<f64>> {
        let sides = of.chunks(SIDES).flat_map(|some| {
            let side = |row: usize| std::array::from_fn(|at| some.get(at).map_or(0.0, |side| side[row]));
            let mut x: Vec<[f64; SIDES]> = (0..some[0].len()).map(side).collect();
            self.solve_side_by_side(order, &mut x);
            (0..some.len()).map(|at| x.iter().map(|row| row[at]).collect()).collect::<Vec<Vec<f64>>>()
        });
        sides.collect()
    }

    fn solve_side_by_side(&self, order: &Order, x: &mut [[f64; SIDES]]) {
        let mut here: Vec<[f64; SIDES]> = Vec::new();
        for (front, block) in order.fronts.iter().zip(&self.blocks) {
            let long = front.take(x, &mut here);
            for (column, of_column) in block.chunks_exact(long.max(1)).enumerate() {
                let values = here[column].map(|value| value / of_column[column]);
                here[column] = values;
                for (other, entry) in here[column + 1..].iter_mut().zip(&of_column[column + 1..]) {
                    other.iter_mut().zip(values).for_each(|(other, value)| *other -= entry * value);
                }
            }
            front.give(&here, x);
        }
        for (front, block) in order.fronts.iter().zip(&self.blocks).rev() {
            let long = front.take(x, &mut here);
            for (column, of_column) in block.chunks_exact(long.max(1)).enumerate().rev() {
                let mut rest = [0.0; SIDES];
                for (other, entry) in here[column + 1..].iter().zip(&of_column[column + 1..]) {
                    rest.iter_mut().zip(other).for_each(|(rest, other)| *rest += entry * other);
                }
                let values = here[column].iter_mut().zip(rest);
                values.for_each(|(value, rest)| *value = (*value - rest) / of_column[column]);
            }
            front.give(&here, x);
        }
    }
}

impl Front {
    /// Its unknowns side by side; how many they are.
    fn take<T: Copy>(&self, x: &[T], here: &mut Vec<T>) -> usize {
        here.clear();
        here.extend(self.own.iter().chain(&self.after).map(|unknown| x[*unknown]));
        here.len()
    }

    fn give<T: Copy>(&self, here: &[T], x: &mut [T]) {
        for (unknown, value) in self.own.iter().chain(&self.after).zip(here) {
            x[*unknown] = *value;
        }
    }
}

impl Symmetric {
    /// What solves the system but for a share `close` of it, from a guess, with the factor of a matrix like it (conjugate
    /// gradients); and in how many rounds.
    pub fn solve_from(
        &self,
        of: &[f64],
        guess: Vec<f64>,
        (factor, order): (&Factor, &Order),
        close: f64,
    ) -> Option<(Vec<f64>, usize)> {
        let mut x = guess;
        let mut rest: Vec<f64> = of.iter().zip(self.times(&x)).map(|(b, ax)| b - ax).collect();
        let enough = close * dot(of, of).sqrt();
        let is_enough = |rest: &[f64]| dot(rest, rest).sqrt() <= enough;
        if is_enough(&rest) {
            return Some((x, 0));
        }
        let mut way = factor.solve(order, &rest);
        let mut along = dot(&rest, &way);
        for round in 1..=MOST_ROUNDS {
            let turned = self.times(&way);
            let step = along / dot(&way, &turned);
            for at in 0..x.len() {
                x[at] += step * way[at];
                rest[at] -= step * turned[at];
            }
            if is_enough(&rest) {
                return Some((x, round));
            }
            let near = factor.solve(order, &rest);
            let next = dot(&rest, &near);
            for (way, near) in way.iter_mut().zip(&near) {
                *way = near + next / along * *way;
            }
            along = next;
        }
        None
    }
}

/// Ours: sums that run beside each other, so that none waits for the one before it.
const SUMS: usize = 8;

/// Σ a b, always in the same order.
fn dot(a: &[f64], b: &[f64]) -> f64 {
    let (a, b) = (&a[..a.len().min(b.len())], &b[..b.len().min(a.len())]);
    let mut sums = [0.0; SUMS];
    for (a, b) in a.chunks_exact(SUMS).zip(b.chunks_exact(SUMS)) {
        for (at, sum) in sums.iter_mut().enumerate() {
            *sum += a[at] * b[at];
        }
    }
    let whole = a.len() - a.len() % SUMS;
    let rest: f64 = a[whole..].iter().zip(&b[whole..]).map(|(a, b)| a * b).sum();
    sums.iter().sum::<f64>() + rest
}

/// House: further off than this many rounds come, it is solved anew.
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

#[cfg(test)]
mod tests {
    use super::*;

    /// A grid of nodes with one unknown each, tied to those beside them and held a little everywhere.
    fn grid(wide: usize) -> (Symmetric, Order) {
        let count = wide * wide;
        let nodes: Vec<At> = (0..count).map(|at| At::new((at % wide) as f64, (at / wide) as f64)).collect();
        let near = |one: &At, other: &At| one.distance_mm(*other) < 1.1;
        let neighbours: Vec<Vec<usize>> = (0..count)
            .map(|one| {
                (0..count).filter(|other| *other != one && near(&nodes[one], &nodes[*other])).collect()
            })
            .collect();
        let mut matrix = Symmetric::of(&neighbours, 1);
        for (one, beside) in neighbours.iter().enumerate() {
            matrix.add(one, one, 0.1 + beside.len() as f64);
            beside.iter().filter(|other| **other < one).for_each(|other| matrix.add(one, *other, -1.0));
        }
        (matrix, Order::of(&nodes, &neighbours, 1))
    }

    fn furthest(a: &[f64], b: &[f64]) -> f64 {
        a.iter().zip(b).map(|(a, b)| (a - b).abs()).fold(0.0, f64::max)
    }

    #[test]
    fn what_solves_it_gives_the_right_side_again_alone_and_side_by_side() {
        let (matrix, order) = grid(13);
        let factor = Factor::of(&matrix, &order).unwrap();
        let right =
            |by: usize| (0..matrix.rows()).map(|row| ((row * by) % 17) as f64 - 8.0).collect::<Vec<f64>>();
        // One more than are solved at once.
        let sides: Vec<Vec<f64>> = (1..=SIDES + 1).map(right).collect();
        let each = factor.solve_each(&order, &sides);
        assert_eq!(each.len(), sides.len());
        for (side, solved) in sides.iter().zip(&each) {
            assert!(furthest(&matrix.times(solved), side) < 1e-9);
            assert!(furthest(&factor.solve(&order, side), solved) < 1e-12);
        }
        assert!(factor.solve_each(&order, &[]).is_empty());
    }

    #[test]
    fn the_factor_of_one_like_it_leads_to_the_same_from_any_guess() {
        let (mut matrix, order) = grid(13);
        let factor = Factor::of(&matrix, &order).unwrap();
        for row in 0..matrix.rows() {
            matrix.add(row, row, 0.05 * (row % 3) as f64);
        }
        let right: Vec<f64> = (0..matrix.rows()).map(|row| (row % 5) as f64).collect();
        let exact = Factor::of(&matrix, &order).unwrap().solve(&order, &right);
        for guess in [vec![0.0; right.len()], exact.clone(), vec![-3.0; right.len()]] {
            let (found, _) = matrix.solve_from(&right, guess, (&factor, &order), 1e-7).unwrap();
            assert!(furthest(&found, &exact) < 1e-5, "{}", furthest(&found, &exact));
        }
    }

    #[test]
    fn what_is_not_held_is_told() {
        let nodes = [At::new(0.0, 0.0), At::new(1.0, 0.0)];
        let neighbours = [vec![1], vec![0]];
        let mut matrix = Symmetric::of(&neighbours, 1);
        matrix.add(0, 0, 1.0);
        matrix.add(1, 1, 1.0);
        matrix.add(1, 0, -1.0);
        assert_eq!(Factor::of(&matrix, &Order::of(&nodes, &neighbours, 1)).err(), Some(NotHeld));
    }

    #[test]
    fn a_sum_is_the_same_however_long() {
        for long in [0, 1, 7, 8, 9, 100] {
            let a: Vec<f64> = (0..long).map(f64::from).collect();
            let expected: f64 = a.iter().map(|a| a * a).sum();
            assert!((dot(&a, &a) - expected).abs() < 1e-9 * expected.max(1.0), "{long}");
        }
    }
}
