//! The methods of the slice and their schools.

use serde::{Deserialize, Serialize};

use crate::filler::Filler;

/// A repair method.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum MethodId {
    ArcNickel,
    ArcNickelIron,
    TorchBraze,
    GasIron,
    Stitch,
}

impl MethodId {
    pub const ALL: [Self; 5] =
        [Self::ArcNickel, Self::ArcNickelIron, Self::TorchBraze, Self::GasIron, Self::Stitch];
    pub const CHOICES: &'static [(&'static str, &'static str)] = &[
        ("arc_nickel", "Nickel stick"),
        ("arc_nickel_iron", "Nickel-iron stick"),
        ("torch_braze", "Torch braze"),
        ("gas_iron", "Gas fusion, iron rod"),
        ("stitch", "Stitching"),
    ];

    #[must_use]
    pub fn id(self) -> &'static str {
        Self::CHOICES[self as usize].0
    }

    #[must_use]
    pub fn label(self) -> &'static str {
        Self::CHOICES[self as usize].1
    }

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|method| method.id() == id)
    }

    /// The arc or flame melts the casting itself.
    #[must_use]
    pub fn fusion(self) -> bool {
        match self {
            Self::ArcNickel | Self::ArcNickelIron | Self::GasIron => true,
            Self::TorchBraze | Self::Stitch => false,
        }
    }

    #[must_use]
    pub fn arc(self) -> bool {
        matches!(self, Self::ArcNickel | Self::ArcNickelIron)
    }

    #[must_use]
    pub fn schools(self) -> &'static [School] {
        match self {
            Self::ArcNickel | Self::ArcNickelIron => &[School::Hot, School::Warm, School::Cold],
            Self::TorchBraze => &[School::WholePart],
            Self::GasIron => &[School::WholePart, School::Modest],
            Self::Stitch => &[School::NoHeat],
        }
    }

    /// Service temperature in degC the joint stands, and the one it stands with a caution.
    ///
    /// # Source
    /// House, after AWS D11.2.
    #[must_use]
    pub fn service_limit_c(self) -> (f64, f64) {
        /// "As the casting."
        const CASTING_C: f64 = 750.0;
        match self {
            Self::ArcNickel | Self::ArcNickelIron => (600.0, CASTING_C),
            Self::TorchBraze => (200.0, 200.0),
            Self::GasIron | Self::Stitch => (CASTING_C, CASTING_C),
        }
    }

    /// Service temperature in degC that a joint stands which heats and cools: pins loosen.
    ///
    /// # Source
    /// House.
    #[must_use]
    pub fn cycling_limit_c(self) -> Option<f64> {
        match self {
            Self::Stitch => Some(400.0),
            Self::ArcNickel | Self::ArcNickelIron | Self::TorchBraze | Self::GasIron => None,
        }
    }

    /// Service temperature in degC the joint stands for a short time; nothing where that is no more
    /// than it stands for good.
    ///
    /// # Source
    /// House, after AWS D11.2.
    #[must_use]
    pub fn short_service_c(self) -> Option<f64> {
        match self {
            Self::TorchBraze => Some(260.0),
            Self::ArcNickel | Self::ArcNickelIron | Self::GasIron | Self::Stitch => None,
        }
    }

    /// Amps of the stick that suits the wall, at the low end for the cold school, in the middle
    /// otherwise; nothing for methods without an arc. House.
    #[must_use]
    pub fn amps(self, wall_mm: f64, school: School) -> Option<f64> {
        if !self.arc() {
            return None;
        }
        let (low, high) = if wall_mm < 5.0 {
            (55.0, 75.0)
        } else if wall_mm > 12.0 {
            (105.0, 140.0)
        } else {
            (75.0, 105.0)
        };
        Some(if school == School::Cold { low } else { (low + high) / 2.0 })
    }

    /// The filler in the rod sizes that suit the wall; `ductile` asks for the gas rod meant for
    /// ductile iron. Nothing for stitching.
    ///
    /// # Source
    /// AWS A5.15; recoveries and rod sizes are house.
    #[must_use]
    pub fn filler(self, wall_mm: f64, ductile: bool) -> Option<Filler> {
        let stick_mm = if wall_mm < 5.0 {
            2.5
        } else if wall_mm > 12.0 {
            4.0
        } else {
            3.2
        };
        let stick = |class, name, tensile_mpa| Filler {
            class,
            name,
            density_kg_m3: 8300.0,
            recovery: 0.90,
            rod_diameter_mm: stick_mm,
            rod_length_mm: 350.0,
            tensile_mpa,
        };
        match self {
            Self::ArcNickel => Some(stick("ENi-CI", "nickel stick", (280.0, 450.0))),
            Self::ArcNickelIron => Some(stick("ENiFe-CI", "nickel-iron stick", (400.0, 580.0))),
            Self::TorchBraze => Some(Filler {
                class: "RBCuZn-C",
                name: "low-fuming bronze rod",
                density_kg_m3: 8500.0,
                recovery: 0.95,
                rod_diameter_mm: 3.2,
                rod_length_mm: 900.0,
                tensile_mpa: (350.0, 400.0),
            }),
            Self::GasIron => Some(Filler {
                class: if ductile { "RCI-B" } else { "RCI" },
                name: "cast-iron gas rod",
                density_kg_m3: 7100.0,
                recovery: 0.95,
                rod_diameter_mm: 5.0,
                rod_length_mm: 600.0,
                tensile_mpa: if ductile { (550.0, 550.0) } else { (140.0, 280.0) },
            }),
            Self::Stitch => None,
        }
    }

    /// Grams of filler laid in a minute, where it is laid without beads and waits; nothing for an arc and
    /// for pins. House.
    #[must_use]
    pub fn laid_g_a_min(self) -> Option<f64> {
        match self {
            Self::TorchBraze => Some(20.0),
            Self::GasIron => Some(25.0),
            Self::ArcNickel | Self::ArcNickelIron | Self::Stitch => None,
        }
    }

    /// Layer height and bead width in mm; no width where a layer fills the groove. House.
    #[must_use]
    pub fn layer(self, wall_mm: f64) -> Option<(f64, Option<f64>)> {
        match self {
            Self::ArcNickel | Self::ArcNickelIron => Some(if wall_mm < 5.0 {
                (2.0, Some(5.0))
            } else if wall_mm > 12.0 {
                (3.0, Some(9.0))
            } else {
                (2.5, Some(7.0))
            }),
            Self::TorchBraze => Some((4.0, None)),
            Self::GasIron => Some((8.0, None)),
            Self::Stitch => None,
        }
    }
}

/// How warm a method is done.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum School {
    Cold,
    Warm,
    Hot,
    WholePart,
    /// Gas fusion with the part at a modest heat, melted at the joint alone.
    Modest,
    NoHeat,
}

impl School {
    pub const CHOICES: &'static [(&'static str, &'static str)] = &[
        ("cold", "Cold: no hotter than the hand bears"),
        ("warm", "Warm: 120 to 200 °C"),
        ("hot", "Hot: the whole part, 260 to 350 °C"),
        ("whole_part", "Whole part, dull red"),
        ("modest", "Modest: 250 °C, melted at the joint alone"),
    ];

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        match id {
            "cold" => Some(Self::Cold),
            "warm" => Some(Self::Warm),
            "hot" => Some(Self::Hot),
            "whole_part" => Some(Self::WholePart),
            "modest" => Some(Self::Modest),
            _ => None,
        }
    }

    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Cold => "cold",
            Self::Warm => "warm",
            Self::Hot => "hot",
            Self::WholePart => "whole part",
            Self::Modest => "modest",
            Self::NoHeat => "no heat",
        }
    }

    /// A preheat has to be reached.
    #[must_use]
    pub fn preheats(self) -> bool {
        match self {
            Self::Warm | Self::Hot | Self::WholePart | Self::Modest => true,
            Self::Cold | Self::NoHeat => false,
        }
    }

    /// Minutes that go by with each bead beside laying it: waiting, peening, brushing. House.
    #[must_use]
    pub fn wait_min_a_bead(self) -> f64 {
        match self {
            Self::Cold => 3.0,
            Self::Warm => 1.0,
            Self::Hot | Self::WholePart | Self::Modest => 0.5,
            Self::NoHeat => 0.0,
        }
    }

    /// Length of a bead in mm. House.
    #[must_use]
    pub fn bead_mm(self) -> f64 {
        match self {
            Self::Cold => 25.0,
            Self::Warm => 40.0,
            Self::Hot | Self::WholePart | Self::Modest => 60.0,
            Self::NoHeat => 0.0,
        }
    }
}

/// A method done after one school.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Way {
    pub method: MethodId,
    pub school: School,
}

impl Way {
    #[must_use]
    pub fn label(self) -> String {
        match self.school {
            School::Cold | School::Warm | School::Hot | School::Modest => {
                format!("{}, {}", self.method.label(), self.school.word())
            }
            School::WholePart | School::NoHeat => self.method.label().to_owned(),
        }
    }
}
