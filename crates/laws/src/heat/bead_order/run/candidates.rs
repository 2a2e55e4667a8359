//! Beads that may be next, and which of them is.

use super::super::rise::SPAN;
use super::super::{BeadPlace, BeadSeam};
use super::{AT_A_FRONT, Candidate, Front, Run};

impl<'a> Run<'a> {
    /// The open beads of the pass in hand of each seam; a stop-hole once its seam is filled.
    fn in_hand(&self) -> impl Iterator<Item = (&BeadSeam, &Vec<BeadPlace>)> {
        let filled = |seam: usize| self.open[seam].iter().all(Vec::is_empty);
        // The first that is open, or has a stop-hole that is.
        let first = (0..self.open.len()).filter(|at| !filled(*at)).map(|at| self.seam_of(at)).min();
        let turn = move |at: usize| !self.work.one_after_another || Some(self.seam_of(at)) == first;
        let seams = self.work.seams.iter().zip(&self.open).enumerate();
        let seams = seams
            .filter(move |(at, (seam, _))| turn(*at) && seam.hole_of.is_none_or(|hole| filled(hole.seam)));
        seams.filter_map(|(_, (seam, passes))| Some((seam, passes.iter().find(|pass| !pass.is_empty())?)))
    }

    /// The seam itself, or the one that a stop-hole belongs to.
    fn seam_of(&self, at: usize) -> usize {
        self.work.seams[at].hole_of.map_or(at, |hole| hole.seam)
    }

    /// The next from one end to the other, seam after seam.
    pub(super) fn in_line(&self) -> Vec<Candidate> {
        let first = self.in_hand().next().and_then(|(_, places)| places.first());
        first.map(|place| Candidate { place: *place, front: Front::Left }).into_iter().collect()
    }

    pub(super) fn allowed(&self) -> Vec<Candidate> {
        let mut allowed: Vec<Candidate> = Vec::new();
        for (seam, places) in self.in_hand() {
            let last = seam.along() - 1;
            let fronts: &[Front] = match seam.closed {
                [true, true] => &[Front::Left, Front::Right],
                [false, true] => &[Front::Right],
                [true, false] | [false, false] => &[Front::Left],
            };
            let off = |place: &BeadPlace, front: Front| match front {
                Front::Left => place.along,
                Front::Right => last - place.along,
            };
            if self.laid.is_empty() {
                let at = fronts[0];
                let first = places.iter().min_by_key(|place| (off(place, at), place.lane));
                return first.map(|place| Candidate { place: *place, front: at }).into_iter().collect();
            }
            for &front in fronts {
                let mut nearest = places.clone();
                nearest.sort_by_key(|place| (off(place, front), place.lane));
                for place in nearest.into_iter().take(AT_A_FRONT) {
                    match allowed.iter_mut().find(|known| known.place == place) {
                        // It belongs to the front that is nearer.
                        Some(known) if off(&place, front) < off(&place, known.front) => known.front = front,
                        Some(_) => {}
                        None => allowed.push(Candidate { place, front }),
                    }
                }
            }
        }
        allowed
    }

    /// The hottest of five points on the span of each.
    pub(super) fn hottest(&self, candidates: &[Candidate]) -> Vec<f64> {
        let mut points = vec![[self.bulk_c; SPAN]; candidates.len()];
        for laid in &self.felt {
            let Some(felt) = self.tables[laid.place.seam].after(self.time_s - laid.ended_s) else { continue };
            let laid_in = self.lane(laid.place);
            // A layer has few lanes: how each of them feels this bead is asked once.
            let mut lanes: Vec<(usize, f64)> = Vec::new();
            for (candidate, points) in candidates.iter().zip(&mut points) {
                let place = self.felt_at(candidate.place);
                if laid.place.seam != place.seam {
                    continue;
                }
                let felt_in = self.lane(place);
                let known = lanes.iter().find(|(lane, _)| *lane == felt_in).map(|(_, beside)| *beside);
                let beside = known.unwrap_or_else(|| {
                    let beside = felt.beside(laid_in, felt_in);
                    lanes.push((felt_in, beside));
                    beside
                });
                felt.add(laid.place.along, place.along, beside, points);
            }
        }
        points.into_iter().map(|points| points.into_iter().fold(f64::NEG_INFINITY, f64::max)).collect()
    }

    /// Where the beads before are felt: in a stop-hole as at the end of its seam.
    fn felt_at(&self, place: BeadPlace) -> BeadPlace {
        let Some(hole) = self.work.seams[place.seam].hole_of else { return place };
        let along = if hole.last { self.work.seams[hole.seam].along() - 1 } else { 0 };
        BeadPlace { seam: hole.seam, pass: 0, lane: 0, along }
    }

    fn lane(&self, place: BeadPlace) -> usize {
        self.tables[place.seam].lane(place.pass, place.lane)
    }

    /// Of those that may start, the farthest from the last bead; another seam is farther than any place in this.
    pub(super) fn farthest(&self, may: &[(Candidate, f64)]) -> (Candidate, f64) {
        let last = self.laid.iter().max_by(|a, b| a.ended_s.total_cmp(&b.ended_s)).map(|laid| laid.place);
        let off = |place: BeadPlace| match last {
            None => 0,
            Some(last) if last.seam != place.seam => usize::MAX,
            Some(last) => last.along.abs_diff(place.along),
        };
        // Of equals the first.
        let mut best = may[0];
        for &other in &may[1..] {
            if off(other.0.place) > off(best.0.place) {
                best = other;
            }
        }
        best
    }
}
