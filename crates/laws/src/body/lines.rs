//! The lines of a face in pieces that meet only at their ends, short where the mesh has to be fine.

use std::collections::BTreeMap;

use super::face::{FlatBody, ONE_PLACE_MM};
use crate::map::{At, closed, crossing, nearest};

/// What a line is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(super) enum Line {
    Rim,
    Crack(usize),
    /// Where the wall changes, or where something is asked: the mesh follows it, nothing else.
    Followed,
}

/// A place at which the mesh is as fine as `size_mm`; away from it it grows.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Fine {
    pub at: At,
    pub size_mm: f64,
}

/// How fine the mesh is where.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Sizes {
    pub largest_mm: f64,
    pub fine: Vec<Fine>,
}

/// House: a triangle's side may be longer by so much for each mm away from a fine place.
const GROWS: f64 = 0.35;

impl Sizes {
    /// The side of a triangle at a place.
    pub fn at(&self, at: At) -> f64 {
        self.fine
            .iter()
            .map(|fine| fine.size_mm + GROWS * fine.at.distance_mm(at))
            .fold(self.largest_mm, f64::min)
    }
}

/// Pieces of lines between places.
#[derive(Debug, Clone, Default)]
pub(super) struct Pieces {
    pub places: Vec<At>,
    /// From and to of each, and what it is; a crack counts over a line that is only followed.
    pub pieces: BTreeMap<(usize, usize), Line>,
}

impl Pieces {
    /// The lines of a face and others to be followed, cut where they meet.
    pub fn of(piece: &FlatBody, followed: &[Vec<At>]) -> Self {
        let met: Vec<At> = piece.cracks.iter().chain(followed).flatten().copied().collect();
        let mut lines: Vec<(Vec<At>, Line)> =
            piece.rims().iter().map(|rim| (closed(&simpler(rim, &met)), Line::Rim)).collect();
        lines.extend(piece.cracks.iter().enumerate().map(|(at, crack)| (crack.clone(), Line::Crack(at))));
        lines.extend(piece.thick.iter().map(|place| (closed(&place.place.rim()), Line::Followed)));
        lines.extend(followed.iter().map(|line| (line.clone(), Line::Followed)));
        let mut cut = Self::default();
        let mut sides = Vec::new();
        for (line, what) in &lines {
            let places: Vec<usize> = line.iter().map(|at| cut.place(*at)).collect();
            sides.extend(places.windows(2).map(|pair| (pair[0], pair[1], *what)));
        }
        for (at, one) in sides.iter().enumerate() {
            for other in &sides[at + 1..] {
                let (a, b) = (cut.ends(one.0, one.1), cut.ends(other.0, other.1));
                if let Some(meets) = crossing(a, b) {
                    cut.place(meets);
                }
            }
        }
        for (from, to, what) in sides {
            cut.add_through(from, to, what);
        }
        cut
    }

    /// Each piece halved until it is as short as the mesh is to be there.
    pub fn split(&mut self, sizes: &Sizes) {
        let pieces = std::mem::take(&mut self.pieces);
        for ((from, to), what) in pieces {
            self.split_one(from, to, what, sizes);
        }
    }

    fn split_one(&mut self, from: usize, to: usize, what: Line, sizes: &Sizes) {
        let (a, b) = self.ends(from, to);
        let middle = a.between(b, 0.5);
        let finest = sizes.at(middle).min(sizes.at(a.between(b, 0.1))).min(sizes.at(a.between(b, 0.9)));
        if a.distance_mm(b) <= 1.4 * finest {
            self.pieces.insert((from, to), what);
            return;
        }
        self.places.push(middle);
        let half = self.places.len() - 1;
        self.split_one(from, half, what, sizes);
        self.split_one(half, to, what, sizes);
    }

    fn ends(&self, from: usize, to: usize) -> (At, At) {
        (self.places[from], self.places[to])
    }

    /// The place that is there, or a new one.
    fn place(&mut self, at: At) -> usize {
        let known = self.places.iter().position(|place| place.distance_mm(at) <= ONE_PLACE_MM);
        known.unwrap_or_else(|| {
            self.places.push(at);
            self.places.len() - 1
        })
    }

    /// A stretch through every place that lies on it.
    fn add_through(&mut self, from: usize, to: usize, what: Line) {
        let (a, b) = self.ends(from, to);
        let mut on: Vec<(f64, usize)> = (0..self.places.len())
            .filter_map(|place| {
                let near = nearest(&[a, b], self.places[place])?;
                (near.distance_mm <= ONE_PLACE_MM).then_some((near.along_mm, place))
            })
            .collect();
        on.sort_by(|one, other| one.0.total_cmp(&other.0));
        for pair in on.windows(2) {
            let key = (pair[0].1.min(pair[1].1), pair[0].1.max(pair[1].1));
            let is = self.pieces.entry(key).or_insert(what);
            *is = (*is).min(what);
        }
    }
}

/// A rim without points that change nothing of it: a round of many sides has no more than it needs. Places at
/// which something meets it stay.
fn simpler(rim: &[At], met: &[At]) -> Vec<At> {
    let mut whole: Vec<(At, bool)> = Vec::new();
    for side in closed(rim).windows(2) {
        let on = |at: &&At| nearest(side, **at).is_some_and(|near| near.distance_mm <= ONE_PLACE_MM);
        let mut between: Vec<At> = met.iter().filter(on).copied().collect();
        between.sort_by(|a, b| side[0].distance_mm(*a).total_cmp(&side[0].distance_mm(*b)));
        whole.push((side[0], false));
        whole.extend(between.into_iter().map(|at| (at, true)));
    }
    let long = rim.iter().map(|at| at.distance_mm(rim[0])).fold(0.0, f64::max);
    let unseen_mm = (long / 1500.0).min(0.2);
    let mut kept: Vec<At> = vec![whole[0].0];
    let mut skipped: Vec<At> = Vec::new();
    for (at, (point, stays)) in whole.iter().enumerate().skip(1) {
        let next = whole[(at + 1) % whole.len()].0;
        let from = kept[kept.len() - 1];
        skipped.push(*point);
        let same = skipped
            .iter()
            .all(|point| nearest(&[from, next], *point).is_some_and(|near| near.distance_mm <= unseen_mm));
        if *stays || !same {
            kept.push(*point);
            skipped.clear();
        }
    }
    if kept.len() < 3 { rim.to_vec() } else { kept }
}
