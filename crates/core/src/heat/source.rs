//! What can heat a casting. Gross powers and net shares are house figures.

/// How a source brings its heat.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum SourceKind {
    /// Swept over the part: gross power in W and the share of it that ends up in the iron.
    Flame { gross_w: f64, net_share: f64 },
    /// Surroundings at up to this temperature in degC.
    Oven { up_to_c: f64 },
}

/// One source a shop may have.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HeatSource {
    pub id: &'static str,
    pub label: &'static str,
    pub kind: SourceKind,
}

const fn flame(id: &'static str, label: &'static str, gross_w: f64, net_share: f64) -> HeatSource {
    HeatSource { id, label, kind: SourceKind::Flame { gross_w, net_share } }
}

const fn oven(id: &'static str, label: &'static str, up_to_c: f64) -> HeatSource {
    HeatSource { id, label, kind: SourceKind::Oven { up_to_c } }
}

impl HeatSource {
    pub const ALL: &'static [Self] = &[
        flame("hand_torch_propane", "Hand torch, propane", 1_800.0, 0.28),
        flame("hand_torch_map", "Hand torch, MAP-type gas", 2_400.0, 0.30),
        flame("weed_burner", "Roofing burner, propane", 30_000.0, 0.17),
        flame("oxy_acetylene_small", "Oxy-acetylene tip, small", 12_000.0, 0.35),
        flame("oxy_acetylene_medium", "Oxy-acetylene tip, medium", 23_000.0, 0.35),
        flame("oxy_acetylene_large", "Oxy-acetylene tip, large", 43_000.0, 0.35),
        flame("oxy_propane", "Oxy-propane heating tip", 45_000.0, 0.30),
        oven("kitchen_oven", "Kitchen-size oven (not for food again)", 260.0),
        oven("kiln", "Kiln or heat-treat oven", 1_100.0),
        oven("gas_grill", "Gas grill, covered", 300.0),
        oven("charcoal_bed", "Charcoal bed, covered", 550.0),
        flame("ceramic_pads", "Ceramic heating pads, a pair", 5_400.0, 0.75),
    ];

    #[must_use]
    pub fn from_id(id: &str) -> Option<&'static Self> {
        Self::ALL.iter().find(|source| source.id == id)
    }
}
