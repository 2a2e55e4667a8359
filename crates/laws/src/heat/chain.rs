//! The way down in steps: post-heat, a tapered flame, the oven, a dying fire, the packing, still air.

use super::Wrapping;
use super::cooling::{outer, shells};
use super::lump::{EMISSIVITY, OutOfHeat};
use crate::sim::{Cools, Lump, STEFAN_BOLTZMANN, ThermalBody, ZERO_C};

/// A step of the way down; it begins where the one before it ended.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum ChainStep {
    /// Brought to this and held there.
    PostHeat { to_c: f64, minutes: f64 },
    /// The flame gives what the part loses at the start, and falls in a straight line to nothing.
    Taper { minutes: f64 },
    /// In an oven at this.
    Oven { at_c: f64, hours: f64 },
    /// In a fire that goes out.
    DyingFire { time_constant_h: f64, hours: f64 },
    /// An oven that comes down with a ramp.
    OvenRamp { to_c: f64, k_per_h: f64 },
    /// In its packing, which is as warm as the shop or warmed to this.
    Packed { wrapping: Wrapping, hours: f64, packing_c: Option<f64> },
    /// In still air.
    Air { hours: f64 },
}

/// House: convection in an oven and over a fire, W/m²K.
const HOT_AIR_H: f64 = 20.0;
const STEP_S: f64 = 2.0;

impl ChainStep {
    /// How long it lasts from a temperature on, in s.
    #[must_use]
    pub fn seconds(&self, from_c: f64) -> f64 {
        match *self {
            Self::PostHeat { minutes, .. } | Self::Taper { minutes } => minutes * 60.0,
            Self::Oven { hours, .. }
            | Self::DyingFire { hours, .. }
            | Self::Packed { hours, .. }
            | Self::Air { hours } => hours * 3600.0,
            Self::OvenRamp { to_c, k_per_h } => ((from_c - to_c) / k_per_h).max(0.0) * 3600.0,
        }
    }
}

/// What one step of the way down did.
#[derive(Debug, Clone, PartialEq)]
pub struct Descent {
    pub ends_c: f64,
    pub lasts_s: f64,
    /// (s from the beginning of the step, degC), one a minute or so, first its start and last its end.
    pub curve: Vec<(f64, f64)>,
}

/// The part down a chain of steps, as one lump in all of them.
///
/// # Source
/// A lump that loses heat, conduction in a shell (law); its figures are house.
#[must_use]
pub fn cooling_chain(body: &ThermalBody, start_c: f64, steps: &[ChainStep]) -> Vec<Descent> {
    let mut at_c = start_c;
    let mut done = Vec::with_capacity(steps.len());
    for step in steps {
        let descent = descent(body, at_c, step);
        at_c = descent.ends_c;
        done.push(descent);
    }
    done
}

fn descent(body: &ThermalBody, start_c: f64, step: &ChainStep) -> Descent {
    let lasts_s = step.seconds(start_c);
    let ambient_c = body.ambient.celsius();
    match *step {
        ChainStep::PostHeat { to_c, .. } => Descent {
            ends_c: to_c,
            lasts_s,
            curve: vec![(0.0, start_c), (lasts_s.min(60.0), to_c), (lasts_s, to_c)],
        },
        ChainStep::Taper { .. } => {
            const STILL: OutOfHeat = OutOfHeat { h_w_m2k: 10.0, bare_share: 1.0 };
            let full_w = STILL.loss_w(body, start_c);
            lumped(body, start_c, lasts_s, |at_c, time_s| {
                full_w * (1.0 - time_s / lasts_s) - STILL.loss_w(body, at_c)
            })
        }
        ChainStep::Oven { at_c: oven_c, .. } => {
            lumped(body, start_c, lasts_s, |at_c, _| taken_w(body, at_c, oven_c))
        }
        ChainStep::DyingFire { time_constant_h, .. } => lumped(body, start_c, lasts_s, |at_c, time_s| {
            let left = (-time_s / 3600.0 / time_constant_h).exp();
            taken_w(body, at_c, ambient_c + (start_c - ambient_c) * left)
        }),
        ChainStep::OvenRamp { k_per_h, to_c } => lumped(body, start_c, lasts_s, |at_c, time_s| {
            taken_w(body, at_c, (start_c - k_per_h * time_s / 3600.0).max(to_c))
        }),
        ChainStep::Packed { wrapping, packing_c, .. } => {
            match shells(body, start_c, &wrapping, 1.0, packing_c.unwrap_or(ambient_c)) {
                Some(shells) => stepped(shells, lasts_s),
                None => stepped(Lump::new(body, start_c, outer(&wrapping)), lasts_s),
            }
        }
        ChainStep::Air { .. } => {
            stepped(Lump::new(body, start_c, outer(&Wrapping::usual(super::Packing::Air))), lasts_s)
        }
    }
}

/// What an oven or a fire gives the part, in W; under 0 where the part is the hotter.
fn taken_w(body: &ThermalBody, at_c: f64, surroundings_c: f64) -> f64 {
    let (t, s) = (at_c + ZERO_C, surroundings_c + ZERO_C);
    let h = HOT_AIR_H + EMISSIVITY * STEFAN_BOLTZMANN * (t * t + s * s) * (t + s);
    body.surface_m2() * h * (surroundings_c - at_c)
}

fn lumped(body: &ThermalBody, start_c: f64, lasts_s: f64, watts: impl Fn(f64, f64) -> f64) -> Descent {
    let (mut at_c, mut time_s) = (start_c, 0.0);
    let mut curve = vec![(0.0, start_c)];
    while time_s < lasts_s - 1e-9 {
        let step_s = STEP_S.min(lasts_s - time_s);
        let heat = body.mass.kilograms() * body.iron.specific_heat(at_c);
        // Taken in the middle of the step: a straight line of the surroundings has no lag.
        at_c += watts(at_c, time_s + step_s / 2.0) * step_s / heat;
        time_s += step_s;
        keep(&mut curve, time_s, at_c);
    }
    end(curve, lasts_s, at_c)
}

fn stepped<C: Cools>(mut cools: C, lasts_s: f64) -> Descent {
    let mut curve = vec![(0.0, cools.core_c())];
    let (mut time_s, mut before_c) = (0.0, cools.core_c());
    while time_s < lasts_s - 1e-9 {
        before_c = cools.core_c();
        cools.step(1.0);
        time_s += C::STEP_S;
        if time_s < lasts_s {
            keep(&mut curve, time_s, cools.core_c());
        }
    }
    // The last step may reach over the end: between, it is taken straight.
    let part = if time_s > 0.0 { 1.0 - (time_s - lasts_s) / C::STEP_S } else { 1.0 };
    let ends_c = before_c + (cools.core_c() - before_c) * part;
    end(curve, lasts_s, ends_c)
}

/// A point a minute.
fn keep(curve: &mut Vec<(f64, f64)>, time_s: f64, at_c: f64) {
    /// House: a point a minute is enough of a curve, in s.
    const EVERY_S: f64 = 60.0;
    if curve.last().is_none_or(|(last_s, _)| time_s - last_s >= EVERY_S) {
        curve.push((time_s, at_c));
    }
}

fn end(mut curve: Vec<(f64, f64)>, lasts_s: f64, ends_c: f64) -> Descent {
    curve.push((lasts_s, ends_c));
    Descent { ends_c, lasts_s, curve }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::heat::Packing;
    use crate::iron::Iron;
    use crate::quantity::{Celsius, Kilograms, Millimetres};

    fn body(iron: Iron, kg: f64, [l, w, h]: [f64; 3], factor: f64, ambient_c: f64) -> ThermalBody {
        let mm = |value| Millimetres::new(value).unwrap();
        let ambient = Celsius::new(ambient_c).unwrap();
        ThermalBody::new(
            iron.properties(),
            Kilograms::new(kg).unwrap(),
            (mm(l), mm(w), mm(h)),
            factor,
            ambient,
        )
        .unwrap()
    }

    fn packed(packing: Packing, thickness_m: f64, hours: f64, packing_c: Option<f64>) -> ChainStep {
        ChainStep::Packed { wrapping: Wrapping::new(packing, thickness_m).unwrap(), hours, packing_c }
    }

    #[rstest]
    // Published: the trade reference, examples of cooling-chain, within 1.5 K
    #[case::post_heat_and_all_after_it(
        body(Iron::Gray, 22.0, [420.0, 300.0, 220.0], 1.0, 20.0),
        280.0,
        vec![
            ChainStep::PostHeat { to_c: 330.0, minutes: 15.0 },
            ChainStep::Taper { minutes: 12.0 },
            ChainStep::Oven { at_c: 120.0, hours: 6.0 },
            packed(Packing::Blanket, 0.025, 1.0, None),
            ChainStep::Air { hours: 0.5 },
        ],
        &[330.0, 230.7, 120.0, 72.6, 29.7]
    )]
    #[case::a_ramp_and_warmed_sand(
        body(Iron::Gray, 9.0, [400.0, 250.0, 50.0], 1.3, 20.0),
        600.0,
        vec![ChainStep::OvenRamp { to_c: 200.0, k_per_h: 100.0 }, packed(Packing::DrySand, 0.1, 2.0, Some(100.0))],
        &[208.9, 101.1]
    )]
    #[case::a_stove_that_goes_out(
        body(Iron::Malleable, 4.0, [250.0, 100.0, 80.0], 1.0, 15.0),
        240.0,
        vec![ChainStep::DyingFire { time_constant_h: 1.5, hours: 3.0 }],
        &[49.5]
    )]
    fn a_chain_ends_as_published(
        #[case] body: ThermalBody,
        #[case] start_c: f64,
        #[case] steps: Vec<ChainStep>,
        #[case] ends_c: &[f64],
    ) {
        let found = cooling_chain(&body, start_c, &steps);
        assert_eq!(found.len(), ends_c.len());
        for (descent, expected) in found.iter().zip(ends_c) {
            assert!((descent.ends_c - expected).abs() < 1.5, "{} for {expected}", descent.ends_c);
            assert_eq!(descent.curve.last(), Some(&(descent.lasts_s, descent.ends_c)));
        }
    }

    /// It falls a kelvin each step.
    struct Falling(f64);

    impl Cools for Falling {
        const STEP_S: f64 = 20.0;

        fn step(&mut self, loss_factor: f64) {
            self.0 -= loss_factor;
        }

        fn core_c(&self) -> f64 {
            self.0
        }
    }

    #[test]
    fn a_last_step_that_reaches_over_the_end_is_taken_straight_and_a_point_is_kept_each_minute() {
        // By hand: 130 s are six steps of 20 s and half of a seventh.
        let found = stepped(Falling(100.0), 130.0);
        assert_eq!(found.ends_c, 93.5);
        assert_eq!(found.curve, [(0.0, 100.0), (60.0, 97.0), (120.0, 94.0), (130.0, 93.5)]);
        // A minute to the second is its end, and there once.
        assert_eq!(stepped(Falling(100.0), 60.0).curve, [(0.0, 100.0), (60.0, 97.0)]);
    }

    #[test]
    fn what_is_given_and_lost_is_taken_in_the_middle_of_each_step() {
        let times = std::cell::RefCell::new(Vec::new());
        let casting = body(Iron::Gray, 22.0, [420.0, 300.0, 220.0], 1.0, 20.0);
        let still = lumped(&casting, 280.0, 7.0, |_, time_s| {
            times.borrow_mut().push(time_s);
            0.0
        });
        assert_eq!(*times.borrow(), [1.0, 3.0, 5.0, 6.5]);
        assert_eq!(still.curve, [(0.0, 280.0), (7.0, 280.0)]);
        // By hand: 1000 W for 7 s into 22 kg, whose heat hardly changes over a kelvin.
        let warmed = lumped(&casting, 280.0, 7.0, |_, _| 1_000.0).ends_c - 280.0;
        let by_hand = 1_000.0 * 7.0 / (22.0 * casting.iron.specific_heat(280.0));
        assert!((warmed / by_hand - 1.0).abs() < 1e-3, "{warmed} {by_hand}");
    }

    #[test]
    fn a_step_of_no_time_changes_nothing_and_warm_sand_chills_less() {
        let casting = body(Iron::Gray, 22.0, [420.0, 300.0, 220.0], 1.0, 20.0);
        for step in [
            ChainStep::Air { hours: 0.0 },
            ChainStep::Taper { minutes: 0.0 },
            packed(Packing::Lime, 0.1, 0.0, None),
        ] {
            assert_eq!(cooling_chain(&casting, 280.0, &[step])[0].ends_c, 280.0);
        }
        let after =
            |sand_c| cooling_chain(&casting, 280.0, &[packed(Packing::DrySand, 0.15, 1.0, sand_c)])[0].ends_c;
        assert!(after(Some(100.0)) > after(None) + 20.0);
    }
}
