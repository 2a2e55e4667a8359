//! Wire braze, silicon bronze.

use super::arc_bronze::{self, ArcBronze, arc_only, warmed};
use super::{ArcUse, BRONZE_FLOWS_C, Filling, Method, Setup, Start, by_wall, wire_lays};
use crate::method::MethodId;
use crate::prep::filler::Filler;

pub(super) const METHOD: Method = arc_bronze::method(ArcBronze {
    method: MethodId::MigBrazeSi,
    id: "mig_braze_si",
    label: "Wire braze, silicon bronze",
    doing: "Braze it with the wire and silicon bronze",
    practices: &[
        warmed(180.0, Start::Of(6.0, 4.0)),
        super::local(180.0, Start::Of(6.0, 4.0)),
        arc_only(Start::Of(6.0, 4.0)),
    ],
    stands_c: 250.0,
    filling: Filling {
        filler,
        layer: |_| (2.5, Some(6.0)),
        laid_g_a_min: wire_lays,
        bead_by_bead: true,
        over_it: None,
    },
    arc: ArcUse {
        volts: 18.0,
        travel_mm_s: 5.0,
        efficiency: 0.8,
        shield_l_min: Some(14.0),
        amps: |wall_mm| by_wall(wall_mm, [(80.0, 115.0), (100.0, 130.0), (130.0, 160.0)]),
    },
    setup: Setup {
        leads: ["Gun in plus, clamp in minus.", "", ""],
        gas: "pure argon, 12 to 16 l/min",
        flux: "",
        fluxed: false,
        tip: |_| "",
        note: "Smooth rolls with a U, a plastic liner or a spool gun. Cut the ball off the wire before each start; push \
               or drag.",
        melts_c: BRONZE_FLOWS_C,
    },
    prep: &[arc_bronze::CLEAN],
    at_torch: &["Pure argon, 12 to 16 l/min. Cut the ball off the wire before each start.", arc_bronze::FUME],
});

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
        yield_mpa: Some(150.0),
    }
}
