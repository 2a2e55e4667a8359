//! What a sentence leaves open, and what was put in.

use std::collections::BTreeMap;

use crate::base::problem::FieldProblem;
use crate::figure::FactUsed;
use crate::quantity::{Kind, NotUnderstood, Unit, UnitSystem, parse};

/// What may stand in a blank.
#[derive(Debug, Clone, Copy)]
pub enum Asks {
    /// A quantity as people say it, in bounds in the unit the core works in.
    Amount { kind: Kind, low: f64, high: f64 },
    /// One of these: id and words.
    OneOf(&'static [(&'static str, &'static str)]),
}

/// One blank of a sentence.
#[derive(Debug)]
pub struct Blank {
    pub key: &'static str,
    pub label: &'static str,
    pub asks: Asks,
    /// What stands there until something else is typed: in metric and in imperial units, or the id of a choice.
    pub usual: (&'static str, &'static str),
}

impl Blank {
    #[must_use]
    pub const fn amount(
        key: &'static str,
        label: &'static str,
        kind: Kind,
        (low, high): (f64, f64),
        usual: (&'static str, &'static str),
    ) -> Self {
        Self { key, label, asks: Asks::Amount { kind, low, high }, usual }
    }

    #[must_use]
    pub const fn one_of(
        key: &'static str,
        label: &'static str,
        choices: &'static [(&'static str, &'static str)],
    ) -> Self {
        Self { key, label, asks: Asks::OneOf(choices), usual: (choices[0].0, choices[0].0) }
    }

    /// The same with another choice standing there first.
    #[must_use]
    pub const fn usually(self, id: &'static str) -> Self {
        Self { usual: (id, id), ..self }
    }

    /// What stands there until something else is typed.
    #[must_use]
    pub fn usual_in(&self, units: UnitSystem) -> &'static str {
        match units {
            UnitSystem::Metric => self.usual.0,
            UnitSystem::Imperial => self.usual.1,
        }
    }
}

/// A value in a blank.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Value {
    Amount(f64, Unit),
    Choice(&'static str, &'static str),
}

/// The blanks of one sentence, each filled.
#[derive(Debug)]
pub struct Filled {
    values: Vec<(&'static Blank, Value)>,
    /// Of whoever asks.
    pub units: UnitSystem,
}

impl Filled {
    /// # Errors
    /// Each blank that cannot be, at its key.
    pub(super) fn read(
        blanks: impl Iterator<Item = &'static Blank>,
        typed: &BTreeMap<String, String>,
        units: UnitSystem,
    ) -> Result<Self, Vec<FieldProblem>> {
        let (mut values, mut problems) = (Vec::new(), Vec::new());
        for blank in blanks {
            let text = typed.get(blank.key).map_or(blank.usual_in(units), String::as_str);
            match value(blank, text, units) {
                Ok(value) => values.push((blank, value)),
                Err(problem) => problems.push(problem),
            }
        }
        if problems.is_empty() { Ok(Self { values, units }) } else { Err(problems) }
    }

    fn of(&self, blank: &Blank) -> Option<Value> {
        self.values.iter().find(|(it, _)| it.key == blank.key).map(|(_, value)| *value)
    }

    /// The amount in a blank of this sentence, in the unit the core works in.
    ///
    /// # Panics
    /// It is no amount of this sentence: each calculation is tried by a test.
    #[must_use]
    pub fn amount(&self, blank: &Blank) -> f64 {
        match self.of(blank) {
            Some(Value::Amount(value, _)) => value,
            other => panic!("{} is no amount here: {other:?}", blank.key),
        }
    }

    /// The id of what was chosen in a blank of this sentence.
    ///
    /// # Panics
    /// It is no choice of this sentence: each calculation is tried by a test.
    #[must_use]
    pub fn choice(&self, blank: &Blank) -> &'static str {
        match self.of(blank) {
            Some(Value::Choice(id, _)) => id,
            other => panic!("{} is no choice here: {other:?}", blank.key),
        }
    }

    /// What was chosen, in its words.
    #[must_use]
    pub fn words(&self, blank: &Blank) -> &'static str {
        match self.of(blank) {
            Some(Value::Choice(_, words)) => words,
            Some(Value::Amount(..)) | None => "",
        }
    }

    /// Every amount whose unit shops differ in: key, value, unit.
    pub(super) fn amounts(&self) -> impl Iterator<Item = (&'static str, f64, Unit)> {
        self.values.iter().filter_map(|(blank, value)| match (value, blank.asks) {
            (Value::Amount(value, unit), Asks::Amount { kind, .. }) if kind.held_in().is_some() => {
                Some((blank.key, *value, *unit))
            }
            _ => None,
        })
    }

    /// What a figure of this sentence hangs on, as whoever asks says it.
    pub(super) fn facts(&self) -> Vec<FactUsed> {
        let text = |value: &Value| match value {
            Value::Amount(value, unit) => self.units.say_exactly(*value, *unit),
            Value::Choice(_, words) => (*words).to_owned(),
        };
        self.values
            .iter()
            .map(|(blank, value)| FactUsed { name: blank.label.to_owned(), text: text(value) })
            .collect()
    }
}

fn value(blank: &'static Blank, text: &str, units: UnitSystem) -> Result<Value, FieldProblem> {
    let (kind, low, high) = match blank.asks {
        Asks::OneOf(choices) => {
            let words = || choices.iter().map(|(_, words)| *words).collect::<Vec<_>>().join(", ");
            return choices
                .iter()
                .find(|(id, _)| *id == text)
                .map(|(id, words)| Value::Choice(id, words))
                .ok_or_else(|| {
                    FieldProblem::new(blank.key, format!("\"{text}\" is not known here"), words())
                });
        }
        Asks::Amount { kind, low, high } => (kind, low, high),
    };
    let typed = parse(text, kind, units).map_err(|wrong: NotUnderstood| {
        FieldProblem::new(blank.key, wrong.to_string(), NotUnderstood::would_be_right(kind))
    })?;
    if !(low..=high).contains(&typed.value) {
        let between =
            format!("{} to {}", units.say_exactly(low, typed.unit), units.say_exactly(high, typed.unit));
        let message = if typed.value < low { "that is too little" } else { "that is too much" };
        return Err(FieldProblem::new(blank.key, message, between.trim()));
    }
    Ok(Value::Amount(typed.value, typed.unit))
}
