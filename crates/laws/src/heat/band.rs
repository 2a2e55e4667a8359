//! How soon and how late a heating gets there: the time of the model with its 80 % band.

use statrs::distribution::{ContinuousCDF, Normal};

use super::ceiling_c;
use crate::quantity::{Kilograms, Watts};
use crate::sim::{BarPower, ThermalBody};

/// What is known of a heating beside its model.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HeatingKnown {
    pub mass_weighed: bool,
    /// Of this source, in this shop.
    pub own_heatings: usize,
}

/// A time with its 80 % band, in minutes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HeatingBand {
    pub minutes: f64,
    pub low: f64,
    /// Nothing where it may not get there.
    pub high: Option<f64>,
    /// How many of a hundred such heatings get there.
    pub share_there: f64,
}

/// House: standard deviations of the logarithm.
const SURFACE_SD: f64 = 0.156;
const MASS_SD: f64 = 0.117;
const POWER_SD: (f64, f64) = (0.234, 0.08);
/// House: so many of its own, and a shop knows its source as well as it ever will.
const KNOWN_AFTER: f64 = 20.0;
/// Of a normal distribution: 80 % lie within so many standard deviations.
const EIGHTY_PERCENT: f64 = 1.28;
const MORE: f64 = 1.1;
const LESS: f64 = 0.9;

impl HeatingKnown {
    fn power_sd(self) -> f64 {
        let share = (self.own_heatings as f64 / KNOWN_AFTER).min(1.0);
        POWER_SD.0 + (POWER_SD.1 - POWER_SD.0) * share
    }

    fn mass_sd(self) -> f64 {
        if self.mass_weighed { 0.0 } else { MASS_SD }
    }
}

/// The band of a heating to `to_c`; nothing where it does not get there.
///
/// e = ln(t(1.1) / t(0.9)) / ln(1.1 / 0.9) for power, mass and surface, each run again with that one changed;
/// t exp(±1.28 √Σ (e sd)²). Where one of these does not arrive only the early end is known, from the slope on the side
/// that does.
///
/// # Source
/// Propagation of errors (law); the deviations are house.
pub fn heating_band(
    body: &ThermalBody,
    power: BarPower,
    to_c: f64,
    known: HeatingKnown,
    minutes: impl Fn(&ThermalBody, BarPower) -> Option<f64>,
) -> Option<HeatingBand> {
    let time = minutes(body, power)?;
    let flame = |factor: f64| power.scaled(factor);
    let heavy = |factor: f64| body.with_mass(scaled_mass(body.mass, factor));
    let parts: [(f64, [Option<f64>; 2]); 3] = [
        (known.power_sd(), [LESS, MORE].map(|factor| minutes(body, flame(factor)))),
        (known.mass_sd(), [LESS, MORE].map(|factor| minutes(&heavy(factor), power))),
        (SURFACE_SD, [LESS, MORE].map(|factor| minutes(&body.with_surface(factor), power))),
    ];
    let both = |(sd, times): &(f64, [Option<f64>; 2])| {
        let [less, more] = *times;
        Some(sd * (more? / less?).ln() / (MORE / LESS).ln())
    };
    let one_side = |(sd, times): &(f64, [Option<f64>; 2])| match *times {
        [_, Some(more)] => sd * (time / more).ln() / (1.0 / MORE).ln(),
        [Some(less), None] => sd * (less / time).ln() / LESS.ln(),
        [None, None] => 0.0,
    };
    let spread = |parts: &[f64]| EIGHTY_PERCENT * parts.iter().map(|part| part * part).sum::<f64>().sqrt();
    let all: Option<Vec<f64>> = parts.iter().map(both).collect();
    if time <= 0.0 {
        return Some(HeatingBand { minutes: time, low: time, high: Some(time), share_there: 1.0 });
    }
    Some(match all {
        Some(all) => {
            let stretch = spread(&all).exp();
            HeatingBand {
                minutes: time,
                low: time / stretch,
                high: Some(time * stretch),
                share_there: share_there(body, power, to_c, known),
            }
        }
        None => HeatingBand {
            minutes: time,
            low: time / spread(&parts.each_ref().map(one_side)).exp(),
            high: None,
            share_there: share_there(body, power, to_c, known),
        },
    })
}

fn scaled_mass(mass: Kilograms, factor: f64) -> Kilograms {
    Kilograms::new(mass.kilograms() * factor).unwrap_or(mass)
}

/// Of 64 equally likely strengths of the source those that hold the part there.
fn share_there(body: &ThermalBody, power: BarPower, to_c: f64, known: HeatingKnown) -> f64 {
    /// House: points by which the bell curve is gone through.
    const POINTS: u32 = 64;
    let usual = Normal::new(0.0, 1.0).expect("a deviation of one");
    let factor =
        |at: u32| (known.power_sd() * usual.inverse_cdf((f64::from(at) + 0.5) / f64::from(POINTS))).exp();
    // The stronger the hotter: the first that gets there is looked for.
    let there = |at: u32| ceiling_c(body, power.scaled(factor(at))) >= to_c;
    let (mut first, mut last) = (0, POINTS);
    while first < last {
        let middle = u32::midpoint(first, last);
        if there(middle) {
            last = middle;
        } else {
            first = middle + 1;
        }
    }
    f64::from(POINTS - first) / f64::from(POINTS)
}

impl BarPower {
    /// A flame, or an oven, so many times as strong; what goes by its temperature alone stays as it is.
    pub(crate) fn scaled(self, factor: f64) -> Self {
        let watts = |watts: Watts| Watts::new(watts.watts() * factor).unwrap_or(watts);
        match self {
            Self::Flame { even, local, station, covered } => {
                Self::Flame { even: watts(even), local: watts(local), station, covered }
            }
            Self::Oven { set, ramp_k_per_h, h_w_m2k, most } => {
                Self::Oven { set, ramp_k_per_h, h_w_m2k, most: watts(most) }
            }
            Self::Surroundings(at) => Self::Surroundings(at),
        }
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::heat::heat_until;
    use crate::iron::Iron;
    use crate::quantity::{Celsius, Millimetres, Seconds};

    fn band(body: &ThermalBody, power: BarPower, to_c: f64, known: HeatingKnown) -> Option<HeatingBand> {
        let minutes = |body: &ThermalBody, power: BarPower| {
            let (to, most) = (Celsius::new(to_c).unwrap(), Seconds::new(36_000.0).unwrap());
            heat_until(body, power, to, most).minutes_to(to_c)
        };
        heating_band(body, power, to_c, known, minutes)
    }

    fn body(iron: Iron, kg: f64, [l, w, h]: [f64; 3], ambient_c: f64) -> ThermalBody {
        let mm = |value| Millimetres::new(value).unwrap();
        let ambient = Celsius::new(ambient_c).unwrap();
        ThermalBody::new(iron.properties(), Kilograms::new(kg).unwrap(), (mm(l), mm(w), mm(h)), 1.0, ambient)
            .unwrap()
    }

    fn flame(even: f64, local: f64, station: f64) -> BarPower {
        let watts = |w| Watts::new(w).unwrap();
        BarPower::Flame { even: watts(even), local: watts(local), station, covered: 0.0 }
    }

    #[test]
    fn the_share_that_gets_there_is_that_of_a_bell_curve() {
        let (part, power) =
            (body(Iron::Gray, 22.0, [420.0, 300.0, 220.0], 20.0), flame(1_500.0, 500.0, 0.25));
        let known = HeatingKnown { mass_weighed: true, own_heatings: 0 };
        let at = |deviations: f64| ceiling_c(&part, power.scaled((deviations * known.power_sd()).exp()));
        // From a table of the normal distribution: over 0.5, -1 and 2 deviations lie so many.
        for (deviations, share) in [(0.5, 0.3085), (-1.0, 0.8413), (2.0, 0.0228)] {
            let found = share_there(&part, power, at(deviations), known);
            assert!((found - share).abs() < 0.5 / 64.0 + 1e-3, "{found} of {share}");
        }
        assert_eq!(share_there(&part, power, 20.0, known), 1.0);
        assert_eq!(share_there(&part, power, 5_000.0, known), 0.0);
    }

    #[rstest]
    // Published: the trade reference, examples of heating-band, within 3 %
    #[case::a_guess(
        (body(Iron::Gray, 22.0, [420.0, 300.0, 220.0], 20.0), flame(4000.0, 4050.0, 0.25)),
        220.0, HeatingKnown { mass_weighed: false, own_heatings: 0 }, (10.99, 7.22, 16.73)
    )]
    #[case::a_torch_of_ones_own(
        (body(Iron::Ductile, 9.0, [500.0, 120.0, 100.0], 15.0), flame(600.0, 600.0, 0.5)),
        150.0, HeatingKnown { mass_weighed: true, own_heatings: 20 }, (19.44, 15.08, 25.08)
    )]
    fn a_heating_has_the_band_that_is_published(
        #[case] (body, power): (ThermalBody, BarPower),
        #[case] to_c: f64,
        #[case] known: HeatingKnown,
        #[case] (minutes, low, high): (f64, f64, f64),
    ) {
        let found = band(&body, power, to_c, known).unwrap();
        let near = |got: f64, expected: f64| assert!((got / expected - 1.0).abs() < 0.03, "{got} {expected}");
        near(found.minutes, minutes);
        near(found.low, low);
        near(found.high.unwrap(), high);
        assert!(found.share_there > 0.9);
    }

    #[test]
    fn what_just_gets_there_may_not_get_there_and_what_does_not_has_no_band() {
        let body = body(Iron::Ductile, 9.0, [500.0, 120.0, 100.0], 20.0);
        let power = flame(300.0, 420.0, 0.5);
        let known = HeatingKnown { mass_weighed: true, own_heatings: 0 };
        let ceiling = ceiling_c(&body, power);
        let found = band(&body, power, ceiling - 2.0, known).unwrap();
        assert!(found.high.is_none() && found.low < found.minutes);
        assert!((0.4..0.6).contains(&found.share_there), "{}", found.share_there);
        assert_eq!(band(&body, power, ceiling + 2.0, known), None);
        let there = band(&body, power, 19.0, known).unwrap();
        assert_eq!((there.low, there.high), (0.0, Some(0.0)));
    }

    /// A part that takes as long as it is heavy, as its flame is weak, and as the root of what it loses: in min.
    fn by_a_law(body: &ThermalBody, power: BarPower) -> f64 {
        let BarPower::Flame { even, .. } = power else { panic!("a flame") };
        let usual_m2 = self::body(Iron::Gray, 10.0, [300.0, 200.0, 60.0], 20.0).surface_m2();
        let lost = (body.surface_m2() / usual_m2).sqrt();
        10.0 * body.mass.kilograms() / 10.0 * 1_000.0 / even.watts() * lost
    }

    fn of_the_law(
        known: HeatingKnown,
        minutes: impl Fn(&ThermalBody, BarPower) -> Option<f64>,
    ) -> Option<HeatingBand> {
        let part = body(Iron::Gray, 10.0, [300.0, 200.0, 60.0], 20.0);
        heating_band(&part, flame(1_000.0, 0.0, 0.5), 100.0, known, minutes)
    }

    #[rstest]
    // By hand: 1.28 x the root of power², mass² (nothing where it was weighed) and (half of 0.156)²
    #[case::a_guess(false, 0, (0.234, 0.117))]
    #[case::weighed(true, 0, (0.234, 0.0))]
    // Half way from 0.234 to 0.08
    #[case::ten_heatings_of_ones_own(true, 10, (0.157, 0.0))]
    #[case::as_well_as_it_will_ever_be_known(false, 20, (0.08, 0.117))]
    #[case::and_no_better(false, 200, (0.08, 0.117))]
    fn of_a_part_that_goes_by_a_law_the_band_is_worked_out_by_hand(
        #[case] mass_weighed: bool,
        #[case] own_heatings: usize,
        #[case] (power_sd, mass_sd): (f64, f64),
    ) {
        let known = HeatingKnown { mass_weighed, own_heatings };
        let stretch = (1.28 * f64::hypot(f64::hypot(power_sd, mass_sd), 0.156 / 2.0)).exp();
        let both = of_the_law(known, |body, power| Some(by_a_law(body, power))).unwrap();
        assert!((both.minutes - 10.0).abs() < 1e-9);
        assert!((both.low - 10.0 / stretch).abs() < 1e-9, "{both:?} {stretch}");
        assert!((both.high.unwrap() - 10.0 * stretch).abs() < 1e-9);
        // Where one weaker, heavier, or losing more does not get there the slope on the other side says the early end.
        let slower = of_the_law(known, |body, power| Some(by_a_law(body, power)).filter(|it| *it < 10.01));
        let slower = slower.unwrap();
        assert!((slower.low - 10.0 / stretch).abs() < 1e-9 && slower.high.is_none(), "{slower:?} {stretch}");
        // And what is known of neither side widens nothing.
        let alone = of_the_law(known, |body, power| {
            Some(by_a_law(body, power)).filter(|it| (*it - 10.0).abs() < 1e-9)
        });
        assert!((alone.unwrap().low - 10.0).abs() < 1e-9);
    }

    #[test]
    fn a_stronger_flame_that_does_not_get_there_leaves_the_slope_of_the_weaker() {
        let known = HeatingKnown { mass_weighed: true, own_heatings: 0 };
        let found = of_the_law(known, |body, power| {
            let minutes = by_a_law(body, power);
            let strong = matches!(power, BarPower::Flame { even, .. } if even.watts() > 1_050.0);
            (!strong).then_some(minutes)
        });
        let stretch = (1.28 * f64::hypot(0.234, 0.156 / 2.0)).exp();
        assert!((found.unwrap().low - 10.0 / stretch).abs() < 1e-9);
    }
}
