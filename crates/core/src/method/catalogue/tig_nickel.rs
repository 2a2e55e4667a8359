//! TIG with a nickel or nickel-iron rod.

use super::{
    ArcUse, Filling, IRON_MELTS_C, Joins, Method, Most, Practice, Setup, Stands, Start, UsualGroove, by_wall,
    tig_lays,
};
use crate::casting::old_filler::OldFiller;
use crate::method::{MethodId, School};
use crate::prep::filler::Filler;
use crate::prep::said::SeamForm;

pub(super) const METHOD: Method = Method {
    method: MethodId::TigNickel,
    id: "tig_nickel",
    label: "TIG, nickel rod",
    doing: "Weld it with TIG and nickel rod",
    leaves: "a little bright",
    joins: Joins::Arc,
    practices: &[
        Practice {
            school: School::WholePart,
            target_c: Some(250.0),
            least_c: None,
            most: Most::Over(100.0),
            start: Start::Of(6.5, 3.5),
            fall: 1.0,
        },
        super::local(250.0, Start::Of(6.5, 3.5)),
    ],
    leaves_in: OldFiller::Nickel,
    stands: Stands {
        for_good_c: 600.0,
        with_caution_c: super::AS_THE_CASTING_C,
        cycling_c: None,
        short_c: None,
    },
    efficiency: 0.8,
    recommended: true,
    groove: Some(UsualGroove {
        one_side: (SeamForm::U, 70.0),
        both_sides: (SeamForm::DoubleV, 70.0),
        through: false,
    }),
    filling: Some(Filling {
        filler,
        layer: |_| (2.0, Some(5.0)),
        laid_g_a_min: tig_lays,
        bead_by_bead: true,
        over_it: None,
    }),
    arc: Some(TIG),
    setup: Setup {
        leads: ["Torch in minus, clamp in plus.", "", ""],
        gas: "argon, 8 to 12 l/min, flows on for 8 to 12 s",
        flux: "",
        fluxed: false,
        tip: super::arc_bronze::tungsten,
        note: "Keep a third more on the pedal in reserve.",
        melts_c: IRON_MELTS_C,
    },
    prep: &["Degrease and bake it dry: TIG has no flux to float dirt out."],
    at_torch: &[
        "Nickel fume: extraction without a draught on the argon, half mask. Arc shade 9 to 13.",
        "Argon on for 8 to 12 s after the arc. In a pit or a hollow it displaces the air.",
    ],
    joint_words: super::stick::joint_words,
};

/// The ordinary TIG arc on iron. House.
const TIG: ArcUse = ArcUse {
    volts: 13.0,
    travel_mm_s: 1.5,
    efficiency: 0.6,
    shield_l_min: Some(10.0),
    amps: |wall_mm| by_wall(wall_mm, [(60.0, 90.0), (90.0, 140.0), (140.0, 190.0)]),
};

/// # Source
/// AWS A5.15; recoveries and sizes are house.
fn filler(wall_mm: f64, ductile: bool) -> Filler {
    let (class, name, tensile_mpa, yield_mpa) = match ductile {
        true => ("ERNiFeMn-CI", "nickel-iron TIG rod", (520.0, 690.0), 300.0),
        false => ("ERNi-CI", "nickel TIG rod", (280.0, 450.0), 250.0),
    };
    Filler {
        class,
        name,
        density_kg_m3: 8300.0,
        recovery: 0.95,
        rod_diameter_mm: by_wall(wall_mm, [1.6, 2.4, 3.2]),
        rod_length_mm: 900.0,
        tensile_mpa,
        yield_mpa: Some(yield_mpa),
    }
}
