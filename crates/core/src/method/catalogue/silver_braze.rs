//! Silver braze without cadmium, in a lap.

use super::{Filling, Joins, Method, Most, NOTHING_SET, Practice, Setup, Stands, Start};
use crate::casting::old_filler::OldFiller;
use crate::method::{MethodId, School};
use crate::prep::filler::Filler;
use crate::quantity::{Unit, UnitSystem};

pub(super) const METHOD: Method = Method {
    method: MethodId::SilverBraze,
    id: "silver_braze",
    label: "Silver braze",
    doing: "Braze it with silver in its lap",
    leaves: "a thin silver line",
    joins: Joins::Silver,
    practices: &[Practice {
        school: School::WholePart,
        target_c: Some(200.0),
        least_c: None,
        most: Most::Over(100.0),
        start: Start::Of(8.0, 2.0),
        fall: 1.0,
    }],
    leaves_in: OldFiller::Bronze,
    stands: Stands { for_good_c: 200.0, with_caution_c: 200.0, cycling_c: None, short_c: None },
    efficiency: 0.8,
    recommended: true,
    groove: None,
    filling: Some(Filling {
        filler,
        layer: |_| (1.0, None),
        laid_g_a_min: |_| 8.0,
        bead_by_bead: false,
        over_it: None,
    }),
    arc: None,
    setup: Setup {
        gas: "neutral to soft",
        flux: "for low temperatures",
        fluxed: true,
        note: "A lap, never over a gap.",
        ..NOTHING_SET
    },
    prep: &["Faces bright and flat on each other: a gap of {0.05 to 0.15 mm}, or it does not draw in."],
    at_torch: &[
        "Fluoride in the flux: extraction, gloves. Without cadmium, said on the packet. Brazing shade 3 to 4.",
    ],
    joint_words,
};

/// House: silver draws in between these, in degC.
const DRAWS_C: (f64, f64) = (620.0, 760.0);

/// # Source
/// AWS A5.8; density, recovery and rod size are house.
fn filler(_wall_mm: f64, _ductile: bool) -> Filler {
    Filler {
        class: "BAg",
        name: "silver braze, no cadmium",
        density_kg_m3: 9200.0,
        recovery: 0.95,
        rod_diameter_mm: 1.6,
        rod_length_mm: 500.0,
        tensile_mpa: (400.0, 400.0),
        yield_mpa: Some(150.0),
    }
}

fn joint_words(celsius: f64, _window: Option<(f64, f64)>, units: UnitSystem) -> String {
    let (from, to) = DRAWS_C;
    if celsius < from {
        format!("too cold: it draws in from {}", units.say(from, Unit::Celsius))
    } else if celsius <= to {
        "it draws in: touch the rod to the edge of the lap".to_owned()
    } else {
        format!("too hot: over {} the flux is spent", units.say(to, Unit::Celsius))
    }
}
