//! Heating a part: how long until its coldest place is there, and how unevenly.

use crate::quantity::{Celsius, Seconds};
use crate::sim::{Bar, BarPower, ThermalBody};

/// Places along the part that are shown as it warms. Ours.
const PLACES: usize = 20;

/// How a heating went.
#[derive(Debug, Clone, PartialEq)]
pub struct Heating {
    /// The bar at the end.
    pub bar: Bar,
    /// (time in min, coldest degC, hottest degC), about one a minute.
    pub curve: Vec<(f64, f64, f64)>,
    /// (time in min, worst unevenness in K so far, worst hottest less coldest in K so far), every
    /// 30 s, counted while the hottest cell was under 500 degC, where it stresses the part.
    worst: Vec<(f64, f64, f64)>,
    /// (time in min, degC at places from one end to the other), as often as the curve.
    along: Vec<(f64, [f32; PLACES])>,
    /// Coldest cell's temperature after each step, first the start.
    coldest_c: Vec<f32>,
    step_s: f64,
}

impl Heating {
    /// How much there is to keep of it, in numbers of 8 bytes.
    pub(super) fn points(&self) -> usize {
        3 * (self.curve.len() + self.worst.len()) + self.coldest_c.len() / 2 + self.along.len() * 11
    }

    /// The part from end to end up to a time, in `frames` pictures at most: (min, whole degC from one end to the other).
    #[must_use]
    pub fn along(&self, until_min: f64, frames: usize) -> Vec<(f64, Vec<f64>)> {
        let mut shown: Vec<(f64, [f32; PLACES])> =
            self.along.iter().copied().take_while(|(at, _)| *at <= 0.0 || *at < until_min).collect();
        if let Some((beyond, before)) = self.along.get(shown.len()).zip(shown.last().copied())
            && until_min > before.0
        {
            let part = ((until_min - before.0) / (beyond.0 - before.0)).min(1.0);
            let at = |place: usize| before.1[place] + (beyond.1[place] - before.1[place]) * part as f32;
            shown.push((until_min, std::array::from_fn(at)));
        }
        let every = shown.len().div_ceil(frames).max(1);
        let rounded = |cells: &[f32; PLACES]| cells.iter().map(|c| f64::from(*c).round()).collect();
        let last = shown.len().checked_sub(1);
        (0..shown.len())
            .filter(|at| at.is_multiple_of(every) || Some(*at) == last)
            .map(|at| (shown[at].0, rounded(&shown[at].1)))
            .collect()
    }

    /// (min, coldest degC, hottest degC) up to a time, and at it.
    #[must_use]
    pub fn curve_until(&self, until_min: f64) -> Vec<(f64, f64, f64)> {
        let mut curve: Vec<_> =
            self.curve.iter().copied().take_while(|(at, _, _)| *at <= 0.0 || *at < until_min).collect();
        if let Some((beyond, before)) = self.curve.get(curve.len()).zip(curve.last().copied())
            && until_min > before.0
        {
            let part = ((until_min - before.0) / (beyond.0 - before.0)).min(1.0);
            let between = |from: f64, to: f64| from + (to - from) * part;
            curve.push((until_min, between(before.1, beyond.1), between(before.2, beyond.2)));
        }
        curve
    }

    /// Minutes until the coldest cell reached `target_c`; nothing when it did not.
    #[must_use]
    pub fn minutes_to(&self, target_c: f64) -> Option<f64> {
        let at = self.coldest_c.iter().position(|&t| f64::from(t) >= target_c)?;
        if at == 0 {
            return Some(0.0);
        }
        let (before, after) = (f64::from(self.coldest_c[at - 1]), f64::from(self.coldest_c[at]));
        let part = (target_c - before) / (after - before);
        Some((at as f64 - 1.0 + part) * self.step_s / 60.0)
    }

    /// The coldest cell at the end.
    #[must_use]
    pub fn coldest_at_the_end_c(&self) -> f64 {
        self.coldest_c.last().copied().map_or(f64::NAN, f64::from)
    }

    /// The hottest cell after a time, as the curve has it.
    #[must_use]
    pub fn hottest_at_c(&self, minutes: f64) -> f64 {
        let after = self.curve.partition_point(|(at, _, _)| *at < minutes);
        self.curve[after.min(self.curve.len() - 1)].2
    }

    /// The part as a whole after a time, or at the end where it was over before.
    #[must_use]
    pub fn mean_at_c(&self, minutes: f64) -> f64 {
        let mean = |places: &[f32; PLACES]| places.iter().map(|c| f64::from(*c)).sum::<f64>() / PLACES as f64;
        let after = self.along.partition_point(|(at, _)| *at < minutes);
        let Some((beyond_min, beyond)) = self.along.get(after) else { return self.bar.mean_c() };
        let Some((before_min, before)) = after.checked_sub(1).map(|at| &self.along[at]) else {
            return mean(beyond);
        };
        let part = (minutes - before_min) / (beyond_min - before_min);
        mean(before) + (mean(beyond) - mean(before)) * part
    }

    /// Worst unevenness and worst difference hottest to coldest, in K, up to a time.
    #[must_use]
    pub fn worst_until(&self, minutes: f64) -> (f64, f64) {
        let after = self.worst.partition_point(|(at, _, _)| *at <= minutes + 0.5);
        let (_, unevenness_k, difference_k) = self.worst[after.max(1) - 1];
        (unevenness_k, difference_k)
    }

    fn run(body: &ThermalBody, power: BarPower, most_s: f64, stop_at_c: f64) -> Self {
        /// House: above this the iron gives, and unevenness does not stress it.
        const GIVES_C: f64 = 500.0;
        let mut bar = Bar::new(body, power, body.ambient);
        let start = body.ambient.celsius();
        let mut coldest_c = vec![start as f32];
        let mut curve = vec![(0.0, start, start)];
        let mut along = vec![(0.0, bar.along_c())];
        let (mut worst_unevenness_k, mut worst_difference_k) = (0.0_f64, 0.0_f64);
        let mut worst = vec![(0.0, 0.0, 0.0)];
        let step_s = power.step_s();
        // Worst every 30 s, a point of the curve each minute.
        let (look, point) = ((30.0 / step_s) as u64, (60.0 / step_s) as u64);
        let mut time_s = 0.0;
        let mut step: u64 = 0;
        while time_s < most_s - 1e-9 {
            let this_step = step_s.min(most_s - time_s);
            bar.step(this_step);
            time_s += this_step;
            step += 1;
            let coldest = bar.coldest_c();
            coldest_c.push(coldest as f32);
            if step.is_multiple_of(look) {
                let hottest = bar.hottest_c();
                if hottest < GIVES_C {
                    worst_unevenness_k = worst_unevenness_k.max(bar.unevenness_k());
                    worst_difference_k = worst_difference_k.max(hottest - coldest);
                }
                worst.push((time_s / 60.0, worst_unevenness_k, worst_difference_k));
                if step.is_multiple_of(point) {
                    curve.push((time_s / 60.0, coldest, hottest));
                    along.push((time_s / 60.0, bar.along_c()));
                }
            }
            if coldest >= stop_at_c {
                break;
            }
        }
        curve.push((time_s / 60.0, bar.coldest_c(), bar.hottest_c()));
        along.push((time_s / 60.0, bar.along_c()));
        Self { bar, curve, worst, along, coldest_c, step_s }
    }
}

/// Heats a part from ambient for a time.
///
/// Bar of 40 cells along the longest side; section = mass / rho / L; conduction between cells;
/// the surface spread evenly; loss 10 W/m²K and radiation of emissivity 0.8, in an oven 20 W/m²K.
/// Backward Euler, 2 s (an oven with its ramp 10 s), properties and radiation lagged. An oven's
/// surroundings rise with its ramp, and what it gives into the part is held at its power.
///
/// # Validity
/// Estimate within 30 % (house). The iron's own transformation above 730 degC is not in it.
#[must_use]
pub fn heat_for(body: &ThermalBody, power: BarPower, time: Seconds) -> Heating {
    Heating::run(body, power, time.seconds(), f64::INFINITY)
}

/// Heats a part from ambient until its coldest cell is at `target`, or `most` has passed.
#[must_use]
pub fn heat_until(body: &ThermalBody, power: BarPower, target: Celsius, most: Seconds) -> Heating {
    Heating::run(body, power, most.seconds(), target.celsius())
}

/// Where the coldest cell ends up in degC when the source stays on for ever.
#[must_use]
pub fn ceiling_c(body: &ThermalBody, power: BarPower) -> f64 {
    let mut bar = Bar::new(body, power, body.ambient);
    bar.settle();
    bar.coldest_c()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::iron::Iron;
    use crate::quantity::{Kilograms, Millimetres, Watts};

    fn body() -> ThermalBody {
        let mm = |value| Millimetres::new(value).unwrap();
        ThermalBody::new(
            Iron::Gray.properties(),
            Kilograms::new(9.0).unwrap(),
            (mm(500.0), mm(120.0), mm(100.0)),
            1.0,
            Celsius::new(20.0).unwrap(),
        )
        .unwrap()
    }

    fn under_a_cover(power: BarPower, share: f64) -> BarPower {
        match power {
            BarPower::Flame { even, local, station, .. } => {
                BarPower::Flame { even, local, station, covered: share }
            }
            other => other,
        }
    }

    /// Its last point two minutes after the one before, and each of its places 10 K hotter than the one beside it.
    fn by_hand() -> Heating {
        let along = |first_c: f32| std::array::from_fn(|place| first_c + 10.0 * place as f32);
        Heating {
            bar: Bar::new(&body(), flame(1_500.0, 0.5, 0.3), body().ambient),
            curve: vec![(0.0, 20.0, 20.0), (1.0, 40.0, 100.0), (3.0, 80.0, 140.0)],
            worst: vec![(0.0, 0.0, 0.0), (0.5, 3.0, 30.0)],
            along: vec![(0.0, along(20.0)), (1.0, along(40.0)), (3.0, along(80.0))],
            coldest_c: vec![20.0, 40.0, 80.0],
            step_s: 60.0,
        }
    }

    #[test]
    fn between_two_points_of_it_it_is_taken_straight() {
        let heating = by_hand();
        // By hand: a quarter of the way from 40 to 80 and from 100 to 140.
        assert_eq!(heating.curve_until(1.5), [(0.0, 20.0, 20.0), (1.0, 40.0, 100.0), (1.5, 50.0, 110.0)]);
        assert_eq!(heating.curve_until(1.0), [(0.0, 20.0, 20.0), (1.0, 40.0, 100.0)]);
        assert_eq!(heating.curve_until(0.0), [(0.0, 20.0, 20.0)]);
        assert_eq!(heating.curve_until(9.0), heating.curve);
        let (when, last) = heating.along(1.5, 8).pop().unwrap();
        assert_eq!((when, last[0], last[3]), (1.5, 50.0, 80.0));
        assert_eq!(heating.along(0.0, 8).len(), 1);
        assert_eq!(heating.along(9.0, 8).len(), 3);
        let times: Vec<f64> = heating.along(3.0, 2).into_iter().map(|(at, _)| at).collect();
        assert_eq!(times, [0.0, 3.0], "no more pictures than are asked for, and the last of them");
        assert_eq!(heating.minutes_to(50.0), Some(1.25));
        assert_eq!(heating.minutes_to(20.0), Some(0.0));
        assert_eq!(heating.minutes_to(80.5), None);
        // 3 x (3 + 2) + 3 / 2 + 3 x 11
        assert_eq!(heating.points(), 49);
    }

    #[test]
    fn a_point_is_kept_each_minute_and_the_worst_each_half() {
        let power = flame(1_500.0, 0.5, 0.3);
        let heated = heat_for(&body(), power, Seconds::new(150.0).unwrap());
        let near = |found: &[f64], expected: &[f64]| {
            let same = found.iter().zip(expected).all(|(a, b)| (a - b).abs() < 1e-6);
            assert!(found.len() == expected.len() && same, "{found:?}");
        };
        let curve: Vec<f64> = heated.curve.iter().map(|(at, ..)| *at).collect();
        near(&curve, &[0.0, 1.0, 2.0, 2.5]);
        let along: Vec<f64> = heated.along.iter().map(|(at, _)| *at).collect();
        near(&along, &[0.0, 1.0, 2.0, 2.5]);
        let worst: Vec<f64> = heated.worst.iter().map(|(at, ..)| *at).collect();
        near(&worst, &[0.0, 0.5, 1.0, 1.5, 2.0, 2.5]);
        assert_eq!(heated.coldest_at_the_end_c(), f64::from(heated.bar.coldest_c() as f32));
        // Hottest less coldest, as they stand at the end of a heating that only grows less even.
        let (_, coldest_c, hottest_c) = heated.curve[3];
        let (_, unevenness_k, difference_k) = heated.worst[5];
        assert!((difference_k - (hottest_c - coldest_c)).abs() < 1e-6, "{difference_k}");
        assert!((unevenness_k - heated.bar.unevenness_k()).abs() < 1e-6, "{unevenness_k}");
        assert_eq!(heated.worst_until(1.4), heated.worst_until(1.0), "half a minute is looked ahead");
    }

    #[test]
    fn a_cover_brings_the_cold_end_further_with_the_same_flame() {
        let bare = flame(2_000.0, 0.8, 0.2);
        let covered = under_a_cover(bare, 0.6);
        assert!(ceiling_c(&body(), covered) > ceiling_c(&body(), bare));
        assert_eq!(ceiling_c(&body(), under_a_cover(bare, 0.0)), ceiling_c(&body(), bare));
    }

    #[test]
    fn under_a_cover_no_power_is_lost() {
        // Hand-worked: in the first 2 s next to nothing is lost: 2000 W x 2 s / (9 kg x 426.25 J/kgK) = 1.0427 K
        let time = Seconds::new(2.0).unwrap();
        for share in [0.0, 0.6] {
            let heated = heat_for(&body(), under_a_cover(flame(2_000.0, 0.8, 0.2), share), time);
            let rise_k = heated.bar.mean_c() - 20.0;
            assert!((rise_k / 1.0427 - 1.0).abs() < 0.005, "{share}: {rise_k}");
        }
    }

    fn flame(watts: f64, even: f64, station: f64) -> BarPower {
        let watt = |w| Watts::new(w).unwrap();
        BarPower::Flame { even: watt(watts * even), local: watt(watts * (1.0 - even)), station, covered: 0.0 }
    }

    #[test]
    fn a_long_heating_comes_to_the_ceiling() {
        let power = flame(1500.0, 0.5, 0.3);
        let long = heat_for(&body(), power, Seconds::new(100_000.0).unwrap());
        assert!((long.bar.coldest_c() - ceiling_c(&body(), power)).abs() < 0.1);
    }

    #[test]
    fn the_part_as_a_whole_lies_between_its_coldest_and_its_hottest_place() {
        let watts = |w| Watts::new(w).unwrap();
        let power =
            BarPower::Flame { even: watts(1_500.0), local: watts(1_500.0), station: 0.2, covered: 0.0 };
        let heating = heat_for(&body(), power, Seconds::new(1_200.0).unwrap());
        assert!((heating.mean_at_c(0.0) - 20.0).abs() < 1e-3);
        let mut before_c = 20.0;
        for minutes in 1..20 {
            let at = f64::from(minutes) + 0.4;
            let mean_c = heating.mean_at_c(at);
            let (_, coldest_c, hottest_c) = *heating.curve_until(at).last().unwrap();
            assert!(coldest_c < mean_c && mean_c < hottest_c && mean_c > before_c, "{at}: {mean_c}");
            before_c = mean_c;
        }
        assert!((heating.mean_at_c(20.0) - heating.bar.mean_c()).abs() < 1e-3);
        assert_eq!(heating.mean_at_c(f64::INFINITY), heating.bar.mean_c(), "as warm as it gets");
    }

    #[test]
    fn the_part_from_end_to_end_begins_cold_and_ends_as_the_bar_does() {
        let time = Seconds::new(1200.0).unwrap();
        let heated = heat_for(&body(), flame(1500.0, 0.5, 0.1), time);
        let frames = heated.along(20.0, 8);
        assert!(frames.len() <= 9 && frames[0].1.iter().all(|c| *c == 20.0));
        let (when, last) = frames.last().unwrap();
        assert!((when - 20.0).abs() < 1e-6);
        assert!(
            (last[0] - heated.bar.at_c(0.0)).abs() < 10.0 && last[1] > last[19],
            "hot where the flame is"
        );
        assert!(heated.along(5.0, 8).last().unwrap().0 <= 6.0, "no further than it is asked for");
    }

    #[test]
    fn a_careful_sweep_is_more_even_than_a_fixed_flame() {
        let worst = |even| {
            let most = Seconds::new(1200.0).unwrap();
            heat_for(&body(), flame(1500.0, even, 0.5), most).worst_until(20.0).0
        };
        assert!(worst(0.8) < worst(0.5) && worst(0.5) < worst(0.2));
    }

    #[test]
    fn a_target_above_the_ceiling_is_never_reached() {
        let power = flame(300.0, 0.5, 0.5);
        let most = Seconds::new(10_800.0).unwrap();
        let run = heat_until(&body(), power, Celsius::new(600.0).unwrap(), most);
        assert_eq!(run.minutes_to(600.0), None);
        assert!(run.minutes_to(60.0).is_some());
    }

    fn frame(kg: f64, size_mm: (f64, f64, f64)) -> ThermalBody {
        let mm = |value| Millimetres::new(value).unwrap();
        let (l, w, h) = size_mm;
        let ambient = Celsius::new(20.0).unwrap();
        let kg = Kilograms::new(kg).unwrap();
        ThermalBody::new(Iron::Gray.properties(), kg, (mm(l), mm(w), mm(h)), 1.3, ambient).unwrap()
    }

    fn oven(set_c: f64, ramp_k_per_h: f64, most_w: f64) -> BarPower {
        let (set, most) = (Celsius::new(set_c).unwrap(), Watts::new(most_w).unwrap());
        BarPower::Oven { set, ramp_k_per_h, h_w_m2k: 20.0, most }
    }

    #[test]
    fn an_oven_follows_its_ramp_and_never_gives_more_than_it_has() {
        // Published: the trade reference's worked examples, oven, both cases, to 1.5 K
        let ramped = frame(22.0, (420.0, 300.0, 220.0));
        let hour = Seconds::new(3600.0).unwrap();
        let at = heat_for(&ramped, oven(300.0, 300.0, 1e6), hour).bar.mean_c();
        assert!((at - 288.1).abs() < 1.5, "{at}");
        let weak = frame(11.0, (350.0, 350.0, 250.0));
        let five = Seconds::new(300.0).unwrap();
        let at = heat_for(&weak, oven(260.0, 6000.0, 2500.0), five).bar.mean_c();
        assert!((at - 151.3).abs() < 1.5, "{at}");
    }

    #[test]
    fn a_kiln_takes_as_long_as_its_ramp() {
        // Hand-worked: from 20 to 600 degC at 300 K/h is 116 min, at 100 K/h 348 min; the part lags.
        let body = frame(11.0, (350.0, 350.0, 250.0));
        let most = Seconds::new(36_000.0).unwrap();
        let minutes = |ramp| {
            let run = heat_until(&body, oven(650.0, ramp, 8_000.0), Celsius::new(600.0).unwrap(), most);
            run.minutes_to(600.0).unwrap()
        };
        assert!((116.0..126.0).contains(&minutes(300.0)), "{}", minutes(300.0));
        assert!((348.0..366.0).contains(&minutes(100.0)), "{}", minutes(100.0));
    }

    #[test]
    fn no_heating_time_leaves_the_part_at_ambient() {
        let run = heat_for(&body(), flame(1500.0, 0.5, 0.5), Seconds::new(0.0).unwrap());
        assert_eq!((run.bar.coldest_c(), run.minutes_to(20.0)), (20.0, Some(0.0)));
    }

    #[test]
    fn what_is_shown_of_a_heating_ends_where_it_is_asked_to() {
        let run = heat_until(
            &body(),
            flame(5_000.0, 0.8, 0.5),
            Celsius::new(300.0).unwrap(),
            Seconds::new(7200.0).unwrap(),
        );
        let there = run.minutes_to(300.0).unwrap();
        let (at, coldest, hottest) = *run.curve_until(there).last().unwrap();
        assert_eq!(at, there);
        assert!((coldest - 300.0).abs() < 3.0 && hottest > coldest, "{coldest} {hottest}");
        let (at, cells) = run.along(there, 24).last().unwrap().clone();
        let least = cells.iter().copied().fold(f64::INFINITY, f64::min);
        assert!(at == there && (least - 300.0).abs() <= 5.0, "{least}");
        assert_eq!(run.curve_until(f64::INFINITY), run.curve, "no more than there is");
        assert_eq!(run.curve_until(0.0), [(0.0, 20.0, 20.0)]);
    }
}
