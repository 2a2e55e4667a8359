//! In which order the beads of the seams go down, and when each may start.

mod rise;
mod run;

use std::collections::BTreeSet;
use std::sync::Arc;

use crate::heat::{Burnt, FreeEdges, OutOfHeat, WallEnds};
use crate::sim::ThermalBody;

use rise::RiseTable;
pub(super) use rise::{RiseRows, RowsOf};
use run::Run;

/// Beads of one layer on one side that lie beside each other.
#[derive(Debug, Clone, PartialEq)]
pub struct Pass {
    /// From 1, the deepest.
    pub layer: u32,
    /// 1, or 2 where the other side of the wall is filled too.
    pub side: u32,
    /// Across the seam from its middle, in mm: one for each bead beside another.
    pub offsets_mm: Vec<f64>,
}

/// A seam to be filled with beads.
#[derive(Debug, Clone, PartialEq)]
pub struct BeadSeam {
    pub length_mm: f64,
    /// The longest a bead of the school is.
    pub bead_mm: f64,
    pub wall_mm: f64,
    /// Iron goes on beyond the end: a tip, a hole, a branch, an end out of sight. An open edge is no front.
    pub closed: [bool; 2],
    /// Where the wall ends: along from the start of the seam, across from its middle.
    pub ends: WallEnds,
    /// In the order in which they are filled, each whole before the next.
    pub passes: Vec<Pass>,
    /// Places of these passes where the groove is too shallow for one.
    pub left_out: BTreeSet<LeftOut>,
    /// What the arc gives the iron: efficiency x volts x amps.
    pub power_w: f64,
    pub travel_mm_s: f64,
    /// It is no seam: one bead in the stop-hole at an end of one.
    pub hole_of: Option<HoleOf>,
}

/// The stop-hole at an end of a seam: filled, from its rim, once that seam is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct HoleOf {
    /// Of the seams, from 0; it stands before its holes.
    pub seam: usize,
    /// At its last end, not its first.
    pub last: bool,
}

/// House: how near to a seam a free edge is felt, in mm.
pub const EDGE_FELT_WITHIN_MM: f64 = 100.0;

/// The wall along a seam that ends at its open ends, or so far beyond those that are closed.
#[must_use]
pub fn along_a_seam(length_mm: f64, closed: [bool; 2], beyond_mm: [Option<f64>; 2]) -> FreeEdges {
    let beyond = |at: usize| {
        if closed[at] { beyond_mm[at].filter(|mm| *mm <= EDGE_FELT_WITHIN_MM) } else { Some(0.0) }
    };
    FreeEdges { less: beyond(0), more: beyond(1).map(|mm| length_mm + mm) }
}

impl BeadSeam {
    /// How many beads lie one behind the other.
    #[must_use]
    pub fn along(&self) -> usize {
        // A seam of exactly so many lengths has not one more for a rounding.
        ((self.length_mm / self.bead_mm - 1e-9).ceil() as usize).max(1)
    }

    /// Of each bead, in mm.
    #[must_use]
    pub fn each_mm(&self) -> f64 {
        self.length_mm / self.along() as f64
    }

    /// Of each bead, in s.
    #[must_use]
    pub fn each_s(&self) -> f64 {
        self.each_mm() / self.travel_mm_s
    }

    #[must_use]
    pub fn beads(&self) -> usize {
        self.along() * self.passes.iter().map(|pass| pass.offsets_mm.len()).sum::<usize>()
            - self.left_out.len()
    }
}

/// No bead lies there.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub struct LeftOut {
    pub pass: usize,
    pub lane: usize,
    pub along: usize,
}

/// A place for a bead.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct BeadPlace {
    /// Of the seams, from 0.
    pub seam: usize,
    /// Of its passes, from 0.
    pub pass: usize,
    /// Of the beads beside each other, from 0.
    pub lane: usize,
    /// Along the seam, from 0.
    pub along: usize,
}

/// The part, its window and its seams.
#[derive(Debug, Clone, PartialEq)]
pub struct BeadWork {
    pub body: ThermalBody,
    /// A bead begins between these, in degC.
    pub least_c: f64,
    pub most_c: f64,
    /// Net power of the source for a reheat; nothing where nothing is reheated.
    pub reheat_w: Option<f64>,
    /// Of the surface: 1, or what a cover leaves bare.
    pub bare_share: f64,
    /// Between beads it is kept as warm as it is: the flame is held on it, or it lies in an oven.
    pub held: bool,
    /// A seam is begun when the one before it, its stop-holes with it, is filled; else they are filled side by side.
    pub one_after_another: bool,
    pub seams: Vec<BeadSeam>,
}

/// A bead that lies there, and when it ended on the clock of the run, in s; before the run that is under 0.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PastBead {
    pub place: BeadPlace,
    pub ended_s: f64,
}

/// A bead to come.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PlannedBead {
    pub place: BeadPlace,
    /// Along the seam, in the direction in which it is laid.
    pub from_mm: f64,
    pub to_mm: f64,
    /// From the beginning of the run.
    pub start_s: f64,
    pub ends_s: f64,
    /// Waited before it, and reheated before it.
    pub wait_s: f64,
    pub reheat_s: f64,
    /// The hottest place on its span as it begins.
    pub before_c: f64,
    /// The part as a whole as it begins.
    pub bulk_c: f64,
}

/// All beads that are still to be laid.
#[derive(Debug, Clone, PartialEq)]
pub struct BeadSchedule {
    pub beads: Vec<PlannedBead>,
    pub arc_s: f64,
    pub waiting_s: f64,
    pub reheats: usize,
    pub elapsed_s: f64,
    /// Laid from one end to the other it would wait so long; nothing where it never comes to its end.
    pub end_to_end_waiting_s: Option<f64>,
    /// It is laid from one end to the other: no other order waits less.
    pub end_to_end: bool,
}

/// The work with what was looked up of it once: asked again and again while the beads go down.
#[derive(Debug, Clone)]
pub struct BeadCourse {
    work: BeadWork,
    tables: Vec<RiseTable>,
}

impl PartialEq for BeadCourse {
    /// What was looked up follows from the work.
    fn eq(&self, other: &Self) -> bool {
        self.work == other.work
    }
}

/// When one bead may begin.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MayBegin {
    pub wait_s: f64,
    pub reheat_s: f64,
    /// The hottest place on its span now.
    pub now_c: f64,
}

impl BeadSchedule {
    /// Reheated before its beads, all together.
    #[must_use]
    pub fn reheating_s(&self) -> f64 {
        self.beads.iter().map(|bead| bead.reheat_s).sum()
    }
}

impl BeadCourse {
    #[must_use]
    pub fn new(work: BeadWork) -> Self {
        Self::with(work, |of| Arc::new(RiseRows::new(of)))
    }

    /// With rows that may be those of another way.
    pub(super) fn with(work: BeadWork, rows: impl Fn(RowsOf) -> Arc<RiseRows>) -> Self {
        let table = |seam: &BeadSeam| RiseTable::new(&work.body, seam, rows(RowsOf::new(&work.body, seam)));
        let tables = work.seams.iter().map(table).collect();
        Self { work, tables }
    }

    #[must_use]
    pub fn work(&self) -> &BeadWork {
        &self.work
    }

    /// The order in which the beads go down from a bulk temperature on, those laid already left out.
    ///
    /// Allowed next are, of the layer and side in hand, the three unfilled beads nearest to each front, laid
    /// back-step; the first goes to the first front. Of those the one that may start soonest: the hottest of five
    /// points on its span is not over the most; ties to the farthest from the last. Under the least it is reheated to
    /// the least and a quarter of the window. Several seams are filled side by side, or one after the other. Nothing
    /// where it never comes to an end: the source does not reach, it never falls under the most, or the window is so
    /// narrow that the part is reheated again and again before one bead.
    ///
    /// # Validity
    /// A bead on the far side of the wall counts as if it lay on the near one; from seam to seam heat goes by the
    /// bulk alone.
    ///
    /// # Source
    /// House, on conduction in a plate ([`bead_rise_k`](super::bead_rise_k)) and a lump that loses heat.
    #[must_use]
    pub fn order(&self, bulk_c: f64, laid: &[PastBead]) -> Option<BeadSchedule> {
        let taken = self.taken(bulk_c, laid)?;
        let end_to_end_waiting_s =
            if taken.end_to_end { Some(taken.waiting_s) } else { self.end_to_end_waiting_s(bulk_c, laid) };
        Some(BeadSchedule { end_to_end_waiting_s, ..taken })
    }

    /// The same, but for what laying them from end to end would wait: that is only looked at as far as it waits less.
    pub(super) fn taken(&self, bulk_c: f64, laid: &[PastBead]) -> Option<BeadSchedule> {
        let run = Run::new(self, bulk_c, laid);
        let stepped = run.clone().all(false, f64::INFINITY);
        let to_beat_s = stepped.as_ref().map_or(f64::INFINITY, |stepped| stepped.waiting_s);
        // Nothing waits less than not at all.
        let plain = if to_beat_s > 0.0 { run.all(true, to_beat_s) } else { None };
        plain.or(stepped)
    }

    pub(super) fn end_to_end_waiting_s(&self, bulk_c: f64, laid: &[PastBead]) -> Option<f64> {
        Run::new(self, bulk_c, laid).all(true, f64::INFINITY).map(|plain| plain.waiting_s)
    }

    /// The source gives more than the part loses at the least: it can be brought back to it.
    #[must_use]
    pub fn comes_back(&self) -> bool {
        let BeadWork { body, least_c, bare_share, reheat_w, .. } = &self.work;
        let still = OutOfHeat { h_w_m2k: 10.0, bare_share: *bare_share };
        reheat_w.is_none_or(|watts| watts > still.loss_w(body, *least_c))
    }

    /// When this bead may begin, from a bulk temperature on; nothing for never.
    #[must_use]
    pub fn may_begin(&self, bulk_c: f64, laid: &[PastBead], place: BeadPlace) -> Option<MayBegin> {
        Run::new(self, bulk_c, laid).may_begin(place)
    }

    /// The part as a whole after so many seconds in these states of heat, with the beads that ended in them.
    #[must_use]
    pub fn bulk_after(&self, bulk_c: f64, seconds: f64, laid: &[PastBead], burnt: &Burnt) -> f64 {
        Run::new(self, bulk_c, &[]).after(seconds, laid, burnt)
    }

    /// The same work, its seams filled side by side.
    #[must_use]
    pub fn side_by_side(&self) -> Self {
        Self { work: BeadWork { one_after_another: false, ..self.work.clone() }, tables: self.tables.clone() }
    }

    /// The same work, kept as warm as it is between beads or not.
    #[must_use]
    pub fn held(self, held: bool) -> Self {
        Self { work: BeadWork { held, ..self.work }, ..self }
    }
}

/// The order in which the beads go down, asked once.
#[must_use]
pub fn bead_order(work: &BeadWork, bulk_c: f64, laid: &[PastBead]) -> Option<BeadSchedule> {
    BeadCourse::new(work.clone()).order(bulk_c, laid)
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use rstest::rstest;

    use super::*;
    use crate::heat::{Burning, LaidBead, bead_rise_k};
    use crate::iron::Iron;
    use crate::quantity::{Celsius, Kilograms, Millimetres};

    fn body(kg: f64, [l, w, h]: [f64; 3], ambient_c: f64) -> ThermalBody {
        let mm = |value| Millimetres::new(value).unwrap();
        let ambient = Celsius::new(ambient_c).unwrap();
        ThermalBody::new(
            Iron::Gray.properties(),
            Kilograms::new(kg).unwrap(),
            (mm(l), mm(w), mm(h)),
            1.0,
            ambient,
        )
        .unwrap()
    }

    fn passes(layers: u32) -> Vec<Pass> {
        (1..=layers).map(|layer| Pass { layer, side: 1, offsets_mm: vec![0.0] }).collect()
    }

    /// The cold school on a small plate, a seam between two tips.
    fn cold(seam_mm: f64, layers: u32) -> BeadWork {
        BeadWork {
            body: body(9.0, [300.0, 200.0, 40.0], 18.0),
            least_c: 15.0,
            most_c: 65.0,
            reheat_w: None,
            bare_share: 1.0,
            held: false,
            one_after_another: false,
            seams: vec![BeadSeam {
                length_mm: seam_mm,
                bead_mm: 25.0,
                wall_mm: 10.0,
                closed: [true, true],
                ends: WallEnds::default(),
                passes: passes(layers),
                left_out: BTreeSet::new(),
                power_w: 1320.0,
                travel_mm_s: 2.5,
                hole_of: None,
            }],
        }
    }

    /// The cold school on a lever that is broken through.
    fn lever() -> BeadWork {
        let mut work = cold(70.0, 2);
        work.body = body(8.0, [320.0, 70.0, 50.0], 18.0);
        let seam = &mut work.seams[0];
        (seam.wall_mm, seam.power_w, seam.closed) = (12.0, 1402.5, [false, false]);
        seam.ends.along = along_a_seam(70.0, seam.closed, [None, None]);
        work
    }

    /// The warm school on ductile, from a tip out to an edge, with another beside it.
    fn flange() -> BeadWork {
        let mut work = cold(120.0, 1);
        let mm = |value| Millimetres::new(value).unwrap();
        let kg = Kilograms::new(14.0).unwrap();
        work.body = ThermalBody::new(
            Iron::Ductile.properties(),
            kg,
            (mm(400.0), mm(200.0), mm(60.0)),
            1.0,
            Celsius::new(18.0).unwrap(),
        )
        .unwrap();
        (work.least_c, work.most_c, work.reheat_w) = (150.0, 250.0, Some(3_000.0));
        let seam = &mut work.seams[0];
        (seam.bead_mm, seam.power_w, seam.closed) = (40.0, 1567.5, [true, false]);
        seam.ends = WallEnds {
            along: along_a_seam(120.0, seam.closed, [None, None]),
            across: FreeEdges { less: None, more: Some(30.0) },
        };
        work
    }

    /// The hot school on a frame, that needs its torch now and then.
    fn hot() -> BeadWork {
        BeadWork {
            body: body(60.0, [460.0, 280.0, 90.0], 18.0),
            least_c: 300.0,
            most_c: 400.0,
            reheat_w: Some(5100.0),
            bare_share: 1.0,
            held: false,
            one_after_another: false,
            seams: vec![BeadSeam {
                length_mm: 180.0,
                bead_mm: 60.0,
                wall_mm: 14.0,
                closed: [true, true],
                ends: WallEnds::default(),
                passes: passes(3),
                left_out: BTreeSet::new(),
                power_w: 1650.0,
                travel_mm_s: 2.5,
                hole_of: None,
            }],
        }
    }

    #[rstest]
    // Published: the trade reference, examples of bead-order
    #[case::cold(cold(140.0, 2), 18.0, 112.0, (546.0, 59.6), (728.0, 77.8))]
    #[case::hot(hot(), 345.0, 216.0, (346.0, 39.6), (386.0, 43.6))]
    #[case::from_edge_to_edge(lever(), 20.0, 56.0, (723.0, 77.3), (759.0, 80.9))]
    #[case::out_to_an_edge_and_beside_one(flange(), 185.0, 48.0, (173.0, 22.3), (185.0, 23.5))]
    fn the_order_waits_as_published(
        #[case] work: BeadWork,
        #[case] bulk_c: f64,
        #[case] arc_s: f64,
        #[case] (waiting_s, off_s): (f64, f64),
        #[case] (plain_s, plain_off_s): (f64, f64),
    ) {
        let found = bead_order(&work, bulk_c, &[]).unwrap();
        assert!((found.arc_s - arc_s).abs() < 0.5);
        assert!((found.waiting_s - waiting_s).abs() < off_s, "{}", found.waiting_s);
        let plain = found.end_to_end_waiting_s.unwrap();
        assert!((plain - plain_s).abs() < plain_off_s, "{plain}");
    }

    #[test]
    fn the_first_bead_lies_at_the_first_front_and_each_is_laid_against_its_front() {
        let found = bead_order(&cold(140.0, 1), 18.0, &[]).unwrap();
        let (first, second) = (found.beads[0], found.beads[1]);
        assert_eq!((first.place.along, first.start_s), (0, 0.0));
        assert!(first.from_mm > first.to_mm, "from the left front it is laid to the left");
        assert_eq!(second.place.along, 5, "the farthest of those that may start");
        assert!(second.from_mm < second.to_mm && (second.to_mm - 140.0).abs() < 1e-9);
    }

    #[rstest]
    #[case::left_open([false, true], 5)]
    #[case::right_open([true, false], 0)]
    #[case::both_open([false, false], 0)]
    fn an_open_edge_is_no_front(#[case] closed: [bool; 2], #[case] first: usize) {
        let mut work = cold(140.0, 1);
        work.seams[0].closed = closed;
        assert_eq!(bead_order(&work, 18.0, &[]).unwrap().beads[0].place.along, first);
    }

    #[test]
    fn a_layer_is_whole_before_the_next_and_sides_take_turns() {
        let mut work = cold(100.0, 1);
        work.seams[0].passes = [(1, 1), (1, 2), (2, 1), (2, 2)]
            .map(|(layer, side)| Pass { layer, side, offsets_mm: vec![-2.0, 2.0] })
            .to_vec();
        let found = bead_order(&work, 18.0, &[]).unwrap();
        let passes: Vec<usize> = found.beads.iter().map(|bead| bead.place.pass).collect();
        assert_eq!(passes.len(), 4 * 2 * 4);
        assert!(passes.is_sorted());
    }

    #[test]
    fn what_is_laid_is_not_laid_again_and_its_heat_is_felt() {
        let work = cold(140.0, 1);
        let at = |along| BeadPlace { seam: 0, pass: 0, lane: 0, along };
        let laid = [0, 1, 2, 3, 4].map(|along| PastBead { place: at(along), ended_s: 0.0 });
        let warm = bead_order(&work, 30.0, &laid).unwrap();
        assert_eq!(warm.beads.len(), 1);
        assert_eq!(warm.beads[0].place, at(5));
        assert!(warm.beads[0].wait_s > 10.0);
        let rested = laid.map(|laid| PastBead { ended_s: -3600.0, ..laid });
        assert_eq!(bead_order(&work, 30.0, &rested).unwrap().beads[0].wait_s, 0.0);
    }

    #[test]
    fn a_part_too_cold_is_reheated_and_a_source_too_weak_never_gets_there() {
        let found = bead_order(&hot(), 250.0, &[]).unwrap();
        assert!(found.reheats >= 1 && found.beads[0].reheat_s > 0.0);
        assert!((found.beads[0].bulk_c - 325.0).abs() < 2.0, "a quarter of the window over the least");
        let mut weak = hot();
        weak.reheat_w = Some(200.0);
        assert_eq!(bead_order(&weak, 250.0, &[]), None);
        weak.reheat_w = None;
        assert!(bead_order(&weak, 250.0, &[]).unwrap().beads[0].bulk_c < 251.0, "nothing to reheat with");
    }

    #[test]
    fn under_a_cover_a_weak_source_still_brings_it_back() {
        let mut work = hot();
        work.reheat_w = Some(2_500.0);
        assert_eq!(bead_order(&work, 250.0, &[]), None, "bare it loses more than that at 300");
        work.bare_share = 0.4;
        assert!(bead_order(&work, 250.0, &[]).unwrap().reheats >= 1);
    }

    #[test]
    fn a_source_that_just_holds_the_least_brings_it_back_as_far_as_it_can() {
        let mut work = hot();
        // Between what the part loses at 300 and at 330: the quarter of the window is out of reach.
        let still = OutOfHeat { h_w_m2k: 10.0, bare_share: 1.0 };
        let (at_least, at_more) = (still.loss_w(&work.body, 300.0), still.loss_w(&work.body, 330.0));
        work.reheat_w = Some(f64::midpoint(at_least, at_more));
        let first = bead_order(&work, 250.0, &[]).unwrap().beads[0];
        // It holds about 315: a little under that.
        assert!((305.0..315.0).contains(&first.bulk_c), "{}", first.bulk_c);
        work.reheat_w = Some(at_least - 1.0);
        assert_eq!(bead_order(&work, 250.0, &[]), None);
    }

    #[rstest]
    // What must stay cool leaves no window at all, a narrow one, or enough
    #[case::none(0.0, false)]
    #[case::a_degree(1.0, false)]
    #[case::enough(40.0, true)]
    fn in_a_window_too_narrow_nothing_can_be_laid_however_strong_the_flame(
        #[case] window_k: f64,
        #[case] laid: bool,
    ) {
        let mut work = hot();
        work.most_c = work.least_c + window_k;
        let course = BeadCourse::new(work);
        assert_eq!(course.order(course.work().least_c, &[]).is_some(), laid);
        assert!(course.comes_back());
        let mut weak = hot();
        weak.reheat_w = Some(200.0);
        assert!(!BeadCourse::new(weak).comes_back(), "that is another reason");
    }

    #[test]
    fn a_shop_hotter_than_the_most_never_lets_it_begin() {
        let mut work = cold(140.0, 1);
        work.body = body(9.0, [300.0, 200.0, 40.0], 80.0);
        assert_eq!(bead_order(&work, 80.0, &[]), None);
    }

    #[test]
    fn what_was_worked_out_for_another_way_changes_nothing() {
        let sims = crate::heat::SimCache::default();
        for (power_w, layers) in [(1320.0, 2), (1650.0, 2), (1320.0, 3), (1320.0, 2)] {
            let mut work = cold(140.0, layers);
            work.seams[0].power_w = power_w;
            let kept = sims.bead_order(&sims.bead_course(work.clone()), 18.0);
            let alone = bead_order(&work, 18.0, &[]).unwrap();
            assert_eq!(kept.as_ref().as_ref().map(|it| &it.beads), Some(&alone.beads));
            let waits_s = sims.end_to_end_waiting_s(&sims.bead_course(work), 18.0);
            assert_eq!(waits_s, alone.end_to_end_waiting_s);
        }
    }

    #[test]
    fn two_seams_are_filled_side_by_side() {
        let mut two = cold(140.0, 1);
        two.seams.push(two.seams[0].clone());
        let (one, both) =
            (bead_order(&cold(140.0, 1), 18.0, &[]).unwrap(), bead_order(&two, 18.0, &[]).unwrap());
        assert_eq!(both.beads.len(), 12);
        assert!(both.waiting_s < 2.0 * one.waiting_s, "one cools while the other is laid");
    }

    #[test]
    fn one_after_the_other_a_seam_waits_for_the_one_before_it_and_its_holes() {
        let mut two = cold(140.0, 2);
        two.seams.push(two.seams[0].clone());
        let hole = |seam| BeadSeam {
            length_mm: 6.0,
            bead_mm: 6.0,
            passes: passes(1),
            hole_of: Some(HoleOf { seam, last: true }),
            ..two.seams[0].clone()
        };
        let holes = [hole(0), hole(1)];
        two.seams.extend(holes);
        let order = |one_after_another| {
            BeadCourse::new(BeadWork { one_after_another, ..two.clone() }).order(18.0, &[]).unwrap()
        };
        let (beside, in_turn) = (order(false), order(true));
        let seams: Vec<usize> = in_turn.beads.iter().map(|bead| bead.place.seam).collect();
        let expected = [vec![0; 12], vec![2], vec![1; 12], vec![3]].concat();
        assert_eq!(seams, expected);
        assert_eq!(beside.beads.len(), in_turn.beads.len());
        assert!(in_turn.waiting_s > beside.waiting_s, "nothing is laid elsewhere while it cools");
        let course = BeadCourse::new(BeadWork { one_after_another: true, ..two.clone() });
        assert_eq!(course.side_by_side().order(18.0, &[]), Some(beside));
        // What was begun elsewhere is left as it is.
        let elsewhere = PastBead { place: BeadPlace { seam: 1, pass: 0, lane: 0, along: 0 }, ended_s: 0.0 };
        assert_eq!(course.order(18.0, &[elsewhere]).unwrap().beads[0].place.seam, 0);
    }

    #[test]
    fn one_bead_is_asked_for_alone() {
        let course = BeadCourse::new(cold(140.0, 1));
        let at = |along| BeadPlace { seam: 0, pass: 0, lane: 0, along };
        let laid = [PastBead { place: at(2), ended_s: 0.0 }];
        let beside = course.may_begin(25.0, &laid, at(3)).unwrap();
        let far = course.may_begin(25.0, &laid, at(5)).unwrap();
        assert!(beside.wait_s > 30.0 && far.wait_s == 0.0 && beside.now_c > far.now_c);
        let found = course.order(25.0, &laid).unwrap();
        let same = found.beads.iter().find(|bead| bead.wait_s == 0.0).unwrap();
        assert_eq!(course.may_begin(25.0, &laid, same.place).unwrap().now_c, same.before_c);
    }

    #[test]
    fn between_readings_the_part_cools_and_the_beads_warm_it() {
        let course = BeadCourse::new(cold(140.0, 1));
        let place = BeadPlace { seam: 0, pass: 0, lane: 0, along: 0 };
        let out = Burnt::default();
        let rests = course.bulk_after(60.0, 600.0, &[], &out);
        let works = course.bulk_after(60.0, 600.0, &[PastBead { place, ended_s: 600.0 }], &out);
        assert!(rests < 60.0 && rests > 18.0);
        // Hand-worked: 1320 W x 140 / 6 mm / 2.5 mm/s = 12,320 J in 9 kg at 437 J/kgK
        assert!((works - rests - 3.13).abs() < 0.1, "{}", works - rests);
        assert_eq!(course.bulk_after(60.0, 0.0, &[], &out), 60.0);
        assert!(
            (course.bulk_after(60.0, 1e9, &[], &out) - 18.0).abs() < 1e-9,
            "long after it is as cold as the shop"
        );
    }

    #[test]
    fn a_flame_held_on_it_spares_the_reheats_and_a_soak_under_it_cools_nothing() {
        let (bare, held) = (BeadCourse::new(hot()), BeadCourse::new(hot()).held(true));
        let (fetched, kept) = (bare.order(302.0, &[]).unwrap(), held.order(302.0, &[]).unwrap());
        assert!(kept.reheats < fetched.reheats, "{} {}", kept.reheats, fetched.reheats);
        let soaked = |state| bare.bulk_after(310.0, 1_200.0, &[], &Burnt::new(vec![(0.0, state)]));
        let under = soaked(Burning::Whole { net_w: 5_100.0, to_c: 310.0 });
        assert!((309.0..316.0).contains(&under), "{under}");
        assert!(soaked(Burning::Off) < 280.0);
    }

    /// The heat of every bead laid before, worked out again from the law itself, at five points of each.
    fn hottest_as_it_begins(work: &BeadWork, found: &BeadSchedule, at: usize) -> f64 {
        let (seam, bead) = (&work.seams[0], &found.beads[at]);
        let each = seam.each_mm();
        let joules = seam.power_w * seam.each_s();
        let bulk_k = joules / (work.body.mass.kilograms() * work.body.iron.specific_heat(200.0));
        let law = LaidBead { joules, length_mm: each, wall_mm: seam.wall_mm };
        (0..5)
            .map(|quarter| {
                let x = bead.place.along as f64 * each + f64::from(quarter) * each / 4.0;
                let local: f64 = found.beads[..at]
                    .iter()
                    .map(|before| {
                        let along = x - before.place.along as f64 * each;
                        let after_s = bead.start_s - before.ends_s;
                        let ends = WallEnds {
                            along: seam.ends.along.from_mm(before.place.along as f64 * each),
                            ..seam.ends
                        };
                        (bead_rise_k(&work.body.iron, &law, &ends, (along, 0.0), after_s) - bulk_k).max(0.0)
                    })
                    .sum();
                bead.bulk_c + local
            })
            .fold(f64::NEG_INFINITY, f64::max)
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(24))]
        #[test]
        fn no_bead_begins_over_the_most_and_no_order_waits_longer_than_end_to_end(
            seam_mm in 20.0..400.0f64, layers in 1..4_u32, kg in 3.0..80.0f64, wall_mm in 4.0..30.0f64,
            left in any::<bool>(), right in any::<bool>(),
        ) {
            let mut work = cold(seam_mm, layers);
            work.body = body(kg, [300.0, 200.0, 60.0], 18.0);
            work.seams[0].wall_mm = wall_mm;
            work.seams[0].closed = [left, right];
            let found = bead_order(&work, 18.0, &[]).unwrap();
            prop_assert_eq!(found.beads.len(), work.seams[0].beads());
            prop_assert!(found.waiting_s <= found.end_to_end_waiting_s.unwrap() + 1e-9);
            let mut places: Vec<BeadPlace> = found.beads.iter().map(|bead| bead.place).collect();
            places.sort();
            places.dedup();
            prop_assert_eq!(places.len(), found.beads.len());
            for at in 0..found.beads.len() {
                let hottest = hottest_as_it_begins(&work, &found, at);
                prop_assert!(hottest <= 65.0 + 1.0, "bead {} at {}", at, hottest);
                prop_assert!((hottest - found.beads[at].before_c).abs() < 1.0);
            }
        }
    }
}
