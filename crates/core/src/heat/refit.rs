//! The models fitted to what was read: how leaky a packing is, how strong a flame.

use super::{Cooling, Wrapping, cool_scaled};
use crate::quantity::{Celsius, Watts};
use crate::sim::{Bar, BarPower, Body};

/// A reading on the clock of the run.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ReadAt {
    pub minutes: f64,
    pub celsius: f64,
}

/// House: between these a fit is believed.
const SCALES: (f64, f64) = (0.4, 2.5);
pub(crate) const FACTORS: (f64, f64) = (0.3, 2.0);
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
    /// Standard deviation of the scale; nothing under 3 readings.
    pub sd: Option<f64>,
    pub cooling: Cooling,
    /// At the leaky and the tight end of its 80 % band: nothing under 3 readings.
    pub band: Option<(Cooling, Cooling)>,
}

/// House: a scale is never known better.
const LEAST_SD: f64 = 0.03;
/// House: under this many readings nothing is said of how sure it is.
const READINGS_FOR_A_BAND: usize = 3;
/// Of a normal distribution: 80 % lie within so many standard deviations.
const EIGHTY_PERCENT: f64 = 1.28;

/// One scale on the packing's conductivity and the loss outside, by least squares; nothing without a reading after
/// the start.
///
/// sd(s) = √(SSE / (n − 1) / Σ (dT/ds)²), at least 0.03; the band at s ± 1.28 sd.
///
/// # Source
/// Least squares (law); its bounds and the least deviation are house.
#[must_use]
pub fn cooling_fit(
    body: &Body,
    start: Celsius,
    wrapping: &Wrapping,
    readings: &[ReadAt],
) -> Option<CoolingFit> {
    // One scale, of the book's: what was learned before is not counted twice.
    let wrapping = &wrapping.by_the_book();
    let after: Vec<ReadAt> = readings.iter().copied().filter(|read| read.minutes > 0.0).collect();
    if after.is_empty() {
        return None;
    }
    let until_h = after.iter().map(|read| read.minutes).fold(0.0, f64::max) / 60.0;
    let at_readings = |scale: f64| -> Vec<f64> {
        let run = Cooling::until(body, start, wrapping, scale, until_h);
        after.iter().map(|read| run.after_hours(read.minutes / 60.0).unwrap_or(start.celsius())).collect()
    };
    let misses = |scale: f64| -> f64 {
        at_readings(scale).iter().zip(&after).map(|(model, read)| (model - read.celsius).powi(2)).sum()
    };
    let scale = least(misses, SCALES);
    let sd = (after.len() >= READINGS_FOR_A_BAND).then(|| {
        const NUDGE: f64 = 0.01;
        let (less, more) = (at_readings(scale - NUDGE), at_readings(scale + NUDGE));
        let slopes: f64 = less.iter().zip(&more).map(|(a, b)| ((b - a) / (2.0 * NUDGE)).powi(2)).sum();
        (misses(scale) / (after.len() - 1) as f64 / slopes).sqrt().max(LEAST_SD)
    });
    let run = |scale: f64| cool_scaled(body, start, wrapping, scale.clamp(SCALES.0, SCALES.1));
    Some(CoolingFit {
        scale,
        sd: sd.filter(|sd| sd.is_finite()),
        cooling: run(scale),
        band: sd
            .filter(|sd| sd.is_finite())
            .map(|sd| (run(scale + EIGHTY_PERCENT * sd), run(scale - EIGHTY_PERCENT * sd))),
    })
}

/// One factor on both powers of a flame, by least squares of the coldest cell; nothing without a reading after the
/// start, and for what is no flame.
///
/// # Source
/// Least squares (law); its bounds are house.
#[must_use]
pub fn heating_fit(body: &Body, power: BarPower, readings: &[ReadAt]) -> Option<f64> {
    let BarPower::Flame { even, local, station, covered } = power else { return None };
    let mut after: Vec<ReadAt> = readings.iter().copied().filter(|read| read.minutes > 0.0).collect();
    if after.is_empty() {
        return None;
    }
    after.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
    let misses = |factor: f64| {
        let scaled = |watts: Watts| Watts::new(watts.watts() * factor).unwrap_or(watts);
        let power = BarPower::Flame { even: scaled(even), local: scaled(local), station, covered };
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
    Some(least(misses, FACTORS))
}

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
    use crate::heat::{Packing, UNWRAP_C, heat_for};
    use crate::iron::Iron;
    use crate::quantity::{Kilograms, Millimetres, Seconds};

    fn body() -> Body {
        let mm = |value| Millimetres::new(value).unwrap();
        let (mass, ambient) = (Kilograms::new(22.0).unwrap(), Celsius::new(20.0).unwrap());
        Body::new(Iron::Gray.properties(), mass, (mm(420.0), mm(300.0), mm(220.0)), 1.0, ambient).unwrap()
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
        &[(20.0, 231.0), (40.0, 196.0), (60.0, 170.0), (90.0, 140.0)], 0.913, 3.307, 3.173, 3.452
    )]
    #[case::scattered(
        &[(15.0, 236.0), (35.0, 215.0), (60.0, 165.0), (80.0, 163.0), (120.0, 122.0)], 0.833, 3.625, 3.392, 3.893
    )]
    fn a_cooling_is_fitted_as_published(
        #[case] readings: &[(f64, f64)],
        #[case] scale: f64,
        #[case] hours: f64,
        #[case] early_h: f64,
        #[case] late_h: f64,
    ) {
        let fit = cooling_fit(&body(), Celsius::new(280.0).unwrap(), &blanket(), &reads(readings)).unwrap();
        let near = |got: f64, expected: f64| assert!((got / expected - 1.0).abs() < 0.03, "{got} {expected}");
        near(fit.scale, scale);
        near(fit.cooling.hours_to(UNWRAP_C).unwrap(), hours);
        let (early, late) = fit.band.unwrap();
        near(early.hours_to(UNWRAP_C).unwrap(), early_h);
        near(late.hours_to(UNWRAP_C).unwrap(), late_h);
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
        assert_eq!((fit.band.is_some(), fit.sd.is_some()), (band, band));
    }

    #[test]
    fn without_a_reading_there_is_no_fit_and_a_wild_one_stays_within_bounds() {
        let start = Celsius::new(280.0).unwrap();
        assert!(cooling_fit(&body(), start, &blanket(), &[]).is_none());
        assert!(cooling_fit(&body(), start, &blanket(), &reads(&[(0.0, 280.0)])).is_none());
        let wild = cooling_fit(&body(), start, &blanket(), &reads(&[(60.0, 30.0)])).unwrap();
        assert!(wild.scale > 2.49 && wild.scale <= 2.5);
        let never_falls = cooling_fit(&body(), start, &blanket(), &reads(&[(60.0, 279.0)])).unwrap();
        assert!(never_falls.scale < 0.41 && never_falls.scale >= 0.4);
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
        assert_eq!(fit.sd, Some(LEAST_SD), "no scatter: it is held at the least");
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
