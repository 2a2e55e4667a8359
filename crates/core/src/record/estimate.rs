//! An estimate as it was given: its prices stand until its day, whatever the stores cost by then.

use serde::{Deserialize, Serialize};

use crate::base::problem::FieldProblem;

/// Ours. Raised when the shape below changes; older ones stay readable.
pub const ESTIMATE_FORMAT: u32 = 1;

/// One line of an estimate.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EstimateLine {
    pub what: String,
    /// "6 h 20 × 45"
    pub working: String,
    pub amount: f64,
}

/// What was offered.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Estimate {
    pub format: u32,
    /// `YYYY-MM-DD`: given on, and stands until.
    pub on: String,
    pub until: String,
    /// "Nickel-iron stick, hot".
    pub label: String,
    pub currency: String,
    pub lines: Vec<EstimateLine>,
    pub total: f64,
    /// What is not in it, since nobody has said what it costs.
    pub without: Vec<String>,
    /// "72 of 100 hold a year of ordinary use", and when it could be ready.
    pub odds: String,
    pub ready: String,
}

/// House: lines of an estimate.
const LINES_MOST: usize = 200;
/// House: letters of one of its texts.
const TEXT_MOST: usize = 400;
/// House: no estimate is dearer, in any money.
const MONEY_MOST: f64 = 1e9;

impl Estimate {
    /// Whether it may have been given here: what comes in a file is shown on pages.
    ///
    /// # Errors
    /// It holds more than an estimate does.
    pub fn possible(&self) -> Result<(), FieldProblem> {
        let wrong =
            |what: &str| Err(FieldProblem::new("estimate", what, "an estimate as it is written here"));
        let money = |amount: f64| amount.is_finite() && amount.abs() <= MONEY_MOST;
        if self.format != ESTIMATE_FORMAT {
            return wrong("an estimate of another version");
        }
        if self.lines.len() > LINES_MOST || self.without.len() > LINES_MOST {
            return wrong("more lines than an estimate has");
        }
        if !money(self.total) || !self.lines.iter().all(|line| money(line.amount)) {
            return wrong("more money than there is");
        }
        let lines = self.lines.iter().flat_map(|line| [&line.what, &line.working]);
        let words = [&self.on, &self.until, &self.label, &self.currency, &self.odds, &self.ready];
        if lines.chain(&self.without).chain(words).any(|text| text.chars().count() > TEXT_MOST) {
            return wrong("a text longer than an estimate has");
        }
        Ok(())
    }
}
