//! Wire braze, silicon bronze.

use super::{ArcUse, Filling, Joins, Method, Most, Practice, Stands, Start, UsualGroove, by_wall};
use crate::filler::Filler;
use crate::method::{MethodId, School};

pub(super) const METHOD: Method = Method {
    method: MethodId::MigBrazeSi,
    id: "mig_braze_si",
    label: "Wire braze, silicon bronze",
    doing: "Braze it with the wire and silicon bronze",
    leaves: "bronze shows unless it is painted",
    joins: Joins::ArcBronze,
    practices: &[Practice {
        school: School::WholePart,
        target_c: Some(180.0),
        least_c: None,
        most: Most::Over(100.0),
        start: Start::Of(6.0, 4.0),
        fall: 1.0,
    }],
    stands: Stands { for_good_c: 250.0, with_caution_c: 250.0, cycling_c: None, short_c: None },
    efficiency: 0.8,
    recommended: true,
    groove: Some(UsualGroove { one_side: ("U", 80.0), both_sides: ("double_V", 70.0), through: false }),
    filling: Some(Filling { filler, layer: |_| (2.5, Some(6.0)), laid_g_a_min: None }),
    arc: Some(ArcUse {
        volts: 18.0,
        travel_mm_s: 5.0,
        efficiency: 0.8,
        amps: |wall_mm| by_wall(wall_mm, [(80.0, 115.0), (100.0, 130.0), (130.0, 160.0)]),
    }),
    prep: &["Chip or sear the ground faces: nothing but clean iron wets without flux."],
    at_torch: &[
        "Pure argon, 12 to 16 l/min. Cut the ball off the wire before each start.",
        "Copper fume: extraction without a draught on the argon, half mask. Arc shade 9 to 13.",
    ],
    joint_words: super::stick::joint_words,
};

/// # Source
/// AWS A5.7; recoveries and sizes are house.
fn filler(wall_mm: f64, _ductile: bool) -> Filler {
    Filler {
        class: "ERCuSi-A",
        name: "silicon bronze wire",
        density_kg_m3: 8500.0,
        recovery: 0.93,
        rod_diameter_mm: by_wall(wall_mm, [0.8, 0.8, 1.0]),
        rod_length_mm: 0.0,
        tensile_mpa: (345.0, 345.0),
    }
}
