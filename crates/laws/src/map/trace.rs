//! A crack followed in a picture from one pressed end to the other.

use std::cmp::Ordering;
use std::collections::BinaryHeap;

/// A picture as values of gray, row by row.
#[derive(Debug, Clone, Copy)]
pub struct GrayPicture<'a> {
    width: usize,
    height: usize,
    values: &'a [u8],
}

impl<'a> GrayPicture<'a> {
    /// Nothing where there are not as many values as points, or none.
    #[must_use]
    pub fn new(width: usize, height: usize, values: &'a [u8]) -> Option<Self> {
        (width > 0 && height > 0 && values.len() == width.checked_mul(height)?).then_some(Self {
            width,
            height,
            values,
        })
    }

    /// So many of the values of a row, from this one on.
    fn row(&self, x: usize, y: usize, count: usize) -> &'a [u8] {
        let begins = y * self.width + x;
        &self.values[begins..begins + count]
    }
}

/// What a crack looks like in the picture.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Line {
    /// On bright metal.
    Dark,
    /// Chalk on oil, magnetic powder; a dye where the values are of its red.
    Light,
}

/// House: points in which the way is looked for first: larger pictures are looked at coarsely, then closely
/// along what was found.
const COARSE_POINTS: usize = 120_000;
/// House: half the width, in coarse points, of what is then looked at closely.
const CLOSELY: usize = 3;
/// Cost of a step off any line, as many times that of one on it.
const OFF_THE_LINE: f32 = 33.0;

/// The way along the line between two presses, in points of the picture; the first and the last are the
/// presses. Nothing where one of them lies outside.
///
/// The least-cost path over the points of the picture, cost low where a ridge filter at 1 to 3 points
/// finds a line.
#[must_use]
pub fn traced(picture: GrayPicture<'_>, from: [f64; 2], to: [f64; 2], line: Line) -> Option<Vec<[f64; 2]>> {
    let inside = |[x, y]: [f64; 2]| {
        (0.0..picture.width as f64).contains(&x) && (0.0..picture.height as f64).contains(&y)
    };
    if !inside(from) || !inside(to) {
        return None;
    }
    let frame = Frame::around(&picture, from, to);
    let area = frame.width * frame.height;
    let coarse = ((area as f64 / COARSE_POINTS as f64).sqrt().ceil() as usize).max(1);
    let seen = Brightness::pooled(&picture, &frame, coarse, line);
    let everywhere = Among::all(&seen);
    let place = |seen: &Brightness, [x, y]: [f64; 2]| {
        let x = ((x as usize - frame.left) / seen.every).min(seen.width - 1);
        let y = ((y as usize - frame.top) / seen.every).min(seen.height - 1);
        y * seen.width + x
    };
    let mut way = seen.way(&everywhere, place(&seen, from), place(&seen, to), 0.995)?;
    if coarse > 1 {
        let mut close = Brightness::blank(&frame);
        let near = seen.near(&way, &close);
        close.look(&picture, &frame, line, &near);
        way = close.way(&near, place(&close, from), place(&close, to), 0.95)?;
        return Some(smooth(&close, &frame, &way, from, to));
    }
    Some(smooth(&seen, &frame, &way, from, to))
}

/// The part of the picture in which the way is looked for.
struct Frame {
    left: usize,
    top: usize,
    width: usize,
    height: usize,
}

impl Frame {
    /// The two ends and some room: a crack wanders.
    fn around(picture: &GrayPicture<'_>, from: [f64; 2], to: [f64; 2]) -> Self {
        let room = 30.0 + 0.3 * (from[0] - to[0]).hypot(from[1] - to[1]);
        let range = |a: f64, b: f64, most: usize| {
            let low = (a.min(b) - room).max(0.0) as usize;
            let high = ((a.max(b) + room) as usize).min(most - 1);
            (low, high - low + 1)
        };
        let (left, width) = range(from[0], to[0], picture.width);
        let (top, height) = range(from[1], to[1], picture.height);
        Self { left, top, width, height }
    }
}

/// A part of the picture in which a crack is bright, one value for `every` x `every` points.
struct Brightness {
    every: usize,
    width: usize,
    height: usize,
    values: Vec<f32>,
}

/// Some of the points of what is seen. What is large and mostly left alone is asked for as zeros, which the
/// system gives without laying them out.
struct Among {
    is: Vec<bool>,
    /// In no order, each once.
    points: Vec<usize>,
}

impl Among {
    fn all(seen: &Brightness) -> Self {
        let count = seen.width * seen.height;
        Self { is: vec![true; count], points: (0..count).collect() }
    }

    fn add(&mut self, points: std::ops::Range<usize>) {
        for at in points {
            if !self.is[at] {
                self.is[at] = true;
                self.points.push(at);
            }
        }
    }
}

/// House: squares in which ridges are looked for.
const TILE: usize = 64;

impl Line {
    fn sign(self) -> f32 {
        match self {
            Self::Dark => -1.0,
            Self::Light => 1.0,
        }
    }
}

impl Brightness {
    fn pooled(picture: &GrayPicture<'_>, frame: &Frame, every: usize, line: Line) -> Self {
        let (width, height) = (frame.width.div_ceil(every), frame.height.div_ceil(every));
        let mut values = Vec::with_capacity(width * height);
        let mut sums = vec![0_u32; width];
        for top in (0..frame.height).step_by(every) {
            let rows = every.min(frame.height - top);
            sums.fill(0);
            for row in top..top + rows {
                let along = picture.row(frame.left, frame.top + row, frame.width);
                for (sum, of) in sums.iter_mut().zip(along.chunks(every)) {
                    *sum += of.iter().map(|value| u32::from(*value)).sum::<u32>();
                }
            }
            values.extend(sums.iter().enumerate().map(|(column, sum)| {
                let columns = every.min(frame.width - column * every);
                line.sign() * *sum as f32 / (rows * columns) as f32
            }));
        }
        Self { every, width, height, values }
    }

    /// Every point of the frame, none of them looked at yet.
    fn blank(frame: &Frame) -> Self {
        let (width, height) = (frame.width, frame.height);
        Self { every: 1, width, height, values: vec![0.0; width * height] }
    }

    /// Looks at these points, and at what lies round them.
    fn look(&mut self, picture: &GrayPicture<'_>, frame: &Frame, line: Line, among: &Among) {
        /// House: the widest blur and the derivatives reach so far.
        const ROUND: usize = 10;
        for (left, top, right, bottom) in self.tiles(among) {
            let (left, right) = (left.saturating_sub(ROUND), (right + ROUND).min(self.width));
            for y in top.saturating_sub(ROUND)..(bottom + ROUND).min(self.height) {
                let seen = picture.row(frame.left + left, frame.top + y, right - left);
                let values = &mut self.values[y * self.width + left..y * self.width + right];
                for (value, seen) in values.iter_mut().zip(seen) {
                    *value = line.sign() * f32::from(*seen);
                }
            }
        }
    }

    /// The squares in which one of these points lies: (left, top, right, bottom).
    fn tiles(&self, among: &Among) -> Vec<(usize, usize, usize, usize)> {
        let across = self.width.div_ceil(TILE);
        let mut wanted = vec![false; across * self.height.div_ceil(TILE)];
        for at in &among.points {
            wanted[at / self.width / TILE * across + at % self.width / TILE] = true;
        }
        let tile = |at: usize| {
            let (left, top) = (at % across * TILE, at / across * TILE);
            (left, top, (left + TILE).min(self.width), (top + TILE).min(self.height))
        };
        (0..wanted.len()).filter(|at| wanted[*at]).map(tile).collect()
    }

    /// The points of a closer look that lie near a way found in this one.
    fn near(&self, way: &[usize], close: &Self) -> Among {
        let mut near = Among { is: vec![false; close.width * close.height], points: Vec::new() };
        let reach = CLOSELY * self.every;
        for &at in way {
            let (x, y) = (at % self.width * self.every, at / self.width * self.every);
            let columns = x.saturating_sub(reach)..(x + reach + self.every).min(close.width);
            for row in y.saturating_sub(reach)..(y + reach + self.every).min(close.height) {
                near.add(row * close.width + columns.start..row * close.width + columns.end);
            }
        }
        near
    }

    /// How much each of these points looks like a line, 0 for the others: the strongest second
    /// derivative across it at blurs of 1, 2 and 3 points.
    fn ridges(&self, among: &Among) -> Vec<f32> {
        let mut ridges = vec![0.0; self.values.len()];
        for tile in self.tiles(among) {
            for (blur, weight) in [(1.0, 1.0), (2.0, 4.0), (3.0, 9.0)] {
                self.ridges_in(tile, (blur, weight), &among.is, &mut ridges);
            }
        }
        ridges
    }

    fn ridges_in(
        &self,
        (left, top, right, bottom): (usize, usize, usize, usize),
        (blur, weight): (f32, f32),
        among: &[bool],
        ridges: &mut [f32],
    ) {
        let reach = (3.0 * blur) as usize;
        let bell: Vec<f32> = {
            let raw: Vec<f32> =
                (0..=reach).map(|at| (-((at * at) as f32) / (2.0 * blur * blur)).exp()).collect();
            let sum = raw[0] + 2.0 * raw[1..].iter().sum::<f32>();
            raw.into_iter().map(|value| value / sum).collect()
        };
        // One point of room all round for the derivatives.
        let (wide, high) = (right - left + 2, bottom - top + 2);
        let clamp = |at: isize, most: usize| at.clamp(0, most as isize - 1) as usize;
        let rows = high + 2 * reach;
        let mut across = vec![0.0_f32; wide * rows];
        let mut padded = vec![0.0_f32; wide + 2 * reach];
        for row in 0..rows {
            let y = clamp(top as isize - 1 - reach as isize + row as isize, self.height);
            let line = &self.values[y * self.width..(y + 1) * self.width];
            for (column, value) in padded.iter_mut().enumerate() {
                *value = line[clamp(left as isize - 1 - reach as isize + column as isize, self.width)];
            }
            for (column, sum) in across[row * wide..(row + 1) * wide].iter_mut().enumerate() {
                let round = &padded[column..=column + 2 * reach];
                *sum = bell[0] * round[reach];
                for (off, part) in bell.iter().enumerate().skip(1) {
                    *sum += part * (round[reach - off] + round[reach + off]);
                }
            }
        }
        let mut soft = vec![0.0_f32; wide * high];
        for row in 0..high {
            let line = |of: usize| &across[of * wide..(of + 1) * wide];
            let (middle, sums) = (row + reach, &mut soft[row * wide..(row + 1) * wide]);
            for (sum, value) in sums.iter_mut().zip(line(middle)) {
                *sum = bell[0] * value;
            }
            for (off, part) in bell.iter().enumerate().skip(1) {
                for ((sum, above), below) in sums.iter_mut().zip(line(middle - off)).zip(line(middle + off)) {
                    *sum += part * (above + below);
                }
            }
        }
        for y in top..bottom {
            for x in left..right {
                let at = y * self.width + x;
                if !among[at] {
                    continue;
                }
                let here = (y - top + 1) * wide + (x - left + 1);
                let value = |by: isize| soft[(here as isize + by) as usize];
                let down = wide as isize;
                let xx = value(1) + value(-1) - 2.0 * value(0);
                let yy = value(down) + value(-down) - 2.0 * value(0);
                let xy = (value(down + 1) + value(-down - 1) - value(down - 1) - value(1 - down)) / 4.0;
                let (mean, spread) = ((xx + yy) / 2.0, ((xx - yy) / 2.0).hypot(xy));
                // Bright across, level along: a spot bends both ways and is no line.
                let (across, along) = (-(mean - spread), -(mean + spread));
                let line = weight * (across - along.abs()).max(0.0);
                ridges[at] = ridges[at].max(line);
            }
        }
    }

    /// The cheapest way between two of these points; nothing where none leads there.
    fn way(&self, among: &Among, from: usize, to: usize, share: f64) -> Option<Vec<usize>> {
        let ridges = self.ridges(among);
        let mut sorted: Vec<f32> = among.points.iter().map(|at| ridges[*at]).collect();
        let at = ((sorted.len() as f64 * share) as usize).min(sorted.len().checked_sub(1)?);
        let (_, strong, _) = sorted.select_nth_unstable_by(at, f32::total_cmp);
        let strong = strong.max(1e-3);
        // Squared: grinding leaves lines too, only fainter ones.
        let cost = |at: usize| 1.0 / (1.0 / OFF_THE_LINE + (ridges[at] / strong).min(1.0).powi(2));
        // Costs begin at 1, and points are kept one higher: 0 is "not come to".
        let mut best = vec![0.0_f32; self.values.len()];
        let mut came_from = vec![0_usize; self.values.len()];
        let mut open = BinaryHeap::from([Open { cost: 1.0, at: from }]);
        best[from] = 1.0;
        while let Some(Open { cost: so_far, at }) = open.pop() {
            if at == to {
                break;
            }
            if so_far > best[at] {
                continue;
            }
            let (x, y) = (at % self.width, at / self.width);
            for row in y.saturating_sub(1)..=(y + 1).min(self.height - 1) {
                for column in x.saturating_sub(1)..=(x + 1).min(self.width - 1) {
                    let next = row * self.width + column;
                    if next == at || !among.is[next] {
                        continue;
                    }
                    let long = if row != y && column != x { std::f32::consts::SQRT_2 } else { 1.0 };
                    let then = so_far + long * (cost(at) + cost(next)) / 2.0;
                    if best[next] == 0.0 || then < best[next] {
                        best[next] = then;
                        came_from[next] = at + 1;
                        open.push(Open { cost: then, at: next });
                    }
                }
            }
        }
        let mut way = vec![to];
        while let Some(&at) = way.last()
            && at != from
        {
            way.push(came_from[at].checked_sub(1)?);
        }
        way.reverse();
        Some(way)
    }
}

/// A point that is to be gone on from, the cheapest first.
struct Open {
    cost: f32,
    at: usize,
}

impl PartialEq for Open {
    fn eq(&self, other: &Self) -> bool {
        self.cmp(other) == Ordering::Equal
    }
}
impl Eq for Open {}
impl PartialOrd for Open {
    fn partial_cmp(&self, other: &Self) -> Option<Ordering> {
        Some(self.cmp(other))
    }
}
impl Ord for Open {
    fn cmp(&self, other: &Self) -> Ordering {
        other.cost.total_cmp(&self.cost).then(self.at.cmp(&other.at))
    }
}

/// The way without the stairs of its points, from press to press.
fn smooth(seen: &Brightness, frame: &Frame, way: &[usize], from: [f64; 2], to: [f64; 2]) -> Vec<[f64; 2]> {
    /// House: points on either side that a point of the way is the mean of.
    const REACH: usize = 2;
    let half = seen.every as f64 / 2.0;
    let place = |at: usize| {
        let (x, y) = (at % seen.width * seen.every, at / seen.width * seen.every);
        [(frame.left + x) as f64 + half, (frame.top + y) as f64 + half]
    };
    let mut line = vec![from];
    for at in 1..way.len().saturating_sub(1) {
        let reach = REACH.min(at).min(way.len() - 1 - at);
        let near = &way[at - reach..=at + reach];
        let sum = near.iter().map(|&at| place(at)).fold([0.0, 0.0], |sum, [x, y]| [sum[0] + x, sum[1] + y]);
        line.push(sum.map(|sum| sum / near.len() as f64));
    }
    line.push(to);
    line
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::map::{At, nearest};

    /// A made-up picture: a dark curve on metal that is lit unevenly, ground at a slant, with noise.
    struct MadeUp {
        width: usize,
        height: usize,
        values: Vec<u8>,
        curve: Vec<At>,
    }

    impl MadeUp {
        fn new(width: usize, height: usize, depth: f64, noise: f64) -> Self {
            let curve: Vec<At> = (0..=1000)
                .map(|step| {
                    let share = f64::from(step) / 1000.0;
                    let x = width as f64 * (0.08 + 0.84 * share);
                    let wave = (share * 9.0).sin() * 0.16 + (share * 23.0).sin() * 0.02;
                    At::new(x, height as f64 * (0.5 + wave))
                })
                .collect();
            let mut state = 0x2545_f491_4f6c_dd1d_u64;
            let mut random = move || {
                state ^= state << 13;
                state ^= state >> 7;
                state ^= state << 17;
                (state >> 11) as f64 / (1u64 << 53) as f64
            };
            let mut dark = vec![0.0_f64; width * height];
            for at in &curve {
                let (x, y) = (at.x_mm as isize, at.y_mm as isize);
                for row in y - 4..=y + 4 {
                    for column in x - 4..=x + 4 {
                        if row < 0 || column < 0 || row >= height as isize || column >= width as isize {
                            continue;
                        }
                        let off = (column as f64 + 0.5 - at.x_mm).hypot(row as f64 + 0.5 - at.y_mm);
                        let cell = &mut dark[row as usize * width + column as usize];
                        *cell = cell.max((-off * off / 2.5).exp());
                    }
                }
            }
            let values = (0..width * height)
                .map(|at| {
                    let (x, y) = ((at % width) as f64, (at / width) as f64);
                    let light = 150.0 + 50.0 * (x / width as f64 - 0.5) - 30.0 * (y / height as f64);
                    let ground = 14.0 * ((x * 0.55 + y * 0.83) * 0.7).sin();
                    // Four even ones are near enough to a bell.
                    let grain = noise * 1.7 * (random() + random() + random() + random() - 2.0);
                    (light + ground + grain - depth * dark[at]).clamp(0.0, 255.0) as u8
                })
                .collect();
            Self { width, height, values, curve }
        }

        fn picture(&self) -> GrayPicture<'_> {
            GrayPicture::new(self.width, self.height, &self.values).unwrap()
        }

        /// Mean distance of what was traced to the true line, in points.
        fn off(&self, line: Line) -> f64 {
            let ends = [self.curve[0], self.curve[1000]].map(|at| [at.x_mm, at.y_mm]);
            let way = traced(self.picture(), ends[0], ends[1], line).unwrap();
            assert_eq!((way[0], way[way.len() - 1]), (ends[0], ends[1]), "it runs from press to press");
            let off = way.iter().map(|&[x, y]| nearest(&self.curve, At::new(x, y)).unwrap().distance_mm);
            off.sum::<f64>() / way.len() as f64
        }
    }

    #[rstest]
    #[case::small(500, 400, 60.0, 8.0)]
    #[case::noisy(500, 400, 60.0, 16.0)]
    #[case::faint(800, 600, 40.0, 8.0)]
    #[case::large(2000, 1500, 60.0, 12.0)]
    fn a_dark_line_is_followed_through_noise_light_and_grinding(
        #[case] width: usize,
        #[case] height: usize,
        #[case] depth: f64,
        #[case] noise: f64,
    ) {
        let off = MadeUp::new(width, height, depth, noise).off(Line::Dark);
        assert!(off < 1.5, "{off:.2} points off");
    }

    #[test]
    fn a_light_line_is_followed_where_it_is_looked_for() {
        let mut made_up = MadeUp::new(500, 400, 60.0, 8.0);
        made_up.values.iter_mut().for_each(|value| *value = 255 - *value);
        assert!(made_up.off(Line::Light) < 1.5);
        assert!(made_up.off(Line::Dark) > 3.0, "the dark is not there");
    }

    #[test]
    fn a_press_outside_the_picture_is_no_end() {
        let made_up = MadeUp::new(300, 200, 60.0, 8.0);
        let trace = |from, to| traced(made_up.picture(), from, to, Line::Dark);
        assert_eq!(trace([-1.0, 10.0], [100.0, 100.0]), None);
        assert_eq!(trace([10.0, 10.0], [100.0, 200.0]), None);
        assert_eq!(trace([10.0, f64::NAN], [100.0, 100.0]), None);
        assert_eq!(trace([20.0, 20.0], [20.0, 20.0]), Some(vec![[20.0, 20.0]; 2]), "one place is no way");
    }

    #[test]
    fn values_that_are_no_picture_are_none() {
        assert!(GrayPicture::new(3, 3, &[0; 8]).is_none() && GrayPicture::new(0, 3, &[]).is_none());
        let flat = [128; 9];
        let way = traced(GrayPicture::new(3, 3, &flat).unwrap(), [0.5, 0.5], [2.5, 2.5], Line::Dark);
        assert!(way.is_some(), "a blank one is crossed straight");
    }
}
