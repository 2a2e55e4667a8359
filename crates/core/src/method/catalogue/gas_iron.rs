//! Gas fusion with an iron rod.

use super::{
    AS_THE_CASTING_C, Filling, Joins, Method, Most, NOTHING_SET, Practice, Setup, Stands, Start, UsualGroove,
};
use crate::casting::old_filler::OldFiller;
use crate::method::{MethodId, School};
use crate::prep::filler::Filler;
use crate::prep::said::SeamForm;

pub(super) const METHOD: Method = Method {
    method: MethodId::GasIron,
    id: "gas_iron",
    label: "Gas fusion, iron rod",
    doing: "Fuse it with the gas torch and iron rod",
    leaves: "matches the casting",
    joins: Joins::Flame,
    practices: &[
        Practice {
            school: School::WholePart,
            target_c: Some(600.0),
            least_c: Some(550.0),
            most: Most::At(700.0),
            start: Start::Of(8.0, 2.0),
            // What was red falls half as fast as what was not.
            fall: 0.5,
        },
        Practice {
            school: School::Modest,
            target_c: Some(250.0),
            least_c: None,
            most: Most::Over(100.0),
            start: Start::Of(6.5, 3.5),
            fall: 1.0,
        },
    ],
    leaves_in: OldFiller::None,
    stands: Stands {
        for_good_c: AS_THE_CASTING_C,
        with_caution_c: AS_THE_CASTING_C,
        cycling_c: None,
        short_c: None,
    },
    efficiency: 0.9,
    recommended: true,
    groove: Some(UsualGroove {
        one_side: (SeamForm::V, 85.0),
        both_sides: (SeamForm::V, 85.0),
        through: true,
    }),
    filling: Some(Filling {
        filler,
        layer: |_| (8.0, None),
        laid_g_a_min: |_| 25.0,
        bead_by_bead: false,
        over_it: None,
    }),
    arc: None,
    setup: Setup {
        gas: "neutral, the inner cone {3 to 6 mm} off and never touching",
        flux: "for welding iron",
        fluxed: true,
        tip: |_| "one size over that for steel of this wall",
        note: "Wash a little of the rod into the groove, wait until the puddle moves as one, then on.",
        ..NOTHING_SET
    },
    prep: &[],
    at_torch: &["Shade 5 to 6, and a lens that cuts the flux glare. Popped twice: stop."],
    joint_words: |_, _, _| "judged by its flow: fill when the iron moves as one".to_owned(),
};

/// # Source
/// AWS A5.15; recovery and rod size are house.
fn filler(wall_mm: f64, ductile: bool) -> Filler {
    Filler {
        class: if ductile { "RCI-B" } else { "RCI" },
        name: "cast-iron gas rod",
        density_kg_m3: 7100.0,
        recovery: 0.95,
        rod_diameter_mm: match wall_mm {
            thin if thin < 6.0 => 5.0,
            thin if thin <= 12.0 => 6.0,
            _ => 8.0,
        },
        rod_length_mm: 600.0,
        tensile_mpa: if ductile { (550.0, 550.0) } else { (140.0, 280.0) },
        yield_mpa: None,
    }
}
