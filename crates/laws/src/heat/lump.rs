//! A part as one lump: in an oven, and out of the heat.

use crate::sim::{STEFAN_BOLTZMANN, ThermalBody, ZERO_C};

/// House: emissivity of a casting's skin, and what gets out through a wrap, W/m²K.
pub(super) const EMISSIVITY: f64 = 0.8;
const WRAPPED_H: f64 = 2.4;
const STEP_S: f64 = 0.5;
const MOST_S: f64 = 72.0 * 3600.0;

/// How a part stands out of the heat.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OutOfHeat {
    /// 10 in still air, 25 in a draught or with the extraction on.
    pub h_w_m2k: f64,
    /// 1, or 0.25 wrapped but for the joint.
    pub bare_share: f64,
}

impl OutOfHeat {
    /// What the part loses at a temperature, in W.
    ///
    /// A [b (h (T − Ta) + 0.8 σ (T⁴ − Ta⁴)) + (1 − b) 2.4 (T − Ta)], T⁴ in kelvin
    pub fn loss_w(&self, body: &ThermalBody, celsius: f64) -> f64 {
        let ambient_c = body.ambient.celsius();
        let over = celsius - ambient_c;
        let radiates =
            EMISSIVITY * STEFAN_BOLTZMANN * ((celsius + ZERO_C).powi(4) - (ambient_c + ZERO_C).powi(4));
        let bare = self.h_w_m2k * over + radiates;
        body.surface_m2() * (self.bare_share * bare + (1.0 - self.bare_share) * WRAPPED_H * over)
            + body.drain_w_k() * over
    }

    /// Seconds until a part has fallen from one temperature to another; 0 where it is there already, nothing where it
    /// does not get there within 72 h.
    ///
    /// # Source
    /// A lump that loses heat (law); its figures are house.
    #[must_use]
    pub fn seconds(&self, body: &ThermalBody, from_c: f64, to_c: f64) -> Option<f64> {
        if from_c <= to_c {
            return Some(0.0);
        }
        let (mut at_c, mut time_s) = (from_c, 0.0);
        while time_s < MOST_S {
            let heat = body.mass.kilograms() * body.iron.specific_heat(at_c);
            let next_c = at_c - self.loss_w(body, at_c) * STEP_S / heat;
            if next_c <= to_c {
                return Some(time_s + STEP_S * (at_c - to_c) / (at_c - next_c));
            }
            // It has come to rest above it.
            if at_c - next_c < 1e-9 {
                return None;
            }
            (at_c, time_s) = (next_c, time_s + STEP_S);
        }
        None
    }
}

/// A fall out of the heat, followed once: asked again and again it is looked up.
#[derive(Debug, Clone)]
pub struct Fall {
    /// (degC, s since it began), the hottest first.
    passed: Vec<(f64, f64)>,
}

impl Fall {
    /// House: between two places that are kept it falls in a straight line, in K.
    const KEPT_EACH_K: f64 = 0.25;

    /// From the hottest that will be asked about to the coldest, or as far as it comes in 72 h.
    #[must_use]
    pub fn new(stands: OutOfHeat, body: &ThermalBody, from_c: f64, to_c: f64) -> Self {
        let (mut at_c, mut time_s) = (from_c, 0.0);
        let mut passed = vec![(at_c, time_s)];
        while at_c > to_c && time_s < MOST_S {
            let heat = body.mass.kilograms() * body.iron.specific_heat(at_c);
            let next_c = at_c - stands.loss_w(body, at_c) * STEP_S / heat;
            if at_c - next_c < 1e-9 {
                break;
            }
            (at_c, time_s) = (next_c, time_s + STEP_S);
            if passed.last().is_none_or(|last| last.0 - at_c >= Self::KEPT_EACH_K) || at_c <= to_c {
                passed.push((at_c, time_s));
            }
        }
        Self { passed }
    }

    /// Seconds from one temperature to another; 0 where it is there already, nothing where it does not get there.
    #[must_use]
    pub fn seconds(&self, from_c: f64, to_c: f64) -> Option<f64> {
        if from_c <= to_c {
            return Some(0.0);
        }
        Some(self.passes_s(to_c)? - self.passes_s(from_c)?)
    }

    /// When it passes a temperature.
    fn passes_s(&self, celsius: f64) -> Option<f64> {
        let after = self.passed.partition_point(|it| it.0 > celsius);
        let (at_c, at_s) = *self.passed.get(after)?;
        let Some((before_c, before_s)) = after.checked_sub(1).map(|it| self.passed[it]) else {
            return Some(at_s);
        };
        Some(before_s + (at_s - before_s) * (before_c - celsius) / (before_c - at_c))
    }
}

/// An oven that is brought up, and what it gives at most.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OvenRun {
    pub set_c: f64,
    pub ramp_k_per_h: f64,
    /// In W; nothing where it gives what is asked of it.
    pub most_w: Option<f64>,
}

/// House: convection in an oven, W/m²K.
const OVEN_H: f64 = 20.0;

/// The part after so long in an oven that comes up from ambient with its ramp and is then held.
///
/// # Source
/// A lump that takes heat (law); its figures are house.
#[must_use]
pub fn in_the_oven_c(body: &ThermalBody, oven: &OvenRun, for_s: f64) -> f64 {
    let ambient_c = body.ambient.celsius();
    let (mut at_c, mut time_s) = (ambient_c, 0.0);
    let rises = (oven.set_c - ambient_c).signum();
    while time_s < for_s {
        let step_s = (2.0_f64).min(for_s - time_s);
        time_s += step_s;
        let ramped = ambient_c + rises * oven.ramp_k_per_h * time_s / 3600.0;
        let air_c = if rises >= 0.0 { ramped.min(oven.set_c) } else { ramped.max(oven.set_c) };
        let (t, s) = (at_c + ZERO_C, air_c + ZERO_C);
        let coefficient = OVEN_H + EMISSIVITY * STEFAN_BOLTZMANN * (t * t + s * s) * (t + s);
        let into_w = body.surface_m2() * coefficient * (air_c - at_c);
        let given_w = oven.most_w.map_or(into_w, |most| into_w.min(most));
        at_c += given_w * step_s / (body.mass.kilograms() * body.iron.specific_heat(at_c));
    }
    at_c
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::iron::Iron;
    use crate::quantity::{Celsius, Kilograms, Millimetres};

    fn body() -> ThermalBody {
        let mm = |value| Millimetres::new(value).unwrap();
        ThermalBody::new(
            Iron::Gray.properties(),
            Kilograms::new(22.0).unwrap(),
            (mm(420.0), mm(300.0), mm(220.0)),
            1.0,
            Celsius::new(20.0).unwrap(),
        )
        .unwrap()
    }

    /// By hand at 300 degC in 20: bare 10 × 280 + 0.8 × 5.6704e-8 × (573.15⁴ − 293.15⁴) = 7360 W/m², wrapped 672; a drain of
    /// 2 W/K takes 560 W more.
    #[test]
    fn it_loses_by_its_skin_by_its_wrap_and_by_what_drains_it() {
        let body = body();
        let of = |bare_share: f64| OutOfHeat { h_w_m2k: 10.0, bare_share };
        let each_m2 = |bare_share: f64| of(bare_share).loss_w(&body, 300.0) / body.surface_m2();
        assert!((each_m2(1.0) - 7360.0).abs() < 10.0, "{}", each_m2(1.0));
        assert!((each_m2(0.0) - 672.0).abs() < 0.1, "{}", each_m2(0.0));
        assert!((each_m2(0.25) - (0.25 * each_m2(1.0) + 0.75 * 672.0)).abs() < 0.1);
        let drained = of(1.0).loss_w(&body.drained(2.0), 300.0) - of(1.0).loss_w(&body, 300.0);
        assert!((drained - 560.0).abs() < 0.1, "{drained}");
    }

    #[test]
    fn a_fall_that_is_followed_once_says_what_each_by_itself_would() {
        let draught = OutOfHeat { h_w_m2k: 40.0, bare_share: 1.0 };
        let fall = Fall::new(draught, &body(), 690.0, 45.0);
        for (from_c, to_c) in
            [(690.0, 45.0), (512.3, 45.0), (300.0, 64.9), (90.1, 89.9), (45.3, 45.0), (80.0, 80.0)]
        {
            let alone = draught.seconds(&body(), from_c, to_c).unwrap();
            let looked_up = fall.seconds(from_c, to_c).unwrap();
            assert!((alone - looked_up).abs() < 1.0, "{from_c} to {to_c}: {alone} s, {looked_up} s");
        }
        assert_eq!(fall.seconds(40.0, 60.0), Some(0.0), "it is there already");
        assert_eq!(fall.seconds(100.0, 30.0), None, "it was followed no further");
        let warm = Fall::new(draught, &body(), 300.0, 10.0);
        assert_eq!(warm.seconds(300.0, 10.0), None, "colder than the room");
        assert!(warm.seconds(300.0, 30.0).is_some());
    }

    #[test]
    fn out_of_the_heat_it_is_there_already_later_or_never() {
        let still = OutOfHeat { h_w_m2k: 10.0, bare_share: 1.0 };
        assert_eq!(still.seconds(&body(), 250.0, 260.0), Some(0.0));
        assert_eq!(still.seconds(&body(), 300.0, 10.0), None, "colder than the room");
        let bare = still.seconds(&body(), 300.0, 260.0).unwrap();
        let draught = OutOfHeat { h_w_m2k: 25.0, ..still }.seconds(&body(), 300.0, 260.0).unwrap();
        let wrapped = OutOfHeat { bare_share: 0.25, ..still }.seconds(&body(), 300.0, 260.0).unwrap();
        assert!(draught < bare && bare < wrapped);
    }

    #[test]
    fn what_an_oven_gives_in_its_first_moment_is_worked_out_by_hand() {
        // So steep that its air is at 500 degC at once: (293.15² + 773.15²) x 1066.3 x 5.670e-8 = 41.34, of which a
        // share of its emissivity radiates, beside 20 W/m²K of air, over 480 K.
        let oven = OvenRun { set_c: 500.0, ramp_k_per_h: 1e9, most_w: None };
        let into_w = body().surface_m2() * (20.0 + EMISSIVITY * 41.34) * 480.0;
        let by_hand = 20.0 + into_w * 2.0 / (22.0 * body().iron.specific_heat(20.0));
        assert!((in_the_oven_c(&body(), &oven, 2.0) - by_hand).abs() < 1e-3, "{by_hand}");
    }

    #[test]
    fn an_oven_comes_up_from_the_room_with_its_ramp() {
        // By hand: after ten minutes at 36 K/h its air is 6 K over the room, and what lies in it is no hotter.
        let slow = OvenRun { set_c: 500.0, ramp_k_per_h: 36.0, most_w: None };
        let after = in_the_oven_c(&body(), &slow, 600.0);
        assert!(after > 20.0 && after < 26.0, "{after}");
        let cools = OvenRun { set_c: 0.0, ..slow };
        let after = in_the_oven_c(&body(), &cools, 600.0);
        assert!(after > 14.0 && after < 20.0, "{after}");
    }

    #[test]
    fn an_oven_is_left_on_the_second() {
        // By hand: 900 W for 3 s, a whole step of 2 s and half of one.
        let weak = OvenRun { set_c: 500.0, ramp_k_per_h: 1e9, most_w: Some(900.0) };
        let by_hand = 900.0 * 3.0 / (22.0 * body().iron.specific_heat(20.0));
        let rose_k = in_the_oven_c(&body(), &weak, 3.0) - 20.0;
        assert!((rose_k / by_hand - 1.0).abs() < 1e-3, "{rose_k} {by_hand}");
    }

    #[test]
    fn a_part_never_gets_hotter_than_its_oven_and_a_weak_one_takes_longer() {
        let oven = OvenRun { set_c: 300.0, ramp_k_per_h: 300.0, most_w: None };
        assert!(in_the_oven_c(&body(), &oven, 1e5) <= 300.0 + 1e-6);
        let weak = OvenRun { most_w: Some(800.0), ..oven };
        assert!(in_the_oven_c(&body(), &weak, 3600.0) < in_the_oven_c(&body(), &oven, 3600.0));
        assert_eq!(in_the_oven_c(&body(), &oven, 0.0), 20.0);
    }
}
