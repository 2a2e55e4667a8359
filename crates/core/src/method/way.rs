//! A method, a school, and a method done after one.

use serde::{Deserialize, Serialize};

use super::catalogue::{Joins, METHODS, Method, Practice};
use crate::prep::filler::Filler;

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
    StitchLocks,
    TigNickel,
    TigBrazeSi,
    TigBrazeAl,
    MigBrazeSi,
    SilverBraze,
    ButterBuild,
    Strap,
    ColdFill,
    LastResort,
}

impl MethodId {
    pub const ALL: [Self; 15] = [
        Self::ArcNickel,
        Self::ArcNickelIron,
        Self::TorchBraze,
        Self::GasIron,
        Self::Stitch,
        Self::StitchLocks,
        Self::TigNickel,
        Self::TigBrazeSi,
        Self::TigBrazeAl,
        Self::MigBrazeSi,
        Self::SilverBraze,
        Self::ButterBuild,
        Self::Strap,
        Self::ColdFill,
        Self::LastResort,
    ];
    pub const CHOICES: &'static [(&'static str, &'static str)] = &{
        let mut choices = [("", ""); METHODS.len()];
        let mut at = 0;
        while at < choices.len() {
            choices[at] = (METHODS[at].id, METHODS[at].label);
            at += 1;
        }
        choices
    };

    /// All that is said of it.
    #[must_use]
    pub fn entry(self) -> &'static Method {
        METHODS[self as usize]
    }

    #[must_use]
    pub fn id(self) -> &'static str {
        self.entry().id
    }

    #[must_use]
    pub fn label(self) -> &'static str {
        self.entry().label
    }

    /// What it is laid with, as the stores call it: of each group any will do; none for pins.
    pub fn laid_with(self) -> impl Iterator<Item = &'static [&'static str]> {
        super::rules::laid_with(self)
    }

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|method| method.id() == id)
    }

    /// Its filler is nickel, alone or with iron: it may crack late.
    #[must_use]
    pub fn lays_nickel(self) -> bool {
        matches!(self, Self::ArcNickel | Self::ArcNickelIron | Self::TigNickel | Self::ButterBuild)
    }

    /// The arc or flame melts the casting itself.
    #[must_use]
    pub fn fusion(self) -> bool {
        match self.entry().joins {
            Joins::Arc | Joins::Flame => true,
            Joins::ArcBronze
            | Joins::Bronze
            | Joins::Silver
            | Joins::Pins
            | Joins::PinsAndLocks
            | Joins::Strap
            | Joins::Epoxy => false,
        }
    }

    #[must_use]
    pub fn arc(self) -> bool {
        self.entry().joins == Joins::Arc
    }

    /// An arc burns, whether it melts the casting or not: eyes and current are as for welding.
    #[must_use]
    pub fn by_arc(self) -> bool {
        self.entry().arc.is_some()
    }

    /// Pins are set, with locks or without.
    #[must_use]
    pub fn pins(self) -> bool {
        matches!(self.entry().joins, Joins::Pins | Joins::PinsAndLocks)
    }

    /// What is laid or set one by one.
    #[must_use]
    pub fn piece(self) -> PieceOfWork {
        match self.entry().joins {
            Joins::Pins | Joins::PinsAndLocks => PieceOfWork::Pin,
            Joins::Strap => PieceOfWork::Strap,
            Joins::Epoxy => PieceOfWork::Fill,
            Joins::Arc | Joins::ArcBronze | Joins::Bronze | Joins::Silver | Joins::Flame => PieceOfWork::Bead,
        }
    }

    /// A seam is filled by a flame, from its beginning to its end without a break.
    #[must_use]
    pub fn in_one_flow(self) -> bool {
        matches!(self.entry().joins, Joins::Bronze | Joins::Silver | Joins::Flame)
    }

    /// Nothing of it heats the part.
    #[must_use]
    pub fn without_heat(self) -> bool {
        match self.entry().joins {
            Joins::Pins | Joins::PinsAndLocks | Joins::Strap | Joins::Epoxy => true,
            Joins::Arc | Joins::ArcBronze | Joins::Bronze | Joins::Silver | Joins::Flame => false,
        }
    }

    pub fn schools(self) -> impl Iterator<Item = School> {
        self.entry().practices.iter().map(|practice| practice.school)
    }

    /// The filler in the rod sizes that suit the wall; `ductile` asks for the rod meant for ductile iron.
    /// Nothing for pins.
    #[must_use]
    pub fn filler(self, wall_mm: f64, ductile: bool) -> Option<Filler> {
        self.entry().filling.map(|filling| (filling.filler)(wall_mm, ductile))
    }
}

/// What is laid or set one by one while a repair is made.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PieceOfWork {
    Bead,
    Pin,
    Strap,
    Fill,
}

impl PieceOfWork {
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Bead => "bead",
            Self::Pin => "pin",
            Self::Strap => "strap",
            Self::Fill => "fill",
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
    /// The seam and what lies round it, the rest of the part cold.
    Local,
    /// A small part that the arc itself warms.
    ArcOnly,
    NoHeat,
}

impl School {
    /// Labels are templates.
    pub const CHOICES: &'static [(&'static str, &'static str)] = &[
        ("cold", "Cold: under {65 degC down}, by stick or meter"),
        ("warm", "Warm: the whole part, about {150 degC}"),
        ("hot", "Hot: the whole part, about {300 degC}"),
        ("whole_part", "Whole part, dull red"),
        ("modest", "Modest: {250 degC}, melted at the joint alone"),
        ("local", "Local: the seam and what lies round it, the rest cold"),
        ("arc_only", "Arc only: the arc itself warms a small part"),
    ];

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        match id {
            "cold" => Some(Self::Cold),
            "warm" => Some(Self::Warm),
            "hot" => Some(Self::Hot),
            "whole_part" => Some(Self::WholePart),
            "modest" => Some(Self::Modest),
            "local" => Some(Self::Local),
            "arc_only" => Some(Self::ArcOnly),
            _ => None,
        }
    }

    /// As it is stored.
    #[must_use]
    pub fn id(self) -> &'static str {
        match self {
            Self::Cold => "cold",
            Self::Warm => "warm",
            Self::Hot => "hot",
            Self::WholePart => "whole_part",
            Self::Modest => "modest",
            Self::Local => "local",
            Self::ArcOnly => "arc_only",
            Self::NoHeat => "no_heat",
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
            Self::Local => "local",
            Self::ArcOnly => "arc only",
            Self::NoHeat => "no heat",
        }
    }

    /// A preheat has to be reached.
    #[must_use]
    pub fn preheats(self) -> bool {
        match self {
            Self::Warm | Self::Hot | Self::WholePart | Self::Modest | Self::Local => true,
            Self::Cold | Self::ArcOnly | Self::NoHeat => false,
        }
    }

    /// The part as a whole gets hot, by a preheat or by the arc alone.
    #[must_use]
    pub fn heats(self) -> bool {
        self.preheats() || self == Self::ArcOnly
    }

    /// Minutes that go by with each bead beside laying it: waiting, peening, brushing. House.
    #[must_use]
    pub fn wait_min_a_bead(self) -> f64 {
        match self {
            Self::Cold => 3.0,
            Self::Warm | Self::Local => 1.0,
            Self::Hot | Self::WholePart | Self::Modest | Self::ArcOnly => 0.5,
            Self::NoHeat => 0.0,
        }
    }

    /// Length of a bead in mm. House.
    #[must_use]
    pub fn bead_mm(self) -> f64 {
        match self {
            Self::Cold => 25.0,
            Self::Warm | Self::Local | Self::ArcOnly => 40.0,
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
    /// Length of a bead in mm. House.
    #[must_use]
    pub fn bead_mm(self) -> f64 {
        match (self.method, self.school) {
            (MethodId::LastResort, _) => 10.0,
            (_, School::Cold) => self.school.bead_mm(),
            (
                MethodId::TigNickel
                | MethodId::TigBrazeSi
                | MethodId::TigBrazeAl
                | MethodId::MigBrazeSi
                | MethodId::ButterBuild,
                _,
            ) => 40.0,
            _ => self.school.bead_mm(),
        }
    }

    /// The method after its school; nothing where it is not done so.
    #[must_use]
    pub fn practice(self) -> Option<&'static Practice> {
        self.method.entry().practice(self.school)
    }

    #[must_use]
    pub fn label(self) -> String {
        match self.school {
            School::Cold | School::Warm | School::Hot | School::Modest | School::Local | School::ArcOnly => {
                format!("{}, {}", self.method.label(), self.school.word())
            }
            School::WholePart | School::NoHeat => self.method.label().to_owned(),
        }
    }
}
