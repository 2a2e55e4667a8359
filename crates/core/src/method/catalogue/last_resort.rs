//! A steel stick, where nothing else is at hand.

use super::{ArcUse, Filling, Joins, Method, Most, Practice, Setup, Stands, Start, UsualGroove, stick};
use crate::casting::old_filler::OldFiller;
use crate::method::{MethodId, School};
use crate::prep::filler::Filler;
use crate::prep::said::SeamForm;

pub(super) const METHOD: Method = Method {
    method: MethodId::LastResort,
    id: "last_resort",
    label: "Steel stick, last resort",
    doing: "Weld it with a steel stick",
    leaves: "a hard edge, for a grinder only",
    joins: Joins::Arc,
    practices: &[Practice {
        school: School::WholePart,
        target_c: Some(220.0),
        least_c: None,
        most: Most::Over(100.0),
        start: Start::Of(3.0, 7.0),
        fall: 1.0,
    }],
    leaves_in: OldFiller::Steel,
    stands: Stands { for_good_c: 400.0, with_caution_c: 400.0, cycling_c: None, short_c: None },
    efficiency: 0.8,
    recommended: false,
    groove: Some(UsualGroove {
        one_side: (SeamForm::U, 70.0),
        both_sides: (SeamForm::DoubleV, 70.0),
        through: false,
    }),
    filling: Some(Filling {
        filler,
        layer: |_| (1.5, Some(3.5)),
        laid_g_a_min: stick::lays,
        bead_by_bead: true,
        over_it: None,
    }),
    arc: Some(ArcUse {
        volts: 23.0,
        travel_mm_s: 2.5,
        efficiency: 0.75,
        shield_l_min: None,
        amps: |wall_mm| match wall_mm {
            thin if thin < 3.0 => (20.0, 45.0),
            thin if thin < 5.0 => (40.0, 60.0),
            _ => (50.0, 90.0),
        },
    }),
    setup: Setup {
        flux: "in the coating; E7018 dried one hour at {350 degC}, the maker's figure first",
        fluxed: false,
        note: "E6013 the other way round: holder in minus.",
        ..stick::SETUP
    },
    prep: &["Dry the sticks: E7018 one hour at {350 degC}, the maker's figure first."],
    at_torch: &[
        "A centimetre at a time, peened and brushed: the edge stays too hard for anything but a grinder.",
        "Extraction at the joint, half mask. Arc shade 9 to 13.",
    ],
    joint_words: stick::joint_words,
};

/// # Source
/// House.
fn filler(wall_mm: f64, _ductile: bool) -> Filler {
    Filler {
        class: "E7018",
        name: "steel stick",
        density_kg_m3: 7850.0,
        recovery: 0.90,
        rod_diameter_mm: match wall_mm {
            thin if thin < 3.0 => 1.6,
            thin if thin < 5.0 => 2.0,
            _ => 2.5,
        },
        rod_length_mm: 350.0,
        tensile_mpa: (490.0, 490.0),
        yield_mpa: Some(350.0),
    }
}
