//! The tests as they lie on the roll.

use serde::Serialize;

use crate::iron::{LookTest, MeasuredTest};
use crate::quantity::{Kind, UnitSystem};
use crate::render::said_exactly;

/// One outcome of a test, to be chosen by what it looks like.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OutcomeView {
    pub id: String,
    pub looks: String,
}

/// A test judged by look.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TestView {
    pub test: LookTest,
    pub label: String,
    pub minutes: f64,
    /// The mark it leaves; empty for none.
    pub mark: String,
    /// How to do it, and what to mind.
    pub how: String,
    pub caution: String,
    pub outcomes: Vec<OutcomeView>,
}

/// One thing to type for a measured test.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct AskedView {
    pub key: String,
    pub label: String,
    pub example: String,
    /// The unit a bare number is taken in; empty for words.
    pub unit_metric: String,
    pub unit_imperial: String,
    /// What is pressed beside the number keys of a phone; nothing where words are typed.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "schema", schema(value_type = Option<Vec<String>>))]
    pub keys: Option<&'static [&'static str]>,
}

/// A test that is measured or read.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MeasuredView {
    pub test: MeasuredTest,
    pub label: String,
    pub how: String,
    pub caution: String,
    pub asks: Vec<AskedView>,
}

/// The look before the tools: the break first, then what cuts, then what only listens or feels.
const ROLL: [LookTest; 7] = [
    LookTest::Fracture,
    LookTest::Punch,
    LookTest::Drill,
    LookTest::Spark,
    LookTest::Ring,
    LookTest::File,
    LookTest::Magnet,
];

/// The tests judged by look, as they lie on the roll.
#[must_use]
pub fn tool_roll() -> Vec<TestView> {
    ROLL.into_iter()
        .map(|test| {
            let (how, caution) = test.how();
            TestView {
                test,
                label: test.label().to_owned(),
                minutes: test.minutes(),
                mark: test.mark().unwrap_or_default().to_owned(),
                how: how.to_owned(),
                caution: caution.to_owned(),
                outcomes: test
                    .outcomes()
                    .iter()
                    .map(|o| OutcomeView { id: o.id.to_owned(), looks: o.looks.to_owned() })
                    .collect(),
            }
        })
        .collect()
}

/// The tests that are measured or read.
#[must_use]
pub fn measured_tests(units: UnitSystem) -> Vec<MeasuredView> {
    MeasuredTest::ALL
        .into_iter()
        .map(|test| {
            let (how, caution) = test.how();
            MeasuredView {
                test,
                label: test.label().to_owned(),
                how: how.to_owned(),
                caution: caution.to_owned(),
                asks: test
                    .asks()
                    .iter()
                    .map(|asked| {
                        let (metric, imperial) = asked.kind.and_then(Kind::asked_in).unwrap_or_default();
                        AskedView {
                            key: asked.key.to_owned(),
                            label: asked.label.to_owned(),
                            example: said_exactly(asked.example, units),
                            unit_metric: metric.to_owned(),
                            unit_imperial: imperial.to_owned(),
                            keys: asked.kind.map(|kind| kind.keys(units)),
                        }
                    })
                    .collect(),
            }
        })
        .collect()
}
