//! The models fitted to what was read: how leaky a packing is, how strong a flame.

use super::{Cooling, UNWRAP_C, Wrapping, cool_scaled};
use crate::quantity::Celsius;
use crate::sim::{Bar, BarPower, ThermalBody};

/// A reading on the clock of the run.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ReadAt {
    pub minutes: f64,
    pub celsius: f64,
}

/// House: between these a fit is believed.
const SCALES: (f64, f64) = (0.4, 2.5);
pub const FACTORS: (f64, f64) = (0.3, 2.0);
/// Ours: nothing was covered hotter, in degC.
const HOTTEST_C: f64 = 1_400.0;
/// Ours: a fit is searched to this.
const FINE: f64 = 1e-3;

/// Readings thinned to one each five minutes, the last of each: a pad that reads each ten seconds says no more.
///
/// Ours: so a fit is worked out anew each five minutes only.
#[must_use]
pub fn thinned(readings: &[ReadAt]) -> Vec<ReadAt> {
    one_each(readings, 5.0)
}

/// The same to one each so many minutes.
#[must_use]
pub fn one_each(readings: &[ReadAt], every_min: f64) -> Vec<ReadAt> {
    let slot = |read: &ReadAt| (read.minutes / every_min).floor();
    let mut kept: Vec<ReadAt> = Vec::new();
    for read in readings {
        match kept.last_mut() {
            Some(last) if slot(last) == slot(read) => *last = *read,
            _ => kept.push(*read),
        }
    }
    // The slot that still fills up waits until it is full.
    if kept.len() > 1 {
        kept.pop();
    }
    kept
}

/// House: so far it must have fallen before its readings say anything of the packing, in K.
const FALLEN_K: f64 = 10.0;

/// Whether a cooling can be fitted to these.
#[must_use]
pub fn says_enough(start_c: f64, readings: &[ReadAt]) -> bool {
    readings.last().is_some_and(|last| start_c - last.celsius >= FALLEN_K)
}

/// A cooling fitted to its readings.
#[derive(Debug, Clone, PartialEq)]
pub struct CoolingFit {
    /// Of what the book's packing lets through.
    pub scale: f64,
    /// At covering, in degC.
    pub start_c: f64,
    pub cooling: Cooling,
    /// Where the scale ends at a bound it does not cool as such a packing does: nothing is learned from it.
    pub fits: bool,
    /// Standard deviation of the logarithm of a time; nothing under 3 readings, or where it never gets there.
    log_sd: Option<f64>,
}

impl CoolingFit {
    /// Late against the middle of its 80 % band: so many times as long. Nothing under 3 readings.
    fn stretch(&self) -> Option<f64> {
        self.log_sd.map(|sd| (EIGHTY_PERCENT * sd).exp())
    }

    /// Hours until it is so cold: early and late of the 80 % band.
    #[must_use]
    pub fn between_hours(&self, celsius: f64) -> Option<(f64, f64)> {
        let (hours, stretch) = (self.cooling.hours_to(celsius)?, self.stretch()?);
        Some((hours / stretch, hours * stretch))
    }

    /// (hours, degC) at both ends of its band.
    #[must_use]
    pub fn curves_between(&self, points: usize, until_c: f64) -> Option<[Vec<(f64, f64)>; 2]> {
        let stretch = self.stretch()?;
        let by = |factor: f64| {
            let curve = self.cooling.curve(points, until_c).into_iter();
            curve.map(|(hours, celsius)| (hours * factor, celsius)).collect()
        };
        Some([by(1.0 / stretch), by(stretch)])
    }
}

/// House: the logarithm of a time is never known better.
const LEAST_LOG_SD: f64 = 0.03;
/// House: under this many readings nothing is said of how sure it is.
const READINGS_FOR_A_BAND: usize = 3;
/// Of a normal distribution: 80 % lie within so many standard deviations.
const EIGHTY_PERCENT: f64 = 1.28;
/// House: a reading is off by so much, in K, and what was said of the start.
const READ_OFF_K: f64 = 3.0;
const TOLD_OFF_K: f64 = 30.0;
/// House: a scale this near to a bound has run into it.
const AT_A_BOUND: f64 = 0.005;

/// One scale on the packing's conductivity and the loss outside, and the temperature at covering, by least squares;
/// nothing without a reading after the start.
///
/// Residuals (model − read) / 3 K and (start − told) / 30 K; C = (JᵀJ)⁻¹ × max(1, χ² of the readings / max(1, n − 2));
/// sd of ln(hours to 65 degC) = √(gᵀ C g), at least 0.03.
///
/// # Source
/// Least squares (law); its bounds and deviations are house.
#[must_use]
pub fn cooling_fit(
    body: &ThermalBody,
    start: Celsius,
    wrapping: &Wrapping,
    readings: &[ReadAt],
) -> Option<CoolingFit> {
    let after: Vec<ReadAt> = readings.iter().copied().filter(|read| read.minutes > 0.0).collect();
    if after.is_empty() {
        return None;
    }
    // One scale, of the book's: what was learned before is not counted twice.
    let asked =
        FitOfCooling { body, told_c: start.celsius(), wrapping: &wrapping.by_the_book(), after: &after };
    let Look { at: fitted, misses, normal } = asked.least();
    let cooling = asked.whole(fitted);
    Some(CoolingFit {
        scale: fitted.scale,
        start_c: fitted.start_c,
        fits: fitted.scale - SCALES.0 > AT_A_BOUND && SCALES.1 - fitted.scale > AT_A_BOUND,
        log_sd: asked.log_sd(fitted, (&misses, &normal), &cooling),
        cooling,
    })
}

/// What is sought.
#[derive(Debug, Clone, Copy)]
struct Sought {
    scale: f64,
    start_c: f64,
}

/// Ours: slopes are taken over so much, of the scale and in K.
const NUDGE: Sought = Sought { scale: 0.01, start_c: 1.0 };

struct FitOfCooling<'a> {
    body: &'a ThermalBody,
    told_c: f64,
    wrapping: &'a Wrapping,
    after: &'a [ReadAt],
}

/// JᵀJ (scale, both, start) and Jᵀr.
struct Normal {
    scale: f64,
    both: f64,
    start: f64,
    right: (f64, f64),
}

/// A place that was looked at, what is missed there, and which way it falls.
struct Look {
    at: Sought,
    misses: Vec<f64>,
    normal: Normal,
}

impl Look {
    fn cost(&self) -> f64 {
        self.misses.iter().map(|miss| miss * miss).sum()
    }
}

impl Sought {
    /// A nudge to either side: of the scale, then of the start.
    fn nudged(self) -> [Self; 4] {
        let Self { scale, start_c } = self;
        [
            Self { scale: scale - NUDGE.scale, ..self },
            Self { scale: scale + NUDGE.scale, ..self },
            Self { start_c: start_c - NUDGE.start_c, ..self },
            Self { start_c: start_c + NUDGE.start_c, ..self },
        ]
    }
}

impl FitOfCooling<'_> {
    fn from(&self, at: Sought) -> Celsius {
        Celsius::new(at.start_c).unwrap_or(self.body.ambient)
    }

    fn whole(&self, at: Sought) -> Cooling {
        cool_scaled(self.body, self.from(at), self.wrapping, at.scale)
    }

    fn runs<const L: usize>(&self, at: [Sought; L], until_h: f64) -> [Cooling; L] {
        Cooling::several(self.body, at.map(|it| self.from(it)), self.wrapping, at.map(|it| it.scale), until_h)
    }

    /// Of each reading, and of what was said of the start.
    fn misses(&self, at: Sought, run: &Cooling) -> Vec<f64> {
        let of = |read: &ReadAt| {
            (run.after_hours(read.minutes / 60.0).unwrap_or(at.start_c) - read.celsius) / READ_OFF_K
        };
        let told = (at.start_c - self.told_c) / TOLD_OFF_K;
        self.after.iter().map(of).chain([told]).collect()
    }

    /// Looks at a place and a nudge to either side of it, all side by side.
    fn look(&self, at: Sought) -> Look {
        let until_h = self.after.iter().map(|read| read.minutes).fold(0.0, f64::max) / 60.0;
        let [less_scale, more_scale, less_start, more_start] = at.nudged();
        let all = [at, less_scale, more_scale, less_start, more_start];
        let runs = self.runs(all, until_h);
        let [misses, less_scale, more_scale, less_start, more_start] =
            std::array::from_fn(|it| self.misses(all[it], &runs[it]));
        let slope = |less: &[f64], more: &[f64], apart: f64| -> Vec<f64> {
            less.iter().zip(more).map(|(less, more)| (more - less) / apart).collect()
        };
        let by_scale = slope(&less_scale, &more_scale, 2.0 * NUDGE.scale);
        let by_start = slope(&less_start, &more_start, 2.0 * NUDGE.start_c);
        let times = |a: &[f64], b: &[f64]| a.iter().zip(b).map(|(a, b)| a * b).sum::<f64>();
        let normal = Normal {
            scale: times(&by_scale, &by_scale),
            both: times(&by_scale, &by_start),
            start: times(&by_start, &by_start),
            right: (times(&by_scale, &misses), times(&by_start, &misses)),
        };
        Look { at, misses, normal }
    }

    /// Gauss and Newton's steps, halved where they overshoot, the scale held within its bounds.
    fn least(&self) -> Look {
        /// Ours: it is there after four or five.
        const STEPS: usize = 20;
        const HALVED: usize = 8;
        let mut here = self.look(Sought { scale: 1.0, start_c: self.told_c });
        for _ in 0..STEPS {
            let at = here.at;
            let Normal { scale, both, start, right } = here.normal;
            let determinant = scale * start - both * both;
            let mut step = (
                -(start * right.0 - both * right.1) / determinant,
                -(scale * right.1 - both * right.0) / determinant,
            );
            let stuck = (at.scale <= SCALES.0 && step.0 < 0.0) || (at.scale >= SCALES.1 && step.0 > 0.0);
            if stuck || !determinant.is_normal() {
                step = (0.0, -right.1 / start);
            }
            let hottest_c = HOTTEST_C;
            let coldest_c = self.body.ambient.celsius() + 1.0;
            let taken = (0..HALVED).map(|halved| 0.5_f64.powi(halved as i32)).find_map(|part| {
                let next = self.look(Sought {
                    scale: (at.scale + part * step.0).clamp(SCALES.0, SCALES.1),
                    start_c: (at.start_c + part * step.1).clamp(coldest_c, hottest_c),
                });
                (next.cost() < here.cost()).then_some(next)
            });
            let Some(next) = taken else { break };
            let moved = (next.at.scale - at.scale).abs() + (next.at.start_c - at.start_c).abs() / 100.0;
            here = next;
            if moved < FINE / 10.0 {
                break;
            }
        }
        here
    }

    /// How well the time until it may be unwrapped is known.
    fn log_sd(&self, at: Sought, (missed, normal): (&[f64], &Normal), cooling: &Cooling) -> Option<f64> {
        let count = self.after.len();
        if count < READINGS_FOR_A_BAND {
            return None;
        }
        let unwrapped_h = cooling.hours_to(UNWRAP_C).filter(|hours| *hours > 0.0)?;
        // House: a nudge moves it by next to nothing: it need not be followed to the hand.
        const LATER: f64 = 1.2;
        let hours = self
            .runs(at.nudged(), LATER * unwrapped_h)
            .map(|run| run.hours_to(UNWRAP_C).filter(|hours| *hours > 0.0).map(f64::ln));
        let [less_scale, more_scale, less_start, more_start] = hours;
        let by_scale = (more_scale? - less_scale?) / (2.0 * NUDGE.scale);
        let by_start = (more_start? - less_start?) / (2.0 * NUDGE.start_c);
        let Normal { scale, both, start, .. } = normal;
        let determinant = scale * start - both * both;
        let spread = (by_scale * by_scale * start - 2.0 * by_scale * by_start * both
            + by_start * by_start * scale)
            / determinant;
        let misses: f64 = missed[..count].iter().map(|miss| miss * miss).sum();
        let scattered = (misses / (count - 2).max(1) as f64).max(1.0);
        let sd = (spread * scattered).sqrt();
        sd.is_finite().then_some(sd.max(LEAST_LOG_SD))
    }
}

/// One factor on both powers of a flame, or on the most that an oven gives, by least squares of the coldest cell; nothing
/// without a reading after the start, for what has no power of its own, and for an oven whose ramp it was that brought
/// the part up.
///
/// # Source
/// Least squares (law); its bounds are house.
#[must_use]
pub fn heating_fit(body: &ThermalBody, power: BarPower, readings: &[ReadAt]) -> Option<f64> {
    if matches!(power, BarPower::Surroundings(_)) {
        return None;
    }
    let mut after: Vec<ReadAt> = readings.iter().copied().filter(|read| read.minutes > 0.0).collect();
    if after.is_empty() {
        return None;
    }
    after.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
    let misses = |factor: f64| {
        let power = power.scaled(factor);
        let mut bar = Bar::new(body, power, body.ambient);
        let mut time_s = 0.0;
        let mut sum = 0.0;
        for read in &after {
            while time_s < read.minutes * 60.0 - 1e-9 {
                let step_s = power.step_s().min(read.minutes * 60.0 - time_s);
                bar.step(step_s);
                time_s += step_s;
            }
            sum += (bar.coldest_c() - read.celsius).powi(2);
        }
        sum
    };
    let factor = least(misses, FACTORS);
    // A stronger oven, and a weaker one, would have to read otherwise.
    let told = |other: f64| misses(other) - misses(factor) > after.len() as f64 * TOLD_APART_K.powi(2);
    let flame = matches!(power, BarPower::Flame { .. });
    (flame || told(factor * WEAKER) && told(factor / WEAKER)).then_some(factor)
}

/// Ours: an oven so much weaker or stronger has to read otherwise by so much on the whole.
const WEAKER: f64 = 0.85;
const TOLD_APART_K: f64 = 2.0;

/// Where a function of one hollow is least, by golden section.
fn least(of: impl Fn(f64) -> f64, (mut low, mut high): (f64, f64)) -> f64 {
    let golden = (5.0_f64.sqrt() - 1.0) / 2.0;
    let (mut left, mut right) = (high - golden * (high - low), low + golden * (high - low));
    let (mut at_left, mut at_right) = (of(left), of(right));
    while high - low > FINE {
        if at_left < at_right {
            (high, right, at_right) = (right, left, at_left);
            left = high - golden * (high - low);
            at_left = of(left);
        } else {
            (low, left, at_left) = (left, right, at_right);
            right = low + golden * (high - low);
            at_right = of(right);
        }
    }
    (low + high) / 2.0
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::heat::{Packing, heat_for};
    use crate::iron::Iron;
    use crate::quantity::{Kilograms, Millimetres, Seconds, Watts};

    fn body() -> ThermalBody {
        let mm = |value| Millimetres::new(value).unwrap();
        let (mass, ambient) = (Kilograms::new(22.0).unwrap(), Celsius::new(20.0).unwrap());
        ThermalBody::new(Iron::Gray.properties(), mass, (mm(420.0), mm(300.0), mm(220.0)), 1.0, ambient)
            .unwrap()
    }

    fn reads(of: &[(f64, f64)]) -> Vec<ReadAt> {
        of.iter().map(|&(minutes, celsius)| ReadAt { minutes, celsius }).collect()
    }

    fn blanket() -> Wrapping {
        Wrapping::new(Packing::Blanket, 0.025).unwrap()
    }

    #[rstest]
    // Published: the trade reference, examples of cooling-refit, within 3 %
    #[case::steady(
        &[(20.0, 231.0), (40.0, 196.0), (60.0, 170.0), (90.0, 140.0)], 0.896, 277.8, 3.353, 3.198, 3.515
    )]
    #[case::scattered(
        &[(15.0, 236.0), (35.0, 215.0), (60.0, 165.0), (80.0, 163.0), (120.0, 122.0)], 0.790, 273.6, 3.763, 3.363, 4.209
    )]
    fn a_cooling_is_fitted_as_published(
        #[case] readings: &[(f64, f64)],
        #[case] scale: f64,
        #[case] start_c: f64,
        #[case] hours: f64,
        #[case] early_h: f64,
        #[case] late_h: f64,
    ) {
        let fit = cooling_fit(&body(), Celsius::new(280.0).unwrap(), &blanket(), &reads(readings)).unwrap();
        let near = |got: f64, expected: f64| assert!((got / expected - 1.0).abs() < 0.03, "{got} {expected}");
        near(fit.scale, scale);
        near(fit.start_c, start_c);
        near(fit.cooling.hours_to(UNWRAP_C).unwrap(), hours);
        let (early, late) = fit.between_hours(UNWRAP_C).unwrap();
        near(early, early_h);
        near(late, late_h);
        assert!(fit.fits);
    }

    #[test]
    fn both_ends_of_its_band_are_as_far_from_what_is_likely() {
        let readings = reads(&[(20.0, 231.0), (40.0, 196.0), (60.0, 170.0), (90.0, 140.0)]);
        let fit = cooling_fit(&body(), Celsius::new(280.0).unwrap(), &blanket(), &readings).unwrap();
        let likely = fit.cooling.curve(20, UNWRAP_C);
        let (early_h, late_h) = fit.between_hours(UNWRAP_C).unwrap();
        let [early, late] = fit.curves_between(20, UNWRAP_C).unwrap();
        let stretch = (late_h / early_h).sqrt();
        for (at, (hours, celsius)) in likely.iter().enumerate() {
            assert!(
                (early[at].0 * stretch - hours).abs() < 1e-9 && (late[at].0 / stretch - hours).abs() < 1e-9
            );
            assert_eq!((early[at].1, late[at].1), (*celsius, *celsius));
        }
        assert!(stretch > 1.01, "{stretch}");
    }

    #[test]
    fn a_pad_that_reads_each_ten_seconds_counts_once_in_five_minutes() {
        let each_ten_seconds: Vec<ReadAt> = (1..=95)
            .map(|at| ReadAt { minutes: f64::from(at) / 6.0, celsius: 200.0 - f64::from(at) })
            .collect();
        let kept: Vec<f64> = thinned(&each_ten_seconds).iter().map(|read| read.minutes).collect();
        assert_eq!(kept.len(), 3, "{kept:?}");
        assert!(kept[0] < 5.0 && kept[2] < 15.0, "the slot in hand waits");
        let by_hand = reads(&[(20.0, 231.0), (40.0, 196.0), (60.0, 170.0)]);
        assert_eq!(thinned(&by_hand).len(), 2);
        assert_eq!(thinned(&by_hand[..1]).len(), 1);
        assert!(says_enough(231.0, &by_hand) && !says_enough(175.0, &by_hand) && !says_enough(300.0, &[]));
    }

    #[rstest]
    #[case::two(&[(20.0, 231.0), (40.0, 196.0)], false)]
    #[case::three(&[(20.0, 231.0), (40.0, 196.0), (60.0, 170.0)], true)]
    fn under_three_readings_nothing_is_said_of_how_sure_it_is(
        #[case] readings: &[(f64, f64)],
        #[case] band: bool,
    ) {
        let fit = cooling_fit(&body(), Celsius::new(280.0).unwrap(), &blanket(), &reads(readings)).unwrap();
        assert_eq!(fit.between_hours(UNWRAP_C).is_some(), band);
        assert_eq!(fit.curves_between(80, 45.0).is_some(), band);
    }

    #[test]
    fn without_a_reading_there_is_no_fit_and_a_wild_one_stays_within_bounds() {
        let start = Celsius::new(280.0).unwrap();
        assert!(cooling_fit(&body(), start, &blanket(), &[]).is_none());
        assert!(cooling_fit(&body(), start, &blanket(), &reads(&[(0.0, 280.0)])).is_none());
        let wild = cooling_fit(&body(), start, &blanket(), &reads(&[(60.0, 30.0)])).unwrap();
        assert!(wild.scale > 2.49 && wild.scale <= 2.5 && !wild.fits);
        let never_falls = cooling_fit(&body(), start, &blanket(), &reads(&[(60.0, 279.0)])).unwrap();
        assert!(never_falls.scale < 0.41 && never_falls.scale >= 0.4 && !never_falls.fits);
    }

    #[test]
    fn what_a_scaled_model_shows_is_fitted_back() {
        let start = Celsius::new(280.0).unwrap();
        let shown = cool_scaled(&body(), start, &blanket(), 1.3);
        let readings: Vec<ReadAt> = (1..10)
            .map(|at| f64::from(at) * 15.0)
            .map(|minutes| ReadAt { minutes, celsius: shown.after_hours(minutes / 60.0).unwrap() })
            .collect();
        let fit = cooling_fit(&body(), start, &blanket(), &readings).unwrap();
        assert!((fit.scale - 1.3).abs() < 2e-3, "{}", fit.scale);
        assert_eq!(fit.log_sd, Some(LEAST_LOG_SD), "no scatter: it is held at the least");
        assert!((fit.start_c - 280.0).abs() < 0.1);
    }

    #[rstest]
    #[case::told_too_hot(295.0)]
    #[case::told_too_cold(265.0)]
    fn what_was_said_of_the_start_is_not_believed_against_the_readings(#[case] told_c: f64) {
        let (truly, told) = (Celsius::new(280.0).unwrap(), Celsius::new(told_c).unwrap());
        let shown = cool_scaled(&body(), truly, &blanket(), 1.3);
        let readings: Vec<ReadAt> = (2..12)
            .map(|at| f64::from(at) * 10.0)
            .map(|minutes| ReadAt { minutes, celsius: shown.after_hours(minutes / 60.0).unwrap() })
            .collect();
        let fit = cooling_fit(&body(), told, &blanket(), &readings).unwrap();
        assert!((fit.scale / 1.3 - 1.0).abs() < 0.03, "{}", fit.scale);
        assert!((fit.start_c - 280.0).abs() < 3.0, "{}", fit.start_c);
        let (early, late) = fit.between_hours(UNWRAP_C).unwrap();
        let truth = shown.hours_to(UNWRAP_C).unwrap();
        assert!(early < truth && truth < late, "{early} {truth} {late}");
    }

    #[rstest]
    #[case::weaker(0.8)]
    #[case::as_the_book(1.0)]
    fn an_oven_that_gives_all_it_has_is_fitted_and_one_that_waits_for_its_ramp_is_not(#[case] really: f64) {
        let watts = |w: f64| crate::quantity::Watts::new(w).unwrap();
        let set = Celsius::new(350.0).unwrap();
        let oven = |most: f64| BarPower::Oven { set, ramp_k_per_h: 600.0, h_w_m2k: 20.0, most: watts(most) };
        let read = |power: BarPower| -> Vec<ReadAt> {
            let mut bar = Bar::new(&body(), power, body().ambient);
            let of = |at: i32| {
                (0..60).for_each(|_| bar.step(10.0));
                ReadAt { minutes: f64::from(at) * 10.0, celsius: bar.coldest_c() }
            };
            (1..8).map(of).collect()
        };
        // Far less than the ramp asks for.
        let found = heating_fit(&body(), oven(1_200.0), &read(oven(1_200.0 * really))).unwrap();
        assert!((found / really - 1.0).abs() < 0.02, "{found}");
        // Far more than it ever needs.
        assert_eq!(heating_fit(&body(), oven(60_000.0), &read(oven(60_000.0 * really))), None);
    }

    #[test]
    fn an_oven_that_could_be_stronger_for_all_that_was_read_is_not_fitted() {
        /// What its ramp asks for, and hardly more, in W.
        const ENOUGH_W: f64 = 2_000.0;
        let watts = |w: f64| crate::quantity::Watts::new(w).unwrap();
        let set = Celsius::new(350.0).unwrap();
        let oven = |most: f64| BarPower::Oven { set, ramp_k_per_h: 600.0, h_w_m2k: 20.0, most: watts(most) };
        let read = |power: BarPower, at_min: f64| {
            let seconds = Seconds::new(at_min * 60.0).unwrap();
            ReadAt { minutes: at_min, celsius: heat_for(&body(), power, seconds).bar.coldest_c() }
        };
        // A weaker one would read colder by 5 K at least; a stronger one by hardly more, since its ramp holds it back.
        let just = oven(ENOUGH_W);
        let reads: Vec<ReadAt> = [30.0, 40.0].map(|at| read(just, at)).into();
        assert!(reads.iter().all(|it| it.celsius - read(oven(ENOUGH_W * WEAKER), it.minutes).celsius > 5.0));
        let stronger = |it: &ReadAt| read(oven(ENOUGH_W * 3.0), it.minutes).celsius - it.celsius;
        assert!(reads.iter().all(|it| (0.5..TOLD_APART_K).contains(&stronger(it))));
        assert_eq!(heating_fit(&body(), just, &reads), None);
    }

    #[test]
    fn a_heating_is_fitted_as_published_and_back() {
        // Published: the trade reference, example of heating-refit, within 3 %
        let watts = |w| Watts::new(w).unwrap();
        let readings = reads(&[(4.0, 70.0), (8.0, 130.0), (12.0, 185.0)]);
        let book = BarPower::Flame { even: watts(4000.0), local: watts(4050.0), station: 0.25, covered: 0.0 };
        let factor = heating_fit(&body(), book, &readings).unwrap();
        assert!((factor / 0.692 - 1.0).abs() < 0.03, "{factor}");
        // A torch a quarter weaker than its book, read as the model has it.
        let weak = BarPower::Flame { even: watts(3000.0), local: watts(3037.5), station: 0.25, covered: 0.0 };
        let shown: Vec<ReadAt> = [4.0, 8.0, 12.0]
            .map(|minutes| ReadAt {
                minutes,
                celsius: heat_for(&body(), weak, Seconds::new(minutes * 60.0).unwrap()).bar.coldest_c(),
            })
            .to_vec();
        let factor = heating_fit(&body(), book, &shown).unwrap();
        assert!((factor - 0.75).abs() < 2e-3, "{factor}");
        assert_eq!(heating_fit(&body(), book, &[]), None);
        assert_eq!(heating_fit(&body(), BarPower::Surroundings(body().ambient), &readings), None);
    }
}
