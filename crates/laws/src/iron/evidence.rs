//! One observation: what was found, where, how sure.

use serde::{Deserialize, Serialize};

use super::tests_table::{density_kg_m3, sound_speed_m_s};
use super::{Iron, LookTest, Outcome};
use crate::base::problem::OutOfRange;
use crate::quantity::WallMillimetres;

/// How sure the welder is of what was seen. House: 0.9, 0.6, 0.3.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Confidence {
    Unsure,
    Fair,
    Sure,
}

impl Confidence {
    #[must_use]
    pub fn weight(self) -> f64 {
        match self {
            Self::Unsure => 0.3,
            Self::Fair => 0.6,
            Self::Sure => 0.9,
        }
    }

    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Unsure => "unsure",
            Self::Fair => "fairly sure",
            Self::Sure => "sure",
        }
    }

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        match id {
            "unsure" => Some(Self::Unsure),
            "fair" => Some(Self::Fair),
            "sure" => Some(Self::Sure),
            _ => None,
        }
    }
}

/// Sound speed through a wall of known thickness.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SoundSpeed {
    metres_per_second: f64,
    wall: WallMillimetres,
}

impl SoundSpeed {
    /// # Errors
    /// [`OutOfRange`] below 3500 or above 6300 m/s: no iron or steel sounds like that.
    pub fn new(metres_per_second: f64, wall: WallMillimetres) -> Result<Self, OutOfRange> {
        OutOfRange::check("a sound speed", "m/s", (3500.0, 6300.0), metres_per_second)
            .map(|metres_per_second| Self { metres_per_second, wall })
    }

    #[must_use]
    pub fn metres_per_second(self) -> f64 {
        self.metres_per_second
    }

    /// Standard deviation of the reading itself in m/s: both thickness readings are good to
    /// 0.05 mm.
    fn reading_sd(self) -> f64 {
        self.metres_per_second * 0.05 * std::f64::consts::SQRT_2 / self.wall.millimetres()
    }
}

/// Density by weighing in air and hung in water.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Density {
    kilograms_per_cubic_metre: f64,
}

impl Density {
    /// # Errors
    /// [`OutOfRange`] below 5000 or above 9500 kg/m3. Ours: outside, the scale or the thread
    /// is at fault, not the iron.
    pub fn new(kilograms_per_cubic_metre: f64) -> Result<Self, OutOfRange> {
        OutOfRange::check("a density", "kg/m3", (5000.0, 9500.0), kilograms_per_cubic_metre)
            .map(|kilograms_per_cubic_metre| Self { kilograms_per_cubic_metre })
    }
}

/// What a test found.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Finding {
    Look {
        test: LookTest,
        outcome: &'static Outcome,
    },
    Sound(SoundSpeed),
    Density(Density),
    /// A casting mark that names a grade of this iron.
    Mark(Iron),
}

impl Finding {
    /// Wire id of the test.
    #[must_use]
    pub fn test_id(&self) -> &'static str {
        match self {
            Self::Look { test, .. } => test.id(),
            Self::Sound(_) => "sound",
            Self::Density(_) => "density",
            Self::Mark(_) => "mark",
        }
    }

    /// Name of the test: "Punch".
    #[must_use]
    pub fn label(&self) -> &'static str {
        match self {
            Self::Look { test, .. } => test.label(),
            Self::Sound(_) => "Sound",
            Self::Density(_) => "Density",
            Self::Mark(_) => "Mark",
        }
    }

    /// What was found, in words.
    #[must_use]
    pub fn words(&self) -> String {
        match self {
            Self::Look { test, outcome } => format!("{} {}", test.label(), outcome.looks),
            Self::Sound(sound) => format!("Sound {:.0} m/s", sound.metres_per_second),
            Self::Density(density) => {
                format!("Density {:.0} kg/m³", density.kilograms_per_cubic_metre)
            }
            Self::Mark(iron) => format!("Mark {}", iron.label().to_lowercase()),
        }
    }

    /// Probability (or density) of this finding given each iron, in the order of [`Iron::ALL`].
    pub(super) fn likelihood(&self) -> [f64; 6] {
        match self {
            Self::Look { outcome, .. } => outcome.given,
            Self::Sound(sound) => Iron::ALL.map(|iron| {
                let (mean, sd) = self.spread_about(*sound, iron);
                normal_density(sound.metres_per_second, mean, sd)
            }),
            Self::Density(density) => Iron::ALL.map(|iron| {
                let (mean, sd) = density_kg_m3(iron);
                normal_density(density.kilograms_per_cubic_metre, mean, sd)
            }),
            // House: a cast-in grade is wrong once in thirty or so, through any other iron.
            Self::Mark(marked) => Iron::ALL.map(|iron| if iron == *marked { 0.97 } else { 0.006 }),
        }
    }

    fn spread_about(&self, sound: SoundSpeed, iron: Iron) -> (f64, f64) {
        let (mean, sd) = sound_speed_m_s(iron);
        (mean, sd.hypot(sound.reading_sd()))
    }

    /// How many standard deviations a measured value is from what `iron` gives; nothing for looks.
    pub(super) fn deviations_from(&self, iron: Iron) -> Option<f64> {
        let (value, (mean, sd)) = match self {
            Self::Sound(sound) => (sound.metres_per_second, self.spread_about(*sound, iron)),
            Self::Density(density) => (density.kilograms_per_cubic_metre, density_kg_m3(iron)),
            Self::Look { .. } | Self::Mark(_) => return None,
        };
        Some((value - mean).abs() / sd)
    }
}

fn normal_density(value: f64, mean: f64, sd: f64) -> f64 {
    let z = (value - mean) / sd;
    (-0.5 * z * z).exp() / sd
}

/// One observation at one spot of the part.
#[derive(Debug, Clone, PartialEq)]
pub struct Evidence {
    pub finding: Finding,
    pub confidence: Confidence,
    pub spot: String,
}

impl Evidence {
    /// Where a test is taken to be done when nothing else is said.
    pub const FIRST_SPOT: &'static str = "first spot";
}
