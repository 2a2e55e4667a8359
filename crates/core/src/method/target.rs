//! The preheat a school asks for, given what the iron may be.

use super::{MethodId, Most, School, Way};
use crate::casting::shape::Restraint;
use crate::iron::Iron;
use crate::quantity::{Unit, UnitSystem};

/// What the preheat must be, and why.
#[derive(Debug, Clone, PartialEq)]
pub struct Target {
    pub target_c: f64,
    /// Least at which a bead may begin.
    pub least_c: f64,
    /// Most between beads.
    pub most_c: f64,
    /// The working, line by line.
    pub working: Vec<String>,
    /// An iron that caps the preheat, in degC, where another one in question asks for more.
    pub disagree: Option<(Iron, f64)>,
    /// The iron that raised or capped it, of several in question.
    pub forced_by: Option<Iron>,
    /// Irons without figures of their own.
    pub with_grays_figures: Vec<Iron>,
}

impl Target {
    /// Nothing left on the part may pass `limit_c`: the target gives way down to the least.
    #[must_use]
    pub fn capped(mut self, limit_c: f64) -> Self {
        if self.target_c > limit_c && limit_c >= self.least_c {
            self.target_c = limit_c;
            self.working.push(format!("but no more than {{{limit_c:.0} degC}} for what must stay cool"));
        }
        if self.most_c > limit_c {
            self.most_c = limit_c.max(self.target_c);
        }
        self
    }

    #[must_use]
    pub fn cautions(&self, units: UnitSystem) -> Vec<String> {
        let disagree = self.disagree.map(|(iron, limit)| {
            format!(
                "The irons in question disagree: {} caps the preheat at {}. Settle the iron.",
                iron.label().to_lowercase(),
                units.say_most(limit, Unit::Celsius)
            )
        });
        let gray = self
            .with_grays_figures
            .iter()
            .map(|iron| format!("{} is planned with gray's figures.", iron.label()));
        disagree.into_iter().chain(gray).collect()
    }
}

/// House: no part is planned hotter, since iron's structure changes from about 730 degC.
const MOST_C: f64 = 700.0;
/// House: least and most that Ni-resist is heated to.
const NI_RESIST_C: (f64, f64) = (150.0, 300.0);
/// Published: the trade reference, the braze preheat. The arc itself warms a part under this, in kg.
pub const ARC_ONLY_KG: f64 = 1.0;
/// House: walls up to this one can be gas-welded with a modest heat, in mm.
pub const MODEST_WALL_MM: f64 = 12.0;

impl Most {
    /// In degC, for a target in degC.
    fn between_beads_c(self, target_c: f64) -> f64 {
        match self {
            Self::Over(kelvins) => target_c + kelvins,
            Self::AtLeast(celsius) => celsius.max(target_c),
            Self::At(celsius) => celsius,
        }
    }
}

/// Preheat target of a way for the irons in question.
///
/// The school's figure, raised for what is plausible, +25 K for a wall over 20 mm, +25 K for a
/// closed section or a seam that is held in, neither for the cold school. Least between beads = the target (hot: 260 where that is
/// lower, whole-part gas fusion 550), most = target + 100 K (torch braze 450, whole-part gas fusion 700,
/// cold 65). What must stay cool caps the target as long as the cap is not under the least.
/// `None` for a way without heat, and for a cold school where the iron allows none.
///
/// # Source
/// House, after EN 1011-8 and AWS D11.2.
#[must_use]
pub fn target(way: Way, plausible: &[Iron], wall_mm: Option<f64>, restraint: Restraint) -> Option<Target> {
    let has = |iron| plausible.contains(&iron);
    let practice = way.practice()?;
    let base = practice.target_c?;
    if !way.school.preheats() {
        if way.school == School::Cold && has(Iron::NiResist) {
            return None;
        }
        let most_c = practice.most.between_beads_c(base);
        let working = match way.school {
            School::ArcOnly => format!("Arc only: no preheat, {{{most_c:.0} degC}} at most"),
            _ => format!("Cold: {{{base:.0} to {most_c:.0} degC}}, to take the chill and damp off"),
        };
        return Some(Target {
            target_c: base,
            least_c: practice.least_c.unwrap_or(base),
            most_c,
            working: vec![working],
            disagree: None,
            forced_by: None,
            with_grays_figures: Vec::new(),
        });
    }
    let mut working = vec![format!("{}: {{{base:.0} degC}}", way.label())];
    let mut disagree = None;
    let mut forced_by = None;
    let mut target_c = base;
    // Local as warm, which only the nickel sticks have.
    let as_warm = way.school == School::Local && way.method.schools().any(|school| school == School::Warm);
    let nickel_arc =
        as_warm || matches!(way.school, School::Warm | School::Hot) || way.method == MethodId::TigNickel;
    if nickel_arc && has(Iron::Ductile) {
        target_c += 50.0;
        forced_by = plausible.iter().any(|iron| *iron != Iron::Ductile).then_some(Iron::Ductile);
        working.push("and {50 K} since it may be ductile".to_owned());
    }
    if wall_mm.is_some_and(|wall| wall > 20.0) {
        target_c += 25.0;
        working.push("and {25 K} for a wall over {20 mm}".to_owned());
    }
    let held = match restraint {
        Restraint::Free => None,
        Restraint::Closed => Some("a closed section, which cannot move"),
        Restraint::HeldIn => Some("a seam that the iron round it holds in"),
    };
    if let Some(held) = held {
        target_c += 25.0;
        working.push(format!("and {{25 K}} for {held}"));
    }
    let mut cap = |iron: Iron, limit: f64| {
        if target_c > limit {
            target_c = limit;
            let name = iron.label().to_lowercase();
            working.push(format!("but no more than {{{limit:.0} degC}} since it may be {name}"));
            if plausible.len() > 1 {
                disagree = Some((iron, limit));
                forced_by = Some(iron);
            }
        }
    };
    if way.school == School::Hot && has(Iron::Malleable) {
        cap(Iron::Malleable, 200.0);
    }
    if has(Iron::NiResist) {
        cap(Iron::NiResist, NI_RESIST_C.1);
        if target_c < NI_RESIST_C.0 {
            target_c = NI_RESIST_C.0;
            working.push(format!("but at least {{{target_c:.0} degC}} since it may be ni-resist"));
        }
    }
    target_c = target_c.min(MOST_C);
    let least_c = practice.least_c.map_or(target_c, |least| target_c.min(least));
    let most_c = practice.most.between_beads_c(target_c).min(MOST_C);
    let with_grays_figures = plausible
        .iter()
        .copied()
        .filter(|iron| !iron.has_own_properties() && *iron != Iron::NiResist)
        .collect();
    Some(Target { target_c, least_c, most_c, working, disagree, forced_by, with_grays_figures })
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn of(method: MethodId, school: School, irons: &[Iron], wall: f64, closed: bool) -> (f64, f64) {
        let found = target(Way { method, school }, irons, Some(wall), Restraint::of(closed)).unwrap();
        (found.target_c, found.most_c)
    }

    #[rstest]
    // Hand-worked from the schools' figures: hot 300; ductile + 50; wall over 20 + 25; closed + 25
    #[case::gray(&[Iron::Gray], 12.0, false, (300.0, 400.0))]
    #[case::ductile(&[Iron::Gray, Iron::Ductile], 12.0, false, (350.0, 450.0))]
    #[case::wall_at_twenty(&[Iron::Gray], 20.0, false, (300.0, 400.0))]
    #[case::wall_over_twenty(&[Iron::Gray], 20.1, false, (325.0, 425.0))]
    #[case::closed(&[Iron::Gray], 25.0, true, (350.0, 450.0))]
    #[case::malleable_caps(&[Iron::Ductile, Iron::Malleable], 25.0, true, (200.0, 300.0))]
    fn the_hot_school_follows_the_iron(
        #[case] irons: &[Iron],
        #[case] wall: f64,
        #[case] closed: bool,
        #[case] expected: (f64, f64),
    ) {
        assert_eq!(of(MethodId::ArcNickel, School::Hot, irons, wall, closed), expected);
    }

    #[test]
    fn the_cold_school_is_neither_raised_nor_open_to_ni_resist() {
        let window = of(MethodId::ArcNickel, School::Cold, &[Iron::Ductile], 40.0, true);
        assert_eq!(window, (15.0, 65.0));
        let cold = Way { method: MethodId::ArcNickel, school: School::Cold };
        assert_eq!(target(cold, &[Iron::NiResist], None, Restraint::Free), None);
    }

    #[rstest]
    // Published: the trade reference, windows at the torch
    #[case::hot(MethodId::ArcNickel, School::Hot, &[Iron::Gray], (260.0, 400.0))]
    #[case::hot_capped_under_its_least(MethodId::ArcNickel, School::Hot, &[Iron::Malleable], (200.0, 300.0))]
    #[case::warm(MethodId::ArcNickel, School::Warm, &[Iron::Gray], (150.0, 250.0))]
    #[case::braze(MethodId::TorchBraze, School::WholePart, &[Iron::Gray], (300.0, 450.0))]
    #[case::gas(MethodId::GasIron, School::WholePart, &[Iron::Gray], (550.0, 700.0))]
    #[case::modest(MethodId::GasIron, School::Modest, &[Iron::Gray], (250.0, 350.0))]
    fn each_school_has_its_window(
        #[case] method: MethodId,
        #[case] school: School,
        #[case] irons: &[Iron],
        #[case] window: (f64, f64),
    ) {
        let found = target(Way { method, school }, irons, Some(12.0), Restraint::Free).unwrap();
        assert_eq!((found.least_c, found.most_c), window);
    }

    #[rstest]
    #[case::hot_gives_way(280.0, 280.0, 280.0)]
    #[case::at_its_least(260.0, 260.0, 260.0)]
    #[case::not_under_it(259.0, 300.0, 300.0)]
    #[case::far_over(500.0, 300.0, 400.0)]
    fn what_must_stay_cool_caps_the_hot_school_down_to_its_least(
        #[case] limit_c: f64,
        #[case] target_c: f64,
        #[case] most_c: f64,
    ) {
        let hot = Way { method: MethodId::ArcNickel, school: School::Hot };
        let found = target(hot, &[Iron::Gray], Some(12.0), Restraint::Free).unwrap().capped(limit_c);
        assert_eq!((found.target_c, found.most_c), (target_c, most_c));
    }

    #[rstest]
    // Published: the trade reference, windows at the torch: arc-only braze, most 280, no least
    #[case::silicon(MethodId::TigBrazeSi)]
    #[case::aluminium(MethodId::TigBrazeAl)]
    #[case::wire(MethodId::MigBrazeSi)]
    fn the_arc_alone_has_a_most_and_asks_for_no_preheat(#[case] method: MethodId) {
        let way = Way { method, school: School::ArcOnly };
        let found = target(way, &[Iron::NiResist], Some(40.0), Restraint::HeldIn).unwrap();
        assert!((found.target_c, found.least_c, found.most_c) == (0.0, 0.0, 280.0) && !way.school.preheats());
        // What must stay cool caps what the arc may make of it.
        assert_eq!(found.capped(120.0).most_c, 120.0);
    }

    #[test]
    fn gas_fusion_is_never_planned_over_seven_hundred() {
        assert_eq!(of(MethodId::GasIron, School::WholePart, &[Iron::Gray], 30.0, true), (650.0, 700.0));
    }
}
