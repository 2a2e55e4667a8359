//! Seams that are filled one after the other: what is filled holds the next, what is open gives way to it.

use std::cell::RefCell;
use std::collections::HashMap;

use super::super::part::FlatFace;
use super::shrinking::Shrinking;
use crate::body::{FlatBody, Pulled, pulled};
use crate::map::At;

/// What one seam pulls, filled when it is its turn.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Pull {
    /// Which of the seams.
    pub seam: usize,
    /// What it would shrink, and does shrink until something gives.
    pub misfit_mm: f64,
    pub shrinks_mm: f64,
    /// On itself, in MPa: as reckoned, and what it would be if nothing gave.
    pub mean_mpa: f64,
    pub elastic_mpa: f64,
    /// Of each distance, in mm; nearer is negative.
    pub moves_mm: Vec<f64>,
}

/// Of how many seams every order is tried; ours: each further one doubles the meshes.
const TRIED_MOST: usize = 3;

/// A seam, and those that are filled before it, in order of their numbers.
type FilledBefore = (usize, Vec<usize>);

/// The seams of a face, each drawn together by a mm while some of the others are filled.
pub(super) struct Seams<'a> {
    flat: &'a FlatFace<'a>,
    /// Of each seam its crack on the face.
    cracks: Vec<usize>,
    between: Vec<(At, At)>,
    by_a_mm: RefCell<HashMap<FilledBefore, Option<Pulled>>>,
}

impl<'a> Seams<'a> {
    pub fn new(flat: &'a FlatFace<'a>, shrinking: &Shrinking, between: Vec<(At, At)>) -> Self {
        let crack = |(letter, _): &(String, f64)| flat.letters.iter().position(|own| own == letter);
        let cracks = shrinking.seams.iter().filter_map(crack).collect();
        Self { flat, cracks, between, by_a_mm: RefCell::default() }
    }

    /// A seam drawn together by 1 mm, these filled before it: all is elastic, it goes in a straight line with it.
    fn by_a_mm(&self, seam: usize, filled: &[usize]) -> Option<Pulled> {
        let mut filled = filled.to_vec();
        filled.sort_unstable();
        let known = self.by_a_mm.borrow().get(&(seam, filled.clone())).cloned();
        known.unwrap_or_else(|| {
            let own = self.cracks[seam];
            let gone: Vec<usize> = filled.iter().map(|at| self.cracks[*at]).chain([own]).collect();
            let cracks = &self.flat.piece.cracks;
            let open = cracks.iter().enumerate().filter(|(at, _)| !gone.contains(at)).map(|(_, it)| it);
            let cracks = std::iter::once(&cracks[own]).chain(open).cloned().collect();
            let found = pulled(&FlatBody { cracks, ..self.flat.piece.clone() }, 1.0, &self.between).ok();
            self.by_a_mm.borrow_mut().insert((seam, filled), found.clone());
            found
        })
    }

    /// Filled in this order, each with what it pulls; nothing where one of them cannot be laid out.
    pub fn filled_in(&self, order: &[usize], shrinking: &Shrinking) -> Option<Vec<Pull>> {
        order.iter().enumerate().map(|(turn, seam)| self.pull(*seam, &order[..turn], shrinking)).collect()
    }

    fn pull(&self, seam: usize, filled: &[usize], shrinking: &Shrinking) -> Option<Pull> {
        let by_a_mm = self.by_a_mm(seam, filled)?;
        let shrink_mm = shrinking.seams[seam].1;
        // Beyond it something gives: all that goes with the shrinking stops there.
        let gives = (shrinking.gives_mpa / (by_a_mm.most_pull_mpa * shrink_mm).max(1e-9)).min(1.0);
        Some(Pull {
            seam,
            misfit_mm: shrink_mm,
            shrinks_mm: shrink_mm * gives,
            mean_mpa: by_a_mm.mean_pull_mpa * shrink_mm * gives,
            elastic_mpa: by_a_mm.mean_pull_mpa * shrink_mm,
            moves_mm: by_a_mm.moves_mm.iter().map(|mm| mm * shrink_mm * gives).collect(),
        })
    }

    /// The order in which the hardest pull is least, and the one in which it is most.
    pub fn best_and_worst(&self, shrinking: &Shrinking) -> Option<(Vec<Pull>, Vec<Pull>)> {
        let as_named: Vec<usize> = (0..self.cracks.len()).collect();
        let orders = if self.cracks.len() <= TRIED_MOST { orders(&as_named) } else { vec![as_named] };
        let mut tried: Vec<Vec<Pull>> =
            orders.iter().map(|order| self.filled_in(order, shrinking)).collect::<Option<_>>()?;
        // As they are named where two are alike.
        tried.sort_by(|one, other| hardest_mpa(one).total_cmp(&hardest_mpa(other)));
        Some((tried.first()?.clone(), tried.last()?.clone()))
    }
}

/// In MPa.
pub(super) fn hardest_mpa(pulls: &[Pull]) -> f64 {
    pulls.iter().map(|pull| pull.mean_mpa).fold(0.0, f64::max)
}

/// All orders of some things, the one given first.
fn orders(of: &[usize]) -> Vec<Vec<usize>> {
    if of.len() < 2 {
        return vec![of.to_vec()];
    }
    let first = |at: usize| {
        let rest: Vec<usize> =
            of.iter().enumerate().filter(|(other, _)| *other != at).map(|(_, it)| *it).collect();
        orders(&rest).into_iter().map(move |rest| [vec![of[at]], rest].concat())
    };
    (0..of.len()).flat_map(first).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_order_is_tried_once_the_named_one_first() {
        let found = orders(&[0, 1, 2]);
        assert_eq!(found[0], [0, 1, 2]);
        assert_eq!(found.len(), 6);
        let mut once = found.clone();
        once.sort();
        once.dedup();
        assert_eq!(once.len(), 6);
        assert_eq!(orders(&[]), [Vec::<usize>::new()]);
    }
}
