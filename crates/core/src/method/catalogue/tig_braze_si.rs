//! TIG braze, silicon bronze.

use super::arc_bronze::{self, ArcBronze, arc_only, warmed};
use super::{ArcUse, BRONZE_FLOWS_C, Filling, Method, Setup, Start, by_wall, tig_lays};
use crate::method::MethodId;
use crate::prep::filler::Filler;

pub(super) const METHOD: Method = arc_bronze::method(ArcBronze {
    method: MethodId::TigBrazeSi,
    id: "tig_braze_si",
    label: "TIG braze, silicon bronze",
    doing: "Braze it with TIG and silicon bronze",
    practices: &[
        warmed(180.0, Start::Of(7.0, 3.0)),
        super::local(180.0, Start::Of(7.0, 3.0)),
        arc_only(Start::Of(7.0, 3.0)),
    ],
    stands_c: 250.0,
    filling: Filling {
        filler,
        layer: |_| (2.0, Some(5.0)),
        laid_g_a_min: tig_lays,
        bead_by_bead: true,
        over_it: None,
    },
    arc: ArcUse {
        volts: 14.0,
        travel_mm_s: 1.5,
        efficiency: 0.6,
        shield_l_min: Some(10.0),
        amps: |wall_mm| by_wall(wall_mm, [(60.0, 100.0), (90.0, 140.0), (120.0, 160.0)]),
    },
    setup: Setup {
        leads: ["Torch in minus, clamp in plus.", "", ""],
        gas: "argon, 8 to 12 l/min",
        flux: "",
        fluxed: false,
        tip: arc_bronze::tungsten,
        note: "Warm the iron until the rod wets it: a shining puddle of iron is too hot.",
        melts_c: BRONZE_FLOWS_C,
    },
    prep: &[arc_bronze::CLEAN],
    at_torch: &[
        "Warm the iron until the rod wets it. A shining puddle of iron is too hot.",
        arc_bronze::FUME,
    ],
});

/// # Source
/// AWS A5.7; recoveries and sizes are house.
fn filler(wall_mm: f64, _ductile: bool) -> Filler {
    Filler {
        class: "ERCuSi-A",
        name: "silicon bronze TIG rod",
        density_kg_m3: 8500.0,
        recovery: 0.95,
        rod_diameter_mm: by_wall(wall_mm, [2.4, 3.2, 3.2]),
        rod_length_mm: 900.0,
        tensile_mpa: (345.0, 345.0),
        yield_mpa: Some(150.0),
    }
}
