//! Tests that are measured or read, from what is typed to a finding.

use std::collections::BTreeMap;

use serde::Serialize;

use super::{Density, Finding, Iron, SoundSpeed, grade_of};
use crate::base::problem::{FieldProblem, Problems};
use crate::quantity::{Kind, NotUnderstood, Unit, UnitSystem, WallMillimetres, parse};
use crate::render::said_exactly;

/// A test whose outcome is typed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum MeasuredTest {
    Sound,
    Density,
    Mark,
}

/// One thing to type for a measured test.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MeasuredInput {
    pub key: &'static str,
    pub label: &'static str,
    /// Nothing for words.
    pub kind: Option<Kind>,
    /// A template.
    pub example: &'static str,
}

/// What was typed for a measured test, by [`MeasuredInput::key`].
pub type TypedValues = BTreeMap<String, String>;

/// A measured test worked out.
#[derive(Debug, Clone, PartialEq)]
pub struct Measured {
    pub finding: Finding,
    /// The iron's id of a mark; empty otherwise.
    pub outcome: String,
    /// "5570 m/s through 14 mm", in metric and in imperial units.
    pub words: (String, String),
    /// What else it says; empty for nothing.
    pub note: String,
}

const fn asked(
    key: &'static str,
    label: &'static str,
    kind: Option<Kind>,
    example: &'static str,
) -> MeasuredInput {
    MeasuredInput { key, label, kind, example }
}

impl MeasuredTest {
    pub const ALL: [Self; 3] = [Self::Sound, Self::Density, Self::Mark];

    #[must_use]
    pub fn id(self) -> &'static str {
        match self {
            Self::Sound => "sound",
            Self::Density => "density",
            Self::Mark => "mark",
        }
    }

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|test| test.id() == id)
    }

    #[must_use]
    pub fn label(self) -> &'static str {
        match self {
            Self::Sound => "Sound speed",
            Self::Density => "Density",
            Self::Mark => "Casting mark",
        }
    }

    /// What has to be typed.
    #[must_use]
    pub fn asks(self) -> &'static [MeasuredInput] {
        const SOUND: &[MeasuredInput] = &[
            asked("set_speed", "Gauge set to", Some(Kind::SoundSpeed), "{5920 m/s}"),
            asked("caliper", "Caliper says", Some(Kind::Length), "{14.0 mm}"),
            asked("shown", "Gauge says", Some(Kind::Length), "{14.9 mm}"),
        ];
        const DENSITY: &[MeasuredInput] = &[
            asked("in_air", "Weighs in air", Some(Kind::Mass), "{3.40 kg}"),
            asked("in_water", "Hung in water", Some(Kind::Mass), "{2.93 kg}"),
            asked("water", "Water is", Some(Kind::Temperature), "{18 degC}"),
        ];
        const MARK: &[MeasuredInput] = &[asked("mark", "Cast or stamped on it", None, "EN-GJS-400-15")];
        match self {
            Self::Sound => SOUND,
            Self::Density => DENSITY,
            Self::Mark => MARK,
        }
    }

    /// How to do it, and what to mind: two lines.
    #[must_use]
    pub fn how(self) -> (&'static str, &'static str) {
        match self {
            Self::Sound => (
                "Caliper on a flat wall, then the ultrasonic gauge on the same place.",
                "Both faces bare and level: paint and a slope read wrong.",
            ),
            Self::Density => (
                "Weigh it, then hang it under water by a thin wire and weigh again.",
                "No trapped air, nothing touching the sides. Dry it well before any heat.",
            ),
            Self::Mark => (
                "Look for raised or stamped letters beside the maker's sign.",
                "A part number is no grade. A mark can be of the pattern, not of this casting.",
            ),
        }
    }

    /// What the typed values find.
    ///
    /// # Errors
    /// Every value that is missing, not understood or outside what can be, at its key.
    pub fn measure(self, typed: &TypedValues, shown_in: UnitSystem) -> Result<Measured, Vec<FieldProblem>> {
        let mut problems = Problems::default();
        let mut value = |at: usize| {
            let MeasuredInput { key, kind, example, .. } = self.asks()[at];
            let text = typed.get(key).map_or("", |text| text.trim());
            match parse(text, kind?, shown_in) {
                Ok(read) => Some(read.value),
                Err(NotUnderstood::Empty) => {
                    problems.add(FieldProblem::new(
                        key,
                        "this is needed too",
                        said_exactly(example, shown_in),
                    ));
                    None
                }
                Err(error) => {
                    problems.add(FieldProblem::new(key, error.to_string(), said_exactly(example, shown_in)));
                    None
                }
            }
        };
        match self {
            Self::Sound => {
                let read = (value(0), value(1), value(2));
                sound(read, problems)
            }
            Self::Density => {
                let (air, hung, water) = (value(0), value(1), value(2));
                let (Some(air), Some(hung), Some(water)) = (air, hung, water) else {
                    return Err(problems.finish().err().unwrap_or_default());
                };
                density(air, hung, water)
            }
            Self::Mark => mark(typed.get("mark").map_or("", |text| text.trim())),
        }
    }
}

/// What the gauge was set to, what the caliper reads and what the gauge shows, in m/s and mm.
fn sound(
    (set, caliper, shown): (Option<f64>, Option<f64>, Option<f64>),
    mut problems: Problems,
) -> Result<Measured, Vec<FieldProblem>> {
    let wall = caliper.and_then(|mm| problems.take("caliper", WallMillimetres::new(mm)));
    let shown = shown.and_then(|mm| problems.take("shown", WallMillimetres::new(mm)));
    let (Some(set), Some(wall), Some(shown)) = (set, wall, shown) else {
        return Err(problems.finish().err().unwrap_or_default());
    };
    let speed = sound_speed_m_s(set, wall, shown);
    let sound = SoundSpeed::new(speed, wall).map_err(|_| {
        FieldProblem::new(
            "shown",
            format!("that would be {speed:.0} m/s: no iron or steel sounds like that"),
            "3500 to 6300 m/s: measure again",
        )
    });
    problems.finish()?;
    let sound = sound.map_err(|problem| vec![problem])?;
    let words = |units: UnitSystem| {
        format!(
            "{} through {}",
            units.say(speed, Unit::MetresPerSecond),
            units.say(wall.millimetres(), Unit::Millimetres)
        )
    };
    Ok(Measured {
        finding: Finding::Sound(sound),
        outcome: String::new(),
        words: (words(UnitSystem::Metric), words(UnitSystem::Imperial)),
        note: String::new(),
    })
}

/// What it weighs in air and hung in water, in kg, and how warm the water is, in degC.
fn density(air: f64, hung: f64, water: f64) -> Result<Measured, Vec<FieldProblem>> {
    let Some(of_water) = water_density_kg_m3(water) else {
        let what = "water is weighed in between freezing and hand-hot";
        return Err(vec![FieldProblem::new("water", what, "0 to 40 C")]);
    };
    if !(air > 0.0 && hung > 0.0 && hung < air) {
        let what = "hung in water it has to weigh less than in air";
        return Err(vec![FieldProblem::new("in_water", what, "less than in air, over 0")]);
    }
    let found = density_kg_m3(of_water, air, hung);
    let density = Density::new(found).map_err(|_| {
        let what = format!("that would be {found:.0} kg/m³: the scale or the wire is at fault");
        vec![FieldProblem::new("in_water", what, "5000 to 9500 kg/m³: weigh again")]
    })?;
    Ok(Measured {
        finding: Finding::Density(density),
        outcome: String::new(),
        words: (format!("{found:.0} kg/m³"), format!("{:.0} lb/ft³", found * LB_FT3_IN_KG_M3)),
        note: String::new(),
    })
}

/// A grade cast in or stamped on it.
fn mark(mark: &str) -> Result<Measured, Vec<FieldProblem>> {
    let Some(grade) = grade_of(mark).filter(|_| mark.chars().count() <= MARK_MOST) else {
        let what = format!("\"{mark}\" names no grade that is known here");
        return Err(vec![FieldProblem::new("mark", what, "EN-GJL-250, 60-40-18, FCD450 or GTS-35")]);
    };
    let words = |units: UnitSystem| {
        let strength = grade.tensile_mpa.map(|mpa| units.say(mpa, Unit::Megapascals));
        let strength = strength.map_or(String::new(), |mpa| format!(", {mpa}"));
        format!("{mark}: {} ({}{strength})", grade.iron.label().to_lowercase(), grade.notation)
    };
    Ok(Measured {
        finding: Finding::Mark(grade.iron),
        outcome: grade.iron.id().to_owned(),
        words: (words(UnitSystem::Metric), words(UnitSystem::Imperial)),
        note: grade.note.to_owned(),
    })
}

/// Pounds a cubic foot in a kg/m³, by definition.
const LB_FT3_IN_KG_M3: f64 = 0.062_428;

/// Longest mark that is read. Ours.
const MARK_MOST: usize = 80;

/// Sound speed in m/s = the gauge's set speed x true thickness / shown thickness.
#[must_use]
pub fn sound_speed_m_s(set_m_s: f64, caliper: WallMillimetres, shown: WallMillimetres) -> f64 {
    set_m_s * caliper.millimetres() / shown.millimetres()
}

/// Density in kg/m³ = that of the water x mass in air / (mass in air - mass hung in water).
///
/// # Source
/// Archimedes' principle.
#[must_use]
pub fn density_kg_m3(of_water_kg_m3: f64, in_air_kg: f64, in_water_kg: f64) -> f64 {
    of_water_kg_m3 * in_air_kg / (in_air_kg - in_water_kg)
}

/// Density of water in kg/m³, linear between 0, 20, 30 and 40 degC; nothing outside.
#[must_use]
pub fn water_density_kg_m3(celsius: f64) -> Option<f64> {
    const KNOWN: [(f64, f64); 4] = [(0.0, 999.8), (20.0, 998.2), (30.0, 995.6), (40.0, 992.2)];
    KNOWN.windows(2).find(|pair| (pair[0].0..=pair[1].0).contains(&celsius)).map(|pair| {
        let share = (celsius - pair[0].0) / (pair[1].0 - pair[0].0);
        pair[0].1 + share * (pair[1].1 - pair[0].1)
    })
}

/// What an observation by mark alone says, where the mark itself was not typed.
#[must_use]
pub fn mark_words(iron: Iron) -> String {
    format!("names {}", iron.label().to_lowercase())
}

/// A value in words in the system asked for.
#[must_use]
pub fn in_system(words: &(String, String), units: UnitSystem) -> &str {
    match units {
        UnitSystem::Metric => &words.0,
        UnitSystem::Imperial => &words.1,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn typed(values: &[(&str, &str)]) -> TypedValues {
        values.iter().map(|(key, text)| ((*key).to_owned(), (*text).to_owned())).collect()
    }

    #[rstest]
    // Hand-worked: 5920 x 14.0 / 14.9
    #[case::metric("5920 m/s", "14.0", "14.9", 5562.4)]
    // Hand-worked: 0.233 in/us = 5918.2 m/s; 5918.2 x 0.551 / 0.586
    #[case::inches("0.233", "0.551 in", "0.586 in", 5564.7)]
    fn a_thickness_gauge_and_a_caliper_give_the_sound_speed(
        #[case] set: &str,
        #[case] caliper: &str,
        #[case] shown: &str,
        #[case] metres_per_second: f64,
    ) {
        let values = typed(&[("set_speed", set), ("caliper", caliper), ("shown", shown)]);
        let found = MeasuredTest::Sound.measure(&values, UnitSystem::Metric).unwrap();
        let expected = format!("{metres_per_second:.0} m/s");
        assert!(found.words.0.starts_with(&expected), "{} against {expected}", found.words.0);
    }

    #[test]
    fn two_weighings_and_the_water_give_the_density() {
        // Hand-worked: water at 25 degC lies half-way: 996.9; 996.9 x 3.40 / (3.40 - 2.925)
        let values = typed(&[("in_air", "3.40 kg"), ("in_water", "2.925 kg"), ("water", "25 C")]);
        let found = MeasuredTest::Density.measure(&values, UnitSystem::Metric).unwrap();
        assert_eq!(found.words.0, "7136 kg/m³");
    }

    #[rstest]
    // Published: the trade reference, water at 0, 20, 30, 40 degC
    #[case::freezing(0.0, Some(999.8))]
    #[case::shop(20.0, Some(998.2))]
    #[case::between(35.0, Some(993.9))]
    #[case::hand_hot(40.0, Some(992.2))]
    #[case::ice(-0.1, None)]
    #[case::too_hot(40.1, None)]
    fn water_is_as_dense_as_the_table_says(#[case] celsius: f64, #[case] expected: Option<f64>) {
        let found = water_density_kg_m3(celsius).map(|d| (d * 100.0).round() / 100.0);
        assert_eq!(found, expected);
    }

    #[rstest]
    #[case::nothing_typed(MeasuredTest::Sound, &[], &["set_speed", "caliper", "shown"])]
    #[case::one_missing(MeasuredTest::Density, &[("in_air", "3 kg"), ("in_water", "2 kg")], &["water"])]
    #[case::no_such_iron(MeasuredTest::Sound, &[("set_speed", "5920"), ("caliper", "14"), ("shown", "30")], &["shown"])]
    #[case::heavier_in_water(MeasuredTest::Density, &[("in_air", "3 kg"), ("in_water", "3 kg"), ("water", "20 C")], &["in_water"])]
    #[case::boiling(MeasuredTest::Density, &[("in_air", "3 kg"), ("in_water", "2.6 kg"), ("water", "90 C")], &["water"])]
    #[case::a_thread_caught(MeasuredTest::Density, &[("in_air", "3 kg"), ("in_water", "1 kg"), ("water", "20 C")], &["in_water"])]
    #[case::words_for_a_number(MeasuredTest::Sound, &[("set_speed", "steel"), ("caliper", "14"), ("shown", "14.9")], &["set_speed"])]
    #[case::part_number(MeasuredTest::Mark, &[("mark", "PAT. 1184")], &["mark"])]
    fn what_cannot_be_is_told_at_its_field(
        #[case] test: MeasuredTest,
        #[case] values: &[(&str, &str)],
        #[case] fields: &[&str],
    ) {
        let problems = test.measure(&typed(values), UnitSystem::Metric).unwrap_err();
        assert_eq!(problems.iter().map(|p| p.field.as_str()).collect::<Vec<_>>(), fields);
    }

    #[test]
    fn what_would_be_right_fits_what_is_asked() {
        // Not the temperature of a preheat: water boils there.
        let values = typed(&[("in_air", "3 kg"), ("in_water", "2.6 kg"), ("water", "warm")]);
        let problems = MeasuredTest::Density.measure(&values, UnitSystem::Metric).unwrap_err();
        assert_eq!(problems[0].would_be_right, "18 °C");
    }

    #[test]
    fn a_mark_is_read_with_its_strength() {
        let found =
            MeasuredTest::Mark.measure(&typed(&[("mark", "EN-GJS-400-15")]), UnitSystem::Metric).unwrap();
        assert_eq!(found.outcome, "ductile");
        assert_eq!(found.words.0, "EN-GJS-400-15: ductile (EN 1563, 400 MPa)");
    }
}
