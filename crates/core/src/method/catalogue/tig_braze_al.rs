//! TIG braze, aluminium bronze.

use super::arc_bronze::{self, ArcBronze, arc_only, warmed};
use super::{ArcUse, BRONZE_FLOWS_C, Filling, Method, Setup, Start, by_wall, tig_lays};
use crate::method::MethodId;
use crate::prep::filler::Filler;

pub(super) const METHOD: Method = arc_bronze::method(ArcBronze {
    method: MethodId::TigBrazeAl,
    id: "tig_braze_al",
    label: "TIG braze, aluminium bronze",
    doing: "Braze it with TIG and aluminium bronze",
    practices: &[
        warmed(220.0, Start::Of(7.0, 3.0)),
        super::local(220.0, Start::Of(7.0, 3.0)),
        arc_only(Start::Of(7.0, 3.0)),
    ],
    stands_c: 370.0,
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
        // A tenth more than silicon bronze takes.
        amps: |wall_mm| by_wall(wall_mm, [(66.0, 110.0), (99.0, 154.0), (132.0, 176.0)]),
    },
    setup: Setup {
        leads: ["Alternating, or torch in minus on bright metal.", "", ""],
        gas: "argon, 8 to 12 l/min",
        flux: "",
        fluxed: false,
        tip: arc_bronze::tungsten,
        note: "The rod's skin of oxide has to be broken: it takes more heat to run.",
        melts_c: BRONZE_FLOWS_C,
    },
    prep: &["Bright metal right up to the edge: the rod's own skin of oxide is trouble enough."],
    at_torch: &[
        "AC, or the torch in minus on bright metal: the skin of oxide must be broken before it runs.",
        arc_bronze::FUME,
    ],
});

/// # Source
/// AWS A5.7; recoveries and sizes are house.
fn filler(wall_mm: f64, _ductile: bool) -> Filler {
    Filler {
        class: "ERCuAl-A2",
        name: "aluminium bronze TIG rod",
        density_kg_m3: 7700.0,
        recovery: 0.95,
        rod_diameter_mm: by_wall(wall_mm, [2.4, 3.2, 3.2]),
        rod_length_mm: 900.0,
        tensile_mpa: (415.0, 550.0),
        yield_mpa: Some(250.0),
    }
}
