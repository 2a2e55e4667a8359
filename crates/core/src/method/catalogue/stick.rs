//! What both nickel sticks have in common.

use super::{
    ArcUse, Filling, IRON_MELTS_C, Joins, Method, Most, Practice, Setup, Stands, Start, UsualGroove, by_wall,
};
use crate::casting::old_filler::OldFiller;
use crate::method::{MethodId, School, WindowPosition};
use crate::prep::filler::Filler;
use crate::prep::said::SeamForm;
use crate::quantity::{Unit, UnitSystem};

/// A stick as a method: nothing tells the two apart but their name and what they are made of.
pub(super) const fn method(
    method: MethodId,
    id: &'static str,
    label: &'static str,
    doing: &'static str,
    filler: fn(f64, bool) -> Filler,
) -> Method {
    Method {
        method,
        id,
        label,
        doing,
        leaves: "a little bright",
        joins: Joins::Arc,
        practices: PRACTICES,
        leaves_in: OldFiller::Nickel,
        stands: STANDS,
        efficiency: 0.8,
        groove: Some(GROOVE),
        recommended: true,
        filling: Some(Filling { filler, layer, laid_g_a_min: lays, bead_by_bead: true, over_it: None }),
        arc: Some(ARC),
        setup: SETUP,
        prep: &[],
        at_torch: &["Nickel fume: extraction at the joint, half mask at least. Arc shade 9 to 13."],
        joint_words,
    }
}

/// What a stick lays in g a minute. House.
pub(super) fn lays(rod_mm: f64) -> f64 {
    match rod_mm {
        thin if thin < 3.0 => 10.0,
        usual if usual < 4.0 => 15.0,
        _ => 21.0,
    }
}

/// House: the three schools of the nickel arc.
const PRACTICES: &[Practice] = &[
    Practice {
        school: School::Hot,
        target_c: Some(300.0),
        least_c: Some(260.0),
        most: Most::Over(100.0),
        start: Start::Of(6.5, 3.5),
        fall: 1.0,
    },
    Practice {
        school: School::Warm,
        target_c: Some(150.0),
        least_c: None,
        most: Most::Over(100.0),
        start: Start::Of(6.5, 3.5),
        fall: 1.0,
    },
    super::local(150.0, Start::Of(6.5, 3.5)),
    // Only the chill and the damp are taken off, and nothing is added for wall or shape.
    Practice {
        school: School::Cold,
        target_c: Some(15.0),
        least_c: None,
        most: Most::At(65.0),
        start: Start::Of(6.5, 3.5),
        fall: 1.0,
    },
];

const STANDS: Stands =
    Stands { for_good_c: 600.0, with_caution_c: super::AS_THE_CASTING_C, cycling_c: None, short_c: None };

const GROOVE: UsualGroove =
    UsualGroove { one_side: (SeamForm::U, 70.0), both_sides: (SeamForm::DoubleV, 70.0), through: false };

/// A stick in the size that suits the wall.
///
/// # Source
/// AWS A5.15; recoveries and sizes are house.
pub(super) fn stick(
    class: &'static str,
    name: &'static str,
    (tensile_mpa, yield_mpa): ((f64, f64), f64),
    wall_mm: f64,
) -> Filler {
    Filler {
        class,
        name,
        density_kg_m3: 8300.0,
        recovery: 0.90,
        rod_diameter_mm: by_wall(wall_mm, [2.5, 3.2, 4.0]),
        rod_length_mm: 350.0,
        tensile_mpa,
        yield_mpa: Some(yield_mpa),
    }
}

/// House.
pub(super) fn layer(wall_mm: f64) -> (f64, Option<f64>) {
    by_wall(wall_mm, [(2.0, Some(5.0)), (2.5, Some(7.0)), (3.0, Some(9.0))])
}

/// A nickel stick as it is set.
pub(super) const SETUP: Setup = Setup {
    leads: LEADS,
    gas: "",
    flux: "in the coating; sticks dried one hour at {120 degC}, the maker's figure first",
    fluxed: false,
    tip: |_| "",
    note: "Done cold: the low end of the current.",
    melts_c: IRON_MELTS_C,
};

pub(super) const LEADS: [&str; 3] = [
    "Holder in plus, clamp in minus beside the joint.",
    "Holder in minus, clamp in plus: it digs less and takes up less of the iron.",
    "Alternating, where the box says so.",
];

/// The arc of an ordinary stick. House.
pub(super) const ARC: ArcUse = ArcUse {
    volts: 22.0,
    travel_mm_s: 2.5,
    efficiency: 0.75,
    shield_l_min: None,
    amps: |wall_mm| by_wall(wall_mm, [(55.0, 75.0), (75.0, 105.0), (105.0, 140.0)]),
};

/// What a temperature at the joint means between beads.
pub(super) fn joint_words(celsius: f64, window: Option<(f64, f64)>, units: UnitSystem) -> String {
    match WindowPosition::of(celsius, window) {
        WindowPosition::TooCold => "too cold for the next bead".to_owned(),
        WindowPosition::TooHot => window.map_or(String::new(), |(_, high)| {
            format!("wait until under {}", units.say(high, Unit::Celsius))
        }),
        WindowPosition::InWindow | WindowPosition::NoWindow => "ready for the next bead".to_owned(),
    }
}
