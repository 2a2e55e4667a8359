//! What is wrong with an input, where, and what would be right.

use serde::Serialize;

/// One thing that is wrong with an input, said at its field.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FieldProblem {
    /// Wire name of the field, dotted where it is inside another one.
    pub field: String,
    /// A sentence for the person at the bench.
    pub message: String,
    /// An example or a range of what would do; empty where nothing would.
    pub would_be_right: String,
}

impl FieldProblem {
    #[must_use]
    pub fn new(
        field: impl Into<String>,
        message: impl Into<String>,
        would_be_right: impl Into<String>,
    ) -> Self {
        Self { field: field.into(), message: message.into(), would_be_right: would_be_right.into() }
    }
}

/// Collects the problems of every field of a request, so that all are told at once.
#[derive(Debug, Default)]
pub struct Problems(Vec<FieldProblem>);

impl Problems {
    /// The checked value, or nothing and one more problem at `field`.
    pub fn take<T>(&mut self, field: &str, checked: Result<T, OutOfRange>) -> Option<T> {
        match checked {
            Ok(value) => Some(value),
            Err(out) => {
                self.0.push(out.at(field));
                None
            }
        }
    }

    pub fn add(&mut self, problem: FieldProblem) {
        self.0.push(problem);
    }

    /// `Err` with all that was collected, `Ok` when there was nothing.
    ///
    /// # Errors
    /// The collected problems.
    pub fn finish(self) -> Result<(), Vec<FieldProblem>> {
        if self.0.is_empty() { Ok(()) } else { Err(self.0) }
    }
}

/// A number outside the bounds of its quantity.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
#[error("{what} must be {low} to {high} {unit}, got {got}")]
pub struct OutOfRange {
    pub what: &'static str,
    pub unit: &'static str,
    pub low: f64,
    pub high: f64,
    pub got: f64,
}

impl OutOfRange {
    /// `Ok(got)` when it is finite and within `low..=high`.
    ///
    /// # Errors
    /// [`OutOfRange`] otherwise.
    pub fn check(
        what: &'static str,
        unit: &'static str,
        (low, high): (f64, f64),
        got: f64,
    ) -> Result<f64, Self> {
        if got.is_finite() && (low..=high).contains(&got) {
            Ok(got)
        } else {
            Err(Self { what, unit, low, high, got })
        }
    }

    #[must_use]
    pub fn at(self, field: &str) -> FieldProblem {
        FieldProblem::new(
            field,
            self.to_string(),
            format!("{} to {} {}", self.low, self.high, self.unit).trim().to_owned(),
        )
    }
}
