//! The six candidates, where they are met, and the properties heat needs.

use serde::{Deserialize, Serialize};

use crate::quantity::UnitSystem;
use crate::render::said;

/// House: from here up, with time, malleable iron loses its anneal, in degC.
pub const ANNEAL_LOST_C: f64 = 760.0;

/// One candidate for the metal on the bench.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Iron {
    Gray,
    Ductile,
    Malleable,
    White,
    NiResist,
    Steel,
}

impl Iron {
    /// Every candidate, in the order of the tables.
    pub const ALL: [Self; 6] =
        [Self::Gray, Self::Ductile, Self::Malleable, Self::White, Self::NiResist, Self::Steel];

    #[must_use]
    pub fn index(self) -> usize {
        self as usize
    }

    #[must_use]
    pub fn id(self) -> &'static str {
        match self {
            Self::Gray => "gray",
            Self::Ductile => "ductile",
            Self::Malleable => "malleable",
            Self::White => "white",
            Self::NiResist => "ni_resist",
            Self::Steel => "steel",
        }
    }

    #[must_use]
    pub fn label(self) -> &'static str {
        match self {
            Self::Gray => "Gray",
            Self::Ductile => "Ductile",
            Self::Malleable => "Malleable",
            Self::White => "White",
            Self::NiResist => "Ni-resist",
            Self::Steel => "Steel",
        }
    }

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|iron| iron.id() == id)
    }

    /// What this iron means for a repair, in the system it is asked for.
    #[must_use]
    pub fn meaning_in(self, units: UnitSystem) -> String {
        said(&self.meaning(), units)
    }

    /// The same as a template.
    #[must_use]
    pub fn meaning(self) -> String {
        match self {
            Self::Gray => {
                "Graphite in flakes: brittle, weak in tension, machines easily. Takes most methods."
                    .to_owned()
            }
            Self::Ductile => {
                "Graphite in nodules: bends a little before it breaks. Melted edges go hard unless \
                 hot or filled with nickel-iron; brazes well."
                    .to_owned()
            }
            Self::Malleable => format!(
                "Annealed white iron: from about {{{} degC}} up, with time, and where it melts, the anneal is undone along \
                 the joint. Braze low, or short nickel-iron beads; no gas fusion.",
                ANNEAL_LOST_C
            ),
            Self::White => {
                "Glass-hard, no drill bites, welding cracks it. Replace it rather than repair it.".to_owned()
            }
            Self::NiResist => {
                "Nickel-austenitic, hardly magnetic. Nickel filler of like kind, warm, no cold beads."
                    .to_owned()
            }
            Self::Steel => {
                "Not iron at all: these plans do not apply. Low-hydrogen steel practice.".to_owned()
            }
        }
    }

    /// Properties the heat model works with. Irons without a row of their own are planned with
    /// gray's figures, which the plan says.
    #[must_use]
    pub fn properties(self) -> IronProperties {
        match self {
            Self::Gray | Self::White | Self::NiResist | Self::Steel => GRAY,
            Self::Ductile => DUCTILE,
            Self::Malleable => MALLEABLE,
        }
    }

    #[must_use]
    pub fn has_own_properties(self) -> bool {
        matches!(self, Self::Gray | Self::Ductile | Self::Malleable)
    }
}

/// Physical properties of an iron.
///
/// # Source
/// EN 1561 (gray) and EN 1563 (ductile): mean values; malleable: house, from the same tables.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct IronProperties {
    pub density_kg_m3: f64,
    /// c(T) = a + b T in J/kgK, T in degC.
    pub heat_a: f64,
    pub heat_b: f64,
    pub conductivity_w_mk: f64,
    pub youngs_gpa: f64,
    pub expansion_1e6_per_k: f64,
    pub poisson: f64,
    pub tensile_mpa: f64,
}

const GRAY: IronProperties = IronProperties {
    density_kg_m3: 7150.0,
    heat_a: 418.75,
    heat_b: 0.375,
    conductivity_w_mk: 48.0,
    youngs_gpa: 100.0,
    expansion_1e6_per_k: 11.7,
    poisson: 0.26,
    tensile_mpa: 200.0,
};
const DUCTILE: IronProperties = IronProperties {
    density_kg_m3: 7100.0,
    heat_a: 425.0,
    heat_b: 0.350,
    conductivity_w_mk: 36.2,
    youngs_gpa: 169.0,
    expansion_1e6_per_k: 12.5,
    poisson: 0.275,
    tensile_mpa: 400.0,
};
const MALLEABLE: IronProperties = IronProperties {
    density_kg_m3: 7300.0,
    heat_a: 425.0,
    heat_b: 0.350,
    conductivity_w_mk: 45.0,
    youngs_gpa: 170.0,
    expansion_1e6_per_k: 11.5,
    poisson: 0.26,
    tensile_mpa: 350.0,
};

/// House: the stress intensity in MPa√m that it stands.
const TOUGHNESS: [f64; 3] = [18.0, 40.0, 35.0];

impl Iron {
    /// The stress intensity in MPa√m that a crack in it stands before it runs. House.
    #[must_use]
    pub fn toughness_mpa_sqrt_m(self) -> f64 {
        let [gray, ductile, malleable] = TOUGHNESS;
        match self {
            Self::Ductile => ductile,
            Self::Malleable => malleable,
            Self::Gray | Self::White | Self::NiResist | Self::Steel => gray,
        }
    }
}

impl IronProperties {
    /// Specific heat in J/kgK at `celsius`.
    #[must_use]
    pub fn specific_heat(&self, celsius: f64) -> f64 {
        self.heat_a + self.heat_b * celsius
    }

    /// Temperature difference in K that a part stands below 500 degC:
    /// UTS (1 - nu) / (E alpha) / 2.
    ///
    /// # Source
    /// Elastic theory of a restrained strip, halved (house).
    #[must_use]
    pub fn unevenness_limit_k(&self) -> f64 {
        self.tensile_mpa * (1.0 - self.poisson)
            / (self.youngs_gpa * 1e3 * self.expansion_1e6_per_k * 1e-6)
            / 2.0
    }
}

/// What sort of part it is: it decides what is believed before any test.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Family {
    MachineFrame,
    EngineBlock,
    HotExhaust,
    PumpValve,
    LoadedMoving,
    SmallHardware,
    PipeFitting,
    Ornamental,
    Cookware,
    WearPart,
    Unknown,
}

impl Family {
    pub const CHOICES: &'static [(&'static str, &'static str)] = &[
        ("machine_frame", "Machine frame or bed"),
        ("engine_block", "Engine block or housing"),
        ("hot_exhaust", "Hot gas part"),
        ("pump_valve", "Pump or valve body"),
        ("loaded_moving", "Moving, under load"),
        ("small_hardware", "Small hardware"),
        ("pipe_fitting", "Pipe fitting"),
        ("ornamental", "Ornamental"),
        ("cookware", "Cookware"),
        ("wear_part", "Wear part"),
        ("unknown", "Something else"),
    ];

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        serde_json::from_value(serde_json::Value::String(id.to_owned())).ok()
    }

    /// Share of each iron among parts of this family, in the order of [`Iron::ALL`]. House.
    fn share(self) -> [f64; 6] {
        match self {
            Self::MachineFrame => [0.93, 0.04, 0.01, 0.01, 0.00, 0.01],
            Self::EngineBlock => [0.92, 0.05, 0.00, 0.00, 0.01, 0.02],
            Self::HotExhaust => [0.82, 0.14, 0.00, 0.00, 0.02, 0.02],
            Self::PumpValve => [0.74, 0.18, 0.02, 0.00, 0.01, 0.05],
            Self::LoadedMoving => [0.32, 0.38, 0.11, 0.01, 0.00, 0.18],
            Self::SmallHardware => [0.22, 0.18, 0.48, 0.01, 0.00, 0.11],
            Self::PipeFitting => [0.20, 0.18, 0.56, 0.00, 0.00, 0.06],
            Self::Ornamental => [0.94, 0.02, 0.02, 0.00, 0.00, 0.02],
            Self::Cookware => [0.96, 0.02, 0.00, 0.01, 0.00, 0.01],
            Self::WearPart => [0.18, 0.14, 0.02, 0.56, 0.01, 0.09],
            Self::Unknown => [0.66, 0.16, 0.08, 0.02, 0.01, 0.07],
        }
    }

    /// Prior of each iron, in the order of [`Iron::ALL`]; sums to 1.
    ///
    /// No iron is ever ruled out beforehand: a floor keeps each one possible. The era then weighs
    /// ductile and malleable. House.
    #[must_use]
    pub fn prior(self, era: Era) -> [f64; 6] {
        /// House: the least share any iron is given.
        const FLOOR: f64 = 0.0005;
        // Late hot parts are often ductile or nickel-austenitic: a row of their own, without the era's factors.
        const LATE_HOT: [f64; 6] = [0.50, 0.42, 0.0, 0.0, 0.06, 0.02];
        if self == Self::HotExhaust && era == Era::From1970On {
            return super::posterior::normalised(LATE_HOT.map(|share| share.max(FLOOR)));
        }
        let mut prior = self.share().map(|share| share.max(FLOOR));
        let (ductile, malleable) = era.factors();
        prior[Iron::Ductile.index()] *= ductile;
        prior[Iron::Malleable.index()] *= malleable;
        super::posterior::normalised(prior)
    }
}

/// When the part was cast.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub enum Era {
    #[serde(rename = "before_1949")]
    Before1949,
    #[serde(rename = "1949_1969")]
    From1949To1969,
    #[serde(rename = "1970_on")]
    From1970On,
    #[serde(rename = "unknown")]
    Unknown,
}

impl Era {
    pub const CHOICES: &'static [(&'static str, &'static str)] = &[
        ("before_1949", "Before 1949"),
        ("1949_1969", "1949 to 1969"),
        ("1970_on", "1970 or later"),
        ("unknown", "Not known"),
    ];

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        serde_json::from_value(serde_json::Value::String(id.to_owned())).ok()
    }

    /// Factors on ductile and malleable: ductile was hardly made before 1949. House.
    fn factors(self) -> (f64, f64) {
        match self {
            Self::Before1949 => (0.03, 1.0),
            Self::From1949To1969 => (0.5, 1.0),
            Self::From1970On => (1.3, 0.6),
            Self::Unknown => (1.0, 1.0),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    // Published: the trade reference, "Evenness": 63, 69 and 66 K
    #[case::gray(Iron::Gray, 63.0)]
    #[case::ductile(Iron::Ductile, 69.0)]
    #[case::malleable(Iron::Malleable, 66.0)]
    fn the_unevenness_limit_follows_from_strength_and_stiffness(#[case] iron: Iron, #[case] limit_k: f64) {
        assert!((iron.properties().unevenness_limit_k() - limit_k).abs() < 0.5);
    }

    #[test]
    fn every_family_leaves_every_iron_possible() {
        for (id, _) in Family::CHOICES {
            let prior = Family::from_id(id).unwrap().prior(Era::Before1949);
            assert!((prior.iter().sum::<f64>() - 1.0).abs() < 1e-12, "{id}");
            assert!(prior.iter().all(|&p| p > 0.0), "{id}");
        }
    }
}
