//! Each calculation on its own, without a job: a sentence with blanks that people fill in as they speak.
//!
//! A calculation is one `Calculation`: its words, its sentence, what it works out. Everything else (parsing, bounds, the
//! shop's units, the pages) goes by that.

mod blank;
mod carries;
mod gas;
mod holes;
mod metal;
mod reading;
mod way_down;
mod way_up;

use std::collections::BTreeMap;

use serde::Serialize;

pub use blank::{Asks, Blank, Filled};

use crate::base::problem::FieldProblem;
use crate::figure::Figure;
use crate::quantity::{Shown, Unit, UnitSystem, exactly};
use crate::render::said;
use crate::shop::Shop;

/// One piece of a sentence.
#[derive(Debug, Clone, Copy)]
pub enum SentencePart {
    Words(&'static str),
    Ask(&'static Blank),
    /// A figure or words that are worked out, by name.
    Answer(&'static str),
}

/// A calculation as it is asked for.
#[derive(Debug)]
pub struct Calculation {
    pub id: &'static str,
    pub name: &'static str,
    /// What a welder may say when looking for it, beside the words of its name and sentence.
    pub found_by: &'static str,
    pub sentence: &'static [SentencePart],
    pub work: fn(&Filled, &Shop) -> Result<Answer, FieldProblem>,
    /// The answer that a job keeps as a fact: which, and of what field.
    pub fact: Option<(&'static str, &'static str)>,
}

/// Illustration beside an answer, in the units the core works in.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Illustration {
    /// A way down or up: (min, degC), and the temperatures it is read against.
    Curve { points: Vec<(f64, f64)>, against_c: Vec<f64> },
    /// An end of a crack and its hole: how far the true end may lie beyond the one seen, 10 and 90 of 100.
    Tip { drill_mm: f64, offset_mm: f64, beyond_mm: (f64, f64) },
    /// Holes in a row or round: so many of a diameter, this far apart.
    Row { count: u32, pin_mm: f64, pitch_mm: f64, closed: bool },
    /// A groove in a wall, as its outline from the left: across and up, in mm, and the wall.
    Groove { outline_mm: Vec<(f64, f64)>, wall_mm: f64 },
}

/// What came out.
#[derive(Debug, Default)]
pub struct Answer {
    pub figures: Vec<Figure>,
    /// Answers that are words, by name; templates.
    pub words: Vec<(&'static str, String)>,
    /// What should be known about it; templates.
    pub notes: Vec<String>,
    pub illustration: Option<Illustration>,
}

/// Every calculation, in the order of a repair.
pub const ALL: &[&Calculation] = &[
    &metal::WEIGHT,
    &metal::WALL_BY_GAUGE,
    &metal::SOUND_SPEED,
    &holes::STOP_HOLE,
    &holes::DRILL_SPEED,
    &holes::PIN_FOR_A_WALL,
    &holes::PINS_ALONG,
    &holes::PINS_ROUND,
    &holes::NAMED_DRILL,
    &metal::GROOVE,
    &metal::EDGE,
    &way_up::WILL_IT_DO,
    &way_up::ENERGY,
    &way_up::OVEN,
    &way_up::PULL,
    &gas::BURNS,
    &gas::WITHDRAWAL,
    &gas::LEFT,
    &reading::GUN_SHOWS,
    &reading::GUN_AIM,
    &reading::GUN_SPOT,
    &reading::STICKS,
    &reading::BEAD_RISE,
    &way_down::OUT_OF_HEAT,
    &way_down::COOLING,
    &carries::ARM,
];

/// The calculation of this id.
#[must_use]
pub fn calculation(id: &str) -> Option<&'static Calculation> {
    ALL.iter().copied().find(|it| it.id == id)
}

/// An answer as it is shown.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Reckoned {
    pub figures: Vec<Figure>,
    /// Answers that are words, by name.
    pub words: BTreeMap<String, String>,
    pub notes: Vec<String>,
    /// How each amount was understood, by the key of its blank.
    pub understood: BTreeMap<String, ParsedAmount>,
    pub illustration: Option<Illustration>,
}

/// An amount as it was understood.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ParsedAmount {
    pub metric: Shown,
    pub imperial: Shown,
}

impl ParsedAmount {
    fn of(value: f64, unit: Unit) -> Self {
        let (metric, imperial) = exactly(value, unit);
        Self { metric, imperial }
    }
}

impl Calculation {
    /// What is asked for, in the order of the sentence.
    pub fn blanks(&self) -> impl Iterator<Item = &'static Blank> {
        self.sentence.iter().filter_map(|piece| match piece {
            SentencePart::Ask(blank) => Some(*blank),
            SentencePart::Words(_) | SentencePart::Answer(_) => None,
        })
    }

    /// Worked out from what was typed in these units; what was not typed is as usual.
    ///
    /// # Errors
    /// Each blank that cannot be, at its key.
    pub fn reckon(
        &self,
        typed: &BTreeMap<String, String>,
        units: UnitSystem,
        shop: &Shop,
    ) -> Result<Reckoned, Vec<FieldProblem>> {
        let filled = Filled::read(self.blanks(), typed, units)?;
        let answer = (self.work)(&filled, shop).map_err(|problem| vec![problem])?;
        let facts = filled.facts();
        let figures = answer.figures.into_iter().map(|mut figure| {
            if figure.facts.is_empty() {
                figure.facts.clone_from(&facts);
            }
            figure.said_in(units)
        });
        Ok(Reckoned {
            figures: figures.collect(),
            words: answer.words.into_iter().map(|(id, it)| (id.to_owned(), said(&it, units))).collect(),
            notes: answer.notes.iter().map(|it| said(it, units)).collect(),
            understood: filled
                .amounts()
                .map(|(key, value, unit)| (key.to_owned(), ParsedAmount::of(value, unit)))
                .collect(),
            illustration: answer.illustration,
        })
    }
}

/// What comes out in a shop of which nothing is known.
#[cfg(test)]
fn reckoned(
    of: &Calculation,
    typed: &[(&str, &str)],
    units: UnitSystem,
) -> Result<Reckoned, Vec<FieldProblem>> {
    let typed = typed.iter().map(|(key, text)| ((*key).to_owned(), (*text).to_owned())).collect();
    of.reckon(&typed, units, &Shop::of(&BTreeMap::new()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_sentence_is_worked_out_as_it_stands_and_says_all_it_promises() {
        for calculation in ALL {
            for units in [UnitSystem::Metric, UnitSystem::Imperial] {
                let found = calculation.reckon(&BTreeMap::new(), units, &Shop::of(&BTreeMap::new()));
                let found = found.unwrap_or_else(|problems| panic!("{}: {problems:?}", calculation.id));
                for piece in calculation.sentence {
                    let SentencePart::Answer(id) = piece else { continue };
                    let said = found.words.contains_key(*id) || found.figures.iter().any(|it| it.id == *id);
                    assert!(said, "{} does not say {id}", calculation.id);
                }
                if let Some((id, field)) = calculation.fact {
                    assert!(found.figures.iter().any(|it| it.id == id), "{}", calculation.id);
                    assert!(crate::field::job_field(field).is_some(), "{field}");
                }
                for figure in &found.figures {
                    assert!(!figure.formula.is_empty(), "{}: {} has no working", calculation.id, figure.id);
                    assert!(figure.value.is_finite(), "{}: {}", calculation.id, figure.id);
                }
            }
        }
    }

    #[test]
    fn ids_and_keys_are_each_one_of_a_kind() {
        for (at, one) in ALL.iter().enumerate() {
            assert!(ALL[at + 1..].iter().all(|it| it.id != one.id), "{}", one.id);
            let keys: Vec<&str> = one.blanks().map(|blank| blank.key).collect();
            let mut once = keys.clone();
            once.sort_unstable();
            once.dedup();
            assert_eq!(once.len(), keys.len(), "{}", one.id);
        }
    }

    #[test]
    fn each_wrong_blank_is_told_at_its_own_key_and_all_at_once() {
        let typed = |pairs: &[(&str, &str)]| {
            pairs.iter().map(|(key, text)| ((*key).to_owned(), (*text).to_owned())).collect()
        };
        let out = calculation("out-of-heat").unwrap();
        let asked = typed(&[("mass", "heavy"), ("iron", "brass"), ("from", "9000 F"), ("to", "")]);
        let problems = out.reckon(&asked, UnitSystem::Imperial, &Shop::of(&BTreeMap::new())).unwrap_err();
        let at: Vec<&str> = problems.iter().map(|it| it.field.as_str()).collect();
        assert_eq!(at, ["iron", "mass", "from", "to"]);
        assert!(problems[2].would_be_right.contains("°F"), "{problems:?}");
        assert!(problems.iter().all(|it| !it.would_be_right.is_empty()));
    }
}
