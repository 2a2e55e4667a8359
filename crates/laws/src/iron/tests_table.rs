//! The tests judged by look, and what each iron is likely to show. House throughout.

use serde::Serialize;

use super::Iron;

/// A bench test whose outcome is seen, heard or felt.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum LookTest {
    Spark,
    Punch,
    Drill,
    Ring,
    Fracture,
    File,
    Magnet,
}

/// One thing a test can show: its id, how it looks, and its probability given each iron in the
/// order of [`Iron::ALL`].
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Outcome {
    pub id: &'static str,
    pub looks: &'static str,
    pub given: [f64; 6],
}

impl LookTest {
    pub const ALL: [Self; 7] =
        [Self::Spark, Self::Punch, Self::Drill, Self::Ring, Self::Fracture, Self::File, Self::Magnet];

    #[must_use]
    pub fn id(self) -> &'static str {
        match self {
            Self::Spark => "spark",
            Self::Punch => "punch",
            Self::Drill => "drill",
            Self::Ring => "ring",
            Self::Fracture => "fracture",
            Self::File => "file",
            Self::Magnet => "magnet",
        }
    }

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|test| test.id() == id)
    }

    #[must_use]
    pub fn label(self) -> &'static str {
        match self {
            Self::Spark => "Spark",
            Self::Punch => "Punch",
            Self::Drill => "Drill",
            Self::Ring => "Ring",
            Self::Fracture => "Break",
            Self::File => "File",
            Self::Magnet => "Magnet",
        }
    }

    /// What to do, as the next thing.
    #[must_use]
    pub fn verb(self) -> &'static str {
        match self {
            Self::Spark => "Touch it to the grinder",
            Self::Punch => "Set a punch to it",
            Self::Drill => "Drill a little",
            Self::Ring => "Hang it and tap it",
            Self::Fracture => "Look at the break",
            Self::File => "Try a file",
            Self::Magnet => "Try a magnet",
        }
    }

    #[must_use]
    pub fn minutes(self) -> f64 {
        match self {
            Self::Spark => 3.0,
            Self::Punch => 2.0,
            Self::Drill => 5.0,
            Self::Ring | Self::Fracture | Self::File | Self::Magnet => 1.0,
        }
    }

    /// The mark the test leaves on the part; nothing where it leaves none.
    #[must_use]
    pub fn mark(self) -> Option<&'static str> {
        match self {
            Self::Spark | Self::File => Some("a scratch"),
            Self::Punch => Some("a dent"),
            Self::Drill => Some("a small hole (free in a stop-hole)"),
            Self::Ring | Self::Fracture | Self::Magnet => None,
        }
    }

    /// How to do it, and what to mind: two lines.
    #[must_use]
    pub fn how(self) -> (&'static str, &'static str) {
        match self {
            Self::Spark => (
                "Touch it lightly to the wheel, then a piece of known steel: compare the streams (dashed: the steel's).",
                "Eyes. Dim the lights to see it, and back on before anyone moves.",
            ),
            Self::Punch => (
                "One sharp blow of a centre punch on bare metal, where it will not show.",
                "Eyes: white iron chips fly.",
            ),
            Self::Drill => (
                "Slow and dry, a few turns deep. Where a stop-hole will be it costs nothing.",
                "Skates? Stop, don't burn the drill. Hold the part: drills grab.",
            ),
            Self::Ring => (
                "Hang it by a wire and tap it with a small hammer. Listen for how long it sings.",
                "An open crack deadens any iron: then it tells little. Nobody under it.",
            ),
            Self::Fracture => (
                "Brush a fresh part of the break and look at it in daylight. Don't grind it.",
                "Rust, oil and soot darken any iron. The edges cut.",
            ),
            Self::File => (
                "A sharp file on bare metal, the skin ground off first.",
                "A skin, a chill or one hard spot skates on any iron: try a hand's breadth away.",
            ),
            Self::Magnet => {
                ("Hold a magnet to bare metal.", "Scale and thick paint weaken it: clean the spot first.")
            }
        }
    }

    #[must_use]
    pub fn outcomes(self) -> &'static [Outcome] {
        match self {
            Self::Spark => SPARK,
            Self::Punch => PUNCH,
            Self::Drill => DRILL,
            Self::Ring => RING,
            Self::Fracture => FRACTURE,
            Self::File => FILE,
            Self::Magnet => MAGNET,
        }
    }

    #[must_use]
    pub fn outcome(self, id: &str) -> Option<&'static Outcome> {
        self.outcomes().iter().find(|outcome| outcome.id == id)
    }
}

const fn outcome(id: &'static str, looks: &'static str, given: [f64; 6]) -> Outcome {
    Outcome { id, looks, given }
}

const SPARK: &[Outcome] = &[
    outcome("short_dull_red", "short, dull red", [0.74, 0.42, 0.30, 0.62, 0.55, 0.02]),
    outcome("medium_straw", "medium, straw", [0.22, 0.46, 0.56, 0.28, 0.30, 0.10]),
    outcome("long_bright_forked", "long, bright, forked", [0.04, 0.12, 0.14, 0.10, 0.15, 0.88]),
];
const PUNCH: &[Outcome] = &[
    outcome("crumbles_no_rim", "crumbles, no rim", [0.85, 0.06, 0.10, 0.42, 0.30, 0.02]),
    outcome("raises_rim", "raises a rim", [0.12, 0.84, 0.76, 0.02, 0.58, 0.60]),
    outcome("curls_a_chip", "curls a chip", [0.02, 0.08, 0.12, 0.01, 0.10, 0.37]),
    outcome("skates", "skates off", [0.01, 0.02, 0.02, 0.55, 0.02, 0.01]),
];
const DRILL: &[Outcome] = &[
    outcome("powder_and_crumbs", "powder and crumbs", [0.90, 0.16, 0.26, 0.12, 0.32, 0.02]),
    outcome("short_curls", "short curls", [0.08, 0.74, 0.64, 0.02, 0.50, 0.22]),
    outcome("long_curls", "long curls", [0.01, 0.09, 0.09, 0.01, 0.16, 0.75]),
    outcome("will_not_bite", "will not bite", [0.01, 0.01, 0.01, 0.85, 0.02, 0.01]),
];
const RING: &[Outcome] = &[
    outcome("dull", "dull", [0.78, 0.18, 0.32, 0.35, 0.35, 0.06]),
    outcome("clear", "clear", [0.22, 0.82, 0.68, 0.65, 0.65, 0.94]),
];
const FRACTURE: &[Outcome] = &[
    outcome("dark_sooty", "dark, sooty", [0.84, 0.16, 0.10, 0.01, 0.40, 0.01]),
    outcome("light_gray_silky", "light gray, silky", [0.10, 0.74, 0.18, 0.03, 0.50, 0.50]),
    outcome("dark_core_bright_rim", "dark core, bright rim", [0.02, 0.02, 0.62, 0.02, 0.02, 0.02]),
    outcome("white_crystalline", "white, crystals", [0.02, 0.02, 0.04, 0.92, 0.03, 0.12]),
    outcome("coarse_bright_grains", "coarse, bright grains", [0.02, 0.06, 0.06, 0.02, 0.05, 0.35]),
];
const FILE: &[Outcome] = &[
    outcome("bites", "bites", [0.90, 0.86, 0.93, 0.04, 0.90, 0.92]),
    outcome("skates", "skates", [0.10, 0.14, 0.07, 0.96, 0.10, 0.08]),
];
const MAGNET: &[Outcome] = &[
    outcome("strong", "pulls hard", [0.99, 0.99, 0.99, 0.98, 0.12, 0.99]),
    outcome("weak_or_none", "weak or not at all", [0.01, 0.01, 0.01, 0.02, 0.88, 0.01]),
];

/// Mean and standard deviation of the sound speed in m/s.
pub(super) fn sound_speed_m_s(iron: Iron) -> (f64, f64) {
    match iron {
        Iron::Gray => (4650.0, 300.0),
        Iron::Ductile => (5570.0, 70.0),
        Iron::Malleable => (5480.0, 120.0),
        Iron::White => (5500.0, 200.0),
        Iron::NiResist => (4900.0, 300.0),
        Iron::Steel => (5900.0, 40.0),
    }
}

/// Mean and standard deviation of the density in kg/m3.
pub(super) fn density_kg_m3(iron: Iron) -> (f64, f64) {
    match iron {
        Iron::Gray => (7150.0, 90.0),
        Iron::Ductile => (7100.0, 70.0),
        Iron::Malleable => (7300.0, 60.0),
        Iron::White => (7650.0, 80.0),
        Iron::NiResist => (7350.0, 90.0),
        Iron::Steel => (7840.0, 40.0),
    }
}

impl Iron {
    /// Mean and standard deviation of its sound speed in m/s. House.
    #[must_use]
    pub fn sound_m_s(self) -> (f64, f64) {
        sound_speed_m_s(self)
    }

    /// Mean and standard deviation of its density in kg/m3. House.
    #[must_use]
    pub fn weighs_kg_m3(self) -> (f64, f64) {
        density_kg_m3(self)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_iron_shows_exactly_one_outcome_of_each_test() {
        for test in LookTest::ALL {
            for iron in Iron::ALL {
                let sum: f64 = test.outcomes().iter().map(|o| o.given[iron.index()]).sum();
                assert!((sum - 1.0).abs() < 1e-12, "{} {}: {sum}", test.id(), iron.id());
            }
        }
    }
}
