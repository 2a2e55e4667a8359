//! Reading the heat: which two sticks, and what an infrared gun shows of what the iron is.

use crate::base::choice::choice;
use crate::base::problem::OutOfRange;

/// Two temperature sticks: one that must melt before a bead, one that must not.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sticks {
    pub must_melt_c: Option<f64>,
    pub must_not_melt_c: Option<f64>,
}

/// The two sticks of a set for a target and the most between beads, in degC.
///
/// Must melt: the lowest at or above the target less 10 K that lies under the most. Must not: the lowest at or above the
/// most, 30 K over it at most, else the highest between the target and the most. Never the same one.
///
/// # Source
/// House.
#[must_use]
pub fn sticks(target_c: f64, most_c: f64, ratings_c: &[f64]) -> Sticks {
    /// House: the stick that must melt may lie so far under the target.
    const UNDER_K: f64 = 10.0;
    /// House: the stick that must not melt may lie so far over the most.
    const OVER_K: f64 = 30.0;
    let lowest = |of: &dyn Fn(f64) -> bool| ratings_c.iter().copied().filter(|it| of(*it)).reduce(f64::min);
    let must_melt_c = lowest(&|rating| rating >= target_c - UNDER_K && rating < most_c);
    let over = lowest(&|rating| rating >= most_c && rating <= most_c + OVER_K);
    let between = || {
        let inside = |rating: &f64| *rating > target_c && *rating < most_c && Some(*rating) != must_melt_c;
        ratings_c.iter().copied().filter(inside).reduce(f64::max)
    };
    Sticks { must_melt_c, must_not_melt_c: over.or_else(between) }
}

/// What an instrument of 8 to 14 µm sees of a surface.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Infrared {
    /// As it is set, and as the surface is.
    pub emissivity_set: f64,
    pub emissivity_true: f64,
    /// What the surface mirrors.
    pub reflected_c: f64,
}

choice! {
    /// What an infrared gun reads off.
    pub enum ReadOff {
        Ground = "ground", "Ground bright";
        Machined = "machined", "Machined";
        Skin = "skin", "Cast skin";
        Rusty = "rusty", "Rusty or scaled";
        Soot = "soot", "Soot or heat paint";
    }
}

impl ReadOff {
    /// House.
    #[must_use]
    pub fn emissivity(self) -> f64 {
        match self {
            Self::Ground => 0.25,
            Self::Machined => 0.35,
            Self::Skin => 0.70,
            Self::Rusty => 0.85,
            Self::Soot => 0.95,
        }
    }
}

choice! {
    /// What a pad beside the first one lies on.
    pub enum PadOn {
        Corner = "corner", "Another corner of the part";
        Joint = "joint", "The joint";
        Neighbour = "neighbour", "What must stay cool";
        Air = "air", "The oven's air, or something else";
    }
}

/// House: under this emissivity nobody steers by what the gun shows.
pub const DONT_STEER_UNDER: f64 = 0.5;

/// Radiance of a black body between 8 and 14 µm, in W/m²sr: Planck's law, by Simpson's rule.
fn radiance(celsius: f64) -> f64 {
    /// 2 h c² in W m²: Planck's law, constants of the SI.
    const C1: f64 = 1.191_042_97e-16;
    /// h c / k in m K: Planck's law, constants of the SI.
    const C2: f64 = 1.438_776_88e-2;
    /// House: what an ordinary gun sees, in m.
    const BAND_M: (f64, f64) = (8e-6, 14e-6);
    /// House: parts of the band by Simpson's rule.
    const PARTS: usize = 60;
    let kelvin = celsius + 273.15;
    let at = |wave: f64| C1 / (wave.powi(5) * ((C2 / (wave * kelvin)).exp() - 1.0));
    let step = (BAND_M.1 - BAND_M.0) / PARTS as f64;
    let inner: f64 = (1..PARTS)
        .map(|part| at(BAND_M.0 + step * part as f64) * if part % 2 == 1 { 4.0 } else { 2.0 })
        .sum();
    (at(BAND_M.0) + inner + at(BAND_M.1)) * step / 3.0
}

/// House: temperatures that are looked for, in degC.
const LOOKED_FOR_C: (f64, f64) = (-60.0, 3_000.0);

/// At which temperature a black body gives this radiance; nothing outside what is looked for.
fn black_at(wanted: f64) -> Option<f64> {
    let (mut low, mut high) = LOOKED_FOR_C;
    if !(radiance(low)..=radiance(high)).contains(&wanted) {
        return None;
    }
    // Radiance only grows: halved until a millikelvin is left.
    while high - low > 1e-3 {
        let middle = f64::midpoint(low, high);
        if radiance(middle) < wanted { low = middle } else { high = middle }
    }
    Some(f64::midpoint(low, high))
}

impl Infrared {
    /// # Errors
    /// [`OutOfRange`] for an emissivity that no surface has, or what nothing mirrors.
    pub fn new(emissivity_set: f64, emissivity_true: f64, reflected_c: f64) -> Result<Self, OutOfRange> {
        OutOfRange::check("an emissivity as set", "", (0.1, 1.0), emissivity_set)?;
        OutOfRange::check("an emissivity", "", (0.05, 1.0), emissivity_true)?;
        OutOfRange::check("what it mirrors", "°C", (-40.0, 1_400.0), reflected_c)?;
        Ok(Self { emissivity_set, emissivity_true, reflected_c })
    }

    /// What the surface is when the gun shows this, in degC; nothing where no temperature would show it.
    ///
    /// ε_set B(shown) + (1 − ε_set) B(mirrored) = ε_true B(T) + (1 − ε_true) B(mirrored)
    ///
    /// # Source
    /// Planck's law.
    #[must_use]
    pub fn true_c(&self, shown_c: f64) -> Option<f64> {
        let mirrored = radiance(self.reflected_c);
        let seen = self.emissivity_set * radiance(shown_c) + (1.0 - self.emissivity_set) * mirrored;
        black_at((seen - (1.0 - self.emissivity_true) * mirrored) / self.emissivity_true)
    }

    /// What the gun shows when the surface is so hot, in degC.
    ///
    /// # Source
    /// Planck's law.
    #[must_use]
    pub fn shown_c(&self, true_c: f64) -> Option<f64> {
        let mirrored = radiance(self.reflected_c);
        let seen = self.emissivity_true * radiance(true_c) + (1.0 - self.emissivity_true) * mirrored;
        black_at((seen - (1.0 - self.emissivity_set) * mirrored) / self.emissivity_set)
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use rstest::rstest;

    use super::*;

    #[rstest]
    // Hand-worked by the sentence above the law
    #[case::one_over_the_most(300.0, 400.0, &[93.0, 316.0, 371.0, 427.0], Some(316.0), Some(427.0))]
    #[case::too_far_over(300.0, 396.0, &[316.0, 371.0, 427.0], Some(316.0), Some(371.0))]
    #[case::never_the_same(300.0, 400.0, &[316.0], Some(316.0), None)]
    #[case::a_little_under_the_target(300.0, 400.0, &[290.0], Some(290.0), None)]
    #[case::too_far_under(300.0, 400.0, &[289.0], None, None)]
    fn the_sticks_are_chosen_from_what_is_there(
        #[case] target: f64,
        #[case] most: f64,
        #[case] ratings: &[f64],
        #[case] melts: Option<f64>,
        #[case] stays: Option<f64>,
    ) {
        let found = sticks(target, most, ratings);
        assert_eq!((found.must_melt_c, found.must_not_melt_c), (melts, stays));
    }

    #[rstest]
    // Planck's law from 8 to 14 µm, added up elsewhere in two thousand parts
    #[case(20.0, 49.372_895)]
    #[case(100.0, 136.778_339)]
    #[case(400.0, 824.438_393)]
    #[case(900.0, 2_573.832_254)]
    fn a_black_body_shines_by_plancks_law(#[case] celsius: f64, #[case] watts: f64) {
        assert!((radiance(celsius) / watts - 1.0).abs() < 1e-5, "{}", radiance(celsius));
    }

    proptest! {
        #[test]
        fn what_is_aimed_at_is_what_is_read(
            set in 0.2..1.0f64, own in 0.2..1.0f64, mirrors in 0.0..40.0f64, hot in 60.0..600.0f64
        ) {
            let gun = Infrared::new(set, own, mirrors).unwrap();
            let shown = gun.shown_c(hot).unwrap();
            prop_assert!((gun.true_c(shown).unwrap() - hot).abs() < 0.1);
        }

        #[test]
        fn a_gun_set_to_the_surface_shows_what_it_is(own in 0.2..1.0f64, hot in 0.0..900.0f64) {
            let gun = Infrared::new(own, own, 20.0).unwrap();
            prop_assert!((gun.shown_c(hot).unwrap() - hot).abs() < 0.01);
        }
    }

    #[test]
    fn a_surface_that_no_gun_reads_is_refused() {
        assert!(Infrared::new(0.95, 0.0, 20.0).is_err());
        assert!(Infrared::new(1.2, 0.5, 20.0).is_err());
    }
}
