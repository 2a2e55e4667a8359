//! A nickel butter layer over the bond face, then steel wire to build up what is missing.

use super::{Filling, Joins, Method, Most, Practice, Setup, Stands, Start, UsualGroove, stick};
use crate::casting::old_filler::OldFiller;
use crate::method::{MethodId, School};
use crate::prep::filler::Filler;
use crate::prep::said::SeamForm;

pub(super) const METHOD: Method = Method {
    method: MethodId::ButterBuild,
    id: "butter_build",
    label: "Butter and build up",
    doing: "Butter it with nickel and build it up in steel",
    leaves: "a little bright",
    joins: Joins::Arc,
    practices: &[
        Practice {
            school: School::WholePart,
            target_c: Some(180.0),
            least_c: None,
            most: Most::Over(100.0),
            start: Start::Of(6.0, 4.0),
            fall: 1.0,
        },
        super::local(180.0, Start::Of(6.0, 4.0)),
        Practice {
            school: School::Cold,
            target_c: Some(15.0),
            least_c: None,
            most: Most::At(65.0),
            start: Start::Of(6.0, 4.0),
            fall: 1.0,
        },
    ],
    leaves_in: OldFiller::Nickel,
    stands: Stands { for_good_c: 600.0, with_caution_c: 600.0, cycling_c: None, short_c: None },
    efficiency: 0.8,
    recommended: true,
    groove: Some(UsualGroove {
        one_side: (SeamForm::U, 70.0),
        both_sides: (SeamForm::DoubleV, 70.0),
        through: false,
    }),
    filling: Some(Filling {
        filler: |wall_mm, _| stick::stick("ENi-CI", "nickel stick", ((280.0, 450.0), 250.0), wall_mm),
        layer: stick::layer,
        laid_g_a_min: stick::lays,
        bead_by_bead: true,
        over_it: Some(|| Filler {
            class: "ER70S-6",
            name: "steel wire",
            density_kg_m3: 7850.0,
            recovery: 0.95,
            rod_diameter_mm: 0.8,
            rod_length_mm: 0.0,
            tensile_mpa: (480.0, 480.0),
            yield_mpa: Some(350.0),
        }),
    }),
    arc: Some(stick::ARC),
    setup: Setup {
        gas: "for the steel wire: 75/25 or carbon dioxide, 12 l/min",
        note: "Stringers of nickel all over the bond face, then steel wire 0.8 at 90 to 130 A, 17 to 19 V; hand-warm \
               between.",
        ..stick::SETUP
    },
    prep: &["Nickel over the whole bond face first. Steel wire only on the nickel, never on the iron."],
    at_torch: &["Nickel fume: extraction at the joint, half mask at least. Arc shade 9 to 13."],
    joint_words: stick::joint_words,
};
