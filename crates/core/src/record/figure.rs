//! A figure as it is kept: what a plan's figure said, in types that no later plan changes.

use serde::{Deserialize, Serialize};

use crate::figure::{Certainty, Figure, Source};
use crate::quantity::Shown;

/// A number and its unit, as they were shown.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FrozenText {
    pub number: String,
    pub unit: String,
}

impl From<&Shown> for FrozenText {
    fn from(shown: &Shown) -> Self {
        Self { number: shown.number.clone(), unit: shown.unit.clone() }
    }
}

/// A fact the figure was worked out from.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FrozenFact {
    pub name: String,
    pub text: String,
}

/// Where the figure came from: standard, law, house, arithmetic or shop, and the name of the first two.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FrozenSource {
    pub kind: String,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
}

impl From<&Source> for FrozenSource {
    fn from(source: &Source) -> Self {
        let (kind, name) = match source {
            Source::Standard(name) => ("standard", Some(name)),
            Source::Law(name) => ("law", Some(name)),
            Source::House => ("house", None),
            Source::Arithmetic => ("arithmetic", None),
            Source::Shop => ("shop", None),
        };
        Self { kind: kind.to_owned(), name: name.cloned() }
    }
}

/// One number of a plan as it stood when the torch was lit.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FrozenFigure {
    pub id: String,
    pub name: String,
    /// In the unit the core worked in.
    pub value: f64,
    pub low: Option<f64>,
    pub high: Option<f64>,
    #[serde(default)]
    pub between_metric: String,
    #[serde(default)]
    pub between_imperial: String,
    /// The unit of `value`, by its word: "millimetres".
    pub unit: String,
    pub metric: FrozenText,
    pub imperial: FrozenText,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub because: String,
    pub formula: Vec<String>,
    pub facts: Vec<FrozenFact>,
    pub source: FrozenSource,
    /// measured, computed, estimate or guess
    pub certainty: String,
    pub note: String,
    #[serde(default)]
    pub forced_by: String,
}

impl From<&Figure> for FrozenFigure {
    fn from(figure: &Figure) -> Self {
        let certainty = match figure.certainty {
            Certainty::Measured => "measured",
            Certainty::Computed => "computed",
            Certainty::Estimate => "estimate",
            Certainty::Guess => "guess",
        };
        let fact =
            |fact: &crate::figure::FactUsed| FrozenFact { name: fact.name.clone(), text: fact.text.clone() };
        Self {
            id: figure.id.clone(),
            name: figure.name.clone(),
            value: figure.value,
            low: figure.low,
            high: figure.high,
            between_metric: figure.between_metric.clone(),
            between_imperial: figure.between_imperial.clone(),
            unit: figure.unit.word().to_owned(),
            metric: (&figure.metric).into(),
            imperial: (&figure.imperial).into(),
            because: figure.because.clone(),
            formula: figure.formula.clone(),
            facts: figure.facts.iter().map(fact).collect(),
            source: (&figure.source).into(),
            certainty: certainty.to_owned(),
            note: figure.note.clone(),
            forced_by: figure.forced_by.clone(),
        }
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::quantity::Unit;

    /// What was frozen while figures were kept as the plan's own reads the same, and is written the same.
    #[rstest]
    #[case::named(Source::Standard("EN 1561".into()), Certainty::Computed, Unit::Celsius)]
    #[case::unnamed(Source::House, Certainty::Guess, Unit::KelvinsPerHour)]
    #[case::measured(Source::Shop, Certainty::Measured, Unit::SquareMillimetres)]
    fn is_written_as_figures_were_before(
        #[case] source: Source,
        #[case] certainty: Certainty,
        #[case] unit: Unit,
    ) {
        let figure = Figure::new("heat.target", "Preheat", 300.25, unit)
            .between(280.0, 320.0)
            .because("As the wall wants it.")
            .formula("as the wall wants it")
            .fact("Wall", "12 mm")
            .source(source, certainty)
            .note("Read it at the far corner.")
            .forced_by("ductile");
        let frozen = FrozenFigure::from(&figure);
        let before = serde_json::to_value(&figure).unwrap();
        assert_eq!(serde_json::to_value(&frozen).unwrap(), before);
        assert_eq!(serde_json::from_value::<FrozenFigure>(before).unwrap(), frozen);
    }
}
