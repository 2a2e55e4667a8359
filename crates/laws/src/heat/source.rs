//! What can heat a casting. Gross powers and net shares are house figures.

/// How a source brings its heat.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum SourceKind {
    /// Swept over the part: gross power in W and the share of it that ends up in the iron.
    Flame { gross_w: f64, net_share: f64, fuel: Fuel },
    /// Surroundings at up to this temperature in degC, which never give the part more than so many W.
    Oven { up_to_c: f64, h_w_m2k: f64, most_w: f64, fire: bool },
}

/// What a flame burns.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Fuel {
    OxyAcetylene,
    OxyPropane,
    /// In air.
    Propane,
    /// In air; its heating value is not known here.
    MapGas,
    /// It burns nothing: current through pads that lie on the part.
    Current,
}

/// One source a shop may have.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HeatSource {
    pub id: &'static str,
    pub label: &'static str,
    pub kind: SourceKind,
}

const fn flame(
    id: &'static str,
    label: &'static str,
    fuel: Fuel,
    gross_w: f64,
    net_share: f64,
) -> HeatSource {
    HeatSource { id, label, kind: SourceKind::Flame { gross_w, net_share, fuel } }
}

/// House: a flame up to this gross power is a small one, in W.
const SMALL_FLAME_W: f64 = 12_000.0;

/// House: convection in an oven or over a fire, and in a small one without a fan, W/m²K.
const OVEN_H: f64 = 20.0;
const KITCHEN_OVEN_H: f64 = 12.0;

const fn oven(id: &'static str, label: &'static str, up_to_c: f64, most_w: f64) -> HeatSource {
    HeatSource { id, label, kind: SourceKind::Oven { up_to_c, h_w_m2k: OVEN_H, most_w, fire: false } }
}

/// A bed of coals or a grill: it comes up as it likes.
const fn fire(id: &'static str, label: &'static str, up_to_c: f64, most_w: f64) -> HeatSource {
    HeatSource { id, label, kind: SourceKind::Oven { up_to_c, h_w_m2k: OVEN_H, most_w, fire: true } }
}

impl HeatSource {
    pub const ALL: &'static [Self] = &[
        flame("hand_torch_propane", "Hand torch, propane", Fuel::Propane, 1_800.0, 0.28),
        flame("hand_torch_map", "Hand torch, MAP-type gas", Fuel::MapGas, 2_400.0, 0.30),
        flame("weed_burner", "Roofing burner, propane", Fuel::Propane, 30_000.0, 0.17),
        flame("oxy_acetylene_small", "Oxy-acetylene tip, small", Fuel::OxyAcetylene, 12_000.0, 0.35),
        flame("oxy_acetylene_medium", "Oxy-acetylene tip, medium", Fuel::OxyAcetylene, 23_000.0, 0.35),
        flame("oxy_acetylene_large", "Oxy-acetylene tip, large", Fuel::OxyAcetylene, 43_000.0, 0.35),
        flame("oxy_propane", "Oxy-propane heating tip", Fuel::OxyPropane, 45_000.0, 0.30),
        HeatSource {
            id: "kitchen_oven",
            label: "Kitchen-size oven (not for food again)",
            kind: SourceKind::Oven { up_to_c: 260.0, h_w_m2k: KITCHEN_OVEN_H, most_w: 2_500.0, fire: false },
        },
        oven("kiln", "Kiln or heat-treat oven", 1_100.0, 8_000.0),
        fire("gas_grill", "Gas grill, covered", 300.0, 10_000.0),
        fire("charcoal_bed", "Charcoal bed, covered", 550.0, 12_000.0),
        flame("ceramic_pads", "Ceramic heating pads, a pair", Fuel::Current, 5_400.0, 0.75),
    ];

    /// How fast its surroundings are brought up, in K/h; nothing for a flame. A fire cannot be ramped: the
    /// part is laid in cold and comes up with it.
    ///
    /// # Source
    /// House.
    #[must_use]
    pub fn ramp_k_per_h(&self, closed_part: bool) -> Option<f64> {
        match self.kind {
            SourceKind::Flame { .. } => None,
            SourceKind::Oven { fire: true, .. } => Some(600.0),
            SourceKind::Oven { fire: false, .. } => Some(if closed_part { 100.0 } else { 300.0 }),
        }
    }

    /// It heats all of a part from outside, and can be set.
    #[must_use]
    pub fn is_oven(&self) -> bool {
        matches!(self.kind, SourceKind::Oven { fire: false, .. })
    }

    /// A flame that reaches little round its middle.
    #[must_use]
    pub fn is_small(&self) -> bool {
        matches!(self.kind, SourceKind::Flame { gross_w, .. } if gross_w <= SMALL_FLAME_W)
    }

    /// It is left alone over night and keeps what it is set to: no flame, and no fire that goes out.
    #[must_use]
    pub fn keeps_by_itself(&self) -> bool {
        matches!(self.kind, SourceKind::Oven { fire: false, .. })
    }

    #[must_use]
    pub fn is_fire(&self) -> bool {
        matches!(self.kind, SourceKind::Oven { fire: true, .. })
    }

    pub const CHOICES: &'static [(&'static str, &'static str); Self::ALL.len()] = &{
        let mut choices = [("", ""); Self::ALL.len()];
        let mut at = 0;
        while at < choices.len() {
            choices[at] = (Self::ALL[at].id, Self::ALL[at].label);
            at += 1;
        }
        choices
    };

    #[must_use]
    pub fn from_id(id: &str) -> Option<&'static Self> {
        Self::ALL.iter().find(|source| source.id == id)
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    #[case("kiln", true, false, true)]
    #[case("kitchen_oven", true, false, true)]
    #[case("charcoal_bed", false, true, false)]
    #[case("gas_grill", false, true, false)]
    #[case("oxy_propane", false, false, false)]
    #[case("hand_torch_map", false, false, false)]
    #[case("ceramic_pads", false, false, false)]
    fn an_oven_keeps_what_it_is_set_to_and_a_fire_goes_out(
        #[case] id: &str,
        #[case] oven: bool,
        #[case] fire: bool,
        #[case] keeps: bool,
    ) {
        let source = HeatSource::from_id(id).unwrap();
        assert_eq!((source.is_oven(), source.is_fire(), source.keeps_by_itself()), (oven, fire, keeps));
    }

    #[rstest]
    #[case("hand_torch_propane", true)]
    #[case("oxy_acetylene_small", true)]
    #[case("oxy_acetylene_medium", false)]
    #[case("weed_burner", false)]
    #[case("kiln", false)]
    fn a_flame_of_twelve_kilowatts_is_the_largest_small_one(#[case] id: &str, #[case] small: bool) {
        assert_eq!(HeatSource::from_id(id).unwrap().is_small(), small);
    }
}
