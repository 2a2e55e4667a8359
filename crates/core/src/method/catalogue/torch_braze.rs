//! Torch braze, low-fuming bronze.

use super::{Filling, Joins, Method, Most, NOTHING_SET, Practice, Setup, Stands, Start, UsualGroove};
use crate::casting::old_filler::OldFiller;
use crate::method::{MethodId, School};
use crate::prep::filler::Filler;
use crate::prep::said::SeamForm;
use crate::quantity::{Unit, UnitSystem};

pub(super) const METHOD: Method = Method {
    method: MethodId::TorchBraze,
    id: "torch_braze",
    label: "Torch braze",
    doing: "Braze it with the torch",
    leaves: "bronze shows unless it is painted",
    joins: Joins::Bronze,
    practices: &[
        Practice {
            school: School::WholePart,
            target_c: Some(300.0),
            least_c: None,
            most: Most::AtLeast(450.0),
            start: Start::Of(8.0, 2.0),
            fall: 1.0,
        },
        super::local(300.0, Start::Of(8.0, 2.0)),
    ],
    leaves_in: OldFiller::Bronze,
    stands: Stands { for_good_c: 200.0, with_caution_c: 200.0, cycling_c: None, short_c: Some(260.0) },
    efficiency: 0.8,
    recommended: true,
    groove: Some(UsualGroove {
        one_side: (SeamForm::U, 80.0),
        both_sides: (SeamForm::DoubleV, 70.0),
        through: false,
    }),
    filling: Some(Filling {
        filler,
        layer: |_| (4.0, None),
        laid_g_a_min: |_| 20.0,
        bead_by_bead: false,
        over_it: None,
    }),
    arc: None,
    setup: Setup {
        gas: "neutral to slightly oxidising",
        flux: "for brazing iron, on the hot rod",
        fluxed: true,
        tip: |wall_mm| match wall_mm {
            thin if thin < 3.0 => "small",
            thin if thin <= 8.0 => "medium",
            _ => "large",
        },
        note: "Heat the part with the heating tip and fill with a smaller one: the large one blows the filler about.",
        ..NOTHING_SET
    },
    prep: &["Sear the ground faces with an oxidising flame: smeared graphite keeps bronze off."],
    at_torch: &["White smoke is zinc: extraction, half mask. Brazing shade 3 to 4."],
    joint_words,
};

/// House: bronze is tried at dull cherry, runs at cherry, and boils off its zinc over that, in degC.
const TRY_C: f64 = 700.0;
const RUNS_C: f64 = 880.0;
const BOILS_C: f64 = 950.0;

/// # Source
/// AWS A5.15; recovery and rod size are house.
fn filler(wall_mm: f64, _ductile: bool) -> Filler {
    Filler {
        class: "RBCuZn-C",
        name: "low-fuming bronze rod",
        density_kg_m3: 8500.0,
        recovery: 0.95,
        rod_diameter_mm: match wall_mm {
            thin if thin < 3.0 => 1.6,
            thin if thin <= 8.0 => 2.4,
            _ => 3.2,
        },
        rod_length_mm: 900.0,
        tensile_mpa: (350.0, 400.0),
        yield_mpa: Some(150.0),
    }
}

fn joint_words(celsius: f64, _window: Option<(f64, f64)>, units: UnitSystem) -> String {
    let say = |celsius| units.say(celsius, Unit::Celsius);
    if celsius < TRY_C {
        format!("too cold to braze: dull cherry, {}, before the rod touches it", say(TRY_C))
    } else if celsius < RUNS_C {
        format!("touch the rod to it; bronze runs at cherry, from {}", say(RUNS_C))
    } else if celsius <= BOILS_C {
        "bronze runs".to_owned()
    } else {
        "too hot: the zinc boils off, back off".to_owned()
    }
}
