//! What a part is at from moment to moment: one lump, by the state of heat it is in.

use super::OutOfHeat;
use super::lump::EMISSIVITY;
use crate::sim::{BarPower, STEFAN_BOLTZMANN, ThermalBody, ZERO_C};

/// The state of heat a part is in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Burning {
    /// Nothing heats it: out of the heat, the flame off.
    Off,
    /// The flame over the whole part: towards `to_c`, and held there.
    Whole { net_w: f64, to_c: f64 },
    /// The flame held on it, taken back as far as it goes.
    Held { net_w: f64 },
    /// It lies in an oven or a fire that is at this.
    Oven { set_c: f64, most_w: f64 },
    /// Kept as warm as it is over a break or a night.
    Kept,
}

/// House: the smallest steady flame, of its full net power.
pub const SMALLEST_FLAME: f64 = 0.2;
/// House: what an oven's air gives, in W/m²K.
const OVEN_H_W_M2K: f64 = 20.0;

impl Burning {
    /// As a source heats a part to a target.
    #[must_use]
    pub fn by(power: BarPower, to_c: f64) -> Self {
        match power {
            BarPower::Flame { .. } => Self::Whole { net_w: power.net_w(), to_c },
            // Its program brings it there, and then back to the target for the soak.
            BarPower::Oven { set, most, .. } => {
                Self::Oven { set_c: set.celsius().min(to_c), most_w: most.watts() }
            }
            BarPower::Surroundings(at) => Self::Oven { set_c: at.celsius(), most_w: f64::INFINITY },
        }
    }

    /// What the part gains, in W: what is given less what it loses.
    ///
    /// # Source
    /// A lump that takes up and loses heat (law); its figures are house.
    fn gains_w(self, body: &ThermalBody, still: OutOfHeat, bulk_c: f64) -> f64 {
        let loses_w = still.loss_w(body, bulk_c);
        // What it loses, as far as the flame goes.
        let held_w = |net_w: f64| loses_w.clamp(SMALLEST_FLAME * net_w, net_w);
        match self {
            Self::Off => -loses_w,
            Self::Whole { net_w, to_c } if bulk_c < to_c => net_w - loses_w,
            Self::Whole { net_w, .. } | Self::Held { net_w } => held_w(net_w) - loses_w,
            Self::Oven { set_c, most_w } => {
                let radiates = (set_c + ZERO_C).powi(4) - (bulk_c + ZERO_C).powi(4);
                let into_w = body.surface_m2()
                    * (OVEN_H_W_M2K * (set_c - bulk_c) + EMISSIVITY * STEFAN_BOLTZMANN * radiates);
                into_w.min(most_w)
            }
            Self::Kept => 0.0,
        }
    }
}

/// A part as one lump on its clock.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Running<'a> {
    pub body: &'a ThermalBody,
    /// Of its surface, where nothing covers it: 1, or what a cover leaves bare.
    pub bare_share: f64,
    pub bulk_c: f64,
}

impl Running<'_> {
    pub(super) fn still(&self) -> OutOfHeat {
        OutOfHeat { h_w_m2k: 10.0, bare_share: self.bare_share }
    }

    /// So many seconds in a state of heat, with so much more given by an arc.
    pub fn step(&mut self, seconds: f64, burning: Burning, arc_w: f64) {
        let holds = self.body.mass.kilograms() * self.body.iron.specific_heat(self.bulk_c);
        let gains_w = burning.gains_w(self.body, self.still(), self.bulk_c) + arc_w;
        self.bulk_c += gains_w * seconds / holds;
    }
}

/// States of heat on a clock in s, the first first.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Burnt(Vec<(f64, Burning)>);

impl Burnt {
    /// In the order in which they began; whatever came before the first, nothing heated it.
    #[must_use]
    pub fn new(mut states: Vec<(f64, Burning)>) -> Self {
        states.sort_by(|a, b| a.0.total_cmp(&b.0));
        Self(states)
    }

    /// At a time.
    #[must_use]
    pub fn at(&self, seconds: f64) -> Burning {
        let so_far = self.0.iter().take_while(|(from_s, _)| *from_s <= seconds + 1e-9);
        so_far.last().map_or(Burning::Off, |(_, state)| *state)
    }

    /// When the next begins after a time.
    pub(super) fn next_after(&self, seconds: f64) -> f64 {
        let after = self.0.iter().map(|(from_s, _)| *from_s).find(|from_s| *from_s > seconds + 1e-9);
        after.unwrap_or(f64::INFINITY)
    }

    /// The same on a clock that begins then.
    #[must_use]
    pub fn since(&self, from_s: f64) -> Self {
        Self(self.0.iter().map(|(at_s, state)| (at_s - from_s, *state)).collect())
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use rstest::rstest;

    use super::*;
    use crate::iron::Iron;
    use crate::quantity::{Celsius, Kilograms, Millimetres};

    fn body() -> ThermalBody {
        let mm = |value| Millimetres::new(value).unwrap();
        let (mass, ambient) = (Kilograms::new(22.0).unwrap(), Celsius::new(20.0).unwrap());
        ThermalBody::new(Iron::Gray.properties(), mass, (mm(420.0), mm(300.0), mm(220.0)), 1.0, ambient)
            .unwrap()
    }

    fn after(bulk_c: f64, seconds: u32, burning: Burning) -> f64 {
        let body = body();
        let mut part = Running { body: &body, bare_share: 1.0, bulk_c };
        (0..seconds).for_each(|_| part.step(1.0, burning, 0.0));
        part.bulk_c
    }

    #[test]
    fn out_of_the_heat_it_falls_as_published() {
        // Published: the trade reference, example of out-of-heat: 300 to 260 in 124.8 s in still air
        let fallen = after(300.0, 125, Burning::Off);
        assert!((fallen - 260.0).abs() < 0.5, "{fallen}");
    }

    #[test]
    fn an_oven_gives_by_what_it_stands_over_the_part() {
        // By hand at 200 in 300 degC: 20 x 100, and 5.6704e-8 x (573.15⁴ - 473.15⁴) = 3277.2 of which its skin takes 0.8.
        let still = OutOfHeat { h_w_m2k: 10.0, bare_share: 1.0 };
        let oven = |most_w: f64| Burning::Oven { set_c: 300.0, most_w };
        let each_m2 = oven(1e9).gains_w(&body(), still, 200.0) / body().surface_m2();
        assert!((each_m2 - (2_000.0 + EMISSIVITY * 3_277.2)).abs() < 1.0, "{each_m2}");
        assert_eq!(oven(50.0).gains_w(&body(), still, 200.0), 50.0);
    }

    #[rstest]
    #[case::whole(Burning::Whole { net_w: 8_000.0, to_c: 300.0 })]
    #[case::held(Burning::Held { net_w: 8_000.0 })]
    #[case::kept(Burning::Kept)]
    fn under_a_flame_it_does_not_fall(#[case] burning: Burning) {
        assert!(after(300.0, 1_200, burning) >= 300.0 - 1e-6);
    }

    #[test]
    fn a_flame_brings_it_there_and_holds_it_there() {
        let burning = Burning::Whole { net_w: 8_000.0, to_c: 300.0 };
        let there = after(200.0, 1_200, burning);
        assert!((300.0..306.0).contains(&there), "{there}");
    }

    #[test]
    fn a_flame_that_gives_less_than_it_loses_does_not_hold_it() {
        assert!(after(300.0, 600, Burning::Held { net_w: 500.0 }) < 290.0);
    }

    #[test]
    fn the_smallest_steady_flame_of_a_strong_torch_warms_a_part_that_loses_less() {
        // A fifth of 60 kW is 12 kW; at 300 degC it loses some 4.
        assert!(after(300.0, 60, Burning::Held { net_w: 60_000.0 }) > 330.0);
    }

    #[test]
    fn an_oven_brings_it_to_what_it_is_set_to_and_no_faster_than_it_can() {
        let set = |most_w| Burning::Oven { set_c: 260.0, most_w };
        let there = after(20.0, 36_000, set(8_000.0));
        assert!((there - 260.0).abs() < 0.5, "{there}");
        // Hand-worked: 2.5 kW for 60 s into 22 kg at 429.3 J/kgK, that of 28 degC: 15.88 K
        let weak = after(20.0, 60, set(2_500.0));
        assert!((weak - 35.88).abs() < 0.02, "{weak}");
        assert!(after(400.0, 600, set(8_000.0)) < 400.0, "what is hotter cools in it");
    }

    #[test]
    fn what_heats_it_is_what_was_said_last() {
        let burnt = Burnt::new(vec![(600.0, Burning::Off), (0.0, Burning::Kept)]);
        assert_eq!(burnt.at(599.0), Burning::Kept);
        assert_eq!((burnt.at(600.0), burnt.at(-1.0)), (Burning::Off, Burning::Off));
        assert_eq!((burnt.next_after(0.0), burnt.next_after(600.0)), (600.0, f64::INFINITY));
        assert_eq!(burnt.since(600.0).at(-1.0), Burning::Kept);
    }

    proptest! {
        #[test]
        fn more_flame_never_leaves_it_colder(
            bulk_c in 20.0..600.0f64, net_w in 0.0..20_000.0f64, more in 0.0..20_000.0f64
        ) {
            let after = |net_w: f64| after(bulk_c, 30, Burning::Held { net_w });
            prop_assert!(after(net_w + more) >= after(net_w) - 1e-9);
            prop_assert!(after(net_w) >= after_off(bulk_c));
        }
    }

    fn after_off(bulk_c: f64) -> f64 {
        after(bulk_c, 30, Burning::Off)
    }
}
