//! What the beads laid so far leave of warmth beside a place, looked up instead of worked out each time.

use std::f64::consts::PI;
use std::sync::{Arc, OnceLock};

use statrs::function::erf::erf;

use crate::heat::bead_rise::{FreeEdges, GIVES_OFF, SOONEST_S, TAKEN_AT_C, WallEnds};
use crate::iron::IronProperties;
use crate::sim::ThermalBody;

use super::BeadSeam;

/// Ours: the table's rows are so far apart in the logarithm of time; between them it is taken straight.
const ROW: f64 = 0.03;
/// Ours: places are looked at each quarter of a bead.
const QUARTERS: usize = 4;
/// Points that are looked at on the span of a bead: its ends, its quarters and its middle.
pub(super) const SPAN: usize = QUARTERS + 1;
/// Of an image as far away as this, in squares of the width, not a millionth of a millionth is felt.
const NOTHING_LEFT: f64 = 28.0;
/// Beyond this many widths of the spreading heat there is none to speak of.
const REACH: f64 = 4.5;

/// What a bead leaves along its seam for each joule, by time since its end: the same for every way that lays beads as
/// long in a wall as thick. A row is worked out when it is first asked for.
#[derive(Debug)]
pub(crate) struct RiseRows {
    of: RowsOf,
    /// K a joule at each quarter of a bead from the bead's middle outwards, a row a time.
    rows: Vec<OnceLock<Vec<f64>>>,
}

/// What its rows follow from.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct RowsOf {
    iron: IronProperties,
    each_mm: f64,
    wall_mm: f64,
    /// As far as it is looked at from the middle of a bead.
    reach_mm: f64,
}

impl RowsOf {
    pub fn new(body: &ThermalBody, seam: &BeadSeam) -> Self {
        let along = seam.ends.along;
        let thrown_back_mm = if along == FreeEdges::default() { 0.0 } else { along.reach_mm(seam.length_mm) };
        Self {
            iron: body.iron,
            each_mm: seam.each_mm(),
            wall_mm: seam.wall_mm,
            reach_mm: seam.length_mm + thrown_back_mm,
        }
    }

    fn rho_c(&self) -> f64 {
        self.iron.density_kg_m3 * self.iron.specific_heat(TAKEN_AT_C)
    }

    /// a, in m²/s.
    fn spreads_m2_s(&self) -> f64 {
        self.iron.conductivity_w_mk / self.rho_c()
    }
}

impl RiseRows {
    pub fn new(of: RowsOf) -> Self {
        /// Seconds in a day, by definition.
        const A_DAY_S: f64 = 86_400.0;
        let count = ((A_DAY_S / SOONEST_S).ln() / ROW).ceil() as usize + 1;
        Self { of, rows: (0..count).map(|_| OnceLock::new()).collect() }
    }

    /// Numbers of 8 bytes that it may come to.
    pub fn points(&self) -> usize {
        self.rows.len() * (self.places() + 4)
    }

    fn quarter_m(&self) -> f64 {
        self.of.each_mm / 1000.0 / QUARTERS as f64
    }

    /// Quarters of a bead from the middle of one as far as it is looked at.
    fn places(&self) -> usize {
        (self.of.reach_mm / 1000.0 / self.quarter_m()).ceil() as usize + QUARTERS
    }

    fn tau_s(row: usize) -> f64 {
        SOONEST_S * (row as f64 * ROW).exp()
    }

    /// K a joule as if all of it went straight through the wall and on along an endless seam.
    fn plate(&self, tau: f64) -> f64 {
        let d = self.of.wall_mm / 1000.0;
        let at = self.of.spreads_m2_s() * tau;
        let mut depth = 1.0;
        for n in 1..=200_u32 {
            let term = (-f64::from(n * n) * PI * PI * at / (d * d)).exp();
            depth += 2.0 * term;
            if term < 1e-12 {
                break;
            }
        }
        1.0 / (d * self.of.rho_c()) / (4.0 * PI * at).sqrt()
            * depth
            * (-2.0 * GIVES_OFF * tau / (self.of.rho_c() * d)).exp()
    }

    fn width_m(&self, tau: f64) -> f64 {
        2.0 * (self.of.spreads_m2_s() * tau).sqrt()
    }

    /// K a joule in the middle of the bead.
    fn in_the_middle(&self, row: usize) -> f64 {
        let (tau, l) = (Self::tau_s(row), self.of.each_mm / 1000.0);
        self.plate(tau) * erf(l / 2.0 / self.width_m(tau)) / l
    }

    fn row(&self, row: usize) -> Option<&[f64]> {
        Some(self.rows.get(row)?.get_or_init(|| self.worked_out(row)))
    }

    fn worked_out(&self, row: usize) -> Vec<f64> {
        let (tau, l, quarter) = (Self::tau_s(row), self.of.each_mm / 1000.0, self.quarter_m());
        let width = self.width_m(tau);
        let plate = self.plate(tau);
        let reaches = ((REACH * width + l) / quarter).ceil() as usize;
        let places = self.places().min(reaches) + 1;
        // The error function at each quarter from half a bead's length before the middle outwards.
        let half = QUARTERS / 2;
        let steps: Vec<f64> =
            (0..places + QUARTERS).map(|at| erf((at as f64 - half as f64) * quarter / width)).collect();
        (0..places).map(|place| plate * (steps[place + QUARTERS] - steps[place]) / (2.0 * l)).collect()
    }
}

/// What is felt along a seam between edges, added up: a row of time is worked out when it is first asked for.
///
/// A place is felt as far as it lies from the bead, and mirrored as far as both lie from the seam's start together: so
/// two rows of numbers hold it for every bead and every place.
#[derive(Debug)]
struct ThrownBack {
    /// In quarters of a bead.
    edges: FreeEdges,
    quarters: usize,
    rows: Vec<OnceLock<ThrownBackRow>>,
}

#[derive(Debug)]
struct ThrownBackRow {
    /// K a joule by quarters between the place and the middle of the bead.
    apart: Vec<f64>,
    /// Of the mirror images, by the sum of both from the start of the seam.
    mirrored: Vec<f64>,
}

impl ThrownBack {
    fn new(edges: FreeEdges, beads: usize, rows: usize) -> Self {
        Self { edges, quarters: beads * QUARTERS, rows: (0..rows).map(|_| OnceLock::new()).collect() }
    }

    fn row(&self, row: usize, felt: &[f64]) -> Option<&ThrownBackRow> {
        Some(self.rows.get(row)?.get_or_init(|| {
            let there = |quarters: f64| along(felt, quarters.abs());
            let apart = |at: usize| self.edges.again(at as f64).map(there).sum();
            let mirrored = |at: usize| self.edges.mirrored(at as f64).map(there).sum();
            ThrownBackRow {
                apart: (0..=self.quarters).map(apart).collect(),
                mirrored: (0..=2 * self.quarters).map(mirrored).collect(),
            }
        }))
    }
}

impl ThrownBackRow {
    fn at(&self, quarter: usize, middle: usize) -> f64 {
        self.apart[quarter.abs_diff(middle)] + self.mirrored[quarter + middle]
    }
}

/// Of what is felt at each quarter of a bead from its middle, so many of them away.
fn along(felt: &[f64], quarters: f64) -> f64 {
    let nearer = quarters as usize;
    let at = |place: usize| felt.get(place).copied().unwrap_or(0.0);
    let further = quarters - nearer as f64;
    let near = at(nearer);
    if further < 1e-6 { near } else { near + (at(nearer + 1) - near) * further }
}

/// How much of a bead is felt in each lane of a seam, looked up by rows of time too: each is worked out when it is first
/// asked for.
#[derive(Debug)]
struct Beside {
    /// Across the seam from its middle.
    across: FreeEdges,
    /// Of all passes, each once, in mm from the middle.
    lanes_mm: Vec<f64>,
    rows: Vec<OnceLock<Box<[OnceLock<f64>]>>>,
}

impl Beside {
    fn new(across: FreeEdges, lanes_mm: Vec<f64>, rows: usize) -> Self {
        Self { across, lanes_mm, rows: (0..rows).map(|_| OnceLock::new()).collect() }
    }

    /// Laid in one lane and felt in another, so long after it that the heat has spread over `four_a_tau_mm2`.
    fn at(&self, row: usize, (laid, felt): (usize, usize), four_a_tau_mm2: impl Fn() -> f64) -> f64 {
        let lanes = self.lanes_mm.len();
        let row = self.rows[row].get_or_init(|| (0..lanes * lanes).map(|_| OnceLock::new()).collect());
        *row[laid * lanes + felt].get_or_init(|| {
            let (laid_mm, felt_mm) = (self.lanes_mm[laid], self.lanes_mm[felt]);
            let wide_mm2 = four_a_tau_mm2();
            let images = self.across.from_mm(laid_mm).images(felt_mm - laid_mm);
            let spreads = images.map(|across_mm| across_mm * across_mm / wide_mm2);
            spreads.filter(|it| *it < NOTHING_LEFT).map(|it| (-it).exp()).sum()
        })
    }
}

/// Rise over the part's own temperature that an equal bead leaves along the seam, by time since its end.
#[derive(Debug, Clone)]
pub(super) struct RiseTable {
    rows: Arc<RiseRows>,
    beside: Arc<Beside>,
    /// Which of the lanes each bead of a pass lies in.
    lanes: Arc<[Vec<usize>]>,
    /// What the edges along the seam throw back; nothing where there are none.
    thrown_back: Option<Arc<ThrownBack>>,
    joules: f64,
    /// So much of its rise is in the part as a whole already, in K.
    bulk_k: f64,
    /// From this row on it is not to be felt any more.
    unfelt: usize,
}

impl RiseTable {
    /// Until a bead is not to be felt any more, for a day at most.
    ///
    /// As [`bead_rise_k`](crate::heat::bead_rise_k).
    pub fn new(body: &ThermalBody, seam: &BeadSeam, rows: Arc<RiseRows>) -> Self {
        let joules = seam.power_w * seam.each_s();
        let bulk_k = joules / (body.mass.kilograms() * body.iron.specific_heat(TAKEN_AT_C));
        let passes: Vec<&[f64]> = seam.passes.iter().map(|pass| pass.offsets_mm.as_slice()).collect();
        Self::of(rows, (seam.along(), &passes), seam.ends, (joules, bulk_k))
    }

    fn of(
        rows: Arc<RiseRows>,
        (beads, passes): (usize, &[&[f64]]),
        WallEnds { along, across }: WallEnds,
        (joules, bulk_k): (f64, f64),
    ) -> Self {
        let images = (along.count() * across.count()) as f64;
        let least = bulk_k.max(0.01) / joules / images;
        let all: Vec<usize> = (0..rows.rows.len()).collect();
        let unfelt = all.partition_point(|row| rows.in_the_middle(*row) > least);
        let quarter_mm = rows.of.each_mm / QUARTERS as f64;
        let quarters = |mm: f64| mm / quarter_mm;
        let edges = FreeEdges { less: along.less.map(quarters), more: along.more.map(quarters) };
        let thrown_back =
            (along != FreeEdges::default()).then(|| Arc::new(ThrownBack::new(edges, beads, rows.rows.len())));
        let mut lanes_mm: Vec<f64> = Vec::new();
        let mut lane = |offset_mm: &f64| {
            lanes_mm.iter().position(|known| known == offset_mm).unwrap_or_else(|| {
                lanes_mm.push(*offset_mm);
                lanes_mm.len() - 1
            })
        };
        let lanes = passes.iter().map(|offsets| offsets.iter().map(&mut lane).collect()).collect();
        let beside = Arc::new(Beside::new(across, lanes_mm, rows.rows.len()));
        Self { rows, beside, lanes, thrown_back, joules, bulk_k, unfelt }
    }

    fn row(seconds: f64) -> f64 {
        (seconds.max(SOONEST_S) / SOONEST_S).ln() / ROW
    }

    /// Of those of the seam, the lane in which a bead of a pass lies.
    pub fn lane(&self, pass: usize, lane: usize) -> usize {
        self.lanes[pass][lane]
    }

    /// A bead that ended so long ago is still to be felt.
    pub fn is_felt(&self, seconds: f64) -> bool {
        (Self::row(seconds) as usize) < self.unfelt
    }

    /// How a bead that ended so long ago is felt; nothing once it is not.
    pub fn after(&self, seconds: f64) -> Option<Felt<'_>> {
        let row = Self::row(seconds);
        let before = row.floor() as usize;
        if before >= self.unfelt {
            return None;
        }
        let rows = (self.rows.row(before)?, self.rows.row(before + 1)?);
        let thrown_back = match &self.thrown_back {
            Some(back) => Some((back.row(before, rows.0)?, back.row(before + 1, rows.1)?)),
            None => None,
        };
        Some(Felt { table: self, rows, thrown_back, row: before, part: row - before as f64 })
    }
}

/// A bead at a moment.
#[derive(Debug, Clone, Copy)]
pub(super) struct Felt<'a> {
    table: &'a RiseTable,
    /// At the row of time before, and at the one after.
    rows: (&'a [f64], &'a [f64]),
    thrown_back: Option<(&'a ThrownBackRow, &'a ThrownBackRow)>,
    row: usize,
    /// So much of the way from that row to the next.
    part: f64,
}

impl Felt<'_> {
    /// How much of it is felt beside it: laid in one lane of the seam, felt in another.
    pub fn beside(&self, laid: usize, felt: usize) -> f64 {
        let at = |row: usize| {
            let wide_mm2 = || 4e6 * self.table.rows.of.spreads_m2_s() * RiseRows::tau_s(row);
            self.table.beside.at(row, (laid, felt), wide_mm2)
        };
        let (before, after) = (at(self.row), at(self.row + 1));
        before + (after - before) * self.part
    }

    /// K over the part's own temperature at a quarter of the seam, from the bead that was laid as the so manieth along.
    fn rise_k(&self, quarter: usize, laid: usize, beside: f64) -> f64 {
        let middle = laid * QUARTERS + QUARTERS / 2;
        let (before, after) = match self.thrown_back {
            Some((before, after)) => (before.at(quarter, middle), after.at(quarter, middle)),
            None => {
                let at = |row: &[f64]| row.get(quarter.abs_diff(middle)).copied().unwrap_or(0.0);
                (at(self.rows.0), at(self.rows.1))
            }
        };
        let felt = before + (after - before) * self.part;
        (self.table.joules * felt * beside - self.table.bulk_k).max(0.0)
    }

    /// Lays it on the points of the bead that is the so manieth along.
    pub fn add(&self, laid: usize, along: usize, beside: f64, points: &mut [f64; SPAN]) {
        let first = along * QUARTERS;
        // Where nothing is thrown back it is felt less farther away.
        if self.thrown_back.is_none() {
            let nearest = if along < laid { first + QUARTERS } else { first };
            if along != laid && self.rise_k(nearest, laid, beside) <= 0.0 {
                return;
            }
        }
        for (quarter, point) in points.iter_mut().enumerate() {
            *point += self.rise_k(first + quarter, laid, beside);
        }
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;
    use crate::heat::{LaidBead, bead_rise_k};
    use crate::iron::Iron;

    const LANES_MM: [f64; 4] = [0.0, 4.0, 12.0, -3.0];

    fn table(ends: WallEnds, bulk_k: f64) -> RiseTable {
        let of = RowsOf { iron: Iron::Gray.properties(), each_mm: 25.0, wall_mm: 10.0, reach_mm: 3_000.0 };
        RiseTable::of(Arc::new(RiseRows::new(of)), (10, &[&LANES_MM]), ends, (14_850.0, bulk_k))
    }

    const LAW: LaidBead = LaidBead { joules: 14_850.0, length_mm: 25.0, wall_mm: 10.0 };

    proptest! {
        #[test]
        fn looked_up_it_is_what_the_law_gives(
            quarter in 0..=40_usize, laid in 0..10_usize, after in 0.0..1500.0f64,
            felt_in in 0..3_usize, laid_in in prop::sample::select(vec![0_usize, 3]),
            behind in prop::option::of(0.0..100.0f64), beyond in prop::option::of(0.0..100.0f64),
            right in prop::option::of(13.0..100.0f64), left in prop::option::of(13.0..100.0f64),
        ) {
            let gray = Iron::Gray.properties();
            let (y, offset) = (LANES_MM[felt_in], LANES_MM[laid_in]);
            let along = FreeEdges { less: behind, more: beyond.map(|mm| mm + 250.0) };
            let ends = WallEnds { along, across: FreeEdges { less: right, more: left } };
            let table = table(ends, 0.0);
            let start_mm = laid as f64 * 25.0;
            let of_bead = WallEnds { along: along.from_mm(start_mm), across: ends.across.from_mm(offset) };
            let at = (quarter as f64 * 6.25 - start_mm, y - offset);
            let expected = bead_rise_k(&gray, &LAW, &of_bead, at, after);
            let got =
                table.after(after).map_or(0.0, |felt| felt.rise_k(quarter, laid, felt.beside(laid_in, felt_in)));
            prop_assert!((got - expected).abs() < 0.1 + expected * 0.01, "{got} {expected}");
        }
    }

    #[test]
    fn what_is_in_the_bulk_already_is_not_counted_again() {
        let gray = Iron::Gray.properties();
        let table = table(WallEnds::default(), 5.0);
        let felt = table.after(30.0).unwrap();
        let expected = bead_rise_k(&gray, &LAW, &WallEnds::default(), (12.5, 0.0), 30.0) - 5.0;
        assert!((felt.rise_k(2, 0, 1.0) - expected).abs() < 0.2);
        assert!(table.after(20_000.0).is_none(), "it is not felt for ever");
    }
}
