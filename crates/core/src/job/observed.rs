//! One observation of the iron, as it was said.

use serde::Serialize;
use uuid::Uuid;

use crate::iron::{
    Confidence, Evidence, Finding, Iron, LookTest, Measured, MeasuredTest, TypedValues, in_system, mark_words,
};
use crate::quantity::UnitSystem;

/// One observation of the iron.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Observed {
    pub fact: Uuid,
    pub revision: u64,
    pub test: String,
    pub outcome: String,
    pub confidence: Confidence,
    pub spot: String,
    /// What was typed for a test that is measured or read; empty for one judged by look.
    pub typed: TypedValues,
    pub shown_in: UnitSystem,
    /// The hard spot that explains it: it no longer speaks for the iron.
    pub hard_spot: Option<Uuid>,
    /// Why it was struck; nothing while it stands.
    pub struck: Option<String>,
}

impl Observed {
    /// Neither struck out nor explained by a hard spot.
    #[must_use]
    pub fn stands(&self) -> bool {
        self.struck.is_none() && self.hard_spot.is_none()
    }

    fn measured(&self) -> Option<Measured> {
        let test = MeasuredTest::from_id(&self.test).filter(|_| !self.typed.is_empty())?;
        test.measure(&self.typed, self.shown_in).ok()
    }

    /// The evidence the belief is made from; nothing when it does not stand or is of an unknown kind.
    #[must_use]
    pub fn evidence(&self) -> Option<Evidence> {
        if !self.stands() {
            return None;
        }
        let finding = match (self.measured(), self.test.as_str()) {
            (Some(measured), _) => measured.finding,
            (None, "mark") => Finding::Mark(Iron::from_id(&self.outcome)?),
            (None, test) => {
                let test = LookTest::from_id(test)?;
                Finding::Look { test, outcome: test.outcome(&self.outcome)? }
            }
        };
        Some(Evidence { finding, confidence: self.confidence, spot: self.spot.clone() })
    }

    /// What was found, in words: "Punch: raises a rim".
    #[must_use]
    pub fn words(&self, units: UnitSystem) -> String {
        if let Some(test) = LookTest::from_id(&self.test) {
            let looks = test.outcome(&self.outcome).map_or("", |outcome| outcome.looks);
            return format!("{}: {looks}", test.label());
        }
        let label = MeasuredTest::from_id(&self.test).map_or("", MeasuredTest::label);
        match (self.measured(), Iron::from_id(&self.outcome)) {
            (Some(measured), _) => format!("{label}: {}", in_system(&measured.words, units)),
            (None, Some(iron)) => format!("{label}: {}", mark_words(iron)),
            (None, None) => label.to_owned(),
        }
    }

    /// What else a measured value says; empty for nothing.
    #[must_use]
    pub fn note(&self) -> String {
        self.measured().map_or(String::new(), |measured| measured.note)
    }
}
