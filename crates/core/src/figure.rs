//! A figure with its working: the one type every stage of the plan uses.

use std::collections::HashMap;

use serde::{Serialize, Serializer};

use crate::quantity::{Rounding, Shown, Unit, UnitSystem, both, rounded};
use crate::render::{said, said_exactly};

/// Where a figure comes from.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", content = "name", rename_all = "snake_case")]
pub enum Source {
    /// A standard's designation.
    Standard(String),
    /// A law of physics or a theorem.
    Law(String),
    /// This project's own judgement.
    House,
    /// Plain geometry or arithmetic.
    Arithmetic,
    /// What this shop typed or measured.
    Shop,
}

/// How sure a figure is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Certainty {
    Measured,
    Computed,
    Estimate,
    Guess,
}

/// A fact a figure was worked out from.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FactUsed {
    pub name: String,
    pub text: String,
}

/// One number of a plan, and everything needed to ask it why.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Figure {
    /// Stable between plans of one job: *was* and *now* are matched by it.
    pub id: String,
    pub name: String,
    pub value: f64,
    pub low: Option<f64>,
    pub high: Option<f64>,
    /// "5.7 kg to 11.3 kg", in metric and in imperial units, where it is uncertain; empty otherwise.
    #[serde(default)]
    pub between_metric: String,
    #[serde(default)]
    pub between_imperial: String,
    pub unit: Unit,
    pub metric: Shown,
    pub imperial: Shown,
    /// The system it is shown in on a page.
    #[serde(skip)]
    pub shown_in: UnitSystem,
    /// One sentence with this job's numbers: what it hangs on. A template until the plan says it.
    #[serde(default)]
    pub because: String,
    /// Lines of the formula with this job's numbers in it; templates likewise.
    pub formula: Vec<String>,
    pub facts: Vec<FactUsed>,
    pub source: Source,
    pub certainty: Certainty,
    /// What else should be known about it; empty for nothing.
    pub note: String,
    /// The iron that forced it, of several in question; empty for none.
    #[serde(default)]
    pub forced_by: String,
}

/// A figure as it stands on a page; its working is asked for.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FigureSeen {
    pub id: String,
    pub name: String,
    pub unit: Unit,
    /// In the units of the device that asks.
    pub shown: Shown,
    /// "5.7 kg to 11.3 kg" where it is uncertain; left out otherwise.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub between: String,
    pub certainty: Certainty,
    /// What else should be known about it; left out for nothing.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
    /// The iron that forced it, of several in question; left out for none.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub forced_by: String,
}

impl From<&Figure> for FigureSeen {
    fn from(figure: &Figure) -> Self {
        let Figure { unit, certainty, shown_in, .. } = *figure;
        let shown = shown_in.of((&figure.metric, &figure.imperial));
        let between = shown_in.of((&figure.between_metric, &figure.between_imperial));
        Self {
            id: figure.id.clone(),
            name: figure.name.clone(),
            unit,
            shown: shown.clone(),
            between: between.clone(),
            certainty,
            note: figure.note.clone(),
            forced_by: figure.forced_by.clone(),
        }
    }
}

/// What travels of figures with a plan.
///
/// # Errors
/// Those of the serializer.
pub fn without_workings<S: Serializer>(figures: &[Figure], serializer: S) -> Result<S::Ok, S::Error> {
    serializer.collect_seq(figures.iter().map(FigureSeen::from))
}

/// House: from this share of its value on a figure's spread is wide.
const WIDE: f64 = 0.25;

impl Figure {
    #[must_use]
    pub fn new(id: impl Into<String>, name: impl Into<String>, value: f64, unit: Unit) -> Self {
        let (metric, imperial) = both(value, unit);
        Self {
            id: id.into(),
            name: name.into(),
            value,
            low: None,
            high: None,
            between_metric: String::new(),
            between_imperial: String::new(),
            unit,
            metric,
            imperial,
            shown_in: UnitSystem::default(),
            because: String::new(),
            formula: Vec::new(),
            facts: Vec::new(),
            source: Source::Arithmetic,
            certainty: Certainty::Computed,
            note: String::new(),
            forced_by: String::new(),
        }
    }

    /// Of several irons in question this one asks the most.
    #[must_use]
    pub fn forced_by(mut self, iron: impl Into<String>) -> Self {
        self.forced_by = iron.into();
        self
    }

    /// Rounded to its own side: what is needed at least or allowed at most, or as it was read.
    #[must_use]
    pub fn rounded(mut self, rounding: Rounding) -> Self {
        (self.metric, self.imperial) = rounded(self.value, self.unit, rounding);
        self
    }

    /// The figure is a window: both ends are shown, each rounded inwards where room is left between them.
    #[must_use]
    pub fn window(mut self, low: f64, high: f64) -> Self {
        (self.low, self.high) = (Some(low), Some(high));
        let between = |units: UnitSystem| {
            let (low, high) = units.window(low, high, self.unit);
            // A window that is a point is said once.
            if low.number == high.number { low.number } else { format!("{} to {}", low.number, high.number) }
        };
        (self.metric.number, self.imperial.number) =
            (between(UnitSystem::Metric), between(UnitSystem::Imperial));
        self
    }

    /// The figure is uncertain between these: where they lie wide apart it is said with *about*.
    #[must_use]
    pub fn between(mut self, low: f64, high: f64) -> Self {
        (self.low, self.high) = (Some(low), Some(high));
        if high - low > WIDE * self.value.abs() {
            for shown in [&mut self.metric, &mut self.imperial] {
                if shown.number.starts_with(|c: char| c.is_ascii_digit()) {
                    shown.number.insert_str(0, "about ");
                }
            }
        }
        let ((low_m, low_i), (high_m, high_i)) = (both(low, self.unit), both(high, self.unit));
        self.between_metric = format!("{} to {}", low_m.text(), high_m.text());
        self.between_imperial = format!("{} to {}", low_i.text(), high_i.text());
        self
    }

    #[must_use]
    pub fn because(mut self, sentence: impl Into<String>) -> Self {
        self.because = sentence.into();
        self
    }

    /// Its sentences, facts and formula in the units of a shop.
    #[must_use]
    pub fn said_in(mut self, units: UnitSystem) -> Self {
        self.shown_in = units;
        self.because = said(&self.because, units);
        self.note = said(&self.note, units);
        for line in &mut self.formula {
            *line = said_exactly(line, units);
        }
        for fact in &mut self.facts {
            fact.text = said(&fact.text, units);
        }
        self
    }

    /// An amount of money carries the shop's own sign.
    #[must_use]
    pub fn paid_in(mut self, currency: &str) -> Self {
        if self.unit == Unit::Money {
            currency.clone_into(&mut self.metric.unit);
            currency.clone_into(&mut self.imperial.unit);
        }
        self
    }

    #[must_use]
    pub fn formula(mut self, line: impl Into<String>) -> Self {
        self.formula.push(line.into());
        self
    }

    #[must_use]
    pub fn fact(mut self, name: impl Into<String>, text: impl Into<String>) -> Self {
        self.facts.push(FactUsed { name: name.into(), text: text.into() });
        self
    }

    #[must_use]
    pub fn source(mut self, source: Source, certainty: Certainty) -> Self {
        self.source = source;
        self.certainty = certainty;
        self
    }

    #[must_use]
    pub fn note(mut self, note: impl Into<String>) -> Self {
        self.note = note.into();
        self
    }
}

/// A figure that moved between two plans.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Moved {
    pub id: String,
    pub name: String,
    pub was_metric: String,
    pub was_imperial: String,
    pub now_metric: String,
    pub now_imperial: String,
}

/// The figures whose shown text differs, or that came or went, in the order of the new plan.
#[must_use]
pub fn moved(was: &[Figure], now: &[Figure]) -> Vec<Moved> {
    let text = |figure: Option<&Figure>| {
        figure.map_or_else(
            || ("nothing".to_owned(), "nothing".to_owned()),
            |f| (f.metric.text(), f.imperial.text()),
        )
    };
    let pair = |id: &str, name: &str, before: Option<&Figure>, after: Option<&Figure>| {
        let (was_metric, was_imperial) = text(before);
        let (now_metric, now_imperial) = text(after);
        (was_metric != now_metric).then(|| Moved {
            id: id.to_owned(),
            name: name.to_owned(),
            was_metric,
            was_imperial,
            now_metric,
            now_imperial,
        })
    };
    let by_id = |figures: &[Figure]| -> HashMap<String, usize> {
        figures.iter().enumerate().rev().map(|(at, figure)| (figure.id.clone(), at)).collect()
    };
    let (known, left) = (by_id(was), by_id(now));
    let changed = now.iter().filter_map(|after| {
        pair(&after.id, &after.name, known.get(&after.id).map(|at| &was[*at]), Some(after))
    });
    let gone = was
        .iter()
        .filter(|before| !left.contains_key(&before.id))
        .filter_map(|before| pair(&before.id, &before.name, Some(before), None));
    changed.chain(gone).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn rods(count: f64) -> Figure {
        Figure::new("prep.rods", "Rods", count, Unit::Count)
    }

    #[test]
    fn an_uncertain_figure_says_between_what_it_lies_and_a_window_shows_both_ends() {
        let weight = Figure::new("part.weight", "Weight", 8.5, Unit::Kilograms).between(5.7, 11.3);
        // Hand-worked: 5.7 / 0.45359237 = 12.57, 11.3 / 0.45359237 = 24.91
        assert_eq!(weight.between_metric, "5.7 kg to 11.3 kg");
        assert_eq!(weight.metric.text(), "about 8.5 kg");
        let weighed = Figure::new("part.weight", "Weight", 8.5, Unit::Kilograms).between(8.4, 8.6);
        assert_eq!(weighed.metric.text(), "8.5 kg");
        assert_eq!(weight.between_imperial, "12.6 lb to 24.9 lb");
        let window = Figure::new("heat.target", "Preheat", 300.0, Unit::Celsius).window(300.0, 400.0);
        assert_eq!((window.metric.number.as_str(), window.between_metric.as_str()), ("300 to 400", ""));
    }

    #[test]
    fn only_figures_whose_text_changed_have_moved() {
        let preheat = Figure::new("heat.target", "Preheat", 300.2, Unit::Celsius);
        let same_text = Figure::new("heat.target", "Preheat", 300.3, Unit::Celsius);
        let found = moved(&[rods(13.0), preheat], &[rods(14.0), same_text]);
        assert_eq!(found.len(), 1);
        assert_eq!((found[0].was_metric.as_str(), found[0].now_metric.as_str()), ("13", "14"));
    }

    #[test]
    fn a_figure_that_came_or_went_has_moved() {
        assert_eq!(moved(&[], &[rods(2.0)])[0].was_metric, "nothing");
        assert_eq!(moved(&[rods(2.0)], &[])[0].now_metric, "nothing");
    }
}
